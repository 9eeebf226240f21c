//! Kinds of step: what happens, what it needs below it, what it usually takes.

use crate::film::FilmState;
use serde::{Deserialize, Serialize};

/// What a step needs of the film below it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Need {
    /// Nothing: it may follow at once.
    Nothing,
    /// A fingertip takes nothing.
    TouchDry,
    /// Safe to paint over.
    Paintable,
    /// Dry right through.
    DryThrough,
    /// Ready to seal.
    ReadyToSeal,
    /// Ready to wrap.
    ReadyToWrap,
}

impl Need {
    /// Every need, the least first.
    pub const ALL: [Need; 6] = [
        Self::Nothing,
        Self::TouchDry,
        Self::Paintable,
        Self::DryThrough,
        Self::ReadyToSeal,
        Self::ReadyToWrap,
    ];

    /// What the film below must be, in words.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Nothing => "there",
            Self::TouchDry => "touch-dry",
            Self::Paintable => "paintable",
            Self::DryThrough => "dry through",
            Self::ReadyToSeal => "ready to seal",
            Self::ReadyToWrap => "ready to wrap",
        }
    }

    /// What is asked of what lies below, in words.
    pub const fn asks(self) -> &'static str {
        match self {
            Self::Nothing => "nothing: it may follow at once",
            Self::TouchDry => "touch-dry below",
            Self::Paintable => "paintable below",
            Self::DryThrough => "dry through below",
            Self::ReadyToSeal => "ready to seal",
            Self::ReadyToWrap => "ready to wrap",
        }
    }

    /// The state of the film that is waited for.
    pub const fn state(self) -> Option<FilmState> {
        match self {
            Self::Nothing => None,
            Self::TouchDry => Some(FilmState::TouchDry),
            Self::Paintable => Some(FilmState::Paintable),
            Self::DryThrough => Some(FilmState::DryThrough),
            Self::ReadyToSeal => Some(FilmState::ReadyToSeal),
            Self::ReadyToWrap => Some(FilmState::ReadyToWrap),
        }
    }
}

/// One row of the table of kinds.
struct Row {
    word: &'static str,
    does: &'static str,
    needs: Need,
    /// Usual wet film [um], `None` for a step without film.
    film_um: Option<f64>,
    /// Hands-on minutes on a picture of [`SMALL_CM`] [min].
    hands_on_min: f64,
    /// Those of them that a picture of any size takes [min].
    set_out_min: f64,
    splittable: bool,
}

