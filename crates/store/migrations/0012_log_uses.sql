-- For looking through the log without reading the bodies of its entries: whether an entry stands (no later
-- one corrects it, and it takes none back), and the materials, and the tub, that it is about, quoted. An
-- index, as `said` is: what was entered stays as it is.
ALTER TABLE log_entry
  ADD COLUMN stands BOOLEAN NOT NULL DEFAULT TRUE,
  ADD COLUMN uses TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin GENERATED ALWAYS AS
    (CONCAT(COALESCE(JSON_EXTRACT(body, '$.mix[*][0]'), ''),
      COALESCE(JSON_EXTRACT(body, '$.words.material'), ''),
      COALESCE(JSON_EXTRACT(body, '$.tub'), ''))) STORED;

UPDATE log_entry l LEFT JOIN log_entry c ON c.corrects = l.number
SET l.stands = FALSE WHERE c.number IS NOT NULL OR l.kind = 'taken_back';

ALTER TABLE log_entry
  ADD KEY log_entry_list (picture_id, stands, at, kind), DROP KEY log_entry_when;
