//! A seam laid between two edges of a set of blanks.

use crate::finding::Finding;
use crate::quantity::LengthUnit;
use crate::work::sheet::{SeamAs, SeamLay};

use super::flange::folded_now;
use super::flat::Flat;
use super::fold::Folded;
use super::seam::{SeamFault, SeamNumbers, SeamRecord, seam_of};
use super::set::SheetSet;

/// Two walls further apart than this, in thicknesses and mm, do not lie together.
const FAR: (f64, f64) = (1.0, 3.0);
/// Lays a seam between two walls that lie together.
///
/// # Errors
/// A name that is not there, one edge joined to itself, edges that do not lie together, a seam that is told twice the other way.
pub(super) fn lay_seam(
    set: &mut SheetSet,
    name: &str,
    given: &SeamNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let SeamAs { lay, weld, flush } = given.seam.clone();
    let record = SeamRecord { lay, weld, flush, ..SeamRecord::plain(name, given.walls.clone()) };
    if given.walls[0] == given.walls[1] {
        return Err(Finding::error(
            format!("{} cannot be joined to itself", given.walls[0]),
            "Name the edge that lies beside it.",
        )
        .at_field("to"));
    }
    let turned = [given.walls[1].clone(), given.walls[0].clone()];
    if let Some(known) = set.seams.iter().find(|one| one.walls == given.walls || one.walls == turned) {
        let same_way = known.walls == given.walls;
        let covers = |lay: SeamLay, same: bool| match (lay, same) {
            (SeamLay::FirstCovers, false) => SeamLay::SecondCovers,
            (SeamLay::SecondCovers, false) => SeamLay::FirstCovers,
            (lay, _) => lay,
        };
        let twice = lay != SeamLay::EdgeToEdge && known.lay != SeamLay::EdgeToEdge;
        if twice && covers(lay, same_way) != known.lay {
            return Err(Finding::error(
                format!(
                    "{} and {} would each cover the other: {} says it the other way",
                    given.walls[0], given.walls[1], known.name
                ),
                "Say one way round in both, or take one of them out.",
            )
            .at_field("seam.lay"));
        }
    }
    let folds = set.flats.iter().map(folded_now).collect::<Result<Vec<_>, _>>()?;
    let all: Vec<(&Flat, &Folded)> = set.flats.iter().zip(&folds).collect();
    let found = seam_of(&all, &record).map_err(|fault| fault.words(&record, unit))?;
    let most = FAR.0 * set.flats[0].thickness + FAR.1;
    if found.gap > most {
        return Err(SeamFault::Apart(found.gap).words(&record, unit));
    }
    // What is said later of the same two edges stands.
    set.seams.retain(|one| one.walls != given.walls && one.walls != turned);
    set.seams.push(record);
    Ok(Vec::new())
}
