-- name: InsertReader :exec
INSERT INTO readers (id, practice_id, user_id, person_id, stop_token, agreed_at, noted_by) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: GetReaders :many
SELECT r.id, r.user_id, r.person_id, r.stop_token, r.agreed_at, n.name AS noted_by, coalesce(u.name, p.name, '') AS name, coalesce(u.email, p.email, '') AS email
FROM readers AS r
JOIN users AS n ON n.practice_id = r.practice_id AND n.id = r.noted_by
LEFT JOIN users AS u ON u.practice_id = r.practice_id AND u.id = r.user_id
LEFT JOIN people AS p ON p.practice_id = r.practice_id AND p.id = r.person_id
WHERE r.practice_id = ? AND r.stopped_at IS NULL AND (r.user_id IS NULL OR u.active = 1) AND (r.person_id IS NULL OR p.archived_at IS NULL)
ORDER BY name, r.id;

-- name: StopReader :execrows
UPDATE readers SET stopped_at = ? WHERE practice_id = ? AND id = ? AND stopped_at IS NULL;

-- name: GetReaderByStop :one
SELECT r.id, r.practice_id, r.stopped_at, p.name AS practice
FROM readers AS r JOIN practices AS p ON p.id = r.practice_id WHERE r.stop_token = ?;

-- name: InsertLetter :execrows
INSERT INTO letters (id, practice_id, reader_id, on_date, name, address, subject, body, calendar, made_at, next_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING;

-- name: GetLetters :many
SELECT id, reader_id, on_date, name, address, subject, body, calendar, made_at, tries, next_at, sent_at, failed
FROM letters WHERE practice_id = ? ORDER BY made_at DESC, name, id LIMIT 60;

-- name: GetReadersTold :many
SELECT reader_id FROM letters WHERE practice_id = ? AND on_date = ?;

-- name: GetWaitingLetters :many
SELECT l.id, l.practice_id, l.reader_id, l.on_date, l.name, l.address, l.subject, l.body, l.calendar, l.made_at, l.tries, l.next_at, l.sent_at, l.failed,
  r.stop_token, r.stopped_at, p.name AS practice
FROM letters AS l
JOIN readers AS r ON r.practice_id = l.practice_id AND r.id = l.reader_id
JOIN practices AS p ON p.id = l.practice_id
WHERE l.next_at <= ? ORDER BY l.next_at, l.id LIMIT 500;

-- name: LetterTried :exec
UPDATE letters SET tries = tries + 1, next_at = ?, sent_at = ?, failed = ? WHERE practice_id = ? AND id = ?;

-- name: DeleteOldLetters :exec
DELETE FROM letters WHERE made_at < ?;
