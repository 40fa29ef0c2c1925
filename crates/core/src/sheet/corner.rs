//! Corners of a panel rounded, clipped, notched; an edge made a full round.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Segment, Tag, Vector};
use crate::quantity::tolerance::{NO_TURN, NOTHING, PARALLEL};
use crate::quantity::{Dimension, LengthUnit, length_text};
use crate::work::sheet::{CornerAction, CornerShape};

use super::flat::{EdgeRecord, Flat, TagKind};
use super::reader::Reader;

/// Corners in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct CornerNumbers {
    pub panel: String,
    /// `front/right`, or one edge for a full round; empty: every corner.
    pub at: Vec<String>,
    pub cut: CornerCut,
}

/// What is done to each corner.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum CornerCut {
    /// Radius.
    Round(f64),
    /// Off the first edge, off the second.
    Chamfer(f64, f64),
    /// Off one edge, and the angle to it.
    Clip {
        /// Off that edge.
        leg: f64,
        /// Between the cut and that edge.
        angle: f64,
        /// Whether that edge is the one after the corner.
        second: bool,
    },
    /// Along the first edge, along the second; radius of its inner corner, 0 where it is sharp.
    Notch(f64, f64, f64),
    /// An edge made a half circle.
    FullRound,
}

/// Reads a corner operation.
pub(super) fn read_corner(reader: &mut Reader<'_>, corner: &CornerAction) -> Option<CornerNumbers> {
    let cut = match &corner.shape {
        CornerShape::Round(text) => CornerCut::Round(reader.size("shape.round", text, "a corner radius")?),
        CornerShape::FullRound => CornerCut::FullRound,
        CornerShape::Notch(notch) => {
            let width = reader.size("shape.notch.width", &notch.width, "a notch's width");
            let depth = reader.size("shape.notch.depth", &notch.depth, "a notch's depth");
            let round = match &notch.corner {
                Some(text) => reader.zero_or_more("shape.notch.corner", text, "a radius of a notch's corner"),
                None => Some(0.0),
            };
            CornerCut::Notch(width?, depth?, round?)
        }
        CornerShape::Chamfer(chamfer) => {
            let leg = reader.size("shape.chamfer.leg", &chamfer.leg, "a chamfer's leg");
            match (&chamfer.other, &chamfer.angle) {
                (Some(_), Some(_)) => {
                    reader.refuse(
                        "shape.chamfer.angle",
                        "a chamfer takes a second leg or an angle, not both".into(),
                        "Keep the one that the drawing gives.",
                    );
                    return None;
                }
                (Some(other), None) => {
                    let other = reader.size("shape.chamfer.other", other, "a chamfer's second leg");
                    CornerCut::Chamfer(leg?, other?)
                }
                (None, Some(angle)) => {
                    let angle = reader.value("shape.chamfer.angle", angle, Dimension::ANGLE, "a chamfer's angle");
                    CornerCut::Clip { leg: leg?, angle: angle?, second: false }
                }
                (None, None) => {
                    let leg = leg?;
                    CornerCut::Chamfer(leg, leg)
                }
            }
        }
    };
    Some(CornerNumbers { panel: corner.panel.to_string(), at: corner.at.clone(), cut })
}

