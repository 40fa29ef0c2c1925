//! Sheets of a surface laid in the flat: each set of panels that are bent into each other is a blank, its first panel where it stands.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Region, Segment, Vector};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flange::flat_width;
use crate::sheet::flat::{Bend, BendMake, BendSizes, EdgeRecord, Flat, Node, NodeKind, TagKind};
use crate::sheet::numbers::MethodNumbers;
use crate::sheet::seam::SeamRecord;
use crate::sheet::set::SheetSet;
use crate::space::Motion;
use crate::work::sheet::{Direction, SeamAs};

use super::edges::{EdgeIs, Frame, Lines, Nick, SheetPanel};
use super::faces::Surface;
use super::joints::pair;
use super::numbers::TransitionNumbers;

/// A panel in its own plane: x along its first edge, y into it, seen from within.
struct Cut {
    /// Where its own plane lies in the piece, at the height of the surface.
    frame: Motion,
    /// Corners of the surface's polygon.
    given: Vec<Point>,
    /// What is left of each edge, where anything is, along it; the corners where it ends.
    edges: Vec<(Point, Point)>,
    /// The outline: corners with the edge that begins there, `None` for a step between two edges of one line.
    outline: Vec<(Point, Option<usize>)>,
}

/// Less than this is no edge, mm.
const NO_EDGE: f64 = 10.0 * MODELLING_TOLERANCE;

fn cut(surface: &Surface, panel: &SheetPanel, unit: LengthUnit) -> Result<Cut, Finding> {
    let face = &surface.faces[panel.face];
    let own = Frame::new(surface, face, 0);
    let frame = Motion::to_frame(own.from, own.along, own.inward, own.up);
    let home = frame.inverse();
    let given: Vec<Point> = face
        .corners
        .iter()
        .map(|&at| {
            let local = home.apply(surface.points[at]);
            Point::new(local.x, local.y)
        })
        .collect();
    let count = given.len();
    // Each edge shifted into the panel: a point on it and its direction.
    let lines: Vec<(Point, Vector)> = (0..count)
        .map(|k| {
            let along = (given[(k + 1) % count] - given[k]).unit();
            (given[k] + along.left() * panel.back[k], along)
        })
        .collect();
    let mut outline: Vec<(Point, Option<usize>)> = Vec::new();
    for k in 0..count {
        let before = (k + count - 1) % count;
        let ((p, d), (q, e)) = (lines[before], lines[k]);
        let turn = d.cross(e);
        if turn.abs() < MODELLING_TOLERANCE {
            // Two edges of one line that stand back differently: a step at their corner.
            let (first, second) = (given[k] + d.left() * panel.back[before], given[k] + e.left() * panel.back[k]);
            if first.distance(second) > NO_EDGE {
                outline.push((first, None));
            }
            outline.push((second, Some(k)));
            continue;
        }
        let corner = p + d * ((q - p).cross(e) / turn);
        outline.push((corner, Some(k)));
    }
    for nick in &panel.nicks {
        outline = clipped(&outline, nick, &frame);
    }
    let mut edges = Vec::new();
    for k in 0..count {
        let long = outline.len();
        let at = (0..long).find(|&at| outline[at].1 == Some(k));
        let left = at.map(|at| (outline[at].0, outline[(at + 1) % long].0));
        let left = left.filter(|(from, to)| (*to - *from).dot(lines[k].1) > NO_EDGE);
        edges.push(left.ok_or_else(|| eaten(surface, panel, unit))?);
    }
    Ok(Cut { frame, given, edges, outline })
}

fn eaten(surface: &Surface, panel: &SheetPanel, unit: LengthUnit) -> Finding {
    let most = panel.back.iter().copied().fold(0.0, f64::max);
    Finding::error(
        format!(
            "nothing is left of {}: its edges stand back by up to {}",
            surface.faces[panel.face].name,
            length_text(most, unit)
        ),
        "Make it larger, the sheet thinner, the inside radius smaller, or choose other joints.",
    )
    .at_field("edges")
}

