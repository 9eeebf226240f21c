//! The fixed words of the formats, listed once for the JSON Schema and the OpenAPI document.

use crate::instruments::Behaviour;
use serde::Serialize;
use serde_json::Value;
use ulvek_core::air::{InstrumentKind, Origin};
use ulvek_core::cup::{Change, Unit};
use ulvek_core::film::FilmState;
use ulvek_core::mix::{Finish, LimitKind, Line, Opacity, Thinning};
use ulvek_core::picture::{
    Carrier, Need, PaintTrouble, Purpose, ReadyBy, SealTrouble, StepKind, Strokes, Touch,
};
use ulvek_core::planner::DateStanding;
use ulvek_core::rules::Severity;
use ulvek_core::seal::{ConditionId, Stage, Standing};
use ulvek_core::studio::{AirSource, Tightness, TubTrouble, Waiting};

/// The words of a list of enum values, as serde writes them.
fn list<T: Serialize>(values: impl IntoIterator<Item = T>) -> Vec<Value> {
    values.into_iter().filter_map(|v| serde_json::to_value(v).ok()).collect()
}

fn kinds() -> Vec<Value> {
    list(StepKind::ALL)
}

fn needs() -> Vec<Value> {
    list(Need::ALL)
}

fn states() -> Vec<Value> {
    list(std::iter::once(FilmState::Workable).chain(FilmState::REACHED))
}

fn severities() -> Vec<Value> {
    list([Severity::Note, Severity::Caution, Severity::Stop])
}

fn thinnings() -> Vec<Value> {
    list([Thinning::MediumOnly, Thinning::WaterAllowed])
}

fn waitings() -> Vec<Value> {
    list([Waiting::Brisk, Waiting::Standard, Waiting::Patient])
}

macro_rules! cases {
    ($($name:ident: $kind:ident),* $(,)?) => {$(
        fn $name() -> Vec<Value> {
            list($kind::WORDS.iter().map(|(_, case)| case))
        }
    )*};
}
cases!(
    carriers: Carrier,
    ready_bys: ReadyBy,
    purposes: Purpose,
    stroke_schools: Strokes,
    seal_troubles: SealTrouble,
    touches: Touch,
    paint_troubles: PaintTrouble,
    conditions: ConditionId,
    standings: Standing,
    date_standings: DateStanding,
    stages: Stage,
    air_sources: AirSource,
    origins: Origin,
    instrument_kinds: InstrumentKind,
    behaviours: Behaviour,
    lines: Line,
    opacities: Opacity,
    finishes: Finish,
    tightnesses: Tightness,
    troubles: TubTrouble,
    units: Unit,
    changes: Change,
    limit_kinds: LimitKind,
);

/// For the JSON Schema.
pub(crate) mod json {
    use schemars::{Schema, SchemaGenerator, json_schema};

    macro_rules! words {
        ($($name:ident: $list:ident),*) => {$(
            pub(crate) fn $name(_: &mut SchemaGenerator) -> Schema {
                json_schema!({ "type": "string", "enum": super::$list() })
            }
        )*};
    }
    words!(
        kind: kinds,
        thinning: thinnings,
        waiting: waitings,
        tightness: tightnesses,
        carrier: carriers,
        ready_by: ready_bys,
        purpose: purposes,
        strokes: stroke_schools,
        sheen: finishes,
        seal_trouble: seal_troubles,
        touch: touches,
        paint_trouble: paint_troubles,
        air_source: air_sources,
        origin: origins
    );

    macro_rules! may_be_null {
        ($($name:ident: $list:ident),*) => {$(
            pub(crate) fn $name(_: &mut SchemaGenerator) -> Schema {
                let mut words = super::$list();
                words.push(serde_json::Value::Null);
                json_schema!({ "enum": words })
            }
        )*};
    }
    may_be_null!(need: needs, line: lines, opacity: opacities, finish: finishes);

    /// A list of troubles.
    pub(crate) fn troubles(_: &mut SchemaGenerator) -> Schema {
        json_schema!({ "type": "array", "items": { "type": "string", "enum": super::troubles() } })
    }
}

/// For the OpenAPI document.
pub(crate) mod api {
    use utoipa::openapi::schema::{Array, ArrayBuilder, Object, ObjectBuilder, SchemaType, Type};

    macro_rules! words {
        ($($name:ident: $list:ident),*) => {$(
            pub(crate) fn $name() -> Object {
                ObjectBuilder::new().schema_type(Type::String).enum_values(Some(super::$list())).build()
            }
        )*};
    }
    words!(
        kind: kinds,
        need: needs,
        severity: severities,
        state: states,
        thinning: thinnings,
        waiting: waitings,
        tightness: tightnesses,
        line: lines,
        opacity: opacities,
        finish: finishes,
        sheen: finishes,
        carrier: carriers,
        ready_by: ready_bys,
        purpose: purposes,
        strokes: stroke_schools,
        seal_trouble: seal_troubles,
        touch: touches,
        paint_trouble: paint_troubles,
        condition: conditions,
        standing: standings,
        date_standing: date_standings,
        stage: stages,
        air_source: air_sources,
        origin: origins,
        instrument_kind: instrument_kinds,
        behaviour: behaviours,
        unit: units,
        change: changes,
        limit: limit_kinds
    );

    /// How an instrument behaves; nothing where it is a real one.
    pub(crate) fn behaviour_if_any() -> Object {
        let mut words = super::behaviours();
        words.push(serde_json::Value::Null);
        let kinds = SchemaType::from_iter([Type::String, Type::Null]);
        ObjectBuilder::new().schema_type(kinds).enum_values(Some(words)).build()
    }

    /// A list of troubles found in a tub.
    pub(crate) fn troubles() -> Array {
        let trouble =
            ObjectBuilder::new().schema_type(Type::String).enum_values(Some(super::troubles()));
        ArrayBuilder::new().items(trouble).build()
    }

    /// A list of film states.
    pub(crate) fn states() -> Array {
        let state =
            ObjectBuilder::new().schema_type(Type::String).enum_values(Some(super::states()));
        ArrayBuilder::new().items(state).build()
    }
}
