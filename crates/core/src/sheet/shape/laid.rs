//! A shape in numbers.

use crate::finding::Finding;
use crate::plane::{Box2, Edge, MODELLING_TOLERANCE, Outline, Point, Vector, segment_distance};
use crate::quantity::{LengthUnit, length_text};
use crate::work::shape::PlacedBy;

use super::standing::Standing;

/// Two edges are compared this share of the shorter one off their corner.
const OFF_CORNER: f64 = 1e-3;
/// But no further off it than this, mm.
const MOST_OFF: f64 = 1e-2;
/// And have parted where they are this share of that apart: 0.1 mrad.
const PARTED: f64 = 1e-4;

/// A shape in numbers: an outline whose edges have names, and the holes that belong to it.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Laid {
    /// Counter-clockwise; the tag of an edge is one more than its name's place in `names`.
    pub outer: Outline,
    /// Names of edges. A round rim of two half circles has one name.
    pub names: Vec<String>,
    /// Holes by name, counter-clockwise.
    pub holes: Vec<(String, Outline)>,
    /// How a solved outline stands; `None` for any other shape.
    pub standing: Option<Standing>,
}

impl Laid {
    /// From edges in order, each with its start, its bulge and its name.
    pub(super) fn from_edges(edges: &[(Point, f64, String)]) -> Laid {
        let mut laid = Laid::default();
        for (start, bulge, name) in edges {
            let tag = laid.name(name);
            laid.outer.edges.push(Edge { start: *start, bulge: *bulge, tag });
        }
        laid.outer = laid.outer.counter_clockwise();
        laid
    }

    /// From straight edges.
    pub(super) fn polygon(edges: &[(Point, &str)]) -> Laid {
        let edges: Vec<_> = edges.iter().map(|(start, name)| (*start, 0.0, (*name).to_string())).collect();
        Laid::from_edges(&edges)
    }

    /// A disc.
    pub(super) fn disc(centre: Point, radius: f64, name: &str) -> Laid {
        let mut laid = Laid::default();
        let tag = laid.name(name);
        laid.outer = Outline::circle(centre, radius, tag);
        laid
    }

    /// The tag of a name, made when it is new.
    pub(super) fn name(&mut self, name: &str) -> u32 {
        let place = self.names.iter().position(|known| known == name).unwrap_or_else(|| {
            self.names.push(name.to_string());
            self.names.len() - 1
        });
        place as u32 + 1
    }

    /// The name of an edge by its tag; `seam` where joining shapes left an edge that lies on none of theirs.
    pub(in crate::sheet) fn name_of(&self, tag: u32) -> &str {
        (tag as usize).checked_sub(1).and_then(|place| self.names.get(place)).map_or("seam", String::as_str)
    }

    /// Everything moved; `by` keeps lengths and handedness.
    pub(super) fn moved(&self, by: impl Fn(Point) -> Point) -> Laid {
        let mut next = self.clone();
        next.outer = self.outer.moved(&by);
        next.holes = self.holes.iter().map(|(name, outline)| (name.clone(), outline.moved(&by))).collect();
        if let Some(standing) = &mut next.standing {
            standing.loose.iter_mut().for_each(|loose| loose.place = by(loose.place));
            for point in &mut standing.points {
                let to = by(Point::new(point.x, point.y));
                (point.x, point.y) = (to.x, to.y);
            }
        }
        next
    }

    /// Moved so that a corner or the centre of its box lies on a point.
    pub(in crate::sheet) fn placed(&self, by: PlacedBy, at: Point) -> Laid {
        let around: Box2 = self.outer.extents();
        let from = match by {
            PlacedBy::Corner => around.low,
            PlacedBy::Centre => around.centre(),
        };
        let way = at - from;
        if way == Vector::default() { self.clone() } else { self.moved(|point| point + way) }
    }
}

/// The most edges of one outline.
pub const MOST_EDGES: usize = 2000;

/// Refuses an outline that is no closed shape: too few or too short edges, no area, or edges that meet or cross.
pub(super) fn check_simple(laid: &Laid, unit: LengthUnit) -> Result<(), Finding> {
    let segments: Vec<_> = laid.outer.segments().collect();
    let name = |at: usize| laid.name_of(segments[at].1);
    if segments.len() < 2 || segments.len() > MOST_EDGES {
        return Err(Finding::error(
            format!("an outline of {} edges cannot be laid: 2 to {MOST_EDGES} is possible", segments.len()),
            "Add the missing edges, or simplify the outline.",
        ));
    }
    if let Some(at) = segments.iter().position(|(one, _)| one.length() <= MODELLING_TOLERANCE) {
        return Err(Finding::error(
            format!("the edge {} has no length", name(at)),
            "Take it out, or give it a length.",
        ));
    }
    let boxes: Vec<Box2> = segments.iter().map(|(one, _)| one.extents()).collect();
    let count = segments.len();
    for one in 0..count {
        for two in one + 1..count {
            if !boxes[one].is_near(&boxes[two], MODELLING_TOLERANCE) {
                continue;
            }
            let (a, b) = (segments[one].0, segments[two].0);
            let meets = if count == 2 {
                // Two edges share both ends: they cross when their middles fall together.
                a.at(0.5).distance(b.at(0.5)) < MODELLING_TOLERANCE
            } else if two == one + 1 || (one == 0 && two == count - 1) {
                let shared = if two == one + 1 { a.end } else { a.start };
                touches_beyond(&a, &b, shared)
            } else {
                segment_distance(&a, &b) < MODELLING_TOLERANCE
            };
            if meets {
                return Err(Finding::error(
                    format!("the edges {} and {} run into each other", name(one), name(two)),
                    "Check the numbers on both, and which way the outline turns there.",
                ));
            }
        }
    }
    if laid.outer.area() <= MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!("the outline closes nothing in: {} round and no area", length_text(laid.outer.perimeter(), unit)),
            "Give it edges that go round a face.",
        ));
    }
    Ok(())
}

/// Whether two neighbours meet anywhere but in the corner that they share: one folds back on the other or cuts it.
pub(super) fn touches_beyond(one: &crate::plane::Segment, two: &crate::plane::Segment, shared: Point) -> bool {
    let far = |segment: &crate::plane::Segment| if segment.start == shared { segment.end } else { segment.start };
    let least = one.length().min(two.length());
    if one.distance_to(far(two)) < MODELLING_TOLERANCE || two.distance_to(far(one)) < MODELLING_TOLERANCE {
        return true;
    }
    // A little way off the corner they must have parted.
    let off = (least * OFF_CORNER).min(MOST_OFF);
    let near = |segment: &crate::plane::Segment| {
        let share = off / segment.length();
        segment.at(if segment.start == shared { share } else { 1.0 - share })
    };
    if near(one).distance(near(two)) < off * PARTED {
        return true;
    }
    if one.is_line() && two.is_line() {
        return false;
    }
    // Arcs may meet their neighbour again: look at the part of each beyond a hundredth.
    let cut = |segment: &crate::plane::Segment| {
        let from = if segment.start == shared { 0.01 } else { 0.0 };
        let to = if segment.start == shared { 1.0 } else { 0.99 };
        segment.part(from, to)
    };
    segment_distance(&cut(one), &cut(two)) < MODELLING_TOLERANCE
}
