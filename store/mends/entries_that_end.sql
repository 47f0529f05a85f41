-- Databases made before the ends of sessions had an index.
CREATE INDEX entries_that_end ON entries (practice_id, session_id) WHERE kind = 'end';
