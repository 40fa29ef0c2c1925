//! A flange along a straight edge: trim the parent to the tangent line, lay the strip, lay the panel, then cut reliefs
//! and the corners that two flanges leave over.

use crate::finding::Finding;
use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Region, Segment, Tag, outline_distance, subtract};
use crate::quantity::{LengthUnit, length_text};

use super::bending::{self, AllowanceRule};
use super::flat::{Bend, EdgeRecord, Flat, Node, NodeKind, Strip, TagKind};
use super::params::{BendPosition, LegTo, ReliefShape};
use super::read::{BendNumbers, MethodNumbers, ReliefNumbers};

/// How far a cutter stands out past an edge, so that the cut runs clean off the panel, mm.
const RUN_OUT: f64 = 1.0;

/// Bends a flange; returns notes.
pub(super) fn bend(
    flat: &mut Flat,
    name: &str,
    given: &BendNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let show = |value: f64| length_text(value, unit);
    let edge_index = find_edge(flat, &given.edge)?;
    let edge = flat.edges[edge_index].clone();
    if !edge.line.is_line() {
        return Err(Finding::error(
            format!("{} is round: a flange is bent along a straight edge", edge.name),
            "Pick a straight edge; a round flange is rolled or spun, not bent.",
        )
        .at_field("edge"));
    }
    let (from, to) = span(&edge, given, unit)?;
    check_free(flat, &edge, from, to)?;

    let thickness = flat.thickness;
    let (width, rule) = flat_width(given, thickness, unit)?;
    let setback = leg_setback(given, thickness);
    let straight = given.leg - setback;
    if straight <= MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!("a leg of {} leaves no flat: this bend takes {} of it", show(given.leg), show(setback)),
            format!("Make the leg longer than {}, or the inside radius smaller.", show(setback)),
        )
        .at_field("leg"));
    }
    let tangent_at = tangent_position(given, thickness);
    let frame = EdgeFrame::new(edge.line);
    let parent = edge.panel;

    let joint = flat.tag(format!("{name}.joint"), TagKind::Joint);
    let relief_tag = flat.tag(format!("{name}.relief"), TagKind::Relief);
    let mut notes = Vec::new();
    if tangent_at < -MODELLING_TOLERANCE {
        trim_parent(flat, name, parent, &frame, (from, to), tangent_at, joint, relief_tag, unit)?;
    }

    let strip = Strip {
        origin: frame.place(from, tangent_at),
        along: frame.along,
        across: frame.outward,
        length: to - from,
        width,
        angle: given.angle,
        radius: given.radius,
        direction: given.direction,
    };
    let bend_index = flat.bends.len();
    lay_strip_and_panel(flat, name, &edge, &strip, straight, joint);
    flat.bends.push(Bend {
        name: name.to_string(),
        strip: flat.nodes.len() - 2,
        parent,
        flange: flat.nodes.len() - 1,
        edge: edge_index,
        tangent_at,
        leg: (given.leg, given.leg_to),
        rule,
    });
    flat.edges[edge_index].bends.push(bend_index);

    if !touches_strip(&flat.nodes[parent].region, &strip) {
        return Err(Finding::error(
            format!("the bend {name} finds no material of {} along {}", flat.nodes[parent].name, edge.name),
            "Set it in to where the panel still has material, or move the cut that took it away.",
        )
        .at_field("edge"));
    }
    if let Some(relief) = &given.relief {
        for (at, outward) in [(from, -1.0), (to, 1.0)] {
            cut_relief(flat, parent, &frame, at, outward, tangent_at, relief, relief_tag, &mut notes, unit)?;
        }
    }
    cut_corners(flat, bend_index, relief_tag, &mut notes, unit)?;
    Ok(notes)
}

/// The frame of an edge: s along it, v outward from it.
struct EdgeFrame {
    start: Point,
    along: crate::plane::Vector,
    outward: crate::plane::Vector,
}

impl EdgeFrame {
    fn new(line: Segment) -> Self {
        let along = (line.end - line.start).unit();
        EdgeFrame { start: line.start, along, outward: along.right() }
    }

