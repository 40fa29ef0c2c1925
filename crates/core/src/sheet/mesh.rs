//! The folded solid as triangles: every node is cut into triangles in the flat, both faces are folded, and the edges
//! between are walled. Nodes share their points along tangent lines, so the mesh is closed by construction.

use std::collections::{HashMap, HashSet};

use crate::patience;
use crate::plane::{Outline, Point, Segment, Tag, TriangulateError, Vector, triangulate};
use crate::quantity::tolerance::{LEVEL, MODELLING_TOLERANCE, TRACED};
use crate::space::{Facets, HoleField, Mesh, Prism};
use crate::work::sheet::{Direction, Face};

use super::body::body_to_ask;
use super::face_names::FaceNames;
use super::flat::{Flat, NodeKind};
use super::fold::Folded;
use super::patch::{Patch, fitting};
use super::tree::{Joint, Side, Tree};

/// Why a part has no mesh.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum MeshError {
    /// A node could not be cut into triangles.
    #[error("{name} cannot be drawn: {fault}")]
    Node {
        /// Its name.
        name: String,
        /// Why.
        fault: TriangulateError,
    },
}

/// How much finer chords are laid where coarse ones cross.
const FINER: f64 = 8.0;

/// One node's triangles in the flat, with what bounds them.
struct Facet {
    points: Vec<Point>,
    corners: Vec<[usize; 3]>,
    /// Where patches open its faces, the triangles of the lower and the upper one: what is past the node's own points is a place of
    /// that face's openings, in their order.
    faces: Option<[Vec<[usize; 3]>; 2]>,
    /// Boundary pieces: from, to, and which of the walls' names.
    walls: Vec<(usize, usize, u32)>,
}

/// A patch in triangles, and the flat's places round its openings in the lower and the upper face.
struct Patched {
    patch: Patch,
    facets: Facets,
    rings: [Vec<Vec<Point>>; 2],
}

impl Patched {
    /// Those of a part that have faces and can be drawn; those of perforations are drawn as copies.
    fn all(flat: &Flat, tolerance: f64, left_closed: &HashSet<u32>) -> Vec<Patched> {
        let single = |patch: &Patch| patch.replaces.is_none_or(|tag| !left_closed.contains(&tag));
        let own = fitting(flat).into_iter().filter(single).filter_map(|patch| {
            patience::check();
            let facets = patch.body.facets(tolerance).ok()?;
            let place = |at: &u32| {
                let point = facets.points[*at as usize];
                Point::new(point.x, point.y)
            };
            let rings = patch
                .openings
                .each_ref()
                .map(|openings| openings.iter().map(|walk| facets.rim(walk).iter().map(place).collect()).collect());
            Some(Patched { patch, facets, rings })
        });
        own.collect()
    }
}

