//! The blank at 1:1 on sheets of paper, to lay a sample on or to mark out by: outline, centres, bend lines, and check
//! lines both ways, since printers scale.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plane::{Box2, Point, Segment, Vector};
use crate::quantity::tolerance::NOTHING;
use crate::quantity::{LengthUnit, decimal, length_text};
use crate::sheet::Part;

use super::wrapped::wrapped;
use super::{Drawing, Layer, Stroke, Text, blank_drawing};

/// Sizes of paper.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Paper {
    /// 210 by 297 mm (ISO 216).
    #[default]
    A4,
    /// 297 by 420 mm (ISO 216).
    A3,
    /// 8 1/2 by 11 in (ANSI/ASME Y14.1).
    Letter,
}

impl Paper {
    /// Width and height upright, mm.
    pub fn size(self) -> (f64, f64) {
        match self {
            Paper::A4 => (210.0, 297.0),
            Paper::A3 => (297.0, 420.0),
            Paper::Letter => (215.9, 279.4),
        }
    }
}

/// How a template is printed. What a check line measured on an earlier print corrects the next one.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct TemplateChoice {
    /// The paper.
    pub paper: Paper,
    /// What the check line across measured on the last print, mm.
    pub across: Option<f64>,
    /// What the check line up measured, mm.
    pub up: Option<f64>,
    /// Millimetres: check lines of 100 mm; inches: of 4 in.
    pub unit: LengthUnit,
}

/// One sheet of paper, mm from its lower left corner.
#[derive(Clone, Debug, PartialEq)]
pub struct Sheet {
    /// Width of the paper.
    pub width: f64,
    /// Height of the paper.
    pub height: f64,
    /// What `inside` is cut off at.
    pub window: Box2,
    /// The part, and the marks where sheets meet.
    pub inside: Drawing,
    /// Check lines and words.
    pub frame: Drawing,
}

/// Why a template cannot be laid out.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum TemplateError {
    /// A check line that was measured wildly off.
    #[error(
        "a check line of {drawn} mm that measures {measured} mm is off by more than a fifth: print at actual size \
         (100 %), not fitted to the page, and measure again"
    )]
    Measured {
        /// As drawn, mm.
        drawn: f64,
        /// As measured, mm.
        measured: f64,
    },
    /// Too many sheets.
    #[error("the blank takes {0} sheets of this paper; {MOST_SHEETS} is the most. Choose larger paper")]
    Large(usize),
}

/// The most sheets.
const MOST_SHEETS: usize = 100;
/// What printers leave blank at the edges, mm (common practice).
const MARGIN: f64 = 10.0;
/// Strips for check lines and words, mm.
const STRIP: f64 = 12.0;
/// What neighbouring sheets both show, mm.
const OVERLAP: f64 = 12.0;
/// Height of the letters over a sheet and under it, and from line to line, mm.
const HEAD: f64 = 2.0;
const HEAD_LINE: f64 = 2.8;
/// Width of a letter as a part of its height, about (Helvetica).
const LETTER_WIDTH: f64 = 0.72;
/// Centres beyond this number would hide the part.
const MOST_CENTRES: usize = 3000;

/// Length of the check lines, mm.
pub fn check_length(unit: LengthUnit) -> f64 {
    match unit {
        LengthUnit::Mm => 100.0,
        LengthUnit::In => 4.0 * 25.4,
    }
}

fn correction(drawn: f64, measured: Option<f64>) -> Result<f64, TemplateError> {
    let Some(measured) = measured else { return Ok(1.0) };
    if !(0.8 * drawn..=1.2 * drawn).contains(&measured) {
        return Err(TemplateError::Measured { drawn, measured });
    }
    Ok(drawn / measured)
}

