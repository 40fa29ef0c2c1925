//! From a shape's text to its outline. Every field is read and every fault reported, with its path.

use crate::finding::Finding;
use crate::plane::{MODELLING_TOLERANCE, Point, Vector};
use crate::quantity::tolerance::{NO_TURN, ROUNDING};
use crate::quantity::{Dimension, Expr, angle_text, length_text};
use crate::sheet::reader::Reader;
use crate::work::shape::{
    Across, BaseShape, Combined, CombinedPart, Drawn, Eared, Gusset, Lug, PlacedBy, Polygon, Profile, Run, RunLeg,
    Saying, SayingKind, Triangle, Underlay,
};

use super::laid::{Laid, MOST_EDGES, check_simple};
use super::ready::{self, EaredNumbers, GussetNumbers};
use super::run::{self, Leg};
use super::underlay::{self, UnderlayStands};
use super::{Standing, combine, drawn, open, profile};

/// Shapes within shapes go this deep and no deeper.
const MOST_DEEP: usize = 8;

/// Reads a shape whose fields begin with `path`. `None` when a field was bad; its findings are in the reader.
pub(in crate::sheet) fn read_shape(reader: &mut Reader<'_>, path: &str, shape: &BaseShape) -> Option<Laid> {
    shape_at(reader, path, shape, 0)
}

fn shape_at(reader: &mut Reader<'_>, path: &str, shape: &BaseShape, deep: usize) -> Option<Laid> {
    let unit = reader.given.names.show;
    let (kind, made) = match shape {
        BaseShape::Rectangle(given) => {
            let path = format!("{path}.rectangle");
            let width = reader.size(&format!("{path}.width"), &given.width, "a width");
            let depth = reader.size(&format!("{path}.depth"), &given.depth, "a depth");
            (path, Ok(ready::rectangle(width?, depth?)))
        }
        BaseShape::Circle(given) => {
            let path = format!("{path}.circle");
            let diameter = reader.size(&format!("{path}.diameter"), &given.diameter, "a diameter")?;
            (path, Ok(ready::circle(diameter)))
        }
        BaseShape::Ring(given) => {
            let path = format!("{path}.ring");
            let outside = reader.size(&format!("{path}.outside"), &given.outside, "an outside diameter");
            let inside = reader.size(&format!("{path}.inside"), &given.inside, "an inside diameter");
            (path, ready::ring(outside?, inside?, unit))
        }
        BaseShape::Obround(given) => {
            let path = format!("{path}.obround");
            let length = reader.size(&format!("{path}.length"), &given.length, "a length");
            let width = reader.size(&format!("{path}.width"), &given.width, "a width");
            (path, ready::obround(length?, width?, unit))
        }
        BaseShape::Polygon(given) => {
            let path = format!("{path}.polygon");
            let made = polygon(reader, &path, given)?;
            (path, Ok(made))
        }
        BaseShape::Triangle(given) => {
            let path = format!("{path}.triangle");
            let made = triangle(reader, &path, given)?;
            (path, Ok(made))
        }
        BaseShape::Gusset(given) => {
            let path = format!("{path}.gusset");
            let made = gusset(reader, &path, given)?;
            (path, made)
        }
        BaseShape::Lug(given) => {
            let path = format!("{path}.lug");
            let made = lug(reader, &path, given)?;
            (path, made)
        }
        BaseShape::Eared(given) => {
            let path = format!("{path}.eared");
            let made = eared(reader, &path, given)?;
            (path, made)
        }
        BaseShape::Run(given) => {
            let path = format!("{path}.run");
            let made = legs(reader, &path, given)?;
            (path, made)
        }
        BaseShape::Drawn(given) => {
            let path = format!("{path}.drawn");
            let made = sketched(reader, &path, given)?;
            (path, Ok(made))
        }
        BaseShape::Combined(given) => {
            let path = format!("{path}.combined");
            let made = combined(reader, &path, given, deep)?;
            (path, made)
        }
        BaseShape::Profile(given) => {
            let path = format!("{path}.profile");
            let made = from_file(reader, &path, given)?;
            (path, Ok(made))
        }
    };
    let checked = made.and_then(|laid| check_simple(&laid, unit).map(|()| laid));
    match checked {
        Ok(laid) => Some(laid),
        Err(mut fault) => {
            fault.field = Some(match fault.field {
                Some(field) => format!("{kind}.{field}"),
                None => kind,
            });
            reader.findings.push(fault);
            reader.blocked = true;
            None
        }
    }
}

