//! A cup for a picture of the studio: what it takes, what it allows, and what it would do if it were
//! laid as soon as that is safe.

use super::stock::taken_ml;
use super::whole::Studio;
use crate::cup::{
    Amount, Change, CupError, MOST_CUPS, Pour, Reach, Rounded, USUAL_LOSS, Unit, adjust, amounts,
    loss_of, on_picture_ml, pour_ml, reach, round_to, series, turn,
};
use crate::mix::{Limit, Mix, Part};
use crate::picture::{CoatFault, IfLaid, LaidCoat, REST, if_laid};
use crate::quantity::{Checked, Fault, Millilitres, OutOfRange, Parts, WetFilm};
use crate::time::seconds;
use chrono::{DateTime, Utc};

/// Smallest and largest measure a cup is rounded to [ml]. [practice] a drop to a spoon
const MEASURES_ML: std::ops::RangeInclusive<f64> = 0.01..=50.0;
/// Most turns in one question. [practice] what a hand does before the answer is there
const MOST_TURNS: usize = 200;
/// Most parts in a cup. [practice]
const MOST_PARTS: usize = 50;
/// Digits that parts of an offer are rounded to, as 10 to their power [-]. [practice]
const OFFER_DIGITS: f64 = 1e4;

/// One number of a recipe that was set.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Turn {
    /// Which part.
    pub part: usize,
    /// What it is counted in.
    pub unit: Unit,
    /// How much.
    pub value: f64,
    /// Size of the cup it was set in [ml]; the cup that is asked about when not said.
    pub of_ml: Option<f64>,
}

/// On what, when and after what a cup is laid.
#[derive(Debug, Clone, PartialEq)]
pub struct CupPlace {
    /// When: now, as soon as it may be, or when the plan has it.
    pub at: DateTime<Utc>,
    /// Now.
    pub now: DateTime<Utc>,
    /// Why not before, as a sentence without its end.
    pub because: Option<String>,
    /// The coats that lie there then, in order of time.
    pub coats: Vec<LaidCoat>,
    /// What is painted before it (picture and step), and takes from the shelf.
    pub before: Vec<(usize, usize)>,
    /// The step it is for.
    pub step: Option<usize>,
}

impl CupPlace {
    /// Over what is laid on picture `p`, at `now`; for `step` when that is known.
    ///
    /// # Errors
    /// [`CoatFault`] when a laid coat cannot be computed.
    pub fn now(
        studio: &Studio,
        p: usize,
        step: Option<usize>,
        now: DateTime<Utc>,
    ) -> Result<Self, CoatFault> {
        let (coats, before) = (studio.laid_coats(p)?, Vec::new());
        Ok(Self { at: now, now, because: None, coats, before, step })
    }
}

/// A cup that is asked about.
#[derive(Debug, Clone, PartialEq)]
pub struct CupAsked {
    /// What is in it.
    pub mix: Mix,
    /// What was turned since, in order.
    pub turns: Vec<Turn>,
    /// Wet film of the coat [um].
    pub wet_film_um: f64,
    /// Share of the picture's area it covers.
    pub share_of_area: f64,
    /// Share of the cup that stays in cup and brush.
    pub loss: f64,
    /// The whole cup [ml], instead of the loss.
    pub total_ml: Option<f64>,
    /// What the bench can measure [ml].
    pub measure_ml: f64,
    /// A material of which there is only so much [ml].
    pub have: Option<(String, f64)>,
}

impl CupAsked {
    /// The coat of `mix` over a whole picture, with the usual loss, in whole drops.
    pub fn coat(mix: Mix, wet_film_um: f64) -> Self {
        Self {
            mix,
            turns: Vec::new(),
            wet_film_um,
            share_of_area: 1.0,
            loss: USUAL_LOSS,
            total_ml: None,
            measure_ml: crate::cup::DROP_ML,
            have: None,
        }
    }
}

/// What is known of a cup.
#[derive(Debug, Clone, PartialEq)]
pub struct Cupful {
    /// What is in it after every turn.
    pub mix: Mix,
    /// Volume to mix [ml].
    pub total_ml: f64,
    /// What of it ends on the picture [ml].
    pub on_picture_ml: f64,
    /// Share of the cup that stays in cup and brush.
    pub loss: f64,
    /// How much of each part goes in.
    pub amounts: Vec<Amount>,
    /// The same in whole measures.
    pub rounded: Rounded,
    /// Limits of the mix on this picture in its school.
    pub limits: Vec<Limit>,
    /// What it does when it is laid; `None` when the film below never gets ready.
    pub laid: Option<IfLaid>,
    /// Whether it has to wait.
    pub waits: bool,
    /// Why, as a sentence without its end.
    pub because: Option<String>,
    /// Changes of the mix that keep its limits; `None` where one cannot be made.
    pub offers: Vec<(Change, Option<Mix>)>,
    /// How far the material goes that is short.
    pub short: Option<Reach>,
    /// By part, what is left on the shelf when its turn comes [ml]; `None` where no stock is kept.
    pub left_ml: Vec<Option<f64>>,
    /// What can hurt about what is in it.
    pub hazards: Vec<String>,
}

