//! A rough shape brought onto the drawing's numbers: names become places in a sketch, the sketch is solved, and what
//! came out is said in the names of the drawing.

use std::collections::HashMap;

use crate::plane::solve::{
    self, Circle, Edge, Loose, PointAt, Role, Sketch, Solution, Statement, StatementKind, measured,
};
use crate::plane::{Outline, Point};
use crate::quantity::LengthUnit;
use crate::quantity::tolerance::NO_TURN;
use crate::work::shape::{Drawn, SayingKind};

use super::laid::Laid;
use super::ready::bulge;
use super::standing::{Disagreement, LooseAt, NamedCircle, NamedPoint, SayingRole, SayingStands, Standing};
use super::underlay::{Traced, UnderlayStands};

/// The names of a rough shape and the sketch that they stand in.
pub(super) struct Names {
    sketch: Sketch,
    points: HashMap<String, PointAt>,
    point_names: Vec<String>,
    edges: HashMap<String, usize>,
    circles: HashMap<String, usize>,
    circle_names: Vec<String>,
}

/// A name given twice, or a place that is no number.
pub(super) struct NameFault {
    pub field: String,
    pub message: String,
    pub way_out: String,
}

impl Names {
    /// Gathers the names of a rough shape.
    pub fn new(drawn: &Drawn) -> Result<Names, NameFault> {
        let mut names = Names {
            sketch: Sketch::default(),
            points: HashMap::new(),
            point_names: Vec::new(),
            edges: HashMap::new(),
            circles: HashMap::new(),
            circle_names: Vec::new(),
        };
        for (at, corner) in drawn.corners.iter().enumerate() {
            names.point(&corner.name, corner.x, corner.y, &format!("corners.{at}"))?;
        }
        let count = drawn.corners.len();
        for (at, corner) in drawn.corners.iter().enumerate() {
            let field = format!("corners.{at}.edge");
            let next = (at + 1) % count;
            let mut edge = Edge { from: at, to: next, circle: None };
            if let Some(bulge) = corner.bulge.filter(|bulge| bulge.abs() > NO_TURN) {
                let (from, to) = (names.sketch.points[at], names.sketch.points[next]);
                let rough = crate::plane::Segment { start: from, end: to, bulge };
                let (centre, radius) = (rough.centre(), rough.radius());
                edge.circle = Some(names.circle(&corner.edge, centre.x, centre.y, radius, &field)?);
            }
            names.edge(&corner.edge, edge, &field)?;
        }
        for (at, circle) in drawn.circles.iter().enumerate() {
            names.circle(&circle.name, circle.x, circle.y, circle.radius, &format!("circles.{at}"))?;
        }
        for (at, guide) in drawn.guides.iter().enumerate() {
            let field = format!("guides.{at}");
            let from = names.point(&format!("{}.start", guide.name), guide.x1, guide.y1, &field)?;
            let to = names.point(&format!("{}.end", guide.name), guide.x2, guide.y2, &field)?;
            names.edge(&guide.name, Edge { from, to, circle: None }, &field)?;
        }
        Ok(names)
    }

    fn fresh(&self, name: &str, known: bool, field: &str) -> Result<(), NameFault> {
        if name.is_empty() || known {
            let message = if known {
                format!("{name} names two things")
            } else {
                "a part of the outline has no name".to_string()
            };
            return Err(NameFault { field: field.into(), message, way_out: "Give each a name of its own.".into() });
        }
        Ok(())
    }

    fn point(&mut self, name: &str, x: f64, y: f64, field: &str) -> Result<PointAt, NameFault> {
        self.fresh(name, self.points.contains_key(name), field)?;
        if !(x.abs() < 1e7 && y.abs() < 1e7) {
            return Err(NameFault {
                field: field.into(),
                message: format!("{name} stands at {x}, {y}: beyond 10 km"),
                way_out: "Click it nearer to the others.".into(),
            });
        }
        self.sketch.points.push(Point::new(x, y));
        self.points.insert(name.into(), self.sketch.points.len() - 1);
        self.point_names.push(name.into());
        Ok(self.sketch.points.len() - 1)
    }

