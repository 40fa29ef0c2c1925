//! What becomes of each edge of a surface's panels, and how far a sheet with its thickness stands back from it. Edges are cut square,
//! so that both faces keep to a half of space: one touches its plane, the other stands back.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use crate::finding::Finding;
use crate::quantity::angle_text;
use crate::sheet::bending::mould_setback;
use crate::space::{Point3, Vector3};
use crate::work::sheet::{SurfaceFace, TransitionJoint};

use super::faces::{Face, FacePart, Surface};
use super::halves::{Frame, Heights, TOO_FLAT, apart_half, bisector, into_neighbour};
use super::joints::{Joints, known, left_out, pair};
use super::numbers::TransitionNumbers;
use super::tabs::{Tab, bend_at, lies_on_tab};

/// What an edge of a panel is.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum EdgeIs {
    /// On a rim of the surface.
    Rim,
    /// Bent into a neighbour, by this angle (radians from flat); toward the inside where it is positive.
    Bent(usize, f64),
    /// Apart from a neighbour, welded to it or not.
    Apart(usize, bool),
    /// Where a neighbour is left out.
    Free(usize),
}

/// A panel as a sheet.
#[derive(Clone, Debug)]
pub(super) struct SheetPanel {
    /// Its place in the surface.
    pub face: usize,
    /// Heights of its lower and its upper face over the surface, toward the inside, mm.
    pub faces: (f64, f64),
    /// Its edges in the order of its corners: the edge from corner k to k + 1.
    pub edges: Vec<EdgeIs>,
    /// How far the metal stands back from each edge, in its plane, mm.
    pub back: Vec<f64>,
    /// The half of space that each edge keeps to: the side of a plane through it, so far into it (mm), that the vector points to. `None`
    /// for a bend.
    pub keeps: Vec<Option<(Vector3, f64)>>,
    /// What is taken off its corners so that it keeps clear of panels that meet it in a corner alone.
    pub nicks: Vec<Nick>,
}

/// A half of space that a panel keeps to beside a corner.
#[derive(Clone, Copy, Debug)]
pub(super) struct Nick {
    /// The corner.
    pub corner: Point3,
    /// Unit vector toward the half that it keeps.
    pub normal: Vector3,
    /// Half of what is kept free, mm.
    free: f64,
    heights: Heights,
}

impl Nick {
    /// How far in the panel's plane its outline keeps off the corner's plane, where that leans by `over` along the sheet's thickness.
    pub fn by(&self, over: f64) -> f64 {
        self.free - (over * self.heights.0).min(over * self.heights.1)
    }
}

