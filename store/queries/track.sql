-- name: InsertSession :exec
INSERT INTO sessions (
  id, practice_id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness,
  catalog_version, rules, core_version
) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetSession :one
SELECT id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness, catalog_version, rules, core_version
FROM sessions WHERE practice_id = ? AND id = ?;

-- name: GetSessionsOfHorse :many
SELECT id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness, catalog_version, rules, core_version
FROM sessions WHERE practice_id = ? AND horse_id = ? ORDER BY local_date, started_at, id;

-- name: GetSessionsOn :many
SELECT id FROM sessions WHERE practice_id = ? AND horse_id = ? AND local_date = ? ORDER BY started_at, id;

-- name: GetNewestSessions :many
SELECT id, local_date, handler, started_by, started_at FROM sessions WHERE practice_id = ? AND horse_id = ? ORDER BY local_date DESC, started_at DESC, id DESC LIMIT ?;

-- name: GetSessionsBetween :many
SELECT id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness, catalog_version, rules, core_version
FROM sessions WHERE practice_id = @practice_id AND horse_id = @horse_id
  AND (local_date, started_at, id) > (@after_date, CAST(@after_start AS INTEGER), @after_id)
  AND (local_date, started_at, id) < (@before_date, CAST(@before_start AS INTEGER), @before_id)
ORDER BY local_date, started_at, id;

-- name: GetStartAfter :one
SELECT started_at FROM sessions WHERE practice_id = @practice_id AND horse_id = @horse_id
  AND (local_date, started_at, id) > (@after_date, CAST(@after_start AS INTEGER), @after_id)
ORDER BY local_date, started_at, id LIMIT 1;

-- name: GetSessionBefore :one
SELECT id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness, catalog_version, rules, core_version
FROM sessions WHERE practice_id = @practice_id AND horse_id = @horse_id
  AND (local_date, started_at, id) < (@before_date, CAST(@before_start AS INTEGER), @before_id)
ORDER BY local_date DESC, started_at DESC, id DESC LIMIT 1;

-- name: InsertEntry :exec
INSERT INTO entries (
  id, practice_id, session_id, device, seq, device_at, at, received_at, clock_off, after_end, kind, written_by, body
) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetEntryKept :one
SELECT session_id, device, seq, device_at, body FROM entries WHERE practice_id = ? AND id = ?;

-- name: GetEntriesOfSession :many
SELECT id, device, seq, device_at, at, received_at, clock_off, after_end, kind, body FROM entries
WHERE practice_id = ? AND session_id = ? ORDER BY at, device, seq;

-- name: GetTrackOfSession :many
SELECT id, at, kind, body FROM entries
WHERE practice_id = ? AND session_id = ? AND kind <> 'advice' ORDER BY at, device, seq;

-- The horse's few sessions lead; the entries of the practice are never scanned.
-- name: GetEntriesOfHorse :many
SELECT e.session_id, e.id, e.device, e.seq, e.at, e.kind, e.body FROM sessions AS s
CROSS JOIN entries AS e ON e.practice_id = s.practice_id AND e.session_id = s.id
WHERE s.practice_id = ? AND s.horse_id = ? AND e.kind <> 'advice'
ORDER BY e.session_id, e.at, e.device, e.seq;

-- name: GetPlaceOfSession :one
SELECT s.horse_id, s.local_date, s.started_at,
  EXISTS (SELECT 1 FROM entries AS e WHERE e.practice_id = s.practice_id AND e.session_id = s.id AND e.kind = 'end') AS ended
FROM sessions AS s WHERE s.practice_id = ? AND s.id = ?;

-- name: GetEnds :many
SELECT id, at, kind, body FROM entries
WHERE practice_id = ? AND session_id = ? AND kind IN ('end', 'undo') ORDER BY at, device, seq;

-- name: InsertReport :exec
INSERT INTO reports (practice_id, session_id, version, edits, saved_by, saved_at) VALUES (?, ?, ?, ?, ?, ?);

-- name: GetLatestReport :one
SELECT r.version, r.edits, r.saved_at, u.name AS saved_by FROM reports AS r
JOIN users AS u ON u.practice_id = r.practice_id AND u.id = r.saved_by
WHERE r.practice_id = ? AND r.session_id = ? ORDER BY r.version DESC LIMIT 1;

