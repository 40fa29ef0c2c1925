//! The body of a member: triangles for the screen, convex cells for clashes. Nothing that is cut is computed from it.

use std::collections::HashMap;

use crate::plane::{Point, Region, Vector, triangulate};
use crate::space::{Box3, HoleField, Mesh, Point3, Vector3};

use super::convex::Convex;
use super::member::{Member, Piece, creases, crossings};
use super::plate::FramePlate;

/// How far a chord may stray from its arc on the screen, mm.
const FINE: f64 = 0.1;

/// How far apart points of a straight side are where the end is coped, mm.
const COPE_STEP: f64 = 1.5;

/// A section's outlines as chords, with what of it can be kept from one member to the next.
struct Rings {
    points: Vec<Point>,
    loops: Vec<Vec<usize>>,
    triangles: Vec<[usize; 3]>,
}

fn rings(region: &Region, lines: &[(Vector, f64)], fine: f64) -> Rings {
    let mut points = Vec::new();
    let mut loops = Vec::new();
    for outline in region.outlines() {
        let from = points.len();
        for (one, _) in outline.segments() {
            let mut run = Vec::new();
            one.flatten(fine, &mut run);
            // A coped end curves along a straight side too.
            if fine < FINE && one.is_line() {
                let steps = (one.length() / COPE_STEP).ceil().max(1.0) as usize;
                run.extend((1..steps).map(|at| one.at(at as f64 / steps as f64)));
            }
            let mut corners = run.clone();
            corners.push(one.end);
            for pair in corners.windows(2) {
                points.push(pair[0]);
                let mut met = Vec::new();
                crossings(&crate::plane::Segment::line(pair[0], pair[1]), lines, &mut met);
                met.sort_by(|a, b| pair[0].distance(*a).total_cmp(&pair[0].distance(*b)));
                points.extend(met);
            }
        }
        loops.push((from..points.len()).collect());
    }
    let mut inner = Vec::new();
    for (way, level) in lines {
        let mut on: Vec<(f64, usize)> = points
            .iter()
            .enumerate()
            .filter(|(_, at)| (way.x * at.x + way.y * at.y - level).abs() < 1e-7)
            .map(|(index, at)| (way.left().x * at.x + way.left().y * at.y, index))
            .collect();
        on.sort_by(|one, two| one.0.total_cmp(&two.0));
        for pair in on.windows(2) {
            let middle = points[pair[0].1].toward(points[pair[1].1], 0.5);
            if pair[1].0 - pair[0].0 > 1e-6 && region.contains(middle) {
                inner.push([pair[0].1, pair[1].1]);
            }
        }
    }
    let found = triangulate(&points, &loops, &inner).or_else(|_| triangulate(&points, &loops, &[]));
    Rings { triangles: found.map(|all| all.corners).unwrap_or_default(), points, loops }
}

/// Keeps the triangles of plain sections, which most members share.
#[derive(Default)]
pub struct Keep {
    plain: HashMap<String, std::rc::Rc<Rings>>,
}

fn rings_of(member: &Member, piece: &Piece, keep: &mut Keep) -> std::rc::Rc<Rings> {
    let mut lines = Vec::new();
    if piece.first {
        lines.extend(creases(&member.ends[0]));
    }
    if piece.last {
        lines.extend(creases(&member.ends[1]));
    }
    let coped = member.ends.iter().any(|end| !end.copes.is_empty());
    if !lines.is_empty() || coped {
        return std::rc::Rc::new(rings(&member.region, &lines, if coped { 0.004 } else { FINE }));
    }
    // A part of a section has another area than the whole.
    let low = member.region.extents().low;
    let key =
        format!("{} {} {:.4} {:.4} {:.4}", member.section.name, member.mirrored, low.x, low.y, member.region.area());
    keep.plain.entry(key).or_insert_with(|| std::rc::Rc::new(rings(&member.region, &[], FINE))).clone()
}

/// Adds a member to a mesh under its own name.
pub fn add_to_mesh(member: &Member, mesh: &mut Mesh, keep: &mut Keep) {
    let owner = mesh.features.len() as u32;
    mesh.features.push(member.name.clone());
    if member.has_cutouts() {
        super::cutout::bodies(member).iter().for_each(|body| add_body(body, owner, mesh, keep));
    } else {
        add_body(member, owner, mesh, keep);
    }
}

