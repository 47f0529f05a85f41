-- name: InsertAssessment :exec
INSERT INTO assessments (id, practice_id, horse_id, on_date, base, doc, created_at) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: GetAssessments :many
SELECT id, horse_id, on_date, base, doc, version FROM assessments WHERE practice_id = ? AND horse_id = ? ORDER BY on_date, created_at;

-- name: GetAssessment :one
SELECT id, horse_id, on_date, base, doc, version FROM assessments WHERE practice_id = ? AND id = ?;

-- name: UpdateAssessment :exec
UPDATE assessments SET doc = ?, version = version + 1 WHERE practice_id = ? AND id = ?;

-- name: InsertMark :exec
INSERT INTO marks (id, practice_id, assessment_id, device, seq, device_at, at, received_at, path, value, written_by)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetMark :one
SELECT assessment_id, device, seq, device_at, path, value FROM marks WHERE practice_id = ? AND id = ?;

-- name: GetMarks :many
SELECT m.id, m.device, m.seq, m.at, m.path, m.value, u.name AS written_by FROM marks AS m
JOIN users AS u ON u.practice_id = m.practice_id AND u.id = m.written_by
WHERE m.practice_id = ? AND m.assessment_id = ? ORDER BY m.at, m.device, m.seq;
