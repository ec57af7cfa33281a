CREATE TABLE `records` (
	`account_id` text NOT NULL,
	`kind` text NOT NULL,
	`id` text NOT NULL,
	`item_id` text,
	`sequence` integer NOT NULL,
	`record` text NOT NULL,
	PRIMARY KEY(`account_id`, `id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `records_by_sequence` ON `records` (`account_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `records_by_item` ON `records` (`account_id`,`item_id`);