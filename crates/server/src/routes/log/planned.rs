//! What was planned of a coat is kept beside what was done.

use crate::problem::Problem;
use crate::routes::picture::handlers::Bench;
use crate::state::App;
use chrono::{DateTime, Utc};
use std::sync::Arc;
use ulvek_core::deeds::Laid;
use ulvek_core::planner::as_planned;
use ulvek_core::studio::Studio;
use ulvek_store::Planned;
use uuid::Uuid;

/// A studio before a step was entered as done.
pub struct Before {
    studio: Arc<Studio>,
    place: (usize, usize),
    at: DateTime<Utc>,
}

impl Before {
    /// The studio before `entry`; none when the step was done already and is put right.
    pub fn of(bench: &Bench, entry: &Laid) -> Option<Self> {
        let i = bench.picture().place_of(&entry.step)?;
        let new = bench.picture().steps[i].laid_at.is_none();
        new.then(|| Self { studio: bench.studio.clone(), place: (bench.p, i), at: entry.at })
    }

    /// Finds out what was planned and keeps it beside the entry. Where that fails the entry says less.
    pub async fn keep_planned(self, mut app: App, of: (Uuid, Uuid)) {
        if let Err(problem) = self.try_to_keep(&mut app, of).await {
            tracing::warn!(?problem, "what was planned of a coat is not kept");
        }
    }

    async fn try_to_keep(
        self,
        app: &mut App,
        (studio, picture): (Uuid, Uuid),
    ) -> Result<(), Problem> {
        let Self { studio: before, place, at } = self;
        let mut conn = app.reading().await?;
        let changed = ulvek_store::last_change(&mut conn, studio, at).await?;
        conn.commit().await?;
        let step = &before.pictures[place.0].steps[place.1];
        let (id, wet_film_um) = (step.id.clone(), step.wet_film_um);
        let planned = app.aside(move || as_planned(&before, place, at, changed)).await?;
        let Some(at) = planned else { return Ok(()) };
        let mut conn = app.reading().await?;
        let planned = Planned { at, wet_film_um };
        ulvek_store::keep_planned(&mut conn, picture, &id, &planned).await?;
        conn.commit().await
    }
}
