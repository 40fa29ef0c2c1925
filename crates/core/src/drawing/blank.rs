//! The blank as a drawing: what is cut, bend lines with their texts, the piece mark.

use crate::brake::BendRow;
use crate::plane::{Point, Segment, Vector};
use crate::quantity::tolerance::ROUNDING;
use crate::quantity::{Amount, LengthUnit, decimal};
use crate::sheet::Part;
use crate::toolpath::profile;
use crate::work::sheet::Direction;

use super::profile::draw;
use super::{Drawing, Layer, Stroke, Text};

/// The drawing of a part's blank, upper face toward the reader. Bend lines run along the middle of their strips, one
/// for each stretch where the strip has material, with "up 90 R3" beside them.
pub fn blank_drawing(part: &Part, mark: &str, unit: LengthUnit) -> Drawing {
    let mut drawing = Drawing::default();
    draw(&profile(part), &mut drawing);
    let size = part.blank.extents();
    let height = (size.width().min(size.height()) / 25.0).clamp(1.5, 8.0);
    for (number, bend) in part.flat.bends.iter().enumerate() {
        let strip = part.flat.strip_of(bend);
        let layer = match strip.direction {
            Direction::Up => Layer::BendUp,
            Direction::Down => Layer::BendDown,
        };
        let middle = strip.width / 2.0;
        // Only where there is metal to bend: cuts may have taken part of the strip.
        let stretches = part.flat.stretches(bend);
        for &(from, to) in &stretches {
            let line = Segment::line(strip.place(from, middle), strip.place(to, middle));
            drawing.strokes.push((layer, Stroke::Segment(line)));
        }
        let longest = stretches.iter().copied().max_by(|one, two| (one.1 - one.0).total_cmp(&(two.1 - two.0)));
        let (from, to) = longest.unwrap_or((0.0, strip.length));
        let mut turn = strip.along.y.atan2(strip.along.x);
        // Never upside down.
        let flipped = turn > std::f64::consts::FRAC_PI_2 + ROUNDING || turn <= -std::f64::consts::FRAC_PI_2 + ROUNDING;
        if flipped {
            turn += std::f64::consts::PI;
        }
        let value = format!(
            "B{} {} {} deg R{}",
            number + 1,
            strip.direction.word(),
            decimal(strip.angle.to_degrees(), 4),
            unit.bare(Amount::Length, strip.radius, 4)
        );
        let start = if flipped { to - height } else { from + height };
        drawing.texts.push((
            Layer::Text,
            Text { place: strip.place(start, middle), height: height.min((to - from) / 12.0).max(0.8), turn, value },
        ));
    }
    draw_forms(part, height, unit, &mut drawing);
    draw_ribs(part, height, unit, &mut drawing);
    let root = part.flat.nodes[0].region.extents();
    drawing.texts.push((
        Layer::Mark,
        Text { place: root.low.toward(root.high, 0.06), height, turn: 0.0, value: mark.to_string() },
    ));
    drawing
}

/// Footprints of forms with their centres; where one opens, an arrow from its centre out over its open side; beside it what it is and
/// which way it stands as the blank lies, upper face toward the reader.
fn draw_forms(part: &Part, height: f64, unit: LengthUnit, drawing: &mut Drawing) {
    for form in part.flat.forms.iter() {
        drawing.outline(Layer::Form, &form.outline);
        let mut line = |from: Point, to: Point| {
            drawing.strokes.push((Layer::Form, Stroke::Segment(Segment::line(from, to))));
        };
        let arm = (form.extents.width().min(form.extents.height()) / 6.0).min(height);
        let [x, y] = form.ways;
        line(form.centre - x * arm, form.centre + x * arm);
        match form.opening() {
            None => line(form.centre - y * arm, form.centre + y * arm),
            Some(by) => {
                let tip = form.centre + y * (by + arm);
                line(form.centre, tip);
                line(tip, tip - y * arm - x * (arm / 2.0));
                line(tip, tip - y * arm + x * (arm / 2.0));
            }
        }
        let text = Text {
            place: Point::new(form.extents.low.x, form.extents.high.y + height / 4.0),
            height: (height / 2.0).max(0.8),
            turn: 0.0,
            value: form.words(unit),
        };
        drawing.texts.push((Layer::Text, text));
    }
}

/// Footprints of ribs with their middles, beside them what they are: they are pressed once the bend is made.
fn draw_ribs(part: &Part, height: f64, unit: LengthUnit, drawing: &mut Drawing) {
    for rib in part.flat.ribs.iter() {
        let Some(footprint) = rib.footprint(&part.flat) else { continue };
        drawing.outline(Layer::Form, &footprint);
        let own = footprint.extents();
        let arm = (own.width().min(own.height()) / 6.0).min(height);
        for way in [Vector::new(arm, 0.0), Vector::new(0.0, arm)] {
            let line = Segment::line(rib.centre - way, rib.centre + way);
            drawing.strokes.push((Layer::Form, Stroke::Segment(line)));
        }
        let text = Text {
            place: Point::new(own.low.x, own.high.y + height / 4.0),
            height: (height / 2.0).max(0.8),
            turn: 0.0,
            value: rib.words(&part.flat, unit),
        };
        drawing.texts.push((Layer::Text, text));
    }
}

/// Writes the bend table and what else the shop reads under a drawing of a blank, on the text layer: nothing there is
/// cut, and the size of what is cut stays what it was.
pub fn add_bend_table(drawing: &mut Drawing, rows: &[BendRow], lines: &[String], unit: LengthUnit) {
    let around = drawing.extents();
    let height = (around.width() / 60.0).clamp(2.0, 8.0);
    let mut y = around.low.y - 4.0 * height;
    let mut line = |value: String| {
        let text = Text { place: Point::new(around.low.x, y), height, turn: 0.0, value };
        drawing.texts.push((Layer::Text, text));
        y -= 1.8 * height;
    };
    lines.iter().cloned().for_each(&mut line);
    for row in rows {
        line(format!(
            "{}  {}  {} {} deg  R{}  length {}  {}  BA {}  {}",
            row.mark,
            row.name,
            row.direction.word(),
            decimal(row.angle, 4),
            unit.bare(Amount::Length, row.radius, 4),
            unit.says(Amount::Length, row.length, 2),
            row.tooling,
            unit.says(Amount::Length, row.allowance, 4),
            row.source
        ));
    }
}
