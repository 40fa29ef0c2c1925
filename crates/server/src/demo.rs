//! The demo job, as ordinary files in the binary.

use rust_embed::RustEmbed;
use steelk_core::piece::Piece;
use steelk_store::{Picture, Slot};

use crate::api::State;
use crate::problem::Problem;

#[derive(RustEmbed)]
#[folder = "../../demo"]
#[include = "*.json"]
#[include = "*.png"]
struct Demo;

/// Puts the demo jobs on an empty rack: every `NAME.json` with its drawing `NAME.png` and its photo `NAME.photo.png`, in the order of their names.
///
/// # Errors
/// [`Problem`] when a demo file cannot be read or saved.
pub fn lay_out(state: &State) -> Result<(), Problem> {
    if !state.store().jobs()?.is_empty() {
        return Ok(());
    }
    // Pieces from 20 on are the second job's.
    let trolley = state.store().add_job("TS-104", "Launching trolley", Some("2026-12-18"))?;
    let extraction = state.store().add_job("TS-107", "Resin bench extraction", Some("2027-01-22"))?;
    let mut names: Vec<String> =
        Demo::iter().filter(|name| name.ends_with(".json")).map(|name| name.to_string()).collect();
    names.sort();
    for name in names {
        let Some(file) = Demo::get(&name) else { continue };
        let piece = Piece::read(&file.data)?;
        let job = if name.as_str() >= "20" { extraction.id } else { trolley.id };
        let row = state.store().add_piece(job, &piece.write(), &format!("made {}", piece.mark))?;
        for (end, slot) in [(".png", Slot::Drawing), (".photo.png", Slot::Photo)] {
            if let Some(picture) = Demo::get(&name.replace(".json", end)) {
                let picture = Picture { kind: "image/png".into(), bytes: picture.data.into_owned() };
                state.store().put_picture(row.id, slot, &picture)?;
            }
        }
    }
    Ok(())
}

/// The demo pieces, for tests and benchmarks.
///
/// # Errors
/// [`Problem`] when a demo file cannot be read.
pub fn pieces() -> Result<Vec<(String, Piece)>, Problem> {
    let mut names: Vec<String> =
        Demo::iter().filter(|name| name.ends_with(".json")).map(|name| name.to_string()).collect();
    names.sort();
    let mut pieces = Vec::new();
    for name in names {
        if let Some(file) = Demo::get(&name) {
            pieces.push((name, Piece::read(&file.data)?));
        }
    }
    Ok(pieces)
}
