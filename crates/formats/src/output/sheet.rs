//! What makes the files of a plate or a sheet part.

use steelk_core::brake::bend_rows;
use steelk_core::cutlist::cut_lines;
use steelk_core::drawing::{
    Drawing, FlatSheetWords, Sheet, add_bend_table, blank_drawing, flat_sheet as flat, profile_drawing,
    template as template_sheets,
};
use steelk_core::piece::{FIRST_OFF, blanks_of};
use steelk_core::quantity::{Amount, LengthUnit};
use steelk_core::release::rule_words;
use steelk_core::sheet::{BodyError, folded_body};
use steelk_core::space::{Body, Mesh};
use steelk_core::table::{bend_table, cut_list_table, cut_row, edge_rows, edge_table, hole_rows, hole_table};
use steelk_core::toolpath::profile;

use crate::program::{program as cut_program, words};

use super::Of;
use super::order::{NoFile, Order};

type Bytes = Result<Vec<u8>, NoFile>;

/// What the floor must know of a piece, line by line.
fn floor_words(order: &Order<'_>, unit: LengthUnit) -> Vec<String> {
    let (piece, outcome) = (order.piece, order.outcome);
    let bare = |value: f64, places: usize| unit.bare(Amount::Length, value, places);
    let sign = unit.sign();
    let mut lines: Vec<String> = order.stamp.words().into_iter().collect();
    let Some(figures) = outcome.figures() else { return lines };
    let thickness = outcome.resolved.thickness.unwrap_or_default();
    lines.push(format!("{} {} {sign}, {}", piece.stock.material, bare(thickness, 3), piece.count().words()));
    if piece.first_off {
        lines.push(FIRST_OFF.into());
    }
    lines.push(format!(
        "blank {} x {} {sign} as cut, cut length {} {sign}, {} pierces",
        bare(figures.blank_width, 2),
        bare(figures.blank_height, 2),
        bare(figures.cut_length, 0),
        figures.pierces
    ));
    lines.push(format!(
        "folded {} x {} x {} {sign}, {} (blank area x T x density)",
        bare(figures.folded_size.x, 1),
        bare(figures.folded_size.y, 1),
        bare(figures.folded_size.z, 1),
        unit.says(Amount::Mass, figures.mass, 3)
    ));
    if let Some(grain) = piece.grain {
        lines.push(format!("grain {}", grain.words()));
    }
    if figures.bends > 0 {
        lines.push(format!("bends by {}", outcome.resolved.method_words));
    }
    if piece.opposite_hand {
        lines.push("opposite hand".into());
    }
    lines
}

/// The blank with the bend table under it, as DXF.
pub(super) fn blank_dxf(order: &Order<'_>) -> Bytes {
    let part = order.part()?;
    let unit = order.dxf_unit();
    let mut drawing = blank_drawing(part, &order.piece.mark, unit);
    if !part.flat.bends.is_empty() {
        let rows = bend_rows(part, order.outcome.resolved.die, unit);
        add_bend_table(&mut drawing, &rows, &floor_words(order, unit), unit);
    }
    order.dxf(&drawing, &order.heading())
}

/// The blank as SVG at true size.
pub(super) fn blank_svg(order: &Order<'_>) -> Bytes {
    let (mark, unit) = (&order.piece.mark, order.piece.unit);
    Ok(crate::svg::write(&blank_drawing(order.part()?, mark, unit), mark, &order.heading().lines(), order.piece.unit)
        .into_bytes())
}

/// Blank, sizes and bend table on one page.
pub(super) fn flat_sheet(order: &Order<'_>) -> Bytes {
    Ok(crate::pdf::write(&[flat_page(order)?], &format!("Flat sheet. {}", order.heading().one_line())))
}

/// The page of the flat sheet.
pub(super) fn flat_page(order: &Order<'_>) -> Result<Sheet, NoFile> {
    let part = order.part()?;
    // What breaks a rule comes first, and what somebody answers for.
    let mut lines = rule_words(order.outcome);
    lines.extend(floor_words(order, order.piece.unit));
    lines.extend(order.outcome.cautions.iter().take(3).cloned());
    let words = FlatSheetWords {
        mark: order.piece.mark.clone(),
        title: order.piece.title.clone(),
        stamp: order.heading().note,
        lines,
        grain: order.piece.grain,
        bends: bend_rows(part, order.outcome.resolved.die, order.piece.unit),
        unit: order.piece.unit,
    };
    Ok(flat(part, &words))
}

/// The bend table.
pub(super) fn bends(order: &Order<'_>) -> Bytes {
    let unit = order.piece.unit;
    order.csv(&bend_table(&bend_rows(order.part()?, order.outcome.resolved.die, unit), unit))
}

fn profile_of(order: &Order<'_>) -> Result<Drawing, NoFile> {
    Ok(profile_drawing(&profile(order.part()?)))
}