    fn place(&self, s: f64, v: f64) -> Point {
        self.start + self.along * s + self.outward * v
    }

    /// A rectangle from s0 to s1 and v0 to v1 (v0 < v1): tags for the side at v0, and for the others.
    fn rectangle(&self, s: (f64, f64), v: (f64, f64), inner: Tag, other: Tag) -> Outline {
        // Counter-clockwise: (along, outward) is a left-handed frame.
        Outline::polygon(&[
            (self.place(s.0, v.0), other),
            (self.place(s.0, v.1), other),
            (self.place(s.1, v.1), other),
            (self.place(s.1, v.0), inner),
        ])
    }
}

fn find_edge(flat: &Flat, name: &str) -> Result<usize, Finding> {
    flat.edges.iter().position(|edge| edge.name == name).ok_or_else(|| {
        let mut known: Vec<&str> =
            flat.edges.iter().filter(|edge| edge.bends.is_empty()).map(|edge| edge.name.as_str()).collect();
        known.sort_unstable();
        let way_out = if known.is_empty() {
            "Lay down a base panel first.".to_string()
        } else {
            format!("The edges at this step are {}.", known.join(", "))
        };
        Finding::error(format!("there is no edge called {name} at this step"), way_out).at_field("edge")
    })
}

/// From where to where along the edge the flange runs, mm.
fn span(edge: &EdgeRecord, given: &BendNumbers, unit: LengthUnit) -> Result<(f64, f64), Finding> {
    let length = edge.line.length();
    let mut ends = [0.0, 0.0];
    for (side, by) in &given.set_in {
        let Some(at) = edge.sides.iter().position(|known| known == side) else {
            return Err(Finding::error(
                format!("{} has no end called {side}", edge.name),
                format!("Its ends are {} and {}.", edge.sides[0], edge.sides[1]),
            )
            .at_field(format!("set_in.{side}")));
        };
        ends[at] = *by;
    }
    let (from, to) = (ends[0], length - ends[1]);
    if to - from <= MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!(
                "set-ins of {} and {} leave nothing of {}, which is {} long",
                length_text(ends[0], unit),
                length_text(ends[1], unit),
                edge.name,
                length_text(length, unit)
            ),
            "Make the set-ins smaller.",
        )
        .at_field("set_in"));
    }
    Ok((from, to))
}

/// Refuses a bend over a stretch that another bend has.
fn check_free(flat: &Flat, edge: &EdgeRecord, from: f64, to: f64) -> Result<(), Finding> {
    let frame = EdgeFrame::new(edge.line);
    for &other in &edge.bends {
        let bend = &flat.bends[other];
        let strip = flat.strip_of(bend);
        let start = (strip.origin - frame.start).dot(frame.along);
        if start < to - MODELLING_TOLERANCE && from + MODELLING_TOLERANCE < start + strip.length {
            return Err(Finding::error(
                format!("{} is already bent there by {}", edge.name, bend.name),
                "Set both in so that they stand side by side, or bend another edge.",
            )
            .at_field("edge"));
        }
    }
    Ok(())
}

/// Flat width of the bend and how it was found.
fn flat_width(given: &BendNumbers, thickness: f64, unit: LengthUnit) -> Result<(f64, AllowanceRule), Finding> {
    let (angle, radius) = (given.angle, given.radius);
    let (width, rule, field) = match &given.method {
        MethodNumbers::KFactor { k, source } => (
            bending::allowance(angle, radius, *k, thickness),
            AllowanceRule::KFactor { k: *k, source: source.clone() },
            "method.k_factor",
        ),
        MethodNumbers::Allowance(allowance) => (*allowance, AllowanceRule::Allowance, "method.allowance"),
        MethodNumbers::Deduction(deduction) => {
            // A deduction is counted from outside legs, whichever way this leg was typed.
            let setback = if given.leg_to == LegTo::Mould {
                bending::mould_setback(angle, radius, thickness)
            } else {
                bending::outside_setback(angle, radius, thickness)
            };
            let rule = AllowanceRule::Deduction { deduction: *deduction, setback };
            (2.0 * setback - deduction, rule, "method.deduction")
        }
        MethodNumbers::Din6935 => {
            (bending::din_6935_allowance(angle, radius, thickness), AllowanceRule::Din6935, "method")
        }
    };
    let most = angle * (radius + thickness);
    if width <= MODELLING_TOLERANCE || width > most + MODELLING_TOLERANCE {
        let show = |value: f64| length_text(value, unit);
        return Err(Finding::error(
            format!(
                "the bend comes to {} of flat; the metal of this bend is between {} (inside) and {} (outside) long",
                show(width),
                show(angle * radius),
                show(most)
            ),
            "Check the allowance, deduction or K-factor against the angle and the radius.",
        )
        .at_field(field));
    }
    Ok((width, rule))
}