fn polygon(reader: &mut Reader<'_>, path: &str, given: &Polygon) -> Option<Laid> {
    let sides = reader.count(&format!("{path}.sides"), &given.sides);
    let size = reader.size(&format!("{path}.size"), &given.size, "a size");
    let sides = sides?;
    if !(3..=360).contains(&sides) {
        reader.refuse(
            &format!("{path}.sides"),
            format!("a polygon of {sides} sides cannot be laid: 3 to 360 is possible"),
            "For a round plate lay down a circle.",
        );
        return None;
    }
    let inner = match given.across {
        Across::Flats => size? / 2.0,
        Across::Corners => size? / 2.0 * (std::f64::consts::PI / sides as f64).cos(),
    };
    Some(ready::polygon(sides, inner))
}

fn optional(reader: &mut Reader<'_>, field: &str, text: &Option<Expr>, wanted: &str) -> Option<f64> {
    match text {
        Some(text) => reader.zero_or_more(field, text, wanted),
        None => Some(0.0),
    }
}

fn optional_size(reader: &mut Reader<'_>, field: &str, text: &Option<Expr>, wanted: &str) -> Option<Option<f64>> {
    match text {
        Some(text) => reader.size(field, text, wanted).map(Some),
        None => Some(None),
    }
}

fn triangle(reader: &mut Reader<'_>, path: &str, given: &Triangle) -> Option<Laid> {
    let base = reader.size(&format!("{path}.base"), &given.base, "a base");
    let height = reader.size(&format!("{path}.height"), &given.height, "a height");
    let lean = match &given.lean {
        Some(text) => reader.length(&format!("{path}.lean"), text, "a place along the base"),
        None => Some(0.0),
    };
    Some(ready::triangle(base?, height?, lean?))
}

fn gusset(reader: &mut Reader<'_>, path: &str, given: &Gusset) -> Option<Result<Laid, Finding>> {
    let width = reader.size(&format!("{path}.width"), &given.width, "a foot");
    let height = reader.size(&format!("{path}.height"), &given.height, "an upright");
    let corner = optional(reader, &format!("{path}.corner"), &given.corner, "a clip");
    let toe = optional(reader, &format!("{path}.toe"), &given.toe, "a toe");
    let tip = optional(reader, &format!("{path}.tip"), &given.tip, "a tip");
    let unit = reader.given.names.show;
    let numbers = GussetNumbers { width: width?, height: height?, corner: corner?, toe: toe?, tip: tip? };
    Some(ready::gusset(&numbers, unit))
}

fn lug(reader: &mut Reader<'_>, path: &str, given: &Lug) -> Option<Result<Laid, Finding>> {
    let base = reader.size(&format!("{path}.base"), &given.base, "a base");
    let height = reader.size(&format!("{path}.height"), &given.height, "a height");
    let radius = reader.size(&format!("{path}.radius"), &given.radius, "a crown radius");
    let hole = optional_size(reader, &format!("{path}.hole"), &given.hole, "a hole diameter");
    let unit = reader.given.names.show;
    Some(ready::lug(base?, height?, radius?, hole?, unit))
}

fn eared(reader: &mut Reader<'_>, path: &str, given: &Eared) -> Option<Result<Laid, Finding>> {
    let body = reader.size(&format!("{path}.body"), &given.body, "a body diameter");
    let bore = optional_size(reader, &format!("{path}.bore"), &given.bore, "a bore diameter");
    let ears = reader.count(&format!("{path}.ears"), &given.ears);
    let circle = reader.size(&format!("{path}.circle"), &given.circle, "a bolt circle");
    let ear = reader.size(&format!("{path}.ear_radius"), &given.ear_radius, "an ear radius");
    let hole = optional_size(reader, &format!("{path}.hole"), &given.hole, "a hole diameter");
    let ears = ears?;
    if !(2..=36).contains(&ears) {
        reader.refuse(
            &format!("{path}.ears"),
            format!("{ears} ears cannot be laid: 2 to 36 is possible"),
            "For one ear put two circles together; for none lay down a circle.",
        );
        return None;
    }
    let unit = reader.given.names.show;
    let half = |diameter: f64| diameter / 2.0;
    let numbers = EaredNumbers {
        body: half(body?),
        bore: bore?.map(half),
        ears,
        circle: half(circle?),
        ear: ear?,
        hole: hole?.map(half),
    };
    Some(ready::eared(&numbers, unit))
}

