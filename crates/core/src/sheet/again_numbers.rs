//! Which operations are made again, and where.

use crate::plane::{MODELLING_TOLERANCE, Vector};
use crate::quantity::Expr;
use crate::work::sheet::{AgainAction, AgainAlong, AgainHow};

use super::reader::Reader;

/// Work made again, in numbers: mm.
#[derive(Clone, Debug, PartialEq)]
pub struct AgainNumbers {
    /// The operations.
    pub of: Vec<String>,
    /// How.
    pub how: AgainMove,
}

/// How work is made again, in numbers.
#[derive(Clone, Debug, PartialEq)]
pub enum AgainMove {
    /// Across the centre line of a panel, to the other side along x (or y).
    Mirror(String, AgainAlong),
    /// So many times, each moved on by this.
    Shift(usize, Vector),
}

/// Reads work made again. `None` when a field was bad; the findings are in the reader.
pub(super) fn read_again(reader: &mut Reader<'_>, given: &AgainAction) -> Option<AgainNumbers> {
    if given.of.is_empty() {
        reader.refuse("of", "no operation is named to be made again".into(), "Name the operations, such as lip.");
        return None;
    }
    let how = match &given.how {
        AgainHow::Mirror(mirror) => AgainMove::Mirror(mirror.panel.to_string(), mirror.along),
        AgainHow::Shift(shift) => {
            let count = reader.count("how.shift.count", &shift.count);
            let mut by = |field: &str, text: &Option<Expr>| match text {
                Some(text) => reader.length(field, text, "a distance"),
                None => Some(0.0),
            };
            let (x, y) = (by("how.shift.x", &shift.x), by("how.shift.y", &shift.y));
            let by = Vector::new(x?, y?);
            if by.length() < MODELLING_TOLERANCE {
                reader.refuse(
                    "how.shift.x",
                    "made again in the same place".into(),
                    "Give a distance along x, along y, or both.",
                );
                return None;
            }
            AgainMove::Shift(count?, by)
        }
    };
    Some(AgainNumbers { of: given.of.iter().map(ToString::to_string).collect(), how })
}
