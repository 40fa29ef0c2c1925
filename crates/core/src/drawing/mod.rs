//! The neutral drawing that every exporter takes: strokes and texts on layers, in millimetres.

mod blank;
mod flat_sheet;
mod profile;
mod table_sheet;
mod template;
mod wrap_sheet;
mod wrapped;

pub use blank::{add_bend_table, blank_drawing};
pub use flat_sheet::{FlatSheetWords, flat_sheet};
pub use profile::profile_drawing;
pub use table_sheet::{NoColumn, RowPicture, table_sheets};
pub use template::{Paper, Sheet, TemplateChoice, TemplateError, check_length, template};
pub use wrap_sheet::{wrap_drawing, wrap_sheet};

use crate::plane::{Box2, Outline, Point, Segment};
use crate::quantity::tolerance::PARALLEL;

/// What a stroke or text is for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Layer {
    /// Cut through.
    Cut,
    /// Bend line toward the reader.
    BendUp,
    /// Bend line away from the reader.
    BendDown,
    /// Marked or engraved.
    Mark,
    /// Pressed: where a form's footprint lies, its centre and where it opens to.
    Form,
    /// For the reader only.
    Text,
}

impl Layer {
    /// Every layer.
    pub const ALL: [Layer; 6] = [Layer::Cut, Layer::BendUp, Layer::BendDown, Layer::Mark, Layer::Form, Layer::Text];

    /// Its name in files.
    pub fn name(self) -> &'static str {
        match self {
            Layer::Cut => "CUT",
            Layer::BendUp => "BEND-UP",
            Layer::BendDown => "BEND-DOWN",
            Layer::Mark => "MARK",
            Layer::Form => "FORM",
            Layer::Text => "TEXT",
        }
    }
}

impl Drawing {
    /// The layers of its file: that of forms only where it has some.
    pub fn layers(&self) -> impl Iterator<Item = Layer> + '_ {
        let has_forms = self.strokes.iter().any(|(layer, _)| *layer == Layer::Form);
        Layer::ALL.into_iter().filter(move |layer| *layer != Layer::Form || has_forms)
    }
}

/// A stroke.
#[derive(Clone, Debug, PartialEq)]
pub enum Stroke {
    /// A line or an arc.
    Segment(Segment),
    /// A full circle.
    Circle {
        /// Its centre.
        centre: Point,
        /// Its radius, mm.
        radius: f64,
    },
}

/// A line of text.
#[derive(Clone, Debug, PartialEq)]
pub struct Text {
    /// Lower left of its first letter.
    pub place: Point,
    /// Letter height, mm.
    pub height: f64,
    /// Turn, radians counter-clockwise.
    pub turn: f64,
    /// The words.
    pub value: String,
}

/// A drawing.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Drawing {
    /// Strokes with their layers; those of one outline follow one another.
    pub strokes: Vec<(Layer, Stroke)>,
    /// Texts with their layers.
    pub texts: Vec<(Layer, Text)>,
}

impl Drawing {
    /// Everything so many times as large, about the origin.
    pub fn scaled(&self, times: f64) -> Drawing {
        let place = |at: Point| Point::new(at.x * times, at.y * times);
        let stroke = |one: &Stroke| match one {
            Stroke::Circle { centre, radius } => Stroke::Circle { centre: place(*centre), radius: radius * times },
            Stroke::Segment(one) => {
                Stroke::Segment(Segment { start: place(one.start), end: place(one.end), bulge: one.bulge })
            }
        };
        let text = |one: &Text| Text { place: place(one.place), height: one.height * times, ..one.clone() };
        Drawing {
            strokes: self.strokes.iter().map(|(layer, one)| (*layer, stroke(one))).collect(),
            texts: self.texts.iter().map(|(layer, one)| (*layer, text(one))).collect(),
        }
    }

    /// Adds an outline; a full circle stays one circle, straight edges that run on are joined.
    pub fn outline(&mut self, layer: Layer, outline: &Outline) {
        if let Some((centre, radius)) = outline.as_circle() {
            self.strokes.push((layer, Stroke::Circle { centre, radius }));
            return;
        }
        let mut segments: Vec<Segment> = Vec::new();
        for (segment, _) in outline.segments() {
            match segments.last_mut() {
                Some(last) if runs_on(last, &segment) => last.end = segment.end,
                _ => segments.push(segment),
            }
        }
        if segments.len() > 2 && runs_on(&segments[segments.len() - 1], &segments[0]) {
            segments[0].start = segments[segments.len() - 1].start;
            segments.pop();
        }
        self.strokes.extend(segments.into_iter().map(|segment| (layer, Stroke::Segment(segment))));
    }

    /// The smallest upright box around the strokes.
    pub fn extents(&self) -> Box2 {
        self.strokes.iter().fold(Box2::EMPTY, |around, (_, stroke)| match stroke {
            Stroke::Segment(segment) => around.with(segment.extents()),
            Stroke::Circle { centre, radius } => around.with(Outline::circle(*centre, *radius, 0).extents()),
        })
    }
}

fn runs_on(one: &Segment, two: &Segment) -> bool {
    let (a, b) = (one.end - one.start, two.end - two.start);
    one.is_line() && two.is_line() && a.dot(b) > 0.0 && a.cross(b).abs() <= PARALLEL * a.length() * b.length()
}
