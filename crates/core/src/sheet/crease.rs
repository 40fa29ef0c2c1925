//! A bend along a line drawn on a panel: the panel is parted by a strip, the blank stays as it is.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Outline, Point, Region, Segment, Tag, Vector, common_outlines, subtract};
use crate::quantity::tolerance::TRACED;
use crate::quantity::{Dimension, LengthUnit, length_text};
use crate::work::sheet::{CreaseAction, CreasePosition, CreaseSide, Direction};

use super::bending;
use super::flange::{flat_width, settle_edges};
use super::flat::{Bend, BendMake, BendSizes, EdgeRecord, Flat, Node, NodeKind, Strip, TagKind};
use super::hole::datum;
use super::numbers::MethodNumbers;
use super::reader::Reader;

/// A bend along a line in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct CreaseNumbers {
    pub panel: String,
    pub edge: String,
    pub distance: f64,
    pub turn: f64,
    pub moves: CreaseSide,
    pub angle: f64,
    pub direction: Direction,
    pub position: CreasePosition,
    pub radius: f64,
    pub method: MethodNumbers,
}

/// Reads a bend along a line. `None` when a field was bad; the findings are in the reader.
pub(super) fn read_crease(reader: &mut Reader<'_>, given: &CreaseAction) -> Option<CreaseNumbers> {
    let distance = reader.zero_or_more("distance", &given.distance, "a distance");
    let turn = match &given.turn {
        Some(text) => reader.value("turn", text, Dimension::ANGLE, "a turn"),
        None => Some(0.0),
    };
    let angle = reader.bend_angle("angle", &given.angle);
    let radius = reader.radius(&given.radius);
    let method = reader.method_or_own(&given.method);
    Some(CreaseNumbers {
        panel: given.panel.to_string(),
        edge: given.edge.to_string(),
        distance: distance?,
        turn: turn?,
        moves: given.moves,
        angle: angle?,
        direction: given.direction,
        position: given.position,
        radius: radius?,
        method: method?,
    })
}

/// Bends a panel along a line.
pub(super) fn crease(flat: &mut Flat, name: &str, given: &CreaseNumbers, unit: LengthUnit) -> Result<(), Finding> {
    let panel = flat.find_panel(&given.panel)?;
    let line = datum(flat, panel, &given.edge).map_err(|fault| fault.at_field("edge"))?;
    let (width, rule) = flat_width(given.angle, given.radius, flat.thickness, &given.method, None, unit)?;
    let (sine, cosine) = given.turn.sin_cos();
    let turned = |v: Vector| Vector::new(v.x * cosine - v.y * sine, v.x * sine + v.y * cosine);
    let middle = line.point + line.along * (line.length / 2.0) + line.inward * given.distance;
    let inward = turned(line.inward);
    let across = if given.moves == CreaseSide::Near { -inward } else { inward };
    let along = across.left();
    let back = match given.position {
        CreasePosition::Centred => width / 2.0,
        CreasePosition::MaterialInside => bending::outside_setback(given.angle, given.radius, flat.thickness),
        CreasePosition::MaterialOutside => bending::inside_setback(given.angle, given.radius),
    };
    let origin = middle - across * back;
    let sizes = BendSizes {
        angle: given.angle,
        radius: given.radius,
        direction: given.direction,
        width,
        rule,
        make: BendMake::Brake,
    };
    let strip = tight_strip(&flat.nodes[panel].region, origin, along, across, &sizes);
    let joint = flat.tag(format!("{name}.joint"), TagKind::Joint);
    let (staying, moving, strips) = part(&flat.nodes[panel].region, &strip, joint);
    let message = match (staying.len(), moving.len(), strips.len()) {
        (_, _, 0) | (0, ..) | (_, 0, _) => Some(format!(
            "the line {} from {} does not leave a part of {} on both its sides",
            length_text(given.distance, unit),
            given.edge,
            given.panel
        )),
        (1, ..) => None,
        (count, ..) => Some(format!("the part of {} that stays would fall into {count} pieces", given.panel)),
    };
    if let Some(message) = message {
        return Err(Finding::error(message, "Move the line, or turn it.").at_field("distance"));
    }
    check_other_bends(flat, panel, &staying[0], &moving, name)?;

    // Names: the part that stays keeps its own; what the line crosses is named anew on the part that moves.
    let first_new = flat.nodes.len();
    let names: Vec<String> = match moving.len() {
        1 => vec![name.to_string()],
        count => (1..=count).map(|at| format!("{name}.{at}")).collect(),
    };
    let before = flat.nodes[panel].clone();
    flat.nodes[panel].region = Arc::new(staying[0].clone());
    for (own, region) in names.iter().zip(moving) {
        let laid = region.extents();
        flat.nodes.push(Node {
            name: own.clone(),
            kind: NodeKind::Panel,
            region: Arc::new(region),
            laid,
            is_shell: before.is_shell,
        });
    }
    let first_strip = flat.nodes.len();
    for region in strips {
        let laid = region.extents();
        let touches = |own: &Region| shares_line(&region, own, &strip, strip.width);
        let which = (first_new..first_strip).find(|&at| touches(&flat.nodes[at].region)).unwrap_or(first_new);
        let own = flat.nodes[which].name.clone();
        flat.nodes.push(Node {
            name: own.clone(),
            kind: NodeKind::Strip(strip.clone()),
            region: Arc::new(region),
            laid,
            is_shell: false,
        });
    }
    for (at, own) in names.iter().enumerate() {
        let flange = first_new + at;
        let own_strip = (first_strip..flat.nodes.len()).find(|&node| flat.nodes[node].name == *own);
        flat.bends.push(Bend {
            name: own.clone(),
            strip: own_strip.unwrap_or(first_strip),
            parent: Some(panel),
            flange: Some(flange),
            edge: None,
            ends: ["start".to_string(), "end".to_string()],
            tangent_at: 0.0,
            make: sizes.make,
            rule: sizes.rule.clone(),
        });
    }
    move_bends(flat, panel, first_new..first_strip);
    for node in (first_new..first_strip).chain(first_strip..flat.nodes.len()) {
        rename_edges(flat, panel, node, &before);
    }
    move_holes(flat, panel, first_new);
    for node in std::iter::once(panel).chain(first_new..first_strip) {
        settle_edges(flat, node);
    }
    Ok(())
}

