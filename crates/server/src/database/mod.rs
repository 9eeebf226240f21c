//! A private MariaDB on loopback in the project's data folder: set up once, started, watched and
//! stopped with the application.

mod folder;
mod server;
mod survivors;

use folder::DataFolder;
use server::Server;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::{Duration, Instant};
use thiserror::Error;
use tokio::process::Child;
use tokio::sync::watch;

/// How long it may take to stop before it is killed [s]. [practice]
const STOP_S: u64 = 30;
/// Pause before a server that died is started again, doubled each time it dies at once [ms].
/// [practice]
const RESTART_MS: u64 = 500;
/// Longest pause [s]. [practice]
const RESTART_MOST_S: u64 = 30;
/// A server that lived so long did not die at once [s]. [practice]
const LIVED_S: u64 = 5;
/// How often the disk is looked at [s]. [practice]
const LOOK_S: u64 = 1;
/// Room on the disk below which what was put aside is given to the server, so that it goes on [bytes].
/// [practice] what its logs take in some seconds
const LAST_BYTES: u64 = 16 * 1024 * 1024;
/// Room on the disk below which nothing is changed any more [bytes]. [practice] several edits of
/// the largest studio, and a photograph
const ROOM_BYTES: u64 = 64 * 1024 * 1024;

/// Why the private database cannot be had.
#[derive(Debug, Error)]
pub enum DatabaseError {
    /// The programs of MariaDB are missing.
    #[error("MariaDB is not installed ({0} was not found): run ./start, which installs it")]
    Missing(&'static str),
    /// A file or process failed.
    #[error("{0}: {1}")]
    System(String, #[source] std::io::Error),
    /// A program of MariaDB failed.
    #[error("{0} failed; see {1}")]
    Failed(&'static str, PathBuf),
    /// It started but does not answer.
    #[error("MariaDB does not answer after {START_S} s; see {0}", START_S = server::START_S)]
    Silent(PathBuf),
    /// Another application has the folder.
    #[error("{} is in use by another Ulvek (process {process}): stop that one, or give this one a folder of its own with --data", .folder.display())]
    InUse {
        /// The data folder.
        folder: PathBuf,
        /// The process that has it.
        process: String,
    },
    /// The folder holds something else.
    #[error("{} is not empty and was not made by Ulvek: nothing in it was touched; name another folder with --data", .0.display())]
    NotOurs(PathBuf),
    /// MariaDB's own user cannot go through a folder above its data.
    #[error("MariaDB's own user cannot go through {folder}: allow it (chmod o+x {folder}), or name another folder with --data", folder = .0.display())]
    Closed(PathBuf),
    /// The database of a folder that had one is gone.
    #[error("the database of this folder is gone ({} has no system tables): bring it back from a copy, or name a new folder with --data", .0.display())]
    Lost(PathBuf),
    /// The password of a folder with a database is gone.
    #[error("{} is missing, so nobody can log in to the database beside it: bring it back from a copy, or name a new folder with --data", .0.display())]
    NoPassword(PathBuf),
    /// A server of an application that ended holds the folder.
    #[error(
        "a MariaDB that outlived its application (process {0}) holds the data folder and cannot be stopped: stop it by hand"
    )]
    Survivor(i32),
}

/// How the private database is, for those who have to say why something does not work.
#[derive(Debug, Clone)]
pub struct Condition {
    fault: watch::Receiver<Option<String>>,
    folder: Arc<DataFolder>,
}

impl Condition {
    /// Why the database is away, when it is known.
    pub fn fault(&self) -> Option<String> {
        self.fault.borrow().clone()
    }

