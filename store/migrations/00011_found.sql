-- +goose Up
-- What boxes on the table are found by, in the order of a list: a search by words reads this and nothing else.
CREATE INDEX boxes_by_words ON documents (changed, words) WHERE kind = 'box' AND binned IS NULL AND archived IS NULL;

-- +goose Down
DROP INDEX boxes_by_words;
