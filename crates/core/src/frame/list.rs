//! The cut list of a frame: identical pieces counted together, opposite hands told apart, plates beside members.

use std::collections::{BTreeMap, HashMap, HashSet};

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::plane::Box2;
use crate::quantity::tolerance::{NO_TURN, SQUARE_METRES};
use crate::quantity::{Amount, LengthUnit, decimal};
use crate::section::Form;
use crate::sheet::{Alike, BlankCut};
use crate::space::{Point3, Vector3};
use crate::stock::ONE_PERSON;
use crate::work::frame::OneEnd;

use super::cutout::{CutoutDepth, CutoutKind};
use super::end::End;
use super::laid_plate::{FramePlate, PlateForm};
use super::member::Member;
use super::model::Frame;
use super::same::Cut;
use super::shape::firsts;

/// One end of a piece as the saw is set.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct EndCutWords {
    /// Angle from square, radians; of the first plane where there are several.
    pub angle: f64,
    /// Turned about the section's up, radians.
    pub mitre: f64,
    /// Tilted about the section's across, radians.
    pub tilt: f64,
    /// The same in words, to the saw's step: `square`, `45 deg`, `cope on dia 60.3`.
    pub text: String,
    /// In words, exact.
    pub exact: String,
}

/// What a line of the cut list is of.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum LineKind {
    /// A member.
    Member,
    /// A plate of this form.
    #[serde(untagged)]
    Plate(PlateForm),
}

impl LineKind {
    /// What lists and titles call it.
    pub fn word(self) -> &'static str {
        match self {
            LineKind::Member => "member",
            LineKind::Plate(form) => form.word(),
        }
    }
}

/// One line of the cut list. Lengths mm, areas m2, masses kg.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FrameLine {
    /// Piece mark.
    pub mark: String,
    /// Mark of the line that is its mirror image, where it is not the same piece.
    pub opposite_of: Option<String>,
    /// `member`, or what the plate is: `gusset`.
    #[schema(value_type = String)]
    pub kind: LineKind,
    /// Section, or thickness of a plate in words.
    pub section: String,
    /// Thickness of a plate, mm; none of a member.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub thickness: Option<f64>,
    /// Material.
    pub material: String,
    /// How many.
    pub quantity: usize,
    /// Long point to long point, grip allowances in; of a plate its greatest size.
    pub length: f64,
    /// Short point to short point; of a plate its other size.
    pub short_length: f64,
    /// Along the centroid between the cuts.
    pub centroid_length: f64,
    /// Start and finish.
    pub ends: Vec<EndCutWords>,
    /// How the two cuts stand to each other, in words: `mirrored`, `parallel`, `turned 90 deg`.
    pub between: String,
    /// Holes, bends and notches in words.
    pub work: String,
    /// Mass of one.
    pub mass_each: f64,
    /// Mass of all.
    pub mass_total: f64,
    /// Outside area of one.
    pub paint_each: f64,
    /// Sub-weldment.
    pub weldment: String,
    /// Your own columns.
    pub columns: BTreeMap<String, String>,
    /// Names of the members or plates.
    pub members: Vec<String>,
    /// What to mind when it is handled.
    pub note: String,
}

/// Mass, centre of gravity and paint of a whole or of a part of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Sum {
    /// What of: empty for the whole.
    pub weldment: String,
    /// Mass, kg.
    pub mass: f64,
    /// Centre of gravity, mm.
    pub centre_of_gravity: Point3,
    /// Outside area, m2.
    pub paint: f64,
    /// How many pieces.
    pub pieces: usize,
}

/// A cut list.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct FrameList {
    /// Members, then plates.
    pub lines: Vec<FrameLine>,
    /// The line of each member, by index.
    pub line_of: Vec<usize>,
    /// The line of each plate, by index.
    pub line_of_plate: Vec<usize>,
    /// The whole, then each sub-weldment.
    pub sums: Vec<Sum>,
}