/// From the tangent line to where this leg is measured from, mm.
fn leg_setback(given: &BendNumbers, thickness: f64) -> f64 {
    match given.leg_to {
        LegTo::Outside => bending::outside_setback(given.angle, given.radius, thickness),
        LegTo::Inside => bending::inside_setback(given.angle, given.radius),
        LegTo::Mould => bending::mould_setback(given.angle, given.radius, thickness),
        LegTo::Tangent => 0.0,
    }
}

/// Where the parent's tangent line lies, outward from the edge, mm.
fn tangent_position(given: &BendNumbers, thickness: f64) -> f64 {
    match given.position {
        BendPosition::MaterialInside => -bending::outside_setback(given.angle, given.radius, thickness),
        BendPosition::MaterialOutside => -bending::inside_setback(given.angle, given.radius),
        BendPosition::BendOutside => 0.0,
    }
}

#[allow(clippy::too_many_arguments)]
fn trim_parent(
    flat: &mut Flat,
    name: &str,
    parent: usize,
    frame: &EdgeFrame,
    (from, to): (f64, f64),
    tangent_at: f64,
    joint: Tag,
    relief: Tag,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let region = &flat.nodes[parent].region;
    // At a full end the cut runs off the side, unless the panel widens there and has material to lose.
    let clear = |s: f64| !region.outer.contains(frame.place(s, tangent_at / 2.0));
    let low = if clear(from - RUN_OUT / 2.0) { from - RUN_OUT } else { from };
    let high = if clear(to + RUN_OUT / 2.0) { to + RUN_OUT } else { to };
    let cutter = frame.rectangle((low, high), (tangent_at, RUN_OUT), joint, relief);
    let parent_name = flat.nodes[parent].name.clone();
    for hole in flat.holes.iter().filter(|hole| hole.panel == parent) {
        let outline =
            flat.nodes[parent].region.holes.iter().find(|one| one.edges.first().is_some_and(|e| e.tag == hole.tag));
        let Some(outline) = outline else { continue };
        if outline.extents().is_near(&cutter.extents(), 0.0)
            && (outline_distance(outline, &cutter) < MODELLING_TOLERANCE || cutter.contains(hole.centre))
        {
            return Err(Finding::error(
                format!("the bend {name} would run over the hole {}", hole.name),
                "Move the hole away from the edge, or bend outside the edge.",
            )
            .at_field("edge"));
        }
    }
    let mut pieces = subtract(&flat.nodes[parent].region, &cutter);
    if pieces.len() != 1 {
        return Err(Finding::error(
            format!(
                "the bend {name} takes {} off {parent_name}, which leaves {} of it",
                length_text(-tangent_at, unit),
                if pieces.is_empty() { "nothing".to_string() } else { format!("{} loose pieces", pieces.len()) }
            ),
            "Make the panel larger or the inside radius smaller, or place the bend outside the edge.",
        )
        .at_field("position"));
    }
    flat.nodes[parent].region = pieces.remove(0);
    Ok(())
}

