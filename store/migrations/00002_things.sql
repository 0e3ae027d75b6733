-- +goose Up
-- The maker's own usual things; one of a name overrules the one that ships.
CREATE TABLE things (
    name TEXT PRIMARY KEY,
    item TEXT NOT NULL,
    kept TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE things;
