//! `ulvek colour`: what is seen from the front after each coat.

use super::CommandError;
use serde_json::{Value, json};
use ulvek_core::colour::{Lab, Seen, Tubes};
use ulvek_core::picture::{CoatFault, Picture};
use ulvek_core::studio::Studio;

/// The face of every picture, or of the one that is named, after each of its coats.
///
/// # Errors
/// [`CommandError`] when a coat cannot be computed, or no picture has that name.
pub fn colour(studio: &Studio, picture: Option<&str>) -> Result<Value, CommandError> {
    let tubes = studio.tubes();
    let mut pictures = Vec::new();
    for one in studio.pictures.iter().filter(|p| picture.is_none_or(|id| p.id == id)) {
        pictures.push(face(&tubes, one)?);
    }
    match picture {
        Some(id) if pictures.is_empty() => Err(CommandError::NoPicture(id.to_owned())),
        _ => Ok(json!({ "pictures": pictures })),
    }
}

/// What is not known of the colours that are used, a sentence for each material.
pub fn untold(studio: &Studio, picture: Option<&str>) -> Vec<String> {
    let tubes = studio.tubes();
    let pictures = studio.pictures.iter().filter(|p| picture.is_none_or(|id| p.id == id));
    let mut said: Vec<String> = pictures.flat_map(|p| p.untold(&tubes)).collect();
    said.sort_unstable();
    said.dedup();
    said
}

fn face(tubes: &Tubes, picture: &Picture) -> Result<Value, CoatFault> {
    let coats = picture.coats_in_order(tubes)?;
    let ground = picture.ground_inside();
    let coats: Vec<Value> = picture
        .face(tubes, &coats, &ground)?
        .iter()
        .map(|coat| {
            let mut out = looks(&coat.seen);
            out["step"] = json!(picture.steps[coat.step].id);
            out["covers"] = json!(rounded(coat.covers, 1e4));
            out
        })
        .collect();
    Ok(json!({ "id": picture.id, "ground": looks(&ground.seen()), "coats": coats }))
}

fn looks(seen: &Seen) -> Value {
    let Lab { l, a, b } = seen.lab();
    let lab = [l, a, b].map(|part| rounded(part, 1e2));
    json!({ "srgb": seen.swatch().to_hex(), "lab": lab })
}

fn rounded(value: f64, digits: f64) -> f64 {
    // Adding nothing makes a rounded minus zero plain zero.
    (value * digits).round() / digits + 0.0
}
