-- Materials, tubs and own ways of working become one aggregate with a version and revisions.
CREATE TABLE shelf (
  studio_id BINARY(16) NOT NULL PRIMARY KEY,
  owner_id BINARY(16) NOT NULL UNIQUE,
  body JSON NOT NULL,
  version BIGINT NOT NULL,
  CONSTRAINT shelf_studio FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
) ENGINE = InnoDB;

INSERT INTO shelf (studio_id, owner_id, body, version)
SELECT studio.id, UNHEX(REPLACE(UUID(), '-', '')),
  JSON_OBJECT('materials', COALESCE(
    (SELECT JSON_ARRAYAGG(JSON_OBJECT(
        'id', code, 'name', name, 'kind', kind, 'solids', solids, 'water', water,
        'glycol', glycol, 'binder', binder, 'density_g_ml', density_g_ml, 'swatch', swatch
      ) ORDER BY position)
     FROM material WHERE material.studio_id = studio.id), JSON_ARRAY())), 1
FROM studio;

INSERT INTO revision (owner_id, number, label, body, is_current, made_at)
SELECT owner_id, 1, 'fill the shelf', shelf.body, TRUE, studio.created_at
FROM shelf JOIN studio ON studio.id = shelf.studio_id;

DROP TABLE material;
