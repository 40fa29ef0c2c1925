//! What makes the files of a frame.

use steelk_core::drawing::{Drawing, RowPicture, Sheet, Stroke, table_sheets, wrap_drawing, wrap_sheet};
use steelk_core::frame::{Wrap, frame_solids, piece_picture, wrap_template};
use steelk_core::release::rule_words;
use steelk_core::table::{Table, bar_table, cut_table, weld_table};
use steelk_core::toolpath::profile;
use steelk_core::work::frame::OneEnd;

use crate::nc1::{member_of, of_mark};

use super::order::{NoFile, Order};

type Bytes = Result<Vec<u8>, NoFile>;

/// The cut list as CSV.
pub(super) fn cut_list_csv(order: &Order<'_>) -> Bytes {
    order.csv(&cut_table(order.piece, order.frame()?))
}

/// Cut list, bars and welds as one workbook.
pub(super) fn cut_list_xlsx(order: &Order<'_>) -> Bytes {
    let (piece, frame) = (order.piece, order.frame()?);
    let (list, bars, welds) = (cut_table(piece, frame), bar_table(piece, order.bars()?), weld_table(piece, frame));
    Ok(crate::table_xlsx::write(&[("Cut list", &list), ("Bars", &bars), ("Welds", &welds)], &order.heading())?)
}

/// How wide the column of spares is, mm.
const SPARES: f64 = 14.0;

/// Columns of the printed cut list with their widths, mm.
const CUT_COLUMNS: [(&str, f64); 11] = [
    ("mark", 23.0),
    ("qty", 15.0),
    ("spares", SPARES),
    ("section", 26.0),
    ("material", 16.0),
    ("length", 18.0),
    ("short point", 24.0),
    ("start", 24.0),
    ("finish", 24.0),
    ("work", 38.0),
    ("mass total", 23.0),
];
/// Columns of the printed cutting plan.
const BAR_COLUMNS: [(&str, f64); 6] = [
    ("bar", 12.0),
    ("section", 34.0),
    ("material", 24.0),
    ("stock", 22.0),
    ("marks in order", 150.0),
    ("bar offcut", 22.0),
];
/// Columns of the printed list of welds.
const WELD_COLUMNS: [(&str, f64); 8] = [
    ("weld", 14.0),
    ("joint", 34.0),
    ("marks", 60.0),
    ("length", 22.0),
    ("leg", 16.0),
    ("symbol", 70.0),
    ("deposit", 22.0),
    ("time min", 20.0),
];

/// Cut list with pictures, bars and welds as PDF.
pub(super) fn cut_list_pdf(order: &Order<'_>) -> Bytes {
    Ok(crate::pdf::write(&list_pages(order)?, &format!("Cut list. {}", order.heading().one_line())))
}

/// The pages of the lists.
pub(super) fn list_pages(order: &Order<'_>) -> Result<Vec<Sheet>, NoFile> {
    let (piece, frame) = (order.piece, order.frame()?);
    let bars = order.bars()?;
    let made = &frame.made;
    let pictures: Vec<RowPicture> = made
        .list
        .lines
        .iter()
        .enumerate()
        .map(|(index, _)| {
            if let Some(member) = made.member_of_line(index) {
                return piece_picture(member).outline;
            }
            made.plate_of_line(index).map(|plate| plate.part.blank.region.outer.flatten(0.5)).unwrap_or_default()
        })
        .collect();
    let mut notes = rule_words(order.outcome);
    notes.extend(order.outcome.cautions.iter().cloned());
    let head = order.heading().line();
    let column = |fault: steelk_core::drawing::NoColumn| NoFile::refused("No list", fault.to_string());
    // Whichever of the sheets somebody holds, it says so.
    let stamped = |mut table: Table| {
        if let Some(stamp) = order.heading().note {
            table.title = format!("{stamp}. {}", table.title);
        }
        table
    };
    // Spares take their room from what is made on a piece, which goes on to another line.
    let columns: Vec<(&str, f64)> = match piece.spares {
        0 => CUT_COLUMNS.into_iter().filter(|(name, _)| *name != "spares").collect(),
        _ => CUT_COLUMNS
            .into_iter()
            .map(|(name, wide)| (name, if name == "work" { wide - SPARES } else { wide }))
            .collect(),
    };
    let mut sheets: Vec<Sheet> =
        table_sheets(&stamped(cut_table(piece, frame)), &columns, &pictures, &notes, &head).map_err(column)?;
    sheets.extend(table_sheets(&stamped(bar_table(piece, bars)), &BAR_COLUMNS, &[], &[], &head).map_err(column)?);
    sheets.extend(table_sheets(&stamped(weld_table(piece, frame)), &WELD_COLUMNS, &[], &[], &head).map_err(column)?);
    Ok(sheets)
}

