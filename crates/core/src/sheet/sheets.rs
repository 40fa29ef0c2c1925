//! The blanks that a piece of sheet comes to.

use crate::finding::{Finding, Severity};
use crate::plane::Vector;
use crate::quantity::LengthUnit;
use crate::quantity::tolerance::CUBIC_METRES;
use crate::space::{Point3, Vector3};

use super::alike::{Alike, BlankCut};
use super::beside::side_by_side;
use super::build::Built;
use super::fold::Folded;
use super::seam::{Seam, SeamFault, SeamRecord, seam_of};
use super::set::SheetSet;
use super::transition::SurfaceRecord;
use super::{Figures, Flat, Part, figures, folded_extents};

/// One blank with what it folds to and its figures.
#[derive(Clone, Debug)]
pub struct SheetBlank {
    /// In the flat and folded, where it lies in the piece.
    pub part: Part,
    /// Its figures.
    pub figures: Figures,
}

/// Blanks that are one line of a cut list.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct BlankLine {
    /// Their places in the set, the first of them first: it has the drawing.
    pub blanks: Vec<usize>,
    /// The line that it is the opposite hand of, by its place in the list.
    pub hand_of: Option<usize>,
}

/// The blanks of one piece. What is only said of a single blank asks [`only`](Self::only) and refuses in words where there are
/// more; nothing ever takes the first of several for the whole.
#[derive(Clone, Debug)]
pub struct Sheets {
    blanks: Vec<SheetBlank>,
    lines: Vec<BlankLine>,
    seams: Vec<Seam>,
    records: Vec<SeamRecord>,
    lost: Vec<(SeamRecord, SeamFault)>,
    surfaces: Vec<SurfaceRecord>,
    /// Of several: side by side, and how each is shifted there.
    beside: Option<Box<(Part, Vec<Vector>)>>,
}

/// Figures of all blanks of a piece together, in mm, mm2, mm3 and kg.
#[derive(Clone, Debug, PartialEq)]
pub struct WholeFigures {
    /// How many sheets there are.
    pub sheets: usize,
    /// Overall folded size, mm.
    pub folded_size: Vector3,
    /// Net area of all blanks, mm2.
    pub net_area: f64,
    /// Length of every cut, mm.
    pub cut_length: f64,
    /// Pierces.
    pub pierces: usize,
    /// Bends.
    pub bends: usize,
    /// Mass, kg.
    pub mass: f64,
    /// Volume of the folded sheets, mm3.
    pub folded_volume: f64,
    /// Mass that this volume would have, kg.
    pub folded_mass: f64,
    /// Centre of gravity, mm.
    pub centre_of_gravity: Point3,
}

impl Sheets {
    /// A piece of one blank.
    pub fn of(part: Part) -> Sheets {
        let figures = figures(&part);
        let lines = vec![BlankLine { blanks: vec![0], hand_of: None }];
        Sheets {
            blanks: vec![SheetBlank { part, figures }],
            lines,
            seams: Vec::new(),
            records: Vec::new(),
            lost: Vec::new(),
            surfaces: Vec::new(),
            beside: None,
        }
    }

    /// What was built, where every blank of it folds and lies flat.
    pub fn of_built(built: &Built, density: f64) -> Option<Sheets> {
        let parts: Option<Vec<Part>> = built.blanks.iter().map(|blank| Part::of_blank(blank, density)).collect();
        let mut parts = parts.filter(|parts| !parts.is_empty())?;
        let laid: Vec<(&Flat, &Folded)> = parts.iter().map(|part| (&part.flat, &part.folded)).collect();
        let (mut seams, mut lost) = (Vec::new(), Vec::new());
        for record in &built.seams {
            match seam_of(&laid, record) {
                Ok(seam) => seams.push(seam),
                // What a later cut has parted runs beside one of the halves alone.
                Err(SeamFault::Past) if record.half => {}
                Err(fault) => lost.push((record.clone(), fault)),
            }
        }
        let (records, surfaces) = (built.seams.clone(), built.surfaces.clone());
        if parts.len() == 1 {
            let part = parts.remove(0);
            return Some(Sheets { seams, records, lost, surfaces, ..Sheets::of(part) });
        }
        let beside = Some(Box::new(side_by_side(&parts.iter().collect::<Vec<_>>())));
        let lines = lines_of(&parts);
        let own = |part: Part| {
            let figures = figures(&part);
            SheetBlank { part, figures }
        };
        Some(Sheets { blanks: parts.into_iter().map(own).collect(), lines, seams, records, lost, surfaces, beside })
    }

    /// The blanks in the flat, as further steps are tried on them.
    pub fn set(&self) -> SheetSet {
        let flats = self.blanks.iter().map(|blank| blank.part.flat.clone()).collect();
        SheetSet { flats, seams: self.records.clone(), surfaces: self.surfaces.clone() }
    }

