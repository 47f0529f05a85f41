-- +goose Up
-- House rules: what a practice does otherwise than shipped, version by version, with who and
-- why. The newest holds; an empty document is the shipped rules again.
CREATE TABLE house_rules (
  practice_id TEXT NOT NULL REFERENCES practices (id),
  version     INTEGER NOT NULL CHECK (version > 0),
  doc         TEXT NOT NULL CHECK (json_valid(doc) AND length(doc) <= 100000),
  reason      TEXT NOT NULL CHECK (length(reason) <= 1000),
  saved_by    TEXT NOT NULL,
  saved_at    INTEGER NOT NULL,
  PRIMARY KEY (practice_id, version),
  FOREIGN KEY (practice_id, saved_by) REFERENCES users (practice_id, id)
) STRICT;
-- +goose StatementBegin
CREATE TRIGGER house_rules_stay BEFORE UPDATE ON house_rules
BEGIN
  SELECT RAISE(ABORT, 'a version of the house rules is never changed');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER house_rules_are_kept BEFORE DELETE ON house_rules
BEGIN
  SELECT RAISE(ABORT, 'a version of the house rules is never taken away');
END;
-- +goose StatementEnd

-- Notebooks: tables of earlier years that were taken in. What each brought names it, so that
-- it is undone as one.
CREATE TABLE notebooks (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  name        TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 200),
  brought     TEXT NOT NULL CHECK (json_valid(brought)),
  taken_by    TEXT NOT NULL,
  taken_at    INTEGER NOT NULL,
  undone_at   INTEGER,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, taken_by) REFERENCES users (practice_id, id)
) STRICT;

-- A line of an old notebook: what was written of a horse on a day. It is read, and judges
-- nothing: nobody logged it ask by ask.
CREATE TABLE notebook_lines (
  practice_id TEXT NOT NULL,
  notebook_id TEXT NOT NULL,
  line        INTEGER NOT NULL CHECK (line > 0),
  horse_id    TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  what        TEXT NOT NULL DEFAULT '' CHECK (length(what) <= 200),
  minutes     INTEGER CHECK (minutes BETWEEN 0 AND 1440),
  note        TEXT NOT NULL DEFAULT '' CHECK (length(note) <= 4000),
  PRIMARY KEY (practice_id, notebook_id, line),
  FOREIGN KEY (practice_id, notebook_id) REFERENCES notebooks (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id)
) STRICT;
CREATE INDEX notebook_lines_by_horse ON notebook_lines (practice_id, horse_id, on_date);
