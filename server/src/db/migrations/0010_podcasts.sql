CREATE TABLE `episodes` (
	`account_id` text NOT NULL,
	`item_id` text NOT NULL,
	`copy_id` text NOT NULL,
	`state` text NOT NULL,
	`progress` real NOT NULL,
	`bytes` integer,
	`seconds` real,
	`chapters` text NOT NULL,
	`says` text NOT NULL,
	`made_at` integer NOT NULL,
	PRIMARY KEY(`account_id`, `item_id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `episodes_by_state` ON `episodes` (`state`,`made_at`);--> statement-breakpoint
CREATE TABLE `podcasts` (
	`account_id` text PRIMARY KEY NOT NULL,
	`secret` text NOT NULL,
	`made_at` integer NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `podcasts_secret_unique` ON `podcasts` (`secret`);