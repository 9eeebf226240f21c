//! The data folder: whose it is, who uses it now, and whether its set-up was finished.
//!
//! A folder is set up in an order that can be cut off anywhere: lock, the mark `setting-up`, the
//! system tables in a folder of their own that is renamed when it is whole, the password, then
//! tables and demo. Only when all of it is there is the mark taken away; until then the next start
//! goes on from the system tables and makes everything of ours in them anew.

use super::DatabaseError;
use rand::Rng;
use std::fs::{File, OpenOptions, TryLockError};
use std::io::{Read, Seek, Write};
use std::os::unix::fs::{OpenOptionsExt, PermissionsExt};
use std::path::{Path, PathBuf};

/// What the lock of our folder begins with.
const LOCK_WORD: &str = "ulvek";
/// Held as long as an application uses the folder.
const LOCK: &str = "lock";
/// There while the first start is not finished.
const SETTING_UP: &str = "setting-up";
/// The application's password.
const PASSWORD: &str = "password";
/// Statements for the server's start.
const ACCOUNT: &str = "account.sql";
/// Where system tables are made before they are whole.
pub(super) const INSTALLING: &str = "installing-";
/// Where the server keeps its temporary tables.
const TEMPORARY: &str = "temporary";
/// Room that is given back when the disk is full.
const RESERVE: &str = "reserve";
/// Size of that room [bytes]: what a server needs to start. [practice] its temporary tablespace
/// takes 12 MiB
const RESERVE_BYTES: i64 = 32 * 1024 * 1024;

/// A folder that is ours, held against a second application.
#[derive(Debug)]
pub(super) struct DataFolder {
    path: PathBuf,
    // Unlocked by the system when the process ends, however it ends.
    _lock: File,
}

impl DataFolder {
    /// Takes `path` for this process; it is made when it does not exist.
    pub(super) fn open(path: &Path) -> Result<Self, DatabaseError> {
        let fault = |what: &str| {
            let what = format!("{what} {}", path.display());
            move |e| DatabaseError::System(what, e)
        };
        if !path.exists() {
            std::fs::create_dir_all(path).map_err(fault("cannot make the data folder"))?;
        }
        let path = path.canonicalize().map_err(fault("cannot find the data folder"))?;
        if !is_ours(&path).map_err(fault("cannot read the data folder"))? {
            return Err(DatabaseError::NotOurs(path));
        }
        if super::running_as_root() {
            // MariaDB's own user goes through the folder to its data, and sees nothing else of it.
            let mode = |p: &Path| std::fs::metadata(p).map(|m| m.permissions().mode());
            let own = mode(&path).map_err(fault("cannot look at the data folder"))?;
            if own & 0o001 == 0 {
                std::fs::set_permissions(&path, std::fs::Permissions::from_mode(own | 0o001))
                    .map_err(fault("cannot open the data folder to MariaDB"))?;
            }
            let closed = |p: &&Path| mode(p).is_ok_and(|mode| mode & 0o001 == 0);
            if let Some(closed) = path.ancestors().find(closed) {
                return Err(DatabaseError::Closed(closed.to_owned()));
            }
        }
        let lock = lock(&path)?;
        let folder = Self { path, _lock: lock };
        folder.settle()?;
        Ok(folder)
    }

    /// Brings the marks in order after whatever happened before.
    fn settle(&self) -> Result<(), DatabaseError> {
        let fault = |what: &str| {
            let what = what.to_owned();
            move |e| DatabaseError::System(what, e)
        };
        let has_tables = self.data().join("mysql").exists();
        if self.is_new() {
            // Begun and cut off.
        } else if self.at(PASSWORD).exists() {
            if !has_tables {
                return Err(DatabaseError::Lost(self.data()));
            }
        } else if self.data().exists() {
            return Err(DatabaseError::NoPassword(self.at(PASSWORD)));
        } else {
            let mark = File::create(self.at(SETTING_UP)).map_err(fault("cannot mark"))?;
            mark.sync_all().map_err(fault("cannot mark the set-up"))?;
        }
        Ok(())
    }

    /// Takes away what installers that were cut off left; none of them may run any more.
    pub(super) fn clear_unfinished(&self) -> Result<(), DatabaseError> {
        let fault = |what: &str| {
            let what = what.to_owned();
            move |e| DatabaseError::System(what, e)
        };
        for entry in std::fs::read_dir(&self.path).map_err(fault("cannot read the data folder"))? {
            let entry = entry.map_err(fault("cannot read the data folder"))?;
            if entry.file_name().to_string_lossy().starts_with(INSTALLING) {
                std::fs::remove_dir_all(entry.path()).map_err(fault("cannot clear"))?;
            }
        }
        Ok(())
    }

    fn at(&self, name: &str) -> PathBuf {
        self.path.join(name)
    }

