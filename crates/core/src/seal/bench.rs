//! The bench sheet of one sealing coat: what to do before, during and after it.

use super::gate::Gate;
use super::varnish::VarnishPlan;
use crate::mix::{Finish, MaterialKind};
use crate::picture::{Picture, SealTrouble, StepKind, Strokes, VarnishChoice};
use crate::studio::{Studio, taken_ml};

/// One line of the sheet.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SheetLine {
    /// What to do.
    pub what: String,
    /// Whether it is about what can hurt someone.
    pub care: bool,
}

/// The bench sheet of one sealing coat.
#[derive(Debug, Clone, PartialEq)]
pub struct Sheet {
    /// Before the bottle is opened.
    pub preparation: Vec<SheetLine>,
    /// While it is laid, in order.
    pub application: Vec<SheetLine>,
    /// What to look for, in raking light.
    pub inspection: Vec<SealTrouble>,
    /// Minutes after which it is not touched any more.
    pub stop_after_min: Option<f64>,
    /// Minutes after which it is touch-dry.
    pub touch_dry_min: Option<f64>,
}

fn line(what: impl Into<String>) -> SheetLine {
    SheetLine { what: what.into(), care: false }
}

fn care(what: impl Into<String>) -> SheetLine {
    SheetLine { what: what.into(), care: true }
}

/// The sheet of sealing coat `i` of a picture. `plan` is that of its varnish, `gate` says how the
/// coat dries in the room as it will be.
pub fn bench_sheet(
    studio: &Studio,
    (picture, i): (&Picture, usize),
    (choice, plan): (&VarnishChoice, &VarnishPlan),
    gate: &Gate,
) -> Sheet {
    let step = &picture.steps[i];
    let solvent = studio.holds(step, &MaterialKind::SolventVarnish);
    let mut poured = step.mix.materials(&studio.materials);
    let matte = poured.any(|m| m.finish == Some(Finish::Matte));
    let laid = picture.steps[..i].iter().filter(|s| s.kind == StepKind::Varnish).count();
    let mut application: Vec<SheetLine> = plan.areas.iter().map(|a| line(sentence(a))).collect();
    application.push(line(format!("Strokes {}.", choice.stroke_of(picture, laid))));
    application.extend(on_the_picture(choice.strokes == Strokes::Crossed));
    application.extend(cleaning(solvent));
    Sheet {
        preparation: preparation((plan, poured_ml(picture, i, plan)), solvent, matte),
        application,
        inspection: SealTrouble::WORDS.iter().map(|(_, t)| *t).collect(),
        stop_after_min: gate.working_min,
        touch_dry_min: gate.touch_dry_min,
    }
}

/// What sealing coat `i` takes, and what of it goes onto the edges [ml]: a varnish coat as planned, an
/// isolation coat, which is thicker, by its own film.
fn poured_ml(picture: &Picture, i: usize, plan: &VarnishPlan) -> (f64, f64) {
    let step = &picture.steps[i];
    let own = taken_ml(picture, step).filter(|_| step.kind == StepKind::IsolationCoat);
    let usual = StepKind::Varnish.usual_film_um().zip(step.wet_film_um);
    let thicker = usual.map_or(1.0, |(usual, own)| own / usual);
    own.map_or((plan.pour_ml, plan.edges_ml), |ml| (ml, plan.edges_ml * thicker))
}

/// What is done before the first stroke.
fn preparation(
    (plan, (pour_ml, edges_ml)): (&VarnishPlan, (f64, f64)),
    solvent: bool,
    matte: bool,
) -> Vec<SheetLine> {
    let mut preparation = Vec::new();
    if solvent {
        preparation.push(care(
            "Open windows and extract the air; wear a respirator for organic vapour; no flame, no \
             spark, no heater on. Read the product's safety data sheet first; local rules and \
             licensed advice come before this sheet.",
        ));
    }
    preparation.extend([
        line("Shut the dust out: no sweeping, no wool, windows closed until it is touch-dry.")
            .unless(solvent),
        line("Wipe the bench with a damp cloth and let the dust settle for a while."),
        line("Lay the picture flat and level, in good light from one side."),
        line("Picture and varnish at the temperature of the room."),
        line(match matte {
            true => "Stir the bottle slowly until the matting is off its bottom; do not shake it: \
                     bubbles.",
            false => "Do not shake the bottle: bubbles.",
        }),
        line(format!(
            "Pour {:.0} ml into a bowl{}. Hold the bowl away from the picture.",
            pour_ml.ceil(),
            if edges_ml > 0.0 {
                format!(" ({edges_ml:.1} ml of it for the edges)")
            } else {
                String::new()
            }
        )),
        line(format!(
            "A soft flat brush, about {:.1} cm wide, that is used for varnish only; no loose hairs.",
            plan.brush_cm
        )),
    ]);
    preparation.retain(|l| !l.what.is_empty());
    preparation
}

/// How the coat is laid; crossed passes are often sprayed.
fn on_the_picture(crossed: bool) -> Vec<SheetLine> {
    let mut application = Vec::new();
    application.extend([
        line("A thin even coat. Keep a wet edge and go back into it while it is wet."),
        line("Put it on and leave it: going over a setting coat turns it white, worst over darks."),
    ]);
    if crossed {
        application.push(care(
            "If it is sprayed instead of brushed: extract the air, wear a suitable respirator, no \
             flame or spark, and never spray over loose pigment dust. Read the product's safety data \
             sheet; local rules and licensed advice come first.",
        ));
    }
    application
}

/// What is done with brush, rags and water afterwards.
fn cleaning(solvent: bool) -> Vec<SheetLine> {
    let mut application = Vec::new();
    if solvent {
        application.push(care(
            "Rags with solvent go into a closed metal bin with water: heaped, they can set \
             themselves on fire. Solvent and rinsings are hazardous waste under local rules.",
        ));
        application.push(line("Wash the brush at once in the solvent its data sheet names."));
    } else {
        application.push(line("Wash the brush at once in water: left overnight it is lost."));
        application.push(care(
            "Rinse water does not go down the drain untreated: let it settle, follow local waste \
             rules.",
        ));
    }
    application
}

impl SheetLine {
    /// The line, or an empty one that is left out, when `not`.
    fn unless(self, not: bool) -> Self {
        if not { Self { what: String::new(), ..self } } else { self }
    }
}

fn sentence(text: &str) -> String {
    let mut letters = text.chars();
    letters
        .next()
        .map_or_else(String::new, |first| format!("{}{}.", first.to_uppercase(), letters.as_str()))
}
