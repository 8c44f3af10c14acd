-- A movement ring is no way of holding a cell: it lies above one that lies free in its well.
UPDATE catalogue_record
SET body = json_set(
  replace(body, '"ring round the movement"', '"lying free in its well"'),
  '$.aboveCell',
  json('["movement ring"]')
)
WHERE kind = 'calibre' AND instr(body, '"ring round the movement"') > 0;