    fn edge(&mut self, name: &str, edge: Edge, field: &str) -> Result<(), NameFault> {
        self.fresh(name, self.edges.contains_key(name), field)?;
        self.sketch.edges.push(edge);
        self.edges.insert(name.into(), self.sketch.edges.len() - 1);
        Ok(())
    }

    fn circle(&mut self, name: &str, x: f64, y: f64, radius: f64, field: &str) -> Result<usize, NameFault> {
        self.fresh(name, self.circles.contains_key(name), field)?;
        if !(radius > 0.0 && radius < 1e7) {
            return Err(NameFault {
                field: field.into(),
                message: format!("{name} has a rough radius of {radius}"),
                way_out: "Draw it with some size; its number is put on afterwards.".into(),
            });
        }
        let centre = self.point(&format!("{name}.centre"), x, y, field)?;
        self.sketch.circles.push(Circle { centre, radius });
        self.circles.insert(name.into(), self.sketch.circles.len() - 1);
        self.circle_names.push(name.into());
        Ok(self.sketch.circles.len() - 1)
    }

    fn straight(&self, name: &str) -> Option<usize> {
        self.edges.get(name).copied().filter(|&at| self.sketch.edges[at].circle.is_none())
    }

    /// A point, or the centre that a circle stands on.
    fn spot(&self, name: &str) -> Option<PointAt> {
        self.points.get(name).copied().or_else(|| self.circles.get(name).map(|&at| self.sketch.circles[at].centre))
    }

    /// What a saying comes to, or what it can be said of, in words.
    pub fn statement(&self, what: SayingKind, of: &[String], value: f64) -> Result<StatementKind, &'static str> {
        use SayingKind as Kind;
        use StatementKind as Say;
        let names: Vec<&str> = of.iter().map(String::as_str).collect();
        let one_edge = || match names[..] {
            [one] => self.straight(one).map(|at| self.sketch.edges[at]),
            _ => None,
        };
        let two_edges = || match names[..] {
            [one, two] => self.straight(one).zip(self.straight(two)).filter(|(one, two)| one != two),
            _ => None,
        };
        let two_spots = || match names[..] {
            [one, two] => self.spot(one).zip(self.spot(two)).filter(|(one, two)| one != two),
            _ => None,
        };
        let two_circles = || match names[..] {
            [one, two] => {
                self.circles.get(one).copied().zip(self.circles.get(two).copied()).filter(|(one, two)| one != two)
            }
            _ => None,
        };
        let one_circle = || match names[..] {
            [one] => self.circles.get(one).copied(),
            _ => None,
        };
        // A point and an edge in either order.
        let spot_and_edge = || match names[..] {
            [one, two] => self.spot(one).zip(self.straight(two)).or_else(|| self.spot(two).zip(self.straight(one))),
            _ => None,
        };
        match what {
            Kind::Length => {
                if let Some(edge) = one_edge() {
                    return Ok(Say::Distance(edge.from, edge.to, value));
                }
                if let Some((one, two)) = two_edges() {
                    return Ok(Say::FromEdge(self.sketch.edges[two].from, one, value));
                }
                if let Some((one, two)) = two_spots() {
                    return Ok(Say::Distance(one, two, value));
                }
                let (point, edge) =
                    spot_and_edge().ok_or("a straight edge, two points, a point and an edge, or two circles")?;
                Ok(Say::FromEdge(point, edge, value))
            }
            Kind::Across | Kind::Up => {
                let ends = one_edge().map(|edge| (edge.from, edge.to)).or_else(two_spots);
                let (one, two) = ends.ok_or("a straight edge, two points or two circles")?;
                Ok(if what == Kind::Across { Say::Across(one, two, value) } else { Say::Up(one, two, value) })
            }
            Kind::Angle => two_edges().map(|(one, two)| Say::Angle(one, two, value)).ok_or("two straight edges"),
            Kind::Radius => one_circle().map(|at| Say::Radius(at, value)).ok_or("a circle or a round edge"),
            Kind::Diameter => one_circle().map(|at| Say::Diameter(at, value)).ok_or("a circle or a round edge"),
            Kind::Gap => two_circles().map(|(one, two)| Say::Gap(one, two, value)).ok_or("two circles"),
            Kind::Equal => two_edges()
                .map(|(one, two)| Say::EqualLength(one, two))
                .or_else(|| two_circles().map(|(one, two)| Say::EqualRadius(one, two)))
                .ok_or("two straight edges or two circles"),
            Kind::Parallel => two_edges().map(|(one, two)| Say::Parallel(one, two)).ok_or("two straight edges"),
            Kind::Square => two_edges().map(|(one, two)| Say::Square(one, two)).ok_or("two straight edges"),
            Kind::Level | Kind::Upright => {
                let at = match names[..] {
                    [one] => self.straight(one),
                    _ => None,
                };
                at.map(|at| if what == Kind::Level { Say::Level(at) } else { Say::Upright(at) })
                    .ok_or("one straight edge")
            }
            Kind::Tangent => {
                if let Some((one, two)) = two_circles() {
                    return Ok(Say::TangentCircles(one, two));
                }
                let pair = match names[..] {
                    [one, two] => self
                        .straight(one)
                        .zip(self.circles.get(two).copied())
                        .or_else(|| self.straight(two).zip(self.circles.get(one).copied())),
                    _ => None,
                };
                pair.map(|(edge, circle)| Say::TangentLine(edge, circle))
                    .ok_or("a straight edge and a circle, or two circles")
            }
            Kind::Concentric => {
                two_circles().map(|(one, two)| Say::Concentric(one, two)).ok_or("two circles or round edges")
            }
            Kind::Collinear => two_edges().map(|(one, two)| Say::Collinear(one, two)).ok_or("two straight edges"),
            Kind::On => spot_and_edge().map(|(point, edge)| Say::OnEdge(point, edge)).ok_or("a point and an edge"),
            Kind::Middle => spot_and_edge().map(|(point, edge)| Say::Middle(point, edge)).ok_or("a point and an edge"),
            Kind::Symmetric => match names[..] {
                [one, two, line] => self
                    .spot(one)
                    .zip(self.spot(two))
                    .zip(self.straight(line))
                    .map(|((one, two), line)| Say::Symmetric(one, two, line)),
                _ => None,
            }
            .ok_or("two points and the edge or guide between them"),
        }
    }
}

