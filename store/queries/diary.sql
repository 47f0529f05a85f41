-- name: InsertVisit :exec
INSERT INTO visits (id, practice_id, yard_id, who, on_date, minute, minutes, zone, aim, agreed, place, changed_by, changed_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: UpdateVisit :execrows
UPDATE visits SET yard_id = ?, who = ?, on_date = ?, minute = ?, minutes = ?, zone = ?, aim = ?, agreed = ?, place = ?, cancelled = ?,
  version = version + 1, changed_by = ?, changed_at = ?
WHERE practice_id = ? AND id = ? AND version = ?;

-- name: PlaceVisit :execrows
UPDATE visits SET place = ? WHERE practice_id = ? AND id = ? AND on_date = ?;

-- name: InsertVisited :exec
INSERT INTO visited (practice_id, visit_id, horse_id) VALUES (?, ?, ?) ON CONFLICT DO NOTHING;

-- name: DeleteVisited :exec
DELETE FROM visited WHERE practice_id = ? AND visit_id = ?;

-- name: GetVisit :one
SELECT v.id, v.yard_id, v.who, v.on_date, v.minute, v.minutes, v.zone, v.aim, v.agreed, v.place, v.cancelled, v.version,
  u.name AS who_name, y.name AS yard_name, y.phone AS yard_phone
FROM visits AS v JOIN users AS u ON u.practice_id = v.practice_id AND u.id = v.who
LEFT JOIN yards AS y ON y.practice_id = v.practice_id AND y.id = v.yard_id
WHERE v.practice_id = ? AND v.id = ?;

-- name: GetVisits :many
SELECT v.id, v.yard_id, v.who, v.on_date, v.minute, v.minutes, v.zone, v.aim, v.agreed, v.place, v.cancelled, v.version,
  u.name AS who_name, y.name AS yard_name, y.phone AS yard_phone
FROM visits AS v JOIN users AS u ON u.practice_id = v.practice_id AND u.id = v.who
LEFT JOIN yards AS y ON y.practice_id = v.practice_id AND y.id = v.yard_id
WHERE v.practice_id = sqlc.arg(practice_id) AND v.on_date >= sqlc.arg(since) AND v.on_date <= sqlc.arg(until)
ORDER BY v.on_date, v.minute IS NULL, v.minute, v.place, v.id;

-- name: GetVisitedBetween :many
SELECT t.visit_id, t.horse_id, h.name FROM visits AS v
JOIN visited AS t ON t.practice_id = v.practice_id AND t.visit_id = v.id
JOIN horses AS h ON h.practice_id = t.practice_id AND h.id = t.horse_id
WHERE v.practice_id = sqlc.arg(practice_id) AND v.on_date >= sqlc.arg(since) AND v.on_date <= sqlc.arg(until)
ORDER BY t.visit_id, h.name, t.horse_id;

-- name: GetVisitedBy :many
SELECT t.horse_id, h.name FROM visited AS t
JOIN horses AS h ON h.practice_id = t.practice_id AND h.id = t.horse_id
WHERE t.practice_id = ? AND t.visit_id = ? ORDER BY h.name, t.horse_id;

-- name: GetVisitsOfHorse :many
SELECT v.id, v.on_date, v.minute, v.minutes, v.zone, v.agreed, v.aim, v.cancelled, v.version, u.name AS who_name, y.name AS yard_name
FROM visited AS t JOIN visits AS v ON v.practice_id = t.practice_id AND v.id = t.visit_id
JOIN users AS u ON u.practice_id = v.practice_id AND u.id = v.who
LEFT JOIN yards AS y ON y.practice_id = v.practice_id AND y.id = v.yard_id
WHERE t.practice_id = ? AND t.horse_id = ? AND v.on_date >= ?
ORDER BY v.on_date, v.minute IS NULL, v.minute, v.id;

-- name: GetSessionsOfDays :many
SELECT id, horse_id, local_date, started_at FROM sessions
WHERE practice_id = sqlc.arg(practice_id) AND local_date >= sqlc.arg(since) AND local_date <= sqlc.arg(until) ORDER BY local_date, started_at, id;

-- name: CountPractisedBetween :many
SELECT horse_id, on_date, count(*) AS logs FROM practised
WHERE practice_id = sqlc.arg(practice_id) AND on_date >= sqlc.arg(since) AND on_date <= sqlc.arg(until) GROUP BY on_date, horse_id ORDER BY on_date, horse_id;

-- name: GetDeadlinesBetween :many
SELECT c.id, c.horse_id, h.name, c.goal, c.needed_by FROM cases AS c
JOIN horses AS h ON h.practice_id = c.practice_id AND h.id = c.horse_id
WHERE c.practice_id = sqlc.arg(practice_id) AND c.finished_on IS NULL AND h.archived_at IS NULL
  AND c.needed_by >= sqlc.arg(since) AND c.needed_by <= sqlc.arg(until) ORDER BY c.needed_by, h.name;

-- name: SetDrive :exec
INSERT INTO drives (practice_id, a, b, minutes) VALUES (?, ?, ?, ?)
ON CONFLICT (practice_id, a, b) DO UPDATE SET minutes = excluded.minutes;

-- name: DeleteDrive :exec
DELETE FROM drives WHERE practice_id = ? AND a = ? AND b = ?;

-- name: GetDrives :many
SELECT a, b, minutes FROM drives WHERE practice_id = ? ORDER BY a, b;

-- name: GetYardPlaces :many
SELECT id, name, zone, lat, lon FROM yards WHERE practice_id = ? ORDER BY name, id;

-- name: PlaceYard :execrows
UPDATE yards SET zone = ?, lat = ?, lon = ? WHERE practice_id = ? AND id = ?;

-- name: GetDayBegins :one
SELECT yard_id, minute, rounds FROM days_begin WHERE practice_id = ? AND user_id = ?;

-- name: SetDayBegins :exec
INSERT INTO days_begin (practice_id, user_id, yard_id, minute, rounds) VALUES (?, ?, ?, ?, ?)
ON CONFLICT (practice_id, user_id) DO UPDATE SET yard_id = excluded.yard_id, minute = excluded.minute, rounds = excluded.rounds;

-- The visits of each horse are few: CROSS JOIN keeps their order of reading.
-- name: GetInWork :many
SELECT h.id, h.name, h.yard_id, EXISTS (
    SELECT 1 FROM visited AS t CROSS JOIN visits AS v ON v.practice_id = t.practice_id AND v.id = t.visit_id
    WHERE t.practice_id = h.practice_id AND t.horse_id = h.id AND v.on_date >= sqlc.arg(today) AND v.cancelled = ''
  ) AS planned
FROM horses AS h WHERE h.practice_id = sqlc.arg(practice_id) AND h.archived_at IS NULL
  AND EXISTS (SELECT 1 FROM cases AS c WHERE c.practice_id = h.practice_id AND c.horse_id = h.id AND c.finished_on IS NULL)
ORDER BY h.name, h.id;