/// What of an outline lies on the side of a nick that the panel keeps, both faces of the sheet.
fn clipped(outline: &[(Point, Option<usize>)], nick: &Nick, frame: &Motion) -> Vec<(Point, Option<usize>)> {
    let home = frame.inverse();
    let (corner, normal) = (home.apply(nick.corner), home.direction(nick.normal));
    let side = Vector::new(normal.x, normal.y);
    let off = |point: Point| side.dot(point - Point::new(corner.x, corner.y)) - nick.by(normal.z);
    let mut kept: Vec<(Point, Option<usize>)> = Vec::new();
    for (at, &(here, edge)) in outline.iter().enumerate() {
        let there = outline[(at + 1) % outline.len()].0;
        let (a, b) = (off(here), off(there));
        let crossing = || here + (there - here) * (a / (a - b));
        match (a >= 0.0, b >= 0.0) {
            (true, true) => kept.push((here, edge)),
            (true, false) => {
                kept.push((here, edge));
                kept.push((crossing(), None));
            }
            (false, true) => kept.push((crossing(), edge)),
            (false, false) => {}
        }
    }
    // Where the line runs through a corner two places are one: the edge between them is none.
    let count = kept.len();
    let long = |at: usize| kept[at].0.distance(kept[(at + 1) % count].0);
    (0..count).filter(|&at| long(at) > NO_EDGE).map(|at| kept[at]).collect()
}

/// A rigid move of a plane: turned, then shifted.
#[derive(Clone, Copy)]
struct Move {
    x: Vector,
    shift: Vector,
}

impl Move {
    fn vector(&self, v: Vector) -> Vector {
        self.x * v.x + self.x.left() * v.y
    }

    fn point(&self, point: Point) -> Point {
        let turned = self.vector(point - Point::default());
        Point::default() + turned + self.shift
    }
}

/// A bend between two panels, and where it lies.
struct Joint {
    child: usize,
    parent: usize,
}

/// Lays every blank into the set.
///
/// # Errors
/// A panel of which nothing is left; a bend that has no length.
pub(super) fn lay(
    set: &mut SheetSet,
    name: &str,
    given: &TransitionNumbers,
    surface: &Surface,
    (panels, lines): (&[SheetPanel], &Lines),
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let thickness = set.flats[0].thickness;
    let cuts = panels.iter().map(|panel| cut(surface, panel, unit)).collect::<Result<Vec<_>, _>>()?;
    let at_face = |face: usize| panels.iter().position(|panel| panel.face == face);
    let mut placed: Vec<bool> = vec![false; panels.len()];
    let mut notes = Vec::new();
    let mut flats = Vec::new();
    for root in 0..panels.len() {
        if placed[root] {
            continue;
        }
        let mut moves: Vec<Option<Move>> = vec![None; panels.len()];
        moves[root] = Some(Move { x: Vector::new(1.0, 0.0), shift: Vector::default() });
        let mut order = vec![root];
        let mut joints: Vec<Joint> = Vec::new();
        placed[root] = true;
        let mut next = 0;
        let mut flat = Flat::new(thickness);
        // The flat's lower face is the outer one.
        let low = panels[root].faces.0;
        flat.pose = cuts[root].frame.after(&Motion::shift(crate::space::Vector3::new(0.0, 0.0, low)));
        let mut strips = Vec::new();
        while next < order.len() {
            let here = order[next];
            next += 1;
            for (k, is) in panels[here].edges.iter().enumerate() {
                let EdgeIs::Bent(face, angle) = *is else { continue };
                let Some(there) = at_face(face).filter(|&there| !placed[there]) else { continue };
                placed[there] = true;
                order.push(there);
                let turned = moves[here].unwrap_or(Move { x: Vector::new(1.0, 0.0), shift: Vector::default() });
                let is_line = lines.contains(&pair(panels[here].face, face));
                let (sizes, own) = bend_sizes(given, thickness, angle, is_line, unit)?;
                let (strip, moved, relieved) =
                    beside(&cuts[here], k, &cuts[there], edge_to(&panels[there], panels[here].face), &turned, &sizes)
                        .ok_or_else(|| no_length(surface, panels, here, there))?;
                moves[there] = Some(moved);
                joints.push(Joint { child: there, parent: here });
                strips.push((strip, sizes, own));
                if relieved > NO_EDGE {
                    let (one, two) = (&surface.faces[panels[here].face].name, &surface.faces[panels[there].face].name);
                    notes.push(Finding::hint(
                        format!(
                            "the bend between {one} and {two} ends {} from its corner, where the strips part",
                            length_text(relieved, unit)
                        ),
                        "Nothing to do; the corner is open by that much.",
                    ));
                }
            }
        }
        for &at in &order {
            let turned = moves[at].unwrap_or(Move { x: Vector::new(1.0, 0.0), shift: Vector::default() });
            panel_node(&mut flat, name, surface, &panels[at], &cuts[at], &turned);
        }
        let node_of = |panel: usize| order.iter().position(|&at| at == panel);
        for (joint, (strip, sizes, rule)) in joints.iter().zip(strips) {
            let own = format!("{name}.{}", surface.faces[panels[joint.child].face].name);
            let mut end = |side: &str| flat.tag(format!("{own}.bend.{side}"), TagKind::BendEnd);
            let (start, finish) = (end("start"), end("end"));
            let joint_tag = flat.tag(format!("{own}.joint"), TagKind::Joint);
            let corner = |u: f64, v: f64, tag: u32| (strip.place(u, v), tag);
            let outline = Outline::polygon(&[
                corner(0.0, 0.0, joint_tag),
                corner(strip.length, 0.0, finish),
                corner(strip.length, strip.width, joint_tag),
                corner(0.0, strip.width, start),
            ]);
            let right_handed = strip.along.cross(strip.across) > 0.0;
            let outline = if right_handed { outline } else { outline.counter_clockwise() };
            let region = Region::solid(outline);
            let laid = region.extents();
            flat.nodes.push(Node { name: own.clone(), kind: NodeKind::Strip(strip), region: Arc::new(region), laid });
            flat.bends.push(Bend {
                name: own,
                strip: flat.nodes.len() - 1,
                parent: node_of(joint.parent),
                flange: node_of(joint.child),
                edge: None,
                ends: ["start".to_string(), "end".to_string()],
                tangent_at: 0.0,
                make: sizes.make,
                rule,
            });
        }
        flats.push(flat);
    }
    set.flats = flats;
    seams(set, name, given, surface, panels);
    Ok(notes)
}

