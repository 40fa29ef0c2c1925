//! Flanges, hems, joggles and cuts made again: across a centre line, or moved along the blank. Nothing is redrawn: the
//! same numbers are laid on the edges and panels that lie where the first ones come to.

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point, Segment, Vector};
use crate::quantity::LengthUnit;
use crate::work::sheet::{AgainAlong, Reach};

use super::again_numbers::{AgainMove, AgainNumbers};
use super::flat::{Flat, HoleCopy};
use super::hole::Made;
use super::read::OperationNumbers;
use super::{hole, slice};

/// A way to move points of the flat: a copy of nothing yet.
struct Moved(HoleCopy);

impl std::ops::Deref for Moved {
    type Target = HoleCopy;
    fn deref(&self) -> &HoleCopy {
        &self.0
    }
}

impl Moved {
    fn new(mirror: Option<(Point, Vector)>, shift: Vector) -> Moved {
        Moved(HoleCopy { of: String::new(), mirror, shift })
    }

    fn line(&self, line: &Segment) -> Segment {
        let (start, end) = (self.point(line.start), self.point(line.end));
        if self.mirror.is_some() { Segment::line(end, start) } else { Segment::line(start, end) }
    }
}

/// Does one operation on a flat: by whoever does all of them, since what is made again may be any.
pub(super) type Apply =
    fn(&mut Flat, &str, &OperationNumbers, &[(String, OperationNumbers)], LengthUnit) -> Result<Vec<Finding>, Finding>;

/// Makes operations again; `made` are the numbers of the operations so far.
///
/// # Errors
/// An operation that is not there or that cannot be made again; no edge or panel where it comes to; as the operation.
pub(super) fn again(
    flat: &mut Flat,
    name: &str,
    given: &AgainNumbers,
    made: &[(String, OperationNumbers)],
    unit: LengthUnit,
    apply: Apply,
) -> Result<Vec<Finding>, Finding> {
    let moves: Vec<(String, Moved)> = match &given.how {
        AgainMove::Mirror(panel, along) => {
            let at = flat.find_panel(panel).map_err(|fault| fault.at_field("how.mirror.panel"))?;
            let normal = match along {
                AgainAlong::X => Vector::new(1.0, 0.0),
                AgainAlong::Y => Vector::new(0.0, 1.0),
            };
            let mirror = Some((flat.nodes[at].laid.centre(), normal));
            vec![(name.to_string(), Moved::new(mirror, Vector::default()))]
        }
        AgainMove::Shift(count, by) => (1..*count)
            .map(|at| {
                let own = if *count == 2 { name.to_string() } else { format!("{name}.{at}") };
                (own, Moved::new(None, *by * at as f64))
            })
            .collect(),
    };
    let mut notes = Vec::new();
    for (stem, moved) in &moves {
        for (which, operation) in given.of.iter().enumerate() {
            let field = format!("of.{which}");
            let numbers =
                made.iter().find(|(own, _)| own == operation).map(|(_, numbers)| numbers).ok_or_else(|| {
                    let known: Vec<&str> = made.iter().map(|(own, _)| own.as_str()).collect();
                    Finding::error(
                        format!("there is no operation called {operation} before this one"),
                        format!("The operations before it are {}.", known.join(", ")),
                    )
                    .at_field(field.clone())
                })?;
            let own = format!("{stem}.{operation}");
            let found = one(flat, &own, operation, numbers, moved, made, unit, apply).map_err(|fault| {
                let inner = fault.field.is_none();
                if inner { fault.at_field(field.clone()) } else { fault }
            })?;
            notes.extend(found);
        }
    }
    Ok(notes)
}

fn one(
    flat: &mut Flat,
    own: &str,
    operation: &str,
    numbers: &OperationNumbers,
    moved: &Moved,
    made: &[(String, OperationNumbers)],
    unit: LengthUnit,
    apply: Apply,
) -> Result<Vec<Finding>, Finding> {
    let mut numbers = numbers.clone();
    match &mut numbers {
        OperationNumbers::Bend(bend) if bend.also.is_empty() && along_itself(flat, &bend.edge, moved).is_some() => {
            bend.set_in = moved_along(flat, &bend.edge, &bend.set_in, moved);
        }
        OperationNumbers::Hem(hem) if along_itself(flat, &hem.edge, moved).is_some() => {
            hem.set_in = moved_along(flat, &hem.edge, &hem.set_in, moved);
        }
        OperationNumbers::Joggle(joggle) if along_itself(flat, &joggle.edge, moved).is_some() => {
            joggle.set_in = moved_along(flat, &joggle.edge, &joggle.set_in, moved);
        }
        OperationNumbers::Bend(bend) => {
            let named: Vec<String> = bend.own.keys().cloned().collect();
            for name in named {
                let there = edge_there(flat, &name, moved)?.0;
                if let Some(own) = bend.own.remove(&name) {
                    bend.own.insert(there, own);
                }
            }
            let (edge, sides) = edge_there(flat, &bend.edge, moved)?;
            bend.edge = edge;
            bend.set_in = turned_sides(&bend.set_in, &sides);
            for also in &mut bend.also {
                *also = edge_there(flat, also, moved)?.0;
            }
        }
        OperationNumbers::Hem(hem) => {
            let (edge, sides) = edge_there(flat, &hem.edge, moved)?;
            hem.edge = edge;
            hem.set_in = turned_sides(&hem.set_in, &sides);
        }
        OperationNumbers::Joggle(joggle) => {
            let (edge, sides) = edge_there(flat, &joggle.edge, moved)?;
            joggle.edge = edge;
            joggle.set_in = turned_sides(&joggle.set_in, &sides);
        }
        OperationNumbers::Notch(notch) => {
            let length = flat.edges.iter().find(|edge| edge.name == notch.edge).map_or(0.0, |edge| edge.line.length());
            notch.edge = edge_there(flat, &notch.edge, moved)?.0;
            // From the other end of the edge, the row runs the other way.
            if let (Some(at), true) = (notch.at, moved.mirror.is_some()) {
                notch.at = Some(length - at - notch.spacing * (notch.count - 1) as f64);
            }
        }
        OperationNumbers::Holes(_) | OperationNumbers::Slots(_) => {
            return holes(flat, own, operation, moved, unit);
        }
        _ => {
            return Err(Finding::error(
                format!("{operation} cannot be made again: flanges, hems, joggles, notches and cuts can"),
                "Name one of those.",
            ));
        }
    }
    apply(flat, own, &numbers, made, unit)
}

