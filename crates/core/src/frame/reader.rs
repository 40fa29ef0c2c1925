//! Reads the text fields of frame work one by one, keeping what each came to and what is wrong.

use crate::finding::Finding;
use crate::quantity::tolerance::WHOLE;
use crate::quantity::{Dimension, Expr, Names, Quantity, parse, quantity_text, without_times};
use crate::sheet::ResolvedValue;

use super::skeleton::Skeleton;

/// Reads fields of one operation.
pub struct Reader<'a> {
    /// Names that may be cited.
    pub names: &'a Names,
    /// What each field came to.
    pub found: Vec<ResolvedValue>,
}

impl<'a> Reader<'a> {
    /// For one operation.
    pub fn new(names: &'a Names) -> Self {
        Reader { names, found: Vec::new() }
    }

    /// A value of a dimension.
    ///
    /// # Errors
    /// A text that cannot be read, with its field.
    pub fn value(&mut self, field: &str, text: &str, dimension: Dimension, wanted: &str) -> Result<f64, Finding> {
        let value = self.names.read(text, dimension, wanted).map_err(|fault| Finding::in_field(&fault, field))?;
        let cites = parse(text).map(|one| one.names()).unwrap_or_default();
        let text = quantity_text(Quantity::new(value, dimension), self.names.show);
        self.found.push(ResolvedValue { field: field.to_string(), value, text, cites });
        Ok(value)
    }

    /// A length, mm.
    ///
    /// # Errors
    /// As [`Reader::value`].
    pub fn length(&mut self, field: &str, text: &str, wanted: &str) -> Result<f64, Finding> {
        self.value(field, text, Dimension::LENGTH, wanted)
    }

    /// A length that may be left out: then 0.
    ///
    /// # Errors
    /// As [`Reader::value`].
    pub fn maybe(&mut self, field: &str, text: Option<&Expr>, wanted: &str) -> Result<f64, Finding> {
        text.map_or(Ok(0.0), |text| self.length(field, text, wanted))
    }

    /// A length above zero, mm.
    ///
    /// # Errors
    /// As [`Reader::value`]; zero or less.
    pub fn size(&mut self, field: &str, text: &str, wanted: &str) -> Result<f64, Finding> {
        let value = self.length(field, text, wanted)?;
        if value <= 0.0 {
            return Err(Finding::error(format!("{wanted} of {text} is not above zero"), "Type a size above 0 mm.")
                .at_field(field));
        }
        Ok(value)
    }

    /// An angle, radians.
    ///
    /// # Errors
    /// As [`Reader::value`].
    pub fn angle(&mut self, field: &str, text: &str, wanted: &str) -> Result<f64, Finding> {
        self.value(field, text, Dimension::ANGLE, wanted)
    }

    /// A whole number from 1 to `most`.
    ///
    /// # Errors
    /// As [`Reader::value`]; no whole number or out of range.
    pub fn count(&mut self, field: &str, text: &str, wanted: &str, most: usize) -> Result<usize, Finding> {
        let value = self.value(field, without_times(text), Dimension::NUMBER, wanted)?;
        // A count from lengths carries their rounding.
        let whole = value.round();
        if (value - whole).abs() > WHOLE || whole < 1.0 || whole > most as f64 {
            return Err(Finding::error(
                format!("{wanted} of {text} is no whole number from 1 to {most}"),
                "Type a whole number.",
            )
            .at_field(field));
        }
        Ok(whole as usize)
    }
}

/// The node of a name.
///
/// # Errors
/// A node that is not there, with the ones near it in name.
pub fn node(skeleton: &Skeleton, name: &str, field: &str) -> Result<crate::space::Point3, Finding> {
    skeleton.node(name).ok_or_else(|| {
        let stem = name.split('.').next().unwrap_or_default();
        let near: Vec<&str> =
            skeleton.nodes.iter().map(|node| node.name.as_str()).filter(|one| one.starts_with(stem)).take(8).collect();
        let known: Vec<&str> = skeleton.nodes.iter().map(|node| node.name.as_str()).take(8).collect();
        let list = if near.is_empty() { known } else { near };
        let way_out = if list.is_empty() {
            "There are no nodes before this step: lay lines first.".to_string()
        } else {
            format!("Nodes before this step are {}.", list.join(", "))
        };
        Finding::error(format!("there is no node called {name}"), way_out).at_field(field)
    })
}
