//! A studio in which every field says something. It is written out field by field, so that a new field
//! does not compile until it is here too.

use chrono::{DateTime, NaiveDate, NaiveTime, Utc, Weekday};
use proptest::prelude::*;
use rand::rngs::StdRng;
use rand::seq::IndexedRandom;
use rand::{Rng, SeedableRng};
use ulvek_core::air::{Air, AirSeries, Origin, Room};
use ulvek_core::film::{Ground, Habit};
use ulvek_core::mix::{
    Composition, Drawdown, Finish, Line, Material, MaterialKind, Mix, Opacity, Part, Stock, Swatch,
    SwatchSeen, Thinning, Tint,
};
use ulvek_core::picture::{
    Carrier, Happening, Need, PaintTrouble, Picture, Purpose, ReadyBy, SealAnyway, SealRecord,
    SealTrouble, SetAside, Step, StepKind, Strokes, ThinningChoice, Touch, TouchTest, TroubleFound,
    VarnishChoice, What,
};
use ulvek_core::quantity::{
    Absorbency, AirChanges, AirSpeed, Celsius, Density, Grams, GroundDelay, LAST_DAY, LagHours,
    Millilitres, Minutes, Missed, Moisture, Pace, Range, RelativeHumidity, Side, Sure, Warmth,
    Weight, WetFilm,
};
use ulvek_core::studio::{
    AirSource, Closed, OpenHours, OrderEntry, OwnWay, RoomAhead, Schools, Studio, StudioHours,
    Tightness, Tub, TubCheck, TubTrouble, Waiting, daylight,
};
use ulvek_core::time::seconds;

/// A full studio that holds what [`Studio::check`] asks.
pub fn full_studio() -> impl Strategy<Value = Studio> {
    any::<u64>().prop_map(|seed| Draw(StdRng::seed_from_u64(seed)).studio())
}

/// A full picture on the shelf of a full studio, the first of it.
pub fn full_picture() -> impl Strategy<Value = (Studio, Picture)> {
    full_studio().prop_map(|studio| {
        let picture = studio.pictures[0].clone();
        (studio, picture)
    })
}

struct Draw(StdRng);

impl Draw {
    fn number(&mut self, range: &Range) -> f64 {
        // Most numbers of the trade are small beside the ends of their ranges.
        let narrow = self.0.random_bool(0.5);
        let to = if narrow { range.min + (range.max - range.min) * 0.05 } else { range.max };
        self.0.random_range(range.min..=to)
    }

    fn maybe<T>(&mut self, make: impl FnOnce(&mut Self) -> T) -> Option<T> {
        if self.0.random_bool(0.6) { Some(make(self)) } else { None }
    }

    fn share(&mut self) -> f64 {
        self.0.random_range(0.0..=1.0)
    }

    fn one_of<T: Copy>(&mut self, words: &[T]) -> T {
        *words.choose(&mut self.0).unwrap()
    }

    fn word<T: Copy>(&mut self, words: &[(&str, T)]) -> T {
        self.one_of(words).1
    }

    fn yes(&mut self) -> bool {
        self.0.random_bool(0.5)
    }

    fn text(&mut self) -> String {
        let letters = ['a', 'Z', 'é', 'ø', '–', '"', '\'', '\\', '<', '&', '木', '🜄', ';', '%'];
        let count = self.0.random_range(1..40);
        let text: String = (0..count).map(|_| self.one_of(&letters)).collect();
        format!("{text}.")
    }

    fn moment(&mut self) -> DateTime<Utc> {
        // The whole table of dates: 2000 to 2099.
        let (from, to) = (946_684_800_000_000i64, 4_102_444_800_000_000);
        DateTime::from_timestamp_micros(self.0.random_range(from..to)).unwrap()
    }

    fn day(&mut self) -> NaiveDate {
        self.moment().date_naive()
    }

    fn stock(&mut self) -> Stock {
        Stock { ml: self.number(Millilitres::RANGE), at: self.moment() }
    }

    fn air(&mut self) -> Air {
        Air {
            celsius: self.number(Celsius::RANGE),
            humidity: self.number(RelativeHumidity::RANGE),
            speed_m_s: self.number(AirSpeed::RANGE),
        }
    }

