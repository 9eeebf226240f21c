//! Putting steps in, taking them out, moving them: what stands on what stays whole.

use super::kind::StepKind;
use super::model::{Picture, Step};
use crate::quantity::Fault;
use std::collections::HashSet;

impl Picture {
    /// The place of the step called `id`.
    pub fn place_of(&self, id: &str) -> Option<usize> {
        self.steps.iter().position(|s| s.id == id)
    }

    /// The place of the step called `id`.
    ///
    /// # Errors
    /// [`Fault`] at `step` when there is none.
    pub fn step_called(&self, id: &str) -> Result<usize, Fault> {
        let none = || Fault::new("step", format!("the picture has no step \"{id}\""));
        self.place_of(id).ok_or_else(none)
    }

    /// Names for new steps that no step of the picture has: `stem1`, `stem2` and on.
    pub fn free_names(&self, stem: &'static str) -> impl Iterator<Item = String> + use<> {
        let taken: HashSet<String> = self.steps.iter().map(|s| s.id.clone()).collect();
        (1u64..).map(move |n| format!("{stem}{n}")).filter(move |name| !taken.contains(name))
    }

    /// Puts `steps` in at place `at` (at the end, when there is no such place). A step that stood on
    /// the one before it without saying so stands on the last of the new ones then.
    pub fn put(&mut self, at: usize, steps: impl IntoIterator<Item = Step>) {
        let at = at.min(self.steps.len());
        self.steps.splice(at..at, steps);
    }

    /// Where a step of `kind` that is added belongs: after what comes before it in the order of work, and
    /// never before what is done.
    pub fn place_for(&self, kind: StepKind) -> usize {
        let done = self.steps.iter().rposition(|s| s.laid_at.is_some());
        let before = self.steps.iter().rposition(|s| s.kind.phase() <= kind.phase());
        done.max(before).map_or(0, |last| last + 1)
    }

    /// Takes step `i` out; what stood on it stands on what it stood on itself. Nothing happens when
    /// there is no such step.
    pub fn take_out(&mut self, i: usize) -> Option<Step> {
        if i >= self.steps.len() {
            return None;
        }
        let below: Vec<String> =
            self.linked(i).into_iter().map(|b| self.steps[b].id.clone()).collect();
        // A neighbour that says nothing stands on the step before: that one would be another one.
        let next = i + 1;
        let said_nothing = self.steps.get(next).is_some_and(|s| s.after.is_none());
        let stays = self.steps[i].after.is_none();
        let gone = self.steps.remove(i);
        for (n, step) in self.steps.iter_mut().enumerate() {
            if n == i && said_nothing && !stays {
                step.after = Some(below.clone());
                continue;
            }
            let Some(after) = &mut step.after else { continue };
            if !after.contains(&gone.id) {
                continue;
            }
            after.retain(|id| *id != gone.id);
            for id in &below {
                if !after.contains(id) {
                    after.push(id.clone());
                }
            }
        }
        Some(gone)
    }

    /// Puts `steps` in the place `at` of those for which `gone` holds. What stood on one of them stands
    /// on the last of the new ones; when there are none, on what that one stood on.
    pub fn replace(&mut self, gone: impl Fn(&Step) -> bool, (at, steps): (usize, Vec<Step>)) {
        let named: Vec<String> =
            self.steps.iter().filter(|s| gone(s)).map(|s| s.id.clone()).collect();
        let last = steps.last().map(|s| s.id.clone());
        self.put(at, steps);
        for step in &mut self.steps {
            let (Some(after), Some(last)) = (&mut step.after, &last) else { continue };
            if !named.contains(&step.id) && after.iter().any(|id| named.contains(id)) {
                after.retain(|id| !named.contains(id));
                after.push(last.clone());
            }
        }
        for id in named {
            if let Some(i) = self.place_of(&id) {
                self.take_out(i);
            }
        }
    }

    /// Repeats step `i` until there are `coats` of it, each standing on the one before; what stood on the
    /// step stands on the last of them. The copies are still to do.
    pub fn repeat(&mut self, i: usize, coats: usize) {
        let Some(step) = self.steps.get(i).cloned() else { return };
        let names: Vec<String> = self.free_names("s").take(coats.saturating_sub(1)).collect();
        let Some(last) = names.last().cloned() else { return };
        for other in &mut self.steps {
            for below in other.after.iter_mut().flatten().filter(|id| **id == step.id) {
                below.clone_from(&last);
            }
        }
        let copies = names.into_iter().scan(step.id.clone(), |below, id| {
            let after = step.after.is_some().then(|| vec![below.clone()]);
            below.clone_from(&id);
            let (laid_at, pinned_at, cup_g, slowed) = (None, None, None, None);
            Some(Step { id, after, laid_at, pinned_at, cup_g, slowed, ..step.clone() })
        });
        self.put(i + 1, copies.collect::<Vec<_>>());
    }

    /// Moves step `from` to place `to`. Steps that say what they stand on keep it; the others stand
    /// on the step before them, wherever that is. What would make a circle is left to
    /// [`check_chain`](super::check_chain) to name.
    pub fn move_step(&mut self, from: usize, to: usize) {
        if from >= self.steps.len() {
            return;
        }
        let step = self.steps.remove(from);
        let to = to.min(self.steps.len());
        self.steps.insert(to, step);
    }
}