fn legs(reader: &mut Reader<'_>, path: &str, given: &Run) -> Option<Result<Laid, Finding>> {
    let legs = read_legs(reader, &format!("{path}.legs"), &given.legs);
    let unit = reader.given.names.show;
    if let Some(metal) = &given.open {
        let thickness = reader.size(&format!("{path}.open.thickness"), &metal.thickness, "a thickness")?;
        return legs.map(|legs| open::open(&legs, thickness, metal.side, unit));
    }
    legs.map(|legs| run::run(&legs, given.close, unit))
}

/// Reads a chain of legs whose fields begin with `path`; each with its name.
pub(in crate::sheet) fn read_legs(reader: &mut Reader<'_>, path: &str, given: &[RunLeg]) -> Option<Vec<(String, Leg)>> {
    if given.len() > MOST_EDGES {
        reader.refuse(
            path,
            format!("a run of {} legs is too long: {MOST_EDGES} is the most", given.len()),
            "Bring the outline in from a file instead.",
        );
        return None;
    }
    let mut legs = Vec::new();
    let mut good = true;
    for (at, leg) in given.iter().enumerate() {
        let field = format!("{path}.{at}");
        let angle = |reader: &mut Reader<'_>, field: String, text: &Option<Expr>, wanted: &str| match text {
            Some(text) => reader.value(&field, text, Dimension::ANGLE, wanted).map(Some),
            None => Some(None),
        };
        let (name, read) = match leg {
            RunLeg::Line(line) => {
                let length = reader.size(&format!("{field}.line.length"), &line.length, "a length");
                let direction = angle(reader, format!("{field}.line.direction"), &line.direction, "a direction");
                let turn = angle(reader, format!("{field}.line.turn"), &line.turn, "a turn");
                let read = length.zip(direction).zip(turn).map(|((length, direction), turn)| Leg::Line {
                    length,
                    direction,
                    turn: turn.unwrap_or(0.0),
                });
                (&line.name, read)
            }
            RunLeg::Arc(arc) => {
                let radius = reader.size(&format!("{field}.arc.radius"), &arc.radius, "a radius");
                let sweep = reader.value(&format!("{field}.arc.sweep"), &arc.sweep, Dimension::ANGLE, "a sweep");
                let sweep = sweep.and_then(|sweep| {
                    if sweep.abs() > ROUNDING && sweep.abs() < 2.0 * std::f64::consts::PI - NO_TURN {
                        return Some(sweep);
                    }
                    reader.refuse(
                        &format!("{field}.arc.sweep"),
                        format!("a sweep of {} is no arc: above 0 and below 360 deg either way is", angle_text(sweep)),
                        "Left turns are positive, right turns negative.",
                    );
                    None
                });
                let turn = angle(reader, format!("{field}.arc.turn"), &arc.turn, "a turn");
                let read = radius.zip(sweep).zip(turn).map(|((radius, sweep), turn)| Leg::Arc {
                    radius,
                    sweep,
                    turn: turn.unwrap_or(0.0),
                });
                (&arc.name, read)
            }
            RunLeg::ArcThrough(arc) => {
                let field = format!("{field}.arc_through");
                let mut one = |name: &str, text: &str| reader.length(&format!("{field}.{name}"), text, "a distance");
                let values = [
                    one("through_x", &arc.through_x),
                    one("through_y", &arc.through_y),
                    one("x", &arc.x),
                    one("y", &arc.y),
                ];
                let read = match values {
                    [Some(a), Some(b), Some(c), Some(d)] => {
                        Some(Leg::Through { through: Vector::new(a, b), end: Vector::new(c, d) })
                    }
                    _ => None,
                };
                (&arc.name, read)
            }
        };
        let name = name.clone().unwrap_or_else(|| format!("leg-{}", at + 1));
        match read {
            Some(leg) => legs.push((name, leg)),
            None => good = false,
        }
    }
    good.then_some(legs)
}

