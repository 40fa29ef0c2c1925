//! Tabs: narrow flanges that lie on the inner face of the panel beside them, in the plane of one that is left out, or in a rim's.

use crate::finding::Finding;
use crate::quantity::tolerance::PARALLEL;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::sheet::bending::mould_setback;
use crate::space::{Point3, Vector3};
use crate::work::sheet::{TabHeld, TransitionJoint};

use super::extras::fresh;
use super::faces::{Face, FacePart, Rim, Surface};
use super::halves::{Frame, Heights, TOO_FLAT, apart_half};
use super::joints::{Joints, each_tab, known, left_out, pair};
use super::numbers::{EdgeTabNumbers, TransitionNumbers};
use super::walls::newell;

/// A tab on an edge of a panel.
#[derive(Clone, Debug)]
pub(super) struct Tab {
    /// The panel that has it, and which of its edges.
    pub parent: usize,
    pub edge: usize,
    /// Its own face.
    pub face: usize,
    /// From flat, toward the inside where positive, radians.
    pub angle: f64,
    /// From the panel's edge to the bend's tangent line, and from the tab's own edge to it, mm.
    pub back: (f64, f64),
    /// The panel beside it.
    beside: Option<usize>,
    /// Whether that covers the edge, lying on the tab.
    covered: bool,
    /// How far its outer corners lie from the plane that it should lie on, mm.
    pub off_plane: f64,
    pub held: TabHeld,
}

/// The bend that a face has by a tab at one of its edges: into which face, by which angle, and how far back from the edge it begins.
pub(super) fn bend_at(tabs: &[Tab], face: usize, edge: usize) -> Option<(usize, f64, f64)> {
    tabs.iter().find_map(|tab| match () {
        () if tab.parent == face && tab.edge == edge => Some((tab.face, tab.angle, tab.back.0)),
        () if tab.face == face && edge == 0 => Some((tab.parent, tab.angle, tab.back.1)),
        () => None,
    })
}

/// Whether a panel lies on a tab of the one beside it.
pub(super) fn lies_on_tab(tabs: &[Tab], face: usize, beside: usize) -> bool {
    tabs.iter().any(|tab| tab.parent == beside && tab.covered && tab.beside == Some(face))
}

/// An edge that gets a tab.
struct Spot {
    parent: usize,
    edge: usize,
    /// The panel beside it, where there is one.
    beside: Option<usize>,
    /// What is beside it: that panel's name, or the rim's.
    name: String,
    field: String,
}

/// Steeper than this no tab is bent, radians: 170 deg.
const MOST_BENT: f64 = 170.0 * std::f64::consts::PI / 180.0;

/// Adds the faces of the tabs.
///
/// # Errors
/// Names that are not there, edges that have a bend, two tabs at one edge, panels too flat to each other for a tab, a tab that has no
/// length at its outer edge.
pub(super) fn add(
    surface: &mut Surface,
    given: &TransitionNumbers,
    joints: &Joints,
    (heights, thickness): (&[Heights], f64),
    unit: LengthUnit,
) -> Result<Vec<Tab>, Finding> {
    let without = left_out(surface, given)?;
    let mut all: Vec<Tab> = Vec::new();
    for (at, which, names) in each_tab(given) {
        let spot = spot(surface, joints, names, format!("tabs.{at}.along.{which}"))?;
        let taken = |tab: &Tab| {
            let own = (tab.parent, tab.edge) == (spot.parent, spot.edge);
            own || (spot.beside == Some(tab.parent) && tab.beside == Some(spot.parent))
        };
        if without[spot.parent] || all.iter().any(taken) {
            let why =
                if without[spot.parent] { "is left out" } else { "has a tab at that edge, or the panel beside it has" };
            let message = format!("{} {why}", names[0]);
            return Err(Finding::error(message, "Keep one tab an edge, on a panel that is there.").at_field(spot.field));
        }
        let tab = &given.tabs[at];
        let made = tab_at(surface, given, tab, &spot, (&without, heights, thickness), (joints, unit))
            .map_err(|fault| fault.at_field(&spot.field))?;
        all.push(made);
    }
    Ok(all)
}