    fn material(&mut self, id: &str) -> Material {
        let solids = self.0.random_range(0.1..0.9);
        let water = (1.0 - solids) * self.share();
        let composition = if self.0.random_bool(0.1) {
            Composition::spirit_borne(solids, 1.0 - solids).unwrap()
        } else {
            Composition::try_new(solids, water, 1.0 - solids - water).unwrap()
        };
        let pace = Pace::try_new(self.number(Pace::RANGE)).unwrap();
        Material {
            id: id.into(),
            name: self.text(),
            kind: match self.maybe(|draw| draw.one_of(&[0, 1, 2, 3, 4, 5, 6])) {
                Some(n) => MaterialKind::NAMED[n].1.clone(),
                None => MaterialKind::Other("gum".into()),
            },
            composition: composition.with_pace(pace),
            binder: self.maybe(|draw| solids * draw.share()),
            density_g_ml: self.maybe(|draw| draw.number(Density::RANGE)),
            swatch: self.maybe(|draw| Swatch(draw.0.random())),
            drawdown: self.maybe(Self::drawdown),
            // The shelf gives it its white.
            tint: None,
            line: self.maybe(|draw| draw.word(Line::WORDS)),
            opacity: self.maybe(|draw| draw.word(Opacity::WORDS)),
            finish: self.maybe(|draw| draw.word(Finish::WORDS)),
            pigments: (0..self.0.random_range(0..3)).map(|_| self.text()).collect(),
            hazards: self.maybe(Self::text),
            most_retarder: self.maybe(Self::share),
            most_water: self.maybe(Self::share),
            learned: None,
            slow_volatility: self.maybe(|draw| draw.0.random_range(0.1..10.0)),
            stock: self.maybe(Self::stock),
            colour_source: self.maybe(Self::text),
            source: self.maybe(Self::text),
            archived: self.yes(),
        }
    }

    /// A drawdown that can be: each part of it darker over the black card.
    fn drawdown(&mut self) -> Drawdown {
        let light: [u8; 3] = std::array::from_fn(|_| self.0.random_range(100..=240));
        let dark = light.map(|part| self.0.random_range(part / 2..part));
        Drawdown {
            dry_um: self.number(Drawdown::DRY),
            cards: self
                .maybe(|draw| draw.0.random_range(0..40))
                .map_or(Drawdown::CARDS, |black| (Swatch([250; 3]), Swatch([black; 3]))),
            ..Drawdown::usual(Swatch(light), Swatch(dark))
        }
    }

    fn mix(&mut self, shelf: &[Material]) -> Mix {
        let count = self.0.random_range(1..=shelf.len());
        // Spirit and water never go into one cup.
        let spirit = |m: &Material| m.composition.spirit() > 0.0;
        let alike = shelf[..count].iter().filter(|m| spirit(m) == spirit(&shelf[0]));
        let part = |material: &Material, parts| Part { material: material.id.clone(), parts };
        alike.map(|m| part(m, self.0.random_range(0.1..100.0))).collect()
    }

    fn tub(&mut self, id: &str, shelf: &[Material]) -> Tub {
        let mut checks: Vec<TubCheck> = (0..self.0.random_range(0..3))
            .map(|_| TubCheck {
                at: self.moment(),
                found: self.maybe(|draw| draw.word(TubTrouble::WORDS)).into_iter().collect(),
            })
            .collect();
        checks.sort_by_key(|c| c.at);
        Tub {
            id: id.into(),
            name: self.text(),
            mix: self.mix(shelf),
            mixed_at: self.moment(),
            mixed_ml: self.number(Millilitres::RANGE),
            level: self.stock(),
            tightness: self.word(Tightness::WORDS),
            keeps_days: self.maybe(|draw| draw.0.random_range(0.0..3650.0)),
            checks,
            archived: self.yes(),
        }
    }

    fn step(&mut self, id: String, (shelf, tubs): (&[Material], &[Tub])) -> Step {
        let kind = self.one_of(StepKind::ALL);
        let tub = if kind.leaves_film() { self.maybe(|_| &tubs[0]) } else { None };
        let film = kind.leaves_film().then(|| self.number(WetFilm::RANGE));
        let mix = match tub {
            _ if film.is_none() => Mix::default(),
            Some(tub) => tub.mix.clone(),
            None => self.mix(shelf),
        };
        Step {
            id,
            kind,
            name: self.maybe(Self::text),
            hands_on_min: self.number(Minutes::RANGE),
            wet_film_um: film,
            mix,
            share_of_area: self.share(),
            section: if kind.has_section() { self.maybe(Self::text) } else { None },
            splittable: self.yes(),
            after: None,
            needs: self.maybe(|draw| draw.one_of(&Need::ALL)),
            not_before: self.maybe(Self::moment),
            pinned_at: self.maybe(Self::moment),
            earliest_gap_min: self.maybe(|draw| draw.number(Minutes::RANGE)),
            laid_at: None,
            tub: tub.map(|t| t.id.clone()),
            loss: self.maybe(|draw| draw.0.random_range(0.0..0.99)),
            cup_g: self.maybe(|draw| draw.number(Grams::RANGE)),
            slowed: None,
        }
    }

