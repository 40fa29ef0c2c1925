//! A frame as built, with its cut list and its exact bodies.

use crate::plane::{Point, Segment, Vector};
use crate::space::{Body, Box3, Mesh, Motion, Point3};

use super::end::{creases, crossings};
use super::laid_plate::FramePlate;
use super::list::FrameList;
use super::member::Member;
use super::model::Frame;
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

impl FrameMade {
    /// A frame as built, with its list.
    pub fn new(frame: Frame, list: FrameList) -> FrameMade {
        let bodies = FrameBodies::new(frame.members.len());
        FrameMade { frame, list, bodies }
    }

    /// The first of the members that a line of the cut list, by its index, stands for; `None` for a line of plates.
    pub fn member_of_line(&self, line: usize) -> Option<&Member> {
        self.list.line_of.iter().position(|own| *own == line).map(|at| &self.frame.members[at])
    }

    /// The first of the plates that a line of the cut list, by its index, stands for; `None` for a line of members.
    pub fn plate_of_line(&self, line: usize) -> Option<&FramePlate> {
        self.list.line_of_plate.iter().position(|own| *own == line).map(|at| &self.frame.plates[at])
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
            if member.has_cutouts() { super::plain::bodies(member).to_vec() } else { vec![member.clone()] }
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
}
