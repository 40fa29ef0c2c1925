//! From statements to equations: each is zero, in millimetres, when what is said is true.

use super::dual::{Dual, WIDTH};
use super::sketch::{CircleAt, EdgeAt, PointAt, Sketch, Statement, StatementKind};

/// A sparse row: the unknowns that an equation speaks of and its slope by each, and its value.
#[derive(Clone, Debug)]
pub(super) struct Row {
    pub unknowns: Vec<usize>,
    pub slopes: [f64; WIDTH],
    pub value: f64,
}

/// One equation, its choices (which side, which way round) settled from the drawn shape.
#[derive(Clone, Debug)]
pub(super) struct Equation {
    form: Form,
    /// The statement it came from; `None` for what holds arcs together.
    pub statement: Option<usize>,
}

#[derive(Clone, Copy, Debug)]
enum Form {
    Distance(PointAt, PointAt, f64),
    Along(PointAt, PointAt, usize, f64),
    FromEdge(PointAt, EdgeAt, f64),
    /// Directed angle between two directions, each from point to point; target; millimetres a radian.
    Turn([PointAt; 4], f64, f64),
    /// Cross (true) or dot of two unit directions, in millimetres.
    Aligned([PointAt; 4], bool, f64),
    Radius(CircleAt, f64),
    SumOfRadii(CircleAt, CircleAt, f64, f64, f64),
    EqualLength(EdgeAt, EdgeAt),
    EqualRadius(CircleAt, CircleAt),
    Level(EdgeAt, usize),
    TangentLine(EdgeAt, CircleAt, f64),
    OnCircle(PointAt, CircleAt),
    Same(PointAt, PointAt, usize),
    Middle(PointAt, EdgeAt, usize),
    MiddleOn(PointAt, PointAt, EdgeAt),
}

/// The equations of a sketch, arcs' own first, then its statements' in order.
pub(super) fn equations(sketch: &Sketch, scale: f64) -> Vec<Equation> {
    let mut all = Vec::new();
    for edge in &sketch.edges {
        if let Some(circle) = edge.circle {
            all.push(Equation { form: Form::OnCircle(edge.from, circle), statement: None });
            all.push(Equation { form: Form::OnCircle(edge.to, circle), statement: None });
        }
    }
    for (at, statement) in sketch.statements.iter().enumerate() {
        for form in forms(sketch, statement, scale) {
            all.push(Equation { form, statement: Some(at) });
        }
    }
    all
}

