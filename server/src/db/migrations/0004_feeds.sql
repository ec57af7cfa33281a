CREATE TABLE `feeds` (
	`account_id` text NOT NULL,
	`id` text NOT NULL,
	`sequence` integer NOT NULL,
	`due_at` integer,
	`memory` text NOT NULL,
	`record` text NOT NULL,
	PRIMARY KEY(`account_id`, `id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `feeds_by_sequence` ON `feeds` (`account_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `feeds_by_due` ON `feeds` (`due_at`);