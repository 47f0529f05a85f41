-- name: CountAtDoor :execrows
UPDATE door SET times = times + 1, last_at = sqlc.arg(now)
WHERE id = (
  SELECT d.id FROM door AS d
  WHERE d.last_at >= sqlc.arg(since) AND d.at >= sqlc.arg(since) AND d.what = sqlc.arg(what) AND d.said = sqlc.arg(said) AND d.place = sqlc.arg(place) AND d.practice_id IS sqlc.narg(practice_id)
  ORDER BY d.id DESC LIMIT 1
);

-- name: InsertAtDoor :exec
INSERT INTO door (practice_id, user_id, at, last_at, what, said, place, device) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetDoor :many
SELECT d.at, d.last_at, d.times, d.what, d.said, d.place, d.device, coalesce(u.name, '') AS name, d.practice_id IS NULL AS unknown FROM door AS d
LEFT JOIN users AS u ON u.practice_id = d.practice_id AND u.id = d.user_id
WHERE d.practice_id = ? OR d.practice_id IS NULL
ORDER BY d.last_at DESC, d.id DESC LIMIT ?;

-- name: DeleteOldAtDoor :exec
DELETE FROM door WHERE last_at < ?;

-- name: DeleteManyAtDoor :exec
DELETE FROM door WHERE id <= (SELECT d.id FROM door AS d ORDER BY d.id DESC LIMIT 1 OFFSET ?);

-- name: GetLimits :many
SELECT key, full_at FROM limits WHERE full_at > ?;

-- name: PutLimit :exec
INSERT INTO limits (key, full_at) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET full_at = excluded.full_at;

-- name: DeleteOldLimits :exec
DELETE FROM limits WHERE full_at <= ?;

-- name: PutFamiliar :exec
INSERT INTO familiar (practice_id, user_id, mark, last_at) VALUES (?, ?, ?, ?)
ON CONFLICT (practice_id, user_id, mark) DO UPDATE SET last_at = excluded.last_at;

-- name: CountFamiliar :one
SELECT count(*) FROM familiar WHERE practice_id = ? AND user_id = ? AND mark = ? AND last_at > ?;

-- name: DeleteOldFamiliar :exec
DELETE FROM familiar WHERE last_at <= ?;

-- name: DeleteFamiliarOf :exec
DELETE FROM familiar WHERE practice_id = ? AND user_id = ?;
