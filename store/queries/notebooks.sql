-- name: InsertNotebook :exec
INSERT INTO notebooks (id, practice_id, name, brought, taken_by, taken_at) VALUES (?, ?, ?, ?, ?, ?);

-- name: InsertNotebookLine :exec
INSERT INTO notebook_lines (practice_id, notebook_id, line, horse_id, on_date, what, minutes, note) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: FinishCase :exec
UPDATE cases SET finished_on = ? WHERE practice_id = ? AND id = ?;

-- name: GetNotebooks :many
SELECT n.id, n.name, n.brought, u.name AS taken_by, n.taken_at, n.undone_at,
  (SELECT count(*) FROM notebook_lines AS l WHERE l.practice_id = n.practice_id AND l.notebook_id = n.id) AS lines
FROM notebooks AS n JOIN users AS u ON u.practice_id = n.practice_id AND u.id = n.taken_by
WHERE n.practice_id = ? ORDER BY n.taken_at DESC, n.id;

-- name: GetNotebook :one
SELECT brought, undone_at FROM notebooks WHERE practice_id = ? AND id = ?;

-- name: GetNotebookLines :many
SELECT l.on_date, l.what, l.minutes, l.note, n.name AS notebook
FROM notebook_lines AS l JOIN notebooks AS n ON n.practice_id = l.practice_id AND n.id = l.notebook_id
WHERE l.practice_id = ? AND l.horse_id = ? ORDER BY l.on_date DESC, l.line DESC;

-- name: DeleteNotebookLines :exec
DELETE FROM notebook_lines WHERE practice_id = ? AND notebook_id = ?;

-- name: DeleteOpened :exec
DELETE FROM opened WHERE practice_id = ? AND horse_id = ?;

-- name: DeleteStamp :exec
DELETE FROM stamps WHERE practice_id = ? AND horse_id = ?;

-- name: DeleteCases :exec
DELETE FROM cases WHERE practice_id = ? AND horse_id = ?;

-- name: DeleteOwnerships :exec
DELETE FROM ownerships WHERE practice_id = ? AND horse_id = ?;

-- name: DeleteHorse :exec
DELETE FROM horses WHERE practice_id = ? AND id = ?;

-- name: DeletePerson :exec
DELETE FROM people WHERE practice_id = ? AND id = ?;

-- name: UndoNotebook :exec
UPDATE notebooks SET undone_at = ? WHERE practice_id = ? AND id = ?;
