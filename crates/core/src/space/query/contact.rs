//! Where two bodies lie against each other: faces that look at each other within a gap, what they share, and what its rim is.
//! Flat faces, and round ones about one axis, as a coped end on its tube. Other round faces touch in lines, which enclose no area:
//! they are no contact here.

use crate::patience;
use crate::plane::{Box2, Edge, Outline, Point, Segment, common_outlines};
use crate::quantity::tolerance::{NO_TURN, PARALLEL, ROUNDING};
use crate::space::{Body, BodyFace, Box3, Curve, Point3, Surface, Vector3};

/// How far below 1 the product of a face's normal and a round's may be where the round goes on from it.
const ALONG: f64 = 1e-6;

/// What a stretch of a patch's rim is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum RimKind {
    /// The first body's face ends there and the second's goes on.
    FirstStops,
    /// The second body's face ends there and the first's goes on.
    SecondStops,
    /// Both end there.
    BothStop,
    /// One goes on and the other turns away round a corner that touches its face.
    Flare,
}

/// A stretch of a patch's rim.
#[derive(Clone, Debug, PartialEq)]
pub struct Rim {
    /// What it is.
    pub kind: RimKind,
    /// Its length, mm.
    pub length: f64,
    /// Its middle.
    pub middle: Point3,
}

/// What two faces share.
#[derive(Clone, Debug, PartialEq)]
pub struct Patch {
    /// The faces, by index in each body.
    pub faces: [usize; 2],
    /// Area, mm2.
    pub area: f64,
    /// From the first face to the second, mm; below zero where they are in each other by rounding.
    pub gap: f64,
    /// The middle of it, about.
    pub place: Point3,
    /// Its outer rim. What runs round an opening is left out: nobody reaches it.
    pub rims: Vec<Rim>,
}

/// Faces that are less far in each other than this lie on each other, mm.
const WITHIN: f64 = 0.15;
/// Less area than this is an edge that touches, mm2.
const LEAST: f64 = 1.0;
/// Edges nearer than this to another lie on it, mm.
const NEAR: f64 = 2.0e-3;
/// How far chords stand from round edges that are no circles, mm.
const CHORD: f64 = 1.0e-3;

/// A face with the box around it.
struct Facing<'a> {
    index: usize,
    face: &'a BodyFace,
    around: Box3,
}

/// The flat faces of a body, its round ones that look out, and its round ones that look in.
fn facing(body: &Body) -> [Vec<Facing<'_>>; 3] {
    let mut all = [Vec::new(), Vec::new(), Vec::new()];
    for (index, face) in body.faces.iter().enumerate() {
        let kind = match &face.surface {
            Surface::Plane { .. } => 0,
            Surface::Cylinder { outward: true, .. } => 1,
            Surface::Cylinder { .. } => 2,
            _ => continue,
        };
        let mut around = Box3::EMPTY;
        for &(edge, _) in face.loops.first().into_iter().flatten() {
            let edge = &body.edges[edge];
            around.hold(body.corners[edge.from]);
            around.hold(body.corners[edge.to]);
            // A round edge may stand out from its ends by its radius.
            let reach = match &edge.curve {
                Curve::Circle { centre, radius, .. } => Some((*centre, *radius)),
                Curve::Ellipse { centre, long, .. } => Some((*centre, *long)),
                Curve::Cubic(points) => {
                    points.iter().for_each(|&point| around.hold(point));
                    None
                }
                Curve::Line => None,
            };
            if let Some((centre, reach)) = reach {
                let by = Vector3::new(reach, reach, reach);
                around.hold(centre + by);
                around.hold(centre + -by);
            }
        }
        all[kind].push(Facing { index, face, around });
    }
    all
}

/// Faces laid flat: a plane as it is, a round rolled out about its axis.
enum Chart {
    Plane { origin: Point3, across: Vector3, along: Vector3 },
    Round { point: Point3, axis: Vector3, across: Vector3, radius: f64 },
}

impl Chart {
    /// Where a place lies, near to a place that is known: a round is rolled out on from there.
    fn flat(&self, place: Point3, near: Option<Point>) -> Point {
        match self {
            Chart::Plane { origin, across, along } => {
                let arm = place - *origin;
                Point::new(arm.dot(*across), arm.dot(*along))
            }
            Chart::Round { point, axis, across, radius } => {
                let arm = place - *point;
                let turn = arm.dot(axis.cross(*across)).atan2(arm.dot(*across));
                let full = std::f64::consts::TAU;
                let known = near.map_or(turn, |near| near.x / radius);
                let turn = turn + full * ((known - turn) / full).round();
                Point::new(turn * radius, arm.dot(*axis))
            }
        }
    }

