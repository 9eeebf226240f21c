//! The application as a process with its private MariaDB: set up, guarded, kept, and stopped.
#![allow(clippy::unwrap_used)]

mod commands;
mod faults;
mod harness;

use harness::*;
use nix::sys::signal::Signal;
use std::io::{BufRead, BufReader, Write};
use std::net::TcpStream;
use std::os::unix::fs::PermissionsExt;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

#[test]
fn ctrl_c_stops_all_of_it_and_the_next_start_finds_everything_again() {
    let scratch = Scratch::new("restart");
    let (mut child, address) = serve(&scratch);
    let before = get(&address, "/api/studios");
    assert!(before.contains("North-light room, Varnholt"), "{before}");
    let asset = get(&address, "/assets/app-1a2b.js");
    assert!(asset.contains("cache-control: public, max-age=31536000, immutable"), "{asset}");
    let page = get_as(&address, "/pictures/any", "text/html,application/xhtml+xml");
    assert!(page.contains("<title>Ulvek</title>") && page.contains("cache-control: no-cache"));
    for path in ["/healthz", "/metrics", "/pictures/any"] {
        let answer = get(&address, path);
        assert!(answer.starts_with("HTTP/1.1 404") && !answer.contains("<title>"), "{answer}");
    }
    let database = database_pid(&scratch);
    signal(child.id(), Signal::SIGINT);
    assert!(child.wait().unwrap().success());
    assert!(!runs(database), "MariaDB is stopped too");

    let (mut child, address) = serve(&scratch);
    let after = get(&address, "/api/studios");
    let body = |answer: &str| answer.rsplit("\r\n\r\n").next().unwrap().to_owned();
    assert_eq!(body(&before), body(&after), "the demo is loaded once, and kept");
    signal(child.id(), Signal::SIGTERM);
    assert!(child.wait().unwrap().success());
}

