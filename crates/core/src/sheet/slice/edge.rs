//! Notches on a straight edge.

use crate::finding::Finding;
use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Segment};
use crate::quantity::{Expr, LengthUnit, length_text};
use crate::sheet::corner::{fillet, turn};
use crate::sheet::flange::{EdgeFrame, straight_edge, take_from_panel};
use crate::sheet::flat::{Flat, TagKind};
use crate::sheet::reader::Reader;
use crate::work::sheet::{NotchAction, NotchShape, NotchSizes};

/// Notches in numbers, mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct NotchNumbers {
    pub edge: String,
    pub size: NotchSize,
    /// From the edge's start to the middle of the first; the edge's middle for `None`.
    pub at: Option<f64>,
    pub count: usize,
    pub spacing: f64,
}

/// A notch's shape in numbers, mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum NotchSize {
    /// Along the edge, into the panel; radius of its inner corners, 0 where they are sharp.
    Square(f64, f64, f64),
    /// Along the edge, into the panel; radius of its tip.
    Vee(f64, f64, f64),
    /// Radius.
    Round(f64),
}

impl NotchSize {
    fn half_width(self) -> f64 {
        match self {
            NotchSize::Square(width, ..) | NotchSize::Vee(width, ..) => width / 2.0,
            NotchSize::Round(radius) => radius,
        }
    }
}

/// Reads notches. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_notch(reader: &mut Reader<'_>, given: &NotchAction) -> Option<NotchNumbers> {
    let size = match &given.shape {
        NotchShape::Square(sizes) => {
            let width = reader.size("shape.square.width", &sizes.width, "a notch's width");
            let depth = reader.size("shape.square.depth", &sizes.depth, "a notch's depth");
            let round = corner(reader, "shape.square.corner", sizes);
            width.zip(depth).zip(round).map(|((width, depth), round)| NotchSize::Square(width, depth, round))
        }
        NotchShape::Vee(sizes) => {
            let width = reader.size("shape.vee.width", &sizes.width, "a notch's width");
            let depth = reader.size("shape.vee.depth", &sizes.depth, "a notch's depth");
            let round = corner(reader, "shape.vee.corner", sizes);
            width.zip(depth).zip(round).map(|((width, depth), round)| NotchSize::Vee(width, depth, round))
        }
        NotchShape::Round(text) => reader.size("shape.round", text, "a notch's radius").map(NotchSize::Round),
    };
    let (at, count, spacing) = read_row(reader, &given.at, &given.count, &given.spacing)?;
    Some(NotchNumbers { edge: given.edge.to_string(), size: size?, at, count, spacing })
}

fn corner(reader: &mut Reader<'_>, field: &str, sizes: &NotchSizes) -> Option<f64> {
    match &sizes.corner {
        Some(text) => reader.zero_or_more(field, text, "a radius of a notch's corners"),
        None => Some(0.0),
    }
}

/// Where a row along an edge begins, how many, how far apart.
pub(super) fn read_row(
    reader: &mut Reader<'_>,
    at: &Option<Expr>,
    count: &Option<Expr>,
    spacing: &Option<Expr>,
) -> Option<(Option<f64>, usize, f64)> {
    let at = match at {
        Some(text) => Some(reader.zero_or_more("at", text, "a distance along the edge")?),
        None => None,
    };
    let count = match count {
        Some(text) => reader.count("count", text)?,
        None => 1,
    };
    let spacing = match spacing {
        Some(text) => reader.size("spacing", text, "a spacing")?,
        None if count > 1 && at.is_some() => {
            reader.refuse(
                "spacing",
                format!("a row of {count} along an edge has no spacing"),
                "Give it, centre to centre.",
            );
            return None;
        }
        None => 0.0,
    };
    Some((at, count, spacing))
}

/// Middles of a row along an edge of this length: from `at`, or centred; spread evenly where no spacing is given.
pub(super) fn row_places(length: f64, at: Option<f64>, count: usize, spacing: f64) -> Vec<f64> {
    let step = if spacing > 0.0 { spacing } else { length / count as f64 };
    let first = at.unwrap_or((length - step * (count - 1) as f64) / 2.0);
    (0..count).map(|one| first + step * one as f64).collect()
}

