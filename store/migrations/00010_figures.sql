-- +goose Up
-- What each session alone came to in numbers, kept beside its history and made anew
-- with it.
ALTER TABLE histories ADD COLUMN figures TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(figures));