#[test]
fn the_private_database_lets_nobody_else_in_and_is_started_again_when_it_dies() {
    let scratch = Scratch::new("private");
    // A MariaDB takes away every temporary table that lies where it keeps its own when it starts.
    let shared = scratch.0.join("shared");
    let of_another = shared.join("#sql-temptable-1-1-1.MAI");
    std::fs::create_dir(&shared).unwrap();
    std::fs::set_permissions(&shared, std::fs::Permissions::from_mode(0o777)).unwrap();
    std::fs::write(&of_another, "in use").unwrap();
    let (mut child, address) = serve_by(command(&scratch, LOOPBACK).env("TMPDIR", &shared));
    assert!(of_another.exists(), "a temporary table of another server is gone");
    let mode = |file: &str| {
        std::fs::metadata(scratch.0.join("data").join(file)).unwrap().permissions().mode() & 0o777
    };
    assert_eq!(mode("password"), 0o600);
    assert!(!scratch.0.join("data/account.sql").exists(), "the password lies in one place only");
    let client = |arguments: &[&str]| {
        let out = Command::new("mariadb-admin")
            .arg("--no-defaults")
            .args(arguments)
            .arg("status")
            .output()
            .unwrap();
        (out.status.success(), String::from_utf8_lossy(&out.stderr).into_owned())
    };
    let socket = format!("--socket={}", scratch.0.join("data/data/s").display());
    let line = std::fs::read(format!("/proc/{}/cmdline", database_pid(&scratch))).unwrap();
    let port = line.split(|b| *b == 0).find(|w| w.starts_with(b"--port=")).unwrap();
    let port = String::from_utf8(port.to_vec()).unwrap();
    // The installer makes a root without a password for every name of this machine.
    for user in ["root", "", "mysql"] {
        for way in [&[socket.as_str()][..], &["--protocol=tcp", "--host=127.0.0.1", &port]] {
            let user = format!("--user={user}");
            let arguments: Vec<&str> = way.iter().copied().chain([user.as_str()]).collect();
            let (let_in, said) = client(&arguments);
            assert!(!let_in, "{arguments:?} is let in");
            assert!(said.contains("denied") || said.contains("locked"), "{said}");
        }
    }

    let database = database_pid(&scratch);
    signal(database, Signal::SIGKILL);
    wait_until("MariaDB is not started again", || {
        std::fs::read_to_string(scratch.0.join("data/data/pid"))
            .is_ok_and(|text| text.trim().parse() != Ok(database))
    });
    wait_until("the application does not recover", || {
        get(&address, "/api/health").starts_with("HTTP/1.1 200")
    });
    signal(child.id(), Signal::SIGTERM);
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

#[test]
fn an_application_that_was_killed_is_started_again_and_keeps_what_it_said_it_kept() {
    let scratch = Scratch::new("killed");
    let (mut child, address) = serve(&scratch);
    let before = get(&address, "/api/studios");
    let orphan = database_pid(&scratch);
    // A second one beside it is refused at once, and harms nothing.
    let said = refusal(&scratch);
    assert!(said.contains("is in use by another Ulvek (process "), "{said}");
    child.kill().unwrap();
    child.wait().unwrap();
    assert!(runs(orphan), "its database goes on");
    let (child, address) = serve(&scratch);
    assert!(!runs(orphan), "and is ended by the next start");
    let body = |answer: &str| answer.rsplit("\r\n\r\n").next().unwrap().to_owned();
    assert_eq!(body(&before), body(&get(&address, "/api/studios")));
    end(child);
}

#[test]
fn a_folder_that_is_not_ours_is_left_as_it_is() {
    let scratch = Scratch::new("foreign");
    let data = scratch.0.join("data");
    std::fs::create_dir_all(data.join("data")).unwrap();
    std::fs::write(data.join("data/letter.txt"), "keep me").unwrap();
    let owner = std::fs::metadata(&data).unwrap();
    let said = refusal(&scratch);
    assert!(said.contains("is not empty and was not made by Ulvek"), "{said}");
    assert_eq!(std::fs::read_to_string(data.join("data/letter.txt")).unwrap(), "keep me");
    assert_eq!(std::fs::read_dir(&data).unwrap().count(), 1, "nothing was put beside it");
    use std::os::unix::fs::MetadataExt;
    assert_eq!(std::fs::metadata(&data).unwrap().uid(), owner.uid());

    // A folder of ours whose database is gone is not begun anew either.
    std::fs::remove_dir_all(&data).unwrap();
    let (child, _) = serve(&scratch);
    end(child);
    std::fs::rename(data.join("data"), scratch.0.join("elsewhere")).unwrap();
    let said = refusal(&scratch);
    assert!(said.contains("the database of this folder is gone"), "{said}");
    std::fs::rename(scratch.0.join("elsewhere"), data.join("data")).unwrap();
    let (child, _) = serve(&scratch);
    end(child);
}

#[test]
fn half_sent_headers_stop_nobody_and_do_not_hold_the_end_up() {
    let scratch = Scratch::new("slow");
    let (mut child, address) = serve(&scratch);
    let half: Vec<TcpStream> = (0..400)
        .map(|_| {
            let mut stream = TcpStream::connect(&address).unwrap();
            stream.write_all(b"GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ").unwrap();
            stream
        })
        .collect();
    assert!(get(&address, "/api/health").starts_with("HTTP/1.1 200"), "others are served");
    let told = Instant::now();
    signal(child.id(), Signal::SIGTERM);
    assert!(child.wait().unwrap().success());
    assert!(told.elapsed() < Duration::from_secs(60), "one of them blocked the end for good");
    drop(half);
}

#[test]
fn a_second_signal_ends_it_at_once_and_its_database_too() {
    let scratch = Scratch::new("twice");
    let (mut child, address) = serve(&scratch);
    let database = database_pid(&scratch);
    // Somebody who never finishes asking keeps it from ending by itself for a while.
    let mut stream = TcpStream::connect(&address).unwrap();
    stream
        .write_all(
            b"POST /api/studios/demo HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 9\r\n\r\n",
        )
        .unwrap();
    signal(child.id(), Signal::SIGINT);
    wait_until("it goes on listening", || TcpStream::connect(&address).is_err());
    signal(child.id(), Signal::SIGINT);
    let status = child.wait().unwrap();
    assert_eq!(status.code(), Some(130), "{status}");
    wait_until("the database goes on", || !runs(database));
}

#[test]
fn others_on_the_network_are_let_in_only_with_the_word_for_it() {
    let scratch = Scratch::new("open");
    let out = command(&scratch, "0.0.0.0:0").stderr(Stdio::piped()).output();
    let out = out.unwrap();
    assert_eq!(out.status.code(), Some(2));
    let said = String::from_utf8(out.stderr).unwrap();
    assert!(said.contains("add --open-to-network"), "{said}");
    assert!(!scratch.0.join("data").exists(), "nothing was begun");
}

#[test]
fn two_applications_that_start_together_on_one_database_make_one_demo_and_both_serve() {
    let scratch = Scratch::new("together");
    let mut database = Command::new(env!("CARGO_BIN_EXE_ulvek"))
        .args(["database", "--data"])
        .arg(scratch.0.join("shared"))
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut url = String::new();
    BufReader::new(database.stdout.take().unwrap()).read_line(&mut url).unwrap();
    let start = || {
        let mut serving = command(&scratch, LOOPBACK);
        let mut child = serving.env("DATABASE_URL", url.trim()).spawn().unwrap();
        let out = BufReader::new(child.stdout.take().unwrap());
        (child, out)
    };
    let both = [start(), start()];
    for (mut child, mut out) in both {
        let mut said = String::new();
        out.read_line(&mut said).unwrap();
        let address = said.trim().rsplit('/').next().unwrap().to_owned();
        let studios = get(&address, "/api/studios");
        assert_eq!(studios.matches("North-light room, Varnholt").count(), 1, "{said}{studios}");
        signal(child.id(), Signal::SIGTERM);
        assert!(child.wait().unwrap().success());
    }
    signal(database.id(), Signal::SIGTERM);
    database.wait().unwrap();
}
