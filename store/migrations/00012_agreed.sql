-- +goose Up
-- Stages of a box at which the maker took what Brevium suggested, as it stood: no change of the document tells of it.
CREATE TABLE agreed (
    project TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    stage   TEXT NOT NULL,
    PRIMARY KEY (project, stage)
) STRICT, WITHOUT ROWID;

-- How long steps took is found by their titles, and two titles have changed.
UPDATE bench_times SET title = 'Decorate while flat' WHERE title = 'Dress while flat';
UPDATE bench_times SET title = 'Decorate when it stands' WHERE title = 'Dress when it stands';

-- +goose Down
DROP TABLE agreed;