fn forms(sketch: &Sketch, statement: &Statement, scale: f64) -> Vec<Form> {
    use StatementKind as Say;
    let point = |at: PointAt| sketch.points[at];
    let edge = |at: EdgeAt| sketch.edges[at];
    let ends = |one: EdgeAt, two: EdgeAt| [edge(one).from, edge(one).to, edge(two).from, edge(two).to];
    // Which side as drawn; a dead heat counts as the positive side.
    let side = |value: f64| if value < 0.0 { -1.0 } else { 1.0 };
    let off_line = |at: PointAt, line: EdgeAt| {
        let (from, to) = (point(edge(line).from), point(edge(line).to));
        (to - from).unit().cross(point(at) - from)
    };
    match statement.kind {
        Say::Distance(one, two, value) => vec![Form::Distance(one, two, value)],
        Say::Across(one, two, value) => vec![Form::Along(one, two, 0, value * side(point(two).x - point(one).x))],
        Say::Up(one, two, value) => vec![Form::Along(one, two, 1, value * side(point(two).y - point(one).y))],
        Say::FromEdge(at, line, value) => vec![Form::FromEdge(at, line, value * side(off_line(at, line)))],
        Say::Angle(one, two, value) => {
            let (directions, open) = match sketch.shared_corner(one, two) {
                Some((far_one, corner, far_two)) => ([corner, far_one, corner, far_two], false),
                None => (ends(one, two), true),
            };
            let [a, b, c, d] = directions.map(point);
            let (u, v) = (b - a, d - c);
            let drawn = u.cross(v).atan2(u.dot(v));
            let mut target = value * side(drawn);
            if open && (std::f64::consts::PI - value - drawn.abs()).abs() < (value - drawn.abs()).abs() {
                target = (std::f64::consts::PI - value) * side(drawn);
            }
            vec![Form::Turn(directions, target, scale)]
        }
        Say::Radius(circle, value) => vec![Form::Radius(circle, value)],
        Say::Diameter(circle, value) => vec![Form::Radius(circle, value / 2.0)],
        Say::Gap(one, two, value) => {
            let (a, b) = (sketch.circles[one], sketch.circles[two]);
            let apart = point(a.centre).distance(point(b.centre));
            // Outside each other the radii come off; one inside the other the smaller sits within the larger.
            if apart >= a.radius.max(b.radius) {
                vec![Form::SumOfRadii(one, two, 1.0, 1.0, value)]
            } else if a.radius >= b.radius {
                vec![Form::SumOfRadii(one, two, 1.0, -1.0, -value)]
            } else {
                vec![Form::SumOfRadii(one, two, -1.0, 1.0, -value)]
            }
        }
        Say::EqualLength(one, two) => vec![Form::EqualLength(one, two)],
        Say::EqualRadius(one, two) => vec![Form::EqualRadius(one, two)],
        Say::Parallel(one, two) => vec![Form::Aligned(ends(one, two), true, scale)],
        Say::Square(one, two) => vec![Form::Aligned(ends(one, two), false, scale)],
        Say::Level(one) => vec![Form::Level(one, 1)],
        Say::Upright(one) => vec![Form::Level(one, 0)],
        Say::TangentLine(line, circle) => {
            // Where the line's end is on the circle, touching means square to that radius; the distance of the centre
            // would be at its turning point there and say nothing to first order.
            let on_circle = |at: PointAt| {
                sketch.edges.iter().any(|edge| edge.circle == Some(circle) && (edge.from == at || edge.to == at))
            };
            let centre = sketch.circles[circle].centre;
            let Some(corner) = [edge(line).from, edge(line).to].into_iter().find(|&at| on_circle(at)) else {
                return vec![Form::TangentLine(line, circle, side(off_line(centre, line)))];
            };
            vec![Form::Aligned([edge(line).from, edge(line).to, corner, centre], false, scale)]
        }
        Say::TangentCircles(one, two) => {
            let (a, b) = (sketch.circles[one], sketch.circles[two]);
            let on = |circle: CircleAt| {
                sketch
                    .edges
                    .iter()
                    .filter(move |edge| edge.circle == Some(circle))
                    .flat_map(|edge| [edge.from, edge.to])
            };
            if let Some(corner) = on(one).find(|&corner| on(two).any(|other| other == corner)) {
                return vec![Form::Aligned([corner, a.centre, corner, b.centre], true, scale)];
            }
            let apart = point(a.centre).distance(point(b.centre));
            let (outside, inside) = ((apart - a.radius - b.radius).abs(), (apart - (a.radius - b.radius).abs()).abs());
            if outside <= inside {
                vec![Form::SumOfRadii(one, two, 1.0, 1.0, 0.0)]
            } else if a.radius >= b.radius {
                vec![Form::SumOfRadii(one, two, 1.0, -1.0, 0.0)]
            } else {
                vec![Form::SumOfRadii(one, two, -1.0, 1.0, 0.0)]
            }
        }
        Say::Concentric(one, two) => {
            let (a, b) = (sketch.circles[one].centre, sketch.circles[two].centre);
            vec![Form::Same(a, b, 0), Form::Same(a, b, 1)]
        }
        Say::Collinear(one, two) => {
            vec![Form::FromEdge(edge(two).from, one, 0.0), Form::FromEdge(edge(two).to, one, 0.0)]
        }
        Say::OnEdge(at, line) => vec![Form::FromEdge(at, line, 0.0)],
        Say::Middle(at, line) => vec![Form::Middle(at, line, 0), Form::Middle(at, line, 1)],
        Say::Symmetric(one, two, line) => vec![
            Form::Aligned([one, two, edge(line).from, edge(line).to], false, scale),
            Form::MiddleOn(one, two, line),
        ],
    }
}

/// Gathers the unknowns that an equation reads.
struct Reading<'a> {
    sketch: &'a Sketch,
    vector: &'a [f64],
    unknowns: Vec<usize>,
}

#[derive(Clone, Copy)]
struct Pair(Dual, Dual);

impl Pair {
    fn minus(self, other: Pair) -> Pair {
        Pair(self.0 - other.0, self.1 - other.1)
    }
    fn dot(self, other: Pair) -> Dual {
        self.0 * other.0 + self.1 * other.1
    }
    fn cross(self, other: Pair) -> Dual {
        self.0 * other.1 - self.1 * other.0
    }
    fn length(self) -> Dual {
        self.dot(self).sqrt()
    }
    fn coordinate(self, which: usize) -> Dual {
        if which == 0 { self.0 } else { self.1 }
    }
}

