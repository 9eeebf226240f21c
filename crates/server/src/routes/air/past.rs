//! The room as it was, in as many points as a figure can show.

use super::wire::{AirPast, OriginOut, PastPoint};
use crate::problem::Problem;
use crate::reading::load;
use crate::state::App;
use chrono::{DateTime, TimeDelta, Utc};
use ulvek_core::air::{Air, AirSeries, ORDINARY_M_S, Origin, doubts};
use ulvek_core::time::{exact_instant, seconds};
use uuid::Uuid;

/// Points of a figure at most: four of its dots each. [practice]
pub const POINTS: usize = 240;
/// Longest stretch that is told minute by minute; longer ones are told by their hours. [practice]
const BY_MINUTES: TimeDelta = TimeDelta::days(2);

/// The room of a studio over `span`.
///
/// # Errors
/// Not found, or the database is away.
pub async fn past_of(
    app: &mut App,
    id: Uuid,
    span: (DateTime<Utc>, DateTime<Utc>),
) -> Result<AirPast, Problem> {
    let loaded = load(app, id).await?;
    let air = &loaded.studio.air;
    let (from, to) = (seconds(span.0), seconds(span.1));
    let mut shown: Vec<(f64, Air)> = changes(air, from, to).map(|t| (t, *air.at(t))).collect();
    if span.1 - span.0 <= BY_MINUTES {
        let mut tx = app.reading().await?;
        let measured = ulvek_store::measured_between(&mut tx, id, span).await?;
        tx.commit().await?;
        // Minutes stand in place of the hours that were made of them.
        let minutes: Vec<(f64, Air)> = measured
            .into_values()
            .flat_map(|readings| {
                let doubts = doubts(&readings);
                readings.into_iter().zip(doubts).filter(|(_, doubt)| doubt.is_none())
            })
            .filter_map(|(m, _)| {
                Some((m.at, Air::try_new(m.celsius, m.humidity, ORDINARY_M_S).ok()?))
            })
            .collect();
        if !minutes.is_empty() {
            shown.retain(|(t, _)| air.origin(*t) != Origin::Measured);
            shown.extend(minutes);
            shown.sort_by(|a, b| a.0.total_cmp(&b.0));
        }
    }
    Ok(AirPast {
        from: span.0,
        to: span.1,
        time_zone: loaded.studio.hours.zone().name().to_owned(),
        version: loaded.stored.air.version,
        points: points(&shown, from, to),
        origins: origins(air, from, to),
    })
}

/// When the air becomes another one from `from` on and before `to`, `from` itself first.
fn changes(air: &AirSeries, from: f64, to: f64) -> impl Iterator<Item = f64> + '_ {
    std::iter::successors(Some(from), |t| air.next_change(*t)).take_while(move |t| *t < to)
}

fn points(shown: &[(f64, Air)], from: f64, to: f64) -> Vec<PastPoint> {
    let width = (to - from) / POINTS as f64;
    let place = |t: f64| ((t - from) / width) as usize;
    shown
        .chunk_by(|a, b| place(a.0) == place(b.0))
        .map(|near| PastPoint {
            at: exact_instant(near[0].0),
            temperature_c: three(near.iter().map(|(_, air)| air.celsius)),
            relative_humidity: three(near.iter().map(|(_, air)| air.humidity)),
        })
        .collect()
}

/// Lowest, middle and highest.
fn three(values: impl Iterator<Item = f64>) -> [f64; 3] {
    let mut values: Vec<f64> = values.collect();
    values.sort_by(f64::total_cmp);
    let at = |n: usize| values.get(n).copied().unwrap_or_default();
    [at(0), at(values.len() / 2), at(values.len().saturating_sub(1))]
}

fn origins(air: &AirSeries, from: f64, to: f64) -> Vec<OriginOut> {
    let mut found: Vec<OriginOut> = Vec::new();
    for t in changes(air, from, to) {
        let (at, origin) = (exact_instant(t), air.origin(t));
        match found.last_mut() {
            Some(last) if last.origin == origin => {}
            last => {
                if let Some(last) = last {
                    last.to = at;
                }
                found.push(OriginOut { from: at, to: exact_instant(to), origin });
            }
        }
    }
    found
}
