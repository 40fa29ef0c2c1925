//! A blank parted: along a line across the flat, or at a tangent line. The metal stays where it is, folded and flat; what hangs
//! together no longer becomes a blank of its own.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Outline, Point, Region, Segment, Vector, subtract};
use crate::quantity::tolerance::TRACED;
use crate::quantity::{Dimension, LengthUnit, length_text};
use crate::work::sheet::{SeamAs, SplitAction, SplitAt, SplitReach, StripStays};

use super::flange::{folded_now, settle_edges};
use super::flat::{Bend, EdgeRecord, Flat, Node, NodeKind, TagKind};
use super::fold::Placed;
use super::hole::datum;
use super::reader::Reader;
use super::seam::SeamRecord;
use super::set::SheetSet;
use super::tree::{Side, joints};

/// A parting in numbers: mm and radians.
#[derive(Clone, Debug, PartialEq)]
pub struct SplitNumbers {
    /// Where.
    pub at: SplitPlace,
    /// How the two lie together.
    pub seam: SeamAs,
}

/// Where a blank is parted, in numbers.
#[derive(Clone, Debug, PartialEq)]
pub enum SplitPlace {
    /// Along a line on a panel, this far from one of its edges, turned by so much.
    Line {
        /// The panel.
        panel: String,
        /// The edge.
        edge: String,
        /// From it, mm.
        distance: f64,
        /// Radians.
        turn: f64,
        /// What it parts.
        reach: SplitReach,
    },
    /// At a tangent line of a bend.
    Bend {
        /// By its flange.
        bend: String,
        /// With which side the strip stays.
        strip: StripStays,
    },
}

/// Reads a parting. `None` when a field was bad; the findings are in the reader.
pub(super) fn read_split(reader: &mut Reader<'_>, given: &SplitAction) -> Option<SplitNumbers> {
    let at = match &given.at {
        SplitAt::Line(line) => {
            let distance = reader.zero_or_more("at.line.distance", &line.distance, "a distance");
            let turn = match &line.turn {
                Some(text) => reader.value("at.line.turn", text, Dimension::ANGLE, "a turn"),
                None => Some(0.0),
            };
            SplitPlace::Line {
                panel: line.panel.to_string(),
                edge: line.edge.to_string(),
                distance: distance?,
                turn: turn?,
                reach: line.reach,
            }
        }
        SplitAt::Bend(bend) => SplitPlace::Bend { bend: bend.bend.to_string(), strip: bend.strip },
    };
    Some(SplitNumbers { at, seam: given.seam.clone() })
}

/// Parts the blank that has the panel or the bend.
///
/// # Errors
/// A line that meets no metal, runs through a hole, along a bend or out of the panel it is to part alone; a piece that hangs together
/// past it.
pub(super) fn split(set: &mut SheetSet, name: &str, given: &SplitNumbers, unit: LengthUnit) -> Result<(), Finding> {
    let at = set.blank_of(Some(match &given.at {
        SplitPlace::Line { panel, .. } => panel,
        SplitPlace::Bend { bend, .. } => bend,
    }));
    let flat = &mut set.flats[at];
    // Where everything stands before anything is parted: halves stay where the whole was.
    let folded = folded_now(flat)?;
    let Parted { cut, walls, twins, halves } = match &given.at {
        SplitPlace::Line { panel, edge, distance, turn, reach } => {
            along_line(flat, name, (panel, edge), (*distance, *turn, *reach), unit)?
        }
        SplitPlace::Bend { bend, strip } => at_tangent(flat, name, bend, *strip)?,
    };
    let parts = parts(flat, &cut);
    if parts.len() < 2 {
        return Err(Finding::error(
            format!("{name} leaves the piece in one: it still hangs together past the line"),
            "Cut the other bend as well, or let the line reach across the whole blank.",
        )
        .at_field("at"));
    }
    check_holes(flat, &parts, name)?;
    let mut blanks = Vec::new();
    for (which, keep) in parts.iter().enumerate() {
        let mut own = flat.only(keep);
        if which > 0 {
            let whole = halves.iter().find(|(_, far)| *far == keep[0]).map_or(keep[0], |(near, _)| *near);
            own.pose = match &folded.placed[whole] {
                Placed::Panel(motion) | Placed::Strip(motion, _) => *motion,
            };
        }
        blanks.push(own);
    }
    let rest = blanks.split_off(1);
    set.flats[at] = blanks.remove(0);
    set.flats.splice(at + 1..at + 1, rest);
    // A seam along an edge that the line has parted runs along both halves.
    for (own, twin) in twins {
        let halves: Vec<SeamRecord> = set.seams.iter().filter(|seam| seam.walls.contains(&own)).cloned().collect();
        for half in halves {
            let walls = half.walls.clone().map(|wall| if wall == own { twin.clone() } else { wall });
            let count = set.seams.iter().filter(|seam| seam.operation() == half.operation()).count();
            let name = format!("{}.{}", half.operation(), count + 1);
            set.seams.push(SeamRecord { name, walls, half: true, ..half });
        }
        set.seams.iter_mut().filter(|seam| seam.walls.contains(&own)).for_each(|seam| seam.half = true);
    }
    let count = walls.len();
    for (which, walls) in walls.into_iter().enumerate() {
        let own = if count == 1 { name.to_string() } else { format!("{name}.{}", which + 1) };
        let SeamAs { lay, weld, flush } = given.seam.clone();
        set.seams.push(SeamRecord { lay, weld, flush, ..SeamRecord::plain(own, walls) });
    }
    Ok(())
}

