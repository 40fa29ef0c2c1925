//! Sheets of a surface laid in the flat: each set of panels that are bent into each other is a blank, its first panel where it stands.

use std::collections::BTreeMap;
use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Edge, Outline, Point, Region, Segment, Vector};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flange::flat_width;
use crate::sheet::flat::{Bend, BendMake, BendSizes, EdgeRecord, Flat, Node, NodeKind, TagKind};
use crate::sheet::numbers::MethodNumbers;
use crate::sheet::seam::SeamRecord;
use crate::sheet::set::SheetSet;
use crate::space::{Motion, Vector3};
use crate::work::sheet::{Direction, SeamAs};

use super::between::{Between, Move, Side, beside};
use super::cut::{Cut, NO_EDGE, cut, relieve};
use super::edges::{EdgeIs, Lines, SheetPanel};
use super::faces::{FacePart, Surface};
use super::joints::pair;
use super::numbers::TransitionNumbers;

/// Narrower than this no relief is cut, mm.
const LEAST_RELIEF: f64 = 1.0;

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
    let mut cuts = panels.iter().map(|panel| cut(surface, panel, unit)).collect::<Result<Vec<_>, _>>()?;
    let at_face = |face: usize| panels.iter().position(|panel| panel.face == face);
    let mut placed: Vec<bool> = vec![false; panels.len()];
    let mut ended: Vec<BTreeMap<usize, (Point, Point)>> = vec![BTreeMap::new(); panels.len()];
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
        flat.pose = cuts[root].frame.after(&Motion::shift(Vector3::new(0.0, 0.0, low)));
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
                let l = edge_to(&panels[there], panels[here].face);
                let side = |panel: usize, edge: usize| Side {
                    cut: &cuts[panel],
                    sheet: &panels[panel],
                    face: &surface.faces[panels[panel].face],
                    edge,
                };
                // Bends that meet at a panel's corner part there by a relief; lines that run to one corner do not.
                let relief = if is_line { 0.0 } else { thickness.max(LEAST_RELIEF) };
                let found = beside(surface, (side(here, k), side(there, l)), &turned, &sizes, relief);
                let Between { strip, moved, relieved, ends } =
                    found.ok_or_else(|| no_length(surface, panels, here, there))?;
                ended[here].insert(k, ends[0]);
                ended[there].insert(l, ends[1]);
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
            relieve(&mut cuts[at], &ended[at], given.radius + thickness);
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
            flat.nodes.push(Node {
                name: own.clone(),
                kind: NodeKind::Strip(strip),
                region: Arc::new(region),
                laid,
                is_shell: false,
            });
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
    let step_tag = if step { flat.tag(format!("{own}.relief"), TagKind::Relief) } else { 0 };
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
    let is_shell = !matches!(surface.faces[panel.face].part, FacePart::Flange(_) | FacePart::Tab);
    flat.nodes.push(Node { name: own, kind: NodeKind::Panel, region: Arc::new(region), laid, is_shell });
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
