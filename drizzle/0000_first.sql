CREATE TABLE `colourway` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`pattern_id` text NOT NULL,
	`name` text NOT NULL,
	`position` integer NOT NULL,
	`colours` text NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `colourway_place` ON `colourway` (`pattern_id`,`position`);--> statement-breakpoint
CREATE TABLE `event` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`studio_id` text NOT NULL,
	`kind` text NOT NULL,
	`subject_id` text NOT NULL,
	`data` text DEFAULT '{}' NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `event_subject` ON `event` (`subject_id`,`id`);--> statement-breakpoint
CREATE TABLE `fill` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`shape_id` text NOT NULL,
	`position` integer DEFAULT 0 NOT NULL,
	`kind` text NOT NULL,
	`version` integer NOT NULL,
	`opacity` real NOT NULL,
	`colour` text,
	`pattern_id` text,
	`held_revision` integer,
	`scale_x` real DEFAULT 1 NOT NULL,
	`scale_y` real DEFAULT 1 NOT NULL,
	`rotation` real DEFAULT 0 NOT NULL,
	`skew` real DEFAULT 0 NOT NULL,
	`offset_x` real DEFAULT 0 NOT NULL,
	`offset_y` real DEFAULT 0 NOT NULL,
	`anchor_x` real DEFAULT 0 NOT NULL,
	`anchor_y` real DEFAULT 0 NOT NULL,
	`ground_kind` text DEFAULT 'own' NOT NULL,
	`ground_colour` text,
	`ground_opacity` real DEFAULT 1 NOT NULL,
	`colours` text DEFAULT '{}' NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`shape_id`) REFERENCES `shape`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `fill_place` ON `fill` (`shape_id`,`position`);--> statement-breakpoint
CREATE INDEX `fill_pattern` ON `fill` (`pattern_id`) WHERE pattern_id is not null;--> statement-breakpoint
CREATE TABLE `layout` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`project_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`width` real NOT NULL,
	`height` real NOT NULL,
	`measure` text NOT NULL,
	`ppi` real NOT NULL,
	`background` text,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `layout_name` ON `layout` (`project_id`,`name_key`);--> statement-breakpoint
CREATE TABLE `member` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`name` text NOT NULL,
	`role` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `motif_asset` (
	`hash` text NOT NULL,
	`studio_id` text NOT NULL,
	`media_type` text NOT NULL,
	`file_name` text NOT NULL,
	`bytes` blob NOT NULL,
	`created_at` integer NOT NULL,
	PRIMARY KEY(`studio_id`, `hash`),
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `palette` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `palette_name` ON `palette` (`studio_id`,`name_key`);--> statement-breakpoint
CREATE TABLE `palette_colour` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`palette_id` text NOT NULL,
	`position` integer NOT NULL,
	`name` text NOT NULL,
	`hex` text NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`palette_id`) REFERENCES `palette`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `palette_colour_place` ON `palette_colour` (`palette_id`,`position`);--> statement-breakpoint
CREATE TABLE `pattern` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`description` text DEFAULT '' NOT NULL,
	`stock` integer DEFAULT false NOT NULL,
	`newest` integer DEFAULT 0 NOT NULL,
	`draft` text,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `pattern_name` ON `pattern` (`studio_id`,`name_key`);--> statement-breakpoint
CREATE INDEX `pattern_live` ON `pattern` (`studio_id`,`archived_at`,`name_key`);--> statement-breakpoint
CREATE TABLE `project` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `project_name` ON `project` (`studio_id`,`name_key`);--> statement-breakpoint
CREATE TABLE `revision` (
	`pattern_id` text NOT NULL,
	`number` integer NOT NULL,
	`studio_id` text NOT NULL,
	`recipe` text NOT NULL,
	`recipe_version` integer NOT NULL,
	`metrics` text NOT NULL,
	`thumbnail_key` text,
	`created_at` integer NOT NULL,
	PRIMARY KEY(`pattern_id`, `number`),
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `shape` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`layout_id` text NOT NULL,
	`position` integer NOT NULL,
	`name` text NOT NULL,
	`form` text NOT NULL,
	`x` real NOT NULL,
	`y` real NOT NULL,
	`width` real NOT NULL,
	`height` real NOT NULL,
	`rotation` real NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`layout_id`) REFERENCES `layout`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `shape_place` ON `shape` (`layout_id`,`position`);--> statement-breakpoint
CREATE TABLE `studio` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`created_at` integer NOT NULL
);
