-- name: InsertPractice :exec
INSERT INTO practices (id, name, zone, vehicle, sides, units, phone, created_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetPractice :one
SELECT id, name, zone, vehicle, sides, created_at, phone, units FROM practices WHERE id = ?;

-- name: GetFirstPractice :one
SELECT id, name, zone, vehicle, sides, created_at, phone, units FROM practices ORDER BY created_at, id LIMIT 1;

-- name: GetPractices :many
SELECT id, name, zone, vehicle, sides, created_at, phone, units FROM practices ORDER BY created_at, id;

-- name: UpdatePracticePhone :exec
UPDATE practices SET phone = ? WHERE id = ?;

-- name: UpdateHome :execrows
UPDATE practices SET name = @name, zone = @zone, vehicle = @vehicle, sides = @sides, units = @units
WHERE id = @id AND name = @was_name AND zone = @was_zone AND vehicle = @was_vehicle AND sides = @was_sides AND units = @was_units;

-- name: GetLastChange :one
SELECT c.at, coalesce(u.name, '') AS name FROM changes AS c
LEFT JOIN users AS u ON u.practice_id = c.practice_id AND u.id = c.user_id
WHERE c.practice_id = ? AND c.what = ? AND c.subject = ? ORDER BY c.at DESC, c.id DESC LIMIT 1;

-- name: InsertUser :exec
INSERT INTO users (id, practice_id, name, email, role, password_hash, must_change, one_time_until, active, created_at)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, 1, ?);

-- name: GetUserByEmail :one
SELECT id, practice_id, name, email, role, password_hash, must_change, active, one_time_until, person_id FROM users WHERE email = ?;

-- name: GetUser :one
SELECT id, practice_id, name, email, role, password_hash, must_change, active, one_time_until, person_id FROM users WHERE practice_id = ? AND id = ?;

-- name: GetUsers :many
SELECT u.id, u.practice_id, u.name, u.email, u.role, u.must_change, u.active, u.person_id, CAST(coalesce(h.on_date, '') AS TEXT) AS on_date, CAST(coalesce(h.yard_id, '') AS TEXT) AS yard_id, CAST(coalesce(y.name, '') AS TEXT) AS yard
FROM users AS u
LEFT JOIN helpers AS h ON h.practice_id = u.practice_id AND h.user_id = u.id
LEFT JOIN yards AS y ON y.practice_id = h.practice_id AND y.id = h.yard_id
WHERE u.practice_id = ? ORDER BY u.active DESC, u.name, u.id;

-- name: SetPassword :execrows
UPDATE users SET password_hash = ?, must_change = ?, one_time_until = ? WHERE practice_id = ? AND id = ?;

-- name: SetUserActive :execrows
UPDATE users SET active = ? WHERE practice_id = ? AND id = ?;

-- name: InsertSignIn :exec
INSERT INTO sign_ins (token_hash, practice_id, user_id, device, created_at, expires_at, id, place) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetSignedIn :one
SELECT u.id, u.practice_id, u.name, u.email, u.role, u.must_change, u.person_id, CAST(coalesce(h.on_date, '') AS TEXT) AS helps_on, CAST(coalesce(h.yard_id, '') AS TEXT) AS helps_at, sqlc.embed(p)
FROM sign_ins AS s JOIN users AS u ON u.practice_id = s.practice_id AND u.id = s.user_id
LEFT JOIN helpers AS h ON h.practice_id = u.practice_id AND h.user_id = u.id
JOIN practices AS p ON p.id = s.practice_id
WHERE s.token_hash = ? AND s.expires_at > ? AND u.active = 1;

-- name: CountRunOut :one
SELECT count(*) FROM sign_ins AS s JOIN users AS u ON u.practice_id = s.practice_id AND u.id = s.user_id
WHERE s.token_hash = ? AND s.expires_at <= ? AND u.active = 1;

-- name: DeleteSignIn :exec
DELETE FROM sign_ins WHERE token_hash = ?;

-- name: DeleteSignInsOf :exec
DELETE FROM sign_ins WHERE practice_id = ? AND user_id = ?;

-- name: DeleteExpiredSignIns :exec
DELETE FROM sign_ins WHERE expires_at <= ?;

-- name: InsertPerson :exec
INSERT INTO people (id, practice_id, kind, name, phone, email, note, created_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetPeople :many
SELECT id, kind, name, phone, email, note, version FROM people
WHERE practice_id = ? AND archived_at IS NULL ORDER BY name, id;

-- name: GetPerson :one
SELECT id, kind, name, phone, email, note, version FROM people WHERE practice_id = ? AND id = ?;

-- name: UpdatePerson :execrows
UPDATE people SET kind = ?, name = ?, phone = ?, email = ?, note = ?, version = version + 1
WHERE practice_id = ? AND id = ? AND version = ?;

-- name: InsertYard :exec
INSERT INTO yards (id, practice_id, name, address, phone, created_at) VALUES (?, ?, ?, ?, ?, ?);

-- name: GetYards :many
SELECT id, name, address, phone, version FROM yards WHERE practice_id = ? ORDER BY name, id;

-- name: GetYard :one
SELECT id, name, address, phone, version FROM yards WHERE practice_id = ? AND id = ?;

-- name: UpdateYard :execrows
UPDATE yards SET name = ?, address = ?, phone = ?, version = version + 1
WHERE practice_id = ? AND id = ? AND version = ?;

-- name: InsertTrailer :exec
INSERT INTO trailers (id, practice_id, name, yard_id, person_id, record, created_at) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: GetTrailers :many
SELECT id, name, yard_id, person_id, record, version FROM trailers WHERE practice_id = ? ORDER BY name, id;

-- name: GetTrailer :one
SELECT id, name, yard_id, person_id, record, version FROM trailers WHERE practice_id = ? AND id = ?;

-- name: UpdateTrailer :execrows
UPDATE trailers SET name = ?, yard_id = ?, person_id = ?, record = ?, version = version + 1
WHERE practice_id = ? AND id = ? AND version = ?;

-- name: InsertChange :exec
INSERT INTO changes (practice_id, user_id, at, what, subject) VALUES (?, ?, ?, ?, ?);
