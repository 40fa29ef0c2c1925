//! From an operation's text to its numbers.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point};
use crate::quantity::{Dimension, Names, length_text};

use super::corner::{CornerNumbers, read_corner};
use super::hole::{HoleNumbers, MOST_HOLES, read_cut, read_drill};
use super::params::{Action, BendAction, BendPosition, Direction, LegTo, Method, Operation, Relief, ReliefShape};
use super::shape::{Laid, read_shape};

/// What one field came to, for the screen ("= 117 mm").
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ResolvedValue {
    /// Path of the field in the operation: `leg`, `place.from.0.distance`.
    pub field: String,
    /// Its value in inner units (mm, rad, plain).
    pub value: f64,
    /// Its value with its unit.
    pub text: String,
    /// The call-outs that it cites.
    pub cites: Vec<String>,
}

/// An operation's numbers.
#[derive(Clone, Debug, PartialEq)]
pub enum OperationNumbers {
    /// The base panel's shape.
    LayDown(Laid),
    /// A flange.
    Bend(BendNumbers),
    /// Holes.
    Holes(HoleNumbers),
    /// Corners.
    Corner(CornerNumbers),
}

/// A flange's numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct BendNumbers {
    pub edge: String,
    pub angle: f64,
    pub direction: Direction,
    pub leg: f64,
    pub leg_to: LegTo,
    pub position: BendPosition,
    pub radius: f64,
    pub set_in: BTreeMap<String, f64>,
    pub relief: Option<ReliefNumbers>,
    pub method: MethodNumbers,
}

/// How a bend's allowance is found, in numbers.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub enum MethodNumbers {
    KFactor { k: f64, source: String },
    Allowance(f64),
    Deduction(f64),
    Din6935,
}

/// A relief's numbers, mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct ReliefNumbers {
    pub shape: ReliefShape,
    pub width: f64,
    pub depth: f64,
}

/// What is known for the whole piece when an operation is read.
#[derive(Clone, Debug)]
#[allow(missing_docs)]
pub struct Numbers {
    pub names: Names,
    pub thickness: f64,
    pub radius: f64,
    pub method: MethodNumbers,
}

/// Reads fields one by one, keeping what each came to and everything that was wrong.
pub(in crate::sheet) struct Reader<'a> {
    pub given: &'a Numbers,
    pub found: Vec<ResolvedValue>,
    pub findings: Vec<Finding>,
    /// Whether a field was so bad that the operation cannot be done.
    pub blocked: bool,
}

