//! A call-out's value and tolerance against what the part measures.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::finding::Why;
use crate::frame::FrameMade;
use crate::measure::{MeasureError, Measured, Witness, measure_sheets};
use crate::quantity::tolerance::ROUNDING;
use crate::quantity::{Dimension, Expr, Names, Quantity, QuantityError, quantity_text};
use crate::sheet::{Part, Sheets};
use crate::work::frame::WeldedClass;
use crate::work::measure::Measure;

use super::class::ToleranceClass;
use super::{angular, linear, welded_linear};

/// How far a measured value may stray.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Tolerance {
    /// The same both ways.
    PlusMinus(Expr),
    /// So much over and so much under (the lower one usually zero or negative).
    Deviations(Deviations),
    /// Least and greatest size.
    Limits(LimitTexts),
    /// ISO 2768-1, by size.
    Iso2768(ToleranceClass),
    /// ISO 13920 for welded sizes, by size.
    Iso13920(WeldedClass),
}

/// Upper and lower deviation, signed.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Deviations {
    pub upper: Expr,
    pub lower: Expr,
}

/// Least and greatest size.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct LimitTexts {
    pub least: Expr,
    pub most: Expr,
}

/// Least and greatest, in inner units.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Limits {
    pub least: f64,
    pub most: f64,
}

/// How a call-out stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Verdict {
    Holds,
    Off,
    Unplaced,
}

/// A call-out with its measured value and verdict.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CallOutProof {
    /// The call-out's name.
    pub name: String,
    /// How it stands.
    pub verdict: Verdict,
    /// Its value in inner units, where it has one.
    pub value: Option<f64>,
    /// Its value with unit.
    pub value_text: String,
    /// Its limits, inner units.
    pub limits: Option<Limits>,
    /// The tolerance as people write it: `+-0.5 mm`.
    pub tolerance_text: String,
    /// What the part measures, inner units.
    pub measured: Option<f64>,
    /// The same with unit.
    pub measured_text: String,
    /// Measured less value, with unit and sign; empty unless off.
    pub off_by: String,
    /// What is measured, in words.
    pub measures: String,
    /// Names of what is measured.
    pub features: Vec<String>,
    /// Where it is measured; for dimension lines.
    pub witnesses: Vec<Witness>,
    /// The operations that cite it.
    pub drives: Vec<String>,
    /// Why it is unplaced or off, in a sentence.
    pub reason: String,
    /// The working.
    pub why: Why,
}

/// Without any tolerance a measured value must agree to this: 0.001 mm (or 0.001 deg, 0.001 kg, ...), a thousandth of
/// what is printed on a drawing.
const EXACT: f64 = 1.0e-3;

/// What a call-out is measured on.
#[derive(Clone, Copy, Default)]
pub enum Subject<'a> {
    /// Nothing is built yet.
    #[default]
    Nothing,
    /// A plate or sheet part.
    Sheets(&'a Sheets),
    /// A frame, and the class of its welded sizes with no tolerance of their own.
    Frame(&'a FrameMade, Option<WeldedClass>),
}

impl Subject<'_> {
    fn measure(&self, what: &Measure) -> Result<Measured, String> {
        match (self, what) {
            (Subject::Nothing, _) => Err("there is no part to measure yet".into()),
            (Subject::Sheets(sheets), _) => measure_sheets(sheets, what).map_err(words),
            (Subject::Frame(frame, _), Measure::Frame(of)) => frame.measure(of).map_err(words),
            (Subject::Frame(..), _) => {
                Err(format!("the {} is of a plate or sheet part, and this is a frame", what.words()))
            }
        }
    }

    fn part(&self) -> Option<&Part> {
        match self {
            Subject::Sheets(sheets) => Some(sheets.laid_out()),
            _ => None,
        }
    }
}

fn words(fault: MeasureError) -> String {
    format!("{}. {}", fault.message, fault.way_out)
}

