//! Nodes and centre lines in space. Lines are straight or circular and stay so.

use crate::finding::Finding;
use crate::plane::MODELLING_TOLERANCE;
use crate::quantity::tolerance::{NO_TURN, NOTHING_SQUARED, PARALLEL, ROUNDING};
use crate::space::{Motion, Point3, Vector3};

/// The most lines of a frame.
pub const MOST_LINES: usize = 20_000;
/// Two places nearer than this are one node, mm.
pub const ONE_NODE: f64 = 1.0e-4;

/// A named place.
#[derive(Clone, Debug, PartialEq)]
pub struct Node {
    /// `OPERATION` or `OPERATION.part`.
    pub name: String,
    /// Where it is, mm.
    pub place: Point3,
}

/// The round of a line.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Arc {
    /// Its centre.
    pub centre: Point3,
    /// Unit vector square to it; the line runs counter-clockwise about it.
    pub axis: Vector3,
    /// How far it turns, radians, above 0.
    pub sweep: f64,
}

/// A centre line.
#[derive(Clone, Debug, PartialEq)]
pub struct CentreLine {
    /// `OPERATION.part`.
    pub name: String,
    /// Where it starts.
    pub from: Point3,
    /// Where it ends.
    pub to: Point3,
    /// Its round; straight where `None`.
    pub arc: Option<Arc>,
    /// Which way is up for a section on it, at its start; about square to it.
    pub up: Vector3,
    /// A mirror image: sections on it are mirrored as well.
    pub mirrored: bool,
}

/// Up for a line that starts this way: the world's up, or away where the line stands upright.
pub fn upright(heading: Vector3) -> Vector3 {
    let world = Vector3::new(0.0, 0.0, 1.0);
    if heading.cross(world).length() < NO_TURN { Vector3::new(0.0, 1.0, 0.0) } else { world }
}

impl CentreLine {
    /// A straight line.
    pub fn straight(name: impl Into<String>, from: Point3, to: Point3) -> CentreLine {
        CentreLine { name: name.into(), from, to, arc: None, up: upright((to - from).unit()), mirrored: false }
    }

    /// An arc past a point; a straight line where the three lie on one.
    pub fn through(name: impl Into<String>, from: Point3, past: Point3, to: Point3) -> CentreLine {
        let (a, b) = (past - from, to - from);
        let normal = a.cross(b);
        let size = normal.dot(normal);
        if size.sqrt() <= PARALLEL * a.length().max(b.length()).powi(2) {
            return CentreLine::straight(name, from, to);
        }
        // The centre of the circle through three points (standard result).
        let arm = (b.cross(normal) * a.dot(a) - a.cross(normal) * b.dot(b)) * (1.0 / (2.0 * size));
        let centre = from + arm;
        let axis = normal.unit();
        let (start, end) = (from - centre, to - centre);
        let sweep = axis.dot(start.cross(end)).atan2(start.dot(end)).rem_euclid(std::f64::consts::TAU);
        let up = upright(axis.cross(start).unit());
        CentreLine { name: name.into(), from, to, arc: Some(Arc { centre, axis, sweep }), up, mirrored: false }
    }

    /// Length along it, mm.
    pub fn length(&self) -> f64 {
        match &self.arc {
            None => self.from.distance(self.to),
            Some(arc) => self.from.distance(arc.centre) * arc.sweep,
        }
    }

    /// The place at a distance from its start, mm.
    pub fn at(&self, distance: f64) -> Point3 {
        match &self.arc {
            None => self.from + (self.to - self.from).unit() * distance,
            Some(arc) => {
                let turned = distance / self.from.distance(arc.centre);
                Motion::turn(arc.centre, arc.axis, turned).apply(self.from)
            }
        }
    }

    /// The direction along it at a distance from its start.
    pub fn heading(&self, distance: f64) -> Vector3 {
        match &self.arc {
            None => (self.to - self.from).unit(),
            Some(arc) => arc.axis.cross(self.at(distance) - arc.centre).unit(),
        }
    }

    /// The same line walked the other way.
    pub fn reversed(&self) -> CentreLine {
        CentreLine {
            name: self.name.clone(),
            from: self.to,
            to: self.from,
            arc: self.arc.map(|arc| Arc { axis: -arc.axis, ..arc }),
            up: self.up,
            mirrored: self.mirrored,
        }
    }

    /// How far along it a place lies, where it lies on it; mm.
    pub fn distance_of(&self, place: Point3) -> Option<f64> {
        match &self.arc {
            None => {
                let way = (self.to - self.from).unit();
                let along = (place - self.from).dot(way);
                let off = (self.from + way * along).distance(place);
                (off < ONE_NODE && along > -ONE_NODE && along < self.length() + ONE_NODE).then_some(along)
            }
            Some(arc) => {
                let (start, arm) = (self.from - arc.centre, place - arc.centre);
                let radius = start.length();
                if (arm.length() - radius).abs() > ONE_NODE || arm.dot(arc.axis).abs() > ONE_NODE {
                    return None;
                }
                let turned = arc.axis.dot(start.cross(arm)).atan2(start.dot(arm));
                let turned = if turned < -ROUNDING { turned + std::f64::consts::TAU } else { turned.max(0.0) };
                (turned <= arc.sweep + ROUNDING).then_some(turned * radius)
            }
        }
    }

