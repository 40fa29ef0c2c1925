//! The one list of files that are given out: `steelk build`, the download route and the menu read it.

mod frame;
mod heading;
mod job;
mod list;
mod name;
mod order;
mod pack;
mod package;
mod sheet;

pub use heading::Heading;
pub use job::{job_file_name, job_piece};
pub use list::OUTPUTS;
pub use name::{FileSettings, FileUnit, NameFault, NamePattern, Named};
pub use order::{Choices, Means, NoFile, Order, Stamp};
pub use pack::{Packed, job_pack, pages, zip_of};
pub use package::{Package, package};

use serde::Serialize;
use steelk_core::piece::MadeFrom;
use utoipa::ToSchema;

use crate::WriteError;
use crate::cutlist_csv::JobPiece;

/// What a file is one of.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Of {
    /// One a piece.
    Piece,
    /// One a blank of a plate or a sheet part; alike ones are one.
    Blank,
    /// One for each mark of a frame's members.
    Member,
    /// One for each mark of members that have a wrap template: round ones with an end that is not square.
    Wrap,
    /// One for each mark of a frame's plates.
    Plate,
    /// One a job.
    Job,
}

/// For whom a file is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reader {
    /// Who cuts sheet and plate.
    Cutter,
    /// Who bends.
    Brake,
    /// Who saws and drills.
    Saw,
    /// Who welds and fits.
    Welder,
    /// Who orders, quotes and keeps records.
    Office,
}

/// What it means when a file cannot be made of a piece that is ready.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Without {
    /// Nothing of the piece is given out.
    Nothing,
    /// The rest is given out, and the command ends as failed: the shop needs the file.
    Incomplete,
    /// The rest is given out, and it is said.
    Noted,
}

/// What makes a file.
#[derive(Clone, Copy)]
pub enum Make {
    /// Of the piece.
    Whole(fn(&Order<'_>) -> Result<Vec<u8>, NoFile>),
    /// Of one of its marks.
    Mark(fn(&Order<'_>, &str) -> Result<Vec<u8>, NoFile>),
    /// Of the pieces of a whole job.
    Job(fn(&[JobPiece]) -> Result<Vec<u8>, WriteError>),
}

/// One row of the list.
pub struct Output {
    /// What it is called in the address: `blank.dxf`; with `{mark}` where there is one for each mark: `{mark}.nc1`.
    pub key: &'static str,
    /// Media type.
    pub media: &'static str,
    /// The trade whose pieces have it; nothing where every piece has.
    pub made_from: Option<MadeFrom>,
    /// What it is one of.
    pub of: Of,
    /// Words for the menu.
    pub words: &'static str,
    /// For whom it is.
    pub reader: Reader,
    /// Whether it is what that reader is sent first.
    pub first: bool,
    /// What it means when it cannot be made.
    pub without: Without,
    /// What makes it.
    pub make: Make,
}

/// What stands for the mark in a key.
const MARK: &str = "{mark}";

impl Output {
    /// Its name in the address, of a mark where there is one for each.
    pub fn file(&self, mark: Option<&str>) -> String {
        match mark {
            Some(mark) if self.of == Of::Blank && !mark.is_empty() => format!("{mark}.{}", self.key),
            Some(mark) => self.key.replace(MARK, mark),
            None => self.key.to_string(),
        }
    }

    /// The mark that a name in the address asks for, where the name is of this row: an empty one for what there is one a piece of.
    pub fn asked<'a>(&self, file: &'a str) -> Option<&'a str> {
        match self.key.split_once(MARK) {
            None if self.of == Of::Blank && file != self.key => {
                file.strip_suffix(self.key)?.strip_suffix('.').filter(|mark| !mark.is_empty())
            }
            None => (file == self.key).then_some(""),
            Some((before, after)) => file.strip_prefix(before)?.strip_suffix(after).filter(|mark| !mark.is_empty()),
        }
    }

    /// Whether pieces of a trade have it.
    pub fn serves(&self, made_from: MadeFrom) -> bool {
        self.of != Of::Job && self.made_from.is_none_or(|own| own == made_from)
    }

    /// Makes it, of a mark where there is one for each.
    ///
    /// # Errors
    /// [`NoFile`].
    pub fn make(&self, order: &Order<'_>, mark: &str) -> Result<Vec<u8>, NoFile> {
        if self.of == Of::Blank && !mark.is_empty() {
            return self.make(&order.of_blank(mark)?, "");
        }
        match self.make {
            Make::Whole(make) => make(order),
            Make::Mark(make) => make(order, mark),
            Make::Job(_) => Err(NoFile::NotThere(format!("{} is a file of a job, not of a piece", self.key))),
        }
    }

    /// Its file name by the shop's pattern.
    pub fn file_name(&self, order: &Order<'_>, mark: &str) -> String {
        order.name_of(self.of, mark, self.key)
    }
}
