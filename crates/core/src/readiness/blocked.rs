//! Why a step cannot be done at all, in the time that is looked ahead.

use super::fit_air::AirFault;
use crate::picture::Need;
use thiserror::Error;

/// Why a step cannot be placed.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum Blocked {
    /// The studio has no hours.
    #[error("the studio has no hours left for it in the time that is looked ahead: set its hours")]
    NoHours,
    /// Longer than any session, and not to be split.
    #[error(
        "{needed:.0} minutes at one go (set-up included) fit into no session; the longest has \
         {longest:.0} minutes: shorten the step, let it be split, or add hours"
    )]
    TooLong {
        /// Minutes it needs, set-up included.
        needed: f64,
        /// Minutes of the longest session.
        longest: f64,
    },
    /// It needs daylight, and no session has so much of it.
    #[error(
        "{needed:.0} minutes of daylight at one go fit into no session; the most light in one is \
         {longest:.0} minutes: shorten the step, let it be split, or work by lamp"
    )]
    TooLittleDaylight {
        /// Minutes it needs.
        needed: f64,
        /// Minutes of daylight in the lightest session.
        longest: f64,
    },
    /// The film never gets there.
    #[error("the film below does not become {} within 400 days in this air", .0.word())]
    NeverReady(Need),
    /// The room is never fit for it as long as it is wet.
    #[error("{fault} for {what} as the room is kept: {remedy}")]
    Air {
        /// What is wrong with the air.
        fault: AirFault,
        /// For what.
        what: &'static str,
        /// What would help.
        remedy: String,
    },
    /// No place where it can lie flat.
    #[error("there is no flat place in the studio for wet varnish: set at least one")]
    NoFlatPlace,
    /// It would be painted over a sealing coat, and nothing says that this is meant.
    #[error(
        "it would lie over {seal}, and paint does not belong over a sealing coat: do it before, take \
         it out, or say in the picture that paint over varnish is meant"
    )]
    OverSeal {
        /// What the painter calls the sealing coat.
        seal: String,
    },
    /// What is in the cup may not go over what is there.
    #[error("{0}")]
    Product(String),
    /// It stands on a step that cannot be placed.
    #[error("it stands on a step that cannot be placed")]
    Below,
    /// The step says too little.
    #[error("{0}")]
    Coat(String),
}
