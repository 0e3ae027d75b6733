-- +goose Up
-- The pieces a making was planned with, as they were: what is learnt since, other card and a later
-- Brevium must not change the past.
ALTER TABLE makings ADD COLUMN planned TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE makings DROP COLUMN planned;
