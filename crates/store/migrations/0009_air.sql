-- The air becomes an aggregate of its own, with its own version and undo; readings become rows. A
-- reading belongs to every revision of the air from `since` on and before `until`.
CREATE TABLE air (
  studio_id BINARY(16) NOT NULL PRIMARY KEY,
  owner_id BINARY(16) NOT NULL UNIQUE,
  body JSON NOT NULL,
  version BIGINT NOT NULL,
  CONSTRAINT air_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
) ENGINE = InnoDB;

CREATE TABLE reading (
  studio_id BINARY(16) NOT NULL,
  at DATETIME(6) NOT NULL,
  since BIGINT NOT NULL,
  until BIGINT NULL,
  temperature_c DOUBLE NOT NULL,
  relative_humidity DOUBLE NOT NULL,
  air_speed_m_s DOUBLE NOT NULL,
  source VARCHAR(20) NOT NULL,
  PRIMARY KEY (studio_id, at, since),
  CONSTRAINT reading_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
) ENGINE = InnoDB;

INSERT INTO air (studio_id, owner_id, body, version)
SELECT id, UNHEX(REPLACE(UUID(), '-', '')),
  JSON_OBJECT('usual', JSON_EXTRACT(settings, '$.air'), 'ahead', JSON_EXTRACT(settings, '$.ahead')), 1
FROM studio;

INSERT INTO revision (owner_id, number, label, body, is_current, made_at)
SELECT air.owner_id, 1, 'begin the room', air.body, TRUE, studio.created_at
FROM air JOIN studio ON studio.id = air.studio_id;

INSERT INTO reading
  (studio_id, at, since, until, temperature_c, relative_humidity, air_speed_m_s, source)
SELECT studio.id, TIMESTAMPADD(MICROSECOND, ROUND(r.t * 1000000), '1970-01-01 00:00:00.000000'), 1, NULL,
  r.c, r.rh, r.v, COALESCE(JSON_UNQUOTE(JSON_EXTRACT(studio.settings, '$.ahead.source')), 'readings')
FROM studio JOIN JSON_TABLE(studio.settings, '$.readings[*]' COLUMNS (
  t DOUBLE PATH '$[0]', c DOUBLE PATH '$[1][0]', rh DOUBLE PATH '$[1][1]', v DOUBLE PATH '$[1][2]'
)) AS r WHERE TRUE
ON DUPLICATE KEY UPDATE temperature_c = r.c, relative_humidity = r.rh, air_speed_m_s = r.v;

UPDATE studio SET settings = JSON_REMOVE(settings, '$.air', '$.readings', '$.ahead');
UPDATE revision JOIN studio ON studio.id = revision.owner_id
SET revision.body = JSON_REMOVE(revision.body, '$.air', '$.readings', '$.ahead');
