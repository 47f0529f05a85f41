-- Databases made before a session named who held the rope.
ALTER TABLE sessions ADD COLUMN handler TEXT NOT NULL DEFAULT '' CHECK (length(handler) <= 60);
