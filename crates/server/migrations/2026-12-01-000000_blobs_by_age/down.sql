DROP INDEX blobs_by_age;
