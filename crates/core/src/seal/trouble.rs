//! Trouble found on a sealing coat: what to do now, and what it changes in the plan.

use super::varnish::{VarnishError, choice_of, with_varnish};
use crate::picture::{Need, Picture, Purpose, SealTrouble, Step, StepKind};
use crate::studio::Studio;

impl SealTrouble {
    /// What to look for.
    pub const fn looks_like(self) -> &'static str {
        match self {
            Self::Drip => "a run, or a bead along the lower edge",
            Self::Puddle => "a thick wet place that stays when the rest has set",
            Self::Missed => "a dull place in raking light",
            Self::Hair => "a brush hair, or dust",
            Self::Cloud => "a grey veil over darks",
            Self::White => "white where the brush went over it again",
            Self::Bubbles => "bubbles or pinholes",
            Self::Streaks => "brush marks, or bands of uneven sheen",
        }
    }

    /// What to do while the coat is still workable. [practice]
    pub const fn while_wet(self) -> &'static str {
        match self {
            Self::Drip => "Take it up with the tip of the nearly dry brush, once, and leave it.",
            Self::Puddle => "Draw it out with the nearly dry brush towards the wet edge, once.",
            Self::Missed => "Touch it in from the wet edge, once.",
            Self::Hair => "Lift it with the tip of the brush, drawing along it, and leave it.",
            Self::Cloud => "Leave it: most clouds of wet varnish clear as it dries.",
            Self::White => "Stop at once. Going over it again makes it worse.",
            Self::Bubbles => {
                "Draw the brush over once, lightly, with little on it. Do not shake the bottle."
            }
            Self::Streaks => "Leave it: it levels by itself, or the next coat does it.",
        }
    }

    /// What to do when the coat has set. [practice]
    pub const fn when_set(self) -> &'static str {
        match self {
            Self::Drip => {
                "Do not pick it off: a dried drip tears the paint with it. Let it dry through, the \
                 next coat levels it."
            }
            Self::Puddle => {
                "Leave it lying flat. It dries long after the rest; the next coat waits for it."
            }
            Self::Missed => "Leave it. The next coat catches what was missed.",
            Self::Hair => {
                "Leave it. When the coat is dry through a hair may be lifted with a blade's point; dust stays."
            }
            Self::Cloud => "Leave it and keep it warm and dry: look again when it is touch-dry.",
            Self::White => {
                "Leave it. White that stays when the coat is dry through is often cleared by a gloss coat."
            }
            Self::Bubbles => "Leave it until it is dry through; the next coat fills pinholes.",
            Self::Streaks => "Leave it. Put the next coat across this one.",
        }
    }

    /// Whether the next coat must wait until this one is dry right through. A cloud over wet varnish changes nothing
    /// before it is looked at again.
    const fn waits(self) -> bool {
        matches!(self, Self::Drip | Self::Puddle | Self::White | Self::Bubbles)
    }

    /// Whether another coat must follow.
    const fn wants_a_coat(self) -> bool {
        matches!(self, Self::Missed | Self::White | Self::Bubbles | Self::Drip | Self::Streaks)
    }

    /// `picture` as it is planned after this was found on step `i`, and what was changed, in words.
    ///
    /// # Errors
    /// [`VarnishError`] when a coat that is wanted cannot be planned.
    pub fn mend(
        self,
        studio: &Studio,
        picture: &Picture,
        i: usize,
    ) -> Result<(Picture, Vec<String>), VarnishError> {
        let mut changed = picture.clone();
        let mut said = Vec::new();
        let to_come = |s: &Step| s.kind.seals() && s.laid_at.is_none();
        if self.wants_a_coat() && !changed.steps[i + 1..].iter().any(to_come) {
            let mut choice = choice_of(studio, picture);
            let laid = picture.steps.iter().filter(|s| s.kind == StepKind::Varnish).count();
            let sealer = usize::from(choice.purpose == Purpose::Handled);
            choice.coats = u8::try_from(laid + 1 - sealer.min(laid)).unwrap_or(u8::MAX);
            choice.isolation_reason.get_or_insert_with(|| "as it was begun".into());
            let plan = choice.plan(studio, picture)?;
            changed = with_varnish(picture, &choice, &plan);
            said.push("One more coat is planned: none was to come.".into());
        }
        let next = changed.steps[i + 1..].iter().position(to_come).map(|n| i + 1 + n);
        let Some(next) = next else { return Ok((changed, said)) };
        if self.waits() && changed.needs(next) < Need::DryThrough {
            changed.steps[next].needs = Some(Need::DryThrough);
            let title = changed.steps[next].called();
            said.push(format!("{title} waits until this coat is dry right through."));
        }
        if matches!(self, Self::Cloud | Self::White) {
            // More matte would cloud it more; the sheen is the painter's, and nothing changes before it is dry.
            said.push(
                "Look again when it is touch-dry: if the cloud stays, one coat of gloss under the last coat \
                 clears it. The sheen you chose stays."
                    .into(),
            );
        }
        Ok((changed, said))
    }
}
