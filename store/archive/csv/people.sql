SELECT p.id AS person_id, p.kind AS kind, p.name AS name, p.phone AS phone, p.email AS email, p.note AS note, datetime(p.archived_at / 1000, 'unixepoch') AS archived_utc
FROM people AS p
WHERE p.practice_id = ?1 AND (?2 = 'null' OR p.id IN (SELECT o.person_id FROM ownerships AS o WHERE o.practice_id = ?1 AND o.horse_id IN (SELECT value FROM json_each(?2))))
ORDER BY p.kind, p.name, p.id
