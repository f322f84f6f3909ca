-- Sheets as they were printed: the job with all that it names, the file that went to the printer, and how far the run has
-- come. Each change of a run names the version that it was made to. `place` is its place in the queue at its cutter, `ticks` how
-- often something is to be ticked.
CREATE TABLE prints (
    id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
    job INTEGER NOT NULL,
    code TEXT NOT NULL,
    made_at TEXT NOT NULL,
    archive BLOB NOT NULL,
    pdf BLOB NOT NULL,
    run TEXT NOT NULL,
    name TEXT NOT NULL,
    cutter TEXT NOT NULL,
    sheets INTEGER NOT NULL,
    ticks INTEGER NOT NULL,
    place INTEGER NOT NULL,
    version INTEGER NOT NULL
);
CREATE INDEX prints_of_job ON prints (job);