/// The strip as long as the panel's material along it.
fn tight_strip(region: &Region, origin: Point, along: Vector, across: Vector, sizes: &BendSizes) -> Strip {
    let mut strip = sizes.strip(origin, along, across, 1.0);
    let around = region.extents();
    let reach = around.width() + around.height() + 1.0;
    strip.origin = strip.place(-reach - origin.distance(around.centre()), 0.0);
    strip.length = 2.0 * (reach + origin.distance(around.centre()));
    let band = rectangle(&strip, 0.0, 0);
    let (mut low, mut high) = (f64::INFINITY, f64::NEG_INFINITY);
    for piece in common_outlines(&region.outer, &band) {
        for (segment, _) in piece.segments() {
            for share in [0.0, 0.25, 0.5, 0.75] {
                let u = strip.local(segment.at(share)).0;
                (low, high) = (low.min(u), high.max(u));
            }
        }
    }
    if low < high {
        strip.origin = strip.place(low, 0.0);
        strip.length = high - low;
    }
    strip
}

/// The strip's rectangle, longer by `out` at both ends; its long sides carry the tag.
fn rectangle(strip: &Strip, out: f64, tag: Tag) -> Outline {
    let corner = |u: f64, v: f64| (strip.place(u, v), tag);
    Outline::polygon(&[
        corner(-out, 0.0),
        corner(strip.length + out, 0.0),
        corner(strip.length + out, strip.width),
        corner(-out, strip.width),
    ])
    .counter_clockwise()
}

/// A panel's region parted by a strip: what lies before it, beyond it, in it.
fn part(region: &Region, strip: &Strip, joint: Tag) -> (Vec<Region>, Vec<Region>, Vec<Region>) {
    let cutter = rectangle(strip, 1.0, joint);
    let (mut staying, mut moving) = (Vec::new(), Vec::new());
    for piece in subtract(region, &cutter) {
        if strip.local(inner_point(&piece)).1 < strip.width / 2.0 {
            staying.push(piece);
        } else {
            moving.push(piece);
        }
    }
    let mut inside: Vec<Region> = common_outlines(&region.outer, &cutter).into_iter().map(Region::solid).collect();
    for hole in &region.holes {
        if hole.extents().is_near(&cutter.extents(), 0.0) {
            inside = inside.iter().flat_map(|piece| subtract(piece, hole)).collect();
        }
    }
    (staying, moving, inside)
}

/// A corner of a region: it lies wholly on one side of the strip, so any will do.
fn inner_point(region: &Region) -> Point {
    let edges: Vec<Segment> = region.outer.segments().map(|(segment, _)| segment).collect();
    edges.iter().map(|segment| segment.at(0.5)).fold(Point::default(), |sum, point| {
        Point::new(sum.x + point.x / edges.len() as f64, sum.y + point.y / edges.len() as f64)
    })
}

/// Whether two regions share part of a strip's line at v.
fn shares_line(one: &Region, two: &Region, strip: &Strip, v: f64) -> bool {
    let spans = |region: &Region| -> Vec<(f64, f64)> {
        region
            .outer
            .segments()
            .filter(|(segment, _)| {
                [segment.start, segment.end].iter().all(|point| (strip.local(*point).1 - v).abs() < TRACED)
            })
            .map(|(segment, _)| {
                let (a, b) = (strip.local(segment.start).0, strip.local(segment.end).0);
                (a.min(b), a.max(b))
            })
            .collect()
    };
    let theirs = spans(two);
    spans(one).iter().any(|one| theirs.iter().any(|two| one.0.max(two.0) + TRACED < one.1.min(two.1)))
}

