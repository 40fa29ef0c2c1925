//! Corners between flanges. Two flanges meet in the folded part: each keeps to its side of a plane there, and the plane
//! is taken back into the flat of each. One rule serves all angles and lengths.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Region, Tag, Vector, subtract};
use crate::quantity::LengthUnit;
use crate::quantity::tolerance::{NO_TURN, NOTHING, PARALLEL};
use crate::sheet::flat::{EdgeRecord, Flat, NodeKind};
use crate::sheet::fold::Folded;
use crate::space::{Point3, Vector3};

use super::lay::{EdgeFrame, RUN_OUT};
use super::relief::take_from_panel;
use super::spot::Spot;

/// A half of space: points with normal . x >= level are kept.
#[derive(Clone, Copy, Debug)]
pub(super) struct Half {
    /// Unit normal, toward what is kept.
    pub normal: Vector3,
    /// Least value of normal . x, mm.
    pub level: f64,
}

impl Half {
    /// How far a point lies inside it, mm; negative outside.
    fn depth(&self, point: Point3) -> f64 {
        point.from_origin().dot(self.normal) - self.level
    }
}

/// The plane between two flanges, as halves: the first for the first flange. `gap` mm is left between them.
///
/// The plane that bisects two faces holds the points at the same height over both. Where the two lie in one plane there
/// is no such, and it bisects their bend lines instead.
pub(super) fn bisector(
    flat: &Flat,
    folded: &Folded,
    one: (usize, Point, Vector),
    two: (usize, Point, Vector),
    gap: f64,
) -> Option<(Half, Half)> {
    let place = |side: (usize, Point, Vector)| -> Option<(Vector3, Point3, Vector3)> {
        let motion = folded.motion(side.0)?;
        let normal = motion.direction(Vector3::new(0.0, 0.0, 1.0));
        let point = motion.apply(Point3::new(side.1.x, side.1.y, flat.thickness / 2.0));
        Some((normal, point, motion.direction(Vector3::new(side.2.x, side.2.y, 0.0))))
    };
    let ((n1, p1, a1), (n2, p2, a2)) = (place(one)?, place(two)?);
    let across = n1 - n2;
    let (normal, level) = if across.length() > NO_TURN {
        let normal = across.unit();
        let share = 1.0 / across.length();
        (normal, (n1.dot(p1.from_origin()) - n2.dot(p2.from_origin())) * share)
    } else {
        let normal = (a1 - a2).unit();
        // Where the two bend lines cross: in their common plane.
        let turn = a1.cross(a2);
        if turn.length() < NO_TURN {
            return None;
        }
        let along = (p2 - p1).cross(a2).dot(turn) / turn.dot(turn);
        let meet = p1 + a1 * along;
        (normal, meet.from_origin().dot(normal))
    };
    // Each flange keeps the side that it runs off to from the corner.
    let sign = if a1.dot(normal) - a2.dot(normal) >= 0.0 { 1.0 } else { -1.0 };
    let half = gap / 2.0;
    Some((
        Half { normal: normal * sign, level: level * sign + half },
        Half { normal: normal * -sign, level: -level * sign + half },
    ))
}

/// The half of space before a panel's face, `gap` mm off it: on the side of `inside`.
pub(super) fn before_face(
    flat: &Flat,
    folded: &Folded,
    panel: usize,
    top: bool,
    toward: f64,
    gap: f64,
) -> Option<Half> {
    let motion = folded.motion(panel)?;
    let normal = motion.direction(Vector3::new(0.0, 0.0, 1.0)) * toward;
    let at = flat.nodes[panel].region.outer.edges.first()?.start;
    let on = motion.apply(Point3::new(at.x, at.y, if top { flat.thickness } else { 0.0 }));
    Some(Half { normal, level: on.from_origin().dot(normal) + gap })
}

/// How far a flange that covers another's end must run past that one's outer face, mm: at corners wider than square the nearest
/// place of the covered end looks at a place beyond it.
pub(super) fn cover(folded: &Folded, over: usize, under: usize, up: bool, gap: f64) -> f64 {
    let outward = |panel: usize| {
        let down = Vector3::new(0.0, 0.0, if up { -1.0 } else { 1.0 });
        folded.motion(panel).map_or(down, |motion| motion.direction(down))
    };
    gap * outward(over).dot(outward(under)).max(0.0)
}

