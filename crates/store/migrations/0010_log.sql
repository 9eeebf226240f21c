-- What was done becomes an append-only log, with its own time of entry. A correction is a new row that
-- names the one it corrects; nothing is ever changed or taken out.
CREATE TABLE log_entry (
  number BIGINT NOT NULL AUTO_INCREMENT PRIMARY KEY,
  picture_id BINARY(16) NOT NULL,
  kind VARCHAR(40) NOT NULL,
  step_code VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  at DATETIME(6) NOT NULL,
  entered_at DATETIME(6) NOT NULL,
  corrects BIGINT NULL,
  body JSON NOT NULL,
  KEY log_entry_picture (picture_id, number),
  CONSTRAINT log_entry_of FOREIGN KEY (picture_id) REFERENCES picture (id) ON DELETE CASCADE,
  CONSTRAINT log_entry_corrects FOREIGN KEY (corrects) REFERENCES log_entry (number)
) ENGINE = InnoDB;

-- Steps that are done. When they were entered is not known any more: the time of the deed stands in.
INSERT INTO log_entry (picture_id, kind, step_code, at, entered_at, corrects, body)
SELECT picture.id, 'laid', s.code,
  CAST(REPLACE(REPLACE(s.laid_at, 'T', ' '), 'Z', '') AS DATETIME(6)),
  CAST(REPLACE(REPLACE(s.laid_at, 'T', ' '), 'Z', '') AS DATETIME(6)), NULL,
  JSON_OBJECT('wet_film_um', s.wet_film_um, 'mix', JSON_EXTRACT(s.mix, '$'),
    'share_of_area', s.share_of_area, 'tub', s.tub, 'loss', s.loss, 'cup_g', s.cup_g)
FROM picture JOIN JSON_TABLE(picture.body, '$.steps[*]' COLUMNS (
  code VARCHAR(200) PATH '$.id', laid_at VARCHAR(40) PATH '$.laid_at',
  wet_film_um DOUBLE PATH '$.wet_film_um', mix JSON PATH '$.mix',
  share_of_area DOUBLE PATH '$.share_of_area', tub VARCHAR(200) PATH '$.tub',
  loss DOUBLE PATH '$.loss', cup_g DOUBLE PATH '$.cup_g'
)) AS s
WHERE s.laid_at IS NOT NULL
ORDER BY picture.id, s.laid_at;

INSERT INTO log_entry (picture_id, kind, step_code, at, entered_at, corrects, body)
SELECT picture.id, 'sealed_anyway', a.step,
  CAST(REPLACE(REPLACE(a.at, 'T', ' '), 'Z', '') AS DATETIME(6)),
  CAST(REPLACE(REPLACE(a.at, 'T', ' '), 'Z', '') AS DATETIME(6)), NULL,
  JSON_OBJECT('reason', a.reason, 'against', JSON_EXTRACT(a.against, '$'))
FROM picture JOIN JSON_TABLE(picture.body, '$.seal.anyway[*]' COLUMNS (
  at VARCHAR(40) PATH '$.at', step VARCHAR(200) PATH '$.step', reason VARCHAR(200) PATH '$.reason',
  against JSON PATH '$.against'
)) AS a;

INSERT INTO log_entry (picture_id, kind, step_code, at, entered_at, corrects, body)
SELECT picture.id, 'seal_trouble', t.step,
  CAST(REPLACE(REPLACE(t.at, 'T', ' '), 'Z', '') AS DATETIME(6)),
  CAST(REPLACE(REPLACE(t.at, 'T', ' '), 'Z', '') AS DATETIME(6)), NULL,
  JSON_OBJECT('trouble', t.trouble)
FROM picture JOIN JSON_TABLE(picture.body, '$.seal.troubles[*]' COLUMNS (
  at VARCHAR(40) PATH '$[0]', step VARCHAR(200) PATH '$[1]', trouble VARCHAR(40) PATH '$[2]'
)) AS t;

INSERT INTO log_entry (picture_id, kind, step_code, at, entered_at, corrects, body)
SELECT picture.id, 'looked_over', NULL,
  CAST(REPLACE(REPLACE(i.at, 'T', ' '), 'Z', '') AS DATETIME(6)),
  CAST(REPLACE(REPLACE(i.at, 'T', ' '), 'Z', '') AS DATETIME(6)), NULL, JSON_OBJECT()
FROM picture JOIN JSON_TABLE(picture.body, '$.seal' COLUMNS (at VARCHAR(40) PATH '$.inspected_at')) AS i
WHERE i.at IS NOT NULL;

INSERT INTO log_entry (picture_id, kind, step_code, at, entered_at, corrects, body)
SELECT picture_id, 'photographed', step_code, taken_at, kept_at, NULL,
  JSON_OBJECT('photograph', LOWER(CONCAT_WS('-', SUBSTR(HEX(id), 1, 8), SUBSTR(HEX(id), 9, 4),
    SUBSTR(HEX(id), 13, 4), SUBSTR(HEX(id), 17, 4), SUBSTR(HEX(id), 21))))
FROM photograph WHERE deleted_at IS NULL
ORDER BY kept_at;