    /// The place over a flat one, half way across a gap.
    fn place(&self, at: Point, gap: f64) -> Point3 {
        match self {
            Chart::Plane { origin, across, along } => {
                *origin + *across * at.x + *along * at.y + across.cross(*along) * (gap / 2.0)
            }
            Chart::Round { point, axis, across, radius } => {
                let (sine, cosine) = (at.x / radius).sin_cos();
                let out = *across * cosine + axis.cross(*across) * sine;
                *point + out * (radius - gap / 2.0) + *axis * at.y
            }
        }
    }

    /// Whether a circle is one on the flat too.
    fn keeps_circles(&self) -> bool {
        matches!(self, Chart::Plane { .. })
    }
}

/// The outer rim of a face laid flat; edges are named by their index in the body and one.
fn outline(body: &Body, face: &BodyFace, chart: &Chart) -> Outline {
    let normal = match chart {
        Chart::Plane { across, along, .. } => across.cross(*along),
        Chart::Round { axis, .. } => *axis,
    };
    let mut edges: Vec<Edge> = Vec::new();
    let mut push = |place: Point3, bulge: f64, tag: u32| {
        let near = edges.last().map(|edge: &Edge| edge.start);
        edges.push(Edge { start: chart.flat(place, near), bulge, tag });
    };
    for &(index, ahead) in face.loops.first().into_iter().flatten() {
        let edge = &body.edges[index];
        let tag = index as u32 + 1;
        let start = body.corners[if ahead { edge.from } else { edge.to }];
        match (&edge.curve, body.round(index)) {
            (Curve::Circle { axis, .. }, Some(round)) if chart.keeps_circles() => {
                let way = if (axis.dot(normal) > 0.0) == ahead { 1.0 } else { -1.0 };
                // A whole circle, or nearly, is told in two.
                let parts = if round.sweep > std::f64::consts::PI { 2 } else { 1 };
                for part in 0..parts {
                    let share = part as f64 / parts as f64;
                    let at = round.at(round.sweep * if ahead { share } else { 1.0 - share });
                    push(at, way * (round.sweep / parts as f64 / 4.0).tan(), tag);
                }
            }
            (curve @ (Curve::Circle { .. } | Curve::Ellipse { .. }), Some(round)) => {
                let long = round.first.length().max(round.second.length());
                let step = 2.0 * (1.0 - (CHORD / long).min(0.5)).acos();
                let parts = match curve {
                    // Square to the axis of a round it is straight when rolled out: a few places keep it from turning back.
                    Curve::Circle { axis, .. } if axis.dot(normal).abs() > 1.0 - PARALLEL => 4,
                    _ => (round.sweep / step).ceil().max(4.0) as usize,
                };
                for part in 0..parts {
                    let share = part as f64 / parts as f64;
                    push(round.at(round.sweep * if ahead { share } else { 1.0 - share }), 0.0, tag);
                }
            }
            (Curve::Cubic(points), _) => {
                let count = points.len() - 1;
                let on = (0..count).step_by(3).map(|at| points[if ahead { at } else { count - at }]);
                on.for_each(|at| push(at, 0.0, tag));
            }
            _ => push(start, 0.0, tag),
        }
    }
    Outline { edges }.counter_clockwise()
}

/// Whether a flat face runs on over one of its edges round a corner that is tangent to it, away from the plane.
fn turns_away(body: &Body, beside: &[[Option<usize>; 2]], face: &Facing<'_>, edge: usize) -> bool {
    let Surface::Plane { normal, .. } = &face.face.surface else { return false };
    beyond_edge(beside, face, edge).any(|other| match &body.faces[other].surface {
        Surface::Cylinder { point, axis, outward: true, .. } => {
            let place = body.corners[body.edges[edge].from];
            let arm = place - *point;
            let out = (arm - *axis * arm.dot(*axis)).unit();
            out.dot(*normal) > 1.0 - ALONG
        }
        _ => false,
    })
}

