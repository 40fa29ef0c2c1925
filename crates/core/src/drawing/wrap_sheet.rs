//! A wrap template on paper at 1:1, with its check line and the line of the section's up.

use crate::frame::Wrap;
use crate::plane::{Box2, Point, Segment};
use crate::quantity::{LengthUnit, length_text};

use super::template::check_length;
use super::wrapped::wrapped;
use super::{Drawing, Layer, Sheet, Stroke, Text};

/// The template alone, for a cutter of card or a plotter.
pub fn wrap_drawing(wrap: &Wrap) -> Drawing {
    let mut drawing = Drawing::default();
    let deep = wrap.curve.iter().map(|at| at.y).fold(0.0, f64::max) + 20.0;
    let mut line = |layer: Layer, from: Point, to: Point| {
        drawing.strokes.push((layer, Stroke::Segment(Segment::line(from, to))));
    };
    for pair in wrap.curve.windows(2) {
        line(Layer::Cut, Point::new(pair[0].x, -pair[0].y), Point::new(pair[1].x, -pair[1].y));
    }
    let (left, right) = (wrap.curve[0], wrap.curve[wrap.curve.len() - 1]);
    line(Layer::Cut, Point::new(0.0, -left.y), Point::new(0.0, -deep));
    line(Layer::Cut, Point::new(0.0, -deep), Point::new(wrap.around, -deep));
    line(Layer::Cut, Point::new(wrap.around, -deep), Point::new(wrap.around, -right.y));
    line(Layer::Mark, Point::new(wrap.up_at, -deep), Point::new(wrap.up_at, 0.0));
    drawing
}

/// The template on one sheet as large as it needs, with a check line of 100 mm or 4 in. `head` stands over it.
pub fn wrap_sheet(wrap: &Wrap, words: &str, head: &[String], unit: LengthUnit) -> Sheet {
    const MARGIN: f64 = 15.0;
    // From line to line of what stands over it, mm.
    const HEAD: f64 = 5.0;
    let inside = wrap_drawing(wrap);
    let around = inside.extents();
    let width = (around.width() + 2.0 * MARGIN).max(210.0);
    // A letter of 3 mm is about 1.7 mm wide (Helvetica).
    let letters = ((width - 2.0 * MARGIN) / 1.7) as usize;
    let head: Vec<String> = head.iter().flat_map(|line| wrapped(line, letters)).collect();
    let over = HEAD * head.len() as f64;
    let height = (around.height() + 2.0 * MARGIN + 30.0 + over).max(148.0);
    let shift = Point::new(MARGIN, height - MARGIN - over) - Point::new(around.low.x, around.high.y);
    let mut moved = Drawing::default();
    for (layer, stroke) in inside.strokes {
        if let Stroke::Segment(one) = stroke {
            let own = Segment { start: one.start + shift, end: one.end + shift, bulge: one.bulge };
            moved.strokes.push((layer, Stroke::Segment(own)));
        }
    }
    let mut frame = Drawing::default();
    let (from, to) = (Point::new(MARGIN, MARGIN + 12.0), Point::new(MARGIN + check_length(unit), MARGIN + 12.0));
    frame.strokes.push((Layer::Mark, Stroke::Segment(Segment::line(from, to))));
    for at in [from, to] {
        let tick = Segment::line(Point::new(at.x, at.y - 2.0), Point::new(at.x, at.y + 2.0));
        frame.strokes.push((Layer::Mark, Stroke::Segment(tick)));
    }
    let mut text = |x: f64, y: f64, value: String| {
        frame.texts.push((Layer::Text, Text { place: Point::new(x, y), height: 3.0, turn: 0.0, value }));
    };
    text(MARGIN, MARGIN + 15.0, format!("check line: {}, measure it", length_text(check_length(unit), unit)));
    for (at, line) in head.iter().enumerate() {
        text(MARGIN, height - MARGIN + 3.0 - HEAD * at as f64, line.clone());
    }
    let line =
        format!("{words}. Wrap over the outside, ends on the seam below, the fine line on top; cut along the curve.");
    for (at, part) in wrapped(&line, letters).into_iter().enumerate() {
        text(MARGIN, MARGIN + 5.0 - 5.0 * at as f64, part);
    }
    let window = Box2 { low: Point::new(0.0, 0.0), high: Point::new(width, height) };
    Sheet { width, height, window, inside: moved, frame }
}
