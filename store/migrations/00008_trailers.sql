-- +goose Up
-- What a horse meets in each trailer of a yard or an owner.
CREATE TABLE trailers (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  name        TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  yard_id     TEXT,
  person_id   TEXT,
  record      TEXT NOT NULL CHECK (json_valid(record) AND length(record) <= 4000),
  version     INTEGER NOT NULL DEFAULT 1,
  created_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, yard_id) REFERENCES yards (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id)
) STRICT;
