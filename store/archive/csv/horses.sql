SELECT h.id AS horse_id, h.name AS name, coalesce(y.name, '') AS yard, json_extract(h.record, '$.sex') AS sex, json_extract(h.record, '$.born') AS born,
  json_extract(h.record, '$.breed') AS breed, json_extract(h.record, '$.height_mm') / 10.0 AS height_cm, json_extract(h.record, '$.rides') AS rides,
  (SELECT group_concat(p.name, '; ') FROM ownerships AS o JOIN people AS p ON p.practice_id = o.practice_id AND p.id = o.person_id
    WHERE o.practice_id = h.practice_id AND o.horse_id = h.id AND o.to_date IS NULL) AS owners,
  datetime(h.created_at / 1000, 'unixepoch') AS taken_on_utc, datetime(h.archived_at / 1000, 'unixepoch') AS archived_utc
FROM horses AS h LEFT JOIN yards AS y ON y.practice_id = h.practice_id AND y.id = h.yard_id
WHERE h.practice_id = ?1 AND (?2 = 'null' OR h.id IN (SELECT value FROM json_each(?2))) ORDER BY h.name, h.id
