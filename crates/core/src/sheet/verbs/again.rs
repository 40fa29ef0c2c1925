//! Work made again: across a centre line, or moved along the blank. Nothing is redrawn: the same numbers are laid on the edges and
//! panels that lie where the first ones come to.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::Vector;
use crate::sheet::again_numbers::{AgainMove, AgainNumbers, read_again};
use crate::sheet::flat::Flat;
use crate::sheet::moved::Moved;
use crate::sheet::reader::Reader;
use crate::work::Action;
use crate::work::sheet::AgainAlong;

use super::offers;
use super::verb::{Around, OperationNumbers, SheetVerb, SheetWork};

pub(super) const AGAIN: SheetVerb = SheetVerb::new("again", read).offering(offers::again);

fn read(reader: &mut Reader<'_>, action: &Action) -> Option<OperationNumbers> {
    let Action::Again(given) = action else { return None };
    Some(Arc::new(read_again(reader, given)?))
}

impl SheetWork for AgainNumbers {
    fn stands_on(&self) -> Option<&str> {
        match &self.how {
            AgainMove::Mirror(panel, _) => Some(panel),
            AgainMove::Shift(..) => self.of.first().map(String::as_str),
        }
    }

    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        let moves: Vec<(String, Moved)> = match &self.how {
            AgainMove::Mirror(panel, along) => {
                let at = flat.find_panel(panel).map_err(|fault| fault.at_field("how.mirror.panel"))?;
                let normal = match along {
                    AgainAlong::X => Vector::new(1.0, 0.0),
                    AgainAlong::Y => Vector::new(0.0, 1.0),
                };
                let mirror = Some((flat.nodes[at].laid.centre(), normal));
                vec![(name.to_string(), Moved::new(mirror, Vector::default()))]
            }
            AgainMove::Shift(count, by) => (1..*count)
                .map(|at| {
                    let own = if *count == 2 { name.to_string() } else { format!("{name}.{at}") };
                    (own, Moved::new(None, *by * at as f64))
                })
                .collect(),
        };
        let mut notes = Vec::new();
        for (stem, moved) in &moves {
            for (which, operation) in self.of.iter().enumerate() {
                let field = format!("of.{which}");
                let numbers =
                    around.before.iter().find(|(own, _)| own == operation).map(|(_, numbers)| numbers).ok_or_else(
                        || {
                            let known: Vec<&str> = around.before.iter().map(|(own, _)| own.as_str()).collect();
                            Finding::error(
                                format!("there is no operation called {operation} before this one"),
                                format!("The operations before it are {}.", known.join(", ")),
                            )
                            .at_field(field.clone())
                        },
                    )?;
                let own = format!("{stem}.{operation}");
                let found = numbers.again(flat, &own, operation, moved, around).map_err(|fault| {
                    let inner = fault.field.is_none();
                    if inner { fault.at_field(field.clone()) } else { fault }
                })?;
                notes.extend(found);
            }
        }
        Ok(notes)
    }
}
