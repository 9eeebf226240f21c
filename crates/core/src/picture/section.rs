//! Sections of a picture: what lies beside what.
//!
//! A coat lies all over, or on the section that its step names. What lies on one section is not under
//! what lies on another: each is a stack of its own, beside the one of all that is not named. A small
//! coat that names no section may lie anywhere, and counts as lying below everything that comes after:
//! nothing is drier than where it is.

use super::model::{Picture, Step};
use super::place::{PlaceId, REST, meet};

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
        assert_eq!(
            [REST, 2, 3].map(|at| picture.section_at(at)),
            [None, Some("left"), Some("right")]
        );
        let before: Vec<_> = (0..5).map(|i| picture.coats_before(i)).collect();
        assert_eq!(before, [vec![], vec![0], vec![0], vec![1], vec![3, 2, 0]]);
    }
}
