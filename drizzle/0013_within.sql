ALTER TABLE `fill` ADD `layout_id` text REFERENCES layout(id) ON DELETE set null;
