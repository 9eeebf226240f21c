//! How much there is of what, and for how long: derived from what was laid, so that undoing a coat
//! gives back what it took.

use super::tub::Tub;
use super::whole::Studio;
use crate::cup::{Amount, Pour, USUAL_LOSS, amounts, pour_ml};
use crate::picture::{Picture, Step};
use chrono::{DateTime, Utc};

/// Something that planned work needs more of than there is.
#[derive(Debug, Clone, PartialEq)]
pub struct Shortage {
    /// The material's or tub's name on the shelf.
    pub of: String,
    /// What it is called.
    pub name: String,
    /// Whether it is a tub.
    pub tub: bool,
    /// What is left now [ml].
    pub left_ml: f64,
    /// What the planned work needs up to and with the first step that runs short [ml].
    pub needs_ml: f64,
    /// Picture and step that run short first.
    pub at: (usize, usize),
}

/// What a coat takes out of its cup [ml]; `None` when it leaves no film or its numbers do not fit.
pub fn taken_ml(picture: &Picture, step: &Step) -> Option<f64> {
    let pour = Pour {
        area_m2: picture.area_m2(),
        share_of_area: step.share_of_area,
        wet_film_um: step.wet_film_um?,
        loss: step.loss.unwrap_or(USUAL_LOSS),
    };
    if step.mix.is_empty() { None } else { pour_ml(&pour).ok() }
}

impl Studio {
    /// What goes into the cup of step `i` of picture `p`, each part with how much; nothing for a step that
    /// leaves no film or whose numbers do not fit.
    pub fn recipe(&self, p: usize, i: usize) -> Vec<Amount> {
        let picture = &self.pictures[p];
        let step = &picture.steps[i];
        let ml = taken_ml(picture, step);
        ml.and_then(|ml| amounts(&step.mix, ml, &self.materials).ok()).unwrap_or_default()
    }

    /// Every laid coat with what it took [ml].
    fn laid(&self) -> impl Iterator<Item = (&Step, DateTime<Utc>, f64)> {
        self.pictures.iter().flat_map(|picture| {
            picture
                .steps
                .iter()
                .filter_map(move |step| Some((step, step.laid_at?, taken_ml(picture, step)?)))
        })
    }

    /// What is left of a material [ml]: what was there, less what was laid or put into tubs since,
    /// in the moment of the count too: one counts, then pours.
    /// `None` when its stock is not kept. Never below 0.
    pub fn left_of(&self, material: &str) -> Option<f64> {
        let stock = self.material(material)?.stock?;
        let laid: f64 = self
            .laid()
            .filter(|(step, at, _)| step.tub.is_none() && *at >= stock.at)
            .map(|(step, _, ml)| ml * step.mix.share_of(material))
            .sum();
        let in_tubs: f64 = self
            .tubs
            .iter()
            .filter(|tub| tub.mixed_at >= stock.at)
            .map(|tub| tub.mixed_ml * tub.mix.share_of(material))
            .sum();
        Some((stock.ml - laid - in_tubs).max(0.0))
    }

    /// What is left in a tub [ml]: what was there when it was last measured, less what was laid
    /// from it since. Never below 0.
    pub fn left_in(&self, tub: &Tub) -> f64 {
        let laid: f64 = self
            .laid()
            .filter(|(step, at, _)| {
                step.tub.as_deref() == Some(tub.id.as_str()) && *at >= tub.level.at
            })
            .map(|(_, _, ml)| ml)
            .sum();
        (tub.level.ml - laid).max(0.0)
    }