/// The folded mesh, and each node's prisms for clash checks. `tolerance` mm is how far a chord may stray from its arc,
/// in the flat and round a bend.
///
/// # Errors
/// [`MeshError`] when a node's outline crosses itself.
pub fn folded_mesh(
    flat: &Flat,
    tree: &Tree,
    folded: &Folded,
    tolerance: f64,
) -> Result<(Mesh, Vec<Vec<Prism>>), MeshError> {
    let fields = flat.fields();
    let left_closed: HashSet<u32> =
        fields.iter().flat_map(|(.., holes)| holes.iter().map(|&at| flat.holes[at].tag)).collect();
    let patched = Patched::all(flat, tolerance, &left_closed);
    // Chords may cross where metal is thinner than they stray: finer ones do not.
    let (facets, walls) = facets(flat, tree, tolerance, (&left_closed, &patched))
        .or_else(|_| facets(flat, tree, tolerance / FINER, (&left_closed, &patched)))
        .or_else(|_| facets(flat, tree, tolerance / FINER.powi(2), (&left_closed, &patched)))?;
    let mut mesh =
        Mesh { fields: fields.into_iter().map(|field| hole_field(flat, folded, field)).collect(), ..Mesh::default() };
    let mut prisms = vec![Vec::new(); flat.nodes.len()];
    let mut features: HashMap<String, u32> = HashMap::new();
    let mut feature = |mesh: &mut Mesh, name: String| {
        *features.entry(name.clone()).or_insert_with(|| {
            mesh.features.push(name);
            (mesh.features.len() - 1) as u32
        })
    };
    // Points on a joint are shared with whichever neighbour was placed first.
    let mut shared: Vec<HashMap<(u64, u64), [u32; 2]>> = vec![HashMap::new(); flat.nodes.len()];
    for &at in &tree.order {
        patience::check();
        let facet = &facets[at];
        let node = &flat.nodes[at];
        let own_joints: Vec<&Joint> =
            tree.joints.iter().filter(|joint| joint.strip == at || joint.neighbour == at).collect();
        let neighbours: Vec<usize> =
            own_joints.iter().map(|joint| if joint.strip == at { joint.neighbour } else { joint.strip }).collect();
        let mut place: Vec<[u32; 2]> = Vec::with_capacity(facet.points.len());
        for &point in &facet.points {
            let known = neighbours.iter().find_map(|&other| shared[other].get(&bits(point)).copied());
            let pair = known.unwrap_or_else(|| {
                let first = mesh.points.len() as u32;
                mesh.points.push(folded.apply(at, point, 0.0));
                mesh.points.push(folded.apply(at, point, flat.thickness));
                [first, first + 1]
            });
            place.push(pair);
        }
        for (&point, &pair) in facet.points.iter().zip(&place) {
            if own_joints.iter().any(|joint| on_joint(flat, joint, point)) {
                shared[at].insert(bits(point), pair);
            }
        }
        let [lower, upper] = [false, true].map(|top| feature(&mut mesh, FaceNames::face(node, top)));
        let openings = patches_of(at, &patched, folded, &mut mesh, &mut feature);
        for corners in &facet.corners {
            let [a, b, c] = corners.map(|corner| place[corner]);
            if facet.faces.is_none() {
                mesh.triangles.push([a[1], b[1], c[1]]);
                mesh.owners.push(upper);
                mesh.triangles.push([a[0], c[0], b[0]]);
                mesh.owners.push(lower);
            }
            let point = |pair: [u32; 2], face: usize| mesh.points[pair[face] as usize];
            prisms[at].push(Prism::new([point(a, 0), point(b, 0), point(c, 0), point(a, 1), point(b, 1), point(c, 1)]));
        }
        for (side, own) in facet.faces.iter().flatten().enumerate() {
            let at = |corner: usize| match corner.checked_sub(place.len()) {
                None => place[corner][side],
                Some(past) => openings[side][past],
            };
            mesh.owners.resize(mesh.owners.len() + own.len(), if side == 1 { upper } else { lower });
            mesh.triangles.extend(own.iter().map(|&[a, b, c]| match side {
                1 => [at(a), at(b), at(c)],
                _ => [at(a), at(c), at(b)],
            }));
        }
        for &(from, to, name) in &facet.walls {
            let owner = feature(&mut mesh, walls[name as usize].clone());
            let (a, b) = (place[from], place[to]);
            mesh.triangles.push([a[0], b[0], b[1]]);
            mesh.owners.push(owner);
            mesh.triangles.push([a[0], b[1], a[1]]);
            mesh.owners.push(owner);
            mesh.lines.push([a[0], b[0]]);
            mesh.lines.push([a[1], b[1]]);
        }
        mesh.lines.extend(facet.sharp_corners().map(|corner| place[corner]));
    }
    let drawn: HashSet<&str> = patched.iter().map(|one| one.patch.of.as_str()).collect();
    scribe(flat, folded, &drawn, &mut mesh, tolerance);
    Ok((with_ribs(flat, folded, mesh, tolerance), prisms))
}

/// The mesh of a part with ribs: of the faces of its solid once it is folded, which alone has their rims across panel and bend; before
/// that, or where there is no solid, their footprints are lines.
fn with_ribs(flat: &Flat, folded: &Folded, mut mesh: Mesh, tolerance: f64) -> Mesh {
    if flat.ribs.is_empty() {
        return mesh;
    }
    if folded.fraction >= 1.0
        && let Ok(body) = body_to_ask(flat)
        && let Ok(own) = body.mesh(tolerance, |face| &face.name)
    {
        return own;
    }
    for rib in flat.ribs.iter() {
        let (Some(footprint), Some(strip)) = (rib.footprint(flat), flat.nodes[rib.strip].strip()) else { continue };
        // On the face inside the bend: a part that lies flat is one thickness high.
        let z = if strip.direction == Direction::Up { flat.thickness } else { 0.0 };
        for (piece, _) in footprint.segments() {
            let middle = piece.at(0.5);
            let Some(node) = flat.nodes.iter().position(|node| node.region.contains(middle)) else { continue };
            let first = mesh.points.len() as u32;
            mesh.points.extend([piece.start, piece.end].map(|point| folded.apply(node, point, z)));
            mesh.lines.push([first, first + 1]);
        }
    }
    mesh
}

