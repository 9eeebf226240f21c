//! A change that could be made to make a date, with what is risked.

use crate::air::RoomChange;
use crate::studio::Studio;
use std::sync::Arc;

/// What is changed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DateWayKind {
    /// No retarder in the coats still to come.
    NoRetarder,
    /// Half the retarder.
    LessRetarder,
    /// Ordinary paint of the same pigment for slow-drying paint.
    OrdinaryPaint,
    /// Thinner coats.
    ThinnerCoats,
    /// One glaze fewer.
    OneGlazeFewer,
    /// A warmer room.
    WarmerRoom,
    /// A drier room.
    DrierRoom,
    /// A fan over the work.
    Fan,
    /// An extra session outside the hours.
    ExtraSession,
    /// A shorter wait before varnish.
    ShorterWait,
    /// One varnish coat instead of several.
    OneVarnishCoat,
    /// No isolation coat below the varnish.
    NoIsolationCoat,
    /// Varnished after it was handed over.
    VarnishLater,
    /// Handed over with its last coat on, before it is safe to wrap.
    Unwrapped,
    /// The room brought into the range of varnish.
    FitAir,
    /// This picture before the others.
    First,
}

impl DateWayKind {
    /// Harm: 1 little, 5 much; decides among ways that gain alike. [practice]
    pub const fn harm(self) -> u8 {
        match self {
            Self::WarmerRoom | Self::DrierRoom | Self::Fan | Self::FitAir | Self::First => 1,
            Self::ExtraSession | Self::LessRetarder => 2,
            Self::NoRetarder | Self::OrdinaryPaint | Self::ThinnerCoats | Self::Unwrapped => 3,
            Self::OneGlazeFewer | Self::OneVarnishCoat | Self::NoIsolationCoat => 4,
            Self::ShorterWait | Self::VarnishLater => 5,
        }
    }

    /// What is risked or lost, in a sentence.
    pub const fn risk(self) -> &'static str {
        match self {
            Self::NoRetarder => {
                "The coats set sooner, with less time to blend: mist the palette, not the picture."
            }
            Self::LessRetarder => "The coats set somewhat sooner.",
            Self::OrdinaryPaint => "It sets in minutes, not hours: no long blending in that coat.",
            Self::ThinnerCoats => "Each coat covers and colours a quarter less.",
            Self::OneGlazeFewer => "The colour stays less deep than planned.",
            Self::WarmerRoom => {
                "Palette and wet edge dry faster too: mist the palette, not the picture."
            }
            Self::DrierRoom => "The palette dries faster too; back to the usual air for varnish.",
            Self::Fan => "It moves dust: never over wet varnish, and not straight at the face.",
            Self::ExtraSession => "An evening or a day off of yours.",
            Self::ShorterWait => {
                "Varnish over paint that still gives off water or glycol can cloud or stay soft. \
                 The computed cure still counts."
            }
            Self::OneVarnishCoat => "Thinner protection, and missed places show.",
            Self::NoIsolationCoat => {
                "A removable varnish can then not be taken off without touching the paint."
            }
            Self::VarnishLater => {
                "It is handed over without varnish: agree on a day to varnish it, and until then nothing \
                 protects it from dust, light and fingers."
            }
            Self::Unwrapped => {
                "It goes out open, upright and untouched: nothing may lie against its face, and whoever takes it \
                 must know from when it may be wrapped."
            }
            Self::FitAir => {
                "A machine to run and to watch; measure beside the picture, not at the machine."
            }
            Self::First => "Other pictures get your hours later.",
        }
    }
}

/// What a change makes of a studio; nothing where there is nothing to change.
type Make<'a> = Arc<dyn Fn(&Studio) -> Option<Studio> + Send + Sync + 'a>;

/// One thing that could be changed.
#[derive(Clone)]
struct Part<'a> {
    kind: DateWayKind,
    what: String,
    /// What is done to the room, when that is it.
    room: Option<RoomChange>,
    make: Make<'a>,
}

/// A change that could be made: one thing, or several together.
#[derive(Clone)]
pub(super) struct Change<'a>(Vec<Part<'a>>);

impl<'a> Change<'a> {
    pub fn new(
        kind: DateWayKind,
        what: impl Into<String>,
        make: impl Fn(&Studio) -> Option<Studio> + Send + Sync + 'a,
    ) -> Self {
        Self(vec![Part { kind, what: what.into(), room: None, make: Arc::new(make) }])
    }

    /// The same of the room from `from` [s] on.
    pub fn of_room(kind: DateWayKind, what: String, from: f64, room: RoomChange) -> Self {
        let make = move |studio: &Studio| {
            Some(Studio { air: studio.air.changed_from(from, &room), ..studio.clone() })
        };
        Self(vec![Part { kind, what, room: Some(room), make: Arc::new(make) }])
    }

    /// What is changed.
    pub fn kinds(&self) -> Vec<DateWayKind> {
        self.0.iter().map(|part| part.kind).collect()
    }

    /// What is done to the room.
    pub fn room(&self) -> Option<RoomChange> {
        self.0.iter().find_map(|part| part.room)
    }

    /// Both together; nothing when one undoes the other.
    pub fn with(&self, other: &Self) -> Option<Self> {
        use DateWayKind::{
            LessRetarder, NoIsolationCoat, NoRetarder, OneVarnishCoat, VarnishLater,
        };
        let (mine, theirs) = (self.kinds(), other.kinds());
        let both = |a: DateWayKind, b: &[DateWayKind]| {
            let any = |of: &[DateWayKind]| of.iter().any(|k| b.contains(k));
            (mine.contains(&a) && any(&theirs)) || (theirs.contains(&a) && any(&mine))
        };
        let undone = both(NoRetarder, &[LessRetarder])
            || both(VarnishLater, &[OneVarnishCoat, NoIsolationCoat, DateWayKind::FitAir])
            || (self.room().is_some() && other.room().is_some())
            || theirs.iter().any(|k| mine.contains(k));
        (!undone).then(|| Self(self.0.iter().chain(&other.0).cloned().collect()))
    }

    /// The same without what is of `kind`.
    pub fn without(&self, kind: DateWayKind) -> Self {
        Self(self.0.iter().filter(|part| part.kind != kind).cloned().collect())
    }

    /// The studio with it; nothing when a part of it has nothing to change.
    pub fn made(&self, studio: &Studio) -> Option<Studio> {
        self.0.iter().try_fold(studio.clone(), |made, part| (part.make)(&made))
    }

    /// What is risked, a sentence for each.
    pub fn risk(&self) -> String {
        let said: Vec<&str> = self.0.iter().map(|part| part.kind.risk()).collect();
        said.join(" ")
    }

    /// The greatest harm, and one for each further change.
    pub fn harm(&self) -> u8 {
        let most = self.0.iter().map(|part| part.kind.harm()).max().unwrap_or(0);
        most + u8::try_from(self.0.len()).unwrap_or(u8::MAX).saturating_sub(1)
    }

    /// The change in words.
    pub fn said(&self) -> String {
        let small = |(n, part): (usize, &Part<'_>)| {
            let mut letters = part.what.chars();
            match letters.next() {
                Some(first) if n > 0 => first.to_lowercase().chain(letters).collect(),
                _ => part.what.clone(),
            }
        };
        let parts: Vec<String> = self.0.iter().enumerate().map(small).collect();
        match parts.split_last() {
            Some((last, first)) if !first.is_empty() => format!("{} and {last}", first.join(", ")),
            _ => parts.concat(),
        }
    }
}
