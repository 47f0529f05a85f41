-- name: InsertHorse :exec
INSERT INTO horses (id, practice_id, name, yard_id, record, created_at) VALUES (?, ?, ?, ?, ?, ?);

-- name: GetHorse :one
SELECT h.id, h.name, h.yard_id, h.record, h.version, y.name AS yard_name, y.address AS yard_address, y.phone AS yard_phone
FROM horses AS h LEFT JOIN yards AS y ON y.practice_id = h.practice_id AND y.id = h.yard_id
WHERE h.practice_id = ? AND h.id = ?;

-- name: GetHorses :many
SELECT h.id, h.name, h.yard_id, h.record, h.version, y.name AS yard_name
FROM horses AS h LEFT JOIN yards AS y ON y.practice_id = h.practice_id AND y.id = h.yard_id
WHERE h.practice_id = ? AND h.archived_at IS NULL ORDER BY h.name, h.id;

-- name: UpdateHorse :execrows
UPDATE horses SET name = ?, yard_id = ?, record = ?, version = version + 1
WHERE practice_id = ? AND id = ? AND version = ?;

-- name: InsertOwnership :exec
INSERT INTO ownerships (practice_id, horse_id, person_id, from_date) VALUES (?, ?, ?, ?);

-- name: GetOwners :many
SELECT o.horse_id, o.person_id, p.kind, p.name, p.phone FROM ownerships AS o
JOIN people AS p ON p.practice_id = o.practice_id AND p.id = o.person_id
WHERE o.practice_id = ? AND o.to_date IS NULL ORDER BY o.from_date, p.name;

-- name: GetOwnersOfHorse :many
SELECT o.person_id, p.kind, p.name, p.phone FROM ownerships AS o
JOIN people AS p ON p.practice_id = o.practice_id AND p.id = o.person_id
WHERE o.practice_id = ? AND o.horse_id = ? AND o.to_date IS NULL ORDER BY o.from_date, p.name;

-- name: InsertHandler :exec
INSERT INTO handlers (practice_id, horse_id, person_id) VALUES (?, ?, ?) ON CONFLICT DO NOTHING;

-- name: DeleteHandler :execrows
DELETE FROM handlers WHERE practice_id = ? AND horse_id = ? AND person_id = ?;

-- name: GetHandlers :many
SELECT h.horse_id, h.person_id, p.kind, p.name, p.phone FROM handlers AS h
JOIN people AS p ON p.practice_id = h.practice_id AND p.id = h.person_id
WHERE h.practice_id = ? ORDER BY p.name, p.id;

-- name: GetHandlersOfHorse :many
SELECT h.person_id, p.kind, p.name, p.phone FROM handlers AS h
JOIN people AS p ON p.practice_id = h.practice_id AND p.id = h.person_id
WHERE h.practice_id = ? AND h.horse_id = ? ORDER BY p.name, p.id;

-- name: GetNewestCase :one
SELECT id, horse_id, problem, ladder, goal, needed_by, opened_on, finished_on, wanted, thing, version FROM cases
WHERE practice_id = ? AND horse_id = ? ORDER BY opened_on DESC, id LIMIT 1;

-- name: InsertCase :exec
INSERT INTO cases (id, practice_id, horse_id, problem, ladder, goal, needed_by, opened_on, wanted, thing, created_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetCase :one
SELECT id, horse_id, problem, ladder, goal, needed_by, opened_on, finished_on, wanted, thing, version FROM cases
WHERE practice_id = ? AND id = ?;

-- name: GetCases :many
SELECT id, horse_id, problem, ladder, goal, needed_by, opened_on, finished_on, wanted, thing, version FROM cases
WHERE practice_id = ? ORDER BY opened_on DESC, id;

-- name: UpdateCase :execrows
UPDATE cases SET goal = ?, needed_by = ?, finished_on = ?, thing = ?, version = version + 1
WHERE practice_id = ? AND id = ? AND version = ?;