/// Cuts a panel so that its faces at these heights (0 lower, T upper) keep to a half of space. `square` cuts square to the bend at the worst place
/// instead of along the plane; `frame` is that of the edge, `at_end` which end is cut.
pub(super) fn keep_panel(
    flat: &mut Flat,
    folded: &Folded,
    panel: usize,
    half: Half,
    square: Option<(&EdgeFrame, bool)>,
    faces: &[f64],
    tag: Tag,
) -> Result<(), Finding> {
    let Some(motion) = folded.motion(panel) else { return Ok(()) };
    for &z in faces {
        // The depth is linear over the flat: its value and its slopes.
        let depth = |x: f64, y: f64| half.depth(motion.apply(Point3::new(x, y, z)));
        let base = depth(0.0, 0.0);
        let slope = Vector::new(depth(1.0, 0.0) - base, depth(0.0, 1.0) - base);
        if slope.length() < PARALLEL {
            if base < -MODELLING_TOLERANCE {
                return Err(nothing_left(&flat.nodes[panel].name));
            }
            continue;
        }
        let region = &flat.nodes[panel].region;
        let (inward, level) = match square {
            None => (slope.unit(), -base / slope.length()),
            Some((frame, at_end)) => {
                let inward = if at_end { -frame.along } else { frame.along };
                let tilt = slope.dot(inward);
                if tilt < PARALLEL {
                    continue;
                }
                // Along the bend, as far in as the worst of the panel's heights above it asks for.
                let worst = region
                    .outer
                    .edges
                    .iter()
                    .map(|edge| {
                        let v = (edge.start - frame.start).dot(frame.outward);
                        let foot = frame.place(0.0, v);
                        let short = -(base + slope.dot(foot - Point::default())) / tilt;
                        short + (foot - Point::default()).dot(inward)
                    })
                    .fold(f64::NEG_INFINITY, f64::max);
                (inward, worst)
            }
        };
        let kept = keep_flat(region, inward, level, tag).ok_or_else(|| nothing_left(&flat.nodes[panel].name))?;
        flat.nodes[panel].region = Arc::new(kept);
    }
    Ok(())
}

/// Cuts a strip square to its bend line so that all of it keeps to a half of space.
pub(super) fn keep_strip(flat: &mut Flat, folded: &Folded, node: usize, half: Half, tag: Tag) -> Result<(), Finding> {
    let NodeKind::Strip(strip) = flat.nodes[node].kind.clone() else { return Ok(()) };
    let mut wanted: Option<(Vector, f64)> = None;
    for z in [0.0, flat.thickness] {
        let depth =
            |u: f64, turn: f64| half.depth(folded.apply(node, strip.place(u, turn / strip.angle * strip.width), z));
        // Along the bend the depth changes alike everywhere.
        let tilt = depth(1.0, 0.0) - depth(0.0, 0.0);
        if tilt.abs() < PARALLEL {
            continue;
        }
        let inward = strip.along * tilt.signum();
        // Round the bend it is a + b cos t + c sin t: its least lies at an end, or where that stands still.
        let (first, quarter, last) = (depth(0.0, 0.0), depth(0.0, strip.angle / 2.0), depth(0.0, strip.angle));
        let (sin_half, cos_half) = (strip.angle / 2.0).sin_cos();
        let (sin_whole, cos_whole) = strip.angle.sin_cos();
        // Two differences give b and c.
        let turn = (cos_half - 1.0) * sin_whole - (cos_whole - 1.0) * sin_half;
        let mut turns = vec![0.0, strip.angle];
        if turn.abs() > NOTHING {
            let (one, two) = (quarter - first, last - first);
            let b = (one * sin_whole - two * sin_half) / turn;
            let c = (two * (cos_half - 1.0) - one * (cos_whole - 1.0)) / turn;
            let still = c.atan2(b);
            let whole = std::f64::consts::PI;
            turns.extend([still - whole, still, still + whole, still + 2.0 * whole]);
        }
        for at in turns.into_iter().filter(|at| (0.0..=strip.angle).contains(at)) {
            let foot = strip.place(-depth(0.0, at) / tilt, 0.0);
            let level = (foot - Point::default()).dot(inward);
            if wanted.is_none_or(|(_, known)| level > known) {
                wanted = Some((inward, level));
            }
        }
    }
    let Some((inward, level)) = wanted else { return Ok(()) };
    let kept = keep_flat(&flat.nodes[node].region, inward, level, tag)
        .ok_or_else(|| nothing_left(&format!("the bend {}", flat.nodes[node].name)))?;
    flat.nodes[node].region = Arc::new(kept);
    Ok(())
}

