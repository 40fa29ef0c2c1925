//! What a file is made of.

use std::sync::OnceLock;

use steelk_core::drawing::{Drawing, TemplateChoice};
use steelk_core::frame::has_wrap;
use steelk_core::nest::{BarProblem, BarResult, NestError};
use steelk_core::piece::{BarGroup, FrameOutcome, Made, MadeFrom, Outcome, Piece, alone, blanks_of};
use steelk_core::quantity::{LengthUnit, decimal};
use steelk_core::release::{Withheld, ready};
use steelk_core::sheet::{Part, Sheets};
use steelk_core::stock::Cutter;
use steelk_core::table::{DatumCorner, Table};

use crate::WriteError;
use crate::dxf_file::Style;
use crate::program::Program;

use super::Of;
use super::heading::{Heading, NOT_RELEASED};
use super::name::{FileSettings, Named};

/// What is known of a revision, and nothing else: no clock is asked.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Stamp {
    /// Its number, or what the shop calls it.
    pub revision: Option<String>,
    /// Who made it.
    pub by: Option<String>,
    /// When, as it is written: `2026-11-28`.
    pub date: Option<String>,
}

impl Stamp {
    /// In a few words: `revision 3, by J. Doe, 2026-11-28`; nothing where nothing is known.
    pub fn words(&self) -> Option<String> {
        let parts = [
            self.revision.as_ref().map(|one| format!("revision {one}")),
            self.by.as_ref().map(|one| format!("by {one}")),
            self.date.clone(),
        ];
        let known: Vec<String> = parts.into_iter().flatten().collect();
        (!known.is_empty()).then(|| known.join(", "))
    }
}

/// What is chosen for one file.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Choices {
    /// How the template is printed.
    pub template: TemplateChoice,
    /// From which corner of the blank holes are told.
    pub corner: DatumCorner,
}

/// What core and formats do not have, lent by who asks.
pub struct Means<'a> {
    /// The shop's cutters.
    pub cutters: &'a [Cutter],
    /// Plans bars, within a time.
    pub nest: &'a (dyn Fn(&BarProblem) -> Result<BarResult, NestError> + Sync),
    /// Runs a program on the simulated cutter: why it does not leave the part, in words.
    pub run: &'a (dyn Fn(&Program) -> Result<(), String> + Sync),
    /// Works a plate of a frame out, with every check that stands before a file.
    pub audited: &'a (dyn Fn(&Piece) -> Outcome + Sync),
}

/// Why there is no file.
#[derive(Debug, thiserror::Error)]
pub enum NoFile {
    /// The piece has none of the kind.
    #[error("{0}")]
    NotThere(String),
    /// It cannot be made.
    #[error("{detail}")]
    Refused {
        /// In a few words.
        title: &'static str,
        /// Why, with the values, and what to do.
        detail: String,
        /// The field of the piece that is at fault, where one is.
        field: Option<String>,
    },
    /// What was chosen cannot be.
    #[error("{detail}")]
    Choice {
        /// Which choice.
        field: &'static str,
        /// Why, with the values.
        detail: String,
    },
    /// A library refused.
    #[error(transparent)]
    Write(#[from] WriteError),
}

impl NoFile {
    /// It cannot be made, in words.
    pub(super) fn refused(title: &'static str, detail: impl Into<String>) -> Self {
        NoFile::Refused { title, detail: detail.into(), field: None }
    }
}

impl From<Withheld> for NoFile {
    fn from(withheld: Withheld) -> Self {
        NoFile::refused(withheld.title, withheld.detail)
    }
}

/// A piece that is ready to be given out, with everything that its files are made of.
pub struct Order<'a> {
    /// The piece.
    pub piece: &'a Piece,
    /// What it came to.
    pub outcome: &'a Outcome,
    /// Which revision.
    pub stamp: &'a Stamp,
    /// The shop's word on its files.
    pub settings: &'a FileSettings,
    /// What is chosen.
    pub choices: Choices,
    pub(super) means: &'a Means<'a>,
    made: &'a Made,
    /// Or why there are none, in words.
    bars: OnceLock<Result<Vec<(BarGroup, BarResult)>, String>>,
    plates: OnceLock<Vec<OwnPlate>>,
    blanks: OnceLock<Vec<OwnBlank>>,
    /// The note of the frame that this is a plate of.
    above: Option<String>,
}

/// A plate of a frame as a piece of its own.
pub(super) struct OwnPlate {
    /// Its mark in the frame's list.
    pub(super) mark: String,
    piece: Piece,
    /// What it came to with every check before a file: worked out once for all of its files.
    outcome: OnceLock<Outcome>,
}

/// A blank of several as a piece of its own.
pub(super) struct OwnBlank {
    piece: Piece,
    outcome: Outcome,
}

