//! The stockholders' tables, row by row.

use std::sync::OnceLock;

use serde::Deserialize;

use super::form::Form;

#[derive(Clone, Debug, Deserialize)]
pub(super) struct AngleRow {
    pub long: f64,
    pub short: f64,
    pub thickness: f64,
    pub root: f64,
    pub area: f64,
}

#[derive(Clone, Debug, Deserialize)]
pub(super) struct BeamRow {
    pub name: String,
    pub form: String,
    pub height: f64,
    pub width: f64,
    pub web: f64,
    pub flange: f64,
    pub root: f64,
    pub area: f64,
}

#[derive(Clone, Debug, Deserialize)]
pub(super) struct UsRow {
    pub name: String,
    pub form: String,
    pub height: f64,
    pub width: f64,
    pub web: f64,
    pub flange: f64,
    pub weight: f64,
}

pub(super) fn rows<T: serde::de::DeserializeOwned>(text: &str) -> Vec<T> {
    csv::ReaderBuilder::new()
        .comment(Some(b'#'))
        .from_reader(text.as_bytes())
        .deserialize()
        // The tables are part of the program and a test reads every row: a fault in them cannot reach a user.
        .map(|row| row.expect("the tables in data/sections are sound"))
        .collect()
}

pub(super) fn angle_rows() -> &'static [AngleRow] {
    static ROWS: OnceLock<Vec<AngleRow>> = OnceLock::new();
    ROWS.get_or_init(|| rows(include_str!("../../../../data/sections/angles.csv")))
}

pub(super) fn beam_rows() -> &'static [BeamRow] {
    static ROWS: OnceLock<Vec<BeamRow>> = OnceLock::new();
    ROWS.get_or_init(|| rows(include_str!("../../../../data/sections/beams.csv")))
}

pub(super) fn us_rows() -> &'static [UsRow] {
    static ROWS: OnceLock<Vec<UsRow>> = OnceLock::new();
    ROWS.get_or_init(|| rows(include_str!("../../../../data/sections/us.csv")))
}

/// The US form of a row.
pub(super) fn us_form(row: &UsRow) -> Form {
    match row.form.as_str() {
        "square" => Form::SquareHollow,
        "rectangular" => Form::RectangularHollow,
        "angle" => Form::Angle,
        "channel" => Form::Channel,
        _ => Form::RoundHollow,
    }
}
