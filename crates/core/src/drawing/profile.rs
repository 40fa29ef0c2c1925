//! What the cutter follows, as a drawing.

use crate::plane::{Segment, Vector};
use crate::toolpath::Profile;

use super::{Drawing, Layer, Stroke};

/// Only what is cut and marked.
pub fn profile_drawing(profile: &Profile) -> Drawing {
    let mut drawing = Drawing::default();
    draw(profile, &mut drawing);
    drawing
}

/// Draws what is cut on the cut layer, and centres as crosses small enough to drill away.
pub(super) fn draw(profile: &Profile, drawing: &mut Drawing) {
    drawing.outline(Layer::Cut, &profile.outer);
    for hole in &profile.cut {
        drawing.outline(Layer::Cut, &hole.outline);
    }
    for line in profile.slits.iter().flat_map(|slit| &slit.line) {
        drawing.strokes.push((Layer::Cut, Stroke::Segment(*line)));
    }
    for (_, centre, width) in &profile.marks {
        let arm = width * 0.3;
        for way in [Vector::new(arm, 0.0), Vector::new(0.0, arm)] {
            drawing.strokes.push((Layer::Mark, Stroke::Segment(Segment::line(*centre - way, *centre + way))));
        }
    }
}
