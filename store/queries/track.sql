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
FROM sessions WHERE practice_id = ? AND horse_id = ? ORDER BY local_date, started_at;

-- name: InsertEntry :exec
INSERT INTO entries (
  id, practice_id, session_id, device, seq, device_at, at, received_at, clock_off, after_end, kind, written_by, body
) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetEntryKept :one
SELECT session_id, device, seq, device_at, body FROM entries WHERE practice_id = ? AND id = ?;

-- name: GetEntriesOfSession :many
SELECT id, device, seq, device_at, at, received_at, clock_off, after_end, kind, body FROM entries
WHERE practice_id = ? AND session_id = ? ORDER BY at, device, seq;

-- name: GetEntriesOfHorse :many
SELECT e.session_id, e.id, e.device, e.seq, e.at, e.kind, e.body FROM entries AS e
JOIN sessions AS s ON s.practice_id = e.practice_id AND s.id = e.session_id
WHERE s.practice_id = ? AND s.horse_id = ? AND e.kind <> 'advice'
ORDER BY e.session_id, e.at, e.device, e.seq;

-- name: GetSessionEnded :one
SELECT EXISTS (SELECT 1 FROM entries WHERE practice_id = ? AND session_id = ? AND kind = 'end');

-- name: InsertReport :exec
INSERT INTO reports (practice_id, session_id, version, edits, saved_by, saved_at) VALUES (?, ?, ?, ?, ?, ?);

-- name: GetLatestReport :one
SELECT r.version, r.edits, r.saved_at, u.name AS saved_by FROM reports AS r
JOIN users AS u ON u.practice_id = r.practice_id AND u.id = r.saved_by
WHERE r.practice_id = ? AND r.session_id = ? ORDER BY r.version DESC LIMIT 1;

-- name: GetNewestChange :one
SELECT CAST(coalesce(max(id), 0) AS INTEGER) FROM changes WHERE practice_id = ?;

-- name: GetStage :one
SELECT g.body FROM stages AS g
WHERE g.practice_id = @practice_id AND g.session_id = @session_id AND g.edition = @edition
  AND g.change_id = @change_id;

-- name: KeepStage :exec
INSERT INTO stages (practice_id, session_id, edition, change_id, body)
VALUES (@practice_id, @session_id, @edition, @change_id, @body)
ON CONFLICT (practice_id, session_id) DO UPDATE SET edition = excluded.edition, change_id = excluded.change_id, body = excluded.body;

-- name: DropStagesOfHorse :exec
DELETE FROM stages WHERE stages.practice_id = @practice_id
  AND stages.session_id IN (SELECT s.id FROM sessions AS s WHERE s.practice_id = @practice_id AND s.horse_id = @horse_id);

-- name: DropStagesAfter :exec
DELETE FROM stages WHERE stages.practice_id = @practice_id AND stages.session_id IN (
  SELECT later.id FROM sessions AS later
  JOIN sessions AS this ON this.practice_id = later.practice_id AND this.horse_id = later.horse_id
  WHERE this.practice_id = @practice_id AND this.id = @session_id AND later.id <> this.id
    AND (later.local_date, later.started_at) >= (this.local_date, this.started_at)
);

-- name: CountEntries :one
SELECT count(*) FROM entries WHERE practice_id = ? AND session_id = ?;

-- name: DropStage :exec
DELETE FROM stages WHERE practice_id = ? AND session_id = ?;

-- name: DeleteSession :execrows
DELETE FROM sessions WHERE practice_id = ? AND id = ?;