/// A dilution series that is asked about.
#[derive(Debug, Clone, PartialEq)]
pub struct SeriesAsked {
    /// The material whose share rises.
    pub strong: String,
    /// The material that makes up the rest.
    pub thin: String,
    /// Share of the strong one in the first cup.
    pub from: f64,
    /// And in the last.
    pub to: f64,
    /// How many cups.
    pub cups: usize,
    /// Volume of each [ml].
    pub ml: f64,
    /// Wet film of a coat of them [um].
    pub wet_film_um: f64,
}

/// One cup of a series.
#[derive(Debug, Clone, PartialEq)]
pub struct SeriesCup {
    /// What is in it.
    pub mix: Mix,
    /// How much of each part goes in.
    pub amounts: Vec<Amount>,
    /// Its limits on this picture.
    pub limits: Vec<Limit>,
    /// What a coat of it does.
    pub laid: Option<IfLaid>,
}

fn refuse(error: CupError) -> Fault {
    let place = match &error {
        CupError::Range(OutOfRange { range, .. }) if *range == *WetFilm::RANGE => "wet_film_um",
        CupError::Range(_) => "share_of_area",
        CupError::AllLost => "loss",
        CupError::TooSmall(_) => "total_ml",
        CupError::NotInMix(_) | CupError::NothingLeft => "have",
        _ => "mix",
    };
    Fault::new(place, error)
}

/// The mix as asked, with every turn made.
fn turned(studio: &Studio, asked: &CupAsked, total_ml: f64) -> Result<Mix, Fault> {
    if asked.mix.len() > MOST_PARTS || asked.turns.len() > MOST_TURNS {
        return Err(Fault::new("mix", format!("at most {MOST_PARTS} parts fit into a cup")));
    }
    for (i, part) in asked.mix.iter().enumerate() {
        Parts::try_new(part.parts).map_err(|e| Fault::new(format!("mix[{i}].parts"), e))?;
    }
    let mut mix = asked.mix.clone();
    for t in &asked.turns {
        let of_ml = t.of_ml.unwrap_or(total_ml);
        mix = turn(&mix, (t.part, t.unit, t.value), of_ml, &studio.materials)
            .map_err(|e| Fault::new(format!("mix[{}]", t.part), e))?;
    }
    Ok(mix)
}

/// The mix as it comes into the cup in whole measures.
fn measured(mix: &Mix, rounded: &Rounded) -> Mix {
    let parts = mix.iter().zip(&rounded.ml);
    parts.map(|(part, ml)| Part { parts: *ml, ..part.clone() }).collect()
}

fn check_measure(measure_ml: f64) -> Checked {
    if MEASURES_ML.contains(&measure_ml) {
        return Ok(());
    }
    Err(Fault::new("measure_ml", "a measure must be from 0.01 to 50 ml"))
}

impl Studio {
    /// A cup for picture `p`, laid at `place`.
    ///
    /// # Errors
    /// [`Fault`] naming the field of the question that does not fit.
    pub fn cupful(&self, p: usize, asked: &CupAsked, place: &CupPlace) -> Result<Cupful, Fault> {
        check_measure(asked.measure_ml)?;
        let picture = &self.pictures[p];
        let mut pour = Pour {
            area_m2: picture.area_m2(),
            share_of_area: asked.share_of_area,
            wet_film_um: asked.wet_film_um,
            loss: asked.loss,
        };
        // The coat is checked first, whichever way the size of the cup is said.
        let mut total_ml = pour_ml(&pour).map_err(refuse)?;
        if let Some(whole) = asked.total_ml {
            pour.loss = loss_of(&pour, whole).map_err(refuse)?;
            total_ml = whole;
        }
        let mix = turned(self, asked, total_ml)?;
        let amounts = amounts(&mix, total_ml, &self.materials).map_err(refuse)?;
        let short = match &asked.have {
            None => None,
            Some((material, ml)) => Some(reach(&mix, material, *ml, &pour).map_err(refuse)?),
        };
        let laid = self.laid_at(p, (&mix, asked.wet_film_um), place)?;
        let rounded = round_to(&amounts, asked.measure_ml);
        let exact = self.limits_of(p, &mix, place);
        let measured = self.limits_of(p, &measured(&mix, &rounded), place);
        let limits = exact.into_iter().zip(measured).map(|(exact, cup)| exact.as_measured(cup));
        Ok(Cupful {
            left_ml: mix
                .iter()
                .map(|part| self.left_after(&part.material, &place.before))
                .collect(),
            total_ml,
            on_picture_ml: on_picture_ml(&pour),
            loss: pour.loss,
            limits: limits.collect(),
            rounded,
            amounts,
            waits: laid.as_ref().is_none_or(|l| l.at > seconds(place.now)),
            because: place.because.clone(),
            laid,
            offers: self.offers(&mix),
            short,
            hazards: mix.hazards(&self.materials),
            mix,
        })
    }

