CREATE TABLE `accounts` (
	`id` text PRIMARY KEY NOT NULL,
	`mail` text NOT NULL,
	`name` text NOT NULL,
	`passphrase_hash` text NOT NULL,
	`created_at` integer NOT NULL,
	`sequence` integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `accounts_mail_unique` ON `accounts` (`mail`);--> statement-breakpoint
CREATE TABLE `copies` (
	`account_id` text NOT NULL,
	`id` text NOT NULL,
	`item_id` text NOT NULL,
	`made_at` integer NOT NULL,
	`record` text NOT NULL,
	PRIMARY KEY(`account_id`, `id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `copies_by_item` ON `copies` (`account_id`,`item_id`);--> statement-breakpoint
CREATE TABLE `items` (
	`account_id` text NOT NULL,
	`id` text NOT NULL,
	`sequence` integer NOT NULL,
	`address_key` text NOT NULL,
	`same_as` text,
	`record` text NOT NULL,
	PRIMARY KEY(`account_id`, `id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `items_by_sequence` ON `items` (`account_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `items_by_address` ON `items` (`account_id`,`address_key`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`item_id` text NOT NULL,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`run_at` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `jobs_by_state` ON `jobs` (`state`,`run_at`);--> statement-breakpoint
CREATE INDEX `jobs_by_item` ON `jobs` (`account_id`,`item_id`);--> statement-breakpoint
CREATE TABLE `pictures` (
	`account_id` text NOT NULL,
	`hash` text NOT NULL,
	`bytes` integer NOT NULL,
	PRIMARY KEY(`account_id`, `hash`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `sessions` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sessions_by_account` ON `sessions` (`account_id`);