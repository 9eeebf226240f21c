//! The shelf a new studio starts with: generic materials, pigments by Colour Index name.

use super::composition::{Composition, MixError};
use super::material::{Finish, Line, Material, MaterialKind, Opacity};
use super::swatch::{Drawdown, Swatch, Tint};

/// Solids, water, slow volatile and binder by volume, and density [g/ml].
type Numbers = ([f64; 4], f64);

/// Heavy paint: composition docs/model/drying.md; binder and density usual for such paint. [memory]
const HEAVY: Numbers = ([0.42, 0.53, 0.05, 0.30], 1.30);
/// Fluid paint, thinner than heavy. [memory]
const FLUID: Numbers = ([0.36, 0.59, 0.05, 0.28], 1.18);
/// Student paint: less pigment, more water. [memory]
const STUDENT: Numbers = ([0.36, 0.60, 0.04, 0.29], 1.22);
/// Slow-drying paint: docs/model/drying.md; binder and density. [memory]
const SLOW: Numbers = ([0.36, 0.36, 0.28, 0.26], 1.25);
/// Airbrush paint, ink-thin. [memory]
const AIRBRUSH: Numbers = ([0.22, 0.72, 0.06, 0.18], 1.08);
/// Iridescent paint: flakes in much binder. [memory]
const IRIDESCENT: Numbers = ([0.38, 0.57, 0.05, 0.33], 1.15);
/// A varnish carried in spirit, solids and spirit by volume: docs/model/drying.md; density. [memory]
const SPIRIT_BORNE: ([f64; 2], f64) = ([0.30, 0.70], 0.87);
/// How volatile retarder is beside propylene glycol [-]; docs/model/drying.md. [memory]
const RETARDER_VOLATILITY: f64 = 0.4;

use Finish::{Gloss, Matte, Satin};
use Opacity::{Opaque, SemiOpaque, Transparent};

/// Id, name, line, numbers, opacity, pigments, and how it looks at 30 um dry over the white and over the
/// black card: after the usual look of the pigment, and led half-way to what its tint asks for where the two
/// contradicted each other; all [memory].
type PaintRow = (
    &'static str,
    &'static str,
    Line,
    Numbers,
    Opacity,
    &'static [&'static str],
    [&'static str; 2],
);

/// How one part of each looks in ten of heavy titanium white, where it hides: id and colour. A
/// slow-drying paint is as strong as a heavy one. Paints with white in them need none. All [memory].
const TINTS: [(&str, &str); 17] = [
    ("heavy-pbk9", "#929190"),
    ("heavy-pbr7", "#bd9c8e"),
    ("heavy-py42", "#dcc59a"),
    ("heavy-py74", "#f6e07e"),
    ("heavy-pr254", "#e48b84"),
    ("heavy-pb29", "#93a2d6"),
    ("heavy-pg7", "#5fb3a0"),
    ("heavy-pr101", "#c08a7c"),
    ("fluid-pv19", "#dd8aaa"),
    ("fluid-pb15", "#5b9bd0"),
    ("fluid-py150", "#ecd48c"),
    ("fluid-pbk7", "#717477"),
    ("student-pb29", "#a9b3da"),
    ("student-pr254", "#eaa9a2"),
    ("slow-pb29", "#93a2d6"),
    ("slow-pbr7", "#bd9c8e"),
    ("airbrush-pbk7", "#94969a"),
];
/// The white of these tints.
const TINT_WHITE: &str = "heavy-pw6";

