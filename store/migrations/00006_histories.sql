-- +goose Up
-- What a horse's sessions came to is folded session by session and kept beside
-- each closed one. All of it is made from the tracks alone and can be thrown
-- away; one made by another edition of the rules is made again.

CREATE TABLE histories (
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  session_id  TEXT NOT NULL,
  local_date  TEXT NOT NULL,
  started_at  INTEGER NOT NULL,
  edition     TEXT NOT NULL,
  body        TEXT NOT NULL CHECK (json_valid(body)),
  unread      TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(unread)),
  PRIMARY KEY (practice_id, session_id),
  FOREIGN KEY (practice_id, session_id) REFERENCES sessions (practice_id, id)
) STRICT;
CREATE INDEX histories_in_order ON histories (practice_id, horse_id, edition, local_date, started_at, session_id);

DROP INDEX sessions_by_horse;
CREATE INDEX sessions_in_order ON sessions (practice_id, horse_id, local_date, started_at, id);

-- The stages patched what histories make quick.
DROP TABLE stages;
DROP INDEX changes_newest;

-- A horse's stamp moves on with each change that its pages are made from; the
-- newest of a practice moves with any of them.
CREATE TABLE stamps (
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  n           INTEGER NOT NULL,
  PRIMARY KEY (practice_id, horse_id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id)
) STRICT, WITHOUT ROWID;
CREATE INDEX stamps_newest ON stamps (practice_id, n);
INSERT INTO stamps (practice_id, horse_id, n) SELECT practice_id, id, 1 FROM horses;

CREATE VIEW touched AS SELECT practice_id, horse_id FROM stamps;
-- +goose StatementBegin
CREATE TRIGGER touch INSTEAD OF INSERT ON touched
BEGIN
  UPDATE stamps SET n = 1 + (SELECT max(all_of.n) FROM stamps AS all_of WHERE all_of.practice_id = new.practice_id)
  WHERE practice_id = new.practice_id AND horse_id = new.horse_id;
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER horses_begin AFTER INSERT ON horses
BEGIN
  INSERT INTO stamps (practice_id, horse_id, n)
  VALUES (new.practice_id, new.id, 1 + coalesce((SELECT max(all_of.n) FROM stamps AS all_of WHERE all_of.practice_id = new.practice_id), 0));
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER horses_touch AFTER UPDATE ON horses
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER ownerships_touch AFTER INSERT ON ownerships
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER ownerships_touch_again AFTER UPDATE ON ownerships
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER people_touch AFTER UPDATE ON people
BEGIN
  INSERT INTO touched (practice_id, horse_id)
  SELECT o.practice_id, o.horse_id FROM ownerships AS o WHERE o.practice_id = new.practice_id AND o.person_id = new.id;
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER yards_touch AFTER UPDATE ON yards
BEGIN
  INSERT INTO touched (practice_id, horse_id)
  SELECT h.practice_id, h.id FROM horses AS h WHERE h.practice_id = new.practice_id AND h.yard_id = new.id;
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER cases_touch AFTER INSERT ON cases
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER cases_touch_again AFTER UPDATE ON cases
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER assessments_touch AFTER INSERT ON assessments
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER assessments_touch_again AFTER UPDATE ON assessments
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER plans_touch AFTER INSERT ON plans
BEGIN
  INSERT INTO touched (practice_id, horse_id)
  SELECT c.practice_id, c.horse_id FROM cases AS c WHERE c.practice_id = new.practice_id AND c.id = new.case_id;
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER rehearsals_touch AFTER INSERT ON rehearsals
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER sessions_touch AFTER INSERT ON sessions
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER sessions_touch_last AFTER DELETE ON sessions
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (old.practice_id, old.horse_id);
END;
-- +goose StatementEnd
