-- +goose Up
-- What happens at the door: who came in, who did not, and what was refused. What
-- repeats within a minute is one row with a count. What was said is the address that
-- was typed, or the origin or host that was refused.
CREATE TABLE door (
  id          INTEGER PRIMARY KEY,
  practice_id TEXT REFERENCES practices (id),
  user_id     TEXT,
  at          INTEGER NOT NULL,
  last_at     INTEGER NOT NULL,
  times       INTEGER NOT NULL DEFAULT 1 CHECK (times >= 1),
  what        TEXT NOT NULL CHECK (what IN ('signed in', 'wrong password', 'held off', 'kept out', 'password changed', 'signed out everywhere', 'refused origin', 'refused host')),
  said        TEXT NOT NULL DEFAULT '' CHECK (length(said) <= 254),
  place       TEXT NOT NULL DEFAULT '' CHECK (length(place) <= 60),
  device      TEXT NOT NULL DEFAULT '' CHECK (length(device) <= 300),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX door_by_practice ON door (practice_id, last_at);
CREATE INDEX door_by_time ON door (last_at);

-- How far each limit on passwords is used up: the instant at which it is whole
-- again. Kept, so that a restart forgives nothing.
CREATE TABLE limits (
  key     BLOB PRIMARY KEY CHECK (length(key) = 32),
  full_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- Devices and places from which a user has signed in before: what strangers try
-- elsewhere does not hold these off.
CREATE TABLE familiar (
  practice_id TEXT NOT NULL,
  user_id     TEXT NOT NULL,
  mark        BLOB NOT NULL CHECK (length(mark) = 32),
  last_at     INTEGER NOT NULL,
  PRIMARY KEY (practice_id, user_id, mark),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id)
) STRICT, WITHOUT ROWID;

-- A one-time password runs out.
ALTER TABLE users ADD COLUMN one_time_until INTEGER;

-- A picture is plain once nothing is in it but what it shows. One that was taken
-- out of sight is erased after a while.
ALTER TABLE photographs ADD COLUMN plain INTEGER NOT NULL DEFAULT 0 CHECK (plain IN (0, 1));
ALTER TABLE photographs ADD COLUMN erased_at INTEGER;