/// Cuts the corners; none is cut when one of them cannot be.
pub(super) fn cut(flat: &mut Flat, name: &str, given: &CornerNumbers, unit: LengthUnit) -> Result<(), Finding> {
    let panel = flat.find_panel(&given.panel)?;
    let before = flat.nodes[panel].region.outer.clone();
    let free = |tag: Tag| matches!(flat.tags[tag as usize].kind, TagKind::Edge);
    let short = |tag: Tag| {
        let full = flat.tags[tag as usize].name.as_str();
        full.strip_prefix(&format!("{}.", given.panel)).unwrap_or(full).to_string()
    };
    let segments: Vec<(Segment, Tag)> = before.segments().collect();
    let count = segments.len();
    // A corner is the place where an edge begins; the first edge named may be the one that begins there.
    let mut corners: Vec<(usize, CornerCut)> = Vec::new();
    if given.cut == CornerCut::FullRound {
        for edge in &given.at {
            let found = (0..count).find(|&at| short(segments[at].1) == *edge && free(segments[at].1));
            corners.push((found.ok_or_else(|| unknown(edge, &given.panel))?, given.cut));
        }
    } else if given.at.is_empty() {
        corners.extend(free_corners(flat, panel).into_iter().map(|corner| (corner.at, given.cut)));
    } else {
        for pair in &given.at {
            let names: Vec<&str> = pair.split('/').map(str::trim).collect();
            let found = (0..count).find_map(|at| {
                let (before, here) = (segments[(at + count - 1) % count].1, segments[at].1);
                let [first, second] = names[..] else { return None };
                let met = [short(before), short(here)];
                if !free(before) || !free(here) {
                    None
                } else if met == [first, second] {
                    Some((at, given.cut))
                } else if met == [second, first] {
                    Some((at, given.cut.told_from_the_other_side()))
                } else {
                    None
                }
            });
            corners.push(found.ok_or_else(|| unknown(pair, &given.panel))?);
        }
    }
    if corners.is_empty() {
        return Err(Finding::error(
            format!("{} has no corner between free edges", given.panel),
            "Name the corners by their two edges, such as front/right.",
        )
        .at_field("at"));
    }
    let single = corners.len() == 1;
    let mut numbered: Vec<(usize, CornerCut, String)> = corners
        .into_iter()
        .enumerate()
        .map(|(number, (at, cut))| (at, cut, if single { name.to_string() } else { format!("{name}.{}", number + 1) }))
        .collect();
    numbered.sort_by_key(|(at, ..)| *at);
    if let Some(twice) = numbered.windows(2).find(|pair| pair[0].0 == pair[1].0) {
        return Err(Finding::error(
            format!("{} and {} are the same corner", twice[0].2, twice[1].2),
            "Name each corner once.",
        )
        .at_field("at"));
    }
    let mut outline = before;
    let mut made: Vec<(String, Tag)> = Vec::new();
    // From the last to the first, so that the places of the others stay.
    for (at, cut, own) in numbered.into_iter().rev() {
        let tag = flat.tag(own.clone(), TagKind::Edge);
        outline = one(&outline, at, cut, tag, &own, unit)?;
        made.push((own, tag));
    }
    outline.drop_short(MODELLING_TOLERANCE);
    // A notch as deep as the panel ends on the bend's tangent line and runs back along it.
    outline.drop_spikes(MODELLING_TOLERANCE);
    // Each notch fits its own corner, and together they may meet.
    if outline.area() <= outline.perimeter() * MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!("cutting these corners leaves nothing of {}", given.panel),
            "Cut less of each, or leave the panel out.",
        )
        .at_field("shape"));
    }
    for (own, tag) in made.into_iter().rev() {
        let Some(place) = outline.edges.iter().position(|edge| edge.tag == tag) else { continue };
        let Some((line, _)) = outline.segments().nth(place) else { continue };
        let beside = |by: i64| {
            let count = outline.edges.len() as i64;
            let tag = outline.edges[(place as i64 + by).rem_euclid(count) as usize].tag;
            let full = flat.tags[tag as usize].name.as_str();
            full.strip_prefix(&format!("{}.", given.panel)).unwrap_or(full).to_string()
        };
        let sides = [beside(-1), beside(1)];
        flat.edges.push(EdgeRecord { name: own, tag, panel, line, sides, bends: Vec::new() });
    }
    // A hole or a form may have stood in the corner that is gone.
    if let Some(form) = flat.forms.iter().find(|form| {
        form.panel == panel
            && (crate::plane::outline_distance(&form.outline, &outline) < MODELLING_TOLERANCE
                || !outline.contains(form.extents.centre()))
    }) {
        return Err(Finding::error(
            format!("cutting the corner runs into the form {}", form.name),
            "Cut less, or move the form.",
        )
        .at_field("shape"));
    }
    for hole in flat.holes.iter().filter(|hole| hole.panel == panel) {
        if crate::plane::outline_distance(&hole.outline, &outline) < MODELLING_TOLERANCE
            || !outline.contains(hole.extents.centre())
        {
            return Err(Finding::error(
                format!("cutting the corner runs into {}", hole.name),
                "Cut less, or move the hole.",
            )
            .at_field("shape"));
        }
    }
    Arc::make_mut(&mut flat.nodes[panel].region).outer = outline;
    Ok(())
}

