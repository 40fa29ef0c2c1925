//! `steelk build`.

use std::path::Path;

use steelk_core::cutlist::cut_line;
use steelk_core::drawing::TemplateChoice;
use steelk_core::piece::{Outcome, Piece};
use steelk_core::stock::Cutter;
use steelk_core::table::{DatumCorner, edge_rows, hole_rows};
use steelk_formats::report::Report;

use super::say::say;
use super::{package, read_piece};
use crate::api::download::{
    as_variant, bend_table, file_name, flat_sheet_pdf, part_glb, part_step, tabled_blank, whole_blank, whole_profile,
    whole_template,
};
use crate::audited::audited;
use crate::cutting_answer::{checked, words};
use crate::frame_files;
use crate::program::program;

pub(super) fn run(path: &Path, out: &Path, variant: Option<&str>, cutters: &[Cutter]) -> Result<(), String> {
    let piece = as_variant(read_piece(path)?, variant).map_err(|problem| problem.detail)?;
    let outcome = audited(&piece);
    if outcome.frame.is_some() {
        return frame(&piece, &outcome, out);
    }
    // Everything is made before anything is written: no half package is left behind.
    let tabled = tabled_blank(&piece, &outcome).map_err(|problem| problem.detail)?;
    let drawing = whole_blank(&piece, &outcome).map_err(|problem| problem.detail)?;
    let profile = whole_profile(&piece, &outcome).map_err(|problem| problem.detail)?;
    let bends = bend_table(&piece, &outcome).map_err(|problem| problem.detail)?;
    let lines: Vec<_> = cut_line(&piece, &outcome).into_iter().collect();
    let part = outcome.part.as_ref();
    let holes = part.map(|part| hole_rows(part, DatumCorner::default(), piece.unit)).unwrap_or_default();
    let edges = part.map(edge_rows).unwrap_or_default();
    let choice = TemplateChoice { unit: piece.unit, ..TemplateChoice::default() };
    let csv = |bytes: Result<Vec<u8>, steelk_formats::WriteError>| bytes.map_err(|fault| fault.to_string());
    let mut files = vec![
        ("blank.dxf", steelk_formats::dxf_file::write(&tabled).map_err(|fault| fault.to_string())?),
        ("blank.svg", steelk_formats::svg::write(&drawing, &piece.mark).into_bytes()),
        ("blank.pdf", flat_sheet_pdf(&piece, &outcome).map_err(|problem| problem.detail)?),
        ("bends.csv", csv(steelk_formats::bends_csv::write(&bends))?),
        ("part.glb", part_glb(&piece, &outcome).map_err(|problem| problem.detail)?),
        ("profile.dxf", steelk_formats::dxf_file::write(&profile).map_err(|fault| fault.to_string())?),
        ("profile.svg", steelk_formats::svg::write(&profile, &piece.mark).into_bytes()),
        ("holes.csv", csv(steelk_formats::holes_csv::write(&holes))?),
        ("edges.csv", csv(steelk_formats::edges_csv::write(&edges))?),
        ("cutlist.csv", csv(steelk_formats::cutlist_csv::write(&lines))?),
        ("report.json", Report::new(&piece, &outcome).write().into_bytes()),
    ];
    // A sheet that no cutter takes, or a part larger than paper, is still a part: the rest is given out and this is said.
    let mut missing = Vec::new();
    let program = program(&piece, &outcome, cutters, "file").and_then(|program| checked(&program).map(|_| program));
    match program {
        Ok(program) => files.push(("cut.nc", program.text.into_bytes())),
        Err(findings) => missing.push(format!("cut.nc is not written: {}", words(&findings))),
    }
    // Paper is for looking at: a part too large for it is given out all the same.
    let mut notes = Vec::new();
    match whole_template(&piece, &outcome, choice) {
        Ok(bytes) => files.push(("template.pdf", bytes)),
        Err(problem) => notes.push(format!("note: template.pdf is not written: {}", problem.detail)),
    }
    match part_step(&piece, &outcome) {
        Ok(bytes) => files.push(("part.step", bytes)),
        Err(problem) => missing.push(format!("part.step is not written: {}", problem.detail)),
    }
    package::write(out, files.into_iter().map(|(name, bytes)| (name.to_string(), bytes)).collect())?;
    notes.iter().for_each(|note| say!("{note}"));
    for caution in &outcome.cautions {
        say!("caution: {caution}");
    }
    if missing.is_empty() { Ok(()) } else { Err(missing.join("\n")) }
}

/// The files of a frame: lists, bars, welds, solids, NC1 for each mark, wrap templates, plates as DXF.
fn frame(piece: &Piece, outcome: &Outcome, out: &Path) -> Result<(), String> {
    let said = |problem: crate::problem::Problem| problem.detail;
    let mut files: Vec<(String, Vec<u8>)> = vec![
        ("cutlist.csv".into(), frame_files::cut_list_csv(piece, outcome).map_err(said)?),
        ("cutlist.xlsx".into(), frame_files::cut_list_xlsx(piece, outcome).map_err(said)?),
        ("cutlist.pdf".into(), frame_files::cut_list_pdf(piece, outcome).map_err(said)?),
        ("bars.csv".into(), frame_files::bars_csv(piece, outcome).map_err(said)?),
        ("welds.csv".into(), frame_files::welds_csv(piece, outcome).map_err(said)?),
        ("frame.step".into(), frame_files::frame_step(piece, outcome).map_err(said)?),
        ("frame.glb".into(), frame_files::frame_glb(piece, outcome).map_err(said)?),
        ("report.json".into(), Report::new(piece, outcome).write().into_bytes()),
    ];
    let mut without = Vec::new();
    for (mark, text) in frame_files::nc1_files(piece, outcome).map_err(said)? {
        match text {
            Ok(text) => files.push((file_name(&mark, "nc1"), text.into_bytes())),
            Err(fault) => without.push(format!("{mark} has no NC1 file: {fault}")),
        }
        if let Some(bytes) = frame_files::wrap_pdf(piece, outcome, &mark).map_err(said)? {
            files.push((file_name(&format!("{mark}-wrap"), "pdf"), bytes));
        }
        if let Some(bytes) = frame_files::wrap_dxf(piece, outcome, &mark).map_err(said)? {
            files.push((file_name(&format!("{mark}-wrap"), "dxf"), bytes));
        }
    }
    for plate in piece.frame_plates(outcome) {
        let own = audited(&plate);
        let drawing = whole_profile(&plate, &own).map_err(said)?;
        let bytes = steelk_formats::dxf_file::write(&drawing).map_err(|fault| fault.to_string())?;
        files.push((file_name(&plate.mark, "dxf"), bytes));
    }
    package::write(out, files)?;
    for line in without {
        say!("{line}");
    }
    for caution in &outcome.cautions {
        say!("caution: {caution}");
    }
    Ok(())
}
