SELECT v.on_date AS on_date, v.minute / 60 || ':' || substr('0' || v.minute % 60, -2) AS at_local, v.zone AS zone, v.minutes AS minutes, coalesce(y.name, '') AS yard, v.aim AS aim, v.cancelled AS cancelled,
  (SELECT group_concat(o.name, '; ') FROM visited AS d JOIN horses AS o ON o.practice_id = d.practice_id AND o.id = d.horse_id WHERE d.practice_id = v.practice_id AND d.visit_id = v.id) AS horses
FROM visits AS v LEFT JOIN yards AS y ON y.practice_id = v.practice_id AND y.id = v.yard_id
WHERE v.practice_id = ?1 AND ?2 = 'null' ORDER BY v.on_date, v.minute, v.id
