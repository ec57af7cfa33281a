CREATE TABLE `activities` (
	`account_id` text NOT NULL,
	`id` text NOT NULL,
	`sequence` integer NOT NULL,
	`record` text NOT NULL,
	PRIMARY KEY(`account_id`, `id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `activities_by_sequence` ON `activities` (`account_id`,`sequence`);