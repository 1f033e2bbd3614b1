CREATE TABLE `setting` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `__new_fill` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`shape_id` text NOT NULL,
	`part` text DEFAULT 'fill' NOT NULL,
	`position` integer DEFAULT 0 NOT NULL,
	`kind` text NOT NULL,
	`version` integer NOT NULL,
	`opacity` real NOT NULL,
	`blend` text DEFAULT 'normal' NOT NULL,
	`shown` integer DEFAULT true NOT NULL,
	`mask` text,
	`gradient` text,
	`asset` text,
	`picture_width` integer,
	`picture_height` integer,
	`colour` text,
	`colour_link` text,
	`pattern_id` text,
	`held_revision` integer,
	`scale_x` real DEFAULT 1 NOT NULL,
	`scale_y` real DEFAULT 1 NOT NULL,
	`rotation` real DEFAULT 0 NOT NULL,
	`skew` real DEFAULT 0 NOT NULL,
	`offset_x` real DEFAULT 0 NOT NULL,
	`offset_y` real DEFAULT 0 NOT NULL,
	`reflect_x` integer DEFAULT false NOT NULL,
	`reflect_y` integer DEFAULT false NOT NULL,
	`anchored` text DEFAULT 'shape' NOT NULL,
	`anchor_x` real DEFAULT 0 NOT NULL,
	`anchor_y` real DEFAULT 0 NOT NULL,
	`ground_kind` text DEFAULT 'own' NOT NULL,
	`ground_colour` text,
	`ground_link` text,
	`ground_opacity` real DEFAULT 1 NOT NULL,
	`colourway_id` text,
	`colours` text DEFAULT '{}' NOT NULL,
	`look` text,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`shape_id`) REFERENCES `shape`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`colourway_id`) REFERENCES `colourway`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`studio_id`,`asset`) REFERENCES `motif_asset`(`studio_id`,`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_fill`("id", "studio_id", "shape_id", "part", "position", "kind", "version", "opacity", "blend", "shown", "mask", "gradient", "asset", "picture_width", "picture_height", "colour", "colour_link", "pattern_id", "held_revision", "scale_x", "scale_y", "rotation", "skew", "offset_x", "offset_y", "reflect_x", "reflect_y", "anchored", "anchor_x", "anchor_y", "ground_kind", "ground_colour", "ground_link", "ground_opacity", "colourway_id", "colours", "look") SELECT "id", "studio_id", "shape_id", "part", "position", "kind", "version", "opacity", "blend", "shown", "mask", "gradient", "asset", "picture_width", "picture_height", "colour", "colour_link", "pattern_id", "held_revision", "scale_x", "scale_y", "rotation", "skew", "offset_x", "offset_y", "reflect_x", "reflect_y", "anchored", "anchor_x", "anchor_y", "ground_kind", "ground_colour", "ground_link", "ground_opacity", "colourway_id", "colours", "look" FROM `fill` WHERE "asset" IS NULL OR EXISTS (SELECT 1 FROM `motif_asset` WHERE `motif_asset`.`studio_id` = `fill`.`studio_id` AND `motif_asset`.`hash` = `fill`.`asset`);--> statement-breakpoint
DROP TABLE `fill`;--> statement-breakpoint
ALTER TABLE `__new_fill` RENAME TO `fill`;--> statement-breakpoint
CREATE INDEX `fill_asset` ON `fill` (`asset`) WHERE asset is not null;--> statement-breakpoint
CREATE UNIQUE INDEX `fill_stack` ON `fill` (`shape_id`,`part`,`position`);--> statement-breakpoint
CREATE INDEX `fill_pattern` ON `fill` (`pattern_id`) WHERE pattern_id is not null;--> statement-breakpoint
CREATE INDEX `fill_colourway` ON `fill` (`colourway_id`) WHERE colourway_id is not null;--> statement-breakpoint
CREATE TABLE `__new_shape` (
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
	`skew` real DEFAULT 0 NOT NULL,
	`reflect_x` integer DEFAULT false NOT NULL,
	`reflect_y` integer DEFAULT false NOT NULL,
	`locked` integer DEFAULT false NOT NULL,
	`hidden` integer DEFAULT false NOT NULL,
	`mask` text,
	`stroke` text,
	`group_id` text,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`layout_id`) REFERENCES `layout`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`group_id`) REFERENCES `shape_group`(`id`) ON UPDATE no action ON DELETE set null DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_shape`("id", "studio_id", "layout_id", "position", "name", "form", "x", "y", "width", "height", "rotation", "skew", "reflect_x", "reflect_y", "locked", "hidden", "mask", "stroke", "group_id") SELECT "id", "studio_id", "layout_id", "position", "name", "form", "x", "y", "width", "height", "rotation", "skew", "reflect_x", "reflect_y", "locked", "hidden", "mask", "stroke", (SELECT `id` FROM `shape_group` WHERE `shape_group`.`id` = `shape`.`group_id`) FROM `shape`;--> statement-breakpoint
DROP TABLE `shape`;--> statement-breakpoint
ALTER TABLE `__new_shape` RENAME TO `shape`;--> statement-breakpoint
CREATE INDEX `shape_place` ON `shape` (`layout_id`,`position`);--> statement-breakpoint
CREATE INDEX `shape_group_of` ON `shape` (`group_id`) WHERE group_id is not null;--> statement-breakpoint
ALTER TABLE `revision` DROP COLUMN `thumbnail_key`;