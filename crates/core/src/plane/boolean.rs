//! Booleans of outlines through `cavalier_contours`, with names put back on the result by the line or circle that each
//! edge lies on.

use cavalier_contours::polyline::{BooleanOp, PlineBooleanOptions, PlineSource, PlineSourceMut, Polyline};

use super::{Edge, MODELLING_TOLERANCE, Outline, Point, Region, Segment, Tag};

/// Loops of less area than this are leftovers of shared edges, mm2.
const COLLAPSED: f64 = 1.0e-7;

fn to_polyline(outline: &Outline) -> Polyline<f64> {
    let mut line = Polyline::new_closed();
    for edge in &outline.edges {
        line.add(edge.start.x, edge.start.y, edge.bulge);
    }
    line
}

fn run(one: &Outline, two: &Outline, operation: BooleanOp) -> (Vec<Outline>, Vec<Outline>) {
    let options = PlineBooleanOptions {
        pos_equal_eps: MODELLING_TOLERANCE,
        collapsed_area_eps: Some(COLLAPSED),
        ..PlineBooleanOptions::new()
    };
    let result = to_polyline(one).boolean_opt(&to_polyline(two), operation, &options);
    let back = |lines: Vec<cavalier_contours::polyline::BooleanResultPline<Polyline<f64>>>| {
        lines
            .into_iter()
            .filter(|line| line.pline.iter_vertexes().count() > 1)
            .map(|line| {
                let edges = line
                    .pline
                    .iter_vertexes()
                    .map(|vertex| Edge { start: Point::new(vertex.x, vertex.y), bulge: vertex.bulge, tag: 0 })
                    .collect();
                let mut outline = Outline { edges }.counter_clockwise();
                outline.drop_short(MODELLING_TOLERANCE);
                rename(&mut outline, one, two);
                outline
            })
            .filter(|outline| outline.edges.len() > 1 && outline.area() > COLLAPSED)
            .collect::<Vec<_>>()
    };
    (back(result.pos_plines), back(result.neg_plines))
}

/// Gives each edge the tag of the source edge whose line or circle it lies on; the first source wins.
fn rename(outline: &mut Outline, one: &Outline, two: &Outline) {
    let sources: Vec<(Segment, Tag)> = one.segments().chain(two.segments()).collect();
    let tags: Vec<Tag> = outline
        .segments()
        .map(|(piece, _)| sources.iter().find(|(source, _)| lies_on(&piece, source)).map_or(0, |(_, tag)| *tag))
        .collect();
    for (edge, tag) in outline.edges.iter_mut().zip(tags) {
        edge.tag = tag;
    }
}

/// Whether a piece is part of a source: its ends and its middle are on it.
fn lies_on(piece: &Segment, source: &Segment) -> bool {
    piece.is_line() == source.is_line()
        && [0.0, 0.5, 1.0].iter().all(|&at| source.distance_to(piece.at(at)) < 10.0 * MODELLING_TOLERANCE)
}

/// What is left of a region when the inside of `cutter` is taken away: one region a connected piece, largest first.
/// Tags of both sides are kept.
pub fn subtract(region: &Region, cutter: &Outline) -> Vec<Region> {
    let mut cutter = cutter.clone();
    let mut untouched = Vec::new();
    for hole in &region.holes {
        // A hole that meets the cutter becomes part of it; the others stay holes of whichever piece holds them.
        if hole.extents().is_near(&cutter.extents(), MODELLING_TOLERANCE) && !hole.contains_outline(&cutter) {
            let (united, _) = run(&cutter, hole, BooleanOp::Or);
            if united.len() == 1 {
                cutter = united.into_iter().next().unwrap_or(cutter);
                continue;
            }
        }
        untouched.push(hole.clone());
    }
    let (outers, inner) = run(&region.outer, &cutter, BooleanOp::Not);
    let mut pieces: Vec<Region> = outers.into_iter().map(Region::solid).collect();
    untouched.extend(inner);
    for hole in untouched {
        let probe = hole.edges[0].start;
        if let Some(piece) = pieces.iter_mut().find(|piece| piece.outer.contains(probe)) {
            piece.holes.push(hole);
        }
    }
    pieces.sort_by(|one, two| two.area().total_cmp(&one.area()));
    pieces
}

/// The two outlines joined: outer outlines, and holes that the joining closed in.
pub fn unite(one: &Outline, two: &Outline) -> (Vec<Outline>, Vec<Outline>) {
    run(one, two, BooleanOp::Or)
}

/// The outlines of what two outlines share.
pub fn common_outlines(one: &Outline, two: &Outline) -> Vec<Outline> {
    run(one, two, BooleanOp::And).0
}

/// Area that two outlines share, mm2.
pub fn common_area(one: &Outline, two: &Outline) -> f64 {
    common_outlines(one, two).iter().map(Outline::area).sum()
}

impl Outline {
    /// Whether another outline lies wholly inside this one (no crossing is checked: for disjoint or nested outlines).
    fn contains_outline(&self, other: &Outline) -> bool {
        other.edges.iter().all(|edge| self.contains(edge.start))
    }
}
