//! What is believed of a studio: a normal distribution over the logarithms of its factors.

use crate::quantity::Factor;

/// Place of the common pace in the row.
pub(super) const PACE: usize = 0;
/// Place of the uptake of grounds.
pub(super) const UPTAKE: usize = 1;
/// Where the materials begin.
const FIRST_MATERIAL: usize = 2;

/// Nodes of the grid over a coat's pace, and over the uptake. [practice]
const NODES: (usize, usize) = (41, 15);
/// How far the grid reaches [standard deviations]. [practice]
const REACH: f64 = 4.0;
/// How far above its mean a pace is looked at when nothing may come sooner [standard deviations]: that of careful
/// hands, 0.95. definition
const LATE: f64 = 1.645;
/// Variance below which a number counts as known [-].
const KNOWN: f64 = 1e-9;

/// A belief.
#[derive(Debug, Clone)]
pub(super) struct Belief {
    mean: Vec<f64>,
    /// Row by row.
    covariance: Vec<Vec<f64>>,
    materials: Vec<String>,
}

/// A coat's pace as a sum over the row.
#[derive(Debug, Clone)]
pub(super) struct Direction(Vec<f64>);

/// Mean, variance and covariance of a coat's pace and the uptake, in this order.
#[derive(Debug, Clone, Copy)]
pub(super) struct Moments {
    pub mean: [f64; 2],
    pub variance: [f64; 2],
    pub covariance: f64,
}

impl Belief {
    /// A belief before any test, over materials named in any order and as often as may be.
    pub fn new<'a>(
        spreads: [f64; FIRST_MATERIAL],
        materials: impl Iterator<Item = &'a str>,
        own: f64,
    ) -> Self {
        let mut named: Vec<String> = materials.map(str::to_owned).collect();
        named.sort_unstable();
        named.dedup();
        let n = FIRST_MATERIAL + named.len();
        let sd = |i: usize| spreads.get(i).copied().unwrap_or(own);
        let row = |i: usize| (0..n).map(|j| if i == j { sd(i) * sd(i) } else { 0.0 }).collect();
        Self { mean: vec![0.0; n], covariance: (0..n).map(row).collect(), materials: named }
    }

    /// The common pace and, by their shares, that of the materials.
    pub fn direction<'a>(&self, shares: impl Iterator<Item = (&'a str, f64)>) -> Direction {
        let mut weights = vec![0.0; self.mean.len()];
        weights[PACE] = 1.0;
        for (id, share) in shares {
            if let Ok(i) = self.materials.binary_search_by(|known| known.as_str().cmp(id)) {
                weights[FIRST_MATERIAL + i] += share;
            }
        }
        Direction(weights)
    }

    /// Covariances of every number with the sum along `direction`.
    fn along(&self, direction: &Direction) -> Vec<f64> {
        let dot = |row: &Vec<f64>| row.iter().zip(&direction.0).map(|(a, b)| a * b).sum();
        self.covariance.iter().map(dot).collect()
    }

    /// Of a coat's pace and the uptake.
    pub fn moments(&self, direction: &Direction) -> Moments {
        let along = self.along(direction);
        let dot = |row: &[f64]| row.iter().zip(&direction.0).map(|(a, b)| a * b).sum::<f64>();
        Moments {
            mean: [dot(&self.mean), self.mean[UPTAKE]],
            variance: [dot(&along), self.covariance[UPTAKE][UPTAKE]],
            covariance: along[UPTAKE],
        }
    }

    /// Learns from a coat whose pace lies along `direction`; the uptake has a say in it where it `drinks`. Where
    /// `only_later` says that it was found not yet so far and nothing else, no time that is sure comes sooner: that
    /// would be the normal distribution speaking, not the finger.
    pub fn update(
        &mut self,
        direction: &Direction,
        (drinks, only_later): (bool, bool),
        likelihood: impl Fn(f64, f64) -> f64,
    ) {
        let prior = self.moments(direction);
        let Some(mut posterior) = updated(&prior, drinks, likelihood) else { return };
        let late = |m: &Moments| m.mean[0] + LATE * m.variance[0].max(0.0).sqrt();
        if only_later && late(&posterior) < late(&prior) {
            let mean = [posterior.mean[0].max(prior.mean[0]), posterior.mean[1]];
            posterior = Moments { mean, ..prior };
        }
        let columns = [self.along(direction), self.covariance.iter().map(|r| r[UPTAKE]).collect()];
        let gain = gains(&prior, &columns, drinks);
        let [a, b] = [0, 1].map(|k| posterior.mean[k] - prior.mean[k]);
        let change = [
            posterior.variance[0] - prior.variance[0],
            posterior.covariance - prior.covariance,
            posterior.variance[1] - prior.variance[1],
        ];
        let n = self.mean.len();
        for i in 0..n {
            self.mean[i] += gain[0][i] * a + gain[1][i] * b;
            for j in 0..n {
                let (gi, gj) = ([gain[0][i], gain[1][i]], [gain[0][j], gain[1][j]]);
                self.covariance[i][j] += gi[0] * change[0] * gj[0]
                    + (gi[0] * gj[1] + gi[1] * gj[0]) * change[1]
                    + gi[1] * change[2] * gj[1];
            }
        }
    }

    /// What is believed of the number at `i`.
    pub fn factor(&self, i: usize) -> Factor {
        Factor { ln: self.mean[i], sd: self.covariance[i][i].max(0.0).sqrt() }
    }

    /// What is believed of each material.
    pub fn materials(&self) -> Vec<(String, Factor)> {
        let of = |(i, id): (usize, &String)| (id.clone(), self.factor(FIRST_MATERIAL + i));
        self.materials.iter().enumerate().map(of).collect()
    }
}

