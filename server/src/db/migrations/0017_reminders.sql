CREATE TABLE `reminders` (
	`account_id` text PRIMARY KEY NOT NULL,
	`zone` text NOT NULL,
	`origin` text NOT NULL,
	`letter_hour` integer,
	`sent_on` text,
	`retry_at` integer,
	`secret` text,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `reminders_secret_unique` ON `reminders` (`secret`);