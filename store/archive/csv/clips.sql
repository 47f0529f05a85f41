SELECT h.name AS horse, c.filmed_on AS filmed_on, c.name AS shows, c.view AS view, c.gait AS rider_calls_it, c.bytes AS size_bytes, c.hash AS file_sha256, datetime(c.created_at / 1000, 'unixepoch') AS came_utc
FROM clips AS c JOIN horses AS h ON h.practice_id = c.practice_id AND h.id = c.horse_id
WHERE c.practice_id = ?1 AND c.removed_at IS NULL AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2))) ORDER BY h.name, c.filmed_on, c.id
