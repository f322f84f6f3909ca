DROP TABLE records;
DROP TABLE revisions;
DROP TABLE jobs;
