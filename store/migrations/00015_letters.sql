-- +goose Up
-- Letters: what stands in the diary and falls due, told once an evening by mail, to
-- users who want it and people who agreed. A consent is never rewritten: who stops and
-- agrees again has two.
CREATE TABLE readers (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  user_id     TEXT,
  person_id   TEXT,
  stop_token  TEXT NOT NULL UNIQUE CHECK (length(stop_token) >= 20),
  agreed_at   INTEGER NOT NULL,
  noted_by    TEXT NOT NULL,
  stopped_at  INTEGER,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id),
  FOREIGN KEY (practice_id, noted_by) REFERENCES users (practice_id, id),
  CHECK ((user_id IS NULL) <> (person_id IS NULL))
) STRICT;
CREATE UNIQUE INDEX readers_user ON readers (practice_id, user_id) WHERE stopped_at IS NULL AND user_id IS NOT NULL;
CREATE UNIQUE INDEX readers_person ON readers (practice_id, person_id) WHERE stopped_at IS NULL AND person_id IS NOT NULL;

-- One letter of an evening to a reader. It waits while next_at is there; it went at
-- sent_at; without either it is only kept, or was given up as failed says.
CREATE TABLE letters (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  reader_id   TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  name        TEXT NOT NULL CHECK (length(name) <= 120),
  address     TEXT NOT NULL CHECK (length(address) BETWEEN 3 AND 254),
  subject     TEXT NOT NULL CHECK (length(subject) <= 300),
  body        TEXT NOT NULL CHECK (length(body) <= 60000),
  calendar    TEXT NOT NULL DEFAULT '' CHECK (length(calendar) <= 60000),
  made_at     INTEGER NOT NULL,
  tries       INTEGER NOT NULL DEFAULT 0 CHECK (tries >= 0),
  next_at     INTEGER,
  sent_at     INTEGER,
  failed      TEXT NOT NULL DEFAULT '' CHECK (length(failed) <= 300),
  PRIMARY KEY (practice_id, id),
  UNIQUE (practice_id, reader_id, on_date),
  FOREIGN KEY (practice_id, reader_id) REFERENCES readers (practice_id, id),
  CHECK (next_at IS NULL OR sent_at IS NULL)
) STRICT;
CREATE INDEX letters_waiting ON letters (next_at) WHERE next_at IS NOT NULL;
