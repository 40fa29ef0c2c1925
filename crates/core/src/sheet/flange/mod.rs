//! Flanges along straight edges: trim the parents to their tangent lines, lay strips and panels, then cut reliefs and
//! treat the corners, all of one operation together.

mod corners;
mod lay;
mod relief;
mod size;
mod spot;

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Outline, Tag, subtract};
use crate::quantity::LengthUnit;
use crate::quantity::tolerance::ROUNDING;
use crate::work::sheet::Direction;

use super::flat::{BendMake, BendSizes, Flat, TagKind};
use super::fold::{Folded, fold_at};
use super::numbers::{AngleNumbers, BendNumbers, CornerMake, CornerReliefNumbers, LegNumbers, ReliefNumbers};
use super::tree::grow;
use corners::Corner;
use lay::{check_free, lay_outward, touches_strip, trim_parent};
use spot::Spot;

pub(super) use lay::{EdgeFrame, Outward, straight_edge};
pub(super) use relief::take_from_panel;
pub(super) use size::{flat_width, tangent_position};

/// The part as it stands folded at this step.
///
/// # Errors
/// A part that does not fold.
pub(super) fn folded_now(flat: &Flat) -> Result<Folded, Finding> {
    let tree = grow(&flat.nodes).map_err(|fault| {
        Finding::error(format!("the part does not fold at this step: {fault}"), "Mend the operation before this one.")
    })?;
    Ok(fold_at(&flat.nodes, &tree, flat.thickness, 1.0, &flat.pose))
}

/// Bends one flange or several; returns notes.
pub(super) fn bend(
    flat: &mut Flat,
    name: &str,
    given: &BendNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let mut indexes = vec![straight_edge(flat, &given.edge)?];
    for (at, edge) in given.also.iter().enumerate() {
        let index = straight_edge(flat, edge).map_err(|fault| fault.at_field(format!("also.{at}")))?;
        if indexes.contains(&index) {
            return Err(
                Finding::error(format!("{edge} is named twice"), "Name each edge once.").at_field(format!("also.{at}"))
            );
        }
        indexes.push(index);
    }
    // A flange by its own numbers along one edge asks for nothing of the folded part, which need not be found then.
    let plain = matches!((&given.angle, &given.leg), (AngleNumbers::Bend(_), LegNumbers::Length(_)));
    let folded = if plain && indexes.len() == 1 { None } else { Some(folded_now(flat)?) };
    let mut spots = Vec::new();
    for (index, own) in indexes.iter().zip(spot::names(flat, name, &indexes)) {
        spots.push(settle(flat, folded.as_ref(), own, *index, given, indexes.len() == 1, unit)?);
    }
    let corners = folded.map(|folded| corners::find(flat, &folded, &spots)).unwrap_or_default();
    for corner in &corners {
        end_at_corner(&mut spots, corner, &given.corners);
    }
    for spot in &spots {
        if spot.span.1 - spot.span.0 <= MODELLING_TOLERANCE {
            return Err(Finding::error(
                format!("its corners leave nothing of a flange along {}", spot.edge.name),
                "Make the panel larger, the inside radius smaller, or bend fewer edges.",
            )
            .at_field("corners"));
        }
        check_free(flat, &spot.edge, spot.span.0, spot.span.1)?;
    }
    let relief_tag = flat.tag(format!("{name}.relief"), TagKind::Relief);
    let mut notes = Vec::new();
    let mut laid = Vec::new();
    for spot in &spots {
        laid.push(lay_flange(flat, spot, relief_tag, unit)?);
    }
    for (spot, &(_, bend)) in spots.iter().zip(&laid) {
        if !touches_strip(&flat.nodes[spot.parent].region, flat.strip_of(&flat.bends[bend])) {
            return Err(Finding::error(
                format!(
                    "the bend {} finds no material of {} along {}",
                    spot.name, flat.nodes[spot.parent].name, spot.edge.name
                ),
                "Set it in to where the panel still has material, or move the cut that took it away.",
            )
            .at_field("edge"));
        }
        if let Some(relief) = &given.relief {
            cut_reliefs(flat, spot, relief, relief_tag, &mut notes, unit)?;
        }
    }
    for &(_, bend) in &laid {
        corners::cut_corners(flat, bend, relief_tag, &mut notes, unit)?;
    }
    if !corners.is_empty() {
        meet_at_corners(flat, &spots, &laid, &corners, given, relief_tag)?;
    }
    for &(panel, _) in &laid {
        settle_edges(flat, panel);
    }
    Ok(notes)
}

