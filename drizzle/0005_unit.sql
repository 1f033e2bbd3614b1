ALTER TABLE `project` ADD `measure` text DEFAULT 'mm' NOT NULL;--> statement-breakpoint
UPDATE `project` SET `measure` = coalesce((SELECT `measure` FROM `layout` WHERE `layout`.`project_id` = `project`.`id` ORDER BY `layout`.`updated_at` DESC LIMIT 1), 'mm');
