//! Members as closed solids for STEP. A straight member with one plane an end is exact: planes, cylinders, circles and ellipses.
//! Its holes are in it where they lie in flat walls. Bends are exact as well (`bent_body`). Points and copes are closed shells of
//! flat facets, as near as [`FACETS`], without their holes.

use std::collections::HashMap;

use crate::plane::{Point, Segment, Vector};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Mesh, Point3, Surface};

use super::body::{Keep, add_to_mesh};
use super::measure::FrameMade;
use super::member::Member;
use super::solid_bore::{Wall, drill};

/// How near facets are to the round, mm.
pub const FACETS: f64 = 0.1;

/// The solids of a member: one, or the plain bodies side by side that one with cutouts is made of.
pub fn member_solids(member: &Member) -> Vec<Body> {
    if member.has_cutouts() {
        return super::cutout::bodies(member).iter().map(member_solid).collect();
    }
    vec![member_solid(member)]
}

/// A member without cutouts as a solid: exact where it can be, in facets otherwise.
pub fn member_solid(member: &Member) -> Body {
    exact_body(member).unwrap_or_else(|| facets(member))
}

/// Why a member has no exact body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum BodyFault {
    /// A point or a round cope.
    #[error("an end of several planes or a round cope is told in facets")]
    End,
    /// A cut into a bend.
    #[error("a cut that runs into a bend is told in facets")]
    Bend,
}

/// The exact bodies of a member: one, or those side by side that cutouts leave.
///
/// # Errors
/// [`BodyFault`] where one of them is told in facets only.
pub fn member_bodies(member: &Member) -> Result<Vec<Body>, BodyFault> {
    let one = |body: &Member| exact_body(body).ok_or(if body.is_straight() { BodyFault::End } else { BodyFault::Bend });
    if member.has_cutouts() {
        return super::cutout::bodies(member).iter().map(one).collect();
    }
    Ok(vec![one(member)?])
}

fn exact_body(member: &Member) -> Option<Body> {
    if !member.is_straight() {
        return super::bent_body::bent_body(member);
    }
    let plain = member.ends.iter().all(|end| end.planes.len() == 1 && end.copes.is_empty());
    plain.then(|| exact(member))
}

struct Maker<'a> {
    member: &'a Member,
    solid: Body,
}

impl Maker<'_> {
    fn place(&self, at: Point, finish: bool) -> Point3 {
        let t = if finish { self.member.lines[0].length() + self.member.finishes(at) } else { self.member.begins(at) };
        self.member.start.place(at.x, at.y, t)
    }

    /// The curve of a segment of the outline on an end's plane, from its start to its end.
    fn curve(&self, one: &Segment, finish: bool) -> Curve {
        if one.is_line() {
            return Curve::Line;
        }
        let cut = &self.member.ends[usize::from(finish)].planes[0];
        let basis = &self.member.start;
        // t falls by this for each mm of u and v.
        let slope = Vector::new(-cut.normal.x / cut.normal.z, -cut.normal.y / cut.normal.z);
        let centre = self.place(one.centre(), finish);
        let radius = one.radius();
        let normal = basis.turn_out(cut.normal) * cut.normal.z.signum();
        // Counter-clockwise seen along +w is counter-clockwise about the plane's normal on that side.
        let axis = if one.bulge > 0.0 { normal } else { -normal };
        let steep = slope.length();
        if steep < 1e-9 {
            return Curve::Circle { centre, axis, radius };
        }
        let along = slope * (1.0 / steep);
        let major = basis.turn_out(crate::space::Vector3::new(along.x, along.y, steep)).unit();
        Curve::Ellipse { centre, axis, major, long: radius * steep.hypot(1.0), short: radius }
    }
}

