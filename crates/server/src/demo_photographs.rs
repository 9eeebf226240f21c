//! Photographs of the demo's pictures: drawn, since neither pictures nor camera exist.

use crate::demo::{DemoError, demo_studio};
use crate::photograph::develop;
use chrono::{DateTime, Duration, Utc};
use image::{ImageFormat, Rgb, RgbImage};
use sqlx::MySqlConnection;
use std::io::Cursor;
use ulvek_core::studio::Studio;
use ulvek_store::NewPhotograph;
use uuid::Uuid;

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

/// The demo studio with its photographs, each with the picture that it shows by its name in the studio.
pub struct Demo {
    studio: Studio,
    photographs: Vec<(&'static str, NewPhotograph)>,
}

impl Demo {
    /// Makes it as of `now`.
    ///
    /// # Errors
    /// [`DemoError`] when it cannot be made.
    pub fn made(now: DateTime<Utc>) -> Result<Self, DemoError> {
        let studio = demo_studio(now)?;
        let photographs = photographs(&studio, now)?;
        Ok(Self { studio, photographs })
    }

    /// Keeps it as a new studio. Belongs in a transaction. Returns its key.
    ///
    /// # Errors
    /// [`DemoError`] when it cannot be kept.
    pub async fn keep(
        &self,
        conn: &mut MySqlConnection,
        now: DateTime<Utc>,
    ) -> Result<Uuid, DemoError> {
        let id = ulvek_store::create_studio(conn, &self.studio, now).await?;
        let stored = ulvek_store::load_studio(conn, id).await?;
        for (name, photograph) in &self.photographs {
            if let Some(shown) = stored.pictures.iter().find(|p| p.picture.id == *name) {
                ulvek_store::add_photograph(conn, shown.id, photograph, now).await?;
            }
        }
        Ok(id)
    }
}

fn photographs(
    studio: &Studio,
    now: DateTime<Utc>,
) -> Result<Vec<(&'static str, NewPhotograph)>, DemoError> {
    let mut made = Vec::new();
    for shot in SHOTS {
        let Some(picture) = studio.pictures.iter().find(|p| p.id == shot.picture) else {
            continue;
        };
        let height = WIDTH as f64 * picture.height_cm / picture.width_cm;
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
        made.push((shot.picture, new));
    }
    Ok(made)
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
