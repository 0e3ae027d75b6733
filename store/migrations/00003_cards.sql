-- +goose Up
-- What lists of boxes show and search without reading each document.
ALTER TABLE projects ADD COLUMN title TEXT;
ALTER TABLE projects ADD COLUMN words TEXT;
CREATE INDEX projects_by_change ON projects (changed);

-- A box as a list shows it: made when the box changes, and of no use to another
-- version of the program.
CREATE TABLE cards (
    project  TEXT PRIMARY KEY REFERENCES projects (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    program  TEXT NOT NULL,
    line     TEXT NOT NULL,
    trouble  INTEGER NOT NULL,
    picture  BLOB
) STRICT;

-- The changes that have arrived, by the names their windows gave them: one that
-- is sent again because its answer was lost is not made twice.
CREATE TABLE arrived (
    change TEXT PRIMARY KEY,
    at     TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE arrived;
DROP TABLE cards;
DROP INDEX projects_by_change;
ALTER TABLE projects DROP COLUMN words;
ALTER TABLE projects DROP COLUMN title;