/// Proves one call-out. `value` is what its text came to; `tolerance` and `general` are its own and the piece's.
#[allow(clippy::too_many_arguments)]
pub fn prove(
    subject: Subject<'_>,
    names: &Names,
    name: &str,
    value: Result<Quantity, String>,
    tolerance: Option<&Tolerance>,
    general: Option<ToleranceClass>,
    what: Option<&Measure>,
    drives: Vec<String>,
) -> CallOutProof {
    let mut proof = CallOutProof {
        name: name.to_string(),
        verdict: Verdict::Unplaced,
        value: None,
        value_text: String::new(),
        limits: None,
        tolerance_text: String::new(),
        measured: None,
        measured_text: String::new(),
        off_by: String::new(),
        measures: what.map(Measure::words).unwrap_or_default(),
        features: what.map(Measure::features).unwrap_or_default(),
        witnesses: Vec::new(),
        drives,
        reason: String::new(),
        why: Why {
            title: format!("Call-out {name}"),
            formula: "least <= measured <= most".into(),
            working: String::new(),
            source: String::new(),
        },
    };
    let quantity = match value {
        Ok(quantity) => quantity,
        Err(why) => {
            proof.reason = why;
            return proof;
        }
    };
    proof.value = Some(quantity.value);
    proof.value_text = quantity_text(quantity, names.show);
    let Some(what) = what else {
        proof.reason = if proof.drives.is_empty() {
            format!("nothing uses {name} and nothing measures it")
        } else {
            format!("{name} drives {}, but nothing measures it back", proof.drives.join(", "))
        };
        return proof;
    };
    let dimension = what.dimension();
    let value = match names.bring(quantity, dimension, &dimension.to_string(), name, Default::default()) {
        Ok(value) => value,
        Err(fault) => {
            proof.reason = format!("{}; it is tied to the {}", fault.message, proof.measures);
            return proof;
        }
    };
    let show = |value: f64| quantity_text(Quantity::new(value, dimension), names.show);
    proof.value = Some(value);
    proof.value_text = show(value);
    let measured = match subject.measure(what) {
        Ok(measured) => {
            proof.witnesses = measured.witnesses;
            measured.value
        }
        Err(fault) => {
            proof.reason = fault;
            return proof;
        }
    };
    proof.measured = Some(measured);
    proof.measured_text = show(measured);
    let bounds = limits(&subject, names, what, value, tolerance, general);
    let (limits, words, source) = match bounds {
        Ok(found) => found,
        Err(fault) => {
            proof.reason = fault;
            return proof;
        }
    };
    // Limits come from adding decimal numbers: a hair of rounding must not turn "holds" into "off".
    let hair = ROUNDING * value.abs().max(1.0);
    let holds = measured >= limits.least - hair && measured <= limits.most + hair;
    proof.limits = Some(limits);
    proof.tolerance_text = words;
    proof.verdict = if holds { Verdict::Holds } else { Verdict::Off };
    if !holds {
        let by = measured - value;
        proof.off_by = format!("{}{}", if by > 0.0 { "+" } else { "" }, show(by));
        proof.reason = format!(
            "the {} measures {}; {name} says {} {}",
            proof.measures, proof.measured_text, proof.value_text, proof.tolerance_text
        );
    }
    proof.why.working = format!(
        "{} <= {} <= {}: {}",
        show(limits.least),
        proof.measured_text,
        show(limits.most),
        if holds { "holds" } else { "off" }
    );
    proof.why.source = format!("measured on the built part ({}); tolerance: {source}", proof.measures);
    proof
}

type Bounds = (Limits, String, String);

fn limits(
    subject: &Subject<'_>,
    names: &Names,
    what: &Measure,
    value: f64,
    tolerance: Option<&Tolerance>,
    general: Option<ToleranceClass>,
) -> Result<Bounds, String> {
    let dimension = what.dimension();
    let show = |value: f64| quantity_text(Quantity::new(value, dimension), names.show);
    let read = |text: &str| {
        names
            .full_size()
            .read(text, dimension, "a tolerance of the same kind")
            .map_err(|fault: QuantityError| format!("its tolerance cannot be read: {}", fault.message))
    };
    let within = |under: f64, over: f64| Limits { least: value - under, most: value + over };
    match tolerance {
        Some(Tolerance::PlusMinus(text)) => {
            let by = read(text)?.abs();
            Ok((within(by, by), format!("\u{b1}{}", show(by)), "as drawn".into()))
        }
        Some(Tolerance::Deviations(both)) => {
            let (upper, lower) = (read(&both.upper)?, read(&both.lower)?);
            if lower > upper {
                return Err(format!("its lower deviation {} is above its upper {}", show(lower), show(upper)));
            }
            let words = format!("{}{} / {}{}", sign(upper), show(upper), sign(lower), show(lower));
            Ok((within(-lower, upper), words, "as drawn".into()))
        }
        Some(Tolerance::Limits(both)) => {
            let (least, most) = (read(&both.least)?, read(&both.most)?);
            if least > most {
                return Err(format!("its least size {} is above its greatest {}", show(least), show(most)));
            }
            Ok((Limits { least, most }, format!("{} to {}", show(least), show(most)), "limits as drawn".into()))
        }
        Some(Tolerance::Iso13920(class)) => welded(what, value, *class, &show),
        Some(Tolerance::Iso2768(class)) => iso(subject.part(), what, value, *class, &show),
        None => match general {
            _ if welded_class(subject, what).is_some() => {
                welded(what, value, welded_class(subject, what).unwrap_or(WeldedClass::B), &show)
            }
            Some(class) if matches!(dimension, Dimension::LENGTH | Dimension::ANGLE) && is_drawn_size(what) => {
                iso(subject.part(), what, value, class, &show)
            }
            _ => {
                let exact = if dimension == Dimension::ANGLE { EXACT.to_radians() } else { EXACT };
                Ok((within(exact, exact), "as typed".into(), "no tolerance given: to 0.001 of the unit".into()))
            }
        },
    }
}