fn beyond_edge<'a>(
    beside: &'a [[Option<usize>; 2]],
    face: &'a Facing<'_>,
    edge: usize,
) -> impl Iterator<Item = usize> + 'a {
    beside[edge].into_iter().flatten().filter(|&other| other != face.index)
}

/// Whether an edge only parts one surface in two: the face goes on beyond it.
fn is_seam(body: &Body, beside: &[[Option<usize>; 2]], face: &Facing<'_>, edge: usize) -> bool {
    beyond_edge(beside, face, edge).any(|other| face.face.surface.goes_on(&body.faces[other].surface, NEAR))
}

fn coaxial((point, axis): (Point3, Vector3), (other, way): (Point3, Vector3)) -> bool {
    axis.cross(way).length() < PARALLEL && (other - point).cross(axis).length() < NEAR
}

/// An edge of a rim in stretches between the corners that lie on it, which are sorted by x: the other face's edge may begin or end
/// along it.
fn stretches(edge: &Segment, corners: &[Point]) -> Vec<Segment> {
    let length = edge.length();
    if length < NEAR {
        return vec![*edge];
    }
    let around = edge.extents();
    let along = |corner: Point| {
        if edge.is_line() {
            return (corner - edge.start).dot((edge.end - edge.start).unit());
        }
        let (from, to) = (edge.start - edge.centre(), corner - edge.centre());
        let turn = from.cross(to).atan2(from.dot(to)) * edge.sweep().signum();
        turn.rem_euclid(std::f64::consts::TAU) * edge.radius()
    };
    let first = corners.partition_point(|corner| corner.x < around.low.x - NEAR);
    let mut cuts: Vec<f64> = corners[first..]
        .iter()
        .take_while(|corner| corner.x < around.high.x + NEAR)
        .filter(|&&corner| beyond(&around, corner) < NEAR && edge.distance_to(corner) < NEAR)
        .map(|&corner| along(corner))
        .filter(|&at| at > NEAR && at < length - NEAR)
        .collect();
    cuts.sort_by(f64::total_cmp);
    cuts.dedup_by(|next, known| *next - *known < NEAR);
    cuts.push(length);
    let mut from = 0.0;
    cuts.into_iter()
        .map(|to| {
            let part = edge.part(from / length, to / length);
            from = to;
            part
        })
        .collect()
}

/// How far a point lies out of a box along the axis where it is furthest: never more than its distance.
fn beyond(around: &Box2, at: Point) -> f64 {
    let x = (around.low.x - at.x).max(at.x - around.high.x);
    let y = (around.low.y - at.y).max(at.y - around.high.y);
    x.max(y)
}

/// The place in the second outline where the first begins, where both are one and the same: the ends of a mitre.
fn one_loop(mine: &Outline, theirs: &Outline) -> Option<usize> {
    let count = mine.edges.len();
    if count != theirs.edges.len() {
        return None;
    }
    let start = mine.edges.first()?.start;
    let shift = theirs.edges.iter().position(|edge| edge.start.distance(start) < NEAR)?;
    let turned = theirs.edges.iter().cycle().skip(shift);
    let same =
        |one: &Edge, other: &Edge| one.start.distance(other.start) < NEAR && (one.bulge - other.bulge).abs() < NO_TURN;
    mine.edges.iter().zip(turned).all(|(one, other)| same(one, other)).then_some(shift)
}

/// The stretches of two outlines that are one, a name each: where it begins and ends in the first outline, and its name in both.
fn named_stretches(mine: &Outline, theirs: &Outline, shift: usize) -> Vec<(Vec<Segment>, [usize; 2])> {
    let count = mine.edges.len();
    let mut found: Vec<(Vec<Segment>, [usize; 2])> = Vec::new();
    for (at, (segment, tag)) in mine.segments().enumerate() {
        let names = [tag as usize - 1, theirs.edges[(at + shift) % count].tag as usize - 1];
        match found.last_mut() {
            Some((stretch, known)) if *known == names => stretch.push(segment),
            _ => found.push((vec![segment], names)),
        }
    }
    found
}