/// Adds a member without cutouts under a name that the mesh has.
pub(super) fn add_body(member: &Member, owner: u32, mesh: &mut Mesh, keep: &mut Keep) {
    for piece in member.pieces() {
        let rings = rings_of(member, &piece, keep);
        let base = mesh.points.len() as u32;
        for &at in &rings.points {
            mesh.points.extend(member.fibre(&piece, at));
        }
        let point = |at: usize, upper: bool| base + 2 * at as u32 + u32::from(upper);
        let mut add = |triangle: [u32; 3]| {
            mesh.triangles.push(triangle);
            mesh.owners.push(owner);
        };
        for [a, b, c] in &rings.triangles {
            // Triangles come counter-clockwise from the library; a cap at the start looks back.
            if piece.last {
                add([point(*a, true), point(*b, true), point(*c, true)]);
            }
            if piece.first {
                add([point(*a, false), point(*c, false), point(*b, false)]);
            }
        }
        for (which, ring) in rings.loops.iter().enumerate() {
            for (at, &here) in ring.iter().enumerate() {
                let next = ring[(at + 1) % ring.len()];
                // A hole's wall looks inward.
                let (a, b) = if which == 0 { (here, next) } else { (next, here) };
                add([point(a, false), point(b, false), point(b, true)]);
                add([point(a, false), point(b, true), point(a, true)]);
            }
        }
        for ring in &rings.loops {
            for (at, &here) in ring.iter().enumerate() {
                let (before, next) = (ring[(at + ring.len() - 1) % ring.len()], ring[(at + 1) % ring.len()]);
                if piece.first {
                    mesh.lines.push([point(here, false), point(next, false)]);
                }
                if piece.last {
                    mesh.lines.push([point(here, true), point(next, true)]);
                }
                let (into, out) = (
                    (rings.points[here] - rings.points[before]).unit(),
                    (rings.points[next] - rings.points[here]).unit(),
                );
                if into.cross(out).abs() > 0.55 {
                    mesh.lines.push([point(here, false), point(here, true)]);
                }
            }
        }
    }
}

/// Holes of a member, drawn as rounds on the faces that they open in.
pub fn add_bores(member: &Member, mesh: &mut Mesh) {
    for bore in &member.bores {
        let walls = member.walls(bore);
        let (Some(first), Some(last)) = (walls.first(), walls.last()) else { continue };
        let side = Vector::new(-bore.into.y, bore.into.x);
        let middle = member.region.extents().centre();
        let across = side.x * middle.x + side.y * middle.y + bore.off;
        // Levels run along `into` from the section's own zero.
        let place = |level: f64| {
            let at = side * across + bore.into * level;
            member.start.place(at.x, at.y, bore.along)
        };
        let ring = (0..24)
            .map(|at| {
                let turned = std::f64::consts::TAU * f64::from(at) / 24.0;
                [turned.cos() * bore.diameter / 2.0, turned.sin() * bore.diameter / 2.0]
            })
            .collect();
        let (lower, upper) = (place(first.0), place(if bore.one_wall { first.0 } else { last.1 }));
        mesh.fields.push(HoleField {
            feature: bore.operation.clone(),
            ring,
            along: member.start.w,
            across: member.start.turn_out(Vector3::new(side.x, side.y, 0.0)),
            lower: vec![lower],
            upper: vec![upper],
        });
    }
}

/// A piece of a member for clashes.
pub struct Chunk {
    /// The member.
    pub member: usize,
    /// The part of a member with cutouts that it is.
    body: Option<std::rc::Rc<Member>>,
    piece: Piece,
    /// The box around it.
    pub around: Box3,
    cloud: Vec<Point3>,
    axes: Vec<Vector3>,
}

