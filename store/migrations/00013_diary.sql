-- +goose Up
-- The diary: visits that are agreed or proposed, the drives between yards, where a
-- person's day begins, and the rounds of a trainer who travels. A visit is at a time
-- of its yard's clocks; without a minute it has a day and no time yet.
ALTER TABLE yards ADD COLUMN zone TEXT NOT NULL DEFAULT '' CHECK (length(zone) <= 60);
ALTER TABLE yards ADD COLUMN lat REAL CHECK (lat BETWEEN -90 AND 90);
ALTER TABLE yards ADD COLUMN lon REAL CHECK (lon BETWEEN -180 AND 180);

CREATE TABLE visits (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL REFERENCES practices (id),
  yard_id     TEXT,
  who         TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  minute      INTEGER CHECK (minute BETWEEN 0 AND 1439),
  minutes     INTEGER NOT NULL CHECK (minutes BETWEEN 5 AND 600),
  zone        TEXT NOT NULL CHECK (length(zone) BETWEEN 1 AND 60),
  aim         TEXT NOT NULL DEFAULT '' CHECK (length(aim) <= 300),
  agreed      INTEGER NOT NULL CHECK (agreed IN (0, 1)),
  place       INTEGER NOT NULL DEFAULT 0 CHECK (place >= 0),
  cancelled   TEXT NOT NULL DEFAULT '' CHECK (length(cancelled) <= 300),
  version     INTEGER NOT NULL DEFAULT 1,
  changed_by  TEXT NOT NULL,
  changed_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, yard_id) REFERENCES yards (practice_id, id),
  FOREIGN KEY (practice_id, who) REFERENCES users (practice_id, id),
  FOREIGN KEY (practice_id, changed_by) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX visits_by_day ON visits (practice_id, on_date);

CREATE TABLE visited (
  practice_id TEXT NOT NULL,
  visit_id    TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  PRIMARY KEY (practice_id, visit_id, horse_id),
  FOREIGN KEY (practice_id, visit_id) REFERENCES visits (practice_id, id) ON DELETE CASCADE,
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id)
) STRICT, WITHOUT ROWID;
CREATE INDEX visited_by_horse ON visited (practice_id, horse_id);

-- Minutes by road, typed once for both ways: a is the lesser id.
CREATE TABLE drives (
  practice_id TEXT NOT NULL,
  a           TEXT NOT NULL,
  b           TEXT NOT NULL CHECK (a < b),
  minutes     INTEGER NOT NULL CHECK (minutes BETWEEN 0 AND 720),
  PRIMARY KEY (practice_id, a, b),
  FOREIGN KEY (practice_id, a) REFERENCES yards (practice_id, id),
  FOREIGN KEY (practice_id, b) REFERENCES yards (practice_id, id)
) STRICT, WITHOUT ROWID;

-- From which yard a person sets off, not before when, and the rounds.
CREATE TABLE days_begin (
  practice_id TEXT NOT NULL,
  user_id     TEXT NOT NULL,
  yard_id     TEXT,
  minute      INTEGER NOT NULL CHECK (minute BETWEEN 0 AND 1439),
  rounds      TEXT NOT NULL CHECK (json_valid(rounds) AND length(rounds) <= 40000),
  PRIMARY KEY (practice_id, user_id),
  FOREIGN KEY (practice_id, user_id) REFERENCES users (practice_id, id),
  FOREIGN KEY (practice_id, yard_id) REFERENCES yards (practice_id, id)
) STRICT, WITHOUT ROWID;

-- What was done on the days that a diary shows.
CREATE INDEX sessions_by_day ON sessions (practice_id, local_date);
CREATE INDEX practised_by_day ON practised (practice_id, on_date);
