//! A colour as it is seen: Lab and its nearest colour of a screen.

use super::observer::xyz;
use super::spectrum::Spectrum;
use crate::mix::Swatch;
use palette::color_difference::Ciede2000;
use palette::white_point::D65;
use palette::{FromColor, IntoColor, Lab as CieLab, Srgb, Xyz};

/// CIE L*a*b* under D65.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lab {
    /// Lightness, 0 to 100.
    pub l: f64,
    /// Red against green.
    pub a: f64,
    /// Yellow against blue.
    pub b: f64,
}

impl Lab {
    /// The colour of a swatch on a screen.
    ///
    /// ```
    /// use ulvek_core::{colour::Lab, mix::Swatch};
    /// let white = Lab::of(Swatch([255, 255, 255]));
    /// assert!((white.l - 100.0).abs() < 0.01 && white.a.abs() < 0.01);
    /// ```
    pub fn of(swatch: Swatch) -> Self {
        let rgb: Srgb<f64> = Srgb::from(swatch.0).into_format();
        Self::from_palette(CieLab::from_color(rgb))
    }

    /// The colour of XYZ under D65, Y of white being 1.
    fn of_xyz([x, y, z]: [f64; 3]) -> Self {
        Self::from_palette(CieLab::from_color(Xyz::<D65, f64>::new(x, y, z)))
    }

    fn from_palette(lab: CieLab<D65, f64>) -> Self {
        Self { l: lab.l, a: lab.a, b: lab.b }
    }

    const fn palette(self) -> CieLab<D65, f64> {
        CieLab::new(self.l, self.a, self.b)
    }

    /// Difference to another colour as CIEDE2000: 1 is just seen side by side, 2 at a glance.
    pub fn apart(self, other: Self) -> f64 {
        self.palette().difference(other.palette())
    }

    /// What a difference (CIEDE2000) means to the eye. [practice]
    pub const fn said_apart(difference: f64) -> &'static str {
        if difference < 1.0 {
            "no difference to be seen"
        } else if difference < 2.5 {
            "a difference only side by side"
        } else if difference < 6.0 {
            "near, and another colour"
        } else {
            "out of reach of these paints"
        }
    }

    /// Square of the straight distance: cheap, for ordering what is far from the wish.
    pub(super) fn straight2(self, other: Self) -> f64 {
        (self.l - other.l).powi(2) + (self.a - other.a).powi(2) + (self.b - other.b).powi(2)
    }

    /// The nearest colour of a screen, and whether the screen can show it.
    pub fn on_screen(self) -> (Swatch, bool) {
        let rgb: Srgb<f64> = self.palette().into_color();
        let parts = [rgb.red, rgb.green, rgb.blue];
        // Half a step of 8 bits is no colour of its own.
        let shown = parts.iter().all(|p| (-0.5 / 255.0..=1.0 + 0.5 / 255.0).contains(p));
        (Swatch(parts.map(|p| (p.clamp(0.0, 1.0) * 255.0).round() as u8)), shown)
    }

    /// A neutral grey of lightness `l`.
    pub const fn grey(l: f64) -> Self {
        Self { l, a: 0.0, b: 0.0 }
    }
}

/// Light that a surface sends to the eye, surface and all [-, by wavelength].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Seen(pub Spectrum);

impl Seen {
    /// The colour.
    pub fn lab(&self) -> Lab {
        Lab::of_xyz(xyz(&self.0))
    }

    /// Luminance, that of the perfect white being 1.
    pub fn luminance(&self) -> f64 {
        xyz(&self.0)[1]
    }

    /// The nearest colour of a screen.
    pub fn swatch(&self) -> Swatch {
        self.lab().on_screen().0
    }
}
