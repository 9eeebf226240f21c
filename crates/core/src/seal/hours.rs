//! Air and place around a sealing coat, in words: the law judges them, here they are told.

use super::conditions::{Condition, ConditionId, Standing};
use super::look::{Judged, Look};
use crate::readiness::{Blocked, DAMPEST, DRIEST, FitAir, MARGIN_S, WARM, WaitReason};
use crate::time::{MINUTE_S, seconds, whole_seconds};
use chrono::{DateTime, Utc};

impl Look<'_> {
    /// The moment that air and place are looked at: when all the rest allows the coat.
    fn looked_at(&self, judged: &Judged) -> DateTime<Utc> {
        judged.verdict.ready.unwrap_or(self.now).max(self.now)
    }

    pub(super) fn air(&self, judged: &Judged, fit: &FitAir) -> Condition {
        let id = ConditionId::Air;
        let at = self.looked_at(judged);
        let wet = judged.touch_dry_min.map_or(0, |min| (min * MINUTE_S) as i64)
            + self.task.hands_on
            + MARGIN_S;
        let range = format!(
            "{:.0}-{:.0} °C and {:.0}-{:.0} % for the {:.0} minutes until it is touch-dry. [memory]",
            WARM.start(),
            WARM.end(),
            DRIEST * 100.0,
            DAMPEST * 100.0,
            wet as f64 / MINUTE_S
        );
        if judged.touch_dry_min.is_none() {
            let evidence = "What is in the cup gives no film that dries.".into();
            return Condition { id, standing: Standing::Against, evidence, from: None };
        }
        let never = matches!(judged.verdict.earliest, Err(Blocked::Air { .. }));
        let begins = whole_seconds(at);
        let fault = fit.fault(self.task.air, (begins, begins + wet));
        match (judged.of(&[WaitReason::Air]), fault) {
            (None, _) | (_, None) => {
                let air = self.studio.air.at(seconds(at));
                let (celsius, percent) = (air.celsius, air.humidity * 100.0);
                let evidence = format!("{celsius:.0} °C and {percent:.0} %; wanted are {range}");
                Condition { id, standing: Standing::Holds, evidence, from: Some(at) }
            }
            (Some(reason), Some((fault, _))) => {
                let from = reason.until.filter(|_| !never);
                let standing = if from.is_some() { Standing::Waits } else { Standing::Against };
                Condition { id, standing, evidence: format!("{fault}; wanted are {range}"), from }
            }
        }
    }

    pub(super) fn flat_place(&self, judged: &Judged) -> Condition {
        let id = ConditionId::FlatPlace;
        let all = self.studio.flat_places as usize;
        if all == 0 {
            let evidence = "The studio has no place where wet work can lie flat.".into();
            return Condition { id, standing: Standing::Against, evidence, from: None };
        }
        let at = self.looked_at(judged);
        let held = self.taken.iter().filter(|(a, b)| *a <= at && at < *b).count();
        let when = if at > self.now { "then" } else { "now" };
        let evidence = format!("{held} of {all} places hold wet varnish {when}.");
        let from = judged.of(&[WaitReason::FlatPlace]).and_then(|r| r.until);
        match from {
            Some(free) => Condition { id, standing: Standing::Waits, evidence, from: Some(free) },
            None => Condition { id, standing: Standing::Holds, evidence, from: Some(at) },
        }
    }
}
