//! What an expression comes to, with its dimension checked.

use std::collections::{BTreeMap, BTreeSet};

use super::value::Quantity;
use super::{
    BinaryOperator, Dimension, Expression, Function, LengthUnit, Node, QuantityError, Round, Span, parse, print,
};
use crate::quantity::tolerance::NOTHING;

/// Beyond this a value is refused: nothing that is fabricated is a thousand kilometres long.
const LARGEST: f64 = 1.0e9;

/// What a name stands for.
#[derive(Clone, Debug, PartialEq)]
pub enum Known {
    /// A settled value.
    Value(Quantity),
    /// A name that exists but has no good value; the words say why.
    Broken(String),
}

/// The names that an expression may cite, and the unit of bare lengths.
#[derive(Clone, Debug, Default)]
pub struct Names {
    /// The document's unit: what bare lengths are read in.
    pub unit: LengthUnit,
    /// The unit that messages and values are printed in.
    pub show: LengthUnit,
    /// What typed lengths are multiplied by, for a piece made to scale; 1 where there is none. Names keep what they stand for.
    pub scale: Option<f64>,
    known: BTreeMap<String, Known>,
    /// The names that each settled text cites.
    cited: BTreeMap<String, BTreeSet<String>>,
}

impl Names {
    /// No names yet but `pi`.
    pub fn new(unit: LengthUnit) -> Self {
        let pi = Known::Value(Quantity::new(std::f64::consts::PI, Dimension::NUMBER));
        Names { unit, show: unit, scale: None, known: BTreeMap::from([("pi".to_string(), pi)]), cited: BTreeMap::new() }
    }

    /// Gives a name its value.
    pub fn set(&mut self, name: &str, known: Known) {
        self.known.insert(name.to_string(), known);
    }

    /// The same names with lengths as they are typed: what belongs to the stock and its tools has no scale.
    pub fn full_size(&self) -> Names {
        Names { scale: None, ..self.clone() }
    }

    /// What typed lengths are multiplied by.
    pub fn scale(&self) -> f64 {
        self.scale.unwrap_or(1.0)
    }

    /// What a name stands for.
    pub fn get(&self, name: &str) -> Option<&Known> {
        self.known.get(name)
    }

    /// Takes in texts that may cite each other; a ring of names is broken and named in each of its members.
    ///
    /// Returns, for each name, its value or the fault in it.
    pub fn settle(&mut self, texts: &[(String, String)]) -> BTreeMap<String, Result<Quantity, QuantityError>> {
        let parsed: BTreeMap<String, Result<Expression, QuantityError>> =
            texts.iter().map(|(name, text)| (name.clone(), parse(text))).collect();
        for (name, expression) in &parsed {
            let cited = expression.as_ref().map(|one| one.names().into_iter().collect()).unwrap_or_default();
            self.cited.insert(name.clone(), cited);
        }
        let mut results = BTreeMap::new();
        for name in parsed.keys() {
            self.settle_one(name, &parsed, &mut Vec::new(), &mut results);
        }
        results
    }

    fn settle_one(
        &mut self,
        name: &str,
        parsed: &BTreeMap<String, Result<Expression, QuantityError>>,
        open: &mut Vec<String>,
        results: &mut BTreeMap<String, Result<Quantity, QuantityError>>,
    ) {
        if results.contains_key(name) {
            return;
        }
        let result = match &parsed[name] {
            Err(fault) => Err(fault.clone()),
            Ok(expression) => {
                open.push(name.to_string());
                let mut ring = None;
                for cited in expression.names() {
                    if let Some(at) = open.iter().position(|one| *one == cited) {
                        let mut names = open[at..].to_vec();
                        names.push(cited.clone());
                        ring = Some(names);
                        break;
                    }
                    // A chain of names as deep as this would be a ring in all but name; it also bounds the stack.
                    if parsed.contains_key(&cited) && open.len() < 200 {
                        self.settle_one(&cited, parsed, open, results);
                    }
                }
                open.pop();
                match ring {
                    Some(names) => Err(QuantityError::new(
                        format!("these call-outs go round in a ring: {}", names.join(" needs ")),
                        expression.span,
                        "Give one of them a number of its own.",
                    )),
                    // Thickness and inside radius are the stock's and the tool's: no scale touches them.
                    None if matches!(name, "T" | "R") => typed(expression, &self.full_size()),
                    None => typed(expression, self),
                }
            }
        };
        if results.contains_key(name) {
            return;
        }
        let known = match &result {
            Ok(quantity) => Known::Value(*quantity),
            Err(fault) => Known::Broken(fault.message.clone()),
        };
        self.set(name, known);
        results.insert(name.to_string(), result);
    }

