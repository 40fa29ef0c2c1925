//! The cut list: one line a blank, with what the cutter and the store need.

use serde::Serialize;
use utoipa::ToSchema;

use crate::piece::{BlankOf, Outcome, Piece, blanks_of};

/// One line of the cut list, in mm, mm2 and kg.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct CutLine {
    pub mark: String,
    pub title: String,
    /// How many the job needs.
    pub quantity: u32,
    /// How many of it one piece has: more than one where blanks of it are alike.
    pub a_piece: u32,
    /// How many more are cut.
    pub spares: u32,
    /// Whether the first is measured before the rest are made.
    pub first_off: bool,
    pub material: String,
    pub thickness: f64,
    pub blank_width: f64,
    pub blank_height: f64,
    pub net_area: f64,
    pub cut_length: f64,
    pub pierces: usize,
    pub bends: usize,
    pub mass_each: f64,
    /// Of those that the job needs, without spares.
    pub mass_total: f64,
}

/// The lines of a piece, one a blank, alike ones together; none while it has no blank.
pub fn cut_lines(piece: &Piece, outcome: &Outcome) -> Vec<CutLine> {
    let (Some(sheets), Some(thickness)) = (outcome.sheets(), outcome.resolved.thickness) else { return Vec::new() };
    let blanks = blanks_of(piece, sheets);
    let line = |blank: BlankOf| {
        let figures = &sheets.blanks()[blank.first].figures;
        let said = blank.words();
        let quantity = piece.quantity.saturating_mul(blank.count);
        CutLine {
            mark: blank.mark,
            title: if said.is_empty() { piece.title.clone() } else { format!("{}, {said}", piece.title) },
            quantity,
            a_piece: blank.count,
            spares: piece.spares.saturating_mul(blank.count),
            first_off: piece.first_off,
            material: piece.stock.material.clone(),
            thickness,
            blank_width: figures.blank_width,
            blank_height: figures.blank_height,
            net_area: figures.net_area,
            cut_length: figures.cut_length,
            pierces: figures.pierces,
            bends: figures.bends,
            mass_each: figures.mass,
            mass_total: figures.mass * f64::from(quantity),
        }
    };
    blanks.into_iter().map(line).collect()
}
