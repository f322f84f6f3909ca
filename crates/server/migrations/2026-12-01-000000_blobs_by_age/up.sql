-- What no revision names any more is looked for among the old ones, without their bytes.
CREATE INDEX blobs_by_age ON blobs (added_at, id);
