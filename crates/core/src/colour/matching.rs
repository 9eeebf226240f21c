//! The mix that comes nearest to a wish: at most three paints, and clear medium.
//!
//! Every single paint, pair and triple is tried at a few ratios; the best of them are led to their
//! ratio by a pattern search in the logarithm of the parts, and rounded to parts that can be counted on
//! a palette. The search is a descent from many starts: it may miss a ratio that lies behind a hill.

use super::cards::usual_cards;
use super::paint::Optics;
use super::seen::Lab;
use super::shelf::{Mixed, Tubes};
use super::surface::Inside;
use crate::mix::{Drawdown, Line, Mix, Part, Surface, Thinning};
use std::collections::HashSet;

/// Paints of a mix at most; docs/model/colour.md.
pub const MOST_PAINTS: usize = 3;
/// Ratios at which two paints are tried first, as solids of the second to the first. [practice]
const PAIRS: [f64; 5] = [0.06, 0.3, 1.0, 3.0, 16.0];
/// Ratios at which three are tried first, as solids. [practice]
const TRIPLES: [[f64; 3]; 7] = [
    [1.0, 1.0, 1.0],
    [6.0, 1.0, 1.0],
    [1.0, 6.0, 1.0],
    [1.0, 1.0, 6.0],
    [4.0, 4.0, 0.5],
    [4.0, 0.5, 4.0],
    [0.5, 4.0, 4.0],
];
/// Shares of paint in clear medium that are tried first, as solids: of three paints only the middle one,
/// from which the search finds the way. [practice]
const IN_MEDIUM: [f64; 3] = [0.6, 0.2, 0.05];
/// Sets of paints whose ratio is searched for roughly, and those of them for which it is to the end.
/// [practice]
const REFINED: [usize; 2] = [300, 24];
/// First step of that search, and the last ones of the rough and the whole search, as factors on a part.
/// [practice]
const STEPS: (f64, [f64; 2]) = (2.5, [1.3, 1.02]);
/// Paints among which every triple is tried: of a larger shelf those that come nearest in a pair. [practice]
const TRIED_IN_THREES: usize = 30;
/// Paints of a larger shelf with which each is paired to tell that. [practice]
const PARTNERS: usize = 40;
/// Ratios at which it is, as solids of the second to the first. [practice]
const ROUGH_PAIRS: [f64; 3] = [0.2, 1.0, 5.0];
/// Dry thickness at which two paints of a larger shelf are told apart [m]: that of a usual drawdown.
const SWATCH_M: f64 = Drawdown::USUAL_DRY_UM * 1e-6;
/// Square of a difference in Lab below which they are one paint. [practice] just seen side by side
const ALIKE: f64 = 1.0;
/// Parts in all that are counted out at most; a glaze of one part in forty is still counted.
/// [practice]
const MOST_PARTS: usize = 48;
/// By how much rounded parts may be further from the wish [CIEDE2000] to be easier to count. [practice]
const EASIER: f64 = 0.4;
/// A part of a mix below which it is left out [-]. [practice]
const NOTHING: f64 = 2e-3;
/// Of the sets whose ratio is searched for, those of one line that are taken beside the nearest of all, roughly and
/// to the end. [practice]
const OF_ONE_LINE: [usize; 2] = [60, 8];
/// By how much a mix of several lines must be nearer than one of a single line [CIEDE2000]. [practice] at a glance
const MUST_CROSS: f64 = 2.0;
/// Contrast ratio from which a coat is no glaze any more [-]: half of what lies below is hidden. [practice]
const NO_GLAZE: f64 = 0.5;
/// By how much whole parts may pass that [-]. [practice]
const ROUNDING: f64 = 0.05;
/// What hiding counts in a glaze, beside the distance from the wish [CIEDE2000]. [practice]
const HIDING_WEIGHS: f64 = 100.0;
/// How much lightness that is lost weighs against a cast that stays, when a cast is taken out [-].
/// [practice]
const LOSS_WEIGHS: f64 = 0.35;

/// What is wished for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Wish {
    /// This colour.
    Colour(Lab),
    /// No cast, and little darker than this.
    Neutral(Lab),
}

/// A wish over one background.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Target {
    /// What it is laid on.
    pub under: Inside,
    /// What is to be seen.
    pub wish: Wish,
}

/// What may be mixed, and how it is laid.
#[derive(Debug, Clone, PartialEq)]
pub struct Means {
    /// Places on the shelf of the paints that may be taken.
    pub paints: Vec<usize>,
    /// Place of the clear medium, when it is to be a glaze.
    pub medium: Option<usize>,
    /// Wet film of the coat [um].
    pub wet_um: f64,
}