fn spot(surface: &Surface, joints: &Joints, names: &[String; 2], field: String) -> Result<Spot, Finding> {
    let parent = known(surface, &names[0], &field)?;
    let owners = surface.owners();
    let corners = &surface.faces[parent].corners;
    let mut there = Vec::new();
    for edge in 0..corners.len() {
        let (from, to) = (corners[edge], corners[(edge + 1) % corners.len()]);
        let beside = owners.get(&(to, from)).copied();
        let name = match beside {
            Some(beside) => surface.faces[beside].name.clone(),
            None => surface.rims.get(&(from, to)).map_or("side", |rim| rim.name.as_str()).to_string(),
        };
        if name == names[1] {
            let bent = beside.is_some_and(|beside| joints.get(&pair(parent, beside)) == Some(&TransitionJoint::Bend));
            if bent {
                let message = format!("the edge of {} and {} is bent", names[0], names[1]);
                return Err(Finding::error(message, "A tab stands along an edge that is cut.").at_field(field));
            }
            return Ok(Spot { parent, edge, beside, name, field });
        }
        there.push(name);
    }
    Err(Finding::error(
        format!("nothing beside {} is called {}", names[0], names[1]),
        format!("Beside it are {}.", there.join(", ")),
    )
    .at_field(field))
}

fn tab_at(
    surface: &mut Surface,
    given: &TransitionNumbers,
    tab: &EdgeTabNumbers,
    spot: &Spot,
    (without, heights, thickness): (&[bool], &[Heights], f64),
    (joints, unit): (&Joints, LengthUnit),
) -> Result<Tab, Finding> {
    let face = surface.faces[spot.parent].clone();
    let frame = Frame::new(surface, &face, spot.edge);
    let own = heights[spot.parent];
    let (from, to) = (face.corners[spot.edge], face.corners[(spot.edge + 1) % face.corners.len()]);
    let beside = spot.beside.filter(|&beside| !without[beside]);
    // The half of space that the tab's outer face bounds, where it lies on what is beside it.
    let lies_on = match (spot.beside, beside) {
        (_, Some(beside)) => (-surface.faces[beside].outward, heights[beside].1 + given.gap),
        (Some(gone), None) => (-surface.faces[gone].outward, 0.0),
        (None, None) => surface.rims.get(&(from, to)).map_or((frame.inward, 0.0), |rim| (rim.keeps, rim.by)),
    };
    let into = lies_on.0.dot(frame.inward);
    let (angle, shift) = match tab.angle {
        Some(angle) => {
            let half = match beside {
                Some(beside) => apart_half(surface, (spot.parent, beside), &frame, (own, heights[beside]), given)?,
                None => lies_on,
            };
            let back = frame.stands_back(half.0, half.1, own);
            (angle, back.ok_or_else(|| too_flat(surface, &face, spot))?)
        }
        None => {
            let turn = face.outward.angle_to(-lies_on.0);
            let beyond = lies_on.0.cross(-frame.along).dot(frame.up);
            if into < TOO_FLAT.sin() {
                return Err(too_flat(surface, &face, spot));
            }
            (if beyond >= 0.0 { turn } else { -turn }, (lies_on.1 - own.0) / into)
        }
    };
    if angle.abs() > MOST_BENT {
        let message = format!("the tab would be bent by {}", angle_text(angle.abs()));
        return Err(Finding::error(message, "Put it on the other panel, or give it another angle."));
    }
    // Both have the metal on the same side of the surface, so one reach holds for both.
    let outside = (own.0 == 0.0) == (angle > 0.0);
    let reach = match outside {
        true => mould_setback(angle.abs(), given.radius, thickness),
        false => given.radius * (angle.abs() / 2.0).tan(),
    };
    let (sine, cosine) = angle.sin_cos();
    let way = frame.up * sine - frame.inward * cosine;
    let up = frame.up * cosine + frame.inward * sine;
    // Clipped from where its flat part begins.
    let lean = if tab.clip.cos() < PARALLEL { 0.0 } else { 1.0 / tab.clip.tan() };
    // Its flat part from an end of the edge, along which `inner` runs: how far in it begins so that it keeps within what stands there.
    let set_in = |corner: usize, inner: Vector3| {
        let long = (tab.width - reach).max(0.0);
        let base = frame.inward * shift + way * reach;
        let places = [base, base + (way + inner * lean) * long];
        let places = places.into_iter().flat_map(|place| [own.0, own.1].map(|height| place + up * height));
        let places: Vec<Vector3> = places.collect();
        let halves = stands_there(surface, spot, (corner, without), heights, (given, joints));
        let needed = halves.into_iter().flat_map(|(normal, by)| {
            let runs = normal.dot(inner);
            let needed = move |place: &Vector3| (runs > TOO_FLAT.sin()).then(|| (by - normal.dot(*place)) / runs);
            places.iter().filter_map(needed).collect::<Vec<_>>()
        });
        needed.fold(0.0, f64::max)
    };
    let [start_in, finish_in] = [set_in(from, frame.along), set_in(to, -frame.along)];
    let [from, to] = [from, to].map(|corner| surface.points[corner] + frame.inward * shift);
    let from = from + frame.along * (start_in - reach * lean);
    let to = to + frame.along * (reach * lean - finish_in);
    let (start, finish) = (from + (way + frame.along * lean) * tab.width, to + (way - frame.along * lean) * tab.width);
    if (finish - start).dot(frame.along) < PARALLEL {
        return Err(Finding::error(
            format!("a tab {} wide has no length left at its outer edge", length_text(tab.width, unit)),
            "Make it narrower, or clip its ends more steeply.",
        ));
    }
    let first = surface.points.len();
    surface.points.extend([to, from, start, finish]);
    let corners: Vec<usize> = (first..first + 4).collect();
    let outward = -newell(&surface.points, &corners);
    let side = |end: Point3, base: Point3, along: Vector3| {
        let clipped = (end - base).unit();
        (along - clipped * along.dot(clipped)).unit()
    };
    let sides = [
        ((first + 1, first + 2), "start", side(start, from, frame.along)),
        ((first + 2, first + 3), "outer", -way),
        ((first + 3, first), "finish", side(finish, to, -frame.along)),
    ];
    for (edge, name, keeps) in sides {
        surface.rims.insert(edge, Rim { name: name.into(), keeps, by: 0.0 });
    }
    // Of its outer face, against the plane that it should lie on.
    let away = |place: Point3| {
        let outer = place + outward * -own.0;
        ((outer - frame.from).dot(lies_on.0) - lies_on.1).abs()
    };
    let off_plane = away(start).max(away(finish));
    let name = fresh(surface, format!("{}-tab-{}", face.name, spot.name));
    surface.faces.push(Face { name, corners, outward, part: FacePart::Tab, gone: false });
    Ok(Tab {
        parent: spot.parent,
        edge: spot.edge,
        face: surface.faces.len() - 1,
        angle,
        back: (shift + reach, reach),
        beside: spot.beside,
        covered: beside.is_some() && tab.angle.is_none(),
        off_plane,
        held: tab.held,
    })
}

