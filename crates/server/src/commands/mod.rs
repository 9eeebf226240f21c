//! The headless commands: a studio document in, JSON out.

mod check;
mod colour;
mod new;
mod plan;
mod simulate;

pub use check::check;
pub use colour::{colour, untold};
pub use new::new;
pub use plan::{Effort, plan};
pub use simulate::{Simulate, simulate};

use crate::formats::{MAX_BYTES, Moment, read_document};
use std::io::Read;
use std::path::Path;
use thiserror::Error;
use ulvek_core::picture::CoatFault;
use ulvek_core::quantity::Fault;
use ulvek_core::studio::Studio;
use ulvek_core::time::whole_instant;

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
    /// A coat cannot be computed.
    #[error("{0}")]
    Coat(#[from] CoatFault),
    /// No picture has the name that is asked for.
    #[error("--picture: the document has no picture \"{0}\"")]
    NoPicture(String),
    /// The document is refused.
    #[error("{path}: {fault}")]
    Refused {
        /// The file.
        path: String,
        /// Place and reason.
        fault: Fault,
    },
}

/// Reads and checks the studio document at `path` (`-` for standard input).
///
/// # Errors
/// [`CommandError`] when it cannot be read or does not fit.
pub fn read_studio(path: &Path) -> Result<Studio, CommandError> {
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
        let fault = Fault::new("", "the document is larger than 16 MB, the most that is read");
        return Err(CommandError::Refused { path: name, fault });
    }
    read_document(&bytes).map_err(|fault| CommandError::Refused { path: name, fault })
}

/// The instant `t` [s of the Unix epoch], to the second, with the offset of the studio's zone.
pub(crate) fn at_second(t: f64, studio: &Studio) -> Moment {
    Moment::local(whole_instant(t.round() as i64), studio.hours.zone())
}
