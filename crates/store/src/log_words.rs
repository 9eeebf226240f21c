//! What an entry says in words: what is found by searching.

use crate::log_entry::Done;
use std::collections::HashMap;
use ulvek_core::mix::Material;
use ulvek_core::picture::Picture;

/// What an entry says in words: what is found by searching.
pub(crate) struct Words<'a> {
    /// None for what is about no picture.
    picture: Option<&'a Picture>,
    names: HashMap<&'a str, String>,
}

impl<'a> Words<'a> {
    pub fn of(picture: &'a Picture, shelf: &'a [Material]) -> Self {
        Self { picture: Some(picture), ..Self::of_none(shelf) }
    }

    pub fn of_none(shelf: &'a [Material]) -> Self {
        let named =
            |m: &'a Material| (m.id.as_str(), format!("{} {}", m.name, m.pigments.join(" ")));
        Self { picture: None, names: shelf.iter().map(named).collect() }
    }

    pub fn said(&self, what: &Done, step: Option<&str>) -> String {
        let mut said: Vec<String> = self.picture.iter().map(|p| p.title.clone()).collect();
        let steps = self.picture.iter().flat_map(|p| &p.steps);
        let step = step.and_then(|id| steps.clone().find(|s| s.id == id));
        said.extend(step.map(|s| format!("{} {}", s.title(), s.kind.word())));
        let mut material = |id: &str| said.extend(self.names.get(id).cloned());
        match what {
            Done::Laid(coat) => coat.mix.iter().for_each(|(id, _)| material(id)),
            Done::Happened { words, .. } => words.material.iter().for_each(|id| material(id)),
            _ => {}
        }
        said.extend(what.words());
        said.retain(|text| !text.is_empty());
        said.join("\n")
    }
}
