//! Centre lines from a file.

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::import::places;
use crate::frame::layout::Layout;
use crate::frame::skeleton::CentreLine;
use crate::space::Point3;
use crate::work::Action;

use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const LINES: FrameVerb = FrameVerb::layout("lines", read);

/// Two places a line, three an arc.
#[derive(Debug)]
struct LinesNumbers(Vec<Vec<Point3>>);

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Lines(given) = action else { return None };
    let scale = given.unit.millimetres();
    let all: Vec<Option<Vec<Point3>>> = given
        .lines
        .iter()
        .enumerate()
        .map(|(at, text)| {
            let field = format!("lines.{at}");
            let found = places(text, scale).and_then(|places| match places.len() {
                2 | 3 => Ok(places),
                count => Err(Finding::error(
                    format!("\"{text}\" has {count} places; a line has 2 and an arc 3"),
                    "Write it as x y z, x y z.",
                )),
            });
            fields.take(found.map_err(|fault| fault.at_field(field)))
        })
        .collect();
    Some(Box::new(LinesNumbers(all.into_iter().collect::<Option<_>>()?)))
}

impl LaysOut for LinesNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let lines = self.0.iter().enumerate().filter_map(|(at, places)| {
            let own = format!("{name}.{}", at + 1);
            match places.as_slice() {
                [from, to] => Some(CentreLine::straight(own, *from, *to)),
                [from, past, to] => Some(CentreLine::through(own, *from, *past, *to)),
                _ => None,
            }
        });
        let lines = lines.collect();
        layout.lay(name, lines)
    }
}
