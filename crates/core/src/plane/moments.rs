//! Area, first and second moments of outlines by integration along their edges: shares nothing with the closed forms that
//! figures are made of.

use super::{Outline, Region, Segment};

/// Area (mm2), first moments (mm3) and second moments (mm4) about a point.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[allow(missing_docs)]
pub struct Moments {
    pub area: f64,
    pub x: f64,
    pub y: f64,
    pub xx: f64,
    pub yy: f64,
    pub xy: f64,
}

/// Places and weights of five-point Gauss-Legendre integration on 0 to 1 (Abramowitz and Stegun, table 25.4).
pub(crate) const GAUSS: [(f64, f64); 5] = [
    (0.046_910_077_030_668, 0.118_463_442_528_095),
    (0.230_765_344_947_158_5, 0.239_314_335_249_683_2),
    (0.5, 0.284_444_444_444_444_4),
    (0.769_234_655_052_841_5, 0.239_314_335_249_683_2),
    (0.953_089_922_969_332, 0.118_463_442_528_095),
];

impl Moments {
    /// Of an outline about a point `(x, y)`, mm; positive where it runs counter-clockwise.
    pub fn of_outline(outline: &Outline, about: (f64, f64)) -> Moments {
        let mut sum = Moments::default();
        for (edge, _) in outline.segments() {
            sum.walk(&edge, about);
        }
        sum
    }

    /// Of a region: its outside less its holes.
    pub fn of_region(region: &Region, about: (f64, f64)) -> Moments {
        region.holes.iter().fold(Moments::of_outline(&region.outer, about), |sum, hole| {
            sum.plus(&Moments::of_outline(hole, about), -1.0)
        })
    }

    /// The sum with a multiple of another.
    pub fn plus(&self, other: &Moments, times: f64) -> Moments {
        Moments {
            area: self.area + other.area * times,
            x: self.x + other.x * times,
            y: self.y + other.y * times,
            xx: self.xx + other.xx * times,
            yy: self.yy + other.yy * times,
            xy: self.xy + other.xy * times,
        }
    }

    /// Green's theorem along one edge.
    fn walk(&mut self, edge: &Segment, (px, py): (f64, f64)) {
        let start = (edge.start.x - px, edge.start.y - py);
        if edge.is_line() {
            let (dx, dy) = (edge.end.x - edge.start.x, edge.end.y - edge.start.y);
            for (share, weight) in GAUSS {
                self.add((start.0 + dx * share, start.1 + dy * share), (dx * weight, dy * weight));
            }
            return;
        }
        // On an arc the integrands are smooth: a sixteenth of a turn at a time they are exact to rounding. The arm from the
        // centre is turned on from place to place, which costs no sine.
        let sweep = edge.sweep();
        let parts = (sweep.abs() / 0.4).ceil().max(1.0);
        let step = sweep / parts;
        let centre = edge.centre();
        let middle = (centre.x - px, centre.y - py);
        let turned = |(x, y): (f64, f64), (sine, cosine): (f64, f64)| (x * cosine - y * sine, x * sine + y * cosine);
        let places = GAUSS.map(|(share, weight)| ((step * share).sin_cos(), step * weight));
        let whole = step.sin_cos();
        let mut arm = (edge.start.x - centre.x, edge.start.y - centre.y);
        for _ in 0..parts as usize {
            for (turn, along) in places {
                let own = turned(arm, turn);
                self.add((middle.0 + own.0, middle.1 + own.1), (-own.1 * along, own.0 * along));
            }
            arm = turned(arm, whole);
        }
    }

    /// Adds what a place stands for, which goes on by `(dx, dy)`.
    fn add(&mut self, (x, y): (f64, f64), (dx, dy): (f64, f64)) {
        self.area += (x * dy - y * dx) / 2.0;
        self.x += x * x * dy / 2.0;
        self.y -= y * y * dx / 2.0;
        self.xx += x * x * x * dy / 3.0;
        self.yy -= y * y * y * dx / 3.0;
        self.xy += x * x * y * dy / 2.0;
    }
}
