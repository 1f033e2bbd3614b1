ALTER TABLE `fill` ADD `blend` text DEFAULT 'normal' NOT NULL;--> statement-breakpoint
ALTER TABLE `fill` ADD `shown` integer DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `fill` ADD `mask` text;--> statement-breakpoint
ALTER TABLE `fill` ADD `gradient` text;--> statement-breakpoint
ALTER TABLE `fill` ADD `asset` text;--> statement-breakpoint
ALTER TABLE `fill` ADD `picture_width` integer;--> statement-breakpoint
ALTER TABLE `fill` ADD `picture_height` integer;--> statement-breakpoint
ALTER TABLE `fill` ADD `reflect_x` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `fill` ADD `reflect_y` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `fill` ADD `anchored` text DEFAULT 'shape' NOT NULL;--> statement-breakpoint
ALTER TABLE `shape` ADD `skew` real DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `shape` ADD `reflect_x` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `shape` ADD `reflect_y` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `shape` ADD `locked` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `shape` ADD `hidden` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `shape` ADD `mask` text;