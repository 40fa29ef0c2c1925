//! Lines from node to node.

use std::collections::HashSet;

use crate::finding::Finding;
use crate::frame::fields::{Fields, PlaceNumbers};
use crate::frame::layout::Layout;
use crate::frame::skeleton::{CentreLine, ONE_NODE};
use crate::quantity::tolerance::{NO_TURN, ROUNDING};
use crate::space::{Point3, Vector3};
use crate::work::Action;
use crate::work::frame::{ArcHow, PathLeg, Way};

use super::offers;
use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const PATH: FrameVerb = FrameVerb::layout("path", read).offering(offers::path);

#[derive(Debug)]
struct PathNumbers {
    start: PlaceNumbers,
    /// Each leg's own name, or its number, with where it goes.
    legs: Vec<(String, LegNumbers)>,
    close: bool,
}

#[derive(Debug)]
enum LegNumbers {
    By(Vector3),
    To(PlaceNumbers),
    Through(PlaceNumbers, PlaceNumbers),
    Radius(PlaceNumbers, f64, Way, String),
}

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Path(path) = action else { return None };
    let start = fields.place("start", &path.start);
    let legs: Vec<Option<(String, LegNumbers)>> =
        path.legs.iter().enumerate().map(|(at, leg)| read_leg(fields, at, leg)).collect();
    let legs = legs.into_iter().collect::<Option<Vec<_>>>();
    Some(Box::new(PathNumbers { start: start?, legs: legs?, close: path.close }))
}

fn read_leg(fields: &mut Fields<'_>, at: usize, leg: &PathLeg) -> Option<(String, LegNumbers)> {
    let field = format!("legs.{at}");
    let own = |given: &Option<String>| given.clone().unwrap_or_else(|| format!("{}", at + 1));
    Some(match leg {
        PathLeg::By(by) => {
            let way = fields.vector(&format!("{field}.by"), [by.x.as_ref(), by.y.as_ref(), by.z.as_ref()])?;
            (own(&by.name), LegNumbers::By(way))
        }
        PathLeg::To(to) => (own(&to.name), LegNumbers::To(fields.place(&format!("{field}.to.place"), &to.place)?)),
        PathLeg::Arc(arc) => {
            let end = fields.place(&format!("{field}.arc.place"), &arc.place);
            let numbers = match &arc.how {
                ArcHow::Through(place) => {
                    let past = fields.place(&format!("{field}.arc.how.through"), place);
                    LegNumbers::Through(end?, past?)
                }
                ArcHow::Radius(by) => {
                    let field = format!("{field}.arc.how.radius.radius");
                    let radius = fields.size(&field, &by.radius, "a radius");
                    LegNumbers::Radius(end?, radius?, by.toward, field)
                }
            };
            (own(&arc.name), numbers)
        }
    })
}

impl LaysOut for PathNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let start = self.start.on(&layout.skeleton)?;
        let mut here = start;
        let mut lines = Vec::new();
        for (own, leg) in &self.legs {
            let own = format!("{name}.{own}");
            let line = match leg {
                LegNumbers::By(way) => CentreLine::straight(own, here, here + *way),
                LegNumbers::To(place) => CentreLine::straight(own, here, place.on(&layout.skeleton)?),
                LegNumbers::Through(end, past) => {
                    let end = end.on(&layout.skeleton)?;
                    CentreLine::through(own, here, past.on(&layout.skeleton)?, end)
                }
                LegNumbers::Radius(end, radius, toward, field) => {
                    let end = end.on(&layout.skeleton)?;
                    arc_of(own, here, end, *radius, *toward).map_err(|fault| fault.at_field(field.clone()))?
                }
            };
            here = line.to;
            lines.push(line);
        }
        if self.close && here.distance(start) > ONE_NODE {
            lines.push(CentreLine::straight(format!("{name}.close"), here, start));
        }
        if lines.is_empty() {
            return Err(Finding::error("a path needs a line", "Say where the next node is."));
        }
        let mut seen = HashSet::new();
        if let Some(twin) = lines.iter().find(|line| !seen.insert(line.name.clone())) {
            return Err(Finding::error(
                format!("two lines of it are called {}", twin.name),
                "Give each a name of its own.",
            ));
        }
        layout.lay(name, lines)
    }
}

fn arc_of(name: String, from: Point3, to: Point3, radius: f64, toward: Way) -> Result<CentreLine, Finding> {
    let way = match toward {
        Way::Right => Vector3::new(1.0, 0.0, 0.0),
        Way::Left => Vector3::new(-1.0, 0.0, 0.0),
        Way::Away => Vector3::new(0.0, 1.0, 0.0),
        Way::Toward => Vector3::new(0.0, -1.0, 0.0),
        Way::Up => Vector3::new(0.0, 0.0, 1.0),
        Way::Down => Vector3::new(0.0, 0.0, -1.0),
    };
    let chord = to - from;
    let half = chord.length() / 2.0;
    if half < 0.01 || half > radius + ROUNDING {
        return Err(Finding::error(
            format!("no arc of radius {radius:.3} mm spans {:.3} mm", 2.0 * half),
            format!("Take a radius of at least {half:.3} mm."),
        ));
    }
    let along = chord.unit();
    let out = way - along * way.dot(along);
    if out.length() < NO_TURN {
        return Err(Finding::error("an arc cannot bulge along its own chord", "Say another way."));
    }
    let rise = radius - (radius * radius - half * half).max(0.0).sqrt();
    let middle = from + along * half + out.unit() * rise;
    Ok(CentreLine::through(name, from, middle, to))
}
