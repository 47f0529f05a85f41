-- name: InsertFeed :exec
INSERT INTO feeds (id, practice_id, token_hash, user_id, person_id, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: GetFeeds :many
SELECT f.id, f.user_id, f.person_id, f.made_at, f.off_at, f.read_at, coalesce(u.name, p.name, '') AS name
FROM feeds AS f
LEFT JOIN users AS u ON u.practice_id = f.practice_id AND u.id = f.user_id
LEFT JOIN people AS p ON p.practice_id = f.practice_id AND p.id = f.person_id
WHERE f.practice_id = ? ORDER BY f.made_at DESC, f.id;

-- name: GetFeedByToken :one
SELECT f.id, f.practice_id, f.user_id, f.person_id, sqlc.embed(p)
FROM feeds AS f JOIN practices AS p ON p.id = f.practice_id
LEFT JOIN users AS u ON u.practice_id = f.practice_id AND u.id = f.user_id
LEFT JOIN people AS o ON o.practice_id = f.practice_id AND o.id = f.person_id
WHERE f.token_hash = ? AND f.off_at IS NULL AND (f.user_id IS NULL OR u.active = 1) AND (f.person_id IS NULL OR o.archived_at IS NULL);

-- name: FeedWasRead :exec
UPDATE feeds SET read_at = ? WHERE practice_id = ? AND id = ?;

-- name: SwitchFeedOff :execrows
UPDATE feeds SET off_at = ? WHERE practice_id = ? AND id = ? AND off_at IS NULL;

-- name: InsertBusy :exec
INSERT INTO busy (practice_id, user_id, from_at, to_at, what) VALUES (?, ?, ?, ?, ?) ON CONFLICT DO NOTHING;

-- name: DeleteBusy :exec
DELETE FROM busy WHERE practice_id = ? AND user_id = ?;

-- name: GetBusy :many
SELECT user_id, from_at, to_at, what FROM busy
WHERE practice_id = sqlc.arg(practice_id) AND to_at > sqlc.arg(since) AND from_at < sqlc.arg(until) ORDER BY from_at, to_at, what;
