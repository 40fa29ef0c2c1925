//! Folding: each panel by a rigid motion, each strip onto a cylinder. The flat's upper face is z = T, its lower z = 0;
//! the root panel stays put.

use std::f64::consts::PI;

use crate::plane::Point;
use crate::quantity::tolerance::ROUNDING;
use crate::space::{Motion, Point3, Vector3};
use crate::work::sheet::Direction;

use super::flat::{Node, NodeKind, Strip};
use super::tree::{Side, Tree};

/// Where a node has gone.
#[derive(Clone, Debug)]
pub enum Placed {
    /// A panel and its motion from the flat.
    Panel(Motion),
    /// A strip: the motion of the panel on its first tangent line, and the bend as it stands.
    Strip(Motion, Curl),
}

/// A strip as far as it is bent: its angle so far, and the radius that keeps the neutral length.
#[derive(Clone, Debug)]
pub struct Curl {
    strip: Strip,
    angle: f64,
    radius: f64,
    thickness: f64,
}

impl Curl {
    /// A strip bent to a fraction of its angle (0 flat, 1 done). The neutral length stays the strip's width, so the
    /// radius opens as the angle closes.
    pub fn new(strip: &Strip, thickness: f64, fraction: f64) -> Self {
        let angle = strip.angle * fraction;
        let radius = if fraction == 1.0 { strip.radius } else { strip.width / angle - strip.neutral_depth() };
        Curl { strip: strip.clone(), angle, radius, thickness }
    }

    /// Below this the sheet is flat for every purpose, radians.
    const FLAT: f64 = 1.0e-9;

    fn is_flat(&self) -> bool {
        self.angle < Curl::FLAT
    }

    /// Distance from the bend's axis at height z of the flat sheet, mm.
    fn arm(&self, z: f64) -> f64 {
        match self.strip.direction {
            Direction::Up => self.radius + self.thickness - z,
            Direction::Down => self.radius + z,
        }
    }

    /// Where a point (u, v, z) of the flat strip goes, in the strip's own frame: (along, across, up).
    pub fn bend(&self, u: f64, v: f64, z: f64) -> (f64, f64, f64) {
        if self.is_flat() {
            return (u, v, z);
        }
        let (sine, cosine) = (self.angle * v / self.strip.width).sin_cos();
        let arm = self.arm(z);
        // arm (1 - cos) keeps its digits when the radius is huge and the sheet nearly flat.
        let lift = arm * (1.0 - cosine);
        let rise = match self.strip.direction {
            Direction::Up => z + lift,
            Direction::Down => z - lift,
        };
        (u, arm * sine, rise)
    }

    /// The inverse of [`Curl::bend`].
    pub fn unbend(&self, along: f64, across: f64, up: f64) -> (f64, f64, f64) {
        if self.is_flat() {
            return (along, across, up);
        }
        // Height of the axis, and height below it on the side where the sheet starts.
        let drop = match self.strip.direction {
            Direction::Up => self.thickness + self.radius - up,
            Direction::Down => up + self.radius,
        };
        let arm = across.hypot(drop);
        // Of the turns that are whole rounds apart, the one that lies on the strip: nearest to its middle.
        let middle = self.angle / 2.0;
        let turn = middle + (across.atan2(drop) - middle + PI).rem_euclid(2.0 * PI) - PI;
        let z = match self.strip.direction {
            Direction::Up => self.radius + self.thickness - arm,
            Direction::Down => arm - self.radius,
        };
        (along, turn / self.angle * self.strip.width, z)
    }

    /// The same bend elsewhere in the flat.
    pub fn moved(&self, by: crate::plane::Vector) -> Curl {
        let mut moved = self.clone();
        moved.strip.origin = moved.strip.origin + by;
        moved
    }

    fn to_flat_frame(&self, (along, across, up): (f64, f64, f64)) -> Point3 {
        let place = self.strip.place(along, across);
        Point3::new(place.x, place.y, up)
    }

    /// The motion of whatever lies on the second tangent line, relative to the first: shifted back by the strip's
    /// width, then turned about the bend's axis.
    fn beyond(&self) -> Motion {
        if self.is_flat() {
            return Motion::STILL;
        }
        let (along, across) = (self.strip.along, self.strip.across);
        let back = Motion::shift(Vector3::new(-across.x, -across.y, 0.0) * self.strip.width);
        let axis_height = match self.strip.direction {
            Direction::Up => self.thickness + self.radius,
            Direction::Down => -self.radius,
        };
        let point = Point3::new(self.strip.origin.x, self.strip.origin.y, axis_height);
        // Turning `across` toward up: the axis is across x up for an up bend.
        let axis = Vector3::new(across.x, across.y, 0.0).cross(Vector3::new(0.0, 0.0, 1.0));
        debug_assert!((axis.x.hypot(axis.y) - along.length()).abs() < ROUNDING);
        let angle = match self.strip.direction {
            Direction::Up => self.angle,
            Direction::Down => -self.angle,
        };
        Motion::turn(point, axis, angle).after(&back)
    }
}

