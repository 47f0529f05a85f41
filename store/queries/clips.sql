-- name: InsertClip :exec
INSERT INTO clips (id, practice_id, horse_id, name, view, filmed_on, media_type, bytes, hash, position, frames, sent_by, added_by, created_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetClips :many
SELECT c.id, c.horse_id, c.name, c.view, c.filmed_on, c.media_type, c.bytes, c.hash, c.position, '' AS frames, c.speed, c.gait, c.landings, c.version,
  u.name AS added_by, coalesce(p.name, '') AS sent_by
FROM clips AS c
JOIN users AS u ON u.practice_id = c.practice_id AND u.id = c.added_by
LEFT JOIN people AS p ON p.practice_id = c.practice_id AND p.id = c.sent_by
WHERE c.practice_id = ? AND c.horse_id = ? AND c.removed_at IS NULL ORDER BY c.filmed_on DESC, c.created_at DESC, c.id;

-- name: GetClip :one
SELECT c.id, c.horse_id, c.name, c.view, c.filmed_on, c.media_type, c.bytes, c.hash, c.position, c.frames, c.speed, c.gait, c.landings, c.version,
  u.name AS added_by, coalesce(p.name, '') AS sent_by
FROM clips AS c
JOIN users AS u ON u.practice_id = c.practice_id AND u.id = c.added_by
LEFT JOIN people AS p ON p.practice_id = c.practice_id AND p.id = c.sent_by
WHERE c.practice_id = ? AND c.id = ? AND c.removed_at IS NULL;

-- name: UpdateClip :execrows
UPDATE clips SET name = ?, view = ?, filmed_on = ?, speed = ?, gait = ?, landings = ?, version = version + 1
WHERE practice_id = ? AND id = ? AND version = ? AND removed_at IS NULL;

-- name: RemoveClip :execrows
UPDATE clips SET removed_at = ? WHERE practice_id = ? AND id = ? AND removed_at IS NULL;

-- name: GetRoomOfClips :one
SELECT CAST(coalesce(sum(bytes), 0) AS INTEGER) FROM clips WHERE practice_id = ? AND erased_at IS NULL;

-- name: GetClipsRemovedBefore :many
SELECT id, practice_id, hash FROM clips WHERE removed_at <= ? AND erased_at IS NULL LIMIT 100;

-- name: EraseClip :exec
UPDATE clips SET erased_at = ? WHERE practice_id = ? AND id = ?;

-- name: CountFilm :one
SELECT count(*) FROM clips WHERE hash = ? AND erased_at IS NULL;

-- name: InsertClipMark :exec
INSERT INTO clip_marks (id, practice_id, clip_id, at, says, finding, step, side, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetClipMarks :many
SELECT m.id, m.at, m.says, m.finding, m.step, m.side, u.name AS made_by, m.made_at
FROM clip_marks AS m JOIN users AS u ON u.practice_id = m.practice_id AND u.id = m.made_by
WHERE m.practice_id = ? AND m.clip_id = ? ORDER BY m.at, m.id;

-- name: DeleteClipMark :execrows
DELETE FROM clip_marks WHERE practice_id = ? AND clip_id = ? AND id = ?;

-- name: CountShowing :one
SELECT count(*) FROM clip_marks AS m JOIN clips AS c ON c.practice_id = m.practice_id AND c.id = m.clip_id
WHERE c.practice_id = ? AND c.horse_id = ? AND c.removed_at IS NULL AND m.finding = ? AND m.id <> ?;