/// A corner of a panel between two free edges.
pub(super) struct FreeCorner {
    /// Which edge of the outline begins there.
    pub at: usize,
    /// How it is cited after the panel: `front/right`.
    pub name: String,
    /// Where it lies.
    pub place: Point,
}

/// The corners of a panel between two free edges.
pub(super) fn free_corners(flat: &Flat, panel: usize) -> Vec<FreeCorner> {
    let stem = format!("{}.", flat.nodes[panel].name);
    let free = |tag: Tag| {
        let record = &flat.tags[tag as usize];
        let own = record.name.strip_prefix(&stem).unwrap_or(&record.name);
        matches!(record.kind, TagKind::Edge).then_some(own)
    };
    let segments: Vec<(Segment, Tag)> = flat.nodes[panel].region.outer.segments().collect();
    let count = segments.len();
    (0..count)
        .filter_map(|at| {
            let (before, here) = (&segments[(at + count - 1) % count], &segments[at]);
            let is_corner = before.1 != here.1 && turn(&before.0, &here.0).abs() > NO_TURN;
            let name = format!("{}/{}", free(before.1)?, free(here.1)?);
            is_corner.then_some(FreeCorner { at, name, place: here.0.start })
        })
        .collect()
}

fn unknown(pair: &str, panel: &str) -> Finding {
    Finding::error(
        format!("{panel} has no corner {pair} between free edges"),
        "Name a corner by the two edges that meet there, such as front/right; a full round by its one edge.",
    )
    .at_field("at")
}

impl CornerCut {
    /// The same cut where the first edge named is the one after the corner.
    fn told_from_the_other_side(self) -> CornerCut {
        match self {
            CornerCut::Chamfer(a, b) => CornerCut::Chamfer(b, a),
            CornerCut::Notch(a, b, round) => CornerCut::Notch(b, a, round),
            CornerCut::Clip { leg, angle, second } => CornerCut::Clip { leg, angle, second: !second },
            other => other,
        }
    }
}

/// How far the outline turns from one segment to the next, radians, left positive.
pub(super) fn turn(before: &Segment, here: &Segment) -> f64 {
    let (a, b) = (heading(before, true), heading(here, false));
    a.cross(b).atan2(a.dot(b))
}

/// Unit direction at the end or the start of a segment.
fn heading(segment: &Segment, end: bool) -> Vector {
    let chord = (segment.end - segment.start).unit();
    let half = if end { segment.sweep() / 2.0 } else { -segment.sweep() / 2.0 };
    let (sin, cos) = half.sin_cos();
    Vector::new(chord.x * cos - chord.y * sin, chord.x * sin + chord.y * cos)
}

