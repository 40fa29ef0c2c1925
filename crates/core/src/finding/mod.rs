//! The one shape of an error, a warning or a hint: what, where, with which values, and the way out.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{QuantityError, Span};

/// How much a finding matters.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Worth knowing.
    Hint,
    /// May make scrap.
    Warning,
    /// The operation or value could not be used; the rest of the piece stands without it.
    Error,
}

/// Something to tell the designer.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Finding {
    /// How much it matters.
    pub severity: Severity,
    /// What is wrong, with the values.
    pub message: String,
    /// What to do about it.
    pub way_out: String,
    /// The operation it belongs to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub operation: Option<String>,
    /// The call-out it belongs to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub callout: Option<String>,
    /// The path of the field in the piece document.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub field: Option<String>,
    /// The place in the field's text.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub span: Option<Span>,
}

impl Finding {
    /// An error with its words; the place is added by the builder methods.
    pub fn error(message: impl Into<String>, way_out: impl Into<String>) -> Self {
        Finding {
            severity: Severity::Error,
            message: message.into(),
            way_out: way_out.into(),
            operation: None,
            callout: None,
            field: None,
            span: None,
        }
    }

    /// A warning with its words.
    pub fn warning(message: impl Into<String>, way_out: impl Into<String>) -> Self {
        Finding { severity: Severity::Warning, ..Finding::error(message, way_out) }
    }

    /// A hint with its words.
    pub fn hint(message: impl Into<String>, way_out: impl Into<String>) -> Self {
        Finding { severity: Severity::Hint, ..Finding::error(message, way_out) }
    }

    /// A fault in a typed value, in the field of this path.
    pub fn in_field(fault: &QuantityError, field: impl Into<String>) -> Self {
        Finding {
            field: Some(field.into()),
            span: Some(fault.span),
            callout: fault.name.clone(),
            ..Finding::error(fault.message.clone(), fault.way_out.clone())
        }
    }

    /// Says which operation it belongs to.
    pub fn of_operation(mut self, name: &str) -> Self {
        self.operation = Some(name.to_string());
        self
    }

    /// Says which call-out it belongs to.
    pub fn of_callout(mut self, name: &str) -> Self {
        self.callout = Some(name.to_string());
        self
    }

    /// Says which field it belongs to.
    pub fn at_field(mut self, field: impl Into<String>) -> Self {
        self.field = Some(field.into());
        self
    }
}

/// The working of a figure: its formula, its numbers and its source. Answers "why?".
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Why {
    /// What the figure is.
    pub title: String,
    /// The formula in letters.
    pub formula: String,
    /// The formula with its numbers.
    pub working: String,
    /// Where the formula or rule comes from.
    pub source: String,
}