fn no_length(surface: &Surface, panels: &[SheetPanel], here: usize, there: usize) -> Finding {
    let (one, two) = (&surface.faces[panels[here].face].name, &surface.faces[panels[there].face].name);
    Finding::error(
        format!("the bend between {one} and {two} has no length left between its corners"),
        "Make the edge between them a seam, or the inside radius smaller.",
    )
    .at_field("edges")
}

fn edge_to(panel: &SheetPanel, face: usize) -> usize {
    panel.edges.iter().position(|is| matches!(is, EdgeIs::Bent(other, _) if *other == face)).unwrap_or(0)
}

type Sizes = (BendSizes, crate::sheet::bending::AllowanceRule);

fn bend_sizes(
    given: &TransitionNumbers,
    thickness: f64,
    angle: f64,
    is_line: bool,
    unit: LengthUnit,
) -> Result<Sizes, Finding> {
    let on_the_middle = MethodNumbers::KFactor { k: 0.5, source: "developed on the middle of the metal".into() };
    let (radius, method) = if is_line { (0.0, &on_the_middle) } else { (given.radius, &given.method) };
    let (width, rule) = flat_width(angle.abs(), radius, thickness, method, None, unit)?;
    // Seen from within the inside lies up.
    let direction = if angle > 0.0 { Direction::Up } else { Direction::Down };
    let sizes = BendSizes {
        angle: angle.abs(),
        radius,
        direction,
        width,
        rule: rule.clone(),
        make: if is_line { BendMake::Line } else { BendMake::Brake },
    };
    Ok((sizes, rule))
}

