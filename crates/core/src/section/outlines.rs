//! Outlines of the standard forms, about the middle of their box, mm. Lines and arcs exactly as the standards draw them.

use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Region, Vector};
use crate::quantity::tolerance::ROUNDING;

/// Corner radii of a hollow section by its wall, mm: outer and inner. EN 10219-2 (cold formed): outer 2.0 T up to 6 mm,
/// 2.5 T up to 10 mm, 3.0 T above; inner = outer - T. EN 10210-2 (hot finished): 1.5 T and 1.0 T.
pub fn hollow_radii(wall: f64, hot: bool) -> (f64, f64) {
    if hot {
        return (1.5 * wall, wall);
    }
    let outer = wall
        * if wall <= 6.0 {
            2.0
        } else if wall <= 10.0 {
            2.5
        } else {
            3.0
        };
    (outer, outer - wall)
}

/// A square or rectangular hollow section.
pub fn hollow(width: f64, height: f64, wall: f64, radii: (f64, f64)) -> Region {
    let along = Vector::new(1.0, 0.0);
    let ring = |width: f64, height: f64, radius: f64| {
        Outline::rounded_rectangle(Point::default(), along, width, height, radius, 0)
    };
    let (outer, inner) = radii;
    Region { outer: ring(width, height, outer), holes: vec![ring(width - 2.0 * wall, height - 2.0 * wall, inner)] }
}

/// A round tube.
pub fn tube(diameter: f64, wall: f64) -> Region {
    Region {
        outer: Outline::circle(Point::default(), diameter / 2.0, 0),
        holes: vec![Outline::circle(Point::default(), diameter / 2.0 - wall, 0)],
    }
}

/// A flat, a square or timber.
pub fn solid_rectangle(width: f64, height: f64) -> Region {
    Region::solid(Outline::rounded_rectangle(Point::default(), Vector::new(1.0, 0.0), width, height, 0.0, 0))
}

/// A round bar.
pub fn solid_round(diameter: f64) -> Region {
    Region::solid(Outline::circle(Point::default(), diameter / 2.0, 0))
}

/// Corners with the radius of the fillet at each: positive adds an arc that rounds the corner off or fills it in,
/// whichever way it turns.
fn rounded(corners: &[(f64, f64, f64)]) -> Outline {
    let count = corners.len();
    let point = |at: usize| Point::new(corners[at % count].0, corners[at % count].1);
    let mut edges = Vec::new();
    for at in 0..count {
        let (before, here, after) = (point(at + count - 1), point(at), point(at + 1));
        let radius = corners[at].2;
        let (into, out) = ((here - before).unit(), (after - here).unit());
        let turn = into.cross(out).atan2(into.dot(out));
        if radius <= MODELLING_TOLERANCE || turn.abs() < ROUNDING {
            edges.push(Edge { start: here, bulge: 0.0, tag: 0 });
            continue;
        }
        let back = radius * (turn.abs() / 2.0).tan();
        edges.push(Edge { start: here + into * -back, bulge: (turn / 4.0).tan(), tag: 0 });
        edges.push(Edge { start: here + out * back, bulge: 0.0, tag: 0 });
    }
    let mut outline = Outline { edges };
    outline.drop_short(MODELLING_TOLERANCE);
    outline
}

/// An angle: the long leg up, the short leg to the right, the heel at the lower left. Root radius `root`, both toes
/// rounded with half of it inside (EN 10056-1).
pub fn angle(height: f64, width: f64, thickness: f64, root: f64) -> Region {
    let (x, y) = (-width / 2.0, -height / 2.0);
    let toe = (root / 2.0).min(thickness);
    Region::solid(rounded(&[
        (x, y, 0.0),
        (x + width, y, 0.0),
        (x + width, y + thickness, toe),
        (x + thickness, y + thickness, root),
        (x + thickness, y + height, toe),
        (x, y + height, 0.0),
    ]))
}

/// A channel with parallel flanges: the web at the left, the flanges to the right.
pub fn channel(height: f64, width: f64, web: f64, flange: f64, root: f64) -> Region {
    let (x, y) = (-width / 2.0, -height / 2.0);
    Region::solid(rounded(&[
        (x, y, 0.0),
        (x + width, y, 0.0),
        (x + width, y + flange, 0.0),
        (x + web, y + flange, root),
        (x + web, y + height - flange, root),
        (x + width, y + height - flange, 0.0),
        (x + width, y + height, 0.0),
        (x, y + height, 0.0),
    ]))
}

/// A channel with tapered flanges (UPN): `flange` is their thickness at half their width, `slope` the rise of their inner
/// faces toward the web, as a fraction; toes rounded with half the root radius.
pub fn tapered_channel(height: f64, width: f64, web: f64, flange: f64, slope: f64, root: f64) -> Region {
    let (x, y) = (-width / 2.0, -height / 2.0);
    let toe = flange - slope * width / 2.0;
    let heel = flange + slope * (width / 2.0 - web);
    Region::solid(rounded(&[
        (x, y, 0.0),
        (x + width, y, 0.0),
        (x + width, y + toe, root / 2.0),
        (x + web, y + heel, root),
        (x + web, y + height - heel, root),
        (x + width, y + height - toe, root / 2.0),
        (x + width, y + height, 0.0),
        (x, y + height, 0.0),
    ]))
}

/// An I or H section with parallel flanges, the web upright.
pub fn beam(height: f64, width: f64, web: f64, flange: f64, root: f64) -> Region {
    let (x, y, half) = (width / 2.0, height / 2.0, web / 2.0);
    Region::solid(rounded(&[
        (-x, -y, 0.0),
        (x, -y, 0.0),
        (x, -y + flange, 0.0),
        (half, -y + flange, root),
        (half, y - flange, root),
        (x, y - flange, 0.0),
        (x, y, 0.0),
        (-x, y, 0.0),
        (-x, y - flange, 0.0),
        (-half, y - flange, root),
        (-half, -y + flange, root),
        (-x, -y + flange, 0.0),
    ]))
}
