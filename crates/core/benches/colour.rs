//! Speed of colour, printed against what is asked of it: a ladder of 5 x 8 swatches under 5 ms, a match over
//! 24 paints three at a time under 150 ms, the face of a picture of 20 coats over its whole time under 30 ms.
#![allow(missing_docs, clippy::unwrap_used, clippy::print_stdout)]

use std::hint::black_box;
use std::time::Instant;
use ulvek_core::colour::{Means, Target, Tubes, UNDERPAINTINGS, Wish, even_values, grey, matches};
use ulvek_core::mix::{Mix, Swatch, starter_shelf};
use ulvek_core::picture::{Picture, Step, StepKind};

/// Times `work` and prints how much of the aim [ms] it takes.
fn timed<T>(name: &str, aim_ms: f64, mut work: impl FnMut() -> T) {
    const RUNS: u32 = 5; // repeats, of which the mean is told [practice]
    black_box(work());
    let begun = Instant::now();
    for _ in 0..RUNS {
        black_box(work());
    }
    let took = begun.elapsed().as_secs_f64() * 1e3 / f64::from(RUNS);
    println!("{name}: {took:.2} ms, {:.2} of {aim_ms} ms", took / aim_ms);
}

fn main() {
    let shelf = starter_shelf().unwrap();
    let tubes = Tubes::of(&shelf);
    let glaze = Mix::of(&[("fluid-pb15", 1.0), ("fluid-pv19", 1.0), ("glazing", 8.0)]);
    timed("a ladder of 5 x 8", 5.0, || {
        let mixed = tubes.mixed(&glaze).unwrap();
        let rows = even_values(5, UNDERPAINTINGS).into_iter();
        rows.map(|l| {
            mixed.rungs(&grey(l), 40.0, 8).iter().map(|r| r.seen().swatch()).collect::<Vec<_>>()
        })
        .collect::<Vec<_>>()
    });
    let under = grey(90.0);
    let wanted =
        Target { under, wish: Wish::Colour(ulvek_core::colour::Lab::of(Swatch([120, 90, 80]))) };
    let paints: Vec<usize> = (0..24).collect();
    let medium = shelf.iter().position(|m| m.id == "glazing");
    for (name, medium) in [("opaque", None), ("in a glaze", medium)] {
        let means = Means { paints: paints.clone(), medium, wet_um: 60.0 };
        timed(&format!("a match over 24 paints, {name}"), 150.0, || {
            matches(&tubes, &[wanted], &means, 3)
        });
    }
    let steps = (0..20)
        .map(|n| Step { mix: glaze.clone(), ..Step::usual(format!("s{n}"), StepKind::Glaze) })
        .collect();
    let picture = Picture::new("p", (40.0, 50.0), steps);
    timed("the face of 20 coats", 30.0, || {
        let coats = picture.coats_in_order(&tubes).unwrap();
        let face = |l: f64| {
            let face = picture.face(&tubes, &coats, &grey(l)).unwrap();
            face.iter().map(|c| c.seen.swatch()).collect::<Vec<_>>()
        };
        (face(UNDERPAINTINGS.0), face(UNDERPAINTINGS.1))
    });
}