/// The cutting plan as CSV.
pub(super) fn bars_csv(order: &Order<'_>) -> Bytes {
    order.csv(&bar_table(order.piece, order.bars()?))
}

/// Welds as CSV.
pub(super) fn welds_csv(order: &Order<'_>) -> Bytes {
    order.csv(&weld_table(order.piece, order.frame()?))
}

/// The frame as a mesh to look at.
pub(super) fn glb(order: &Order<'_>) -> Bytes {
    order.frame()?;
    Ok(crate::glb::write(&order.outcome.mesh, &order.piece.mark, &order.heading()))
}

/// Every member and plate as a solid.
pub(super) fn step(order: &Order<'_>) -> Bytes {
    let mark = &order.piece.mark;
    let (solids, missing) = frame_solids(&order.frame()?.made);
    if let Some(fault) = missing.first() {
        return Err(NoFile::refused("No solid", format!("{mark} has no STEP file: {fault}")));
    }
    Ok(crate::step::write_all(&solids, mark, "welded frame, millimetres", &order.heading()).into_bytes())
}

fn no_member(order: &Order<'_>, mark: &str) -> NoFile {
    NoFile::NotThere(format!("the cut list of {} has no member {mark}", order.piece.mark))
}

/// A member for the saw and drill line.
pub(super) fn nc1(order: &Order<'_>, mark: &str) -> Bytes {
    let text = of_mark(order.piece, &order.frame()?.made, mark, &order.heading().of_part(mark).lines())
        .ok_or_else(|| no_member(order, mark))?
        .map_err(|fault| NoFile::refused("No machine file", format!("{mark} has no NC1 file: {fault}")))?;
    Ok(text.into_bytes())
}

/// Wrap templates of a mark, with which end each is of.
fn wraps(order: &Order<'_>, mark: &str) -> Result<Vec<(String, Wrap)>, NoFile> {
    let (member, _) = member_of(order.piece, &order.frame()?.made, mark).ok_or_else(|| no_member(order, mark))?;
    let all: Vec<(String, Wrap)> = OneEnd::BOTH
        .into_iter()
        .filter_map(|which| {
            let words = format!("{} {mark}, {}, {}", order.piece.mark, which.word(), member.section.name);
            Some((words, wrap_template(member, which)?))
        })
        .collect();
    if all.is_empty() {
        return Err(NoFile::NotThere(format!("{mark} has no wrap template: it is not round, or its ends are square")));
    }
    Ok(all)
}

/// Wrap templates of a mark at 1:1, a sheet an end.
pub(super) fn wrap_pdf(order: &Order<'_>, mark: &str) -> Bytes {
    let (head, unit) = (order.heading().of_part(mark), order.piece.unit);
    let own = wraps(order, mark)?;
    let sheets: Vec<Sheet> = own.iter().map(|(words, wrap)| wrap_sheet(wrap, words, &head.lines(), unit)).collect();
    Ok(crate::pdf::write(&sheets, &format!("Wrap templates 1:1. {}", head.one_line())))
}

/// Between two templates in one drawing, mm.
const BETWEEN: f64 = 20.0;

/// Wrap templates of a mark as DXF, one above the other.
pub(super) fn wrap_dxf(order: &Order<'_>, mark: &str) -> Bytes {
    let mut drawing = Drawing::default();
    let mut down = 0.0;
    for (_, wrap) in wraps(order, mark)? {
        let own = wrap_drawing(&wrap);
        let around = own.extents();
        for (layer, stroke) in own.strokes {
            if let Stroke::Segment(mut one) = stroke {
                one.start.y -= down;
                one.end.y -= down;
                drawing.strokes.push((layer, Stroke::Segment(one)));
            }
        }
        down += around.height() + BETWEEN;
    }
    order.dxf(&drawing, &order.heading().of_part(mark))
}

/// What the cutter follows of a plate.
pub(super) fn plate_dxf(order: &Order<'_>, mark: &str) -> Bytes {
    let own = order.of_plate(mark)?;
    order.dxf(&steelk_core::drawing::profile_drawing(&profile(own.part()?)), &own.heading())
}