/// Every member's pieces.
pub fn chunks(members: &[Member], keep: &mut Keep) -> Vec<Chunk> {
    let mut all = Vec::new();
    let parts = members.iter().enumerate().flat_map(|(index, member)| -> Vec<(usize, Option<std::rc::Rc<Member>>)> {
        if member.has_cutouts() {
            super::cutout::bodies(member).iter().map(|body| (index, Some(std::rc::Rc::new(body.clone())))).collect()
        } else {
            vec![(index, None)]
        }
    });
    for (index, body) in parts {
        let member = body.as_deref().unwrap_or(&members[index]);
        for piece in member.pieces() {
            let rings = rings_of(member, &piece, keep);
            let mut around = Box3::EMPTY;
            let mut cloud = Vec::new();
            for &at in rings.loops.first().into_iter().flatten() {
                let point = rings.points[at];
                for place in member.fibre(&piece, point) {
                    around.hold(place);
                    cloud.push(place);
                }
            }
            let basis = &piece.from;
            let mut axes = vec![basis.u, basis.v];
            for (finish, own) in [(false, piece.first), (true, piece.last)] {
                if own {
                    let frame = member.basis(finish);
                    axes.extend(member.ends[usize::from(finish)].planes.iter().map(|cut| frame.turn_out(cut.normal)));
                }
            }
            all.push(Chunk { body: body.clone(), member: index, piece, around, cloud, axes });
        }
    }
    all
}

impl Chunk {
    /// Whether a direction parts two pieces to within `skin` mm.
    pub fn is_parted(&self, other: &Chunk, skin: f64) -> bool {
        let shadow = |cloud: &[Point3], way: Vector3| {
            cloud.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), place| {
                let at = place.from_origin().dot(way);
                (low.min(at), high.max(at))
            })
        };
        let parts = |way: Vector3| {
            if way.length() < 1e-9 {
                return false;
            }
            let way = way.unit();
            let ((a, b), (c, d)) = (shadow(&self.cloud, way), shadow(&other.cloud, way));
            (b - c).min(d - a) <= skin
        };
        let both = self.way().cross(other.way());
        self.axes.iter().chain(&other.axes).any(|&way| parts(way)) || parts(both)
    }

    fn way(&self) -> Vector3 {
        (self.piece.to.origin - self.piece.from.origin).unit()
    }

    /// Convex cells that make up its metal.
    pub fn cells(&self, member: &Member, keep: &mut Keep) -> Vec<(Box3, Convex)> {
        let member = self.body.as_deref().unwrap_or(member);
        let rings = rings_of(member, &self.piece, keep);
        let mut cells = Vec::new();
        let place = |at: Point, upper: bool| member.fibre(&self.piece, at)[usize::from(upper)];
        let mut add = |corners: &[Point]| {
            let lower: Vec<Point3> = corners.iter().map(|&at| place(at, false)).collect();
            let upper: Vec<Point3> = corners.iter().map(|&at| place(at, true)).collect();
            let body = Convex::between(&lower, &upper);
            let mut around = Box3::EMPTY;
            lower.iter().chain(&upper).for_each(|&corner| around.hold(corner));
            cells.push((around, body));
        };
        let plain = member.ends.iter().all(|end| end.planes.len() <= 1 && end.copes.is_empty());
        let even = rings.loops.len() == 2 && rings.loops[0].len() == rings.loops[1].len();
        if plain && even {
            // A tube: a cell between each pair of chords. Rings of standard sections start at matching corners.
            let (outer, inner) = (&rings.loops[0], &rings.loops[1]);
            for at in 0..outer.len() {
                let next = (at + 1) % outer.len();
                add(&[inner[at], outer[at], outer[next], inner[next]].map(|index| rings.points[index]));
            }
        } else {
            for triangle in &rings.triangles {
                add(&triangle.map(|index| rings.points[index]));
            }
        }
        cells
    }
}

/// What a plate runs into.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum PlateMeets {
    /// A member, by index.
    Member(usize),
    /// Another plate, by index.
    Plate(usize),
}

/// A plate and a member or another plate that share space.
#[derive(Clone, Debug, PartialEq)]
pub struct PlateClash {
    /// The plate, by index.
    pub plate: usize,
    /// What it runs into.
    pub other: PlateMeets,
    /// Volume that both fill, mm3.
    pub volume: f64,
    /// A place in it.
    pub place: Point3,
}