/// The whole part folded to a fraction of every angle (0 flat, 1 done).
#[derive(Clone, Debug)]
pub struct Folded {
    /// One entry a node, as in the flat.
    pub placed: Vec<Placed>,
    /// The fraction.
    pub fraction: f64,
}

impl Folded {
    /// Where the point `flat` at height `z` (0 lower face, T upper) of node `node` goes.
    pub fn apply(&self, node: usize, flat: Point, z: f64) -> Point3 {
        match &self.placed[node] {
            Placed::Panel(motion) => motion.apply(Point3::new(flat.x, flat.y, z)),
            Placed::Strip(motion, curl) => {
                let (u, v) = curl.strip.local(flat);
                motion.apply(curl.to_flat_frame(curl.bend(u, v, z)))
            }
        }
    }

    /// The inverse: the flat point and height of a folded point that belongs to node `node`.
    pub fn unfold(&self, node: usize, point: Point3) -> (Point, f64) {
        match &self.placed[node] {
            Placed::Panel(motion) => {
                let flat = motion.inverse().apply(point);
                (Point::new(flat.x, flat.y), flat.z)
            }
            Placed::Strip(motion, curl) => {
                let flat = motion.inverse().apply(point);
                let (along, across) = curl.strip.local(Point::new(flat.x, flat.y));
                let (u, v, z) = curl.unbend(along, across, flat.z);
                (curl.strip.place(u, v), z)
            }
        }
    }

    /// Where a point of a strip's own frame (along, across, up from the lower face before the bend) goes; `None` for a
    /// panel.
    pub fn in_strip(&self, node: usize, along: f64, across: f64, up: f64) -> Option<Point3> {
        match &self.placed[node] {
            Placed::Panel(_) => None,
            Placed::Strip(motion, curl) => Some(motion.apply(curl.to_flat_frame((along, across, up)))),
        }
    }

    /// The motion of what lies before a strip's first tangent line; `None` for a panel.
    pub fn strip_motion(&self, node: usize) -> Option<&Motion> {
        match &self.placed[node] {
            Placed::Panel(_) => None,
            Placed::Strip(motion, _) => Some(motion),
        }
    }

    /// The motion of a panel; `None` for a strip.
    pub fn motion(&self, node: usize) -> Option<&Motion> {
        match &self.placed[node] {
            Placed::Panel(motion) => Some(motion),
            Placed::Strip(..) => None,
        }
    }
}

/// Folds a tree of nodes to a fraction of every angle, from 0 (flat) to 1 (done). The root stays where it lies in the flat.
pub fn fold(nodes: &[Node], tree: &Tree, thickness: f64, fraction: f64) -> Folded {
    fold_at(nodes, tree, thickness, fraction, &Motion::STILL)
}

/// As [`fold`], with the root in its place of the piece.
pub fn fold_at(nodes: &[Node], tree: &Tree, thickness: f64, fraction: f64, pose: &Motion) -> Folded {
    // Past the second tangent line of a strip everything has turned by its bend; before the first, nothing has.
    let beyond = |node: usize, side: Option<Side>| match (&nodes[node].kind, side) {
        (NodeKind::Strip(strip), Some(Side::Second)) => Curl::new(strip, thickness, fraction).beyond(),
        _ => Motion::STILL,
    };
    // For a panel its motion; for a strip the motion of what lies before its first tangent line.
    let mut frames = vec![*pose; nodes.len()];
    for &at in &tree.order {
        if let Some(link) = tree.links[at] {
            let line = frames[link.parent].after(&beyond(link.parent, link.parent_side));
            frames[at] = line.after(&beyond(at, link.own_side).inverse());
        }
    }
    let placed = nodes
        .iter()
        .enumerate()
        .map(|(at, node)| match &node.kind {
            NodeKind::Panel => Placed::Panel(frames[at]),
            NodeKind::Strip(strip) => Placed::Strip(frames[at], Curl::new(strip, thickness, fraction)),
        })
        .collect();
    Folded { placed, fraction }
}