impl<'a> Order<'a> {
    /// The only way to one, so that no file passes the gate by.
    ///
    /// # Errors
    /// [`Withheld`] as [`ready`].
    pub fn new(
        piece: &'a Piece,
        outcome: &'a Outcome,
        stamp: &'a Stamp,
        settings: &'a FileSettings,
        means: &'a Means<'a>,
    ) -> Result<Self, Withheld> {
        let made = ready(piece, outcome)?;
        let choices = Choices {
            template: TemplateChoice { unit: piece.unit, ..TemplateChoice::default() },
            ..Choices::default()
        };
        let (bars, plates, blanks) = (OnceLock::new(), OnceLock::new(), OnceLock::new());
        Ok(Order { piece, outcome, stamp, settings, choices, means, made, bars, plates, blanks, above: None })
    }

    /// What the piece is made from.
    pub fn made_from(&self) -> MadeFrom {
        self.piece.kind.row().made_from
    }

    /// The part of a piece of one blank.
    ///
    /// # Errors
    /// [`NoFile::NotThere`] for a frame, [`NoFile::Refused`] for several blanks.
    pub fn part(&self) -> Result<&'a Part, NoFile> {
        let mark = &self.piece.mark;
        match self.made {
            Made::Sheet(sheets) => sheets.only().map(|blank| &blank.part).ok_or_else(|| {
                let marks: Vec<String> = blanks_of(self.piece, sheets).into_iter().map(|one| one.mark).collect();
                let count = sheets.blanks().len();
                let marks = marks.join(", ");
                NoFile::refused("Several blanks", format!("{mark} comes to {count} blanks; ask for one of {marks}"))
            }),
            _ => {
                let word = self.piece.kind.row().word;
                Err(NoFile::NotThere(format!("{mark} is a {word}: it has no blank")))
            }
        }
    }

    /// The blanks of a plate or a sheet part.
    ///
    /// # Errors
    /// [`NoFile::NotThere`] for a frame.
    pub fn sheets(&self) -> Result<&'a Sheets, NoFile> {
        match self.made {
            Made::Sheet(sheets) => Ok(sheets),
            _ => {
                let (mark, word) = (&self.piece.mark, self.piece.kind.row().word);
                Err(NoFile::NotThere(format!("{mark} is a {word}: it has no blank")))
            }
        }
    }

    /// The blanks of a piece that comes to several, as pieces of their own; none of any other.
    pub(super) fn blanks(&self) -> &[OwnBlank] {
        self.blanks.get_or_init(|| {
            let Made::Sheet(sheets) = self.made else { return Vec::new() };
            if sheets.only().is_some() {
                return Vec::new();
            }
            let all = blanks_of(self.piece, sheets);
            let own = all.iter().filter_map(|blank| alone(self.piece, self.outcome, blank));
            own.map(|(piece, outcome)| OwnBlank { piece, outcome }).collect()
        })
    }

    /// A blank past the gate as a piece of its own, by its mark; the whole piece for an empty one.
    ///
    /// # Errors
    /// [`NoFile::NotThere`] for no such blank; withheld as the piece.
    pub(super) fn of_blank(&self, mark: &str) -> Result<Order<'_>, NoFile> {
        let (piece, outcome) = if mark.is_empty() {
            (self.piece, self.outcome)
        } else {
            let none = || {
                let known: Vec<&str> = self.blanks().iter().map(|one| one.piece.mark.as_str()).collect();
                NoFile::NotThere(format!(
                    "{} has no blank {mark}; its blanks are {}",
                    self.piece.mark,
                    known.join(", ")
                ))
            };
            let own = self.blanks().iter().find(|one| one.piece.mark == mark).ok_or_else(none)?;
            (&own.piece, &own.outcome)
        };
        let own = Order::new(piece, outcome, self.stamp, self.settings, self.means)?;
        Ok(Order { choices: self.choices, above: self.above.clone(), ..own })
    }

    /// The frame.
    ///
    /// # Errors
    /// [`NoFile::NotThere`] for a piece that is none.
    pub fn frame(&self) -> Result<&'a FrameOutcome, NoFile> {
        match self.made {
            Made::Frame(frame) => Ok(frame),
            _ => Err(NoFile::NotThere(format!("{} is no frame, so it has no list of members", self.piece.mark))),
        }
    }

    /// The bars of a frame, planned once for all of its files.
    ///
    /// # Errors
    /// As [`Order::frame`]; [`NoFile::Refused`] where a section cannot be cut from its bars.
    pub fn bars(&self) -> Result<&[(BarGroup, BarResult)], NoFile> {
        let frame = self.frame()?;
        let plan = |group: &BarGroup| {
            let group = group.for_frames(self.piece.count().cut());
            match (self.means.nest)(&group.problem) {
                Ok(result) => Ok((group, result)),
                Err(fault) => Err(format!("{}: {}. {}", group.section, fault.message, fault.way_out)),
            }
        };
        let known = self.bars.get_or_init(|| frame.bars.iter().map(plan).collect());
        known.as_deref().map_err(|detail| NoFile::refused("No bars", detail.as_str()))
    }

    /// The plates of a frame as pieces of their own; none of any other piece.
    pub(super) fn plates(&self) -> &[OwnPlate] {
        self.plates.get_or_init(|| {
            let Made::Frame(frame) = self.made else { return Vec::new() };
            let list = &frame.made.list;
            let lines = list.lines.iter().enumerate().filter(|(at, _)| list.line_of_plate.contains(at));
            let marks = lines.map(|(_, line)| line.mark.clone());
            let own = |(mark, piece)| OwnPlate { mark, piece, outcome: OnceLock::new() };
            marks.zip(self.piece.frame_plates(self.outcome)).map(own).collect()
        })
    }

    /// A plate of the frame past the gate as a piece of its own. What keeps the frame from its release keeps its plates.
    ///
    /// # Errors
    /// [`NoFile::NotThere`] for no such plate; withheld as any piece.
    pub(super) fn of_plate(&self, mark: &str) -> Result<Order<'_>, NoFile> {
        let none = || NoFile::NotThere(format!("the cut list of {} has no plate {mark}", self.piece.mark));
        let plate = self.plates().iter().find(|one| one.mark == mark).ok_or_else(none)?;
        let outcome = plate.outcome.get_or_init(|| (self.means.audited)(&plate.piece));
        let own = Order::new(&plate.piece, outcome, self.stamp, self.settings, self.means)?;
        Ok(Order { above: self.heading().note, ..own })
    }

    /// The marks that there is one of a file for: one empty one for what there is one a piece of.
    pub fn marks(&self, of: Of) -> Vec<String> {
        match (of, self.made) {
            (Of::Piece, _) => vec![String::new()],
            (Of::Blank, _) if self.blanks().is_empty() => vec![String::new()],
            (Of::Blank, _) => self.blanks().iter().map(|one| one.piece.mark.clone()).collect(),
            (Of::Member | Of::Wrap, Made::Frame(frame)) => {
                let made = &frame.made;
                let members = made
                    .list
                    .lines
                    .iter()
                    .enumerate()
                    .filter_map(|(index, line)| Some((line, made.member_of_line(index)?)));
                members
                    .filter(|(_, member)| of == Of::Member || has_wrap(member))
                    .map(|(line, _)| line.mark.clone())
                    .collect()
            }
            (Of::Plate, _) => self.plates().iter().map(|one| one.mark.clone()).collect(),
            (Of::Member | Of::Wrap | Of::Job, _) => Vec::new(),
        }
    }

    /// The name of a file by the shop's pattern.
    pub(super) fn name_of(&self, of: Of, mark: &str, key: &str) -> String {
        if of == Of::Blank
            && !mark.is_empty()
            && let Ok(own) = self.of_blank(mark)
        {
            return own.name_of(of, "", key);
        }
        let (stem, end) = key.rsplit_once('.').unwrap_or((key, "txt"));
        let mut named = Named {
            mark: self.piece.mark.clone(),
            revision: self.stamp.revision.clone(),
            material: Some(self.piece.stock.material.clone()),
            quantity: Some(self.piece.count().cut() as usize),
            thickness: match self.made {
                Made::Sheet(_) => self.outcome.resolved.thickness.map(|one| self.thick(one)),
                _ => None,
            },
            file: stem.replace(super::MARK, mark),
            warning: self.note_of(of, mark).map(|_| NOT_RELEASED),
        };
        let line = match self.made {
            Made::Frame(frame) if of != Of::Piece => frame.made.list.lines.iter().find(|line| line.mark == mark),
            _ => None,
        };
        if let Some(line) = line {
            named.material = Some(line.material.clone());
            named.quantity = Some(line.quantity.saturating_mul(self.piece.count().cut() as usize));
        }
        if of == Of::Plate
            && let Some(OwnPlate { piece: plate, .. }) = self.plates().iter().find(|one| one.mark == mark)
        {
            named.thickness = Some(plate.stock.thickness.to_string().replace(' ', ""));
        }
        self.settings.names.name(&named, end)
    }

    fn thick(&self, millimetres: f64) -> String {
        match self.piece.unit {
            LengthUnit::Mm => format!("{}mm", decimal(millimetres, 3)),
            LengthUnit::In => format!("{}in", decimal(millimetres / 25.4, 4)),
        }
    }

    /// What heads its papers and files.
    pub fn heading(&self) -> Heading {
        let own = Heading::new(self.piece, self.outcome, self.stamp);
        Heading { note: own.note.or_else(|| self.above.clone()), ..own }
    }

    /// The note of a file: of a plate's own where it is one of a plate.
    fn note_of(&self, of: Of, mark: &str) -> Option<String> {
        let plate = (of == Of::Plate).then(|| self.of_plate(mark).ok()).flatten();
        plate.map_or_else(|| self.heading().note, |plate| plate.heading().note)
    }

    /// The unit of its DXF files.
    pub(super) fn dxf_unit(&self) -> LengthUnit {
        self.settings.dxf.of(self.piece.unit)
    }

    /// A drawing as DXF, contours and unit as the shop has them.
    pub(super) fn dxf(&self, drawing: &Drawing, head: &Heading) -> Result<Vec<u8>, NoFile> {
        let style = Style { contours: self.settings.contours, unit: self.dxf_unit(), remarks: head.lines() };
        Ok(crate::dxf_file::write(drawing, &style)?)
    }

    /// A list as CSV.
    pub(super) fn csv(&self, table: &Table) -> Result<Vec<u8>, NoFile> {
        Ok(crate::table_csv::write(table, &self.heading())?)
    }
}
