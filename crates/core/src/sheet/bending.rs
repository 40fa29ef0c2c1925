//! The formulas of a bend. Lengths in mm, angles in radians; the angle is the bend angle, from flat.

use crate::finding::Why;
use crate::quantity::{Amount, LengthUnit, decimal};

/// R/T that is on a point of a curve of K.
const ON_POINT: f64 = 1e-6;

/// Flat length of a bend from its K-factor: BA = A (R + K T). Common to every handbook of the trade.
pub fn allowance(angle: f64, radius: f64, k_factor: f64, thickness: f64) -> f64 {
    angle * (radius + k_factor * thickness)
}

/// Whether points (R/T, K) are a curve of K: 1 to 50 of them, R/T rising, each K from 0 to 1.
///
/// # Errors
/// What is wrong, and what to do.
pub fn check_curve(points: &[(f64, f64)]) -> Result<(), (&'static str, &'static str)> {
    let rises = points.windows(2).all(|pair| pair[0].0 < pair[1].0);
    if points.is_empty() || points.len() > 50 || !rises || points.iter().any(|(_, k)| !(0.0..=1.0).contains(k)) {
        return Err((
            "a curve of K has 1 to 50 points of rising R/T, each K from 0 to 1",
            "Put the points in order and correct the figures.",
        ));
    }
    Ok(())
}

/// K-factor that gives this allowance: the inverse of [`allowance`].
pub fn k_from_allowance(allowance: f64, angle: f64, radius: f64, thickness: f64) -> f64 {
    (allowance / angle - radius) / thickness
}

/// From the tangent line to the outside mould line: (R + T) tan(A/2).
pub fn mould_setback(angle: f64, radius: f64, thickness: f64) -> f64 {
    (radius + thickness) * (angle / 2.0).tan()
}

/// From the tangent line to where outside sizes are taken: the mould line up to 90 deg, the outermost tangent R + T
/// above (common practice: the mould line runs away toward 180 deg).
pub fn outside_setback(angle: f64, radius: f64, thickness: f64) -> f64 {
    sized_setback(angle, radius + thickness)
}

/// From the tangent line to where inside sizes are taken: R tan(A/2) up to 90 deg, R above.
pub fn inside_setback(angle: f64, radius: f64) -> f64 {
    sized_setback(angle, radius)
}

fn sized_setback(angle: f64, reach: f64) -> f64 {
    // A hair above 90 deg is still 90 deg: both rules agree there.
    if angle > std::f64::consts::FRAC_PI_2 { reach } else { reach * (angle / 2.0).tan() }
}

/// Bend deduction: two setbacks less the allowance.
pub fn deduction(setback: f64, allowance: f64) -> f64 {
    2.0 * setback - allowance
}

/// DIN 6935's k, as a K-factor (half of it): 0.65 + 0.5 log10(r/s) for r/s up to 5, else 1, halved. Below the range of
/// the logarithm's sense (a sharp bend) it is held at zero.
pub fn din_6935_k_factor(radius: f64, thickness: f64) -> f64 {
    let ratio = radius / thickness;
    let k = if ratio > 5.0 { 1.0 } else { 0.65 + 0.5 * ratio.log10() };
    // A bend of no radius has no logarithm: it is held at zero as well.
    if k.is_finite() { (k / 2.0).clamp(0.0, 0.5) } else { 0.0 }
}

/// DIN 6935: above 165 deg of included angle (a bend under 15 deg) the correction v is zero, so the allowance is the
/// two setbacks.
pub fn din_6935_allowance(angle: f64, radius: f64, thickness: f64) -> f64 {
    if angle < 15f64.to_radians() {
        return 2.0 * mould_setback(angle, radius, thickness);
    }
    allowance(angle, radius, din_6935_k_factor(radius, thickness), thickness)
}

/// How the allowance of a bend was found, for "why?".
#[derive(Clone, Debug, PartialEq)]
pub enum AllowanceRule {
    /// From a K-factor; the words name its source.
    KFactor {
        /// K.
        k: f64,
        /// Where K comes from.
        source: String,
    },
    /// Given as an allowance.
    Allowance,
    /// Given as a deduction, mm, from legs with this setback, mm.
    Deduction {
        /// BD, mm.
        deduction: f64,
        /// Setback of one leg, mm.
        setback: f64,
    },
    /// DIN 6935.
    Din6935,
    /// From a curve of K over R/T.
    Curve {
        /// K at this bend.
        k: f64,
        /// Between which points, in words.
        words: String,
    },
    /// From a measured table.
    Table {
        /// The table's name and source.
        source: String,
        /// Which rows, in words.
        words: String,
        /// The figure with its name: "BD 5.2 mm".
        figure: String,
    },
}

