//! From an operation's text to its numbers.

use crate::finding::Finding;
use crate::quantity::Dimension;
use crate::work::Operation;

use super::numbers::Numbers;
use super::reader::{Reader, ResolvedValue};
use super::verbs::{OperationNumbers, sheet_verb};

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
    let verb = sheet_verb(&operation.action);
    // R in an operation is that bend's own radius where it names one.
    let mut given = given.clone();
    let own_radius = verb.and_then(|verb| (verb.radius)(&operation.action));
    if let Some(text) = own_radius
        && let Ok(radius) = given.names.read(text, Dimension::LENGTH, "an inside radius")
    {
        given.names.set("R", crate::quantity::Known::Value(crate::quantity::Quantity::new(radius, Dimension::LENGTH)));
    }
    let mut reader = Reader { given: &given, found: Vec::new(), findings: Vec::new(), blocked: false };
    let numbers = match verb {
        Some(verb) => (verb.read)(&mut reader, &operation.action),
        None => {
            reader.findings.push(Finding::error(
                format!("{} is work of a frame", operation.name),
                "Make the piece a frame, or take it out.",
            ));
            None
        }
    };
    let numbers = if reader.blocked { None } else { numbers };
    ReadOperation { numbers, values: reader.found, findings: reader.findings }
}
