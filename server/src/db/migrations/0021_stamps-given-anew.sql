CREATE TABLE `restamps` (
	`account_id` text NOT NULL,
	`mutation_id` text NOT NULL,
	`stamp` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`account_id`, `mutation_id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
