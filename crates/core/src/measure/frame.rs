//! What call-outs measure on a frame, always on what was built.

use crate::frame::{FrameMade, Member, end_words, matches};
use crate::quantity::NodeName;
use crate::space::{Point3, Vector3};
use crate::work::measure::{Axis, BetweenMembers, FrameMeasure};

use super::{MeasureError, Measured};

pub(super) fn fault(message: String, way_out: &str) -> MeasureError {
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
                one.along.of(around.size())
            }
            FrameMeasure::Nodes(one) => {
                let way = self.node(&one.to)? - self.node(&one.from)?;
                one.along.map_or(way.length(), |axis| axis.of(way).abs())
            }
            FrameMeasure::Diagonals(two) => {
                let long =
                    |pair: &[NodeName; 2]| Ok::<f64, MeasureError>(self.node(&pair[0])?.distance(self.node(&pair[1])?));
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
                end_words(member, one.finish, 0.0).angle.abs()
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
                one.along.of(sum.centre_of_gravity.from_origin())
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
        let reach = |member: &Member, way: Vector3| {
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