/// A mix that comes near.
#[derive(Debug, Clone, PartialEq)]
pub struct Found {
    /// Parts by volume, in whole numbers.
    pub mix: Mix,
    /// What is seen over each background.
    pub seen: Vec<Lab>,
    /// How far it is from the wish: CIEDE2000, the largest over all backgrounds; of a cast the chroma that
    /// stays and a share of the lightness that is lost.
    pub apart: f64,
    /// The lines its paints are of: several only where one could not do it.
    pub lines: Vec<Line>,
}

impl Found {
    /// That paints of several lines come together in it, in a painter's words; nothing when they are of one.
    pub fn said_of_lines(&self) -> Option<String> {
        let (last, before) = self.lines.split_last().filter(|(_, before)| !before.is_empty())?;
        let said = |line: &Line| line.said().to_lowercase();
        let before: Vec<String> = before.iter().map(said).collect();
        Some(format!("takes {} and {} paint", before.join(", "), said(last)))
    }
}

/// Solids of a few materials of the shelf.
type Solids = [(usize, f64)];

struct Search<'a, 'b> {
    tubes: &'a Tubes<'b>,
    targets: &'a [Target],
    means: &'a Means,
}

/// The mixes that come nearest to all `targets` at once, best first, at most `keep`, each of other
/// materials; none whose parts break a limit of sound paint.
pub fn matches(tubes: &Tubes, targets: &[Target], means: &Means, keep: usize) -> Vec<Found> {
    let search = Search { tubes, targets, means: &narrowed(tubes, targets, means) };
    let mut tried: Vec<Tried> = Vec::new();
    search.starts(|solids| tried.push((search.score(solids), solids.to_vec())));
    let rough = search
        .best_of_each(tried, REFINED[0], OF_ONE_LINE[0])
        .into_iter()
        .map(|solids| search.refine(solids, STEPS.1[0], Search::score))
        .collect();
    let mut found: Vec<Found> = search
        .best_of_each(rough, REFINED[1], OF_ONE_LINE[1])
        .into_iter()
        .map(|solids| search.refine(solids, STEPS.1[1], Search::far).1)
        .filter_map(|solids| search.counted(&solids))
        .filter(|found| search.sound(&found.mix))
        .collect();
    let far = |one: &Found| one.apart + if one.lines.len() > 1 { MUST_CROSS } else { 0.0 };
    found.sort_by(|a, b| far(a).total_cmp(&far(b)).then(a.mix.len().cmp(&b.mix.len())));
    let mut kept: Vec<Found> = Vec::new();
    for one in found {
        let of_the_same = |other: &Found| {
            other.mix.len() == one.mix.len() && one.mix.iter().all(|p| other.mix.names(&p.material))
        };
        if kept.len() < keep && !kept.iter().any(of_the_same) {
            kept.push(one);
        }
    }
    kept
}

/// The same with at most [`TRIED_IN_THREES`] paints: the time of a match grows with their cube.
fn narrowed(tubes: &Tubes, targets: &[Target], means: &Means) -> Means {
    let paints = &means.paints;
    if paints.len() <= TRIED_IN_THREES {
        return means.clone();
    }
    let search = Search { tubes, targets, means };
    let lightness = |n: &usize| search.seen(&[(paints[*n], 1.0)]).next().map_or(0.0, |lab| lab.l);
    let mut partners: Vec<(f64, usize)> = (0..paints.len()).map(|n| (lightness(&n), n)).collect();
    partners.sort_by(|a, b| a.0.total_cmp(&b.0));
    // From the darkest to the lightest: who mixes well with none of them mixes well with nobody.
    let apart = paints.len().div_ceil(PARTNERS);
    let partners: Vec<usize> = partners.into_iter().step_by(apart).map(|p| p.1).collect();
    let mut nearest = vec![f64::INFINITY; paints.len()];
    let medium = means.medium.map(|m| (m, (1.0 - IN_MEDIUM[1]) / IN_MEDIUM[1]));
    for n in 0..paints.len() {
        for &m in &partners {
            let mut solids = vec![(paints[n], 1.0), (paints[m], 1.0)];
            solids.extend(medium.map(|(place, more)| (place, 2.0 * more)));
            for ratio in ROUGH_PAIRS {
                solids[1].1 = ratio;
                let far = search.score(&solids);
                for k in [n, m] {
                    nearest[k] = nearest[k].min(far);
                }
            }
        }
    }
    let mut order: Vec<usize> = (0..paints.len()).collect();
    order.sort_by(|a, b| nearest[*a].total_cmp(&nearest[*b]));
    let mut kept: Vec<(usize, [Lab; 2])> = Vec::with_capacity(TRIED_IN_THREES);
    for n in order {
        let (white, black) = usual_cards();
        let over = |card| tubes.optics(paints[n]).over(card, SWATCH_M).seen().lab();
        let looks = [over(white), over(black)];
        let alike = |other: &[Lab; 2]| (0..2).all(|k| looks[k].straight2(other[k]) < ALIKE);
        // Two tubes of one paint are one paint.
        if kept.len() < TRIED_IN_THREES && !kept.iter().any(|(_, other)| alike(other)) {
            kept.push((paints[n], looks));
        }
    }
    Means { paints: kept.into_iter().map(|k| k.0).collect(), ..means.clone() }
}

