//! Where holes go: the first by its place, the others by rows, round a circle, along an edge, or wherever they fit.

use crate::finding::Finding;
use crate::patience;
use crate::plane::{MODELLING_TOLERANCE, Outline, Point, Segment, Vector, common_area, segment_distance};
use crate::quantity::tolerance::{PARALLEL, ROUNDING};
use crate::quantity::{LengthUnit, decimal, length_text};
use crate::sheet::flat::{Flat, HoleCopy};
use crate::work::sheet::{HoleSide, Spacing, Stagger};

use super::corners::corners;
use super::datum::{Datum, datum};
use super::numbers::{AlongNumbers, HoleNumbers, RepeatNumbers, SpreadNumbers};

/// The share of its area that a hole may miss its own image by and still be one hole.
const OWN_IMAGE: f64 = 1e-6;

/// At most this many holes are made by one operation.
pub const MOST_HOLES: usize = 20_000;

/// The places of an operation's holes.
pub(super) struct Spread {
    /// The places as laid.
    pub centres: Vec<Point>,
    /// Mirror images after them: of which place, across the line through a point square to a unit vector. They are counted
    /// on from the places as laid, and may be images of images.
    pub mirrored: Vec<(usize, Point, Vector)>,
    /// The direction that a hole's x lies along, a unit vector.
    pub along: Vector,
    /// What is worth knowing: pitches that came out, how many fitted.
    pub notes: Vec<Finding>,
}

/// Places the holes of one operation.
///
/// # Errors
/// A line that is not there or is round, distances that fix one direction twice, a hole that is not there, more holes
/// than can be made.
pub(super) fn spread(flat: &Flat, panel: usize, given: &HoleNumbers, unit: LengthUnit) -> Result<Spread, Finding> {
    let mut data = Vec::new();
    for (at, from) in given.place.from.iter().enumerate() {
        let datum = datum(flat, panel, &from.edge).map_err(|fault| fault.at_field(format!("place.from.{at}.edge")))?;
        data.push((datum, from.distance, from.edge.clone()));
    }
    let mut along = data.first().map_or(Vector::new(1.0, 0.0), |(datum, ..)| datum.along);
    // How far a hole reaches from its centre in a direction, as it is turned here.
    let reach = |way: Vector| Reaching::new(given, along).to(way);
    for (from, (datum, distance, _)) in given.place.from.iter().zip(&mut data) {
        *distance += match from.to {
            HoleSide::Centre => 0.0,
            HoleSide::Near => reach(-datum.inward),
            HoleSide::Far => -reach(datum.inward),
        };
    }
    let first = match (&given.place.hole, &given.place.round) {
        (Some((hole, by)), _) => from_hole(flat, panel, hole)? + *by,
        (None, Some((edge, distance))) => in_round(flat, panel, edge, *distance)?,
        (None, None) => first_place(flat, panel, &data)?,
    };
    let mut notes = Vec::new();
    let centres = match &given.spread {
        SpreadNumbers::Rows(repeat) => rows(flat, panel, first, given, along, &data, repeat)?,
        SpreadNumbers::Circle(count, radius, start, sweep) => {
            let step = match sweep {
                Some(sweep) if *count > 1 => sweep / (*count - 1) as f64,
                Some(_) => 0.0,
                None => std::f64::consts::TAU / *count as f64,
            };
            (0..*count)
                .map(|at| {
                    let (sin, cos) = (start + step * at as f64).sin_cos();
                    first + Vector::new(cos, sin) * *radius
                })
                .collect()
        }
        SpreadNumbers::Points(points) => points.iter().map(|&by| first + along * by.x + along.left() * by.y).collect(),
        SpreadNumbers::Along(row) => {
            let (places, way) = along_edge(flat, panel, row, unit, &mut notes)?;
            along = way;
            places
        }
        SpreadNumbers::Corners(distance, other) => {
            no_other_place(given)?;
            corners(flat, panel, *distance, *other).map_err(|fault| fault.at_field("pattern.corners"))?
        }
        SpreadNumbers::Between(columns, rows, distance, other) => {
            no_other_place(given)?;
            let at = corners(flat, panel, *distance, *other).map_err(|fault| fault.at_field("pattern.between"))?;
            between([at[0], at[1], at[3]], *columns, *rows)
        }
        // Placed by the surface of the transition that has the rim: see `rim`.
        SpreadNumbers::Rim(_) => Vec::new(),
        SpreadNumbers::Fill(stagger, pitch, margin) => {
            fill(flat, panel, given, along, (*stagger, *pitch, *margin), unit, &mut notes)?
        }
    };
    let middle = flat.nodes[panel].laid.centre();
    let mirrored = images(&centres, given, along, middle);
    let all = centres.len() + mirrored.len();
    if all > MOST_HOLES {
        return Err(Finding::error(
            format!("this makes {all} holes; {MOST_HOLES} is the most for one operation"),
            "Use a larger pitch, or share them over several operations.",
        ));
    }
    Ok(Spread { centres, mirrored, along, notes })
}

