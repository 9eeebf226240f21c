//! Colour against published tables, closed limits and a general library of colour science.
#![allow(missing_docs, clippy::unwrap_used)]

use proptest::prelude::*;
use ulvek_core::colour::{
    Inside, Lab, Means, Optics, Seen, Spacing, Spectrum, Spot, Target, Tubes, Untold, Wish, grey,
    ground, matches, read_swatch, reconstruct, value_string, values_of,
};
use ulvek_core::mix::{
    Composition, Drawdown, Finish, Line, Material, MaterialKind, Mix, Part, Swatch, SwatchSeen,
    Tint, starter_shelf,
};

fn hex(text: &str) -> Swatch {
    Swatch::from_hex(text).unwrap()
}

#[test]
fn differences_are_those_of_the_published_pairs() {
    let table = include_str!("../testdata/ciede2000.txt");
    let rows: Vec<Vec<f64>> = table
        .lines()
        .filter(|line| !line.starts_with('#'))
        .map(|line| line.split(' ').map(|n| n.parse().unwrap()).collect())
        .collect();
    assert_eq!(rows.len(), 34);
    for row in rows {
        let lab = |at: usize| Lab { l: row[at], a: row[at + 1], b: row[at + 2] };
        let apart = lab(0).apart(lab(3));
        // The table has four digits.
        assert!((apart - row[6]).abs() < 1e-4, "{row:?}: {apart}");
        assert!((lab(3).apart(lab(0)) - row[6]).abs() < 1e-4, "{row:?} the other way round");
    }
}

/// CIE 1931 chromaticities of D65 and the primaries of sRGB: IEC 61966-2-1.
#[test]
fn white_and_primaries_lie_where_the_standard_puts_them() {
    let white = Seen(Spectrum::flat(1.0)).lab();
    assert!((white.l - 100.0).abs() < 1e-6 && white.a.hypot(white.b) < 0.01, "{white:?}");
    // Lab of the primaries follows from xy (.64, .33), (.30, .60), (.15, .06) and their luminances
    // .2126, .7152, .0722 under D65.
    for (swatch, [x, y, luminance]) in [
        (Swatch([255, 0, 0]), [0.64, 0.33, 0.2126]),
        (Swatch([0, 255, 0]), [0.30, 0.60, 0.7152]),
        (Swatch([0, 0, 255]), [0.15, 0.06, 0.0722]),
    ] {
        let f = |t: f64| {
            if t > (6.0f64 / 29.0).powi(3) { t.cbrt() } else { t * 841.0 / 108.0 + 4.0 / 29.0 }
        };
        let (cx, cz) = (x / y * luminance, (1.0 - x - y) / y * luminance);
        let (fx, fy, fz) = (f(cx / 0.95047), f(luminance), f(cz / 1.08883));
        let published = Lab { l: 116.0 * fy - 16.0, a: 500.0 * (fx - fy), b: 200.0 * (fy - fz) };
        assert!(Lab::of(swatch).apart(published) < 0.05, "{swatch:?}: {published:?}");
    }
}

#[test]
fn a_reconstructed_reflectance_looks_like_the_colour_it_was_made_from() {
    let steps = [0, 1, 28, 96, 160, 224, 254, 255];
    for r in steps {
        for g in steps {
            for b in steps {
                let wanted = Swatch([r, g, b]);
                let made = reconstruct(wanted);
                assert!(made.0.bands().iter().all(|band| (0.0..=1.0).contains(band)), "{wanted:?}");
                // Half a step of 8 bits: what is shown is the same step; of the darkest primaries a
                // reflectance holds a ten-thousandth.
                let shown = made.swatch().0;
                let off = shown.iter().zip(wanted.0).map(|(a, b)| a.abs_diff(b)).max().unwrap();
                assert!(
                    off <= u8::from(wanted.0.contains(&0) || wanted.0.contains(&255)),
                    "{wanted:?}: {shown:?}"
                );
            }
        }
    }
}

