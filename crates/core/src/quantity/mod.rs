//! Units, typed expressions and printing: what a person may type into a value, and what it comes to.
//!
//! Inside Steelk every length is in millimetres, every angle in radians and every mass in kilograms.

mod amount;
mod dimension;
mod drill;
mod evaluate;
mod expression;
mod parse;
mod print;
mod text;
pub mod tolerance;
mod value;

pub use amount::Amount;
pub use dimension::{Dimension, Side, Unit};
pub use drill::{drill_called, drill_inches};
pub use evaluate::{Known, Names, evaluate};
pub use expression::{BinaryOperator, Expression, Function, Node, Round, Span};
pub use parse::{DEEPEST_NESTING, LONGEST_TEXT, parse, without_times};
pub use print::{angle_text, decimal, feet_inches, inches_fraction, length_text, quantity_text};
pub(crate) use text::is_called_name;
pub use text::{
    BendName, EdgeName, Expr, FeatureName, HoleName, LineName, MemberName, Name, NameOf, NodeName, OperationName,
    PanelName,
};
pub use value::Quantity;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The unit that a bare length (`12` with no unit) is read in.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LengthUnit {
    /// Millimetres.
    #[default]
    Mm,
    /// Inches (25.4 mm exactly, international inch of 1959).
    In,
}

impl LengthUnit {
    /// Millimetres in one of this unit.
    pub fn millimetres(self) -> f64 {
        match self {
            LengthUnit::Mm => 1.0,
            LengthUnit::In => 25.4,
        }
    }

    /// The unit's sign, as printed after a number.
    pub fn sign(self) -> &'static str {
        match self {
            LengthUnit::Mm => "mm",
            LengthUnit::In => "in",
        }
    }
}

/// A fault in something typed: the words, the byte span of the fault, and the way out.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{message}")]
pub struct QuantityError {
    /// What is wrong, in the words of the person who typed it.
    pub message: String,
    /// Where in the text, as byte offsets.
    pub span: Span,
    /// What to do about it.
    pub way_out: String,
    /// The name whose own text is at fault, where the fault is not in this text but in what it cites.
    pub name: Option<String>,
}

impl QuantityError {
    pub(crate) fn new(message: impl Into<String>, span: Span, way_out: impl Into<String>) -> Self {
        QuantityError { message: message.into(), span, way_out: way_out.into(), name: None }
    }
}
