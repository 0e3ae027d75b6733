-- +goose Up
-- What lists and counts ask for, however many boxes there are.
CREATE INDEX boxes_on_table ON documents (changed) WHERE kind = 'box' AND binned IS NULL AND archived IS NULL;
CREATE INDEX boxes_by_name ON documents (title COLLATE NOCASE) WHERE kind = 'box' AND binned IS NULL AND archived IS NULL;
CREATE INDEX boxes_by_age ON documents (created) WHERE kind = 'box' AND binned IS NULL AND archived IS NULL;
CREATE INDEX boxes_in_bin ON documents (changed) WHERE kind = 'box' AND binned IS NOT NULL;
CREATE INDEX boxes_put_by ON documents (changed) WHERE kind = 'box' AND binned IS NULL AND archived IS NOT NULL;

-- Which cards the newest states of boxes name, and whether they describe the card themselves.
CREATE TABLE uses (
    card TEXT NOT NULL,
    doc  TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
    own  INTEGER NOT NULL,
    PRIMARY KEY (card, doc)
) STRICT, WITHOUT ROWID;
CREATE INDEX uses_of_doc ON uses (doc, card, own);

-- What boxes are found by, their cards among it, is filled in when the database is opened.
UPDATE documents SET words = NULL WHERE kind = 'box';
