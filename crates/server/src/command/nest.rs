//! `steelk nest`: a bare list of pieces into bars.

use std::path::Path;
use std::time::{Duration, Instant};

use serde::{Deserialize, Serialize};
use steelk_core::nest::{BarPiece, BarProblem, StockBar, nest};
use steelk_core::quantity::tolerance::ROUNDING;
use steelk_core::quantity::{Dimension, LengthUnit, Names, decimal};

use super::say::say;

/// A list as it is written.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct List {
    stock: Vec<Stock>,
    #[serde(default = "none")]
    kerf: String,
    #[serde(default = "none")]
    end_trim: String,
    pieces: Vec<PieceOf>,
}

fn none() -> String {
    "0 mm".into()
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Stock {
    length: String,
    #[serde(default)]
    quantity: Option<usize>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct PieceOf {
    mark: String,
    length: String,
    quantity: usize,
}

#[derive(Serialize)]
struct Answer {
    bars_used: usize,
    lower_bound: usize,
    optimal: bool,
    length_used: String,
    length_bound: String,
    plan: Vec<Bar>,
}

#[derive(Serialize)]
struct Bar {
    stock: String,
    marks: Vec<String>,
    offcut: String,
}

/// How long a list is searched at most.
const SEARCH: Duration = Duration::from_millis(1700);

pub(super) fn run(path: &Path) -> Result<(), String> {
    let bytes = std::fs::read(path).map_err(|fault| format!("{} cannot be read: {fault}", path.display()))?;
    if bytes.len() > 8 * 1024 * 1024 {
        return Err(format!("{} has {} bytes; 8 MiB at most are read", path.display(), bytes.len()));
    }
    let mut reader = serde_json::Deserializer::from_slice(&bytes);
    let list: List = serde_path_to_error::deserialize(&mut reader)
        .map_err(|fault| format!("{}: {}: {}", path.display(), fault.path(), fault.inner()))?;
    let names = Names::new(LengthUnit::Mm);
    let length = |field: String, text: &str| {
        names
            .read(text, Dimension::LENGTH, "a length")
            .map_err(|fault| format!("{}: {field}: {}. {}", path.display(), fault.message, fault.way_out))
    };
    let mut problem = BarProblem {
        kerf: length("kerf".into(), &list.kerf)?,
        end_trim: length("end_trim".into(), &list.end_trim)?,
        ..BarProblem::default()
    };
    for (at, stock) in list.stock.iter().enumerate() {
        let length = length(format!("stock[{at}].length"), &stock.length)?;
        problem.stock.push(StockBar { length, quantity: stock.quantity });
    }
    for (at, piece) in list.pieces.iter().enumerate() {
        let length = length(format!("pieces[{at}].length"), &piece.length)?;
        problem.pieces.push(BarPiece { mark: piece.mark.clone(), length, quantity: piece.quantity, shared: 0.0 });
    }
    let end = Instant::now() + SEARCH;
    let result = nest(&problem, &mut |_| Instant::now() < end)
        .map_err(|fault| format!("{}. {}", fault.message, fault.way_out))?;
    let show = |value: f64| format!("{} mm", decimal(value, 3));
    // Stock as it was written, so that a reader finds it again.
    let written = |length: f64| {
        problem
            .stock
            .iter()
            .position(|bar| (bar.length - length).abs() < ROUNDING)
            .map_or_else(|| show(length), |at| list.stock[at].length.clone())
    };
    let answer = Answer {
        bars_used: result.bars_used,
        lower_bound: result.lower_bound,
        optimal: result.optimal,
        length_used: show(result.length_used),
        length_bound: show(result.length_bound),
        plan: result
            .plan
            .into_iter()
            .map(|bar| Bar { stock: written(bar.stock), marks: bar.marks, offcut: show(bar.offcut) })
            .collect(),
    };
    say!("{}", serde_json::to_string_pretty(&answer).map_err(|fault| fault.to_string())?);
    Ok(())
}