impl Reading<'_> {
    fn unknown(&mut self, at: usize) -> Dual {
        let place = self.unknowns.iter().position(|&known| known == at).unwrap_or_else(|| {
            self.unknowns.push(at);
            self.unknowns.len() - 1
        });
        Dual::unknown(self.vector[at], place)
    }

    fn point(&mut self, at: PointAt) -> Pair {
        Pair(self.unknown(2 * at), self.unknown(2 * at + 1))
    }

    fn edge(&mut self, at: EdgeAt) -> (Pair, Pair) {
        let edge = self.sketch.edges[at];
        (self.point(edge.from), self.point(edge.to))
    }

    fn radius(&mut self, at: CircleAt) -> Dual {
        self.unknown(2 * self.sketch.points.len() + at)
    }

    fn centre(&mut self, at: CircleAt) -> Pair {
        self.point(self.sketch.circles[at].centre)
    }

    fn off_line(&mut self, at: Pair, line: EdgeAt) -> Dual {
        let (from, to) = self.edge(line);
        let along = to.minus(from);
        along.cross(at.minus(from)) / along.length()
    }
}

impl Equation {
    /// Its value and slopes at these unknowns.
    pub fn row(&self, sketch: &Sketch, vector: &[f64]) -> Row {
        let mut read = Reading { sketch, vector, unknowns: Vec::with_capacity(WIDTH) };
        let plain = Dual::plain;
        let result = match self.form {
            Form::Distance(one, two, value) => {
                let (a, b) = (read.point(one), read.point(two));
                b.minus(a).length() - plain(value)
            }
            Form::Along(one, two, which, value) => {
                let (a, b) = (read.point(one), read.point(two));
                b.minus(a).coordinate(which) - plain(value)
            }
            Form::FromEdge(at, line, value) => {
                let at = read.point(at);
                read.off_line(at, line) - plain(value)
            }
            Form::Turn([a, b, c, d], target, scale) => {
                let (u, v) = {
                    let (a, b, c, d) = (read.point(a), read.point(b), read.point(c), read.point(d));
                    (b.minus(a), d.minus(c))
                };
                let mut turn = Dual::atan2(u.cross(v), u.dot(v)) - plain(target);
                turn.value =
                    (turn.value + std::f64::consts::PI).rem_euclid(std::f64::consts::TAU) - std::f64::consts::PI;
                turn * plain(scale)
            }
            Form::Aligned([a, b, c, d], cross, scale) => {
                let (a, b, c, d) = (read.point(a), read.point(b), read.point(c), read.point(d));
                let (u, v) = (b.minus(a), d.minus(c));
                let product = if cross { u.cross(v) } else { u.dot(v) };
                product / (u.length() * v.length()) * plain(scale)
            }
            Form::Radius(circle, value) => read.radius(circle) - plain(value),
            Form::SumOfRadii(one, two, first, second, value) => {
                let apart = read.centre(two).minus(read.centre(one)).length();
                let radii = read.radius(one) * plain(first) + read.radius(two) * plain(second);
                apart - radii - plain(value)
            }
            Form::EqualLength(one, two) => {
                let ((a, b), (c, d)) = (read.edge(one), read.edge(two));
                b.minus(a).length() - d.minus(c).length()
            }
            Form::EqualRadius(one, two) => read.radius(one) - read.radius(two),
            Form::Level(line, which) => {
                let (a, b) = read.edge(line);
                b.minus(a).coordinate(which)
            }
            Form::TangentLine(line, circle, side) => {
                let centre = read.centre(circle);
                read.off_line(centre, line) * plain(side) - read.radius(circle)
            }
            Form::OnCircle(at, circle) => {
                let (at, centre) = (read.point(at), read.centre(circle));
                at.minus(centre).length() - read.radius(circle)
            }
            Form::Same(one, two, which) => {
                let (a, b) = (read.point(one), read.point(two));
                b.minus(a).coordinate(which)
            }
            Form::Middle(at, line, which) => {
                let at = read.point(at);
                let (from, to) = read.edge(line);
                (at.minus(from).coordinate(which) + at.minus(to).coordinate(which)) * plain(0.5)
            }
            Form::MiddleOn(one, two, line) => {
                let (a, b) = (read.point(one), read.point(two));
                let middle = Pair((a.0 + b.0) * plain(0.5), (a.1 + b.1) * plain(0.5));
                read.off_line(middle, line)
            }
        };
        Row { unknowns: read.unknowns, slopes: result.slope, value: result.value }
    }
}