/// Lays the blank of a part out on sheets. `head` stands on each: of which revision it is, and what else must not be read past.
///
/// # Errors
/// [`TemplateError`]: a check line measured senselessly, or too many sheets.
pub fn template(part: &Part, mark: &str, choice: TemplateChoice, head: &[String]) -> Result<Vec<Sheet>, TemplateError> {
    let drawn = check_length(choice.unit);
    let scale = (correction(drawn, choice.across)?, correction(drawn, choice.up)?);
    let mut whole = blank_drawing(part, mark, choice.unit);
    if part.flat.holes.len() <= MOST_CENTRES {
        for hole in part.flat.holes.iter() {
            let arm = (hole.extents.width().min(hole.extents.height()) * 0.2).clamp(1.0, 5.0);
            for way in [Vector::new(arm, 0.0), Vector::new(0.0, arm)] {
                let line = Segment::line(hole.centre - way, hole.centre + way);
                whole.strokes.push((Layer::Mark, Stroke::Segment(line)));
            }
            if !hole.work.through {
                // A blind hole is drilled later: its rim helps to find it.
                whole.outline(Layer::Mark, &hole.outline);
            }
        }
    }
    let around = part.blank.extents();
    let size = (around.width() * scale.0, around.height() * scale.1);
    let (short, long) = choice.paper.size();
    let (upright, lying) = (Tiles::new(short, long, size), Tiles::new(long, short, size));
    let tiles = if lying.count() < upright.count() { lying } else { upright };
    if tiles.count() > MOST_SHEETS {
        return Err(TemplateError::Large(tiles.count()));
    }
    let to_paper = |point: Point| Point::new((point.x - around.low.x) * scale.0, (point.y - around.low.y) * scale.1);
    let print = Print { whole: &whole, tiles: &tiles, drawn, scale, mark, unit: choice.unit, head };
    Ok((0..tiles.rows)
        .flat_map(|row| (0..tiles.columns).map(move |column| (column, row)))
        .map(|(column, row)| print.sheet(column, row, &to_paper))
        .collect())
}

struct Tiles {
    width: f64,
    height: f64,
    window: Box2,
    columns: usize,
    rows: usize,
}

impl Tiles {
    fn new(width: f64, height: f64, size: (f64, f64)) -> Tiles {
        let low = Point::new(MARGIN + STRIP, MARGIN + STRIP);
        let window = Box2 { low, high: Point::new(width - MARGIN, height - MARGIN - STRIP / 2.0) };
        // A little air about the part, half on each side.
        let count = |length: f64, room: f64| (((length + AIR - OVERLAP) / (room - OVERLAP)).ceil()).max(1.0) as usize;
        Tiles { width, height, window, columns: count(size.0, window.width()), rows: count(size.1, window.height()) }
    }

    fn count(&self) -> usize {
        self.columns.saturating_mul(self.rows)
    }

    /// How far sheets stand from one another.
    fn step(&self) -> Vector {
        Vector::new(self.window.width() - OVERLAP, self.window.height() - OVERLAP)
    }
}

/// Air about the part on paper, mm.
const AIR: f64 = 4.0;

struct Print<'a> {
    whole: &'a Drawing,
    tiles: &'a Tiles,
    drawn: f64,
    scale: (f64, f64),
    mark: &'a str,
    unit: LengthUnit,
    head: &'a [String],
}