fn one(
    outline: &Outline,
    at: usize,
    cut: CornerCut,
    tag: Tag,
    name: &str,
    unit: LengthUnit,
) -> Result<Outline, Finding> {
    let segments: Vec<(Segment, Tag)> = outline.segments().collect();
    let count = segments.len();
    let (first, second) = (segments[(at + count - 1) % count].0, segments[at].0);
    let corner = second.start;
    let bend = turn(&first, &second);
    let too_large = |what: String| {
        Finding::error(
            format!("{what} does not fit the corner {name}"),
            "Make it smaller; the edges that meet there are too short for it.",
        )
        .at_field("shape")
    };
    // From the cut's start on the first edge to its end on the second: vertices with bulges, the last one's is the rest
    // of the second edge.
    let middle: Vec<(Point, f64)> = match cut {
        CornerCut::Round(radius) => {
            let (from, to, bulge) = fillet(&first, &second, radius, bend)
                .ok_or_else(|| too_large(format!("a radius of {}", length_text(radius, unit))))?;
            vec![(from, bulge), (to, 0.0)]
        }
        CornerCut::FullRound => return full_round(outline, at, tag, unit),
        CornerCut::Chamfer(..) | CornerCut::Clip { .. } | CornerCut::Notch(..)
            if !(first.is_line() && second.is_line()) =>
        {
            return Err(Finding::error(
                format!("the corner {name} has a round edge: it can be rounded, not clipped or notched"),
                "Round it, or put the shapes together instead.",
            )
            .at_field("shape"));
        }
        CornerCut::Chamfer(a, b) => straight(&first, &second, corner, a, b)
            .ok_or_else(|| too_large(format!("a chamfer of {} by {}", length_text(a, unit), length_text(b, unit))))?,
        CornerCut::Clip { leg, angle, second: on_second } => {
            // The corner's inside angle, the clip's angle and the third make 180 deg: sine rule.
            let inside = std::f64::consts::PI - bend;
            let third = std::f64::consts::PI - inside - angle;
            let other = leg * angle.sin() / third.sin();
            if !(angle > 0.0 && third > PARALLEL) {
                return Err(too_large("a clip at this angle".into()));
            }
            let (a, b) = if on_second { (other, leg) } else { (leg, other) };
            straight(&first, &second, corner, a, b)
                .ok_or_else(|| too_large(format!("a clip of {} by {}", length_text(a, unit), length_text(b, unit))))?
        }
        CornerCut::Notch(a, b, round) => {
            if bend < NO_TURN {
                return Err(too_large("a notch".into()));
            }
            let ends = straight(&first, &second, corner, a, b)
                .ok_or_else(|| too_large(format!("a notch of {} by {}", length_text(a, unit), length_text(b, unit))))?;
            let inner = ends[0].0 + (ends[1].0 - corner);
            if round < MODELLING_TOLERANCE {
                vec![(ends[0].0, 0.0), (inner, 0.0), ends[1]]
            } else {
                let (one, two) = (Segment::line(ends[0].0, inner), Segment::line(inner, ends[1].0));
                let (from, to, bulge) = fillet(&one, &two, round, turn(&one, &two))
                    .ok_or_else(|| too_large(format!("a radius of {} within the notch", length_text(round, unit))))?;
                vec![(ends[0].0, 0.0), (from, bulge), (to, 0.0), ends[1]]
            }
        }
    };
    let keep = |segment: &Segment, from: Point, to: Point| {
        if segment.is_line() {
            return 0.0;
        }
        let centre = segment.centre();
        let (a, b) = (from - centre, to - centre);
        let turned = a.cross(b).atan2(a.dot(b)).rem_euclid(std::f64::consts::TAU);
        let sweep = if segment.bulge > 0.0 { turned } else { turned - std::f64::consts::TAU };
        (sweep / 4.0).tan()
    };
    let mut edges = outline.edges.clone();
    let previous = (at + count - 1) % count;
    edges[previous].bulge = keep(&first, first.start, middle[0].0);
    let last = middle.len() - 1;
    let rest = Edge { start: middle[last].0, bulge: keep(&second, middle[last].0, second.end), tag: segments[at].1 };
    let mut fresh: Vec<Edge> = middle[..last].iter().map(|&(start, bulge)| Edge { start, bulge, tag }).collect();
    fresh.push(rest);
    edges.splice(at..=at, fresh);
    Ok(Outline { edges })
}

/// Places on two straight edges, a leg from their corner.
fn straight(first: &Segment, second: &Segment, corner: Point, a: f64, b: f64) -> Option<Vec<(Point, f64)>> {
    if a > first.length() + MODELLING_TOLERANCE || b > second.length() + MODELLING_TOLERANCE {
        return None;
    }
    let back = (first.start - first.end).unit();
    let on = (second.end - second.start).unit();
    Some(vec![(corner + back * a, 0.0), (corner + on * b, 0.0)])
}

