-- Databases made before a yard had versions.
ALTER TABLE yards ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
