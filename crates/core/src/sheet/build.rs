//! Runs operations in order: the good ones make the part, the bad ones are reported and leave it as it was.

use crate::finding::Finding;
use crate::patience;
use crate::quantity::LengthUnit;

use super::flat::Flat;
use super::rib::keep_ribs;
use super::seam::SeamRecord;
use super::set::SheetSet;
use super::sheets::Sheets;
use super::stitch::{Blank, stitch};
use super::transition::SurfaceRecord;
use super::tree::{Tree, grow};
use super::verbs::{Around, OperationNumbers, check_new};

/// One blank as it was built.
#[derive(Clone, Debug, Default)]
pub struct BuiltBlank {
    /// Panels, strips and their names, in the flat.
    pub flat: Flat,
    /// How it folds; `None` where it does not.
    pub tree: Option<Tree>,
    /// As it is cut; `None` where it does not close.
    pub blank: Option<Blank>,
}

/// What operations made.
#[derive(Clone, Debug, Default)]
pub struct Built {
    /// The blanks, in the order made; none while there is no panel.
    pub blanks: Vec<BuiltBlank>,
    /// Joints between their edges.
    pub seams: Vec<SeamRecord>,
    /// What transitions came to.
    pub surfaces: Vec<SurfaceRecord>,
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
    let mut set = SheetSet::new(thickness);
    let mut findings = Vec::new();
    for (at, (name, numbers)) in operations.iter().enumerate() {
        patience::check();
        // Work on a copy: a bad operation must leave nothing half done.
        let mut trial = set.clone();
        let around = Around { before: &operations[..at], unit };
        let made = check_new_on(&trial, name).and_then(|()| numbers.make_on(&mut trial, name, &around));
        match made.and_then(|notes| trial.flats.iter_mut().try_for_each(keep_ribs).map(|()| notes)) {
            Ok(notes) => {
                set = trial;
                findings.extend(notes.into_iter().map(|note| note.of_operation(name)));
            }
            Err(fault) => findings.push(fault.of_operation(name)),
        }
    }
    if opposite_hand {
        set = set.opposite_hand();
    }
    let mut built = Built { findings, seams: set.seams, surfaces: set.surfaces, ..Built::default() };
    let several = set.flats.len() > 1;
    for (which, flat) in set.flats.into_iter().enumerate() {
        if flat.nodes.is_empty() {
            continue;
        }
        let of = if several { format!("blank {}", Sheets::letter(which)) } else { "part".to_string() };
        let tree = grow(&flat.nodes).map_err(|fault| {
            built.findings.push(Finding::error(
                format!("the {of} does not fold: {fault}"),
                "Leave the last bend out and look at where its strip meets its neighbours.",
            ));
        });
        let blank = stitch(&flat.nodes).map_err(|fault| {
            built.findings.push(Finding::error(
                format!("the blank cannot be drawn: {fault}"),
                "Leave the last step out and look at what it cut.",
            ));
        });
        built.blanks.push(BuiltBlank { flat, tree: tree.ok(), blank: blank.ok() });
    }
    built
}

fn check_new_on(set: &SheetSet, name: &str) -> Result<(), Finding> {
    set.flats.iter().try_for_each(|flat| check_new(flat, name))
}

/// Whether one more operation can be done on what was built, and folds and lies flat with it.
///
/// # Errors
/// Why it cannot.
pub fn would_stand(
    set: &SheetSet,
    before: &[(String, OperationNumbers)],
    (name, numbers): (&str, &OperationNumbers),
    unit: LengthUnit,
) -> Result<(), Finding> {
    let mut trial = set.clone();
    check_new_on(&trial, name)?;
    numbers.make_on(&mut trial, name, &Around { before, unit })?;
    let told = |fault: String| Finding::error(fault, "Give it other values.");
    for flat in &mut trial.flats {
        grow(&flat.nodes).map_err(|fault| told(fault.to_string()))?;
        stitch(&flat.nodes).map_err(|fault| told(fault.to_string()))?;
        keep_ribs(flat)?;
    }
    Ok(())
}