    /// The line under a rigid motion.
    pub fn moved(&self, motion: &Motion) -> CentreLine {
        CentreLine {
            name: self.name.clone(),
            from: motion.apply(self.from),
            to: motion.apply(self.to),
            arc: self.arc.map(|arc| Arc { centre: motion.apply(arc.centre), axis: motion.direction(arc.axis), ..arc }),
            up: motion.direction(self.up),
            mirrored: self.mirrored,
        }
    }

    /// The line mirrored about the plane through `point` square to the unit vector `normal`.
    pub fn mirrored(&self, point: Point3, normal: Vector3) -> CentreLine {
        CentreLine {
            name: self.name.clone(),
            from: mirror(self.from, point, normal),
            to: mirror(self.to, point, normal),
            // Mirroring turns the sense of a turn about: the axis is mirrored and then reversed.
            arc: self.arc.map(|arc| Arc {
                centre: mirror(arc.centre, point, normal),
                axis: -(arc.axis - normal * (2.0 * arc.axis.dot(normal))),
                ..arc
            }),
            up: self.up - normal * (2.0 * self.up.dot(normal)),
            mirrored: !self.mirrored,
        }
    }
}

/// A place mirrored about a plane.
pub fn mirror(place: Point3, point: Point3, normal: Vector3) -> Point3 {
    place + normal * (-2.0 * (place - point).dot(normal))
}

/// Nodes and lines.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Skeleton {
    /// Named places; several names may stand for one place.
    pub nodes: Vec<Node>,
    /// Lines in the order in which they were made.
    pub lines: Vec<CentreLine>,
}

impl Skeleton {
    /// The node of a name.
    pub fn node(&self, name: &str) -> Option<Point3> {
        self.nodes.iter().find(|node| node.name == name).map(|node| node.place)
    }

    /// The line of a name.
    pub fn line(&self, name: &str) -> Option<&CentreLine> {
        self.lines.iter().find(|line| line.name == name)
    }

    /// Adds a node.
    pub fn add_node(&mut self, name: impl Into<String>, place: Point3) {
        self.nodes.push(Node { name: name.into(), place });
    }

    /// Adds a line with its ends as nodes `LINE.start` and `LINE.end` where no node is there yet.
    ///
    /// # Errors
    /// A line of no length; the most lines reached.
    pub fn add_line(&mut self, line: CentreLine) -> Result<(), Finding> {
        if line.length() < 0.01 {
            return Err(Finding::error(
                format!("the line {} would have no length", line.name),
                "Give its other end another place.",
            ));
        }
        if self.lines.len() >= MOST_LINES {
            return Err(Finding::error(
                format!("a frame has at most {MOST_LINES} lines"),
                "Make part of it another frame.",
            ));
        }
        self.lines.push(line);
        Ok(())
    }

    /// Makes sure that a place has a name.
    pub fn name_place(&mut self, name: impl Into<String>, place: Point3) {
        if !self.nodes.iter().any(|node| node.place.distance(place) < ONE_NODE) {
            self.add_node(name, place);
        }
    }

    /// The name of a place, where it is a node.
    pub fn named(&self, place: Point3) -> Option<&str> {
        self.nodes.iter().find(|node| node.place.distance(place) < ONE_NODE).map(|node| node.name.as_str())
    }

    /// Joins lines that run straight on across a plane into one: ends on the plane, square to it, and a partner on the
    /// other side.
    pub fn join_across(&mut self, point: Point3, normal: Vector3) {
        let on = |place: Point3| (place - point).dot(normal).abs() < ONE_NODE;
        let mut at = 0;
        while at < self.lines.len() {
            let line = &self.lines[at];
            let square = line.arc.is_none() && (line.to - line.from).unit().cross(normal).length() < PARALLEL;
            let seam = if square && on(line.to) {
                Some(line.to)
            } else if square && on(line.from) {
                Some(line.from)
            } else {
                None
            };
            let partner = seam.and_then(|seam| {
                (at + 1..self.lines.len()).find(|&other| {
                    let one = &self.lines[other];
                    one.arc.is_none()
                        && (one.to - one.from).unit().cross(normal).length() < PARALLEL
                        && (one.from.distance(seam) < ONE_NODE || one.to.distance(seam) < ONE_NODE)
                })
            });
            if let (Some(seam), Some(partner)) = (seam, partner) {
                let other = self.lines.remove(partner);
                let far = if other.from.distance(seam) < ONE_NODE { other.to } else { other.from };
                let line = &mut self.lines[at];
                if line.to.distance(seam) < ONE_NODE {
                    line.to = far;
                } else {
                    line.from = far;
                }
            }
            at += 1;
        }
    }
}

/// Where two infinite lines meet; `None` where they are parallel or pass each other.
pub fn meeting(one: (Point3, Point3), two: (Point3, Point3)) -> Option<Point3> {
    let (a, b) = ((one.1 - one.0).unit(), (two.1 - two.0).unit());
    let cross = a.cross(b);
    let square = cross.dot(cross);
    if square < NOTHING_SQUARED {
        return None;
    }
    let between = two.0 - one.0;
    let along = between.cross(b).dot(cross) / square;
    let other = between.cross(a).dot(cross) / square;
    let (first, second) = (one.0 + a * along, two.0 + b * other);
    (first.distance(second) < 1e3 * MODELLING_TOLERANCE).then_some(first)
}