    /// Reads a text and brings it to a dimension; a bare number takes the document's unit (or degrees).
    ///
    /// `wanted` names the thing in the error: "a leg length", "a bend angle".
    ///
    /// # Errors
    /// As [`parse`](super::parse()) and [`evaluate`], and where the dimension is another one.
    pub fn read(&self, text: &str, dimension: Dimension, wanted: &str) -> Result<f64, QuantityError> {
        let expression = parse(text)?;
        let quantity = typed(&expression, self)?;
        self.bring(quantity, dimension, wanted, text, expression.span).map_err(|fault| {
            match self.typed_in(&expression.names().into_iter().collect()) {
                Some((name, typed)) => {
                    let given = print::quantity_text(typed, self.show);
                    let way_out = format!("{name} is typed as {given}: mend it there, or cite another number here.");
                    QuantityError { way_out, name: Some(name), ..fault }
                }
                None => fault,
            }
        })
    }

    /// The name that gives these cited ones their kind, where its own text is typed and cites nothing: what is of the wrong kind
    /// was typed there. `None` where several names give it.
    fn typed_in(&self, cited: &BTreeSet<String>) -> Option<(String, Quantity)> {
        let mut cited = cited;
        let mut found = None;
        // A chain is no longer than there are names.
        for _ in 0..=self.cited.len() {
            let mut kinds = cited.iter().filter_map(|name| match self.known.get(name) {
                Some(Known::Value(quantity)) if quantity.dimension != Dimension::NUMBER => Some((name, *quantity)),
                _ => None,
            });
            let (Some((name, quantity)), None) = (kinds.next(), kinds.next()) else { break };
            found = Some((name.clone(), quantity));
            cited = self.cited.get(name)?;
        }
        // What the piece says of itself (T, R) has a field of its own.
        found.filter(|(name, _)| name != "T" && name != "R")
    }

    /// Brings a quantity to a dimension; see [`Names::read`].
    ///
    /// # Errors
    /// Where the quantity has another dimension.
    pub fn bring(
        &self,
        quantity: Quantity,
        dimension: Dimension,
        wanted: &str,
        text: &str,
        span: Span,
    ) -> Result<f64, QuantityError> {
        // Half of a round is no slip that anybody sees: a radius is never taken for a diameter, nor either for another length.
        if let Some(round) = quantity.round
            && wanted != Dimension::LENGTH.to_string()
            && !says(wanted, round)
        {
            let way_out = match round {
                Round::Radius if says(wanted, Round::Diameter) => {
                    format!("Type the diameter, \u{d8}{}.", self.sized(quantity, 2.0))
                }
                Round::Diameter if says(wanted, Round::Radius) => {
                    format!("Type the radius, R{}.", self.sized(quantity, 0.5))
                }
                _ => format!("Type it without its {} sign, if that is meant.", round.word()),
            };
            return Err(QuantityError::new(
                format!("{} is a {}; {wanted} is needed", text.trim(), round.word()),
                span,
                way_out,
            ));
        }
        if quantity.dimension == dimension {
            return Ok(quantity.value);
        }
        if quantity.bare
            && let Some(value) = self.dress(quantity.value, dimension)
        {
            return Ok(value);
        }
        let example = match dimension {
            Dimension::LENGTH => "Type a length such as 12 mm or 1/2 in.",
            Dimension::ANGLE => "Type an angle such as 90 deg.",
            Dimension::NUMBER => "Type a plain number with no unit.",
            Dimension::MASS => "Type a mass such as 2.5 kg.",
            _ => "Check the units in it.",
        };
        Err(QuantityError::new(format!("{} is {}; {wanted} is needed", text.trim(), quantity.dimension), span, example))
    }

    /// So many times a round's size, as it was typed: with its unit or without.
    fn sized(&self, quantity: Quantity, times: f64) -> String {
        let value = quantity.value * times;
        if quantity.bare { print::decimal(value, 4) } else { print::length_text(value, self.show) }
    }

    /// A bare number in the unit that its place asks for.
    fn dress(&self, value: f64, dimension: Dimension) -> Option<f64> {
        match dimension {
            Dimension::NUMBER => Some(value),
            Dimension::LENGTH => Some(value * self.unit.millimetres() * self.scale()),
            Dimension::ANGLE => Some(value.to_radians()),
            Dimension::MASS => Some(value),
            _ => None,
        }
    }
}

/// What a whole typed text comes to. `R20` is a name where there is one, and else a radius of 20.
fn typed(expression: &Expression, names: &Names) -> Result<Quantity, QuantityError> {
    if let Node::Name(name) = &expression.node
        && names.get(name).is_none()
        && let Some(digits) = name.strip_prefix('R')
        && let Ok(value) = digits.parse::<u32>()
    {
        let round = Some(Round::Radius);
        return Ok(Quantity { bare: true, round, ..Quantity::new(f64::from(value), Dimension::NUMBER) });
    }
    evaluate(expression, names)
}

