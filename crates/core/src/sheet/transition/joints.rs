//! What becomes of each edge between two panels: bent as long as the bends are a forest, or apart.

use std::collections::{BTreeMap, HashMap};

use crate::finding::Finding;
use crate::quantity::{LengthUnit, length_text};
use crate::work::sheet::{TransitionCorners, TransitionJoint};

use super::faces::{FacePart, Surface};
use super::numbers::{EdgeNumbers, TransitionNumbers};

/// By the places of two faces, the lesser first.
pub(super) type Joints = BTreeMap<(usize, usize), TransitionJoint>;

/// Two faces in their order.
pub(super) fn pair(one: usize, two: usize) -> (usize, usize) {
    (one.min(two), one.max(two))
}

/// The face of a name.
///
/// # Errors
/// There is none, with those that there are.
pub(super) fn known(surface: &Surface, name: &str, field: &str) -> Result<usize, Finding> {
    surface.faces.iter().position(|face| face.name == name).ok_or_else(|| {
        let names: Vec<&str> = surface.faces.iter().map(|face| face.name.as_str()).collect();
        Finding::error(format!("there is no panel called {name}"), format!("Its panels are {}.", names.join(", ")))
            .at_field(field)
    })
}

/// Which faces are left out.
///
/// # Errors
/// Names that are not there; all of them.
pub(super) fn left_out(surface: &Surface, given: &TransitionNumbers) -> Result<Vec<bool>, Finding> {
    let mut without = vec![false; surface.faces.len()];
    for (at, name) in given.without.iter().enumerate() {
        without[known(surface, name, &format!("without.{at}"))?] = true;
    }
    if without.iter().all(|&out| out) {
        return Err(Finding::error("every panel is left out", "Leave at least one.").at_field("without"));
    }
    Ok(without)
}

/// Faces that hang together by bends.
struct Trees(Vec<usize>);

impl Trees {
    fn root(&mut self, at: usize) -> usize {
        let mut at = at;
        while self.0[at] != at {
            self.0[at] = self.0[self.0[at]];
            at = self.0[at];
        }
        at
    }

    /// Puts two together; `false` where they hang together already.
    fn join(&mut self, (one, two): (usize, usize)) -> bool {
        let (one, two) = (self.root(one), self.root(two));
        self.0[one] = two;
        one != two
    }
}

/// How willingly an edge is bent where nothing is said of it, the first first; `None` for never.
fn willing(one: FacePart, two: FacePart) -> Option<usize> {
    use FacePart::{Collar, End, Flange, Wall};
    // Tabs have no neighbours but the panel that they are bent from.
    match (one, two) {
        (Wall, Wall) => Some(0),
        (Wall, Collar(_) | Flange(_)) | (Collar(_) | Flange(_), Wall) => Some(1),
        // A rim where a panel is left out runs along the faces at the ends too.
        (End(_), Flange(_)) | (Flange(_), End(_)) => Some(1),
        (Wall, End(_)) | (End(_), Wall) => Some(2),
        _ => None,
    }
}

