//! The one type of a moment that comes in from outside: bodies, queries, documents, tables, the command line.

use chrono::{DateTime, FixedOffset, SubsecRound, Utc};
use chrono_tz::Tz;
use schemars::{JsonSchema, Schema, SchemaGenerator};
use serde::{Deserialize, Deserializer, Serialize, Serializer, de::Error};
use std::borrow::Cow;
use std::str::FromStr;
use ulvek_core::quantity::{MomentFault, check_moment};
use ulvek_store::DIGITS;
use utoipa::openapi::{KnownFormat, ObjectBuilder, RefOr, SchemaFormat, Type};
use utoipa::{PartialSchema, ToSchema};

/// A moment that may be: of the table of dates, no leap second, as fine as it is kept (a microsecond).
/// Written as RFC 3339, with the offset it came with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct Moment(DateTime<FixedOffset>);

impl Moment {
    /// The instant, with the offset of the zone `zone`.
    pub fn local(at: DateTime<Utc>, zone: Tz) -> Self {
        Self(at.with_timezone(&zone).fixed_offset())
    }

    /// The instant.
    pub fn utc(self) -> DateTime<Utc> {
        self.0.with_timezone(&Utc)
    }
}

impl TryFrom<DateTime<FixedOffset>> for Moment {
    type Error = MomentFault;

    fn try_from(at: DateTime<FixedOffset>) -> Result<Self, MomentFault> {
        check_moment(at.with_timezone(&Utc)).map(|_| Self(at.trunc_subsecs(DIGITS)))
    }
}

impl FromStr for Moment {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        let read = DateTime::parse_from_rfc3339(text);
        let at = read.map_err(|e| super::plain_words(&e.to_string()))?;
        Self::try_from(at).map_err(|fault| fault.to_string())
    }
}

impl Serialize for Moment {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.0.serialize(serializer)
    }
}

impl<'de> Deserialize<'de> for Moment {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let at = DateTime::<FixedOffset>::deserialize(deserializer)?;
        Self::try_from(at).map_err(D::Error::custom)
    }
}

impl PartialSchema for Moment {
    fn schema() -> RefOr<utoipa::openapi::Schema> {
        ObjectBuilder::new()
            .schema_type(Type::String)
            .format(Some(SchemaFormat::KnownFormat(KnownFormat::DateTime)))
            .description(Some("A moment (RFC 3339) from 2000 to 2099, no leap second."))
            .into()
    }
}

impl ToSchema for Moment {}

impl JsonSchema for Moment {
    fn inline_schema() -> bool {
        true
    }

    fn schema_name() -> Cow<'static, str> {
        "Moment".into()
    }

    fn json_schema(generator: &mut SchemaGenerator) -> Schema {
        DateTime::<FixedOffset>::json_schema(generator)
    }
}

/// A moment of one row of many: one that cannot be is told of that row and leaves the others alone.
pub mod of_a_row {
    use super::{DateTime, FixedOffset, Moment, MomentFault, Serialize};
    use serde::{Deserialize, Deserializer, Serializer};

    /// Writes it; one that cannot be is written as nothing.
    ///
    /// # Errors
    /// Those of the serializer.
    pub fn serialize<S: Serializer>(
        at: &Result<Moment, MomentFault>,
        serializer: S,
    ) -> Result<S::Ok, S::Error> {
        at.ok().serialize(serializer)
    }

    /// Reads it; only what is no date and time at all is an error.
    ///
    /// # Errors
    /// Those of the deserializer.
    pub fn deserialize<'de, D: Deserializer<'de>>(
        deserializer: D,
    ) -> Result<Result<Moment, MomentFault>, D::Error> {
        DateTime::<FixedOffset>::deserialize(deserializer).map(Moment::try_from)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_moment_no_clock_shows_is_no_moment() {
        let read = |text: &str| text.parse::<Moment>().map(|at| at.utc().to_rfc3339());
        assert_eq!(
            read("2026-11-30T11:59:59.1234567+01:00").unwrap(),
            "2026-11-30T10:59:59.123456+00:00"
        );
        for (text, why) in [
            ("2026-11-30T10:59:60Z", "must have seconds from 00 to 59, not 60"),
            ("-0001-01-01T00:00:00Z", "is not a date or time"),
            ("1999-12-31T23:59:59Z", "must be from 2000-01-01 to 2099-12-31, not 1999-12-31"),
            ("2100-01-01T00:30:00+01:00", ""),
            ("2100-01-01T00:30:00Z", "must be from 2000-01-01"),
            ("soon", "is not a date or time"),
        ] {
            match read(text) {
                Err(said) => assert!(!why.is_empty() && said.starts_with(why), "{text}: {said}"),
                Ok(_) => assert!(why.is_empty(), "{text} is a moment"),
            }
        }
    }
}
