//! How a search goes from one order of work to the next: small changes, and what is still accepted.

use super::decode::Order;
use super::problem::Problem;
use super::score::Score;
use crate::time::HOUR_S;
use rand::Rng;
use rand_distr::Exp1;
use rand_pcg::Pcg64Mcg;

/// Weighted days that a worse order may cost at the beginning of a round [d]. [practice]
const WARM_DAYS: f64 = 0.7;
/// How often a later plan is looked at [-]. [practice]
const LATER: f64 = 0.3;
/// Mean delay of a finish that a worse order may cost at the beginning of a round [s]. [practice]
const WARM_S: f64 = 18.0 * HOUR_S;

/// What is still accepted beside a plan.
pub(super) struct Limit {
    /// The worst score at all.
    pub worst: Score,
    /// The worst sum of a plan that is no later.
    sum: i64,
}

impl Limit {
    /// Drawn as in simulated annealing, where a loss of `d` is taken with probability
    /// `exp(-d / T)`; now and then a plan may be later, whatever it gains elsewhere.
    pub fn drawn(now: &Score, warm: f64, draw: &mut Pcg64Mcg, pictures: usize) -> Self {
        let luck: f64 = draw.sample(Exp1);
        let sum = now.sum + (luck * warm * WARM_S * (pictures as f64).sqrt()) as i64;
        let mut worst = Score { sum, set_ups: u32::MAX, ..*now };
        if draw.random_bool(LATER) {
            worst.late += draw.sample::<f64, _>(Exp1) * warm * WARM_DAYS;
            worst.sum = i64::MAX;
        }
        Self { worst, sum }
    }

    /// Whether a score within `worst` is accepted.
    pub fn takes(&self, score: &Score, now: &Score) -> bool {
        score.late != now.late || score.past_tubs != now.past_tubs || score.sum <= self.sum
    }
}

/// The order with one change; `None` when it would be the same or cannot be.
pub(super) fn changed(order: &Order, problem: &Problem<'_>, draw: &mut Pcg64Mcg) -> Option<Order> {
    let n = order.turns.len();
    let mut next = order.clone();
    let turns = &mut next.turns;
    let (i, j) = (draw.random_range(0..n), draw.random_range(0..n));
    match draw.random_range(0..10) {
        // One turn somewhere near, or anywhere.
        0..4 => {
            let near = 1 + draw.random_range(0..n.min(8));
            let to = match draw.random_range(0..3) {
                0 => j,
                1 => i.saturating_sub(near),
                _ => (i + near).min(n - 1),
            };
            let turn = turns.remove(i);
            turns.insert(to, turn);
        }
        // Two turns change places.
        4..6 => turns.swap(i, j),
        // A picture's turns from here on come sooner, or later.
        6 | 7 => {
            let p = turns[i];
            let (mine, others): (Vec<u32>, Vec<u32>) = turns[i..].iter().partition(|t| **t == p);
            let sooner = draw.random_bool(0.6);
            let tail = if sooner { [mine, others] } else { [others, mine] };
            turns.truncate(i);
            turns.extend(tail.into_iter().flatten());
        }
        // Two pictures take each other's turns from here on.
        8 => {
            let (p, q) = (turns[i], turns[j]);
            let from = i.min(j);
            let places: Vec<usize> =
                (from..n).filter(|k| turns[*k] == p || turns[*k] == q).collect();
            let of_p = places.iter().filter(|k| turns[**k] == p).count();
            let sequence: Vec<u32> = if turns[*places.first()?] == p {
                let of_q = places.len() - of_p;
                std::iter::repeat_n(q, of_q).chain(std::iter::repeat_n(p, of_p)).collect()
            } else {
                let of_q = places.len() - of_p;
                std::iter::repeat_n(p, of_p).chain(std::iter::repeat_n(q, of_q)).collect()
            };
            for (place, who) in places.into_iter().zip(sequence) {
                turns[place] = who;
            }
        }
        // Two steps of one mix come together, or a picture with a graph goes another way round.
        _ => {
            let p = turns[i] as usize;
            let inner = &mut next.inner[p];
            if draw.random_bool(0.5) && inner.len() > 1 {
                let k = draw.random_range(1..inner.len());
                inner.swap(k - 1, k);
                return next.keeps(problem, p).then_some(next);
            }
            join_mixes(&mut next, problem, i)?;
        }
    }
    (next != *order).then_some(next)
}

/// Puts another turn with the mix of turn `i` right behind it.
fn join_mixes(order: &mut Order, problem: &Problem<'_>, i: usize) -> Option<()> {
    let mut seen = vec![0_usize; order.inner.len()];
    let mixes: Vec<u32> = order
        .turns
        .iter()
        .map(|p| {
            let p = *p as usize;
            let step = order.inner[p].get(seen[p]).copied().unwrap_or(0);
            seen[p] += 1;
            problem.task(p, step as usize).map_or(0, |t| t.bench.mix)
        })
        .collect();
    let mix = mixes[i];
    let other = (i + 1..mixes.len())
        .find(|k| mix != 0 && mixes[*k] == mix && order.turns[*k] != order.turns[i])?;
    let turn = order.turns.remove(other);
    order.turns.insert(i + 1, turn);
    Some(())
}
