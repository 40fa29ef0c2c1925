//! Where on a plate or a bent part each thing is measured.

use crate::plane::{Point, Segment};
use crate::quantity::tolerance::{LEVEL, NOTHING_SQUARED};
use crate::sheet::{Hole, Part, figures, folded_extents, form_height};
use crate::space::{Point3, Vector3};
use crate::work::measure::{Axis, Distance, Measure};
use crate::work::sheet::{Face, Reach};

use super::feature::{Feature, feature, panel_normal};
use super::in_flat::Rims;
use super::looked_up::{bend, edge_segments, form, head_depth, hole_outline, leg, panel, section, worked};
use super::measured::{Witness, WitnessOn};

/// The witnesses of a measure; none for what is of the whole, or cannot be measured.
pub(super) fn witnesses(part: &Part, what: &Measure) -> Vec<Witness> {
    let one = match what {
        Measure::Distance(one) => distance(part, one),
        Measure::Size(one) => {
            let around = folded_extents(part);
            let way = one.along.unit();
            Some(Witness::made(around.low, around.low + way * one.along.of(around.size()), way))
        }
        Measure::Leg(one) => section(part, &one.bend).ok().zip(leg(part, one).ok()).map(|(section, long)| {
            let end = section.outside + section.away * section.straight;
            Witness::made(end + section.away * -long, end, section.away)
        }),
        Measure::Angle(one) => between_panels(part, &one.from, &one.to),
        Measure::BendAngle(one) => bend(part, &one.bend).ok().map(|bend| {
            let strip = part.flat.strip_of(bend);
            let at = |u: f64, v: f64| part.folded.apply(bend.strip, strip.place(u, v), part.flat.thickness / 2.0);
            let middle = strip.length / 2.0;
            Witness::made(at(middle, 0.0), at(middle, strip.width), (at(strip.length, 0.0) - at(0.0, 0.0)).unit())
        }),
        Measure::InsideRadius(one) => inside_radius(part, &one.bend),
        Measure::Diameter(one) => hole(part, &one.hole, Axis::X),
        Measure::HoleSize(one) => hole(part, &one.hole, one.along),
        Measure::Floor(one) => worked(part, &one.hole).ok().and_then(|hole| {
            let deep = hole.work.profile.last()?.to;
            under(part, hole, deep, part.flat.thickness)
        }),
        Measure::HeadDepth(one) => worked(part, &one.hole).ok().and_then(|hole| {
            let deep = head_depth(hole, &one.hole).ok()?;
            under(part, hole, 0.0, deep)
        }),
        Measure::FormHeight(one) => form(part, &one.form).ok().and_then(|form| {
            let high = form_height(&part.flat, form)?;
            let (from, to) = match form.up {
                true => (part.flat.thickness, part.flat.thickness + high),
                false => (0.0, -high),
            };
            let at = |z: f64| part.folded.apply(form.panel, form.centre, z);
            Some(Witness::straight(at(from), at(to)))
        }),
        Measure::Rim(one) => Rims::new(part, one).ok().and_then(|rims| {
            let [from, to] = rims.nearest()?;
            let at = |place| part.folded.apply(part.flat.holes[rims.hole].panel, place, part.flat.thickness);
            Some(Witness::straight(at(from), at(to)))
        }),
        Measure::EdgeLength(one) => {
            let all = edge_segments(part, &one.edge).unwrap_or_default();
            return all
                .iter()
                .filter(|one| one.is_line())
                .filter_map(|stretch| on_edge(part, &one.edge, stretch))
                .collect();
        }
        Measure::EdgeRadius(one) => edge_segments(part, &one.edge).ok().and_then(|all| {
            let round = all.first().filter(|one| !one.is_line())?;
            let at = upper(part, &one.edge)?;
            Some(Witness::straight(at(round.centre()), at(round.at(0.5))))
        }),
        Measure::Thickness => {
            let place = part.flat.nodes[0].laid.centre();
            let at = |z| part.folded.apply(0, place, z);
            Some(Witness::straight(at(0.0), at(part.flat.thickness)))
        }
        Measure::BlankSize(one) => {
            let around = part.blank.extents();
            let to = match one.along {
                Axis::X => Point::new(around.high.x, around.low.y),
                Axis::Y => Point::new(around.low.x, around.high.y),
                Axis::Z => return Vec::new(),
            };
            Some(in_flat(around.low, to))
        }
        Measure::CentreOfGravity(one) => Some(centre_witness(figures(part).centre_of_gravity, one.along)),
        // Of the whole: no two places bound them.
        Measure::HoleCount(_)
        | Measure::HoleArea(_)
        | Measure::HoleCutLength(_)
        | Measure::PanelArea(_)
        | Measure::PanelCutLength(_)
        | Measure::EdgeAngle(_)
        | Measure::Setback(_)
        | Measure::SeamLength(_)
        | Measure::WeldLength(_)
        | Measure::CutLength
        | Measure::Pierces
        | Measure::NetArea
        | Measure::Mass
        | Measure::UndrilledMass
        | Measure::FoldedVolume
        | Measure::Frame(_) => None,
    };
    one.into_iter().collect()
}

