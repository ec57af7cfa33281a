CREATE TABLE `libraries` (
	`id` integer PRIMARY KEY NOT NULL,
	`epoch` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `token_saves` (
	`token_id` text NOT NULL,
	`item_id` text NOT NULL,
	`saved_at` integer NOT NULL,
	PRIMARY KEY(`token_id`, `item_id`),
	FOREIGN KEY (`token_id`) REFERENCES `tokens`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `jobs` ADD `lane` text DEFAULT 'quick' NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `crashes` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD `replaces` text;