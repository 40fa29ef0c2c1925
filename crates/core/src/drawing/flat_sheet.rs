//! The flat sheet: one page with the blank drawn to scale, its sizes, its bends with their marks, the bend table and
//! what the floor must know.

use crate::brake::BendRow;
use crate::plane::{Box2, Point, Segment, Vector};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, PARALLEL, ROUNDING};
use crate::quantity::{Amount, LengthUnit, decimal};
use crate::sheet::Part;
use crate::stock::Grain;

use super::wrapped::wrapped;
use super::{Drawing, Layer, Paper, Sheet, Stroke, Text, blank_drawing};

/// What a flat sheet says beside the blank.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct FlatSheetWords {
    /// Piece mark.
    pub mark: String,
    /// What it is.
    pub title: String,
    /// What stamps it: that it is not released.
    pub stamp: Option<String>,
    /// Lines for the lower right: material, mass, how many, cautions.
    pub lines: Vec<String>,
    /// How the grain lies.
    pub grain: Option<Grain>,
    /// The bends.
    pub bends: Vec<BendRow>,
    /// The unit of its sizes.
    pub unit: LengthUnit,
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
    let sources = sources(words);
    let more = usize::from(shown < words.bends.len());
    let table_lines = if words.bends.is_empty() { 0 } else { shown + 1 + more + sources.len() };
    let forms = form_lines(part, words.unit);
    let lines: Vec<String> = words.lines.iter().chain(&forms).flat_map(|line| wrapped(line, WORDS_WIDE)).collect();
    let foot = MARGIN + LINE * (table_lines.max(lines.len() + 2) as f64 + 1.0);
    let window = Box2 { low: Point::new(MARGIN, foot), high: Point::new(width - MARGIN, height - MARGIN) };
    let mut frame = Drawing::default();
    let inside = blank_to_scale(part, words, &window, &mut frame);
    write_table(words, shown, &sources, table_lines, &mut frame);
    write_words(words, &lines, width, &mut frame);
    if let Some(stamp) = &words.stamp {
        write_stamp(stamp, &window, &mut frame);
    }
    let rule = Segment::line(Point::new(MARGIN, foot - 1.0), Point::new(width - MARGIN, foot - 1.0));
    frame.strokes.push((Layer::Mark, Stroke::Segment(rule)));
    Sheet { width, height, window, inside, frame }
}

/// A line for the forms of each operation that are alike: "FORM vent: 4 x louvre 60 mm x 16 mm, 6 mm up".
fn form_lines(part: &Part, unit: LengthUnit) -> Vec<String> {
    let mut all: Vec<(&str, String, usize)> = Vec::new();
    let mut add = |operation, says: String| match all.iter_mut().find(|one| one.0 == operation && one.1 == says) {
        Some(own) => own.2 += 1,
        None => all.push((operation, says, 1)),
    };
    for form in part.flat.forms.iter() {
        add(&form.operation, form.says(unit));
    }
    for rib in part.flat.ribs.iter() {
        add(&rib.operation, format!("{} across {}, pressed with the bend", rib.says(unit), rib.bend));
    }
    all.into_iter().map(|(operation, says, count)| format!("FORM {operation}: {count} x {says}")).collect()
}

/// Letters on a line of the words at the right.
const WORDS_WIDE: usize = 66;

/// The ways that allowances were found, each once.
fn sources(words: &FlatSheetWords) -> Vec<String> {
    let mut all: Vec<String> = Vec::new();
    for bend in &words.bends {
        if !all.contains(&bend.source) {
            all.push(bend.source.clone());
        }
    }
    all.truncate(6);
    all
}

fn letter(at: usize) -> String {
    char::from(b'a' + (at % 26) as u8).to_string()
}

fn text(drawing: &mut Drawing, place: Point, height: f64, turn: f64, value: impl Into<String>) {
    drawing.texts.push((Layer::Text, Text { place, height, turn, value: value.into() }));
}