impl Reader<'_> {
    pub fn value(&mut self, field: &str, text: &str, dimension: Dimension, wanted: &str) -> Option<f64> {
        match self.given.names.read(text, dimension, wanted) {
            Ok(value) => {
                let cites = crate::quantity::parse(text).map(|one| one.names()).unwrap_or_default();
                let quantity = crate::quantity::Quantity::new(value, dimension);
                let text = crate::quantity::quantity_text(quantity, self.given.names.show);
                self.found.push(ResolvedValue { field: field.to_string(), value, text, cites });
                Some(value)
            }
            Err(fault) => {
                self.findings.push(Finding::in_field(&fault, field));
                self.blocked = true;
                None
            }
        }
    }

    pub fn length(&mut self, field: &str, text: &str, wanted: &str) -> Option<f64> {
        self.value(field, text, Dimension::LENGTH, wanted)
    }

    /// A length above zero.
    pub fn size(&mut self, field: &str, text: &str, wanted: &str) -> Option<f64> {
        let value = self.length(field, text, wanted)?;
        if value <= MODELLING_TOLERANCE {
            let shown = length_text(value, self.given.names.show);
            self.refuse(
                field,
                format!("{} comes to {shown}; {wanted} must be above zero", text.trim()),
                "Check the sign and the call-outs in it.",
            );
            return None;
        }
        Some(value)
    }

    /// A length of zero or more.
    pub fn zero_or_more(&mut self, field: &str, text: &str, wanted: &str) -> Option<f64> {
        let value = self.length(field, text, wanted)?;
        if value < 0.0 {
            let shown = length_text(value, self.given.names.show);
            self.refuse(
                field,
                format!("{} comes to {shown}; {wanted} may not be negative", text.trim()),
                "Measure from the other edge, or check the call-outs in it.",
            );
            return None;
        }
        Some(value)
    }

    pub fn refuse(&mut self, field: &str, message: String, way_out: &str) {
        self.findings.push(Finding::error(message, way_out).at_field(field));
        self.blocked = true;
    }

    /// Something to tell that does not stop the operation.
    pub fn note(&mut self, finding: Finding) {
        self.findings.push(finding);
    }

    pub fn count(&mut self, field: &str, text: &str) -> Option<usize> {
        let value = self.value(field, text, Dimension::NUMBER, "a count")?;
        let whole = value.round();
        // 22.999999 is 23: a count that was computed carries rounding.
        if (value - whole).abs() > 1e-6 || whole < 1.0 || whole > MOST_HOLES as f64 {
            let shown = crate::quantity::decimal(value, 6);
            self.refuse(
                field,
                format!("{shown} is no count: a whole number from 1 to {MOST_HOLES} is needed"),
                "Type a whole number.",
            );
            return None;
        }
        Some(whole as usize)
    }

    fn method(&mut self, method: &Method) -> Option<MethodNumbers> {
        match method {
            Method::KFactor(text) => {
                let k = self.value("method.k_factor", text, Dimension::NUMBER, "a K-factor")?;
                if !(0.0..=1.0).contains(&k) {
                    self.refuse(
                        "method.k_factor",
                        format!("a K-factor of {k} is outside 0 to 1"),
                        "K is the neutral axis as a fraction of the thickness: 0.3 to 0.5 for nearly every bend.",
                    );
                    return None;
                }
                Some(MethodNumbers::KFactor { k, source: "K-factor typed for this bend".into() })
            }
            Method::Allowance(text) => {
                Some(MethodNumbers::Allowance(self.size("method.allowance", text, "a bend allowance")?))
            }
            Method::Deduction(text) => {
                Some(MethodNumbers::Deduction(self.length("method.deduction", text, "a bend deduction")?))
            }
            Method::Din6935 => Some(MethodNumbers::Din6935),
        }
    }

    fn relief(&mut self, relief: &Relief, radius: f64) -> Option<ReliefNumbers> {
        let width = match &relief.width {
            Some(text) => self.size("relief.width", text, "a relief width"),
            None => Some(self.given.thickness.max(1.0)),
        };
        let depth = match &relief.depth {
            Some(text) => self.zero_or_more("relief.depth", text, "a relief depth"),
            None => Some(radius + self.given.thickness),
        };
        Some(ReliefNumbers { shape: relief.shape, width: width?, depth: depth? })
    }

    fn bend(&mut self, bend: &BendAction) -> Option<BendNumbers> {
        let angle = self.value("angle", &bend.angle, Dimension::ANGLE, "a bend angle");
        let angle = angle.and_then(|angle| {
            let degrees = angle.to_degrees();
            if degrees > 1e-6 && degrees < 180.0 - 1e-6 {
                return Some(angle);
            }
            let shown = crate::quantity::angle_text(angle);
            self.refuse(
                "angle",
                format!("a bend of {shown} cannot be made here: above 0 and below 180 deg is"),
                "For a bend the other way change up to down; 90 deg makes a square corner.",
            );
            None
        });
        let leg = self.size("leg", &bend.leg, "a leg length");
        let radius = match &bend.radius {
            Some(text) => self.zero_or_more("radius", text, "an inside radius"),
            None => Some(self.given.radius),
        };
        let set_in: Vec<Option<(String, f64)>> = bend
            .set_in
            .iter()
            .map(|(side, text)| {
                self.zero_or_more(&format!("set_in.{side}"), text, "a set-in").map(|value| (side.clone(), value))
            })
            .collect();
        let relief = match (&bend.relief, radius) {
            (Some(relief), Some(radius)) => self.relief(relief, radius).map(Some),
            _ => Some(None),
        };
        let method = match &bend.method {
            Some(method) => self.method(method),
            None => Some(self.given.method.clone()),
        };
        Some(BendNumbers {
            edge: bend.edge.clone(),
            angle: angle?,
            direction: bend.direction,
            leg: leg?,
            leg_to: bend.leg_to,
            position: bend.position,
            radius: radius?,
            set_in: set_in.into_iter().collect::<Option<_>>()?,
            relief: relief?,
            method: method?,
        })
    }
}

/// An operation read: its numbers where every field was good, what each field came to, and what was wrong.
pub struct ReadOperation {
    /// The numbers; `None` when a field was bad.
    pub numbers: Option<OperationNumbers>,
    /// What each good field came to.
    pub values: Vec<ResolvedValue>,
    /// What was wrong; field paths are relative to the operation.
    pub findings: Vec<Finding>,
}

/// Reads every field of an operation. All faults are reported, not only the first.
pub fn read_operation(operation: &Operation, given: &Numbers) -> ReadOperation {
    // R in an operation is that bend's own radius where it names one.
    let mut given = given.clone();
    if let Action::Bend(bend) = &operation.action
        && let Some(text) = &bend.radius
        && let Ok(radius) = given.names.read(text, Dimension::LENGTH, "an inside radius")
    {
        given.names.set("R", crate::quantity::Known::Value(crate::quantity::Quantity::new(radius, Dimension::LENGTH)));
    }
    let mut reader = Reader { given: &given, found: Vec::new(), findings: Vec::new(), blocked: false };
    let numbers = match &operation.action {
        Action::LayDown(lay) => {
            let laid = read_shape(&mut reader, "shape", &lay.shape);
            laid.map(|laid| {
                OperationNumbers::LayDown(match lay.by {
                    Some(by) => laid.placed(by, Point::default()),
                    None => laid,
                })
            })
        }
        Action::Bend(bend) => reader.bend(bend).map(OperationNumbers::Bend),
        Action::Drill(drill) => read_drill(&mut reader, drill).map(OperationNumbers::Holes),
        Action::Cut(cut) => read_cut(&mut reader, cut).map(OperationNumbers::Holes),
        Action::Corner(corner) => read_corner(&mut reader, corner).map(OperationNumbers::Corner),
    };
    let numbers = if reader.blocked { None } else { numbers };
    ReadOperation { numbers, values: reader.found, findings: reader.findings }
}