/// The strip between two panels, how the second one lies beyond it, and how far it ends from the corners that it runs between. `None`
/// where nothing is left of it.
fn beside(
    here: &Cut,
    k: usize,
    there: &Cut,
    l: usize,
    turned: &Move,
    sizes: &BendSizes,
) -> Option<(crate::sheet::flat::Strip, Move, f64)> {
    let count = here.given.len();
    let (from, to) = (here.given[k], here.given[(k + 1) % count]);
    let along = (to - from).unit();
    let reach = |cut: &Cut, edge: usize, zero: Point, way: Vector| {
        let (a, b) = cut.edges[edge];
        let (a, b) = ((a - zero).dot(way), (b - zero).dot(way));
        (a.min(b), a.max(b))
    };
    let own = reach(here, k, from, along);
    // The neighbour walks the edge the other way: its end is this one's start.
    let other = there.given.len();
    let (zero, away) = (there.given[(l + 1) % other], (there.given[l] - there.given[(l + 1) % other]).unit());
    let theirs = reach(there, l, zero, away);
    let (low, high) = (own.0.max(theirs.0), own.1.min(theirs.1));
    if high - low < NO_EDGE {
        return None;
    }
    let long = from.distance(to);
    let relieved = low.max(long - high).max(0.0);
    // In the flat: metal on the left of the edge, the strip on its right.
    let flat_along = turned.vector(along);
    let out = -flat_along.left();
    let line = here.edges[k].0;
    let on_line = turned.point(line);
    let start = on_line + flat_along * (low - (line - from).dot(along));
    let strip = sizes.strip(start, flat_along, out, high - low);
    // A turn that takes `away` to flat_along takes its right to out.
    let x = Vector::new(flat_along.x * away.x + flat_along.y * away.y, flat_along.y * away.x - flat_along.x * away.y);
    let turn = Move { x, shift: Vector::default() };
    let their_line = there.edges[l].0;
    // The place of their tangent line that is as far along the edge as the strip's start.
    let their_start = their_line + away * (low - (their_line - zero).dot(away));
    let target = strip.place(0.0, strip.width);
    let shift = target - turn.point(their_start);
    Some((strip, Move { x, shift }, relieved))
}

fn panel_node(flat: &mut Flat, name: &str, surface: &Surface, panel: &SheetPanel, cut: &Cut, turned: &Move) {
    let own = format!("{name}.{}", surface.faces[panel.face].name);
    let node = flat.nodes.len();
    let mut used: Vec<String> = Vec::new();
    let mut tags = vec![0; panel.edges.len()];
    for (k, is) in panel.edges.iter().enumerate() {
        let side = |face: usize| format!("to-{}", surface.faces[face].name);
        let (mut short, kind) = match is {
            EdgeIs::Rim => {
                let corners = &surface.faces[panel.face].corners;
                let rim = surface.rims.get(&(corners[k], corners[(k + 1) % corners.len()]));
                (rim.map_or("side", |rim| rim.name.as_str()).to_string(), TagKind::Edge)
            }
            EdgeIs::Apart(face, ..) | EdgeIs::Free(face) => (side(*face), TagKind::Edge),
            EdgeIs::Bent(face, _) => (side(*face), TagKind::Joint),
        };
        let same = used.iter().filter(|known| **known == short).count();
        used.push(short.clone());
        if same > 0 {
            short = format!("{short}-{}", same + 1);
        }
        let full = format!("{own}.{short}");
        tags[k] = flat.tag(full.clone(), kind);
        if kind == TagKind::Edge {
            let (from, to) = cut.edges[k];
            flat.edges.push(EdgeRecord {
                name: full,
                tag: tags[k],
                panel: node,
                line: Segment::line(turned.point(from), turned.point(to)),
                sides: ["start".to_string(), "end".to_string()],
                bends: Vec::new(),
            });
        }
    }
    let step = cut.outline.iter().any(|(_, edge)| edge.is_none());
    let step_tag = if step { flat.tag(format!("{own}.nick"), TagKind::Relief) } else { 0 };
    let edges = cut
        .outline
        .iter()
        .map(|(corner, edge)| Edge {
            start: turned.point(*corner),
            bulge: 0.0,
            tag: edge.map_or(step_tag, |k| tags[k]),
        })
        .collect();
    let region = Region::solid(Outline { edges });
    let laid = region.extents();
    flat.nodes.push(Node { name: own, kind: NodeKind::Panel, region: Arc::new(region), laid });
}

fn seams(set: &mut SheetSet, name: &str, given: &TransitionNumbers, surface: &Surface, panels: &[SheetPanel]) {
    let called = |one: usize, two: usize| {
        let (one, two) = (&surface.faces[one].name, &surface.faces[two].name);
        format!("{name}.{one}.to-{two}")
    };
    let mut all = Vec::new();
    for panel in panels {
        for is in &panel.edges {
            let EdgeIs::Apart(next, true) = *is else { continue };
            if panel.face < next {
                all.push([called(panel.face, next), called(next, panel.face)]);
            }
        }
    }
    let count = all.len();
    for (at, walls) in all.into_iter().enumerate() {
        let own = if count == 1 { name.to_string() } else { format!("{name}.{}", at + 1) };
        let SeamAs { lay, weld, flush } = given.seam.clone();
        set.seams.push(SeamRecord { lay, weld, flush, ..SeamRecord::plain(own, walls) });
    }
}
