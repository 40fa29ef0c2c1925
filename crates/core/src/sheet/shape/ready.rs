//! Ready shapes from their numbers, mm and radians. Each says which number does not fit, and what would.

use std::f64::consts::{FRAC_PI_2, PI, TAU};

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Vector};
use crate::quantity::{LengthUnit, length_text};

use super::laid::Laid;

fn at(angle: f64, reach: f64) -> Point {
    Point::new(reach * angle.cos(), reach * angle.sin())
}

/// Bulge of an arc of this sweep.
pub(super) fn bulge(sweep: f64) -> f64 {
    (sweep / 4.0).tan()
}

/// From (0, 0) to (width, depth).
pub(super) fn rectangle(width: f64, depth: f64) -> Laid {
    Laid::polygon(&[
        (Point::new(0.0, 0.0), "front"),
        (Point::new(width, 0.0), "right"),
        (Point::new(width, depth), "back"),
        (Point::new(0.0, depth), "left"),
    ])
}

/// About the origin.
pub(super) fn circle(diameter: f64) -> Laid {
    Laid::disc(Point::default(), diameter / 2.0, "rim")
}

/// About the origin, with the hole `bore`.
pub(super) fn ring(outside: f64, inside: f64, unit: LengthUnit) -> Result<Laid, Finding> {
    if inside >= outside - 2.0 * MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!(
                "a bore of {} leaves nothing of a disc of {}",
                length_text(inside, unit),
                length_text(outside, unit)
            ),
            "Make the inside diameter smaller than the outside one.",
        )
        .at_field("inside"));
    }
    let mut laid = circle(outside);
    laid.holes.push(("bore".into(), Outline::circle(Point::default(), inside / 2.0, 0)));
    Ok(laid)
}

/// Its box from (0, 0) to (length, width).
pub(super) fn obround(length: f64, width: f64, unit: LengthUnit) -> Result<Laid, Finding> {
    let straight = length - width;
    if straight <= MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!(
                "an obround {} long and {} wide has no straight sides",
                length_text(length, unit),
                length_text(width, unit)
            ),
            "Make the length larger than the width, or lay down a circle.",
        )
        .at_field("length"));
    }
    let (half, end) = (width / 2.0, length - width / 2.0);
    Ok(Laid::from_edges(&[
        (Point::new(half, 0.0), 0.0, "front".into()),
        (Point::new(end, 0.0), 1.0, "right-end".into()),
        (Point::new(end, width), 0.0, "back".into()),
        (Point::new(half, width), 1.0, "left-end".into()),
    ]))
}

/// About the origin; `inner` is the radius of the circle that touches its sides.
pub(super) fn polygon(sides: usize, inner: f64) -> Laid {
    let step = TAU / sides as f64;
    let reach = inner / (step / 2.0).cos();
    let edges: Vec<_> = (0..sides)
        .map(|side| (at(-FRAC_PI_2 + step * (side as f64 - 0.5), reach), 0.0, format!("side-{}", side + 1)))
        .collect();
    Laid::from_edges(&edges)
}

/// Base from (0, 0) along x.
pub(super) fn triangle(base: f64, height: f64, lean: f64) -> Laid {
    Laid::polygon(&[
        (Point::new(0.0, 0.0), "base"),
        (Point::new(base, 0.0), "right"),
        (Point::new(lean, height), "left"),
    ])
}

/// A gusset's numbers, mm; zero is "not clipped".
pub(super) struct GussetNumbers {
    pub width: f64,
    pub height: f64,
    pub corner: f64,
    pub toe: f64,
    pub tip: f64,
}

/// Inner corner at (0, 0), foot along x, upright along y.
pub(super) fn gusset(given: &GussetNumbers, unit: LengthUnit) -> Result<Laid, Finding> {
    let GussetNumbers { width, height, corner, toe, tip } = *given;
    let rules = [
        ("corner", corner + tip, width, "the corner's clip and the tip", "foot"),
        ("corner", corner + toe, height, "the corner's clip and the toe", "upright"),
    ];
    for (field, taken, whole, what, leg) in rules {
        if taken >= whole - MODELLING_TOLERANCE {
            return Err(Finding::error(
                format!(
                    "{what} take {} together; the {leg} has {}",
                    length_text(taken, unit),
                    length_text(whole, unit)
                ),
                "Clip less, or make the gusset larger.",
            )
            .at_field(field));
        }
    }
    let mut edges: Vec<(Point, &str)> = vec![(Point::new(corner, 0.0), "foot"), (Point::new(width, 0.0), "toe")];
    if toe > 0.0 {
        edges.push((Point::new(width, toe), "slope"));
    } else {
        edges[1].1 = "slope";
    }
    edges.push((Point::new(tip, height), "tip"));
    if tip > 0.0 {
        edges.push((Point::new(0.0, height), "upright"));
    } else if let Some(last) = edges.last_mut() {
        last.1 = "upright";
    }
    if corner > 0.0 {
        edges.push((Point::new(0.0, corner), "clip"));
    }
    Ok(Laid::polygon(&edges))
}