/// Joints of a strip and a neighbour that are undone, by their nodes.
type Cut = Vec<(usize, usize)>;

/// What a parting has done to a flat.
#[derive(Default)]
struct Parted {
    cut: Cut,
    /// The walls on both sides, one pair a panel or strip.
    walls: Vec<[String; 2]>,
    /// Edges that a line has parted: what stays, and its other half.
    twins: Vec<(String, String)>,
    /// Nodes that it has parted: what stays, and its other half.
    halves: Vec<(usize, usize)>,
}

/// Every node that hangs together without the joints that are cut, the root's first, each in the order of the flat with a panel
/// first where there is one.
fn parts(flat: &Flat, cut: &Cut) -> Vec<Vec<usize>> {
    let links: Vec<(usize, usize)> = joints(&flat.nodes)
        .iter()
        .map(|joint| (joint.strip, joint.neighbour))
        .filter(|&(a, b)| !cut.iter().any(|&(c, d)| (a, b) == (c, d) || (b, a) == (c, d)))
        .collect();
    let mut part = vec![usize::MAX; flat.nodes.len()];
    let mut all: Vec<Vec<usize>> = Vec::new();
    for begin in 0..flat.nodes.len() {
        if part[begin] != usize::MAX {
            continue;
        }
        let own = all.len();
        let mut open = vec![begin];
        part[begin] = own;
        let mut members = Vec::new();
        while let Some(here) = open.pop() {
            members.push(here);
            for &(a, b) in &links {
                for (from, to) in [(a, b), (b, a)] {
                    if from == here && part[to] == usize::MAX {
                        part[to] = own;
                        open.push(to);
                    }
                }
            }
        }
        members.sort_unstable();
        // The root stays put; another blank stands on its first panel.
        if own > 0
            && let Some(panel) = members.iter().position(|&at| flat.nodes[at].is_panel())
        {
            let panel = members.remove(panel);
            members.insert(0, panel);
        }
        all.push(members);
    }
    all
}

/// Refuses to part a hole between two blanks.
fn check_holes(flat: &Flat, parts: &[Vec<usize>], name: &str) -> Result<(), Finding> {
    for hole in flat.holes.iter() {
        let stands = |at: &usize| {
            let outlines = flat.nodes[*at].region.outlines();
            outlines.into_iter().any(|outline| outline.edges.iter().any(|edge| edge.tag == hole.tag))
        };
        if parts.iter().filter(|part| part.iter().any(stands)).count() > 1 {
            return Err(Finding::error(
                format!("{name} runs through {}", hole.name),
                "Move the line clear of it, or cut it after parting the piece.",
            )
            .at_field("at"));
        }
    }
    Ok(())
}

