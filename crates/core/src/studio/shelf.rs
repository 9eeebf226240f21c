//! The shelf a new studio starts with: generic materials, pigments by Colour Index name.

use super::material::{Material, MaterialKind, Swatch};
use crate::film::{Composition, MixError};

/// One row of the shelf.
type Row = (&'static str, &'static str, &'static str, [f64; 4], f64, &'static str);

/// Rows: id, name, kind, solids/water/glycol/binder by volume, density [g/ml], swatch.
/// Compositions: drying.md, binder and density: usual for such paint, [memory]; swatches over white: colour.md and the trade's usual look of the pigment, [memory].
#[rustfmt::skip]
const ROWS: &[Row] = &[
    ("heavy-pw6", "Titanium white PW6, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#f3f3ef"),
    ("heavy-pw4", "Zinc white PW4, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#ecece8"),
    ("heavy-pbk9", "Bone black PBk9, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#2a2926"),
    ("heavy-grey3", "Neutral grey PW6 PBk9, dark", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#5e5e5b"),
    ("heavy-grey6", "Neutral grey PW6 PBk9, light", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#8f8f8a"),
    ("heavy-pbr7", "Burnt earth PBr7, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#803c22"),
    ("heavy-py42", "Yellow ochre PY42, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#c4923e"),
    ("heavy-py74", "Yellow PY74, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#face1e"),
    ("heavy-pr254", "Red PR254, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#c42022"),
    ("heavy-pb29", "Ultramarine PB29, heavy", "paint", [0.42, 0.53, 0.05, 0.30], 1.30, "#263496"),
    ("fluid-pv19", "Quinacridone PV19, fluid", "paint", [0.36, 0.59, 0.05, 0.28], 1.18, "#aa1446"),
    ("fluid-pb15", "Phthalo blue PB15:3, fluid", "paint", [0.36, 0.59, 0.05, 0.28], 1.18, "#0a3c82"),
    ("fluid-py150", "Nickel azo PY150, fluid", "paint", [0.36, 0.59, 0.05, 0.28], 1.18, "#d69614"),
    ("slow-pb29", "Ultramarine PB29, slow-drying", "paint", [0.36, 0.36, 0.28, 0.26], 1.25, "#26348c"),
    ("slow-pbr7", "Burnt earth PBr7, slow-drying", "paint", [0.36, 0.36, 0.28, 0.26], 1.25, "#7a3a22"),
    ("glazing", "Glazing liquid", "medium", [0.31, 0.54, 0.15, 0.31], 1.03, "#dcd8cc"),
    ("matte-medium", "Matte medium", "medium", [0.36, 0.61, 0.03, 0.36], 1.03, "#dad9d4"),
    ("gloss-medium", "Gloss medium", "medium", [0.38, 0.59, 0.03, 0.38], 1.03, "#dfddd6"),
    ("retarder", "Retarder", "retarder", [0.0, 0.20, 0.80, 0.00], 1.04, "#e4e2dc"),
    ("water", "Water", "water", [0.0, 1.0, 0.0, 0.00], 1.00, "#e6e8e8"),
    ("primer", "Acrylic primer, white", "primer", [0.45, 0.52, 0.03, 0.22], 1.42, "#efeeea"),
    ("varnish-gloss", "Water-borne varnish, gloss", "varnish", [0.33, 0.62, 0.05, 0.33], 1.03, "#d9d5c6"),
    ("varnish-matte", "Water-borne varnish, matte", "varnish", [0.33, 0.62, 0.05, 0.33], 1.03, "#d6d4cb"),
];

/// The starter shelf.
///
/// # Errors
/// [`MixError`] when a row of the table is not a composition; a test holds that none is.
pub fn starter_shelf() -> Result<Vec<Material>, MixError> {
    ROWS.iter()
        .map(|(id, name, kind, [solids, water, glycol, binder], density, swatch)| {
            Ok(Material {
                id: (*id).to_owned(),
                name: (*name).to_owned(),
                kind: MaterialKind::from_word(kind),
                composition: Composition::try_new(*solids, *water, *glycol)?,
                binder: Some(*binder),
                density_g_ml: Some(*density),
                swatch: Swatch::from_hex(swatch),
            })
        })
        .collect()
}
