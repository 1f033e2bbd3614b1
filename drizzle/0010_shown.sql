CREATE TABLE `client_sheet` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`project_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`body` text NOT NULL,
	`shown` text,
	`shown_at` integer,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `client_sheet_name` ON `client_sheet` (`project_id`,`name_key`);--> statement-breakpoint
CREATE TABLE `mockup` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`project_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`body` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `mockup_name` ON `mockup` (`project_id`,`name_key`);--> statement-breakpoint
CREATE TABLE `mockup_still` (
	`mockup_id` text PRIMARY KEY NOT NULL,
	`bytes` blob NOT NULL,
	`media_type` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`made_at` integer NOT NULL,
	FOREIGN KEY (`mockup_id`) REFERENCES `mockup`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `photo_object` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`body` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `photo_object_name` ON `photo_object` (`studio_id`,`name_key`);--> statement-breakpoint
CREATE TABLE `sheet_answer` (
	`id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`item_id` text NOT NULL,
	`who` text DEFAULT '' NOT NULL,
	`choice` text,
	`words` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`read_at` integer,
	FOREIGN KEY (`token`) REFERENCES `sheet_link`(`token`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sheet_answer_link` ON `sheet_answer` (`token`);--> statement-breakpoint
CREATE TABLE `sheet_link` (
	`token` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`sheet_id` text NOT NULL,
	`sent_to` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`ends_at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`sheet_id`) REFERENCES `client_sheet`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sheet_link_sheet` ON `sheet_link` (`sheet_id`);--> statement-breakpoint
CREATE TABLE `sheet_picture` (
	`sheet_id` text NOT NULL,
	`item_id` text NOT NULL,
	`bytes` blob NOT NULL,
	`media_type` text NOT NULL,
	`made_at` integer NOT NULL,
	PRIMARY KEY(`sheet_id`, `item_id`),
	FOREIGN KEY (`sheet_id`) REFERENCES `client_sheet`(`id`) ON UPDATE no action ON DELETE cascade
);