fn exact(member: &Member) -> Body {
    let mut maker = Maker { member, solid: Body::default() };
    let basis = member.start;
    let mut ends: [Vec<Vec<(usize, bool)>>; 2] = [Vec::new(), Vec::new()];
    let mut walls = Vec::new();
    for (which, outline) in member.region.outlines().enumerate() {
        let segments: Vec<Segment> = outline.segments().map(|(one, _)| one).collect();
        let count = segments.len();
        let first_corner = maker.solid.corners.len();
        for one in &segments {
            for finish in [false, true] {
                let place = maker.place(one.start, finish);
                maker.solid.corners.push(place);
            }
        }
        let corner = |at: usize, finish: bool| first_corner + 2 * (at % count) + usize::from(finish);
        let first_edge = maker.solid.edges.len();
        // For each segment: its edge at the start, its edge at the finish, the upright at its start.
        for (at, one) in segments.iter().enumerate() {
            for finish in [false, true] {
                let curve = maker.curve(one, finish);
                maker.solid.edges.push(BodyEdge { from: corner(at, finish), to: corner(at + 1, finish), curve });
            }
            maker.solid.edges.push(BodyEdge { from: corner(at, false), to: corner(at, true), curve: Curve::Line });
        }
        let edge = |at: usize, kind: usize| first_edge + 3 * (at % count) + kind;
        let outer = which == 0;
        for (at, one) in segments.iter().enumerate() {
            // Seen from outside an outer wall: along the start's edge, up, back along the finish's edge, down.
            let mut walk =
                vec![(edge(at, 0), true), (edge(at + 1, 2), true), (edge(at, 1), false), (edge(at, 2), false)];
            if !outer {
                walk = walk.into_iter().rev().map(|(edge, ahead)| (edge, !ahead)).collect();
            }
            let way = (one.end - one.start).unit();
            let out = if outer { way.right() } else { way.left() };
            walls.push(Wall { segment: *one, out, face: maker.solid.faces.len() });
            let surface = if one.is_line() {
                Surface::Plane {
                    point: maker.place(one.start, false),
                    normal: basis.u * out.x + basis.v * out.y,
                    across: basis.w,
                }
            } else {
                let centre = one.centre();
                let arm = (one.start - centre).unit();
                Surface::Cylinder {
                    point: basis.place(centre.x, centre.y, 0.0),
                    axis: basis.w,
                    across: basis.u * arm.x + basis.v * arm.y,
                    radius: one.radius(),
                    // A convex corner of the outside has its metal within; of a hole, around.
                    outward: (one.bulge > 0.0) == outer,
                }
            };
            maker.solid.faces.push(BodyFace {
                name: format!("{}.wall", member.name),
                owner: member.name.clone(),
                surface,
                loops: vec![walk],
            });
        }
        let finish: Vec<(usize, bool)> = (0..count).map(|at| (edge(at, 1), true)).collect();
        let start: Vec<(usize, bool)> = (0..count).rev().map(|at| (edge(at, 0), false)).collect();
        let turned = |walk: Vec<(usize, bool)>| -> Vec<(usize, bool)> {
            if outer { walk } else { walk.into_iter().rev().map(|(edge, ahead)| (edge, !ahead)).collect() }
        };
        ends[1].push(turned(finish));
        ends[0].push(turned(start));
    }
    for (finish, loops) in [false, true].into_iter().zip(ends) {
        let normal = basis.turn_out(member.ends[usize::from(finish)].planes[0].normal);
        let level = basis.v - normal * basis.v.dot(normal);
        let across = if level.length() > 0.1 { level.unit() } else { (basis.u - normal * basis.u.dot(normal)).unit() };
        let point = maker.place(member.region.outer.edges[0].start, finish);
        let name = format!("{}.{}", member.name, if finish { "finish" } else { "start" });
        let owner = member.name.clone();
        maker.solid.faces.push(BodyFace { name, owner, surface: Surface::Plane { point, normal, across }, loops });
    }
    drill(member, &walls, &mut maker.solid);
    maker.solid
}

fn facets(member: &Member) -> Body {
    let mut mesh = Mesh::default();
    add_to_mesh(member, &mut mesh, &mut Keep::default());
    from_mesh(&mesh, &member.name)
}

/// A closed mesh as a solid of triangles; points that fall together are one.
pub fn from_mesh(mesh: &Mesh, name: &str) -> Body {
    let mut solid = Body::default();
    let mut known: HashMap<[i64; 3], usize> = HashMap::new();
    let corners: Vec<usize> = mesh
        .points
        .iter()
        .map(|&place| {
            let key = [place.x, place.y, place.z].map(|at| (at * 1e5).round() as i64);
            *known.entry(key).or_insert_with(|| {
                solid.corners.push(place);
                solid.corners.len() - 1
            })
        })
        .collect();
    let mut edges: HashMap<(usize, usize), usize> = HashMap::new();
    for triangle in &mesh.triangles {
        let [a, b, c] = triangle.map(|at| corners[at as usize]);
        if a == b || b == c || c == a {
            continue;
        }
        let [p, q, r] = [a, b, c].map(|at| solid.corners[at]);
        let normal = (q - p).cross(r - p);
        if normal.length() < 1e-10 {
            continue;
        }
        let walk = [(a, b), (b, c), (c, a)]
            .into_iter()
            .map(|(from, to)| {
                let key = (from.min(to), from.max(to));
                let edge = *edges.entry(key).or_insert_with(|| {
                    solid.edges.push(BodyEdge { from: key.0, to: key.1, curve: Curve::Line });
                    solid.edges.len() - 1
                });
                (edge, from < to)
            })
            .collect();
        solid.faces.push(BodyFace {
            name: name.to_string(),
            owner: name.to_string(),
            surface: Surface::Plane { point: p, normal: normal.unit(), across: (q - p).unit() },
            loops: vec![walk],
        });
    }
    solid
}

/// Every member and plate of a frame as a solid, each with its name. Plates that have no solid are left out and named.
pub fn frame_solids(made: &FrameMade) -> (Vec<(String, Body)>, Vec<String>) {
    let mut all: Vec<(String, Body)> = made
        .frame
        .members
        .iter()
        .flat_map(|member| member_solids(member).into_iter().map(|solid| (member.name.clone(), solid)))
        .collect();
    let mut missing = Vec::new();
    for plate in &made.frame.plates {
        match crate::sheet::folded_body(&plate.part.flat) {
            Ok(body) => {
                let own = |name: &str| format!("{}.{name}", plate.name);
                all.push((plate.name.clone(), body.moved(&plate.basis.motion(), own)));
            }
            Err(fault) => missing.push(format!("{}: {fault}", plate.name)),
        }
    }
    (all, missing)
}