/// Puts a node's patches into the mesh. Returns the points round their openings in the lower and the upper face.
fn patches_of(
    node: usize,
    patched: &[Patched],
    folded: &Folded,
    mesh: &mut Mesh,
    feature: &mut impl FnMut(&mut Mesh, String) -> u32,
) -> [Vec<u32>; 2] {
    let mut openings = [Vec::new(), Vec::new()];
    let Some(motion) = folded.motion(node) else { return openings };
    for Patched { patch, facets, .. } in patched.iter().filter(|one| one.patch.node == node) {
        let first = mesh.points.len() as u32;
        mesh.points.extend(facets.points.iter().map(|&point| motion.apply(point)));
        let owners: Vec<u32> = patch.body.faces.iter().map(|face| feature(mesh, face.name.clone())).collect();
        mesh.owners.extend(facets.faces.iter().map(|&face| owners[face as usize]));
        mesh.triangles.extend(facets.triangles.iter().map(|corners| corners.map(|corner| corner + first)));
        let shown = patch.body.shown_runs(facets);
        mesh.lines.extend(shown.flat_map(|run| run.windows(2)).map(|pair| [pair[0] + first, pair[1] + first]));
        for (side, own) in patch.openings.iter().enumerate() {
            openings[side].extend(own.iter().flat_map(|walk| facets.rim(walk)).map(|at| at + first));
        }
    }
    openings
}

/// A perforation as copies of its first hole, which all others are alike. A chord of so small an outline may stray
/// further than elsewhere: a fiftieth of its size.
fn hole_field(flat: &Flat, folded: &Folded, (feature, panel, holes): (String, usize, Vec<usize>)) -> HoleField {
    let first = &flat.holes[holes[0]];
    let size = first.extents.width().max(first.extents.height());
    let ring = first.outline.flatten(size / 50.0);
    let at = |point: Point, z: f64| folded.apply(panel, point, z);
    let origin = at(first.centre, 0.0);
    let axis = |by: Vector| (at(first.centre + by, 0.0) - origin).unit();
    HoleField {
        feature,
        ring: ring.iter().map(|&point| [point.x - first.centre.x, point.y - first.centre.y]).collect(),
        along: axis(Vector::new(1.0, 0.0)),
        across: axis(Vector::new(0.0, 1.0)),
        lower: origin,
        upper: at(first.centre, flat.thickness),
        places: holes.iter().map(|&hole| flat.holes[hole].centre - first.centre).map(|away| [away.x, away.y]).collect(),
    }
}

/// Walls that turn less than this are one round wall to the eye, radians (24 deg).
const SHARP: f64 = 0.42;

impl Facet {
    /// Points where two walls meet at a corner, or where a wall ends at a joint.
    fn sharp_corners(&self) -> impl Iterator<Item = usize> + '_ {
        let arriving: HashMap<usize, usize> = self.walls.iter().map(|&(from, to, _)| (to, from)).collect();
        self.walls.iter().filter_map(move |&(from, to, _)| {
            let Some(&before) = arriving.get(&from) else { return Some(from) };
            let (one, two) = (self.points[from] - self.points[before], self.points[to] - self.points[from]);
            (one.cross(two).atan2(one.dot(two)).abs() > SHARP).then_some(from)
        })
    }
}

fn bits(point: Point) -> (u64, u64) {
    ((point.x + 0.0).to_bits(), (point.y + 0.0).to_bits())
}