/// What an expression comes to.
///
/// # Errors
/// An unknown or broken name, mixed dimensions, division by zero, a root of a negative number, a value that is not
/// finite or larger than 1e9 mm: each with the span of the fault.
pub fn evaluate(expression: &Expression, names: &Names) -> Result<Quantity, QuantityError> {
    let span = expression.span;
    let quantity = match &expression.node {
        Node::Bare(value) => Quantity { bare: true, ..Quantity::new(*value, Dimension::NUMBER) },
        Node::Measured(parts) => {
            let value: f64 = parts.iter().map(|(literal, unit)| literal.value() * unit.size()).sum();
            let dimension = parts[0].1.dimension();
            Quantity::new(value * names.scale().powi(i32::from(dimension.length)), dimension)
        }
        Node::Name(name) => match names.get(name) {
            Some(Known::Value(quantity)) => *quantity,
            Some(Known::Broken(why)) => {
                return Err(QuantityError::new(
                    format!("{name} has no value: {why}"),
                    span,
                    format!("Mend {name} first."),
                ));
            }
            None => return Err(unknown_name(name, names, span)),
        },
        Node::Round(round, inner) => Quantity { round: Some(*round), ..evaluate(inner, names)? },
        Node::Negative(inner) => {
            let quantity = evaluate(inner, names)?;
            Quantity { value: -quantity.value, round: None, ..quantity }
        }
        Node::Binary(operator, left, right) => {
            binary(*operator, evaluate(left, names)?, evaluate(right, names)?, names, span, right.span)?
        }
        Node::Call(function, arguments) => {
            let values = arguments.iter().map(|one| evaluate(one, names)).collect::<Result<Vec<_>, _>>()?;
            call(*function, &values, names, span)?
        }
    };
    // Of an area and a volume as much as such a length makes.
    let largest = LARGEST.powi(i32::from(quantity.dimension.length.clamp(1, 3)));
    if !quantity.value.is_finite() || quantity.value.abs() > largest {
        return Err(QuantityError::new(
            "this comes to a number that is too large to build with",
            span,
            "Check for a digit typed twice or a wrong unit.",
        ));
    }
    Ok(quantity)
}

/// Whether what is wanted is a round's size that is said so.
fn says(wanted: &str, round: Round) -> bool {
    let diameter = wanted.ends_with("diameter") || wanted.ends_with("bolt circle");
    match round {
        Round::Diameter => diameter,
        Round::Radius => wanted.ends_with("radius"),
    }
}

fn unknown_name(name: &str, names: &Names, span: Span) -> QuantityError {
    let all: BTreeSet<&str> = names.known.keys().map(String::as_str).collect();
    let other_case = all.iter().find(|known| known.eq_ignore_ascii_case(name));
    let digits = name.strip_prefix('R').filter(|rest| rest.parse::<u32>().is_ok());
    let way_out = match other_case {
        _ if digits.is_some() => {
            format!("For a radius in a formula type the number alone, {}.", digits.unwrap_or_default())
        }
        Some(known) => format!("Did you mean {known}? Capitals count."),
        None if all.is_empty() => "There are no names yet.".to_string(),
        None => format!("The names here are {}.", all.into_iter().collect::<Vec<_>>().join(", ")),
    };
    QuantityError::new(format!("there is no call-out called {name}"), span, way_out)
}

/// Brings two quantities to one dimension where one of them is a bare number.
fn alike(
    left: Quantity,
    right: Quantity,
    names: &Names,
    verb: &str,
    span: Span,
) -> Result<(Quantity, Quantity), QuantityError> {
    if left.dimension == right.dimension {
        return Ok((left, right));
    }
    let dress = |bare: Quantity, other: Quantity| {
        names.dress(bare.value, other.dimension).map(|value| Quantity::new(value, other.dimension))
    };
    if right.bare
        && let Some(dressed) = dress(right, left)
    {
        return Ok((left, dressed));
    }
    if left.bare
        && let Some(dressed) = dress(left, right)
    {
        return Ok((dressed, right));
    }
    Err(QuantityError::new(
        format!(
            "{} is {} and {} is {}: they cannot be {verb}",
            print::quantity_text(left, names.show),
            left.dimension,
            print::quantity_text(right, names.show),
            right.dimension
        ),
        span,
        "Both sides must be the same kind of thing.",
    ))
}

