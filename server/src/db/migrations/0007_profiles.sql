CREATE TABLE `profiles` (
	`account_id` text NOT NULL,
	`copy_id` text NOT NULL,
	`version` integer NOT NULL,
	`profile` text NOT NULL,
	PRIMARY KEY(`account_id`, `copy_id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