/// Refuses a place of its own beside a pattern that has all its places from the edges.
pub(super) fn no_other_place(given: &HoleNumbers) -> Result<(), Finding> {
    let place = &given.place;
    if place.from.is_empty() && place.hole.is_none() && place.round.is_none() {
        return Ok(());
    }
    Err(Finding::error(
        "holes at the corners, or in a row on a rim, have their places by their distance from the edges",
        "Take the other place out, or place one hole and repeat it.",
    )
    .at_field("place"))
}

/// Rows and columns from the first corner, to the one at the other end of its row and to the one at the other end of its column. A
/// single one stands in the middle.
fn between([first, along, across]: [Point; 3], columns: usize, rows: usize) -> Vec<Point> {
    let share = |at: usize, of: usize| if of == 1 { 0.5 } else { at as f64 / (of - 1) as f64 };
    (0..rows)
        .flat_map(|row| (0..columns).map(move |column| (row, column)))
        .map(|(row, column)| first + (along - first) * share(column, columns) + (across - first) * share(row, rows))
        .collect()
}

/// The middle of a round edge: its centre, or a distance from the edge's middle towards it.
fn in_round(flat: &Flat, panel: usize, name: &str, distance: Option<f64>) -> Result<Point, Finding> {
    let own = || flat.edges.iter().filter(|edge| edge.panel == panel && !edge.line.is_line());
    let Some(edge) = own().find(|edge| edge.name == name) else {
        let known: Vec<&str> = own().map(|edge| edge.name.as_str()).take(12).collect();
        let panel = &flat.nodes[panel].name;
        return Err(Finding::error(
            format!("{panel} has no round edge called {name} at this step"),
            if known.is_empty() {
                format!("{panel} has no round edge: place it by distances from straight ones.")
            } else {
                format!("Its round edges are {}.", known.join(", "))
            },
        )
        .at_field("place.round.edge"));
    };
    let centre = edge.line.centre();
    let Some(distance) = distance else { return Ok(centre) };
    let middle = edge.line.at(0.5);
    Ok(middle + (centre - middle).unit() * distance)
}

/// How far an operation's hole reaches from its centre, mm.
struct Reaching(Outline);

impl Reaching {
    /// The hole about the origin, laid along a direction and turned as it is.
    fn new(given: &HoleNumbers, along: Vector) -> Reaching {
        let (sin, cos) = given.turn.sin_cos();
        let turned = Vector::new(along.x * cos - along.y * sin, along.x * sin + along.y * cos);
        Reaching(given.shape.outline(Point::default(), turned))
    }

    /// Its farthest point in this direction, a unit vector.
    fn to(&self, way: Vector) -> f64 {
        let seen = self.0.moved(|point| {
            let from = point - Point::default();
            Point::new(from.dot(way), from.dot(way.left()))
        });
        seen.extents().high.x
    }
}

