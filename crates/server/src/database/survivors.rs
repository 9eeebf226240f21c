//! Servers of our data folder that outlived their application: killed with it, they would hold
//! the folder for ever. They are told by their command line.

use super::DatabaseError;
use super::folder::INSTALLING;
use nix::sys::signal::{Signal, kill};
use nix::unistd::Pid;
use std::path::Path;
use std::time::Duration;

/// How long a survivor may take to end in order [s]. [practice]
const END_S: u64 = 30;
/// How often it is looked at [ms]. [practice]
const LOOK_MS: u64 = 20;

/// Ends every server and installer that works in `folder`; the caller holds its lock.
///
/// # Errors
/// [`DatabaseError::Survivor`] when one cannot be ended.
pub(super) async fn end_survivors(folder: &Path) -> Result<(), DatabaseError> {
    // An installer has nothing that could be lost, and one was seen not to hear SIGTERM.
    for survivor in survivors(folder).iter().filter(|s| s.installs) {
        tell(survivor, Signal::SIGKILL);
    }
    for signal in [Signal::SIGTERM, Signal::SIGKILL] {
        let until = tokio::time::Instant::now() + Duration::from_secs(END_S);
        for survivor in survivors(folder).iter().filter(|s| !s.installs) {
            tell(survivor, signal);
        }
        while tokio::time::Instant::now() < until {
            if survivors(folder).is_empty() {
                return Ok(());
            }
            tokio::time::sleep(Duration::from_millis(LOOK_MS)).await;
        }
    }
    match survivors(folder).first() {
        Some(survivor) => Err(DatabaseError::Survivor(survivor.pid.as_raw())),
        None => Ok(()),
    }
}

/// A process that outlived its application.
struct Survivor {
    pid: Pid,
    /// Whether it only makes system tables.
    installs: bool,
}

fn tell(survivor: &Survivor, signal: Signal) {
    let pid = survivor.pid;
    tracing::warn!(%pid, %signal, "a database of this folder outlived its application");
    let _ = kill(pid, signal);
}

/// Processes that were told to keep their data below `folder`.
fn survivors(folder: &Path) -> Vec<Survivor> {
    let begin = |name: &str| format!("--datadir={}/{name}", folder.display()).into_bytes();
    let (kept, kept_slash, making) = (begin("data"), begin("data/"), begin(INSTALLING));
    let keeps = |word: &[u8]| word == kept || word == kept_slash;
    let Ok(processes) = std::fs::read_dir("/proc") else { return Vec::new() };
    let mut found = Vec::new();
    for process in processes.flatten() {
        let Some(id) = process.file_name().to_str().and_then(|n| n.parse::<i32>().ok()) else {
            continue;
        };
        let Ok(line) = std::fs::read(process.path().join("cmdline")) else { continue };
        let has = |is: &dyn Fn(&[u8]) -> bool| line.split(|b| *b == 0).any(is);
        let installs = has(&|word| word.starts_with(&making));
        if installs || has(&keeps) {
            found.push(Survivor { pid: Pid::from_raw(id), installs });
        }
    }
    found
}
