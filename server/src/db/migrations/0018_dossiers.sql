CREATE TABLE `publications` (
	`account_id` text NOT NULL,
	`dossier_id` text NOT NULL,
	`secret` text NOT NULL,
	`access` text NOT NULL,
	`passphrase_hash` text,
	`made_at` integer NOT NULL,
	`withdrawn_at` integer,
	PRIMARY KEY(`account_id`, `dossier_id`),
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `publications_secret_unique` ON `publications` (`secret`);