-- +goose Up
-- A plan keeps what was chosen. A practice may have its own copies of ladders,
-- and writes down who rehearsed what.

ALTER TABLE plans ADD COLUMN choices TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(choices) AND length(choices) <= 40000);

-- The number that owners call; on the homework card.
ALTER TABLE practices ADD COLUMN phone TEXT NOT NULL DEFAULT '' CHECK (length(phone) <= 60);

-- An own ladder has versions; plans that use one keep it.
CREATE TABLE ladders (
  id              TEXT NOT NULL CHECK (length(id) = 36),
  practice_id     TEXT NOT NULL REFERENCES practices (id),
  version         INTEGER NOT NULL CHECK (version >= 1),
  ladder          TEXT NOT NULL CHECK (length(ladder) BETWEEN 1 AND 60),
  name            TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  catalog_version TEXT NOT NULL,
  doc             TEXT NOT NULL CHECK (json_valid(doc) AND length(doc) <= 200000),
  reason          TEXT NOT NULL DEFAULT '' CHECK (length(reason) <= 500),
  saved_by        TEXT NOT NULL,
  saved_at        INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id, version),
  FOREIGN KEY (practice_id, saved_by) REFERENCES users (practice_id, id)
) STRICT;

-- +goose StatementBegin
CREATE TRIGGER ladders_stay BEFORE UPDATE ON ladders
BEGIN
  SELECT RAISE(ABORT, 'a version of a ladder is never changed');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER ladders_are_kept BEFORE DELETE ON ladders
BEGIN
  SELECT RAISE(ABORT, 'a version of a ladder is never taken away');
END;
-- +goose StatementEnd

-- What a person practised without the horse, or showed on a clip.
CREATE TABLE rehearsals (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  person_id   TEXT NOT NULL,
  step        TEXT NOT NULL CHECK (length(step) BETWEEN 1 AND 60),
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  doc         TEXT NOT NULL CHECK (json_valid(doc) AND length(doc) <= 8000),
  noted_by    TEXT NOT NULL,
  created_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id),
  FOREIGN KEY (practice_id, noted_by) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX rehearsals_by_horse ON rehearsals (practice_id, horse_id, on_date);
