SELECT h.name AS horse, s.local_date AS on_date, datetime(e.at / 1000, 'unixepoch') AS at_utc, e.kind AS kind,
  json_extract(e.body, '$.' || e.kind || '.step') AS step, json_extract(e.body, '$.' || e.kind || '.variant') AS side,
  json_extract(e.body, '$.' || e.kind || '.answer') AS answer, json_extract(e.body, '$.' || e.kind || '.start') AS start_level_0_10,
  json_extract(e.body, '$.' || e.kind || '.peak') AS peak_level_0_10, json_extract(e.body, '$.' || e.kind || '.seconds') AS pressure_s,
  json_extract(e.body, '$.' || e.kind || '.to_try') AS to_first_try_s, json_extract(e.body, '$.' || e.kind || '.release') AS release,
  json_extract(e.body, '$.' || e.kind || '.arousal') AS arousal_0_4, u.name AS written_by, e.session_id AS session_id, e.id AS entry_id
FROM entries AS e JOIN sessions AS s ON s.practice_id = e.practice_id AND s.id = e.session_id
JOIN horses AS h ON h.practice_id = s.practice_id AND h.id = s.horse_id JOIN users AS u ON u.practice_id = e.practice_id AND u.id = e.written_by
WHERE e.practice_id = ?1 AND e.kind IN ('rep', 'dose', 'offer', 'spell', 'burst', 'interruption') AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2)))
ORDER BY h.name, s.started_at, s.id, e.at, e.id