/// How each panel becomes a sheet.
///
/// # Errors
/// Names that are not there; bends that close a ring; a bend between sheets on two sides of the surface; a cover that is too flat; an
/// edge that eats its panel.
pub(super) fn sheets(
    surface: &Surface,
    given: &TransitionNumbers,
    (joints, tabs): (&Joints, &[Tab]),
    lines: &Lines,
    (heights, thickness): (&[Heights], f64),
) -> Result<Vec<SheetPanel>, Finding> {
    let faces = &surface.faces;
    let without = left_out(surface, given)?;
    let mut heights = heights.to_vec();
    // A tab's metal lies as its panel's.
    heights.extend(tabs.iter().map(|tab| heights[tab.parent]).collect::<Vec<_>>());
    let heights = |face: usize| heights[face];
    let owner = surface.owners();
    let radius_of = |one: usize, two: usize| if lines.contains(&pair(one, two)) { 0.0 } else { given.radius };
    let mut panels = Vec::new();
    for (at, face) in faces.iter().enumerate().filter(|(at, _)| !without[*at]) {
        let count = face.corners.len();
        let (mut edges, mut back, mut keeps) = (Vec::new(), Vec::new(), Vec::new());
        for k in 0..count {
            let (from, to) = (face.corners[k], face.corners[(k + 1) % count]);
            let frame = Frame::new(surface, face, k);
            let neighbour = owner.get(&(to, from)).copied();
            let apart = |is, half: (Vector3, f64)| (is, Some(half), frame.stands_back(half.0, half.1, heights(at)));
            if let Some((next, angle, reach)) = bend_at(tabs, at, k) {
                edges.push(EdgeIs::Bent(next, angle));
                keeps.push(None);
                back.push(reach);
                continue;
            }
            let (is, half, own) = match neighbour {
                None => {
                    let rim = surface.rims.get(&(from, to));
                    apart(EdgeIs::Rim, rim.map_or((frame.inward, 0.0), |rim| (rim.keeps, rim.by)))
                }
                // Up to the outer face of the one that has the tab.
                Some(next) if lies_on_tab(tabs, at, next) => {
                    apart(EdgeIs::Apart(next, false), (-faces[next].outward, heights(next).0))
                }
                Some(next) if without[next] => {
                    // An opening's plane; what meets it too flat keeps to half of the corner.
                    let angle = face.outward.angle_to(faces[next].outward);
                    let steep = (TOO_FLAT..=std::f64::consts::PI - TOO_FLAT).contains(&angle);
                    let normal = if steep { -faces[next].outward } else { bisector(&faces[next], &frame) };
                    apart(EdgeIs::Free(next), (normal, 0.0))
                }
                Some(next) => {
                    let angle = turn(&frame, face, &faces[next]);
                    match joints[&pair(at, next)] {
                        TransitionJoint::Bend => (
                            EdgeIs::Bent(next, angle),
                            None,
                            bent_back(
                                faces,
                                (at, next),
                                angle,
                                (heights(at), heights(next)),
                                (radius_of(at, next), thickness),
                            )?,
                        ),
                        joint => {
                            let half = apart_half(surface, (at, next), &frame, (heights(at), heights(next)), given)?;
                            apart(EdgeIs::Apart(next, joint == TransitionJoint::Seam), half)
                        }
                    }
                }
            };
            edges.push(is);
            keeps.push(half);
            back.push(own.ok_or_else(|| {
                Finding::error(
                    format!("{} lies almost along the plane that its edge is to keep to", face.name),
                    "Correct the outlines, or choose another joint there.",
                )
            })?);
        }
        let nicks = nicks((surface, &owner), at, &without, given.gap, &heights);
        panels.push(SheetPanel { face: at, faces: heights(at), edges, back, keeps, nicks });
    }
    Ok(panels)
}

/// Heights of every face's lower and upper side over the surface, toward the inside, mm.
///
/// # Errors
/// A panel on the other side that is not there.
pub(super) fn heights(surface: &Surface, given: &TransitionNumbers, thickness: f64) -> Result<Vec<Heights>, Finding> {
    let mut other = vec![false; surface.faces.len()];
    for (at, name) in given.other_side.iter().enumerate() {
        other[known(surface, name, &format!("other_side.{at}"))?] = true;
    }
    let sheet = |other: &bool| match (given.sizes == SurfaceFace::Outside) != *other {
        true => (0.0, thickness),
        false => (-thickness, 0.0),
    };
    Ok(other.iter().map(sheet).collect())
}

/// Bends between walls that run to one corner: developed on the middle of the metal with inside radius 0, unless a radius is told.
pub(super) type Lines = BTreeSet<(usize, usize)>;

/// Which bends are such lines.
pub(super) fn lines(surface: &Surface, joints: &Joints, given: &TransitionNumbers) -> Lines {
    if given.radius_told {
        return Lines::new();
    }
    let owners = surface.owners();
    let mut at_corner: BTreeMap<usize, Lines> = BTreeMap::new();
    for (&(from, to), &face) in &owners {
        let Some(&next) = owners.get(&(to, from)) else { continue };
        let walls = [face, next].iter().all(|&at| surface.faces[at].part == FacePart::Wall);
        if walls && joints.get(&pair(face, next)) == Some(&TransitionJoint::Bend) {
            for corner in [from, to] {
                at_corner.entry(corner).or_default().insert(pair(face, next));
            }
        }
    }
    at_corner.into_values().filter(|bends| bends.len() > 1).flatten().collect()
}

