//! Where on a frame each thing is measured.

use crate::frame::{FrameMade, Member};
use crate::quantity::NodeName;
use crate::space::{Point3, Vector3};
use crate::work::frame::OneEnd;
use crate::work::measure::{Axis, BetweenMembers, FrameMeasure};

use super::Witness;

/// Both ends of a member on the fibre through its centroid.
fn ends(member: &Member) -> [Point3; 2] {
    let at = member.region.centroid();
    [member.start.place(at.x, at.y, member.begins(at)), member.finish.place(at.x, at.y, member.finishes(at))]
}

fn halfway([from, to]: [Point3; 2]) -> Point3 {
    from + (to - from) * 0.5
}

/// From a long point to the other, or from a short point; of a bent member its chord.
fn point_to_point(member: &Member, short: bool) -> Witness {
    let at = |which: OneEnd| member.points_of_reach(which)[usize::from(short)];
    let [(start, begins), (finish, finishes)] = OneEnd::BOTH.map(at);
    let from = member.start.place(start.x, start.y, begins);
    let to = member.finish.place(finish.x, finish.y, finishes);
    if !member.is_straight() {
        return Witness::straight(from, to);
    }
    // What the saw's grip needs is part of the length, and not of the short one.
    let grip = member.start.w * if short { 0.0 } else { member.grip };
    Witness::made(from + -grip, to + grip, member.start.w)
}

impl FrameMade {
    /// The witnesses of a measure; none for what is of the whole, or cannot be measured.
    pub(super) fn witnesses(&self, what: &FrameMeasure) -> Vec<Witness> {
        match what {
            FrameMeasure::Diagonals(two) => {
                [&two.one, &two.two].into_iter().filter_map(|pair| self.diagonal(pair)).collect()
            }
            // Of the whole: no two places bound them.
            FrameMeasure::FrameMass(_) | FrameMeasure::MemberCount(_) => Vec::new(),
            _ => self.witness(what).into_iter().collect(),
        }
    }

    fn diagonal(&self, [from, to]: &[NodeName; 2]) -> Option<Witness> {
        Some(Witness::straight(self.node(from).ok()?, self.node(to).ok()?))
    }

    fn called(&self, name: &str) -> Option<&Member> {
        self.member(name).ok().map(|at| &self.frame.members[at])
    }

    fn witness(&self, what: &FrameMeasure) -> Option<Witness> {
        match what {
            FrameMeasure::Overall(one) => self.across(one.along),
            FrameMeasure::Nodes(one) => {
                let (from, to) = (self.node(&one.from).ok()?, self.node(&one.to).ok()?);
                Some(one.along.map_or(Witness::straight(from, to), |axis| Witness::made(from, to, axis.unit())))
            }
            FrameMeasure::Opening(two) => self.clear(two),
            FrameMeasure::Faces(two) => self.between_faces(two).ok().map(|[from, to]| Witness::straight(from, to)),
            FrameMeasure::Clearance(two) => self.nearest_places(two).ok().map(|[from, to]| Witness::straight(from, to)),
            FrameMeasure::Between(two) => {
                let (one, other) = (self.called(&two.from)?, self.called(&two.to)?);
                let about = one.start.w.cross(other.start.w).unit();
                Some(Witness::made(halfway(ends(one)), halfway(ends(other)), about))
            }
            FrameMeasure::MemberLength(one) => Some(point_to_point(self.called(&one.member)?, false)),
            FrameMeasure::ShortLength(one) => Some(point_to_point(self.called(&one.member)?, true)),
            FrameMeasure::EndAngle(one) => {
                let member = self.called(&one.member)?;
                let [(long, _), (short, _)] = member.points_of_reach(one.which());
                let basis = member.basis(one.which());
                let reach = |at| member.sawn_reach(one.which(), at);
                let place = |at: crate::plane::Point| basis.place(at.x, at.y, reach(at));
                let (from, to) = (place(long), place(short));
                Some(Witness::made(from, to, basis.w.cross(to - from).unit()))
            }
            FrameMeasure::FrameCentre(one) => {
                let at = self.list.sums.first()?.centre_of_gravity;
                Some(Witness::made(Point3::default(), at, one.along.unit()))
            }
            FrameMeasure::Diagonals(_) | FrameMeasure::FrameMass(_) | FrameMeasure::MemberCount(_) => None,
        }
    }

    /// Along one side of the box around everything.
    fn across(&self, along: Axis) -> Option<Witness> {
        let around = self.extents()?;
        let way = along.unit();
        // A height stands beside the frame's right side, where it is seen.
        let from = match along {
            Axis::X | Axis::Y => around.low,
            Axis::Z => Point3::new(around.high.x, around.low.y, around.low.z),
        };
        Some(Witness::made(from, from + way * along.of(around.size()), way))
    }

    /// From the one face that looks at the other member to the face that looks back, halfway along the first.
    fn clear(&self, two: &BetweenMembers) -> Option<Witness> {
        let (way, distance, reach, [one, _]) = self.facing(two).ok()?;
        // A place of the first member's own line, as far along it as its middle.
        let along: Vector3 = one.start.w;
        let from = one.start.origin;
        let from = from + along * (halfway(ends(one)) - from).dot(along);
        Some(Witness::made(from + way * reach[0], from + way * (distance - reach[1]), way))
    }
}