/// What becomes of the edge between every two neighbours. `unmade` are names that edges may say their own of and that are no faces yet.
///
/// # Errors
/// Names that are not there or are no neighbours, bends that close a ring.
pub(super) fn joints(
    surface: &Surface,
    given: &TransitionNumbers,
    unmade: &[String],
    unit: LengthUnit,
) -> Result<Joints, Finding> {
    let without = left_out(surface, given)?;
    let owners = surface.owners();
    let mut between: BTreeMap<(usize, usize), (usize, usize)> = BTreeMap::new();
    for (&(from, to), &face) in &owners {
        if let Some(&next) = owners.get(&(to, from)) {
            let at = between.entry(pair(face, next)).or_insert((from, to));
            *at = (*at).min((from.min(to), from.max(to)));
        }
    }
    let mut all = Joints::new();
    let mut trees = Trees((0..surface.faces.len()).collect());
    for (at, EdgeNumbers { between: names, joint, .. }) in given.edges.iter().enumerate() {
        if names.iter().any(|name| unmade.contains(name)) {
            continue;
        }
        let field = format!("edges.{at}.between");
        let both = pair(known(surface, &names[0], &field)?, known(surface, &names[1], &field)?);
        if !between.contains_key(&both) {
            return Err(Finding::error(
                format!("{} and {} are no neighbours", names[0], names[1]),
                "Name two panels that share an edge.",
            )
            .at_field(&field));
        }
        all.insert(both, *joint);
    }
    part_tabs(surface, given, &between, &mut all)?;
    for &both in between.keys().filter(|(one, two)| without[*one] || without[*two]) {
        all.insert(both, TransitionJoint::Rip);
    }
    for (&both, joint) in &all {
        if *joint == TransitionJoint::Bend && !trees.join(both) {
            return Err(ring(surface, both, between[&both], unit));
        }
    }
    // The rest as far as no ring closes.
    let mut rest: Vec<(usize, usize)> = between.keys().copied().filter(|both| !all.contains_key(both)).collect();
    let kind = |&(one, two): &(usize, usize)| willing(surface.faces[one].part, surface.faces[two].part);
    rest.sort_by_key(|both| (kind(both), *both));
    let walls = surface.faces.iter().filter(|face| face.part == FacePart::Wall).count();
    for both in rest {
        let closing = walls > 2 && both == (0, walls - 1);
        let bent = match (kind(&both), given.corners) {
            (None, _) => false,
            (Some(0 | 2), TransitionCorners::Seams) => false,
            // The seam is where the walls begin and end.
            (Some(0), TransitionCorners::Bent) if closing => {
                let opened = all
                    .iter()
                    .any(|(&(one, two), joint)| *joint != TransitionJoint::Bend && kind(&(one, two)) == Some(0));
                opened && trees.join(both)
            }
            _ => trees.join(both),
        };
        let apart = match (kind(&both), given.corners) {
            // Beside a corner that is bent, what stands at the rim is open.
            (None, TransitionCorners::Bent) => TransitionJoint::Rip,
            _ => TransitionJoint::Seam,
        };
        all.insert(both, if bent { TransitionJoint::Bend } else { apart });
    }
    Ok(all)
}

/// Edges that get tabs are cut apart.
///
/// # Errors
/// An edge that is said to be bent.
fn part_tabs(
    surface: &Surface,
    given: &TransitionNumbers,
    between: &BTreeMap<(usize, usize), (usize, usize)>,
    all: &mut Joints,
) -> Result<(), Finding> {
    let place = |name: &String| surface.faces.iter().position(|face| face.name == *name);
    for (at, which, names) in each_tab(given) {
        let Some((one, two)) = place(&names[0]).zip(place(&names[1])) else { continue };
        let both = pair(one, two);
        if !between.contains_key(&both) {
            continue;
        }
        if all.get(&both) == Some(&TransitionJoint::Bend) {
            return Err(Finding::error(
                format!("the edge of {} and {} is bent, and a tab stands along it", names[0], names[1]),
                "Take the tab out, or do not ask for a bend there.",
            )
            .at_field(format!("tabs.{at}.along.{which}")));
        }
        all.insert(both, TransitionJoint::Rip);
    }
    Ok(())
}

/// Every edge of every tab with its places in the lists.
pub(super) fn each_tab(given: &TransitionNumbers) -> impl Iterator<Item = (usize, usize, &[String; 2])> {
    let tabs = given.tabs.iter().enumerate();
    tabs.flat_map(|(at, tab)| tab.along.iter().enumerate().map(move |(which, names)| (at, which, names)))
}

fn ring(surface: &Surface, (one, two): (usize, usize), (from, _): (usize, usize), unit: LengthUnit) -> Finding {
    let corner = surface.points[from];
    let n = |value: f64| length_text(value, unit);
    Finding::error(
        format!(
            "the bends close a ring at the edge of {} and {}, from the corner at x {}, y {}, z {}: the sheet cannot lie flat",
            surface.faces[one].name,
            surface.faces[two].name,
            n(corner.x),
            n(corner.y),
            n(corner.z)
        ),
        "Make that edge, or another one round, a seam or a rip.",
    )
    .at_field("edges")
}

/// Whether two faces at a corner hang together by bends round it.
pub(super) fn bent_round(surface: &Surface, joints: &Joints, (one, two): (usize, usize), corner: usize) -> bool {
    let at_corner: Vec<usize> =
        (0..surface.faces.len()).filter(|&at| surface.faces[at].corners.contains(&corner)).collect();
    let owners: HashMap<(usize, usize), usize> = surface.owners();
    let mut trees = Trees((0..surface.faces.len()).collect());
    for (&(from, to), &face) in &owners {
        let Some(&next) = owners.get(&(to, from)).filter(|_| from == corner || to == corner) else { continue };
        if joints.get(&pair(face, next)) == Some(&TransitionJoint::Bend) && at_corner.contains(&face) {
            trees.join((face, next));
        }
    }
    trees.root(one) == trees.root(two)
}
