-- +goose Up
-- What lengths are said in. They are kept in metres and millimetres.
ALTER TABLE practices ADD COLUMN units TEXT NOT NULL DEFAULT 'metres' CHECK (units IN ('metres', 'feet'));
