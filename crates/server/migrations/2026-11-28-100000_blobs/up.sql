-- Heavy bytes, each once under the SHA-256 of its content.
CREATE TABLE blobs (
    id TEXT PRIMARY KEY NOT NULL,
    -- What it is, by its bytes: image/png or image/jpeg.
    media TEXT NOT NULL,
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    body BLOB NOT NULL,
    added_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP
);

-- Which revisions name which blobs: a blob stays for as long as one does.
CREATE TABLE revision_blobs (
    job INTEGER NOT NULL,
    number INTEGER NOT NULL,
    blob TEXT NOT NULL,
    PRIMARY KEY (job, number, blob),
    FOREIGN KEY (job, number) REFERENCES revisions (job, number) ON DELETE CASCADE
);

CREATE INDEX revision_blobs_by_blob ON revision_blobs (blob);
