-- name: GetHouseVersion :one
SELECT CAST(coalesce(max(version), 0) AS INTEGER) FROM house_rules WHERE practice_id = ?;

-- name: GetHouseRules :many
SELECT h.version, h.doc, h.reason, u.name AS saved_by, h.saved_at
FROM house_rules AS h JOIN users AS u ON u.practice_id = h.practice_id AND u.id = h.saved_by
WHERE h.practice_id = ? ORDER BY h.version DESC;

-- name: InsertHouseRules :exec
INSERT INTO house_rules (practice_id, version, doc, reason, saved_by, saved_at) VALUES (?, ?, ?, ?, ?, ?);

-- name: TouchAll :exec
INSERT INTO touched (practice_id, horse_id) SELECT h.practice_id, h.id FROM horses AS h WHERE h.practice_id = ?;
