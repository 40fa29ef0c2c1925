//! The faces of a folded part as they are put together: corners by where they go, edges made once, walls under outlines.

use std::collections::{HashMap, HashSet};

use crate::patience;
use crate::plane::{Outline, Point, Segment, Tag, Vector};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING, TRACED};
use crate::sheet::face_names::FaceNames;
use crate::sheet::flat::{Node, NodeKind, Strip};
use crate::sheet::fold::Folded;
use crate::sheet::patch::{Patch, RibPatch};
use crate::sheet::tree::{Side, Tree};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Vector3};
use crate::work::sheet::Direction;

/// Tells curves between the same two corners apart by where they run: their sums of places count this much of a bulge.
const BESIDE_BULGE: f64 = 1e-3;
/// How far to both sides a curve's slope is taken, as a share of it.
const SLOPE_STEP: f64 = 1e-5;

/// A corner by where it lies in the flat, on which face, and where it goes: parts that touch in either are told apart.
type CornerKey = ([i64; 2], bool, [i64; 3]);

pub(super) struct Builder<'a> {
    nodes: &'a [Node],
    pub tree: &'a Tree,
    pub folded: &'a Folded,
    thickness: f64,
    /// Strips of no inside radius, whose inner face is the lower one, the upper one.
    sharp: [Vec<&'a Strip>; 2],
    /// For each of them where its tangent lines are parted.
    sharp_marks: HashMap<usize, Vec<Point>>,
    /// For each strip with ribs where their rims cross its tangent lines.
    rib_marks: HashMap<usize, Vec<Point>>,
    pub solid: Body,
    corners: HashMap<CornerKey, usize>,
    /// Edges by their corners and whether they are straight or bulge to which side.
    edges: HashMap<(usize, usize, i64), usize>,
    /// Outlines that patches stand in place of.
    patched: HashSet<Tag>,
    /// The lower and the upper face of each node, where it has them.
    pub faces: HashMap<(usize, bool), usize>,
    /// What ribs have parted off from those.
    pub parted: HashMap<(usize, bool), Vec<usize>>,
}

/// So many places of the flat come to one corner at the most.
const MOST_PLACES: usize = 200;

/// Corners nearer than this are one, mm.
const GRID: f64 = 1.0e-4;

fn cell(value: f64) -> i64 {
    (value / GRID).round() as i64
}

/// Where the tangent lines of bends of no inside radius are parted. Both are one line of the inner faces: what parts one parts the other.
fn sharp_marks(nodes: &[Node], tree: &Tree) -> HashMap<usize, Vec<Point>> {
    let mut all: HashMap<usize, Vec<Point>> = HashMap::new();
    for joint in &tree.joints {
        let Some(strip) = nodes[joint.strip].strip().filter(|strip| strip.radius < ROUNDING) else { continue };
        let marks = all.entry(joint.strip).or_default();
        for node in [joint.neighbour, joint.strip] {
            let corners = nodes[node].region.outlines().flat_map(|outline| outline.edges.iter());
            for (u, v) in corners.map(|edge| strip.local(edge.start)) {
                if v.abs() < TRACED || (v - strip.width).abs() < TRACED {
                    marks.extend([strip.place(u, 0.0), strip.place(u, strip.width)]);
                }
            }
        }
    }
    all
}

/// What a body is made of: nodes, how they hang together, and where they have gone.
pub(super) struct Given<'a> {
    pub nodes: &'a [Node],
    pub tree: &'a Tree,
    pub folded: &'a Folded,
    /// Of the sheet, mm.
    pub thickness: f64,
}

impl<'a> Builder<'a> {
    /// `patched` are the outlines that patches stand in place of; `ribs` come with their strips.
    pub fn new<'b>(
        Given { nodes, tree, folded, thickness }: Given<'a>,
        patched: HashSet<Tag>,
        ribs: impl Iterator<Item = (usize, &'b RibPatch)>,
    ) -> Builder<'a> {
        let mut rib_marks: HashMap<usize, Vec<Point>> = HashMap::new();
        for (strip, rib) in ribs {
            let own = rib.rims.iter().flat_map(|rim| rim.crossings.iter().flatten().map(|(_, place)| *place));
            rib_marks.entry(strip).or_default().extend(own);
        }
        Builder {
            nodes,
            tree,
            folded,
            thickness,
            sharp: [false, true].map(|top| {
                let strips = nodes.iter().filter_map(Node::strip);
                strips.filter(|strip| strip.radius < ROUNDING && (strip.direction == Direction::Up) == top).collect()
            }),
            sharp_marks: sharp_marks(nodes, tree),
            rib_marks,
            solid: Body::default(),
            corners: HashMap::new(),
            edges: HashMap::new(),
            patched,
            faces: HashMap::new(),
            parted: HashMap::new(),
        }
    }
}

