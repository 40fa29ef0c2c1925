//! Welds: found where members and plates meet. Checked and listed, never certified.

use std::collections::HashMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::{Finding, Why};
use crate::patience;
use crate::plane::{Point, Segment, Vector};
use crate::quantity::tolerance::{CUBIC_METRES, MODELLING_TOLERANCE, NO_TURN, ROUNDING};
use crate::quantity::{Amount, LengthUnit, decimal};
use crate::space::query::{Patch, RimKind, contact};
use crate::space::{Body, BodyFace, Box3, Point3, Vector3};
use crate::stock::{Family, Material};
use crate::work::frame::OneEnd;
use crate::work::frame::WeldSymbols;

use super::cut_plane::CutBy;
use super::made::FrameMade;
use super::member::Member;
use super::shape::relative;
use super::weld_kind::{WeldKind, WeldSides};

/// One weld. Lengths mm, mass kg, time minutes.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Weld {
    /// `W1`.
    pub mark: String,
    /// What kind of weld.
    pub kind: WeldKind,
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
    /// Where it runs.
    pub sides: WeldSides,
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

/// Suggested fillet leg, mm, for the thicker and the thinner part: the least by the thicker one, which need not exceed the
/// thinner one (AWS D1.1 practice; from memory).
pub fn fillet_leg(thicker: f64, thinner: f64, unit: LengthUnit) -> f64 {
    // The standard's two columns are rounded each in its own unit: up to so thick, a leg of so much, mm and sixteenths of an inch.
    let steps = match unit {
        LengthUnit::Mm => [(6.0, 3.0), (12.0, 5.0), (20.0, 6.0), (f64::INFINITY, 8.0)],
        LengthUnit::In => [(4.0, 2.0), (8.0, 3.0), (12.0, 4.0), (f64::INFINITY, 5.0)]
            .map(|(thick, leg)| (thick * SIXTEENTH, leg * SIXTEENTH)),
    };
    let least = steps.iter().find(|(thick, _)| thicker <= thick + MODELLING_TOLERANCE).map_or(0.0, |(_, leg)| *leg);
    least.min(thinner)
}

/// mm.
const SIXTEENTH: f64 = 25.4 / 16.0;

fn least_legs(unit: LengthUnit) -> &'static str {
    match unit {
        LengthUnit::Mm => {
            "least leg by the thicker part: to 6 mm 3, to 12 mm 5, to 20 mm 6, above 8; no more than the thinner part; a gap above 2 mm is added"
        }
        LengthUnit::In => {
            "least leg by the thicker part: to 1/4 in 1/8, to 1/2 in 3/16, to 3/4 in 1/4, above 5/16; no more than the thinner part; a gap above 0.08 in is added"
        }
    }
}

/// Above this a fillet's leg grows by the gap, mm (AWS D1.1, from memory).
const GROWS: f64 = 2.0;

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
pub fn cut_perimeter(member: &Member, which: OneEnd) -> f64 {
    let end = &member.ends[which.at()];
    let segments = member.region.outer.segments().map(|(one, _)| one);
    if let ([cut], [], []) = (end.planes.as_slice(), end.copes.as_slice(), end.cutouts.as_slice()) {
        // Along the outline the cut rises by this for each mm.
        let slope = Vector::new(-cut.normal.x / cut.normal.z, -cut.normal.y / cut.normal.z);
        return segments.map(|one| sloped_length(&one, slope)).sum();
    }
    let place = |at: Point| Point3::new(at.x, at.y, member.cut_reach(which, at));
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

/// Welds with what is worth knowing of places that have none.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct WeldsFound {
    /// The welds.
    pub welds: Vec<Weld>,
    /// Places that lie together and are not welded, with why.
    pub notes: Vec<Finding>,
    /// Pieces of two metals that lie together and are not welded to each other: a rule asks about them.
    pub unlike: Vec<[String; 2]>,
}