/// Every place where faces of two bodies look at each other no further apart than `gap` mm.
pub fn contact(one: &Body, two: &Body, gap: f64) -> Vec<Patch> {
    let (first, second) = (facing(one), facing(two));
    let mut meeting = Meeting { one, two, sides: None, patches: Vec::new() };
    let near = |a: &Facing, b: &Facing| a.around.overlaps(&b.around, -gap - WITHIN);
    for a in &first[0] {
        patience::check();
        for b in second[0].iter().filter(|b| near(a, b)) {
            let (Surface::Plane { point, normal, across }, Surface::Plane { point: other, normal: way, .. }) =
                (&a.face.surface, &b.face.surface)
            else {
                continue;
            };
            let apart = (*other - *point).dot(*normal);
            if normal.dot(*way) > -1.0 + PARALLEL || !(-WITHIN..=gap + ROUNDING).contains(&apart) {
                continue;
            }
            let across = (*across - *normal * across.dot(*normal)).unit();
            meeting.look(a, b, &Chart::Plane { origin: *point, across, along: normal.cross(across) }, apart);
        }
    }
    // A tube's outside in the hollow of an end that is coped on it, whichever of the two it is.
    for (outside, inside, turned) in [(&first[1], &second[2], false), (&second[1], &first[2], true)] {
        for a in outside {
            patience::check();
            for b in inside.iter().filter(|b| near(a, b)) {
                let (
                    Surface::Cylinder { point, axis, across, radius, .. },
                    Surface::Cylinder { point: other, axis: way, radius: hollow, .. },
                ) = (&a.face.surface, &b.face.surface)
                else {
                    continue;
                };
                let apart = hollow - radius;
                if !(-WITHIN..=gap + ROUNDING).contains(&apart) || !coaxial((*point, *axis), (*other, *way)) {
                    continue;
                }
                // Rolled out as the hollow is: the rim of what is coped is the one that is welded along.
                let chart = Chart::Round { point: *point, axis: *axis, across: *across, radius: *hollow };
                if turned { meeting.look(b, a, &chart, apart) } else { meeting.look(a, b, &chart, apart) }
            }
        }
    }
    meeting.patches
}

/// A stretch of a rim, of one edge or of the chords of a curved one.
struct Run {
    kind: RimKind,
    edges: Vec<Segment>,
    /// The curved edges of either body that it runs along.
    curved: [Option<usize>; 2],
}

impl Run {
    /// Half way along it.
    fn middle(&self) -> Point {
        let mut left = self.edges.iter().map(Segment::length).sum::<f64>() / 2.0;
        for edge in &self.edges {
            let own = edge.length();
            if left <= own && own > 0.0 {
                return edge.at(left / own);
            }
            left -= own;
        }
        self.edges[0].start
    }

    /// Whether another goes on from it along the same curve.
    fn goes_on(&self, other: &Run) -> bool {
        let (Some(last), Some(next)) = (self.edges.last(), other.edges.first()) else { return false };
        let round = !last.is_line()
            && !next.is_line()
            && last.centre().distance(next.centre()) < NEAR
            && (last.radius() - next.radius()).abs() < NEAR;
        let curve = self.curved.iter().zip(&other.curved).any(|(one, two)| one.is_some() && one == two);
        self.kind == other.kind && last.end.distance(next.start) < NEAR && (round || curve)
    }
}

/// Stretches of a closed rim with those that are one curve joined: chords, and arcs that only a corner of the other face parts.
fn joined(runs: Vec<Run>) -> Vec<Run> {
    let mut all: Vec<Run> = Vec::new();
    for run in runs {
        match all.last_mut() {
            Some(last) if last.goes_on(&run) => last.edges.extend(run.edges),
            _ => all.push(run),
        }
    }
    if all.len() > 1 && all[all.len() - 1].goes_on(&all[0]) {
        let mut last = all.swap_remove(all.len() - 1);
        last.edges.append(&mut all[0].edges);
        all[0].edges = last.edges;
    }
    all
}

/// For each body, the faces beside each of its edges.
type Sides = [Vec<[Option<usize>; 2]>; 2];

struct Meeting<'a> {
    one: &'a Body,
    two: &'a Body,
    sides: Option<Sides>,
    patches: Vec<Patch>,
}

