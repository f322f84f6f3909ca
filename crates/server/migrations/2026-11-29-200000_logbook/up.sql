-- What was tried, with what, and what came of it. Recipes are records; what is here also turns away programs that know
-- neither.
CREATE TABLE logbook (
    id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
    made_at TEXT NOT NULL,
    body TEXT NOT NULL
);