/// One piece of a frame as welds see it.
struct Item<'a> {
    name: String,
    mark: String,
    wall: f64,
    /// Thickness of a plate: edges as short as that are the ends of its edge, which nobody welds.
    plate: Option<f64>,
    material: &'static Material,
    /// The body of its shape: of a member the first that has it. None where it is told in facets.
    body: Option<&'a Body>,
    around: Box3,
    /// Its cut ends are mitres.
    mitred: [bool; 2],
}

fn items(made: &FrameMade) -> Vec<Item<'_>> {
    let (frame, list) = (&made.frame, &made.list);
    let members = frame.members.iter().enumerate().map(|(at, member)| {
        let slanted = |finish: usize| {
            let end = &member.ends[finish];
            end.planes.iter().any(|cut| cut.angle() > NO_TURN)
        };
        Item {
            name: member.name.clone(),
            mark: list.lines[list.line_of[at]].mark.clone(),
            wall: member.section.web,
            plate: None,
            material: member.material,
            body: made.shape_body(at).ok().map(|(_, body)| body),
            around: Box3::EMPTY,
            mitred: [slanted(0), slanted(1)],
        }
    });
    let plates = frame.plates.iter().enumerate().map(|(at, plate)| Item {
        name: plate.name.clone(),
        mark: list.lines[list.line_of_plate[at]].mark.clone(),
        wall: plate.thickness,
        plate: Some(plate.thickness),
        material: plate.material,
        body: made.plate_bodies()[at].as_ref().ok(),
        around: Box3::EMPTY,
        mitred: [false, false],
    });
    let mut all: Vec<Item<'_>> = members.chain(plates).collect();
    // The box of a shape in its own frame, turned to where each lies: no smaller than the box of the piece.
    let mut boxes: HashMap<usize, Box3> = HashMap::new();
    for (at, item) in all.iter_mut().enumerate() {
        let Some(body) = item.body else { continue };
        let Some(member) = frame.members.get(at) else {
            item.around = body.extents();
            continue;
        };
        let Ok((first, _)) = made.shape_body(at) else { continue };
        let own = boxes
            .entry(first)
            .or_insert_with(|| body.moved(&frame.members[first].start.motion().inverse(), |_| String::new()).extents());
        for x in [own.low.x, own.high.x] {
            for y in [own.low.y, own.high.y] {
                [own.low.z, own.high.z].into_iter().for_each(|z| item.around.hold(member.start.place(x, y, z)));
            }
        }
    }
    all
}

/// Whether two materials are welded to each other as a matter of course; if not, why.
fn weldable(one: &Material, two: &Material) -> Result<(), String> {
    let steel = |family: Family| matches!(family, Family::MildSteel | Family::Galvanised | Family::Stainless);
    let welds = |family: Family| !matches!(family, Family::Timber | Family::Card);
    let same = one.family == two.family && welds(one.family);
    if same || (steel(one.family) && steel(two.family)) {
        Ok(())
    } else {
        Err(format!("{} is not welded to {}", one.family.words(), two.family.words()))
    }
}

/// Every weld of a frame, from what lies together: flat faces no further apart than `widest` mm. A fillet runs where one piece
/// goes on, a butt where both stop, a flare along a section's corner. Coped ends lie on the round that they are coped on. Members
/// that have no exact body are taken from what they are cut to.
pub fn welds(made: &FrameMade, symbols: WeldSymbols, widest: f64) -> WeldsFound {
    let all = items(made);
    let mut found = WeldsFound::default();
    for (one, two, own) in &runs(made, &all, widest, false, &mut found) {
        of_pair(&all[*one], &all[*two], own, (symbols, made.frame.unit), &mut found.welds);
    }
    by_cuts(made, &all, symbols, &mut found);
    for (at, weld) in found.welds.iter_mut().enumerate() {
        weld.mark = format!("W{}", at + 1);
    }
    found
}