fn binary(
    operator: BinaryOperator,
    left: Quantity,
    right: Quantity,
    names: &Names,
    span: Span,
    right_span: Span,
) -> Result<Quantity, QuantityError> {
    let too_odd = || QuantityError::new("the units multiply to nothing that can be measured", span, "Check the units.");
    match operator {
        BinaryOperator::Add | BinaryOperator::Subtract => {
            let verb = if operator == BinaryOperator::Add { "added" } else { "subtracted" };
            let (left, right) = alike(left, right, names, verb, span)?;
            let value =
                if operator == BinaryOperator::Add { left.value + right.value } else { left.value - right.value };
            Ok(Quantity { bare: left.bare && right.bare, ..Quantity::new(value, left.dimension) })
        }
        BinaryOperator::Multiply => Ok(Quantity {
            bare: left.bare && right.bare,
            ..Quantity::new(left.value * right.value, left.dimension.times(right.dimension).ok_or_else(too_odd)?)
        }),
        BinaryOperator::Divide => {
            if right.value == 0.0 {
                return Err(QuantityError::new(
                    "this divides by zero",
                    right_span,
                    "Check what stands below the line.",
                ));
            }
            Ok(Quantity {
                bare: left.bare && right.bare,
                ..Quantity::new(left.value / right.value, left.dimension.over(right.dimension).ok_or_else(too_odd)?)
            })
        }
    }
}

fn call(function: Function, values: &[Quantity], names: &Names, span: Span) -> Result<Quantity, QuantityError> {
    let first = values[0];
    let plain = |what: &str| {
        if first.dimension == Dimension::NUMBER {
            Ok(first.value)
        } else {
            Err(QuantityError::new(
                format!("{} takes a plain number; {} is {}", function.name(), what, first.dimension),
                span,
                "Divide by a length or an angle to get a plain number.",
            ))
        }
    };
    let number = |value: f64| Quantity::new(value, Dimension::NUMBER);
    match function {
        Function::Min | Function::Max => {
            let mut best = first;
            for &value in &values[1..] {
                let (left, right) = alike(best, value, names, "compared", span)?;
                let take_right =
                    if function == Function::Min { right.value < left.value } else { right.value > left.value };
                best = if take_right { right } else { left };
            }
            Ok(best)
        }
        Function::Abs => Ok(Quantity { value: first.value.abs(), round: None, ..first }),
        Function::Round => {
            // A length rounds in the document's unit, an angle in degrees: that is what the reader sees.
            let step = match first.dimension {
                Dimension::LENGTH => names.unit.millimetres() * names.scale(),
                Dimension::ANGLE => 1f64.to_radians(),
                _ => 1.0,
            };
            Ok(Quantity { value: (first.value / step).round() * step, round: None, ..first })
        }
        Function::Sqrt => {
            if first.value < 0.0 {
                return Err(QuantityError::new(
                    format!("the square root of {} does not exist", print::quantity_text(first, names.show)),
                    span,
                    "What stands under a root may not be negative.",
                ));
            }
            let dimension = first.dimension.square_root().ok_or_else(|| {
                QuantityError::new(
                    format!("the square root of {} is nothing that can be measured", first.dimension),
                    span,
                    "Take the root of an area or of a plain number.",
                )
            })?;
            Ok(Quantity { bare: first.bare, ..Quantity::new(first.value.sqrt(), dimension) })
        }
        Function::Sin | Function::Cos | Function::Tan => {
            // sin(30) on a drawing means 30 degrees; a ratio that was computed is not an angle.
            let angle = if first.dimension == Dimension::ANGLE {
                first.value
            } else if first.bare {
                first.value.to_radians()
            } else {
                return Err(QuantityError::new(
                    format!("{} takes an angle; this is {}", function.name(), first.dimension),
                    span,
                    "Write the angle with deg or rad.",
                ));
            };
            match function {
                Function::Sin => Ok(number(angle.sin())),
                Function::Cos => Ok(number(angle.cos())),
                _ if angle.cos().abs() < NOTHING => {
                    Err(QuantityError::new("the tangent of 90 deg has no value", span, "Use an angle below 90 deg."))
                }
                _ => Ok(number(angle.tan())),
            }
        }
        Function::Asin | Function::Acos => {
            let value = plain("this")?;
            if !(-1.0..=1.0).contains(&value) {
                return Err(QuantityError::new(
                    format!("{} takes a number from -1 to 1; this is {}", function.name(), print::decimal(value, 6)),
                    span,
                    "Check which side of the triangle is the long one.",
                ));
            }
            let angle = if function == Function::Asin { value.asin() } else { value.acos() };
            Ok(Quantity::new(angle, Dimension::ANGLE))
        }
        Function::Atan => Ok(Quantity::new(plain("this")?.atan(), Dimension::ANGLE)),
    }
}