/// Cells of a plate where it lies: of a flat one its outline with its larger cuts; of a bent one what it is drawn with.
fn plate_cells(plate: &FramePlate) -> Vec<(Box3, Convex)> {
    let part = &plate.part;
    let cell = |lower: [Point3; 3], upper: [Point3; 3]| {
        let mut around = Box3::EMPTY;
        lower.iter().chain(&upper).for_each(|&corner| around.hold(corner));
        (around, Convex::between(&lower, &upper))
    };
    if part.flat.bends.is_empty() {
        let rings = rings(&part.blank.region, &[], FINE);
        let place = |at: usize, t: f64| plate.basis.place(rings.points[at].x, rings.points[at].y, t);
        let both = |triangle: &[usize; 3]| {
            cell(triangle.map(|at| place(at, 0.0)), triangle.map(|at| place(at, plate.thickness)))
        };
        return rings.triangles.iter().map(both).collect();
    }
    // A plate that cannot be folded has said so itself.
    let Ok((_, prisms)) = crate::sheet::folded_mesh(&part.flat, &part.tree, &part.folded, FINE) else {
        return Vec::new();
    };
    let place = |at: Point3| plate.basis.place(at.x, at.y, at.z);
    prisms
        .iter()
        .flatten()
        .map(|prism| {
            let [a, b, c, d, e, f] = prism.corners.map(place);
            cell([a, b, c], [d, e, f])
        })
        .collect()
}

/// Volume that two heaps of cells share, with its weighted place.
fn heaps_share<'a>(
    one: impl Iterator<Item = &'a (Box3, Convex)>,
    two: &[(Box3, Convex)],
    within: &Box3,
) -> (f64, Vector3) {
    let mut found = (0.0, Vector3::default());
    for (near, cell) in one.filter(|(near, _)| near.overlaps(within, SKIN)) {
        for (_, other) in two.iter().filter(|(far, _)| far.overlaps(near, SKIN)) {
            if let (volume, Some(place)) = cell.shared(other) {
                found = (found.0 + volume, found.1 + place.from_origin() * volume);
            }
        }
    }
    found
}

/// Every plate that runs into a member or another plate.
pub fn plate_clashes(members: &[Member], plates: &[FramePlate], keep: &mut Keep) -> Vec<PlateClash> {
    if plates.is_empty() {
        return Vec::new();
    }
    let all = chunks(members, keep);
    let mut cells: HashMap<usize, Vec<(Box3, Convex)>> = HashMap::new();
    let heaps: Vec<Vec<(Box3, Convex)>> = plates.iter().map(plate_cells).collect();
    let wholes: Vec<Box3> = heaps
        .iter()
        .map(|heap| {
            let mut whole = Box3::EMPTY;
            heap.iter().flat_map(|(around, _)| [around.low, around.high]).for_each(|corner| whole.hold(corner));
            whole
        })
        .collect();
    let mut found = Vec::new();
    for (index, plate) in plates.iter().enumerate() {
        let mut shared: HashMap<PlateMeets, (f64, Vector3)> = HashMap::new();
        for (at, chunk) in all.iter().enumerate().filter(|(_, chunk)| chunk.around.overlaps(&wholes[index], SKIN)) {
            let metal = cells.entry(at).or_insert_with(|| chunk.cells(&members[chunk.member], keep));
            let (volume, sum) = heaps_share(heaps[index].iter(), metal, &chunk.around);
            let entry = shared.entry(PlateMeets::Member(chunk.member)).or_default();
            *entry = (entry.0 + volume, entry.1 + sum);
        }
        for other in (0..index).filter(|&other| wholes[other].overlaps(&wholes[index], SKIN)) {
            let both = heaps_share(heaps[index].iter(), &heaps[other], &wholes[other]);
            shared.insert(PlateMeets::Plate(other), both);
        }
        let area = plate.part.blank.region.area();
        for (other, (volume, sum)) in shared {
            // A plate lies on what it is welded to: films of rounding over its face are no clash.
            let film = match other {
                PlateMeets::Member(_) => area,
                PlateMeets::Plate(at) => area.min(plates[at].part.blank.region.area()),
            };
            if volume > LEAST_VOLUME + 0.002 * film {
                let mean = sum * (1.0 / volume);
                found.push(PlateClash { plate: index, other, volume, place: Point3::new(mean.x, mean.y, mean.z) });
            }
        }
    }
    found.sort_by_key(|clash| (clash.plate, clash.other));
    found
}

