//! Measures between faces of a frame's pieces, by the names that their bodies have, and how far two pieces are apart.

use crate::frame::{FrameMade, member_solid, member_wall_names};
use crate::space::query::{Probe, clearance};
use crate::space::{Body, Point3, Surface, Vector3};
use crate::work::measure::BetweenMembers;

use super::MeasureError;

/// What a face is measured from: a flat one its plane, a round one its axis.
#[derive(Clone, Copy, Debug)]
enum Datum {
    Plane { point: Point3, normal: Vector3 },
    Axis { point: Point3, way: Vector3 },
}

/// Directions nearer to parallel than this are, and places nearer than it (mm) are one.
const NEAR: f64 = 1e-6;

impl Datum {
    /// Of a surface, near a place of it.
    fn of(surface: &Surface, at: Point3) -> Option<Datum> {
        match surface {
            Surface::Plane { point, normal, .. } => Some(Datum::Plane { point: *point, normal: *normal }),
            Surface::Cylinder { axis, point, .. }
            | Surface::Cone { axis, point, .. }
            | Surface::Torus { axis, point, .. } => {
                // The place of the axis beside the face.
                let up = (at - *point).dot(*axis);
                Some(Datum::Axis { point: *point + *axis * up, way: *axis })
            }
            Surface::Ruled { .. } => None,
        }
    }

    fn is_same(&self, other: &Datum) -> bool {
        match (self, other) {
            (Datum::Plane { point, normal }, Datum::Plane { point: two, normal: way }) => {
                normal.cross(*way).length() < NEAR && (*two - *point).dot(*normal).abs() < NEAR
            }
            (Datum::Axis { point, way }, Datum::Axis { point: two, way: other }) => {
                way.cross(*other).length() < NEAR && (*two - *point).cross(*way).length() < NEAR
            }
            _ => false,
        }
    }

    fn point(&self) -> Point3 {
        match self {
            Datum::Plane { point, .. } | Datum::Axis { point, .. } => *point,
        }
    }
}

fn fault(message: String, way_out: &str) -> MeasureError {
    MeasureError { message, way_out: way_out.into() }
}

impl FrameMade {
    /// A piece's body where it lies: of a member without an exact one what it is drawn with.
    fn piece_body(&self, name: &str) -> Result<Body, MeasureError> {
        if let Some(at) = self.frame.plates.iter().position(|plate| plate.name == name) {
            return self.plate_bodies()[at].clone().map_err(|why| fault(why, "Measure to another piece."));
        }
        let at = self.member(name)?;
        Ok(self.member_body(at).cloned().unwrap_or_else(|_| member_solid(&self.frame.members[at])))
    }

    /// A wall by the number of its section's edge, as documents of before cite it, as it is called now.
    fn numbered_wall(&self, name: &str) -> Option<String> {
        let (member, wall) = name.rsplit_once('.')?;
        let at = wall.strip_prefix("wall-")?.parse::<usize>().ok()?.checked_sub(1)?;
        let member = self.frame.members.iter().find(|one| one.name == member)?;
        Some(format!("{}.{}", member.name, member_wall_names(member).get(at)?))
    }

    fn datum(&self, name: &str) -> Result<Datum, MeasureError> {
        self.datum_called(name).or_else(|fault| match self.numbered_wall(name) {
            Some(own) if own != name => self.datum_called(&own),
            _ => Err(fault),
        })
    }

    fn datum_called(&self, name: &str) -> Result<Datum, MeasureError> {
        let members = (0..self.frame.members.len()).filter_map(|at| self.member_body(at).ok());
        let plates = self.plate_bodies().iter().filter_map(|body| body.as_ref().ok());
        let mut found: Vec<Datum> = Vec::new();
        let mut owners: Vec<String> = Vec::new();
        for body in members.chain(plates) {
            for face in &body.faces {
                if face.name != name {
                    if name.starts_with(&format!("{}.", face.owner)) && !owners.contains(&face.name) {
                        owners.push(face.name.clone());
                    }
                    continue;
                }
                let at = face.loops.iter().flatten().next().map(|&(edge, _)| body.corners[body.edges[edge].from]);
                let Some(datum) = Datum::of(&face.surface, at.unwrap_or_default()) else {
                    return Err(fault(
                        format!("{name} is a twisted strip, from which nothing is measured"),
                        "Name a flat or a round face.",
                    ));
                };
                if !found.iter().any(|known| known.is_same(&datum)) {
                    found.push(datum);
                }
            }
        }
        match found.as_slice() {
            [one] => Ok(*one),
            [] if owners.is_empty() => Err(fault(
                format!("there is no face called {name}"),
                "Name a piece and its face, such as rail.top or rail.finish.",
            )),
            [] => Err(fault(format!("there is no face called {name}"), &format!("There are {}.", owners.join(", ")))),
            several => Err(fault(
                format!("{name} is {} faces that lie apart, so nothing is measured from it", several.len()),
                "Name a face of one plane or one axis.",
            )),
        }
    }

    /// The places on two faces between which their distance is measured.
    pub(super) fn between_faces(&self, two: &BetweenMembers) -> Result<[Point3; 2], MeasureError> {
        let (one, other) = (self.datum(&two.from)?, self.datum(&two.to)?);
        let by = other.point() - one.point();
        let aslant = || {
            fault(
                format!("{} and {} are not parallel, so they have no one distance", two.from, two.to),
                "Name two faces that are parallel, or measure the angle between their members.",
            )
        };
        let way = match (one, other) {
            (Datum::Plane { normal, .. }, Datum::Plane { normal: way, .. }) if normal.cross(way).length() < NEAR => {
                normal * by.dot(normal)
            }
            (Datum::Plane { normal, .. }, Datum::Axis { way, .. })
            | (Datum::Axis { way, .. }, Datum::Plane { normal, .. })
                if normal.dot(way).abs() < NEAR =>
            {
                normal * by.dot(normal)
            }
            (Datum::Axis { way, .. }, Datum::Axis { way: other, .. }) => {
                let across = way.cross(other);
                if across.length() < NEAR { by - way * by.dot(way) } else { across.unit() * by.dot(across.unit()) }
            }
            _ => return Err(aslant()),
        };
        Ok([one.point(), one.point() + way])
    }

    /// The nearest places of two pieces; both one place where they share metal.
    pub(super) fn nearest_places(&self, two: &BetweenMembers) -> Result<[Point3; 2], MeasureError> {
        let probe = |name: &str| {
            Probe::new(&self.piece_body(name)?).map_err(|why| fault(why.to_string(), "Measure to another piece."))
        };
        let (one, other) = (probe(&two.from)?, probe(&two.to)?);
        match clearance(&one, &other) {
            Ok(Some(found)) => Ok([found.from, found.to]),
            Ok(None) => Err(fault(
                format!("{} and {} run into each other, so there is no clearance between them", two.from, two.to),
                "Settle their joint, or move one of them.",
            )),
            Err(why) => Err(fault(why.to_string(), "Measure between two faces by their names.")),
        }
    }
}