-- name: InsertClosing :exec
INSERT INTO closings (practice_id, case_id, version, edits, saved_by, saved_at) VALUES (?, ?, ?, ?, ?, ?);

-- name: GetLatestClosing :one
SELECT c.version, c.edits, c.saved_at, u.name AS saved_by FROM closings AS c
JOIN users AS u ON u.practice_id = c.practice_id AND u.id = c.saved_by
WHERE c.practice_id = ? AND c.case_id = ? ORDER BY c.version DESC LIMIT 1;

-- name: CountEntries :one
SELECT count(*) FROM entries WHERE practice_id = ? AND session_id = ?;

-- name: DeleteSession :execrows
DELETE FROM sessions WHERE practice_id = ? AND id = ?;

-- name: GetNewestHistory :one
SELECT session_id, local_date, started_at, body, unread FROM histories
WHERE practice_id = @practice_id AND horse_id = @horse_id AND edition = @edition
  AND (local_date, started_at, session_id) < (@before_date, CAST(@before_start AS INTEGER), @before_id)
ORDER BY local_date DESC, started_at DESC, session_id DESC LIMIT 1;

-- name: KeepHistory :exec
INSERT INTO histories (practice_id, horse_id, session_id, local_date, started_at, edition, body, unread, figures)
VALUES (@practice_id, @horse_id, @session_id, @local_date, @started_at, @edition, @body, @unread, @figures)
ON CONFLICT (practice_id, session_id) DO UPDATE SET edition = excluded.edition, body = excluded.body, unread = excluded.unread, figures = excluded.figures;

-- name: GetFigures :many
SELECT session_id, figures FROM histories WHERE practice_id = ? AND horse_id = ? AND edition = ? ORDER BY local_date, started_at, session_id;

-- name: DropHistoriesFrom :exec
DELETE FROM histories WHERE practice_id = @practice_id AND horse_id = @horse_id
  AND (local_date, started_at, session_id) >= (@local_date, CAST(@started_at AS INTEGER), @session_id);

-- name: DropHistoriesSince :exec
DELETE FROM histories WHERE histories.practice_id = @practice_id AND histories.started_at >= @started_at
  AND histories.horse_id = (SELECT c.horse_id FROM cases AS c WHERE c.practice_id = @practice_id AND c.id = @case_id);

-- name: DropHistories :exec
DELETE FROM histories;

-- name: GetHistories :many
SELECT session_id, edition, body, unread FROM histories WHERE practice_id = ? AND horse_id = ? ORDER BY local_date, started_at, session_id;

-- name: Touch :exec
UPDATE stamps SET n = 1 + (SELECT max(every.n) FROM stamps AS every WHERE every.practice_id = @practice_id)
WHERE stamps.practice_id = @practice_id AND stamps.horse_id = @horse_id;

-- name: GetStamp :one
SELECT n FROM stamps WHERE practice_id = ? AND horse_id = ?;

-- name: GetNewestStamp :one
SELECT CAST(coalesce(max(n), 0) AS INTEGER) FROM stamps WHERE practice_id = ?;

-- name: GetStamps :many
SELECT t.horse_id, t.n FROM stamps AS t JOIN horses AS h ON h.practice_id = t.practice_id AND h.id = t.horse_id
WHERE t.practice_id = ? AND h.archived_at IS NULL;

-- name: GetHorsesOfAll :many
SELECT practice_id, id FROM horses ORDER BY practice_id, id;

-- name: GetOwnAsks :many
SELECT h.id AS horse_id, h.name AS horse, CAST(json_extract(e.body, '$.mark.new') AS TEXT) AS ask
FROM entries AS e
JOIN sessions AS s ON s.practice_id = e.practice_id AND s.id = e.session_id
JOIN horses AS h ON h.practice_id = s.practice_id AND h.id = s.horse_id
WHERE e.practice_id = ? AND e.kind = 'mark' AND json_extract(e.body, '$.mark.new.key') IS NOT NULL
  AND NOT EXISTS (
    SELECT 1 FROM entries AS u
    WHERE u.practice_id = e.practice_id AND u.session_id = e.session_id AND u.kind = 'undo' AND json_extract(u.body, '$.replaces') = e.id
  )
ORDER BY h.name, e.at;