/// Triangles of every node, with points along joints made the same on both sides; and the names of their walls.
fn facets(
    flat: &Flat,
    tree: &Tree,
    tolerance: f64,
    (left_closed, patched): (&HashSet<u32>, &[Patched]),
) -> Result<(Vec<Facet>, Vec<String>), MeshError> {
    let replaced: HashSet<Tag> = patched.iter().filter_map(|one| one.patch.replaces).collect();
    let names = FaceNames::new(flat);
    let mut walls: Vec<String> = Vec::new();
    let mut rings: Vec<Vec<Ring>> = Vec::new();
    for node in &flat.nodes {
        let mut name = |segment: &Segment, tag| {
            let own = names.wall(node, segment, tag);
            // Stretches of one wall follow each other.
            if walls.last() != Some(&own) {
                walls.push(own);
            }
            (walls.len() - 1) as u32
        };
        rings.push(flatten(&node.region, tolerance, left_closed, &mut name));
    }
    // Where three nodes meet, each has come to the place by its own sums: one of them stands for all, to the bit.
    let mut known = Known::default();
    for point in rings.iter_mut().flatten().flat_map(|ring| ring.points.iter_mut()) {
        *point = known.settle(*point);
    }
    // Slice lines across each strip, so that each slice turns little enough to be straight.
    for (at, node) in flat.nodes.iter().enumerate() {
        patience::check();
        if let NodeKind::Strip(strip) = &node.kind {
            let count = slices(strip.angle, strip.radius + flat.thickness, tolerance);
            for line in 1..count {
                let v = strip.width * line as f64 / count as f64;
                rings[at].iter_mut().for_each(|ring| ring.split_at(|point| strip.local(point).1 - v));
            }
        }
    }
    // Where two nodes join, each takes the other's points on the line, to the bit.
    for joint in &tree.joints {
        weld(&mut rings, joint.strip, joint.neighbour, &|point| on_joint(flat, joint, point));
    }
    let mut facets = Vec::new();
    for (at, node) in flat.nodes.iter().enumerate() {
        patience::check();
        let mut points = Vec::new();
        let mut loops = Vec::new();
        let mut kept = Vec::new();
        let mut around = Vec::new();
        let joined = |from: Point, to: Point| {
            tree.joints.iter().any(|joint| {
                if !on_joint(flat, joint, from) || !on_joint(flat, joint, to) {
                    return false;
                }
                let other = if joint.strip == at {
                    joint.neighbour
                } else if joint.neighbour == at {
                    joint.strip
                } else {
                    return false;
                };
                rings[other].iter().any(|ring| ring.has_edge(to, from))
            })
        };
        for ring in &rings[at] {
            patience::check();
            let first = points.len();
            let count = ring.points.len();
            points.extend(&ring.points);
            loops.push((first..first + count).collect::<Vec<_>>());
            if ring.tag.is_some_and(|tag| replaced.contains(&tag)) {
                continue;
            }
            kept.push(loops.len() - 1);
            for step in 0..count {
                let next = (step + 1) % count;
                if !joined(ring.points[step], ring.points[next]) {
                    around.push((first + step, first + next, ring.walls[step]));
                }
            }
        }
        let inner = slice_edges(flat, at, tolerance, &points, &loops);
        let triangles =
            triangulate(&points, &loops, &inner).map_err(|fault| MeshError::Node { name: node.name.clone(), fault })?;
        let own: Vec<&Patched> = patched.iter().filter(|one| one.patch.node == at).collect();
        let mut faces = None;
        if !own.is_empty() {
            let kept: Vec<Vec<usize>> = kept.into_iter().map(|at| loops[at].clone()).collect();
            let face = |side: usize| {
                // What a patch stands in place of is no point of a face: the openings may have places in common with it.
                let (mut all, mut loops) = (points.clone(), kept.clone());
                let used: HashSet<usize> = kept.iter().flatten().copied().collect();
                let unused = all.iter_mut().enumerate().filter(|(at, _)| !used.contains(at));
                unused.for_each(|(_, point)| *point = Point::new(f64::INFINITY, f64::INFINITY));
                for ring in own.iter().flat_map(|one| &one.rings[side]) {
                    loops.push((all.len()..all.len() + ring.len()).collect());
                    all.extend(ring);
                }
                let found = triangulate(&all, &loops, &[]);
                found.map(|found| found.corners).map_err(|fault| MeshError::Node { name: node.name.clone(), fault })
            };
            faces = Some([face(0)?, face(1)?]);
        }
        facets.push(Facet { points, corners: triangles.corners, faces, walls: around });
    }
    Ok((facets, walls))
}

