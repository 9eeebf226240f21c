//! The log as a table (RFC 4180): written whole, and notes and troubles read from one.

use super::readings::moment;
use chrono_tz::Tz;
use ulvek_core::deeds::{Told, ToldWhat};
use ulvek_core::picture::PaintTrouble;
use ulvek_core::quantity::{Checked, Fault};
use ulvek_core::studio::Studio;

/// Columns of the table, in their order.
pub const COLUMNS: [&str; 10] = [
    "at",
    "entered_at",
    "picture",
    "what",
    "step",
    "mix",
    "wet_film_um",
    "place",
    "material",
    "words",
];
/// Most rows that are read at once. [practice] a year of evenings
const MOST_ROWS: usize = 2_000;

/// One row: what it says, each in its column.
pub type Row = [String; COLUMNS.len()];

/// Writes a table; what a spreadsheet would take for a formula is kept from being one.
///
/// # Errors
/// Whatever the writer says; into memory it says nothing.
pub fn write_log(rows: impl Iterator<Item = Row>) -> Result<Vec<u8>, csv::Error> {
    let mut writer =
        csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(Vec::new());
    writer.write_record(COLUMNS)?;
    for row in rows {
        writer.write_record(row.map(|cell| unformula(&cell)))?;
    }
    writer.into_inner().map_err(|e| e.into_error().into())
}

/// Letters that make a spreadsheet take a cell for a formula, and the one that keeps them from it.
const MARKED: [char; 6] = ['=', '+', '-', '@', '\t', '\''];
/// Letters at which a spreadsheet set up otherwise begins a new cell inside of one.
const PARTING: [char; 4] = [';', '\t', '\n', '\r'];

/// Keeps what a spreadsheet would take for a formula from being one, also where it parts cells otherwise:
/// `'` stands before it. [`reformula`] is the way back.
fn unformula(cell: &str) -> String {
    let mut safe = String::with_capacity(cell.len() + 1);
    let mut begins = true;
    for letter in cell.chars() {
        if begins && MARKED.contains(&letter) {
            safe.push('\'');
        }
        safe.push(letter);
        begins = PARTING.contains(&letter);
    }
    safe
}

/// The cell that [`unformula`] wrote; one that was typed by hand stays as it is.
fn reformula(cell: &str) -> String {
    let mut text = String::with_capacity(cell.len());
    let mut begins = true;
    let mut letters = cell.chars().peekable();
    while let Some(letter) = letters.next() {
        let marked = letters.peek().copied().filter(|next| MARKED.contains(next));
        let kept = match marked.filter(|_| begins && letter == '\'') {
            Some(next) => {
                letters.next();
                next
            }
            None => letter,
        };
        text.push(kept);
        begins = PARTING.contains(&kept);
    }
    text
}

/// A row that can be told, or why not.
#[derive(Debug)]
pub struct Line {
    /// The line of the file on which it begins.
    pub line: u64,
    /// The place of the picture among the studio's, and what is told of it.
    pub told: Result<(usize, Told), String>,
}

