//! The fixed words of the formats, listed once for the JSON Schema and the OpenAPI document.

use serde::Serialize;
use serde_json::Value;
use ulvek_core::film::FilmState;
use ulvek_core::picture::{Need, StepKind};
use ulvek_core::rules::Severity;
use ulvek_core::studio::{Thinning, Waiting};

/// The words of a list of enum values, as serde writes them.
fn list<T: Serialize>(values: impl IntoIterator<Item = T>) -> Vec<Value> {
    values.into_iter().filter_map(|v| serde_json::to_value(v).ok()).collect()
}

fn kinds() -> Vec<Value> {
    list(StepKind::all())
}

fn needs() -> Vec<Value> {
    use Need::{DryThrough, Nothing, Paintable, ReadyToSeal, ReadyToWrap, TouchDry};
    list([Nothing, TouchDry, Paintable, DryThrough, ReadyToSeal, ReadyToWrap])
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
    words!(kind: kinds, thinning: thinnings, waiting: waitings);

    /// `needs` may also be left out as `null`.
    pub(crate) fn need(_: &mut SchemaGenerator) -> Schema {
        let mut words = super::needs();
        words.push(serde_json::Value::Null);
        json_schema!({ "enum": words })
    }
}

/// For the OpenAPI document.
pub(crate) mod api {
    use utoipa::openapi::schema::{Array, ArrayBuilder, Object, ObjectBuilder, Type};

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
        thinning: thinnings,
        waiting: waitings
    );

    /// A list of film states.
    pub(crate) fn states() -> Array {
        let state =
            ObjectBuilder::new().schema_type(Type::String).enum_values(Some(super::states()));
        ArrayBuilder::new().items(state).build()
    }
}