/// How many slices a bend is drawn in.
fn slices(angle: f64, outer_radius: f64, tolerance: f64) -> usize {
    let step = if tolerance >= outer_radius { 1.0 } else { 2.0 * (1.0 - tolerance / outer_radius).acos() };
    (angle / step.clamp(0.01, 0.3)).ceil().max(1.0) as usize
}

/// Points already seen, by cells of the plane: the first of those that lie together stands for all.
#[derive(Default)]
struct Known(HashMap<(i64, i64), Vec<Point>>);

impl Known {
    /// Nearer than this is the same place, mm.
    const NEAR: f64 = 1e-6;

    fn settle(&mut self, point: Point) -> Point {
        let cell = |value: f64| (value / (16.0 * Known::NEAR)).floor() as i64;
        let (x, y) = (cell(point.x), cell(point.y));
        let near = (-1..=1).flat_map(|dx| (-1..=1).map(move |dy| (x + dx, y + dy)));
        let same = near
            .filter_map(|key| self.0.get(&key))
            .flatten()
            .find(|other| other.distance(point) < Known::NEAR)
            .copied();
        same.unwrap_or_else(|| {
            self.0.entry((x, y)).or_default().push(point);
            point
        })
    }
}

/// A closed ring of points; material on its left; for each edge which of the walls' names.
struct Ring {
    points: Vec<Point>,
    walls: Vec<u32>,
    /// Of an opening the tag of its first edge.
    tag: Option<Tag>,
}

fn flatten(
    region: &crate::plane::Region,
    tolerance: f64,
    left_closed: &HashSet<u32>,
    name: &mut dyn FnMut(&Segment, Tag) -> u32,
) -> Vec<Ring> {
    let mut one = |outline: &crate::plane::Outline| {
        patience::check();
        let (mut points, mut walls) = (Vec::new(), Vec::new());
        for (segment, tag) in outline.segments() {
            segment.flatten(tolerance, &mut points);
            walls.resize(points.len(), name(&segment, tag));
        }
        Ring { points, walls, tag: None }
    };
    let mut rings = vec![one(&region.outer)];
    let open =
        region.holes.iter().filter(|hole| hole.edges.first().is_none_or(|edge| !left_closed.contains(&edge.tag)));
    rings.extend(open.map(|hole| Ring { tag: hole.edges.first().map(|edge| edge.tag), ..one(&hole.reversed()) }));
    rings
}

impl Ring {
    /// Puts a point wherever the ring crosses the zero of `height`.
    fn split_at(&mut self, height: impl Fn(Point) -> f64) {
        let near = LEVEL;
        let (mut points, mut walls) = (Vec::new(), Vec::new());
        for at in 0..self.points.len() {
            let (from, to) = (self.points[at], self.points[(at + 1) % self.points.len()]);
            points.push(from);
            walls.push(self.walls[at]);
            let (low, high) = (height(from), height(to));
            if low.abs() > near && high.abs() > near && (low < 0.0) != (high < 0.0) {
                points.push(from.toward(to, low / (low - high)));
                walls.push(self.walls[at]);
            }
        }
        (self.points, self.walls) = (points, walls);
    }

    /// Puts a point on whichever edge it lies on, or moves the corner it is next to onto it.
    fn take(&mut self, point: Point) {
        let near = TRACED;
        if let Some(corner) = self.points.iter_mut().find(|corner| corner.distance(point) < near) {
            *corner = point;
            return;
        }
        for at in 0..self.points.len() {
            let edge = crate::plane::Segment::line(self.points[at], self.points[(at + 1) % self.points.len()]);
            if edge.distance_to(point) < near {
                self.points.insert(at + 1, point);
                self.walls.insert(at + 1, self.walls[at]);
                return;
            }
        }
    }

    fn has_edge(&self, from: Point, to: Point) -> bool {
        let count = self.points.len();
        (0..count).any(|at| self.points[at] == from && self.points[(at + 1) % count] == to)
    }
}