/// The tangent line of a bend on the side that its strip does not stay with, as what is to be undone.
fn at_tangent(flat: &mut Flat, name: &str, bend: &str, stays: StripStays) -> Result<Parted, Finding> {
    let index = flat.bends.iter().position(|one| one.name == bend).ok_or_else(|| {
        let known: Vec<&str> = flat.bends.iter().map(|bend| bend.name.as_str()).collect();
        let way_out = if known.is_empty() {
            "There are no bends at this step.".to_string()
        } else {
            format!("The bends at this step are {}.", known.join(", "))
        };
        Finding::error(format!("there is no bend called {bend} at this step"), way_out).at_field("at.bend.bend")
    })?;
    let given = flat.bends[index].clone();
    let (side, panel) = match stays {
        StripStays::Parent => (Side::Second, given.flange),
        StripStays::Flange => (Side::First, given.parent),
    };
    let Some(panel) = panel else {
        return Err(Finding::error(
            format!("nothing lies beside the bend {bend} on that side"),
            "Let the strip stay with the other side.",
        )
        .at_field("at.bend.strip"));
    };
    // A cut may have parted the strip: every piece of it that meets the panel on that line.
    let strip = flat.strip_of(&given).clone();
    let cut: Cut = joints(&flat.nodes)
        .iter()
        .filter(|joint| joint.side == side && joint.neighbour == panel)
        .filter(|joint| flat.nodes[joint.strip].strip() == Some(&strip))
        .map(|joint| (joint.strip, joint.neighbour))
        .collect();
    // The panel's side of the line is an edge from now on, and the strip's a wall of its own name.
    let v = if side == Side::First { 0.0 } else { strip.width };
    let on_line = |segment: &Segment| {
        [segment.start, segment.end].iter().all(|&point| (strip.local(point).1 - v).abs() < ON) && segment.is_line()
    };
    let edge_name = format!("{}.cut-{name}", flat.nodes[panel].name);
    let tag = flat.tag(edge_name.clone(), TagKind::Edge);
    retag_where(flat, panel, tag, on_line);
    let line = flat.segments_of(panel, tag).first().copied();
    let Some(line) = line else {
        return Err(Finding::error(
            format!("the bend {bend} does not meet {} along its line", flat.nodes[panel].name),
            "Part the piece along a line instead.",
        )
        .at_field("at.bend.bend"));
    };
    flat.edges.push(EdgeRecord {
        name: edge_name.clone(),
        tag,
        panel,
        line,
        sides: given.ends.clone(),
        bends: Vec::new(),
    });
    let wall = format!("{bend}.bend.cut-{name}");
    let strip_tag = flat.tag(wall.clone(), TagKind::BendEnd);
    let nodes: Vec<usize> = cut.iter().map(|(strip, _)| *strip).collect();
    for node in nodes {
        retag_where(flat, node, strip_tag, on_line);
    }
    settle_edges(flat, panel);
    let walls = if stays == StripStays::Parent { [wall, edge_name] } else { [edge_name, wall] };
    Ok(Parted { cut, walls: vec![walls], ..Parted::default() })
}

fn retag_where(flat: &mut Flat, node: usize, tag: u32, holds: impl Fn(&Segment) -> bool) {
    let region = Arc::make_mut(&mut flat.nodes[node].region);
    let own: Vec<bool> = region.outer.segments().map(|(segment, _)| holds(&segment)).collect();
    region.outer.edges.iter_mut().zip(own).filter(|(_, holds)| *holds).for_each(|(edge, _)| edge.tag = tag);
}

/// A straight line of the flat: metal to its left stays.
#[derive(Clone, Copy)]
struct Line {
    point: Point,
    along: Vector,
}

impl Line {
    /// How far a point lies to the left, mm.
    fn left(&self, point: Point) -> f64 {
        self.along.cross(point - self.point)
    }

    /// A rectangle over everything to the right (or the left) within `reach`, its edge on the line with this tag.
    fn beyond(&self, reach: f64, right: bool, tag: u32) -> Outline {
        let out = if right { -self.along.left() } else { self.along.left() };
        let corner = |u: f64, v: f64, tag: u32| (self.point + self.along * u + out * v, tag);
        Outline::polygon(&[
            corner(-reach, 0.0, tag),
            corner(reach, 0.0, 0),
            corner(reach, reach, 0),
            corner(-reach, reach, 0),
        ])
        .counter_clockwise()
    }
}

/// Sine of the angle between a line and a bend below which the line runs along the bend and not across it.
const LENGTHWISE: f64 = 1e-3;
/// Nearer to the line than this a place is on it, mm.
const ON: f64 = 1e-5;

