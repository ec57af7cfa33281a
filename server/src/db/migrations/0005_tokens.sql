CREATE TABLE `tokens` (
	`id` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`secret_hash` text NOT NULL,
	`name` text NOT NULL,
	`scope` text NOT NULL,
	`made_at` integer NOT NULL,
	`last_used_at` integer,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tokens_secret_hash_unique` ON `tokens` (`secret_hash`);--> statement-breakpoint
CREATE INDEX `tokens_by_account` ON `tokens` (`account_id`);