/// Reads a table with the columns `at`, `picture` and `what` (`noted`, `misted`, or what went wrong), and, where
/// they are there, `step`, `place`, `material` and `words`; separated by commas or semicolons. A time without
/// an offset is that of `zone`. Of every row that cannot be told the reason is given.
///
/// # Errors
/// [`Fault`] when it is no such table at all.
pub fn read_log(text: &str, studio: &Studio, zone: Tz) -> Checked<Vec<Line>> {
    let text = text.trim_start_matches('\u{feff}');
    let head = text.lines().next().unwrap_or_default();
    let semicolons = head.matches(';').count() > head.matches(',').count();
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(if semicolons { b';' } else { b',' })
        .trim(csv::Trim::All)
        .flexible(true)
        .from_reader(text.as_bytes());
    let unread = |_| Fault::new("csv", "the first line cannot be read");
    let head: Vec<String> =
        reader.headers().map_err(unread)?.iter().map(str::to_lowercase).collect();
    let column = |name: &str| head.iter().position(|h| h == name);
    for name in ["at", "picture", "what"] {
        if column(name).is_none() {
            let why = format!(
                "line 1 has no column \"{name}\": it is not a log of Ulvek; its columns are {}",
                COLUMNS.join(", ")
            );
            return Err(Fault::new("csv", why));
        }
    }
    // The reader counts the second half of a line's end to the next line.
    let line_of = |position: Option<&csv::Position>, n: usize| {
        position.map_or(n as u64 + 2, |position| {
            let at = usize::try_from(position.byte()).unwrap_or(usize::MAX);
            position.line() + u64::from(text.as_bytes().get(at) == Some(&b'\n'))
        })
    };
    let mut lines = Vec::new();
    for (n, row) in reader.records().enumerate() {
        if n >= MOST_ROWS {
            return Err(Fault::new("csv", format!("at most {MOST_ROWS} rows are read at once")));
        }
        let (line, told) = match row {
            Ok(row) => {
                let line = line_of(row.position(), n);
                let told = if row.len() == head.len() {
                    let cell = |name: &str| {
                        let said = column(name).and_then(|c| row.get(c)).unwrap_or_default();
                        reformula(said)
                    };
                    told(studio, zone, cell)
                } else {
                    Err(format!("it has {} columns, the first line {}", row.len(), head.len()))
                };
                (line, told)
            }
            Err(e) => {
                let line = line_of(e.position(), n);
                (line, Err("it cannot be read: is it UTF-8?".to_owned()))
            }
        };
        lines.push(Line { line, told });
    }
    if lines.is_empty() {
        return Err(Fault::new("csv", "there is no row below the first line"));
    }
    Ok(lines)
}

fn told(studio: &Studio, zone: Tz, cell: impl Fn(&str) -> String) -> Result<(usize, Told), String> {
    let said = cell("at");
    let at = moment(&said, zone, None)?;
    let title = cell("picture");
    if title.is_empty() {
        return Err("it names no picture: only what is about one is read".to_owned());
    }
    let alike = |p: &ulvek_core::picture::Picture| p.title == title || p.id == title;
    let mut found = studio.pictures.iter().enumerate().filter(|(_, p)| alike(p)).map(|(p, _)| p);
    let p = found.next().ok_or_else(|| format!("no picture is called \"{title}\""))?;
    if found.next().is_some() {
        return Err(format!("more than one picture is called \"{title}\""));
    }
    let step = cell("step");
    let step = if step.is_empty() {
        None
    } else {
        let steps = &studio.pictures[p].steps;
        let named = |s: &&ulvek_core::picture::Step| s.id == step || s.title() == step;
        let found = steps.iter().find(named);
        Some(found.ok_or_else(|| format!("the picture has no step \"{step}\""))?.id.clone())
    };
    let material = cell("material");
    let material = if material.is_empty() {
        None
    } else {
        let named = |m: &&ulvek_core::mix::Material| m.id == material || m.name == material;
        let found = studio.materials.iter().find(named);
        Some(found.ok_or_else(|| format!("no material is called \"{material}\""))?.id.clone())
    };
    let what = match cell("what").as_str() {
        "noted" => ToldWhat::Noted,
        "misted" => ToldWhat::Misted,
        word => ToldWhat::Trouble(PaintTrouble::from_word(word).ok_or_else(|| {
            format!(
                "\"{word}\" is not brought in by a table: notes (noted), misted, and what went wrong are"
            )
        })?),
    };
    Ok((p, Told { at, step, material, place: cell("place"), words: cell("words"), what }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn a_formula_stays_a_text_however_a_spreadsheet_parts_its_cells() {
        assert_eq!(unformula("=1+1"), "'=1+1");
        assert_eq!(unformula("x;=1+1"), "x;'=1+1");
        assert_eq!(reformula("'tis the second glaze"), "'tis the second glaze", "typed by hand");
        assert_eq!(unformula("'tis"), "''tis");
    }

    proptest! {
        #[test]
        fn what_is_taken_out_is_read_back_the_same(cell in "[-a;=+@'\\t\\n]{0,12}") {
            let written = unformula(&cell);
            let parts = written.split(PARTING);
            prop_assert!(parts.clone().all(|p| !p.starts_with(['=', '+', '-', '@'])), "{written:?}");
            prop_assert_eq!(reformula(&written), cell);
        }
    }
}
