//! Outlines of holes about their places.

use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Vector};

use super::numbers::HoleShape;

impl HoleShape {
    /// Its outline about a centre, `along` a unit vector of its x.
    pub(super) fn outline(&self, centre: Point, along: Vector) -> Outline {
        let across = along.left();
        let place = |x: f64, y: f64| centre + along * x + across * y;
        let plain = |edges: &[(f64, f64, f64)]| Outline {
            edges: edges.iter().map(|&(x, y, bulge)| Edge { start: place(x, y), bulge, tag: 0 }).collect(),
        };
        match self {
            HoleShape::Round(diameter) => Outline::circle(centre, diameter / 2.0, 0),
            HoleShape::Rectangle(width, height, corner) => {
                Outline::rounded_rectangle(centre, along, *width, *height, *corner, 0)
            }
            HoleShape::Opened { width, height, radius, bisector } => {
                opened(*width, *height, *radius, *bisector).moved(|point| place(point.x, point.y))
            }
            HoleShape::Slot(length, width) => {
                Outline::rounded_rectangle(centre, along, length + width, *width, width / 2.0, 0)
            }
            HoleShape::Keyhole(head, slot, travel) => {
                let (head, slot) = (head / 2.0, slot / 2.0);
                // Where the slot's sides leave the head.
                let neck = (head * head - slot * slot).sqrt();
                let gone = (slot / head).asin();
                let sweep = std::f64::consts::TAU - 2.0 * gone;
                // Two arcs for the head: one bulge says at most a little less than a full turn well.
                let half = (sweep / 8.0).tan();
                plain(&[
                    (slot, neck, 0.0),
                    (slot, *travel, 1.0),
                    (-slot, *travel, 0.0),
                    (-slot, neck, half),
                    (0.0, -head, half),
                ])
            }
            HoleShape::Outline(laid) => {
                let middle = laid.outer.extents().centre();
                laid.outer.moved(|point| place(point.x - middle.x, point.y - middle.y))
            }
        }
    }
}

/// A rectangle about the origin whose corners a tool of this radius has opened.
///
/// On the bisector the tool's centre stands inside, its edge through the corner: it leaves each side at
/// radius x sqrt(2) from the corner. Along the longer side the centre stands on that side's line, a radius in: the tool
/// leaves the side at twice its radius and bites into the shorter one by a radius.
fn opened(width: f64, height: f64, radius: f64, bisector: bool) -> Outline {
    let (x, y) = (width / 2.0, height / 2.0);
    let mut edges = Vec::new();
    let wide = width >= height;
    for (sx, sy) in [(1.0, -1.0), (1.0, 1.0), (-1.0, 1.0), (-1.0, -1.0)] {
        // Walking counter-clockwise each corner is left along x or along y, in turn.
        let comes_along_x = sx * sy < 0.0;
        let corner = Point::new(sx * x, sy * y);
        let (along_x, along_y) = (Vector::new(-sx, 0.0), Vector::new(0.0, -sy));
        let (back, on) = if comes_along_x { (along_x, along_y) } else { (along_y, along_x) };
        if bisector {
            let leg = radius * std::f64::consts::SQRT_2;
            // Half a turn of the tool outside the corner: from one side to the other through the corner.
            edges.push(Edge { start: corner + back * leg, bulge: 1.0, tag: 0 });
            edges.push(Edge { start: corner + on * leg, bulge: 0.0, tag: 0 });
        } else {
            let over_first = comes_along_x == wide;
            let leg = 2.0 * radius;
            if over_first {
                edges.push(Edge { start: corner + back * leg, bulge: 1.0, tag: 0 });
                edges.push(Edge { start: corner, bulge: 0.0, tag: 0 });
            } else {
                edges.push(Edge { start: corner, bulge: 1.0, tag: 0 });
                edges.push(Edge { start: corner + on * leg, bulge: 0.0, tag: 0 });
            }
        }
    }
    let mut outline = Outline { edges };
    outline.drop_short(MODELLING_TOLERANCE);
    outline
}
