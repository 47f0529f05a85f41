SELECT h.name AS horse, f.taken_on AS taken_on, f.about AS about, f.caption AS caption, f.bytes AS size_bytes, f.hash AS file_sha256
FROM photographs AS f JOIN horses AS h ON h.practice_id = f.practice_id AND h.id = f.horse_id
WHERE f.practice_id = ?1 AND f.removed_at IS NULL AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2))) ORDER BY h.name, f.taken_on, f.id
