//! Names of faces, edges, holes and mould lines, and where they stand on the folded part.

use crate::plane::{Point, Segment, Vector};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, PARALLEL};
use crate::sheet::{
    Bend, BendSide, Hole, HoleFace, Part, TagKind, cut_edges, form_face, hole_face, rib_face, wall_called,
};
use crate::space::{Motion, Point3, Surface, Vector3};
use crate::work::sheet::{Direction, Face};

use super::MeasureError;

/// What a name stands for on the folded part.
#[derive(Clone, Debug)]
pub enum Feature {
    /// A face of a panel, or the wall of a straight edge.
    Plane {
        /// A point on it.
        point: Point3,
        /// Its unit normal.
        normal: Vector3,
        /// The corners of the face or wall, for directed distances.
        corners: Vec<Point3>,
    },
    /// A hole's axis, a mould line, or one border of an edge's wall.
    Line {
        /// A point on it.
        point: Point3,
        /// Its unit direction.
        direction: Vector3,
        /// Its ends, for directed distances.
        ends: [Point3; 2],
    },
}

impl Feature {
    /// The points that bound it.
    pub fn corners(&self) -> &[Point3] {
        match self {
            Feature::Plane { corners, .. } => corners,
            Feature::Line { ends, .. } => ends,
        }
    }
}

/// Finds a named feature: `base.front`, `base.front.top`, `upright.outside`, `base.bottom`, `bore`, `drain.3`,
/// `upright.mould-outside`.
///
/// # Errors
/// An unknown name, with the names there are; an edge that a bend took; `inside` of a panel that is bent both ways.
pub fn feature(part: &Part, name: &str) -> Result<Feature, MeasureError> {
    if let Some(hole) = part.flat.holes.iter().find(|hole| hole.name == name) {
        return Ok(axis_of(part, hole));
    }
    if part.flat.holes.iter().any(|hole| hole.operation == name) {
        return Err(MeasureError::new(
            format!("{name} is several holes"),
            format!("Name one of them, such as {name}.1."),
        ));
    }
    if let Some((at, face)) = hole_face(&part.flat, name) {
        return Ok(face_of_hole(part, &part.flat.holes[at], face));
    }
    if let Some(form) = part.flat.forms.iter().find(|form| form.name == name) {
        return Ok(axis_at(part, form.panel, form.centre));
    }
    if let Some((at, corners, normal)) = form_face(&part.flat, name) {
        let form = &part.flat.forms[at];
        let motion = part.folded.motion(form.panel).copied().unwrap_or(Motion::STILL);
        // What is round is measured from its axis.
        let Some(normal) = normal else { return Ok(axis_at(part, form.panel, form.centre)) };
        let corners: Vec<Point3> = corners.into_iter().map(|at| motion.apply(at)).collect();
        return Ok(Feature::Plane { point: corners[0], normal: motion.direction(normal), corners });
    }
    if let Some((strip, corners, surface)) = rib_face(&part.flat, name) {
        let motion = part.folded.strip_motion(strip).copied().unwrap_or(Motion::STILL);
        let corners: Vec<Point3> = corners.into_iter().map(|at| motion.apply(at)).collect();
        match surface {
            Surface::Plane { normal, .. } => {
                return Ok(Feature::Plane { point: corners[0], normal: motion.direction(normal), corners });
            }
            // What is round is measured from its axis.
            Surface::Cylinder { point, axis, .. } => {
                let (point, direction) = (motion.apply(point), motion.direction(axis));
                let along = corners.iter().map(|corner| (*corner - point).dot(direction));
                let (low, high) =
                    along.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), at| (low.min(at), high.max(at)));
                let ends = [low, high].map(|at| point + direction * at);
                return Ok(Feature::Line { point, direction, ends });
            }
            _ => {}
        }
    }
    if let Some(edge) = edge(part, name, None)? {
        return Ok(edge);
    }
    let (stem, last) = name.rsplit_once('.').unwrap_or((name, ""));
    if matches!(last, "top" | "bottom")
        && let Some(edge) = edge(part, stem, Some(last == "top"))?
    {
        return Ok(edge);
    }
    if let Some(panel) = part.flat.panel(stem)
        && let Some(top) = face_side(part, panel, stem, last)?
    {
        let z = if top { part.flat.thickness } else { 0.0 };
        let corners: Vec<Point3> = part.flat.nodes[panel]
            .region
            .outer
            .edges
            .iter()
            .map(|edge| part.folded.apply(panel, edge.start, z))
            .collect();
        let normal = panel_normal(part, panel) * if top { 1.0 } else { -1.0 };
        return Ok(Feature::Plane { point: corners[0], normal, corners });
    }
    // A face of a bend is round: it is measured from its axis, as a hole is.
    if let (true, Some(bend)) = (matches!(last, "top" | "bottom"), stem.strip_suffix(".bend"))
        && let Some(bend) = part.flat.bend(bend)
    {
        return Ok(bend_axis(part, bend));
    }
    if let Some(side) = BendSide::named(last)
        && part.flat.bend(stem).is_some()
    {
        return mould_line(part, stem, side);
    }
    Err(unknown(part, name))
}

