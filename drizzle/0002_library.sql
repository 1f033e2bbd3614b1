CREATE TABLE `bulk_change` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`kind` text NOT NULL,
	`summary` text NOT NULL,
	`fills` text NOT NULL,
	`created_at` integer NOT NULL,
	`undone_at` integer,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `collection` (
	`id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`name` text NOT NULL,
	`name_key` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `collection_name` ON `collection` (`studio_id`,`name_key`);--> statement-breakpoint
CREATE TABLE `collection_pattern` (
	`collection_id` text NOT NULL,
	`pattern_id` text NOT NULL,
	PRIMARY KEY(`collection_id`, `pattern_id`),
	FOREIGN KEY (`collection_id`) REFERENCES `collection`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `collection_of` ON `collection_pattern` (`pattern_id`);--> statement-breakpoint
CREATE TABLE `fill_link` (
	`fill_id` text NOT NULL,
	`colour_id` text NOT NULL,
	PRIMARY KEY(`fill_id`, `colour_id`),
	FOREIGN KEY (`fill_id`) REFERENCES `fill`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `fill_link_colour` ON `fill_link` (`colour_id`);--> statement-breakpoint
CREATE TABLE `pattern_colour` (
	`pattern_id` text NOT NULL,
	`position` integer NOT NULL,
	`hex` text NOT NULL,
	`link` text,
	PRIMARY KEY(`pattern_id`, `position`),
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `pattern_colour_hex` ON `pattern_colour` (`hex`);--> statement-breakpoint
CREATE INDEX `pattern_colour_link` ON `pattern_colour` (`link`) WHERE link is not null;--> statement-breakpoint
CREATE TABLE `pattern_tag` (
	`pattern_id` text NOT NULL,
	`tag` text NOT NULL,
	`tag_key` text NOT NULL,
	PRIMARY KEY(`pattern_id`, `tag_key`),
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `tag_pattern` ON `pattern_tag` (`tag_key`,`pattern_id`);--> statement-breakpoint
ALTER TABLE `fill` ADD `colour_link` text;--> statement-breakpoint
ALTER TABLE `fill` ADD `ground_link` text;--> statement-breakpoint
ALTER TABLE `fill` ADD `colourway_id` text REFERENCES colourway(id);--> statement-breakpoint
ALTER TABLE `fill` ADD `look` text;--> statement-breakpoint
CREATE INDEX `fill_colourway` ON `fill` (`colourway_id`) WHERE colourway_id is not null;--> statement-breakpoint
ALTER TABLE `layout` ADD `background_link` text;--> statement-breakpoint
ALTER TABLE `palette` ADD `project_id` text REFERENCES project(id);--> statement-breakpoint
ALTER TABLE `palette_colour` ADD `css` text;--> statement-breakpoint
ALTER TABLE `palette_colour` ADD `gradient` text;--> statement-breakpoint
ALTER TABLE `palette_colour` ADD `removed_at` integer;--> statement-breakpoint
ALTER TABLE `pattern` ADD `seq` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `author` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `source` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `licence` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `attribution` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `kind` text DEFAULT 'drawn' NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `repeat_kind` text DEFAULT 'straight' NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `unit_width` real DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `unit_height` real DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `colour_count` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `clear` integer DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `pattern` ADD `last_used_at` integer;--> statement-breakpoint
UPDATE `pattern` SET `seq` = rowid;--> statement-breakpoint
CREATE UNIQUE INDEX `pattern_seq` ON `pattern` (`seq`);--> statement-breakpoint
CREATE INDEX `pattern_new` ON `pattern` (`studio_id`,`archived_at`,`created_at`);--> statement-breakpoint
UPDATE `pattern` SET
  `kind` = CASE WHEN coalesce(json_extract(r.`metrics`, '$.kind'), 'composed') = 'measured' THEN 'measured'
    WHEN r.`recipe` LIKE '%"picture":{%' THEN 'picture' ELSE 'drawn' END,
  `repeat_kind` = json_extract(r.`metrics`, '$.repeat.kind'),
  `unit_width` = json_extract(r.`metrics`, '$.unit.width'),
  `unit_height` = json_extract(r.`metrics`, '$.unit.height'),
  `colour_count` = json_array_length(r.`metrics`, '$.slots'),
  `clear` = coalesce(json_extract(r.`metrics`, '$.clear'), 0)
FROM `revision` AS r WHERE r.`pattern_id` = `pattern`.`id` AND r.`number` = `pattern`.`newest`;
--> statement-breakpoint
INSERT INTO `pattern_colour` (`pattern_id`, `position`, `hex`)
SELECT r.`pattern_id`, s.`key`, json_extract(s.`value`, '$.colour')
FROM `pattern` AS p
JOIN `revision` AS r ON r.`pattern_id` = p.`id` AND r.`number` = p.`newest`, json_each(r.`metrics`, '$.slots') AS s;
--> statement-breakpoint
UPDATE `pattern` SET `last_used_at` = (
  SELECT max(l.`updated_at`) FROM `fill` AS f JOIN `shape` AS s ON s.`id` = f.`shape_id` JOIN `layout` AS l ON l.`id` = s.`layout_id`
  WHERE f.`pattern_id` = `pattern`.`id`
);
--> statement-breakpoint
DROP TRIGGER `pattern_search_insert`;
--> statement-breakpoint
DROP TRIGGER `pattern_search_update`;
--> statement-breakpoint
DROP TRIGGER `pattern_search_delete`;
--> statement-breakpoint
DROP TABLE `pattern_search`;
--> statement-breakpoint
CREATE VIRTUAL TABLE `pattern_search` USING fts5(`name`, `description`, `tags`, `collections`, `credit`, `colours`, tokenize = 'unicode61 remove_diacritics 2', prefix = '1 2 3');
--> statement-breakpoint
INSERT INTO `pattern_search` (`rowid`, `name`, `description`, `tags`, `collections`, `credit`, `colours`)
SELECT `seq`, `name`, `description`, '', '', '', '' FROM `pattern`;
--> statement-breakpoint
CREATE TRIGGER `pattern_search_delete` AFTER DELETE ON `pattern` BEGIN
  DELETE FROM `pattern_search` WHERE rowid = old.`seq`;
END;