/// Parts every node that a line meets. Returns no joints: what lies on both sides is no longer one node.
fn along_line(
    flat: &mut Flat,
    name: &str,
    (panel_name, edge): (&str, &str),
    (distance, turn, reach): (f64, f64, SplitReach),
    unit: LengthUnit,
) -> Result<Parted, Finding> {
    let panel = flat.find_panel(panel_name).map_err(|fault| fault.at_field("at.line.panel"))?;
    let datum = datum(flat, panel, edge).map_err(|fault| fault.at_field("at.line.edge"))?;
    let (sine, cosine) = turn.sin_cos();
    let turned = |v: Vector| Vector::new(v.x * cosine - v.y * sine, v.x * sine + v.y * cosine);
    let point = datum.point + datum.along * (datum.length / 2.0) + datum.inward * distance;
    // What lies toward the edge is to the left of the line, and keeps its names.
    let line = Line { point, along: turned(datum.inward).left() };
    let scope: Vec<usize> = match reach {
        SplitReach::Panel => vec![panel],
        SplitReach::Flat => (0..flat.nodes.len()).collect(),
    };
    let span = flat.nodes.iter().fold(1.0f64, |far, node| {
        let around = node.region.extents();
        far.max(2.0 * (around.width() + around.height()) + point.distance(around.centre()))
    });
    check_crossed(flat, &scope, &line, name)?;
    let mut walls: Vec<[String; 2]> = Vec::new();
    let own_met = sides_of(&flat.nodes[panel].region, &line);
    if own_met != (true, true) {
        return Err(Finding::error(
            format!(
                "the line {} from {edge} does not leave a part of {panel_name} on both its sides",
                length_text(distance, unit)
            ),
            "Move the line, or turn it.",
        )
        .at_field("at.line.distance"));
    }
    let mut moved: Vec<(usize, usize)> = Vec::new();
    let mut twins: Vec<(String, String)> = Vec::new();
    for &at in &scope {
        if sides_of(&flat.nodes[at].region, &line) != (true, true) {
            continue;
        }
        let before = flat.nodes[at].clone();
        let (stays, goes) = cut_names(flat, name, panel, at);
        let (near, far) = if before.is_panel() {
            (flat.tag(stays.clone(), TagKind::Edge), flat.tag(goes.clone(), TagKind::Edge))
        } else {
            (flat.tag(stays.clone(), TagKind::BendEnd), flat.tag(goes.clone(), TagKind::BendEnd))
        };
        let staying = subtract(&before.region, &line.beyond(span, true, near));
        let moving = subtract(&before.region, &line.beyond(span, false, far));
        let (1, 1) = (staying.len(), moving.len()) else {
            return Err(Finding::error(
                format!("the line would leave {} in more than two pieces", before.stands()),
                "Turn or move the line, or part the piece in two steps.",
            )
            .at_field("at.line.distance"));
        };
        let far_name = if at == panel { name.to_string() } else { format!("{name}.{}", before.name) };
        flat.nodes[at].region = Arc::new(staying.into_iter().next().unwrap_or_default());
        let region = moving.into_iter().next().unwrap_or_default();
        let laid = region.extents();
        flat.nodes.push(Node {
            name: far_name,
            kind: before.kind.clone(),
            region: Arc::new(region),
            laid,
            is_shell: before.is_shell,
        });
        let far_at = flat.nodes.len() - 1;
        tighten(flat, at);
        tighten(flat, far_at);
        moved.push((at, far_at));
        if before.is_panel() {
            for (node, tag, full) in [(at, near, &stays), (far_at, far, &goes)] {
                if let Some(line) = flat.segments_of(node, tag).first().copied() {
                    let sides = ["start".to_string(), "end".to_string()];
                    flat.edges.push(EdgeRecord {
                        name: full.clone(),
                        tag,
                        panel: node,
                        line,
                        sides,
                        bends: Vec::new(),
                    });
                }
            }
            twins.extend(rename_far(flat, (at, far_at), &before, &[near, far], &line));
        }
        walls.push([stays, goes]);
    }
    settle_bends(flat, name, &moved, &line);
    settle_holes(flat, &moved);
    for at in moved.iter().flat_map(|&(near, far)| [near, far]).collect::<Vec<_>>() {
        if flat.nodes[at].is_panel() {
            settle_edges(flat, at);
        }
    }
    Ok(Parted { walls, twins, halves: moved, ..Parted::default() })
}

/// What the two walls of a cut through a node are called: the side that stays, the side that goes.
fn cut_names(flat: &Flat, name: &str, panel: usize, at: usize) -> (String, String) {
    let node = &flat.nodes[at];
    let far = if at == panel { name.to_string() } else { format!("{name}.{}", node.name) };
    let bend = if node.is_panel() { "" } else { ".bend" };
    (format!("{}{bend}.cut-{name}", node.name), format!("{far}{bend}.cut-{name}"))
}

