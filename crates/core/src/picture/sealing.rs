//! What is kept of sealing a picture beside its steps: the varnish that was settled on, and what was
//! seen and decided on the way.

use crate::mix::Finish;
use crate::words::words;
use chrono::{DateTime, Utc};

/// The most coats that can be asked for. [practice]
pub const MOST_COATS: u8 = 10;
/// Depth of a stretcher's or panel's edge [cm]. [practice]
pub const USUAL_EDGE_CM: f64 = 2.0;

words! {
    /// What carries the varnish.
    Carrier {
        /// Water-borne acrylic: bonds with the paint and stays.
        WaterBorne = "water_borne",
        /// Carried in solvent: can be taken off again.
        Solvent = "solvent",
    }
}

words! {
    /// What the sealed thing is for; it decides how many coats are usual.
    Purpose {
        /// It hangs on a wall.
        Hung = "hung",
        /// It hangs, and shines.
        HighGloss = "high_gloss",
        /// It is handled: furniture, boxes, trays.
        Handled = "handled",
    }
}

words! {
    /// The direction of strokes: two schools.
    Strokes {
        /// As the paint was put on.
        FollowPaint = "follow_paint",
        /// Even passes, each coat across the last one.
        Crossed = "crossed",
    }
}

words! {
    /// What may be found on a sealing coat.
    SealTrouble {
        /// It ran.
        Drip = "drip",
        /// It stands in a puddle.
        Puddle = "puddle",
        /// A place was left out.
        Missed = "missed",
        /// A brush hair or dust is in it.
        Hair = "hair",
        /// It is cloudy over darks.
        Cloud = "cloud",
        /// It turned white where it was gone over again.
        White = "white",
        /// Bubbles are in it.
        Bubbles = "bubbles",
        /// It shows the brush or the sheen is uneven.
        Streaks = "streaks",
    }
}

impl Carrier {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::WaterBorne => "Water-borne, stays",
            Self::Solvent => "Solvent, removable",
        }
    }
}

impl Purpose {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Hung => "It hangs",
            Self::HighGloss => "High gloss",
            Self::Handled => "It is handled",
        }
    }
}

impl Strokes {
    /// What painters call it.
    pub const fn said(self) -> &'static str {
        match self {
            Self::FollowPaint => "Along the painted strokes",
            Self::Crossed => "Even crossed passes",
        }
    }
}

/// What the painter settled on.
#[derive(Debug, Clone, PartialEq)]
pub struct VarnishChoice {
    /// What carries it.
    pub carrier: Carrier,
    /// The sheen of the last coat.
    pub finish: Finish,
    /// What the thing is for.
    pub purpose: Purpose,
    /// Varnish coats in all, laid ones included, without the sealer of handled things.
    pub coats: u8,
    /// Whether an isolation coat goes between paint and varnish.
    pub isolation: bool,
    /// Why, or why not, when it is not the studio's habit.
    pub isolation_reason: Option<String>,
    /// The direction of strokes.
    pub strokes: Strokes,
    /// Depth of the edges that are varnished too [cm]; 0 leaves them out.
    pub edge_cm: f64,
}

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
