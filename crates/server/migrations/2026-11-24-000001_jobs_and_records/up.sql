CREATE TABLE jobs (
    id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
    -- The revision that is current; undo and redo move it.
    head INTEGER NOT NULL,
    -- Counts every change, undo and redo, so that a second window is noticed.
    version INTEGER NOT NULL,
    -- Set while the job lies in the bin.
    binned BOOLEAN NOT NULL DEFAULT FALSE
);

CREATE TABLE revisions (
    job INTEGER NOT NULL REFERENCES jobs (id),
    number INTEGER NOT NULL,
    -- The job as JSON, lengths in mm.
    body TEXT NOT NULL,
    made_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
    PRIMARY KEY (job, number)
);

CREATE TABLE records (
    -- stocks, printers, cutters or mark_sets.
    kind TEXT NOT NULL,
    id TEXT NOT NULL,
    body TEXT NOT NULL,
    PRIMARY KEY (kind, id)
);
