//! Welds: found where members and plates meet. Checked and listed, never certified.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::plane::{Point, Segment, Vector};
use crate::quantity::decimal;
use crate::space::Point3;
use crate::stock::Family;

use super::contact::contacts;
use super::measure::FrameMade;
use super::member::Member;
use super::params::WeldSymbols;

/// One weld. Lengths mm, mass kg, time minutes.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Weld {
    /// `W1`.
    pub mark: String,
    /// Joint type: `fillet`, `butt on the mitre`.
    pub kind: String,
    /// The two parts by name.
    pub parts: Vec<String>,
    /// Their marks on the cut list.
    pub marks: Vec<String>,
    /// Where its middle is about.
    pub place: Point3,
    /// Length of weld.
    pub length: f64,
    /// Suggested leg of a fillet; depth of a butt.
    pub leg: f64,
    /// Throat: 0.707 of the leg.
    pub throat: f64,
    /// `all round`, `both sides`.
    pub sides: String,
    /// The symbol's words by the shop's standard.
    pub symbol: String,
    /// Deposited mass.
    pub mass: f64,
    /// Time with the arc and between.
    pub minutes: f64,
    /// The working of its leg.
    pub why: Why,
}

/// Weld metal per hour of a welder's day, kg: 2 kg/h of arc at a quarter of the day (practice; from memory).
const DEPOSIT_RATE: f64 = 0.5;
/// Reinforcement of a fillet over its triangle (practice, 1.1 to 1.2).
const REINFORCED: f64 = 1.15;

/// Suggested fillet leg, mm, for the thicker and the thinner part (AWS D1.1 practice, metric).
pub fn fillet_leg(thicker: f64, thinner: f64) -> f64 {
    let least: f64 = if thicker <= 6.0 {
        3.0
    } else if thicker <= 12.0 {
        5.0
    } else if thicker <= 20.0 {
        6.0
    } else {
        8.0
    };
    let largest = if thinner <= 6.0 { thinner } else { thinner - 2.0 };
    least.min(largest)
}

/// Places and weights of four-point Gauss-Legendre integration on -1 to 1.
const GAUSS: [(f64, f64); 4] = [
    (-0.861_136_311_594_052_6, 0.347_854_845_137_453_9),
    (-0.339_981_043_584_856_3, 0.652_145_154_862_546_1),
    (0.339_981_043_584_856_3, 0.652_145_154_862_546_1),
    (0.861_136_311_594_052_6, 0.347_854_845_137_453_9),
];
/// Widest part of an arc that one set of Gauss places stands for, radians: 45 deg, where the rule holds to 1e-7.
const PART: f64 = std::f64::consts::FRAC_PI_4;
/// Steeper along the outline than this is the wall of a cutout and no edge that is welded.
const WALL: f64 = 50.0;

/// Length of an end's cut along the section's outside, mm: what is welded of it.
pub fn cut_perimeter(member: &Member, finish: bool) -> f64 {
    let end = &member.ends[usize::from(finish)];
    let segments = member.region.outer.segments().map(|(one, _)| one);
    if let ([cut], [], []) = (end.planes.as_slice(), end.copes.as_slice(), end.cutouts.as_slice()) {
        // Along the outline the cut rises by this for each mm.
        let slope = Vector::new(-cut.normal.x / cut.normal.z, -cut.normal.y / cut.normal.z);
        return segments.map(|one| sloped_length(&one, slope)).sum();
    }
    let place = |at: Point| Point3::new(at.x, at.y, member.cut_reach(finish, at));
    segments
        .map(|one| {
            let steps = if one.is_line() && end.copes.is_empty() { 64 } else { 256 };
            let at = |part: usize| one.at(part as f64 / f64::from(steps as u32));
            (0..steps)
                .map(|step| {
                    let (from, to) = (at(step), at(step + 1));
                    let (flat, long) = (from.distance(to), place(from).distance(place(to)));
                    if long > WALL * flat { flat } else { long }
                })
                .sum::<f64>()
        })
        .sum()
}

/// Length of a stretch of the outline on a plane that rises by `slope` over the section.
fn sloped_length(one: &Segment, slope: Vector) -> f64 {
    let rise = |along: Vector| slope.dot(along).hypot(1.0);
    if one.is_line() {
        let long = one.length();
        return if long > 0.0 { long * rise((one.end - one.start) * (1.0 / long)) } else { 0.0 };
    }
    let parts = (one.sweep().abs() / PART).ceil().max(1.0);
    let each = one.sweep() / parts;
    let arm = (one.start - one.centre()) * (1.0 / one.radius());
    let mut total = 0.0;
    for part in 0..parts as usize {
        for (place, weight) in GAUSS {
            let (sine, cosine) = (each * (part as f64 + (place + 1.0) / 2.0)).sin_cos();
            let out = Vector::new(arm.x * cosine - arm.y * sine, arm.x * sine + arm.y * cosine);
            total += rise(out.left()) * weight / 2.0;
        }
    }
    total * each.abs() * one.radius()
}

