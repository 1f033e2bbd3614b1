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
