//! The faces of a rib across a bend: its ridge and its sides over the faces inside the bend, and those a thickness under them.

use crate::plane::{Point, Vector};
use crate::quantity::tolerance::ROUNDING;
use crate::sheet::flat::{Flat, Strip};
use crate::sheet::rib::{Rib, RibPart, RibPiece, RibShell, RibZone};
use crate::space::{Body, BodyFace, Curve, Point3, Surface, Vector3, Walked};
use crate::work::sheet::Direction;

use super::shell::{Shell, reversed};

/// Turn of one cubic piece of a rim, radians.
const CUBIC_STEP: f64 = 0.02;
/// Step that slopes are taken over, radians.
const SLOPE_STEP: f64 = 1e-6;

/// A rib's faces and where they join the sheet's.
#[derive(Clone, Debug)]
pub(in crate::sheet) struct RibPatch {
    /// Its strip, an index in the flat's nodes.
    pub strip: usize,
    /// Its faces, named, in the coordinates of the flat, where what lies before the strip's first tangent line is flat: open where it joins
    /// the sheet.
    pub body: Body,
    /// For the lower and the upper face of the sheet what it opens there.
    pub rims: [RibRim; 2],
}

/// The opening of a rib in one of the two faces of its sheet.
#[derive(Clone, Debug, Default)]
pub(in crate::sheet) struct RibRim {
    /// Its edges by the part of the sheet, each walked as the sheet's face walks it.
    pub edges: Vec<(RibPart, Walked)>,
    /// Its corners on the first and on the second tangent line, with their places in the flat.
    pub crossings: [[(usize, Point); 2]; 2],
}

/// Where a section's own axes lie, in the flat's coordinates.
struct Frame {
    origin: Point3,
    x: Vector3,
    p: Vector3,
    q: Vector3,
}

/// Whether x runs along a strip's own axis, 1, or against it, -1: p, q and x are right-handed, and q looks to the inside of the bend.
fn x_runs(strip: &Strip) -> f64 {
    let up = if strip.direction == Direction::Up { 1.0 } else { -1.0 };
    strip.along.cross(strip.across).signum() * up
}

impl Frame {
    fn new(strip: &Strip, along: f64, thickness: f64) -> Frame {
        let on = strip.place(along, 0.0);
        let flat = |way: Vector| Vector3::new(way.x, way.y, 0.0);
        let (height, sign) = match strip.direction {
            Direction::Up => (thickness, 1.0),
            Direction::Down => (0.0, -1.0),
        };
        Frame {
            origin: Point3::new(on.x, on.y, height),
            x: flat(strip.along) * x_runs(strip),
            p: flat(strip.across),
            q: Vector3::new(0.0, 0.0, sign),
        }
    }

    fn way(&self, x: f64, way: Vector) -> Vector3 {
        self.x * x + self.p * way.x + self.q * way.y
    }

    fn place(&self, x: f64, place: Point) -> Point3 {
        self.origin + self.way(x, Vector::new(place.x, place.y))
    }
}

/// The faces of a rib. `None` where it cannot be pressed any more.
pub(in crate::sheet) fn patch(flat: &Flat, rib: &Rib) -> Option<RibPatch> {
    let strip = flat.nodes[rib.strip].strip()?;
    let along = strip.local(rib.centre).0;
    let frame = Frame::new(strip, along, flat.thickness);
    let mut shell = Shell::new(&rib.operation);
    let sign = x_runs(strip);
    // Its sides are called by the ends of the bend that they look to, so that the other hand calls them alike.
    let known = flat.bends.iter().find(|bend| bend.name == rib.bend).map(|bend| bend.ends.clone());
    let [start, finish] = known.unwrap_or_else(|| ["start".into(), "finish".into()]);
    let ends = if sign > 0.0 { [start, finish] } else { [finish, start] };
    let side = |one: RibShell| Side { shell: &one, frame: &frame, name: &rib.name, ends: &ends }.faces(&mut shell);
    let rims = rib.shells(flat).ok()?.map(side);
    let [inner, outer] = rims.map(|(edges, crossings)| RibRim {
        edges,
        crossings: [0, 1].map(|line| {
            crossings[line].map(|(corner, off)| {
                (corner, strip.place(along + sign * off, if line == 0 { 0.0 } else { strip.width }))
            })
        }),
    });
    let rims = if strip.direction == Direction::Up { [outer, inner] } else { [inner, outer] };
    Some(RibPatch { strip: rib.strip, body: shell.body, rims })
}

/// One of the two surfaces of a rib as it is built.
struct Side<'a> {
    shell: &'a RibShell,
    frame: &'a Frame,
    name: &'a str,
    /// What the ends of the bend are called, against x and along it.
    ends: &'a [String; 2],
}

