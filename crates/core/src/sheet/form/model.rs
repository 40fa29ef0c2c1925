//! A form as it is pressed.

use crate::plane::{Box2, Outline, Point, Tag, Vector};
use crate::quantity::{Amount, LengthUnit};
use crate::stock::Thread;

/// Chords of sizes that are told, mm.
const CHORD: f64 = 1e-3;

/// What is pressed, mm and radians. Slopes are from the sheet: upright sides have a quarter turn.
#[derive(Clone, Debug, PartialEq)]
pub enum Pressed {
    /// A hood that is cut open along the side that its y points to.
    Louvre {
        /// Along its opening.
        length: f64,
        /// Square to it, on the sheet.
        width: f64,
        /// Of its opening's edge over the face.
        height: f64,
        /// Slope of its ends.
        side: f64,
    },
    /// A field whose sides slope in to a flat crown: beads, dimples, embossed fields.
    Raised {
        /// What it is called.
        word: &'static str,
        /// Of its crown over the face.
        height: f64,
        /// Slope of its sides.
        side: f64,
    },
    /// A disc that is pushed part of the way out of the sheet.
    KnockOut {
        /// Over the face.
        height: f64,
    },
    /// A collar round a hole.
    Extruded {
        /// Inside diameter.
        inside: f64,
        /// Thickness of the collar.
        wall: f64,
        /// Over the face.
        height: f64,
        /// Diameter of the hole that is cut first.
        pilot: f64,
        /// What is tapped into it.
        thread: Option<&'static Thread>,
    },
}

impl Pressed {
    /// What it is called.
    pub fn word(&self) -> &'static str {
        match self {
            Pressed::Louvre { .. } => "louvre",
            Pressed::Raised { word, .. } => word,
            Pressed::KnockOut { .. } => "knock-out",
            Pressed::Extruded { .. } => "extruded hole",
        }
    }

    /// How high it stands over the face that it stands out of, mm.
    pub fn height(&self) -> f64 {
        match self {
            Pressed::Louvre { height, .. }
            | Pressed::Raised { height, .. }
            | Pressed::KnockOut { height }
            | Pressed::Extruded { height, .. } => *height,
        }
    }
}

impl Form {
    /// How far its open side lies from its centre, along its y, mm; `None` where it is closed all round.
    pub fn opening(&self) -> Option<f64> {
        match self.shape {
            Pressed::Louvre { width, .. } => Some(width / 2.0),
            _ => None,
        }
    }

    /// Its name, what it is and which way it stands, as the flat lies: "vent.2 louvre 60 mm x 16 mm, 6 mm up".
    pub fn words(&self, unit: LengthUnit) -> String {
        format!("{} {}", self.name, self.says(unit))
    }

    /// What it is and which way it stands, as the flat lies.
    pub fn says(&self, unit: LengthUnit) -> String {
        let length = |value: f64| unit.says(Amount::Length, value, 4);
        let word = self.shape.word();
        let high = format!("{} {}", length(self.shape.height()), if self.up { "up" } else { "down" });
        match &self.shape {
            Pressed::Louvre { length: long, width, .. } => {
                format!("{word} {} x {}, {high}", length(*long), length(*width))
            }
            Pressed::Raised { .. } | Pressed::KnockOut { .. } => match self.outline.as_circle() {
                Some((_, radius)) => format!("{word} dia {}, {high}", length(2.0 * radius)),
                None => {
                    let (long, wide) = self.sizes();
                    format!("{word} {} x {}, {high}", length(long), length(wide))
                }
            },
            Pressed::Extruded { inside, pilot, thread, .. } => {
                let thread = thread.map_or(String::new(), |thread| format!(" for {}", thread.name));
                format!("{word} dia {}{thread} from pilot dia {}, {high}", length(*inside), length(*pilot))
            }
        }
    }

    /// Its footprint along its x and its y, mm.
    fn sizes(&self) -> (f64, f64) {
        let along = |way: Vector| {
            let places = self.outline.flatten(CHORD).into_iter().map(|at| (at - self.centre).dot(way));
            let (low, high) = places.fold((0.0f64, 0.0f64), |(low, high), at| (low.min(at), high.max(at)));
            high - low
        };
        (along(self.ways[0]), along(self.ways[1]))
    }
}

/// A form in a panel.
#[derive(Clone, Debug, PartialEq)]
pub struct Form {
    /// Its own name: `vent`, or `vent.3` for one of several.
    pub name: String,
    /// The operation's name.
    pub operation: String,
    /// Index of the panel in the flat's nodes.
    pub panel: usize,
    /// Its centre in the flat.
    pub centre: Point,
    /// Its footprint in the flat, counter-clockwise: where it leaves the face that it stands out of.
    pub outline: Outline,
    /// The box of that.
    pub extents: Box2,
    /// Unit vectors in the flat that its x and its y lie along. Of a mirror image they are left-handed.
    pub ways: [Vector; 2],
    /// Whether it stands out of the upper face.
    pub up: bool,
    /// What it is.
    pub shape: Pressed,
    /// The hole that is cut for it first.
    pub pilot: Option<Tag>,
}
