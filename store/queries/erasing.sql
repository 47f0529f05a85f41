-- name: HasSomething :one
SELECT CAST(EXISTS (SELECT 1 FROM horses AS h WHERE h.practice_id = sqlc.arg(practice_id))
  OR EXISTS (SELECT 1 FROM people AS p WHERE p.practice_id = sqlc.arg(practice_id))
  OR EXISTS (SELECT 1 FROM yards AS y WHERE y.practice_id = sqlc.arg(practice_id)) AS INTEGER);

-- name: CountNamed :one
SELECT CAST((SELECT count(*) FROM assessments AS a WHERE a.practice_id = sqlc.arg(practice_id) AND instr(a.doc, sqlc.arg(name)) > 0)
  + (SELECT count(*) FROM entries AS e WHERE e.practice_id = sqlc.arg(practice_id) AND instr(e.body, sqlc.arg(name)) > 0)
  + (SELECT count(*) FROM reports AS r WHERE r.practice_id = sqlc.arg(practice_id) AND instr(r.edits, sqlc.arg(name)) > 0)
  + (SELECT count(*) FROM closings AS c WHERE c.practice_id = sqlc.arg(practice_id) AND instr(c.edits, sqlc.arg(name)) > 0)
  + (SELECT count(*) FROM incidents AS i WHERE i.practice_id = sqlc.arg(practice_id) AND instr(i.doc, sqlc.arg(name)) > 0) AS INTEGER);

-- name: ErasePerson :exec
UPDATE people SET name = 'erased', phone = '', email = '', note = '', archived_at = coalesce(archived_at, sqlc.arg(archived_at)), version = version + 1
WHERE practice_id = sqlc.arg(practice_id) AND id = sqlc.arg(id);

-- name: EraseConsents :exec
DELETE FROM consents WHERE practice_id = ? AND person_id = ?;

-- name: EraseLetters :exec
DELETE FROM letters WHERE letters.practice_id = sqlc.arg(practice_id)
  AND reader_id IN (SELECT r.id FROM readers AS r WHERE r.practice_id = sqlc.arg(practice_id) AND r.person_id = sqlc.arg(person_id));

-- name: EraseReaders :exec
UPDATE readers SET stopped_at = coalesce(stopped_at, sqlc.arg(stopped_at)) WHERE practice_id = sqlc.arg(practice_id) AND person_id = sqlc.arg(person_id);

-- name: EraseLinks :exec
UPDATE links SET off_at = coalesce(off_at, sqlc.arg(off_at)) WHERE practice_id = sqlc.arg(practice_id) AND person_id = sqlc.arg(person_id);

-- name: EraseFeeds :exec
UPDATE feeds SET off_at = coalesce(off_at, sqlc.arg(off_at)) WHERE practice_id = sqlc.arg(practice_id) AND person_id = sqlc.arg(person_id);

-- name: EraseInvitations :exec
UPDATE invitations SET off_at = coalesce(off_at, sqlc.arg(off_at)), name = 'erased' WHERE practice_id = sqlc.arg(practice_id) AND person_id = sqlc.arg(person_id);

-- name: EraseSignIns :exec
DELETE FROM sign_ins WHERE sign_ins.practice_id = sqlc.arg(practice_id)
  AND user_id IN (SELECT u.id FROM users AS u WHERE u.practice_id = sqlc.arg(practice_id) AND u.person_id = sqlc.arg(person_id));

-- name: EraseAccount :exec
UPDATE users SET name = 'erased', email = id || '@erased.invalid', password_hash = '', active = 0 WHERE practice_id = sqlc.arg(practice_id) AND person_id = sqlc.arg(person_id);

-- name: EraseFilms :exec
UPDATE clips SET removed_at = coalesce(removed_at, sqlc.arg(removed_at)) WHERE practice_id = sqlc.arg(practice_id) AND sent_by = sqlc.arg(sent_by);
