CREATE TABLE picture (
  id BINARY(16) NOT NULL PRIMARY KEY,
  studio_id BINARY(16) NOT NULL,
  code VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  position INT NOT NULL,
  title VARCHAR(200) NOT NULL,
  due DATE NULL,
  body JSON NOT NULL,
  version BIGINT NOT NULL,
  deleted_at DATETIME(6) NULL,
  UNIQUE KEY picture_code (studio_id, code),
  CONSTRAINT picture_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
) ENGINE = InnoDB;
