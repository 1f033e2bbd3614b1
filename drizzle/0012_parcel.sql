CREATE TABLE `parcel` (
	`project_id` text PRIMARY KEY NOT NULL,
	`studio_id` text NOT NULL,
	`wish` text NOT NULL,
	`held` text NOT NULL,
	`made_at` integer NOT NULL,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON UPDATE no action ON DELETE no action
);
