//! What a computation is known by.

use sha2::{Digest, Sha256};
use std::hash::{Hash, Hasher};
use ulvek_store::StudioState;
use uuid::Uuid;

/// Letters of a question that are kept, to name it in the log. [practice] its first word
const NAME_LETTERS: usize = 24;

/// What was asked, as a hash: equal questions about a studio in one state and minute have equal keys, and a long
/// question takes no more room than a short one.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct Key {
    /// The studio.
    pub studio: Uuid,
    hash: [u8; 32],
}

/// A key with a name for the log.
#[derive(Debug, Clone)]
pub struct Named {
    /// The key.
    pub key: Key,
    /// The beginning of the question.
    pub name: String,
}

impl Key {
    /// The key of `question` about `studio` that is made of `state`, in `minute` [min of the epoch]. A note in the day
    /// book changes no answer.
    pub fn named(studio: Uuid, state: &StudioState, minute: i64, question: &str) -> Named {
        let mut digest = Digesting(Sha256::new());
        state.without_daybook().hash(&mut digest);
        minute.hash(&mut digest);
        question.hash(&mut digest);
        let name = question.split(' ').next().unwrap_or_default();
        let name = name.chars().take(NAME_LETTERS).collect();
        Named { key: Self { studio, hash: digest.0.finalize().into() }, name }
    }

    /// A mark for an answer, in hexadecimal digits.
    pub fn mark(&self) -> String {
        self.hash[..8].iter().map(|byte| format!("{byte:02x}")).collect()
    }
}

/// Feeds what is hashed into a digest that nobody can make collide.
struct Digesting(Sha256);

impl Hasher for Digesting {
    fn write(&mut self, bytes: &[u8]) {
        self.0.update(bytes);
    }

    fn finish(&self) -> u64 {
        // Nobody asks: the digest itself is the answer.
        0
    }
}
