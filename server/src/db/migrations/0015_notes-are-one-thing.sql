-- The note of an item, and that of a highlight, becomes a record of its own with the id of what it stands on.
INSERT OR IGNORE INTO `records` (`account_id`, `kind`, `id`, `item_id`, `sequence`, `record`)
SELECT `account_id`, 'note', `id`, `id`, `sequence`, json_object(
  'id', `id`,
  'madeAt', json_extract(`record`, '$.savedAt'),
  'itemId', `id`,
  'on', json('{"kind":"item"}'),
  'versions', json_array(json_object(
    'at', json_extract(`record`, '$.choices.note.at'),
    'text', json_extract(`record`, '$.choices.note.value'),
    'sees', json_object('*', json_extract(`record`, '$.choices.note.at'))
  )),
  'choices', json('{"task":{"value":"none","at":"000000000-0000-0"},"dueOn":{"value":null,"at":"000000000-0000-0"},"removed":{"value":false,"at":"000000000-0000-0"}}')
) FROM `items`
WHERE `same_as` IS NULL
  AND CASE WHEN json_valid(`record`) THEN json_extract(`record`, '$.choices.note.value') <> '' END;
--> statement-breakpoint
UPDATE `items` SET `record` = json_remove(`record`, '$.choices.note')
WHERE CASE WHEN json_valid(`record`) THEN json_type(`record`, '$.choices.note') IS NOT NULL END;
--> statement-breakpoint
INSERT OR IGNORE INTO `records` (`account_id`, `kind`, `id`, `item_id`, `sequence`, `record`)
SELECT `account_id`, 'note', `id`, `item_id`, `sequence`, json_object(
  'id', `id`,
  'madeAt', json_extract(`record`, '$.madeAt'),
  'itemId', `item_id`,
  'on', json_object('kind', 'highlight', 'id', `id`),
  'versions', json_array(json_object(
    'at', json_extract(`record`, '$.choices.note.at'),
    'text', json_extract(`record`, '$.choices.note.value'),
    'sees', json_object('*', json_extract(`record`, '$.choices.note.at'))
  )),
  'choices', json_object(
    'task', json('{"value":"none","at":"000000000-0000-0"}'),
    'dueOn', json('{"value":null,"at":"000000000-0000-0"}'),
    'removed', json_extract(`record`, '$.choices.removed')
  )
) FROM `records`
WHERE `kind` = 'highlight'
  AND CASE WHEN json_valid(`record`) THEN json_extract(`record`, '$.choices.note.value') <> '' END;
--> statement-breakpoint
UPDATE `records` SET `record` = json_remove(`record`, '$.choices.note')
WHERE `kind` = 'highlight'
  AND CASE WHEN json_valid(`record`) THEN json_type(`record`, '$.choices.note') IS NOT NULL END;
