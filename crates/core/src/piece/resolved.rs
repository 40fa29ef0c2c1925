//! A piece in numbers, before anything of it is made.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Finding;
use crate::quantity::{Names, Quantity};
use crate::sheet::{Numbers, OperationNumbers, ResolvedValue};
use crate::stock::Material;

/// What became of one operation.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OperationState {
    /// Built.
    Made,
    /// Left out on purpose.
    Rested,
    /// After the caret.
    Ahead,
    /// Could not be used.
    Bad,
}

/// A piece in numbers.
#[derive(Clone, Debug)]
pub struct Resolved {
    /// The names that expressions may cite.
    pub names: Names,
    /// The material; `None` when the piece names one that is not in the table.
    pub material: Option<&'static Material>,
    /// Thickness, mm.
    pub thickness: Option<f64>,
    /// How the thickness was named, when by gauge.
    pub gauge: Option<String>,
    /// Inside radius, mm.
    pub radius: Option<f64>,
    /// Die opening that the piece names, mm.
    pub die: Option<f64>,
    /// How blanks are computed, in words, for the heading.
    pub method_words: String,
    /// Each call-out's value, or why it has none.
    pub callouts: BTreeMap<String, Result<Quantity, String>>,
    /// Which operations cite each call-out, directly or through another call-out.
    pub drives: BTreeMap<String, Vec<String>>,
    /// What operations of sheet are read with; `None` where stock or bending cannot be read, and of a frame.
    pub read_with: Option<Numbers>,
    /// Good operations in order, as numbers.
    pub operations: Vec<(String, OperationNumbers)>,
    /// What each field came to, by operation.
    pub values: BTreeMap<String, Vec<ResolvedValue>>,
    /// What became of each operation so far (build may add more bad ones).
    pub states: Vec<OperationState>,
    /// What is wrong.
    pub findings: Vec<Finding>,
}
