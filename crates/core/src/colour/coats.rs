//! Coats over coats: how much one hides, how many are needed, and the ladder of a glaze.

use super::cards::usual_cards;
use super::shelf::Mixed;
use super::surface::Inside;

/// Coats of which a film is its own colour, if it ever is. [practice]
const MOST_COATS: usize = 60;

/// Coats above which one says that a paint does not hide. [practice]
const MOST_TO_HIDE: usize = 12;
/// Difference that is not seen at a glance (CIEDE2000). [practice]
const NOT_SEEN: f64 = 2.0;

impl Mixed {
    /// Contrast ratio [-] of a coat of `wet_um` [um]: luminance over the black card by that over
    /// the white one (ISO 6504-3, where a film hides from 0.98).
    pub fn covers(&self, wet_um: f64) -> f64 {
        let over = |card| self.laid(card, wet_um).seen().luminance();
        let (white, black) = usual_cards();
        over(black) / over(white)
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
}

/// Lightness of `rows` underpaintings, evenly from `dark` to `light`.
pub fn even_values(rows: usize, (dark, light): (f64, f64)) -> Vec<f64> {
    let step = |i| if rows > 1 { i as f64 / (rows - 1) as f64 } else { 0.5 };
    (0..rows).map(|i| dark + (light - dark) * step(i)).collect()
}

/// Lightness of the darkest and the lightest underpainting where the painter's own is not known
/// (L*). [practice]
pub const UNDERPAINTINGS: (f64, f64) = (25.0, 90.0);
