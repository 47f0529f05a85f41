-- +goose Up
-- A calendar feed shows a user's own diary, or a person's own horses, to whoever has
-- its token; only the hash is kept. Busy are times that came from elsewhere.
CREATE TABLE feeds (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  token_hash  BLOB NOT NULL UNIQUE CHECK (length(token_hash) = 32),
  user_id     TEXT,
  person_id   TEXT,
  made_by     TEXT NOT NULL,
  made_at     INTEGER NOT NULL,
  off_at      INTEGER,
  read_at     INTEGER,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id),
  FOREIGN KEY (practice_id, made_by) REFERENCES users (practice_id, id),
  CHECK ((user_id IS NULL) <> (person_id IS NULL))
) STRICT;

CREATE TABLE busy (
  practice_id TEXT NOT NULL,
  user_id     TEXT NOT NULL,
  from_at     INTEGER NOT NULL,
  to_at       INTEGER NOT NULL CHECK (to_at > from_at),
  what        TEXT NOT NULL CHECK (length(what) <= 200),
  PRIMARY KEY (practice_id, user_id, from_at, to_at, what),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id)
) STRICT, WITHOUT ROWID;