/// What mirroring adds to the places as laid, across the centre lines through `middle`; see [`Spread::mirrored`].
fn images(centres: &[Point], given: &HoleNumbers, along: Vector, middle: Point) -> Vec<(usize, Point, Vector)> {
    let mut mirrored = Vec::new();
    if !given.mirror.0 && !given.mirror.1 {
        return mirrored;
    }
    let (sin, cos) = given.turn.sin_cos();
    let turned = Vector::new(along.x * cos - along.y * sin, along.x * sin + along.y * cos);
    let mut places: Vec<(Point, Outline)> =
        centres.iter().map(|&centre| (centre, given.shape.outline(centre, turned))).collect();
    for (wanted, line) in [(given.mirror.0, along), (given.mirror.1, along.left())] {
        for at in 0..if wanted { places.len() } else { 0 } {
            patience::check();
            let copy = HoleCopy { of: String::new(), mirror: Some((middle, line)), shift: Vector::default() };
            let (here, outline) = &places[at];
            let (there, image) = (copy.point(*here), copy.outline(outline));
            // What is its own image stays single; what only overlaps its image is refused where it is cut.
            let stays = here.distance(there) <= MODELLING_TOLERANCE
                && common_area(outline, &image) > outline.area() * (1.0 - OWN_IMAGE);
            if !stays {
                places.push((there, image));
                mirrored.push((at, middle, line));
            }
        }
    }
    mirrored
}

/// The centre of another hole of the same panel.
fn from_hole(flat: &Flat, panel: usize, name: &str) -> Result<Point, Finding> {
    let own = flat.holes.iter().filter(|hole| hole.panel == panel);
    own.clone().find(|hole| hole.name == name).map(|hole| hole.centre).ok_or_else(|| {
        let mut known: Vec<&str> = own.map(|hole| hole.name.as_str()).take(12).collect();
        known.sort_unstable();
        Finding::error(
            format!("there is no hole called {name} in {} at this step", flat.nodes[panel].name),
            if known.is_empty() {
                "Make that hole first, or place this one from edges.".to_string()
            } else {
                format!("The holes there are {}.", known.join(", "))
            },
        )
        .at_field("place.hole.hole")
    })
}

/// How many equal spaces a length is divided into: so many, or as few as keep within a pitch, mm.
pub(super) fn equal_spaces(wanted: Result<usize, f64>, long: f64) -> Result<usize, Finding> {
    // A pitch that divides the length to within the modelling tolerance is an exact fit.
    let spaces = wanted.unwrap_or_else(|pitch| (((long - MODELLING_TOLERANCE) / pitch).ceil() as usize).max(1));
    if spaces > MOST_HOLES {
        return Err(Finding::error(format!("this makes more than {MOST_HOLES} holes"), "Use a larger pitch."));
    }
    Ok(spaces)
}

/// A row of equal spaces along an edge, ends made or not.
fn along_edge(
    flat: &Flat,
    panel: usize,
    row: &AlongNumbers,
    unit: LengthUnit,
    notes: &mut Vec<Finding>,
) -> Result<(Vec<Point>, Vector), Finding> {
    let line = datum(flat, panel, &row.edge).map_err(|fault| fault.at_field("pattern.along.edge"))?;
    let (first_in, last_in) = row.inset;
    let usable = line.length - first_in - last_in;
    if usable <= MODELLING_TOLERANCE {
        return Err(Finding::error(
            format!(
                "insets of {} and {} leave nothing of {}, which is {} long",
                length_text(first_in, unit),
                length_text(last_in, unit),
                row.edge,
                length_text(line.length, unit)
            ),
            "Make the inset smaller.",
        )
        .at_field("pattern.along.inset"));
    }
    let spaces = equal_spaces(row.spaces, usable).map_err(|fault| fault.at_field("pattern.along.pitch"))?;
    let step = usable / spaces as f64;
    let start = line.point + line.along * first_in + line.inward * row.distance;
    let range = if row.ends { 0..=spaces } else { 1..=spaces - 1 };
    let places: Vec<Point> = range.map(|at| start + line.along * (step * at as f64)).collect();
    if places.is_empty() {
        return Err(Finding::error("one space without its ends leaves no hole", "Make more spaces, or make the ends.")
            .at_field("pattern.along"));
    }
    notes.push(Finding::hint(
        format!("{} holes, {spaces} spaces of {} along {}", places.len(), length_text(step, unit), row.edge),
        "",
    ));
    Ok((places, line.along))
}

