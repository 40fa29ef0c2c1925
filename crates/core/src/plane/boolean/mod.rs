//! Booleans of outlines, exact for lines and arcs. Every edge of a result is part of an edge that was given and keeps its
//! name: nothing is found again by where it lies.
//!
//! The outlines are split wherever they meet ([`split`]), each stretch is kept or dropped by which side of the other region
//! it lies on, and what is kept is linked into loops (`link`). A touch that crosses nothing splits a stretch and changes
//! nothing else, so that tangent arcs and shared edges need no case of their own.

mod link;
mod split;

use super::{MODELLING_TOLERANCE, Outline, Region};
use crate::patience;

use link::link;
use split::{Piece, Side, arrange};

/// Loops of less area than this are leftovers of shared edges, mm2.
const COLLAPSED: f64 = 1.0e-7;

#[derive(Clone, Copy, PartialEq, Eq)]
enum Operation {
    Subtract,
    Unite,
    Common,
}

/// Runs a boolean of two regions given as loops with the metal on their left: outer loops counter-clockwise, holes
/// clockwise. Returns loops of the same kind.
fn run(one: &[Outline], two: &[Outline], operation: Operation) -> Vec<Outline> {
    // What is nearer than the tolerance is one place. Where rounding leaves a chain open at that width the next is tried;
    // the audit of cuts looks at what came out.
    for snap in [1.0, 10.0, 0.1] {
        patience::check();
        let pieces = arrange(one, two, snap * MODELLING_TOLERANCE);
        let kept = pieces.into_iter().filter_map(|piece| keep(piece, operation)).collect();
        if let Some(loops) = link(kept) {
            return loops.into_iter().filter(is_solid).collect();
        }
    }
    Vec::new()
}

/// Whether a loop encloses more than a film.
fn is_solid(outline: &Outline) -> bool {
    let area = outline.area().abs();
    outline.edges.len() > 1 && area > COLLAPSED && area > MODELLING_TOLERANCE * outline.perimeter() / 2.0
}

/// A piece as it bounds the result, or nothing.
fn keep(piece: Piece, operation: Operation) -> Option<Piece> {
    use Operation::{Common, Subtract, Unite};
    let kept = match (operation, piece.side, piece.of_second) {
        // A shared stretch is taken from the first outline alone.
        (_, Side::Along | Side::Against, true) => false,
        (Subtract, Side::Against, false) => true,
        (Subtract, Side::Along, false) => false,
        (Subtract, side, second) => (side == Side::Inside) == second,
        (Unite | Common, Side::Along, false) => true,
        (Unite | Common, Side::Against, false) => false,
        (Unite, side, _) => side == Side::Outside,
        (Common, side, _) => side == Side::Inside,
    };
    let turned = operation == Subtract && piece.of_second;
    kept.then(|| if turned { piece.reversed() } else { piece })
}

/// Outer loops and holes of a result, all counter-clockwise.
fn sorted(loops: Vec<Outline>) -> (Vec<Outline>, Vec<Outline>) {
    let (outers, holes): (Vec<_>, Vec<_>) = loops.into_iter().partition(|one| one.area() > 0.0);
    (outers, holes.into_iter().map(|hole| hole.reversed()).collect())
}

/// Regions from outer loops and the holes in them, largest first.
fn regions(outers: Vec<Outline>, holes: Vec<Outline>) -> Vec<Region> {
    let mut pieces: Vec<Region> = outers.into_iter().map(Region::solid).collect();
    let single = pieces.len() == 1;
    for hole in holes {
        patience::check();
        // The middle of an edge: a corner may lie on the piece's own outline.
        let probe = hole.segments().next().map(|(edge, _)| edge.at(0.5));
        let inside = |piece: &&mut Region| single || probe.is_some_and(|probe| piece.outer.contains(probe));
        if let Some(piece) = pieces.iter_mut().find(inside) {
            piece.holes.push(hole);
        }
    }
    pieces.sort_by(|one, two| two.area().total_cmp(&one.area()));
    pieces
}

/// What is left of a region when the inside of `cutter` is taken away: one region a connected piece, largest first.
/// Tags of both sides are kept; a stretch of both keeps the region's.
pub fn subtract(region: &Region, cutter: &Outline) -> Vec<Region> {
    with_region(region, cutter, Operation::Subtract)
}

/// What a region and the inside of an outline share: one region a connected piece, largest first.
pub fn common(region: &Region, outline: &Outline) -> Vec<Region> {
    with_region(region, outline, Operation::Common)
}

fn with_region(region: &Region, other: &Outline, operation: Operation) -> Vec<Region> {
    let around = other.extents();
    // Holes that lie clear of the other outline are not looked at: they stay what they are, or are gone with what is
    // around them.
    let (near, clear): (Vec<&Outline>, Vec<&Outline>) =
        region.holes.iter().partition(|hole| hole.extents().is_near(&around, 10.0 * MODELLING_TOLERANCE));
    let mut loops = vec![region.outer.clone()];
    loops.extend(near.into_iter().map(Outline::reversed));
    let (outers, mut holes) = sorted(run(&loops, std::slice::from_ref(other), operation));
    if operation == Operation::Subtract {
        holes.extend(clear.into_iter().cloned());
    }
    regions(outers, holes)
}

/// The two outlines joined: outer outlines, and holes that the joining closed in.
pub fn unite(one: &Outline, two: &Outline) -> (Vec<Outline>, Vec<Outline>) {
    sorted(run(std::slice::from_ref(one), std::slice::from_ref(two), Operation::Unite))
}

/// The outlines of what two outlines share.
pub fn common_outlines(one: &Outline, two: &Outline) -> Vec<Outline> {
    sorted(run(std::slice::from_ref(one), std::slice::from_ref(two), Operation::Common)).0
}

/// Area that two outlines share, mm2.
pub fn common_area(one: &Outline, two: &Outline) -> f64 {
    common_outlines(one, two).iter().map(Outline::area).sum()
}
