-- What is about no picture stands in the same log: a session, the palette, a material. `of_id` is the picture
-- or the studio that an entry is about. And what was planned of a coat is kept beside what was done.
ALTER TABLE log_entry
  MODIFY picture_id BINARY(16) NULL,
  ADD COLUMN studio_id BINARY(16) NULL AFTER picture_id,
  ADD COLUMN planned JSON NULL AFTER body,
  ADD CONSTRAINT log_entry_of_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE;

ALTER TABLE log_entry
  ADD COLUMN of_id BINARY(16) GENERATED ALWAYS AS (COALESCE(picture_id, studio_id)) STORED;

ALTER TABLE log_entry
  ADD KEY log_entry_list_of (of_id, stands, at, kind), DROP KEY log_entry_list;

-- An entry with an id of its own may be about no picture.
ALTER TABLE sent MODIFY picture_id BINARY(16) NULL;