/// By how much each number follows the coat's pace and the uptake.
fn gains(prior: &Moments, columns: &[Vec<f64>; 2], drinks: bool) -> [Vec<f64>; 2] {
    let [v, u] = prior.variance;
    let (c, determinant) = (prior.covariance, v * u - prior.covariance * prior.covariance);
    let n = columns[0].len();
    if !drinks || determinant < KNOWN {
        return [columns[0].iter().map(|x| x / v.max(KNOWN)).collect(), vec![0.0; n]];
    }
    let of = |f: fn(f64, f64, f64, f64, f64) -> f64| {
        (0..n).map(|i| f(columns[0][i], columns[1][i], v, u, c) / determinant).collect()
    };
    [of(|x, y, _, u, c| x * u - y * c), of(|x, y, v, _, c| y * v - x * c)]
}

/// The moments after an observation, summed up on a grid; nothing when it is as good as impossible.
fn updated(prior: &Moments, drinks: bool, likelihood: impl Fn(f64, f64) -> f64) -> Option<Moments> {
    let sd = prior.variance[0].max(0.0).sqrt();
    if sd * sd < KNOWN {
        return None;
    }
    // The uptake given the pace: a slope and what is left.
    let slope = prior.covariance / prior.variance[0];
    let left = (prior.variance[1] - slope * prior.covariance).max(0.0).sqrt();
    let node = |k: usize, n: usize| REACH * (2.0 * k as f64 / (n - 1) as f64 - 1.0);
    let (mut sum, mut first, mut second, mut cross) = (0.0, [0.0; 2], [0.0; 2], 0.0);
    let others = if drinks { NODES.1 } else { 1 };
    for i in 0..NODES.0 {
        let z = node(i, NODES.0);
        for j in 0..others {
            let y = if drinks { node(j, NODES.1) } else { 0.0 };
            let at = [prior.mean[0] + z * sd, prior.mean[1] + slope * z * sd + y * left];
            let weight = (-0.5 * (z * z + y * y)).exp() * likelihood(at[0], at[1]);
            sum += weight;
            for k in 0..2 {
                first[k] += weight * at[k];
                second[k] += weight * at[k] * at[k];
            }
            cross += weight * at[0] * at[1];
        }
    }
    if !sum.is_normal() {
        return None;
    }
    let mean = first.map(|x| x / sum);
    let variance = [0, 1].map(|k| (second[k] / sum - mean[k] * mean[k]).max(KNOWN));
    let covariance = cross / sum - mean[0] * mean[1];
    Some(if drinks {
        Moments { mean, variance, covariance }
    } else {
        Moments {
            mean: [mean[0], prior.mean[1]],
            variance: [variance[0], prior.variance[1]],
            covariance: prior.covariance,
        }
    })
}