type Rim = (Vec<(RibPart, Walked)>, [[(usize, f64); 2]; 2]);

impl Side<'_> {
    fn half(&self, part: RibPart, at: f64) -> f64 {
        self.shell.half_at(self.shell.depth(part, at))
    }

    /// A place of the rim; `side` 1 or -1.
    fn rim(&self, part: RibPart, at: f64, side: f64) -> Point3 {
        self.frame.place(side * self.half(part, at), self.shell.place(part, at))
    }

    /// Makes the faces; returns the rim and its corners on the tangent lines, with how far along the bend they lie from the middle.
    fn faces(&self, made: &mut Shell) -> Rim {
        let pieces = &self.shell.pieces;
        let count = pieces.len();
        let stop = |at: usize| match pieces.get(at) {
            Some(piece) => (piece.part, piece.from),
            None => (pieces[count - 1].part, pieces[count - 1].to),
        };
        let mut sides: Vec<[usize; 2]> = Vec::with_capacity(count + 1);
        for at in 0..=count {
            let (part, place) = stop(at);
            let single = (at == 0 || at == count) && self.half(part, place) < ROUNDING.sqrt();
            let left = made.corner(self.rim(part, place, if single { 0.0 } else { -1.0 }));
            let right = if single { left } else { made.corner(self.rim(part, place, 1.0)) };
            sides.push([left, right]);
        }
        // Edges of both sides, from the first leg's end to the second's.
        let edges: [Vec<Walked>; 2] = [-1.0, 1.0].map(|side| {
            let which = usize::from(side > 0.0);
            let own = pieces.iter().enumerate();
            own.map(|(at, piece)| made.curve((sides[at][which], sides[at + 1][which]), self.curve(piece, side)))
                .collect()
        });
        let end = |made: &mut Shell, at: usize| {
            let [left, right] = sides[at];
            (left != right).then(|| made.line(left, right))
        };
        let (near, far) = (end(made, 0), end(made, count));
        let first = pieces.iter().position(|one| one.zone == RibZone::Side);
        let sided = first.map(|first| {
            let last = pieces.iter().rposition(|one| one.zone == RibZone::Side).unwrap_or(first);
            (first, last + 1)
        });
        let back = |one: Walked| (one.0, !one.1);
        // The ridge: up its right side, back down its left one.
        let mut bounds: [Vec<Walked>; 2] = edges.clone();
        if let Some((first, last)) = sided {
            for which in [0, 1] {
                let line = made.line(sides[first][which], sides[last][which]);
                bounds[which].splice(first..last, [line]);
                let mut walk: Vec<Walked> = edges[which][first..last].to_vec();
                walk.push(back(line));
                if which == 0 {
                    walk = reversed(&walk);
                }
                let surface = self.side_surface(if which == 1 { 1.0 } else { -1.0 });
                self.face(made, &format!("side-{}", self.ends[which]), surface, walk);
            }
        }
        let mut ridge: Vec<Walked> = near.into_iter().collect();
        ridge.extend(&bounds[1]);
        ridge.extend(far.map(back));
        ridge.extend(reversed(&bounds[0]));
        self.face(made, "ridge", self.ridge_surface(), ridge);
        // Walked as the sheet's face walks it: the other way about than the rib's own faces.
        let mut rim: Vec<(RibPart, Walked)> = Vec::new();
        let own = |at: usize| pieces[at].part;
        rim.extend(near.map(|one| (RibPart::First, one)));
        rim.extend(edges[1].iter().enumerate().map(|(at, &one)| (own(at), one)));
        rim.extend(far.map(|one| (RibPart::Second, back(one))));
        rim.extend(edges[0].iter().enumerate().map(|(at, &one)| (own(at), back(one))));
        if self.shell.inner {
            rim.iter_mut().for_each(|(_, one)| *one = back(*one));
        }
        let crossing = |at: usize| {
            let (part, place) = stop(at);
            let half = self.half(part, place);
            [(sides[at][0], -half), (sides[at][1], half)]
        };
        let begins = pieces.iter().position(|one| one.part == RibPart::Bend).unwrap_or(0);
        let ends = pieces.iter().position(|one| one.part == RibPart::Second).unwrap_or(count);
        (rim, [crossing(begins), crossing(ends)])
    }

    fn face(&self, made: &mut Shell, what: &str, surface: Surface, walk: Vec<Walked>) {
        let name =
            if self.shell.inner { format!("{}.{what}", self.name) } else { format!("{}.hollow-{what}", self.name) };
        made.face(&name, surface, vec![if self.shell.inner { walk } else { reversed(&walk) }]);
    }

    /// Which way a surface over the inner faces looks, away from the metal; the other one looks the other way.
    fn facing(&self) -> f64 {
        if self.shell.inner { 1.0 } else { -1.0 }
    }

    fn side_normal(&self, side: f64) -> Vector3 {
        let (sine, cosine) = self.shell.draft.sin_cos();
        self.frame.way(side * cosine, self.shell.down * -sine)
    }

    fn side_surface(&self, side: f64) -> Surface {
        let shoulder = if self.shell.is_round { self.shell.half * (1.0 - self.shell.draft.sin()) } else { 0.0 };
        let half = self.shell.half_at(shoulder);
        let point = self.frame.place(side * half, self.shell.start + self.shell.down * shoulder);
        let across = self.frame.way(0.0, self.shell.along);
        Surface::Plane { point, normal: self.side_normal(side) * self.facing(), across }
    }

    fn ridge_surface(&self) -> Surface {
        let along = self.frame.way(0.0, self.shell.along);
        if !self.shell.is_round {
            let normal = self.frame.way(0.0, self.shell.down * -self.facing());
            return Surface::Plane { point: self.frame.place(0.0, self.shell.start), normal, across: along };
        }
        let point = self.frame.place(0.0, self.shell.start + self.shell.down * self.shell.half);
        let across = self.frame.way(0.0, self.shell.down * -1.0);
        Surface::Cylinder { point, axis: along, across, radius: self.shell.half, outward: self.shell.inner }
    }

    /// The curve of a piece of the rim, as it is walked from the first leg to the second.
    fn curve(&self, piece: &RibPiece, side: f64) -> Curve {
        match (piece.part, piece.zone) {
            (RibPart::Bend, RibZone::Side) => self.round_by_plane(piece, side),
            (RibPart::Bend, RibZone::Ridge) => self.round_by_round(piece, side),
            (_, RibZone::Side) => Curve::Line,
            (_, RibZone::Ridge) => self.leg_by_round(piece, side),
        }
    }

    /// Which way a piece turns about an axis through a centre: the axis, turned so that it is counter-clockwise.
    fn turned(&self, piece: &RibPiece, side: f64, centre: Point3, axis: Vector3) -> Vector3 {
        let arm = |at: f64| self.rim(piece.part, at, side) - centre;
        let (one, two) = (arm(piece.from), arm((piece.from + piece.to) / 2.0));
        if one.cross(two).dot(axis) >= 0.0 { axis } else { -axis }
    }

    /// The bend's cylinder cut by a side: an ellipse, or a circle where the side stands square to the bend.
    fn round_by_plane(&self, piece: &RibPiece, side: f64) -> Curve {
        let normal = self.side_normal(side);
        let x = self.frame.x;
        let arm = self.shell.arm();
        let on_axis = self.frame.place(0.0, self.shell.axis());
        let lean = normal.dot(x);
        let centre = on_axis + x * ((self.rim(piece.part, piece.from, side) - on_axis).dot(normal) / lean);
        let axis = self.turned(piece, side, centre, normal);
        let minor = normal.cross(x);
        if minor.length() < ROUNDING {
            return Curve::Circle { centre, axis, radius: arm };
        }
        let major = normal.cross(minor.unit());
        Curve::Ellipse { centre, axis, major, long: arm / lean.abs(), short: arm }
    }

    /// A leg's plane cut by a round ridge: an ellipse.
    fn leg_by_round(&self, piece: &RibPiece, side: f64) -> Curve {
        let leg = self.shell.place(piece.part, 1.0) - self.shell.place(piece.part, 0.0);
        let normal = self.frame.way(0.0, leg.unit().left());
        let along = self.frame.way(0.0, self.shell.along);
        let on_axis = self.frame.place(0.0, self.shell.start + self.shell.down * self.shell.half);
        let on_leg = self.frame.place(0.0, self.shell.place(piece.part, 0.0));
        let lean = along.dot(normal);
        let centre = on_axis + along * ((on_leg - on_axis).dot(normal) / lean);
        let major = self.frame.way(0.0, leg.unit());
        let (long, short) = (self.shell.half / lean.abs(), self.shell.half);
        Curve::Ellipse { centre, axis: self.turned(piece, side, centre, normal), major, long, short }
    }

    /// The bend's cylinder cut by a round ridge: a space curve, in cubic pieces on its own places and slopes.
    fn round_by_round(&self, piece: &RibPiece, side: f64) -> Curve {
        let place = |at: f64| self.rim(piece.part, at, side);
        let turn = piece.to - piece.from;
        let count = (turn.abs() / CUBIC_STEP).ceil().max(4.0) as usize;
        let slope = |at: f64| (place(at + SLOPE_STEP) - place(at - SLOPE_STEP)) * (1.0 / (2.0 * SLOPE_STEP));
        let mut points = vec![place(piece.from)];
        for step in 0..count {
            let [from, to] = [step, step + 1].map(|at| piece.from + turn * at as f64 / count as f64);
            let third = (to - from) / 3.0;
            points.extend([place(from) + slope(from) * third, place(to) + slope(to) * -third, place(to)]);
        }
        Curve::Cubic(points)
    }
}

