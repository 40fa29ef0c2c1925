//! How much metal a hole wants about it.

use crate::quantity::{Amount, LengthUnit, decimal};
use crate::sheet::Hole;
use crate::stock::Process;
use crate::work::sheet::Make;

use super::context::Context;

/// Thicker than this a cut leaves metal that stands by itself, mm (common practice).
const THICK: f64 = 6.0;
/// A drill does not break out through so much, mm (common practice).
const DRILLED: f64 = 2.0;
/// Of a hole's diameter: from its edge to the part's where its centre is 1.2 diameters in (EN 1993-1-8, table 3.3).
const OF_DIAMETER: f64 = 0.7;

/// By which formula.
#[derive(Clone, Copy)]
pub(super) enum Formula {
    Drilled,
    /// So many thicknesses, by a punch.
    Punched(f64),
    /// So many thicknesses, by this.
    Cut(f64, Option<Process>),
    /// In thick plate, by this.
    Thick(f64, Option<Process>),
}

impl Formula {
    /// In letters.
    pub(super) fn words(self, unit: LengthUnit) -> String {
        let size = |value: f64| unit.says(Amount::Length, value, 3);
        let by = |process: Option<Process>| process.map_or(String::new(), |one| format!(", cut by {}", one.words()));
        match self {
            Formula::Drilled => format!("distance >= 0.7 d, at least {}, at most 1T", size(2.0)),
            Formula::Punched(times) => format!("distance >= {}T, punched", decimal(times, 3)),
            Formula::Cut(times, process) => format!("distance >= {}T{}", decimal(times, 3), by(process)),
            Formula::Thick(times, process) => {
                let half = decimal(times / 2.0, 3);
                format!("distance >= {half}T, at least {}{}", size(THICK * times), by(process))
            }
        }
    }
}

/// How much metal a hole leaves to an edge or to the next opening at least, mm, and the formula. Between two openings EN 1993-1-8
/// has more where bolts bear on it (2.2 d0 from centre to centre); that is the joint's design and not this rule's.
pub(super) fn wanted(hole: &Hole, context: &Context<'_>) -> (f64, Formula) {
    let (thickness, asks) = (context.part.flat.thickness, &context.shop.asks.edge);
    let round = hole.outline.as_circle().map(|(_, radius)| 2.0 * radius);
    let process = context.cutter.map(|(cutter, _)| cutter.process);
    match (hole.work.make, round) {
        (Make::Punch, _) => (asks.punch * thickness, Formula::Punched(asks.punch)),
        (Make::Mark | Make::Leave, Some(diameter)) if OF_DIAMETER * diameter < thickness => {
            ((OF_DIAMETER * diameter).max(DRILLED).min(thickness), Formula::Drilled)
        }
        _ => {
            // What no cutter of the shop reaches is cut elsewhere, most likely by a laser.
            let times = asks.of(process.unwrap_or(Process::Laser));
            let (thick, thin) = (Formula::Thick(times, process), Formula::Cut(times, process));
            if thickness > THICK { ((thickness / 2.0).max(THICK) * times, thick) } else { (times * thickness, thin) }
        }
    }
}
