SELECT h.name AS horse, i.on_date AS on_date, i.doc AS what_json, u.name AS noted_by
FROM incidents AS i JOIN horses AS h ON h.practice_id = i.practice_id AND h.id = i.horse_id JOIN users AS u ON u.practice_id = i.practice_id AND u.id = i.noted_by
WHERE i.practice_id = ?1 AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2))) ORDER BY h.name, i.on_date, i.id