/// Refuses a line that runs through another bend of the panel: the sheet would have to tear there.
fn check_other_bends(
    flat: &Flat,
    panel: usize,
    staying: &Region,
    moving: &[Region],
    name: &str,
) -> Result<(), Finding> {
    for bend in flat.bends.iter().filter(|bend| bend.touches(panel)) {
        let strip = flat.strip_of(bend);
        let v = if bend.parent == Some(panel) { 0.0 } else { strip.width };
        let own = &flat.nodes[bend.strip].region;
        let stays = shares_line(own, staying, strip, v);
        let moves = moving.iter().any(|piece| shares_line(own, piece, strip, v));
        if stays == moves {
            return Err(Finding::error(
                format!("the line of {name} runs through the bend {}", bend.name),
                "End that bend before the line, or cut a notch where the two cross.",
            )
            .at_field("distance"));
        }
    }
    Ok(())
}

/// Bends that were on the part that moves now hang on it.
fn move_bends(flat: &mut Flat, panel: usize, moved: std::ops::Range<usize>) {
    for at in 0..flat.bends.len() {
        let bend = flat.bends[at].clone();
        // The bends of the line itself come last and are right.
        if !bend.touches(panel) || bend.flange.is_some_and(|flange| moved.contains(&flange)) {
            continue;
        }
        let strip = flat.strip_of(&bend).clone();
        let v = if bend.parent == Some(panel) { 0.0 } else { strip.width };
        let own = flat.nodes[bend.strip].region.clone();
        let Some(to) = moved.clone().find(|&node| shares_line(&own, &flat.nodes[node].region, &strip, v)) else {
            continue;
        };
        let bend = &mut flat.bends[at];
        if bend.parent == Some(panel) {
            bend.parent = Some(to);
        } else {
            bend.flange = Some(to);
        }
    }
}

/// Edges of a new node that were the panel's: those that the panel keeps part of get names of their own, the others move.
fn rename_edges(flat: &mut Flat, panel: usize, node: usize, before: &Node) {
    let own = flat.nodes[node].name.clone();
    let is_panel = flat.nodes[node].is_panel();
    let mut tags: Vec<Tag> = flat.nodes[node].region.outer.edges.iter().map(|edge| edge.tag).collect();
    tags.sort_unstable();
    tags.dedup();
    for tag in tags {
        let record = flat.tags[tag as usize].clone();
        if !matches!(record.kind, TagKind::Edge) {
            continue;
        }
        let Some(index) = flat.edges.iter().position(|edge| edge.tag == tag && edge.panel == panel) else { continue };
        let kept = !flat.segments_of(panel, tag).is_empty();
        let short = record.name.strip_prefix(&format!("{}.", before.name)).unwrap_or(&record.name).to_string();
        if !is_panel {
            let fresh = flat.tag(format!("{own}.bend.{short}"), TagKind::BendEnd);
            retag(Arc::make_mut(&mut flat.nodes[node].region), tag, fresh);
        } else if kept {
            let full = format!("{own}.{short}");
            let fresh = flat.tag(full.clone(), TagKind::Edge);
            retag(Arc::make_mut(&mut flat.nodes[node].region), tag, fresh);
            let line = flat.segments_of(node, fresh)[0];
            let sides = flat.edges[index].sides.clone();
            flat.edges.push(EdgeRecord { name: full, tag: fresh, panel: node, line, sides, bends: Vec::new() });
        } else {
            flat.edges[index].panel = node;
        }
    }
}

fn retag(region: &mut Region, from: Tag, to: Tag) {
    region.outer.edges.iter_mut().filter(|edge| edge.tag == from).for_each(|edge| edge.tag = to);
}

/// Holes of the panel that now lie in another node.
fn move_holes(flat: &mut Flat, panel: usize, first_new: usize) {
    for at in 0..flat.holes.len() {
        if flat.holes[at].panel != panel {
            continue;
        }
        let (centre, tag) = (flat.holes[at].centre, flat.holes[at].tag);
        let holds = |region: &Region| {
            region.holes.iter().any(|hole| hole.edges.first().is_some_and(|edge| edge.tag == tag))
                || region.outer.contains(centre)
        };
        if holds(&flat.nodes[panel].region) {
            continue;
        }
        if let Some(to) = (first_new..flat.nodes.len()).find(|&node| holds(&flat.nodes[node].region)) {
            Arc::make_mut(&mut flat.holes)[at].panel = to;
        }
    }
    for at in 0..flat.forms.len() {
        let (own, centre) = (flat.forms[at].panel, flat.forms[at].centre);
        let holds = |node: usize| flat.nodes[node].region.outer.contains(centre);
        if own == panel
            && !holds(panel)
            && let Some(to) = (first_new..flat.nodes.len()).find(|&node| holds(node))
        {
            Arc::make_mut(&mut flat.forms)[at].panel = to;
        }
    }
}
