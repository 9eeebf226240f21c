//! Why something is not taken: a place in it, and a reason.

use thiserror::Error;

/// Why input is not taken.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("{}", if .place.is_empty() { .why.clone() } else { format!("{}: {}", .place, .why) })]
pub struct Fault {
    /// The place, as in `pictures[0].steps[2].wet_film_um`; empty for the whole.
    pub place: String,
    /// The reason, in one sentence.
    pub why: String,
}

impl Fault {
    /// A fault at `place`, with the sentence that `why` writes.
    pub fn new(place: impl Into<String>, why: impl ToString) -> Self {
        Self { place: place.into(), why: why.to_string() }
    }

    /// The same fault in a larger whole, in which its place lies within `base`.
    ///
    /// ```
    /// use ulvek_core::quantity::Fault;
    /// let fault = Fault::new("steps[2].mix", "a glaze coat needs a mix");
    /// assert_eq!(fault.within("pictures[0]").place, "pictures[0].steps[2].mix");
    /// assert_eq!(Fault::new("", "is too large").within("pictures[0]").place, "pictures[0]");
    /// ```
    #[must_use]
    pub fn within(self, base: &str) -> Self {
        let place = match (base, self.place.as_str()) {
            ("", _) => self.place,
            (base, "") => base.to_owned(),
            (base, place) => format!("{base}.{place}"),
        };
        Self { place, ..self }
    }
}

/// What is well, or the fault that was found.
pub type Checked<T = ()> = Result<T, Fault>;

/// Holds that a list has not too many entries.
///
/// # Errors
/// [`Fault`] at `place` otherwise.
pub fn at_most(place: &str, count: usize, most: usize, what: &str) -> Checked {
    if count > most {
        return Err(Fault::new(place, format!("has {count} {what}; at most {most} are taken")));
    }
    Ok(())
}
