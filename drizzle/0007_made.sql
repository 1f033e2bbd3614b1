CREATE TABLE `made_file` (
	`hash` text PRIMARY KEY NOT NULL,
	`bytes` blob NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `made_picture` (
	`pattern_id` text NOT NULL,
	`number` integer NOT NULL,
	`hash` text NOT NULL,
	`steps` text NOT NULL,
	PRIMARY KEY(`pattern_id`, `number`),
	FOREIGN KEY (`pattern_id`) REFERENCES `pattern`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `made_picture_hash` ON `made_picture` (`hash`);