/// A film with the same numbers in every band.
fn film(k: f64, s: f64) -> Optics {
    Optics { k: Spectrum::flat(k), s: Spectrum::flat(s) }
}

fn over(optics: &Optics, under: f64, dry_m: f64) -> f64 {
    optics.over(&Inside(Spectrum::flat(under)), dry_m).0.bands()[0]
}

proptest! {
    /// Closed limits of Kubelka and Munk: P. Kubelka, J. Opt. Soc. Am. 38 (1948).
    #[test]
    fn a_film_has_the_limits_of_the_two_flux_equations(
        k in 1e2f64..1e6, s in 1e2f64..1e6, g in 0.01f64..0.99, um in 1.0f64..200.0,
    ) {
        let x = um * 1e-6;
        // Without scattering it is Beer's law, twice through.
        prop_assert!((over(&film(k, 0.0), g, x) - g * (-2.0 * k * x).exp()).abs() < 1e-12);
        // Without absorption it lightens as a pile of plates does.
        let white = (g + (1.0 - g) * s * x) / (1.0 + (1.0 - g) * s * x);
        prop_assert!((over(&film(0.0, s), g, x) - white).abs() < 1e-9);
        prop_assert!((over(&film(1e-9, s), g, x) - white).abs() < 1e-6);
        // Thick enough, it is its own colour, over anything; and a coat over itself changes nothing.
        let ratio = k / s;
        let own = 1.0 + ratio - (ratio * ratio + 2.0 * ratio).sqrt();
        prop_assert!((over(&film(k, s), g, 10.0) - own).abs() < 1e-9);
        prop_assert!((over(&film(k, s), own, x) - own).abs() < 1e-9);
        // Two half coats are a whole one.
        let halves = over(&film(k, s), over(&film(k, s), g, x / 2.0), x / 2.0);
        prop_assert!((halves - over(&film(k, s), g, x)).abs() < 1e-9);
    }

    /// What a paint does to the cards tells the paint.
    #[test]
    fn a_drawdown_gives_back_what_it_was_read_from(
        white in prop::array::uniform3(90u8..=235), darker in 0.35f64..0.9, um in 5.0f64..80.0,
    ) {
        // Darker over black, but never darker than a film that scatters nothing would be.
        let black: [u8; 3] = std::array::from_fn(|i| (f64::from(white[i]) * darker).round() as u8);
        let read = Drawdown { dry_um: um, ..Drawdown::usual(Swatch(white), Swatch(black)) };
        let told = Optics::told_by(&read).unwrap();
        for (card, seen) in [(read.cards.0, read.over_white), (read.cards.1, read.over_black)] {
            let now = told.over(&ground(card), um * 1e-6).seen().lab();
            prop_assert!(now.apart(Lab::of(seen)) < 0.5, "{now:?} {seen:?}");
        }
    }
}

#[test]
fn what_two_readings_cannot_tell_is_said() {
    let read = |white, black| Optics::told_by(&Drawdown::usual(hex(white), hex(black)));
    assert_eq!(read("#404040", "#505050"), Err(Untold::DarkerOverWhite));
    assert_eq!(read("#404040", "#404040"), Err(Untold::Equal));
    assert_eq!(read("#000000", "#000000"), Err(Untold::Equal));
    let swapped = Drawdown {
        cards: (hex("#1c1c1e"), hex("#f4f3f0")),
        ..Drawdown::usual(hex("#404040"), hex("#303030"))
    };
    assert_eq!(Optics::told_by(&swapped), Err(Untold::Cards));
    // Pure black over black alone is a paint: it takes all the light there is.
    let black = read("#202020", "#000000").unwrap();
    assert!(black.k.bands().iter().all(|k| k.is_finite() && *k > 0.0));
    // A clear film leaves the cards as they are.
    let clear = read("#f4f3f0", "#1c1c1e").unwrap();
    assert_eq!(clear, Optics::CLEAR);
}

