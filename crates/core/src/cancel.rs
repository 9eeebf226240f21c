//! Giving up a computation that nobody waits for any more.
//!
//! Films, searches and futures look at a flag as they go on. When it is raised they unwind to
//! [`Cancel::unless_cancelled`], so that no half result can be taken for a whole one, and nothing
//! between has to carry the news upward. The flag stands beside the computation, not in it: what is
//! computed does not depend on it.

use std::cell::RefCell;
use std::panic::{AssertUnwindSafe, catch_unwind, resume_unwind};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

thread_local! {
    /// The flag of the computation that this thread works on.
    static CURRENT: RefCell<Option<Cancel>> = const { RefCell::new(None) };
}

/// A flag that says that nobody waits any more; cheap to clone.
#[derive(Debug, Clone, Default)]
pub struct Cancel(Arc<AtomicBool>);

/// What a computation that is given up unwinds with.
struct GivenUp;

impl Cancel {
    /// Raises the flag.
    pub fn cancel(&self) {
        self.0.store(true, Ordering::Relaxed);
    }

    /// Whether it is raised.
    pub fn is_cancelled(&self) -> bool {
        self.0.load(Ordering::Relaxed)
    }

    /// Does `work` on this thread; `None` when it was given up.
    ///
    /// ```
    /// use ulvek_core::cancel::Cancel;
    /// let flag = Cancel::default();
    /// assert_eq!(flag.unless_cancelled(|| 7), Some(7));
    /// ```
    pub fn unless_cancelled<T>(&self, work: impl FnOnce() -> T) -> Option<T> {
        let before = CURRENT.with(|current| current.replace(Some(self.clone())));
        // Nothing that `work` was changing is looked at again.
        let ended = catch_unwind(AssertUnwindSafe(work));
        CURRENT.with(|current| current.replace(before));
        match ended {
            Ok(value) => Some(value),
            Err(cause) if cause.is::<GivenUp>() => None,
            Err(cause) => resume_unwind(cause),
        }
    }
}

/// The flag of this thread's computation, to be handed to threads that help with it.
pub(crate) fn current() -> Cancel {
    CURRENT.with(|current| current.borrow().clone()).unwrap_or_default()
}

/// Gives this thread's computation up when nobody waits for it.
pub(crate) fn give_up_if_cancelled() {
    let raised = CURRENT.with(|c| c.borrow().as_ref().is_some_and(Cancel::is_cancelled));
    if raised {
        give_up();
    }
}

/// Gives this thread's computation up.
pub(crate) fn give_up() -> ! {
    resume_unwind(Box::new(GivenUp))
}
