-- +goose Up
-- Phones and other devices that were let in, each with a name.
CREATE TABLE phones (
    id   TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    made TEXT NOT NULL,
    seen TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- What came in at once, from a file or as samples, so that it can be taken back: the documents, and at which revision.
CREATE TABLE arrivals (
    id   TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    what TEXT NOT NULL,
    at   TEXT NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE arrival_docs (
    arrival TEXT NOT NULL REFERENCES arrivals (id) ON DELETE CASCADE,
    doc     TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    head    INTEGER,
    PRIMARY KEY (arrival, doc)
) STRICT, WITHOUT ROWID;
CREATE INDEX arrival_docs_by_doc ON arrival_docs (doc);

-- +goose Down
DROP TABLE arrival_docs;
DROP TABLE arrivals;
DROP TABLE phones;