/// Solves the sketch with these statements; `places` says which saying each came from, of `count` in all.
pub(super) fn settle(
    drawn: &Drawn,
    names: &Names,
    statements: Vec<(usize, String, StatementKind)>,
    count: usize,
) -> Laid {
    let mut sketch = names.sketch.clone();
    sketch.statements =
        statements.iter().map(|(_, name, kind)| Statement { name: name.clone(), kind: *kind }).collect();
    let solved = solve::solve(&sketch);
    let mut laid = outline(drawn, &solved);
    laid.standing = Some(standing(names, &statements, count, &solved));
    laid
}

fn outline(drawn: &Drawn, solved: &Solution) -> Laid {
    let sketch = &solved.sketch;
    let edges: Vec<(Point, f64, String)> = drawn
        .corners
        .iter()
        .enumerate()
        .map(|(at, corner)| {
            let edge = sketch.edges[at];
            let (from, to) = (sketch.points[edge.from], sketch.points[edge.to]);
            let round = edge.circle.map_or(0.0, |circle| {
                let centre = sketch.points[sketch.circles[circle].centre];
                let (a, b) = (from - centre, to - centre);
                let turn = a.cross(b).atan2(a.dot(b)).rem_euclid(std::f64::consts::TAU);
                let left = corner.bulge.is_some_and(|bulge| bulge > 0.0);
                bulge(if left { turn } else { turn - std::f64::consts::TAU })
            });
            (from, round, corner.edge.clone())
        })
        .collect();
    let mut laid = Laid::from_edges(&edges);
    let first = sketch.circles.len() - drawn.circles.len();
    for (at, circle) in drawn.circles.iter().enumerate().filter(|(_, circle)| circle.cut) {
        let placed = sketch.circles[first + at];
        laid.holes.push((circle.name.clone(), Outline::circle(sketch.points[placed.centre], placed.radius, 0)));
    }
    laid
}

