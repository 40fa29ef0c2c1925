//! Time and cost of a cut, with their formula.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::quantity::decimal;

use super::choice::Settings;
use super::plan::Plan;

/// What a cut takes: seconds, and money in the cutter's currency.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Estimate {
    /// Time for one piece, s.
    pub seconds: f64,
    /// Cost of that time.
    pub cost: f64,
    /// Currency of the cost.
    pub currency: String,
    /// Working of the time.
    pub why_time: Why,
    /// Working of the cost.
    pub why_cost: Why,
}

/// Reckons the time from lengths and speeds, without the head's accelerations (the simulated cutter has those).
pub fn estimate(plan: &Plan, settings: &Settings) -> Estimate {
    let (cutter, row) = (&settings.cutter, &settings.row);
    let (cut, travel) = (plan.cut_length(), plan.travel);
    let parts = [
        60.0 * cut / row.speed,
        row.pierce * plan.pierces() as f64,
        60.0 * travel / cutter.rapid,
        cutter.mark_time * plan.marks.len() as f64,
    ];
    let seconds: f64 = parts.iter().sum();
    let cost = seconds / 3600.0 * cutter.cost;
    Estimate {
        seconds,
        cost,
        currency: cutter.currency.clone(),
        why_time: Why {
            title: "time for one piece".into(),
            formula: "t = cut length / speed + pierces x pierce time + travel / rapid + marks x mark time".into(),
            working: format!(
                "{} mm / {} mm/min + {} x {} s + {} mm / {} mm/min + {} x {} s = {} s",
                decimal(cut, 1),
                decimal(row.speed, 1),
                plan.pierces(),
                decimal(row.pierce, 2),
                decimal(travel, 1),
                decimal(cutter.rapid, 1),
                plan.marks.len(),
                decimal(cutter.mark_time, 2),
                decimal(seconds, 1)
            ),
            source: format!("table of {} ({}); common practice", cutter.name, cutter.source),
        },
        why_cost: Why {
            title: "cost of one piece at the cutter".into(),
            formula: "cost = t x cost of an hour; sheet, handling and set-up are not in it".into(),
            working: format!(
                "{} s / 3600 x {} {} = {} {}",
                decimal(seconds, 1),
                decimal(cutter.cost, 2),
                cutter.currency,
                decimal(cost, 2),
                cutter.currency
            ),
            source: format!("table of {} ({})", cutter.name, cutter.source),
        },
    }
}