/// A ratio and how far it is.
type Tried = (f64, Vec<(usize, f64)>);

impl Search<'_, '_> {
    /// The nearest ratio of each set of materials, of the `most` nearest sets and the `of_one` nearest of a single
    /// line.
    fn best_of_each(
        &self,
        mut tried: Vec<Tried>,
        most: usize,
        of_one: usize,
    ) -> Vec<Vec<(usize, f64)>> {
        tried.sort_by(|a, b| a.0.total_cmp(&b.0));
        let mut seen = HashSet::new();
        let (mut any, mut one) = (0, 0);
        let kept = tried.into_iter().map(|t| t.1).filter(|solids| {
            if any >= most && one >= of_one {
                return false;
            }
            let set: Vec<usize> = solids.iter().map(|s| s.0).collect();
            let single = self.lines(&set).len() < 2;
            if !(any < most || (single && one < of_one)) || !seen.insert(set) {
                return false;
            }
            any += 1;
            one += usize::from(single);
            true
        });
        kept.collect()
    }

    /// The lines of the paints at these places of the shelf.
    fn lines(&self, places: &[usize]) -> Vec<Line> {
        let mut lines: Vec<Line> =
            places.iter().filter_map(|i| self.tubes.shelf()[*i].line).collect();
        lines.sort_unstable_by_key(|line| *line as u8);
        lines.dedup();
        lines
    }

    /// How far it is from the wishes; a glaze that hides is further.
    fn far(&self, solids: &Solids) -> f64 {
        let apart = self.apart(solids);
        if self.means.medium.is_none() {
            return apart;
        }
        let (optics, dry_m) = self.coat(solids);
        let over = |card| optics.over(card, dry_m).seen().luminance();
        let (white, black) = usual_cards();
        apart + HIDING_WEIGHS * (over(black) / over(white) - NO_GLAZE).max(0.0)
    }

    /// Every start of the search.
    fn starts(&self, mut try_it: impl FnMut(&Solids)) {
        let paints = &self.means.paints;
        let mut with_medium = |solids: &mut Vec<(usize, f64)>| {
            let Some(medium) = self.means.medium else { return try_it(solids) };
            let paint: f64 = solids.iter().map(|s| s.1).sum();
            let shares = if solids.len() < MOST_PAINTS { &IN_MEDIUM[..] } else { &IN_MEDIUM[1..2] };
            for share in shares {
                solids.push((medium, paint * (1.0 - share) / share));
                try_it(solids);
                solids.pop();
            }
        };
        let mut solids = Vec::with_capacity(MOST_PAINTS + 1);
        let mut lay = |parts: &[(usize, f64)]| {
            solids.clear();
            solids.extend_from_slice(parts);
            with_medium(&mut solids);
        };
        for (n, &a) in paints.iter().enumerate() {
            lay(&[(a, 1.0)]);
            for (m, &b) in paints.iter().enumerate().skip(n + 1) {
                PAIRS.iter().for_each(|ratio| lay(&[(a, 1.0), (b, *ratio)]));
                for &c in &paints[m + 1..] {
                    TRIPLES.iter().for_each(|[x, y, z]| lay(&[(a, *x), (b, *y), (c, *z)]));
                }
            }
        }
    }

    /// What is seen over each background.
    fn seen(&self, solids: &Solids) -> impl Iterator<Item = Lab> {
        let (optics, dry_m) = self.coat(solids);
        self.targets.iter().map(move |t| optics.over(&t.under, dry_m).seen().lab())
    }

    /// What a coat of it does to light, and its dry thickness [m].
    fn coat(&self, solids: &Solids) -> (Optics, f64) {
        let whole: f64 = solids.iter().map(|s| s.1).sum();
        let mut optics = Optics::CLEAR;
        let mut wet = 0.0;
        for (i, solids) in solids {
            optics.add(solids / whole, self.tubes.optics(*i));
            wet += solids / whole / self.solids_of(*i);
        }
        (optics, self.means.wet_um * 1e-6 / wet)
    }

    fn solids_of(&self, i: usize) -> f64 {
        self.tubes.shelf()[i].composition.solids()
    }