/// A shelf of ten paints with one and the same share of solids, told by their two cards alone, and clear medium:
/// the readings are those of scripts/colour_reference.py.
fn ten() -> Vec<Material> {
    let read = [
        ("PB29", "#263496", "#121430"),
        ("PB15:3", "#0a3c82", "#0a1222"),
        ("PV19", "#aa1446", "#340e18"),
        ("PBr7", "#803c22", "#3a221a"),
        ("PY42", "#c4923e", "#a07838"),
        ("PY74", "#face1e", "#6e6024"),
        ("PW6", "#f3f3ef", "#dee0e2"),
        ("PW4", "#f3f3f0", "#787c84"),
        ("PR254", "#c42022", "#961e20"),
        ("PY150", "#d69614", "#342a18"),
    ];
    let half = Composition::try_new(0.5, 0.5, 0.0).unwrap();
    let paint = |(pigment, white, black): (&str, &str, &str)| Material {
        drawdown: Some(Drawdown::usual(hex(white), hex(black))),
        pigments: vec![pigment.into()],
        ..Material::new(pigment, pigment, MaterialKind::Paint, half)
    };
    let mut shelf: Vec<Material> = read.into_iter().map(paint).collect();
    shelf.push(Material::new("clear", "Clear", MaterialKind::Medium, half));
    shelf
}

#[test]
fn coats_over_coats_look_as_a_general_library_and_the_bare_equations_say() {
    let shelf = ten();
    let tubes = Tubes::of(&shelf);
    let mut cases = 0;
    for line in include_str!("../testdata/colour.csv").lines().filter(|l| !l.starts_with("# ")) {
        let fields: Vec<&str> = line.split(", ").collect();
        let mut inside = ground(hex(fields[0]));
        for coat in fields[1].split("; ") {
            let (paints, dry_um) = coat.split_once(" @ ").unwrap();
            let mut parts: Vec<(String, f64)> = paints
                .split(' ')
                .map(|paint| paint.split_once('=').unwrap())
                .map(|(pigment, share)| (pigment.to_owned(), share.parse().unwrap()))
                .collect();
            let paint: f64 = parts.iter().map(|p| p.1).sum();
            parts.push(("clear".to_owned(), 1.0 - paint));
            let parts: Vec<(&str, f64)> = parts.iter().map(|(id, p)| (id.as_str(), *p)).collect();
            let wet_um = dry_um.parse::<f64>().unwrap() / 0.5;
            inside = tubes.mixed(&Mix::of(&parts)).unwrap().laid(&inside, wet_um);
        }
        let [l, a, b] = [2, 3, 4].map(|n| fields[n].parse().unwrap());
        let apart = inside.seen().lab().apart(Lab { l, a, b });
        assert!(apart < 0.05, "{line}: {apart:.2}");
        cases += 1;
    }
    assert_eq!(cases, 60);
}

/// Starter paints in titanium white and in glazing liquid, against SciPy's least squares over the same readings.
#[test]
fn paints_told_by_three_readings_mix_as_a_general_least_squares_says() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let rows: Vec<&str> = include_str!("../testdata/tints.csv").lines().collect();
    let rows = rows.iter().filter(|l| !l.starts_with('#'));
    let mut cases = 0;
    for line in rows {
        let [pigment, laid, lab @ ..] = &line.split(", ").collect::<Vec<_>>()[..] else { panic!() };
        let paint = |m: &&Material| {
            m.pigments == [*pigment] && ["heavy", "fluid"].iter().any(|line| m.id.starts_with(line))
        };
        let paint = &shelf.iter().find(paint).unwrap().id;
        let (with, parts) = laid.split_once(' ').unwrap();
        let parts: f64 = parts.parse().unwrap();
        let seen = if with == "white" {
            let mix = Mix::of(&[(paint, 1.0), ("heavy-pw6", parts)]);
            tubes.mixed(&mix).unwrap().optics.hides()
        } else {
            let mix = Mix::of(&[(paint, parts), ("glazing", 10.0 - parts)]);
            tubes.mixed(&mix).unwrap().laid(&ground(hex("#f4f3f0")), 40.0)
        };
        let [l, a, b] = [0, 1, 2].map(|n| lab[n].parse().unwrap());
        let apart = seen.seen().lab().apart(Lab { l, a, b });
        assert!(apart < 0.1, "{line}: {apart:.2}");
        cases += 1;
    }
    assert_eq!(cases, 35);
}

