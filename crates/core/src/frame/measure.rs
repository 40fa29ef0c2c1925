//! What a call-out may measure on a frame, always on what was built.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::measure::{Along, Axis, MeasureError, Measured};
use crate::plane::{Point, Segment, Vector};
use crate::quantity::Dimension;
use crate::space::{Body, Box3, Mesh, Motion, Point3, Vector3};

use super::build::{Frame, matches, unit};
use super::list::FrameList;
use super::member::{creases, crossings};
use super::solid::{BodyFault, FrameBodies};

/// A frame as built, with its cut list.
#[derive(Clone, Debug, Default)]
pub struct FrameMade {
    /// The frame.
    pub frame: Frame,
    /// Its cut list.
    pub list: FrameList,
    /// Its exact bodies, made once they are asked for.
    bodies: FrameBodies,
}

/// Something that can be measured on a frame.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FrameMeasure {
    /// Overall size of the metal along an axis; a height along z.
    Overall(Along),
    /// Between two nodes, or from a node to a node along an axis.
    Nodes(BetweenNodes),
    /// How much two diagonals differ.
    Diagonals(TwoDiagonals),
    /// The clear opening between two members that run the same way.
    Opening(BetweenMembers),
    /// The distance of two faces by their names, such as `rail.wall-1`: parallel planes, or the axes of round ones.
    Faces(BetweenMembers),
    /// The least distance of two pieces, members or plates.
    Clearance(BetweenMembers),
    /// The angle between two members, 0 to 90 deg.
    Between(BetweenMembers),
    /// Length of a member, long point to long point.
    MemberLength(OfMember),
    /// Length of a member, short point to short point.
    ShortLength(OfMember),
    /// The angle of a member's end from square.
    EndAngle(OfEnd),
    /// Mass of the frame or of a sub-weldment.
    FrameMass(OfWeldment),
    /// A coordinate of its centre of gravity.
    FrameCentre(Along),
    /// How many members have lines of this name or pattern.
    MemberCount(OfMember),
}

/// Two nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BetweenNodes {
    pub from: String,
    pub to: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<Axis>,
}

/// Two diagonals, each between two nodes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct TwoDiagonals {
    pub one: [String; 2],
    pub two: [String; 2],
}

/// Two members.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BetweenMembers {
    pub from: String,
    pub to: String,
}

/// A member.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfMember {
    pub member: String,
}

/// An end of a member.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfEnd {
    pub member: String,
    #[serde(default)]
    pub finish: bool,
}

/// The whole frame, or a sub-weldment of it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct OfWeldment {
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weldment: Option<String>,
}

impl FrameMeasure {
    /// What kind of number it gives.
    pub fn dimension(&self) -> Dimension {
        match self {
            FrameMeasure::Between(_) | FrameMeasure::EndAngle(_) => Dimension::ANGLE,
            FrameMeasure::FrameMass(_) => Dimension::MASS,
            FrameMeasure::MemberCount(_) => Dimension::NUMBER,
            _ => Dimension::LENGTH,
        }
    }

    /// What is measured, in words.
    pub fn words(&self) -> String {
        match self {
            FrameMeasure::Overall(one) => format!("overall size along {}", one.along.letter()),
            FrameMeasure::Nodes(one) => match one.along {
                Some(axis) => format!("{} to {} along {}", one.from, one.to, axis.letter()),
                None => format!("{} to {}", one.from, one.to),
            },
            FrameMeasure::Diagonals(two) => {
                format!(
                    "difference of the diagonals {} to {} and {} to {}",
                    two.one[0], two.one[1], two.two[0], two.two[1]
                )
            }
            FrameMeasure::Opening(two) => format!("clear opening between {} and {}", two.from, two.to),
            FrameMeasure::Faces(two) => format!("distance from {} to {}", two.from, two.to),
            FrameMeasure::Clearance(two) => format!("clearance between {} and {}", two.from, two.to),
            FrameMeasure::Between(two) => format!("angle between {} and {}", two.from, two.to),
            FrameMeasure::MemberLength(one) => format!("length of {}, long point to long point", one.member),
            FrameMeasure::ShortLength(one) => format!("length of {}, short point to short point", one.member),
            FrameMeasure::EndAngle(one) => {
                format!("cut of {} at its {}, from square", one.member, if one.finish { "finish" } else { "start" })
            }
            FrameMeasure::FrameMass(of) => match &of.weldment {
                Some(name) => format!("mass of {name}"),
                None => "mass".into(),
            },
            FrameMeasure::FrameCentre(one) => format!("centre of gravity along {}", one.along.letter()),
            FrameMeasure::MemberCount(one) => format!("number of members {}", one.member),
        }
    }