fn lay_strip_and_panel(flat: &mut Flat, name: &str, edge: &EdgeRecord, strip: &Strip, straight: f64, joint: Tag) {
    let [start_side, end_side] = &edge.sides;
    let (u, w, far) = (strip.length, strip.width, strip.width + straight);
    let bend_start = flat.tag(format!("{name}.bend.{start_side}"), TagKind::BendEnd);
    let bend_end = flat.tag(format!("{name}.bend.{end_side}"), TagKind::BendEnd);
    let corner = |u: f64, v: f64, tag: Tag| (strip.place(u, v), tag);
    let region = Region::solid(Outline::polygon(&[
        corner(0.0, 0.0, bend_start),
        corner(0.0, w, joint),
        corner(u, w, bend_end),
        corner(u, 0.0, joint),
    ]));
    let laid = region.extents();
    flat.nodes.push(Node { name: name.to_string(), kind: NodeKind::Strip(strip.clone()), region, laid });

    let panel = flat.nodes.len();
    let near_far = || ["near".to_string(), "far".to_string()];
    let far_near = || ["far".to_string(), "near".to_string()];
    let sides = [
        (start_side.clone(), (0.0, w), (0.0, far), near_far()),
        ("end".to_string(), (0.0, far), (u, far), [start_side.clone(), end_side.clone()]),
        (end_side.clone(), (u, far), (u, w), far_near()),
    ];
    let mut corners = Vec::new();
    for (side, from, to, ends) in sides {
        let full = format!("{name}.{side}");
        let tag = flat.tag(full.clone(), TagKind::Edge);
        let line = Segment::line(strip.place(from.0, from.1), strip.place(to.0, to.1));
        corners.push((line.start, tag));
        flat.edges.push(EdgeRecord { name: full, tag, panel, line, sides: ends, bends: Vec::new() });
    }
    corners.push((strip.place(u, w), joint));
    let region = Region::solid(Outline::polygon(&corners));
    let laid = region.extents();
    flat.nodes.push(Node { name: name.to_string(), kind: NodeKind::Panel, region, laid });
}

/// Whether a region has an edge along a strip's first tangent line.
fn touches_strip(region: &Region, strip: &Strip) -> bool {
    let near = 10.0 * MODELLING_TOLERANCE;
    region.outer.segments().any(|(segment, _)| {
        let (a, b) = (strip.local(segment.start), strip.local(segment.end));
        segment.is_line()
            && a.1.abs() < near
            && b.1.abs() < near
            && a.0.max(b.0) > near
            && a.0.min(b.0) < strip.length - near
    })
}

#[allow(clippy::too_many_arguments)]
fn cut_relief(
    flat: &mut Flat,
    parent: usize,
    frame: &EdgeFrame,
    at: f64,
    outward: f64,
    tangent_at: f64,
    relief: &ReliefNumbers,
    tag: Tag,
    notes: &mut Vec<Finding>,
    unit: LengthUnit,
) -> Result<(), Finding> {
    // A hair past the end and a hair inside the tangent line: is there material that the bend would tear?
    let probe = frame.place(at + outward * 1e-3, tangent_at - 1e-3);
    if !flat.nodes[parent].region.contains(probe) {
        return Ok(());
    }
    let bottom = tangent_at - relief.depth;
    let (low, high) = if outward < 0.0 { (at - relief.width, at) } else { (at, at + relief.width) };
    let mut cutter = frame.rectangle((low, high), (bottom, RUN_OUT), tag, tag);
    if relief.shape == ReliefShape::Obround && relief.depth > 0.0 {
        let half = relief.width / 2.0;
        let shoulder = bottom + half.min(relief.depth);
        // The bottom edge becomes a half circle (a flatter arc where the relief is shallower than half its width).
        let sagitta = shoulder - bottom;
        let corners = [
            frame.place(low, shoulder),
            frame.place(low, RUN_OUT),
            frame.place(high, RUN_OUT),
            frame.place(high, shoulder),
        ];
        cutter = Outline { edges: corners.iter().map(|&start| Edge { start, bulge: 0.0, tag }).collect() };
        cutter.edges[3].bulge = sagitta / half;
    }
    take_from_panel(flat, parent, &cutter, notes, unit, "relief")
}

