//! Reads the fields of an operation one by one: each text to its number, with what is wrong of it.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Finding;
use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::tolerance::{NO_TURN, WHOLE};
use crate::quantity::{Dimension, Expr, QuantityError, length_text, without_times};
use crate::work::sheet::{AngleIs, BendAction, CornerRelief, Corners, CurvePoint, Method, Relief, Stands};

use super::bending::check_curve;
use super::hole::MOST_HOLES;
use super::numbers::{
    AngleNumbers, BendNumbers, CornerMake, CornerReliefNumbers, LegNumbers, MethodNumbers, Numbers, ReliefNumbers,
};

/// Radians that are no bend: what an included angle of 180 deg leaves when it is typed in degrees.
const FLAT: f64 = 1e-8;

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
        self.keep(field, text, dimension, self.given.names.read(text, dimension, wanted))
    }

    /// A length of the stock or of its tools, which no scale touches.
    fn full_size(&mut self, field: &str, text: &str, wanted: &str) -> Option<f64> {
        self.keep(field, text, Dimension::LENGTH, self.given.names.full_size().read(text, Dimension::LENGTH, wanted))
    }

    fn keep(&mut self, field: &str, text: &str, dimension: Dimension, read: Result<f64, QuantityError>) -> Option<f64> {
        match read {
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
        self.above_zero(field, text, value, wanted)
    }

    fn above_zero(&mut self, field: &str, text: &str, value: f64, wanted: &str) -> Option<f64> {
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
        let value = self.value(field, without_times(text), Dimension::NUMBER, "a count")?;
        let whole = value.round();
        // 22.999999 is 23: a count that was computed carries rounding.
        if (value - whole).abs() > WHOLE || whole < 1.0 || whole > MOST_HOLES as f64 {
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

    /// An inside radius: the text's, or the piece's own.
    pub fn radius(&mut self, text: &Option<Expr>) -> Option<f64> {
        match text {
            Some(text) => self.zero_or_more("radius", text, "an inside radius"),
            None => Some(self.given.radius),
        }
    }

    /// A way to compute a blank, or the piece's own.
    pub fn method_or_own(&mut self, method: &Option<Method>) -> Option<MethodNumbers> {
        match method {
            Some(method) => self.method(method),
            None => Some(self.given.method.clone()),
        }
    }

    /// A bend angle above 0 and to 180 deg.
    pub fn bend_angle(&mut self, field: &str, text: &str) -> Option<f64> {
        let angle = self.value(field, text, Dimension::ANGLE, "a bend angle")?;
        let degrees = angle.to_degrees();
        if degrees > NO_TURN && degrees < 180.0 + NO_TURN {
            return Some(angle.min(std::f64::consts::PI));
        }
        let shown = crate::quantity::angle_text(angle);
        self.refuse(
            field,
            format!("a bend of {shown} cannot be made here: above 0 and to 180 deg is"),
            "For a bend the other way change up to down; 90 deg makes a square corner.",
        );
        None
    }

    /// Set-ins by side.
    pub fn set_in(&mut self, given: &BTreeMap<String, Expr>) -> Option<BTreeMap<String, f64>> {
        let read: Vec<Option<(String, f64)>> = given
            .iter()
            .map(|(side, text)| {
                self.zero_or_more(&format!("set_in.{side}"), text, "a set-in").map(|value| (side.clone(), value))
            })
            .collect();
        read.into_iter().collect()
    }

    /// A relief for a bend of this radius, where there is one.
    pub fn relief_or_none(&mut self, relief: &Option<Relief>, radius: f64) -> Option<Option<ReliefNumbers>> {
        match relief {
            Some(relief) => self.relief(relief, radius).map(Some),
            None => Some(None),
        }
    }

    /// Points of a curve of K, rising.
    pub fn curve(&mut self, field: &str, points: &[CurvePoint]) -> Option<Vec<(f64, f64)>> {
        let read: Vec<Option<(f64, f64)>> = points
            .iter()
            .enumerate()
            .map(|(at, point)| {
                let ratio = self.value(&format!("{field}.{at}.ratio"), &point.ratio, Dimension::NUMBER, "a ratio R/T");
                let k = self.value(&format!("{field}.{at}.k"), &point.k, Dimension::NUMBER, "a K-factor");
                ratio.zip(k)
            })
            .collect();
        let points: Vec<(f64, f64)> = read.into_iter().collect::<Option<_>>()?;
        if let Err((what, way_out)) = check_curve(&points) {
            self.refuse(field, what.into(), way_out);
            return None;
        }
        Some(points)
    }

    fn corner_relief(&mut self, field: &str, relief: &Option<CornerRelief>) -> Option<Option<CornerReliefNumbers>> {
        Some(match relief {
            None => None,
            Some(CornerRelief::Square(text)) => Some(CornerReliefNumbers::Square(self.size(
                &format!("{field}.relief.square"),
                text,
                "a relief's side",
            )?)),
            Some(CornerRelief::Round(text)) => Some(CornerReliefNumbers::Round(self.size(
                &format!("{field}.relief.round"),
                text,
                "a relief's diameter",
            )?)),
        })
    }

    fn corners(&mut self, corners: &Corners) -> Option<CornerMake> {
        let mut with_gap = |name: &str, given: &crate::work::sheet::CornerGap| {
            let field = format!("corners.{name}");
            let gap = self.zero_or_more(&format!("{field}.gap"), &given.gap, "a gap");
            let relief = self.corner_relief(&field, &given.relief);
            gap.zip(relief)
        };
        match corners {
            Corners::Open(open) => {
                self.corner_relief("corners.open", &open.relief).map(|relief| CornerMake::Open { relief })
            }
            Corners::Closed(one) => with_gap("closed", one).map(|(gap, relief)| CornerMake::Closed { gap, relief }),
            Corners::Overlapped(one) => {
                with_gap("overlapped", one).map(|(gap, relief)| CornerMake::Overlapped { gap, relief })
            }
            Corners::Mitred(one) => with_gap("mitred", one).map(|(gap, relief)| CornerMake::Mitred { gap, relief }),
        }
    }

    /// A flange's angle: a number, or by another panel.
    fn angle_of(&mut self, bend: &BendAction) -> Option<AngleNumbers> {
        match (&bend.stands, bend.angle.trim().is_empty()) {
            (Some(_), false) => {
                self.refuse(
                    "angle",
                    "a flange's angle is a number or by another panel, not both".into(),
                    "Keep the one that the drawing gives.",
                );
                None
            }
            (Some(Stands::Parallel(panel)), true) => Some(AngleNumbers::Parallel(panel.to_string())),
            (Some(Stands::Square(panel)), true) => Some(AngleNumbers::Square(panel.to_string())),
            (None, _) => {
                let text = &bend.angle;
                if bend.angle_is == AngleIs::Bend {
                    return self.bend_angle("angle", text).map(AngleNumbers::Bend);
                }
                let included = self.value("angle", text, Dimension::ANGLE, "an included angle")?;
                let angle = std::f64::consts::PI - included;
                if angle <= FLAT || angle > std::f64::consts::PI + FLAT {
                    let shown = crate::quantity::angle_text(included);
                    self.refuse(
                        "angle",
                        format!("an included angle of {shown} is no bend: from 0 to below 180 deg is"),
                        "180 deg is flat; 90 deg makes a square corner.",
                    );
                    return None;
                }
                Some(AngleNumbers::Bend(angle.min(std::f64::consts::PI)))
            }
        }
    }

    /// A flange's leg: a length, or as far as something.
    fn leg_of(&mut self, bend: &BendAction) -> Option<LegNumbers> {
        let Some(up_to) = &bend.up_to else {
            return self.size("leg", &bend.leg, "a leg length").map(LegNumbers::Length);
        };
        if !bend.leg.trim().is_empty() {
            self.refuse(
                "leg",
                "a leg is a length or as far as something, not both".into(),
                "Keep the one that the drawing gives.",
            );
            return None;
        }
        let gap = match &up_to.gap {
            Some(text) => self.length("up_to.gap", text, "a gap")?,
            None => 0.0,
        };
        Some(LegNumbers::UpTo { feature: up_to.feature.trim().to_string(), gap })
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
                let allowance = self.full_size("method.allowance", text, "a bend allowance")?;
                Some(MethodNumbers::Allowance(self.above_zero(
                    "method.allowance",
                    text,
                    allowance,
                    "a bend allowance",
                )?))
            }
            Method::Deduction(text) => {
                Some(MethodNumbers::Deduction(self.full_size("method.deduction", text, "a bend deduction")?))
            }
            Method::Din6935 => Some(MethodNumbers::Din6935),
            Method::KCurve(points) => self.curve("method.k_curve", points).map(MethodNumbers::Curve),
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

    /// Angles and legs that flanges of one operation have of their own.
    fn own_flanges(
        &mut self,
        bend: &BendAction,
    ) -> Option<BTreeMap<String, (Option<AngleNumbers>, Option<LegNumbers>)>> {
        let mut all = BTreeMap::new();
        let mut good = true;
        for (edge, own) in &bend.own {
            let known = *edge == bend.edge || bend.also.contains(edge);
            if !known {
                self.refuse(
                    &format!("own.{edge}"),
                    format!("{edge} has numbers of its own and is none of this operation's edges"),
                    "Take them out, or bend that edge too.",
                );
            }
            let angle = own.angle.as_ref().map(|text| {
                let field = format!("own.{edge}.angle");
                if bend.angle_is == AngleIs::Included {
                    let included = self.value(&field, text, Dimension::ANGLE, "an included angle")?;
                    return Some(AngleNumbers::Bend(std::f64::consts::PI - included));
                }
                self.bend_angle(&field, text).map(AngleNumbers::Bend)
            });
            let leg = own
                .leg
                .as_ref()
                .map(|text| self.size(&format!("own.{edge}.leg"), text, "a leg length").map(LegNumbers::Length));
            good &= known && angle.as_ref().is_none_or(Option::is_some) && leg.as_ref().is_none_or(Option::is_some);
            all.insert(edge.to_string(), (angle.flatten(), leg.flatten()));
        }
        good.then_some(all)
    }

    pub(super) fn bend(&mut self, bend: &BendAction) -> Option<BendNumbers> {
        let angle = self.angle_of(bend);
        let leg = self.leg_of(bend);
        let radius = self.radius(&bend.radius);
        let set_in = self.set_in(&bend.set_in);
        let relief = self.relief_or_none(&bend.relief, radius.unwrap_or_default());
        let corners = self.corners(&bend.corners);
        let method = self.method_or_own(&bend.method);
        let own = self.own_flanges(bend);
        Some(BendNumbers {
            edge: bend.edge.to_string(),
            also: bend.also.iter().map(ToString::to_string).collect(),
            own: own?,
            corners: corners?,
            angle: angle?,
            direction: bend.direction,
            leg: leg?,
            leg_to: bend.leg_to,
            position: bend.position,
            radius: radius?,
            set_in: set_in?,
            relief: relief?,
            method: method?,
        })
    }
}