    /// The folder itself.
    pub(super) fn path(&self) -> &Path {
        &self.path
    }

    /// Where MariaDB's files are.
    pub(super) fn data(&self) -> PathBuf {
        self.at("data")
    }

    /// Where its system tables are made, before they are renamed to [`data`](Self::data).
    pub(super) fn installing(&self) -> PathBuf {
        self.at(&format!("{INSTALLING}{:08x}", rand::rng().random::<u32>()))
    }

    /// Where the server keeps its temporary tables. At its start a server takes away all such tables that
    /// it finds: with one folder for two, those that the other one is working with.
    pub(super) fn temporary(&self) -> PathBuf {
        self.at(TEMPORARY)
    }

    /// Statements for the server's start.
    pub(super) fn account(&self) -> PathBuf {
        self.at(ACCOUNT)
    }

    /// Whether its first set-up was not finished yet.
    pub(super) fn is_new(&self) -> bool {
        self.at(SETTING_UP).exists()
    }

    /// Says that the first set-up is finished.
    pub(super) fn set_up(&self) -> std::io::Result<()> {
        match std::fs::remove_file(self.at(SETTING_UP)) {
            Err(e) if e.kind() != std::io::ErrorKind::NotFound => Err(e),
            _ => File::open(&self.path)?.sync_all(),
        }
    }

    /// The application's password: random, made once, readable by its owner alone.
    pub(super) fn password(&self) -> std::io::Result<String> {
        let path = self.at(PASSWORD);
        match std::fs::read_to_string(&path) {
            Ok(kept) if !kept.trim().is_empty() => return Ok(kept.trim().to_owned()),
            Ok(_) => {}
            Err(e) if e.kind() == std::io::ErrorKind::NotFound => {}
            Err(e) => return Err(e),
        }
        let bytes: [u8; 24] = rand::rng().random();
        let password: String = bytes.iter().map(|b| format!("{b:02x}")).collect();
        // Whole or not at all: half a password would lock everybody out.
        let half = self.at("password.new");
        let mut file =
            OpenOptions::new().write(true).create(true).truncate(true).mode(0o600).open(&half)?;
        file.write_all(password.as_bytes())?;
        file.sync_all()?;
        std::fs::rename(half, path)?;
        Ok(password)
    }

    /// Puts room aside for a day on which the disk is full.
    pub(super) fn keep_reserve(&self) -> std::io::Result<()> {
        let file = OpenOptions::new()
            .write(true)
            .create(true)
            .truncate(false)
            .mode(0o600)
            .open(self.at(RESERVE))?;
        Ok(nix::fcntl::posix_fallocate(&file, 0, RESERVE_BYTES)?)
    }

    /// Gives that room back.
    pub(super) fn release_reserve(&self) {
        let _ = std::fs::remove_file(self.at(RESERVE));
    }

    /// Room left on the disk for the application [bytes].
    pub(super) fn free_bytes(&self) -> Option<u64> {
        free_bytes(&self.path)
    }
}

/// Room left on the disk of `path` [bytes].
pub(super) fn free_bytes(path: &Path) -> Option<u64> {
    let disk = nix::sys::statvfs::statvfs(path).ok()?;
    Some(disk.blocks_available() * disk.fragment_size())
}

/// Whether nothing but what Ulvek made is in `path`, or Ulvek has used it before.
fn is_ours(path: &Path) -> std::io::Result<bool> {
    let lock = std::fs::read_to_string(path.join(LOCK)).unwrap_or_default();
    let older = path.join(PASSWORD).exists() && path.join("data/mysql").exists();
    if lock.starts_with(LOCK_WORD) || older {
        return Ok(true);
    }
    // Cut off before the first word was written.
    Ok(std::fs::read_dir(path)?.all(|e| e.is_ok_and(|e| e.file_name() == LOCK)))
}

fn lock(path: &Path) -> Result<File, DatabaseError> {
    let fault = |e| DatabaseError::System("cannot lock the data folder".into(), e);
    let options = OpenOptions::new().read(true).write(true).create(true).truncate(false).clone();
    let mut file = options.clone().mode(0o644).open(path.join(LOCK)).map_err(fault)?;
    match file.try_lock() {
        Ok(()) => {}
        Err(TryLockError::WouldBlock) => {
            let mut said = String::new();
            let _ = file.read_to_string(&mut said);
            let process = said.trim().strip_prefix(LOCK_WORD).unwrap_or_default().trim().to_owned();
            return Err(DatabaseError::InUse { folder: path.to_owned(), process });
        }
        Err(TryLockError::Error(e)) => return Err(fault(e)),
    }
    file.set_len(0).map_err(fault)?;
    file.rewind().map_err(fault)?;
    writeln!(file, "{LOCK_WORD} {}", std::process::id()).map_err(fault)?;
    file.sync_all().map_err(fault)?;
    Ok(file)
}
