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

-- Timers that run at the bench of a box, so that every device there shows them.
CREATE TABLE timers (
    project TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    step    TEXT NOT NULL,
    what    TEXT NOT NULL,
    ends    TEXT NOT NULL,
    PRIMARY KEY (project, step, what)
) STRICT, WITHOUT ROWID;

-- Photos taken at the bench. They move into the logbook with the next entry about the box.
CREATE TABLE bench_photos (
    id      TEXT PRIMARY KEY,
    project TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    width   INTEGER NOT NULL,
    height  INTEGER NOT NULL,
    says    TEXT NOT NULL,
    data    BLOB NOT NULL,
    small   BLOB NOT NULL,
    at      TEXT NOT NULL
) STRICT;
CREATE INDEX bench_photos_of_project ON bench_photos (project, at);

-- Printers, and how long what should be 1 comes out of each, across the page and down it.
CREATE TABLE printers (
    id     TEXT PRIMARY KEY,
    name   TEXT NOT NULL UNIQUE,
    across REAL NOT NULL,
    down   REAL NOT NULL,
    usual  INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE printers;
DROP TABLE bench_photos;
DROP TABLE timers;
DROP TABLE arrival_docs;
DROP TABLE arrivals;
DROP TABLE phones;