impl Print<'_> {
    fn sheet(&self, column: usize, row: usize, to_paper: &dyn Fn(Point) -> Point) -> Sheet {
        let tiles = self.tiles;
        let step = tiles.step();
        let shift = Vector::new(
            tiles.window.low.x + AIR / 2.0 - step.x * column as f64,
            tiles.window.low.y + AIR / 2.0 - step.y * row as f64,
        );
        let place = |point: Point| to_paper(point) + shift;
        let mut inside = Drawing::default();
        for (layer, stroke) in &self.whole.strokes {
            let moved = self.moved(stroke, &place);
            if moved.iter().any(|one| extents(one).is_near(&tiles.window, 0.0)) {
                inside.strokes.extend(moved.into_iter().map(|one| (*layer, one)));
            }
        }
        for (layer, text) in &self.whole.texts {
            inside.texts.push((*layer, Text { place: place(text.place), ..text.clone() }));
        }
        if tiles.count() > 1 {
            // The same places of the part on every sheet that shows them: lay cross on cross.
            for (i, j) in [(0, 0), (1, 0), (0, 1), (1, 1)] {
                let centre = tiles.window.low
                    + Vector::new(OVERLAP / 2.0 + step.x * f64::from(i), OVERLAP / 2.0 + step.y * f64::from(j));
                for way in [Vector::new(4.0, 0.0), Vector::new(0.0, 4.0)] {
                    inside.strokes.push((Layer::Text, Stroke::Segment(Segment::line(centre - way, centre + way))));
                }
            }
        }
        Sheet { width: tiles.width, height: tiles.height, window: tiles.window, inside, frame: self.frame(column, row) }
    }

    /// A stroke on paper. Where the correction is not the same both ways a round stroke becomes short lines.
    fn moved(&self, stroke: &Stroke, place: &dyn Fn(Point) -> Point) -> Vec<Stroke> {
        let even = (self.scale.0 - self.scale.1).abs() < NOTHING;
        let segments: Vec<Segment> = match stroke {
            Stroke::Circle { centre, radius } if even => {
                return vec![Stroke::Circle { centre: place(*centre), radius: radius * self.scale.0 }];
            }
            Stroke::Segment(one) if even || one.is_line() => {
                return vec![Stroke::Segment(Segment { start: place(one.start), end: place(one.end), ..*one })];
            }
            Stroke::Circle { centre, radius } => {
                crate::plane::Outline::circle(*centre, *radius, 0).segments().map(|(one, _)| one).collect()
            }
            Stroke::Segment(one) => vec![*one],
        };
        let mut strokes = Vec::new();
        for one in segments {
            let parts = 48;
            for at in 0..parts {
                let piece = one.part(f64::from(at) / f64::from(parts), f64::from(at + 1) / f64::from(parts));
                strokes.push(Stroke::Segment(Segment::line(place(piece.start), place(piece.end))));
            }
        }
        strokes
    }

    fn frame(&self, column: usize, row: usize) -> Drawing {
        let mut frame = Drawing::default();
        let words = length_text(self.drawn, self.unit);
        let low = self.tiles.window.low;
        // Corrected as the part is: what is drawn here is what the printer makes right.
        let across =
            Segment::line(Point::new(low.x, MARGIN + 4.0), Point::new(low.x + self.drawn * self.scale.0, MARGIN + 4.0));
        let up =
            Segment::line(Point::new(MARGIN + 4.0, low.y), Point::new(MARGIN + 4.0, low.y + self.drawn * self.scale.1));
        for (line, side) in [(across, Vector::new(0.0, 2.0)), (up, Vector::new(2.0, 0.0))] {
            frame.strokes.push((Layer::Cut, Stroke::Segment(line)));
            for end in [line.start, line.end] {
                frame.strokes.push((Layer::Cut, Stroke::Segment(Segment::line(end - side, end + side))));
            }
        }
        let mut text = |place: Point, turn: f64, value: String| {
            frame.texts.push((Layer::Text, Text { place, height: 2.5, turn, value }));
        };
        text(Point::new(low.x + 2.0, MARGIN + 6.5), 0.0, format!("this line must measure {words}"));
        text(
            Point::new(MARGIN + 8.5, low.y + 2.0),
            std::f64::consts::FRAC_PI_2,
            format!("this line must measure {words}"),
        );
        let mut title = format!("{} at 1:1. Print at actual size (100 %).", self.mark);
        if self.tiles.count() > 1 {
            title.push_str(&format!(
                " Sheet {} of {}: column {}, row {} from below; lay cross on cross.",
                row * self.tiles.columns + column + 1,
                self.tiles.count(),
                column + 1,
                row + 1
            ));
        }
        if self.scale != (1.0, 1.0) {
            title.push_str(&format!(
                " Corrected by {} % across, {} % up.",
                decimal((self.scale.0 - 1.0) * 100.0, 2),
                decimal((self.scale.1 - 1.0) * 100.0, 2)
            ));
        }
        let mut lines = |words: &[String], from: Point, width: f64, most: usize| {
            let wide = (width / (HEAD * LETTER_WIDTH)) as usize;
            for (at, line) in words.iter().flat_map(|line| wrapped(line, wide)).take(most).enumerate() {
                let place = Point::new(from.x, from.y - HEAD_LINE * at as f64);
                frame.texts.push((Layer::Text, Text { place, height: HEAD, turn: 0.0, value: line }));
            }
        };
        let window = &self.tiles.window;
        lines(&[title], Point::new(low.x, self.tiles.height - MARGIN - HEAD), window.width(), 2);
        // Beside the check line, in the strip under the part.
        let beside = across.end.x + 4.0;
        lines(self.head, Point::new(beside, low.y - HEAD - 0.8), window.high.x - beside, 4);
        frame
    }
}

fn extents(stroke: &Stroke) -> Box2 {
    match stroke {
        Stroke::Segment(one) => one.extents(),
        Stroke::Circle { centre, radius } => {
            let arm = Vector::new(*radius, *radius);
            Box2 { low: *centre - arm, high: *centre + arm }
        }
    }
}
