//! What a reader of JSON says, in words for people.

use ulvek_core::quantity::Fault;

/// What is wrong with a value, without the words of the reader.
pub fn plain(error: &serde_json::Error) -> String {
    let said = error.to_string();
    // The place is told by path; line and column of a body nobody typed by hand say nothing.
    let said = said.rsplit_once(" at line ").map_or(said.as_str(), |(said, _)| said);
    plain_words(said)
}

/// The same for what a reader said.
pub fn plain_words(said: &str) -> String {
    let quoted = |text: &str| text.replace('`', "\"");
    if let Some(name) = said.strip_prefix("missing field ") {
        return format!("{} is missing", quoted(name));
    }
    if let Some(name) = said.strip_prefix("duplicate field ") {
        return format!("{} is said twice", quoted(name));
    }
    if let Some(rest) = said.strip_prefix("unknown field ") {
        let (name, known) = rest.split_once(", ").unwrap_or((rest, ""));
        let known = known.trim_start_matches("expected one of ").trim_start_matches("expected ");
        let known = known.trim_start_matches("there are no fields");
        let known = quoted(known);
        let hint = if known.is_empty() { String::new() } else { format!("; known are {known}") };
        return format!("{} is not known here{hint}", quoted(name));
    }
    if let Some(rest) = said.strip_prefix("unknown variant ") {
        let (name, known) = rest.split_once(", ").unwrap_or((rest, ""));
        let known = known.trim_start_matches("expected one of ").trim_start_matches("expected ");
        return format!("{} is not one of {}", quoted(name), quoted(known));
    }
    for begin in ["invalid type: ", "invalid value: ", "invalid length "] {
        let Some(rest) = said.strip_prefix(begin) else { continue };
        let (found, wanted) = rest.rsplit_once(", expected ").unwrap_or((rest, ""));
        return format!("must be {}, not {}", wanted_word(wanted), found_word(found));
    }
    if said.starts_with("input contains invalid characters")
        || said.starts_with("premature end of input")
        || said.starts_with("input is out of range")
        || said.starts_with("trailing input")
        || said.starts_with("input is not enough")
    {
        return "is not a date or time; write it as in 2027-01-15 or 2027-01-15T17:00:00+01:00"
            .to_owned();
    }
    quoted(said)
}

fn wanted_word(wanted: &str) -> String {
    match wanted {
        "f64" | "f32" => "a number".into(),
        "a string" | "string" | "str" => "a text".into(),
        "a boolean" => "true or false".into(),
        "a sequence" => "a list".into(),
        "unit" => "nothing".into(),
        w if w.starts_with("struct ") || w.starts_with("internally") || w == "a map" => {
            "an object with named fields".into()
        }
        "usize" | "u64" | "u32" | "u16" | "u8" => "a whole number from 0".into(),
        "i64" | "i32" => "a whole number".into(),
        w if w.contains("RFC 3339") || w.contains("date and time") => {
            "a time as in 2027-01-15T17:00:00+01:00".into()
        }
        w if w.contains("formatted date") => "a day as in 2027-01-15".into(),
        w => w.replace('`', "\""),
    }
}

fn found_word(found: &str) -> String {
    let found = found.replace('`', "\"");
    match found.as_str() {
        "null" | "unit" | "unit value" => "nothing".into(),
        "map" => "an object".into(),
        "sequence" => "a list".into(),
        text if text.starts_with("string ") => text.trim_start_matches("string ").to_owned(),
        other => ["integer ", "floating point ", "boolean "]
            .iter()
            .find_map(|kind| other.strip_prefix(kind))
            .unwrap_or(other)
            .trim_matches('"')
            .to_owned(),
    }
}

/// Why bytes were not read.
#[derive(Debug)]
pub enum Unread {
    /// They are no JSON; where and why.
    NotJson(String),
    /// They do not fit.
    Misfit(Fault),
}

impl From<Unread> for Fault {
    fn from(unread: Unread) -> Self {
        match unread {
            Unread::NotJson(said) => Self::new("", format!("the document cannot be read: {said}")),
            Unread::Misfit(refusal) => refusal,
        }
    }
}

/// Reads JSON, to its last byte.
///
/// # Errors
/// [`Unread`], which tells what is no JSON from what does not fit.
pub fn read_json<T: serde::de::DeserializeOwned>(bytes: &[u8]) -> Result<T, Unread> {
    let not_json = |error: &serde_json::Error| {
        let (line, column) = (error.line(), error.column());
        let what = if error.is_eof() { "it ends too soon" } else { "it is not JSON" };
        Unread::NotJson(format!("{what}, line {line}, column {column}"))
    };
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let read = serde_path_to_error::deserialize(&mut reader).map_err(|e| {
        let path = e.path().to_string();
        let inner = e.into_inner();
        if inner.is_data() {
            let path = if path == "." || path.contains('?') { "" } else { &path };
            return Unread::Misfit(Fault::new(path, plain(&inner)));
        }
        not_json(&inner)
    })?;
    reader.end().map_err(|e| not_json(&e))?;
    Ok(read)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_the_reader_says_is_said_in_words() {
        #[derive(Debug, serde::Deserialize)]
        #[serde(deny_unknown_fields)]
        #[allow(dead_code)]
        struct Coat {
            um: f64,
            laid: Option<chrono::DateTime<chrono::Utc>>,
        }
        let said =
            |text: &str| Fault::from(read_json::<Coat>(text.as_bytes()).unwrap_err()).to_string();
        assert_eq!(said("{}"), "\"um\" is missing");
        assert_eq!(said(r#"{"um": "x"}"#), "um: must be a number, not \"x\"");
        assert_eq!(said(r#"{"um": null}"#), "um: must be a number, not nothing");
        let unknown = said(r#"{"um": 1, "mm": 2}"#);
        assert_eq!(unknown, "mm: \"mm\" is not known here; known are \"um\" or \"laid\"");
        assert!(said(r#"{"um": 1, "laid": "soon"}"#).starts_with("laid: is not a date or time"));
        let early = "the document cannot be read: it ends too soon, line 1, column 9";
        assert_eq!(said(r#"{"um": 1,"#), early);
        let more = "the document cannot be read: it is not JSON, line 1, column 11";
        assert_eq!(said(r#"{"um": 1} {"#), more);
    }
}
