SELECT h.name AS horse, d.on_date AS on_date, coalesce(p.name, '') AS by, d.step AS step, json_extract(d.doc, '$.done') AS done, json_extract(d.doc, '$.minutes') AS minutes, json_extract(d.doc, '$.answers') AS answers_json
FROM practised AS d JOIN horses AS h ON h.practice_id = d.practice_id AND h.id = d.horse_id LEFT JOIN people AS p ON p.practice_id = d.practice_id AND p.id = d.person_id
WHERE d.practice_id = ?1 AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2))) ORDER BY h.name, d.on_date, d.id
