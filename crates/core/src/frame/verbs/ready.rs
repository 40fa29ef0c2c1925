//! Ready frames from their numbers.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::frame::fields::{Fields, PlaceNumbers};
use crate::frame::layout::Layout;
use crate::frame::ready::{is_count, lines, sizes_of};
use crate::frame::skeleton::CentreLine;
use crate::space::Motion;
use crate::work::Action;

use super::verb::{FrameVerb, Given, LaysOut};

pub(super) const READY: FrameVerb = FrameVerb::layout("ready", read);

#[derive(Debug)]
struct ReadyNumbers {
    at: PlaceNumbers,
    lines: Vec<CentreLine>,
}

fn read(fields: &mut Fields<'_>, action: &Action, _: &Given) -> Option<Box<dyn LaysOut>> {
    let Action::Ready(ready) = action else { return None };
    let at = fields.place("at", &ready.at);
    let (needed, possible) = sizes_of(ready.kind);
    let mut sizes = Some(BTreeMap::new());
    for (size, text) in &ready.sizes {
        let field = format!("sizes.{size}");
        let value = if !needed.contains(&size.as_str()) && !possible.contains(&size.as_str()) {
            let unknown = Finding::error(
                format!("it has no size called {size}"),
                format!("Its sizes are {}.", [needed, possible].concat().join(", ")),
            );
            fields.take(Err(unknown.at_field(field)))
        } else if is_count(size) {
            fields.count(&field, text, size, 200).map(|count| count as f64)
        } else {
            fields.length(&field, text, size)
        };
        match (value, &mut sizes) {
            (Some(value), Some(sizes)) => {
                sizes.insert(size.clone(), value);
            }
            _ => sizes = None,
        }
    }
    let lines = fields.take(lines(ready.kind, ready.lies, &sizes?))?;
    Some(Box::new(ReadyNumbers { at: at?, lines }))
}

impl LaysOut for ReadyNumbers {
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding> {
        let shift = Motion::shift(self.at.on(&layout.skeleton)?.from_origin());
        let moved = |line: CentreLine| {
            // Up is settled again where it lies: a standing frame's lines are not those of a flat one.
            CentreLine::straight(format!("{name}.{}", line.name), line.from, line.to).moved(&shift)
        };
        let lines = self.lines.into_iter().map(moved).collect();
        layout.lay(name, lines)
    }
}
