-- +goose Up
-- What was wanted as a horse was taken on: by problem, how far, and the thing that
-- a case of a new thing is about.
ALTER TABLE cases ADD COLUMN wanted TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(wanted) AND length(wanted) <= 4000);
ALTER TABLE cases ADD COLUMN thing TEXT NOT NULL DEFAULT '' CHECK (length(thing) <= 60);

-- The people who handle a horse for its owner: where that is a yard or a rescue,
-- and where an owner does not do it alone.
CREATE TABLE handlers (
  practice_id TEXT NOT NULL,
  horse_id    TEXT NOT NULL,
  person_id   TEXT NOT NULL,
  PRIMARY KEY (practice_id, horse_id, person_id),
  FOREIGN KEY (practice_id, horse_id) REFERENCES horses (practice_id, id),
  FOREIGN KEY (practice_id, person_id) REFERENCES people (practice_id, id)
) STRICT, WITHOUT ROWID;
-- +goose StatementBegin
CREATE TRIGGER handlers_touch AFTER INSERT ON handlers
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (new.practice_id, new.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER handlers_touch_last AFTER DELETE ON handlers
BEGIN
  INSERT INTO touched (practice_id, horse_id) VALUES (old.practice_id, old.horse_id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER people_touch_handled AFTER UPDATE ON people
BEGIN
  INSERT INTO touched (practice_id, horse_id)
  SELECT h.practice_id, h.horse_id FROM handlers AS h WHERE h.practice_id = new.practice_id AND h.person_id = new.id;
END;
-- +goose StatementEnd
