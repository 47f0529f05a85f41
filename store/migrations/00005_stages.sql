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

-- A session can be written down afterwards, from memory.
CREATE TABLE entries_from_memory_too (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  session_id  TEXT NOT NULL,
  device      TEXT NOT NULL CHECK (length(device) BETWEEN 1 AND 60),
  seq         INTEGER NOT NULL CHECK (seq >= 0),
  device_at   INTEGER NOT NULL,
  at          INTEGER NOT NULL,
  received_at INTEGER NOT NULL,
  clock_off   INTEGER NOT NULL DEFAULT 0 CHECK (clock_off IN (0, 1)),
  after_end   INTEGER NOT NULL DEFAULT 0 CHECK (after_end IN (0, 1)),
  kind        TEXT NOT NULL CHECK (kind IN ('rep', 'dose', 'offer', 'spell', 'burst', 'interruption', 'memory', 'mark', 'undo', 'advice', 'end')),
  written_by  TEXT NOT NULL,
  body        TEXT NOT NULL CHECK (json_valid(body) AND length(body) <= 16000),
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, session_id) REFERENCES sessions (practice_id, id),
  FOREIGN KEY (practice_id, written_by) REFERENCES users (practice_id, id)
) STRICT, WITHOUT ROWID;

INSERT INTO entries_from_memory_too (id, practice_id, session_id, device, seq, device_at, at, received_at, clock_off, after_end, kind, written_by, body)
SELECT id, practice_id, session_id, device, seq, device_at, at, received_at, clock_off, after_end, kind, written_by, body FROM entries;
DROP TABLE entries;
ALTER TABLE entries_from_memory_too RENAME TO entries;
CREATE INDEX entries_by_session ON entries (practice_id, session_id, at, device, seq);
CREATE INDEX entries_that_end ON entries (practice_id, session_id) WHERE kind = 'end';

-- +goose StatementBegin
CREATE TRIGGER entries_stay BEFORE UPDATE ON entries
BEGIN
  SELECT RAISE(ABORT, 'an entry is never changed');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER entries_are_kept BEFORE DELETE ON entries
BEGIN
  SELECT RAISE(ABORT, 'an entry is never taken away');
END;
-- +goose StatementEnd