/// Longer pieces swing, mm (practice).
const SWINGS: f64 = 3000.0;

/// An angle to a step, both in radians, as text in degrees.
pub fn to_step(angle: f64, step: f64) -> String {
    let degrees = angle.to_degrees();
    let step = step.to_degrees();
    let shown = if step > NO_TURN { (degrees / step).round() * step } else { degrees };
    format!("{} deg", decimal(shown, 3))
}

/// The cut of an end in words.
pub fn end_words(member: &Member, which: OneEnd, step: f64, unit: LengthUnit) -> EndCutWords {
    let end: &End = &member.ends[which.at()];
    if let Some(cope) = end.copes.first() {
        let angle = cope.axis.z.abs().min(1.0).acos();
        let off = std::f64::consts::FRAC_PI_2 - angle;
        let more = if end.copes.len() + end.planes.len() > 1 { " and more" } else { "" };
        let words =
            |turned: String| format!("cope on dia {}{turned}{more}", unit.bare(Amount::Length, 2.0 * cope.radius, 1));
        let turned = |text: String| if off.abs() < NO_TURN { String::new() } else { format!(" at {text}") };
        return EndCutWords {
            angle: off,
            mitre: off,
            tilt: 0.0,
            text: words(turned(to_step(angle, step))),
            exact: words(turned(format!("{} deg", decimal(angle.to_degrees(), 4)))),
        };
    }
    // A plane that never is the nearest cuts nothing; the others are told.
    let Some(first) = end.planes.first() else {
        return EndCutWords { text: "square".into(), exact: "square".into(), ..EndCutWords::default() };
    };
    let one = |normal: Vector3| {
        let way = Vector3::new(normal.x, normal.y, normal.z.abs());
        let mitre = way.x.atan2(way.z);
        let tilt = way.y.atan2(way.z);
        (way.z.min(1.0).acos(), mitre, tilt)
    };
    let words = |show: &dyn Fn(f64) -> String| {
        let mut all: Vec<String> = Vec::new();
        for cut in &end.planes {
            let (angle, mitre, tilt) = one(cut.normal);
            let text = if angle < NO_TURN {
                "square".to_string()
            } else if mitre.abs() < NO_TURN || tilt.abs() < NO_TURN {
                show(angle)
            } else {
                format!("mitre {}, tilt {}", show(mitre.abs()), show(tilt.abs()))
            };
            if !all.contains(&text) || end.planes.len() > 1 {
                all.push(text);
            }
        }
        if all.len() > 1 {
            return format!("point: {}", all.join(" and "));
        }
        // Which way round matters where the section's sides differ.
        match long_side(member, first.normal) {
            Some(side) => format!("{}, long point at {side}", all.join("")),
            None => all.join(""),
        }
    };
    let (angle, mitre, tilt) = one(first.normal);
    EndCutWords {
        angle,
        mitre,
        tilt,
        text: words(&|angle| to_step(angle, step)),
        exact: words(&|angle| format!("{} deg", decimal(angle.to_degrees(), 4))),
    }
}

/// The side of a section at which the long point of a slanted cut lies, where its sides are not alike: of a channel web or
/// toes, of an angle its legs. `normal` is the cut's, away from the metal.
fn long_side(member: &Member, normal: Vector3) -> Option<&'static str> {
    // The metal reaches furthest where the cut's normal looks away from; a mirrored section has its left on the right.
    let (x, y) = (if member.mirrored { normal.x } else { -normal.x }, -normal.y);
    let (level, upright) = (x.abs() > NO_TURN, y.abs() > NO_TURN);
    match member.section.form {
        Form::Channel => match (level, upright) {
            (false, _) => None,
            (true, false) => Some(if x < 0.0 { "the web" } else { "the toes" }),
            (true, true) => Some(match (x < 0.0, y > 0.0) {
                (true, true) => "the web and the upper flange",
                (true, false) => "the web and the lower flange",
                (false, true) => "the toe of the upper flange",
                (false, false) => "the toe of the lower flange",
            }),
        },
        Form::Angle => match (level, upright) {
            (false, false) => None,
            (true, false) => Some(if x < 0.0 { "the upright leg" } else { "the toe of the level leg" }),
            (false, true) => Some(if y < 0.0 { "the level leg" } else { "the toe of the upright leg" }),
            (true, true) => Some(match (x < 0.0, y < 0.0) {
                (true, true) => "the heel",
                (true, false) => "the toe of the upright leg",
                (false, true) => "the toe of the level leg",
                (false, false) => "the side away from the heel",
            }),
        },
        _ => None,
    }
}

