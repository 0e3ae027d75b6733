-- +goose Up
-- What is done of a box at the bench: a row for each step, with a print of what the step
-- said, so that a step that has changed since is told from one that is done.
CREATE TABLE bench (
    project TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    step    TEXT NOT NULL,
    print   TEXT NOT NULL,
    done    INTEGER NOT NULL,
    making  TEXT NOT NULL,
    at      TEXT NOT NULL,
    PRIMARY KEY (project, step)
) STRICT, WITHOUT ROWID;

-- How long steps took, of every making: what the next estimate learns from. It outlives
-- the box.
CREATE TABLE bench_times (
    making  TEXT NOT NULL,
    step    TEXT NOT NULL,
    title   TEXT NOT NULL,
    seconds REAL NOT NULL,
    minutes REAL NOT NULL,
    at      TEXT NOT NULL,
    PRIMARY KEY (making, step)
) STRICT, WITHOUT ROWID;

-- Links under which a box is shown, read only, as it was at one revision: the document with
-- all that its shop said then written into it.
CREATE TABLE shares (
    token    TEXT PRIMARY KEY,
    project  TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    document TEXT NOT NULL,
    made     TEXT NOT NULL,
    gone     TEXT
) STRICT, WITHOUT ROWID;
CREATE INDEX shares_of_project ON shares (project);

-- +goose Down
DROP TABLE shares;
DROP TABLE bench_times;
DROP TABLE bench;
