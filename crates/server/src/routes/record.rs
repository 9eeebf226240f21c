//! The record sheet of a picture.

use crate::extract::{Asked, Key};
use crate::formats::{RecordDoc, record_doc};
use crate::problem::Problem;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderValue, header};
use serde::Deserialize;
use ulvek_store::Rendition;

/// Whether the sheet is to be kept as a file.
#[derive(Deserialize)]
pub struct SheetAsked {
    #[serde(default)]
    file: bool,
}

/// The record sheet of a picture: materials, coats, dates, varnish and how it comes off. With
/// `file=true` it is a file to keep, with the photographs in it.
#[utoipa::path(get, operation_id = "record", path = "/api/pictures/{id}/record", tag = "seal",
    params(("id" = Uuid, Path), ("file" = Option<bool>, Query)),
    responses((status = 200, body = RecordDoc)))]
pub async fn record(
    State(app): State<App>,
    Key(id): Key,
    Asked(asked): Asked<SheetAsked>,
) -> Result<(HeaderMap, Json<RecordDoc>), Problem> {
    let mut conn = app.reading().await?;
    let picture = ulvek_store::load_picture(&mut conn, id).await?;
    let stored = ulvek_store::load_studio(&mut conn, picture.studio).await?;
    let photographs = ulvek_store::photographs_of(&mut conn, id).await?;
    let mut pixels = Vec::new();
    if asked.file {
        for photograph in &photographs {
            let small = Rendition::Small;
            pixels.push(ulvek_store::load_rendition(&mut conn, photograph.id, small).await?);
        }
    }
    conn.commit().await?;
    let p = stored.pictures.iter().position(|s| s.id == id);
    let p = p.ok_or_else(|| Problem::not_found("such picture"))?;
    let sheet = record_doc(&stored.document, p, (&photographs, &pixels), app.clock.now());
    let mut headers = HeaderMap::new();
    if asked.file {
        let disposition = HeaderValue::from_static("attachment; filename=\"record.json\"");
        headers.insert(header::CONTENT_DISPOSITION, disposition);
    }
    Ok((headers, Json(sheet)))
}