#[test]
fn a_tint_tells_how_strong_a_paint_is() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let l = |paint: &str, parts: f64| {
        let mix = Mix::of(&[(paint, 1.0), ("heavy-pw6", parts)]);
        tubes.mixed(&mix).unwrap().optics.hides().seen().lab().l
    };
    let white = ground(hex("#f4f3f0"));
    let mut tints = 0;
    for paint in &shelf {
        let Some(tint) = &paint.tint else { continue };
        let made = Lab::of(tint.colour).l;
        let [strong, usual, weak] = [3.0, 10.0, 30.0].map(|parts| l(&paint.id, parts));
        let name = &paint.name;
        assert!((usual - made).abs() < 5.0, "{name}: {usual:.1} for {made:.1}");
        let apart = if paint.pigments[0].starts_with("PY") { 3.0 } else { 6.0 };
        assert!(strong < usual && usual < weak, "{name}: {strong:.1} {usual:.1} {weak:.1}");
        assert!(
            strong < made - apart + 1.0 && weak > made + apart - 1.0,
            "{name}: {strong:.1} {weak:.1}"
        );
        // Undiluted it is near how it was read over the card.
        let read = paint.drawdown.unwrap();
        let own = tubes.mixed(&Mix::one(paint.id.as_str())).unwrap().optics;
        let off = own.over(&white, 30e-6).seen().lab().apart(Lab::of(read.over_white));
        assert!(off < 6.0, "{name}: {off:.1}");
        tints += 1;
    }
    assert_eq!(tints, 17);
    // Common practice: a tenth of phthalocyanine blue in glazing liquid is a clear strong blue in one coat.
    let glaze = tubes.mixed(&Mix::of(&[("fluid-pb15", 1.0), ("glazing", 9.0)])).unwrap();
    let blue = glaze.laid(&white, 40.0).seen().lab();
    assert!(blue.a.hypot(blue.b) > 35.0 && (30.0..70.0).contains(&blue.l), "{blue:?}");
    // Without its tint the black is told too weak, and that is said; in the tube alone nothing is missing.
    let plain: Vec<Material> = shelf.iter().map(|m| Material { tint: None, ..m.clone() }).collect();
    let untold = |shelf: &[Material], mix: &Mix| Tubes::of(shelf).untold(mix);
    let grey = Mix::of(&[("fluid-pbk7", 1.0), ("heavy-pw6", 10.0)]);
    assert_eq!(untold(&shelf, &grey), Vec::<String>::new());
    assert_eq!(untold(&plain, &grey).len(), 1);
    assert!(untold(&plain, &grey)[0].contains("make a tint"), "{:?}", untold(&plain, &grey));
    assert_eq!(untold(&plain, &Mix::one("fluid-pbk7")), Vec::<String>::new());
}

