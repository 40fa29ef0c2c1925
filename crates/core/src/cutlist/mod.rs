//! The cut list: one line a piece, with what the cutter and the store need.

use serde::Serialize;
use utoipa::ToSchema;

use crate::piece::{Outcome, Piece};

/// One line of the cut list, in mm, mm2 and kg.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct CutLine {
    pub mark: String,
    pub title: String,
    /// How many the job needs.
    pub quantity: u32,
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

/// The line of a piece; `None` while it has no blank.
pub fn cut_line(piece: &Piece, outcome: &Outcome) -> Option<CutLine> {
    let figures = outcome.figures()?;
    Some(CutLine {
        mark: piece.mark.clone(),
        title: piece.title.clone(),
        quantity: piece.quantity,
        spares: piece.spares,
        first_off: piece.first_off,
        material: piece.stock.material.clone(),
        thickness: outcome.resolved.thickness?,
        blank_width: figures.blank_width,
        blank_height: figures.blank_height,
        net_area: figures.net_area,
        cut_length: figures.cut_length,
        pierces: figures.pierces,
        bends: figures.bends,
        mass_each: figures.mass,
        mass_total: figures.mass * f64::from(piece.quantity),
    })
}