/// Refuses a row that runs off its edge or into itself.
pub(super) fn check_row(places: &[f64], half: f64, length: f64, edge: &str, unit: LengthUnit) -> Result<(), Finding> {
    let show = |value: f64| length_text(value, unit);
    if let Some(&off) =
        places.iter().find(|&&s| s - half < -MODELLING_TOLERANCE || s + half > length + MODELLING_TOLERANCE)
    {
        return Err(Finding::error(
            format!(
                "one at {} and {} wide runs out over {edge}, which is {} long",
                show(off),
                show(2.0 * half),
                show(length)
            ),
            "Move it, or make it narrower.",
        )
        .at_field("at"));
    }
    if let Some(pair) = places.windows(2).find(|pair| pair[1] - pair[0] < 2.0 * half + MODELLING_TOLERANCE) {
        return Err(Finding::error(
            format!("{} apart and {} wide, they run into each other", show(pair[1] - pair[0]), show(2.0 * half)),
            "Space them further.",
        )
        .at_field("spacing"));
    }
    Ok(())
}

/// How far a cutter stands out past the edge, mm.
const RUN_OUT: f64 = 1.0;

/// A notch's outline with its inner corners rounded. `None` where the round does not fit within its sides and its floor.
fn rounded(sharp: Vec<Edge>, radius: f64, frame: &EdgeFrame) -> Option<Vec<Edge>> {
    let mut edges = sharp;
    let mut at = edges.len();
    while at > 0 {
        at -= 1;
        let count = edges.len();
        let depth = |point: Point| (point - frame.start).dot(frame.outward);
        let corner = edges[at].start;
        if depth(corner) > -MODELLING_TOLERANCE {
            continue;
        }
        let segments: Vec<Segment> = Outline { edges: edges.clone() }.segments().map(|(one, _)| one).collect();
        let (before, here) = (segments[(at + count - 1) % count], segments[at]);
        let (from, to, bulge) = fillet(&before, &here, radius, turn(&before, &here))?;
        // Past the edge there is nothing to round.
        if depth(from).max(depth(to)) > MODELLING_TOLERANCE {
            return None;
        }
        let tag = edges[at].tag;
        edges.splice(at..=at, [Edge { start: from, bulge, tag }, Edge { start: to, bulge: edges[at].bulge, tag }]);
    }
    Some(edges)
}

/// Notches an edge.
pub(in crate::sheet) fn notch(
    flat: &mut Flat,
    name: &str,
    given: &NotchNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let index = straight_edge(flat, &given.edge)?;
    let edge = flat.edges[index].clone();
    if flat.segments_of(edge.panel, edge.tag).is_empty() {
        return Err(Finding::error(format!("{} is no longer an edge", edge.name), "Notch an edge that is left.")
            .at_field("edge"));
    }
    let frame = EdgeFrame::new(edge.line);
    let places = row_places(edge.line.length(), given.at, given.count, given.spacing);
    check_row(&places, given.size.half_width(), edge.line.length(), &edge.name, unit)?;
    let tag = flat.tag(name, TagKind::Relief);
    let mut notes = Vec::new();
    for s in places {
        let corner = |ds: f64, v: f64, bulge: f64| Edge { start: frame.place(s + ds, v), bulge, tag };
        let sharp = match given.size {
            NotchSize::Square(width, depth, _) => {
                let half = width / 2.0;
                vec![
                    corner(-half, -depth, 0.0),
                    corner(-half, RUN_OUT, 0.0),
                    corner(half, RUN_OUT, 0.0),
                    corner(half, -depth, 0.0),
                ]
            }
            NotchSize::Vee(width, depth, _) => {
                // The sides go on past the edge in their own line, so that the notch is as wide as said on the edge.
                let out = width / 2.0 * (depth + RUN_OUT) / depth;
                vec![corner(0.0, -depth, 0.0), corner(-out, RUN_OUT, 0.0), corner(out, RUN_OUT, 0.0)]
            }
            NotchSize::Round(radius) => {
                vec![
                    corner(-radius, 0.0, 0.0),
                    corner(-radius, RUN_OUT, 0.0),
                    corner(radius, RUN_OUT, 0.0),
                    corner(radius, 0.0, 1.0),
                ]
            }
        };
        let edges = match given.size {
            NotchSize::Square(_, _, round) | NotchSize::Vee(_, _, round) if round > MODELLING_TOLERANCE => {
                rounded(sharp, round, &frame).ok_or_else(|| {
                    Finding::error(
                        format!("a radius of {} does not fit the corners of the notch", length_text(round, unit)),
                        "Make it smaller: the round ends within the notch's sides and its floor.",
                    )
                    .at_field("shape")
                })?
            }
            _ => sharp,
        };
        take_from_panel(flat, edge.panel, &Outline { edges }, &mut notes, unit, "notch")
            .map_err(|fault| fault.at_field("shape"))?;
    }
    Ok(notes)
}
