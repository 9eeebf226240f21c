//! From the written shelf to the checked one.

use super::check::{
    Checked, MOST_STEPS, Refusal, at_most, check_mix, check_step, quantity, unique,
};
use super::shelf_doc::{MaterialDoc, StockDoc, TubDoc, WayDoc};
use super::texts::{few_lines, line, moment};
use ulvek_core::cup::amounts;
use ulvek_core::film::Composition;
use ulvek_core::picture::{Picture, check_chain};
use ulvek_core::quantity::{Density, Millilitres, Pace, Share};
use ulvek_core::studio::{
    Material, MaterialKind, OwnWay, Stock, StudioDocument, Swatch, Tub, TubCheck,
};

/// Most pigments in a material. [practice]
const MOST_PIGMENTS: usize = 20;
/// Most looks kept of a tub. [practice]
const MOST_CHECKS: usize = 1000;
/// Longest time colour is said to keep [d]. [practice] ten years
const MOST_DAYS: f64 = 3650.0;
/// Most materials, tubs or ways on a shelf. [practice]
const MOST_ENTRIES: usize = 2000;

/// Checks a shelf and puts it into `checked`; places begin with `base`.
///
/// # Errors
/// [`Refusal`] of the first place that does not fit.
pub fn check_shelf(
    base: &str,
    materials: &[MaterialDoc],
    tubs: &[TubDoc],
    ways: &[WayDoc],
    checked: &mut StudioDocument,
) -> Checked<()> {
    let lists = [("materials", materials.len()), ("tubs", tubs.len()), ("ways", ways.len())];
    for (list, count) in lists {
        at_most(&format!("{base}{list}"), count, MOST_ENTRIES, "entries")?;
    }
    checked.materials.clear();
    for (i, material) in materials.iter().enumerate() {
        checked.materials.push(check_material(&format!("{base}materials[{i}]"), material)?);
    }
    unique(&format!("{base}materials"), materials.iter().map(|m| m.id.as_str()))?;
    checked.tubs.clear();
    for (i, tub) in tubs.iter().enumerate() {
        let tub = check_tub(&format!("{base}tubs[{i}]"), tub, &checked.materials)?;
        checked.tubs.push(tub);
    }
    unique(&format!("{base}tubs"), tubs.iter().map(|t| t.id.as_str()))?;
    checked.ways.clear();
    for (i, way) in ways.iter().enumerate() {
        let way = check_way(&format!("{base}ways[{i}]"), way, checked)?;
        checked.ways.push(way);
    }
    unique(&format!("{base}ways"), ways.iter().map(|w| w.id.as_str()))
}

fn check_material(path: &str, material: &MaterialDoc) -> Checked<Material> {
    let swatch = match &material.swatch {
        None => None,
        Some(hex) => Some(Swatch::from_hex(hex).ok_or_else(|| {
            let reason = format!("\"{hex}\" is not a colour; write it as in #c4923e");
            Refusal::new(format!("{path}.swatch"), reason)
        })?),
    };
    let pace = Pace::try_new(material.pace.unwrap_or(1.0))
        .map_err(|e| Refusal::new(format!("{path}.pace"), e.to_string()))?;
    let share = |field: &str, value: Option<f64>| match value {
        None => Ok(None),
        Some(value) => quantity!(Share, format!("{path}.{field}"), value).map(Some),
    };
    at_most(&format!("{path}.pigments"), material.pigments.len(), MOST_PIGMENTS, "pigments")?;
    let composition = Composition::try_new(material.solids, material.water, material.glycol)
        .map_err(|e| Refusal::new(path, e.to_string()))?
        .with_pace(pace);
    let binder = match material.binder {
        None => None,
        Some(binder) => {
            let place = format!("{path}.binder");
            let share = quantity!(Share, place, binder)?;
            // The document rounds to two digits, so the binder may pass the solids by a hair.
            if share > composition.solids() + 0.011 {
                return Err(Refusal::new(place, "is more than the solids it is a part of"));
            }
            Some(share)
        }
    };
    let density_g_ml = match material.density_g_ml {
        None => None,
        Some(density) => Some(quantity!(Density, format!("{path}.density_g_ml"), density)?),
    };
    Ok(Material {
        binder,
        density_g_ml,
        swatch,
        line: material.line,
        opacity: material.opacity,
        finish: material.finish,
        pigments: material
            .pigments
            .iter()
            .enumerate()
            .map(|(i, p)| line(&format!("{path}.pigments[{i}]"), p))
            .collect::<Checked<_>>()?,
        hazards: few_lines(&format!("{path}.hazards"), material.hazards.as_deref())?,
        most_retarder: share("most_retarder", material.most_retarder)?,
        most_water: share("most_water", material.most_water)?,
        stock: match &material.stock {
            None => None,
            Some(stock) => Some(check_stock(&format!("{path}.stock"), stock)?),
        },
        source: few_lines(&format!("{path}.source"), material.source.as_deref())?,
        archived: material.archived,
        ..Material::new(
            line(&format!("{path}.id"), &material.id)?,
            line(&format!("{path}.name"), &material.name)?,
            MaterialKind::from_word(&line(&format!("{path}.kind"), &material.kind)?),
            composition,
        )
    })
}