/// How much more metal the faces of a rib enclose than the sheet that they stand in place of, mm3: its own faces, closed by those that they
/// replace, turned about. `None` for a rib that has no faces.
pub fn rib_displaced(flat: &Flat, rib: &Rib) -> Option<f64> {
    let RibPatch { mut body, rims, .. } = patch(flat, rib)?;
    let strip = flat.nodes[rib.strip].strip()?;
    let along = strip.local(rib.centre).0;
    let frame = Frame::new(strip, along, flat.thickness);
    for shell in rib.shells(flat).ok()? {
        let is_upper = shell.inner == (strip.direction == Direction::Up);
        let rim = &rims[usize::from(is_upper)];
        let facing = if shell.inner { -1.0 } else { 1.0 };
        let lines: [Walked; 2] = [0, 1].map(|line| {
            let [(one, _), (two, _)] = rim.crossings[line];
            body.edges.push(crate::space::BodyEdge { from: one, to: two, curve: Curve::Line });
            (body.edges.len() - 1, true)
        });
        for (part, bounds) in
            [(RibPart::First, &lines[..1]), (RibPart::Bend, &lines[..]), (RibPart::Second, &lines[1..])]
        {
            let surface = if part == RibPart::Bend {
                let across = frame.way(0.0, shell.place(part, 0.0) - shell.axis()).unit();
                Surface::Cylinder {
                    point: frame.place(0.0, shell.axis()),
                    axis: frame.x,
                    across,
                    radius: shell.arm(),
                    outward: shell.inner,
                }
            } else {
                let leg = (shell.place(part, 1.0) - shell.place(part, 0.0)).unit();
                let inside = if part == RibPart::First { leg.right() } else { leg.left() };
                let normal = frame.way(0.0, inside * facing);
                Surface::Plane { point: frame.place(0.0, shell.place(part, 0.0)), normal, across: frame.x }
            };
            let own: Vec<Walked> = rim.edges.iter().filter(|(one, _)| *one == part).map(|(_, walk)| *walk).collect();
            let walk = closed(&body, own, bounds)?;
            let (name, owner) = (rib.name.clone(), rib.operation.clone());
            body.faces.push(BodyFace { name, owner, surface, loops: vec![walk] });
        }
    }
    body.is_closed().then(|| body.mass().volume)
}

