//! Photographs of the demo's pictures: drawn, since neither pictures nor camera exist.

use crate::demo::DemoError;
use crate::photograph::develop;
use chrono::{DateTime, Duration, Utc};
use image::{ImageFormat, Rgb, RgbImage};
use sqlx::MySqlConnection;
use std::io::Cursor;
use ulvek_store::{NewPhotograph, StoredStudio};

/// Picture, step, hours ago, words, lamps as (x, y, radius) in shares of the width, and how far the
/// glazes have come.
struct Shot {
    picture: &'static str,
    step: &'static str,
    hours_ago: i64,
    caption: &'static str,
    lamps: &'static [(f64, f64, f64)],
    depth: f64,
}

const ROW: &[(f64, f64, f64)] =
    &[(0.18, 0.62, 0.05), (0.40, 0.50, 0.065), (0.62, 0.41, 0.08), (0.84, 0.34, 0.10)];
const FOG: &[(f64, f64, f64)] = &[(0.5, 0.55, 0.20)];

const SHOTS: &[Shot] = &[
    Shot {
        picture: "lamps",
        step: "s6",
        hours_ago: 428,
        caption: "Darks down, lamps still cold",
        lamps: ROW,
        depth: 0.45,
    },
    Shot {
        picture: "lamps",
        step: "s10",
        hours_ago: 50,
        caption: "Before varnish, north window, no lamp on",
        lamps: ROW,
        depth: 1.0,
    },
    Shot {
        picture: "fog-lamp",
        step: "s10",
        hours_ago: 1099,
        caption: "For the show's list",
        lamps: FOG,
        depth: 0.8,
    },
];

/// Width of the drawn photographs [px].
const WIDTH: u32 = 480;

/// Keeps the photographs of a demo studio that was just stored.
///
/// # Errors
/// [`DemoError`] when one cannot be drawn or kept.
pub async fn keep_photographs(
    conn: &mut MySqlConnection,
    studio: &StoredStudio,
    now: DateTime<Utc>,
) -> Result<(), DemoError> {
    for shot in SHOTS {
        let Some(stored) = studio.pictures.iter().find(|p| p.picture.id == shot.picture) else {
            continue;
        };
        let height = WIDTH as f64 * stored.picture.height_cm / stored.picture.width_cm;
        let mut png = Cursor::new(Vec::new());
        draw(shot, height as u32)
            .write_to(&mut png, ImageFormat::Png)
            .map_err(|_| DemoError::Photograph)?;
        let developed = develop(png.get_ref()).map_err(|_| DemoError::Photograph)?;
        let new = NewPhotograph {
            taken_at: now - Duration::hours(shot.hours_ago),
            step: Some(shot.step.into()),
            caption: shot.caption.into(),
            size: developed.size,
            whole: developed.whole,
            small: developed.small,
        };
        ulvek_store::add_photograph(conn, stored.id, &new, now).await?;
    }
    Ok(())
}

/// Lamps in the dusk: a glow that falls off with the square of the distance over a ground that
/// darkens upwards, with the weave of the canvas in it.
fn draw(shot: &Shot, height: u32) -> RgbImage {
    let depth = shot.depth;
    RgbImage::from_fn(WIDTH, height, |x, y| {
        let (u, v) = (f64::from(x) / f64::from(WIDTH), f64::from(y) / f64::from(WIDTH));
        let up = 1.0 - f64::from(y) / f64::from(height);
        let glow: f64 = shot
            .lamps
            .iter()
            .map(|(cx, cy, r)| {
                let far = ((u - cx).powi(2) + (v - cy).powi(2)) / (r * r);
                1.0 / (1.0 + far)
            })
            .sum();
        let weave = 1.0 + 0.02 * ((f64::from(x) * 0.9).sin() + (f64::from(y) * 0.9).sin());
        let ground = [96.0 - 60.0 * depth * up, 92.0 - 50.0 * depth * up, 98.0 - 38.0 * depth * up];
        let light = [235.0, 190.0, 110.0];
        let lit = (glow * depth).min(1.0);
        Rgb([0, 1, 2].map(|c| ((ground[c] * (1.0 - lit) + light[c] * lit) * weave) as u8))
    })
}