#[rustfmt::skip]
const PAINTS: &[PaintRow] = &[
    ("heavy-pw6", "Titanium white PW6, heavy", Line::Heavy, HEAVY, Opaque, &["PW6"], ["#f3f3ef", "#dee0e2"]),
    ("heavy-pw4", "Zinc white PW4, heavy", Line::Heavy, HEAVY, Transparent, &["PW4"], ["#f3f3f0", "#787c84"]),
    ("heavy-pbk9", "Bone black PBk9, heavy", Line::Heavy, HEAVY, SemiOpaque, &["PBk9"], ["#2a2926", "#1f1e1d"]),
    ("heavy-grey3", "Neutral grey PW6 PBk9, dark", Line::Heavy, HEAVY, Opaque, &["PW6", "PBk9"], ["#5e5e5b", "#5a5a57"]),
    ("heavy-grey6", "Neutral grey PW6 PBk9, light", Line::Heavy, HEAVY, Opaque, &["PW6", "PBk9"], ["#8f8f8a", "#898984"]),
    ("heavy-pbr7", "Burnt earth PBr7, heavy", Line::Heavy, HEAVY, SemiOpaque, &["PBr7"], ["#58311f", "#44291c"]),
    ("heavy-py42", "Yellow ochre PY42, heavy", Line::Heavy, HEAVY, Opaque, &["PY42"], ["#b58839", "#aa8039"]),
    ("heavy-py74", "Yellow PY74, heavy", Line::Heavy, HEAVY, SemiOpaque, &["PY74"], ["#f8ae08", "#6c642c"]),
    ("heavy-pr254", "Red PR254, heavy", Line::Heavy, HEAVY, Opaque, &["PR254"], ["#b02023", "#a31f22"]),
    ("heavy-pb29", "Ultramarine PB29, heavy", Line::Heavy, HEAVY, Transparent, &["PB29"], ["#211b60", "#151a36"]),
    ("heavy-pg7", "Phthalo green PG7, heavy", Line::Heavy, HEAVY, Transparent, &["PG7"], ["#032f23", "#05281e"]),
    ("heavy-pr101", "Red iron oxide PR101, heavy", Line::Heavy, HEAVY, Opaque, &["PR101"], ["#8c3526", "#762e22"]),
    ("fluid-pv19", "Quinacridone PV19, fluid", Line::Fluid, FLUID, Transparent, &["PV19"], ["#680d2a", "#391020"]),
    ("fluid-pb15", "Phthalo blue PB15:3, fluid", Line::Fluid, FLUID, Transparent, &["PB15:3"], ["#041c3c", "#021526"]),
    ("fluid-py150", "Nickel azo PY150, fluid", Line::Fluid, FLUID, Transparent, &["PY150"], ["#c27408", "#332e14"]),
    ("fluid-pbk7", "Carbon black PBk7, fluid", Line::Fluid, FLUID, Opaque, &["PBk7"], ["#1f1f20", "#1b1b1c"]),
    ("student-pw6", "Titanium white PW6, student", Line::Student, STUDENT, SemiOpaque, &["PW6"], ["#eeeeea", "#b4b6b8"]),
    ("student-pb29", "Ultramarine PB29, student", Line::Student, STUDENT, Transparent, &["PB29"], ["#2d2368", "#1b2033"]),
    ("student-pr254", "Red PR254, student", Line::Student, STUDENT, SemiOpaque, &["PR254"], ["#9c2e2f", "#76282a"]),
    ("slow-pb29", "Ultramarine PB29, slow-drying", Line::Slow, SLOW, Transparent, &["PB29"], ["#211b60", "#151a36"]),
    ("slow-pbr7", "Burnt earth PBr7, slow-drying", Line::Slow, SLOW, SemiOpaque, &["PBr7"], ["#58311f", "#44291c"]),
    ("airbrush-pw6", "Titanium white PW6, airbrush", Line::Airbrush, AIRBRUSH, SemiOpaque, &["PW6"], ["#efefeb", "#c0c2c3"]),
    ("airbrush-pbk7", "Carbon black PBk7, airbrush", Line::Airbrush, AIRBRUSH, SemiOpaque, &["PBk7"], ["#2b2b2c", "#1e1e1f"]),
    ("iridescent-pw20", "Pearl PW20 PW6, iridescent", Line::Iridescent, IRIDESCENT, Transparent, &["PW20", "PW6"], ["#d8d5c9", "#8d8c88"]),
];

/// Id, name, kind, numbers, finish, swatch.
type ClearRow = (&'static str, &'static str, &'static str, Numbers, Option<Finish>, &'static str);

/// Compositions of glazing liquid, matte medium and retarder: docs/model/drying.md; the others are usual for
/// such a product. [memory]
#[rustfmt::skip]
const CLEAR: &[ClearRow] = &[
    ("glazing", "Glazing liquid", "medium", ([0.32, 0.59, 0.09, 0.32], 1.03), Some(Gloss), "#dcd8cc"),
    ("matte-medium", "Matte medium", "medium", ([0.36, 0.61, 0.03, 0.30], 1.06), Some(Matte), "#dad9d4"),
    ("gloss-medium", "Gloss medium", "medium", ([0.38, 0.59, 0.03, 0.38], 1.03), Some(Gloss), "#dfddd6"),
    ("fast-glazing", "Fast glazing medium", "medium", ([0.33, 0.63, 0.04, 0.33], 1.03), Some(Gloss), "#dcdace"),
    ("soft-gel", "Soft gel", "medium", ([0.40, 0.57, 0.03, 0.40], 1.04), Some(Gloss), "#e0ded7"),
    ("airbrush-medium", "Airbrush medium", "medium", ([0.20, 0.75, 0.05, 0.20], 1.02), Some(Gloss), "#e0e0da"),
    ("flow-aid", "Flow aid", "flow_aid", ([0.00, 0.95, 0.05, 0.00], 1.00), None, "#e4e6e4"),
    ("retarder", "Retarder", "retarder", ([0.00, 0.20, 0.80, 0.00], 1.04), None, "#e4e2dc"),
    ("water", "Water", "water", ([0.00, 1.00, 0.00, 0.00], 1.00), None, "#e6e8e8"),
    ("primer", "Acrylic primer, white", "primer", ([0.45, 0.52, 0.03, 0.22], 1.42), None, "#efeeea"),
    ("primer-clear", "Acrylic primer, clear with tooth", "primer", ([0.40, 0.57, 0.03, 0.28], 1.15), None, "#dddbd3"),
    ("varnish-gloss", "Water-borne varnish, gloss", "varnish", ([0.33, 0.62, 0.05, 0.33], 1.03), Some(Gloss), "#d9d5c6"),
    ("varnish-satin", "Water-borne varnish, satin", "varnish", ([0.33, 0.62, 0.05, 0.31], 1.04), Some(Satin), "#d8d5c8"),
    ("varnish-matte", "Water-borne varnish, matte", "varnish", ([0.33, 0.62, 0.05, 0.29], 1.05), Some(Matte), "#d6d4cb"),
];