fn nothing_left(name: &str) -> Finding {
    Finding::error(
        format!("the corner would take all of {name}"),
        "Make the gap smaller, shorten the flange's neighbour, or leave the corner open.",
    )
    .at_field("corners")
}

/// What of a region lies where inward . x >= level. Corners within [`NEAR_CUT`] of the line are kept as they are: a sliver
/// that thin is nobody's metal. Flanges are convex and straight before anything else is cut from them, and are clipped
/// exactly; anything else goes through the booleans.
pub(super) fn keep_flat(region: &Region, inward: Vector, level: f64, tag: Tag) -> Option<Region> {
    let depth = |point: Point| (point - Point::default()).dot(inward) - level;
    let edges = &region.outer.edges;
    if edges.iter().all(|edge| depth(edge.start) >= -NEAR_CUT) {
        return Some(region.clone());
    }
    let straight = region.holes.is_empty() && edges.iter().all(|edge| edge.bulge == 0.0);
    if straight && is_convex(&region.outer) {
        let mut kept: Vec<Edge> = Vec::new();
        for (at, edge) in edges.iter().enumerate() {
            let next = edges[(at + 1) % edges.len()].start;
            let (here, there) = (depth(edge.start), depth(next));
            let crossing = edge.start.toward(next, here / (here - there));
            match (here >= -NEAR_CUT, there >= -NEAR_CUT) {
                (true, true) => kept.push(*edge),
                // The line begins where this edge leaves the kept side.
                (true, false) if here > NEAR_CUT => {
                    kept.push(*edge);
                    kept.push(Edge { start: crossing, bulge: 0.0, tag });
                }
                (true, false) => kept.push(Edge { tag, ..*edge }),
                (false, true) if there > NEAR_CUT => kept.push(Edge { start: crossing, ..*edge }),
                (false, _) => {}
            }
        }
        return (kept.len() > 2).then(|| Region::solid(Outline { edges: kept }));
    }
    let around = region.extents();
    let size = around.width() + around.height() + 10.0;
    let centre = around.centre();
    let foot = centre - inward * depth(centre);
    let (near, far) = (inward.left() * size, inward * (2.0 * size));
    let cutter =
        Outline::polygon(&[(foot + near, tag), (foot - near, tag), (foot - near - far, tag), (foot + near - far, tag)])
            .counter_clockwise();
    subtract(region, &cutter).into_iter().next()
}

/// Corners this near to a cut are on it, mm.
const NEAR_CUT: f64 = 1.0e-5;

fn is_convex(outline: &Outline) -> bool {
    let edges: Vec<Vector> = outline.segments().map(|(segment, _)| segment.end - segment.start).collect();
    (0..edges.len()).all(|at| {
        let (a, b) = (edges[at], edges[(at + 1) % edges.len()]);
        a.cross(b) >= -PARALLEL * a.length() * b.length()
    })
}

/// Where the tangent lines of two bends on neighbouring edges of one panel cross.
pub(super) fn tangents_meet(one: (&EdgeFrame, f64), two: (&EdgeFrame, f64)) -> Option<Point> {
    meet((one.0.place(0.0, one.1), one.0.along), (two.0.place(0.0, two.1), two.0.along))
}

pub(super) fn meet(one: (Point, Vector), two: (Point, Vector)) -> Option<Point> {
    let turn = one.1.cross(two.1);
    if turn.abs() < PARALLEL {
        return None;
    }
    Some(one.0 + one.1 * ((two.0 - one.0).cross(two.1) / turn))
}

