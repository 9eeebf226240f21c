-- Every statement here can be run again: a start that was cut off goes on with this file from its beginning.

-- A leap second was kept as the date zero, which nothing can read: the moment it was entered stands in.
UPDATE log_entry SET at = entered_at WHERE YEAR(at) = 0;
UPDATE photograph SET taken_at = kept_at WHERE YEAR(taken_at) = 0;
DELETE FROM measurement WHERE YEAR(at) = 0;
DELETE FROM reading WHERE YEAR(at) = 0;

-- Edits of a photograph name the version they were made on.
ALTER TABLE photograph ADD COLUMN IF NOT EXISTS version BIGINT NOT NULL DEFAULT 1;

-- An id that an entry carries counts for entries of one kind about one picture or studio. Rows from before have
-- no kind; those about no picture do not say about which studio they were.
ALTER TABLE sent
  ADD COLUMN IF NOT EXISTS kind VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '' AFTER id,
  ADD COLUMN IF NOT EXISTS of_id BINARY(16) NOT NULL DEFAULT '' AFTER kind;
UPDATE sent SET of_id = COALESCE(picture_id, of_id) WHERE kind = '';
ALTER TABLE sent DROP FOREIGN KEY IF EXISTS sent_of;
ALTER TABLE sent DROP PRIMARY KEY, ADD PRIMARY KEY (id, kind, of_id);

-- A server may have another character set as its own: every text says its set itself.
ALTER TABLE studio MODIFY name VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL;
ALTER TABLE picture MODIFY title VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL;
ALTER TABLE revision MODIFY label VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL;
ALTER TABLE photograph MODIFY caption VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL;
ALTER TABLE reading MODIFY source VARCHAR(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL;
ALTER TABLE log_entry
  MODIFY kind VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL,
  MODIFY said TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL DEFAULT '';
ALTER TABLE instrument
  MODIFY kind VARCHAR(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL,
  MODIFY name VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL,
  MODIFY refused VARCHAR(500) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NULL,
  MODIFY behaviour VARCHAR(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NULL;
