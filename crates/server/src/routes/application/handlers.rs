//! Whether the application answers, and what it knows of the trade.

use super::wire::{
    Catalogue, FieldOut, FinishOut, GroundOut, Health, KindOut, NewMaterialOut, UsualOut, WayOut,
    WordOut,
};
use crate::formats::{GroundDoc, numbers};
use crate::instruments::Behaviour;
use crate::problem::Problem;
use crate::state::App;
use axum::Json;
use axum::extract::State;
use serde::Serialize;
use ulvek_core::air::SPEEDS;
use ulvek_core::air::{InstrumentKind, Origin};
use ulvek_core::colour::veil;
use ulvek_core::cup::{MEASURES, USUAL_LOSS};
use ulvek_core::film::HORIZON_S;
use ulvek_core::mix::{
    Finish, Line, MaterialKind, Opacity, SUM_TOLERANCE, Thinning, Tint, ordinary_paint,
};
use ulvek_core::picture::{
    Carrier, FIRST_GROUND, GROUNDS, MOST_COATS, Need, PaintTrouble, Picture, Purpose, ReadyBy,
    SMALL_CM, StepKind, Strokes, Touch, WAYS,
};
use ulvek_core::planner::MIST_EVERY;
use ulvek_core::quantity::{Range, SURES};
use ulvek_core::studio::{AirSource, Tightness, TubTrouble, Waiting};
use ulvek_core::time::{DAY_S, MINUTE_S};

/// Answers when the application and its database do.
#[utoipa::path(get, path = "/api/health", tag = "application",
    responses((status = 200, body = Health)))]
pub async fn health(State(app): State<App>) -> Result<Json<Health>, Problem> {
    app.database_answers().await?;
    Ok(Json(Health { status: "ok" }))
}

/// Kinds of step, ways of working and allowed ranges.
#[utoipa::path(get, path = "/api/catalogue", tag = "application",
    responses((status = 200, body = Catalogue)))]
pub async fn catalogue() -> Result<Json<Catalogue>, Problem> {
    Ok(Json(known()?))
}

/// What the application knows of the trade.
///
/// # Errors
/// An internal problem when a table of it is broken; a test holds that none is.
pub fn known() -> Result<Catalogue, Problem> {
    let kinds = StepKind::ALL.iter().copied().map(|kind| KindOut {
        kind,
        word: kind.word().into(),
        does: kind.does().into(),
        needs: kind.needs(),
        usual_film_um: kind.usual_film_um(),
        usual_minutes: kind.usual_minutes(),
        splittable: kind.usually_splittable(),
        section: kind.has_section(),
    });
    let ways = WAYS.iter().map(|way| {
        let named = (way.id, way.name, way.why);
        WayOut::of(named, &way.steps_on(SMALL_CM), chrono_tz::UTC)
    });
    let horizon_days = HORIZON_S / DAY_S;
    let ordinary = ordinary_paint().map_err(|_| Problem::internal())?;
    let usual = |rows: &[(f64, &str)]| -> Vec<UsualOut> {
        rows.iter().map(|(value, said)| UsualOut { value: *value, said: large(said) }).collect()
    };
    let named = MaterialKind::NAMED.iter().map(|(word, kind)| (*word, kind.said()));
    let kinds_of_material = named.chain(MaterialKind::OF_NO_RULE);
    Ok(Catalogue {
        kinds: kinds.collect(),
        ways: ways.collect(),
        fields: numbers().map(|(name, range)| field(name, range)).collect(),
        needs: Need::ALL.iter().filter_map(|need| word(need, need.asks())).collect(),
        grounds: GROUNDS
            .iter()
            .map(|(ground, said)| GroundOut {
                ground: GroundDoc::of(ground, Picture::GROUND_COLOUR),
                said: large(said),
            })
            .collect(),
        first_ground: GroundDoc::of(&FIRST_GROUND, Picture::GROUND_COLOUR),
        speeds: usual(&SPEEDS),
        material_kinds: kinds_of_material
            .map(|(value, said)| WordOut { value: value.into(), said: said.into() })
            .collect(),
        lines: words(Line::WORDS, |line| line.said()),
        opacities: words(Opacity::WORDS, |opacity| opacity.said()),
        finishes: words(Finish::WORDS, |finish| finish.said())
            .into_iter()
            .zip(Finish::WORDS)
            .map(|(WordOut { value, said }, finish)| FinishOut {
                value,
                said,
                veil: veil(finish.1),
            })
            .collect(),
        tightnesses: words(Tightness::WORDS, Tightness::said),
        tub_troubles: words(TubTrouble::WORDS, |trouble| trouble.said()),
        thinnings: Thinning::ALL.iter().filter_map(|school| word(school, school.said())).collect(),
        waitings: Waiting::ALL.iter().filter_map(|school| word(school, school.said())).collect(),
        sures: usual(&SURES),
        touches: words(Touch::WORDS, |touch| touch.said()),
        paint_troubles: words(PaintTrouble::WORDS, |trouble| trouble.said()),
        carriers: words(Carrier::WORDS, |carrier| carrier.said()),
        purposes: words(Purpose::WORDS, |purpose| purpose.said()),
        ready_by: words(ReadyBy::WORDS, |ready| ready.said()),
        strokes: words(Strokes::WORDS, |strokes| strokes.said()),
        air_sources: words(AirSource::WORDS, |source| source.said()),
        origins: words(Origin::WORDS, |origin| origin.said()),
        instrument_kinds: words(InstrumentKind::WORDS, |kind| kind.said()),
        behaviours: words(Behaviour::WORDS, |how| how.said()),
        new_material: NewMaterialOut {
            solids: ordinary.solids(),
            water: ordinary.water(),
            glycol: ordinary.glycol(),
            sum_tolerance: SUM_TOLERANCE,
            white_parts: Tint::USUAL_PARTS,
        },
        most_varnish_coats: MOST_COATS,
        measures: usual(&MEASURES),
        usual_loss: USUAL_LOSS,
        mist_every_min: MIST_EVERY.as_seconds_f64() / MINUTE_S,
        horizon_days,
    })
}

/// Words of an enumeration with what painters say.
fn words<T: Copy, S: Into<String>>(of: &[(&str, T)], said: impl Fn(T) -> S) -> Vec<WordOut> {
    let word = |(value, case): &(&str, T)| WordOut {
        value: (*value).to_owned(),
        said: said(*case).into(),
    };
    of.iter().map(word).collect()
}

/// A case as it is written, with what painters say.
fn word(case: &impl Serialize, said: impl Into<String>) -> Option<WordOut> {
    let value = serde_json::to_value(case).ok()?.as_str()?.to_owned();
    Some(WordOut { value, said: said.into() })
}

fn field(name: &str, range: &Range) -> FieldOut {
    FieldOut {
        field: name.into(),
        name: range.name.into(),
        unit: range.unit.into(),
        min: range.min,
        max: range.max,
        spoken: range.spoken,
        source: range.source.into(),
    }
}

/// With a first letter that is large.
fn large(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map(|first| first.to_uppercase().chain(letters).collect()).unwrap_or_default()
}
