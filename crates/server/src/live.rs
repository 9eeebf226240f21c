//! What instruments send, told at once to the pages that look.

use chrono::{DateTime, Utc};
use serde::Serialize;
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::broadcast;
use utoipa::ToSchema;
use uuid::Uuid;

/// Readings that a slow page may be behind by before it misses some. [practice]
const BEHIND: usize = 64;

/// Something new of the room.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LiveOut {
    /// The studio.
    pub studio: Uuid,
    /// Of when it is.
    pub at: DateTime<Utc>,
    /// Temperature [C], when a hygrometer sent it.
    #[schema(required)]
    pub temperature_c: Option<f64>,
    /// Relative humidity, fraction of 1, when a hygrometer sent it.
    #[schema(required)]
    pub relative_humidity: Option<f64>,
    /// Whether an hour of the air is another one, and with it the plan.
    pub plan: bool,
}

/// Where news is told; cheap to clone.
#[derive(Debug, Clone)]
pub struct Live(Arc<Mutex<Option<broadcast::Sender<LiveOut>>>>);

impl Default for Live {
    fn default() -> Self {
        Self(Arc::new(Mutex::new(Some(broadcast::Sender::new(BEHIND)))))
    }
}

impl Live {
    /// Tells everyone who listens.
    pub fn tell(&self, news: LiveOut) {
        if let Some(sender) = &*self.0.lock().unwrap_or_else(PoisonError::into_inner) {
            // Nobody listens: nobody missed anything.
            let _ = sender.send(news);
        }
    }

    /// Listens; nothing when the application ends.
    pub fn listen(&self) -> Option<broadcast::Receiver<LiveOut>> {
        let sender = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        sender.as_ref().map(broadcast::Sender::subscribe)
    }

    /// Ends every stream.
    pub fn end(&self) {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).take();
    }
}
