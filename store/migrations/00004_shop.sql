-- +goose Up
-- The maker's shop: a document like a box's, with a tree of revisions of its own.
CREATE TABLE shop_revisions (
    id       INTEGER PRIMARY KEY,
    parent   INTEGER REFERENCES shop_revisions (id),
    document TEXT NOT NULL,
    what     TEXT NOT NULL,
    burst    TEXT NOT NULL,
    made     TEXT NOT NULL
) STRICT;

CREATE INDEX shop_revisions_by_parent ON shop_revisions (parent);

-- There is one shop; its head moves as a project's does.
CREATE TABLE shop (
    one  INTEGER PRIMARY KEY CHECK (one = 1),
    head INTEGER NOT NULL REFERENCES shop_revisions (id)
) STRICT;

-- +goose Down
DROP TABLE shop;
DROP TABLE shop_revisions;