/// The nicks of a panel: beside every panel that shares a corner and no edge with it, so that the two keep to two halves of space parted
/// between the edges by which they come nearest.
fn nicks(
    (surface, owners): (&Surface, &Owners),
    at: usize,
    without: &[bool],
    gap: f64,
    heights_of: &dyn Fn(usize) -> Heights,
) -> Vec<Nick> {
    let heights = heights_of(at);
    let inner = |face: usize| heights_of(face).1;
    let face = &surface.faces[at];
    let mut all = Vec::new();
    for (k, &corner) in face.corners.iter().enumerate() {
        for (other, beside) in surface.faces.iter().enumerate() {
            if other == at || without[other] || !beside.corners.contains(&corner) || shares_edge(face, beside, corner) {
                continue;
            }
            match (face.part, beside.part) {
                (FacePart::Wall, FacePart::Wall) => {}
                // Over the inner face of the panel that closes an end.
                (FacePart::Wall, FacePart::End(_)) => {
                    let free = inner(other) + gap;
                    all.push(Nick { corner: surface.points[corner], normal: -beside.outward, free, heights });
                    continue;
                }
                // What stands at a rim keeps clear by its own edges, but of a wall that comes to the rim in a corner alone.
                (FacePart::Wall, FacePart::Collar(_) | FacePart::Flange(_))
                    if touches((surface, owners), at, corner) => {}
                (FacePart::Collar(_) | FacePart::Flange(_), FacePart::Wall)
                    if touches((surface, owners), other, corner) => {}
                _ => continue,
            }
            let ways = |face: &Face, k: usize| {
                let count = face.corners.len();
                let place = surface.points[corner];
                let way = |to: usize| (surface.points[face.corners[to % count]] - place).unit();
                [way(k + 1), way(k + count - 1)]
            };
            let there = beside.corners.iter().position(|&one| one == corner).unwrap_or(0);
            let pairs = ways(face, k).into_iter().flat_map(|own| ways(beside, there).map(|their| (own, their)));
            let Some((own, their)) = pairs.min_by(|one, two| one.0.angle_to(one.1).total_cmp(&two.0.angle_to(two.1)))
            else {
                continue;
            };
            let (between, outward) = ((own + their).unit(), (face.outward + beside.outward).unit());
            let normal = between.cross(outward).unit();
            let normal = if normal.dot(own) < 0.0 { -normal } else { normal };
            if normal.x.is_finite() {
                all.push(Nick { corner: surface.points[corner], normal, free: gap / 2.0, heights });
            }
        }
    }
    all
}

/// Whether a wall comes to the rim at a corner with no edge of its own along it: every edge there is shared with another wall.
fn touches((surface, owners): (&Surface, &Owners), wall: usize, corner: usize) -> bool {
    let face = &surface.faces[wall];
    let count = face.corners.len();
    (0..count)
        .map(|k| (face.corners[k], face.corners[(k + 1) % count]))
        .filter(|edge| edge.0 == corner || edge.1 == corner)
        .all(|(from, to)| owners.get(&(to, from)).is_some_and(|&next| surface.faces[next].part == FacePart::Wall))
}

/// Whether two faces share an edge that ends in a corner.
fn shares_edge(one: &Face, two: &Face, corner: usize) -> bool {
    let beside = |face: &Face| {
        let (k, count) = (face.corners.iter().position(|&at| at == corner), face.corners.len());
        k.map(|k| [face.corners[(k + 1) % count], face.corners[(k + count - 1) % count]]).unwrap_or([corner, corner])
    };
    beside(one).iter().any(|at| beside(two).contains(at))
}

/// How far the sheet turns over an edge, radians: toward the inside where positive.
fn turn(frame: &Frame, face: &Face, next: &Face) -> f64 {
    let angle = face.outward.angle_to(next.outward);
    if into_neighbour(frame, next).dot(frame.up) >= 0.0 { angle } else { -angle }
}

/// Which face has an edge; see [`Surface::owners`].
type Owners = HashMap<(usize, usize), usize>;

/// From the edge of the surface to the tangent line of a bend in it.
fn bent_back(
    faces: &[Face],
    (at, next): (usize, usize),
    angle: f64,
    (own, other): (Heights, Heights),
    (radius, thickness): (f64, f64),
) -> Result<Option<f64>, Finding> {
    if own != other {
        return Err(Finding::error(
            format!(
                "{} and {} are bent from one sheet and lie on two sides of the surface",
                faces[at].name, faces[next].name
            ),
            "Let both lie on one side, or make the edge between them a seam.",
        )
        .at_field("other_side"));
    }
    if angle.abs() > 170f64.to_radians() {
        return Err(Finding::error(
            format!("{} and {} would be bent by {}", faces[at].name, faces[next].name, angle_text(angle.abs())),
            "Make the edge between them a seam.",
        )
        .at_field("edges"));
    }
    // The surface is the outside of a bend toward the inside where the metal lies within, and the inside of one where it lies about.
    let outside = (own.0 == 0.0) == (angle > 0.0);
    let reach =
        if outside { mould_setback(angle.abs(), radius, thickness) } else { radius * (angle.abs() / 2.0).tan() };
    Ok(Some(reach))
}