/// Where two flanges meet at a corner, what lies outside both tangent lines belongs to neither: it is cut away.
fn cut_corners(
    flat: &mut Flat,
    bend_index: usize,
    tag: Tag,
    notes: &mut Vec<Finding>,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let bend = flat.bends[bend_index].clone();
    let edge = flat.edges[bend.edge].clone();
    let line_at = |edge: &EdgeRecord, v: f64| {
        let frame = EdgeFrame::new(edge.line);
        (frame.place(0.0, v), frame.along)
    };
    let neighbours: Vec<(EdgeRecord, f64)> = flat
        .edges
        .iter()
        .filter(|other| other.panel == edge.panel && !other.bends.is_empty() && other.name != edge.name)
        .filter(|other| {
            other.line.end.distance(edge.line.start) < MODELLING_TOLERANCE
                || other.line.start.distance(edge.line.end) < MODELLING_TOLERANCE
        })
        .filter_map(|other| {
            let deepest = other.bends.iter().map(|&one| flat.bends[one].tangent_at).reduce(f64::min)?;
            Some((other.clone(), deepest))
        })
        .collect();
    for (other, other_tangent) in neighbours {
        if bend.tangent_at > -MODELLING_TOLERANCE || other_tangent > -MODELLING_TOLERANCE {
            continue;
        }
        let out = RUN_OUT;
        let meets = |v1: f64, v2: f64| meet(line_at(&edge, v1), line_at(&other, v2));
        let corners = [
            meets(bend.tangent_at, other_tangent),
            meets(bend.tangent_at, out),
            meets(out, out),
            meets(out, other_tangent),
        ];
        let [Some(a), Some(b), Some(c), Some(d)] = corners else { continue };
        let cutter = Outline::polygon(&[(a, tag), (b, tag), (c, tag), (d, tag)]).counter_clockwise();
        take_from_panel(flat, edge.panel, &cutter, notes, unit, "corner cut")?;
    }
    Ok(())
}

fn meet(one: (Point, crate::plane::Vector), two: (Point, crate::plane::Vector)) -> Option<Point> {
    let turn = one.1.cross(two.1);
    if turn.abs() < 1e-9 {
        return None;
    }
    Some(one.0 + one.1 * ((two.0 - one.0).cross(two.1) / turn))
}

/// Cuts a panel and lets scraps that hang on nothing fall; refuses when a scrap carries a bend or a hole.
fn take_from_panel(
    flat: &mut Flat,
    panel: usize,
    cutter: &Outline,
    notes: &mut Vec<Finding>,
    unit: LengthUnit,
    what: &str,
) -> Result<(), Finding> {
    let name = flat.nodes[panel].name.clone();
    if flat.nodes[panel].region.holes.iter().any(|hole| {
        hole.extents().is_near(&cutter.extents(), 0.0)
            && (outline_distance(hole, cutter) < MODELLING_TOLERANCE || cutter.contains(hole.edges[0].start))
    }) {
        return Err(Finding::error(
            format!("the {what} would run into a hole of {name}"),
            "Move the hole, or make the relief smaller.",
        )
        .at_field("relief"));
    }
    let mut pieces = subtract(&flat.nodes[panel].region, cutter).into_iter();
    let Some(kept) = pieces.next() else {
        return Err(Finding::error(
            format!("the {what} would take all of {name}"),
            "Make the panel larger or the relief smaller.",
        )
        .at_field("relief"));
    };
    for scrap in pieces {
        let strips = flat.bends.iter().filter(|bend| bend.parent == panel).map(|bend| flat.strip_of(bend));
        if strips.clone().any(|strip| touches_strip(&scrap, strip)) || !scrap.holes.is_empty() {
            return Err(Finding::error(
                format!("the {what} would cut {name} in two"),
                "Make the relief smaller, or set the flange in further.",
            )
            .at_field("relief"));
        }
        let size = scrap.extents();
        notes.push(Finding::hint(
            format!(
                "the {what} frees a scrap of {} by {} at a corner of {name}; it is left out of the blank",
                length_text(size.width(), unit),
                length_text(size.height(), unit)
            ),
            "Nothing to do: the corner is open there.",
        ));
    }
    flat.nodes[panel].region = kept;
    Ok(())
}