/// Whether metal lies to the left and to the right of a line.
fn sides_of(region: &Region, line: &Line) -> (bool, bool) {
    let (mut low, mut high) = (f64::INFINITY, f64::NEG_INFINITY);
    for (segment, _) in region.outer.segments() {
        let steps = if segment.is_line() { 1 } else { 32 };
        for step in 0..=steps {
            let off = line.left(segment.at(f64::from(step) / f64::from(steps)));
            (low, high) = (low.min(off), high.max(off));
        }
    }
    (high > ON, low < -ON)
}

/// Refuses a line that runs through a hole or a tab, or lengthwise through a bend.
fn check_crossed(flat: &Flat, scope: &[usize], line: &Line, name: &str) -> Result<(), Finding> {
    let crosses = |outline: &Outline| sides_of(&Region::solid(outline.clone()), line) == (true, true);
    if let Some(form) = flat.forms.iter().find(|form| scope.contains(&form.panel) && crosses(&form.outline)) {
        return Err(Finding::error(
            format!("{name} runs through the form {}", form.name),
            "Move the line clear of it, or press it after parting the piece.",
        )
        .at_field("at.line.distance"));
    }
    for hole in flat.holes.iter().filter(|hole| scope.contains(&hole.panel)) {
        // A hole far along the line but off the metal is not in its way: the line has no ends, the holes do.
        if crosses(&hole.outline) {
            return Err(Finding::error(
                format!("{name} runs through {}", hole.name),
                "Move the line clear of it, or cut it after parting the piece.",
            )
            .at_field("at.line.distance"));
        }
    }
    for tab in flat.tabs.iter().filter(|tab| scope.contains(&tab.panel)) {
        if line.left(tab.root.start) * line.left(tab.root.end) < 0.0 {
            return Err(Finding::error(
                format!("{name} runs through the tab {}", tab.name),
                "Move the line clear of it.",
            )
            .at_field("at.line.distance"));
        }
    }
    for &at in scope {
        let node = &flat.nodes[at];
        if let NodeKind::Strip(strip) = &node.kind
            && sides_of(&node.region, line) == (true, true)
            && strip.along.cross(line.along).abs() < LENGTHWISE
        {
            return Err(Finding::error(
                format!("{name} runs lengthwise through the bend {}", node.name),
                "Part the piece at one of its tangent lines, or move the line.",
            )
            .at_field("at.line.distance"));
        }
    }
    Ok(())
}

/// A strip's frame begins and ends where its metal does.
fn tighten(flat: &mut Flat, at: usize) {
    let node = &mut flat.nodes[at];
    node.laid = node.region.extents();
    let NodeKind::Strip(strip) = &mut node.kind else { return };
    let us: Vec<f64> = node.region.outer.edges.iter().map(|edge| strip.local(edge.start).0).collect();
    let (low, high) = us.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(l, h), &u| (l.min(u), h.max(u)));
    if low < high {
        strip.origin = strip.place(low, 0.0);
        strip.length = high - low;
    }
}

/// Edges of the part that goes: those that both parts have get a name of their own there, the others go with it.
fn rename_far(
    flat: &mut Flat,
    (near, far): (usize, usize),
    before: &Node,
    cuts: &[u32],
    line: &Line,
) -> Vec<(String, String)> {
    let mut twins = Vec::new();
    let own = flat.nodes[far].name.clone();
    let mut tags: Vec<u32> = flat.nodes[far].region.outer.edges.iter().map(|edge| edge.tag).collect();
    tags.sort_unstable();
    tags.dedup();
    for tag in tags.into_iter().filter(|tag| !cuts.contains(tag)) {
        let record = flat.tags[tag as usize].clone();
        if record.kind != TagKind::Edge {
            continue;
        }
        let Some(index) = flat.edges.iter().position(|edge| edge.tag == tag && edge.panel == near) else { continue };
        if flat.segments_of(near, tag).is_empty() {
            flat.edges[index].panel = far;
            continue;
        }
        let short = record.name.strip_prefix(&format!("{}.", before.name)).unwrap_or(&record.name).to_string();
        let full = format!("{own}.{short}");
        let fresh = flat.tag(full.clone(), TagKind::Edge);
        let region = Arc::make_mut(&mut flat.nodes[far].region);
        region.outer.edges.iter_mut().filter(|edge| edge.tag == tag).for_each(|edge| edge.tag = fresh);
        if let Some(own) = flat.segments_of(far, fresh).first().copied() {
            let sides = flat.edges[index].sides.clone();
            twins.push((record.name.clone(), full.clone()));
            flat.edges.push(EdgeRecord { name: full, tag: fresh, panel: far, line: own, sides, bends: Vec::new() });
        }
    }
    // An edge that a bend took and that lay beyond the line belongs to what the bend hangs on now.
    for at in 0..flat.edges.len() {
        let edge = &flat.edges[at];
        let beyond = [edge.line.start, edge.line.end].iter().all(|&place| line.left(place) < ON);
        if edge.panel == near && beyond && flat.segments_of(near, edge.tag).is_empty() {
            flat.edges[at].panel = far;
        }
    }
    twins
}