#[test]
fn a_match_of_a_grey_takes_little_black_and_one_line_of_paint() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let place = |id: &str| shelf.iter().position(|m| m.id == id).unwrap();
    let under = ground(hex("#f4f3f0"));
    let grey = Target { under, wish: Wish::Colour(Lab { l: 50.0, a: 0.0, b: 0.0 }) };
    let means = |paints: Vec<usize>, medium| Means { paints, medium, wet_um: 100.0 };
    let found =
        &matches(&tubes, &[grey], &means(vec![place("heavy-pw6"), place("fluid-pbk7")], None), 1)
            [0];
    let parts = |id: &str| found.mix.iter().find(|p| p.material == id).unwrap().parts;
    let ratio = parts("heavy-pw6") / parts("fluid-pbk7");
    assert!((6.0..=16.0).contains(&ratio), "{found:?}");
    assert_eq!(found.lines.len(), 2, "{found:?}");
    // Where a line can do it alone, it does.
    let all = (0..24).filter(|i| shelf[*i].line != Some(Line::Iridescent)).collect::<Vec<_>>();
    let found = matches(&tubes, &[grey], &means(all.clone(), None), 3);
    assert!(found[0].lines.len() == 1 && found[0].apart < 3.0, "{found:?}");
    // As a glaze nothing hides, not even where the wish asks for it.
    let light = Target {
        under: ground(hex("#202020")),
        wish: Wish::Colour(Lab { l: 80.0, a: 0.0, b: 0.0 }),
    };
    let found = matches(&tubes, &[light], &means(all, Some(place("glazing"))), 3);
    assert!(!found.is_empty());
    for one in found {
        let covers = tubes.mixed(&one.mix).unwrap().covers(100.0);
        assert!(covers < 0.6, "{one:?} covers {covers:.2}");
    }
}

#[test]
fn more_coats_hide_more_and_a_glaze_only_deepens() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let paint = |id: &str| tubes.mixed(&Mix::one(id)).unwrap();
    // Common practice: of whites titanium hides black soonest, the student's later, zinc never in a few
    // coats; red oxide hides before ochre.
    let black = ground(hex("#1c1c1e"));
    let coats = |id: &str| paint(id).hides_here(&black, 60.0);
    assert!(coats("heavy-pw6") < coats("student-pw6") && coats("student-pw6").is_some());
    assert_eq!(coats("heavy-pw4"), None);
    assert!(paint("heavy-pr101").covers(20.0) > paint("heavy-py42").covers(20.0));
    assert!(coats("heavy-pr101") <= coats("heavy-py42") && coats("heavy-py42").is_some());
    // A coat that hides at once hides whatever is there, and a paint hides its own colour at once.
    assert!(coats("heavy-pbk9").is_some_and(|coats| coats <= 2));
    assert_eq!(paint("heavy-pr101").hides_here(&ground(hex("#8c3526")), 60.0), Some(1));
    let glaze = tubes.mixed(&Mix::of(&[("fluid-pb15", 1.0), ("glazing", 9.0)])).unwrap();
    let white = ground(hex("#f4f3f0"));
    let rungs = glaze.rungs(&white, 40.0, 8);
    let lightness: Vec<f64> = rungs.iter().map(|r| r.seen().lab().l).collect();
    assert!(lightness.windows(2).all(|pair| pair[1] < pair[0]), "{lightness:?}");
    assert!(glaze.covers(40.0) < 0.2, "{}", glaze.covers(40.0));
    // Matte lifts a dark more than a light, and gloss is what the readings are.
    let dark = rungs[8];
    let lift = |r: &Inside, finish| r.seen_under(finish).lab().l - r.seen().lab().l;
    assert!(lift(&dark, Finish::Matte) > 2.0 && lift(&dark, Finish::Gloss).abs() < 1e-12);
    assert!(lift(&dark, Finish::Matte) > lift(&dark, Finish::Satin));
    assert!(lift(&dark, Finish::Matte) > 2.0 * lift(&white, Finish::Matte));
}

