-- +goose Up
-- What owners see and write: private links, practice at home, accounts of their own;
-- and what a trainer sets aside, lets go on, or writes down after the fact.

-- A private link opens one owner's horses, or one report. Only the hash of its token
-- is kept. Counted is how often it was opened, not by whom.
CREATE TABLE links (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  token_hash  BLOB NOT NULL UNIQUE CHECK (length(token_hash) = 32),
  person_id   TEXT,
  session_id  TEXT,
  until       INTEGER NOT NULL,
  made_by     TEXT NOT NULL,
  made_at     INTEGER NOT NULL,
  off_at      INTEGER,
  opened      INTEGER NOT NULL DEFAULT 0 CHECK (opened >= 0),
  first_at    INTEGER,
  last_at     INTEGER,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id),
  FOREIGN KEY (practice_id, session_id) REFERENCES sessions (practice_id, id),
  FOREIGN KEY (practice_id, made_by) REFERENCES users (practice_id, id),
  CHECK ((person_id IS NULL) <> (session_id IS NULL))
) STRICT;
CREATE INDEX links_by_person ON links (practice_id, person_id) WHERE person_id IS NOT NULL;
CREATE INDEX links_by_session ON links (practice_id, session_id) WHERE session_id IS NOT NULL;

-- Practice at home. Nothing is ever changed here; a log that puts another right is a
-- row of its own. It came by a link or by a sign-in.
CREATE TABLE practised (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  person_id   TEXT NOT NULL,
  step        TEXT NOT NULL CHECK (length(step) BETWEEN 1 AND 60),
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  doc         TEXT NOT NULL CHECK (json_valid(doc) AND length(doc) <= 8000),
  received_at INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id)
) STRICT;
CREATE INDEX practised_by_horse ON practised (practice_id, horse_id, on_date, received_at);
-- +goose StatementBegin
CREATE TRIGGER practised_stay BEFORE UPDATE ON practised
BEGIN
  SELECT RAISE(ABORT, 'what was practised is never changed');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER practised_are_kept BEFORE DELETE ON practised
BEGIN
  SELECT RAISE(ABORT, 'what was practised is never taken away');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER practised_touch AFTER INSERT ON practised
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd

-- Homework that a log stopped, and that may go on.
CREATE TABLE resumed (
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  log_id      TEXT NOT NULL,
  reason      TEXT NOT NULL CHECK (length(reason) BETWEEN 1 AND 500),
  resumed_by  TEXT NOT NULL,
  resumed_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, log_id),
  FOREIGN KEY (practice_id, log_id) REFERENCES practised (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, resumed_by) REFERENCES users (practice_id, id)
) STRICT;
-- +goose StatementBegin
CREATE TRIGGER resumed_touch AFTER INSERT ON resumed
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd

-- A note of the caseload that somebody set aside until a day, with the reason. It
-- holds for the fact as it was: another fact of the same kind shows.
CREATE TABLE set_aside (
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  note        TEXT NOT NULL CHECK (length(note) BETWEEN 1 AND 60),
  basis       TEXT NOT NULL CHECK (length(basis) <= 40),
  until       TEXT NOT NULL CHECK (until IS date(until)),
  reason      TEXT NOT NULL CHECK (length(reason) BETWEEN 1 AND 500),
  set_by      TEXT NOT NULL,
  set_at      INTEGER NOT NULL,
  PRIMARY KEY (practice_id, horse_id, note, set_at),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, set_by) REFERENCES users (practice_id, id)
) STRICT;
-- +goose StatementBegin
CREATE TRIGGER set_aside_touch AFTER INSERT ON set_aside
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd

-- Incidents written down after the fact, or out of a session.
CREATE TABLE incidents (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  doc         TEXT NOT NULL CHECK (json_valid(doc) AND length(doc) <= 8000),
  noted_by    TEXT NOT NULL,
  created_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, noted_by) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX incidents_by_horse ON incidents (practice_id, horse_id, on_date);
-- +goose StatementBegin
CREATE TRIGGER incidents_touch AFTER INSERT ON incidents
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd

-- Whose account it is, of an owner's.
ALTER TABLE users ADD COLUMN person_id TEXT;

-- A helper is let in on one day, to the horses of one yard. The account itself is an
-- owner's without a person, which may do nothing.
CREATE TABLE helpers (
  practice_id TEXT NOT NULL,
  user_id     TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  yard_id     TEXT NOT NULL,
  PRIMARY KEY (practice_id, user_id),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id),
  FOREIGN KEY (practice_id, yard_id) REFERENCES yards (practice_id, id)
) STRICT;

-- An invitation makes an account, once, up to its end.
CREATE TABLE invitations (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  token_hash  BLOB NOT NULL UNIQUE CHECK (length(token_hash) = 32),
  name        TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  person_id   TEXT,
  on_date     TEXT CHECK (on_date IS NULL OR on_date IS date(on_date)),
  yard_id     TEXT,
  until       INTEGER NOT NULL,
  made_by     TEXT NOT NULL,
  made_at     INTEGER NOT NULL,
  used_at     INTEGER,
  off_at      INTEGER,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id),
  FOREIGN KEY (practice_id, yard_id) REFERENCES yards (practice_id, id),
  FOREIGN KEY (practice_id, made_by) REFERENCES users (practice_id, id),
  CHECK ((person_id IS NULL) <> (yard_id IS NULL)),
  CHECK ((yard_id IS NULL) = (on_date IS NULL))
) STRICT;

-- A sign-in has a name that can be told, and a place.
ALTER TABLE sign_ins ADD COLUMN id TEXT NOT NULL DEFAULT '' CHECK (length(id) <= 36);
ALTER TABLE sign_ins ADD COLUMN place TEXT NOT NULL DEFAULT '' CHECK (length(place) <= 60);
UPDATE sign_ins SET id = lower(hex(randomblob(16)));

-- A visit's page that was sent: from then on the owner's link shows it.
CREATE TABLE sent (
  practice_id TEXT NOT NULL,
  session_id  TEXT NOT NULL,
  sent_by     TEXT NOT NULL,
  sent_at     INTEGER NOT NULL,
  PRIMARY KEY (practice_id, session_id),
  FOREIGN KEY (practice_id, session_id) REFERENCES sessions (practice_id, id),
  FOREIGN KEY (practice_id, sent_by) REFERENCES users (practice_id, id)
) STRICT;

-- Who opened which horse's pages, once a day.
CREATE TABLE opened (
  practice_id TEXT NOT NULL,
  user_id     TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  what        TEXT NOT NULL CHECK (length(what) BETWEEN 1 AND 60),
  at          INTEGER NOT NULL,
  PRIMARY KEY (practice_id, user_id, horse_id, on_date, what),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id)
) STRICT, WITHOUT ROWID;
CREATE INDEX opened_by_practice ON opened (practice_id, at);