/// On a hole's axis from one depth under the face that it is worked from to another.
fn under(part: &Part, hole: &Hole, from: f64, to: f64) -> Option<Witness> {
    let at = |depth: f64| {
        let height = if hole.work.face == Face::Top { part.flat.thickness - depth } else { depth };
        part.folded.apply(hole.panel, hole.centre, height)
    };
    Some(Witness::straight(at(from), at(to)))
}

/// From the origin to a centre of gravity.
pub(super) fn centre_witness(centre: Point3, along: Axis) -> Witness {
    Witness::made(Point3::default(), centre, along.unit())
}

fn in_flat(from: Point, to: Point) -> Witness {
    let lift = |at: Point| Point3::new(at.x, at.y, 0.0);
    Witness { on: WitnessOn::Blank, ..Witness::straight(lift(from), lift(to)) }
}

fn middle(feature: &Feature) -> Point3 {
    let corners = feature.corners();
    let sum = corners.iter().fold(Vector3::default(), |sum, corner| sum + corner.from_origin());
    Point3::default() + sum * (1.0 / corners.len().max(1) as f64)
}

/// Places on both features, one over the other in the direction of the measure where the features reach so far.
fn distance(part: &Part, what: &Distance) -> Option<Witness> {
    let (from, to) = (feature(part, &what.from).ok()?, feature(part, &what.to).ok()?);
    let (a, b) = (middle(&from), middle(&to));
    if let (None, Feature::Line { point: p, direction: d, .. }, Feature::Line { point: q, direction: e, .. }) =
        (what.along, &from, &to)
    {
        let square = d.cross(*e);
        if square.length() < LEVEL {
            // Side by side: from the middle of the first straight across to the second.
            let by = *q - a;
            return Some(Witness::straight(a, a + (by - *d * by.dot(*d))));
        }
        // Where they pass each other: p + s d and q + t e nearest.
        let by = *q - *p;
        let (s, t) = (by.cross(*e).dot(square), by.cross(*d).dot(square));
        let share = 1.0 / square.dot(square);
        return Some(Witness::made(*p + *d * (s * share), *q + *e * (t * share), square.unit()));
    }
    let across = match (what.along, &from, &to) {
        (Some(axis), ..) => axis.unit(),
        (None, Feature::Plane { normal, .. }, _) | (None, _, Feature::Plane { normal, .. }) => *normal,
        (None, ..) => (b - a).unit(),
    };
    // Start where the smaller feature is, so that the line leaves from a hole and not from mid-air.
    let long = across * (b - a).dot(across);
    Some(if from.corners().len() <= to.corners().len() {
        Witness::made(a, a + long, across)
    } else {
        Witness::made(b + -long, b, across)
    })
}

fn between_panels(part: &Part, from: &str, to: &str) -> Option<Witness> {
    let (one, other) = (panel(part, from).ok()?, panel(part, to).ok()?);
    let at =
        |panel: usize| part.folded.apply(panel, part.flat.nodes[panel].region.centroid(), part.flat.thickness / 2.0);
    let about = panel_normal(part, one).cross(panel_normal(part, other));
    Some(Witness::made(at(one), at(other), about.unit()))
}

/// From the axis of a bend to the middle of its inner face.
fn inside_radius(part: &Part, name: &str) -> Option<Witness> {
    let own = bend(part, name).ok()?;
    let strip = part.flat.strip_of(own);
    let z = if strip.direction == crate::work::sheet::Direction::Up { part.flat.thickness } else { 0.0 };
    let at = |share: f64| part.folded.apply(own.strip, strip.place(strip.length / 2.0, strip.width * share), z);
    // The middle of the circle through three of its points.
    let (a, b, c) = (at(0.0), at(0.5), at(1.0));
    let (one, two) = (b - a, c - a);
    let normal = one.cross(two);
    let square = normal.dot(normal);
    if square < NOTHING_SQUARED {
        return None;
    }
    let to_centre = (two.cross(normal) * -one.dot(one) + one.cross(normal) * two.dot(two)) * (-0.5 / square);
    Some(Witness::straight(a + to_centre, b))
}

/// Across a hole in its panel, or on the blank where it goes over bends.
fn hole(part: &Part, name: &str, along: Axis) -> Option<Witness> {
    let outline = hole_outline(part, name).ok()?;
    let hole = part.flat.holes.iter().find(|hole| hole.name == name || hole.operation == name)?;
    let (around, middle) = (outline.extents(), outline.extents().centre());
    let (from, to) = match along {
        Axis::X => (Point::new(around.low.x, middle.y), Point::new(around.high.x, middle.y)),
        Axis::Y => (Point::new(middle.x, around.low.y), Point::new(middle.x, around.high.y)),
        Axis::Z => return None,
    };
    if hole.reach != Reach::Panel {
        return Some(in_flat(from, to));
    }
    let at = |point| part.folded.apply(hole.panel, point, part.flat.thickness);
    Some(Witness::straight(at(from), at(to)))
}

/// Places of an edge's panel on its upper face.
fn upper<'a>(part: &'a Part, edge: &str) -> Option<impl Fn(Point) -> Point3 + 'a> {
    let panel = part.flat.edges.iter().find(|one| one.name == edge)?.panel;
    Some(move |at: Point| part.folded.apply(panel, at, part.flat.thickness))
}

fn on_edge(part: &Part, edge: &str, stretch: &Segment) -> Option<Witness> {
    let at = upper(part, edge)?;
    Some(Witness::straight(at(stretch.start), at(stretch.end)))
}