impl Meeting<'_> {
    /// Two faces on one chart: what they share, with its rims.
    fn look(&mut self, a: &Facing<'_>, b: &Facing<'_>, chart: &Chart, apart: f64) {
        let (one, two) = (self.one, self.two);
        let mine = outline(one, a.face, chart);
        let mut theirs = outline(two, b.face, chart);
        if let Chart::Round { radius, .. } = chart {
            // Rolled out from the same turn.
            let full = std::f64::consts::TAU * radius;
            let by = full * ((mine.extents().centre().x - theirs.extents().centre().x) / full).round();
            theirs = theirs.moved(|at| Point::new(at.x + by, at.y));
        }
        let whole = one_loop(&mine, &theirs);
        let shared = if whole.is_some() { vec![mine.clone()] } else { common_outlines(&mine, &theirs) };
        let area: f64 = shared.iter().map(Outline::area).sum();
        if area < LEAST {
            return;
        }
        let sides = self.sides.get_or_insert_with(|| [one.faces_at_edges(), two.faces_at_edges()]);
        let boxed = |outline: &Outline| -> Vec<(Segment, Box2, usize)> {
            let named = outline.segments().map(|(edge, tag)| (edge, edge.extents(), tag as usize - 1));
            let mut all: Vec<_> = named.collect();
            all.sort_by(|one, two| one.1.low.x.total_cmp(&two.1.low.x));
            all
        };
        let on = |edges: &[(Segment, Box2, usize)], at: Point| {
            edges
                .iter()
                .take_while(|(_, around, _)| around.low.x < at.x + NEAR)
                .filter(|(_, around, _)| beyond(around, at) < NEAR)
                .map(|(edge, _, name)| (edge.distance_to(at), *name))
                .filter(|(away, _)| *away < NEAR)
                .min_by(|one, two| one.0.total_cmp(&two.0))
                .map(|(_, edge)| edge)
        };
        let place = |at: Point| chart.place(at, apart);
        let mut rims = Vec::new();
        for (stretch, names) in whole.map(|shift| named_stretches(&mine, &theirs, shift)).unwrap_or_default() {
            let away = turns_away(one, &sides[0], a, names[0]) || turns_away(two, &sides[1], b, names[1]);
            rims.push(Rim {
                kind: if away { RimKind::Flare } else { RimKind::BothStop },
                length: stretch.iter().map(Segment::length).sum(),
                middle: place(stretch[stretch.len() / 2].at(if stretch.len() % 2 == 1 { 0.5 } else { 0.0 })),
            });
        }
        let mut corners: Vec<Point> = mine.edges.iter().chain(&theirs.edges).map(|edge| edge.start).collect();
        corners.sort_by(|one, two| one.x.total_cmp(&two.x));
        let (mine, theirs) = (boxed(&mine), boxed(&theirs));
        for outline in shared.iter().filter(|_| whole.is_none()) {
            let mut runs: Vec<Run> = Vec::new();
            for edge in outline.segments().flat_map(|(edge, _)| stretches(&edge, &corners)) {
                let middle = edge.at(0.5);
                let (of_one, of_two) = (on(&mine, middle), on(&theirs, middle));
                // Where a face only goes on under another name nobody stops.
                let of_one = of_one.filter(|&edge| !is_seam(one, &sides[0], a, edge));
                let of_two = of_two.filter(|&edge| !is_seam(two, &sides[1], b, edge));
                let away_one = of_one.is_some_and(|edge| turns_away(one, &sides[0], a, edge));
                let away_two = of_two.is_some_and(|edge| turns_away(two, &sides[1], b, edge));
                let kind = match (of_one, of_two) {
                    _ if away_one || away_two => RimKind::Flare,
                    (Some(_), Some(_)) => RimKind::BothStop,
                    (Some(_), None) => RimKind::FirstStops,
                    (None, Some(_)) => RimKind::SecondStops,
                    // On neither: inside one face, or too short to tell.
                    (None, None) => continue,
                };
                let curved = |body: &Body, edge: Option<usize>| {
                    edge.filter(|&edge| !matches!(body.edges[edge].curve, Curve::Line))
                };
                runs.push(Run { kind, edges: vec![edge], curved: [curved(one, of_one), curved(two, of_two)] });
            }
            rims.extend(joined(runs).into_iter().map(|run| Rim {
                kind: run.kind,
                length: run.edges.iter().map(Segment::length).sum(),
                middle: place(run.middle()),
            }));
        }
        let middle = shared.iter().max_by(|x, y| x.area().total_cmp(&y.area())).map(|one| one.extents().centre());
        self.patches.push(Patch {
            faces: [a.index, b.index],
            area,
            gap: apart,
            place: place(middle.unwrap_or_default()),
            rims,
        });
    }
}