/// As many whole holes as fit the panel with their margin, in rows centred on its box.
fn fill(
    flat: &Flat,
    panel: usize,
    given: &HoleNumbers,
    along: Vector,
    (stagger, pitch, margin): (Stagger, f64, f64),
    unit: LengthUnit,
    notes: &mut Vec<Finding>,
) -> Result<Vec<Point>, Finding> {
    let node = &flat.nodes[panel];
    let origin = Point::default();
    let (sin, cos) = given.turn.sin_cos();
    let x_axis = Vector::new(along.x * cos - along.y * sin, along.x * sin + along.y * cos);
    let sample = given.shape.outline(origin, x_axis);
    let around = sample.extents();
    let reach = sample.flatten(0.01).iter().map(|point| point.distance(origin)).fold(0.0, f64::max);
    let (row_step, shift) = match stagger {
        Stagger::Square => (pitch, 0.0),
        Stagger::Diagonal => (pitch / 2.0, pitch / 2.0),
        Stagger::Hexagonal => (pitch * 3f64.sqrt() / 2.0, pitch / 2.0),
    };
    let box_ = node.region.extents();
    let middle = box_.centre();
    // Room for centres, in the rows' own frame.
    let corners = [box_.low, Point::new(box_.high.x, box_.low.y), box_.high, Point::new(box_.low.x, box_.high.y)];
    let half = |way: Vector| corners.iter().map(|&corner| (corner - middle).dot(way).abs()).fold(0.0, f64::max);
    let (half_x, half_y) = (half(along), half(along.left()));
    let room_x = 2.0 * (half_x - margin) - around.width();
    let room_y = 2.0 * (half_y - margin) - around.height();
    let nothing = || {
        Finding::error(
            format!("no whole hole fits {} with a margin of {}", node.name, length_text(margin, unit)),
            "Make the holes or the margin smaller.",
        )
        .at_field("pattern.fill.margin")
    };
    if room_x < -MODELLING_TOLERANCE || room_y < -MODELLING_TOLERANCE {
        return Err(nothing());
    }
    let spaces = |room: f64, step: f64| ((room.max(0.0) + MODELLING_TOLERANCE) / step).floor();
    let (columns, lines) = (spaces(room_x, pitch), spaces(room_y, row_step));
    if (columns + 2.0) * (lines + 1.0) > 4.0 * MOST_HOLES as f64 {
        return Err(Finding::error(
            format!("a pitch of {} makes more than {MOST_HOLES} holes", length_text(pitch, unit)),
            "Use a larger pitch.",
        )
        .at_field("pattern.fill.pitch"));
    }
    let edges: Vec<(Segment, crate::plane::Box2)> = node
        .region
        .outlines()
        .flat_map(|one| one.segments().collect::<Vec<_>>())
        .map(|(one, _)| (one, one.extents()))
        .collect();
    let blind: Vec<&Outline> =
        flat.holes.iter().filter(|hole| hole.panel == panel && !hole.work.through).map(|hole| &hole.outline).collect();
    let fits = |centre: Point| {
        if !node.region.contains(centre) {
            return false;
        }
        let by = centre - origin;
        let near_enough = |box_: &crate::plane::Box2| {
            let gap = reach + margin;
            centre.x >= box_.low.x - gap
                && centre.x <= box_.high.x + gap
                && centre.y >= box_.low.y - gap
                && centre.y <= box_.high.y + gap
        };
        let mut own: Option<Vec<Segment>> = None;
        for (edge, box_) in edges.iter().filter(|(_, box_)| near_enough(box_)) {
            let _ = box_;
            let away = edge.distance_to(centre);
            if away >= reach + margin - MODELLING_TOLERANCE {
                continue;
            }
            let own =
                own.get_or_insert_with(|| sample.moved(|point| point + by).segments().map(|(one, _)| one).collect());
            if own.iter().any(|one| segment_distance(one, edge) < margin - MODELLING_TOLERANCE) {
                return false;
            }
        }
        !blind.iter().any(|one| one.extents().centre().distance(centre) < reach + margin + one.extents().width() / 2.0)
    };
    let mut places = Vec::new();
    for line in 0..=lines as usize {
        patience::check();
        let up = (line as f64 - lines / 2.0) * row_step;
        let shifted = line % 2 == 1 && shift > 0.0;
        let (from, count) = if shifted {
            (-columns / 2.0 * pitch - shift, columns as usize + 2)
        } else {
            (-columns / 2.0 * pitch, columns as usize + 1)
        };
        for column in 0..count {
            let centre = middle + along * (from + pitch * column as f64) + along.left() * up;
            if fits(centre) {
                places.push(centre);
            }
        }
    }
    if places.is_empty() {
        return Err(nothing());
    }
    let open = places.len() as f64 * sample.area();
    let whole = node.region.outer.area();
    notes.push(Finding::hint(
        format!("{} whole holes fit, {} % of {} is open", places.len(), decimal(100.0 * open / whole, 1), node.name),
        "",
    ));
    Ok(places)
}

