//! Pigments whose dust or spray is poisonous, by the element that their Colour Index name stands for.

/// An element of which pigments are made, with the Colour Index names of those that hold it. Those that
/// hold two stand in both rows. Colour Index International, as usually listed. [memory]
type Row = (&'static str, &'static [&'static str]);

#[rustfmt::skip]
const ELEMENTS: [Row; 6] = [
    ("lead", &["PW1", "PW2", "PW3", "PW16", "PY34", "PY41", "PY45", "PY46", "PY48", "PY103", "PO21", "PO45",
        "PR103", "PR104", "PR105", "PG15"]),
    ("cadmium", &["PY35", "PY37", "PO20", "PO23", "PR108", "PR113"]),
    ("cobalt", &["PB28", "PB35", "PB36", "PB72", "PB73", "PB74", "PB81", "PG14", "PG19", "PG26", "PG50",
        "PV14", "PV47", "PV48", "PV49", "PY40", "PBk13", "PBk25", "PBk27", "PBk29"]),
    ("nickel", &["PY53", "PY57", "PY150", "PY153", "PY157", "PY161", "PY189", "PO59", "PO65", "PO68", "PR257",
        "PR271", "PG10", "PG50", "PBk25", "PBk30", "PBr34"]),
    ("chromium", &["PY31", "PY32", "PY33", "PY34", "PY36", "PY162", "PY163", "PO21", "PO45", "PR103", "PR104",
        "PR230", "PR233", "PR235", "PR236", "PB36", "PG15", "PG17", "PG18", "PG26", "PG48", "PG51", "PBr24",
        "PBr29", "PBr33", "PBr35", "PBr37", "PBr40", "PBk27", "PBk28", "PBk30"]),
    // PBr7 names raw earths of all kinds: those that are umbers hold manganese, and the name does not tell.
    ("manganese", &["PV16", "PB33", "PY164", "PR48:4", "PR52:2", "PR58:4", "PR63:2", "PR231", "PBr7", "NBr7", "PBr8", "PBr33",
        "PBr40", "PBr43", "PBr45", "PBk14", "PBk26", "PBk27", "PBk33"]),
];

/// How a pigment stands light, as artists' paint.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Lightfastness {
    /// ASTM D4303 category I.
    Excellent,
    /// Category II.
    VeryGood,
    /// Category III: it fades in years of light.
    Fair,
    /// Category IV or V: it fades in months.
    Poor,
}

impl Lightfastness {
    /// What painters say.
    pub const fn said(self) -> &'static str {
        match self {
            Self::Excellent => "lightfast (I)",
            Self::VeryGood => "lightfast (II)",
            Self::Fair => "fades in years of light (III)",
            Self::Poor => "fades in months of light",
        }
    }
}

/// Usual pigments by their category of ASTM D4303 in acrylic. [memory] A tube's own label goes before it.
#[rustfmt::skip]
const LIGHTFAST: [(Lightfastness, &[&str]); 4] = [
    (Lightfastness::Excellent, &["PW4", "PW6", "PW20", "PBk7", "PBk9", "PBk11", "PB15", "PB28", "PB29", "PB35", "PB36",
        "PB60", "PG7", "PG17", "PG18", "PG36", "PG50", "PBr7", "PY35", "PY42", "PY43", "PY53", "PY110", "PY129", "PY150",
        "PY184", "PO20", "PO48", "PO73", "PR101", "PR108", "PR122", "PR177", "PR179", "PR202", "PR206", "PR254", "PR255",
        "PR264", "PV15", "PV16", "PV19", "PV23"]),
    (Lightfastness::VeryGood, &["PY3", "PY65", "PY74", "PY83", "PY97", "PO36", "PO62", "PR112", "PR170", "PR188", "PB27"]),
    (Lightfastness::Fair, &["PY1", "PO5", "PR9", "PR3"]),
    (Lightfastness::Poor, &["PR83", "PR173", "PV1", "PV2", "PV3", "PB1", "PY100", "PR48", "PR81"]),
];

/// How the pigment `name` stands light, when it is one of the usual.
///
/// ```
/// use ulvek_core::mix::{Lightfastness, lightfastness};
/// assert_eq!(lightfastness("PB15:3"), Some(Lightfastness::Excellent));
/// assert_eq!(lightfastness("moonlight"), None);
/// ```
pub fn lightfastness(name: &str) -> Option<Lightfastness> {
    let stem = name.split(':').next().unwrap_or(name);
    let known = |names: &[&str]| names.iter().any(|ci| ci.eq_ignore_ascii_case(stem));
    LIGHTFAST.iter().find(|(_, names)| known(names)).map(|(category, _)| *category)
}

