-- What the data file says of itself: its generation, and the salt of the passphrase's hash.
CREATE TABLE facts (
    name TEXT PRIMARY KEY NOT NULL,
    value TEXT NOT NULL
);

INSERT INTO facts (name, value) VALUES ('generation', '0');