/// The halves of space that a tab keeps to at an end of its edge: of what its panel and the one beside it have there.
fn stands_there(
    surface: &Surface,
    spot: &Spot,
    (corner, without): (usize, &[bool]),
    heights: &[Heights],
    (given, joints): (&TransitionNumbers, &Joints),
) -> Vec<(Vector3, f64)> {
    let owners = surface.owners();
    let mut all = Vec::new();
    for panel in std::iter::once(spot.parent).chain(spot.beside) {
        let corners = &surface.faces[panel].corners;
        for k in 0..corners.len() {
            let (from, to) = (corners[k], corners[(k + 1) % corners.len()]);
            if from != corner && to != corner {
                continue;
            }
            match owners.get(&(to, from)) {
                Some(&next) if next == spot.parent || Some(next) == spot.beside => {}
                Some(&next) if without[next] => all.push((-surface.faces[next].outward, 0.0)),
                Some(&next) => {
                    all.push((-surface.faces[next].outward, heights[next].1 + given.gap));
                    // Clear of the metal of a bend there, on the flat of the panel.
                    if joints.get(&pair(panel, next)) == Some(&TransitionJoint::Bend) {
                        let face = &surface.faces[panel];
                        let angle = face.outward.angle_to(surface.faces[next].outward);
                        let back = mould_setback(angle, given.radius, heights[panel].1 - heights[panel].0);
                        all.push((Frame::new(surface, face, k).inward, back + given.gap));
                    }
                }
                None => all.extend(surface.rims.get(&(from, to)).map(|rim| (rim.keeps, rim.by))),
            }
        }
    }
    all
}

fn too_flat(surface: &Surface, face: &Face, spot: &Spot) -> Finding {
    let beside = spot.beside.map_or("the rim", |beside| surface.faces[beside].name.as_str());
    Finding::error(
        format!("{} and {beside} lie too flat to each other for a tab", face.name),
        "Give the tab an angle, or weld edge to edge.",
    )
}
