-- name: InsertPlan :exec
INSERT INTO plans (practice_id, case_id, number, school, reason, catalog_version, doc, choices, made_by, created_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetPlans :many
SELECT p.number, p.school, p.reason, p.catalog_version, p.doc, p.choices, u.name AS made_by, p.created_at
FROM plans AS p
JOIN users AS u ON u.practice_id = p.practice_id AND u.id = p.made_by
WHERE p.practice_id = ? AND p.case_id = ?
ORDER BY p.number DESC;

-- name: GetChoices :many
SELECT choices, created_at FROM plans WHERE practice_id = ? AND case_id = ? ORDER BY number;

-- name: GetPlannedWithOwn :many
SELECT doc FROM plans WHERE practice_id = ? AND instr(choices, CAST(sqlc.arg(ladder_id) AS TEXT)) > 0;

-- name: InsertLadder :exec
INSERT INTO ladders (id, practice_id, version, ladder, name, catalog_version, doc, reason, saved_by, saved_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetLadders :many
SELECT l.id, l.version, l.ladder, l.name, l.catalog_version, l.doc, l.reason, u.name AS saved_by, l.saved_at
FROM ladders AS l
JOIN users AS u ON u.practice_id = l.practice_id AND u.id = l.saved_by
WHERE l.practice_id = ? AND l.version = (SELECT max(n.version) FROM ladders AS n WHERE n.practice_id = l.practice_id AND n.id = l.id)
ORDER BY l.ladder, l.name, l.id;

-- name: GetLadder :one
SELECT l.id, l.version, l.ladder, l.name, l.catalog_version, l.doc, l.reason, u.name AS saved_by, l.saved_at
FROM ladders AS l
JOIN users AS u ON u.practice_id = l.practice_id AND u.id = l.saved_by
WHERE l.practice_id = ? AND l.id = ? AND l.version = ?;

-- name: GetLatestLadder :one
SELECT l.id, l.version, l.ladder, l.name, l.catalog_version, l.doc, l.reason, u.name AS saved_by, l.saved_at
FROM ladders AS l
JOIN users AS u ON u.practice_id = l.practice_id AND u.id = l.saved_by
WHERE l.practice_id = ? AND l.id = ?
ORDER BY l.version DESC LIMIT 1;

-- name: InsertRehearsal :exec
INSERT INTO rehearsals (id, practice_id, horse_id, person_id, step, on_date, doc, noted_by, created_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetRehearsals :many
SELECT r.id, r.doc, u.name AS noted_by, r.created_at
FROM rehearsals AS r
JOIN users AS u ON u.practice_id = r.practice_id AND u.id = r.noted_by
WHERE r.practice_id = ? AND r.horse_id = ?
ORDER BY r.on_date, r.created_at, r.id;