/// General tolerances are for sizes of the part, not for thickness (the mill's) or the blank (the cutter's).
fn is_drawn_size(what: &Measure) -> bool {
    !matches!(what, Measure::Thickness | Measure::BlankSize(_) | Measure::CutLength | Measure::CentreOfGravity(_))
}

/// The class of a frame's welded sizes, where the measure is one.
fn welded_class(subject: &Subject<'_>, what: &Measure) -> Option<WeldedClass> {
    use crate::work::measure::FrameMeasure;
    let Measure::Frame(of) = what else { return None };
    let sized = matches!(
        of,
        FrameMeasure::Overall(_)
            | FrameMeasure::Nodes(_)
            | FrameMeasure::Opening(_)
            | FrameMeasure::Faces(_)
            | FrameMeasure::Clearance(_)
            | FrameMeasure::Diagonals(_)
    );
    match subject {
        Subject::Frame(_, class) if sized => *class,
        _ => None,
    }
}

fn welded(what: &Measure, value: f64, class: WeldedClass, show: &dyn Fn(f64) -> String) -> Result<Bounds, String> {
    use crate::work::measure::FrameMeasure;
    // Diagonals that should be equal may differ by what a size of a metre may be off: stricter than their own length gives.
    let zero = matches!(what, Measure::Frame(FrameMeasure::Diagonals(_)));
    if what.dimension() != Dimension::LENGTH {
        return Err("ISO 13920 is carried here for lengths only; give it a tolerance of its own".into());
    }
    let by = welded_linear(class, if zero { value.abs().max(1000.0) } else { value })
        .ok_or_else(|| format!("ISO 13920 has no deviation for {}; give one of its own", show(value)))?;
    let limits = Limits { least: value - by, most: value + by };
    Ok((limits, format!("\u{b1}{}", show(by)), format!("ISO 13920 class {class:?}")))
}

fn sign(value: f64) -> &'static str {
    if value >= 0.0 { "+" } else { "" }
}

fn iso(
    part: Option<&Part>,
    what: &Measure,
    value: f64,
    class: ToleranceClass,
    show: &dyn Fn(f64) -> String,
) -> Result<Bounds, String> {
    let letter = match class {
        ToleranceClass::F => 'f',
        ToleranceClass::M => 'm',
        ToleranceClass::C => 'c',
    };
    let by = match what.dimension() {
        Dimension::LENGTH => linear(class, value),
        Dimension::ANGLE => part.and_then(|part| shorter_leg(part, what)).and_then(|leg| angular(class, leg)),
        other => return Err(format!("ISO 2768-1 has no tolerance for {other}; give one of its own")),
    };
    let by = by.ok_or_else(|| {
        format!("ISO 2768-1 class {letter} has no deviation for {}; give one of its own", show(value))
    })?;
    let limits = Limits { least: value - by, most: value + by };
    Ok((limits, format!("\u{b1}{}", show(by)), format!("ISO 2768-1 class {letter}")))
}

/// The shorter of the two legs of the bend that an angle is measured at, mm.
fn shorter_leg(part: &Part, what: &Measure) -> Option<f64> {
    let bend = match what {
        Measure::BendAngle(one) => part.flat.bend(&one.bend)?,
        Measure::Angle(two) => {
            let (from, to) = (part.flat.panel(&two.from)?, part.flat.panel(&two.to)?);
            part.flat.bends.iter().find(|bend| bend.touches(from) && bend.touches(to) && from != to)?
        }
        _ => return None,
    };
    let strip = part.flat.strip_of(bend);
    let parent = &part.flat.nodes[bend.parent?].region.outer;
    let depth = parent.edges.iter().map(|edge| -strip.local(edge.start).1).fold(0.0, f64::max);
    let flange = &part.flat.nodes[bend.flange?].region.outer;
    let reach = flange.edges.iter().map(|edge| strip.local(edge.start).1 - strip.width).fold(0.0, f64::max);
    Some(reach.min(depth))
}
