-- +goose Up
-- Boxes in folders, any number of them; put by when nobody works on them any more; kept as a
-- starting point for others.
ALTER TABLE projects ADD COLUMN archived TEXT;
ALTER TABLE projects ADD COLUMN starting TEXT;
CREATE INDEX projects_by_title ON projects (title COLLATE NOCASE);
CREATE TABLE folders (
    folder  TEXT NOT NULL,
    project TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    PRIMARY KEY (folder, project)
) STRICT, WITHOUT ROWID;
CREATE INDEX folders_of_project ON folders (project);

-- Who made a change, where several do.
ALTER TABLE revisions ADD COLUMN who TEXT NOT NULL DEFAULT '';
ALTER TABLE shop_revisions ADD COLUMN who TEXT NOT NULL DEFAULT '';

-- The times a box was made. A making keeps its document as it then was, and outlives the box.
CREATE TABLE makings (
    id       INTEGER PRIMARY KEY,
    key      TEXT NOT NULL UNIQUE,
    project  TEXT NOT NULL,
    revision INTEGER NOT NULL,
    document TEXT NOT NULL,
    made     TEXT NOT NULL,
    count    INTEGER NOT NULL,
    box      TEXT NOT NULL,
    whom     TEXT NOT NULL,
    contents TEXT NOT NULL,
    style    TEXT NOT NULL,
    card     TEXT NOT NULL,
    title    TEXT NOT NULL,
    fit      TEXT NOT NULL,
    gap      TEXT NOT NULL,
    change   TEXT NOT NULL,
    notes    TEXT NOT NULL,
    minutes  REAL NOT NULL,
    times    TEXT NOT NULL,
    sheets   INTEGER NOT NULL,
    cost     INTEGER NOT NULL,
    edits    INTEGER NOT NULL,
    changed  TEXT NOT NULL,
    who      TEXT NOT NULL,
    found    INTEGER NOT NULL,
    gone     TEXT
) STRICT;
CREATE INDEX makings_by_day ON makings (gone, made, id);
CREATE INDEX makings_by_year ON makings (gone, made, count, sheets, minutes, cost);
CREATE INDEX makings_of_project ON makings (project);
CREATE INDEX makings_of_card ON makings (card, made);
CREATE INDEX makings_of_style ON makings (style, made);
CREATE INDEX makings_by_fit ON makings (fit, made);
-- Rows stand by their day: days since 1970 times 2^28, and the making's number. So the newest come
-- first without being sorted; makings.found is where a making stands.
CREATE VIRTUAL TABLE makings_text USING fts5 (words, content='', contentless_delete=1, prefix='2 3',
    tokenize='unicode61 remove_diacritics 2');

CREATE TABLE photos (
    id     TEXT PRIMARY KEY,
    making INTEGER NOT NULL REFERENCES makings (id) ON DELETE CASCADE,
    width  INTEGER NOT NULL,
    height INTEGER NOT NULL,
    says   TEXT NOT NULL,
    data   BLOB NOT NULL,
    small  BLOB NOT NULL,
    at     TEXT NOT NULL
) STRICT;
CREATE INDEX photos_of_making ON photos (making, at);

-- Many boxes by a date: a document like a list to cut, and what is done of it, each tick by itself
-- so that two who tick at once lose nothing.
CREATE TABLE batches (
    id       TEXT PRIMARY KEY,
    document TEXT NOT NULL,
    revision INTEGER NOT NULL,
    changed  TEXT NOT NULL,
    gone     INTEGER NOT NULL DEFAULT 0
) STRICT;
-- What a batch was before its last changes, to go back to.
CREATE TABLE batch_past (
    batch    TEXT NOT NULL REFERENCES batches (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (batch, revision)
) STRICT, WITHOUT ROWID;
CREATE TABLE batch_ticks (
    batch TEXT NOT NULL REFERENCES batches (id) ON DELETE CASCADE,
    ordered TEXT NOT NULL,
    stage TEXT NOT NULL,
    done  INTEGER NOT NULL,
    at    TEXT NOT NULL,
    who   TEXT NOT NULL,
    PRIMARY KEY (batch, ordered, stage)
) STRICT, WITHOUT ROWID;

-- Links under which the boxes of a folder are shown as they were.
CREATE TABLE collections (
    token  TEXT PRIMARY KEY,
    folder TEXT NOT NULL,
    made   TEXT NOT NULL,
    gone   TEXT
) STRICT, WITHOUT ROWID;
CREATE TABLE collection_boxes (
    token    TEXT NOT NULL REFERENCES collections (token) ON DELETE CASCADE,
    place    INTEGER NOT NULL,
    project  TEXT NOT NULL,
    revision INTEGER NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (token, place)
) STRICT, WITHOUT ROWID;

-- The passphrase (as argon2id writes it), and who is in.
CREATE TABLE settings (
    name  TEXT PRIMARY KEY,
    value TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE sessions (
    token  TEXT PRIMARY KEY,
    data   BLOB NOT NULL,
    expiry INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE sessions;
DROP TABLE settings;
DROP TABLE collection_boxes;
DROP TABLE collections;
DROP TABLE batch_ticks;
DROP TABLE batch_past;
DROP TABLE batches;
DROP TABLE photos;
DROP TABLE makings_text;
DROP TABLE makings;
DROP TABLE folders;
DROP INDEX projects_by_title;
ALTER TABLE shop_revisions DROP COLUMN who;
ALTER TABLE revisions DROP COLUMN who;
ALTER TABLE projects DROP COLUMN starting;
ALTER TABLE projects DROP COLUMN archived;
