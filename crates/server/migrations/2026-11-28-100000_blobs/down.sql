DROP TABLE revision_blobs;
DROP TABLE blobs;
