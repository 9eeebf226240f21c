//! Sealing: the gate, the air it wants, the varnish plan, the bench, and what comes after.

mod after;
mod air;
mod bench;
mod conditions;
mod forward;
mod gate;
mod hours;
mod known;
mod record;
mod trouble;
mod varnish;

pub use after::{PACKING, Removal, removal};
pub use air::{
    Action, AirFault, DAMPEST, DRIEST, DayAir, GoodHour, Remedy, WARM, air_faults, first_fault,
    good_hours, remedies, varnish_days,
};
pub use bench::{Sheet, SheetLine, bench_sheet};
pub use conditions::{Condition, ConditionId, Standing};
pub use forward::{Forward, forward};
pub use gate::{Gate, Stage, gate, gate_with};
pub use known::KnownFilms;
pub use record::{SealAnyway, SealRecord, TroubleFound};
pub use trouble::SealTrouble;
pub use varnish::{
    Carrier, DEEPEST_EDGE_CM, MOST_COATS, Purpose, Strokes, USUAL_EDGE_CM, VarnishChoice,
    VarnishError, VarnishPlan, choice_of, with_varnish,
};