/// Foot from (0, 0) to (base, 0); the crown's centre `height` above its middle.
pub(super) fn lug(base: f64, height: f64, radius: f64, hole: Option<f64>, unit: LengthUnit) -> Result<Laid, Finding> {
    let centre = Point::new(base / 2.0, height);
    let foot = Point::new(base, 0.0);
    let to_centre = centre - foot;
    let reach = to_centre.length();
    let too_low = || {
        Finding::error(
            format!(
                "a crown of radius {} about a point {} up reaches down to the foot",
                length_text(radius, unit),
                length_text(height, unit)
            ),
            "Make the height at least the crown's radius, or the radius smaller.",
        )
        .at_field("height")
    };
    // As high as its radius the crown only touches the foot's line, between the sides.
    if height < radius - MODELLING_TOLERANCE || reach <= radius + MODELLING_TOLERANCE {
        return Err(too_low());
    }
    if let Some(diameter) = hole
        && diameter / 2.0 >= radius - MODELLING_TOLERANCE
    {
        return Err(Finding::error(
            format!(
                "a hole of {} breaks through a crown of radius {}",
                length_text(diameter, unit),
                length_text(radius, unit)
            ),
            "Make the hole smaller or the crown larger.",
        )
        .at_field("hole"));
    }
    // The right side touches the crown with the crown on its left: turned right of the way to the centre.
    let aside = (radius / reach).asin();
    let way = to_centre.y.atan2(to_centre.x) - aside;
    let length = (reach * reach - radius * radius).sqrt();
    let right = foot + Vector::new(way.cos(), way.sin()) * length;
    if right.y <= MODELLING_TOLERANCE {
        return Err(too_low());
    }
    let left = Point::new(base - right.x, right.y);
    let start = (right - centre).y.atan2((right - centre).x);
    let sweep = PI - 2.0 * start;
    let mut laid = Laid::from_edges(&[
        (Point::new(0.0, 0.0), 0.0, "foot".into()),
        (foot, 0.0, "right".into()),
        (right, bulge(sweep), "crown".into()),
        (left, 0.0, "left".into()),
    ]);
    if let Some(diameter) = hole {
        laid.holes.push(("hole".into(), Outline::circle(centre, diameter / 2.0, 0)));
    }
    Ok(laid)
}

/// An eared flange's numbers: radii in mm.
pub(super) struct EaredNumbers {
    pub body: f64,
    pub bore: Option<f64>,
    pub ears: usize,
    pub circle: f64,
    pub ear: f64,
    pub hole: Option<f64>,
}

/// About the origin, the first ear to the right.
///
/// The line that touches a body circle and an ear circle from outside has its normal at acos((body - ear) / distance)
/// from the ear's axis (plane geometry of two circles). Where that passes the bisector between two ears, neighbouring
/// lines meet before they reach the body.
pub(super) fn eared(given: &EaredNumbers, unit: LengthUnit) -> Result<Laid, Finding> {
    let EaredNumbers { body, bore, ears, circle, ear, hole } = *given;
    let show = |value: f64| length_text(value, unit);
    if circle + ear <= body + MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!(
                "the ears reach {} from the middle and the body {}: no ear stands out",
                show(circle + ear),
                show(body)
            ),
            "Make the bolt circle or the ear radius larger.",
        )
        .at_field("circle"));
    }
    for (field, inner, outer, inner_name, outer_name) in
        [("bore", bore, body, "the bore", "the body"), ("hole", hole, ear, "an ear's hole", "the ear")]
    {
        if let Some(inner) = inner
            && inner >= outer - MODELLING_TOLERANCE
        {
            return Err(Finding::error(
                format!(
                    "{inner_name} of {} leaves nothing of {outer_name} of {}",
                    show(2.0 * inner),
                    show(2.0 * outer)
                ),
                "Make the hole smaller.",
            )
            .at_field(field));
        }
    }
    let half = PI / ears as f64;
    let lean = ((body - ear) / circle).clamp(-1.0, 1.0).acos();
    let meets = lean > half;
    let reach = circle * lean.sin();
    if circle * half.sin() <= ear + MODELLING_TOLERANCE || (meets && body * (lean - half).tan() >= reach) {
        return Err(Finding::error(
            format!("{ears} ears of radius {} on a circle of {} run into each other", show(ear), show(2.0 * circle)),
            "Use fewer or smaller ears, or a larger bolt circle.",
        )
        .at_field("ears"));
    }
    let mut edges = Vec::new();
    for one in 0..ears {
        let axis = 2.0 * half * one as f64;
        let centre = at(axis, circle);
        let on_ear = |angle: f64| centre + Vector::new(angle.cos(), angle.sin()) * ear;
        let number = one + 1;
        edges.push((on_ear(axis - lean), bulge(2.0 * lean), format!("ear-{number}")));
        edges.push((on_ear(axis + lean), 0.0, format!("flank-{number}-left")));
        if meets {
            edges.push((
                at(axis + half, body / (lean - half).cos()),
                0.0,
                format!("flank-{}-right", number % ears + 1),
            ));
        } else {
            let sweep = 2.0 * (half - lean);
            if sweep * body > MODELLING_TOLERANCE {
                edges.push((at(axis + lean, body), bulge(sweep), format!("rim-{number}")));
            }
            edges.push((at(axis + 2.0 * half - lean, body), 0.0, format!("flank-{}-right", number % ears + 1)));
        }
    }
    let mut laid = Laid::from_edges(&edges);
    if let Some(bore) = bore {
        laid.holes.push(("bore".into(), Outline::circle(Point::default(), bore, 0)));
    }
    if let Some(hole) = hole {
        for one in 0..ears {
            let centre = at(2.0 * half * one as f64, circle);
            laid.holes.push((format!("hole.{}", one + 1), Outline::circle(centre, hole, 0)));
        }
    }
    Ok(laid)
}