#[test]
fn a_mix_that_was_hidden_is_found_again() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let place = |id: &str| shelf.iter().position(|m| m.id == id).unwrap();
    let paints: Vec<usize> = (0..24).collect();
    let under = ground(hex("#f4f3f0"));
    // Opaque and as a glaze.
    for (hidden, medium) in [
        (Mix::of(&[("heavy-pw6", 6.0), ("heavy-pb29", 2.0), ("heavy-pbr7", 1.0)]), None),
        (Mix::of(&[("heavy-py42", 1.0)]), None),
        (
            Mix::of(&[("fluid-pv19", 2.0), ("fluid-pb15", 1.0), ("glazing", 57.0)]),
            Some(place("glazing")),
        ),
    ] {
        let wanted = tubes.mixed(&hidden).unwrap().laid(&under, 60.0).seen().lab();
        let means = Means { paints: paints.clone(), medium, wet_um: 60.0 };
        let target = Target { under, wish: Wish::Colour(wanted) };
        let found = matches(&tubes, &[target], &means, 3);
        assert!(found[0].apart < 1.0, "{hidden:?}: {found:?}");
        assert!(found.windows(2).all(|pair| pair[0].apart <= pair[1].apart));
        // What is said to be seen is what the mix looks like.
        for one in &found {
            let seen = tubes.mixed(&one.mix).unwrap().laid(&under, 60.0).seen().lab();
            assert!(
                seen.apart(one.seen[0]) < 1e-6 && (seen.apart(wanted) - one.apart).abs() < 1e-6
            );
            assert!(one.mix.iter().all(|p| p.parts.fract() == 0.0 && p.parts >= 1.0));
            let paints = one.mix.iter().filter(|p| p.material != "glazing").count();
            assert!(paints <= 3);
        }
    }
    // Out of reach: the nearest, and how far it is.
    let means =
        Means { paints: vec![place("heavy-pbk9"), place("heavy-pw6")], medium: None, wet_um: 60.0 };
    let target = Target { under, wish: Wish::Colour(Lab { l: 60.0, a: 70.0, b: 40.0 }) };
    let found = matches(&tubes, &[target], &means, 3);
    assert!(found[0].apart > 20.0 && found[0].mix.names("heavy-pw6"));
}

#[test]
fn a_large_shelf_is_matched_as_near_as_a_small_one() {
    // Every paint five times: the nearest mix is no other.
    let shelf = starter_shelf().unwrap();
    let large: Vec<Material> = (0..5)
        .flat_map(|n| {
            shelf.iter().map(move |m| {
                let tint = m.tint.clone().map(|t| Tint { white: format!("{}-{n}", t.white), ..t });
                Material { id: format!("{}-{n}", m.id), tint, ..m.clone() }
            })
        })
        .collect();
    let under = ground(hex("#f4f3f0"));
    let wish = Wish::Colour(Lab::of(hex("#7a8a5a")));
    let nearest = |shelf: &[Material]| {
        let paint = |i: &usize| shelf[*i].kind == MaterialKind::Paint;
        let paints = (0..shelf.len()).filter(paint).collect();
        let means = Means { paints, medium: None, wet_um: 60.0 };
        matches(&Tubes::of(shelf), &[Target { under, wish }], &means, 1).remove(0)
    };
    let (large, small) = (nearest(&large), nearest(&shelf));
    assert!(large.apart < small.apart + 0.5, "{large:?} {small:?}");
}

#[test]
fn a_cast_is_taken_out_with_its_opposite() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let place = |id: &str| shelf.iter().position(|m| m.id == id).unwrap();
    // Too green: common practice glazes a thin red or violet over it.
    let under = ground(hex("#9ab39a"));
    let was = under.seen().lab();
    let means = Means { paints: (0..24).collect(), medium: Some(place("glazing")), wet_um: 30.0 };
    let found = matches(&tubes, &[Target { under, wish: Wish::Neutral(was) }], &means, 1);
    let now = found[0].seen[0];
    assert!(now.a.hypot(now.b) < was.a.hypot(was.b) / 3.0, "{found:?}");
    assert!(now.l > was.l - 12.0, "{found:?}");
}

