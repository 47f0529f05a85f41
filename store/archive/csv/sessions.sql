SELECT s.id AS session_id, h.name AS horse, s.local_date AS on_date, s.zone AS zone, datetime(s.started_at / 1000, 'unixepoch') AS started_utc, s.school AS school, s.handler AS handler, u.name AS started_by,
  coalesce(e.asks, 0) AS asks, coalesce(e.minutes, 0) AS logged_minutes
FROM sessions AS s JOIN horses AS h ON h.practice_id = s.practice_id AND h.id = s.horse_id JOIN users AS u ON u.practice_id = s.practice_id AND u.id = s.started_by
LEFT JOIN (
  SELECT session_id, count(*) FILTER (WHERE kind IN ('rep', 'dose', 'offer', 'burst')) AS asks, (max(at) - min(at)) / 60000 AS minutes
  FROM entries WHERE practice_id = ?1 GROUP BY session_id
) AS e ON e.session_id = s.id
WHERE s.practice_id = ?1 AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2))) ORDER BY h.name, s.started_at, s.id
