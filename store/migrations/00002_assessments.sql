-- +goose Up
-- An assessment is of a horse, and grows by marks: every tap is one. The
-- document is what the marks make of its base; it is kept beside them for
-- reading, and can be made again from them.

CREATE TABLE assessments_of_horses (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  on_date     TEXT NOT NULL CHECK (on_date IS date(on_date)),
  base        TEXT NOT NULL CHECK (json_valid(base) AND length(base) <= 1000000),
  doc         TEXT NOT NULL CHECK (json_valid(doc) AND length(doc) <= 1000000),
  version     INTEGER NOT NULL DEFAULT 1,
  created_at  INTEGER NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id)
) STRICT;

-- The older form held one problem, the body as a list, and the main handler
-- and the warning look where they do not belong.
INSERT INTO assessments_of_horses (id, practice_id, horse_id, on_date, base, doc, version, created_at)
SELECT id, practice_id, horse_id, on_date, doc, doc, version, created_at FROM (
  SELECT a.id, a.practice_id, c.horse_id, a.on_date, a.version, a.created_at, json_patch('{}', json_object(
    'problems', json_object(c.problem, json_object(
      'story', json_remove(coalesce(a.doc -> '$.story', '{}'), '$.handler_is'),
      'baseline', json_remove(coalesce(a.doc -> '$.baseline', '{}'), '$.warning_look'))),
    'body', json((SELECT json_group_object(b.value ->> '$.item', json_remove(b.value, '$.item')) FROM json_each(a.doc, '$.body') AS b)),
    'events', json((SELECT json_group_object('e' || e.key, json(e.value)) FROM json_each(a.doc, '$.events') AS e)),
    'handlers', json(CASE WHEN a.doc ->> '$.story.handler_is' <> ''
      THEN json_object('main', json_object('main', json('true'), 'experience', a.doc ->> '$.story.handler_is')) END),
    'mind', json(CASE WHEN a.doc ->> '$.baseline.warning_look' THEN json_object('look', 'warning look') END)
  )) AS doc
  FROM assessments AS a JOIN cases AS c ON c.practice_id = a.practice_id AND c.id = a.case_id
);
DROP TABLE assessments;
ALTER TABLE assessments_of_horses RENAME TO assessments;
CREATE INDEX assessments_by_horse ON assessments (practice_id, horse_id, on_date, created_at);

CREATE TABLE marks (
  id            TEXT NOT NULL CHECK (length(id) = 36),
  practice_id   TEXT NOT NULL,
  assessment_id TEXT NOT NULL,
  device        TEXT NOT NULL CHECK (length(device) BETWEEN 1 AND 60),
  seq           INTEGER NOT NULL CHECK (seq >= 0),
  device_at     INTEGER NOT NULL,
  at            INTEGER NOT NULL,
  received_at   INTEGER NOT NULL,
  path          TEXT NOT NULL CHECK (length(path) BETWEEN 1 AND 200),
  value         TEXT NOT NULL CHECK (json_valid(value) AND length(value) <= 40000),
  written_by    TEXT NOT NULL,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, assessment_id) REFERENCES assessments (practice_id, id),
  FOREIGN KEY (practice_id, written_by) REFERENCES users (practice_id, id)
) STRICT, WITHOUT ROWID;
CREATE INDEX marks_by_assessment ON marks (practice_id, assessment_id, at, device, seq);

-- +goose StatementBegin
CREATE TRIGGER marks_stay BEFORE UPDATE ON marks
BEGIN
  SELECT RAISE(ABORT, 'a mark is never changed');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER marks_are_kept BEFORE DELETE ON marks
BEGIN
  SELECT RAISE(ABORT, 'a mark is never taken away');
END;
-- +goose StatementEnd

-- What a person agreed to, from which day to which.
CREATE TABLE consents (
  practice_id  TEXT NOT NULL,
  person_id    TEXT NOT NULL,
  kind         TEXT NOT NULL CHECK (kind IN ('photographs', 'sharing')),
  given_on     TEXT NOT NULL CHECK (given_on IS date(given_on)),
  withdrawn_on TEXT CHECK (withdrawn_on IS NULL OR withdrawn_on IS date(withdrawn_on)),
  noted_by     TEXT NOT NULL,
  created_at   INTEGER NOT NULL,
  PRIMARY KEY (practice_id, person_id, kind, given_on),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id),
  FOREIGN KEY (practice_id, noted_by) REFERENCES users (practice_id, id)
) STRICT;

-- A photograph; the picture itself is a file beside the database, named by its
-- hash.
CREATE TABLE photographs (
  id          TEXT NOT NULL CHECK (length(id) = 36),
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  about       TEXT NOT NULL CHECK (about IN ('horse', 'tack', 'mark')),
  caption     TEXT NOT NULL DEFAULT '' CHECK (length(caption) <= 200),
  taken_on    TEXT NOT NULL CHECK (taken_on IS date(taken_on)),
  media_type  TEXT NOT NULL CHECK (media_type IN ('image/jpeg', 'image/png')),
  width       INTEGER NOT NULL CHECK (width > 0),
  height      INTEGER NOT NULL CHECK (height > 0),
  bytes       INTEGER NOT NULL CHECK (bytes > 0),
  hash        TEXT NOT NULL CHECK (length(hash) = 64),
  added_by    TEXT NOT NULL,
  created_at  INTEGER NOT NULL,
  removed_at  INTEGER,
  PRIMARY KEY (practice_id, id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, added_by) REFERENCES users (practice_id, id)
) STRICT;
CREATE INDEX photographs_by_horse ON photographs (practice_id, horse_id, taken_on);
