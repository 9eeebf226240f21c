//! Coats over coats: how much one hides, how many are needed, and the ladder of a glaze.

use super::cards::usual_cards;
use super::seen::Lab;
use super::shelf::Tint;
use super::surface::Inside;

/// Contrast ratio from which a film hides [-]; ISO 6504-3.
pub const HIDES_FROM: f64 = 0.98;
/// Most coats that are counted. [practice]
pub const MOST_COATS: usize = 60;

/// Coats above which one says that a paint does not hide. [practice]
const MOST_TO_HIDE: usize = 12;
/// Difference that is not seen at a glance (CIEDE2000). [practice]
const NOT_SEEN: f64 = 2.0;

impl Tint {
    /// Contrast ratio [-] of `coats` of `wet_um` [um] each: luminance over the black card by that over
    /// the white one (ISO 6504-3). From [`HIDES_FROM`] they hide.
    pub fn covers(&self, wet_um: f64, coats: usize) -> f64 {
        let over =
            |card| self.optics.over(card, self.dry_m(wet_um) * coats as f64).seen().luminance();
        let (white, black) = usual_cards();
        over(black) / over(white)
    }

    /// How many coats of `wet_um` [um] hide what lies below; `None` when not even [`MOST_COATS`] do.
    pub fn hides_in(&self, wet_um: f64) -> Option<usize> {
        let (mut too_few, mut enough) = (0, MOST_COATS);
        if self.covers(wet_um, enough) < HIDES_FROM {
            return None;
        }
        while enough - too_few > 1 {
            let half = usize::midpoint(too_few, enough);
            let place =
                if self.covers(wet_um, half) < HIDES_FROM { &mut too_few } else { &mut enough };
            *place = half;
        }
        Some(enough)
    }

    /// How many coats of `wet_um` [um] it takes until `under` no longer shows: until they look as they do
    /// over anything. `None` when more than [`MOST_TO_HIDE`] would.
    pub fn hides_here(&self, under: &Inside, wet_um: f64) -> Option<usize> {
        let dry_m = self.dry_m(wet_um) * MOST_COATS as f64;
        let (white, black) = usual_cards();
        let own = self.optics.over(white, dry_m).seen().lab();
        if own.apart(self.optics.over(black, dry_m).seen().lab()) > NOT_SEEN {
            return None;
        }
        let rungs = self.rungs(under, wet_um, MOST_TO_HIDE);
        (1..rungs.len()).find(|n| rungs[*n].seen().lab().apart(own) <= NOT_SEEN)
    }

    /// What is seen over `under` with nothing, one, two and up to `coats` coats of `wet_um` [um].
    pub fn rungs(&self, under: &Inside, wet_um: f64, coats: usize) -> Vec<Inside> {
        let mut rungs = vec![*under];
        for _ in 0..coats {
            let last = rungs[rungs.len() - 1];
            rungs.push(self.laid(&last, wet_um));
        }
        rungs
    }

    /// The number of coats of `wet_um` [um] over `under` that come nearest to `wanted`, up to `most`,
    /// and how far it is then (CIEDE2000).
    pub fn nearest_rung(
        &self,
        under: &Inside,
        wet_um: f64,
        wanted: Lab,
        most: usize,
    ) -> (usize, f64) {
        let rungs = self.rungs(under, wet_um, most);
        let apart = rungs.iter().map(|r| r.seen().lab().apart(wanted)).enumerate();
        apart.min_by(|a, b| a.1.total_cmp(&b.1)).unwrap_or_default()
    }
}

/// Lightness of `rows` underpaintings, evenly from `dark` to `light`.
pub fn even_values(rows: usize, (dark, light): (f64, f64)) -> Vec<f64> {
    let step = |i| if rows > 1 { i as f64 / (rows - 1) as f64 } else { 0.5 };
    (0..rows).map(|i| dark + (light - dark) * step(i)).collect()
}

/// Lightness of the darkest and the lightest underpainting where the painter's own is not known
/// (L*). [practice]
pub const UNDERPAINTINGS: (f64, f64) = (25.0, 90.0);
