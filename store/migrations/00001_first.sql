-- +goose Up
-- Every row belongs to a practice; foreign keys name the practice too, so that
-- a row can't point into another one. Instants are milliseconds UTC, dates are
-- YYYY-MM-DD in the practice's time zone.

CREATE TABLE practices (
  id         TEXT PRIMARY KEY CHECK (length(id) = 36),
  name       TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  zone       TEXT NOT NULL CHECK (length(zone) BETWEEN 1 AND 60),
  vehicle    TEXT NOT NULL CHECK (vehicle IN ('trailer', 'float', 'box')),
  sides      TEXT NOT NULL CHECK (sides IN ('near and off', 'left and right')),
  created_at INTEGER NOT NULL
) STRICT;

CREATE TABLE users (
  id            TEXT NOT NULL CHECK (length(id) = 36),
  practice_id   TEXT NOT NULL REFERENCES practices (id),
  name          TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  email         TEXT NOT NULL COLLATE NOCASE UNIQUE CHECK (length(email) BETWEEN 3 AND 254),
  role          TEXT NOT NULL CHECK (role IN ('lead trainer', 'assistant', 'owner')),
  password_hash TEXT NOT NULL,
  must_change   INTEGER NOT NULL DEFAULT 0 CHECK (must_change IN (0, 1)),
  active        INTEGER NOT NULL DEFAULT 1 CHECK (active IN (0, 1)),
  created_at    INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id)
) STRICT;

-- The last active lead trainer stays, whoever asks.
-- +goose StatementBegin
CREATE TRIGGER users_keep_a_lead BEFORE UPDATE OF role, active ON users
WHEN old.role = 'lead trainer' AND old.active = 1 AND (new.role <> 'lead trainer' OR new.active = 0)
  AND NOT EXISTS (
    SELECT 1 FROM users AS u
    WHERE u.practice_id = old.practice_id AND u.id <> old.id AND u.role = 'lead trainer' AND u.active = 1
  )
BEGIN
  SELECT RAISE(ABORT, 'the last lead trainer stays');
END;
-- +goose StatementEnd

CREATE TABLE sign_ins (
  token_hash  BLOB PRIMARY KEY CHECK (length(token_hash) = 32),
  practice_id TEXT NOT NULL,
  user_id     TEXT NOT NULL,
  device      TEXT NOT NULL CHECK (length(device) <= 300),
  created_at  INTEGER NOT NULL,
  expires_at  INTEGER NOT NULL,
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX sign_ins_by_user ON sign_ins (practice_id, user_id);

CREATE TABLE people (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  kind        TEXT NOT NULL CHECK (kind IN ('owner', 'yard', 'rescue', 'vet', 'dentist', 'farrier', 'other')),
  name        TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  phone       TEXT NOT NULL DEFAULT '' CHECK (length(phone) <= 60),
  email       TEXT NOT NULL DEFAULT '' CHECK (length(email) <= 254),
  note        TEXT NOT NULL DEFAULT '' CHECK (length(note) <= 2000),
  version     INTEGER NOT NULL DEFAULT 1,
  created_at  INTEGER NOT NULL,
  archived_at INTEGER,
  PRIMARY KEY (practice_id, id)
) STRICT;

CREATE TABLE yards (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  name        TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  address     TEXT NOT NULL DEFAULT '' CHECK (length(address) <= 400),
  phone       TEXT NOT NULL DEFAULT '' CHECK (length(phone) <= 60),
  version     INTEGER NOT NULL DEFAULT 1,
  created_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id)
) STRICT;

CREATE TABLE horses (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  name        TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  yard_id     TEXT,
  record      TEXT NOT NULL CHECK (json_valid(record) AND length(record) <= 8000),
  version     INTEGER NOT NULL DEFAULT 1,
  created_at  INTEGER NOT NULL,
  archived_at INTEGER,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, yard_id) REFERENCES yards (practice_id, id)
) STRICT;

-- Who owns a horse, from which day to which.
CREATE TABLE ownerships (
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  person_id   TEXT NOT NULL,
  from_date   TEXT NOT NULL CHECK (from_date IS date(from_date)),
  to_date     TEXT CHECK (to_date IS NULL OR to_date IS date(to_date)),
  PRIMARY KEY (practice_id, horse_id, person_id, from_date),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id)
) STRICT;

