CREATE TABLE `shape_group` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`layout_id` text NOT NULL,
	`name` text NOT NULL,
	`parent` text,
	`locked` integer DEFAULT false NOT NULL,
	`hidden` integer DEFAULT false NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`layout_id`) REFERENCES `layout`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `shape_group_layout` ON `shape_group` (`layout_id`);--> statement-breakpoint
CREATE TABLE `strike_off` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`project_id` text NOT NULL,
	`layout_id` text NOT NULL,
	`shape_id` text NOT NULL,
	`name` text NOT NULL,
	`sheet` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `strike_off_project` ON `strike_off` (`project_id`);--> statement-breakpoint
DROP INDEX `fill_place`;--> statement-breakpoint
ALTER TABLE `fill` ADD `part` text DEFAULT 'fill' NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX `fill_stack` ON `fill` (`shape_id`,`part`,`position`);--> statement-breakpoint
ALTER TABLE `layout` ADD `bleed` real DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `layout` ADD `margin` real DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `layout` ADD `guides` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `shape` ADD `stroke` text;--> statement-breakpoint
ALTER TABLE `shape` ADD `group_id` text;