    /// Whether there is room on the disk to change something.
    pub fn has_room(&self) -> bool {
        self.folder.free_bytes().is_none_or(|free| free >= ROOM_BYTES)
    }
}

/// A running private server.
pub struct PrivateDatabase {
    url: String,
    stop: watch::Sender<bool>,
    watcher: tokio::task::JoinHandle<()>,
    condition: Condition,
    process: watch::Receiver<Option<u32>>,
}

/// Ends the private server in order when there is no time to wait for it.
#[derive(Debug, Clone)]
pub struct LastWord(watch::Receiver<Option<u32>>);

impl LastWord {
    /// Asks the server to end; it does so by itself.
    pub fn say(&self) {
        if let Some(id) = *self.0.borrow() {
            terminate(id);
        }
    }
}

impl PrivateDatabase {
    /// Takes `folder`, sets it up if it is new, starts the server there and waits until it answers.
    /// With `durable` off it trades safety for speed: for tests only.
    ///
    /// # Errors
    /// [`DatabaseError`] with what is missing or failed.
    pub async fn start(folder: &Path, durable: bool) -> Result<Self, DatabaseError> {
        let folder = Arc::new(DataFolder::open(folder)?);
        survivors::end_survivors(folder.path()).await?;
        folder.clear_unfinished()?;
        let mut server = Server::new(folder.clone(), durable);
        if !folder.data().join("mysql").exists() {
            server.install().await?;
        }
        let cannot = |what: &str| {
            let what = what.to_owned();
            move |e| DatabaseError::System(what, e)
        };
        let password = folder.password().map_err(cannot("cannot keep the password"))?;
        server.write_account(&password).map_err(cannot("cannot write the account"))?;
        let child = server.start_on_free_port(&password).await?;
        let _ = std::fs::remove_file(folder.account());
        if durable && let Err(error) = folder.keep_reserve() {
            tracing::warn!(%error, "no room can be put aside for a full disk");
        }
        let url = server.url(&password);
        let (stop, stopped) = watch::channel(false);
        let (fault, reader) = watch::channel(None);
        let (id, process) = watch::channel(child.id());
        let condition = Condition { fault: reader, folder };
        let watcher = tokio::spawn(watch_over(server, child, stopped, Told { fault, id }));
        Ok(Self { url, stop, watcher, condition, process })
    }

    /// The address for SQLx.
    pub fn url(&self) -> &str {
        &self.url
    }

    /// How it is.
    pub fn condition(&self) -> Condition {
        self.condition.clone()
    }

    /// How to end it without waiting.
    pub fn last_word(&self) -> LastWord {
        LastWord(self.process.clone())
    }

    /// Says that tables and what belongs into a new database are there.
    ///
    /// # Errors
    /// [`DatabaseError::System`] when that cannot be noted.
    pub fn set_up(&self) -> Result<(), DatabaseError> {
        let noted = self.condition.folder.set_up();
        noted
            .map_err(|e| DatabaseError::System("cannot note that the set-up is finished".into(), e))
    }

    /// Stops the server and waits until it has.
    pub async fn stop(self) {
        let _ = self.stop.send(true);
        let _ = self.watcher.await;
    }
}

/// What the watcher tells others.
struct Told {
    fault: watch::Sender<Option<String>>,
    id: watch::Sender<Option<u32>>,
}

/// Starts the server again when it dies, until told to stop. One that dies at once is given longer
/// and longer pauses, and the cause is named.
async fn watch_over(
    server: Server,
    mut child: Child,
    mut stopped: watch::Receiver<bool>,
    told: Told,
) {
    let mut pause = Duration::from_millis(RESTART_MS);
    let mut began = Instant::now();
    loop {
        tokio::select! {
            ended = child.wait() => {
                let cause = server.cause();
                tracing::error!(?ended, cause, "MariaDB ended; it is started again");
                told.fault.send_replace(Some(cause));
                server.folder().release_reserve();
                if began.elapsed() > Duration::from_secs(LIVED_S) {
                    pause = Duration::from_millis(RESTART_MS);
                }
                tokio::select! {
                    () = tokio::time::sleep(pause) => {}
                    _ = stopped.changed() => return,
                }
                pause = (pause * 2).min(Duration::from_secs(RESTART_MOST_S));
                began = Instant::now();
                match server.spawn() {
                    Ok(again) => {
                        told.id.send_replace(again.id());
                        child = again;
                    }
                    Err(error) => tracing::error!(%error, "MariaDB cannot be started"),
                }
            }
            () = tokio::time::sleep(Duration::from_secs(LOOK_S)) => {
                if began.elapsed() > Duration::from_secs(LIVED_S) {
                    // It lives: what was wrong is over.
                    told.fault.send_replace(None);
                }
                match server.folder().free_bytes() {
                    // Before it dies of a full disk, not after.
                    Some(free) if free < LAST_BYTES => server.folder().release_reserve(),
                    Some(free) if free > 2 * ROOM_BYTES => {
                        let _ = server.folder().keep_reserve();
                    }
                    _ => {}
                }
            }
            _ = stopped.changed() => {
                if let Some(id) = child.id() {
                    terminate(id);
                }
                if tokio::time::timeout(Duration::from_secs(STOP_S), child.wait()).await.is_err() {
                    tracing::error!("MariaDB did not stop; it is killed");
                    let _ = child.kill().await;
                }
                return;
            }
        }
    }
}

/// Asks a process to end in order (SIGTERM).
fn terminate(id: u32) {
    let Ok(id) = i32::try_from(id) else { return };
    let pid = nix::unistd::Pid::from_raw(id);
    if let Err(error) = nix::sys::signal::kill(pid, nix::sys::signal::Signal::SIGTERM) {
        tracing::error!(%error, "MariaDB cannot be asked to stop");
    }
}

fn running_as_root() -> bool {
    nix::unistd::geteuid().is_root()
}
