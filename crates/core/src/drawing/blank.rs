//! The blank as a drawing: what is cut, bend lines with their texts, the piece mark.

use crate::measure::Part;
use crate::plane::Segment;
use crate::quantity::decimal;
use crate::sheet::Direction;
use crate::toolpath::profile;

use super::profile::draw;
use super::{Drawing, Layer, Stroke, Text};

/// The drawing of a part's blank, upper face toward the reader. Bend lines run along the middle of their strips, one
/// for each stretch where the strip has material, with "up 90 R3" beside them.
pub fn blank_drawing(part: &Part, mark: &str) -> Drawing {
    let mut drawing = Drawing::default();
    draw(&profile(part), &mut drawing);
    let size = part.blank.extents();
    let height = (size.width().min(size.height()) / 25.0).clamp(1.5, 8.0);
    for bend in &part.flat.bends {
        let strip = part.flat.strip_of(bend);
        let layer = match strip.direction {
            Direction::Up => Layer::BendUp,
            Direction::Down => Layer::BendDown,
        };
        let middle = strip.width / 2.0;
        let line = Segment::line(strip.place(0.0, middle), strip.place(strip.length, middle));
        drawing.strokes.push((layer, Stroke::Segment(line)));
        let mut turn = strip.along.y.atan2(strip.along.x);
        // Never upside down.
        let flipped = turn > std::f64::consts::FRAC_PI_2 + 1e-9 || turn <= -std::f64::consts::FRAC_PI_2 + 1e-9;
        if flipped {
            turn += std::f64::consts::PI;
        }
        let value = format!(
            "{} {} deg R{}",
            strip.direction.word(),
            decimal(strip.angle.to_degrees(), 2),
            decimal(strip.radius, 3)
        );
        let start = if flipped { strip.length - height } else { height };
        drawing.texts.push((
            Layer::Text,
            Text { place: strip.place(start, middle), height: height.min(strip.length / 12.0).max(0.8), turn, value },
        ));
    }
    let root = part.flat.nodes[0].region.extents();
    drawing.texts.push((
        Layer::Mark,
        Text { place: root.low.toward(root.high, 0.06), height, turn: 0.0, value: mark.to_string() },
    ));
    drawing
}
