//! What call-outs measure on a frame, always on what was built.

use crate::frame::{FrameMade, Member, end_words, matches};
use crate::quantity::NodeName;
use crate::quantity::tolerance::{NO_TURN, ROUNDING};
use crate::space::{Point3, Vector3};
use crate::work::measure::{BetweenMembers, FrameMeasure};

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

    pub(super) fn node(&self, name: &str) -> Result<Point3, MeasureError> {
        self.frame
            .skeleton
            .node(name)
            .ok_or_else(|| fault(format!("there is no node called {name}"), "Name a node of the skeleton."))
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
                end_words(member, one.which(), 0.0, self.frame.unit).angle.abs()
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
        Ok(Measured { value, dimension: what.dimension(), witnesses: self.witnesses(what) })
    }

    fn opening(&self, two: &BetweenMembers) -> Result<f64, MeasureError> {
        let (_, distance, [one, other], _) = self.facing(two)?;
        Ok(distance - one - other)
    }

    /// Two parallel members side by side: the way from the first to the second, how far apart their lines are, how far each reaches
    /// toward the other, and which they are.
    pub(super) fn facing(&self, two: &BetweenMembers) -> Result<(Vector3, f64, [f64; 2], [&Member; 2]), MeasureError> {
        let (one, other) = (&self.frame.members[self.member(&two.from)?], &self.frame.members[self.member(&two.to)?]);
        if one.start.w.cross(other.start.w).length() > NO_TURN {
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
        if distance < ROUNDING {
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
        Ok((way, distance, [reach(one, way), reach(other, -way)], [one, other]))
    }
}
