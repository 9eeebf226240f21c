//! The shelf.

use crate::StoreError;
use sqlx::{FromRow, MySqlConnection};
use ulvek_core::film::Composition;
use ulvek_core::studio::{Material, MaterialKind, Swatch};
use uuid::Uuid;

#[derive(FromRow)]
struct MaterialRow {
    code: String,
    name: String,
    kind: String,
    solids: f64,
    water: f64,
    glycol: f64,
    binder: Option<f64>,
    density_g_ml: Option<f64>,
    swatch: Option<String>,
}

impl MaterialRow {
    fn into_material(self) -> Result<Material, StoreError> {
        Ok(Material {
            composition: Composition::try_new(self.solids, self.water, self.glycol)
                .map_err(|e| StoreError::Unreadable(format!("material {}: {e}", self.code)))?,
            id: self.code,
            name: self.name,
            kind: MaterialKind::from_word(&self.kind),
            binder: self.binder,
            density_g_ml: self.density_g_ml,
            swatch: self.swatch.as_deref().and_then(Swatch::from_hex),
        })
    }
}

pub(crate) async fn insert_shelf(
    conn: &mut MySqlConnection,
    studio: Uuid,
    shelf: &[Material],
) -> Result<(), StoreError> {
    for (position, material) in shelf.iter().enumerate() {
        sqlx::query(
            "INSERT INTO material \
             (studio_id, code, position, name, kind, solids, water, glycol, binder, density_g_ml, \
             swatch) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(studio)
        .bind(&material.id)
        .bind(i32::try_from(position).unwrap_or(i32::MAX))
        .bind(&material.name)
        .bind(material.kind.word())
        .bind(material.composition.solids())
        .bind(material.composition.water())
        .bind(material.composition.glycol())
        .bind(material.binder)
        .bind(material.density_g_ml)
        .bind(material.swatch.map(Swatch::to_hex))
        .execute(&mut *conn)
        .await?;
    }
    Ok(())
}

pub(crate) async fn load_shelf(
    conn: &mut MySqlConnection,
    studio: Uuid,
) -> Result<Vec<Material>, StoreError> {
    let rows: Vec<MaterialRow> = sqlx::query_as(
        "SELECT code, name, kind, solids, water, glycol, binder, density_g_ml, swatch FROM material \
         WHERE studio_id = ? ORDER BY position",
    )
    .bind(studio)
    .fetch_all(conn)
    .await?;
    rows.into_iter().map(MaterialRow::into_material).collect()
}
