-- Entries that carry an id of their own: one that is sent twice changes nothing the second time.
CREATE TABLE sent (
  id BINARY(16) NOT NULL PRIMARY KEY,
  picture_id BINARY(16) NOT NULL,
  sent_at DATETIME(6) NOT NULL,
  CONSTRAINT sent_of FOREIGN KEY (picture_id) REFERENCES picture (id) ON DELETE CASCADE
) ENGINE = InnoDB;