/// Where two flanges meet at a corner, what lies outside both tangent lines belongs to neither: it is cut away.
pub(super) fn cut_corners(
    flat: &mut Flat,
    bend_index: usize,
    tag: Tag,
    notes: &mut Vec<Finding>,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let bend = flat.bends[bend_index].clone();
    let Some(edge) = bend.edge.map(|edge| flat.edges[edge].clone()) else { return Ok(()) };
    let line_at = |edge: &EdgeRecord, v: f64| {
        let frame = EdgeFrame::new(edge.line);
        (frame.place(0.0, v), frame.along)
    };
    let neighbours: Vec<(EdgeRecord, f64)> = flat
        .edges
        .iter()
        .filter(|other| other.panel == edge.panel && !other.bends.is_empty() && other.name != edge.name)
        .filter(|other| {
            other.line.end.distance(edge.line.start) < MODELLING_TOLERANCE
                || other.line.start.distance(edge.line.end) < MODELLING_TOLERANCE
        })
        .filter_map(|other| {
            let deepest = other.bends.iter().map(|&one| flat.bends[one].tangent_at).reduce(f64::min)?;
            Some((other.clone(), deepest))
        })
        .collect();
    for (other, other_tangent) in neighbours {
        if bend.tangent_at > -MODELLING_TOLERANCE || other_tangent > -MODELLING_TOLERANCE {
            continue;
        }
        let out = RUN_OUT;
        let meets = |v1: f64, v2: f64| meet(line_at(&edge, v1), line_at(&other, v2));
        let corners = [
            meets(bend.tangent_at, other_tangent),
            meets(bend.tangent_at, out),
            meets(out, out),
            meets(out, other_tangent),
        ];
        let [Some(a), Some(b), Some(c), Some(d)] = corners else { continue };
        let cutter = Outline::polygon(&[(a, tag), (b, tag), (c, tag), (d, tag)]).counter_clockwise();
        take_from_panel(flat, edge.panel, &cutter, notes, unit, "corner cut")?;
    }
    Ok(())
}

/// A corner between two flanges of one operation.
#[derive(Clone, Copy, Debug)]
pub(super) struct Corner {
    /// Flange whose edge ends at the corner, by its place among the spots; its start when `first_at_end` is false.
    pub first: usize,
    /// The other flange.
    pub second: usize,
    /// Whether the corner is at the end (in the edge's own way) of the first flange.
    pub first_at_end: bool,
    /// Whether it is at the end of the second.
    pub second_at_end: bool,
    /// The two edges are neighbours on one panel.
    pub shared: bool,
    /// The panel turns inward there (a reflex corner).
    pub reflex: bool,
}

/// Corners between the spots of one operation: neighbouring edges of one panel, or edges of different panels whose ends
/// stand together in the folded part.
pub(super) fn find(flat: &Flat, folded: &Folded, spots: &[Spot]) -> Vec<Corner> {
    let mut found = Vec::new();
    for first in 0..spots.len() {
        for second in 0..spots.len() {
            let (one, two) = (&spots[first], &spots[second]);
            if first == second || one.parent != two.parent {
                continue;
            }
            if one.edge.line.end.distance(two.edge.line.start) < MODELLING_TOLERANCE && one.is_full.1 && two.is_full.0 {
                let turn = one.frame.along.cross(two.frame.along);
                if turn.abs() > NO_TURN {
                    let corner = Corner {
                        first,
                        second,
                        first_at_end: true,
                        second_at_end: false,
                        shared: true,
                        reflex: turn < 0.0,
                    };
                    found.push(corner);
                }
            }
        }
    }
    let ends = |spot: &Spot, at_end: bool| {
        let point = spot.frame.place(if at_end { spot.span.1 } else { spot.span.0 }, 0.0);
        folded.apply(spot.parent, point, flat.thickness / 2.0)
    };
    let way = |spot: &Spot| {
        let along = spot.frame.along;
        folded
            .motion(spot.parent)
            .map_or(Vector3::default(), |motion| motion.direction(Vector3::new(along.x, along.y, 0.0)))
    };
    for first in 0..spots.len() {
        for second in first + 1..spots.len() {
            let (one, two) = (&spots[first], &spots[second]);
            if one.parent == two.parent || way(one).cross(way(two)).length() < 0.1 {
                continue;
            }
            let near = 3.0 * (one.sizes.radius + two.sizes.radius + 2.0 * flat.thickness) + 2.0;
            let pairs = [(true, false), (false, true), (true, true), (false, false)];
            let best = pairs
                .into_iter()
                .map(|(a, b)| (ends(one, a).distance(ends(two, b)), a, b))
                .min_by(|x, y| x.0.total_cmp(&y.0));
            if let Some((distance, first_at_end, second_at_end)) = best
                && distance < near
                && (if first_at_end { one.is_full.1 } else { one.is_full.0 })
                && (if second_at_end { two.is_full.1 } else { two.is_full.0 })
            {
                found.push(Corner { first, second, first_at_end, second_at_end, shared: false, reflex: false });
            }
        }
    }
    found
}
