CREATE TABLE photograph (
  id BINARY(16) NOT NULL PRIMARY KEY,
  picture_id BINARY(16) NOT NULL,
  taken_at DATETIME(6) NOT NULL,
  kept_at DATETIME(6) NOT NULL,
  step_code VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  caption VARCHAR(200) NOT NULL,
  width INT NOT NULL,
  height INT NOT NULL,
  whole MEDIUMBLOB NOT NULL,
  small MEDIUMBLOB NOT NULL,
  deleted_at DATETIME(6) NULL,
  KEY photograph_picture (picture_id, taken_at),
  CONSTRAINT photograph_of FOREIGN KEY (picture_id) REFERENCES picture (id) ON DELETE CASCADE
) ENGINE = InnoDB;
