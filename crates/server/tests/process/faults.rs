//! Killing, cutting off and filling up: what was acknowledged is there afterwards, whole.
//!
//! `scripts/faults.sh` runs more of it. `ULVEK_KILLS` and `ULVEK_STARTS` say how much.

use super::harness::*;
use nix::sys::signal::Signal;
use rand::{Rng, SeedableRng};
use serde_json::{Value, json};
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::sync::{Arc, Mutex};
use std::time::{Duration, Instant};

fn how_many(name: &str, usual: u64) -> u64 {
    std::env::var(name).ok().and_then(|n| n.parse().ok()).unwrap_or(usual)
}

/// Lets the work go on for a while, at no cost to it: a kill comes at a random moment of it.
fn spend(time: Duration) {
    let until = Instant::now() + time;
    while let Some(left) = until.checked_duration_since(Instant::now()) {
        std::thread::park_timeout(left);
    }
}

/// A painter who renames a picture again and again and remembers what was said to be kept.
struct Writer {
    picture: String,
    kept: Arc<AtomicU64>,
    tried: u64,
}

impl Writer {
    /// One edit; the answer is noted only when it says that it was kept.
    fn edit(&mut self, address: &str) -> Option<()> {
        let path = format!("/api/pictures/{}", self.picture);
        let (status, stored) = ask(address, "GET", &path, None)?;
        if status != 200 {
            return None;
        }
        self.tried += 1;
        let mut picture = stored["picture"].clone();
        picture["title"] = json!(format!("edit {}", self.tried));
        let edit = json!({ "version": stored["version"], "label": "rename", "picture": picture });
        let (status, answer) = ask(address, "PUT", &path, Some(&edit))?;
        assert!(matches!(status, 200 | 500 | 503), "{status} {answer}");
        if status == 200 {
            self.kept.store(self.tried, Ordering::SeqCst);
        } else {
            let said = answer["detail"].as_str().unwrap_or_default().to_owned();
            let number = |value: &Value| -> u64 {
                let title = value["picture"]["title"].as_str().unwrap_or_default();
                title.trim_start_matches("edit ").parse().unwrap_or(0)
            };
            // "Nothing was changed" is said only where that is so.
            if said.contains("Nothing was changed")
                && let Some((200, now)) = ask(address, "GET", &path, None)
            {
                assert_ne!(number(&now), self.tried, "{said}");
            }
        }
        Some(())
    }
}

#[test]
fn what_was_acknowledged_survives_kills_of_application_and_database() {
    let kills = how_many("ULVEK_KILLS", 12);
    let scratch = Scratch::new("kills");
    let (mut child, address) = serve(&scratch);
    let (_, studios) = ask(&address, "GET", "/api/studios", None).unwrap();
    let studio = studios[0]["id"].as_str().unwrap().to_owned();
    let (_, document) =
        ask(&address, "GET", &format!("/api/studios/{studio}/outlook"), None).unwrap();
    let pictures: Vec<String> = document["pictures"]
        .as_array()
        .unwrap()
        .iter()
        .map(|p| p["id"].as_str().unwrap().to_owned())
        .take(3)
        .collect();
    let where_at = Arc::new(Mutex::new(address));
    let stop = Arc::new(AtomicBool::new(false));
    let counts: Vec<Arc<AtomicU64>> = pictures.iter().map(|_| Arc::default()).collect();
    let writers: Vec<_> = pictures
        .iter()
        .zip(&counts)
        .map(|(picture, kept)| {
            let mut writer = Writer { picture: picture.clone(), kept: kept.clone(), tried: 0 };
            let (where_at, stop) = (where_at.clone(), stop.clone());
            std::thread::spawn(move || {
                while !stop.load(Ordering::SeqCst) {
                    let address = where_at.lock().unwrap().clone();
                    if writer.edit(&address).is_none() {
                        std::thread::yield_now();
                    }
                }
                writer.tried
            })
        })
        .collect();
    let written = || counts.iter().map(|kept| kept.load(Ordering::SeqCst)).sum::<u64>();
    let mut draw = rand::rngs::StdRng::seed_from_u64(20_270_115);
    for n in 0..kills {
        // However slow the machine is, a kill comes while edits are being kept.
        let before = written();
        wait_until("no edit is kept between two kills", || written() > before);
        spend(Duration::from_millis(draw.random_range(20..250)));
        if n % 2 == 0 {
            child.kill().unwrap();
            child.wait().unwrap();
            let (again, address) = serve(&scratch);
            child = again;
            *where_at.lock().unwrap() = address;
        } else {
            let database = database_pid(&scratch);
            signal(database, Signal::SIGKILL);
            let address = where_at.lock().unwrap().clone();
            wait_until("the application does not recover", || {
                database_pid_if_any(&scratch).is_some_and(|pid| pid != database)
                    && get(&address, "/api/health").starts_with("HTTP/1.1 200")
            });
        }
    }
    spend(Duration::from_millis(300));
    stop.store(true, Ordering::SeqCst);
    let tried: Vec<u64> = writers.into_iter().map(|w| w.join().unwrap()).collect();
    let address = where_at.lock().unwrap().clone();
    let mut acknowledged = 0;
    for ((picture, kept), tried) in pictures.iter().zip(&counts).zip(&tried) {
        let kept = kept.load(Ordering::SeqCst);
        acknowledged += kept;
        let (status, stored) =
            ask(&address, "GET", &format!("/api/pictures/{picture}"), None).unwrap();
        assert_eq!(status, 200, "{stored}");
        let title = stored["picture"]["title"].as_str().unwrap();
        // One of the three may not have come through at all.
        let found: u64 = title.strip_prefix("edit ").map_or(0, |n| n.parse().unwrap());
        assert!((kept..=*tried).contains(&found), "{kept} was acknowledged, {found} is stored");
        // Body and history were written together: it can be undone.
        let undo = json!({ "version": stored["version"] });
        let (status, answer) =
            ask(&address, "POST", &format!("/api/pictures/{picture}/undo"), Some(&undo)).unwrap();
        assert_eq!(status, 200, "{answer}");
    }
    let exported =
        ask(&address, "GET", &format!("/api/studios/{studio}/document"), None).unwrap().1;
    let (status, answer) = ask(&address, "POST", "/api/studios/import", Some(&exported)).unwrap();
    assert_eq!(status, 201, "{answer}");
    eprintln!("{kills} kills under writers: {acknowledged} acknowledged edits, none lost");
    end(child);
}