fn between_words(member: &Member) -> String {
    let lateral = |which: OneEnd| {
        let end = &member.ends[which.at()];
        match (end.planes.as_slice(), end.copes.as_slice()) {
            ([cut], []) if cut.angle() > NO_TURN => Some(cut.normal.y.atan2(cut.normal.x)),
            ([], [cope]) => Some(cope.axis.y.atan2(cope.axis.x)),
            _ => None,
        }
    };
    let (Some(one), Some(two)) = (lateral(OneEnd::Start), lateral(OneEnd::Finish)) else { return String::new() };
    let turned = (two - one).to_degrees().rem_euclid(360.0);
    // From across to up is clockwise for who looks along it from its start.
    let (turned, way) = if turned > 180.0 { (360.0 - turned, "anticlockwise") } else { (turned, "clockwise") };
    if member.ends.iter().any(|end| !end.copes.is_empty()) {
        // A cope has no front: half a turn is the same one.
        let half = (two - one).to_degrees().rem_euclid(180.0);
        let (turned, way) = if half > 90.0 { (180.0 - half, "anticlockwise") } else { (half, "clockwise") };
        return if turned < 0.05 {
            "copes in line".into()
        } else if turned > 89.95 {
            "copes turned 90 deg".into()
        } else {
            format!("copes turned {} deg {way}, seen from the start", decimal(turned, 2))
        };
    }
    if turned < 0.05 {
        "long points on one side".into()
    } else if turned > 179.95 {
        "parallel".into()
    } else {
        format!("turned {} deg {way}, seen from the start", decimal(turned, 2))
    }
}

fn work_words(member: &Member, unit: LengthUnit) -> String {
    let size = |value: f64, places: usize| unit.bare(Amount::Length, value, places);
    let mut words: Vec<String> = Vec::new();
    let mut counts: Vec<(String, usize)> = Vec::new();
    for bore in &member.bores {
        let text = format!(
            "dia {} {}{}",
            size(bore.diameter, 2),
            bore.purpose_words(),
            if bore.one_wall { ", one wall" } else { " through" }
        );
        match counts.iter_mut().find(|(known, _)| *known == text) {
            Some((_, count)) => *count += 1,
            None => counts.push((text, 1)),
        }
    }
    words.extend(counts.into_iter().map(|(text, count)| format!("{count} x {text}")));
    words.extend(cutout_words(member, unit));
    for line in &member.lines {
        if let Some(arc) = &line.arc {
            let radius = line.from.distance(arc.centre);
            words.push(format!("bent R{} through {} deg", size(radius, 1), decimal(arc.sweep.to_degrees(), 2)));
        }
    }
    if member.grip > 0.0 {
        words.push(format!("grip {} each end", unit.says(Amount::Length, member.grip, 1)));
    }
    words.join("; ")
}