/// Two members that share space.
#[derive(Clone, Debug, PartialEq)]
pub struct MemberClash {
    /// The members, by index.
    pub members: [usize; 2],
    /// Volume that both fill, mm3.
    pub volume: f64,
    /// A place in it.
    pub place: Point3,
}

/// Less than this shared is touching, mm: chords stand in for arcs.
const SKIN: f64 = 0.02;
/// Less volume than this is not told, mm3: a film of the skin over a large joint.
const LEAST_VOLUME: f64 = 2.0;

/// Two members of which one is coped on the other: its metal lies outside the other's round by construction, and facets of
/// steep walls would only cast doubt on it. For a bent one the round is straight only near the node: those are looked at.
fn are_coped(members: &[Member], one: usize, two: usize) -> bool {
    let coped = |on: usize, to: usize| members[on].ends.iter().flat_map(|end| &end.copes).any(|cope| cope.to == to);
    members[one].is_straight() && members[two].is_straight() && (coped(one, two) || coped(two, one))
}

/// What facets make of a joint that only touches, mm3.
fn least(members: &[Member], [one, two]: &[usize; 2]) -> f64 {
    let any = |at: usize| !members[at].is_straight() || members[at].ends.iter().any(|end| !end.copes.is_empty());
    if any(*one) || any(*two) {
        return LEAST_VOLUME + 0.2 * members[*one].section.area().min(members[*two].section.area());
    }
    LEAST_VOLUME
}

/// Every pair of members that share space.
pub fn clashes(members: &[Member], keep: &mut Keep) -> Vec<MemberClash> {
    let all = chunks(members, keep);
    let mut order: Vec<usize> = (0..all.len()).collect();
    order.sort_by(|&one, &two| all[one].around.low.x.total_cmp(&all[two].around.low.x));
    let mut found: HashMap<[usize; 2], (f64, f64, Vector3)> = HashMap::new();
    let mut cells: HashMap<usize, Vec<(Box3, Convex)>> = HashMap::new();
    for (at, &one) in order.iter().enumerate() {
        for &two in &order[at + 1..] {
            if all[two].around.low.x >= all[one].around.high.x - SKIN {
                break;
            }
            let (a, b) = (&all[one], &all[two]);
            if a.member == b.member
                || !a.around.overlaps(&b.around, SKIN)
                || are_coped(members, a.member, b.member)
                || a.is_parted(b, SKIN)
            {
                continue;
            }
            for chunk in [one, two] {
                if !cells.contains_key(&chunk) {
                    let made = all[chunk].cells(&members[all[chunk].member], keep);
                    cells.insert(chunk, made);
                }
            }
            let key = if a.member < b.member { [a.member, b.member] } else { [b.member, a.member] };
            for (near, cell) in cells[&one].iter().filter(|(near, _)| near.overlaps(&b.around, SKIN)) {
                for (_, other) in cells[&two].iter().filter(|(far, _)| far.overlaps(near, SKIN)) {
                    let (volume, place) = cell.shared(other);
                    if let (true, Some(place)) = (volume > 0.0, place) {
                        let entry = found.entry(key).or_insert((0.0, 0.0, Vector3::default()));
                        entry.0 += volume;
                        entry.1 += volume;
                        entry.2 = entry.2 + place.from_origin() * volume;
                    }
                }
            }
        }
    }
    let mut list: Vec<MemberClash> = found
        .into_iter()
        .filter(|(pair, (volume, ..))| *volume > least(members, pair))
        .map(|(members, (volume, weight, sum))| {
            let mean = sum * (1.0 / weight);
            MemberClash { members, volume, place: Point3::new(mean.x, mean.y, mean.z) }
        })
        .collect();
    list.sort_by_key(|clash| clash.members);
    list
}
