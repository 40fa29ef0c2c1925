//! The demo job, as ordinary files in the binary.

use rust_embed::RustEmbed;
use steelk_core::piece::Piece;
use steelk_store::{NewJob, NewPiece, Picture, Slot};

use crate::api::State;
use crate::problem::Problem;

#[derive(RustEmbed)]
#[folder = "../../demo"]
struct Demo;

/// Puts the demo jobs on an empty rack, whole or not at all: every `NAME.json` with its drawing `NAME.png` and its photo
/// `NAME.photo.png`, in the order of their names.
///
/// # Errors
/// [`Problem`] when a demo file cannot be read or saved.
pub fn lay_out(state: &State) -> Result<(), Problem> {
    let job = |number: &str, title: &str, due: &str| NewJob {
        number: number.into(),
        title: title.into(),
        due: Some(due.into()),
        pieces: Vec::new(),
    };
    let mut jobs =
        [job("TS-104", "Launching trolley", "2026-12-18"), job("TS-107", "Resin bench extraction", "2027-01-22")];
    let mut names: Vec<String> =
        Demo::iter().filter(|name| name.ends_with(".json")).map(|name| name.to_string()).collect();
    names.sort();
    for name in names {
        let Some(file) = Demo::get(&name) else { continue };
        let piece = Piece::read(&file.data)?;
        let pictures = [(".png", Slot::Drawing), (".photo.png", Slot::Photo)].into_iter().filter_map(|(end, slot)| {
            let picture = Demo::get(&name.replace(".json", end))?;
            Some((slot, Picture { kind: "image/png".into(), bytes: picture.data.into_owned() }))
        });
        let (note, pictures) = (format!("made {}", piece.mark), pictures.collect());
        // Pieces from 20 on are the second job's.
        jobs[usize::from(name.as_str() >= "20")].pieces.push(NewPiece {
            document: piece.to_keep()?,
            note,
            pictures,
            ..NewPiece::default()
        });
    }
    state.store().lay_out_on_empty(&jobs)?;
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
