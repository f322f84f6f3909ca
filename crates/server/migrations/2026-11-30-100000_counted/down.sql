ALTER TABLE prints DROP COLUMN picture;
DROP INDEX logbook_of_combination;
