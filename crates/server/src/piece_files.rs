//! Every file of a piece, made before any of them is written: no half package is left behind.

use steelk_core::cutlist::cut_line;
use steelk_core::drawing::TemplateChoice;
use steelk_core::piece::{Outcome, Piece};
use steelk_core::release::{Ready, ready};
use steelk_core::stock::Cutter;
use steelk_core::table::{DatumCorner, edge_rows, hole_rows};
use steelk_formats::report::Report;

use crate::api::download::{
    bend_table, file_name, flat_sheet_pdf, part_glb, part_step, tabled_blank, whole_blank, whole_profile,
    whole_template,
};
use crate::audited::audited;
use crate::cutting_answer::{checked, words};
use crate::frame_files;
use crate::problem::Problem;
use crate::program::program;

/// The files of a piece, and what is not among them.
#[derive(Debug, Default)]
pub struct PieceFiles {
    /// Names and contents.
    pub files: Vec<(String, Vec<u8>)>,
    /// Files that the piece should have and has not, in words with the reason.
    pub missing: Vec<String>,
    /// Files that it can do without and has not, in words.
    pub notes: Vec<String>,
}

impl PieceFiles {
    fn put(&mut self, name: &str, bytes: Vec<u8>) {
        self.files.push((name.to_string(), bytes));
    }

    /// Of a piece with every check made that stands before a file ([`audited`]).
    ///
    /// # Errors
    /// [`Problem`] where nothing of it may be given out.
    pub fn of(piece: &Piece, outcome: &Outcome, cutters: &[Cutter]) -> Result<PieceFiles, Problem> {
        match ready(piece, outcome)? {
            Ready::Frame(_) => of_frame(piece, outcome),
            Ready::Sheet(_) => of_part(piece, outcome, cutters),
        }
    }
}

fn of_part(piece: &Piece, outcome: &Outcome, cutters: &[Cutter]) -> Result<PieceFiles, Problem> {
    let mut made = PieceFiles::default();
    let drawing = whole_blank(piece, outcome)?;
    let profile = whole_profile(piece, outcome)?;
    let lines: Vec<_> = cut_line(piece, outcome).into_iter().collect();
    let part = outcome.part();
    let holes = part.map(|part| hole_rows(part, DatumCorner::default(), piece.unit)).unwrap_or_default();
    let edges = part.map(edge_rows).unwrap_or_default();
    made.put("blank.dxf", steelk_formats::dxf_file::write(&tabled_blank(piece, outcome)?)?);
    made.put("blank.svg", steelk_formats::svg::write(&drawing, &piece.mark).into_bytes());
    made.put("blank.pdf", flat_sheet_pdf(piece, outcome)?);
    made.put("bends.csv", steelk_formats::bends_csv::write(&bend_table(piece, outcome)?)?);
    made.put("part.glb", part_glb(piece, outcome)?);
    made.put("profile.dxf", steelk_formats::dxf_file::write(&profile)?);
    made.put("profile.svg", steelk_formats::svg::write(&profile, &piece.mark).into_bytes());
    made.put("holes.csv", steelk_formats::holes_csv::write(&holes)?);
    made.put("edges.csv", steelk_formats::edges_csv::write(&edges)?);
    made.put("cutlist.csv", steelk_formats::cutlist_csv::write(&lines)?);
    made.put("report.json", Report::new(piece, outcome).write().into_bytes());
    // A sheet that no cutter takes, or a part larger than paper, is still a part: the rest is given out and this is said.
    let program = program(piece, outcome, cutters, "file").and_then(|program| checked(&program).map(|_| program));
    match program {
        Ok(program) => made.put("cut.nc", program.text.into_bytes()),
        Err(findings) => made.missing.push(format!("cut.nc is not written: {}", words(&findings))),
    }
    // Paper is for looking at: a part too large for it is given out all the same.
    match whole_template(piece, outcome, TemplateChoice { unit: piece.unit, ..TemplateChoice::default() }) {
        Ok(bytes) => made.put("template.pdf", bytes),
        Err(problem) => made.notes.push(format!("template.pdf is not written: {}", problem.detail)),
    }
    match part_step(piece, outcome) {
        Ok(bytes) => made.put("part.step", bytes),
        Err(problem) => made.missing.push(format!("part.step is not written: {}", problem.detail)),
    }
    Ok(made)
}

/// Lists, bars, welds, solids, NC1 for each mark, wrap templates, plates as DXF.
fn of_frame(piece: &Piece, outcome: &Outcome) -> Result<PieceFiles, Problem> {
    let mut made = PieceFiles::default();
    made.put("cutlist.csv", frame_files::cut_list_csv(piece, outcome)?);
    made.put("cutlist.xlsx", frame_files::cut_list_xlsx(piece, outcome)?);
    made.put("cutlist.pdf", frame_files::cut_list_pdf(piece, outcome)?);
    made.put("bars.csv", frame_files::bars_csv(piece, outcome)?);
    made.put("welds.csv", frame_files::welds_csv(piece, outcome)?);
    made.put("frame.step", frame_files::frame_step(piece, outcome)?);
    made.put("frame.glb", frame_files::frame_glb(piece, outcome)?);
    made.put("report.json", Report::new(piece, outcome).write().into_bytes());
    for (mark, text) in frame_files::nc1_files(piece, outcome)? {
        match text {
            Ok(text) => made.put(&file_name(&mark, "nc1"), text.into_bytes()),
            Err(fault) => made.notes.push(format!("{mark} has no NC1 file: {fault}")),
        }
        if let Some(bytes) = frame_files::wrap_pdf(piece, outcome, &mark)? {
            made.put(&file_name(&format!("{mark}-wrap"), "pdf"), bytes);
        }
        if let Some(bytes) = frame_files::wrap_dxf(piece, outcome, &mark)? {
            made.put(&file_name(&format!("{mark}-wrap"), "dxf"), bytes);
        }
    }
    for plate in piece.frame_plates(outcome) {
        let own = audited(&plate);
        let bytes = steelk_formats::dxf_file::write(&whole_profile(&plate, &own)?)?;
        made.put(&file_name(&plate.mark, "dxf"), bytes);
    }
    Ok(made)
}
