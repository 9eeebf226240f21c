//! The application as a process with its private MariaDB: set up, guarded, kept, and stopped.
#![allow(clippy::unwrap_used)]

use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::os::unix::fs::PermissionsExt;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

/// A folder that MariaDB's own user may enter, gone afterwards.
struct Scratch(PathBuf);

impl Scratch {
    fn new(name: &str) -> Self {
        let base =
            if Path::new("/dev/shm").is_dir() { "/dev/shm".into() } else { std::env::temp_dir() };
        let path = base.join(format!("ulvek-{name}-{}", std::process::id()));
        std::fs::create_dir_all(path.join("front")).unwrap();
        std::fs::create_dir_all(path.join("front/assets")).unwrap();
        std::fs::write(path.join("front/index.html"), "<title>Ulvek</title>").unwrap();
        std::fs::write(path.join("front/assets/app-1a2b.js"), "export {};").unwrap();
        Self(path)
    }
}

impl Drop for Scratch {
    fn drop(&mut self) {
        let _ = std::fs::remove_dir_all(&self.0);
    }
}

/// Starts the application on a free port; returns it with its address.
fn serve(scratch: &Scratch) -> (Child, String) {
    let mut child = Command::new(env!("CARGO_BIN_EXE_ulvek"))
        .args(["serve", "--demo", "--listen", "127.0.0.1:0", "--data"])
        .arg(scratch.0.join("data"))
        .arg("--front")
        .arg(scratch.0.join("front"))
        .env_remove("DATABASE_URL")
        .stdout(Stdio::piped())
        .stderr(Stdio::inherit())
        .spawn()
        .unwrap();
    let mut line = String::new();
    BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
    let address = line.trim().strip_prefix("Ulvek is at http://").unwrap().to_owned();
    (child, address)
}

/// The whole answer to a GET, headers and body.
fn get(address: &str, path: &str) -> String {
    let mut stream = TcpStream::connect(address).unwrap();
    write!(stream, "GET {path} HTTP/1.1\r\nHost: {address}\r\nConnection: close\r\n\r\n").unwrap();
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer).unwrap();
    String::from_utf8_lossy(&answer).into_owned()
}

fn signal(pid: u32, signal: nix::sys::signal::Signal) {
    let pid = nix::unistd::Pid::from_raw(i32::try_from(pid).unwrap());
    nix::sys::signal::kill(pid, signal).unwrap();
}

/// Process number of the private MariaDB.
fn database_pid(scratch: &Scratch) -> u32 {
    std::fs::read_to_string(scratch.0.join("data/data/pid")).unwrap().trim().parse().unwrap()
}

fn wait_until(what: &str, holds: impl Fn() -> bool) {
    let until = Instant::now() + Duration::from_secs(30);
    while !holds() {
        assert!(Instant::now() < until, "{what}");
        std::thread::yield_now();
    }
}

#[test]
fn ctrl_c_stops_all_of_it_and_the_next_start_finds_everything_again() {
    let scratch = Scratch::new("restart");
    let (mut child, address) = serve(&scratch);
    let before = get(&address, "/api/studios");
    assert!(before.contains("North-light room, Varnholt"), "{before}");
    let asset = get(&address, "/assets/app-1a2b.js");
    assert!(asset.contains("cache-control: public, max-age=31536000, immutable"), "{asset}");
    let page = get(&address, "/pictures/any");
    assert!(page.contains("<title>Ulvek</title>") && page.contains("cache-control: no-cache"));
    let database = database_pid(&scratch);
    signal(child.id(), nix::sys::signal::Signal::SIGINT);
    assert!(child.wait().unwrap().success());
    assert!(!Path::new(&format!("/proc/{database}")).exists(), "MariaDB is stopped too");

    let (mut child, address) = serve(&scratch);
    let after = get(&address, "/api/studios");
    let body = |answer: &str| answer.rsplit("\r\n\r\n").next().unwrap().to_owned();
    assert_eq!(body(&before), body(&after), "the demo is loaded once, and kept");
    signal(child.id(), nix::sys::signal::Signal::SIGTERM);
    assert!(child.wait().unwrap().success());
}

#[test]
fn the_private_database_lets_nobody_else_in_and_is_started_again_when_it_dies() {
    let scratch = Scratch::new("private");
    let (mut child, address) = serve(&scratch);
    let mode = |file: &str| {
        std::fs::metadata(scratch.0.join("data").join(file)).unwrap().permissions().mode() & 0o777
    };
    assert_eq!(mode("password"), 0o600);
    assert!(!scratch.0.join("data/account.sql").exists(), "the password lies in one place only");
    let socket = format!("--socket={}", scratch.0.join("data/data/s").display());
    let root = Command::new("mariadb-admin")
        .args(["--no-defaults", &socket, "-u", "root", "status"])
        .output()
        .unwrap();
    assert!(!root.status.success(), "root is locked");

    let database = database_pid(&scratch);
    signal(database, nix::sys::signal::Signal::SIGKILL);
    wait_until("MariaDB is not started again", || {
        std::fs::read_to_string(scratch.0.join("data/data/pid"))
            .is_ok_and(|text| text.trim().parse() != Ok(database))
    });
    wait_until("the application does not recover", || {
        get(&address, "/api/health").starts_with("HTTP/1.1 200")
    });
    signal(child.id(), nix::sys::signal::Signal::SIGTERM);
    assert!(child.wait().unwrap().success());
}

#[test]
fn a_front_end_that_is_not_built_is_said_in_one_line() {
    let scratch = Scratch::new("front");
    let out = Command::new(env!("CARGO_BIN_EXE_ulvek"))
        .args(["serve", "--front", "/nonexistent", "--data"])
        .arg(scratch.0.join("data"))
        .output()
        .unwrap();
    assert_eq!(out.status.code(), Some(2));
    let said = String::from_utf8(out.stderr).unwrap();
    assert_eq!(
        said,
        "ulvek: the front end is not built (/nonexistent/index.html is missing): run ./start, which builds it\n"
    );
}
