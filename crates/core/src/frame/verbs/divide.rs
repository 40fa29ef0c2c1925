//! Nodes along a line.

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::layout::Layout;
use crate::quantity::LineName;
use crate::work::Action;

use super::offers;
use super::on_line::on_line;
use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const DIVIDE: FrameVerb = FrameVerb::layout("divide", read).offering(offers::divide);

#[derive(Debug)]
struct DivideNumbers {
    line: LineName,
    into: usize,
    at: Vec<f64>,
}

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given<'_>) -> Option<Box<dyn LaysOut>> {
    let Action::Divide(divide) = action else { return None };
    let into = divide.into.as_ref().map_or(Some(1), |text| fields.count("into", text, "a number of parts", 1000));
    let at: Vec<Option<f64>> = divide
        .at
        .iter()
        .enumerate()
        .map(|(at, text)| fields.length(&format!("at.{at}"), text, "a distance along the line"))
        .collect();
    Some(Box::new(DivideNumbers { line: divide.line.clone(), into: into?, at: at.into_iter().collect::<Option<_>>()? }))
}

impl LaysOut for DivideNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let line = layout.line(&self.line, "line")?.clone();
        let parts = (1..self.into).map(|part| Ok(line.at(line.length() * part as f64 / self.into as f64)));
        let at = self.at.iter().enumerate();
        let at = at.map(|(at, distance)| on_line(&line, *distance).map_err(|fault| fault.at_field(format!("at.{at}"))));
        let places = parts.chain(at).collect::<Result<Vec<_>, Finding>>()?;
        if places.is_empty() {
            return Err(Finding::error(
                "this divides the line nowhere",
                "Say into how many parts, 2 or more, or give distances.",
            ));
        }
        for (number, place) in places.into_iter().enumerate() {
            layout.skeleton.add_node(format!("{name}.{}", number + 1), place);
        }
        Ok(())
    }
}
