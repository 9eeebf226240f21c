-- Instruments of a studio, what they send, and the hours of the room that are made of it. A token is
-- kept as its SHA-256 only.
CREATE TABLE instrument (
  id BINARY(16) NOT NULL PRIMARY KEY,
  studio_id BINARY(16) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  name VARCHAR(200) NOT NULL,
  token_sha256 BINARY(32) NOT NULL UNIQUE,
  made_at DATETIME(6) NOT NULL,
  removed_at DATETIME(6) NULL,
  heard_at DATETIME(6) NULL,
  refused VARCHAR(500) NULL,
  refused_at DATETIME(6) NULL,
  behaviour VARCHAR(20) NULL,
  behaves_since DATETIME(6) NULL,
  CONSTRAINT instrument_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
) ENGINE = InnoDB;

CREATE TABLE measurement (
  instrument_id BINARY(16) NOT NULL,
  at DATETIME(3) NOT NULL,
  temperature_c DOUBLE NOT NULL,
  relative_humidity DOUBLE NOT NULL,
  taken_back BOOLEAN NOT NULL DEFAULT FALSE,
  PRIMARY KEY (instrument_id, at),
  CONSTRAINT measurement_of FOREIGN KEY (instrument_id) REFERENCES instrument (id) ON DELETE CASCADE
) ENGINE = InnoDB;

CREATE TABLE measured_hour (
  studio_id BINARY(16) NOT NULL,
  at DATETIME NOT NULL,
  temperature_c DOUBLE NOT NULL,
  relative_humidity DOUBLE NOT NULL,
  readings INT UNSIGNED NOT NULL,
  left_out INT UNSIGNED NOT NULL,
  PRIMARY KEY (studio_id, at),
  CONSTRAINT measured_hour_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
) ENGINE = InnoDB;

CREATE TABLE forecast_hour (
  instrument_id BINARY(16) NOT NULL,
  at DATETIME NOT NULL,
  temperature_c DOUBLE NOT NULL,
  relative_humidity DOUBLE NOT NULL,
  PRIMARY KEY (instrument_id, at),
  CONSTRAINT forecast_hour_of FOREIGN KEY (instrument_id) REFERENCES instrument (id) ON DELETE CASCADE
) ENGINE = InnoDB;

-- How often what was measured has changed the air: what was computed of it is out of date then.
ALTER TABLE air ADD COLUMN measured BIGINT NOT NULL DEFAULT 0;
