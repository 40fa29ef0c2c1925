//! A photo or scan under a rough shape: its scale by a measured length, how sure that scale is, and what each traced size
//! is worth.

use serde::Serialize;
use utoipa::ToSchema;

use crate::plane::Vector;
use crate::quantity::{LengthUnit, decimal, inches_fraction, length_text};
use crate::work::shape::{SayingKind, ScalePair, Underlay};

/// How a traced picture stands.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct UnderlayStands {
    /// Millimetres in a pixel.
    pub per_pixel: f64,
    /// From pixels to the outline's plane, mm, y up: x' = a x + c y + e, y' = b x + d y + f.
    pub matrix: [f64; 6],
    /// How sure the scale is, as a part of any length: 0.01 is one per cent.
    pub relative: f64,
    /// The scale and how sure it is, in words.
    pub scale_text: String,
    /// What the second pair says, in words; empty without one.
    pub check_text: String,
    /// Whether the second pair disagrees by more than it may.
    pub check_off: bool,
}

/// A size as traced, with no number of the drawing on it yet.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Traced {
    /// The edge or circle.
    pub of: String,
    /// What is measured of it: `length`, `radius`, `diameter`.
    pub what: SayingKind,
    /// As traced, mm.
    pub value: f64,
    /// How far off that may be, mm.
    pub uncertainty: f64,
    /// Both with their unit.
    pub text: String,
    /// The roundest number within that, as one would type it.
    pub round: String,
}

/// A point is picked on a picture to about one pixel (common practice).
const PICKED_TO: f64 = 1.0;
/// A second pair further off than this, and than picking explains, says that the picture is skewed.
const SKEWED: f64 = 0.01;

/// Why a picture gives no scale, with the field.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{message}")]
pub(super) struct ScaleFault {
    pub field: &'static str,
    pub message: String,
}

fn pixels(pair: &ScalePair, field: &'static str) -> Result<Vector, ScaleFault> {
    let sound = |value: f64| value.is_finite() && value.abs() <= 1e6;
    if ![pair.from.x, pair.from.y, pair.to.x, pair.to.y].into_iter().all(sound) {
        return Err(ScaleFault { field, message: "a point lies beyond any picture".into() });
    }
    let between = pair.to.point() - pair.from.point();
    if between.length() < 10.0 {
        let message =
            format!("the two points lie {} pixels apart; 10 at least give a scale", decimal(between.length(), 1));
        return Err(ScaleFault { field, message });
    }
    Ok(between)
}

/// The scale of a picture; lengths in mm, the turn in radians.
pub(super) fn stand(
    given: &Underlay,
    length: f64,
    check: Option<f64>,
    turn: f64,
    unit: LengthUnit,
) -> Result<UnderlayStands, ScaleFault> {
    let between = pixels(&given.scale, "scale")?;
    let per_pixel = length / between.length();
    let picked = std::f64::consts::SQRT_2 * PICKED_TO;
    let mut relative = picked / between.length();
    let (mut check_text, mut check_off) = (String::new(), false);
    if let (Some(pair), Some(measured)) = (&given.check, check) {
        let across = pixels(pair, "check")?;
        let scaled = across.length() * per_pixel;
        let off = scaled / measured - 1.0;
        // Both pairs are picked: what picking explains is no skew.
        let explained = relative.hypot(picked / across.length());
        check_off = off.abs() > SKEWED.max(2.0 * explained);
        let verdict = if check_off { ": the picture is skewed or was taken at a slant" } else { "" };
        check_text = format!(
            "the second pair of {} scales to {}, {} % off{verdict}",
            length_text(measured, unit),
            length_text((scaled * 100.0).round() / 100.0, unit),
            decimal(off * 100.0, 2)
        );
        relative = relative.max(off.abs());
    }
    let (sin, cos) = turn.sin_cos();
    // Pixels run down: a mirror in x, then the turn.
    let (a, b, c, d) = (per_pixel * cos, per_pixel * sin, per_pixel * sin, -per_pixel * cos);
    let from = given.scale.from;
    let matrix = [a, b, c, d, given.x - a * from.x - c * from.y, given.y - b * from.x - d * from.y];
    Ok(UnderlayStands {
        per_pixel,
        matrix,
        relative,
        scale_text: format!(
            "{} a pixel, \u{b1}{} %",
            length_text((per_pixel * 1e4).round() / 1e4, unit),
            decimal(relative * 100.0, 2)
        ),
        check_text,
        check_off,
    })
}

impl UnderlayStands {
    /// How far off a traced size may be, mm: the scale's part of it, and two picked points.
    pub(super) fn uncertainty(&self, value: f64) -> f64 {
        (value * self.relative).hypot(std::f64::consts::SQRT_2 * PICKED_TO * self.per_pixel)
    }

    /// How far off a traced radius may be, mm: of a shallow arc the picks tell little. From r = c2 / 8s + s / 2 (chord c,
    /// sagitta s) an error in s counts r / s times.
    pub(super) fn arc_uncertainty(&self, radius: f64, sweep: f64) -> f64 {
        let sagitta = radius * (1.0 - (sweep.abs() / 2.0).cos());
        let times = (radius / sagitta).max(1.0);
        (radius * self.relative).hypot(times * std::f64::consts::SQRT_2 * PICKED_TO * self.per_pixel)
    }

    /// A traced size in words and in round numbers.
    pub(super) fn traced(&self, of: &str, what: SayingKind, value: f64, uncertainty: f64, unit: LengthUnit) -> Traced {
        let digits = if unit == LengthUnit::Mm { 2 } else { 3 };
        let in_unit = |value: f64| decimal(value / unit.millimetres(), digits);
        Traced {
            of: of.to_string(),
            what,
            value,
            uncertainty,
            text: format!("{} \u{b1} {} {}", in_unit(value), in_unit(uncertainty), unit.sign()),
            // However little a shallow arc tells, it is most likely what it looks like.
            round: round_number(value, uncertainty.min(self.uncertainty(value)), unit),
        }
    }
}

/// The roundest number within an uncertainty: tens before fives before units of a millimetre, inches before halves and
/// quarters.
pub(super) fn round_number(value: f64, uncertainty: f64, unit: LengthUnit) -> String {
    let near = |step: f64| {
        let round = (value / step).round() * step;
        (round > 0.0 && (round - value).abs() <= uncertainty).then_some(round)
    };
    match unit {
        LengthUnit::Mm => {
            let round =
                [10.0, 5.0, 1.0, 0.5].into_iter().find_map(near).unwrap_or((value * 10.0).round().max(1.0) / 10.0);
            format!("{} mm", decimal(round, 2))
        }
        LengthUnit::In => {
            let parts = [1_u32, 2, 4, 8, 16, 32];
            let found = parts.into_iter().find_map(|parts| Some((near(25.4 / f64::from(parts))?, parts)));
            let (round, parts) = found.unwrap_or((value.max(25.4 / 64.0), 64));
            inches_fraction(round, parts)
        }
    }
}