    /// Names of what is measured.
    pub fn features(&self) -> Vec<String> {
        match self {
            FrameMeasure::Nodes(one) => vec![one.from.clone(), one.to.clone()],
            FrameMeasure::Opening(two)
            | FrameMeasure::Between(two)
            | FrameMeasure::Faces(two)
            | FrameMeasure::Clearance(two) => vec![two.from.clone(), two.to.clone()],
            FrameMeasure::MemberLength(one) | FrameMeasure::ShortLength(one) | FrameMeasure::MemberCount(one) => {
                vec![one.member.clone()]
            }
            FrameMeasure::EndAngle(one) => vec![one.member.clone()],
            _ => Vec::new(),
        }
    }
}

fn fault(message: String, way_out: &str) -> MeasureError {
    MeasureError { message, way_out: way_out.into() }
}

impl FrameMade {
    pub(super) fn member(&self, name: &str) -> Result<usize, MeasureError> {
        self.frame
            .members
            .iter()
            .position(|member| member.name == name || member.lines.iter().any(|line| line.name == name))
            .ok_or_else(|| fault(format!("there is no member called {name}"), "Name a member of the frame."))
    }

    fn node(&self, name: &str) -> Result<Point3, MeasureError> {
        self.frame
            .skeleton
            .node(name)
            .ok_or_else(|| fault(format!("there is no node called {name}"), "Name a node of the skeleton."))
    }

    /// A frame as built, with its list.
    pub fn new(frame: Frame, list: FrameList) -> FrameMade {
        let bodies = FrameBodies::new(frame.members.len());
        FrameMade { frame, list, bodies }
    }

    /// The exact body of a member where it lies.
    ///
    /// # Errors
    /// [`BodyFault`] where something of it is told in facets only.
    pub fn member_body(&self, at: usize) -> Result<&Body, BodyFault> {
        self.bodies.member(&self.frame.members, at)
    }

    /// The box around a member by its body, mm.
    ///
    /// # Errors
    /// As [`member_body`](Self::member_body).
    pub fn member_extents(&self, at: usize) -> Result<Box3, BodyFault> {
        self.bodies.extents(&self.frame.members, at)
    }

    /// The exact body of the first member that has the shape of this one, and which that is.
    ///
    /// # Errors
    /// As [`member_body`](Self::member_body).
    pub fn shape_body(&self, at: usize) -> Result<(usize, &Body), BodyFault> {
        let first = self.bodies.firsts(&self.frame.members)[at];
        Ok((first, self.member_body(first)?))
    }

    /// The first member that has the shape of this one.
    pub fn first_of_shape(&self, at: usize) -> usize {
        self.bodies.firsts(&self.frame.members)[at]
    }

    /// The mesh of the first member of a member's shape and the motion that carries it to the member; `None` without a body.
    pub(super) fn shown(&self, at: usize) -> Option<(&Mesh, Motion)> {
        self.bodies.shown(&self.frame.members, at)
    }

    /// The exact bodies of its plates.
    pub fn plate_bodies(&self) -> &[Result<Body, String>] {
        self.bodies.plates(&self.frame.plates)
    }

    /// The box around everything by the corners of sections and plates, mm: what the audit holds [`extents`](Self::extents)
    /// against.
    pub fn extents_by_corners(&self) -> Box3 {
        let mut around = Box3::EMPTY;
        self.corners().for_each(|place| around.hold(place));
        around
    }

