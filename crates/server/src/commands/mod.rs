//! The headless commands: a studio document in, JSON out.

mod check;
mod plan;
mod simulate;

pub use check::check;
pub use plan::{Effort, plan};
pub use simulate::{Simulate, simulate};

use crate::formats::{MAX_BYTES, Refusal, read_document};
use chrono::{DateTime, FixedOffset, Utc};
use std::io::Read;
use std::path::Path;
use thiserror::Error;
use ulvek_core::studio::StudioDocument;

/// Why a command gives up; the exit status is 2.
#[derive(Debug, Error)]
pub enum CommandError {
    /// The file cannot be read.
    #[error("{path}: {source}")]
    File {
        /// The file.
        path: String,
        /// The system's reason.
        source: std::io::Error,
    },
    /// The document is refused.
    #[error("{path}: {refusal}")]
    Refused {
        /// The file.
        path: String,
        /// Place and reason.
        refusal: Refusal,
    },
}

/// Reads and checks the studio document at `path` (`-` for standard input).
///
/// # Errors
/// [`CommandError`] when it cannot be read or does not fit.
pub fn read_studio(path: &Path) -> Result<StudioDocument, CommandError> {
    let name = path.display().to_string();
    let file = |source| CommandError::File { path: name.clone(), source };
    let mut bytes = Vec::new();
    // One byte more than is taken tells a document that is too large without reading all of it.
    let most = MAX_BYTES as u64 + 1;
    if name == "-" {
        std::io::stdin().lock().take(most).read_to_end(&mut bytes).map_err(file)?;
    } else {
        std::fs::File::open(path)
            .map_err(file)?
            .take(most)
            .read_to_end(&mut bytes)
            .map_err(file)?;
    }
    if bytes.len() > MAX_BYTES {
        let refusal = Refusal::new("", "the document is larger than 16 MB, the most that is read");
        return Err(CommandError::Refused { path: name, refusal });
    }
    read_document(&bytes).map_err(|refusal| CommandError::Refused { path: name, refusal })
}

/// The instant `t` [s of the Unix epoch], to the second, with the offset of the studio's zone.
pub(crate) fn at_second(t: f64, document: &StudioDocument) -> DateTime<FixedOffset> {
    let at = DateTime::<Utc>::from_timestamp(t.round() as i64, 0).unwrap_or_default();
    at.with_timezone(&document.hours.zone()).fixed_offset()
}