macro_rules! kinds {
    ($($kind:ident, $word:literal, $needs:ident, $film:expr, $minutes:literal, $set_out:literal, $split:literal, $does:literal;)*) => {
        /// What a step does.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
        #[serde(rename_all = "snake_case")]
        pub enum StepKind {
            $(#[doc = $does] $kind,)*
        }

        impl StepKind {
            /// Every kind, in the usual order of work.
            pub const ALL: &'static [StepKind] = &[$(Self::$kind,)*];

            const fn row(self) -> Row {
                match self {
                    $(Self::$kind => Row {
                        word: $word, does: $does, needs: Need::$needs,
                        film_um: $film, hands_on_min: $minutes, set_out_min: $set_out, splittable: $split,
                    },)*
                }
            }
        }
    };
}

/// A small picture: width and height [cm]. [practice]
pub const SMALL_CM: (f64, f64) = (30.0, 40.0);
/// Minutes are said in steps of so many [min]. [practice]
const STEP_MIN: f64 = 5.0;

// What each kind needs and usually takes: order of work and wet films; minutes on a small picture, and those of
// them that go into mixing, trying and cleaning whatever the size. The painter's own replace them. [practice]
#[rustfmt::skip]
kinds! [
    Ground, "ground", Paintable, Some(120.0), 20.0, 14.0, false, "primer on canvas or panel";
    Tone, "tone", Paintable, Some(45.0), 20.0, 15.0, false, "one thin even coat of a mid earth colour, so that values can be judged";
    Drawing, "drawing", Paintable, None, 60.0, 15.0, true, "freehand, transfer sheet or projector";
    SealDrawing, "seal drawing", Paintable, Some(35.0), 15.0, 12.0, false, "a thin clear coat, so that the drawing does not smear or lift";
    Underpainting, "underpainting", Paintable, Some(90.0), 90.0, 30.0, true, "blocks in values";
    Pass, "pass", Paintable, Some(80.0), 90.0, 30.0, true, "a further coat of paint";
    Glaze, "glaze", Paintable, Some(40.0), 40.0, 25.0, false, "a very light transparent coat, mostly medium";
    Scumble, "scumble", Paintable, Some(30.0), 30.0, 15.0, false, "a broken opaque coat that lets the layer below show";
    Sponge, "sponge or splatter", Paintable, Some(20.0), 20.0, 14.0, false, "a very thin broken coat";
    Airbrush, "airbrush", Paintable, Some(20.0), 30.0, 20.0, false, "a very thin sprayed coat";
    LockingCoat, "locking coat", Paintable, Some(30.0), 15.0, 12.0, false, "a thin coat of medium that fixes fragile coats";
    Sanding, "sanding back", DryThrough, None, 30.0, 10.0, true, "flattens or distresses, lifts high spots";
    Correction, "correction", Paintable, Some(100.0), 30.0, 15.0, true, "repaints an area with primer";
    Detail, "details", Paintable, Some(60.0), 60.0, 20.0, true, "details and highlights: the last and lightest paint, more opaque";
    Signature, "signature", Paintable, Some(15.0), 10.0, 10.0, false, "fluid paint, practised first";
    Photograph, "photograph", Paintable, None, 20.0, 20.0, false, "before any gloss goes on";
    Embellishment, "embellishment", Paintable, Some(45.0), 30.0, 10.0, true, "metallic or iridescent details";
    IsolationCoat, "isolation coat", ReadyToSeal, Some(70.0), 25.0, 18.0, false, "a clear permanent coat between paint and varnish";
    Varnish, "varnish", ReadyToSeal, Some(45.0), 25.0, 18.0, false, "thin, flat and free of dust";
    Pack, "wrapping", ReadyToWrap, None, 20.0, 12.0, false, "nothing touches the face before";
];

impl StepKind {
    /// The trade's word.
    pub const fn word(self) -> &'static str {
        self.row().word
    }

    /// What happens, in half a sentence.
    pub const fn does(self) -> &'static str {
        self.row().does
    }

    /// What it needs of the film below.
    pub const fn needs(self) -> Need {
        self.row().needs
    }

    /// The usual wet film [um]; `None` when it leaves none.
    pub const fn usual_film_um(self) -> Option<f64> {
        self.row().film_um
    }

    /// Usual hands-on minutes for a small picture.
    pub const fn usual_minutes(self) -> f64 {
        self.row().hands_on_min
    }

    /// Hands-on minutes of what takes `small_min` on [`SMALL_CM`], on a picture of so many cm: setting out stays,
    /// the rest grows with the area.
    pub fn minutes_on(self, small_min: f64, (width_cm, height_cm): (f64, f64)) -> f64 {
        let times = width_cm * height_cm / (SMALL_CM.0 * SMALL_CM.1);
        let set_out = self.row().set_out_min.min(small_min);
        let minutes = set_out + (small_min - set_out) * times;
        (minutes / STEP_MIN).round().max(1.0) * STEP_MIN
    }

    /// Whether it may be split over sessions when nothing else is said.
    pub const fn usually_splittable(self) -> bool {
        self.row().splittable
    }

    /// Whether it can leave a film.
    pub const fn leaves_film(self) -> bool {
        self.row().film_um.is_some()
    }

    /// Whether a step of this kind without mix and thickness is refused. A correction may be a
    /// wipe with a damp brush, which leaves nothing.
    pub const fn must_leave_film(self) -> bool {
        self.leaves_film() && !matches!(self, Self::Correction)
    }

    /// Whether it may be done on a section of the picture: paint may, what seals lies all over.
    pub fn has_section(self) -> bool {
        self.leaves_film() && !self.seals()
    }

    /// Whether it seals the picture.
    pub fn seals(self) -> bool {
        matches!(self, Self::IsolationCoat | Self::Varnish)
    }

    /// Whether it is one even coat, laid with a wet edge: what sets before it is done shows.
    pub fn keeps_wet_edge(self) -> bool {
        use StepKind::{Glaze, Ground, IsolationCoat, LockingCoat, SealDrawing, Tone, Varnish};
        matches!(self, Ground | Tone | SealDrawing | Glaze | LockingCoat | IsolationCoat | Varnish)
    }

    /// Its turn in the order of work: kinds of one phase come in any order.
    pub const fn phase(self) -> u8 {
        use StepKind::{
            Airbrush, Correction, Detail, Drawing, Embellishment, Glaze, Ground, IsolationCoat,
            LockingCoat, Pack, Pass, Photograph, Sanding, Scumble, SealDrawing, Signature, Sponge,
            Tone, Underpainting, Varnish,
        };
        match self {
            Ground => 0,
            Tone => 1,
            Drawing => 2,
            SealDrawing => 3,
            Underpainting | Pass | Glaze | Scumble | Sponge | Airbrush | LockingCoat | Sanding
            | Correction => 4,
            Detail => 5,
            Signature => 6,
            Photograph => 7,
            Embellishment => 8,
            IsolationCoat => 9,
            Varnish => 10,
            Pack => 11,
        }
    }

    /// The usual share of the picture's area. [practice] the painter's own replaces it
    pub const fn usual_share(self) -> f64 {
        match self {
            Self::Signature => 0.01,
            Self::Detail | Self::Embellishment | Self::Correction => 0.1,
            Self::Scumble | Self::Sponge | Self::Airbrush => 0.5,
            _ => 1.0,
        }
    }

    /// Whether it is a thin transparent coat.
    pub fn is_glaze(self) -> bool {
        self == Self::Glaze
    }

    /// Whether it is a coat of colour, by which what is blocked in is judged.
    pub fn is_colour(self) -> bool {
        use StepKind::{Airbrush, Detail, Embellishment, Glaze, Scumble, Sponge};
        self.blocks_in()
            || matches!(self, Glaze | Scumble | Sponge | Airbrush | Detail | Embellishment)
    }

    /// Whether colour is judged while it is done, so that a painter may want daylight. [practice]
    pub fn needs_daylight(self) -> bool {
        use StepKind::{Airbrush, Correction, Detail, Embellishment, Glaze, Pass, Scumble, Sponge};
        matches!(
            self,
            Glaze | Pass | Scumble | Sponge | Airbrush | Correction | Detail | Embellishment
        )
    }

    /// Whether it blocks in: what the next colour looks at after a night.
    pub fn blocks_in(self) -> bool {
        matches!(self, Self::Underpainting | Self::Pass)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn minutes_grow_with_the_area_and_setting_out_does_not() {
        let large = (76.0, 102.0);
        for kind in StepKind::ALL {
            let small = kind.usual_minutes();
            assert_eq!(kind.minutes_on(small, SMALL_CM), small, "{kind:?}");
            assert!(kind.minutes_on(small, large) <= small * 6.5, "{kind:?}");
            assert!(kind.minutes_on(small, (5.0, 5.0)) >= 5.0, "{kind:?}");
        }
        // A wash over a large canvas takes under an hour, varnish on it about one; a pass takes a day. [practice]
        let on = |kind: StepKind| kind.minutes_on(kind.usual_minutes(), large);
        let minutes =
            [StepKind::Tone, StepKind::Varnish, StepKind::Pass, StepKind::Signature].map(on);
        assert_eq!(minutes, [45.0, 65.0, 420.0, 10.0]);
    }

    #[test]
    fn films_are_as_thick_as_practice_says() {
        // docs/trade.md, wet films [um]: sponge, splatter and airbrush 10-30, glaze 30-60, thin brush coat
        // 40-80, ordinary 80-150; what leaves none: drawing, sanding, photograph, wrapping. [practice]
        use StepKind::{Airbrush, Drawing, Glaze, Pack, Pass, Photograph, Sanding, Sponge};
        for (kind, range) in [
            (Sponge, 10.0..=30.0),
            (Airbrush, 10.0..=30.0),
            (Glaze, 30.0..=60.0),
            (Pass, 40.0..=150.0),
        ] {
            assert!(range.contains(&kind.usual_film_um().unwrap()), "{}", kind.word());
        }
        let bare: Vec<StepKind> =
            StepKind::ALL.iter().copied().filter(|k| !k.leaves_film()).collect();
        assert_eq!(bare, [Drawing, Sanding, Photograph, Pack]);
    }

    #[test]
    fn only_what_seals_sands_or_wraps_waits_for_more_than_a_paintable_film() {
        // docs/trade.md: never seal before the film is cured, sand only what is dry right through, wrap
        // last. [practice]
        let more: Vec<(StepKind, Need)> = StepKind::ALL
            .iter()
            .filter(|k| k.needs() > Need::Paintable)
            .map(|k| (*k, k.needs()))
            .collect();
        assert_eq!(
            more,
            [
                (StepKind::Sanding, Need::DryThrough),
                (StepKind::IsolationCoat, Need::ReadyToSeal),
                (StepKind::Varnish, Need::ReadyToSeal),
                (StepKind::Pack, Need::ReadyToWrap),
            ]
        );
    }
}
