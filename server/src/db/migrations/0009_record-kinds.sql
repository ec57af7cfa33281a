PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_records` (
	`account_id` text NOT NULL,
	`kind` text NOT NULL,
	`id` text NOT NULL,
	`item_id` text,
	`sequence` integer NOT NULL,
	`record` text NOT NULL,
	PRIMARY KEY(`account_id`, `kind`, `id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
INSERT INTO `__new_records`("account_id", "kind", "id", "item_id", "sequence", "record") SELECT "account_id", "kind", "id", "item_id", "sequence", "record" FROM `records`;--> statement-breakpoint
DROP TABLE `records`;--> statement-breakpoint
ALTER TABLE `__new_records` RENAME TO `records`;--> statement-breakpoint
PRAGMA foreign_keys=ON;--> statement-breakpoint
CREATE INDEX `records_by_sequence` ON `records` (`account_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `records_by_item` ON `records` (`account_id`,`item_id`);