//! Runs operations in order: the good ones make the part, the bad ones are reported and leave it as it was.

use crate::finding::Finding;
use crate::patience;
use crate::quantity::LengthUnit;

use super::flat::Flat;
use super::stitch::{Blank, stitch};
use super::tree::{Tree, grow};
use super::verbs::{Around, OperationNumbers, check_new};

/// What operations made.
#[derive(Clone, Debug, Default)]
pub struct Built {
    /// Panels, strips and their names, in the flat.
    pub flat: Flat,
    /// How it folds; `None` while there is no panel.
    pub tree: Option<Tree>,
    /// The blank; `None` while there is none or it does not close.
    pub blank: Option<Blank>,
    /// What went wrong, by operation.
    pub findings: Vec<Finding>,
}

/// Builds a part of this thickness (mm) from operations that are already numbers. `unit` is what messages speak in.
/// `opposite_hand` turns the finished part about.
pub fn build(
    operations: &[(String, OperationNumbers)],
    thickness: f64,
    opposite_hand: bool,
    unit: LengthUnit,
) -> Built {
    let mut flat = Flat::new(thickness);
    let mut findings = Vec::new();
    for (at, (name, numbers)) in operations.iter().enumerate() {
        patience::check();
        // Work on a copy: a bad operation must leave nothing half done.
        let mut trial = flat.clone();
        let around = Around { before: &operations[..at], unit };
        match check_new(&trial, name).and_then(|()| numbers.make(&mut trial, name, &around)) {
            Ok(notes) => {
                flat = trial;
                findings.extend(notes.into_iter().map(|note| note.of_operation(name)));
            }
            Err(fault) => findings.push(fault.of_operation(name)),
        }
    }
    if opposite_hand {
        flat = flat.opposite_hand();
    }
    let mut built = Built { flat, findings, ..Built::default() };
    if built.flat.nodes.is_empty() {
        return built;
    }
    match grow(&built.flat.nodes) {
        Ok(tree) => built.tree = Some(tree),
        Err(fault) => built.findings.push(Finding::error(
            format!("the part does not fold: {fault}"),
            "Leave the last bend out and look at where its strip meets its neighbours.",
        )),
    }
    match stitch(&built.flat.nodes) {
        Ok(blank) => built.blank = Some(blank),
        Err(fault) => built.findings.push(Finding::error(
            format!("the blank cannot be drawn: {fault}"),
            "Leave the last step out and look at what it cut.",
        )),
    }
    built
}

/// Whether one more operation can be done on what was built, and folds and lies flat with it.
///
/// # Errors
/// Why it cannot.
pub fn would_stand(
    flat: &Flat,
    before: &[(String, OperationNumbers)],
    (name, numbers): (&str, &OperationNumbers),
    unit: LengthUnit,
) -> Result<(), Finding> {
    let mut trial = flat.clone();
    check_new(&trial, name)?;
    numbers.make(&mut trial, name, &Around { before, unit })?;
    let told = |fault: String| Finding::error(fault, "Give it other values.");
    grow(&trial.nodes).map_err(|fault| told(fault.to_string()))?;
    stitch(&trial.nodes).map_err(|fault| told(fault.to_string()))?;
    Ok(())
}
