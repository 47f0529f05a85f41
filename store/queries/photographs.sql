-- name: InsertPhotograph :exec
INSERT INTO photographs (id, practice_id, horse_id, about, caption, taken_on, media_type, width, height, bytes, hash, added_by, created_at, plain)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 1);

-- name: GetPhotographs :many
SELECT p.id, p.horse_id, p.about, p.caption, p.taken_on, p.media_type, p.width, p.height, p.bytes, p.hash, u.name AS added_by FROM photographs AS p
JOIN users AS u ON u.practice_id = p.practice_id AND u.id = p.added_by
WHERE p.practice_id = ? AND p.horse_id = ? AND p.removed_at IS NULL ORDER BY p.taken_on DESC, p.created_at DESC;

-- name: GetPhotograph :one
SELECT id, horse_id, about, caption, taken_on, media_type, width, height, bytes, hash, plain FROM photographs
WHERE practice_id = ? AND id = ? AND removed_at IS NULL;

-- name: RemovePhotograph :execrows
UPDATE photographs SET removed_at = ? WHERE practice_id = ? AND id = ? AND removed_at IS NULL;

-- name: GetRoomOfPhotographs :one
SELECT cast(coalesce(sum(bytes), 0) AS INTEGER) AS bytes FROM photographs WHERE practice_id = ? AND erased_at IS NULL;

-- name: GetNotPlain :many
SELECT id, practice_id, media_type, hash FROM photographs WHERE plain = 0 AND erased_at IS NULL ORDER BY id LIMIT ?;

-- name: MakePlain :execrows
UPDATE photographs SET plain = 1, media_type = ?, width = ?, height = ?, bytes = ?, hash = ? WHERE practice_id = ? AND id = ? AND hash = sqlc.arg(was);

-- name: CountPicture :one
SELECT count(*) FROM photographs WHERE hash = ? AND erased_at IS NULL;

-- name: GetRemovedBefore :many
SELECT id, practice_id, hash FROM photographs WHERE removed_at < sqlc.arg(before) AND erased_at IS NULL LIMIT 50;

-- name: ErasePhotograph :exec
UPDATE photographs SET erased_at = ? WHERE practice_id = ? AND id = ?;

-- name: InsertConsent :exec
INSERT INTO consents (practice_id, person_id, kind, given_on, noted_by, created_at) VALUES (?, ?, ?, ?, ?, ?)
ON CONFLICT (practice_id, person_id, kind, given_on) DO UPDATE SET withdrawn_on = NULL;

-- name: WithdrawConsent :execrows
UPDATE consents SET withdrawn_on = ? WHERE practice_id = ? AND person_id = ? AND kind = ? AND withdrawn_on IS NULL;

-- name: GetConsents :many
SELECT person_id, kind, given_on, withdrawn_on FROM consents WHERE practice_id = ? ORDER BY given_on;

-- name: GetConsentOfHorse :one
SELECT count(*) > 0 AS given FROM ownerships AS o
JOIN consents AS c ON c.practice_id = o.practice_id AND c.person_id = o.person_id
WHERE o.practice_id = ? AND o.horse_id = ? AND o.to_date IS NULL AND c.kind = ? AND c.withdrawn_on IS NULL;
