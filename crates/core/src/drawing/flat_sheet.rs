//! The flat sheet: one page with the blank drawn to scale, its sizes, its bends with their marks, the bend table and
//! what the floor must know.

use crate::measure::Part;
use crate::plane::{Box2, Point, Segment, Vector};
use crate::quantity::decimal;
use crate::stock::Grain;
use crate::table::BendRow;

use super::{Drawing, Layer, Paper, Sheet, Stroke, Text, blank_drawing};

/// What a flat sheet says beside the blank.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct FlatSheetWords {
    /// Piece mark.
    pub mark: String,
    /// What it is.
    pub title: String,
    /// Lines for the lower right: material, mass, how many, cautions.
    pub lines: Vec<String>,
    /// How the grain lies.
    pub grain: Option<Grain>,
    /// The bends.
    pub bends: Vec<BendRow>,
}

/// Left blank at the paper's edges, mm.
const MARGIN: f64 = 10.0;
/// Height of a line of the table, mm.
const LINE: f64 = 4.2;
/// Height of its letters, mm.
const LETTER: f64 = 2.4;
/// The most bends that one page's table holds; the CSV holds them all.
const MOST_LINES: usize = 24;

/// The page, A4 lying, A3 for a table of many lines.
pub fn flat_sheet(part: &Part, words: &FlatSheetWords) -> Sheet {
    let paper = if words.bends.len() > 12 { Paper::A3 } else { Paper::A4 };
    let (height, width) = paper.size();
    let shown = words.bends.len().min(MOST_LINES);
    let table_lines = if words.bends.is_empty() { 0 } else { shown + 1 + usize::from(shown < words.bends.len()) };
    let foot = MARGIN + LINE * (table_lines.max(words.lines.len() + 2) as f64 + 1.0);
    let window = Box2 { low: Point::new(MARGIN, foot), high: Point::new(width - MARGIN, height - MARGIN) };
    let mut frame = Drawing::default();
    let inside = blank_to_scale(part, words, &window, &mut frame);
    write_table(words, shown, &mut frame);
    write_words(words, width, &mut frame);
    let rule = Segment::line(Point::new(MARGIN, foot - 1.0), Point::new(width - MARGIN, foot - 1.0));
    frame.strokes.push((Layer::Mark, Stroke::Segment(rule)));
    Sheet { width, height, window, inside, frame }
}

fn text(drawing: &mut Drawing, place: Point, height: f64, turn: f64, value: impl Into<String>) {
    drawing.texts.push((Layer::Text, Text { place, height, turn, value: value.into() }));
}

/// Draws the blank as large as it fits, with its overall sizes, and says the scale.
fn blank_to_scale(part: &Part, words: &FlatSheetWords, window: &Box2, frame: &mut Drawing) -> Drawing {
    let around = part.blank.extents();
    // Room for the dimension lines on two sides.
    let room = (window.width() - 34.0, window.height() - 34.0);
    let scale = nice_scale((room.0 / around.width()).min(room.1 / around.height()));
    let drawn = Vector::new(around.width() * scale, around.height() * scale);
    let low =
        Point::new(window.low.x + 22.0 + (room.0 - drawn.x) / 2.0, window.low.y + 18.0 + (room.1 - drawn.y) / 2.0);
    let place = |point: Point| low + (point - around.low) * scale;
    let mut inside = Drawing::default();
    for (layer, stroke) in blank_drawing(part, "").strokes {
        let moved = match stroke {
            Stroke::Segment(one) => {
                Stroke::Segment(Segment { start: place(one.start), end: place(one.end), bulge: one.bulge })
            }
            Stroke::Circle { centre, radius } => Stroke::Circle { centre: place(centre), radius: radius * scale },
        };
        inside.strokes.push((layer, moved));
    }
    for (bend, row) in part.flat.bends.iter().zip(&words.bends) {
        let strip = part.flat.strip_of(bend);
        let sign = format!("{} {}", row.mark, row.direction.word());
        let middle = place(strip.place(strip.length / 2.0, strip.width / 2.0));
        let mut turn = strip.along.y.atan2(strip.along.x);
        let half = std::f64::consts::FRAC_PI_2;
        if turn > half + 1e-9 || turn <= -half + 1e-9 {
            turn += std::f64::consts::PI;
        }
        let along = Vector::new(turn.cos(), turn.sin());
        let start = middle - along * (LETTER * 0.3 * sign.len() as f64) + along.left() * 0.8;
        text(&mut inside, start, LETTER, turn, sign);
    }
    // Overall sizes as the cutting shop will read them.
    let (left, right) = (low.x, low.x + drawn.x);
    let (under, over) = (low.y, low.y + drawn.y);
    let y = under - 9.0;
    let x = left - 9.0;
    let mut line = |from: Point, to: Point| frame.strokes.push((Layer::Mark, Stroke::Segment(Segment::line(from, to))));
    line(Point::new(left, y), Point::new(right, y));
    line(Point::new(x, under), Point::new(x, over));
    for at in [left, right] {
        line(Point::new(at, y - 2.0), Point::new(at, under - 1.5));
    }
    for at in [under, over] {
        line(Point::new(x - 2.0, at), Point::new(left - 1.5, at));
    }
    for (at, way) in [(Point::new(left, y), 1.0), (Point::new(right, y), -1.0)] {
        line(at, at + Vector::new(2.4 * way, 0.8));
        line(at, at + Vector::new(2.4 * way, -0.8));
    }
    for (at, way) in [(Point::new(x, under), 1.0), (Point::new(x, over), -1.0)] {
        line(at, at + Vector::new(0.8, 2.4 * way));
        line(at, at + Vector::new(-0.8, 2.4 * way));
    }
    let value = |length: f64| format!("{} mm", decimal(length, 2));
    text(frame, Point::new((left + right) / 2.0 - 10.0, y + 1.2), 3.2, 0.0, value(around.width()));
    text(
        frame,
        Point::new(x - 1.2, (under + over) / 2.0 - 10.0),
        3.2,
        std::f64::consts::FRAC_PI_2,
        value(around.height()),
    );
    if let Some(grain) = words.grain {
        let way = match grain {
            Grain::AlongX => Vector::new(1.0, 0.0),
            Grain::AlongY => Vector::new(0.0, 1.0),
        };
        let from = Point::new(window.high.x - 26.0, window.high.y - 26.0);
        let to = from + way * 18.0;
        let mut line = |a: Point, b: Point| frame.strokes.push((Layer::Mark, Stroke::Segment(Segment::line(a, b))));
        line(from, to);
        for (tip, back) in [(from, way), (to, -way)] {
            line(tip, tip + back * 2.5 + back.left() * 1.0);
            line(tip, tip + back * 2.5 - back.left() * 1.0);
        }
        text(frame, from + Vector::new(-8.0, -5.0), LETTER, 0.0, format!("grain {}", grain.words()));
    }
    let words =
        if scale >= 1.0 { format!("{}:1", decimal(scale, 2)) } else { format!("1:{}", decimal(1.0 / scale, 2)) };
    text(
        frame,
        Point::new(window.low.x + 1.0, window.high.y - 4.0),
        LETTER,
        0.0,
        format!("Blank, upper face toward the reader, scale {words}. Do not measure off this sheet."),
    );
    inside
}

