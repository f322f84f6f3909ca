-- Every change of a record, so that it can be undone.
CREATE TABLE workshop_changes (
    number INTEGER PRIMARY KEY NOT NULL,
    kind TEXT NOT NULL,
    id TEXT NOT NULL,
    -- The record's JSON before and after; NULL where there was or is none.
    before_body TEXT,
    after_body TEXT
);

CREATE TABLE workshop_head (
    id INTEGER PRIMARY KEY NOT NULL CHECK (id = 1),
    -- The last change that holds; undo and redo move it.
    head INTEGER NOT NULL,
    -- Counts every change, undo and redo, so that a second window is noticed.
    version INTEGER NOT NULL
);

INSERT INTO workshop_head (id, head, version) VALUES (1, 0, 1);