/// One walk of directed edges and of lines that may be walked either way.
fn closed(body: &Body, own: Vec<Walked>, lines: &[Walked]) -> Option<Vec<Walked>> {
    let ends = |(edge, ahead): Walked| {
        let edge = &body.edges[edge];
        if ahead { (edge.from, edge.to) } else { (edge.to, edge.from) }
    };
    let mut left: Vec<Walked> = own[1..].to_vec();
    let mut walk = vec![own[0]];
    let mut lines: Vec<Walked> = lines.to_vec();
    let start = ends(own[0]).0;
    while ends(*walk.last()?).1 != start {
        let here = ends(*walk.last()?).1;
        if let Some(at) = left.iter().position(|&one| ends(one).0 == here) {
            walk.push(left.swap_remove(at));
        } else {
            let at = lines.iter().position(|&one| ends(one).0 == here || ends(one).1 == here)?;
            let one = lines.swap_remove(at);
            walk.push((one.0, ends(one).0 == here));
        }
    }
    (left.is_empty() && lines.is_empty()).then_some(walk)
}

/// A face of a rib that is called so: its strip, its corners in the coordinates of the flat (as before the strip's first tangent line), and
/// its surface there.
pub fn rib_face(flat: &Flat, name: &str) -> Option<(usize, Vec<Point3>, Surface)> {
    let (stem, _) = name.rsplit_once('.')?;
    let rib = flat.ribs.iter().find(|rib| rib.name == stem)?;
    let body = patch(flat, rib)?.body;
    let face = body.faces.iter().find(|face| face.name == name)?;
    let edges = face.loops.iter().flatten().map(|&(edge, _)| &body.edges[edge]);
    let corners = edges.flat_map(|edge| [body.corners[edge.from], body.corners[edge.to]]).collect();
    Some((rib.strip, corners, face.surface.clone()))
}