    fn seal(&mut self) -> SealRecord {
        SealRecord {
            choice: self.maybe(|draw| VarnishChoice {
                carrier: draw.word(Carrier::WORDS),
                finish: draw.word(Finish::WORDS),
                purpose: draw.word(Purpose::WORDS),
                coats: draw.0.random_range(1..=10),
                isolation: draw.yes(),
                isolation_reason: draw.maybe(Self::text),
                strokes: draw.word(Strokes::WORDS),
                edge_cm: draw.0.random_range(0.0..10.0),
            }),
            inspected_at: self.maybe(Self::moment),
            // In order of time, as a log is.
            anyway: self
                .maybe(|draw| SealAnyway {
                    at: draw.moment(),
                    step: draw.text(),
                    reason: draw.text(),
                    against: vec![draw.text(), draw.text()],
                })
                .into_iter()
                .collect(),
            troubles: self
                .maybe(|draw| TroubleFound {
                    at: draw.moment(),
                    step: draw.text(),
                    trouble: draw.word(SealTrouble::WORDS),
                })
                .into_iter()
                .collect(),
        }
    }

    /// Of every sort, one after the other.
    fn happening(&mut self, n: usize, step: &str, materials: &[Material]) -> Happening {
        let swatches = |draw: &mut Self| (Swatch(draw.0.random()), Swatch(draw.0.random()));
        let what = match n {
            0 => What::Noted,
            1 => What::Misted,
            2 => What::WipedOff { was_um: self.number(WetFilm::RANGE) },
            3 => What::Sanded {
                dry_um: self.maybe(|draw| draw.number(Drawdown::DRY)),
                was_um: self.number(WetFilm::RANGE),
            },
            4 => What::Trouble(self.word(PaintTrouble::WORDS)),
            _ => What::Swatch(SwatchSeen {
                mix: Mix::one(materials[0].id.as_str()),
                wet_film_um: self.number(WetFilm::RANGE),
                predicted: swatches(self),
                seen: swatches(self),
            }),
        };
        Happening {
            at: self.moment(),
            step: self.maybe(|_| step.to_owned()),
            material: self.maybe(|_| materials[0].id.clone()),
            place: self.text(),
            words: self.text(),
            what,
        }
    }

    /// A session, a misting and a note about a material.
    fn daybook(&mut self, materials: &[Material]) -> Vec<Happening> {
        let mut about_none = |what: fn(DateTime<Utc>) -> What| {
            let at = self.moment();
            let (words, material) = (self.text(), self.maybe(|_| materials[0].id.clone()));
            Happening { at, step: None, material, place: String::new(), words, what: what(at) }
        };
        let mut entries = vec![
            about_none(|at| What::Session { until: at + chrono::TimeDelta::minutes(90) }),
            about_none(|_| What::Misted),
            about_none(|_| What::Noted),
        ];
        entries.sort_by_key(|h| h.at);
        entries
    }

    fn picture(&mut self, id: &str, shelf: (&[Material], &[Tub])) -> Picture {
        let count = self.0.random_range(1..6);
        let mut steps: Vec<Step> = (0..count).map(|n| self.step(format!("s{n}"), shelf)).collect();
        // The first steps are done, each after the one before; some of the others say what they stand on.
        let done = self.0.random_range(0..=count);
        let mut moments: Vec<DateTime<Utc>> = (0..done).map(|_| self.moment()).collect();
        moments.sort();
        for (step, at) in steps.iter_mut().zip(moments) {
            step.laid_at = Some(at);
        }
        for (n, step) in steps.iter_mut().enumerate().skip(done) {
            step.after = self.maybe(|draw| match n {
                0 => vec![],
                n => vec![format!("s{}", draw.0.random_range(0..n))],
            });
        }
        // Most of them lie where they say nothing: they are kept all the same.
        let touch = |draw: &mut Self| TouchTest {
            at: draw.moment(),
            step: steps[draw.0.random_range(0..steps.len())].id.clone(),
            felt: draw.word(Touch::WORDS),
        };
        let mut happened: Vec<Happening> =
            (0..6).map(|n| self.happening(n, &steps[0].id, shelf.0)).collect();
        happened.sort_by_key(|h| h.at);
        let mut tests = vec![touch(self), touch(self)];
        tests.sort();
        Picture {
            tests,
            happened,
            id: id.into(),
            title: self.text(),
            width_cm: self.number(Side::RANGE),
            height_cm: self.number(Side::RANGE),
            weight: self.number(Weight::RANGE),
            due: self.maybe(Self::day),
            ready_by: self.one_of(&[ReadyBy::Wrapped, ReadyBy::Sealed]),
            paint_over_seal: self.0.random(),
            ground_colour: Swatch(self.0.random()),
            ground: Ground {
                absorbs_um: self.number(Absorbency::RANGE),
                delay_s: self.number(GroundDelay::RANGE),
                back: self.share(),
            },
            steps,
            thinning: self.maybe(|draw| ThinningChoice {
                school: draw.one_of(&[Thinning::MediumOnly, Thinning::WaterAllowed]),
                reason: draw.text(),
            }),
            set_aside: self
                .maybe(|draw| SetAside {
                    rule: draw.text(),
                    step: draw.text(),
                    reason: draw.text(),
                    at: draw.moment(),
                })
                .into_iter()
                .collect(),
            seal: self.seal(),
        }
    }