/// The axis of a hole. A cut across bends may have its middle in one: its axis stands square to the metal there.
fn axis_of(part: &Part, hole: &Hole) -> Feature {
    let holds = |at: usize| part.flat.nodes[at].region.outer.contains(hole.centre);
    let there = if holds(hole.panel) { None } else { (0..part.flat.nodes.len()).find(|&at| holds(at)) };
    axis_at(part, there.unwrap_or(hole.panel), hole.centre)
}

/// A line square to the metal of a node at a place of the flat.
fn axis_at(part: &Part, node: usize, place: Point) -> Feature {
    let low = part.folded.apply(node, place, 0.0);
    let high = part.folded.apply(node, place, part.flat.thickness);
    Feature::Line { point: low, direction: (high - low).unit(), ends: [low, high] }
}

/// A seat or a floor is a plane that looks at the face it is worked from; what is round is measured from its axis.
fn face_of_hole(part: &Part, hole: &Hole, face: HoleFace) -> Feature {
    let HoleFace::Flat { depth, radius } = face else { return axis_of(part, hole) };
    let top = hole.work.face == Face::Top;
    let height = if top { part.flat.thickness - depth } else { depth };
    let sides = [(1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0)];
    let corners =
        sides.map(|(x, y)| part.folded.apply(hole.panel, hole.centre + Vector::new(x, y) * radius, height)).to_vec();
    let normal = panel_normal(part, hole.panel) * if top { 1.0 } else { -1.0 };
    Feature::Plane { point: corners[0], normal, corners }
}

fn unknown(part: &Part, name: &str) -> MeasureError {
    let stem = name.split('.').next().unwrap_or(name);
    let way_out = if part.flat.panel(stem).is_some() {
        let edges: Vec<String> =
            part.flat.edges.iter().filter(|e| e.name.split('.').next() == Some(stem)).map(|e| e.name.clone()).collect();
        format!("Of {stem} there are {}, and the faces {stem}.top and {stem}.bottom.", edges.join(", "))
    } else {
        let panels: Vec<&str> =
            part.flat.nodes.iter().filter(|node| node.is_panel()).map(|node| node.name.as_str()).collect();
        format!("The panels are {}.", panels.join(", "))
    };
    MeasureError::new(format!("there is nothing called {name} on the part"), way_out)
}

/// Upward unit normal of a folded panel.
pub(super) fn panel_normal(part: &Part, panel: usize) -> Vector3 {
    let up = Vector3::new(0.0, 0.0, 1.0);
    part.folded.motion(panel).map_or(up, |motion| motion.direction(up))
}

/// Upward unit normals of a folded strip: on its first tangent line, in its middle, on its second. From folded points
/// alone, so that they are right for any angle and any neighbour.
pub(super) fn strip_normals(part: &Part, node: usize) -> [Vector3; 3] {
    let Some(strip) = part.flat.nodes[node].strip() else { return [panel_normal(part, node); 3] };
    [0.0, 0.5, 1.0].map(|share| {
        let place = strip.place(strip.length / 2.0, strip.width * share);
        (part.folded.apply(node, place, part.flat.thickness) - part.folded.apply(node, place, 0.0)).unit()
    })
}

/// How far the sheet turns along a strip, radians: in two halves, so that a bend past 180 deg is told too.
pub(super) fn turned(part: &Part, node: usize) -> f64 {
    let [first, middle, second] = strip_normals(part, node);
    first.angle_to(middle) + middle.angle_to(second)
}