/// What is taken from the ends after the saw, in words: each notch and slot with its size along the member and across.
fn cutout_words(member: &Member, unit: LengthUnit) -> Vec<String> {
    let size = |value: f64| unit.bare(Amount::Length, value, 1);
    let mut words = Vec::new();
    for (end, which) in member.ends.iter().zip(["start", "finish"]) {
        for cutout in &end.cutouts {
            let around = cutout.part_of(&member.region).iter().map(|part| part.extents()).reduce(Box2::with);
            let (CutoutDepth::Behind(length), Some(around)) = (&cutout.depth, around) else { continue };
            let word = if cutout.kind == CutoutKind::Slot { "slot" } else { "notch" };
            let (wide, high) = (size(around.width()), size(around.height()));
            words.push(format!("{word} {} long at the {which}, {wide} x {high} of the section", size(*length)));
        }
        if end.cutouts.iter().any(|cutout| cutout.kind == CutoutKind::Cope) {
            let by = end.planes.first().map_or_else(|| "another section".into(), |cut| cut.by.to_string());
            words.push(format!("{which} coped to the {by}"));
        }
    }
    words
}

fn note(mass: f64, length: f64) -> String {
    let mut notes = Vec::new();
    if mass > ONE_PERSON {
        notes.push("two people or a lift");
    }
    if length > SWINGS {
        notes.push("long: it swings");
    }
    notes.join("; ")
}

/// The list of a frame. `step` is what the saw's angle is set to, radians.
pub fn frame_list(frame: &Frame, step: f64) -> FrameList {
    let mut list = FrameList::default();
    // Pairs of lines that are each other's opposite hand; named once marks are settled.
    let mut opposite_lines: Vec<(usize, usize)> = Vec::new();
    // Members of one shape are measured once.
    let firsts = firsts(&frame.members);
    let mut cuts: HashMap<usize, (Cut, f64)> = HashMap::new();
    for (at, member) in frame.members.iter().enumerate().filter(|(at, _)| firsts[*at] == *at) {
        cuts.insert(at, (Cut::of(member), member.length()));
    }
    let cut = |at: usize| &cuts[&firsts[at]].0;
    // Lines that a member may be compared with, by a key that equal pieces share for sure.
    let mut near: HashMap<(String, String, i64), Vec<usize>> = HashMap::new();
    let mut first_of: Vec<usize> = Vec::new();
    // Where the centre of gravity lies in each one's own frame.
    let mut centres: HashMap<usize, Vector3> = HashMap::new();
    for (index, member) in frame.members.iter().enumerate() {
        let length = cuts[&firsts[index]].1;
        let bucket = (length / 1.0).round() as i64;
        let key = |at: i64| (member.section.name.clone(), member.weldment.clone().unwrap_or_default(), at);
        let mut opposite = None;
        let mut same = None;
        for at in bucket - 1..=bucket + 1 {
            for &line in near.get(&key(at)).into_iter().flatten() {
                let other = first_of[line];
                if frame.members[other].columns != member.columns {
                    continue;
                }
                match cut(index).alike(cut(other)) {
                    Alike::Same => same = Some(line),
                    Alike::Opposite => opposite = Some(line),
                    Alike::Other => {}
                }
            }
        }
        if let Some(line) = same {
            list.lines[line].quantity += 1;
            list.lines[line].members.push(member.name.clone());
            list.line_of.push(line);
            continue;
        }
        let (mass, centre) = member.weighed();
        centres.insert(index, member.start.local(centre));
        let line = list.lines.len();
        near.entry(key(bucket)).or_default().push(line);
        first_of.push(index);
        // LEGS1, but FRAME-2-1: a number is never run into another.
        let apart = if member.mark.ends_with(|last: char| last.is_ascii_digit()) { "-" } else { "" };
        let mark = format!("{}{apart}{}", member.mark, member.number);
        list.lines.push(FrameLine {
            opposite_of: None,
            mark,
            kind: LineKind::Member,
            section: member.section.name.clone(),
            thickness: None,
            material: member.material.name.clone(),
            quantity: 1,
            length,
            short_length: member.short_length(),
            centroid_length: member.centroid_length(),
            ends: OneEnd::BOTH.map(|which| end_words(member, which, step, frame.unit)).to_vec(),
            between: between_words(member),
            work: work_words(member, frame.unit),
            mass_each: mass,
            mass_total: mass,
            paint_each: member.section.paint_perimeter() * member.centroid_length() * SQUARE_METRES,
            weldment: member.weldment.clone().unwrap_or_default(),
            columns: member.columns.clone(),
            members: vec![member.name.clone()],
            note: note(mass, length),
        });
        list.line_of.push(line);
        opposite_lines.extend(opposite.map(|other| (line, other)));
    }
    let mut plate_lines: Vec<(usize, BlankCut, &FramePlate)> = Vec::new();
    for plate in &frame.plates {
        let cut = plate.cut();
        let (mut same, mut opposite) = (None, None);
        for (line, other, first) in &plate_lines {
            if first.mark != plate.mark || first.weldment != plate.weldment {
                continue;
            }
            match cut.alike(other) {
                Alike::Same => same = Some(*line),
                Alike::Opposite => opposite = Some(*line),
                Alike::Other => {}
            }
        }
        if let Some(line) = same {
            list.lines[line].quantity += 1;
            list.lines[line].members.push(plate.name.clone());
            list.line_of_plate.push(line);
            continue;
        }
        plate_lines.push((list.lines.len(), cut, plate));
        let figures = crate::sheet::figures(&plate.part);
        let line = list.lines.len();
        opposite_lines.extend(opposite.map(|other| (line, other)));
        let (one, two) = (figures.blank_width, figures.blank_height);
        let holes = plate.part.flat.holes.len();
        list.lines.push(FrameLine {
            mark: plate.mark.clone().unwrap_or_else(|| plate.name.to_ascii_uppercase()),
            opposite_of: None,
            kind: LineKind::Plate(plate.form),
            section: format!("PL {}", frame.unit.bare(Amount::Length, plate.thickness, 3)),
            thickness: Some(plate.thickness),
            material: plate.material.name.clone(),
            quantity: 1,
            length: one.max(two),
            short_length: one.min(two),
            centroid_length: one.max(two),
            ends: Vec::new(),
            between: String::new(),
            work: match holes {
                0 => String::new(),
                1 => "1 hole".into(),
                count => format!("{count} holes"),
            },
            mass_each: figures.mass,
            mass_total: figures.mass,
            paint_each: (2.0 * figures.net_area + figures.cut_length * plate.thickness) * SQUARE_METRES,
            weldment: plate.weldment.clone().unwrap_or_default(),
            columns: BTreeMap::new(),
            members: vec![plate.name.clone()],
            note: note(figures.mass, one.max(two)),
        });
        list.line_of_plate.push(line);
    }
    for line in &mut list.lines {
        line.mass_total = line.mass_each * line.quantity as f64;
    }
    own_marks(&mut list.lines);
    for (one, two) in opposite_lines {
        let (first, second) = (list.lines[one].mark.clone(), list.lines[two].mark.clone());
        list.lines[one].opposite_of = Some(second);
        list.lines[two].opposite_of.get_or_insert(first);
    }
    list.sums = sums(frame, &list, centres);
    list
}