/// The largest of the usual scales that is no larger than this.
fn nice_scale(fits: f64) -> f64 {
    let usual = [20.0, 10.0, 5.0, 2.0, 1.0, 0.5, 0.4, 0.25, 0.2, 0.125, 0.1, 0.05, 0.04, 0.025, 0.02, 0.01];
    usual.into_iter().find(|&scale| scale <= fits * (1.0 + 1e-9)).unwrap_or(fits)
}

fn write_table(words: &FlatSheetWords, shown: usize, frame: &mut Drawing) {
    if words.bends.is_empty() {
        return;
    }
    let columns = [0.0, 10.0, 44.0, 64.0, 76.0, 92.0, 112.0, 142.0];
    let lines = shown + 1 + usize::from(shown < words.bends.len());
    let mut y = MARGIN + LINE * (lines as f64 - 1.0);
    let mut row = |frame: &mut Drawing, cells: [String; 8]| {
        for (x, cell) in columns.iter().zip(cells) {
            text(frame, Point::new(MARGIN + x, y), LETTER, 0.0, cell);
        }
        y -= LINE;
    };
    let head = ["bend", "name", "angle", "way", "R mm", "length mm", "tooling", "BA mm"].map(str::to_string);
    row(frame, head);
    for bend in words.bends.iter().take(shown) {
        let cut = |value: &str, most: usize| value.chars().take(most).collect::<String>();
        row(
            frame,
            [
                bend.mark.clone(),
                cut(&bend.name, 20),
                format!("{} deg", decimal(bend.angle, 2)),
                bend.direction.word().to_string(),
                decimal(bend.radius, 2),
                decimal(bend.length, 2),
                cut(&bend.tooling, 22),
                decimal(bend.allowance, 3),
            ],
        );
    }
    if shown < words.bends.len() {
        let more = words.bends.len() - shown;
        row(
            frame,
            [
                format!("and {more} more in bends.csv"),
                String::new(),
                String::new(),
                String::new(),
                String::new(),
                String::new(),
                String::new(),
                String::new(),
            ],
        );
    }
}

fn write_words(words: &FlatSheetWords, width: f64, frame: &mut Drawing) {
    let x = width - MARGIN - 108.0;
    let x = if words.bends.is_empty() { MARGIN } else { x };
    let mut y = MARGIN + LINE * (words.lines.len() as f64 + 0.6);
    text(
        frame,
        Point::new(x, y),
        4.0,
        0.0,
        format!("{}  {}", words.mark, words.title).chars().take(60).collect::<String>(),
    );
    y -= LINE * 1.2;
    for line in &words.lines {
        text(frame, Point::new(x, y), LETTER, 0.0, line.chars().take(84).collect::<String>());
        y -= LINE;
    }
}