/// A rough shape at another scale, so that what no number settles keeps its form; `None` at full size.
fn to_scale(given: &Drawn, scale: f64) -> Option<Drawn> {
    if scale == 1.0 {
        return None;
    }
    let mut own = given.clone();
    own.corners.iter_mut().flat_map(|one| [&mut one.x, &mut one.y]).for_each(|place| *place *= scale);
    own.circles.iter_mut().flat_map(|one| [&mut one.x, &mut one.y, &mut one.radius]).for_each(|place| *place *= scale);
    let guides = own.guides.iter_mut().flat_map(|one| [&mut one.x1, &mut one.y1, &mut one.x2, &mut one.y2]);
    guides.for_each(|place| *place *= scale);
    Some(own)
}

fn sketched(reader: &mut Reader<'_>, path: &str, given: &Drawn) -> Option<Laid> {
    const MOST_CORNERS: usize = 300;
    if !(2..=MOST_CORNERS).contains(&given.corners.len()) || given.says.len() > 4 * MOST_CORNERS {
        reader.refuse(
            &format!("{path}.corners"),
            format!(
                "{} corners and {} numbers: an outline has 2 to {MOST_CORNERS} corners and at most {} numbers",
                given.corners.len(),
                given.says.len(),
                4 * MOST_CORNERS
            ),
            "Click at least two corners; bring a longer outline in from a file.",
        );
        return None;
    }
    let own = to_scale(given, reader.given.names.scale());
    let given = own.as_ref().unwrap_or(given);
    let names = match drawn::Names::new(given) {
        Ok(names) => names,
        Err(fault) => {
            reader.refuse(&format!("{path}.{}", fault.field), fault.message, &fault.way_out);
            return None;
        }
    };
    let mut statements = Vec::new();
    for (at, saying) in given.says.iter().enumerate() {
        let field = format!("{path}.says.{at}");
        // What cannot be read is left out with an error: the shape keeps following the others.
        let Some(value) = saying_value(reader, &field, saying) else { continue };
        match names.statement(saying.what, &saying.of, value) {
            Ok(kind) => statements.push((at, words(saying), kind)),
            Err(takes) => {
                let of = if saying.of.is_empty() { "nothing".to_string() } else { saying.of.join(" and ") };
                reader.note(
                    Finding::error(
                        format!("{} is said of {of}; it can be said of {takes}", word(saying.what)),
                        "Pick the parts of the outline that it speaks of.",
                    )
                    .at_field(format!("{field}.of")),
                );
            }
        }
    }
    let said: Vec<String> = given.says.iter().map(words).collect();
    let mut laid = drawn::settle(given, &names, statements, given.says.len());
    if let Some(standing) = &laid.standing {
        say_standing(reader, path, standing, &said);
    }
    if let (Some(picture), Some(standing)) = (&given.underlay, &mut laid.standing) {
        standing.underlay = scaled(reader, &format!("{path}.underlay"), picture);
        if let Some(scale) = &standing.underlay {
            standing.traced = drawn::traced(given, standing, scale, reader.given.names.show);
        }
    }
    Some(laid)
}

/// The scale of the picture under an outline. A picture without one is a warning: the outline is what is cut.
fn scaled(reader: &mut Reader<'_>, path: &str, given: &Underlay) -> Option<UnderlayStands> {
    let before = reader.blocked;
    let faults = reader.findings.len();
    let length = reader.size(&format!("{path}.scale.length"), &given.scale.length, "a measured length");
    let check = given
        .check
        .as_ref()
        .map(|pair| reader.size(&format!("{path}.check.length"), &pair.length, "a measured length"));
    let turn = match &given.turn {
        Some(text) => reader.value(&format!("{path}.turn"), text, Dimension::ANGLE, "a turn"),
        None => Some(0.0),
    };
    reader.blocked = before;
    // Bad numbers stay errors of their fields, so that typing one is refused.
    if reader.findings.len() > faults {
        return None;
    }
    match underlay::stand(given, length?, check.flatten(), turn?, reader.given.names.show) {
        Ok(stands) => {
            if stands.check_off {
                let message = format!("of the picture {}", stands.check_text);
                reader.note(
                    Finding::warning(message, "Take the picture square from above, or scan the sample.").at_field(path),
                );
            }
            Some(stands)
        }
        Err(fault) => {
            let field = format!("{path}.{}", fault.field);
            reader.note(Finding::error(fault.message, "Pick two points further apart.").at_field(field));
            None
        }
    }
}

