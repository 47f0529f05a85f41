SELECT c.id AS case_id, h.name AS horse, h.id AS horse_id, c.problem AS problem, c.ladder AS ladder, c.goal AS goal, c.opened_on AS opened_on, c.needed_by AS needed_by, c.finished_on AS finished_on
FROM cases AS c JOIN horses AS h ON h.practice_id = c.practice_id AND h.id = c.horse_id
WHERE c.practice_id = ?1 AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2))) ORDER BY h.name, c.opened_on, c.id
