CREATE TABLE `mailboxes` (
	`account_id` text PRIMARY KEY NOT NULL,
	`local` text NOT NULL,
	`senders` text NOT NULL,
	FOREIGN KEY (`account_id`) REFERENCES `accounts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `mailboxes_local_unique` ON `mailboxes` (`local`);