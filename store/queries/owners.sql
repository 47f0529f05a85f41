-- name: InsertLink :exec
INSERT INTO links (id, practice_id, token_hash, person_id, session_id, until, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetLinkByToken :one
SELECT l.id, l.practice_id, l.person_id, l.session_id, l.until, l.opened, l.made_by, sqlc.embed(p)
FROM links AS l
JOIN practices AS p ON p.id = l.practice_id
LEFT JOIN people AS o ON o.practice_id = l.practice_id AND o.id = l.person_id
WHERE l.token_hash = ? AND l.until > ? AND l.off_at IS NULL AND (l.person_id IS NULL OR o.archived_at IS NULL);

-- name: GetLinks :many
SELECT l.id, l.person_id, l.session_id, l.until, l.made_at, u.name AS made_by, l.off_at, l.opened, l.first_at, l.last_at
FROM links AS l
JOIN users AS u ON u.practice_id = l.practice_id AND u.id = l.made_by
WHERE l.practice_id = ? AND (l.person_id = sqlc.narg(person_id) OR l.session_id = sqlc.narg(session_id))
ORDER BY l.made_at DESC, l.id;

-- name: SwitchLinkOff :execrows
UPDATE links SET off_at = ? WHERE practice_id = ? AND id = ? AND off_at IS NULL;

-- name: GetLink :one
SELECT id, person_id, session_id, until, made_at, off_at FROM links WHERE practice_id = ? AND id = ?;

-- name: CountLinkOpened :exec
UPDATE links SET opened = opened + 1, first_at = coalesce(first_at, sqlc.arg(now)), last_at = sqlc.arg(now)
WHERE practice_id = sqlc.arg(practice_id) AND id = sqlc.arg(id) AND (last_at IS NULL OR last_at <= sqlc.arg(since));

-- name: InsertPractised :exec
INSERT INTO practised (id, practice_id, horse_id, person_id, step, on_date, doc, received_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetPractised :many
SELECT id, person_id, step, on_date, doc, received_at FROM practised
WHERE practice_id = ? AND horse_id = ? ORDER BY on_date, received_at, id;

-- name: GetPractisedOne :one
SELECT horse_id, person_id, step, on_date, doc FROM practised WHERE practice_id = ? AND id = ?;

-- name: InsertResumed :exec
INSERT INTO resumed (practice_id, horse_id, log_id, reason, resumed_by, resumed_at) VALUES (?, ?, ?, ?, ?, ?)
ON CONFLICT (practice_id, log_id) DO NOTHING;

-- name: GetResumed :many
SELECT r.log_id, r.reason, u.name AS resumed_by, r.resumed_at
FROM resumed AS r
JOIN users AS u ON u.practice_id = r.practice_id AND u.id = r.resumed_by
WHERE r.practice_id = ? AND r.horse_id = ? ORDER BY r.resumed_at, r.log_id;

-- name: GetHorsesOfPerson :many
SELECT h.id FROM horses AS h
WHERE h.practice_id = sqlc.arg(practice_id) AND h.archived_at IS NULL AND (
  EXISTS (SELECT 1 FROM ownerships AS o WHERE o.practice_id = h.practice_id AND o.horse_id = h.id AND o.person_id = sqlc.arg(person_id) AND o.to_date IS NULL)
  OR EXISTS (SELECT 1 FROM handlers AS d WHERE d.practice_id = h.practice_id AND d.horse_id = h.id AND d.person_id = sqlc.arg(person_id)))
ORDER BY h.name, h.id;

-- name: PutSent :exec
INSERT INTO sent (practice_id, session_id, sent_by, sent_at) VALUES (?, ?, ?, ?)
ON CONFLICT (practice_id, session_id) DO NOTHING;

-- name: GetNewestSent :one
SELECT t.session_id, t.sent_at FROM sent AS t
JOIN sessions AS s ON s.practice_id = t.practice_id AND s.id = t.session_id
WHERE t.practice_id = ? AND s.horse_id = ? ORDER BY s.local_date DESC, s.started_at DESC, s.id DESC LIMIT 1;

-- name: GetSent :one
SELECT t.sent_at, u.name AS sent_by FROM sent AS t
JOIN users AS u ON u.practice_id = t.practice_id AND u.id = t.sent_by
WHERE t.practice_id = ? AND t.session_id = ?;

-- name: InsertSetAside :exec
INSERT INTO set_aside (practice_id, horse_id, note, basis, until, reason, set_by, set_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)
ON CONFLICT (practice_id, horse_id, note, set_at) DO UPDATE SET basis = excluded.basis, until = excluded.until, reason = excluded.reason, set_by = excluded.set_by;

-- name: GetSetAside :many
SELECT a.note, a.basis, a.until, a.reason, u.name AS set_by FROM set_aside AS a
JOIN users AS u ON u.practice_id = a.practice_id AND u.id = a.set_by
WHERE a.practice_id = ? AND a.horse_id = ? ORDER BY a.set_at, a.note;

-- name: InsertInvitation :exec
INSERT INTO invitations (id, practice_id, token_hash, name, person_id, on_date, yard_id, until, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: GetInvitationByToken :one
SELECT i.id, i.practice_id, i.name, i.person_id, i.on_date, i.yard_id, y.name AS yard, i.until, sqlc.embed(p)
FROM invitations AS i
JOIN practices AS p ON p.id = i.practice_id
LEFT JOIN yards AS y ON y.practice_id = i.practice_id AND y.id = i.yard_id
LEFT JOIN people AS o ON o.practice_id = i.practice_id AND o.id = i.person_id
WHERE i.token_hash = ? AND i.until > ? AND i.off_at IS NULL AND i.used_at IS NULL AND (i.person_id IS NULL OR o.archived_at IS NULL);

-- name: GetInvitations :many
SELECT i.id, i.name, i.person_id, i.on_date, y.name AS yard, i.until, i.made_at, u.name AS made_by, i.used_at, i.off_at
FROM invitations AS i
JOIN users AS u ON u.practice_id = i.practice_id AND u.id = i.made_by
LEFT JOIN yards AS y ON y.practice_id = i.practice_id AND y.id = i.yard_id
WHERE i.practice_id = ? AND i.used_at IS NULL AND i.off_at IS NULL AND i.until > ? ORDER BY i.made_at DESC, i.id;

-- name: UseInvitation :execrows
UPDATE invitations SET used_at = sqlc.arg(now) WHERE practice_id = sqlc.arg(practice_id) AND id = sqlc.arg(id) AND used_at IS NULL AND off_at IS NULL AND until > CAST(sqlc.arg(now) AS INTEGER);

-- name: WithdrawInvitation :execrows
UPDATE invitations SET off_at = ? WHERE practice_id = ? AND id = ? AND used_at IS NULL AND off_at IS NULL;

-- name: SetUserPerson :exec
UPDATE users SET person_id = ? WHERE practice_id = ? AND id = ?;

-- name: InsertHelper :exec
INSERT INTO helpers (practice_id, user_id, on_date, yard_id) VALUES (?, ?, ?, ?);

-- name: GetSignIns :many
SELECT s.id, s.user_id, u.name, s.device, s.place, s.created_at, s.expires_at
FROM sign_ins AS s JOIN users AS u ON u.practice_id = s.practice_id AND u.id = s.user_id
WHERE s.practice_id = ? AND s.expires_at > ? ORDER BY s.created_at DESC, s.id;

-- name: EndSignIn :execrows
DELETE FROM sign_ins WHERE practice_id = ? AND id = ?;

-- name: GetYardOfHorse :one
SELECT yard_id FROM horses WHERE practice_id = ? AND id = ?;

-- name: GetYardOfCase :one
SELECT h.yard_id FROM cases AS c JOIN horses AS h ON h.practice_id = c.practice_id AND h.id = c.horse_id WHERE c.practice_id = ? AND c.id = ?;

-- name: GetYardOfSession :one
SELECT h.yard_id FROM sessions AS s JOIN horses AS h ON h.practice_id = s.practice_id AND h.id = s.horse_id WHERE s.practice_id = ? AND s.id = ?;

-- name: PutOpened :exec
INSERT INTO opened (practice_id, user_id, horse_id, on_date, what, at) VALUES (?, ?, ?, ?, ?, ?)
ON CONFLICT (practice_id, user_id, horse_id, on_date, what) DO NOTHING;

-- name: GetRecord :many
SELECT at, name, what, subject, horse FROM (
  SELECT c.at AS at, coalesce(u.name, '') AS name, c.what AS what, c.subject AS subject, coalesce(h.name, '') AS horse
  FROM changes AS c
  LEFT JOIN users AS u ON u.practice_id = c.practice_id AND u.id = c.user_id
  LEFT JOIN horses AS h ON h.practice_id = c.practice_id AND h.id = c.subject
  WHERE c.practice_id = sqlc.arg(practice_id)
  UNION ALL
  SELECT o.at, u.name, o.what, o.horse_id, h.name
  FROM opened AS o
  JOIN users AS u ON u.practice_id = o.practice_id AND u.id = o.user_id
  JOIN horses AS h ON h.practice_id = o.practice_id AND h.id = o.horse_id
  WHERE o.practice_id = sqlc.arg(practice_id)
) ORDER BY at DESC, what LIMIT sqlc.arg(most);

-- name: InsertIncident :exec
INSERT INTO incidents (id, practice_id, horse_id, on_date, doc, noted_by, created_at) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: GetIncidents :many
SELECT i.id, i.doc, u.name AS noted_by, i.created_at FROM incidents AS i
JOIN users AS u ON u.practice_id = i.practice_id AND u.id = i.noted_by
WHERE i.practice_id = ? AND i.horse_id = ? ORDER BY i.on_date, i.created_at, i.id;