/// Spirit-borne varnishes: id, name, finish, swatch.
const SPIRIT: &[(&str, &str, Finish, &str)] = &[
    ("solvent-gloss", "Removable solvent varnish, gloss", Gloss, "#d8d2be"),
    ("solvent-satin", "Removable solvent varnish, satin", Satin, "#d7d2c2"),
    ("solvent-matte", "Removable solvent varnish, matte", Matte, "#d5d1c5"),
];

/// How clear materials that are not quite clear, and primer, look over the two cards; as above. [memory]
const NOT_CLEAR: [(&str, [&str; 2]); 3] = [
    ("matte-medium", ["#f3f2ef", "#242426"]),
    ("primer", ["#efeeea", "#d6d7d6"]),
    ("primer-clear", ["#f0efeb", "#2c2c2e"]),
];

/// Where the numbers of the starter shelf come from.
const SOURCE: &str = "[memory] usual for a generic product: replace its shares by the product's own \
                      data sheet";
/// Where its colours come from.
const COLOUR_SOURCE: &str =
    "[memory] usual for its pigment: replace it by a drawdown of your own, or a photograph of one";

/// A drawdown of the usual thickness over the usual cards.
fn drawdown([over_white, over_black]: [&str; 2]) -> Option<Drawdown> {
    Some(Drawdown::usual(Swatch::from_hex(over_white)?, Swatch::from_hex(over_black)?))
}

/// The tint of the paint `id`, where there is one.
fn tint(id: &str) -> Option<Tint> {
    let (_, colour) = TINTS.iter().find(|(of, _)| *of == id)?;
    let colour = Swatch::from_hex(colour)?;
    Some(Tint { colour, white_parts: Tint::USUAL_PARTS, white: TINT_WHITE.into() })
}

fn material(
    (id, name): (&str, &str),
    kind: MaterialKind,
    (composition, binder, density): (Composition, f64, f64),
    swatch: &str,
) -> Material {
    let volatility = (kind == MaterialKind::Retarder).then_some(RETARDER_VOLATILITY);
    let mut made = Material {
        binder: Some(binder),
        density_g_ml: Some(density),
        slow_volatility: volatility,
        swatch: Swatch::from_hex(swatch),
        colour_source: Some(COLOUR_SOURCE.into()),
        source: Some(SOURCE.into()),
        ..Material::new(id, name, kind, composition)
    };
    made.hazards = made.hurts();
    made
}

/// A water-borne composition with its binder and density.
fn water_borne(
    ([solids, water, glycol, binder], density): Numbers,
) -> Result<(Composition, f64, f64), MixError> {
    Ok((Composition::try_new(solids, water, glycol)?, binder, density))
}

/// The starter shelf.
///
/// # Errors
/// [`MixError`] when a row of the table is not a composition; a test holds that none is.
pub fn starter_shelf() -> Result<Vec<Material>, MixError> {
    let paints = PAINTS.iter().map(|(id, name, line, numbers, opacity, pigments, seen)| {
        let mut paint = material((id, name), MaterialKind::Paint, water_borne(*numbers)?, seen[0]);
        paint.drawdown = drawdown(*seen);
        paint.tint = tint(id);
        paint.line = Some(*line);
        paint.opacity = Some(*opacity);
        paint.pigments = pigments.iter().map(|p| (*p).to_owned()).collect();
        paint.hazards = paint.hurts();
        Ok(paint)
    });
    let clear = CLEAR.iter().map(|(id, name, kind, numbers, finish, swatch)| {
        let mut clear =
            material((id, name), MaterialKind::from_word(kind), water_borne(*numbers)?, swatch);
        clear.finish = *finish;
        clear.drawdown = NOT_CLEAR.iter().find(|(of, _)| of == id).and_then(|row| drawdown(row.1));
        Ok(clear)
    });
    let spirit = SPIRIT.iter().map(|(id, name, finish, swatch)| {
        let ([solids, spirit], density) = SPIRIT_BORNE;
        let numbers = (Composition::spirit_borne(solids, spirit)?, solids, density);
        let mut varnish = material((id, name), MaterialKind::SolventVarnish, numbers, swatch);
        varnish.finish = Some(*finish);
        Ok(varnish)
    });
    paints.chain(clear).chain(spirit).collect()
}

/// A new paint before its own numbers are known: an ordinary heavy one.
///
/// # Errors
/// [`MixError`] when the table's row is not a composition; a test holds that it is.
pub fn ordinary_paint() -> Result<Composition, MixError> {
    let [solids, water, glycol, _] = HEAVY.0;
    Composition::try_new(solids, water, glycol)
}