#[test]
fn a_value_string_is_even_and_its_darkest_three_come_first() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let (dark, light) =
        (Mix::of(&[("heavy-pbk9", 3.0), ("heavy-pbr7", 1.0)]), Mix::one("heavy-pw6"));
    let string =
        value_string(&tubes, (&dark, &light), &Spacing::Even(5), (&grey(50.0), 100.0)).unwrap();
    let steps: Vec<f64> = string.windows(2).map(|pair| pair[1].seen.l - pair[0].seen.l).collect();
    let mean = steps.iter().sum::<f64>() / 4.0;
    assert!(mean > 10.0 && steps.iter().all(|s| (s - mean).abs() < 1.5), "{steps:?}");
    assert_eq!(
        string.iter().map(|v| v.early).collect::<Vec<_>>(),
        [true, true, true, false, false]
    );
    assert_eq!((string[0].mix.same_as(&dark), string[4].mix.same_as(&light)), (true, true));
}

#[test]
fn the_values_of_a_picture_are_those_it_was_made_of() {
    let made = [(20u8, 50), (90, 30), (200, 20)];
    let pixels = made.iter().flat_map(|(grey, times)| {
        (0..*times).map(|n| Swatch([(i32::from(*grey) + n % 3 - 1) as u8; 3]))
    });
    let values = values_of(pixels, 3);
    let shares: Vec<f64> = values.iter().map(|v| v.share).collect();
    assert_eq!(shares, [0.5, 0.3, 0.2]);
    for (value, (grey, _)) in values.iter().zip(made) {
        assert!(
            (value.l - Lab::of(Swatch([grey; 3])).l).abs() < 0.2
                && value.colour.0[0].abs_diff(grey) < 2
        );
    }
    // A picture of two colours has two values.
    let two = [Swatch([0; 3]), Swatch([255; 3])];
    assert_eq!(values_of(two.into_iter(), 5).len(), 2);
    assert!(values_of(std::iter::empty(), 5).is_empty());
}

#[test]
fn a_paint_without_readings_hides_as_its_swatch() {
    let mut shelf = ten();
    (shelf[0].drawdown, shelf[0].swatch) = (None, Some(hex("#263496")));
    let tubes = Tubes::of(&shelf);
    let thin = tubes.mixed(&Mix::one("PB29")).unwrap().laid(&ground(hex("#f4f3f0")), 10.0);
    assert!(thin.seen().lab().apart(Lab::of(shelf[0].swatch.unwrap())) < 0.5);
}

/// A camera that counts `exposure` of the light in each channel over a veil of glare.
fn photographed(colour: Swatch, exposure: [f64; 3], veil: f64) -> Spot {
    let seen = colour.0.iter().zip(exposure).map(|(part, exposure)| {
        let light = (f64::from(*part) / 255.0).powf(2.2) * exposure + veil;
        (light.min(1.0).powf(1.0 / 2.2) * 255.0).round() as u8
    });
    let seen: Vec<u8> = seen.collect();
    Spot::of(&[Swatch([seen[0], seen[1], seen[2]]); 9]).unwrap()
}

proptest! {
    /// Whatever the exposure, the white balance and the glare: the bare card puts them right.
    #[test]
    fn a_swatch_is_read_alike_in_any_light(
        exposure in prop::array::uniform3(0.55..0.95f64),
        veil in 0.0..0.04f64,
        light in prop::array::uniform3(90u8..200),
    ) {
        let (white, black) = Drawdown::CARDS;
        let dark = Swatch(light.map(|part| part / 2));
        let spot = |colour| photographed(colour, exposure, veil);
        let read = read_swatch([&spot(white), &spot(black)], [&spot(Swatch(light)), &spot(dark)], None);
        let read = read.unwrap();
        for (is, was) in [(read.over_white, Swatch(light)), (read.over_black, dark)] {
            let off = Lab::of(is).apart(Lab::of(was));
            // Eight bits of a darker picture, and a curve that is not quite that of sRGB: at half the light
            // and in glare one step of the darkest is worth 3.
            prop_assert!(off < 4.0, "{is:?} for {was:?}: {off}");
        }
    }
}