/// The edge that lies where an edge comes to, with which of its sides each of the first's sides becomes.
fn edge_there(flat: &Flat, name: &str, moved: &Moved) -> Result<(String, [(String, String); 2]), Finding> {
    let edge = flat.edges.iter().find(|edge| edge.name == name).ok_or_else(|| {
        Finding::error(format!("there is no edge called {name} at this step"), "Check the operation.")
    })?;
    let line = moved.line(&edge.line);
    let near = |a: Point, b: Point| a.distance(b) < 10.0 * MODELLING_TOLERANCE;
    let there = flat
        .edges
        .iter()
        .find(|other| near(other.line.start, line.start) && near(other.line.end, line.end))
        .ok_or_else(|| {
            Finding::error(
                format!("no edge lies where {name} would come to"),
                "Check the centre line or the distance; the panel must have an edge there of the same length.",
            )
        })?;
    let (one, two) = if moved.mirror.is_some() { (1, 0) } else { (0, 1) };
    let sides = [(edge.sides[0].clone(), there.sides[one].clone()), (edge.sides[1].clone(), there.sides[two].clone())];
    Ok((there.name.clone(), sides))
}

/// How far along its own line an edge comes to lie, mm; `None` where it comes to another line.
fn along_itself(flat: &Flat, name: &str, moved: &Moved) -> Option<f64> {
    let edge = flat.edges.iter().find(|edge| edge.name == name)?;
    if moved.mirror.is_some() {
        return None;
    }
    let along = (edge.line.end - edge.line.start).unit();
    (along.cross(moved.shift).abs() < MODELLING_TOLERANCE).then(|| along.dot(moved.shift))
}

/// Set-ins of a flange moved along its edge: more at one end, less at the other. One that runs off is refused where it
/// is laid.
fn moved_along(
    flat: &Flat,
    name: &str,
    set_in: &std::collections::BTreeMap<String, f64>,
    moved: &Moved,
) -> std::collections::BTreeMap<String, f64> {
    let mut next = set_in.clone();
    if let (Some(by), Some(edge)) = (along_itself(flat, name, moved), flat.edges.iter().find(|edge| edge.name == name))
    {
        *next.entry(edge.sides[0].clone()).or_insert(0.0) += by;
        *next.entry(edge.sides[1].clone()).or_insert(0.0) -= by;
    }
    next
}

fn turned_sides(
    set_in: &std::collections::BTreeMap<String, f64>,
    sides: &[(String, String); 2],
) -> std::collections::BTreeMap<String, f64> {
    set_in
        .iter()
        .map(|(side, by)| {
            let to = sides.iter().find(|(from, _)| from == side).map_or(side, |(_, to)| to);
            (to.clone(), *by)
        })
        .collect()
}

/// Holes moved as they were made, into whichever panel they come to.
fn holes(
    flat: &mut Flat,
    own: &str,
    operation: &str,
    moved: &Moved,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let first: Vec<_> = flat.holes.iter().filter(|hole| hole.operation == operation).cloned().collect();
    let reach = first.first().map_or(Reach::Panel, |hole| hole.reach);
    // What a cut through the folded part left in each panel is made again panel by panel.
    let count = first.len();
    let mut by_panel: Vec<(usize, Vec<Made>)> = Vec::new();
    for (number, hole) in first.into_iter().enumerate() {
        let centre = moved.point(hole.centre);
        let copy = Some(HoleCopy { of: hole.name.clone(), ..moved.0.clone() });
        let outline = moved.outline(&hole.outline);
        let own_name = if count == 1 { own.to_string() } else { format!("{own}.{}", number + 1) };
        if reach == Reach::Flat {
            // It takes from whatever it meets where it comes to, as the first did.
            let made = Made { name: own_name, outline, centre, work: hole.work.clone(), copy };
            slice::cut_flat(flat, own, vec![made])?;
            continue;
        }
        let panel = (0..flat.nodes.len())
            .find(|&at| flat.nodes[at].is_panel() && flat.nodes[at].region.outer.contains(centre))
            .ok_or_else(|| {
                Finding::error(
                    format!("{} would come to where there is no panel", hole.name),
                    "Make the flange there first, or check the centre line or the distance.",
                )
            })?;
        let hole = Made { name: own_name, outline, centre, work: hole.work.clone(), copy };
        match by_panel.iter_mut().find(|(at, _)| *at == panel) {
            Some((_, list)) => list.push(hole),
            None => by_panel.push((panel, vec![hole])),
        }
    }
    for (panel, list) in by_panel {
        hole::put(flat, panel, own, list, unit)?;
    }
    Ok(Vec::new())
}
