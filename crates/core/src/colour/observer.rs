//! The eye and the light: CIE 1931 2-degree observer under D65.

use super::spectrum::{BANDS, Spectrum};

/// Wavelength [nm], colour-matching functions of the 2-degree observer, and power of D65, relative.
/// Source: CIE 015:2018, tables T.4 and T.1 (observer of 1931; illuminant D65), every 10 nm.
#[rustfmt::skip]
const TABLE: [(f64, [f64; 3], f64); BANDS] = [
    (380.0, [0.001368, 0.000039, 0.006450], 49.9755),
    (390.0, [0.004243, 0.000120, 0.020050], 54.6482),
    (400.0, [0.014310, 0.000396, 0.067850], 82.7549),
    (410.0, [0.043510, 0.001210, 0.207400], 91.4860),
    (420.0, [0.134380, 0.004000, 0.645600], 93.4318),
    (430.0, [0.283900, 0.011600, 1.385600], 86.6823),
    (440.0, [0.348280, 0.023000, 1.747060], 104.8650),
    (450.0, [0.336200, 0.038000, 1.772110], 117.0080),
    (460.0, [0.290800, 0.060000, 1.669200], 117.8120),
    (470.0, [0.195360, 0.090980, 1.287640], 114.8610),
    (480.0, [0.095640, 0.139020, 0.812950], 115.9230),
    (490.0, [0.032010, 0.208020, 0.465180], 108.8110),
    (500.0, [0.004900, 0.323000, 0.272000], 109.3540),
    (510.0, [0.009300, 0.503000, 0.158200], 107.8020),
    (520.0, [0.063270, 0.710000, 0.078250], 104.7900),
    (530.0, [0.165500, 0.862000, 0.042160], 107.6890),
    (540.0, [0.290400, 0.954000, 0.020300], 104.4050),
    (550.0, [0.433450, 0.994950, 0.008750], 104.0460),
    (560.0, [0.594500, 0.995000, 0.003900], 100.0000),
    (570.0, [0.762100, 0.952000, 0.002100], 96.3342),
    (580.0, [0.916300, 0.870000, 0.001650], 95.7880),
    (590.0, [1.026300, 0.757000, 0.001100], 88.6856),
    (600.0, [1.062200, 0.631000, 0.000800], 90.0062),
    (610.0, [1.002600, 0.503000, 0.000340], 89.5991),
    (620.0, [0.854450, 0.381000, 0.000190], 87.6987),
    (630.0, [0.642400, 0.265000, 0.000050], 83.2886),
    (640.0, [0.447900, 0.175000, 0.000020], 83.6992),
    (650.0, [0.283500, 0.107000, 0.000000], 80.0268),
    (660.0, [0.164900, 0.061000, 0.000000], 80.2146),
    (670.0, [0.087400, 0.032000, 0.000000], 82.2778),
    (680.0, [0.046770, 0.017000, 0.000000], 78.2842),
    (690.0, [0.022700, 0.008210, 0.000000], 69.7213),
    (700.0, [0.011359, 0.004102, 0.000000], 71.6091),
    (710.0, [0.005790, 0.002091, 0.000000], 74.3490),
    (720.0, [0.002899, 0.001047, 0.000000], 61.6040),
    (730.0, [0.001440, 0.000520, 0.000000], 69.8856),
];

/// XYZ of D65 [-], Y of the perfect white being 1. Source: IEC 61966-2-1.
const WHITE: [f64; 3] = [0.950_47, 1.0, 1.088_83];

/// XYZ to linear sRGB. Source: IEC 61966-2-1.
const TO_RGB: [[f64; 3]; 3] = [
    [3.240_454_2, -1.537_138_5, -0.498_531_4],
    [-0.969_266_0, 1.876_010_8, 0.041_556_0],
    [0.055_643_4, -0.204_025_9, 1.057_225_2],
];

/// How much each band gives of X, Y and Z, so that the perfect white is [`WHITE`].
///
/// The bands end at 730 nm, where a two-thousandth of the light is missing: each of the three is
/// scaled to the published white, so that a grey stays a grey.
fn weights() -> &'static [[f64; BANDS]; 3] {
    static WEIGHTS: std::sync::LazyLock<[[f64; BANDS]; 3]> = std::sync::LazyLock::new(|| {
        std::array::from_fn(|c| {
            let raw: [f64; BANDS] = std::array::from_fn(|i| TABLE[i].1[c] * TABLE[i].2);
            let whole: f64 = raw.iter().sum();
            raw.map(|w| w / whole * WHITE[c])
        })
    });
    &WEIGHTS
}

/// XYZ of light with these reflectances under D65 [-].
pub(super) fn xyz(seen: &Spectrum) -> [f64; 3] {
    let weights = weights();
    std::array::from_fn(|c| weights[c].iter().zip(seen.bands()).map(|(w, r)| w * r).sum())
}

/// How much each band gives of linear red, green and blue.
pub(super) fn rgb_weights() -> &'static [[f64; BANDS]; 3] {
    static RGB: std::sync::LazyLock<[[f64; BANDS]; 3]> = std::sync::LazyLock::new(|| {
        let xyz = weights();
        // The matrix is published with seven digits: what is missing of white is scaled in.
        std::array::from_fn(|c| {
            let row: [f64; BANDS] =
                std::array::from_fn(|i| (0..3).map(|k| TO_RGB[c][k] * xyz[k][i]).sum());
            let whole: f64 = row.iter().sum();
            row.map(|w| w / whole)
        })
    });
    &RGB
}
