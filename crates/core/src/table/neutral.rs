//! A table that knows no file format: columns with their units, rows of words and numbers.

use crate::quantity::{Amount, LengthUnit, decimal};

/// One cell.
#[derive(Clone, Debug, PartialEq)]
pub enum Cell {
    /// Words.
    Text(String),
    /// A number with its decimals, in the unit of its column.
    Number(f64, usize),
    /// Nothing.
    Empty,
}

impl Cell {
    /// A metric figure in the table's unit; `places` are the decimals that the metric one is told with.
    pub fn of(unit: LengthUnit, amount: Amount, metric: f64, places: usize) -> Cell {
        Cell::Number(unit.figure(amount, metric), unit.places(amount, places))
    }

    /// A count.
    pub fn count(number: usize) -> Cell {
        Cell::Number(number as f64, 0)
    }

    /// As it is printed.
    pub fn text(&self) -> String {
        match self {
            Cell::Text(text) => text.clone(),
            Cell::Number(value, places) => decimal(*value, *places),
            Cell::Empty => String::new(),
        }
    }
}

/// Words, or nothing.
pub(super) fn text(value: &str) -> Cell {
    if value.is_empty() { Cell::Empty } else { Cell::Text(value.to_string()) }
}

/// A column: what is in it, and the unit of its numbers.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Column {
    /// `length`.
    pub name: String,
    /// `mm`; empty where it has none.
    pub unit: &'static str,
}

impl Column {
    /// As it stands over the column: `length mm`.
    pub fn heading(&self) -> String {
        if self.unit.is_empty() { self.name.clone() } else { format!("{} {}", self.name, self.unit) }
    }
}

/// A table with units in its headings.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Table {
    /// What it is.
    pub title: String,
    /// The unit that it is told in.
    pub unit: LengthUnit,
    /// Columns.
    pub columns: Vec<Column>,
    /// Rows, as wide as the columns.
    pub rows: Vec<Vec<Cell>>,
    /// Lines below it.
    pub notes: Vec<String>,
}

impl Table {
    /// One without columns yet.
    pub fn new(title: impl Into<String>, unit: LengthUnit) -> Table {
        Table { title: title.into(), unit, ..Table::default() }
    }

    /// With columns of words and counts.
    pub fn columns(mut self, names: &[&str]) -> Table {
        self.columns.extend(names.iter().map(|name| Column { name: (*name).into(), unit: "" }));
        self
    }

    /// With columns of figures, each in the table's unit for what it is of.
    pub fn measures(mut self, names: &[&str], of: Amount) -> Table {
        let unit = self.unit.word(of);
        self.columns.extend(names.iter().map(|name| Column { name: (*name).into(), unit }));
        self
    }

    /// Headings with their units.
    pub fn headings(&self) -> Vec<String> {
        self.columns.iter().map(Column::heading).collect()
    }

    /// A column by its name or its heading.
    pub fn column(&self, name: &str) -> Option<usize> {
        self.columns.iter().position(|one| one.name == name || one.heading() == name)
    }
}

/// How many spares; nothing where there are none.
pub fn spares_cell(spares: usize) -> Cell {
    if spares == 0 { Cell::Empty } else { Cell::count(spares) }
}

/// Whether the first is measured before the rest; nothing where that is not asked for.
pub fn first_off_cell(first_off: bool) -> Cell {
    if first_off { text("yes") } else { Cell::Empty }
}
