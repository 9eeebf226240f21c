//! What stands on what: the links that the painter made, and those of the trade.

use super::kind::StepKind;
use super::model::Picture;

impl Picture {
    /// Indices of the steps that step `i` is linked to: those its `after` names, or the step before. A step
    /// on a section follows what it lies on, and what is done all over follows every section.
    pub fn linked(&self, i: usize) -> Vec<usize> {
        match &self.steps[i].after {
            Some(names) => names
                .iter()
                .filter_map(|name| self.steps.iter().position(|s| &s.id == name))
                .collect(),
            None => self.met_before(i, |_| true),
        }
    }

    /// Indices of the steps that step `i` stands on, see [`below`](Self::below).
    pub fn stands_on(&self, i: usize) -> Vec<usize> {
        self.below().swap_remove(i)
    }

    /// By step, the steps it stands on: those it is linked to, and whatever the links say
    ///
    /// - a sealing coat on every coat of paint, on every photograph and sealing coat before it in the
    ///   row, and a varnish on every isolation coat;
    /// - wrapping on every coat; of those that come too late it waits for none.
    ///
    /// What stands on the sealing coat itself is left out (paint over it, see
    /// [`over_seal`](Self::over_seal)), and so is what comes too late for it.
    pub fn below(&self) -> Vec<Vec<usize>> {
        let mut below: Vec<Vec<usize>> = (0..self.steps.len()).map(|i| self.linked(i)).collect();
        let seals = (0..self.steps.len()).filter(|i| self.steps[*i].kind.seals());
        let packs = (0..self.steps.len()).filter(|i| self.steps[*i].kind == StepKind::Pack);
        for i in seals.chain(packs) {
            let above = standing_on(&below, i);
            for j in (0..self.steps.len()).filter(|j| self.goes_under(i, *j)) {
                if !above[j] && !below[i].contains(&j) {
                    below[i].push(j);
                }
            }
        }
        below
    }

    /// Every step that step `i` stands on, directly or not, in the order of the row.
    pub fn all_below(&self, i: usize) -> Vec<usize> {
        reached(&self.below(), i)
    }

    /// Whether step `j` belongs below step `i`, which seals or wraps, when no link says otherwise.
    fn goes_under(&self, i: usize, j: usize) -> bool {
        let (step, under) = (&self.steps[i], &self.steps[j]);
        let late = || under.laid_at.is_none() && self.steps.iter().any(|s| s.is_laid_seal());
        if i == j {
            false
        } else if step.kind == StepKind::Pack && under.kind.seals() {
            true
        } else if under.kind.seals() {
            let isolates = under.kind == StepKind::IsolationCoat;
            j < i || (isolates && step.kind == StepKind::Varnish && !late())
        } else if under.kind == StepKind::Photograph && step.kind.seals() {
            j < i && !late()
        } else {
            under.kind.leaves_film() && (self.paint_over_seal || !late())
        }
    }

    /// The sealing coat that step `i`, a coat of paint still to come, would lie over: one that is laid,
    /// or one that it is linked to.
    pub fn over_seal(&self, i: usize) -> Option<usize> {
        let step = &self.steps[i];
        if step.kind.seals() || !step.kind.leaves_film() || step.laid_at.is_some() {
            return None;
        }
        let laid = self.steps.iter().rposition(|s| s.is_laid_seal());
        laid.or_else(|| self.all_linked(i).into_iter().rfind(|j| self.steps[*j].kind.seals()))
    }

    /// The steps that step `i` is linked to, directly or not, in the order of the row.
    fn all_linked(&self, i: usize) -> Vec<usize> {
        let links: Vec<Vec<usize>> = (0..self.steps.len()).map(|i| self.linked(i)).collect();
        reached(&links, i)
    }
}

/// What `i` leads to, directly or not, in order.
fn reached(links: &[Vec<usize>], i: usize) -> Vec<usize> {
    let mut found = vec![false; links.len()];
    let mut left = links[i].clone();
    while let Some(j) = left.pop() {
        if !std::mem::replace(&mut found[j], true) {
            left.extend(&links[j]);
        }
    }
    (0..found.len()).filter(|j| found[*j]).collect()
}

/// Which steps stand on `i`, directly or not.
fn standing_on(below: &[Vec<usize>], i: usize) -> Vec<bool> {
    let mut above = vec![false; below.len()];
    let mut left = vec![i];
    while let Some(under) = left.pop() {
        for (j, on) in below.iter().enumerate() {
            if on.contains(&under) && !std::mem::replace(&mut above[j], true) {
                left.push(j);
            }
        }
    }
    above
}

#[cfg(test)]
mod tests {
    use super::super::model::Step;
    use super::*;
    use StepKind::{Glaze, IsolationCoat, Pack, Pass, Photograph, Tone, Varnish};

    fn picture(steps: &[(StepKind, Option<&[usize]>)]) -> Picture {
        let steps = steps.iter().enumerate().map(|(n, (kind, on))| Step {
            after: on.map(|on| on.iter().map(|k| format!("s{k}")).collect()),
            ..Step::usual(format!("s{n}"), *kind)
        });
        Picture::new("p", (30.0, 40.0), steps.collect())
    }

    #[test]
    fn a_seal_stands_on_every_coat_of_paint_whatever_after_says() {
        // The glaze names the tone: it was planned on top of the varnish.
        let p = picture(&[(Tone, None), (Varnish, None), (Glaze, Some(&[0]))]);
        assert_eq!(p.below(), [vec![], vec![0, 2], vec![0]]);
        // A varnish stands on the photograph, the varnish before it and every isolation coat.
        let p = picture(&[
            (Pass, None),
            (Photograph, Some(&[0])),
            (Varnish, Some(&[0])),
            (Varnish, Some(&[0])),
            (IsolationCoat, Some(&[0])),
            (Pack, Some(&[])),
        ]);
        let sorted = |i: usize| {
            let mut on = p.stands_on(i);
            on.sort_unstable();
            on
        };
        assert_eq!(
            [sorted(2), sorted(3), sorted(4)],
            [vec![0, 1, 4], vec![0, 1, 2, 4], vec![0, 1]]
        );
        assert_eq!(sorted(5), [0, 2, 3, 4]);
    }

    #[test]
    fn paint_over_a_seal_is_told_from_paint_below_it() {
        let p = picture(&[(Pass, None), (Varnish, None), (Glaze, None), (Varnish, None)]);
        assert_eq!((p.over_seal(0), p.over_seal(2)), (None, Some(1)));
        assert_eq!(p.below(), [vec![], vec![0], vec![1], vec![2, 0, 1]]);
        // Signed too late: the varnish that is on holds nothing up for it.
        let mut p = picture(&[(Pass, None), (StepKind::Signature, None), (Varnish, Some(&[0]))]);
        p.steps.push(Step { after: Some(vec!["s2".into()]), ..Step::usual("s3", Varnish) });
        for i in [0, 2] {
            p.steps[i].laid_at = Some("2027-01-02T10:00:00Z".parse().unwrap());
        }
        assert_eq!(p.over_seal(1), Some(2));
        assert_eq!(p.stands_on(3), [2, 0]);
    }
}
