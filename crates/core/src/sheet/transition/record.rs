//! What a transition came to, for lists and pictures: true sizes of its panels, angles at its edges, slopes, surface and capacity.

use serde::Serialize;

use crate::space::{Point3, Vector3};
use crate::work::sheet::{TabHeld, TransitionJoint, TransitionSaid};

use super::capacity::capacity;
use super::edges::{EdgeIs, SheetPanel};
use super::faces::{FacePart, Surface};
use super::halves::Frame;
use super::numbers::TransitionNumbers;
use super::tabs::Tab;

/// A transition as it stands: its surface, which the named faces of its sheets lie on.
#[derive(Clone, Debug, PartialEq)]
pub struct SurfaceRecord {
    /// The operation's name.
    pub operation: String,
    /// Whether it is said by plan or by elevations.
    pub said: TransitionSaid,
    /// Corners of the surface, mm.
    pub points: Vec<Point3>,
    /// Its panels, those that are left out too.
    pub panels: Vec<PanelSizes>,
    /// Its edges between panels.
    pub edges: Vec<EdgeSizes>,
    /// Its edges that one panel has.
    pub rims: Vec<RimSizes>,
    /// Surface of the panels that are there without tabs, mm2.
    pub area: f64,
    /// Holes in its joints, drilled after welding.
    pub after_welding: Vec<AfterWelding>,
    /// What it holds within the inner faces, mm3; `None` where a rim is not plane.
    pub capacity: Option<f64>,
}

/// An edge of the surface that one panel has: cut square, one face comes up to the plane that it keeps to, the other stands back.
#[derive(Clone, Debug, PartialEq)]
pub struct RimSizes {
    /// The panel's own name within the operation.
    pub panel: String,
    /// The edge's own name within the panel.
    pub edge: String,
    /// Its ends in [`SurfaceRecord::points`].
    pub ends: [usize; 2],
    /// How far the other face stands back, in the panel's plane, mm.
    pub back: f64,
    /// Whether it is the inner face that comes up to the plane.
    pub inner_touches: bool,
}

/// A hole that lies in a joint: it is drilled after welding, and is in no blank.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub struct AfterWelding {
    /// The operation that asks for it.
    pub operation: String,
    /// The two panels that it lies in.
    pub between: [String; 2],
    /// Its centre on the surface, mm.
    pub at: Point3,
    /// Across, mm.
    pub diameter: f64,
}

/// True sizes of one panel of the surface.
#[derive(Clone, Debug, PartialEq)]
pub struct PanelSizes {
    /// `hood.front`.
    pub name: String,
    /// The end whose rim it is a flange of: 0 the first outline's (the rear profile's by elevations), 1 the other. Such a panel's first
    /// corner is where the rim's edge ends, its second where that begins.
    pub rim: Option<usize>,
    /// Whether it is left out.
    pub is_left_out: bool,
    /// Its corners in [`SurfaceRecord::points`], in order.
    pub corners: Vec<usize>,
    /// True area, mm2.
    pub area: f64,
    /// Angle between it and the plane of the first outline, radians.
    pub slope: f64,
    /// How far a rim flange lies from the rim's plane at the most, or a tab's outer face from what it should lie on, mm; `None` for others.
    pub off_plane: Option<f64>,
    /// What holds it, where it is a tab.
    pub held: Option<TabHeld>,
}

/// An edge between two panels.
#[derive(Clone, Debug, PartialEq)]
pub struct EdgeSizes {
    /// The two panels, by their own names within the operation.
    pub between: [String; 2],
    /// Its ends in [`SurfaceRecord::points`].
    pub ends: [usize; 2],
    /// True length, mm.
    pub length: f64,
    /// Angle between the two panels on the inside, radians.
    pub dihedral: f64,
    /// What becomes of it.
    pub joint: TransitionJoint,
}

impl SurfaceRecord {
    /// Of the opposite hand: seen across the plane x = 0, as the blanks of one are.
    pub(in crate::sheet) fn opposite_hand(&self) -> SurfaceRecord {
        let points = self.points.iter().map(|place| Point3::new(-place.x, place.y, place.z)).collect();
        let mut after_welding = self.after_welding.clone();
        after_welding.iter_mut().for_each(|hole| hole.at.x = -hole.at.x);
        SurfaceRecord { points, after_welding, ..self.clone() }
    }
}

impl EdgeSizes {
    /// The bend's angle from flat, radians.
    pub fn bend_angle(&self) -> f64 {
        (std::f64::consts::PI - self.dihedral).abs()
    }
}

