-- name: InsertLink :exec
INSERT INTO links (id, practice_id, token_hash, person_id, session_id, until, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetLinkByToken :one
SELECT l.id, l.practice_id, l.person_id, l.session_id, l.until, l.opened, p.name AS practice_name, p.zone, p.vehicle, p.sides, p.phone
FROM links AS l
JOIN practices AS p ON p.id = l.practice_id
LEFT JOIN people AS o ON o.practice_id = l.practice_id AND o.id = l.person_id
WHERE l.token_hash = ? AND l.until > ? AND l.off_at IS NULL AND (l.person_id IS NULL OR o.archived_at IS NULL);

-- name: GetLinks :many
SELECT l.id, l.person_id, l.session_id, l.until, l.made_at, u.name AS made_by, l.off_at, l.opened, l.first_at, l.last_at
FROM links AS l
JOIN users AS u ON u.practice_id = l.practice_id AND u.id = l.made_by
WHERE l.practice_id = ? AND (l.person_id = sqlc.narg(person_id) OR l.session_id = sqlc.narg(session_id))
ORDER BY l.made_at DESC, l.id;

-- name: SwitchLinkOff :execrows
UPDATE links SET off_at = ? WHERE practice_id = ? AND id = ? AND off_at IS NULL;

-- name: GetLink :one
SELECT id, person_id, session_id, until, made_at, off_at FROM links WHERE practice_id = ? AND id = ?;

-- name: CountLinkOpened :exec
UPDATE links SET opened = opened + 1, first_at = coalesce(first_at, sqlc.arg(now)), last_at = sqlc.arg(now)
WHERE practice_id = sqlc.arg(practice_id) AND id = sqlc.arg(id) AND (last_at IS NULL OR last_at <= sqlc.arg(since));

-- name: InsertPractised :exec
INSERT INTO practised (id, practice_id, horse_id, person_id, step, on_date, doc, received_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetPractised :many
SELECT id, person_id, step, on_date, doc, received_at FROM practised
WHERE practice_id = ? AND horse_id = ? ORDER BY on_date, received_at, id;

-- name: GetPractisedOne :one
SELECT horse_id, person_id, step, on_date, doc FROM practised WHERE practice_id = ? AND id = ?;

-- name: InsertResumed :exec
INSERT INTO resumed (practice_id, horse_id, log_id, reason, resumed_by, resumed_at) VALUES (?, ?, ?, ?, ?, ?)
ON CONFLICT (practice_id, log_id) DO NOTHING;

-- name: GetResumed :many
SELECT r.log_id, r.reason, u.name AS resumed_by, r.resumed_at
FROM resumed AS r
JOIN users AS u ON u.practice_id = r.practice_id AND u.id = r.resumed_by
WHERE r.practice_id = ? AND r.horse_id = ? ORDER BY r.resumed_at, r.log_id;

-- name: GetHorsesOfPerson :many
SELECT h.id FROM horses AS h
WHERE h.practice_id = sqlc.arg(practice_id) AND h.archived_at IS NULL AND (
  EXISTS (SELECT 1 FROM ownerships AS o WHERE o.practice_id = h.practice_id AND o.horse_id = h.id AND o.person_id = sqlc.arg(person_id) AND o.to_date IS NULL)
  OR EXISTS (SELECT 1 FROM handlers AS d WHERE d.practice_id = h.practice_id AND d.horse_id = h.id AND d.person_id = sqlc.arg(person_id)))
ORDER BY h.name, h.id;

-- name: PutSent :exec
INSERT INTO sent (practice_id, session_id, sent_by, sent_at) VALUES (?, ?, ?, ?)
ON CONFLICT (practice_id, session_id) DO NOTHING;

-- name: GetNewestSent :one
SELECT t.session_id, t.sent_at FROM sent AS t
JOIN sessions AS s ON s.practice_id = t.practice_id AND s.id = t.session_id
WHERE t.practice_id = ? AND s.horse_id = ? ORDER BY s.local_date DESC, s.started_at DESC, s.id DESC LIMIT 1;

-- name: GetSent :one
SELECT t.sent_at, u.name AS sent_by FROM sent AS t
JOIN users AS u ON u.practice_id = t.practice_id AND u.id = t.sent_by
WHERE t.practice_id = ? AND t.session_id = ?;
