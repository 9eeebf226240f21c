//! Enumerations whose cases have a word in studio documents.

/// Declares an enumeration whose cases each have a word in studio documents.
macro_rules! words {
    ($(#[$doc:meta])* $name:ident { $($(#[$case_doc:meta])* $case:ident = $word:literal,)+ }) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize)]
        pub enum $name {
            $($(#[$case_doc])* #[serde(rename = $word)] $case,)+
        }

        impl $name {
            /// Every case with its word in a studio document.
            pub const WORDS: &'static [(&'static str, $name)] = &[$(($word, Self::$case),)+];

            /// The case for a word of a studio document.
            pub fn from_word(word: &str) -> Option<Self> {
                Self::WORDS.iter().find(|(w, _)| *w == word).map(|(_, case)| *case)
            }

            /// The word in a studio document.
            pub const fn word(self) -> &'static str {
                match self {
                    $(Self::$case => $word,)+
                }
            }
        }
    };
}
pub(crate) use words;