/// How an element is told in a painter's own words about a paint or a hazard; chromium also in "chromate" and
/// "chrome".
const WORDS: [(&str, &str); 9] = [
    ("lead", "lead"),
    ("cadmium", "cadmium"),
    ("cobalt", "cobalt"),
    ("cobalt", "cerulean"),
    ("nickel", "nickel"),
    ("chromium", "chrom"),
    ("chromium", "viridian"),
    ("manganese", "manganese"),
    ("manganese", "umber"),
];

/// Elements by their signs, which stand for them as whole words written just so. That of cobalt also ends
/// the name of a company, and counts only after "contains".
const SIGNS: [(&str, &str); 6] = [
    ("lead", "Pb"),
    ("cadmium", "Cd"),
    ("cobalt", "Co"),
    ("nickel", "Ni"),
    ("chromium", "Cr"),
    ("manganese", "Mn"),
];

/// Colours of the Colour Index by the letters that stand for them.
const COLOURS: [(&str, &str); 10] = [
    ("white", "W"),
    ("yellow", "Y"),
    ("orange", "O"),
    ("red", "R"),
    ("violet", "V"),
    ("blue", "B"),
    ("green", "G"),
    ("brown", "Br"),
    ("black", "Bk"),
    ("metal", "M"),
];

/// The Colour Index names in a text, however they are written: "PR108", "P.R. 108", "Pigment Red 108",
/// "C.I. Natural Brown 7" (NBr7), "PB15:3".
///
/// ```
/// use ulvek_core::mix::colour_index_names;
/// assert_eq!(colour_index_names("Red, C.I. Pigment Red 108 and pr 254"), ["PR108", "PR254"]);
/// ```
pub fn colour_index_names(text: &str) -> Vec<String> {
    let joined = text.replace('.', "");
    let mut words: Vec<String> = Vec::new();
    for word in joined.split(|c: char| !c.is_alphanumeric() && c != ':').filter(|w| !w.is_empty()) {
        // "PR108" is letters and a number, as "PR 108" is.
        let at = word.find(|c: char| c.is_ascii_digit()).unwrap_or(word.len());
        let (letters, number) = word.split_at(at);
        words.extend([letters, number].into_iter().filter(|w| !w.is_empty()).map(str::to_owned));
    }
    let starts_with_digit = |w: &String| w.starts_with(|c: char| c.is_ascii_digit());
    let mut found = Vec::new();
    for n in (0..words.len()).filter(|n| starts_with_digit(&words[*n])) {
        let before = |k: usize| n.checked_sub(k).map(|at| words[at].to_lowercase());
        let (Some(last), class) = (before(1), before(2)) else { continue };
        let letters = COLOURS.iter().find_map(|(colour, letters)| {
            // "No" is a number.
            let classes = ["p", "n"].into_iter().filter(|class| (*class, *letters) != ("n", "O"));
            let short = classes
                .into_iter()
                .find(|class| last == format!("{class}{letters}").to_lowercase());
            let long = || {
                let class = class.as_deref().filter(|_| last == *colour)?;
                ["pigment", "natural"].contains(&class).then(|| &class[..1])
            };
            let class = short.or_else(long)?;
            Some(format!("{}{letters}", class.to_uppercase()))
        });
        found.extend(letters.map(|letters| format!("{letters}{}", words[n].trim_end_matches(':'))));
    }
    found
}

/// Whether a name is that of a colour made without the pigment it is called by: "Cadmium yellow hue",
/// "cadmium-free red".
pub(super) fn is_hue(name: &str) -> bool {
    let name = name.to_lowercase();
    name.split(|c: char| !c.is_alphabetic())
        .any(|word| matches!(word, "hue" | "free" | "imitation"))
}

/// The poisonous element in the pigment `name`, a Colour Index name such as PR108 or PB15:3.
///
/// ```
/// use ulvek_core::mix::poisonous;
/// assert_eq!(poisonous("PR108"), Some("cadmium"));
/// assert_eq!(poisonous("PB15:3"), None);
/// ```
pub fn poisonous(name: &str) -> Option<&'static str> {
    // PY35:1 is a kind of PY35; of lakes the salt is in what stands after the colon.
    let stem = name.split(':').next().unwrap_or(name);
    let named = |ci: &&str| ci.eq_ignore_ascii_case(name) || ci.eq_ignore_ascii_case(stem);
    ELEMENTS.iter().find(|(_, names)| names.iter().any(named)).map(|(element, _)| *element)
}

