//! `ulvek simulate`: when each laid coat reaches each state.

use super::at_second;
use crate::formats::Moment;
use chrono::{DateTime, Utc};
use serde_json::{Map, Value, json};
use std::sync::Arc;
use ulvek_core::film::{FilmState, Futures, Grid, HORIZON_S};
use ulvek_core::picture::{CoatFault, LaidCoat, Picture, follow};
use ulvek_core::studio::Studio;
use ulvek_core::time::seconds;

/// What is asked of a simulation.
#[derive(Debug, Clone, Copy, Default)]
pub struct Simulate {
    /// The reference grid instead of the planning grid.
    pub fine: bool,
    /// A moment at which the film is described too.
    pub at: Option<DateTime<Utc>>,
}

/// Names of the times in the answer, as in docs/formats/studio.md.
const NAMES: [(&str, FilmState); 6] = [
    ("setting_at", FilmState::Setting),
    ("touch_dry_at", FilmState::TouchDry),
    ("paintable_at", FilmState::Paintable),
    ("dry_through_at", FilmState::DryThrough),
    ("ready_to_seal_at", FilmState::ReadyToSeal),
    ("ready_to_wrap_at", FilmState::ReadyToWrap),
];

/// Follows every laid coat of every picture, each until the next one or for 400 days.
///
/// # Errors
/// [`CoatFault`] when a coat cannot be computed.
pub fn simulate(studio: &Studio, asked: Simulate) -> Result<Value, CoatFault> {
    // The plain model: what touch tests taught is set aside.
    let mut studio = studio.clone();
    studio.forget();
    let studio = &studio;
    let mut pictures = Vec::with_capacity(studio.pictures.len());
    for picture in &studio.pictures {
        pictures.push(one(studio, picture, asked)?);
    }
    Ok(json!({ "pictures": pictures }))
}

fn one(studio: &Studio, picture: &Picture, asked: Simulate) -> Result<Value, CoatFault> {
    let grid = if asked.fine { Grid::FINE } else { Grid::PLANNING };
    let coats = picture.laid_coats(&studio.materials)?;
    let plain = Arc::new(Futures::plain(studio.air.clone()));
    let until = coats.last().map_or(0.0, |c| c.at + HORIZON_S);
    let line = follow(picture, &coats, &plain, grid, (until, 0), |_| false)?;
    let coats_out: Vec<Value> = line
        .coats
        .iter()
        .map(|history| {
            let mut row = Map::new();
            row.insert("step".into(), json!(picture.steps[history.coat.step].id));
            row.insert("laid_at".into(), json!(at_second(history.coat.at, studio)));
            for (name, state) in NAMES {
                let at: Option<Moment> = history.events.at(state).map(|t| at_second(t, studio));
                row.insert(name.into(), json!(at));
            }
            Value::Object(row)
        })
        .collect();
    let mut out = json!({ "id": picture.id, "coats": coats_out });
    if let Some(at) = asked.at {
        let t = seconds(at);
        let there: Vec<_> = coats.iter().copied().filter(|c| c.at <= t).collect();
        let line = follow(picture, &there, &plain, grid, (t, 2), |_| false)?;
        // Each coat where it is least dry: of a picture with sections there are several.
        let lowest = |coat: &LaidCoat| {
            let there = line.stacks.iter().filter_map(|stack| {
                let n = stack.coats.iter().position(|c| c.coat == *coat)?;
                stack.frames.last()?.coats.get(n)
            });
            there.min_by_key(|view| view.state).copied()
        };
        let film: Vec<Value> = there
            .iter()
            .filter_map(|coat| {
                let view = lowest(coat)?;
                Some(json!({
                    "step": picture.steps[coat.step].id,
                    "thickness_um": view.thickness_m * 1e6,
                    "water_per_solids": view.water,
                    "glycol_per_solids": view.glycol,
                    "lowest_solids": view.lowest_solids,
                    "state": view.state,
                }))
            })
            .collect();
        let frames = line.stacks.iter().filter_map(|stack| stack.frames.last());
        let ground = frames.map(|f| f.ground_m * 1e6).fold(0.0, f64::max);
        out["film"] =
            json!({ "at": at_second(t, studio), "coats": film, "ground_water_um": ground });
    }
    Ok(out)
}