/// The length of weld between every two pieces, by name, mm, with the second piece asked first: what the audit holds the welds'
/// lengths against. Pieces without an exact body are left out.
pub fn weld_lengths_back(made: &FrameMade, widest: f64) -> std::collections::BTreeMap<[String; 2], f64> {
    let all = items(made);
    let runs = runs(made, &all, widest, true, &mut WeldsFound::default());
    let length = |own: &[Run]| -> f64 {
        let kinds = RUN_KINDS.map(|kind| own.iter().filter(|run| run.kind == kind).map(|run| run.length).sum::<f64>());
        kinds.into_iter().filter(|length| *length >= SHORTEST).sum()
    };
    runs.iter().map(|(one, two, own)| ([all[*one].name.clone(), all[*two].name.clone()], length(own))).collect()
}

/// What is welded of every two pieces that lie on each other; `turned` asks the second of them first.
fn runs(
    made: &FrameMade,
    all: &[Item<'_>],
    widest: f64,
    turned: bool,
    found: &mut WeldsFound,
) -> Vec<(usize, usize, Vec<Run>)> {
    let mut order: Vec<usize> = (0..all.len()).filter(|&at| all[at].body.is_some()).collect();
    order.sort_by(|&one, &two| all[one].around.low.x.total_cmp(&all[two].around.low.x));
    // As far as it is worth saying that something stands too far off.
    let look = widest.max(0.0) * 2.0;
    let mut pairs: Vec<(usize, usize)> = Vec::new();
    for (at, &one) in order.iter().enumerate() {
        for &two in &order[at + 1..] {
            patience::check();
            if all[two].around.low.x > all[one].around.high.x + look {
                break;
            }
            if all[one].around.overlaps(&all[two].around, -look) {
                pairs.push((one.min(two), one.max(two)));
            }
        }
    }
    pairs.sort_unstable();
    let mut runs: Vec<(usize, usize, Vec<Run>)> = Vec::new();
    let mut known = Known { made, patches: HashMap::new() };
    for (one, two) in pairs {
        patience::check();
        let (Some(first), Some(second)) = (all[one].body, all[two].body) else { continue };
        // A member that passes through a bore is in nobody's way and not welded by its walls.
        if made.frame.passes.iter().any(|&(a, b)| (a.min(b), a.max(b)) == (one, two)) {
            continue;
        }
        let (pair, bodies) =
            if turned { ((&all[two], &all[one]), (second, first)) } else { ((&all[one], &all[two]), (first, second)) };
        let order = if turned { (two, one) } else { (one, two) };
        let patches = known.contact(order, look);
        let (near, far): (Vec<&Patch>, Vec<&Patch>) = patches.iter().partition(|patch| patch.gap <= widest + ROUNDING);
        let names = (&all[one].name, &all[two].name);
        if near.is_empty() {
            if let Some(patch) = far.iter().min_by(|a, b| a.gap.total_cmp(&b.gap)) {
                let says = |value: f64| made.frame.unit.says(Amount::Length, value, 1);
                let gap = says(patch.gap);
                found.notes.push(Finding::hint(
                    format!("{} and {} stand {gap} apart: too far to weld", names.0, names.1),
                    format!("Bring them within {} where they are to be welded.", says(widest)),
                ));
            }
            continue;
        }
        if let Err(why) = weldable(all[one].material, all[two].material) {
            if [one, two].iter().all(|&at| !matches!(all[at].material.family, Family::Timber | Family::Card)) {
                found.unlike.push([all[one].name.clone(), all[two].name.clone()]);
                continue;
            }
            found.notes.push(Finding::warning(
                format!("{} and {} lie on each other and get no weld: {why}", names.0, names.1),
                "Bolt or glue them, or choose materials that weld to each other.",
            ));
            continue;
        }
        runs.push((one, two, near.iter().flat_map(|patch| runs_of(pair, bodies, patch)).collect()));
    }
    drop_covered(&mut runs);
    runs
}

/// Where two shapes lie to each other as two before them did: what they shared is theirs too.
struct Known<'a> {
    made: &'a FrameMade,
    /// By both shapes and how the second lies in the frame of the first; places in that frame.
    patches: HashMap<(usize, usize, [i64; 12]), Vec<Patch>>,
}