/// A flange's numbers on one edge.
fn settle(
    flat: &Flat,
    folded: Option<&Folded>,
    name: String,
    edge_index: usize,
    given: &BendNumbers,
    alone: bool,
    unit: LengthUnit,
) -> Result<Spot, Finding> {
    let edge = flat.edges[edge_index].clone();
    let mut of_edge = given.clone();
    if let Some((angle, leg)) = given.own.get(&edge.name) {
        of_edge.angle = angle.clone().unwrap_or(of_edge.angle);
        of_edge.leg = leg.clone().unwrap_or(of_edge.leg);
    }
    let given = &of_edge;
    let frame = EdgeFrame::new(edge.line);
    let span = spot::span(&edge, &given.set_in, alone, unit)?;
    let place = folded.and_then(|folded| size::Stand::new(folded, edge.panel, &frame).map(|stand| (folded, stand)));
    let place = place.as_ref().map(|(folded, stand)| (*folded, stand));
    let angle = size::bend_angle(flat, place, given)?;
    let (width, rule) = flat_width(angle, given.radius, flat.thickness, &given.method, Some(given.leg_to), unit)?;
    let straight = size::straight_length(flat, place, &frame, angle, given, unit)?;
    let length = edge.line.length();
    Ok(Spot {
        name,
        edge_index,
        parent: edge.panel,
        span,
        past: (0.0, 0.0),
        is_full: (span.0 <= MODELLING_TOLERANCE, span.1 >= length - MODELLING_TOLERANCE),
        sizes: BendSizes {
            angle,
            radius: given.radius,
            direction: given.direction,
            width,
            rule,
            make: BendMake::Brake,
        },
        straight,
        tangent_at: tangent_position(given.position, angle, given.radius, flat.thickness),
        frame,
        edge,
    })
}

/// Ends two flanges' bends where their tangent lines cross; their panels stand out past it unless the corner is open.
fn end_at_corner(spots: &mut [Spot], corner: &Corner, make: &CornerMake) {
    let is_open = matches!(make, CornerMake::Open { .. });
    let sides = [(corner.first, corner.first_at_end), (corner.second, corner.second_at_end)];
    let reach: Vec<f64> = sides
        .iter()
        .map(|&(at, _)| {
            let spot = &spots[at];
            spot.straight + spot.sizes.width + 4.0 * (spot.sizes.radius + spot.sizes.width) + spot.tangent_at.abs()
        })
        .collect();
    // The sharper the corner, the further along the bend a mitre runs.
    let (one, two) = (&spots[corner.first], &spots[corner.second]);
    let sine = one.frame.along.cross(two.frame.along).abs().max(0.2);
    let past = reach[0].max(reach[1]) / sine;
    let meet = corners::tangents_meet((&one.frame, one.tangent_at), (&two.frame, two.tangent_at));
    for (at, at_end) in sides {
        let spot = &mut spots[at];
        if corner.shared && !corner.reflex {
            let Some(meet) = meet else { continue };
            let s = (meet - spot.frame.start).dot(spot.frame.along);
            if at_end {
                spot.span.1 = s;
            } else {
                spot.span.0 = s;
            }
        }
        if corner.shared && !is_open && !corner.reflex {
            if at_end {
                spot.past.1 = past;
            } else {
                spot.past.0 = past;
            }
        }
    }
}

/// Trims the parent and lays the strip and the panel; returns the panel and the bend.
fn lay_flange(flat: &mut Flat, spot: &Spot, relief_tag: Tag, unit: LengthUnit) -> Result<(usize, usize), Finding> {
    if spot.tangent_at < -MODELLING_TOLERANCE {
        let joint = flat.tag(format!("{}.joint", spot.name), TagKind::Joint);
        // At a corner the parent is trimmed to the edge's end: what lies past the neighbour's tangent goes with it.
        let length = spot.edge.line.length();
        let from = if spot.is_full.0 { 0.0 } else { spot.span.0 };
        let to = if spot.is_full.1 { length } else { spot.span.1 };
        trim_parent(flat, &spot.name, spot.parent, &spot.frame, (from, to), spot.tangent_at, joint, relief_tag, unit)?;
    }
    let bend = flat.bends.len();
    let pieces = [
        Outward::Curl { name: spot.name.clone(), sizes: spot.sizes.clone() },
        Outward::Flat { name: spot.name.clone(), length: spot.straight, past: spot.past },
    ];
    let nodes = lay_outward(flat, spot.edge_index, spot.span, spot.tangent_at, &pieces);
    Ok((nodes[1], bend))
}

fn cut_reliefs(
    flat: &mut Flat,
    spot: &Spot,
    relief: &ReliefNumbers,
    tag: Tag,
    notes: &mut Vec<Finding>,
    unit: LengthUnit,
) -> Result<(), Finding> {
    for (at, outward) in [(spot.span.0, -1.0), (spot.span.1, 1.0)] {
        relief::cut_relief(flat, spot.parent, &spot.frame, at, outward, spot.tangent_at, relief, tag, notes, unit)?;
    }
    Ok(())
}

