-- +goose Up
CREATE TABLE projects (
    id      TEXT PRIMARY KEY,
    head    INTEGER REFERENCES revisions (id) DEFERRABLE INITIALLY DEFERRED,
    created TEXT NOT NULL,
    changed TEXT NOT NULL,
    binned  TEXT
) STRICT;

-- Every change of a project is a revision and none is ever rewritten: undo and
-- redo only move the project's head along the tree that parents make. Changes
-- of one burst (keys typed in one visit to a field) are undone together.
CREATE TABLE revisions (
    id      INTEGER PRIMARY KEY,
    project TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    parent  INTEGER REFERENCES revisions (id) ON DELETE CASCADE,
    document TEXT NOT NULL,
    what    TEXT NOT NULL,
    burst   TEXT NOT NULL,
    made    TEXT NOT NULL
) STRICT;

CREATE INDEX revisions_of_project ON revisions (project, id);
CREATE INDEX revisions_by_parent ON revisions (parent);

-- +goose Down
DROP TABLE revisions;
DROP TABLE projects;
