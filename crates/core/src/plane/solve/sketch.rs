//! What is solved: points, straight and round edges, circles, and what is said of them.

use crate::plane::Point;

/// A point's place in [`Sketch::points`].
pub type PointAt = usize;
/// An edge's place in [`Sketch::edges`].
pub type EdgeAt = usize;
/// A circle's place in [`Sketch::circles`]: an arc's circle too.
pub type CircleAt = usize;

/// A straight or round edge between two points.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Edge {
    /// Where it begins.
    pub from: PointAt,
    /// Where it ends.
    pub to: PointAt,
    /// Of an arc: the circle that it lies on.
    pub circle: Option<CircleAt>,
}

/// A circle, or the circle of an arc.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Circle {
    /// Its centre, a point of the sketch.
    pub centre: PointAt,
    /// Its radius as drawn, mm.
    pub radius: f64,
}

/// Rough places and what is said of them.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Sketch {
    /// Rough places, mm.
    pub points: Vec<Point>,
    /// Edges.
    pub edges: Vec<Edge>,
    /// Circles and the circles of arcs.
    pub circles: Vec<Circle>,
    /// What the drawing says, in its order.
    pub statements: Vec<Statement>,
}

/// One thing said of the sketch, with the name that messages call it by.
#[derive(Clone, Debug, PartialEq)]
pub struct Statement {
    /// A call-out's name, or words such as "e1 parallel to e3".
    pub name: String,
    /// What is said.
    pub kind: StatementKind,
}

/// What can be said. Lengths in mm, angles in radians.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum StatementKind {
    /// From point to point.
    Distance(PointAt, PointAt, f64),
    /// From point to point along x, on the side it is drawn.
    Across(PointAt, PointAt, f64),
    /// From point to point along y, on the side it is drawn.
    Up(PointAt, PointAt, f64),
    /// From a point to the line of an edge, square to it.
    FromEdge(PointAt, EdgeAt, f64),
    /// Between two straight edges: the included angle where they share a corner, else whichever of the two angles
    /// between their lines is nearer to how they are drawn.
    Angle(EdgeAt, EdgeAt, f64),
    /// Radius of a circle or arc.
    Radius(CircleAt, f64),
    /// Diameter of a circle or arc.
    Diameter(CircleAt, f64),
    /// Between two circles edge to edge, the nearest way.
    Gap(CircleAt, CircleAt, f64),
    /// Two straight edges of one length.
    EqualLength(EdgeAt, EdgeAt),
    /// Two circles of one radius.
    EqualRadius(CircleAt, CircleAt),
    /// Two straight edges side by side.
    Parallel(EdgeAt, EdgeAt),
    /// Two straight edges square to each other.
    Square(EdgeAt, EdgeAt),
    /// A straight edge along x.
    Level(EdgeAt),
    /// A straight edge along y.
    Upright(EdgeAt),
    /// A straight edge touching a circle.
    TangentLine(EdgeAt, CircleAt),
    /// Two circles touching, from inside or outside as drawn.
    TangentCircles(CircleAt, CircleAt),
    /// Two circles about one centre.
    Concentric(CircleAt, CircleAt),
    /// Two straight edges on one line.
    Collinear(EdgeAt, EdgeAt),
    /// A point on the line of an edge.
    OnEdge(PointAt, EdgeAt),
    /// A point in the middle of an edge.
    Middle(PointAt, EdgeAt),
    /// Two points mirrored in the line of an edge.
    Symmetric(PointAt, PointAt, EdgeAt),
}

impl StatementKind {
    /// Whether it carries a number of the drawing (and so can be missing, implied or wrong).
    pub fn number(&self) -> Option<f64> {
        use StatementKind as Say;
        match *self {
            Say::Distance(.., value)
            | Say::Across(.., value)
            | Say::Up(.., value)
            | Say::FromEdge(.., value)
            | Say::Angle(.., value)
            | Say::Radius(_, value)
            | Say::Diameter(_, value)
            | Say::Gap(.., value) => Some(value),
            _ => None,
        }
    }

    /// Whether its number is an angle.
    pub fn is_angle(&self) -> bool {
        matches!(self, StatementKind::Angle(..))
    }
}

impl Sketch {
    /// How many unknowns it has: two a point, one a circle.
    pub fn unknowns(&self) -> usize {
        2 * self.points.len() + self.circles.len()
    }

    /// The unknowns as drawn: x and y of every point, then every radius.
    pub(super) fn vector(&self) -> Vec<f64> {
        let points = self.points.iter().flat_map(|point| [point.x, point.y]);
        points.chain(self.circles.iter().map(|circle| circle.radius)).collect()
    }

    /// The same sketch with these unknowns.
    pub(super) fn with(&self, unknowns: &[f64]) -> Sketch {
        let mut next = self.clone();
        for (at, point) in next.points.iter_mut().enumerate() {
            *point = Point::new(unknowns[2 * at], unknowns[2 * at + 1]);
        }
        let first = 2 * next.points.len();
        for (at, circle) in next.circles.iter_mut().enumerate() {
            circle.radius = unknowns[first + at];
        }
        next
    }

    /// A corner that two edges share, as (far end of one, corner, far end of two).
    pub(super) fn shared_corner(&self, one: EdgeAt, two: EdgeAt) -> Option<(PointAt, PointAt, PointAt)> {
        let (one, two) = (self.edges[one], self.edges[two]);
        for (far_one, corner_one) in [(one.from, one.to), (one.to, one.from)] {
            for (corner_two, far_two) in [(two.from, two.to), (two.to, two.from)] {
                if corner_one == corner_two {
                    return Some((far_one, corner_one, far_two));
                }
            }
        }
        None
    }
}
