//! The lists of a plate or a sheet part as neutral tables: holes, edges, bends, the line of the cut list.

use crate::brake::BendRow;
use crate::cutlist::CutLine;
use crate::quantity::{Amount, LengthUnit};
use crate::work::sheet::{Face, Make};

use super::neutral::{Cell, Table, first_off_cell, spares_cell, text};
use super::{EdgeRow, HoleRow};

/// The hole table, places from the datum corner.
pub fn hole_table(rows: &[HoleRow], unit: LengthUnit) -> Table {
    let mut all = Table::new("Holes", unit)
        .columns(&["balloon", "hole"])
        .measures(&["x", "y"], Amount::Length)
        .columns(&["size", "work", "face", "cutter", "of this kind"]);
    for row in rows {
        let face = match row.face {
            Face::Top => "top",
            Face::Bottom => "bottom",
        };
        let make = match row.make {
            Make::Cut => "cuts",
            Make::Mark => "marks",
            Make::Leave => "leaves",
            Make::Punch => "leaves to the punch",
        };
        all.rows.push(vec![
            text(&row.balloon),
            text(&row.name),
            Cell::of(unit, Amount::Length, row.x, 3),
            Cell::of(unit, Amount::Length, row.y, 3),
            text(&row.size),
            text(&row.work),
            text(face),
            text(make),
            Cell::count(row.count),
        ]);
    }
    all
}

/// The edge table.
pub fn edge_table(rows: &[EdgeRow], unit: LengthUnit) -> Table {
    let mut all =
        Table::new("Edges", unit).columns(&["edge", "stretches"]).measures(&["length", "radius"], Amount::Length);
    let length = |value: f64| Cell::of(unit, Amount::Length, value, 3);
    for row in rows {
        let radius = row.radius.map_or(Cell::Empty, length);
        all.rows.push(vec![text(&row.name), Cell::count(row.stretches), length(row.length), radius]);
    }
    all
}

/// The bend table; angles in degrees.
pub fn bend_table(rows: &[BendRow], unit: LengthUnit) -> Table {
    let mut all = Table::new("Bends", unit)
        .columns(&["mark", "bend", "angle deg", "direction"])
        .measures(&["inside radius", "length"], Amount::Length)
        .columns(&["tooling"])
        .measures(&["allowance", "deduction"], Amount::Length)
        .columns(&["source"]);
    let length = |value: f64| Cell::of(unit, Amount::Length, value, 3);
    for row in rows {
        all.rows.push(vec![
            text(&row.mark),
            text(&row.name),
            Cell::Number(row.angle, 3),
            text(row.direction.word()),
            length(row.radius),
            length(row.length),
            text(&row.tooling),
            length(row.allowance),
            length(row.deduction),
            text(&row.source),
        ]);
    }
    all
}

/// The cut list of plates and sheet parts, without rows: one a [`cut_row`].
pub fn cut_list_table(unit: LengthUnit) -> Table {
    Table::new("Cut list", unit)
        .columns(&["mark", "title", "qty", "spares", "first-off", "material"])
        .measures(&["thickness", "blank width", "blank height"], Amount::Length)
        .measures(&["net area"], Amount::Area)
        .measures(&["cut length"], Amount::Length)
        .columns(&["pierces", "bends"])
        .measures(&["mass each", "mass total"], Amount::Mass)
}

/// A line of the cut list as a row of [`cut_list_table`].
pub fn cut_row(line: &CutLine, unit: LengthUnit) -> Vec<Cell> {
    let length = |value: f64, places: usize| Cell::of(unit, Amount::Length, value, places);
    vec![
        text(&line.mark),
        text(&line.title),
        Cell::count(line.quantity as usize),
        spares_cell(line.spares as usize),
        first_off_cell(line.first_off),
        text(&line.material),
        length(line.thickness, 4),
        length(line.blank_width, 3),
        length(line.blank_height, 3),
        Cell::of(unit, Amount::Area, line.net_area, 2),
        length(line.cut_length, 2),
        Cell::count(line.pierces),
        Cell::count(line.bends),
        Cell::of(unit, Amount::Mass, line.mass_each, 4),
        Cell::of(unit, Amount::Mass, line.mass_total, 4),
    ]
}