#[cfg(test)]
mod tests {
    use super::super::chain::check_chain;
    use super::*;
    use proptest::prelude::*;

    fn picture(after: &[Option<&[&str]>]) -> Picture {
        let steps = after.iter().enumerate().map(|(n, on)| Step {
            after: on.map(|names| names.iter().map(|s| (*s).to_owned()).collect()),
            ..Step::usual(format!("s{n}"), StepKind::Pass)
        });
        Picture::new("p", (30.0, 40.0), steps.collect())
    }

    fn said(picture: &Picture) -> Vec<Option<Vec<&str>>> {
        let names = |on: &Vec<String>| {
            on.iter()
                .map(|s| match s.as_str() {
                    "s0" => "s0",
                    "s1" => "s1",
                    "s2" => "s2",
                    _ => "?",
                })
                .collect()
        };
        picture.steps.iter().map(|s| s.after.as_ref().map(names)).collect()
    }

    #[test]
    fn a_repeated_step_is_a_row_of_coats_and_what_stood_on_it_stands_on_the_last() {
        let mut made = picture(&[None, Some(&["s0"]), Some(&["s1"]), Some(&["s0", "s1"]), None]);
        for step in &mut made.steps[..2] {
            step.laid_at = Some("2027-01-04T10:00:00Z".parse().unwrap());
        }
        made.repeat(1, 3);
        let rows: Vec<(&str, Option<Vec<&str>>)> = made
            .steps
            .iter()
            .map(|s| (&*s.id, s.after.as_ref().map(|on| on.iter().map(|id| &**id).collect())))
            .collect();
        let on = |names: &[&'static str]| Some(names.to_vec());
        let wanted = [
            ("s0", None),
            ("s1", on(&["s0"])),
            ("s5", on(&["s1"])),
            ("s6", on(&["s5"])),
            ("s2", on(&["s6"])),
            ("s3", on(&["s0", "s6"])),
            ("s4", None),
        ];
        assert_eq!(rows, wanted);
        assert!(made.steps[2..].iter().all(|s| s.laid_at.is_none()));
        assert!(check_chain(&made).is_ok());
        let once = made.clone();
        made.repeat(1, 1);
        assert_eq!(made, once);
    }

    #[test]
    fn an_added_step_lands_where_its_kind_belongs() {
        use StepKind::{
            Detail, Drawing, Glaze, IsolationCoat, Pack, Pass, Photograph, Signature, Tone, Varnish,
        };
        let row =
            [Tone, Drawing, Pass, Glaze, Detail, Signature, Photograph, Varnish, Varnish, Pack];
        let steps = row.iter().enumerate().map(|(n, k)| Step::usual(format!("s{n}"), *k));
        let mut p = Picture::new("p", (30.0, 40.0), steps.collect());
        let places = |p: &Picture| {
            [Tone, Pass, Detail, Signature, IsolationCoat, Varnish, Pack].map(|k| p.place_for(k))
        };
        assert_eq!(places(&p), [1, 4, 5, 6, 7, 9, 10]);
        // Nothing is put in before what is done.
        for step in &mut p.steps[..7] {
            step.laid_at = Some("2027-01-02T10:00:00Z".parse().unwrap());
        }
        assert_eq!(places(&p), [7, 7, 7, 7, 7, 9, 10]);
    }

    #[test]
    fn what_stood_on_a_step_stands_on_what_it_stood_on() {
        let mut p = picture(&[None, None, Some(&["s1"]), Some(&["s0", "s1"])]);
        p.take_out(1);
        assert_eq!(said(&p), [None, Some(vec!["s0"]), Some(vec!["s0"])]);
        // A step that stood on nothing leaves what stood on it on nothing, and not on a neighbour.
        let mut p = picture(&[None, Some(&[]), None, Some(&["s1"])]);
        p.take_out(1);
        assert_eq!(said(&p), [None, Some(vec![]), Some(vec![])]);
        assert_eq!(p.take_out(7), None);
    }

    /// Every step that `i` stands on, directly or not.
    fn all_below(p: &Picture, i: usize) -> HashSet<String> {
        let mut found = HashSet::new();
        let mut left = p.linked(i);
        while let Some(n) = left.pop() {
            if found.insert(p.steps[n].id.clone()) {
                left.extend(p.linked(n));
            }
        }
        found
    }

    proptest! {
        #[test]
        fn taking_a_step_out_changes_nothing_else_about_what_stands_on_what(
            links in prop::collection::vec(prop::option::of(prop::collection::vec(0usize..8, 0..3)), 2..8),
            which in 0usize..8,
        ) {
            let steps: Vec<Step> = links.iter().enumerate().map(|(n, on)| Step {
                // Only earlier steps: no circle.
                after: on.as_ref().map(|on| on.iter().filter(|k| **k < n).map(|k| format!("s{k}")).collect()),
                ..Step::usual(format!("s{n}"), StepKind::Pass)
            }).collect();
            let before = Picture::new("p", (30.0, 40.0), steps);
            let mut after = before.clone();
            let gone = after.take_out(which % before.steps.len()).unwrap();
            prop_assert!(check_chain(&after).is_ok());
            for (n, step) in after.steps.iter().enumerate() {
                let mut wanted = all_below(&before, before.place_of(&step.id).unwrap());
                wanted.remove(&gone.id);
                prop_assert_eq!(all_below(&after, n), wanted, "{}", step.id);
            }
        }
    }
}