impl AllowanceRule {
    /// The rule in a few words, for a bend table.
    pub fn words(&self, unit: LengthUnit) -> String {
        let n = |value: f64| decimal(value, 4);
        match self {
            AllowanceRule::KFactor { k, source } => format!("K {} ({source})", n(*k)),
            AllowanceRule::Allowance => "bend allowance as typed".into(),
            AllowanceRule::Deduction { deduction, .. } => {
                format!("bend deduction {} as typed", unit.says(Amount::Length, *deduction, 4))
            }
            AllowanceRule::Din6935 => "DIN 6935".into(),
            AllowanceRule::Curve { k, words } => format!("K {} from R/T, {words}", n(*k)),
            AllowanceRule::Table { source, words, figure } => format!("measured table {source}: {figure}, {words}"),
        }
    }
}

/// K at a ratio R/T from points of a curve in rising order, in proportion between them; with the points in words.
///
/// # Errors
/// A ratio past the points: nothing is read beyond them.
pub fn k_on_curve(points: &[(f64, f64)], ratio: f64) -> Result<(f64, String), String> {
    let n = |value: f64| decimal(value, 4);
    if let Some(&(at, k)) = points.iter().find(|(at, _)| (at - ratio).abs() < ON_POINT) {
        return Ok((k, format!("on its point R/T {}", n(at))));
    }
    let Some(pair) = points.windows(2).find(|pair| pair[0].0 < ratio && ratio < pair[1].0) else {
        let (first, last) = (points.first().map_or(0.0, |one| one.0), points.last().map_or(0.0, |one| one.0));
        return Err(format!("R/T is {}; the curve goes from {} to {}", n(ratio), n(first), n(last)));
    };
    let share = (ratio - pair[0].0) / (pair[1].0 - pair[0].0);
    let k = pair[0].1 + (pair[1].1 - pair[0].1) * share;
    Ok((
        k,
        format!(
            "in proportion between R/T {} (K {}) and {} (K {})",
            n(pair[0].0),
            n(pair[0].1),
            n(pair[1].0),
            n(pair[1].1)
        ),
    ))
}

/// The working of a bend's allowance.
pub fn why_allowance(
    name: &str,
    angle: f64,
    (radius, thickness): (f64, f64),
    found: f64,
    rule: &AllowanceRule,
    unit: LengthUnit,
) -> Why {
    let n = |value: f64| decimal(value, 4);
    let size = |value: f64| unit.says(Amount::Length, value, 4);
    let degrees = n(angle.to_degrees());
    let title = format!("Bend allowance of {name}");
    match rule {
        AllowanceRule::KFactor { k, source } => Why {
            title,
            formula: "BA = A (R + K T), A in radians".into(),
            working: format!(
                "BA = {degrees} deg x pi/180 x ({} + {} x {}) = {}",
                size(radius),
                n(*k),
                size(thickness),
                size(found)
            ),
            source: source.clone(),
        },
        AllowanceRule::Allowance => Why {
            title,
            formula: "BA as given; K = (BA / A - R) / T".into(),
            working: format!("BA = {}, so K = {}", size(found), n(k_from_allowance(found, angle, radius, thickness))),
            source: "the shop's own bend allowance, as typed".into(),
        },
        AllowanceRule::Deduction { deduction, setback } => Why {
            title,
            formula: "BA = 2 setback - BD".into(),
            working: format!("BA = 2 x {} - {} = {}", size(*setback), size(*deduction), size(found)),
            source: "the shop's own bend deduction, as typed; setback (R + T) tan(A/2), R + T above 90 deg".into(),
        },
        AllowanceRule::Din6935 => Why {
            title,
            formula: "BA = A (R + k T / 2), k = 0.65 + 0.5 log10(R/T) up to R/T = 5, else 1".into(),
            working: format!(
                "k = {}, BA = {degrees} deg x pi/180 x ({} + k x {} / 2) = {}",
                n(2.0 * din_6935_k_factor(radius, thickness)),
                size(radius),
                size(thickness),
                size(found)
            ),
            source: "DIN 6935, cold bending of flat steel".into(),
        },
        AllowanceRule::Curve { k, words } => Why {
            title,
            formula: "BA = A (R + K T), A in radians, K by R/T".into(),
            working: format!(
                "R/T = {}, K = {} ({words}); BA = {degrees} deg x pi/180 x ({} + {} x {}) = {}",
                n(radius / thickness),
                n(*k),
                size(radius),
                n(*k),
                size(thickness),
                size(found)
            ),
            source: "the piece's own curve of K over R/T".into(),
        },
        AllowanceRule::Table { source, words, figure } => Why {
            title,
            formula: "a measured table wins over a formula".into(),
            working: format!("{figure} ({words}), so BA = {}", size(found)),
            source: format!("measured bend table {source}"),
        },
    }
}