fn check_stock(path: &str, stock: &StockDoc) -> Checked<Stock> {
    Ok(Stock {
        ml: quantity!(Millilitres, format!("{path}.ml"), stock.ml)?,
        at: moment(&format!("{path}.at"), stock.at)?,
    })
}

fn check_tub(path: &str, tub: &TubDoc, shelf: &[Material]) -> Checked<Tub> {
    let mixed_at = moment(&format!("{path}.mixed_at"), tub.mixed_at)?;
    let mixed_ml = quantity!(Millilitres, format!("{path}.mixed_ml"), tub.mixed_ml)?;
    let mix = check_mix(&format!("{path}.mix"), &tub.mix, shelf)?;
    amounts(&mix, mixed_ml, shelf)
        .map_err(|e| Refusal::new(format!("{path}.mix"), e.to_string()))?;
    at_most(&format!("{path}.checks"), tub.checks.len(), MOST_CHECKS, "looks")?;
    let mut checks = Vec::with_capacity(tub.checks.len());
    for (i, c) in tub.checks.iter().enumerate() {
        let at = moment(&format!("{path}.checks[{i}].at"), c.at)?;
        checks.push(TubCheck { at, found: c.found.clone() });
    }
    checks.sort_by_key(|c| c.at);
    Ok(Tub {
        id: line(&format!("{path}.id"), &tub.id)?,
        name: line(&format!("{path}.name"), &tub.name)?,
        mix,
        mixed_at,
        mixed_ml,
        level: match &tub.level {
            None => Stock { ml: mixed_ml, at: mixed_at },
            Some(level) => check_stock(&format!("{path}.level"), level)?,
        },
        tightness: tub.tightness,
        keeps_days: match tub.keeps_days {
            None => None,
            Some(days) if (0.0..=MOST_DAYS).contains(&days) => Some(days),
            Some(days) => {
                let reason = format!("must be from 0 to {MOST_DAYS} days, not {days}");
                return Err(Refusal::new(format!("{path}.keeps_days"), reason));
            }
        },
        checks,
        archived: tub.archived,
    })
}

fn check_way(path: &str, way: &WayDoc, shelf: &StudioDocument) -> Checked<OwnWay> {
    at_most(&format!("{path}.steps"), way.steps.len(), MOST_STEPS, "steps")?;
    let mut steps = Vec::with_capacity(way.steps.len());
    for (i, step) in way.steps.iter().enumerate() {
        let place = format!("{path}.steps[{i}]");
        let checked = check_step(&place, step, shelf)?;
        if checked.laid_at.is_some() {
            let reason = "a way of working is a plan: nothing in it is laid";
            return Err(Refusal::new(format!("{place}.laid_at"), reason));
        }
        steps.push(checked);
    }
    let id = line(&format!("{path}.id"), &way.id)?;
    let chain = Picture::new(id.clone(), (30.0, 40.0), steps);
    check_chain(&chain)
        .map_err(|e| Refusal::new(format!("{path}.steps[{}]", e.step()), e.to_string()))?;
    Ok(OwnWay {
        id,
        name: line(&format!("{path}.name"), &way.name)?,
        why: line(&format!("{path}.why"), &way.why)?,
        steps: chain.steps,
    })
}
