-- +goose Up
-- Lists of pieces to be cut, of no box: each with the number of its last change.
CREATE TABLE cutlists (
    id       TEXT PRIMARY KEY,
    document TEXT NOT NULL,
    revision INTEGER NOT NULL,
    changed  TEXT NOT NULL,
    gone     INTEGER NOT NULL DEFAULT 0
) STRICT;

-- +goose Down
DROP TABLE cutlists;
