//! `steelk build`.

use std::path::Path;

use steelk_core::cutlist::cut_line;
use steelk_core::piece::{Options, evaluate};
use steelk_formats::report::Report;

use super::read_piece;

pub(super) fn run(path: &Path, out: &Path) -> Result<(), String> {
    let piece = read_piece(path)?;
    let outcome = evaluate(&piece, Options::default());
    // Everything is made before anything is written: no half package is left behind.
    let drawing = crate::api::download::whole_blank(&piece, &outcome).map_err(|problem| problem.detail)?;
    let lines: Vec<_> = cut_line(&piece, &outcome).into_iter().collect();
    let files = [
        ("blank.dxf", steelk_formats::dxf_file::write(&drawing).map_err(|fault| fault.to_string())?),
        ("blank.svg", steelk_formats::svg::write(&drawing, &piece.mark).into_bytes()),
        ("cutlist.csv", steelk_formats::cutlist_csv::write(&lines).map_err(|fault| fault.to_string())?),
        ("report.json", Report::new(&piece, &outcome).write().into_bytes()),
    ];
    std::fs::create_dir_all(out).map_err(|fault| format!("{} cannot be made: {fault}", out.display()))?;
    for (name, bytes) in files {
        let file = out.join(name);
        std::fs::write(&file, bytes).map_err(|fault| format!("{} cannot be written: {fault}", file.display()))?;
        println!("{}", file.display());
    }
    for caution in &outcome.cautions {
        println!("caution: {caution}");
    }
    Ok(())
}
