//! A table on sheets of paper, A4 lying, with a small picture beside each row where there is one.

use crate::plane::{Box2, Point, Segment};
use crate::table::{Cell, Table};

use super::wrapped::wrapped;
use super::{Drawing, Layer, Paper, Sheet, Stroke, Text};

const MARGIN: f64 = 10.0;
const ROW: f64 = 9.6;
const LETTER: f64 = 2.2;
/// The most lines of a cell.
const MOST_LINES: usize = 3;
/// From line to line of the notes below a table, mm.
const NOTE: f64 = 4.0;
/// From line to line in a cell, mm.
const LINE: f64 = 2.8;
/// Of the line under the title, below the top margin, mm.
const HEAD: f64 = 10.5;
/// Width of a letter as a part of its height, about (Helvetica).
const LETTER_WIDTH: f64 = 0.72;

/// A picture in a row: a closed polygon in its own mm.
pub type RowPicture = Vec<Point>;

/// A column that is to be printed and that a table has not.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("the table {table:?} has no column {column:?}; nothing is printed without it")]
pub struct NoColumn {
    /// The table's title.
    pub table: String,
    /// The column's heading.
    pub column: String,
}

/// Lays a table out; `head` stands under the title of every sheet. `columns` names the headings to print with their widths in mm, in order; a width of the picture's column
/// comes first. `pictures` has one a row; empty for none.
///
/// # Errors
/// [`NoColumn`]: a column that is not in the table is an error and not a gap.
pub fn table_sheets(
    table: &Table,
    columns: &[(&str, f64)],
    pictures: &[RowPicture],
    lines: &[String],
    head: &str,
) -> Result<Vec<Sheet>, NoColumn> {
    let (height, width) = Paper::A4.size();
    let head = wrapped(head, 170).swap_remove(0);
    let picture_width = if pictures.is_empty() { 0.0 } else { 46.0 };
    let chosen: Vec<(usize, f64)> = columns
        .iter()
        .map(|(name, wide)| {
            let at = table.column(name);
            let none = || NoColumn { table: table.title.clone(), column: name.to_string() };
            Ok((at.ok_or_else(none)?, *wide))
        })
        .collect::<Result<_, _>>()?;
    let top = height - MARGIN - 14.0;
    let per_page = (((top - ROW - MARGIN - 12.0) / ROW).floor() as usize).max(1);
    let mut notes: Vec<String> = table.notes.iter().chain(lines).flat_map(|line| wrapped(line, 170)).collect();
    let pages = table.rows.len().div_ceil(per_page).max(1);
    let last_rows = table.rows.len() - (pages - 1) * per_page;
    // Notes begin below the last row, and what does not go there goes on a sheet of its own: cautions are among them.
    let below = top - ROW * (last_rows as f64 + 1.0) - ROW - 2.0;
    let fit = |from: f64| if from < MARGIN { 0 } else { ((from - MARGIN) / NOTE).floor() as usize + 1 };
    let further: Vec<Vec<String>> =
        notes.split_off(fit(below).min(notes.len())).chunks(fit(top)).map(<[String]>::to_vec).collect();
    let all = pages + further.len();
    let mut sheets = Vec::new();
    for page in 0..pages {
        let mut frame = Drawing::default();
        let mut text = |place: Point, size: f64, value: String| {
            frame.texts.push((Layer::Text, Text { place, height: size, turn: 0.0, value }));
        };
        text(Point::new(MARGIN, height - MARGIN - 5.0), 4.0, table.title.clone());
        text(Point::new(width - MARGIN - 30.0, height - MARGIN - 5.0), LETTER, format!("sheet {} of {all}", page + 1));
        text(Point::new(MARGIN, height - MARGIN - HEAD), LETTER, head.to_string());
        let mut x = MARGIN + picture_width;
        for &(at, wide) in &chosen {
            text(Point::new(x + 1.0, top - 5.0), LETTER, table.columns[at].heading());
            x += wide;
        }
        let from = page * per_page;
        let rows = &table.rows[from..(from + per_page).min(table.rows.len())];
        let mut lines = Vec::new();
        for (line, row) in rows.iter().enumerate() {
            let y = top - ROW * (line as f64 + 1.0);
            lines.push(y);
            let mut x = MARGIN + picture_width;
            for &(at, wide) in &chosen {
                let shown = row[at].text();
                let room = ((wide - 2.0) / (LETTER * LETTER_WIDTH)) as usize;
                let parts = wrapped(&shown, room.max(4));
                let number = matches!(row[at], Cell::Number(..));
                // What does not go into three lines is said to go on: nothing is cut off in silence.
                let shown_parts: Vec<String> = parts
                    .iter()
                    .take(MOST_LINES)
                    .enumerate()
                    .map(|(which, part)| {
                        let goes_on = which + 1 == MOST_LINES && parts.len() > MOST_LINES;
                        if goes_on { format!("{part} ...") } else { part.clone() }
                    })
                    .collect();
                for (which, part) in shown_parts.iter().enumerate() {
                    let inset =
                        if number { (wide - 2.0 - part.len() as f64 * LETTER * LETTER_WIDTH).max(0.0) } else { 0.0 };
                    let own = LINE * ((shown_parts.len() as f64 - 1.0) / 2.0 - which as f64);
                    text(Point::new(x + 1.0 + inset, y - ROW / 2.0 - 1.0 + own), LETTER, part.clone());
                }
                x += wide;
            }
        }
        if page + 1 == pages {
            for (line, note) in notes.drain(..).enumerate() {
                text(Point::new(MARGIN, below - NOTE * line as f64), LETTER, note);
            }
        }
        let mut rule = |y: f64| {
            let line = Segment::line(Point::new(MARGIN, y), Point::new(width - MARGIN, y));
            frame.strokes.push((Layer::Mark, Stroke::Segment(line)));
        };
        rule(top);
        lines.iter().for_each(|&y| rule(y));
        rule(top - ROW * (rows.len() as f64 + 1.0));
        let mut inside = Drawing::default();
        for (line, picture) in pictures.iter().skip(from).take(rows.len()).enumerate() {
            let around = picture.iter().fold(Box2::EMPTY, |mut around, &at| {
                around.hold(at);
                around
            });
            if picture.len() < 3 {
                continue;
            }
            let scale = ((picture_width - 4.0) / around.width()).min((ROW - 2.5) / around.height());
            let middle = top - ROW * (line as f64 + 1.5);
            let place = |at: Point| {
                Point::new(MARGIN + 1.0 + (at.x - around.low.x) * scale, middle + (at.y - around.centre().y) * scale)
            };
            for at in 0..picture.len() {
                let one = Segment::line(place(picture[at]), place(picture[(at + 1) % picture.len()]));
                inside.strokes.push((Layer::Cut, Stroke::Segment(one)));
            }
        }
        let window = Box2 { low: Point::new(0.0, 0.0), high: Point::new(width, height) };
        sheets.push(Sheet { width, height, window, inside, frame });
    }
    for (more, notes) in further.into_iter().enumerate() {
        let line = |place: Point, height: f64, value: String| (Layer::Text, Text { place, height, turn: 0.0, value });
        let high = height - MARGIN - 5.0;
        let mut texts = vec![
            line(Point::new(MARGIN, high), 4.0, table.title.clone()),
            line(Point::new(width - MARGIN - 30.0, high), LETTER, format!("sheet {} of {all}", pages + more + 1)),
            line(Point::new(MARGIN, height - MARGIN - HEAD), LETTER, head.to_string()),
        ];
        let own = notes.into_iter().enumerate();
        texts.extend(own.map(|(at, note)| line(Point::new(MARGIN, top - NOTE * at as f64), LETTER, note)));
        let window = Box2 { low: Point::new(0.0, 0.0), high: Point::new(width, height) };
        let frame = Drawing { texts, ..Drawing::default() };
        sheets.push(Sheet { width, height, window, inside: Drawing::default(), frame });
    }
    Ok(sheets)
}
