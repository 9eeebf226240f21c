//! Starting the application as a process, asking it, and ending it.

use nix::sys::signal::Signal;
use serde_json::Value;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

/// A free port on loopback.
pub const LOOPBACK: &str = "127.0.0.1:0";

/// A folder that MariaDB's own user may enter, gone afterwards.
pub struct Scratch(pub PathBuf);

impl Scratch {
    pub fn new(name: &str) -> Self {
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

/// The application, not started yet, on a free port.
pub fn command(scratch: &Scratch, listen: &str) -> Command {
    let mut command = Command::new(env!("CARGO_BIN_EXE_ulvek"));
    command
        .args(["serve", "--demo", "--listen", listen, "--data"])
        .arg(scratch.0.join("data"))
        .arg("--front")
        .arg(scratch.0.join("front"))
        .env_remove("DATABASE_URL")
        .stdout(Stdio::piped())
        .stderr(Stdio::inherit());
    command
}

/// Starts the application; returns it with its address.
pub fn serve(scratch: &Scratch) -> (Child, String) {
    serve_by(&mut command(scratch, LOOPBACK))
}

/// The same, by a command of one's own.
pub fn serve_by(command: &mut Command) -> (Child, String) {
    let mut child = command.spawn().unwrap();
    let mut line = String::new();
    BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
    let address = line.trim().strip_prefix("Ulvek is at http://").unwrap().to_owned();
    (child, address)
}

/// Ends the application in order.
pub fn end(mut child: Child) {
    signal(child.id(), Signal::SIGTERM);
    assert!(child.wait().unwrap().success());
}

/// What a start that is refused says.
pub fn refusal(scratch: &Scratch) -> String {
    let out = command(scratch, LOOPBACK).stderr(Stdio::piped()).output().unwrap();
    assert_eq!(out.status.code(), Some(2));
    String::from_utf8(out.stderr).unwrap()
}

/// The whole answer to a GET, headers and body.
pub fn get(address: &str, path: &str) -> String {
    get_as(address, path, "*/*")
}

/// The same as who wants answers of one kind only.
pub fn get_as(address: &str, path: &str, kind: &str) -> String {
    let mut stream = TcpStream::connect(address).unwrap();
    let head = format!("GET {path} HTTP/1.1\r\nHost: {address}\r\nAccept: {kind}\r\n");
    write!(stream, "{head}Connection: close\r\n\r\n").unwrap();
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer).unwrap();
    String::from_utf8_lossy(&answer).into_owned()
}

pub fn signal(pid: u32, signal: Signal) {
    let pid = nix::unistd::Pid::from_raw(i32::try_from(pid).unwrap());
    nix::sys::signal::kill(pid, signal).unwrap();
}

/// Asks with JSON and hears JSON; nothing when nobody answers whole.
pub fn ask(address: &str, method: &str, path: &str, body: Option<&Value>) -> Option<(u16, Value)> {
    let body = body.map(Value::to_string).unwrap_or_default();
    let mut stream = TcpStream::connect(address).ok()?;
    stream.set_read_timeout(Some(Duration::from_secs(40))).ok()?;
    write!(
        stream,
        "{method} {path} HTTP/1.1\r\nHost: {address}\r\nConnection: close\r\n\
         Content-Type: application/json\r\nContent-Length: {}\r\n\r\n{body}",
        body.len()
    )
    .ok()?;
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer).ok()?;
    let text = String::from_utf8_lossy(&answer);
    let (head, said) = text.split_once("\r\n\r\n")?;
    let status = head.split(' ').nth(1)?.parse().ok()?;
    if said.is_empty() {
        return Some((status, Value::Null));
    }
    Some((status, serde_json::from_str(said).ok()?))
}

/// Process number of the private MariaDB.
pub fn database_pid(scratch: &Scratch) -> u32 {
    database_pid_if_any(scratch).unwrap()
}

/// The same, when there is one.
pub fn database_pid_if_any(scratch: &Scratch) -> Option<u32> {
    std::fs::read_to_string(scratch.0.join("data/data/pid")).ok()?.trim().parse().ok()
}

/// Whether a process runs; one that ended and was not asked about yet does not.
pub fn runs(pid: u32) -> bool {
    std::fs::read(format!("/proc/{pid}/cmdline")).is_ok_and(|line| !line.is_empty())
}

pub fn wait_until(what: &str, holds: impl Fn() -> bool) {
    let until = Instant::now() + Duration::from_secs(30);
    while !holds() {
        assert!(Instant::now() < until, "{what}");
        // Asked again and again without a pause, it would take a core from what it waits for.
        std::thread::park_timeout(Duration::from_millis(2));
    }
}