/// Bends beside what was parted: each half of a strip is a bend of its own, and a whole one hangs on the part that it touches.
fn settle_bends(flat: &mut Flat, name: &str, moved: &[(usize, usize)], line: &Line) {
    let far_of = |node: usize| moved.iter().find(|(near, _)| *near == node).map(|(_, far)| *far);
    for at in 0..flat.bends.len() {
        let bend = flat.bends[at].clone();
        let beyond = |node: usize| line.left(flat.nodes[node].region.centroid()) < 0.0;
        // Of a neighbour that was parted its own half, of a whole one that it lies on that side.
        let far = |node: Option<usize>| node.and_then(|node| far_of(node).or_else(|| beyond(node).then_some(node)));
        let near = |node: Option<usize>| node.filter(|&node| far_of(node).is_some() || !beyond(node));
        match far_of(bend.strip) {
            Some(strip) => {
                let (parent, flange) = (far(bend.parent), far(bend.flange));
                let own = flange.map_or(format!("{name}.{}", bend.name), |node| flat.nodes[node].name.clone());
                let stays = (near(bend.parent), near(bend.flange));
                (flat.bends[at].parent, flat.bends[at].flange) = stays;
                flat.nodes[strip].name.clone_from(&own);
                flat.bends.push(Bend { name: own, strip, parent, flange, edge: None, ..bend });
            }
            // A whole strip lies on one side.
            None if beyond(bend.strip) => {
                let there = |node: Option<usize>| node.map(|node| far_of(node).unwrap_or(node));
                (flat.bends[at].parent, flat.bends[at].flange) = (there(bend.parent), there(bend.flange));
            }
            None => {}
        }
    }
}

/// Holes that lie in the part that goes.
fn settle_holes(flat: &mut Flat, moved: &[(usize, usize)]) {
    for at in 0..flat.holes.len() {
        let (panel, centre, tag) = (flat.holes[at].panel, flat.holes[at].centre, flat.holes[at].tag);
        let Some(&(_, far)) = moved.iter().find(|(near, _)| *near == panel) else { continue };
        let stands = |node: usize| {
            let region = &flat.nodes[node].region;
            region.outlines().any(|outline| outline.edges.iter().any(|edge| edge.tag == tag))
                || region.outer.contains(centre)
        };
        if stands(panel) {
            continue;
        }
        if stands(far) {
            Arc::make_mut(&mut flat.holes)[at].panel = far;
        }
    }
    for at in 0..flat.forms.len() {
        let (panel, centre) = (flat.forms[at].panel, flat.forms[at].centre);
        let Some(&(_, far)) = moved.iter().find(|(near, _)| *near == panel) else { continue };
        if !flat.nodes[panel].region.outer.contains(centre) && flat.nodes[far].region.outer.contains(centre) {
            Arc::make_mut(&mut flat.forms)[at].panel = far;
        }
    }
    for at in 0..flat.ribs.len() {
        let (strip, centre) = (flat.ribs[at].strip, flat.ribs[at].centre);
        let Some(&(_, far)) = moved.iter().find(|(near, _)| *near == strip) else { continue };
        if !flat.nodes[strip].region.outer.contains(centre) && flat.nodes[far].region.outer.contains(centre) {
            Arc::make_mut(&mut flat.ribs)[at].strip = far;
        }
    }
    for at in 0..flat.tabs.len() {
        let (panel, middle) = (flat.tabs[at].panel, flat.tabs[at].root.at(0.5));
        let Some(&(_, far)) = moved.iter().find(|(near, _)| *near == panel) else { continue };
        let on =
            |node: usize| flat.nodes[node].region.outer.segments().any(|(one, _)| one.distance_to(middle) < TRACED);
        if !on(panel) && on(far) {
            flat.tabs[at].panel = far;
        }
    }
}