/// A mark as a file is named by it: two marks that differ only in what no file name holds are one there.
pub fn file_stem(mark: &str) -> String {
    mark.chars().map(|c| if c.is_ascii_alphanumeric() || matches!(c, '-' | '_') { c } else { '-' }).collect()
}

/// Marks are each line's own, in their files' names too and whatever the case: a second line of one mark gets a letter, and
/// after Z two.
fn own_marks(lines: &mut [FrameLine]) {
    let key = |mark: &str| file_stem(mark).to_ascii_uppercase();
    let given: Vec<String> = lines.iter().map(|line| key(&line.mark)).collect();
    let mut taken: HashSet<String> = HashSet::new();
    // A line that is the first of its mark keeps it, whatever letters others get.
    let firsts: HashSet<String> = given.iter().cloned().collect();
    for line in lines.iter_mut() {
        if taken.insert(key(&line.mark)) {
            continue;
        }
        let stem = line.mark.clone();
        let mut number = 0usize;
        loop {
            let mark = format!("{stem}{}", letters(number));
            if !firsts.contains(&key(&mark)) && taken.insert(key(&mark)) {
                line.mark = mark;
                break;
            }
            number += 1;
        }
    }
}

/// A, B, ... Z, AA, AB, ...
fn letters(number: usize) -> String {
    let last = char::from(b'A' + (number % 26) as u8);
    if number < 26 { last.to_string() } else { format!("{}{last}", letters(number / 26 - 1)) }
}

