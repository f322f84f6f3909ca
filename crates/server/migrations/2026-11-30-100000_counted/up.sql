-- Pieces are counted one by one: what was counted of a whole run goes to the job's first piece. A small picture of the first sheet is
-- kept with each print; older ones have none.
ALTER TABLE prints ADD COLUMN picture BLOB NOT NULL DEFAULT x'';
UPDATE prints
SET run = json_set(
    json_remove(run, '$.good', '$.bad'),
    '$.counts',
    json_object('p1', json_object(
        'good', coalesce(json_extract(run, '$.good'), 0),
        'bad', json(coalesce(json_extract(run, '$.bad'), '{}'))
    ))
)
WHERE json_valid(run) AND json_extract(run, '$.counts') IS NULL;
CREATE INDEX logbook_of_combination ON logbook (json_extract(body, '$.stock.id'), json_extract(body, '$.cutter.id'));
