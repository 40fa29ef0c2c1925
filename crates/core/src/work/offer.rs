//! What is offered for a place that was pointed at: whole steps with values that fit, to be changed and kept or dropped.

use serde::Serialize;
use utoipa::ToSchema;

use crate::quantity::{Expr, LengthUnit, decimal, inches_fraction};

use super::Action;

/// A step that can be done where somebody points. It builds as it stands.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Offer {
    /// Among which verbs it is listed.
    pub group: Group,
    /// On the menu: "Bend a flange here".
    pub words: String,
    /// What its name begins with; a number follows where the name is taken.
    pub stem: String,
    /// The step.
    pub action: Action,
    /// Fields inside the action that are typed, in the order that a drawing gives them: `leg`, `place.from.0.distance`.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub asks: Vec<String>,
    /// Fields inside the action that wait for a place to be pointed at, the first first.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub wants: Vec<String>,
}

/// Verbs that belong together, in the order that work is done.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Group {
    /// The first panel.
    LayDown,
    /// Bends, hems, joggles.
    Bend,
    /// Holes and openings.
    Hole,
    /// Edges and corners.
    Edge,
    /// Blanks and what joins them.
    Blank,
    /// Nodes and centre lines.
    Line,
    /// Sections on lines.
    Member,
    /// Joints and ends.
    Joint,
    /// Plates of a frame.
    Plate,
    /// Work made again.
    Again,
}

impl Offer {
    /// An offer that waits for no further place.
    pub fn new(group: Group, words: impl Into<String>, stem: &str, action: Action) -> Offer {
        Offer { group, words: words.into(), stem: stem.into(), action, asks: Vec::new(), wants: Vec::new() }
    }

    /// The same, with the fields that are typed.
    pub fn asking(mut self, fields: &[&str]) -> Offer {
        self.asks = fields.iter().map(|one| (*one).to_string()).collect();
        self
    }

    /// The same, with a field that waits for a place.
    pub fn wanting(mut self, field: &str) -> Offer {
        self.wants.push(field.into());
        self
    }
}

/// A length that is easy to read near one in mm, as it is typed in the piece's unit: fives and tens of mm, fractions of an inch.
pub fn about(millimetres: f64, unit: LengthUnit) -> Expr {
    let text = match unit {
        LengthUnit::Mm => {
            let step = if millimetres >= 20.0 { 5.0 } else { 1.0 };
            format!("{} mm", decimal(((millimetres / step).round() * step).max(1.0), 0))
        }
        LengthUnit::In => {
            let step = if millimetres >= 25.4 { 4.0 } else { 16.0 };
            let inches = ((millimetres / 25.4 * step).round() / step).max(1.0 / 16.0);
            inches_fraction(inches * 25.4, 16)
        }
    };
    text.as_str().into()
}
