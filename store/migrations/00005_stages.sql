-- +goose Up
-- What a session's advice needs to know of all that came before it, read once
-- and kept, so that a long history is not read again for each opening. It can
-- be made again from what it was read from, and is, when that changes.

CREATE TABLE stages (
  practice_id TEXT NOT NULL,
  session_id  TEXT NOT NULL,
  edition     TEXT NOT NULL,
  change_id   INTEGER NOT NULL,
  body        TEXT NOT NULL CHECK (json_valid(body)),
  PRIMARY KEY (practice_id, session_id),
  FOREIGN KEY (practice_id, session_id) REFERENCES sessions (practice_id, id)
) STRICT;

CREATE INDEX changes_newest ON changes (practice_id, id);