/// Where an arc of a radius leaves the first edge and joins the second, and its bulge. Its centre stands a radius off
/// both: inside for a corner that stands out, outside for one that goes in.
pub(super) fn fillet(first: &Segment, second: &Segment, radius: f64, bend: f64) -> Option<(Point, Point, f64)> {
    let side = bend.signum();
    let corner = second.start;
    let centre = meeting(&offset(first, radius * side)?, &offset(second, radius * side)?, corner)?;
    let foot = |segment: &Segment| {
        if segment.is_line() {
            let along = (segment.end - segment.start).unit();
            segment.start + along * (centre - segment.start).dot(along)
        } else {
            let own = segment.centre();
            own + (centre - own).unit() * segment.radius()
        }
    };
    let (from, to) = (foot(first), foot(second));
    let near = 10.0 * MODELLING_TOLERANCE;
    if first.distance_to(from) > near || second.distance_to(to) > near {
        return None;
    }
    let (a, b) = (from - centre, to - centre);
    let sweep = a.cross(b).atan2(a.dot(b));
    // Round a corner that stands out the arc turns with it, by less than half a turn.
    (sweep * side > 0.0).then(|| (from, to, (sweep / 4.0).tan()))
}

/// The line or circle that lies a distance to the left of a segment.
enum Offset {
    Line(Point, Vector),
    Circle(Point, f64),
}

fn offset(segment: &Segment, left: f64) -> Option<Offset> {
    if segment.is_line() {
        let along = (segment.end - segment.start).unit();
        return Some(Offset::Line(segment.start + along.left() * left, along));
    }
    let radius = segment.radius() - left * segment.bulge.signum();
    (radius > MODELLING_TOLERANCE).then(|| Offset::Circle(segment.centre(), radius))
}

/// The meeting of two lines or circles that is nearest to a point.
fn meeting(one: &Offset, two: &Offset, near: Point) -> Option<Point> {
    let candidates: Vec<Point> = match (one, two) {
        (Offset::Line(p, u), Offset::Line(q, v)) => {
            let turn = u.cross(*v);
            if turn.abs() < NOTHING {
                return None;
            }
            vec![*p + *u * ((*q - *p).cross(*v) / turn)]
        }
        (Offset::Line(p, u), Offset::Circle(c, r)) | (Offset::Circle(c, r), Offset::Line(p, u)) => {
            let along = (*c - *p).dot(*u);
            let foot = *p + *u * along;
            let off = foot.distance(*c);
            let half = (r * r - off * off).sqrt();
            if half.is_nan() {
                return None;
            }
            vec![foot + *u * half, foot - *u * half]
        }
        (Offset::Circle(c, r), Offset::Circle(d, s)) => {
            let between = *d - *c;
            let apart = between.length();
            let along = (apart * apart + r * r - s * s) / (2.0 * apart);
            let half = (r * r - along * along).sqrt();
            if half.is_nan() || apart < NOTHING {
                return None;
            }
            let unit = between.unit();
            vec![*c + unit * along + unit.left() * half, *c + unit * along - unit.left() * half]
        }
    };
    candidates.into_iter().min_by(|a, b| a.distance(near).total_cmp(&b.distance(near)))
}

/// An edge between two parallel ones made a half circle that touches both.
fn full_round(outline: &Outline, at: usize, tag: Tag, unit: LengthUnit) -> Result<Outline, Finding> {
    let segments: Vec<Segment> = outline.segments().map(|(one, _)| one).collect();
    let count = segments.len();
    let (before, edge, after) = (segments[(at + count - 1) % count], segments[at], segments[(at + 1) % count]);
    let fault = |message: String| {
        Err(Finding::error(message, "A full round stands between two edges side by side, square to the edge.")
            .at_field("at"))
    };
    let along = (edge.end - edge.start).unit();
    let square = |one: &Segment| one.is_line() && (one.end - one.start).unit().dot(along).abs() < PARALLEL;
    if !edge.is_line() || !square(&before) || !square(&after) || turn(&before, &edge) < 0.0 || turn(&edge, &after) < 0.0
    {
        return fault("the edges beside it are not side by side and square to it".into());
    }
    let radius = edge.length() / 2.0;
    if radius > before.length() + MODELLING_TOLERANCE || radius > after.length() + MODELLING_TOLERANCE {
        return fault(format!(
            "a half circle of radius {} is deeper than the edges beside it",
            length_text(radius, unit)
        ));
    }
    let inward = along.left() * radius;
    let mut edges = outline.edges.clone();
    edges[at] = Edge { start: edge.start + inward, bulge: 1.0, tag };
    edges[(at + 1) % count].start = edge.end + inward;
    Ok(Outline { edges })
}