pub(super) fn record(
    name: &str,
    given: &TransitionNumbers,
    surface: &Surface,
    (panels, tabs): (&[SheetPanel], &[Tab]),
    thickness: f64,
) -> SurfaceRecord {
    let sheet_of = |face: usize| panels.iter().find(|panel| panel.face == face);
    let base = surface.ends[usize::from(given.said == TransitionSaid::Elevations)].into;
    let mut edges: Vec<EdgeSizes> = Vec::new();
    let mut rims = Vec::new();
    let mut area = 0.0;
    let mut sizes = Vec::new();
    for (at, face) in surface.faces.iter().enumerate() {
        let own = polygon_area(&surface.points, &face.corners);
        let sheet = sheet_of(at);
        if sheet.is_some() && face.part != FacePart::Tab {
            area += own;
        }
        let lean = face.outward.dot(base).abs().min(1.0).acos();
        sizes.push(PanelSizes {
            name: format!("{name}.{}", face.name),
            rim: if let FacePart::Flange(end) = face.part { Some(end) } else { None },
            is_left_out: sheet.is_none(),
            corners: face.corners.clone(),
            area: own,
            slope: lean,
            off_plane: off_plane(surface, at, tabs),
            held: tabs.iter().find(|tab| tab.face == at).map(|tab| tab.held),
        });
        let Some(sheet) = sheet else { continue };
        for (k, is) in sheet.edges.iter().enumerate() {
            let count = face.corners.len();
            let ends = [face.corners[k], face.corners[(k + 1) % count]];
            let frame = Frame::new(surface, face, k);
            let (next, joint) = match *is {
                EdgeIs::Bent(next, _) => (next, TransitionJoint::Bend),
                EdgeIs::Apart(next, true) => (next, TransitionJoint::Seam),
                EdgeIs::Apart(next, false) => (next, TransitionJoint::Rip),
                EdgeIs::Free(_) | EdgeIs::Rim => {
                    let (edge, keeps) = match *is {
                        EdgeIs::Free(next) => {
                            (format!("to-{}", surface.faces[next].name), -surface.faces[next].outward)
                        }
                        _ => match surface.rims.get(&(ends[0], ends[1])) {
                            Some(rim) => (rim.name.clone(), rim.keeps),
                            None => continue,
                        },
                    };
                    let (into, over) = (keeps.dot(frame.inward), keeps.dot(frame.up));
                    rims.push(RimSizes {
                        panel: face.name.clone(),
                        edge,
                        ends,
                        back: thickness * (over / into).abs(),
                        inner_touches: over < 0.0,
                    });
                    continue;
                }
            };
            if next < at {
                continue;
            }
            edges.push(EdgeSizes {
                between: [face.name.clone(), surface.faces[next].name.clone()],
                ends,
                length: surface.points[ends[0]].distance(surface.points[ends[1]]),
                dihedral: dihedral(&frame, face.outward, surface.faces[next].outward),
                joint,
            });
        }
    }
    let inner: Vec<f64> = (0..surface.faces.len()).map(|at| sheet_of(at).map_or(0.0, |sheet| sheet.faces.1)).collect();
    SurfaceRecord {
        operation: name.to_string(),
        said: given.said,
        points: surface.points.clone(),
        panels: sizes,
        edges,
        rims,
        area,
        after_welding: Vec::new(),
        capacity: capacity(surface, &inner),
    }
}

/// See [`PanelSizes::off_plane`].
fn off_plane(surface: &Surface, at: usize, tabs: &[Tab]) -> Option<f64> {
    let face = &surface.faces[at];
    if let FacePart::Flange(end) = face.part {
        let end = &surface.ends[end];
        let away = |&corner: &usize| (surface.points[corner] - end.at).dot(end.into).abs();
        return end.is_plane.then(|| face.corners.iter().map(away).fold(0.0, f64::max));
    }
    tabs.iter().find(|tab| tab.face == at).map(|tab| tab.off_plane)
}

/// On the inside: less than half a turn where the panels lean toward each other.
fn dihedral(frame: &Frame, one: Vector3, two: Vector3) -> f64 {
    let turn = one.angle_to(two);
    let into_next = (-two).cross(-frame.along);
    let inward = into_next.dot(frame.up) >= 0.0;
    std::f64::consts::PI - if inward { turn } else { -turn }
}

fn polygon_area(points: &[Point3], corners: &[usize]) -> f64 {
    let first = points[corners[0]];
    let sum = (1..corners.len() - 1)
        .fold(Vector3::default(), |sum, at| sum + (points[corners[at]] - first).cross(points[corners[at + 1]] - first));
    sum.length() / 2.0
}
