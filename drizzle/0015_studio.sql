CREATE TABLE `layout_log` (
	`layout_id` text NOT NULL,
	`version` integer NOT NULL,
	`person_id` text,
	`at` integer NOT NULL,
	`changes` text,
	`back` blob NOT NULL,
	`assets` text,
	`name` text,
	PRIMARY KEY(`layout_id`, `version`),
	FOREIGN KEY (`layout_id`) REFERENCES `layout`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `layout_log_at` ON `layout_log` (`at`);--> statement-breakpoint
CREATE TABLE `approval` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`kind` text NOT NULL,
	`state` text NOT NULL,
	`person_id` text,
	`at` integer NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `comment` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`kind` text NOT NULL,
	`subject_id` text NOT NULL,
	`parent_id` text,
	`shape_id` text,
	`x` real,
	`y` real,
	`person_id` text NOT NULL,
	`words` text NOT NULL,
	`mentions` text DEFAULT '[]' NOT NULL,
	`created_at` integer NOT NULL,
	`done_at` integer,
	`done_by` text,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `comment_about` ON `comment` (`subject_id`,`created_at`);--> statement-breakpoint
CREATE TABLE `comment_read` (
	`person_id` text NOT NULL,
	`subject_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `subject_id`),
	FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `invitation` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`role` text NOT NULL,
	`name` text NOT NULL,
	`projects` text DEFAULT '[]' NOT NULL,
	`person_id` text,
	`leaves_at` integer,
	`made_by` text,
	`created_at` integer NOT NULL,
	`ends_at` integer NOT NULL,
	`used_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `passkey` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`name` text NOT NULL,
	`public_key` blob NOT NULL,
	`counter` integer NOT NULL,
	`transports` text DEFAULT '[]' NOT NULL,
	`created_at` integer NOT NULL,
	`used_at` integer,
	FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `passkey_of` ON `passkey` (`person_id`);--> statement-breakpoint
CREATE TABLE `person` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`name` text NOT NULL,
	`email` text,
	`role` text NOT NULL,
	`colour` text NOT NULL,
	`password` text,
	`created_at` integer NOT NULL,
	`ends_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `person_email` ON `person` (`studio_id`,`email`);--> statement-breakpoint
CREATE TABLE `project_person` (
	`project_id` text NOT NULL,
	`person_id` text NOT NULL,
	PRIMARY KEY(`project_id`, `person_id`),
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `project_person_of` ON `project_person` (`person_id`);--> statement-breakpoint
CREATE TABLE `session` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`device` text NOT NULL,
	`created_at` integer NOT NULL,
	`seen_at` integer NOT NULL,
	`ends_at` integer NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `session_of` ON `session` (`person_id`);--> statement-breakpoint
ALTER TABLE `event` ADD `person_id` text;--> statement-breakpoint
ALTER TABLE `project` ADD `closed` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `project` ADD `demands_approval` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `studio` ADD `opened_at` integer;--> statement-breakpoint
ALTER TABLE `studio` ADD `open_patterns` integer DEFAULT false NOT NULL;--> statement-breakpoint
DROP TABLE `member`;