#[test]
fn a_photograph_that_cannot_be_read_is_refused_at_its_place() {
    let (white, black) = Drawdown::CARDS;
    let spot = |colour| photographed(colour, [0.8; 3], 0.0);
    let (light, dark) = (spot(hex("#a0b0c0")), spot(hex("#304050")));
    let (bare, card) = (spot(white), spot(black));
    let place =
        |bare: [&Spot; 2], paint: [&Spot; 2]| read_swatch(bare, paint, None).unwrap_err().place;
    assert_eq!(place([&card, &bare], [&light, &dark]), "white", "swapped");
    assert_eq!(place([&bare, &card], [&dark, &light]), "over_white", "swapped");
    let blown = photographed(white, [1.4; 3], 0.0);
    assert_eq!(place([&blown, &card], [&light, &dark]), "white", "overexposed");
    let glare = photographed(white, [1.0; 3], 0.0);
    assert_eq!(place([&bare, &card], [&light, &glare]), "over_black", "it glares");
    let with_tint = |tint: &Spot| read_swatch([&bare, &card], [&light, &dark], Some(tint));
    assert_eq!(with_tint(&glare).unwrap_err().place, "tint", "it glares");
    let tint = with_tint(&light).unwrap().tint.unwrap();
    assert_eq!(tint, with_tint(&light).unwrap().over_white);
}

#[test]
fn a_prediction_starts_from_the_swatch_that_was_made_of_its_paints() {
    let shelf = starter_shelf().unwrap();
    let blue = shelf.iter().find(|m| m.pigments == ["PB29"]).unwrap().id.as_str();
    let named = |parts: f64| -> Mix {
        let parts = [(blue, parts), ("glazing", 9.0)];
        parts.into_iter().map(|(id, parts)| Part { material: id.into(), parts }).collect()
    };
    let film = 60.0;
    let (white, black) = ulvek_core::colour::usual_cards();
    let shown = |tubes: &Tubes, mix: &Mix| {
        let mixed = tubes.mixed(mix).unwrap();
        [white, black].map(|card| mixed.laid(card, film).seen().swatch())
    };
    let book = Tubes::of(&shelf);
    let [over_white, over_black] = shown(&book, &named(1.0));
    // It came out stronger than by the book: as two parts of the blue would.
    let stronger = shown(&book, &named(2.0));
    let seen = SwatchSeen {
        mix: named(1.0),
        wet_film_um: film,
        predicted: (over_white, over_black),
        seen: (stronger[0], stronger[1]),
    };
    let taught = Tubes::of(&shelf).seeing([&seen]);
    for (is, wanted) in shown(&taught, &named(1.0)).into_iter().zip(stronger) {
        assert!(Lab::of(is).apart(Lab::of(wanted)) < 1.0, "{is:?} {wanted:?}");
    }
    // A neighbour moves the same way, and another paint does not move at all.
    let l = |swatches: [Swatch; 2]| Lab::of(swatches[0]).l;
    assert!(l(shown(&taught, &named(1.5))) < l(shown(&book, &named(1.5))));
    // A match says of its mixes what the cup says.
    let target = Target { under: *white, wish: Wish::Colour(Lab::of(stronger[0])) };
    let place = |id: &str| shelf.iter().position(|m| m.id == id).unwrap();
    let means = Means { paints: vec![place(blue)], medium: Some(place("glazing")), wet_um: film };
    let found = &matches(&taught, &[target], &means, 1)[0];
    assert_eq!(found.seen[0].on_screen().0, shown(&taught, &found.mix)[0]);
    let ochre = Mix::one(shelf.iter().find(|m| m.pigments == ["PY42"]).unwrap().id.as_str());
    assert_eq!(shown(&taught, &ochre), shown(&book, &ochre));
}