impl Known<'_> {
    fn contact(&mut self, (one, two): (usize, usize), look: f64) -> Vec<Patch> {
        let members = &self.made.frame.members;
        let body = |at: usize| match at.checked_sub(members.len()) {
            Some(plate) => self.made.plate_bodies()[plate].as_ref().ok(),
            None => self.made.member_body(at).ok(),
        };
        let look_at = || match (body(one), body(two)) {
            (Some(first), Some(second)) => contact(first, second, look),
            _ => Vec::new(),
        };
        let (Some(a), Some(b)) = (members.get(one), members.get(two)) else { return look_at() };
        let (Ok((first, _)), Ok((second, _))) = (self.made.shape_body(one), self.made.shape_body(two)) else {
            return Vec::new();
        };
        let key = (first, second, relative(&a.start, &b.start));
        let moved = |patches: &[Patch], place: &dyn Fn(Point3) -> Point3| -> Vec<Patch> {
            let mut all = patches.to_vec();
            for patch in &mut all {
                patch.place = place(patch.place);
                patch.rims.iter_mut().for_each(|rim| rim.middle = place(rim.middle));
            }
            all
        };
        if let Some(known) = self.patches.get(&key) {
            return moved(known, &|at| a.start.place(at.x, at.y, at.z));
        }
        let found = look_at();
        let told = moved(&found, &|at| Point3::default() + a.start.local(at));
        self.patches.insert(key, told);
        found
    }
}

/// A stretch that a weld of two pieces runs along.
struct Run {
    /// Never on the mitre: that is told of all of them together.
    kind: WeldKind,
    length: f64,
    middle: Point3,
    gap: f64,
    /// Between two ends that are cut slanted.
    mitre: bool,
}

/// The stretches of one patch.
fn runs_of((one, two): (&Item<'_>, &Item<'_>), bodies: (&Body, &Body), patch: &Patch) -> Vec<Run> {
    let thin_end = one.plate.into_iter().chain(two.plate).fold(0.0, f64::max) * 1.02;
    let is_mitre = |body: &Body, face: usize, item: &Item<'_>| {
        let BodyFace { name, owner, .. } = &body.faces[face];
        let own = name.strip_prefix(owner.as_str()).unwrap_or_default();
        (own == ".start" && item.mitred[0]) || (own == ".finish" && item.mitred[1])
    };
    let mitre = is_mitre(bodies.0, patch.faces[0], one) && is_mitre(bodies.1, patch.faces[1], two);
    let rims = patch.rims.iter().filter(|rim| rim.length > thin_end);
    rims.map(|rim| Run {
        kind: match rim.kind {
            RimKind::FirstStops | RimKind::SecondStops => WeldKind::Fillet,
            RimKind::BothStop => WeldKind::Butt,
            RimKind::Flare => WeldKind::Flare,
        },
        length: rim.length,
        middle: rim.middle,
        gap: patch.gap,
        mitre,
    })
    .collect()
}

/// Takes out stretches that two pairs have in one place: there a third piece goes on where the second stops, as over the mitre
/// of two rails that a leg stands under, and nobody reaches it.
fn drop_covered(runs: &mut [(usize, usize, Vec<Run>)]) {
    const NEAR: f64 = 0.05;
    let cell = |place: Point3| [place.x, place.y, place.z].map(|at| at.floor() as i64);
    let mut places: HashMap<[i64; 3], Vec<(usize, Point3, f64)>> = HashMap::new();
    for (pair, (.., own)) in runs.iter().enumerate() {
        for run in own {
            places.entry(cell(run.middle)).or_default().push((pair, run.middle, run.length));
        }
    }
    let covered = |pair: usize, run: &Run| {
        // Mostly the one cell: its neighbours where the place is near to a wall of it.
        let aside = Vector3::new(NEAR, NEAR, NEAR);
        let ([x, y, z], [up_x, up_y, up_z]) = (cell(run.middle + -aside), cell(run.middle + aside));
        let near = (x..=up_x).flat_map(|x| (y..=up_y).flat_map(move |y| (z..=up_z).map(move |z| [x, y, z])));
        near.filter_map(|cell| places.get(&cell)).flatten().any(|(other, middle, length)| {
            *other != pair && middle.distance(run.middle) < NEAR && (length - run.length).abs() < NEAR
        })
    };
    for (pair, (.., own)) in runs.iter_mut().enumerate() {
        own.retain(|run| !covered(pair, run));
    }
}

