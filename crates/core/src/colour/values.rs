//! Values: a string of mixes from dark to light, and the values of a reference picture.

use super::coats::even_values;
use super::seen::Lab;
use super::shelf::Tubes;
use super::surface::Inside;
use crate::mix::{Mix, MixError, Part, Swatch};

/// Values of a string, or of a picture, at least and at most; docs/model/colour.md.
pub const VALUES: std::ops::RangeInclusive<usize> = 3..=9;
/// Values of a string that are painted in the early passes: the darkest ones; docs/model/colour.md.
pub const EARLY: usize = 3;
/// Halvings of the share until it is told. [practice] Finer than parts can be counted.
const HALVINGS: usize = 24;

/// One mix of a string.
#[derive(Debug, Clone, PartialEq)]
pub struct Value {
    /// Lightness it should have (L*).
    pub wanted: f64,
    /// What is seen of it.
    pub seen: Lab,
    /// Parts by volume.
    pub mix: Mix,
    /// Whether it belongs to the early passes.
    pub early: bool,
}

/// Which lightnesses a string has.
#[derive(Debug, Clone, PartialEq)]
pub enum Spacing {
    /// So many, evenly from end to end.
    Even(usize),
    /// These (L*), darkest first; beyond an end, the end.
    At(Vec<f64>),
}

/// Mixes from `dark` to `light`, darkest first, each laid `wet_um` [um] over `under`.
///
/// # Errors
/// [`MixError`] of a mix that cannot be.
pub fn value_string(
    tubes: &Tubes,
    (dark, light): (&Mix, &Mix),
    spacing: &Spacing,
    (under, wet_um): (&Inside, f64),
) -> Result<Vec<Value>, MixError> {
    let seen = |mix: &Mix| Ok::<_, MixError>(tubes.mixed(mix)?.laid(under, wet_um).seen().lab());
    let ends = (seen(dark)?.l, seen(light)?.l);
    let wanted = match spacing {
        Spacing::Even(count) => even_values(*count, ends),
        Spacing::At(wanted) => wanted.clone(),
    };
    let one = |(n, wanted): (usize, f64)| {
        let (mut low, mut high) = (0.0, 1.0);
        for _ in 0..HALVINGS {
            let half = f64::midpoint(low, high);
            let lighter = seen(&between(dark, light, half))?.l > wanted;
            // From dark to light, or the other way round when the two were swapped.
            if lighter == (ends.1 > ends.0) { high = half } else { low = half }
        }
        let mix = between(dark, light, whole_percent(f64::midpoint(low, high)));
        Ok(Value { wanted, seen: seen(&mix)?, mix, early: n < EARLY })
    };
    wanted.into_iter().enumerate().map(one).collect()
}

/// A share as it is mixed [-]: in whole parts of 100.
fn whole_percent(share: f64) -> f64 {
    (share * 100.0).round() / 100.0
}

/// `share` of `light` in `dark`, by volume, in parts of 100.
fn between(dark: &Mix, light: &Mix, share: f64) -> Mix {
    let mut mix = Mix::default();
    for (of, share) in [(dark, 1.0 - share), (light, share)] {
        for part in of.iter().filter(|_| share > 0.0) {
            let parts = part.parts / of.whole() * share * 100.0;
            match mix.iter_mut().find(|p| p.material == part.material) {
                Some(there) => there.parts += parts,
                None => mix.push(Part { material: part.material.clone(), parts }),
            }
        }
    }
    mix
}

/// One value of a reference picture.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Patch {
    /// Its lightness (L*).
    pub l: f64,
    /// Its mean colour.
    pub colour: Swatch,
    /// Share of the picture's area [-].
    pub share: f64,
    /// Whether it belongs to the early passes.
    pub early: bool,
}

/// Steps of lightness in which a picture is counted. [practice] A quarter of a just seen difference.
const STEPS: usize = 400;

/// The values of a picture, darkest first: `count` of them, or fewer where it has fewer, so that every
/// point lies as near to its value as can be (least squares in L*, exact).
pub fn values_of(pixels: impl Iterator<Item = Swatch>, count: usize) -> Vec<Patch> {
    let mut seen = Vec::new();
    // Many points are of the same colour: Lab is worked out once for each.
    let mut known = std::collections::HashMap::<Swatch, usize>::new();
    for pixel in pixels {
        *known.entry(pixel).or_default() += 1;
    }
    seen.resize(STEPS + 1, Bin::default());
    for (pixel, times) in known {
        let l = Lab::of(pixel).l;
        let bin: &mut Bin = &mut seen[((l / 100.0 * STEPS as f64).round() as usize).min(STEPS)];
        bin.add(l, pixel, times as f64);
    }
    let bins: Vec<Bin> = seen.into_iter().filter(|b| b.n > 0.0).collect();
    let whole: f64 = bins.iter().map(|b| b.n).sum();
    let parts = cut(&bins, count.min(bins.len()));
    parts
        .into_iter()
        .enumerate()
        .map(|(n, part)| {
            let all = bins[part].iter().fold(Bin::default(), |sum, bin| sum.with(bin));
            Patch {
                l: all.l / all.n,
                colour: Swatch(all.rgb.map(|c| (c / all.n).round() as u8)),
                share: all.n / whole,
                early: n < EARLY,
            }
        })
        .collect()
}

/// Points of about one lightness.
#[derive(Debug, Clone, Copy, Default)]
struct Bin {
    n: f64,
    l: f64,
    l2: f64,
    rgb: [f64; 3],
}

impl Bin {
    fn add(&mut self, l: f64, pixel: Swatch, times: f64) {
        self.n += times;
        self.l += times * l;
        self.l2 += times * l * l;
        for (sum, part) in self.rgb.iter_mut().zip(pixel.0) {
            *sum += times * f64::from(part);
        }
    }

    fn with(mut self, other: &Self) -> Self {
        self.n += other.n;
        self.l += other.l;
        self.l2 += other.l2;
        for (sum, part) in self.rgb.iter_mut().zip(other.rgb) {
            *sum += part;
        }
        self
    }

    /// Sum of squares about their mean.
    fn spread(&self) -> f64 {
        if self.n > 0.0 { self.l2 - self.l * self.l / self.n } else { 0.0 }
    }
}

/// Cuts `bins` into `count` runs of least squares, by dynamic programming: W. D. Fisher, "On grouping for
/// maximum homogeneity", J. Am. Stat. Assoc. 53 (1958).
fn cut(bins: &[Bin], count: usize) -> Vec<std::ops::Range<usize>> {
    let mut sums = vec![Bin::default()];
    for bin in bins {
        let last = sums[sums.len() - 1];
        sums.push(last.with(bin));
    }
    let spread = |from: usize, to: usize| {
        let (a, b) = (&sums[from], &sums[to]);
        Bin { n: b.n - a.n, l: b.l - a.l, l2: b.l2 - a.l2, rgb: [0.0; 3] }.spread()
    };
    let n = bins.len();
    let mut least = vec![vec![f64::INFINITY; n + 1]; count + 1];
    let mut from = vec![vec![0; n + 1]; count + 1];
    least[0][0] = 0.0;
    for part in 1..=count {
        for to in part..=n {
            for start in part - 1..to {
                let cost = least[part - 1][start] + spread(start, to);
                if cost < least[part][to] {
                    (least[part][to], from[part][to]) = (cost, start);
                }
            }
        }
    }
    let mut runs = Vec::with_capacity(count);
    let mut to = n;
    for part in (1..=count).rev() {
        runs.push(from[part][to]..to);
        to = from[part][to];
    }
    runs.reverse();
    runs
}
