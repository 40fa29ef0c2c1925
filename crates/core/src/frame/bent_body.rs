//! Bent members as exact bodies: every edge of the section carried along straight lines and round arcs. A line carried round is
//! a cylinder, a plane or a cone by how it stands to the bend's axis; an arc is a torus.

use crate::plane::{Point, Segment};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Vector3};

use super::member::{Basis, Member, part_way};
use super::skeleton::Arc;

/// No face goes round further than this, radians.
const WIDEST: f64 = 2.6;
/// Levels nearer than this are one, mm.
const NEAR: f64 = 1e-7;

/// One stretch of a bent member between two frames.
struct Stretch {
    arc: Option<Arc>,
}

/// The body of a member of several lines, or of one that is round, with one plane at each end; `None` where an end's cut runs
/// into a bend, or is no plane.
pub(super) fn bent_body(member: &Member) -> Option<Body> {
    if member.has_cutouts() || member.ends.iter().any(|end| end.planes.len() != 1 || !end.copes.is_empty()) {
        return None;
    }
    // Frames along it, and what lies between each and the next. An end's plane is told in its own frame, along which the
    // metal runs straight: where the line there is an arc, a straight stretch of its own stands between.
    let mut stations: Vec<Basis> = vec![member.start];
    let mut stretches: Vec<Stretch> = Vec::new();
    let mut basis = member.start;
    for line in &member.lines {
        let parts = line.arc.map_or(1, |arc| (arc.sweep / WIDEST).ceil().max(1.0) as usize);
        for part in 1..=parts {
            stations.push(part_way(basis, line, line.length() * part as f64 / parts as f64));
            stretches.push(Stretch { arc: line.arc });
        }
        basis = super::member::along(basis, line);
    }
    for finish in [false, true] {
        let own = if finish { stretches.last()? } else { stretches.first()? };
        let (long, short) = member.reach(finish);
        let square = (long - short).abs() < NEAR && long.abs() < NEAR;
        if own.arc.is_some() && !square {
            // Metal beyond the arc runs on straight; a cut into the arc is not told exactly here.
            let beyond = if finish { short > NEAR } else { short < -NEAR };
            if !beyond {
                return None;
            }
            if finish {
                stations.push(member.finish);
                stretches.push(Stretch { arc: None });
            } else {
                stations.insert(0, member.start);
                stretches.insert(0, Stretch { arc: None });
            }
        } else if own.arc.is_none() {
            // The cut must leave something of the straight line it is made in.
            let line = if finish { member.lines.last()? } else { member.lines.first()? };
            let into = if finish { -short } else { short };
            if into > line.length() - NEAR && member.lines.len() > 1 {
                return None;
            }
        }
    }
    let mut maker = Maker { member, stations, stretches, body: Body::default() };
    maker.make();
    Some(maker.body)
}

struct Maker<'a> {
    member: &'a Member,
    stations: Vec<Basis>,
    stretches: Vec<Stretch>,
    body: Body,
}

