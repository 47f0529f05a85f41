-- +goose Up
-- The page at the end of a case's work is computed, as a report is; kept is the
-- trainer's wording, every version of it.
CREATE TABLE closings (
  practice_id TEXT NOT NULL,
  case_id     TEXT NOT NULL,
  version     INTEGER NOT NULL CHECK (version >= 1),
  edits       TEXT NOT NULL CHECK (json_valid(edits) AND length(edits) <= 60000),
  saved_by    TEXT NOT NULL,
  saved_at    INTEGER NOT NULL,
  PRIMARY KEY (practice_id, case_id, version),
  FOREIGN KEY (practice_id, case_id) REFERENCES cases (practice_id, id),
  FOREIGN KEY (practice_id, saved_by) REFERENCES users (practice_id, id)
) STRICT;
