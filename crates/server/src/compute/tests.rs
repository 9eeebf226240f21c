//! Joining, turns, bounds and giving up, with computations that wait for a word.

use super::*;
use std::sync::mpsc::{Receiver, Sender, channel};
use ulvek_store::StudioState;
use uuid::Uuid;

fn key(studio: u128, question: &str) -> Named {
    Key::named(Uuid::from_u128(studio), &StudioState::default(), 0, question)
}

/// A computation that says that it began and ends when it is told to.
fn gate() -> (Sender<()>, Receiver<()>, impl FnOnce() -> (u32, u8) + Send + 'static) {
    let (go, told) = channel::<()>();
    let (say, began) = channel::<()>();
    let work = move || {
        let _ = say.send(());
        let _ = told.recv();
        (1, 7)
    };
    (go, began, work)
}

#[tokio::test(flavor = "multi_thread")]
async fn who_asks_the_same_joins_and_what_was_answered_is_kept() {
    let computer = Computer::default();
    let (go, began, work) = gate();
    let ask = |computer: Computer| async move {
        computer.ask(key(1, "a"), Lane::View, || -> (u32, u8) { (1, 9) }).await.unwrap()
    };
    let first = tokio::spawn({
        let computer = computer.clone();
        async move { computer.ask(key(1, "a"), Lane::View, work).await.unwrap() }
    });
    tokio::task::spawn_blocking(move || began.recv()).await.unwrap().unwrap();
    let second = tokio::spawn(ask(computer.clone()));
    go.send(()).unwrap();
    assert_eq!((*first.await.unwrap(), *second.await.unwrap()), (7, 7), "computed once");
    assert_eq!(*ask(computer).await, 7, "and kept");
}

#[tokio::test(flavor = "multi_thread")]
async fn what_nobody_waits_for_is_given_up() {
    let computer = Computer::default();
    let (say, began) = channel::<()>();
    let (ended, end) = channel::<bool>();
    struct Ended(Sender<bool>);
    impl Drop for Ended {
        fn drop(&mut self) {
            let _ = self.0.send(true);
        }
    }
    let work = move || -> (u32, u8) {
        let _ended = Ended(ended);
        let _ = say.send(());
        // A film that is followed again and again until the flag is seen.
        let room = ulvek_core::air::AirSeries::constant(
            ulvek_core::air::Air::try_new(21.0, 0.5, 0.15).unwrap(),
        );
        loop {
            let mut film = ulvek_core::film::Film::new(
                ulvek_core::film::Ground::SEALED,
                0.4,
                ulvek_core::film::Grid::PLANNING,
                0.0,
            );
            let mix = ulvek_core::mix::Composition::try_new(0.42, 0.53, 0.05).unwrap();
            film.lay(1e-4, mix);
            film.advance(&room, 1e6, None).unwrap();
        }
    };
    let asked = tokio::spawn({
        let computer = computer.clone();
        async move { computer.ask(key(1, "endless"), Lane::View, work).await.map(|_| ()) }
    });
    tokio::task::spawn_blocking(move || began.recv()).await.unwrap().unwrap();
    asked.abort();
    tokio::task::spawn_blocking(move || end.recv()).await.unwrap().unwrap();
    let again = computer.ask(key(1, "endless"), Lane::View, || (1, 3_u8)).await.unwrap();
    assert_eq!(*again, 3, "half an answer is not kept");
}

#[tokio::test(flavor = "multi_thread")]
async fn studios_take_turns_long_work_leaves_room_and_too_much_is_refused() {
    let computer = Computer::default();
    let (go, began, work) = gate();
    let busy = tokio::spawn({
        let computer = computer.clone();
        async move { computer.ask(key(1, "slow"), Lane::View, work).await.unwrap() }
    });
    tokio::task::spawn_blocking(move || began.recv()).await.unwrap().unwrap();
    // The same studio waits; another one does not.
    let mut waiting = Vec::new();
    for n in 0..40 {
        let asked = computer.begin(key(1, &format!("w{n}")), Lane::View, move |_| (1, n));
        match asked {
            Ok(begun) => waiting.push(begun),
            Err(problem) => {
                assert_eq!((n, problem.status), (32, 429));
                break;
            }
        }
    }
    let other = computer.ask(key(2, "quick"), Lane::View, || (1, 5_u8)).await.unwrap();
    assert_eq!(*other, 5);
    let long = computer
        .ask_within(Duration::from_secs(60), key(1, "long"), |progress| {
            progress.tell(1, 1);
            (1, 6_u8)
        })
        .await;
    assert_eq!(long.err().map(|p| p.status), Some(429), "its queue is full");
    go.send(()).unwrap();
    busy.await.unwrap();
    for (n, begun) in waiting.into_iter().enumerate() {
        let Begun::Going(asker) = begun else { unreachable!() };
        assert_eq!(*known::<i32>(asker.answer().await.unwrap()).unwrap(), n as i32);
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_refusal_is_not_kept_and_a_long_question_takes_no_more_room_than_a_short_one() {
    let computer = Computer::default();
    for answer in [4, 5] {
        // What weighs nothing is told and computed again.
        let told = computer.ask(key(1, "refused"), Lane::Quick, move || (0, answer)).await.unwrap();
        assert_eq!(*told, answer);
    }
    let long = "x".repeat(1 << 20);
    for n in 0..3 {
        let asked = key(1, &format!("what-if {n} {long}"));
        assert!(asked.name.len() < 32 && size_of_val(&asked.key) < 64);
        computer.ask(asked, Lane::Quick, || (1, 0)).await.unwrap();
    }
    assert_eq!(key(1, "what-if a").key, key(1, "what-if a").key);
    assert_ne!(key(1, "what-if a").key, key(1, "what-if b").key);
    assert_ne!(key(1, "what-if a").key, key(2, "what-if a").key);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_studio_whose_answers_take_long_keeps_no_other_one_waiting() {
    let computer = Computer::default();
    // One studio takes every place there is, with work that does not end by itself.
    let mut held = Vec::new();
    for (lane, n) in [(Lane::View, 0), (Lane::Long, 1), (Lane::Quick, 2), (Lane::Quick, 3)] {
        let (go, began, work) = gate();
        held.push((
            go,
            computer.begin::<u8>(key(1, &format!("hard {n}")), lane, |_| work()).unwrap(),
        ));
        drop(began);
    }
    for other in 2..5 {
        let asked = computer.ask(key(other, "easy"), Lane::View, move || (1, other));
        let told = tokio::time::timeout(Duration::from_secs(60), asked).await;
        assert_eq!(*told.expect("it is not held up").unwrap(), other);
    }
    for (go, begun) in held {
        go.send(()).unwrap();
        let Begun::Going(asker) = begun else { unreachable!() };
        asker.answer().await.unwrap();
    }
}