    /// What runs short when `work` (picture and step, in the order it is to be done) is done.
    pub fn shortages(&self, work: &[(usize, usize)]) -> Vec<Shortage> {
        let mut needs: Vec<Shortage> = Vec::new();
        // What is left is counted over every coat that was laid: once for each thing.
        let mut need = |of: &str, name: &str, tub: bool, left: &dyn Fn() -> Option<f64>, ml, at| {
            let found = needs.iter_mut().find(|n| n.tub == tub && n.of == of);
            match found {
                // Only the first step that runs short is named; later ones wait for more anyway.
                Some(n) if n.needs_ml > n.left_ml => {}
                Some(n) => {
                    n.needs_ml += ml;
                    n.at = at;
                }
                None => needs.push(Shortage {
                    of: of.to_owned(),
                    name: name.to_owned(),
                    tub,
                    // What nobody counts never runs short.
                    left_ml: left().unwrap_or(f64::INFINITY),
                    needs_ml: ml,
                    at,
                }),
            }
        };
        for &at in work {
            let Some(picture) = self.pictures.get(at.0) else { continue };
            let Some(step) = picture.steps.get(at.1) else { continue };
            let Some(ml) = taken_ml(picture, step) else { continue };
            if let Some(tub) = step.tub.as_deref().and_then(|id| self.tub(id)) {
                need(&tub.id, &tub.name, true, &|| Some(self.left_in(tub)), ml, at);
                continue;
            }
            for material in step.mix.materials(&self.materials) {
                let ml = ml * step.mix.share_of(&material.id);
                let left = || self.left_of(&material.id);
                need(&material.id, &material.name, false, &left, ml, at);
            }
        }
        needs.retain(|n| n.needs_ml > n.left_ml);
        needs
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::{Air, AirSeries};
    use crate::mix::{Mix, Stock, starter_shelf};
    use crate::picture::StepKind;
    use crate::studio::{StudioHours, Tightness};

    fn day(d: u32) -> DateTime<Utc> {
        format!("2027-01-{d:02}T10:00:00Z").parse().unwrap()
    }

    /// A pass of two parts heavy paint and one part medium, 8.5 ml on the picture: a cup of 10 ml.
    fn pass(id: &str, laid: Option<u32>, tub: Option<&str>) -> Step {
        Step {
            mix: Mix::of(&[("heavy-pb29", 2.0), ("gloss-medium", 1.0)]),
            wet_film_um: Some(42.5),
            laid_at: laid.map(day),
            tub: tub.map(Into::into),
            ..Step::usual(id, StepKind::Pass)
        }
    }

    fn studio(steps: Vec<Step>) -> Studio {
        let mut studio = Studio {
            materials: starter_shelf().unwrap(),
            pictures: vec![Picture::new("p", (40.0, 50.0), steps)],
            ..Studio::new(
                "Test room",
                StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap(),
                AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap()),
            )
        };
        let stock = |ml| Some(Stock { ml, at: day(2) });
        for material in &mut studio.materials {
            match material.id.as_str() {
                "heavy-pb29" => material.stock = stock(20.0),
                "gloss-medium" => material.stock = stock(100.0),
                _ => {}
            }
        }
        studio
    }

    #[test]
    fn what_is_laid_comes_off_the_stock_and_an_unlaid_coat_gives_it_back() {
        // By hand: 0.2 m2 x 42.5 um = 8.5 ml; with 15 % lost a cup of 10 ml, two thirds paint.
        let mut studio =
            studio(vec![pass("a", Some(1), None), pass("b", Some(3), None), pass("c", None, None)]);
        let left = studio.left_of("heavy-pb29").unwrap();
        assert!(
            (left - (20.0 - 20.0 / 3.0)).abs() < 1e-9,
            "the coat before the count is not taken"
        );
        studio.pictures[0].steps[1].laid_at = None;
        assert_eq!(studio.left_of("heavy-pb29"), Some(20.0));
        assert_eq!(studio.left_of("heavy-pw6"), None, "not counted");
    }

    #[test]
    fn a_tub_empties_as_coats_are_laid_from_it_and_took_its_parts_when_mixed() {
        let mut studio = studio(vec![pass("a", Some(4), Some("t")), pass("b", None, Some("t"))]);
        studio.tubs.push(Tub {
            id: "t".into(),
            name: "Blue".into(),
            mix: studio.pictures[0].steps[0].mix.clone(),
            mixed_at: day(3),
            mixed_ml: 15.0,
            level: Stock { ml: 15.0, at: day(3) },
            tightness: Tightness::Airtight,
            keeps_days: None,
            checks: vec![],
            archived: false,
        });
        assert!((studio.left_in(&studio.tubs[0]) - 5.0).abs() < 1e-9);
        assert!((studio.left_of("heavy-pb29").unwrap() - 10.0).abs() < 1e-9);
        let short = studio.shortages(&[(0, 1)]);
        assert_eq!(short.len(), 1);
        assert!(short[0].tub && short[0].of == "t" && (short[0].needs_ml - 10.0).abs() < 1e-9);
    }

    #[test]
    fn the_first_step_that_runs_short_is_named() {
        let steps: Vec<Step> = ["a", "b", "c", "d"].iter().map(|id| pass(id, None, None)).collect();
        let short = studio(steps).shortages(&[(0, 0), (0, 1), (0, 2), (0, 3)]);
        // 6.67 ml of paint a coat: 20 ml are enough for three of them.
        assert_eq!(short.len(), 1);
        assert_eq!((short[0].of.as_str(), short[0].at), ("heavy-pb29", (0, 3)));
        assert!((short[0].needs_ml - 80.0 / 3.0).abs() < 1e-9);
    }
}