/// What is wrong with a solved outline, as findings: what disagrees and what is missing are errors, since a shop
/// would cut what is drawn.
fn say_standing(reader: &mut Reader<'_>, path: &str, standing: &Standing, said: &[String]) {
    let unit = reader.given.names.show;
    for disagreement in &standing.disagree {
        let by = match disagreement.angle {
            true => angle_text(disagreement.off_by.abs()),
            false => length_text(disagreement.off_by.abs(), unit),
        };
        let names: Vec<&str> = disagreement.sayings.iter().map(|&at| said[at].as_str()).collect();
        reader.note(
            Finding::error(
                format!("these numbers disagree by {by}: {}", names.join("; ")),
                "Correct one of them against the drawing; the shape follows the others until then.",
            )
            .at_field(format!("{path}.says.{}", disagreement.measured)),
        );
    }
    if standing.missing > 0 {
        let count = standing.missing;
        let numbers = if count == 1 { "number is" } else { "numbers are" };
        let mut loose: Vec<&str> = standing.loose.iter().map(|one| one.name.as_str()).take(6).collect();
        if standing.loose.len() > loose.len() {
            loose.push("others");
        }
        reader.note(
            Finding::error(
                format!("{count} {numbers} still missing from the outline: {} may still move", loose.join(", ")),
                "Put the drawing's numbers on what still moves; until then its size is only as it was clicked.",
            )
            .at_field(path),
        );
    }
}

fn saying_value(reader: &mut Reader<'_>, field: &str, saying: &Saying) -> Option<f64> {
    use SayingKind as Kind;
    let field = format!("{field}.value");
    let takes = matches!(
        saying.what,
        Kind::Length | Kind::Across | Kind::Up | Kind::Angle | Kind::Radius | Kind::Diameter | Kind::Gap
    );
    let before = reader.blocked;
    let value = match (&saying.value, takes) {
        (None, false) => Some(0.0),
        (Some(text), false) => {
            let message = format!("{} carries no number; {} is given", word(saying.what), text.trim());
            reader.note(Finding::error(message, "Take the number out.").at_field(&field));
            None
        }
        (None, true) => {
            let message = format!("{} has no number yet", words(saying));
            reader.note(Finding::error(message, "Type the drawing's number, or a call-out's name.").at_field(&field));
            None
        }
        (Some(text), true) => match saying.what {
            Kind::Angle => reader.value(&field, text, Dimension::ANGLE, "an angle").and_then(|angle| {
                if angle > 0.0 && angle < std::f64::consts::PI {
                    return Some(angle);
                }
                let message = format!("an angle of {} between edges: above 0 and below 180 deg is", angle_text(angle));
                reader.refuse(&field, message, "Say that they are parallel or on one line instead.");
                None
            }),
            Kind::Across | Kind::Up => reader.zero_or_more(&field, text, "a distance"),
            _ => reader.size(&field, text, word(saying.what)),
        },
    };
    reader.blocked = before;
    value
}

fn word(what: SayingKind) -> &'static str {
    use SayingKind as Kind;
    match what {
        Kind::Length => "a length",
        Kind::Across => "a distance across",
        Kind::Up => "a distance up",
        Kind::Angle => "an angle",
        Kind::Radius => "a radius",
        Kind::Diameter => "a diameter",
        Kind::Gap => "a gap",
        Kind::Equal => "equal",
        Kind::Parallel => "parallel",
        Kind::Square => "square",
        Kind::Level => "level",
        Kind::Upright => "upright",
        Kind::Tangent => "touching",
        Kind::Concentric => "about one centre",
        Kind::Collinear => "on one line",
        Kind::On => "on the line of",
        Kind::Middle => "in the middle",
        Kind::Symmetric => "mirrored",
    }
}