    /// The limits of `mix` on picture `p`, for the step and on the surface of `place`.
    fn limits_of(&self, p: usize, mix: &Mix, place: &CupPlace) -> Vec<Limit> {
        let picture = &self.pictures[p];
        let surface = place.step.map_or_else(|| picture.surface(), |i| picture.surface_at(i));
        let glaze = place.step.is_some_and(|i| picture.steps[i].kind.is_glaze());
        mix.limits(&self.materials, (surface, self.thinning(picture)), glaze)
    }

    /// What is left of a material when `before` is painted [ml].
    fn left_after(&self, material: &str, before: &[(usize, usize)]) -> Option<f64> {
        let left = self.left_of(material)?;
        let taken = before.iter().filter_map(|(p, i)| {
            let picture = &self.pictures[*p];
            let step = &picture.steps[*i];
            let ml = taken_ml(picture, step).filter(|_| step.tub.is_none())?;
            Some(ml * step.mix.share_of(material))
        });
        Some((left - taken.sum::<f64>()).max(0.0))
    }

    /// What a coat of `mix`, so thick [um], would do on picture `p`, laid at `place` or as soon as that
    /// is safe.
    ///
    /// # Errors
    /// [`Fault`] when the mix or the film cannot be, or a coat below cannot be computed.
    pub fn laid_at(
        &self,
        p: usize,
        (mix, wet_film_um): (&Mix, f64),
        place: &CupPlace,
    ) -> Result<Option<IfLaid>, Fault> {
        let film = WetFilm::try_new(wet_film_um).map_err(|e| Fault::new("wet_film_um", e))?;
        let composition = mix.composition(&self.materials).map_err(|e| Fault::new("mix", e))?;
        let at = place.step.map_or(REST, |i| self.pictures[p].lies_at(i));
        let coat = (at, film.get(), composition);
        if_laid(&self.pictures[p], &place.coats, &self.futures(), seconds(place.at), coat)
            .map_err(|e| Fault::new("", e))
    }

    /// A row of cups from light to strong for picture `p`, each with what a coat of it would do.
    ///
    /// # Errors
    /// [`Fault`] naming the field of the question that does not fit.
    pub fn series(
        &self,
        p: usize,
        asked: &SeriesAsked,
        place: &CupPlace,
    ) -> Result<Vec<SeriesCup>, Fault> {
        if !(1..=MOST_CUPS).contains(&asked.cups) {
            let why = format!("a series has from 1 to {MOST_CUPS} cups, not {}", asked.cups);
            return Err(Fault::new("cups", why));
        }
        Millilitres::try_new(asked.ml).map_err(|e| Fault::new("ml", e))?;
        if asked.ml <= 0.0 {
            return Err(Fault::new("ml", "a cup must hold more than 0 ml"));
        }
        if asked.strong == asked.thin {
            return Err(Fault::new("thin", "a series needs two different materials"));
        }
        let (of, shares) = ((asked.strong.as_str(), asked.thin.as_str()), (asked.from, asked.to));
        let row = series(of, shares, asked.cups).map_err(|e| Fault::new("from", e))?;
        let cup = |mix: Mix| {
            Ok(SeriesCup {
                amounts: amounts(&mix, asked.ml, &self.materials).map_err(refuse)?,
                limits: self.limits_of(p, &mix, place),
                laid: self.laid_at(p, (&mix, asked.wet_film_um), place)?,
                mix,
            })
        };
        row.into_iter().map(cup).collect()
    }

    fn offers(&self, mix: &Mix) -> Vec<(Change, Option<Mix>)> {
        let rounded =
            |p: Part| Part { parts: (p.parts * OFFER_DIGITS).round() / OFFER_DIGITS, ..p };
        let offer = |change| {
            let made = adjust(mix, &self.materials, change);
            (change, made.map(|mix| mix.into_iter().map(rounded).collect()))
        };
        Change::WORDS.iter().map(|(_, change)| offer(*change)).collect()
    }
}
