//! Being told to stop: once to end in order, twice to end at once.

use tokio::signal::unix::{Signal, SignalKind, signal};
use tokio::sync::watch;

/// Exit status of a program that was told twice to stop: that of Ctrl-C in a shell.
const TOLD_TWICE: i32 = 130;

/// Whether the application was told to stop; cheap to clone.
#[derive(Debug, Clone)]
pub struct Stop(watch::Receiver<bool>);

/// What is done before the application ends at once.
pub type AtOnce = std::sync::Arc<std::sync::Mutex<Option<crate::database::LastWord>>>;

impl Stop {
    /// Listens from now on to Ctrl-C, SIGTERM and SIGHUP. A second one ends the process at once,
    /// after `at_once`.
    ///
    /// # Errors
    /// When the system does not let it listen.
    pub fn listen(at_once: AtOnce) -> std::io::Result<Self> {
        let mut heard = Heard {
            end: signal(SignalKind::terminate())?,
            interrupt: signal(SignalKind::interrupt())?,
            hangup: signal(SignalKind::hangup())?,
        };
        let (sender, receiver) = watch::channel(false);
        tokio::spawn(async move {
            heard.one().await;
            sender.send_replace(true);
            heard.one().await;
            let last = at_once.lock().unwrap_or_else(std::sync::PoisonError::into_inner).take();
            if let Some(last) = last {
                last.say();
            }
            std::process::exit(TOLD_TWICE);
        });
        Ok(Self(receiver))
    }

    /// Waits until it is told.
    pub async fn told(&self) {
        let mut receiver = self.0.clone();
        if receiver.wait_for(|told| *told).await.is_err() {
            // Nobody can tell any more.
            std::future::pending::<()>().await;
        }
    }
}

struct Heard {
    end: Signal,
    interrupt: Signal,
    hangup: Signal,
}

impl Heard {
    async fn one(&mut self) {
        tokio::select! {
            _ = self.end.recv() => {}
            _ = self.interrupt.recv() => {}
            _ = self.hangup.recv() => {}
        }
    }
}
