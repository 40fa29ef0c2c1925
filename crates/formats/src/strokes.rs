//! What is read of a drawing file: strokes with the layers they came from, and which layers count as cuts.

use std::collections::{BTreeMap, HashMap};

use steelk_core::plane::Point;
use steelk_core::plane::tidy::Stroke;
use steelk_core::quantity::tolerance::ROUNDING;

/// What a file holds.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Strokes {
    /// What can be cut, of the layers taken, mm.
    pub strokes: Vec<Stroke>,
    /// Every layer with something on it.
    pub layers: Vec<LayerFound>,
    /// What was not taken, and which unit was read, in words.
    pub notes: Vec<String>,
    /// Lines of text, of any layer (DXF alone).
    pub texts: Vec<crate::dxf_read::TextFound>,
}

/// A layer of a file.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LayerFound {
    /// Its name.
    pub name: String,
    /// How many strokes lie on it.
    pub strokes: usize,
    /// Whether they were taken.
    pub taken: bool,
}

/// Which layers are taken as cuts: what the designer chose, by their names' usual meaning for the rest.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Layers {
    /// Choices by name in capitals.
    pub chosen: BTreeMap<String, bool>,
}

/// Words in the names of layers that hold no cuts (common practice).
const NO_CUTS: [&str; 15] = [
    "BEND",
    "FOLD",
    "FORM",
    "MARK",
    "ETCH",
    "ENGRAV",
    "TEXT",
    "DIM",
    "NOTE",
    "CENTER",
    "CENTRE",
    "HIDDEN",
    "CONSTR",
    "BORDER",
    "DEFPOINTS",
];

impl Layers {
    /// Whether strokes of a layer are taken.
    pub fn takes(&self, name: &str) -> bool {
        let name = name.to_ascii_uppercase();
        self.chosen.get(&name).copied().unwrap_or_else(|| !NO_CUTS.iter().any(|word| name.contains(word)))
    }
}

/// Gathers strokes layer by layer.
#[derive(Default)]
pub(crate) struct Gathered {
    strokes: Vec<(usize, Stroke)>,
    names: Vec<String>,
    /// By the name as the file has it.
    known: HashMap<String, usize>,
}

impl Gathered {
    pub fn len(&self) -> usize {
        self.strokes.len()
    }

    pub fn push(&mut self, layer: &str, stroke: Stroke) {
        let at = match self.known.get(layer) {
            Some(&at) => at,
            None => {
                self.names.push(layer.chars().filter(|c| !c.is_control()).take(60).collect());
                self.known.insert(layer.to_string(), self.names.len() - 1);
                self.names.len() - 1
            }
        };
        self.strokes.push((at, stroke));
    }

    /// Only the strokes of layers that are taken; what was left out is said.
    pub fn sorted(&self, layers: &Layers, mut notes: Vec<String>) -> Strokes {
        let mut found: Vec<LayerFound> = self
            .names
            .iter()
            .map(|name| LayerFound { name: name.clone(), strokes: 0, taken: layers.takes(name) })
            .collect();
        let mut strokes = Vec::new();
        for (at, stroke) in &self.strokes {
            found[*at].strokes += 1;
            if found[*at].taken {
                strokes.push(stroke.clone());
            }
        }
        for left in found.iter().filter(|one| !one.taken) {
            let word = if left.strokes == 1 { "stroke" } else { "strokes" };
            notes.push(format!("{} {word} of layer {} left out", left.strokes, left.name));
        }
        Strokes { strokes, layers: found, notes, texts: Vec::new() }
    }
}

/// x' = a x + c y + e, y' = b x + d y + f.
#[derive(Clone, Copy)]
pub(crate) struct Affine {
    pub a: f64,
    pub b: f64,
    pub c: f64,
    pub d: f64,
    pub e: f64,
    pub f: f64,
}

impl Affine {
    pub fn scaled(by: f64) -> Affine {
        Affine { a: by, b: 0.0, c: 0.0, d: by, e: 0.0, f: 0.0 }
    }

    pub fn point(&self, x: f64, y: f64) -> Point {
        Point::new(self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f)
    }

    /// This after `first`.
    pub fn after(&self, first: &Affine) -> Affine {
        let origin = self.point(first.e, first.f);
        Affine {
            a: self.a * first.a + self.c * first.b,
            b: self.b * first.a + self.d * first.b,
            c: self.a * first.c + self.c * first.d,
            d: self.b * first.c + self.d * first.d,
            e: origin.x,
            f: origin.y,
        }
    }

    /// Its scale where it is the same every way, negative where it mirrors; `None` where circles become ellipses.
    pub fn even(&self) -> Option<f64> {
        let (x, y) = (self.a.hypot(self.b), self.c.hypot(self.d));
        let skew = (self.a * self.c + self.b * self.d).abs();
        ((x - y).abs() <= ROUNDING * x.max(y) && skew <= ROUNDING * x * y)
            .then(|| x * (self.a * self.d - self.b * self.c).signum())
    }
}
