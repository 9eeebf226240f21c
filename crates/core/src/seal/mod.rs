//! Sealing: the gate, the air it wants, the varnish plan, the bench, and what comes after.

mod after;
mod against;
mod air;
mod bench;
mod conditions;
mod forward;
mod gate;
mod hours;
mod known;
mod look;
mod record;
mod trouble;
mod varnish;

pub use after::{PACKING, Removal, removal};
pub use against::{against, closed_gate};
pub use air::{Action, DayAir, GoodHour, Remedy, good_hours, remedies, varnish_days};
pub use bench::{Sheet, SheetLine, bench_sheet};
pub use conditions::{Condition, ConditionId, Standing, photograph_due};
pub use forward::{Forward, forward};
pub use gate::{Gate, Stage, gate, gate_with};
pub use known::KnownFilms;
pub use record::{Noted, RecordSheet, WorkDone, mix_said, record_sheet};
pub use varnish::{VarnishError, VarnishPlan, choice_of, with_varnish};