-- A case is a horse's problem with its goal and date.
CREATE TABLE cases (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  problem     TEXT NOT NULL CHECK (length(problem) BETWEEN 1 AND 40),
  ladder      TEXT NOT NULL CHECK (length(ladder) BETWEEN 1 AND 60),
  goal        TEXT NOT NULL CHECK (length(goal) BETWEEN 1 AND 300),
  needed_by   TEXT CHECK (needed_by IS NULL OR needed_by IS date(needed_by)),
  opened_on   TEXT NOT NULL CHECK (opened_on IS date(opened_on)),
  finished_on TEXT CHECK (finished_on IS NULL OR finished_on IS date(finished_on)),
  version     INTEGER NOT NULL DEFAULT 1,
  created_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id)
) STRICT;
CREATE INDEX cases_by_horse ON cases (practice_id, horse_id);

CREATE TABLE assessments (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  case_id     TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  doc         TEXT NOT NULL CHECK (json_valid(doc) AND length(doc) <= 40000),
  version     INTEGER NOT NULL DEFAULT 1,
  created_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, case_id) REFERENCES cases (practice_id, id)
) STRICT;
CREATE INDEX assessments_by_case ON assessments (practice_id, case_id, on_date);

-- A plan keeps its older versions, each with the reason it was made.
CREATE TABLE plans (
  practice_id     TEXT NOT NULL,
  case_id         TEXT NOT NULL,
  number          INTEGER NOT NULL CHECK (number >= 1),
  school          TEXT NOT NULL CHECK (length(school) <= 40),
  reason          TEXT NOT NULL CHECK (length(reason) BETWEEN 1 AND 500),
  catalog_version TEXT NOT NULL,
  doc             TEXT NOT NULL CHECK (json_valid(doc)),
  made_by         TEXT NOT NULL,
  created_at      INTEGER NOT NULL,
  PRIMARY KEY (practice_id, case_id, number),
  FOREIGN KEY (practice_id, case_id) REFERENCES cases (practice_id, id),
  FOREIGN KEY (practice_id, made_by) REFERENCES users (practice_id, id)
) STRICT;

CREATE TABLE sessions (
  id              TEXT NOT NULL CHECK (length(id) = 36),
  practice_id     TEXT NOT NULL,
  case_id         TEXT NOT NULL,
  horse_id        TEXT NOT NULL,
  started_by      TEXT NOT NULL,
  started_at      INTEGER NOT NULL,
  zone            TEXT NOT NULL CHECK (length(zone) BETWEEN 1 AND 60),
  local_date      TEXT NOT NULL CHECK (local_date IS date(local_date)),
  school          TEXT NOT NULL,
  begins          TEXT NOT NULL CHECK (json_valid(begins)),
  handler         TEXT NOT NULL CHECK (length(handler) <= 60),
  readiness       TEXT NOT NULL CHECK (json_valid(readiness)),
  catalog_version TEXT NOT NULL,
  rules           TEXT NOT NULL CHECK (json_valid(rules)),
  core_version    TEXT NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, case_id) REFERENCES cases (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, started_by) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX sessions_by_horse ON sessions (practice_id, horse_id, local_date);

-- The track. Nothing is ever changed or taken away here; undo and correction
-- are entries of their own.
CREATE TABLE entries (
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
  kind        TEXT NOT NULL CHECK (kind IN ('rep', 'mark', 'undo', 'advice', 'end')),
  written_by  TEXT NOT NULL,
  body        TEXT NOT NULL CHECK (json_valid(body) AND length(body) <= 16000),
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, session_id) REFERENCES sessions (practice_id, id),
  FOREIGN KEY (practice_id, written_by) REFERENCES users (practice_id, id)
) STRICT, WITHOUT ROWID;
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

-- A report is computed; kept is the trainer's wording, every version of it.
CREATE TABLE reports (
  practice_id TEXT NOT NULL,
  session_id  TEXT NOT NULL,
  version     INTEGER NOT NULL CHECK (version >= 1),
  edits       TEXT NOT NULL CHECK (json_valid(edits) AND length(edits) <= 60000),
  saved_by    TEXT NOT NULL,
  saved_at    INTEGER NOT NULL,
  PRIMARY KEY (practice_id, session_id, version),
  FOREIGN KEY (practice_id, session_id) REFERENCES sessions (practice_id, id),
  FOREIGN KEY (practice_id, saved_by) REFERENCES users (practice_id, id)
) STRICT;

-- Who changed what, when.
CREATE TABLE changes (
  id          INTEGER PRIMARY KEY,
  practice_id TEXT NOT NULL REFERENCES practices (id),
  user_id     TEXT,
  at          INTEGER NOT NULL,
  what        TEXT NOT NULL CHECK (length(what) BETWEEN 1 AND 60),
  subject     TEXT NOT NULL CHECK (length(subject) <= 80)
) STRICT;
CREATE INDEX changes_by_practice ON changes (practice_id, at);
