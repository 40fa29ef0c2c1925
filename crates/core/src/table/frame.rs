//! A frame's lists as neutral tables that CSV, XLSX and PDF all take: cut list, bars, welds.

use crate::nest::{BarPlan, BarResult};
use crate::piece::{BarGroup, FIRST_OFF, FrameOutcome, Piece};
use crate::quantity::Amount;

use super::neutral::{Cell, Table, first_off_cell, spares_cell, text};

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
    let unit = piece.unit;
    let mut all = Table::new(format!("{} {}: cut list", piece.mark, piece.title), unit)
        .columns(&["mark", "qty", "spares", "first-off", "what", "section", "material"])
        .measures(&["length", "short point", "centroid"], Amount::Length)
        .columns(&["start", "finish", "cuts", "start exact", "finish exact", "work", "opposite hand of", "weldment"])
        .measures(&["mass each", "mass total"], Amount::Mass)
        .measures(&["paint each"], Amount::Paint)
        .columns(&["note"])
        .columns(&columns.iter().map(String::as_str).collect::<Vec<_>>());
    for line in &outcome.made.list.lines {
        let end = |at: usize| line.ends.get(at).map(|end| end.text.clone()).unwrap_or_default();
        let exact = |at: usize| line.ends.get(at).map(|end| end.exact.clone()).unwrap_or_default();
        let mut row = vec![
            text(&line.mark),
            Cell::count(line.quantity.saturating_mul(piece.quantity as usize)),
            spares_cell(line.quantity.saturating_mul(piece.spares as usize)),
            first_off_cell(piece.first_off),
            text(line.kind.word()),
            text(&line.section),
            text(&line.material),
            Cell::of(unit, Amount::Length, line.length, 2),
            Cell::of(unit, Amount::Length, line.short_length, 2),
            Cell::of(unit, Amount::Length, line.centroid_length, 2),
            text(&end(0)),
            text(&end(1)),
            text(&line.between),
            text(&exact(0)),
            text(&exact(1)),
            text(&line.work),
            text(line.opposite_of.as_deref().unwrap_or_default()),
            text(&line.weldment),
            Cell::of(unit, Amount::Mass, line.mass_each, 4),
            Cell::of(unit, Amount::Mass, line.mass_total * f64::from(piece.quantity), 4),
            Cell::of(unit, Amount::Paint, line.paint_each, 4),
            text(&line.note),
        ];
        row.extend(columns.iter().map(|name| line.columns.get(name).map_or(Cell::Empty, |value| text(value))));
        all.rows.push(row);
    }
    for sum in &outcome.made.list.sums {
        let at = sum.centre_of_gravity;
        let place = |value: f64| unit.bare(Amount::Length, value, 1);
        let name = if sum.weldment.is_empty() { "whole frame".to_string() } else { sum.weldment.clone() };
        all.notes.push(format!(
            "{name}: {} pieces, {}, centre of gravity x {}, y {}, z {} {}, paint {}",
            sum.pieces,
            unit.says(Amount::Mass, sum.mass, 3),
            place(at.x),
            place(at.y),
            place(at.z),
            unit.sign(),
            unit.says(Amount::Paint, sum.paint, 3)
        ));
    }
    if piece.spares > 0 {
        let frames = if piece.spares == 1 { "1 more frame" } else { &format!("{} more frames", piece.spares) };
        all.notes.push(format!("Spares are the pieces of {frames}; masses are without them."));
    }
    if piece.first_off {
        all.notes.push(format!("{FIRST_OFF}."));
    }
    all.notes
        .push("Lengths long point to long point; angles from square, to the saw's step; the exact ones are in the CSV and in the workbook.".into());
    all
}

/// The cutting plan: one row a bar.
pub fn bar_table(piece: &Piece, groups: &[(BarGroup, BarResult)]) -> Table {
    let unit = piece.unit;
    let mut all = Table::new(format!("{} {}: bars", piece.mark, piece.title), unit)
        .columns(&["bar", "section", "material"])
        .measures(&["stock"], Amount::Length)
        .columns(&["pieces", "marks in order"])
        .measures(&["bar offcut"], Amount::Length);
    let mut number = 0;
    for (group, result) in groups {
        for bar in &result.plan {
            number += 1;
            all.rows.push(vec![
                Cell::Number(f64::from(number), 0),
                text(&group.section),
                text(&group.material),
                Cell::of(unit, Amount::Length, bar.stock, 1),
                Cell::Number(bar.marks.len() as f64, 0),
                text(&marks_in_order(bar, result)),
                Cell::of(unit, Amount::Length, bar.offcut, 1),
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
            "{} {}: {} bars, {}, at least {} bars and {} are needed: {proof}",
            group.section,
            group.material,
            result.bars_used,
            unit.says(Amount::Run, result.length_used, 3),
            result.lower_bound,
            unit.says(Amount::Run, result.length_bound, 3)
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
    let unit = piece.unit;
    let mut all = Table::new(format!("{} {}: welds", piece.mark, piece.title), unit)
        .columns(&["weld", "joint", "parts", "marks"])
        .measures(&["length", "leg", "throat"], Amount::Length)
        .columns(&["sides", "symbol"])
        .measures(&["deposit"], Amount::Mass)
        .columns(&["time min", "rule"]);
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
            Cell::of(unit, Amount::Length, weld.length, 1),
            Cell::of(unit, Amount::Length, weld.leg, 2),
            Cell::of(unit, Amount::Length, weld.throat, 2),
            text(weld.sides.words()),
            text(&weld.symbol),
            Cell::of(unit, Amount::Mass, weld.mass, 4),
            Cell::Number(weld.minutes, 1),
            text(&weld.why.source),
        ]);
    }
    all.notes.push(format!(
        "{} of weld, {} deposited, {} h at {} an hour of a welder's day (practice). Checked and listed, never certified: follow local codes; a licensed engineer decides.",
        unit.says(Amount::Run, length, 2),
        unit.says(Amount::Mass, mass, 3),
        crate::quantity::decimal(minutes / 60.0, 2),
        unit.says(Amount::Mass, 0.5, 1)
    ));
    all
}
