INSERT INTO `records` (`account_id`, `kind`, `id`, `item_id`, `sequence`, `record`)
SELECT `account_id`, 'activity', `id`, json_extract(`record`, '$.itemId'), `sequence`, `record` FROM `activities`;
--> statement-breakpoint
DROP TABLE `activities`;
