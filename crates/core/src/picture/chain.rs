//! Whether the steps of a picture fit together.

use super::model::{Picture, Step};
use chrono::{DateTime, Utc};
use std::collections::HashSet;
use thiserror::Error;

/// Why the steps of a picture do not fit together; `step` is an index.
#[derive(Debug, Clone, PartialEq, Error)]
#[allow(missing_docs, reason = "each is said by its sentence")]
pub enum PictureError {
    #[error("another step is already called \"{id}\"")]
    TwiceNamed { step: usize, id: String },
    #[error("it stands on \"{on}\", which is not a step of this picture")]
    UnknownStep { step: usize, on: String },
    #[error("the steps stand on each other in a circle: {}", .names.join(" on "))]
    Circle { step: usize, names: Vec<String> },
    #[error(
        "{title} was laid on {}, before {on} below it ({})",
        .laid.format("%Y-%m-%d %H:%M UTC"), .below.format("%Y-%m-%d %H:%M UTC")
    )]
    LaidBefore { step: usize, title: String, on: String, laid: DateTime<Utc>, below: DateTime<Utc> },
    #[error("{title} is laid, but {on} below it is not")]
    LaidOnNothing { step: usize, title: String, on: String },
}

impl PictureError {
    /// Index of the step that is at fault.
    pub const fn step(&self) -> usize {
        match self {
            Self::TwiceNamed { step, .. }
            | Self::UnknownStep { step, .. }
            | Self::Circle { step, .. }
            | Self::LaidBefore { step, .. }
            | Self::LaidOnNothing { step, .. } => *step,
        }
    }
}

/// Holds that names are unique, that every step stands on known ones without a circle, and that
/// no coat was laid before one it stands on, or on one that is not there.
///
/// # Errors
/// The first [`PictureError`] found.
pub fn check_chain(picture: &Picture) -> Result<(), PictureError> {
    let steps = &picture.steps;
    let mut seen = HashSet::new();
    for (step, s) in steps.iter().enumerate() {
        if !seen.insert(s.id.as_str()) {
            return Err(PictureError::TwiceNamed { step, id: s.id.clone() });
        }
    }
    for (step, s) in steps.iter().enumerate() {
        for on in s.after.iter().flatten() {
            if !seen.contains(on.as_str()) {
                return Err(PictureError::UnknownStep { step, on: on.clone() });
            }
        }
    }
    if let Some(circle) = find_circle(picture) {
        let mut names: Vec<String> = circle.iter().map(|i| steps[*i].id.clone()).collect();
        names.extend(names.first().cloned());
        return Err(PictureError::Circle { step: circle[0], names });
    }
    for (step, s) in steps.iter().enumerate() {
        let Some(laid) = s.laid_at else { continue };
        for below in picture.linked(step) {
            let (title, on) = (said(s), steps[below].called());
            match steps[below].laid_at {
                // A drawing or a photograph that was never logged holds no coat up.
                None if steps[below].kind.leaves_film() => {
                    return Err(PictureError::LaidOnNothing { step, title, on });
                }
                None => {}
                Some(below) if below > laid => {
                    return Err(PictureError::LaidBefore { step, title, on, laid, below });
                }
                Some(_) => {}
            }
        }
    }
    Ok(())
}

/// What the painter calls a step, as a sentence begins with it.
fn said(step: &Step) -> String {
    let title = step.called();
    let mut letters = title.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// A circle of steps, each standing on the next, if there is one.
fn find_circle(picture: &Picture) -> Option<Vec<usize>> {
    #[derive(Clone, Copy, PartialEq)]
    enum Mark {
        New,
        Open,
        Done,
    }
    let n = picture.steps.len();
    let mut marks = vec![Mark::New; n];
    for start in 0..n {
        if marks[start] != Mark::New {
            continue;
        }
        marks[start] = Mark::Open;
        let mut path = vec![(start, picture.linked(start))];
        while let Some((at, left)) = path.last_mut() {
            let at = *at;
            let Some(next) = left.pop() else {
                marks[at] = Mark::Done;
                path.pop();
                continue;
            };
            match marks[next] {
                Mark::Done => {}
                Mark::Open => {
                    let from = path.iter().position(|(i, _)| *i == next)?;
                    return Some(path[from..].iter().map(|(i, _)| *i).collect());
                }
                Mark::New => {
                    marks[next] = Mark::Open;
                    path.push((next, picture.linked(next)));
                }
            }
        }
    }
    None
}

#[cfg(test)]
mod tests {
    use super::super::kind::StepKind;
    use super::*;

    fn step(id: &str, after: Option<&[&str]>, laid: Option<&str>) -> Step {
        Step {
            after: after.map(|names| names.iter().map(|n| (*n).to_owned()).collect()),
            laid_at: laid.map(|t| t.parse().unwrap()),
            ..Step::usual(id, StepKind::Pass)
        }
    }

    fn picture(steps: Vec<Step>) -> Picture {
        Picture::new("p", (30.0, 40.0), steps)
    }

    #[test]
    fn a_circle_is_named_step_by_step() {
        let p = picture(vec![
            step("a", Some(&["c"]), None),
            step("b", None, None),
            step("c", None, None),
        ]);
        let said = check_chain(&p).unwrap_err().to_string();
        assert_eq!(said, "the steps stand on each other in a circle: a on c on b on a");
    }

    #[test]
    fn a_coat_laid_before_the_one_it_stands_on_is_refused() {
        let p = picture(vec![
            step("a", None, Some("2027-01-02T10:00:00Z")),
            step("b", None, Some("2027-01-01T10:00:00Z")),
        ]);
        assert!(matches!(check_chain(&p), Err(PictureError::LaidBefore { step: 1, .. })));
        let p = picture(vec![step("a", None, None), step("b", None, Some("2027-01-01T10:00:00Z"))]);
        let said = check_chain(&p).unwrap_err().to_string();
        assert_eq!(said, "Pass is laid, but pass below it is not");
        let mut p = p;
        p.steps[0].kind = StepKind::Photograph;
        assert_eq!(check_chain(&p), Ok(()), "a photograph never logged holds no coat up");
    }
}
