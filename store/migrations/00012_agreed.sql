-- +goose Up
-- Stages of a box at which the maker took what Brevium suggested, as it stood: no change of the document tells of it.
CREATE TABLE agreed (
    project TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    stage   TEXT NOT NULL,
    PRIMARY KEY (project, stage)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE agreed;