/// Reliefs and trims along an edge, for other operations that bend there.
#[allow(clippy::too_many_arguments)]
pub(super) fn lay_along(
    flat: &mut Flat,
    name: &str,
    edge_index: usize,
    set_in: &std::collections::BTreeMap<String, f64>,
    tangent_at: f64,
    relief: Option<&ReliefNumbers>,
    pieces: &[Outward],
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let edge = flat.edges[edge_index].clone();
    let frame = EdgeFrame::new(edge.line);
    let span = spot::span(&edge, set_in, true, unit)?;
    check_free(flat, &edge, span.0, span.1)?;
    let relief_tag = flat.tag(format!("{name}.relief"), TagKind::Relief);
    if tangent_at < -MODELLING_TOLERANCE {
        let joint = flat.tag(format!("{name}.joint"), TagKind::Joint);
        trim_parent(flat, name, edge.panel, &frame, span, tangent_at, joint, relief_tag, unit)?;
    }
    let bend = flat.bends.len();
    lay_outward(flat, edge_index, span, tangent_at, pieces);
    if !touches_strip(&flat.nodes[edge.panel].region, flat.strip_of(&flat.bends[bend])) {
        return Err(Finding::error(
            format!("{name} finds no material of {} along {}", flat.nodes[edge.panel].name, edge.name),
            "Set it in to where the panel still has material, or move the cut that took it away.",
        )
        .at_field("edge"));
    }
    let mut notes = Vec::new();
    if let Some(relief) = relief {
        for (at, outward) in [(span.0, -1.0), (span.1, 1.0)] {
            relief::cut_relief(
                flat, edge.panel, &frame, at, outward, tangent_at, relief, relief_tag, &mut notes, unit,
            )?;
        }
    }
    corners::cut_corners(flat, bend, relief_tag, &mut notes, unit)?;
    Ok(notes)
}

/// Trims the flanges of one operation where they meet, and cuts the corners' reliefs.
fn meet_at_corners(
    flat: &mut Flat,
    spots: &[Spot],
    laid: &[(usize, usize)],
    all: &[Corner],
    given: &BendNumbers,
    relief_tag: Tag,
) -> Result<(), Finding> {
    let folded = folded_now(flat)?;
    for corner in all {
        let sides = [(corner.first, corner.first_at_end), (corner.second, corner.second_at_end)];
        let side_tag = |flat: &Flat, (at, at_end): (usize, bool)| {
            let spot = &spots[at];
            let name = format!("{}.{}", spot.name, spot.edge.sides[usize::from(at_end)]);
            flat.edges.iter().find(|edge| edge.name == name).map_or(relief_tag, |edge| edge.tag)
        };
        if corner.reflex {
            part_in_flat(flat, spots, laid, corner, &given.corners, relief_tag)?;
            continue;
        }
        let from_corner = |(at, at_end): (usize, bool)| {
            let spot = &spots[at];
            let s = if at_end { spot.span.1 } else { spot.span.0 };
            let place = spot.frame.place(s, spot.tangent_at + spot.sizes.width);
            (laid[at].0, place, if at_end { -spot.frame.along } else { spot.frame.along })
        };
        let (gap, square) = match &given.corners {
            CornerMake::Open { .. } => (0.0, true),
            CornerMake::Closed { gap, .. } => (*gap, true),
            CornerMake::Mitred { gap, .. } | CornerMake::Overlapped { gap, .. } => (*gap, false),
        };
        let up = given.direction == Direction::Up;
        let both = [0.0, flat.thickness];
        let inside = [if up { flat.thickness } else { 0.0 }];
        // The one that covers the other's end is held by its inside face alone: that is the face that covers.
        let over = match &given.corners {
            CornerMake::Overlapped { .. } if corner.shared => Some(corner.first.min(corner.second)),
            _ => None,
        };
        let halves = match &given.corners {
            CornerMake::Overlapped { gap, .. } if corner.shared => {
                let over = corner.first.min(corner.second);
                let (over_panel, under_panel) = (laid[over].0, laid[corner.first + corner.second - over].0);
                // Inside faces look at each other: upper faces of flanges bent up.
                let toward = if up { 1.0 } else { -1.0 };
                let past = corners::cover(&folded, over_panel, under_panel, up, *gap);
                let runs_to = corners::before_face(flat, &folded, under_panel, !up, toward, -past);
                let stops_at = corners::before_face(flat, &folded, over_panel, up, toward, *gap);
                match (corner.first == over, runs_to.zip(stops_at)) {
                    (true, pair) => pair,
                    (false, pair) => pair.map(|(a, b)| (b, a)),
                }
            }
            _ => corners::bisector(flat, &folded, from_corner(sides[0]), from_corner(sides[1]), gap),
        };
        if let Some((one, two)) = halves {
            for (side, half) in sides.into_iter().zip([one, two]) {
                let tag = side_tag(flat, side);
                let spot = &spots[side.0];
                let way = (square).then_some((&spot.frame, side.1));
                let faces = if over == Some(side.0) { &inside[..] } else { &both[..] };
                corners::keep_panel(flat, &folded, laid[side.0].0, half, way, faces, tag)?;
                // Where the bends share no panel nothing else ends them; of walls that lean in they may reach past it.
                if !corner.shared || spot.sizes.angle > std::f64::consts::FRAC_PI_2 + ROUNDING {
                    let strip = flat.bends[laid[side.0].1].strip;
                    corners::keep_strip(flat, &folded, strip, half, relief_tag)?;
                }
            }
        }
        let relief = given.corners.relief();
        if let (true, Some(relief)) = (corner.shared, relief) {
            let (one, two) = (&spots[corner.first], &spots[corner.second]);
            let meet = corners::tangents_meet((&one.frame, one.tangent_at), (&two.frame, two.tangent_at));
            if let Some(meet) = meet {
                let cutter = match relief {
                    CornerReliefNumbers::Round(diameter) => Outline::circle(meet, diameter / 2.0, relief_tag),
                    CornerReliefNumbers::Square(side) => {
                        Outline::rounded_rectangle(meet, one.frame.along, side, side, 0.0, relief_tag)
                    }
                };
                let mut nodes = vec![one.parent];
                for side in sides {
                    nodes.extend([laid[side.0].0, flat.bends[laid[side.0].1].strip]);
                }
                cut_from(flat, &nodes, &cutter)?;
            }
        }
    }
    Ok(())
}