/// The poisonous element that a text names as a word of its own.
pub(super) fn poison_in(text: &str) -> Option<&'static str> {
    let as_written: Vec<&str> =
        text.split(|c: char| !c.is_alphabetic()).filter(|word| !word.is_empty()).collect();
    let contains = as_written.iter().any(|word| word.eq_ignore_ascii_case("contains"));
    let counts = |sign: &str| sign != "Co" || contains;
    let signed = |word: &&str| {
        SIGNS.iter().find(|(_, sign)| sign == word && counts(sign)).map(|(element, _)| *element)
    };
    if let Some(element) = as_written.iter().find_map(signed) {
        return Some(element);
    }
    let text = text.to_lowercase();
    let words: Vec<&str> =
        text.split(|c: char| !c.is_alphabetic()).filter(|word| !word.is_empty()).collect();
    words.iter().enumerate().find_map(|(n, word)| {
        let leads = *word == "lead" && words.get(n + 1) == Some(&"to");
        let names = |(_, stem): &&(&'static str, &str)| {
            if *stem == "chrom" { word.starts_with(stem) } else { word == stem && !leads }
        };
        WORDS.iter().find(names).map(|(element, _)| *element)
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_name_of_these_elements_is_known() {
        // By the chemistry of the pigment as Colour Index International lists it. [memory]
        let held = [
            ("lead", "PW1 PY34 PY41 PR103 PR104 PR105 PO21"),
            (
                "cadmium",
                "PY35 PY35:1 PY37 PY37:1 PO20 PO20:1 PO23 PO23:1 PR108 PR108:1 PR113 PR113:1",
            ),
            ("cobalt", "PB28 PB35 PB36 PB72 PB74 PG14 PG19 PG26 PG50 PV14 PV47 PV48 PV49 PY40"),
            ("nickel", "PY53 PY57 PY150 PY157 PO68 PR257 PG10"),
            ("chromium", "PG17 PG18 PBr24 PBr29 PY36 PY162"),
            ("manganese", "PV16 PB33 PY164 PBr7 PBr8 PBk14 PBk26 PR48:4"),
        ];
        for (element, names) in held {
            for name in names.split(' ') {
                assert_eq!(poisonous(name), Some(element), "{name}");
            }
        }
        // Titanium, zinc, iron, carbon, organic and bismuth pigments; copper is no poison of dust here.
        for name in "PW4 PW6 PY42 PY43 PR101 PBk7 PBk9 PBk11 PB15:3 PB29 PG7 PV19 PR254 PY74 PY184 PO73 PR48:2"
            .split(' ')
        {
            assert_eq!(poisonous(name), None, "{name}");
        }
    }

    #[test]
    fn a_pigment_is_found_however_it_is_written() {
        for (text, names) in [
            ("PR 108", vec!["PR108"]),
            ("Pigment Red 108", vec!["PR108"]),
            ("C.I. Pigment Yellow 35:1, P.W. 6", vec!["PY35:1", "PW6"]),
            ("Natural Brown 7", vec!["NBr7"]),
            ("pbk7/PBr7", vec!["PBk7", "PBr7"]),
            ("Studio 15 red no 3", vec![]),
        ] {
            assert_eq!(colour_index_names(text), names, "{text}");
        }
        for name in ["PR231", "NBr7"] {
            assert_eq!(poisonous(name), Some("manganese"), "{name}");
        }
        let own = |name: &str| {
            let mix = crate::mix::Composition::try_new(0.4, 0.55, 0.05).unwrap();
            crate::mix::Material::new("own", name, crate::mix::MaterialKind::Paint, mix)
        };
        let paint = |name: &str| own(name).toxic_pigment();
        // What hangs on its pigments finds them too: no white in it, and nothing that scatters.
        let mut mixed = own("Sky");
        assert!(mixed.wants_tint());
        mixed.pigments = vec!["Pigment Blue 29".into()];
        assert!(mixed.wants_tint() && mixed.hardly_scatters());
        mixed.pigments.push("C.I. P.W. 6".into());
        assert!(!mixed.wants_tint() && !mixed.hardly_scatters());
        // It is said of a painter's own material too, beside what was noted.
        let mut red = own("Cadmium red");
        assert!(red.hurts().unwrap().contains("poisonous as dust or spray"));
        red.hazards = Some("Stains.".into());
        let both = red.hurts().unwrap();
        assert!(both.starts_with("Stains. ") && both.contains("poisonous"), "{both}");
        red.hazards = Some("Cadmium: wear gloves.".into());
        assert_eq!(red.hurts(), red.hazards);
        for name in
            ["Cadmium yellow", "Umber, raw", "Red (contains Cd)", "Cerulean", "Blue P.B. 28"]
        {
            assert!(paint(name).is_some(), "{name}");
        }
        for name in ["Cadmium yellow hue", "Cadmium-free red", "Paint Co red", "Lamp black"] {
            assert_eq!(paint(name), None, "{name}");
        }
    }

    #[test]
    fn a_painters_own_words_count_and_only_whole_words() {
        assert_eq!(poison_in("Contains Cobalt; see the sheet"), Some("cobalt"));
        assert_eq!(poison_in("zinc chromate"), Some("chromium"));
        assert_eq!(poison_in("Lead white"), Some("lead"));
        assert_eq!(poison_in("may lead to allergy; misleading, leaden"), None);
    }
}
