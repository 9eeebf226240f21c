//! Streams of events that are open: a bounded number for each client and in all. The one that was quiet longest
//! gives way to a new one.

use axum::response::sse::Event;
use futures_util::{Stream, StreamExt};
use std::convert::Infallible;
use std::net::IpAddr;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};
use tokio_util::sync::{CancellationToken, WaitForCancellationFutureOwned};

/// Streams of one client. [practice] a browser with four pages, two each
const MOST_OF_CLIENT: usize = 8;
/// Streams in all. [practice] half of the connections that are served
const MOST: usize = 500;
/// When the page of a stream that gave way may open another one: at once, it would only take the place of the
/// next [s]. [practice]
const COME_BACK: Duration = Duration::from_secs(60);

/// Where a request comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Client(pub IpAddr);

#[derive(Debug)]
struct Open {
    id: u64,
    client: Client,
    heard: Instant,
    gone: CancellationToken,
}

#[derive(Debug, Default)]
struct State {
    open: Vec<Open>,
    last_id: u64,
}

/// The streams that are open; cheap to clone.
#[derive(Debug, Clone, Default)]
pub struct Streams(Arc<Mutex<State>>);

/// The place of one stream, free again when it is dropped.
#[derive(Debug)]
pub struct StreamPlace {
    streams: Streams,
    id: u64,
    gone: CancellationToken,
}

impl Streams {
    fn state(&self) -> MutexGuard<'_, State> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// A place for a stream of `client`; where there is none left, the quietest one gives way.
    pub fn open(&self, client: Client) -> StreamPlace {
        let mut state = self.state();
        let of_client = state.open.iter().filter(|open| open.client == client).count();
        if of_client >= MOST_OF_CLIENT {
            state.give_way(|open| open.client == client);
        } else if state.open.len() >= MOST {
            state.give_way(|_| true);
        }
        state.last_id += 1;
        let (id, gone) = (state.last_id, CancellationToken::new());
        state.open.push(Open { id, client, heard: Instant::now(), gone: gone.clone() });
        drop(state);
        StreamPlace { streams: self.clone(), id, gone }
    }

    /// How many are open.
    pub fn count(&self) -> usize {
        self.state().open.len()
    }
}

impl State {
    fn give_way(&mut self, among: impl Fn(&Open) -> bool) {
        let quietest = (0..self.open.len())
            .filter(|n| among(&self.open[*n]))
            .min_by_key(|n| self.open[*n].heard);
        if let Some(n) = quietest {
            self.open.swap_remove(n).gone.cancel();
        }
    }
}

impl StreamPlace {
    /// Ends when the stream must give way.
    pub fn gives_way(&self) -> WaitForCancellationFutureOwned {
        self.gone.clone().cancelled_owned()
    }

    /// Says that something was sent on it just now.
    pub fn was_heard(&self) {
        let mut state = self.streams.state();
        if let Some(open) = state.open.iter_mut().find(|open| open.id == self.id) {
            open.heard = Instant::now();
        }
    }
}

impl Drop for StreamPlace {
    fn drop(&mut self) {
        self.streams.state().open.retain(|open| open.id != self.id);
    }
}

/// The `events` of a stream that has `place`; when it must give way it says when its page may come back.
pub fn placed(
    place: StreamPlace,
    events: impl Stream<Item = Result<Event, Infallible>>,
) -> impl Stream<Item = Result<Event, Infallible>> {
    let last = Event::default().retry(COME_BACK).comment("this stream gave way to newer ones");
    let gives_way = place.gives_way();
    events
        .inspect(move |_| place.was_heard())
        .take_until(gives_way)
        .chain(futures_util::stream::iter([Ok(last)]))
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::net::Ipv4Addr;

    fn client(n: u32) -> Client {
        Client(IpAddr::V4(Ipv4Addr::from(n)))
    }

    #[test]
    fn the_ninth_stream_of_a_client_takes_the_place_of_its_quietest() {
        let streams = Streams::default();
        let other = streams.open(client(2));
        let mut mine: Vec<StreamPlace> = (0..8).map(|_| streams.open(client(1))).collect();
        mine[0].was_heard();
        let ninth = streams.open(client(1));
        let gone: Vec<usize> = (0..8).filter(|n| mine[*n].gone.is_cancelled()).collect();
        assert_eq!(gone, [1], "the first one was heard since");
        assert!(!other.gone.is_cancelled() && !ninth.gone.is_cancelled());
        mine.clear();
        assert_eq!(streams.count(), 2, "places are given back");
    }

    #[test]
    fn there_are_never_more_than_five_hundred() {
        let streams = Streams::default();
        let open: Vec<StreamPlace> = (0..700).map(|n| streams.open(client(n / 4))).collect();
        assert_eq!(streams.count(), 500);
        assert!(open[..200].iter().all(|place| place.gone.is_cancelled()));
        assert!(open[200..].iter().all(|place| !place.gone.is_cancelled()));
    }
}