/// Every weld of a frame.
pub fn welds(made: &FrameMade, symbols: WeldSymbols) -> Vec<Weld> {
    let (frame, list) = (&made.frame, &made.list);
    let mut all: Vec<Weld> = Vec::new();
    let mut mitred: Vec<[usize; 2]> = Vec::new();
    let mark_of = |member: usize| list.lines[list.line_of[member]].mark.clone();
    for (index, member) in frame.members.iter().enumerate() {
        for finish in [false, true] {
            let end = &member.ends[usize::from(finish)];
            let mut others: Vec<(usize, bool)> = Vec::new();
            for cut in &end.planes {
                others.extend(cut.to.iter().map(|&to| (to, cut.by.starts_with("mitre"))));
            }
            others.extend(end.copes.iter().map(|cope| (cope.to, false)));
            if others.is_empty() {
                continue;
            }
            let share = 1.0 / others.len() as f64;
            let perimeter = cut_perimeter(member, finish);
            let centroid = member.region.centroid();
            let t = if finish { member.finishes(centroid) } else { member.begins(centroid) };
            let place = member.basis(finish).place(centroid.x, centroid.y, t);
            for (to, mitre) in others {
                let pair = if index < to { [index, to] } else { [to, index] };
                // Two members cut on one plane share one weld.
                if mitre {
                    if mitred.contains(&pair) {
                        continue;
                    }
                    mitred.push(pair);
                }
                let other = &frame.members[to];
                all.push(weld_of(
                    if mitre { "butt on the mitre" } else { "fillet" },
                    [member.name.clone(), other.name.clone()],
                    [mark_of(index), mark_of(to)],
                    place,
                    perimeter * share,
                    (member.section.web, other.section.web),
                    "all round",
                    member.material.density,
                    symbols,
                ));
            }
        }
    }
    for contact in contacts(&frame.members) {
        let [one, two] = contact.members;
        let (member, other) = (&frame.members[one], &frame.members[two]);
        all.push(weld_of(
            "fillet",
            [member.name.clone(), other.name.clone()],
            [mark_of(one), mark_of(two)],
            contact.place,
            contact.around,
            (member.section.web, other.section.web),
            "round what touches",
            member.material.density,
            symbols,
        ));
    }
    for (plate, &line) in frame.plates.iter().zip(&list.line_of_plate) {
        for &(member, length) in &plate.meets {
            let other = &frame.members[member];
            let gusset = plate.kind == "gusset" || plate.kind == "panel";
            all.push(weld_of(
                "fillet",
                [plate.name.clone(), other.name.clone()],
                [list.lines[line].mark.clone(), mark_of(member)],
                plate.centre_of_gravity(),
                if gusset { 2.0 * length } else { length },
                (plate.thickness, other.section.web),
                if gusset { "both sides" } else { "all round" },
                plate.material.density,
                symbols,
            ));
        }
    }
    for (at, weld) in all.iter_mut().enumerate() {
        weld.mark = format!("W{}", at + 1);
    }
    all
}

#[allow(clippy::too_many_arguments)]
fn weld_of(
    kind: &str,
    parts: [String; 2],
    marks: [String; 2],
    place: Point3,
    length: f64,
    walls: (f64, f64),
    sides: &str,
    density: f64,
    symbols: WeldSymbols,
) -> Weld {
    let (thicker, thinner) = (walls.0.max(walls.1), walls.0.min(walls.1));
    let butt = kind.starts_with("butt");
    // On a mitre the walls meet edge to edge: a V of 60 deg through the thinner one.
    let leg = if butt { thinner } else { fillet_leg(thicker, thinner) };
    let throat = if butt { thinner } else { leg / 2f64.sqrt() };
    let area = if butt { leg * leg * std::f64::consts::FRAC_PI_6.tan() } else { leg * leg / 2.0 };
    let mass = area * length * REINFORCED * density * 1e-9;
    let show = |value: f64| decimal(value, 1);
    let symbol = match symbols {
        // ISO 2553: z is the leg; the circle at the bend of the arrow is all round.
        WeldSymbols::Iso2553 => format!("{}{} {} {}", if butt { "s" } else { "z" }, show(leg), kind, sides),
        // AWS A2.4: the leg's size to the left of the symbol, in its own order.
        WeldSymbols::AwsA24 => format!("{} {} {}, arrow side", show(leg), kind, sides),
    };
    Weld {
        mark: String::new(),
        kind: kind.into(),
        parts: parts.to_vec(),
        marks: marks.to_vec(),
        place,
        length,
        leg,
        throat,
        sides: sides.into(),
        symbol,
        mass,
        minutes: mass / DEPOSIT_RATE * 60.0,
        why: Why {
            title: format!("{} of the weld of {} and {}", if butt { "Depth" } else { "Leg" }, parts[0], parts[1]),
            formula: if butt {
                "through the thinner wall; V of 60 deg: t^2 tan 30 deg x length".into()
            } else {
                "least leg by the thicker part: to 6 mm 3, to 12 mm 5, to 20 mm 6, above 8; no more than the thinner edge gives".into()
            },
            working: format!(
                "{} and {} mm: {} mm, throat {} mm; {} mm {}, {} kg deposited (area x length x {REINFORCED})",
                show(thicker),
                show(thinner),
                show(leg),
                decimal(throat, 2),
                show(length),
                sides,
                decimal(mass, 4)
            ),
            source: if butt {
                "common practice for mitred hollow sections; checked and listed, never certified".into()
            } else {
                "AWS D1.1 practice, metric; checked and listed, never certified".into()
            },
        },
    }
}

/// What to beware of when these materials are welded.
pub fn cautions(made: &FrameMade) -> Vec<String> {
    let mut all = Vec::new();
    let has = |family: Family| made.frame.members.iter().any(|member| member.material.family == family);
    if has(Family::Galvanised) {
        all.push(
            "Welding zinc gives fume that makes ill: grind it back, draw the fume off, wear a fitted mask.".to_string(),
        );
    }
    if has(Family::Stainless) {
        all.push(
            "Welding stainless gives hexavalent chromium fume: draw it off at the arc, wear a fitted mask.".to_string(),
        );
    }
    if made.frame.members.len() > 3 {
        all.push("Tack all joints and check the diagonals before welding out; weld from the middle, side about: long welds on one side pull.".to_string());
    }
    all
}
