-- A wider CHECK changes nothing that is on the disk, so its text may be written
-- in place: ?1 is the table, ?2 the text that was, ?3 the text that is.
UPDATE sqlite_schema SET sql = replace(sql, ?2, ?3) WHERE type = 'table' AND name = ?1 AND instr(sql, ?2) > 0
