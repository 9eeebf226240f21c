CREATE TABLE material (
  studio_id BINARY(16) NOT NULL,
  code VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  position INT NOT NULL,
  name VARCHAR(200) NOT NULL,
  kind VARCHAR(200) NOT NULL,
  solids DOUBLE NOT NULL,
  water DOUBLE NOT NULL,
  glycol DOUBLE NOT NULL,
  swatch CHAR(7) NULL,
  PRIMARY KEY (studio_id, code),
  CONSTRAINT material_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
) ENGINE = InnoDB;