/// The wall of a straight edge, or one border of it; `None` when no edge has this name.
fn edge(part: &Part, name: &str, border: Option<bool>) -> Result<Option<Feature>, MeasureError> {
    let Some(record) = part.flat.edges.iter().find(|edge| edge.name == name) else {
        let called = || wall_called(&part.flat, name).map(|(node, all)| wall(part, name, node, &all, border));
        return cut_edge(part, name, border).or_else(called).or_else(|| unnamed_edge(part, name, border)).transpose();
    };
    let segments = part.flat.segments_of(record.panel, record.tag);
    if segments.is_empty() {
        if let Some(&bend) = record.bends.first() {
            let bend = &part.flat.bends[bend].name;
            return Err(MeasureError::new(
                format!("{name} is no longer an edge: operation {bend} bent it"),
                format!("Measure to {bend}.outside, {bend}.inside or {bend}.mould-outside."),
            ));
        }
        return Err(MeasureError::new(
            format!("nothing is left of the edge {name}"),
            "Measure to another edge or face.",
        ));
    }
    // Of an edge that trims have left in several planes, the one that is called as it is.
    let (panel, segments) = wall_called(&part.flat, name).unwrap_or((record.panel, segments));
    wall(part, name, panel, &segments, border).map(Some)
}

/// An edge that a cut has made, or one of its stretches, counted along the tool's side: `slot.side-2.base.1`.
fn cut_edge(part: &Part, name: &str, border: Option<bool>) -> Option<Result<Feature, MeasureError>> {
    let all = cut_edges(&part.flat);
    if let Some(edge) = all.iter().find(|edge| edge.name == name) {
        return Some(wall(part, name, edge.node, &edge.stretches, border));
    }
    let (stem, count) = name.rsplit_once('.')?;
    let edge = all.iter().find(|edge| edge.name == stem)?;
    let stretch = edge.stretches.get(count.parse::<usize>().ok()?.checked_sub(1)?)?;
    Some(wall(part, name, edge.node, std::slice::from_ref(stretch), border))
}

/// A tangent line by its joint alone, as documents of before the walls along it were told apart cite it.
fn unnamed_edge(part: &Part, name: &str, border: Option<bool>) -> Option<Result<Feature, MeasureError>> {
    let flat = &part.flat;
    flat.nodes.iter().enumerate().find_map(|(at, node)| {
        let own = node.region.outer.segments().filter(|(_, tag)| {
            flat.tags
                .get(*tag as usize)
                .is_some_and(|record| record.name == name && matches!(record.kind, TagKind::BendEnd | TagKind::Joint))
        });
        let mut stretches: Vec<Segment> = own.map(|(segment, _)| segment).collect();
        let first = *stretches.first()?;
        // One plane: what stands beside it is another.
        stretches.retain(|one| one.is_line() == first.is_line() && on_one_line(&first, one));
        Some(wall(part, name, at, &stretches, border))
    })
}

fn on_one_line(first: &Segment, other: &Segment) -> bool {
    let way = (first.end - first.start).unit();
    !first.is_line()
        || [other.start, other.end].iter().all(|&place| way.cross(place - first.start).abs() < MODELLING_TOLERANCE)
}

/// The wall over stretches of one edge of a node, or one border of it.
fn wall(
    part: &Part,
    name: &str,
    node: usize,
    segments: &[Segment],
    border: Option<bool>,
) -> Result<Feature, MeasureError> {
    if let Some(strip) = part.flat.nodes[node].strip() {
        // Across a bend only what is square to it stays in one plane, and what runs along it.
        let twisted = segments.iter().any(|one| {
            let (from, to) = (strip.local(one.start), strip.local(one.end));
            !one.is_line()
                || ((from.0 - to.0).abs() > MODELLING_TOLERANCE && (from.1 - to.1).abs() > MODELLING_TOLERANCE)
        });
        if twisted {
            return Err(MeasureError::new(
                format!("{name} runs aslant across a bend, so it is no plane and nothing is measured from it"),
                "Measure from the edge beside it, or on the blank.",
            ));
        }
    }
    let at = |point, z| part.folded.apply(node, point, z);
    let thickness = part.flat.thickness;
    if !segments[0].is_line() {
        // A round edge is measured from its axis, as a hole is.
        let centre = segments[0].centre();
        let (low, high) = (at(centre, 0.0), at(centre, thickness));
        return Ok(Feature::Line { point: low, direction: (high - low).unit(), ends: [low, high] });
    }
    if let Some(top) = border {
        let z = if top { thickness } else { 0.0 };
        let (start, end) = (at(segments[0].start, z), at(segments[segments.len() - 1].end, z));
        return Ok(Feature::Line { point: start, direction: (end - start).unit(), ends: [start, end] });
    }
    let corners: Vec<Point3> = segments
        .iter()
        .flat_map(|one| [at(one.start, 0.0), at(one.end, 0.0), at(one.start, thickness), at(one.end, thickness)])
        .collect();
    let along = (corners[1] - corners[0]).unit();
    // The wall's own height, which on a strip is no panel's normal.
    // Across a bend its chord leans to that height, so the product is less than one.
    let normal = along.cross((corners[2] - corners[0]).unit()).unit();
    Ok(Feature::Plane { point: corners[0], normal, corners })
}