    /// Places of the metal's corners, arcs within 0.0005 mm.
    fn corners(&self) -> impl Iterator<Item = Point3> + '_ {
        // A member with cutouts is what they leave of it.
        let bodies = self.frame.members.iter().flat_map(|member| {
            if member.has_cutouts() { super::cutout::bodies(member).to_vec() } else { vec![member.clone()] }
        });
        let members = bodies.flat_map(|member| {
            let mut points = member.region.outer.flatten(0.0005);
            if member.ends.iter().any(|end| !end.copes.is_empty()) {
                // A cope turns sharply where it leaves the flank of its round.
                let fine = |one: Segment| (0..4096).map(move |step| one.at(f64::from(step) / 4096.0));
                points = member.region.outer.segments().flat_map(|(one, _)| fine(one)).collect();
                // And has a corner of its own where both are of one size.
                let flanks = |one: Segment| {
                    let ends = member.ends.iter().flat_map(|end| &end.copes);
                    let ways = ends.map(|cope| Vector::new(cope.axis.y, -cope.axis.x).unit());
                    let tips = ways.flat_map(move |way| [way, -way].map(|way| one.centre() + way * one.radius()));
                    tips.filter(|&tip| !one.is_line() && one.sweeps_over(tip)).collect::<Vec<_>>()
                };
                points.extend(member.region.outer.segments().flat_map(|(one, _)| flanks(one)));
            }
            // Where two planes of an end meet on its outside there is a corner too.
            let lines: Vec<_> = member.ends.iter().flat_map(creases).collect();
            member.region.outer.segments().for_each(|(one, _)| crossings(&one, &lines, &mut points));
            let pieces = member.pieces();
            points
                .into_iter()
                .flat_map(move |at: Point| {
                    let mut places = vec![
                        member.start.place(at.x, at.y, member.begins(at)),
                        member.finish.place(at.x, at.y, member.finishes(at)),
                    ];
                    places.extend(pieces.iter().skip(1).map(|piece| piece.from.place(at.x, at.y, 0.0)));
                    places
                })
                .collect::<Vec<_>>()
        });
        let plates = self.frame.plates.iter().flat_map(|plate| {
            let part = &plate.part;
            if !part.flat.bends.is_empty() {
                // Bent ones as they are folded.
                let mesh = crate::sheet::folded_mesh(&part.flat, &part.tree, &part.folded, 0.002);
                let points = mesh.map(|(mesh, _)| mesh.points).unwrap_or_default();
                return points.into_iter().map(|at| plate.basis.place(at.x, at.y, at.z)).collect::<Vec<_>>();
            }
            let points = plate.part.blank.region.outer.flatten(0.0005);
            points
                .into_iter()
                .flat_map(|at| [0.0, plate.thickness].map(|t| plate.basis.place(at.x, at.y, t)))
                .collect::<Vec<_>>()
        });
        members.chain(plates)
    }

    /// The box around everything by its bodies, mm; `None` while nothing is built. What has no exact body counts by its corners.
    pub fn extents(&self) -> Option<Box3> {
        let plates = self.plate_bodies();
        let mut around = Box3::EMPTY;
        let mut all_exact = true;
        let members = (0..self.frame.members.len()).map(|at| self.member_extents(at).ok());
        for own in members.chain(plates.iter().map(|body| body.as_ref().ok().map(Body::extents))) {
            match own {
                Some(own) => {
                    around.hold(own.low);
                    around.hold(own.high);
                }
                None => all_exact = false,
            }
        }
        if !all_exact {
            let own = self.extents_by_corners();
            around.hold(own.low);
            around.hold(own.high);
        }
        (!self.frame.members.is_empty() || !plates.is_empty()).then_some(around)
    }

    /// From where to where a thing is measured, for a dimension line.
    pub fn span(&self, what: &FrameMeasure) -> Option<[Point3; 2]> {
        let ends = |name: &str| {
            let member = &self.frame.members[self.member(name).ok()?];
            let at = member.region.centroid();
            Some([
                member.start.place(at.x, at.y, member.begins(at)),
                member.finish.place(at.x, at.y, member.finishes(at)),
            ])
        };
        match what {
            FrameMeasure::Nodes(one) => Some([self.node(&one.from).ok()?, self.node(&one.to).ok()?]),
            FrameMeasure::MemberLength(one) | FrameMeasure::ShortLength(one) => ends(&one.member),
            FrameMeasure::Faces(two) => self.between_faces(two).ok(),
            FrameMeasure::Clearance(two) => self.nearest_places(two).ok(),
            FrameMeasure::Opening(two) | FrameMeasure::Between(two) => {
                let (a, b) = (ends(&two.from)?, ends(&two.to)?);
                let middle = |pair: [Point3; 2]| pair[0] + (pair[1] - pair[0]) * 0.5;
                Some([middle(a), middle(b)])
            }
            FrameMeasure::Overall(one) => {
                let around = self.extents()?;
                let (mut from, mut to) = (around.low, around.low);
                match one.along {
                    Axis::X => to.x = around.high.x,
                    Axis::Y => to.y = around.high.y,
                    Axis::Z => to.z = around.high.z,
                }
                if one.along == Axis::Z {
                    from.x = around.high.x;
                    to.x = around.high.x;
                }
                Some([from, to])
            }
            _ => None,
        }
    }

    /// Measures.
    ///
    /// # Errors
    /// A name that is not there; members that do not stand as the measure needs.
    pub fn measure(&self, what: &FrameMeasure) -> Result<Measured, MeasureError> {
        let value = match what {
            FrameMeasure::Overall(one) => {
                let around =
                    self.extents().ok_or_else(|| fault("nothing is built yet".into(), "Put a section on a line."))?;
                unit(one.along).dot(around.size())
            }
            FrameMeasure::Nodes(one) => {
                let way = self.node(&one.to)? - self.node(&one.from)?;
                one.along.map_or(way.length(), |axis| unit(axis).dot(way).abs())
            }
            FrameMeasure::Diagonals(two) => {
                let long =
                    |pair: &[String; 2]| Ok::<f64, MeasureError>(self.node(&pair[0])?.distance(self.node(&pair[1])?));
                (long(&two.one)? - long(&two.two)?).abs()
            }
            FrameMeasure::Opening(two) => self.opening(two)?,
            FrameMeasure::Faces(two) => {
                let [from, to] = self.between_faces(two)?;
                from.distance(to)
            }
            FrameMeasure::Clearance(two) => {
                let [from, to] = self.nearest_places(two)?;
                from.distance(to)
            }
            FrameMeasure::Between(two) => {
                let way = |name: &str| Ok::<Vector3, MeasureError>(self.frame.members[self.member(name)?].start.w);
                let angle = way(&two.from)?.angle_to(way(&two.to)?);
                angle.min(std::f64::consts::PI - angle)
            }
            FrameMeasure::MemberLength(one) => self.frame.members[self.member(&one.member)?].length(),
            FrameMeasure::ShortLength(one) => self.frame.members[self.member(&one.member)?].short_length(),
            FrameMeasure::EndAngle(one) => {
                let member = &self.frame.members[self.member(&one.member)?];
                super::list::end_words(member, one.finish, 0.0).angle.abs()
            }
            FrameMeasure::FrameMass(of) => {
                let wanted = of.weldment.clone().unwrap_or_default();
                self.list.sums.iter().find(|sum| sum.weldment == wanted).map(|sum| sum.mass).ok_or_else(|| {
                    fault(format!("there is no sub-weldment called {wanted}"), "Name one of the frame's.")
                })?
            }
            FrameMeasure::FrameCentre(one) => {
                let sum = self
                    .list
                    .sums
                    .first()
                    .ok_or_else(|| fault("nothing is built yet".into(), "Put a section on a line."))?;
                unit(one.along).dot(sum.centre_of_gravity.from_origin())
            }
            FrameMeasure::MemberCount(one) => {
                let count = self
                    .frame
                    .members
                    .iter()
                    .filter(|member| member.group == one.member || matches(&one.member, &member.name))
                    .count();
                count as f64
            }
        };
        Ok(Measured { value, dimension: what.dimension() })
    }

    fn opening(&self, two: &BetweenMembers) -> Result<f64, MeasureError> {
        let (one, other) = (&self.frame.members[self.member(&two.from)?], &self.frame.members[self.member(&two.to)?]);
        if one.start.w.cross(other.start.w).length() > 1e-6 {
            return Err(fault(
                format!(
                    "{} and {} do not run the same way, so the opening between them has no one size",
                    two.from, two.to
                ),
                "Name two parallel members.",
            ));
        }
        let between = other.start.origin - one.start.origin;
        let across = between - one.start.w * between.dot(one.start.w);
        let distance = across.length();
        if distance < 1e-9 {
            return Err(fault("these members lie in one line".into(), "Name two members side by side."));
        }
        let way = across * (1.0 / distance);
        let reach = |member: &super::member::Member, way: Vector3| {
            member
                .region
                .outer
                .flatten(0.0005)
                .iter()
                .map(|at| (member.start.u * at.x + member.start.v * at.y).dot(way))
                .fold(f64::NEG_INFINITY, f64::max)
        };
        Ok(distance - reach(one, way) - reach(other, -way))
    }
}