impl Maker<'_> {
    /// Where a place of the section is at a station; at the ends on the cut.
    fn place(&self, at: Point, station: usize) -> Point3 {
        let basis = &self.stations[station];
        let t = if station == 0 {
            self.member.begins(at)
        } else if station + 1 == self.stations.len() {
            self.member.finishes(at)
        } else {
            0.0
        };
        basis.place(at.x, at.y, t)
    }

    /// The curve of an edge of the outline at a station, from its start to its end.
    fn across(&self, one: &Segment, station: usize) -> Curve {
        if one.is_line() {
            return Curve::Line;
        }
        let last = self.stations.len() - 1;
        let basis = &self.stations[station];
        let normal = if station == 0 || station == last {
            self.member.ends[usize::from(station == last)].planes[0].normal
        } else {
            Vector3::new(0.0, 0.0, 1.0)
        };
        let centre = self.place(one.centre(), station);
        let out = basis.turn_out(normal) * normal.z.signum();
        let axis = if one.bulge > 0.0 { out } else { -out };
        let slope = crate::plane::Vector::new(-normal.x / normal.z, -normal.y / normal.z);
        let steep = slope.length();
        let radius = one.radius();
        if steep < 1e-9 {
            return Curve::Circle { centre, axis, radius };
        }
        let along = slope * (1.0 / steep);
        let major = basis.turn_out(Vector3::new(along.x, along.y, steep)).unit();
        Curve::Ellipse { centre, axis, major, long: radius * steep.hypot(1.0), short: radius }
    }

    /// The curve of a corner of the outline along a stretch.
    fn along(&self, at: Point, stretch: usize) -> Curve {
        match &self.stretches[stretch].arc {
            None => Curve::Line,
            Some(arc) => {
                let place = self.place(at, stretch);
                let arm = place - arc.centre;
                let centre = arc.centre + arc.axis * arm.dot(arc.axis);
                Curve::Circle { centre, axis: arc.axis, radius: (place - centre).length() }
            }
        }
    }

    fn make(&mut self) {
        let name = self.member.name.clone();
        let mut caps: [Vec<Vec<(usize, bool)>>; 2] = [Vec::new(), Vec::new()];
        let last = self.stations.len() - 1;
        let outlines: Vec<Vec<Segment>> =
            self.member.region.outlines().map(|one| one.segments().map(|(edge, _)| edge).collect()).collect();
        for (which, segments) in outlines.iter().enumerate() {
            let count = segments.len();
            let outer = which == 0;
            let first_corner = self.body.corners.len();
            let corner = |at: usize, station: usize| first_corner + (at % count) * (last + 1) + station;
            for one in segments {
                for station in 0..=last {
                    let place = self.place(one.start, station);
                    self.body.corners.push(place);
                }
            }
            // For each edge of the outline: its curve at each station, then that of its start along each stretch.
            let first_edge = self.body.edges.len();
            for (at, one) in segments.iter().enumerate() {
                for station in 0..=last {
                    let curve = self.across(one, station);
                    let (from, to) = (corner(at, station), corner(at + 1, station));
                    self.body.edges.push(BodyEdge { from, to, curve });
                }
                for stretch in 0..last {
                    let curve = self.along(one.start, stretch);
                    let (from, to) = (corner(at, stretch), corner(at, stretch + 1));
                    self.body.edges.push(BodyEdge { from, to, curve });
                }
            }
            let each = 2 * last + 1;
            let ring = |at: usize, station: usize| first_edge + (at % count) * each + station;
            let rail = |at: usize, stretch: usize| first_edge + (at % count) * each + last + 1 + stretch;
            for (at, one) in segments.iter().enumerate() {
                for stretch in 0..last {
                    let mut walk = vec![
                        (ring(at, stretch), true),
                        (rail(at + 1, stretch), true),
                        (ring(at, stretch + 1), false),
                        (rail(at, stretch), false),
                    ];
                    if !outer {
                        walk = walk.into_iter().rev().map(|(edge, ahead)| (edge, !ahead)).collect();
                    }
                    let surface = self.surface(one, stretch, outer);
                    self.body.faces.push(BodyFace {
                        name: format!("{name}.wall"),
                        owner: name.clone(),
                        surface,
                        loops: vec![walk],
                    });
                }
            }
            let turned = |walk: Vec<(usize, bool)>| -> Vec<(usize, bool)> {
                if outer { walk } else { walk.into_iter().rev().map(|(edge, ahead)| (edge, !ahead)).collect() }
            };
            caps[1].push(turned((0..count).map(|at| (ring(at, last), true)).collect()));
            caps[0].push(turned((0..count).rev().map(|at| (ring(at, 0), false)).collect()));
        }
        for (finish, loops) in [false, true].into_iter().zip(caps) {
            let basis = self.stations[if finish { last } else { 0 }];
            let normal = basis.turn_out(self.member.ends[usize::from(finish)].planes[0].normal);
            let level = basis.v - normal * basis.v.dot(normal);
            let across =
                if level.length() > 0.1 { level.unit() } else { (basis.u - normal * basis.u.dot(normal)).unit() };
            let point = self.place(self.member.region.outer.edges[0].start, if finish { last } else { 0 });
            self.body.faces.push(BodyFace {
                name: format!("{name}.{}", if finish { "finish" } else { "start" }),
                owner: name.clone(),
                surface: Surface::Plane { point, normal, across },
                loops,
            });
        }
    }

    /// The surface that an edge of the outline makes along a stretch.
    fn surface(&self, one: &Segment, stretch: usize, outer: bool) -> Surface {
        let basis = &self.stations[stretch];
        let way = (one.end - one.start).unit();
        let out = if outer { way.right() } else { way.left() };
        let normal = basis.u * out.x + basis.v * out.y;
        let place = |at: Point| basis.place(at.x, at.y, 0.0);
        // A convex corner of the outside has its metal within; of a hole, around.
        let outward = (one.bulge > 0.0) == outer;
        let Some(arc) = &self.stretches[stretch].arc else {
            if one.is_line() {
                return Surface::Plane { point: place(one.start), normal, across: basis.w };
            }
            let arm = (one.start - one.centre()).unit();
            return Surface::Cylinder {
                point: place(one.centre()),
                axis: basis.w,
                across: basis.u * arm.x + basis.v * arm.y,
                radius: one.radius(),
                outward,
            };
        };
        let flat = |place: Point3| {
            let arm = place - arc.centre;
            let up = arm.dot(arc.axis);
            (arm - arc.axis * up, up)
        };
        if !one.is_line() {
            let (arm, up) = flat(place(one.centre()));
            return Surface::Torus {
                point: arc.centre + arc.axis * up,
                axis: arc.axis,
                across: arm.unit(),
                major: arm.length(),
                minor: one.radius(),
                outward,
            };
        }
        let ((from, low), (to, high)) = (flat(place(one.start)), flat(place(one.end)));
        let across = from.unit();
        if (high - low).abs() < 1e-9 {
            // Square to the axis: it stays in its plane.
            return Surface::Plane { point: place(one.start), normal, across };
        }
        let looks_out = normal.dot(across) > 0.0;
        if (from.length() - to.length()).abs() < 1e-9 {
            let point = arc.centre + arc.axis * low;
            return Surface::Cylinder { point, axis: arc.axis, across, radius: from.length(), outward: looks_out };
        }
        Surface::Cone {
            point: arc.centre + arc.axis * low,
            axis: arc.axis,
            across,
            radius: from.length(),
            slope: (to.length() - from.length()) / (high - low),
            outward: looks_out,
        }
    }
}