/// Whether a point lies on the tangent line that a joint is along. Nodes may also touch elsewhere in the flat (a bend's
/// end beside material with no relief); there they are parted.
fn on_joint(flat: &Flat, joint: &Joint, point: Point) -> bool {
    let NodeKind::Strip(strip) = &flat.nodes[joint.strip].kind else { return false };
    let line = if joint.side == Side::First { 0.0 } else { strip.width };
    (strip.local(point).1 - line).abs() < TRACED
}

/// Makes two nodes' points agree wherever one's corner lies on the other's edge along their joint.
fn weld(rings: &mut [Vec<Ring>], one: usize, two: usize, on_line: &dyn Fn(Point) -> bool) {
    for (giver, taker) in [(one, two), (two, one)] {
        let points: Vec<Point> =
            rings[giver].iter().flat_map(|ring| ring.points.iter().copied()).filter(|&point| on_line(point)).collect();
        // Only the outer ring can lie on a tangent line of a part whose holes keep clear of bends; a cut that crosses
        // a bend is part of the outer ring or of its own ring on both sides, so all are tried.
        for ring in &mut rings[taker] {
            let around = ring.points.iter().fold(crate::plane::Box2::EMPTY, |mut around, &point| {
                around.hold(point);
                around
            });
            for &point in &points {
                let spot = crate::plane::Box2 { low: point, high: point };
                if around.is_near(&spot, TRACED) {
                    ring.take(point);
                }
            }
        }
    }
}

/// Rims of blind holes, heads and forms that run into something, as lines on the face that they are worked from: they have no faces.
fn scribe(flat: &Flat, folded: &Folded, drawn: &HashSet<&str>, mesh: &mut Mesh, tolerance: f64) {
    let line = |mesh: &mut Mesh, panel: usize, rim: &Outline, z: f64| {
        let first = mesh.points.len() as u32;
        let ring = rim.flatten(tolerance);
        let count = ring.len() as u32;
        mesh.points.extend(ring.iter().map(|&point| folded.apply(panel, point, z)));
        mesh.lines.extend((0..count).map(|at| [first + at, first + (at + 1) % count]));
    };
    let headed = flat.holes.iter().filter(|hole| !hole.work.profile.is_empty());
    for hole in headed.filter(|hole| !drawn.contains(hole.name.as_str())) {
        // A hair above the face, so that the line is not lost in it.
        let z = match hole.work.face {
            Face::Top => flat.thickness + tolerance,
            Face::Bottom => -tolerance,
        };
        let head = (hole.work.head > 0.0).then(|| Outline::circle(hole.centre, hole.work.head / 2.0, 0));
        let own = (!hole.work.through).then(|| hole.outline.clone());
        own.into_iter().chain(head).for_each(|rim| line(mesh, hole.panel, &rim, z));
    }
    for form in flat.forms.iter().filter(|form| !drawn.contains(form.name.as_str())) {
        line(mesh, form.panel, &form.outline, if form.up { flat.thickness + tolerance } else { -tolerance });
    }
}

/// The pieces of a strip's slice lines that lie in its material, as point pairs.
fn slice_edges(flat: &Flat, at: usize, tolerance: f64, points: &[Point], loops: &[Vec<usize>]) -> Vec<[usize; 2]> {
    let NodeKind::Strip(strip) = &flat.nodes[at].kind else { return Vec::new() };
    let region = &flat.nodes[at].region;
    let count = slices(strip.angle, strip.radius + flat.thickness, tolerance);
    let mut edges = Vec::new();
    for line in 1..count {
        let v = strip.width * line as f64 / count as f64;
        let mut on: Vec<(f64, usize)> = loops
            .iter()
            .flatten()
            .map(|&point| (strip.local(points[point]), point))
            .filter(|((_, across), _)| (across - v).abs() < MODELLING_TOLERANCE)
            .map(|((along, _), point)| (along, point))
            .collect();
        on.sort_by(|one, two| one.0.total_cmp(&two.0));
        for pair in on.windows(2) {
            let middle = strip.place((pair[0].0 + pair[1].0) / 2.0, v);
            if pair[1].0 - pair[0].0 > MODELLING_TOLERANCE && region.contains(middle) {
                edges.push([pair[0].1, pair[1].1]);
            }
        }
    }
    edges
}
