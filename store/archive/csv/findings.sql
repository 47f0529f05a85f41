SELECT h.name AS horse, a.on_date AS assessed_on, '' AS problem, f.key AS finding, f.value AS source, a.id AS assessment_id
FROM assessments AS a JOIN horses AS h ON h.practice_id = a.practice_id AND h.id = a.horse_id, json_each(a.doc, '$.findings') AS f
WHERE a.practice_id = ?1 AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2)))
UNION ALL
SELECT h.name, a.on_date, p.key, f.key, f.value, a.id
FROM assessments AS a JOIN horses AS h ON h.practice_id = a.practice_id AND h.id = a.horse_id, json_each(a.doc, '$.problems') AS p, json_each(p.value, '$.findings') AS f
WHERE a.practice_id = ?1 AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2)))
ORDER BY 1, 2, 3, 4
