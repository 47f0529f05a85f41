-- +goose Up
-- Clips: films of a horse, by a user or from an owner. The film itself is a file beside
-- the database, named by its hash, with the photographs. What was tapped on it stands with
-- it; marks are moments with a word, perhaps tied to a finding or a step.
CREATE TABLE clips (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  name        TEXT NOT NULL DEFAULT '' CHECK (length(name) <= 120),
  view        TEXT NOT NULL DEFAULT '' CHECK (length(view) <= 40),
  filmed_on   TEXT NOT NULL CHECK (filmed_on IS date(filmed_on)),
  media_type  TEXT NOT NULL CHECK (media_type IN ('video/mp4', 'video/quicktime', 'video/webm')),
  bytes       INTEGER NOT NULL CHECK (bytes > 0),
  hash        TEXT NOT NULL CHECK (length(hash) = 64),
  position    TEXT NOT NULL CHECK (position IN ('none', 'removed', 'not looked')),
  frames      TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(frames)),
  speed       REAL NOT NULL DEFAULT 1 CHECK (speed > 0 AND speed <= 8),
  gait        TEXT NOT NULL DEFAULT '' CHECK (length(gait) <= 120),
  landings    TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(landings) AND length(landings) <= 200000),
  sent_by     TEXT,
  added_by    TEXT NOT NULL,
  created_at  INTEGER NOT NULL,
  removed_at  INTEGER,
  erased_at   INTEGER,
  version     INTEGER NOT NULL DEFAULT 1,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, sent_by) REFERENCES people (practice_id, id),
  FOREIGN KEY (practice_id, added_by) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX clips_by_horse ON clips (practice_id, horse_id, filmed_on);
CREATE INDEX clips_by_hash ON clips (hash);

CREATE TABLE clip_marks (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  clip_id     TEXT NOT NULL,
  at          REAL NOT NULL CHECK (at >= 0 AND at <= 86400),
  says        TEXT NOT NULL CHECK (length(says) <= 200),
  finding     TEXT NOT NULL DEFAULT '' CHECK (length(finding) <= 60),
  step        TEXT NOT NULL DEFAULT '' CHECK (length(step) <= 60),
  side        TEXT NOT NULL DEFAULT '' CHECK (side IN ('', 'near', 'off')),
  made_by     TEXT NOT NULL,
  made_at     INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, clip_id) REFERENCES clips (practice_id, id),
  FOREIGN KEY (practice_id, made_by) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX clip_marks_by_clip ON clip_marks (practice_id, clip_id, at);