fn standing(names: &Names, statements: &[(usize, String, StatementKind)], count: usize, solved: &Solution) -> Standing {
    let sketch = &solved.sketch;
    let mut sayings = vec![SayingStands { role: SayingRole::Unread, measured: None }; count];
    for ((saying, _, kind), role) in statements.iter().zip(&solved.roles) {
        sayings[*saying] = SayingStands {
            role: match role {
                Role::Drives => SayingRole::Drives,
                Role::Implied => SayingRole::Implied,
                Role::Conflicts => SayingRole::Disagrees,
            },
            measured: kind.number().map(|_| measured(sketch, kind)),
        };
    }
    let loose = solved
        .loose
        .iter()
        .map(|loose| match *loose {
            Loose::Along(at, way) => LooseAt {
                name: names.point_names[at].clone(),
                place: sketch.points[at],
                along: Some([way.x, way.y]),
                radius: false,
            },
            Loose::Freely(at) => {
                LooseAt { name: names.point_names[at].clone(), place: sketch.points[at], along: None, radius: false }
            }
            Loose::Radius(at) => LooseAt {
                name: names.circle_names[at].clone(),
                place: sketch.points[sketch.circles[at].centre],
                along: None,
                radius: true,
            },
        })
        .collect();
    let disagree = solved
        .conflicts
        .iter()
        .map(|conflict| Disagreement {
            sayings: conflict.statements.iter().map(|&at| statements[at].0).collect(),
            measured: statements[conflict.measured].0,
            off_by: conflict.off_by,
            angle: statements[conflict.measured].2.is_angle(),
        })
        .collect();
    Standing {
        missing: solved.missing,
        loose,
        sayings,
        disagree,
        points: names
            .point_names
            .iter()
            .zip(&sketch.points)
            .map(|(name, point)| NamedPoint { name: name.clone(), x: point.x, y: point.y })
            .collect(),
        circles: names
            .circle_names
            .iter()
            .zip(&sketch.circles)
            .map(|(name, circle)| NamedCircle { name: name.clone(), radius: circle.radius })
            .collect(),
        underlay: None,
        traced: Vec::new(),
    }
}

/// Sizes of edges and circles as traced, but for those that the drawing says.
pub(super) fn traced(drawn: &Drawn, standing: &Standing, scale: &UnderlayStands, unit: LengthUnit) -> Vec<Traced> {
    let says = |name: &str, kinds: &[SayingKind]| {
        drawn.says.iter().any(|one| one.of.len() == 1 && one.of[0] == name && kinds.contains(&one.what))
    };
    let point = |name: &str| standing.points.iter().find(|one| one.name == name).map(|one| Point::new(one.x, one.y));
    let radius = |name: &str| standing.circles.iter().find(|one| one.name == name).map(|one| one.radius);
    let round = [SayingKind::Radius, SayingKind::Diameter];
    let mut found = Vec::new();
    for (at, corner) in drawn.corners.iter().enumerate() {
        let next = &drawn.corners[(at + 1) % drawn.corners.len()];
        if let Some(radius) = radius(&corner.edge) {
            if !says(&corner.edge, &round) {
                let sweep = 4.0 * corner.bulge.unwrap_or(1.0).atan();
                let uncertainty = scale.arc_uncertainty(radius, sweep);
                found.push(scale.traced(&corner.edge, SayingKind::Radius, radius, uncertainty, unit));
            }
        } else if let (Some(from), Some(to), false) =
            (point(&corner.name), point(&next.name), says(&corner.edge, &[SayingKind::Length]))
        {
            let length = from.distance(to);
            found.push(scale.traced(&corner.edge, SayingKind::Length, length, scale.uncertainty(length), unit));
        }
    }
    for circle in &drawn.circles {
        if let (Some(radius), false) = (radius(&circle.name), says(&circle.name, &round)) {
            let uncertainty = scale.uncertainty(2.0 * radius);
            found.push(scale.traced(&circle.name, SayingKind::Diameter, 2.0 * radius, uncertainty, unit));
        }
    }
    found
}
