CREATE VIRTUAL TABLE `pattern_search` USING fts5(`pattern_id` UNINDEXED, `name`, `description`, tokenize = 'unicode61 remove_diacritics 2', prefix = '1 2 3');
--> statement-breakpoint
CREATE TRIGGER `pattern_search_insert` AFTER INSERT ON `pattern` BEGIN
  INSERT INTO `pattern_search` (`pattern_id`, `name`, `description`) VALUES (new.`id`, new.`name`, new.`description`);
END;
--> statement-breakpoint
CREATE TRIGGER `pattern_search_update` AFTER UPDATE OF `name`, `description` ON `pattern` BEGIN
  UPDATE `pattern_search` SET `name` = new.`name`, `description` = new.`description` WHERE `pattern_id` = new.`id`;
END;
--> statement-breakpoint
CREATE TRIGGER `pattern_search_delete` AFTER DELETE ON `pattern` BEGIN
  DELETE FROM `pattern_search` WHERE `pattern_id` = old.`id`;
END;