/// Whether a face's name means the upper face; `None` when it names no face.
fn face_side(part: &Part, panel: usize, name: &str, face: &str) -> Result<Option<bool>, MeasureError> {
    let inside = match face {
        "top" => return Ok(Some(true)),
        "bottom" => return Ok(Some(false)),
        "inside" => true,
        "outside" => false,
        _ => return Ok(None),
    };
    if part.flat.nodes[panel].is_shell {
        return Ok(Some(inside));
    }
    let directions: Vec<Direction> = part
        .flat
        .bends
        .iter()
        .filter(|bend| bend.flange == Some(panel))
        .chain(part.flat.bends.iter().filter(|bend| bend.parent == Some(panel)))
        .map(|bend| part.flat.strip_of(bend).direction)
        .collect();
    let made_by_bend = part.flat.bends.iter().any(|bend| bend.flange == Some(panel));
    let Some(&first) = directions.first() else {
        return Err(MeasureError::new(
            format!("{name} has no bend, so it has no inside or outside"),
            format!("Use {name}.top or {name}.bottom."),
        ));
    };
    if !made_by_bend && directions.iter().any(|&one| one != first) {
        return Err(MeasureError::new(
            format!("{name} is bent both up and down, so it has no one outside"),
            format!("Use {name}.top or {name}.bottom."),
        ));
    }
    Ok(Some((first == Direction::Up) == inside))
}

/// The axis about which a bend is bent, as long as its line.
fn bend_axis(part: &Part, bend: &Bend) -> Feature {
    let strip = part.flat.strip_of(bend);
    let [up, ..] = strip_normals(part, bend.strip);
    // On the inside: above an up bend, below a down one.
    let (z, arm) = match strip.direction {
        Direction::Up => (part.flat.thickness, up * strip.radius),
        Direction::Down => (0.0, up * -strip.radius),
    };
    let ends = [0.0, strip.length].map(|u| part.folded.apply(bend.strip, strip.place(u, 0.0), z) + arm);
    Feature::Line { point: ends[0], direction: (ends[1] - ends[0]).unit(), ends }
}

/// The line where two faces beside a bend would meet, on the folded part.
fn mould_line(part: &Part, name: &str, side: BendSide) -> Result<Feature, MeasureError> {
    let Some(bend) = part.flat.bend(name) else { return Err(unknown(part, name)) };
    let strip = part.flat.strip_of(bend);
    let thickness = part.flat.thickness;
    let up = strip.direction == Direction::Up;
    let z = match side {
        BendSide::MouldOutside => {
            if up {
                0.0
            } else {
                thickness
            }
        }
        _ => {
            if up {
                thickness
            } else {
                0.0
            }
        }
    };
    let on_parent = |u: f64| part.folded.apply(bend.strip, strip.place(u, 0.0), z);
    let (start, end) = (on_parent(0.0), on_parent(strip.length));
    let (shift, ends) = match side {
        BendSide::Tangent => (Vector3::default(), [start, end]),
        _ => {
            // Meet of the two face planes in the plane square to the bend line, from folded points alone.
            let far = part.folded.apply(bend.strip, strip.place(0.0, strip.width), z);
            let [n1, _, n2] = strip_normals(part, bend.strip);
            let along = (end - start).unit();
            let on_first = n1.cross(along);
            let slope = on_first.dot(n2);
            if slope.abs() < PARALLEL {
                return Err(MeasureError::new(
                    format!("the faces beside {name} are parallel and have no mould line"),
                    format!("Measure to {name}.tangent."),
                ));
            }
            let by = on_first * ((far - start).dot(n2) / slope);
            (by, [start + by, end + by])
        }
    };
    Ok(Feature::Line { point: start + shift, direction: (end - start).unit(), ends })
}
