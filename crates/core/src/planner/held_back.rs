//! Steps that wait on purpose, and where they stand among the tasks of a plan.

use super::problem::Problem;

/// A step and its end [s of the epoch].
pub(super) type At = (usize, i64);

/// A step that waits on purpose.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct HeldBack {
    /// Index of the picture.
    pub picture: usize,
    /// Index of the step in the picture.
    pub step: usize,
    /// How long after it could be done [s].
    pub by_s: i64,
}

impl Problem<'_> {
    /// Holds back what `held` says, and nothing else.
    pub fn hold_back(&mut self, held: &[HeldBack]) {
        for task in self.tasks.iter_mut().flatten().flatten() {
            task.held_back = 0;
        }
        for HeldBack { picture, step, by_s } in held {
            if let Some(Some(task)) = self.tasks.get_mut(*picture).and_then(|p| p.get_mut(*step)) {
                task.held_back = *by_s;
            }
        }
    }

    /// What is held back.
    pub fn held_back(&self) -> Vec<HeldBack> {
        let mut held = Vec::new();
        for (picture, tasks) in self.tasks.iter().enumerate() {
            for (step, task) in tasks.iter().enumerate() {
                let by_s = task.as_ref().map_or(0, |t| t.held_back);
                if by_s > 0 {
                    held.push(HeldBack { picture, step, by_s });
                }
            }
        }
        held
    }
}
