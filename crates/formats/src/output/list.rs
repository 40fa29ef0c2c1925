//! The list.

use steelk_core::piece::MadeFrom;

use super::{Make, Of, Output, Reader, Without, frame, pack, sheet};

const CSV: &str = "text/csv; charset=utf-8";
const DXF: &str = "image/vnd.dxf";
const GLB: &str = "model/gltf-binary";
const JSON: &str = "application/json";
const PDF: &str = "application/pdf";
const PLAIN: &str = "text/plain; charset=us-ascii";
const STEP: &str = "model/step";
const SVG: &str = "image/svg+xml";
const XLSX: &str = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

const SHEET: Option<MadeFrom> = Some(MadeFrom::Sheet);
const FRAME: Option<MadeFrom> = Some(MadeFrom::Sections);

use Make::{Job, Mark, Whole};
use Of::{Blank, Member, Piece, Plate, Wrap};
use Reader::{Brake, Cutter, Office, Saw, Welder};
use Without::{Incomplete, Noted, Nothing};

#[allow(clippy::too_many_arguments)]
const fn row(
    key: &'static str,
    media: &'static str,
    made_from: Option<MadeFrom>,
    of: Of,
    words: &'static str,
    reader: Reader,
    without: Without,
    make: Make,
) -> Output {
    Output { key, media, made_from, of, words, reader, first: false, without, make }
}

/// What its reader is sent first.
const fn first(mut output: Output) -> Output {
    output.first = true;
    output
}

/// Every file that is given out, in the order of the menu.
#[rustfmt::skip]
pub static OUTPUTS: [Output; 27] = [
    row("blank.dxf", DXF, SHEET, Blank, "Blank, DXF", Cutter, Nothing, Whole(sheet::blank_dxf)),
    row("blank.svg", SVG, SHEET, Blank, "Blank, SVG at true size", Cutter, Nothing, Whole(sheet::blank_svg)),
    first(row("profile.dxf", DXF, SHEET, Blank, "Cut profile, DXF", Cutter, Nothing, Whole(sheet::profile_dxf))),
    row("profile.svg", SVG, SHEET, Blank, "Cut profile, SVG", Cutter, Nothing, Whole(sheet::profile_svg)),
    row("cut.nc", PLAIN, SHEET, Blank, "Cut program, G-code", Cutter, Incomplete, Whole(sheet::cut_nc)),
    row("holes.csv", CSV, SHEET, Blank, "Hole table, CSV", Cutter, Nothing, Whole(sheet::holes)),
    row("edges.csv", CSV, SHEET, Blank, "Edge table, CSV", Cutter, Nothing, Whole(sheet::edges)),
    row("template.pdf", PDF, SHEET, Piece, "1:1 template, PDF", Cutter, Noted, Whole(sheet::template)),
    first(row("flat.pdf", PDF, SHEET, Blank, "Flat sheet, PDF", Brake, Nothing, Whole(sheet::flat_sheet))),
    row("bends.csv", CSV, SHEET, Blank, "Bend table, CSV", Brake, Nothing, Whole(sheet::bends)),
    row("part.step", STEP, SHEET, Piece, "Folded part, STEP", Brake, Incomplete, Whole(sheet::step)),
    row("part.glb", GLB, SHEET, Piece, "Folded part, GLB", Office, Nothing, Whole(sheet::glb)),
    row("cutlist.csv", CSV, SHEET, Piece, "Cut list, CSV", Office, Nothing, Whole(sheet::cut_list)),
    first(row("cutlist.pdf", PDF, FRAME, Piece, "Cut list, PDF", Saw, Nothing, Whole(frame::cut_list_pdf))),
    row("cutlist.xlsx", XLSX, FRAME, Piece, "Cut list, bars, welds, XLSX", Office, Nothing, Whole(frame::cut_list_xlsx)),
    row("cutlist.csv", CSV, FRAME, Piece, "Cut list, CSV", Saw, Nothing, Whole(frame::cut_list_csv)),
    row("bars.csv", CSV, FRAME, Piece, "Cutting plan, CSV", Saw, Nothing, Whole(frame::bars_csv)),
    first(row("welds.csv", CSV, FRAME, Piece, "Welds, CSV", Welder, Nothing, Whole(frame::welds_csv))),
    row("frame.step", STEP, FRAME, Piece, "Frame, STEP", Welder, Nothing, Whole(frame::step)),
    row("frame.glb", GLB, FRAME, Piece, "Frame, GLB", Office, Nothing, Whole(frame::glb)),
    row("{mark}.nc1", PLAIN, FRAME, Member, "Machine file, NC1", Saw, Noted, Mark(frame::nc1)),
    row("{mark}-wrap.pdf", PDF, FRAME, Wrap, "Wrap template, PDF", Saw, Nothing, Mark(frame::wrap_pdf)),
    row("{mark}-wrap.dxf", DXF, FRAME, Wrap, "Wrap template, DXF", Saw, Nothing, Mark(frame::wrap_dxf)),
    first(row("{mark}-profile.dxf", DXF, FRAME, Plate, "Cut profile, DXF", Cutter, Nothing, Mark(frame::plate_dxf))),
    first(row("pack.pdf", PDF, None, Piece, "Printed pack, PDF: flats and lists", Office, Noted, Whole(pack::pack))),
    row("report.json", JSON, None, Piece, "Proof report, JSON", Office, Nothing, Whole(sheet::report)),
    row("cutlist.csv", CSV, None, Of::Job, "Cut list of the job, CSV", Office, Nothing, Job(crate::cutlist_csv::write_job)),
];