/// Draws the blank as large as it fits, with its overall sizes, and says the scale.
fn blank_to_scale(part: &Part, words: &FlatSheetWords, window: &Box2, frame: &mut Drawing) -> Drawing {
    let unit = words.unit;
    let around = part.blank.extents();
    // Room for the dimension lines on two sides.
    let room = (window.width() - 34.0, window.height() - 34.0);
    let scale = nice_scale((room.0 / around.width()).min(room.1 / around.height()));
    let drawn = Vector::new(around.width() * scale, around.height() * scale);
    let low =
        Point::new(window.low.x + 22.0 + (room.0 - drawn.x) / 2.0, window.low.y + 18.0 + (room.1 - drawn.y) / 2.0);
    let place = |point: Point| low + (point - around.low) * scale;
    let mut inside = Drawing::default();
    for (layer, stroke) in blank_drawing(part, "", words.unit).strokes {
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
        // In the middle of its longest stretch of metal.
        let longest =
            part.flat.stretches(bend).into_iter().max_by(|one, two| (one.1 - one.0).total_cmp(&(two.1 - two.0)));
        let along_it = longest.map_or(strip.length / 2.0, |(from, to)| (from + to) / 2.0);
        let middle = place(strip.place(along_it, strip.width / 2.0));
        let mut turn = strip.along.y.atan2(strip.along.x);
        let half = std::f64::consts::FRAC_PI_2;
        if turn > half + ROUNDING || turn <= -half + ROUNDING {
            turn += std::f64::consts::PI;
        }
        let along = Vector::new(turn.cos(), turn.sin());
        let start = middle - along * (LETTER * 0.3 * sign.len() as f64) + along.left() * 0.8;
        text(&mut inside, start, LETTER, turn, sign);
    }
    let bend_lines = bend_places(part);
    // Overall sizes as the cutting shop will read them.
    let (left, right) = (low.x, low.x + drawn.x);
    let (under, over) = (low.y, low.y + drawn.y);
    let y = under - 9.0;
    let x = left - 9.0;
    let mut texts = Drawing::default();
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
    // Where bend lines lie from the lower left corner: across along the top, up along the right.
    let mut nearest = f64::NEG_INFINITY;
    let mut row = 0.0;
    for &at in &bend_lines.0 {
        let x = left + at * scale;
        row = if x - nearest < 3.4 { row + 9.0 } else { 0.0 };
        nearest = x;
        line(Point::new(x, over + 1.0), Point::new(x, over + 2.5 + row));
        text(
            &mut texts,
            Point::new(x + 0.9, over + 3.0 + row),
            LETTER,
            std::f64::consts::FRAC_PI_2,
            unit.bare(Amount::Length, at, 2),
        );
    }
    let (mut nearest, mut row) = (f64::NEG_INFINITY, 0.0);
    for &at in &bend_lines.1 {
        let y = under + at * scale;
        row = if y - nearest < 3.4 { row + 12.0 } else { 0.0 };
        nearest = y;
        line(Point::new(right + 1.0, y), Point::new(right + 2.5 + row, y));
        text(&mut texts, Point::new(right + 3.0 + row, y - 0.9), LETTER, 0.0, unit.bare(Amount::Length, at, 2));
    }
    frame.texts.extend(texts.texts);
    let value = |length: f64| unit.says(Amount::Length, length, 2);
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
        format!("Blank, upper face toward the reader, scale {words}. Do not measure from this sheet."),
    );
    inside
}

/// Where bend lines run upright (their x) and level (their y), from the lower left corner of the blank, each once.
fn bend_places(part: &Part) -> (Vec<f64>, Vec<f64>) {
    let low = part.blank.extents().low;
    let (mut across, mut up) = (Vec::new(), Vec::new());
    for bend in &part.flat.bends {
        let strip = part.flat.strip_of(bend);
        let middle = strip.place(strip.length / 2.0, strip.width / 2.0);
        if strip.along.x.abs() < PARALLEL {
            across.push(middle.x - low.x);
        } else if strip.along.y.abs() < PARALLEL {
            up.push(middle.y - low.y);
        }
    }
    for list in [&mut across, &mut up] {
        list.sort_by(f64::total_cmp);
        list.dedup_by(|next, known| (*next - *known).abs() < MODELLING_TOLERANCE);
        list.truncate(30);
    }
    (across, up)
}