fn first_place(flat: &Flat, panel: usize, data: &[(Datum, f64, String)]) -> Result<Point, Finding> {
    let centre = flat.nodes[panel].laid.centre();
    match data {
        [] => Ok(centre),
        [(one, distance, _)] => {
            // On the centre line square to the edge: keep the centre's place along it.
            let off = *distance - (centre - one.point).dot(one.inward);
            Ok(centre + one.inward * off)
        }
        [(one, first, one_name), (two, second, two_name), ..] => {
            let turn = one.inward.cross(two.inward);
            if turn.abs() < ROUNDING {
                return Err(Finding::error(
                    format!(
                        "{one_name} and {two_name} run the same way: two distances from them fix one direction twice"
                    ),
                    "Give one distance here; make a call-out of the other and let it be measured.",
                )
                .at_field("place.from"));
            }
            // Solve (p - a).n1 = d1, (p - b).n2 = d2.
            let (c1, c2) =
                (first + (one.point - centre).dot(one.inward), second + (two.point - centre).dot(two.inward));
            let x = (c1 * two.inward.y - c2 * one.inward.y) / turn;
            let y = (c2 * one.inward.x - c1 * two.inward.x) / turn;
            Ok(centre + Vector::new(x, y))
        }
    }
}

/// The centres of every repeat of a place.
fn rows(
    flat: &Flat,
    panel: usize,
    first: Point,
    given: &HoleNumbers,
    along: Vector,
    data: &[(Datum, f64, String)],
    repeat: &[RepeatNumbers],
) -> Result<Vec<Point>, Finding> {
    let mut centres = vec![first];
    for (at, row) in repeat.iter().enumerate() {
        let mut direction = match &row.along {
            Some(edge) => datum(flat, panel, edge).map_err(|fault| fault.at_field(format!("repeat.{at}.along")))?.along,
            None if at == 0 => along,
            None => along.left(),
        };
        // Where a distance fixes the place in this direction the row starts there and runs away from the edge;
        // elsewhere it is centred.
        let spacing = match row.spacing_is {
            Spacing::Centres => row.spacing,
            Spacing::Clear => {
                let own = Reaching::new(given, along);
                row.spacing + own.to(direction) + own.to(-direction)
            }
        };
        let fixed = data.iter().map(|(datum, ..)| datum.inward.dot(direction)).find(|dot| dot.abs() > PARALLEL);
        let start = match fixed {
            Some(dot) => {
                direction = direction * dot.signum();
                0.0
            }
            None => -((row.count - 1) as f64) / 2.0,
        };
        centres = (0..row.count)
            .flat_map(|step| {
                let by = direction * ((start + step as f64) * spacing);
                centres.iter().map(move |&centre| centre + by)
            })
            .collect();
    }
    Ok(centres)
}