/// The kinds of stretches that contact tells.
const RUN_KINDS: [WeldKind; 3] = [WeldKind::Fillet, WeldKind::Butt, WeldKind::Flare];

/// The welds of two pieces: one a kind, along all the stretches of that kind.
fn of_pair(one: &Item<'_>, two: &Item<'_>, runs: &[Run], said: (WeldSymbols, LengthUnit), into: &mut Vec<Weld>) {
    for kind in RUN_KINDS {
        let (mut length, mut sum, mut gap, mut mitre) = (0.0, Vector3::default(), 0.0f64, true);
        for run in runs.iter().filter(|run| run.kind == kind) {
            length += run.length;
            sum = sum + run.middle.from_origin() * run.length;
            gap = gap.max(run.gap);
            mitre &= run.mitre;
        }
        if length < SHORTEST {
            continue;
        }
        let on_mitre = kind == WeldKind::Butt && mitre;
        into.push(weld_of(
            if on_mitre { WeldKind::ButtOnMitre } else { kind },
            [one.name.clone(), two.name.clone()],
            [one.mark.clone(), two.mark.clone()],
            Point3::default() + sum * (1.0 / length),
            length,
            (one.wall, two.wall),
            gap,
            if on_mitre { WeldSides::AllRound } else { WeldSides::WhatTouches },
            one.material.density,
            said,
        ));
    }
}

/// Shorter than this nothing is welded, mm.
const SHORTEST: f64 = 1.0;