/// The largest of the usual scales that is no larger than this.
fn nice_scale(fits: f64) -> f64 {
    let usual = [20.0, 10.0, 5.0, 2.0, 1.0, 0.5, 0.4, 0.25, 0.2, 0.125, 0.1, 0.05, 0.04, 0.025, 0.02, 0.01];
    usual.into_iter().find(|&scale| scale <= fits * (1.0 + ROUNDING)).unwrap_or(fits)
}

fn write_table(words: &FlatSheetWords, shown: usize, sources: &[String], lines: usize, frame: &mut Drawing) {
    if words.bends.is_empty() {
        return;
    }
    let columns = [0.0, 10.0, 42.0, 60.0, 71.0, 82.0, 100.0, 140.0, 156.0];
    let mut y = MARGIN + LINE * (lines as f64 - 1.0);
    let mut row = |frame: &mut Drawing, cells: [String; 9]| {
        for (x, cell) in columns.iter().zip(cells) {
            text(frame, Point::new(MARGIN + x, y), LETTER, 0.0, cell);
        }
        y -= LINE;
    };
    let unit = words.unit;
    let size = |name: &str| format!("{name} {}", unit.sign());
    let word = str::to_string;
    let [radius, length, allowance] = ["R", "length", "BA"].map(size);
    row(
        frame,
        [
            word("bend"),
            word("name"),
            word("angle"),
            word("way"),
            radius,
            length,
            word("tooling"),
            allowance,
            word("by"),
        ],
    );
    let cut = |value: &str, most: usize| value.chars().take(most).collect::<String>();
    for bend in words.bends.iter().take(shown) {
        let by = sources.iter().position(|one| *one == bend.source).map(letter).unwrap_or_default();
        row(
            frame,
            [
                bend.mark.clone(),
                cut(&bend.name, 19),
                format!("{} deg", decimal(bend.angle, 2)),
                bend.direction.word().to_string(),
                unit.bare(Amount::Length, bend.radius, 2),
                unit.bare(Amount::Length, bend.length, 2),
                cut(&bend.tooling, 22),
                unit.bare(Amount::Length, bend.allowance, 3),
                by,
            ],
        );
    }
    let mut whole = |frame: &mut Drawing, line: String| {
        let mut cells: [String; 9] = Default::default();
        cells[0] = line;
        row(frame, cells);
    };
    if shown < words.bends.len() {
        whole(frame, format!("and {} more in bends.csv", words.bends.len() - shown));
    }
    for (at, source) in sources.iter().enumerate() {
        whole(frame, format!("{}: {}", letter(at), cut(source, 96)));
    }
}

/// Height of a stamp's letters, mm.
const STAMP: f64 = 5.0;

/// In a frame of its own at the upper right, above the blank.
fn write_stamp(stamp: &str, window: &Box2, frame: &mut Drawing) {
    let long = stamp.chars().count() as f64 * STAMP * 0.72;
    let low = Point::new(window.high.x - long - 4.0, window.high.y - STAMP - 5.0);
    let corners = [low, Point::new(window.high.x, low.y), window.high, Point::new(low.x, window.high.y)];
    for at in 0..4 {
        let side = Segment::line(corners[at], corners[(at + 1) % 4]);
        frame.strokes.push((Layer::Mark, Stroke::Segment(side)));
    }
    text(frame, low + Vector::new(2.0, 2.5), STAMP, 0.0, stamp);
}

fn write_words(words: &FlatSheetWords, lines: &[String], width: f64, frame: &mut Drawing) {
    let x = if words.bends.is_empty() { MARGIN } else { width - MARGIN - 106.0 };
    let mut y = MARGIN + LINE * (lines.len() as f64 + 0.6);
    let heading = format!("{}  {}", words.mark, words.title).chars().take(52).collect::<String>();
    text(frame, Point::new(x, y), 4.0, 0.0, heading);
    y -= LINE * 1.2;
    for line in lines {
        text(frame, Point::new(x, y), LETTER, 0.0, line.clone());
        y -= LINE;
    }
}
