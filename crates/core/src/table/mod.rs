//! Tables for the shop: holes with balloons, sizes and places from a corner of the blank; edges with their lengths.

mod frame;
mod neutral;
mod sheet;

pub use frame::{bar_table, cut_table, weld_table};
pub use neutral::{Cell, Column, Table, first_off_cell, spares_cell};
pub use sheet::{bend_table, cut_list_table, cut_row, edge_table, hole_table};

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plane::{Point, Segment};
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::quantity::{LengthUnit, drill_called, length_text};
use crate::sheet::{Part, cut_edges};
use crate::work::sheet::{Face, Make};

/// The corner of the blank that places are measured from, as one looks at the upper face.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum DatumCorner {
    #[default]
    LowerLeft,
    LowerRight,
    UpperLeft,
    UpperRight,
}

/// A hole in the table.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HoleRow {
    /// A letter for each kind of hole and a number for each of its kind: `A1`.
    pub balloon: String,
    /// Its name.
    pub name: String,
    /// Across from the datum corner, mm, positive into the blank.
    pub x: f64,
    /// Up from the datum corner, mm, positive into the blank.
    pub y: f64,
    /// Its size in words, with units.
    pub size: String,
    /// What is done there besides, in words.
    pub work: String,
    /// The face it is worked from.
    pub face: Face,
    /// What the cutter does of it.
    pub make: Make,
    /// How many of its kind there are.
    pub count: usize,
}

/// An edge in the table.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EdgeRow {
    /// Its name.
    pub name: String,
    /// In how many stretches it is left.
    pub stretches: usize,
    /// How long what is left of it is, mm.
    pub length: f64,
    /// Radius of a round edge, mm; `None` where it is straight.
    pub radius: Option<f64>,
}

/// Every hole, kind by kind in the order made.
pub fn hole_rows(part: &Part, corner: DatumCorner, unit: LengthUnit) -> Vec<HoleRow> {
    let around = part.blank.extents();
    let place = |point: Point| {
        let (left, low) = (point.x - around.low.x, point.y - around.low.y);
        let (right, high) = (around.high.x - point.x, around.high.y - point.y);
        match corner {
            DatumCorner::LowerLeft => (left, low),
            DatumCorner::LowerRight => (right, low),
            DatumCorner::UpperLeft => (left, high),
            DatumCorner::UpperRight => (right, high),
        }
    };
    let show = |value: f64| length_text(value, unit);
    let mut kinds: Vec<(String, String, Face, Make)> = Vec::new();
    let mut rows: Vec<(usize, HoleRow)> = Vec::new();
    for hole in part.flat.holes.iter() {
        let size = match hole.outline.as_circle() {
            Some((_, radius)) => {
                let named = (unit == LengthUnit::In).then(|| drill_called(2.0 * radius)).flatten();
                format!("diameter {}{}", show(2.0 * radius), named.map_or(String::new(), |name| format!(", {name}")))
            }
            None => format!("{} by {}", show(hole.extents.width()), show(hole.extents.height())),
        };
        let kind = (size.clone(), hole.work.words.clone(), hole.work.face, hole.work.make);
        let at = kinds.iter().position(|known| *known == kind).unwrap_or_else(|| {
            kinds.push(kind);
            kinds.len() - 1
        });
        let (x, y) = place(hole.centre);
        let row = HoleRow {
            balloon: String::new(),
            name: hole.name.clone(),
            x,
            y,
            size,
            work: hole.work.words.clone(),
            face: hole.work.face,
            make: hole.work.make,
            count: 0,
        };
        rows.push((at, row));
    }
    rows.sort_by_key(|(kind, _)| *kind);
    let counts: Vec<usize> = (0..kinds.len()).map(|kind| rows.iter().filter(|(at, _)| *at == kind).count()).collect();
    let mut seen = vec![0; kinds.len()];
    rows.into_iter()
        .map(|(kind, row)| {
            seen[kind] += 1;
            HoleRow { balloon: format!("{}{}", letters(kind), seen[kind]), count: counts[kind], ..row }
        })
        .collect()
}

/// A, B, ... Z, AA, AB, ...
fn letters(mut at: usize) -> String {
    let mut text = String::new();
    loop {
        text.insert(0, char::from(b'A' + (at % 26) as u8));
        if at < 26 {
            return text;
        }
        at = at / 26 - 1;
    }
}

/// How many stretches stand apart: those that go on from one another are one.
fn apart(stretches: &[Segment]) -> usize {
    let goes_on = |one: &Segment| stretches.iter().any(|other| other.end.distance(one.start) < MODELLING_TOLERANCE);
    stretches.iter().filter(|one| !goes_on(one)).count().max(1)
}

/// Every edge of which something is left, then those that cuts have made.
pub fn edge_rows(part: &Part) -> Vec<EdgeRow> {
    let flat = &part.flat;
    let made = cut_edges(flat).into_iter().map(|edge| EdgeRow {
        stretches: apart(&edge.stretches),
        length: edge.stretches.iter().map(Segment::length).sum(),
        radius: edge.stretches.first().filter(|one| !one.is_line()).map(Segment::radius),
        name: edge.name,
    });
    flat.edges
        .iter()
        .filter_map(|edge| {
            let left = flat.segments_of(edge.panel, edge.tag);
            let first = left.first()?;
            Some(EdgeRow {
                name: edge.name.clone(),
                stretches: apart(&left),
                length: left.iter().map(Segment::length).sum(),
                radius: (!first.is_line()).then(|| first.radius()),
            })
        })
        .chain(made)
        .collect()
}
