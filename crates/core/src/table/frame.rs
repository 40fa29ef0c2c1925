//! A frame's lists as neutral tables that CSV, XLSX and PDF all take: cut list, bars, welds.

use crate::nest::{BarPlan, BarResult};
use crate::piece::{BarGroup, FrameOutcome, Piece};
use crate::quantity::decimal;

/// One cell.
#[derive(Clone, Debug, PartialEq)]
pub enum Cell {
    /// Words.
    Text(String),
    /// A number with its decimals.
    Number(f64, usize),
    /// Nothing.
    Empty,
}

impl Cell {
    /// As it is printed.
    pub fn text(&self) -> String {
        match self {
            Cell::Text(text) => text.clone(),
            Cell::Number(value, places) => decimal(*value, *places),
            Cell::Empty => String::new(),
        }
    }
}

/// A table with units in its headings.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Table {
    /// What it is.
    pub title: String,
    /// Headings.
    pub headings: Vec<String>,
    /// Rows, as wide as the headings.
    pub rows: Vec<Vec<Cell>>,
    /// Lines below it.
    pub notes: Vec<String>,
}

fn table(title: String, headings: &[&str]) -> Table {
    Table { title, headings: headings.iter().map(|one| (*one).to_string()).collect(), ..Table::default() }
}

fn text(value: &str) -> Cell {
    if value.is_empty() { Cell::Empty } else { Cell::Text(value.to_string()) }
}

/// The cut list: members, then plates, then the sums.
pub fn cut_table(piece: &Piece, outcome: &FrameOutcome) -> Table {
    let mut columns: Vec<String> = Vec::new();
    for line in &outcome.made.list.lines {
        for name in line.columns.keys() {
            if !columns.contains(name) {
                columns.push(name.clone());
            }
        }
    }
    let mut all = table(
        format!("{} {}: cut list", piece.mark, piece.title),
        &[
            "mark",
            "quantity",
            "what",
            "section",
            "material",
            "length mm",
            "short point mm",
            "centroid mm",
            "start",
            "finish",
            "cuts",
            "start exact",
            "finish exact",
            "work",
            "opposite hand of",
            "weldment",
            "mass each kg",
            "mass total kg",
            "paint each m2",
            "note",
        ],
    );
    all.headings.extend(columns.iter().cloned());
    for line in &outcome.made.list.lines {
        let end = |at: usize| line.ends.get(at).map(|end| end.text.clone()).unwrap_or_default();
        let exact = |at: usize| line.ends.get(at).map(|end| end.exact.clone()).unwrap_or_default();
        let mut row = vec![
            text(&line.mark),
            Cell::Number((line.quantity as u32 * piece.quantity) as f64, 0),
            text(line.kind.word()),
            text(&line.section),
            text(&line.material),
            Cell::Number(line.length, 2),
            Cell::Number(line.short_length, 2),
            Cell::Number(line.centroid_length, 2),
            text(&end(0)),
            text(&end(1)),
            text(&line.between),
            text(&exact(0)),
            text(&exact(1)),
            text(&line.work),
            text(line.opposite_of.as_deref().unwrap_or_default()),
            text(&line.weldment),
            Cell::Number(line.mass_each, 4),
            Cell::Number(line.mass_total * f64::from(piece.quantity), 4),
            Cell::Number(line.paint_each, 4),
            text(&line.note),
        ];
        row.extend(columns.iter().map(|name| line.columns.get(name).map_or(Cell::Empty, |value| text(value))));
        all.rows.push(row);
    }
    for sum in &outcome.made.list.sums {
        let at = sum.centre_of_gravity;
        let name = if sum.weldment.is_empty() { "whole frame".to_string() } else { sum.weldment.clone() };
        all.notes.push(format!(
            "{name}: {} pieces, {} kg, centre of gravity x {}, y {}, z {} mm, paint {} m2",
            sum.pieces,
            decimal(sum.mass, 3),
            decimal(at.x, 1),
            decimal(at.y, 1),
            decimal(at.z, 1),
            decimal(sum.paint, 3)
        ));
    }
    all.notes
        .push("Lengths long point to long point; angles from square, to the saw's step; the exact ones are in the CSV and in the workbook.".into());
    all
}

/// The cutting plan: one row a bar.
pub fn bar_table(piece: &Piece, groups: &[(BarGroup, BarResult)]) -> Table {
    let mut all = table(
        format!("{} {}: bars", piece.mark, piece.title),
        &["bar", "section", "material", "stock mm", "pieces", "marks in order", "offcut mm"],
    );
    let mut number = 0;
    for (group, result) in groups {
        for bar in &result.plan {
            number += 1;
            all.rows.push(vec![
                Cell::Number(f64::from(number), 0),
                text(&group.section),
                text(&group.material),
                Cell::Number(bar.stock, 1),
                Cell::Number(bar.marks.len() as f64, 0),
                text(&marks_in_order(bar, result)),
                Cell::Number(bar.offcut, 1),
            ]);
        }
        let proof = if result.optimal { "proved best" } else { "best found" };
        if !result.turned.is_empty() {
            all.notes.push(format!(
                "{}: {} lie side by side, every other one turned, and share their mitre cuts",
                group.section,
                result.turned.join(", ")
            ));
        }
        all.notes.push(format!(
            "{} {}: {} bars, {} m, at least {} bars and {} m are needed: {proof}",
            group.section,
            group.material,
            result.bars_used,
            decimal(result.length_used / 1000.0, 3),
            result.lower_bound,
            decimal(result.length_bound / 1000.0, 3)
        ));
    }
    all
}

/// A bar's marks in order; of those that share their cuts every other one lies turned, and says so.
fn marks_in_order(bar: &BarPlan, result: &BarResult) -> String {
    let mut shared = 0;
    let words: Vec<String> = bar
        .marks
        .iter()
        .map(|mark| {
            if !result.turned.contains(mark) {
                return mark.clone();
            }
            shared += 1;
            if shared % 2 == 0 { format!("{mark} (turned)") } else { mark.clone() }
        })
        .collect();
    words.join(" ")
}

/// Welds to make.
pub fn weld_table(piece: &Piece, outcome: &FrameOutcome) -> Table {
    let mut all = table(
        format!("{} {}: welds", piece.mark, piece.title),
        &[
            "weld",
            "joint",
            "parts",
            "marks",
            "length mm",
            "leg mm",
            "throat mm",
            "sides",
            "symbol",
            "deposit kg",
            "time min",
            "rule",
        ],
    );
    let (mut mass, mut minutes, mut length) = (0.0, 0.0, 0.0);
    for weld in &outcome.welds {
        mass += weld.mass;
        minutes += weld.minutes;
        length += weld.length;
        all.rows.push(vec![
            text(&weld.mark),
            text(weld.kind.words()),
            text(&weld.parts.join(" and ")),
            text(&weld.marks.join(" and ")),
            Cell::Number(weld.length, 1),
            Cell::Number(weld.leg, 1),
            Cell::Number(weld.throat, 2),
            text(weld.sides.words()),
            text(&weld.symbol),
            Cell::Number(weld.mass, 4),
            Cell::Number(weld.minutes, 1),
            text(&weld.why.source),
        ]);
    }
    all.notes.push(format!(
        "{} m of weld, {} kg deposited, {} h at 0.5 kg an hour of a welder's day (practice). Checked and listed, never certified: follow local codes; a licensed engineer decides.",
        decimal(length / 1000.0, 2),
        decimal(mass, 3),
        decimal(minutes / 60.0, 2)
    ));
    all
}