/// What the cutter follows, and nothing else, as DXF.
pub(super) fn profile_dxf(order: &Order<'_>) -> Bytes {
    order.dxf(&profile_of(order)?, &order.heading())
}

/// What the cutter follows as SVG at true size.
pub(super) fn profile_svg(order: &Order<'_>) -> Bytes {
    Ok(crate::svg::write(&profile_of(order)?, &order.piece.mark, &order.heading().lines(), order.piece.unit)
        .into_bytes())
}

/// The cut program; refused unless the simulated cutter finds the part as wanted.
pub(super) fn cut_nc(order: &Order<'_>) -> Bytes {
    order.part()?;
    let made = cut_program(
        order.piece,
        order.outcome,
        order.means.cutters,
        order.stamp,
        order.settings.programs.of(order.piece.unit),
    );
    let refused =
        |detail: String, field: Option<String>| NoFile::Refused { title: "Nothing to cut yet", detail, field };
    let program =
        made.map_err(|findings| refused(words(&findings), findings.first().and_then(|one| one.field.clone())))?;
    (order.means.run)(&program).map_err(|detail| refused(detail, None))?;
    Ok(program.text.into_bytes())
}

/// The hole table, from the chosen corner.
pub(super) fn holes(order: &Order<'_>) -> Bytes {
    let unit = order.piece.unit;
    order.csv(&hole_table(&hole_rows(order.part()?, order.choices.corner, unit), unit))
}

/// The edge table.
pub(super) fn edges(order: &Order<'_>) -> Bytes {
    order.csv(&edge_table(&edge_rows(order.part()?), order.piece.unit))
}

/// The piece's line of the cut list.
pub(super) fn cut_list(order: &Order<'_>) -> Bytes {
    let unit = order.piece.unit;
    let mut table = cut_list_table(unit);
    table.rows.extend(cut_lines(order.piece, order.outcome).iter().map(|line| cut_row(line, unit)));
    order.csv(&table)
}

/// The 1:1 template of every blank on sheets of paper.
pub(super) fn template(order: &Order<'_>) -> Bytes {
    let mut sheets = Vec::new();
    for mark in order.marks(Of::Blank) {
        let own = order.of_blank(&mark)?;
        let made = template_sheets(own.part()?, &own.piece.mark, order.choices.template, &own.heading().short());
        sheets.extend(made.map_err(|fault| NoFile::Choice { field: "template", detail: fault.to_string() })?);
    }
    Ok(crate::pdf::write(&sheets, &format!("1:1 template. {}", order.heading().one_line())))
}

/// The bodies of all blanks where they lie in the piece, each by its mark.
fn bodies(order: &Order<'_>) -> Result<Vec<(String, Body)>, NoFile> {
    let piece = order.piece;
    let sheets = order.sheets()?;
    let no = |mark: &str, fault: BodyError| NoFile::refused("No solid", format!("{mark} has no STEP file: {fault}"));
    let marks = blanks_of(piece, sheets);
    let called = |which: usize| marks[sheets.line_of(which)].mark.clone();
    let blanks = sheets.blanks().iter().enumerate();
    blanks
        .map(|(which, blank)| {
            let mark = called(which);
            let body = folded_body(&blank.part.flat).map_err(|fault| no(&mark, fault))?;
            Ok((mark, body))
        })
        .collect()
}

/// The folded part as one closed solid a sheet.
pub(super) fn step(order: &Order<'_>) -> Bytes {
    let mark = &order.piece.mark;
    let solids = bodies(order)?;
    let what = if solids.len() == 1 { "folded sheet part, millimetres" } else { "folded sheets, millimetres" };
    Ok(crate::step::write_all(&solids, mark, what, &order.heading()).into_bytes())
}

/// How far a chord of a GLB strays from its round, mm.
const GLB_CHORD: f64 = 0.1;

/// The folded part as a mesh to look at: of its bodies, or the one that is shown where it has no closed ones.
pub(super) fn glb(order: &Order<'_>) -> Bytes {
    let of_bodies = |solids: Vec<(String, Body)>| {
        let mut whole = Mesh::default();
        for (_, body) in solids {
            whole.add(body.mesh(GLB_CHORD, |face| &face.owner).ok()?);
        }
        Some(whole)
    };
    order.sheets()?;
    let own = bodies(order).ok().and_then(of_bodies);
    Ok(crate::glb::write(own.as_ref().unwrap_or(&order.outcome.mesh), &order.piece.mark, &order.heading()))
}

/// Figures, call-outs with their verdicts, rules and cautions.
pub(super) fn report(order: &Order<'_>) -> Bytes {
    Ok(crate::report::Report::new(order.piece, order.outcome, order.stamp).write().into_bytes())
}