/// `local` is where centres lie that are known, by member in its own frame.
fn sums(frame: &Frame, list: &FrameList, mut local: HashMap<usize, Vector3>) -> Vec<Sum> {
    let mut names: Vec<String> = vec![String::new()];
    for line in &list.lines {
        if !line.weldment.is_empty() && !names.contains(&line.weldment) {
            names.push(line.weldment.clone());
        }
    }
    // Of one shape the centre lies in one place of its own frame.
    let firsts = firsts(&frame.members);
    let centres: Vec<Point3> = frame
        .members
        .iter()
        .zip(&firsts)
        .map(|(member, first)| {
            let at = *local.entry(*first).or_insert_with(|| {
                let own = &frame.members[*first];
                own.start.local(own.centre_of_gravity())
            });
            member.start.place(at.x, at.y, at.z)
        })
        .collect();
    names
        .into_iter()
        .map(|name| {
            let (mut mass, mut moment, mut paint, mut pieces) = (0.0, Vector3::default(), 0.0, 0);
            let mut hold = |line: &FrameLine, place: Point3| {
                if name.is_empty() || line.weldment == name {
                    mass += line.mass_each;
                    moment = moment + place.from_origin() * line.mass_each;
                    paint += line.paint_each;
                    pieces += 1;
                }
            };
            for (centre, &line) in centres.iter().zip(&list.line_of) {
                hold(&list.lines[line], *centre);
            }
            for (plate, &line) in frame.plates.iter().zip(&list.line_of_plate) {
                hold(&list.lines[line], plate.centre_of_gravity());
            }
            let mean = if mass > 0.0 { moment * (1.0 / mass) } else { Vector3::default() };
            Sum { weldment: name, mass, centre_of_gravity: Point3::new(mean.x, mean.y, mean.z), paint, pieces }
        })
        .collect()
}

/// The working of a member's length.
pub fn why_length(member: &Member, unit: LengthUnit) -> Why {
    let lines = member.length() - member.reach(OneEnd::Finish).0 + member.reach(OneEnd::Start).0 - 2.0 * member.grip;
    let show = |value: f64| unit.bare(Amount::Length, value, 3);
    Why {
        title: format!("Length of {}", member.name),
        formula: "L = line + beyond the finish + before the start + grips, long point to long point".into(),
        working: format!(
            "{} + {} + {} + {} = {} {}; the cuts: {} and {}",
            show(lines),
            show(member.reach(OneEnd::Finish).0),
            show(-member.reach(OneEnd::Start).0),
            show(2.0 * member.grip),
            show(member.length()),
            unit.sign(),
            end_words(member, OneEnd::Start, 0.0, unit).exact,
            end_words(member, OneEnd::Finish, 0.0, unit).exact
        ),
        source: "the planes that cut its ends, on the section's own outline".into(),
    }
}

/// The working of a member's mass.
pub fn why_mass(member: &Member, unit: LengthUnit) -> Why {
    Why {
        title: format!("Mass of {}", member.name),
        formula: "m = A x Lc x density, Lc along the centroid between the cuts; less holes".into(),
        working: format!(
            "{} x {} x {} = {}",
            unit.says(Amount::Area, member.section.area(), 2),
            unit.says(Amount::Length, member.centroid_length(), 3),
            unit.says(Amount::Density, member.density(), if member.section.stated.is_some() { 3 } else { 0 }),
            unit.says(Amount::Mass, member.mass(), 4)
        ),
        source: format!("{}; {}", member.section.source, member.material.source),
    }
}