    /// How far it is from the wishes, for ordering.
    fn score(&self, solids: &Solids) -> f64 {
        let far = |(t, lab): (&Target, Lab)| match t.wish {
            Wish::Colour(wanted) => lab.straight2(wanted),
            Wish::Neutral(was) => was.cast_left(lab).powi(2),
        };
        self.targets.iter().zip(self.seen(solids)).map(far).sum()
    }

    /// How far it is from the wishes, as it is told.
    fn apart(&self, solids: &Solids) -> f64 {
        self.furthest(self.seen(solids))
    }

    /// How far what is seen over each target is from its wish, the largest of all.
    fn furthest(&self, seen: impl Iterator<Item = Lab>) -> f64 {
        let far = |(t, lab): (&Target, Lab)| match t.wish {
            Wish::Colour(wanted) => lab.apart(wanted),
            Wish::Neutral(was) => was.cast_left(lab),
        };
        self.targets.iter().zip(seen).map(far).fold(0.0, f64::max)
    }

    /// The ratio near by that comes nearest.
    fn refine(
        &self,
        mut solids: Vec<(usize, f64)>,
        last: f64,
        far: impl Fn(&Self, &Solids) -> f64,
    ) -> Tried {
        let mut best = far(self, &solids);
        let mut step = STEPS.0;
        while step > last {
            let mut better = false;
            for n in 0..solids.len() {
                for factor in [step, 1.0 / step] {
                    let was = solids[n].1;
                    solids[n].1 = was * factor;
                    let apart = far(self, &solids);
                    if apart < best {
                        (best, better) = (apart, true);
                    } else {
                        solids[n].1 = was;
                    }
                }
            }
            if !better {
                step = step.sqrt();
            }
        }
        let whole: f64 = solids.iter().map(|s| s.1).sum();
        solids.retain(|s| s.1 > NOTHING * whole);
        (best, solids)
    }

    /// The same in whole parts by volume that are easy to count; `None` when nothing is left of a paint.
    fn counted(&self, solids: &Solids) -> Option<Found> {
        let volumes: Vec<f64> = solids.iter().map(|(i, s)| s / self.solids_of(*i)).collect();
        let whole: f64 = volumes.iter().sum();
        let rounded = (solids.len()..=MOST_PARTS).filter_map(|count| {
            let parts: Vec<f64> =
                volumes.iter().map(|v| (v / whole * count as f64).round()).collect();
            if parts.iter().any(|p| *p < 1.0) {
                return None;
            }
            let of = |((i, _), p): (&(usize, f64), &f64)| (*i, p * self.solids_of(*i));
            let solids: Vec<(usize, f64)> = solids.iter().zip(&parts).map(of).collect();
            Some((self.far(&solids), parts, solids))
        });
        let rounded: Vec<_> = rounded.collect();
        let nearest = rounded.iter().map(|r| r.0).fold(f64::INFINITY, f64::min);
        let (_, parts, solids) = rounded.into_iter().find(|r| r.0 <= nearest + EASIER)?;
        let shelf = self.tubes.shelf();
        let part = |((i, _), parts): (&(usize, f64), &f64)| Part {
            material: shelf[*i].id.clone(),
            parts: *parts,
        };
        let mix: Mix = solids.iter().zip(&parts).map(part).collect();
        // Looked for by the book, said as the cup says it: from a swatch of these paints, where there is one.
        let mixed = self.tubes.mixed(&mix).ok()?;
        let laid = |t: &Target| mixed.laid(&t.under, self.means.wet_um).seen().lab();
        let seen: Vec<Lab> = self.targets.iter().map(laid).collect();
        let apart = self.furthest(seen.iter().copied());
        let lines = self.lines(&solids.iter().map(|s| s.0).collect::<Vec<_>>());
        Some(Found { mix, seen, apart, lines })
    }

    /// Whether the mix keeps the limits of a sound film, and as a glaze lets what lies below through.
    fn sound(&self, mix: &Mix) -> bool {
        let hides = |mixed: Mixed| mixed.covers(self.means.wet_um) >= NO_GLAZE + ROUNDING;
        if self.means.medium.is_some() && self.tubes.mixed(mix).is_ok_and(hides) {
            return false;
        }
        let on = (Surface::Sealed, Thinning::MediumOnly);
        mix.limits(self.tubes.shelf(), on, self.means.medium.is_some()).iter().all(|l| l.kept)
    }
}

impl Lab {
    /// What of a cast is left in `now`, where this was seen before; lightness that was lost counts a
    /// little, or black would be the best glaze.
    fn cast_left(self, now: Self) -> f64 {
        now.a.hypot(now.b) + LOSS_WEIGHS * (self.l - now.l).abs()
    }
}