#[test]
fn a_first_start_cut_off_anywhere_is_gone_on_with_by_the_next() {
    let starts = how_many("ULVEK_STARTS", 8);
    let scratch = Scratch::new("cut");
    let mut draw = rand::rngs::StdRng::seed_from_u64(7);
    for n in 0..starts {
        let _ = std::fs::remove_dir_all(scratch.0.join("data"));
        // From the first moment to beyond the whole set-up.
        let ms: u64 = draw.random_range(0..2200);
        let mut child = command(&scratch, LOOPBACK).spawn().unwrap();
        spend(Duration::from_millis(ms));
        let how = if n % 3 == 0 { Signal::SIGTERM } else { Signal::SIGKILL };
        signal(child.id(), how);
        child.wait().unwrap();
        let (child, address) = serve(&scratch);
        let studios = get(&address, "/api/studios");
        assert_eq!(studios.matches("\"created_at\"").count(), 1, "after {ms} ms: {studios}");
        assert!(get(&address, "/api/health").starts_with("HTTP/1.1 200"));
        end(child);
    }
    eprintln!("{starts} first starts cut off: all of them went on with the next");
}

/// A small disk, full of what is put on it; only root can make one.
struct SmallDisk(std::path::PathBuf);

impl SmallDisk {
    fn new(at: std::path::PathBuf) -> Option<Self> {
        std::fs::create_dir_all(&at).unwrap();
        let made = std::process::Command::new("mount")
            .args(["-t", "tmpfs", "-o", "size=400m,mode=755", "tmpfs"])
            .arg(&at)
            .status();
        made.is_ok_and(|status| status.success()).then_some(Self(at))
    }

    /// Leaves `free` bytes.
    fn fill(&self, free: u64) {
        let disk = nix::sys::statvfs::statvfs(&self.0).unwrap();
        let left = disk.blocks_available() * disk.fragment_size();
        let more = left.saturating_sub(free);
        let name = self.0.join(format!("filler-{free}"));
        std::fs::write(name, vec![1; usize::try_from(more).unwrap()]).unwrap();
    }
}

impl Drop for SmallDisk {
    fn drop(&mut self) {
        let _ = std::process::Command::new("umount").arg("-l").arg(&self.0).status();
    }
}

#[test]
fn a_full_disk_keeps_nothing_and_shows_everything_and_is_over_when_there_is_room() {
    let scratch = Scratch::new("full");
    let Some(disk) = SmallDisk::new(scratch.0.join("disk")) else {
        eprintln!("no small disk can be made here: only root can mount one");
        return;
    };
    std::os::unix::fs::symlink(disk.0.join("data"), scratch.0.join("data")).unwrap();
    std::fs::create_dir(disk.0.join("data")).unwrap();
    let (child, address) = serve(&scratch);
    let (_, studios) = ask(&address, "GET", "/api/studios", None).unwrap();
    let studio = studios[0]["id"].as_str().unwrap().to_owned();
    let outlook = format!("/api/studios/{studio}/outlook");
    let edit = || {
        let path = format!("/api/studios/{studio}");
        let (_, stored) = ask(&address, "GET", &path, None)?;
        let edit =
            json!({ "version": stored["version"], "label": "same", "studio": stored["studio"] });
        ask(&address, "PUT", &path, Some(&edit))
    };
    assert_eq!(edit().unwrap().0, 200);
    disk.fill(20 * 1024 * 1024);
    let (status, answer) = edit().unwrap();
    assert_eq!(status, 507, "{answer}");
    assert!(answer["detail"].as_str().unwrap().contains("The disk is nearly full"), "{answer}");
    assert_eq!(ask(&address, "GET", &outlook, None).unwrap().0, 200, "it can be looked at");
    // Others take the rest too, and the database dies of it: it can still be looked at.
    disk.fill(0);
    signal(database_pid(&scratch), Signal::SIGKILL);
    wait_until("it cannot be looked at any more", || {
        ask(&address, "GET", &outlook, None).is_some_and(|(status, _)| status == 200)
    });
    assert_eq!(edit().unwrap().0, 507);
    for filler in std::fs::read_dir(&disk.0).unwrap().flatten() {
        if filler.file_name().to_string_lossy().starts_with("filler") {
            std::fs::remove_file(filler.path()).unwrap();
        }
    }
    wait_until("nothing can be kept again", || edit().is_some_and(|(status, _)| status == 200));
    end(child);
}
