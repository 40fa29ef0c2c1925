//! What a verb of sheet work is: its row, and what an operation of it does.

use std::fmt::Debug;
use std::sync::Arc;

use crate::finding::Finding;
use crate::quantity::{EdgeName, Expr, LengthUnit};
use crate::sheet::flat::Flat;
use crate::sheet::moved::Moved;
use crate::sheet::pointed::Pointing;
use crate::sheet::reader::Reader;
use crate::sheet::set::SheetSet;
use crate::sheet::shape::{Laid, Standing};
use crate::work::{Action, Offer};

/// An operation in numbers, ready to be done.
pub type OperationNumbers = Arc<dyn SheetWork>;

/// A verb of sheet work.
pub struct SheetVerb {
    /// Its key in the document.
    pub key: &'static str,
    /// Whether it bends: a plate may not.
    pub bends: Bends,
    /// Whether it is laid down as it is seen from its end, so that its section is shown.
    pub seen_from_its_end: bool,
    /// The inside radius that it gives itself: `R` in its own fields.
    pub(in crate::sheet) radius: fn(&Action) -> Option<&Expr>,
    /// The edges that it is laid along.
    edges: fn(&Action) -> Vec<&EdgeName>,
    /// What it offers where somebody points; nowhere: what its list begins with.
    pub(in crate::sheet) offers: fn(&Pointing<'_>) -> Vec<Offer>,
    /// Reads every field; all faults are in the reader. `None` where a field was bad.
    pub(in crate::sheet) read: fn(&mut Reader<'_>, &Action) -> Option<OperationNumbers>,
}

/// Whether a verb bends sheet.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Bends {
    /// It does.
    Yes,
    /// It leaves it flat.
    No,
}

impl SheetVerb {
    /// A verb that leaves sheet flat, has no radius of its own and is laid along no edge.
    pub(super) const fn new(
        key: &'static str,
        read: fn(&mut Reader<'_>, &Action) -> Option<OperationNumbers>,
    ) -> SheetVerb {
        SheetVerb {
            key,
            bends: Bends::No,
            seen_from_its_end: false,
            radius: |_| None,
            edges: |_| Vec::new(),
            offers: |_| Vec::new(),
            read,
        }
    }

    pub(super) const fn offering(self, offers: fn(&Pointing<'_>) -> Vec<Offer>) -> SheetVerb {
        SheetVerb { offers, ..self }
    }

    pub(super) const fn bending(self) -> SheetVerb {
        SheetVerb { bends: Bends::Yes, ..self }
    }

    pub(super) const fn with_radius(self, radius: fn(&Action) -> Option<&Expr>) -> SheetVerb {
        SheetVerb { radius, ..self }
    }

    pub(super) const fn along(self, edges: fn(&Action) -> Vec<&EdgeName>) -> SheetVerb {
        SheetVerb { edges, ..self }
    }

    pub(super) const fn end_view(self) -> SheetVerb {
        SheetVerb { seen_from_its_end: true, ..self }
    }

    /// What this verb offers where somebody points.
    pub fn offers(&self, pointing: &Pointing<'_>) -> Vec<Offer> {
        (self.offers)(pointing)
    }

    /// The edges that an operation of this verb is laid along.
    pub fn edges<'a>(&self, action: &'a Action) -> Vec<&'a EdgeName> {
        (self.edges)(action)
    }
}

/// What an operation is done with.
pub struct Around<'a> {
    /// The operations before it, in numbers.
    pub before: &'a [(String, OperationNumbers)],
    /// What messages speak in.
    pub unit: LengthUnit,
}

/// An operation that was read: its numbers, and what they do.
pub trait SheetWork: Debug + Send + Sync {
    /// The panel, the edge, the bend or the operation whose blank it works on; `None` of what begins a piece.
    fn stands_on(&self) -> Option<&str> {
        None
    }

    /// Does it on one blank. What is worth knowing comes back.
    ///
    /// # Errors
    /// Why it cannot be done; the flat may be half done then, and is thrown away.
    fn make(&self, flat: &mut Flat, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding>;

    /// Does it on the blank that it stands on; what sees several blanks does it on all of them.
    ///
    /// # Errors
    /// As [`make`](Self::make).
    fn make_on(&self, set: &mut SheetSet, name: &str, around: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        let at = set.blank_of(self.stands_on());
        self.make(&mut set.flats[at], name, around)
    }

    /// Does it where it comes to; `of` is what it was called the first time, `own` what it is called now.
    ///
    /// # Errors
    /// As [`make`](Self::make); a verb that cannot be made again.
    fn again(&self, _: &mut Flat, _own: &str, of: &str, _: &Moved, _: &Around<'_>) -> Result<Vec<Finding>, Finding> {
        Err(Finding::error(
            format!("{of} cannot be made again: flanges, hems, joggles, notches and cuts can"),
            "Name one of those.",
        ))
    }

    /// The shape that it lays down.
    fn laid(&self) -> Option<&Laid> {
        None
    }

    /// Of a solved outline: what is missing, implied, or in disagreement.
    fn standing(&self) -> Option<&Standing> {
        self.laid()?.standing.as_ref()
    }
}

/// Refuses a name that something has.
pub(in crate::sheet) fn check_new(flat: &Flat, name: &str) -> Result<(), Finding> {
    let taken = flat.nodes.iter().any(|node| node.name == name)
        || flat.holes.iter().any(|hole| hole.operation == name)
        || flat.forms.iter().any(|form| form.operation == name)
        || flat.ribs.iter().any(|rib| rib.operation == name);
    if taken {
        return Err(Finding::error(format!("{name} is made twice"), "Give this operation a name of its own."));
    }
    Ok(())
}

/// Refuses a second start.
pub(super) fn check_first(flat: &Flat) -> Result<(), Finding> {
    match flat.nodes.first() {
        None => Ok(()),
        Some(first) => Err(Finding::error(
            format!("{} is already laid down; a piece has one base panel", first.name),
            "Take this operation out, or bend a flange from the base instead.",
        )),
    }
}

/// Refuses work on one blank that is of the whole piece.
pub(super) fn of_several(name: &str) -> Finding {
    Finding::error(format!("{name} is of the whole piece and not of one blank"), "Ask for the piece.")
}