/// Welds of members that have no exact body, from what they are cut to, and of plates on such members.
fn by_cuts(made: &FrameMade, all: &[Item<'_>], symbols: WeldSymbols, found: &mut WeldsFound) {
    let frame = &made.frame;
    let told = |one: usize, two: usize| all[one].body.is_some() && all[two].body.is_some();
    let mut seen: Vec<[usize; 2]> = Vec::new();
    for (index, member) in frame.members.iter().enumerate() {
        for which in OneEnd::BOTH {
            let end = &member.ends[which.at()];
            let mut others: Vec<(usize, bool)> = Vec::new();
            for cut in &end.planes {
                others.extend(cut.to.iter().map(|&to| (to, matches!(cut.by, CutBy::Mitre(_)))));
            }
            others.extend(end.copes.iter().map(|cope| (cope.to, false)));
            if others.is_empty() {
                continue;
            }
            let share = 1.0 / others.len() as f64;
            let perimeter = cut_perimeter(member, which);
            let centroid = member.region.centroid();
            let t = member.sawn_reach(which, centroid);
            let place = member.basis(which).place(centroid.x, centroid.y, t);
            for (to, mitre) in others {
                // Two members cut to each other share one weld: the first that is cut tells it.
                let pair = [index.min(to), index.max(to)];
                if told(index, to) || seen.contains(&pair) {
                    continue;
                }
                seen.push(pair);
                if let Err(why) = weldable(member.material, frame.members[to].material) {
                    found.notes.push(Finding::warning(
                        format!("{} is cut to {} and gets no weld: {why}", member.name, frame.members[to].name),
                        "Bolt or glue them, or choose materials that weld to each other.",
                    ));
                    continue;
                }
                found.welds.push(weld_of(
                    if mitre { WeldKind::ButtOnMitre } else { WeldKind::Fillet },
                    [all[index].name.clone(), all[to].name.clone()],
                    [all[index].mark.clone(), all[to].mark.clone()],
                    place,
                    perimeter * share,
                    (all[index].wall, all[to].wall),
                    0.0,
                    WeldSides::AllRound,
                    member.material.density,
                    (symbols, made.frame.unit),
                ));
            }
        }
    }
    for (at, plate) in frame.plates.iter().enumerate() {
        let own = frame.members.len() + at;
        for &(member, length) in &plate.meets {
            if told(own, member) || weldable(plate.material, frame.members[member].material).is_err() {
                continue;
            }
            let both = plate.form.welded_on_both_sides();
            found.welds.push(weld_of(
                WeldKind::Fillet,
                [all[own].name.clone(), all[member].name.clone()],
                [all[own].mark.clone(), all[member].mark.clone()],
                plate.centre_of_gravity(),
                if both { 2.0 * length } else { length },
                (all[own].wall, all[member].wall),
                0.0,
                if both { WeldSides::BothSides } else { WeldSides::AllRound },
                plate.material.density,
                (symbols, made.frame.unit),
            ));
        }
    }
}

#[allow(clippy::too_many_arguments)]
pub(super) fn weld_of(
    kind: WeldKind,
    parts: [String; 2],
    marks: [String; 2],
    place: Point3,
    length: f64,
    walls: (f64, f64),
    gap: f64,
    sides: WeldSides,
    density: f64,
    (symbols, unit): (WeldSymbols, LengthUnit),
) -> Weld {
    let (thicker, thinner) = (walls.0.max(walls.1), walls.0.min(walls.1));
    let butt = kind.is_butt();
    // Where both stop the walls meet edge to edge: a V of 60 deg through the thinner one.
    let grown = if gap > GROWS { gap } else { 0.0 };
    let leg = if butt { thinner } else { fillet_leg(thicker, thinner, unit) + grown };
    let throat = if butt { thinner } else { (leg - grown) / 2f64.sqrt() };
    let area = if butt { leg * leg * std::f64::consts::FRAC_PI_6.tan() } else { leg * leg / 2.0 };
    let mass = area * length * REINFORCED * density * CUBIC_METRES;
    let show = |value: f64| decimal(value / unit.millimetres(), if unit == LengthUnit::Mm { 1 } else { 4 });
    let symbol = match symbols {
        // ISO 2553: z is the leg; the circle at the bend of the arrow is all round.
        WeldSymbols::Iso2553 => {
            format!("{}{} {} {}", if butt { "s" } else { "z" }, show(leg), kind.words(), sides.words())
        }
        // AWS A2.4: the leg's size to the left of the symbol, in its own order.
        WeldSymbols::AwsA24 => format!("{} {} {}, arrow side", show(leg), kind.words(), sides.words()),
    };
    let sign = unit.sign();
    Weld {
        mark: String::new(),
        kind,
        parts: parts.to_vec(),
        marks: marks.to_vec(),
        place,
        length,
        leg,
        throat,
        sides,
        symbol,
        mass,
        minutes: mass / DEPOSIT_RATE * 60.0,
        why: Why {
            title: format!("{} of the weld of {} and {}", if butt { "Depth" } else { "Leg" }, parts[0], parts[1]),
            formula: if butt {
                "through the thinner wall; V of 60 deg: t^2 tan 30 deg x length".into()
            } else {
                least_legs(unit).into()
            },
            working: format!(
                "{} and {} {sign}{}: {} {sign}, throat {} {sign}; {} {sign} {}, {} deposited (area x length x {REINFORCED})",
                show(thicker),
                show(thinner),
                if grown > 0.0 { format!(", a gap of {} {sign} added", show(grown)) } else { String::new() },
                show(leg),
                unit.bare(Amount::Length, throat, 2),
                show(length),
                sides.words(),
                unit.says(Amount::Mass, mass, 4)
            ),
            source: if butt {
                "common practice for mitred hollow sections; checked and listed, never certified".into()
            } else {
                "AWS D1.1 practice; checked and listed, never certified".into()
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
            "Welding zinc gives fume that makes ill: grind it back, extract the fume, wear a fitted mask.".to_string(),
        );
    }
    if has(Family::Stainless) {
        all.push(
            "Welding stainless gives hexavalent chromium fume: extract it at the arc, wear a fitted mask.".to_string(),
        );
    }
    if made.frame.members.len() > 3 {
        all.push("Tack all joints and check the diagonals before welding out; weld from the middle, side about: long welds on one side pull.".to_string());
    }
    all
}