/// A saying in words: "a length of e1 = A".
fn words(saying: &Saying) -> String {
    let of = saying.of.join(", ");
    match &saying.value {
        Some(value) => format!("{} of {of} = {}", word(saying.what), value.trim()),
        None => format!("{of} {}", word(saying.what)),
    }
}

fn combined(reader: &mut Reader<'_>, path: &str, given: &Combined, deep: usize) -> Option<Result<Laid, Finding>> {
    const MOST_PARTS: usize = 50;
    if deep >= MOST_DEEP || given.parts.is_empty() || given.parts.len() > MOST_PARTS {
        reader.refuse(
            &format!("{path}.parts"),
            format!(
                "{} parts, {deep} shapes deep: 1 to {MOST_PARTS} parts, at most {MOST_DEEP} deep, can be put together",
                given.parts.len()
            ),
            "Put fewer shapes together.",
        );
        return None;
    }
    let parts: Vec<_> = given
        .parts
        .iter()
        .enumerate()
        .map(|(at, part)| one_part(reader, &format!("{path}.parts.{at}"), part, deep))
        .collect();
    let parts: Vec<_> = parts.into_iter().collect::<Option<_>>()?;
    Some(combine::combine(&parts))
}

fn one_part(
    reader: &mut Reader<'_>,
    path: &str,
    part: &CombinedPart,
    deep: usize,
) -> Option<(crate::work::shape::CombineAct, String, Laid)> {
    let laid = shape_at(reader, &format!("{path}.shape"), &part.shape, deep + 1);
    let place = |reader: &mut Reader<'_>, name: &str, text: &Option<Expr>| match text {
        Some(text) => reader.length(&format!("{path}.{name}"), text, "a place"),
        None => Some(0.0),
    };
    let x = place(reader, "x", &part.x);
    let y = place(reader, "y", &part.y);
    let turn = match &part.turn {
        Some(text) => reader.value(&format!("{path}.turn"), text, Dimension::ANGLE, "a turn"),
        None => Some(0.0),
    };
    let (x, y, turn) = (x?, y?, turn?);
    let (sin, cos) = turn.sin_cos();
    // Turned about the point that is placed, which is brought to the origin first.
    let laid = laid?.placed(part.by, Point::default());
    let turned = if turn == 0.0 {
        laid
    } else {
        laid.moved(|point| Point::new(point.x * cos - point.y * sin, point.x * sin + point.y * cos))
    };
    Some((part.act, part.name.clone(), turned.moved(|point| point + Vector::new(x, y))))
}

fn from_file(reader: &mut Reader<'_>, path: &str, given: &Profile) -> Option<Laid> {
    let scale = given.unit.millimetres();
    let mut read = |field: String, text: &str| match profile::read_path(text, scale) {
        Ok(outline) => Some(outline),
        Err(fault) => {
            reader.refuse(
                &field,
                format!("the path cannot be read at word {}: {}", fault.word, fault.message),
                "Bring the outline in from its file again.",
            );
            None
        }
    };
    let outer = read(format!("{path}.outer"), &given.outer);
    let holes: Vec<_> =
        given.holes.iter().enumerate().map(|(at, text)| read(format!("{path}.holes.{at}"), text)).collect();
    let (outer, holes) = (outer?, holes.into_iter().collect::<Option<Vec<_>>>()?);
    let edges: Vec<_> =
        outer.edges.iter().enumerate().map(|(at, edge)| (edge.start, edge.bulge, format!("edge-{}", at + 1))).collect();
    let mut laid = Laid::from_edges(&edges);
    let single = holes.len() == 1;
    laid.holes = holes
        .into_iter()
        .enumerate()
        .map(|(at, hole)| (if single { "hole".to_string() } else { format!("hole.{}", at + 1) }, hole))
        .filter(|(_, hole)| hole.area() > MODELLING_TOLERANCE)
        .collect();
    Some(laid.placed(PlacedBy::Corner, Point::default()))
}
