//! Paint does not become a film in the cold.

use super::{Rule, Scene, Severity};

pub(super) const RULE: Rule = Rule {
    id: "room-too-cold",
    severity: Severity::Stop,
    remedy: "Warm the room before you paint.",
    provenance: "[memory] below about 9-10 C no sound film forms",
    check,
};

/// Coldest room in which acrylic dispersion forms a film [C]. [memory]
const COLDEST: f64 = 10.0;

fn check(scene: &Scene<'_>, say: &mut dyn FnMut(usize, String)) {
    for coat in &scene.laid.coats {
        let celsius = scene.studio.air.at(coat.coat.at).celsius;
        if celsius < COLDEST {
            say(
                coat.coat.step,
                format!("It was laid at {celsius:.0} °C, too cold for a sound film."),
            );
        }
    }
    let next = scene.to_do().find(|(_, s)| !s.mix.is_empty());
    let celsius = scene.studio.air.usual().celsius;
    if let Some((i, _)) = next.filter(|_| celsius < COLDEST) {
        say(i, format!("The room is kept at {celsius:.0} °C: no sound film forms below 10 °C."));
    }
}