    /// Every blank, in the order in which they were made.
    pub fn blanks(&self) -> &[SheetBlank] {
        &self.blanks
    }

    /// Blanks that are alike together, opposite hands apart, in the order in which they were made.
    pub fn lines(&self) -> &[BlankLine] {
        &self.lines
    }

    /// Joints between edges.
    pub fn seams(&self) -> &[Seam] {
        &self.seams
    }

    /// What transitions came to.
    pub fn surfaces(&self) -> &[SurfaceRecord] {
        &self.surfaces
    }

    /// Seams whose edges no longer lie together, or are gone: a later step took them.
    pub fn lost_seams(&self, unit: LengthUnit) -> Vec<Finding> {
        let told = self.lost.iter().map(|(record, fault)| {
            let words = fault.words(record, unit);
            Finding { severity: Severity::Warning, field: None, ..words }.of_operation(record.operation())
        });
        told.collect()
    }

    /// The blank, where there is exactly one.
    pub fn only(&self) -> Option<&SheetBlank> {
        match self.blanks.as_slice() {
            [blank] => Some(blank),
            _ => None,
        }
    }

    /// The blank by itself, where there is exactly one.
    pub fn into_only(mut self) -> Option<SheetBlank> {
        if self.blanks.len() == 1 { self.blanks.pop() } else { None }
    }

    /// One blank of several as a piece of its own.
    pub fn alone(&self, which: usize) -> Option<Sheets> {
        let SheetBlank { part, figures } = self.blanks.get(which)?.clone();
        let lines = vec![BlankLine { blanks: vec![0], hand_of: None }];
        Some(Sheets {
            blanks: vec![SheetBlank { part, figures }],
            lines,
            seams: Vec::new(),
            records: Vec::new(),
            lost: Vec::new(),
            surfaces: Vec::new(),
            beside: None,
        })
    }

    /// All that is on the piece as one part with its blanks side by side: for names, measures and pictures. Nothing is cut from it, and
    /// of its blank only the pieces of outline are right. Of one blank it is that blank.
    pub fn laid_out(&self) -> &Part {
        match &self.beside {
            Some(beside) => &beside.0,
            None => &self.blanks[0].part,
        }
    }

    /// How far each blank is shifted in [`laid_out`](Self::laid_out), mm.
    pub fn shift(&self, which: usize) -> Vector {
        self.beside.as_ref().map_or(Vector::default(), |beside| beside.1[which])
    }

    /// How a blank is told from the others: `A`, `B`, ..., by its place; blanks that are alike are told by the first of them.
    pub fn letter(which: usize) -> String {
        let letter = char::from(b'A' + u8::try_from(which % 26).unwrap_or(0));
        if which < 26 { letter.to_string() } else { format!("{}{letter}", Sheets::letter(which / 26 - 1)) }
    }

    /// The line that a blank stands in.
    pub fn line_of(&self, which: usize) -> usize {
        self.lines.iter().position(|line| line.blanks.contains(&which)).unwrap_or(0)
    }

    /// Figures of all together.
    pub fn whole(&self) -> WholeFigures {
        let sum = |of: fn(&Figures) -> f64| self.blanks.iter().map(|blank| of(&blank.figures)).sum::<f64>();
        let mass = sum(|figures| figures.mass);
        let moment = self.blanks.iter().fold(Vector3::default(), |sum, blank| {
            sum + blank.figures.centre_of_gravity.from_origin() * blank.figures.mass
        });
        let folded_volume = sum(|figures| figures.folded_volume);
        WholeFigures {
            sheets: self.blanks.len(),
            folded_size: folded_extents(self.laid_out()).size(),
            net_area: sum(|figures| figures.net_area),
            cut_length: sum(|figures| figures.cut_length),
            pierces: self.blanks.iter().map(|blank| blank.figures.pierces).sum(),
            bends: self.blanks.iter().map(|blank| blank.figures.bends).sum(),
            mass,
            folded_volume,
            folded_mass: folded_volume * CUBIC_METRES * self.blanks[0].part.density,
            centre_of_gravity: Point3::default() + moment * (1.0 / mass),
        }
    }
}

/// Blanks that are alike together.
fn lines_of(parts: &[Part]) -> Vec<BlankLine> {
    let cuts: Vec<BlankCut> = parts.iter().map(|part| BlankCut::of(part, String::new())).collect();
    let mut lines: Vec<BlankLine> = Vec::new();
    for (which, cut) in cuts.iter().enumerate() {
        let how = |line: &BlankLine| cuts[line.blanks[0]].alike(cut);
        if let Some(line) = lines.iter_mut().find(|line| how(line) == Alike::Same) {
            line.blanks.push(which);
            continue;
        }
        let hand_of = lines.iter().position(|line| how(line) == Alike::Opposite);
        lines.push(BlankLine { blanks: vec![which], hand_of });
    }
    lines
}