/// Takes a corner relief out of each node that it meets.
fn cut_from(flat: &mut Flat, nodes: &[usize], cutter: &Outline) -> Result<(), Finding> {
    for &node in nodes {
        if !flat.nodes[node].region.extents().is_near(&cutter.extents(), 0.0) {
            continue;
        }
        let mut near = flat.node_near(node, cutter);
        let mut pieces = subtract(&flat.nodes[node].region, cutter).into_iter();
        let Some(kept) = pieces.next() else {
            return Err(Finding::error(
                format!("the corner relief would take all of {}", flat.nodes[node].name),
                "Make the relief smaller.",
            )
            .at_field("corners"));
        };
        flat.nodes[node].region = Arc::new(kept);
        near.dropped = pieces.collect();
        flat.record_cut("corner relief", cutter, vec![near]);
    }
    Ok(())
}

/// At an inward corner of the parent two flanges would lie over each other in the flat: both end on the line that
/// bisects the corner there.
fn part_in_flat(
    flat: &mut Flat,
    spots: &[Spot],
    laid: &[(usize, usize)],
    corner: &Corner,
    make: &CornerMake,
    tag: Tag,
) -> Result<(), Finding> {
    let (one, two) = (&spots[corner.first], &spots[corner.second]);
    let Some(at) = corners::tangents_meet((&one.frame, one.tangent_at), (&two.frame, two.tangent_at)) else {
        return Ok(());
    };
    let half_gap = make.gap() / 2.0;
    let inward = (two.frame.along + one.frame.along).unit();
    // The first flange lies behind the bisecting line, the second beyond it.
    for (spot, which, toward) in [(one, corner.first, -inward), (two, corner.second, inward)] {
        let level = (at - crate::plane::Point::default()).dot(toward) + half_gap;
        for node in [flat.bends[laid[which].1].strip, laid[which].0] {
            let kept = corners::keep_flat(&flat.nodes[node].region, toward, level, tag).ok_or_else(|| {
                Finding::error(
                    format!("the inward corner leaves nothing of the flange along {}", spot.edge.name),
                    "Set it in, or make its leg shorter.",
                )
                .at_field("corners")
            })?;
            flat.nodes[node].region = Arc::new(kept);
        }
    }
    Ok(())
}

/// Brings the records of a panel's edges onto what is left of them, and its box onto its outline: what is placed from
/// them later sees the flange as it is.
pub(super) fn settle_edges(flat: &mut Flat, panel: usize) {
    flat.nodes[panel].laid = flat.nodes[panel].region.extents();
    for at in 0..flat.edges.len() {
        if flat.edges[at].panel != panel {
            continue;
        }
        let longest = flat
            .segments_of(panel, flat.edges[at].tag)
            .into_iter()
            .max_by(|one, two| one.length().total_cmp(&two.length()));
        if let Some(line) = longest.filter(|line| line.is_line() && line.length() > MODELLING_TOLERANCE) {
            flat.edges[at].line = line;
        }
    }
}
