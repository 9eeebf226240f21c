//! Sections of a picture: what lies beside what.
//!
//! A coat lies all over, or on the section that its step names. What lies on one section is not under
//! what lies on another: each is a stack of its own, beside the one of all that is not named. A small
//! coat that names no section may lie anywhere, and counts as lying below everything that comes after:
//! nothing is drier than where it is.

use super::coats::LaidCoat;
use super::model::{Picture, Step};

/// A place of a picture: [`REST`], or that of a section (one more than the first step that names it).
pub type PlaceId = usize;

/// What is in no section that is named.
pub const REST: PlaceId = 0;

/// Whether two coats at these places meet: one lies all over, or both lie on the same section.
pub const fn meet(a: PlaceId, b: PlaceId) -> bool {
    a == REST || b == REST || a == b
}

impl Picture {
    /// Where step `i` is done: on a section, or all over, as what seals and what leaves no film always is.
    pub fn lies_at(&self, i: usize) -> PlaceId {
        let step = &self.steps[i];
        let Some(name) = step.section.as_deref().filter(|_| step.kind.has_section()) else {
            return REST;
        };
        let first = self.steps.iter().position(|s| s.section.as_deref() == Some(name));
        first.map_or(REST, |first| first + 1)
    }

    /// What the painter calls `place`; `None` for the rest.
    pub fn section_at(&self, place: PlaceId) -> Option<&str> {
        self.steps.get(place.checked_sub(1)?)?.section.as_deref()
    }

    /// The sections that its steps name, in the order of the row.
    pub fn sections(&self) -> Vec<&str> {
        let places = (0..self.steps.len()).map(|i| self.lies_at(i));
        let mut known: Vec<PlaceId> = places.filter(|place| *place != REST).collect();
        known.sort_unstable();
        known.dedup();
        known.into_iter().filter_map(|place| self.section_at(place)).collect()
    }

    /// The steps of the row before `i` whose coats step `i` is done on: at each place the last one.
    pub fn coats_before(&self, i: usize) -> Vec<usize> {
        self.met_before(i, |step| step.kind.leaves_film() && !step.mix.is_empty())
    }

    /// The steps of the row before `i` that it meets, of those that count: at each place the last one.
    /// In a picture without sections that is the step before.
    pub(super) fn met_before(&self, i: usize, counts: impl Fn(&Step) -> bool) -> Vec<usize> {
        let place = self.lies_at(i);
        let mut found: Vec<(PlaceId, usize)> = Vec::new();
        for n in (0..i).rev().filter(|n| counts(&self.steps[*n])) {
            let at = self.lies_at(n);
            if meet(place, at) && !found.iter().any(|(known, _)| *known == at) {
                found.push((at, n));
                if at == REST || place != REST {
                    break;
                }
            }
        }
        found.into_iter().map(|(_, n)| n).collect()
    }
}

/// The places where `coats` lie, each with its own, in their order; the rest first, where it has any.
pub fn stacks(coats: &[LaidCoat]) -> Vec<(PlaceId, Vec<LaidCoat>)> {
    let mut places: Vec<PlaceId> = coats.iter().map(|c| c.place).collect();
    places.push(REST);
    places.sort_unstable();
    places.dedup();
    let stack = |place: PlaceId| {
        let there = coats.iter().filter(|c| c.place == REST || c.place == place);
        (place, there.copied().collect::<Vec<_>>())
    };
    places.into_iter().map(stack).filter(|(_, coats)| !coats.is_empty()).collect()
}

/// Those of `coats` (by their place in the row) that are the last one somewhere.
pub fn on_top(coats: &[LaidCoat]) -> Vec<usize> {
    let tops = stacks(coats).into_iter().filter_map(|(_, there)| Some(there.last()?.step));
    let mut found: Vec<usize> =
        tops.filter_map(|step| coats.iter().position(|c| c.step == step)).collect();
    found.sort_unstable();
    found.dedup();
    found
}

#[cfg(test)]
mod tests {
    use super::super::kind::StepKind::{Glaze, Pass, Varnish};
    use super::*;

    #[test]
    fn a_section_meets_itself_and_what_lies_all_over() {
        let step = |id: &str, kind, section: Option<&str>| Step {
            section: section.map(str::to_owned),
            mix: crate::mix::Mix::one("fluid-pb29"),
            ..Step::usual(id, kind)
        };
        let steps = vec![
            step("a", Pass, None),
            step("b", Glaze, Some("left")),
            step("c", Glaze, Some("right")),
            step("d", Glaze, Some("left")),
            step("e", Varnish, Some("left")),
        ];
        let picture = Picture::new("p", (30.0, 40.0), steps);
        let places: Vec<PlaceId> = (0..5).map(|i| picture.lies_at(i)).collect();
        assert_eq!(places, [REST, 2, 3, 2, REST], "a varnish lies all over whatever it says");
        assert_eq!(picture.sections(), ["left", "right"]);
        let before: Vec<_> = (0..5).map(|i| picture.coats_before(i)).collect();
        assert_eq!(before, [vec![], vec![0], vec![0], vec![1], vec![3, 2, 0]]);
    }
}