impl Builder<'_> {
    fn height(&self, top: bool) -> f64 {
        if top { self.thickness } else { 0.0 }
    }

    fn fold(&self, node: usize, point: Point, top: bool) -> Point3 {
        self.folded.apply(node, point, self.height(top))
    }

    /// The corner where a point of a node's outline goes. On a bend of no inside radius both tangent lines come to one.
    pub fn corner(&mut self, node: usize, point: Point, top: bool) -> usize {
        let place = self.fold(node, point, top);
        let flat = self.one_of(point, top);
        let values = [flat.x, flat.y, place.x, place.y, place.z];
        let base = values.map(cell);
        // What lies on a border between two cells may have been put into either.
        let other = values.map(|value| {
            let off = value / GRID - (value / GRID).round();
            if off.abs() > 0.45 { off.signum() as i64 } else { 0 }
        });
        let key = |mask: usize| {
            let of = |digit: usize| base[digit] + if mask >> digit & 1 == 1 { other[digit] } else { 0 };
            ([of(0), of(1)], top, [of(2), of(3), of(4)])
        };
        for mask in 0..32usize {
            if (0..5).any(|digit| mask >> digit & 1 == 1 && other[digit] == 0) {
                continue;
            }
            if let Some(&known) = self.corners.get(&key(mask)) {
                return known;
            }
        }
        self.solid.corners.push(place);
        let at = self.solid.corners.len() - 1;
        self.corners.insert(key(0), at);
        at
    }

    /// Of the places of the flat that come to one corner over bends of no inside radius, always the same one. Where two such bends meet in
    /// a corner of a panel, that corner goes over both.
    fn one_of(&self, point: Point, top: bool) -> Point {
        let mut all = vec![point];
        let mut next = 0;
        while next < all.len() && all.len() < MOST_PLACES {
            let here = all[next];
            next += 1;
            for strip in &self.sharp[usize::from(top)] {
                let (u, v) = strip.local(here);
                if u < -TRACED || u > strip.length + TRACED {
                    continue;
                }
                let (near, far) = (v.abs(), (v - strip.width).abs());
                if near.min(far) > TRACED {
                    continue;
                }
                // Of a fold by a hair both lines are near.
                let over = strip.place(u, if near < far { strip.width } else { 0.0 });
                if all.iter().all(|known| known.distance(over) > MODELLING_TOLERANCE) {
                    all.push(over);
                }
            }
        }
        // Rounding does not choose between two that lie level.
        let level = |one: Point, two: Point| (one.x - two.x).abs() < MODELLING_TOLERANCE;
        let before = |one: Point, two: Point| if level(one, two) { one.y < two.y } else { one.x < two.x };
        all.into_iter().reduce(|best, next| if before(next, best) { next } else { best }).unwrap_or(point)
    }

    /// The edge between two corners, made when it is new; with whether it is walked from its start.
    fn edge(&mut self, from: usize, to: usize, kind: i64, curve: impl FnOnce() -> Curve) -> (usize, bool) {
        if let Some(&known) = self.edges.get(&(from, to, kind)) {
            return (known, true);
        }
        if let Some(&known) = self.edges.get(&(to, from, -kind)) {
            return (known, false);
        }
        self.solid.edges.push(BodyEdge { from, to, curve: curve() });
        let at = self.solid.edges.len() - 1;
        self.edges.insert((from, to, kind), at);
        (at, true)
    }

    pub fn node(&mut self, at: usize, names: &FaceNames<'_>) {
        let region = self.nodes[at].region.clone();
        let is_patched = |hole: &&Outline| hole.edges.first().is_some_and(|edge| self.patched.contains(&edge.tag));
        let holes = region.holes.iter().filter(|hole| !is_patched(hole));
        let rings: Vec<Vec<(Segment, u32)>> = std::iter::once(region.outer.segments().collect())
            .chain(holes.map(|hole| hole.reversed().segments().collect()))
            .map(|ring: Vec<(Segment, u32)>| self.split_at_joints(at, ring))
            .collect();
        let is_sharp = |top: bool| {
            self.nodes[at]
                .strip()
                .is_some_and(|strip| strip.radius < ROUNDING && (strip.direction == Direction::Up) == top)
        };
        let sharp = [is_sharp(false), is_sharp(true)];
        let mut loops = [Vec::new(), Vec::new()];
        for ring in &rings {
            let mut walks: [Vec<(usize, bool)>; 2] = [Vec::new(), Vec::new()];
            for (segment, tag) in ring {
                let low = self.outline_edge(at, segment, false);
                let high = self.outline_edge(at, segment, true);
                walks[0].extend(low);
                walks[1].extend(high);
                if !self.joined(at, segment) {
                    self.wall(at, segment, low, high, names.wall(&self.nodes[at], segment, *tag));
                }
            }
            // The lower face is seen from below: its loops run the other way.
            walks[0].reverse();
            walks[0].iter_mut().for_each(|(_, ahead)| *ahead = !*ahead);
            let [low, high] = walks;
            loops[0].push(low);
            loops[1].push(high);
        }
        for (which, own) in loops.into_iter().enumerate() {
            patience::check();
            let top = which == 1;
            // A bend of no inside radius has no inner face.
            if sharp[which] {
                continue;
            }
            let surface = self.face_surface(at, top);
            let owner = self.nodes[at].name.clone();
            let name = FaceNames::face(&self.nodes[at], top);
            self.faces.insert((at, top), self.solid.faces.len());
            self.solid.faces.push(BodyFace { name, owner, surface, loops: own });
        }
    }

    /// Puts a patch into a panel: its faces where the panel lies, its openings into the panel's faces.
    pub fn patch(&mut self, patch: &Patch, node: usize) {
        let Some(motion) = self.folded.motion(node) else { return };
        let first = self.solid.edges.len();
        self.solid.take_in(patch.body.moved(motion, str::to_string));
        for (top, openings) in [false, true].into_iter().zip(&patch.openings) {
            let Some(&face) = self.faces.get(&(node, top)) else { continue };
            let own = openings.iter().map(|walk| walk.iter().map(|&(edge, ahead)| (edge + first, ahead)).collect());
            self.solid.faces[face].loops.extend(own);
        }
    }

    fn face_surface(&self, at: usize, top: bool) -> Surface {
        let start = self.nodes[at].region.outer.edges[0].start;
        match &self.nodes[at].kind {
            NodeKind::Panel => {
                let up = Vector3::new(0.0, 0.0, 1.0);
                let motion = self.folded.motion(at);
                let turn = |v: Vector3| motion.map_or(v, |motion| motion.direction(v));
                Surface::Plane {
                    point: self.fold(at, start, top),
                    normal: turn(if top { up } else { -up }),
                    across: turn(Vector3::new(1.0, 0.0, 0.0)),
                }
            }
            NodeKind::Strip(strip) => {
                let (axis_point, axis) = self.bend_axis(at, strip);
                let foot = self.fold(at, strip.place(0.0, 0.0), top);
                let across = (foot - axis_point).unit();
                let radius = self.arm(strip, top);
                // Inside a bend up is its upper face, which looks at the axis.
                let outward = (strip.direction == Direction::Up) != top;
                Surface::Cylinder { point: axis_point, axis, across, radius, outward }
            }
        }
    }

    /// Radius of a strip's face.
    fn arm(&self, strip: &Strip, top: bool) -> f64 {
        if (strip.direction == Direction::Up) == top { strip.radius } else { strip.radius + self.thickness }
    }

    /// A point on a bend's axis, at the strip's start, and the axis.
    fn bend_axis(&self, at: usize, strip: &Strip) -> (Point3, Vector3) {
        let height = match strip.direction {
            Direction::Up => self.thickness + strip.radius,
            Direction::Down => -strip.radius,
        };
        let on = |u: f64| self.folded.in_strip(at, u, 0.0, height).unwrap_or_default();
        (on(0.0), (on(1.0) - on(0.0)).unit())
    }

    /// Splits segments on tangent lines where the neighbour has a corner.
    fn split_at_joints(&self, at: usize, ring: Vec<(Segment, u32)>) -> Vec<(Segment, u32)> {
        let mut marks: Vec<Point> = Vec::new();
        for joint in self.tree.joints.iter().filter(|joint| joint.strip == at || joint.neighbour == at) {
            let other = if joint.strip == at { joint.neighbour } else { joint.strip };
            let Some(strip) = self.nodes[joint.strip].strip() else { continue };
            let line = if joint.side == Side::First { 0.0 } else { strip.width };
            let corners = self.nodes[other].region.outlines().flat_map(|outline| outline.edges.iter());
            marks.extend(corners.map(|edge| edge.start).filter(|point| (strip.local(*point).1 - line).abs() < TRACED));
            marks.extend(self.sharp_marks.get(&joint.strip).into_iter().flatten());
            let crossed = self.rib_marks.get(&joint.strip).into_iter().flatten();
            marks.extend(crossed.filter(|point| (strip.local(**point).1 - line).abs() < TRACED));
        }
        let mut all = Vec::new();
        for (segment, tag) in ring {
            if !segment.is_line() {
                all.push((segment, tag));
                continue;
            }
            let length = segment.length();
            let along = (segment.end - segment.start).unit();
            let mut cuts: Vec<f64> = marks
                .iter()
                .filter(|point| along.cross(**point - segment.start).abs() < TRACED)
                .map(|point| along.dot(*point - segment.start))
                .filter(|&s| s > GRID && s < length - GRID)
                .collect();
            cuts.sort_by(f64::total_cmp);
            cuts.dedup_by(|next, known| *next - *known < GRID);
            let mut from = segment.start;
            for s in cuts {
                let to = segment.start + along * s;
                all.push((Segment::line(from, to), tag));
                from = to;
            }
            all.push((Segment::line(from, segment.end), tag));
        }
        all
    }

    /// Whether a segment lies along a joint, so that no wall stands there.
    fn joined(&self, at: usize, segment: &Segment) -> bool {
        let middle = segment.at(0.5);
        segment.is_line()
            && self.tree.joints.iter().any(|joint| {
                if joint.strip != at && joint.neighbour != at {
                    return false;
                }
                let other = if joint.strip == at { joint.neighbour } else { joint.strip };
                let Some(strip) = self.nodes[joint.strip].strip() else { return false };
                let line = if joint.side == Side::First { 0.0 } else { strip.width };
                let on = |point: Point| (strip.local(point).1 - line).abs() < TRACED;
                on(segment.start)
                    && on(segment.end)
                    && self.nodes[other].region.outlines().any(|outline| {
                        outline.segments().any(|(theirs, _)| {
                            theirs.is_line()
                                && on(theirs.start)
                                && on(theirs.end)
                                && theirs.distance_to(middle) < TRACED
                        })
                    })
            })
    }

    /// The edge of a segment on one face; `None` where it shrinks to a point.
    fn outline_edge(&mut self, at: usize, segment: &Segment, top: bool) -> Option<(usize, bool)> {
        let (from, to) = (self.corner(at, segment.start, top), self.corner(at, segment.end, top));
        if from == to {
            return None;
        }
        let (kind, curve) = self.curve_of(at, segment, top);
        Some(self.edge(from, to, kind, || curve))
    }

    /// The folded curve of a segment on one face, and a number that tells it from others between the same corners.
    fn curve_of(&self, at: usize, segment: &Segment, top: bool) -> (i64, Curve) {
        let place = |point: Point| self.fold(at, point, top);
        let bulge = |value: f64| (value * 1e3).round() as i64;
        match &self.nodes[at].kind {
            NodeKind::Panel if segment.is_line() => (0, Curve::Line),
            NodeKind::Panel => {
                let up = self
                    .folded
                    .motion(at)
                    .map_or(Vector3::new(0.0, 0.0, 1.0), |motion| motion.direction(Vector3::new(0.0, 0.0, 1.0)));
                let axis = if segment.bulge > 0.0 { up } else { -up };
                (
                    bulge(segment.bulge),
                    Curve::Circle { centre: place(segment.centre()), axis, radius: segment.radius() },
                )
            }
            NodeKind::Strip(strip) => {
                let (a, b) = (strip.local(segment.start), strip.local(segment.end));
                if segment.is_line() && (a.1 - b.1).abs() < MODELLING_TOLERANCE {
                    return (0, Curve::Line);
                }
                if segment.is_line() && (a.0 - b.0).abs() < MODELLING_TOLERANCE {
                    let (point, axis) = self.bend_axis(at, strip);
                    let centre = point + axis * a.0;
                    let radius = self.arm(strip, top);
                    // Which way it turns, from its own points.
                    let (one, two) = (place(segment.start) - centre, place(segment.at(0.5)) - centre);
                    let sign = if one.cross(two).dot(axis) >= 0.0 { 1.0 } else { -1.0 };
                    return (sign as i64 * 7, Curve::Circle { centre, axis: axis * sign, radius });
                }
                (bulge(1.0 + (a.0 + b.0) * BESIDE_BULGE), Curve::Cubic(self.cubic(at, segment, top)))
            }
        }
    }

    /// A folded segment in cubic pieces: Hermite pieces on its own points and slopes, so fine that nothing is seen of it.
    fn cubic(&self, at: usize, segment: &Segment, top: bool) -> Vec<Point3> {
        let place = |share: f64| self.fold(at, segment.at(share), top);
        let angle = self.nodes[at].strip().map_or(0.0, |strip| {
            (strip.local(segment.end).1 - strip.local(segment.start).1).abs() / strip.width * strip.angle
        });
        let pieces = ((angle + segment.sweep().abs()) / 0.05).ceil().clamp(4.0, 400.0) as usize;
        let slope = |share: f64| {
            let step = SLOPE_STEP;
            let (low, high) = ((share - step).max(0.0), (share + step).min(1.0));
            (place(high) - place(low)) * (1.0 / (high - low))
        };
        let mut points = vec![place(0.0)];
        for piece in 0..pieces {
            let (from, to) = (piece as f64 / pieces as f64, (piece + 1) as f64 / pieces as f64);
            let third = (to - from) / 3.0;
            points.push(place(from) + slope(from) * third);
            points.push(place(to) + slope(to) * -third);
            points.push(place(to));
        }
        points
    }

    /// The wall under a segment of an outline.
    fn wall(
        &mut self,
        at: usize,
        segment: &Segment,
        low: Option<(usize, bool)>,
        high: Option<(usize, bool)>,
        name: String,
    ) {
        let corner =
            |builder: &mut Self, point: Point| (builder.corner(at, point, false), builder.corner(at, point, true));
        let (a_low, a_high) = corner(self, segment.start);
        let (b_low, b_high) = corner(self, segment.end);
        let rise_b = self.edge(b_low, b_high, 0, || Curve::Line);
        let rise_a = self.edge(a_low, a_high, 0, || Curve::Line);
        let mut walk = Vec::new();
        walk.extend(low);
        walk.push(rise_b);
        walk.extend(high.map(|(edge, ahead)| (edge, !ahead)));
        walk.push((rise_a.0, !rise_a.1));
        let surface = self.wall_surface(at, segment);
        let owner = self.nodes[at].name.clone();
        self.solid.faces.push(BodyFace { name, owner, surface, loops: vec![walk] });
    }

    fn wall_surface(&self, at: usize, segment: &Segment) -> Surface {
        let place = |share: f64, top: bool| self.fold(at, segment.at(share), top);
        let (start, up_to) = (place(0.0, false), place(0.0, true));
        let up = (up_to - start).unit();
        let plane = |along: Vector3| {
            // Material lies to the left of the way: the wall looks to the right.
            let normal = along.cross(up).unit();
            Surface::Plane { point: start, normal, across: up }
        };
        match &self.nodes[at].kind {
            NodeKind::Panel if segment.is_line() => plane((place(1.0, false) - start).unit()),
            NodeKind::Panel => {
                let centre = self.fold(at, segment.centre(), false);
                Surface::Cylinder {
                    point: centre,
                    axis: up,
                    across: (start - centre).unit(),
                    radius: segment.radius(),
                    outward: segment.bulge > 0.0,
                }
            }
            NodeKind::Strip(strip) => {
                let (a, b) = (strip.local(segment.start), strip.local(segment.end));
                if segment.is_line() && (a.0 - b.0).abs() < MODELLING_TOLERANCE {
                    // Square to the bend: a plane square to its axis, looking the way that the flat's right lies.
                    let (_, axis) = self.bend_axis(at, strip);
                    let right: Vector = (segment.end - segment.start).unit().right();
                    let sign = if right.dot(strip.along) >= 0.0 { 1.0 } else { -1.0 };
                    return Surface::Plane { point: start, normal: axis * sign, across: up };
                }
                if segment.is_line() && (a.1 - b.1).abs() < MODELLING_TOLERANCE {
                    return plane((place(1.0, false) - start).unit());
                }
                Surface::Ruled {
                    first: self.cubic(at, segment, false),
                    second: self.cubic(at, segment, true),
                    outward: true,
                }
            }
        }
    }
}
