//! What is kept of sealing a picture beside its steps.

use super::trouble::SealTrouble;
use super::varnish::VarnishChoice;
use chrono::{DateTime, Utc};

/// How a picture is sealed, and what was seen and decided on the way.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct SealRecord {
    /// The varnish that was settled on.
    pub choice: Option<VarnishChoice>,
    /// When the surface was last cleaned of dust and looked along in raking light.
    pub inspected_at: Option<DateTime<Utc>>,
    /// Coats that were laid although the gate was not open.
    pub anyway: Vec<SealAnyway>,
    /// Trouble that was found.
    pub troubles: Vec<TroubleFound>,
}

/// A sealing coat laid although the gate was not open.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SealAnyway {
    /// When.
    pub at: DateTime<Utc>,
    /// The step's name.
    pub step: String,
    /// Why, in the painter's words.
    pub reason: String,
    /// What did not hold then.
    pub against: Vec<String>,
}

/// Trouble found on a sealing coat.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct TroubleFound {
    /// When.
    pub at: DateTime<Utc>,
    /// The step's name.
    pub step: String,
    /// What.
    pub trouble: SealTrouble,
}
