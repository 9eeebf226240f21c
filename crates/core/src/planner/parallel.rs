//! The same work many times, on several threads, given up together.

use crate::cancel;
use std::sync::atomic::{AtomicUsize, Ordering::Relaxed};

/// Threads that this machine runs at once.
pub fn threads() -> usize {
    std::thread::available_parallelism().map_or(1, usize::from)
}

/// Does `work` for 0 to `n` on `threads` threads; what it found, in order.
pub(crate) fn in_parallel<T: Send>(
    n: usize,
    threads: usize,
    work: impl Fn(usize) -> Option<T> + Sync,
) -> Vec<T> {
    let threads = threads.clamp(1, n.max(1));
    // Nothing, or one: whoever asks does it.
    if n <= 1 {
        return (0..n).filter_map(work).collect();
    }
    let (cancel, work, next) = (cancel::current(), &work, &AtomicUsize::new(0));
    let mut found: Vec<(usize, T)> = Vec::new();
    std::thread::scope(|scope| {
        let workers: Vec<_> = (0..threads)
            .map(|_| {
                let cancel = cancel.clone();
                scope.spawn(move || {
                    cancel.unless_cancelled(|| {
                        // Whoever is free takes the next.
                        let mine = std::iter::repeat_with(|| next.fetch_add(1, Relaxed));
                        let mine = mine.take_while(|i| *i < n);
                        mine.filter_map(|i| work(i).map(|found| (i, found))).collect::<Vec<_>>()
                    })
                })
            })
            .collect();
        for worker in workers {
            match worker.join() {
                Ok(Some(some)) => found.extend(some),
                Ok(None) => cancel::give_up(),
                // What cannot be computed must not be taken for what was not found.
                Err(cause) => std::panic::resume_unwind(cause),
            }
        }
    });
    // The same whatever thread was quicker.
    found.sort_by_key(|(i, _)| *i);
    found.into_iter().map(|(_, found)| found).collect()
}
