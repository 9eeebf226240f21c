//! The tokens of instruments, and how often each may send.

use crate::problem::Problem;
use base64::Engine;
use base64::prelude::BASE64_URL_SAFE_NO_PAD;
use governor::clock::{Clock, DefaultClock};
use governor::{DefaultKeyedRateLimiter, Quota, RateLimiter};
use rand::RngCore;
use sha2::{Digest, Sha256};
use std::num::NonZeroU32;
use std::sync::Arc;
use uuid::Uuid;

/// Readings of one instrument that are taken in the long run [1/s]. [practice] a sensor of a room
/// sends one in a minute
const PER_SECOND: NonZeroU32 = NonZeroU32::new(5).unwrap();
/// Readings that may come at once: two days of minutes that a device kept. [practice]
const AT_ONCE: NonZeroU32 = NonZeroU32::new(3000).unwrap();
/// Random bytes of a token. [practice] 192 bits: not to be guessed
const TOKEN_BYTES: usize = 24;

/// How often each instrument may send; cheap to clone. Strangers share one allowance.
#[derive(Clone)]
pub struct Pace(Arc<DefaultKeyedRateLimiter<Uuid>>);

impl Default for Pace {
    fn default() -> Self {
        Self(Arc::new(RateLimiter::keyed(Quota::per_second(PER_SECOND).allow_burst(AT_ONCE))))
    }
}

impl Pace {
    /// Holds that `instrument` may send `readings` more now.
    ///
    /// # Errors
    /// 429 when it sends faster than that.
    pub fn hold(&self, instrument: Uuid, readings: usize) -> Result<(), Problem> {
        let count = u32::try_from(readings).ok().and_then(NonZeroU32::new);
        let count = count.unwrap_or(NonZeroU32::MIN);
        let wait_s = match self.0.check_key_n(&instrument, count) {
            Ok(Ok(())) => return Ok(()),
            Ok(Err(not_yet)) => not_yet.wait_time_from(DefaultClock::default().now()).as_secs() + 1,
            // More at once than are ever taken at once: with all of the allowance back, send fewer.
            Err(_) => u64::from(AT_ONCE.get() / PER_SECOND.get()),
        };
        Err(Problem::too_fast(PER_SECOND.get(), u16::try_from(wait_s).unwrap_or(u16::MAX)))
    }
}

/// A new token, and what is kept of it.
pub fn new_token() -> (String, [u8; 32]) {
    let mut bytes = [0u8; TOKEN_BYTES];
    rand::rng().fill_bytes(&mut bytes);
    let token = format!("ulvek_{}", BASE64_URL_SAFE_NO_PAD.encode(bytes));
    let hash = hash(&token);
    (token, hash)
}

/// What is kept of a token.
pub fn hash(token: &str) -> [u8; 32] {
    Sha256::digest(token.as_bytes()).into()
}