    fn hours(&mut self) -> StudioHours {
        let time = |h, m| NaiveTime::from_hms_opt(h, m, 0).unwrap();
        let weekly = [Weekday::Mon, Weekday::Sat].map(|day| OpenHours {
            day,
            from: time(self.0.random_range(0..12), self.0.random_range(0..60)),
            to: time(self.0.random_range(12..24), self.0.random_range(0..60)),
        });
        let from = self.day();
        let closed = Closed {
            from,
            to: (from + chrono::Days::new(self.0.random_range(0..30))).min(LAST_DAY),
        };
        let zone =
            self.one_of(&[chrono_tz::Europe::Oslo, chrono_tz::Asia::Kathmandu, chrono_tz::UTC]);
        StudioHours::try_new(zone, weekly.to_vec(), vec![closed]).unwrap()
    }

    fn studio(&mut self) -> Studio {
        let mut materials: Vec<Material> =
            ["white", "Weiß", "medium"].iter().map(|id| self.material(id)).collect();
        if materials[..2].iter().all(|m| m.drawdown.is_some()) {
            let white_parts = self.number(Tint::PARTS);
            let tint = Tint { colour: Swatch([20, 18, 22]), white_parts, white: "white".into() };
            materials[1].tint = Some(tint);
        }
        let tubs = vec![self.tub("tub", &materials)];
        let shelf = (materials.as_slice(), tubs.as_slice());
        let way = OwnWay {
            id: "way".into(),
            name: self.text(),
            why: self.text(),
            steps: vec![self.step("a".into(), shelf), self.step("b".into(), shelf)],
        };
        let pictures: Vec<Picture> = ["p", "P"].iter().map(|id| self.picture(id, shelf)).collect();
        let happened = self.daybook(&materials);
        let readings = (0..self.0.random_range(0..5))
            .map(|_| (seconds(self.moment()), self.air(), self.word(Origin::WORDS)))
            .collect();
        let mut studio = Studio {
            name: self.text(),
            hours: self.hours(),
            flat_places: self.0.random_range(0..=1000),
            setup_min: self.number(Minutes::RANGE),
            missed_sessions: self.number(Missed::RANGE),
            daylight: self.maybe(|draw| {
                let (latitude, longitude) =
                    (draw.0.random_range(-90.0..=90.0), draw.0.random_range(-180.0..=180.0));
                daylight::Place::try_new(latitude, longitude).unwrap()
            }),
            schools: Schools {
                thinning: self.one_of(&[Thinning::MediumOnly, Thinning::WaterAllowed]),
                waiting: self.one_of(&[Waiting::Brisk, Waiting::Standard, Waiting::Patient]),
                fresh_eyes: self.yes(),
                isolation_coat: self.yes(),
            },
            sure: Sure::try_new(self.number(Sure::RANGE)).unwrap(),
            habit: Habit::BOOK,
            air: AirSeries::of(self.air(), readings),
            room: RoomAhead {
                follows: Room {
                    held_c: self.maybe(|draw| draw.number(Celsius::RANGE)),
                    warmer_k: self.number(Warmth::RANGE),
                    lag_h: self.number(LagHours::RANGE),
                    changes_per_h: self.number(AirChanges::RANGE),
                    moisture_g_m3_h: self.number(Moisture::RANGE),
                },
                source: self.word(AirSource::WORDS),
                taken_at: self.maybe(Self::moment),
            },
            order: vec![OrderEntry { picture: "P".into(), step: "s0".into() }],
            ways: vec![way],
            materials,
            tubs,
            pictures,
            happened,
        };
        studio.learn();
        studio
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    proptest! {
        #[test]
        fn a_full_studio_is_one_that_every_door_takes(studio in full_studio()) {
            prop_assert_eq!(studio.check(), Ok(()));
        }
    }
}
