-- What an entry of the log says, in words, for searching: an index of it, filled in by the application.
ALTER TABLE log_entry
  ADD COLUMN said TEXT NOT NULL DEFAULT '' AFTER body,
  ADD FULLTEXT KEY log_entry_said (said),
  ADD KEY log_entry_when (picture_id, at);
