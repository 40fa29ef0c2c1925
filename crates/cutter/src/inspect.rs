//! Measures the part that a program leaves: where the kerf's edge stands against the outlines that were wanted.
//!
//! The tool sweeps a disc as wide as the kerf along every cut. Two questions settle the part: does the disc ever reach
//! into wanted metal (exact, segment against segment), and does it reach every place of every contour (by walking along
//! them). An inside corner sharper than the kerf is round cannot be reached by any program: what stays there is measured
//! and said, and is no fault.

use std::collections::BTreeMap;
use std::ops::Range;

use serde::Serialize;
use steelk_core::beside;
use steelk_core::patience;
use steelk_core::plane::{Box2, Outline, Point, Segment, Vector, segment_distance};
use steelk_core::quantity::decimal;
use utoipa::ToSchema;

use crate::machine::{Move, MoveKind, Run};
use crate::wanted::Wanted;
use near::{Near, Piece};

/// Programs say places and widths to so much, mm.
const AS_SAID: f64 = 1e-4;
/// How far past the edge of the sheet a place is off it, mm.
const OFF_SHEET: f64 = 1e-3;

mod near;

/// How far the outline of the part may lie from what was wanted, mm.
pub const OUTLINE_TOLERANCE: f64 = 0.01;
/// Steps along a contour, mm.
const STEP: f64 = 0.25;
/// So many cuts beside an edge are few enough to be tried one by one.
const MOST_FEW: usize = 12;
/// A mark may lie so far from its centre, mm.
const MARK_TOLERANCE: f64 = 0.05;
/// No more faults than this are told one by one.
const MOST_FAULTS: usize = 40;

/// What is wrong with a program.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FaultKind {
    /// Written in another unit than it says.
    Units,
    /// The cut lies on the wrong side of its contour.
    KerfSide,
    /// The tool cuts into the part.
    Bite,
    /// Part of a contour, or all of it, is not cut.
    NotCut,
    /// A centre mark is missing or out of place.
    Mark,
    /// The head leaves the stock.
    Stock,
    /// Written for another kerf than the machine's.
    Kerf,
    /// A hole is cut after the part is loose.
    Order,
    /// Tabs are missing or of another width.
    Tabs,
    /// It does not end as a program does.
    End,
}

/// One thing wrong.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Fault {
    /// What kind of thing.
    pub kind: FaultKind,
    /// In words, with values.
    pub message: String,
    /// Where, mm from the program's zero.
    pub place: Option<Point>,
    /// Line of the program.
    pub line: Option<usize>,
}

/// What one contour came to.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MeasuredContour {
    /// A hole's name, or `outside`.
    pub name: String,
    /// Of a round hole: its diameter as cut, mm. Of the outside: none.
    pub diameter: Option<f64>,
    /// Width and height as cut, mm.
    pub size: [f64; 2],
    /// The furthest that its edge lies from what was wanted, mm.
    pub worst: f64,
    /// What stays in inside corners that the kerf cannot reach, mm.
    pub corner: f64,
}

/// The part that a program leaves.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Inspection {
    /// Whether it is the part that was wanted.
    pub holds: bool,
    /// What is wrong.
    pub faults: Vec<Fault>,
    /// How many more faults there are than are told.
    pub more: usize,
    /// Every contour, the outside first.
    pub contours: Vec<MeasuredContour>,
    /// The furthest that any edge lies from what was wanted, mm.
    pub worst: f64,
    /// How many tabs hold the part.
    pub tabs: usize,
    /// Time of the run, s.
    pub seconds: f64,
}

/// Measures what a run leaves: two things at a time where a second core is lent ([`beside`]).
pub fn inspect(run: &Run, wanted: &Wanted) -> Inspection {
    let bench = Bench::new(run, wanted);
    let mut faults = Faults::default();
    let (mut contours, mut tabs) = (Vec::new(), 0);
    if let Some(fault) = bench.other_unit() {
        // Everything else would only say the same again.
        faults.0.push(fault);
    } else {
        bench.program(&mut faults);
        let count = 1 + wanted.holes.len();
        // The bites take about half as long as the contours do.
        let middle = count * 3 / 4;
        let (first, (mut bites, rest)) = beside::both(
            || bench.along(0..middle),
            || {
                let mut bites = Faults::default();
                bench.bites(&mut bites);
                bench.slits(&mut bites);
                (bites, bench.along(middle..count))
            },
        );
        faults.0.append(&mut bites.0);
        (contours, tabs) = bench.contours(first.into_iter().chain(rest), &mut faults);
        bench.marks(&mut faults);
    }
    let mut faults = faults.0;
    let more = faults.len().saturating_sub(MOST_FAULTS);
    let holds = faults.is_empty();
    faults.truncate(MOST_FAULTS);
    let worst = contours.iter().map(|one: &MeasuredContour| one.worst).fold(0.0, f64::max);
    Inspection { holds, faults, more, contours, worst, tabs, seconds: run.seconds }
}

/// The nearest of cuts within `reach` mm of a place, with the move that it is of.
fn nearest_of<'a>(cuts: impl Iterator<Item = &'a Piece>, place: Point, reach: f64) -> Option<(f64, usize)> {
    cuts.map(|piece| (piece.way.distance_to(place), piece.owner))
        .filter(|(away, _)| *away <= reach)
        .min_by(|one, two| one.0.total_cmp(&two.0))
}

fn mm(value: f64) -> String {
    format!("{} mm", decimal(value, 3))
}

fn at(place: Point) -> String {
    format!("x {}, y {}", mm(place.x), mm(place.y))
}

/// A place on a contour, the way to the waste there, and how the kerf stands to it.
struct Sample {
    place: Point,
    waste: Vector,
    /// From the place to the nearest cut; infinite where none is near.
    away: f64,
    /// Whether a disc as wide as the kerf can touch the place without reaching into the part.
    reachable: bool,
    /// Which cut is nearest.
    cut: Option<usize>,
}

struct Bench<'a> {
    run: &'a Run,
    wanted: &'a Wanted,
    half: f64,
    /// Cut moves; values are places in `run.moves`.
    cuts: Near,
    /// Contours: 0 the outside, then the holes.
    edges: Near,
    holes: Near,
}

/// A contour that was walked along.
struct Walked {
    contour: usize,
    measured: MeasuredContour,
    /// The first and the last cut beside it.
    cuts: Option<(usize, usize)>,
    /// How many tabs stand on it.
    tabs: usize,
    faults: Faults,
}

/// What is wrong, as it is found.
#[derive(Default)]
struct Faults(Vec<Fault>);

impl Faults {
    fn tell(&mut self, kind: FaultKind, message: String, place: Option<Point>, line: Option<usize>) {
        self.0.push(Fault { kind, message, place, line });
    }
}

impl<'a> Bench<'a> {
    fn new(run: &'a Run, wanted: &'a Wanted) -> Self {
        // What runs along a slit is looked at for itself: it has metal on both sides.
        let slits: Vec<bool> = run.moves.iter().map(|one| runs_along(&one.way, wanted).is_some()).collect();
        let cuts = run
            .moves
            .iter()
            .enumerate()
            .filter(|(at, one)| one.kind == MoveKind::Cut && !slits[*at])
            .map(|(at, one)| (one.way, at));
        let outer = wanted.outer.segments().map(|(one, _)| (one, 0));
        let inner = wanted
            .holes
            .iter()
            .enumerate()
            .flat_map(|(at, hole)| hole.outline.segments().map(move |(one, _)| (one, at + 1)));
        let boxes = wanted.holes.iter().enumerate().map(|(at, hole)| (hole.outline.extents(), at));
        Bench {
            run,
            wanted,
            half: wanted.kerf / 2.0,
            cuts: Near::new(cuts),
            edges: Near::new(outer.chain(inner)),
            holes: Near::of_boxes(boxes),
        }
    }

    fn name(&self, contour: usize) -> &'a str {
        if contour == 0 { "the outside" } else { &self.wanted.holes[contour - 1].name }
    }

    fn in_part(&self, place: Point) -> bool {
        self.wanted.outer.contains(place)
            && !self.holes.around(place, 0.0).any(|hole| self.wanted.holes[hole.owner].outline.contains(place))
    }

    /// Nearest distance from a place to any contour, as far as `reach`.
    fn to_contour(&self, place: Point, reach: f64) -> Option<(f64, usize)> {
        self.edges
            .around(place, reach)
            .map(|piece| (piece.way.distance_to(place), piece.owner))
            .min_by(|one, two| one.0.total_cmp(&two.0))
    }

    /// Whether the tool can stand here and cuts into nothing.
    fn is_free(&self, centre: Point) -> bool {
        self.to_contour(centre, self.half).is_none_or(|(away, _)| away >= self.half - AS_SAID)
    }

    /// A program whose cuts are as large as the part times 25.4, or divided by it.
    fn other_unit(&self) -> Option<Fault> {
        let cut = self.run.cuts().fold(Box2::EMPTY, |around, one| around.with(one.way.extents()));
        let wide = self.wanted.outer.extents();
        if !cut.width().is_finite() {
            return None;
        }
        for (ratio, words) in [
            (25.4, "its numbers are millimetres and it says inches"),
            (1.0 / 25.4, "its numbers are inches and it says millimetres"),
        ] {
            let near = |cut: f64, wide: f64| (cut / wide / ratio - 1.0).abs() < 0.3;
            // A part may be small beside its leads, so both ways have to agree.
            if near(cut.width(), wide.width()) && near(cut.height(), wide.height()) {
                return Some(Fault {
                    kind: FaultKind::Units,
                    message: format!(
                        "wrong units: what is cut measures {} by {}, the part {} by {}; {words}",
                        mm(cut.width()),
                        mm(cut.height()),
                        mm(wide.width()),
                        mm(wide.height())
                    ),
                    place: None,
                    line: None,
                });
            }
        }
        None
    }

    fn program(&self, faults: &mut Faults) {
        if !self.run.ended {
            faults.tell(
                FaultKind::End,
                "the program does not end with M30: it may have been cut short".into(),
                None,
                None,
            );
        }
        let said = self.run.header.get("KERF").and_then(|text| text.split_whitespace().next()?.parse::<f64>().ok());
        if let Some(said) = said
            && (said - self.wanted.kerf).abs() > AS_SAID
        {
            let message =
                format!("written for a kerf of {}; this cutter's is {} in this sheet", mm(said), mm(self.wanted.kerf));
            faults.tell(FaultKind::Kerf, message, None, None);
        }
        let (width, height) = self.wanted.stock;
        let stray = self.run.cuts().find(|one| {
            let box_ = one.way.extents();
            box_.low.x < -OFF_SHEET
                || box_.low.y < -OFF_SHEET
                || box_.high.x > width + OFF_SHEET
                || box_.high.y > height + OFF_SHEET
        });
        if let Some(one) = stray {
            let message = format!("line {} cuts beyond the stock of {} by {}", one.line, mm(width), mm(height));
            faults.tell(FaultKind::Stock, message, Some(one.way.end), Some(one.line));
        }
    }

    /// Every cut that reaches into the part.
    fn bites(&self, faults: &mut Faults) {
        let mut by_cut: BTreeMap<usize, Vec<&Move>> = BTreeMap::new();
        for one in self.run.cuts().filter(|one| runs_along(&one.way, self.wanted).is_none()) {
            patience::check();
            by_cut.entry(one.cut).or_default().push(one);
        }
        for moves in by_cut.values() {
            let pieces: Vec<(Segment, usize)> = moves
                .iter()
                .flat_map(|one| near::chopped(&one.way).into_iter().map(|piece| (piece, one.line)))
                .collect();
            let close = |piece: &Segment| {
                self.edges
                    .across(piece, self.half)
                    .any(|edge| segment_distance(piece, &edge.way) < self.half - OUTLINE_TOLERANCE)
            };
            let near: Vec<bool> = pieces.iter().map(|(piece, _)| close(piece)).collect();
            // Once it has come over a contour, a cut may run at its full distance within the part.
            let crossed = near.iter().any(|&one| one);
            let (mut offending, mut total) = (0.0, 0.0);
            let mut worst: Option<(f64, Point, usize)> = None;
            for ((piece, line), near) in pieces.iter().zip(near) {
                patience::check();
                total += piece.length();
                if !(near || crossed && self.in_part(piece.at(0.5))) {
                    continue;
                }
                offending += piece.length();
                for step in 0..=8 {
                    let place = piece.at(f64::from(step) / 8.0);
                    let far = 4.0 * self.half + 1.0;
                    let away = self.to_contour(place, far).map_or(far, |one| one.0);
                    let depth = if self.in_part(place) { self.half + away } else { self.half - away };
                    if depth > worst.map_or(0.0, |one| one.0) {
                        worst = Some((depth, place, *line));
                    }
                }
            }
            let (first, last) = (moves[0], moves[moves.len() - 1]);
            let Some((depth, place, line)) = worst else {
                // It keeps its distance from every contour: it lies wholly in waste, or wholly in the part.
                if self.in_part(first.way.start) {
                    let message = format!(
                        "lines {} to {} cut into the middle of the part, at {}",
                        first.line,
                        last.line,
                        at(first.way.start)
                    );
                    faults.tell(FaultKind::Bite, message, Some(first.way.start), Some(first.line));
                }
                continue;
            };
            let contour = self.to_contour(place, 4.0 * self.half + 1.0).map_or(0, |one| one.1);
            let name = self.name(contour);
            if offending > 0.5 * total && depth > self.half && offending > 4.0 * self.half {
                let message = format!(
                    "the kerf is on the wrong side of {name}: lines {} to {} cut {} into the part",
                    first.line,
                    last.line,
                    mm(depth)
                );
                faults.tell(FaultKind::KerfSide, message, Some(place), Some(first.line));
            } else {
                let message = format!("line {line} cuts {} into the part beside {name}, at {}", mm(depth), at(place));
                faults.tell(FaultKind::Bite, message, Some(place), Some(line));
            }
        }
    }

    /// Every slit: cut from its mouth to its tip, before the part is loose.
    fn slits(&self, faults: &mut Faults) {
        let wanted = self.wanted;
        let half = self.half;
        let outside = |one: &Move| runs_along(&one.way, wanted).is_none() && !self.in_part(one.way.at(0.5));
        let first_round = self.run.cuts().filter(|one| outside(one)).map(|one| one.cut).max();
        for (number, slit) in wanted.slits.iter().enumerate() {
            let own: Vec<&Move> = self
                .run
                .cuts()
                .filter(|one| runs_along(&one.way, wanted).is_some_and(|(which, _)| which == number))
                .collect();
            let name = format!("tear {}", number + 1);
            let mut missed: Option<Point> = None;
            for one in slit {
                let steps = (one.length() / STEP).ceil().clamp(8.0, 1e6) as usize;
                for step in 0..=steps {
                    let place = one.at(step as f64 / steps as f64);
                    let away = own.iter().map(|cut| cut.way.distance_to(place)).fold(f64::INFINITY, f64::min);
                    if away > half + OUTLINE_TOLERANCE {
                        missed.get_or_insert(place);
                    }
                }
            }
            if let Some(place) = missed {
                let message = format!("{name} is not cut from end to end: metal stays, at {}", at(place));
                faults.tell(FaultKind::NotCut, message, Some(place), None);
            }
            let late = own.iter().map(|one| one.cut).min().zip(first_round);
            if self.wanted.tabs.is_none()
                && let Some((first, last)) = late
                && first > last
            {
                faults.tell(FaultKind::Order, format!("{name} is cut after the part is loose"), None, None);
            }
        }
    }

    /// Walks along contours: 0 is the outside, then the holes.
    fn along(&self, contours: Range<usize>) -> Vec<Walked> {
        contours
            .map(|contour| {
                patience::check();
                let outline = if contour == 0 { &self.wanted.outer } else { &self.wanted.holes[contour - 1].outline };
                let samples = self.walk(outline, contour > 0);
                let (worst, corner, open) = self.stand(&samples);
                let mut faults = Faults::default();
                let mut tabs = 0;
                if contour == 0 {
                    tabs = self.tabs(&samples, &open, &mut faults);
                } else {
                    not_cut(self.half, self.name(contour), &samples, &open, &mut faults);
                }
                let cuts = || samples.iter().filter(|one| one.away.is_finite()).filter_map(|one| one.cut);
                let cuts = cuts().min().zip(cuts().max());
                let measured = self.size(outline, contour, &samples, worst, corner);
                Walked { contour, measured, cuts, tabs, faults }
            })
            .collect()
    }

    /// What each contour came to, and how many tabs hold the part.
    fn contours(&self, walked: impl Iterator<Item = Walked>, faults: &mut Faults) -> (Vec<MeasuredContour>, usize) {
        let mut measured = Vec::with_capacity(1 + self.wanted.holes.len());
        let mut tabs = 0;
        // The last cut of the outside, and each hole's first.
        let mut last_outside: Option<usize> = None;
        let mut first_of: Vec<(usize, usize)> = Vec::new();
        for mut one in walked {
            faults.0.append(&mut one.faults.0);
            if one.contour == 0 {
                last_outside = one.cuts.map(|(_, last)| last);
                tabs = one.tabs;
            } else {
                first_of.extend(one.cuts.map(|(first, _)| (one.contour, first)));
            }
            measured.push(one.measured);
        }
        if let (Some(last), None) = (last_outside, self.wanted.tabs) {
            for (contour, first) in first_of {
                if first > last {
                    let message = format!("{} is cut after the part is loose", self.name(contour));
                    faults.tell(FaultKind::Order, message, None, None);
                }
            }
        }
        (measured, tabs)
    }

    fn walk(&self, outline: &Outline, hole: bool) -> Vec<Sample> {
        let mut samples = Vec::new();
        for (one, _) in outline.segments() {
            patience::check();
            let steps = (one.length() / STEP).ceil().clamp(8.0, 1e6) as usize;
            let reach = self.half + OUTLINE_TOLERANCE;
            // Along a short edge the cuts that come near are few and the same for every step: they are looked up once.
            let few: Vec<&Piece> = self.cuts.across(&one, reach).take(MOST_FEW + 1).collect();
            let few = (few.len() <= MOST_FEW).then_some(few);
            for step in 0..=steps {
                let place = one.at(step as f64 / steps as f64);
                let ahead = if one.is_line() {
                    (one.end - one.start).unit()
                } else {
                    let arm = place - one.centre();
                    (if one.bulge > 0.0 { arm.left() } else { arm.right() }).unit()
                };
                let waste = if hole { ahead.left() } else { ahead.right() };
                let mut nearest = match &few {
                    Some(few) => nearest_of(few.iter().copied(), place, reach),
                    None => self.nearest_cut(place, reach),
                };
                let mut reachable = true;
                // In a wide inside corner what stays is less than the tolerance, and no program can cut it either.
                if nearest.is_none_or(|(away, _)| away > self.half + AS_SAID) {
                    reachable = self.is_free(place + waste * self.half);
                }
                if nearest.is_none() {
                    // How far off the kerf is matters beyond the tolerance too: a wide outline, a corner.
                    nearest = self.nearest_cut(place, 6.0 * self.half + 0.5);
                }
                let (away, cut) =
                    nearest.map_or((f64::INFINITY, None), |(away, at)| (away, Some(self.run.moves[at].cut)));
                samples.push(Sample { place, waste, away, reachable, cut });
            }
        }
        samples
    }

    fn nearest_cut(&self, place: Point, reach: f64) -> Option<(f64, usize)> {
        nearest_of(self.cuts.around(place, reach), place, reach)
    }

    /// Worst distance of the edge, what stays in corners, and the stretches that are not cut (first sample, count).
    fn stand(&self, samples: &[Sample]) -> (f64, f64, Vec<(usize, usize)>) {
        let count = samples.len();
        let reach = self.half + OUTLINE_TOLERANCE;
        let (mut worst, mut corner) = (0.0f64, 0.0f64);
        // From each place the nearest disc that can be had, looking both ways along the contour.
        let centre = |at: usize| samples[at].place + samples[at].waste * self.half;
        let mut best = vec![f64::INFINITY; count];
        for way in [1, count - 1] {
            let mut known: Option<usize> = None;
            // Passed since: a place that a cut touches from beside, in a notch, has no room for a disc of its own.
            let mut passed: Vec<usize> = Vec::new();
            let mut here = 0;
            for _ in 0..2 * count {
                if samples[here].reachable {
                    passed.push(here);
                } else {
                    known = passed.drain(..).rev().find(|&at| self.is_free(centre(at))).or(known);
                    if let Some(known) = known {
                        best[here] = best[here].min(samples[here].place.distance(centre(known)));
                    }
                }
                here = (here + way) % count;
            }
        }
        let open: Vec<bool> = (0..count)
            .map(|at| {
                let one = &samples[at];
                if one.reachable {
                    if one.away <= reach {
                        worst = worst.max((one.away - self.half).abs());
                        return false;
                    }
                    return true;
                }
                // A step of the walk is what the best disc may be missed by.
                let cut = one.away <= best[at] + OUTLINE_TOLERANCE + STEP / 2.0;
                if cut {
                    corner = corner.max(one.away - self.half);
                }
                !cut
            })
            .collect();
        (worst, corner, stretches(&open))
    }

    /// Stretches of the outside that are not cut: tabs where they were wanted, faults elsewhere. Returns how many tabs.
    fn tabs(&self, samples: &[Sample], open: &[(usize, usize)], faults: &mut Faults) -> usize {
        let (count, width) = self.wanted.tabs.unwrap_or((0, 0.0));
        let fits = |stretch: &&(usize, usize)| {
            let long = length(samples, **stretch);
            long >= width - 2.0 * STEP && long <= width + self.wanted.kerf + 2.0 * STEP
        };
        let good: Vec<&(usize, usize)> = if count > 0 { open.iter().filter(fits).collect() } else { Vec::new() };
        let bad: Vec<(usize, usize)> = open.iter().filter(|one| !good.contains(one)).copied().collect();
        if !bad.is_empty() {
            not_cut(self.half, "the outside", samples, &bad, faults);
        }
        if good.len() != count {
            let message = format!("{} tabs of {} were wanted; {} hold the part", count, mm(width), good.len());
            faults.tell(FaultKind::Tabs, message, None, None);
        }
        good.len()
    }

    fn size(&self, outline: &Outline, contour: usize, samples: &[Sample], worst: f64, corner: f64) -> MeasuredContour {
        // The kerf's edge beside each place; at a tab there is none, but a contour that is off throughout has a size too.
        let mut around = Box2::EMPTY;
        let (mut sum, mut count) = (0.0, 0);
        let good = |one: &&Sample| one.away <= self.half + OUTLINE_TOLERANCE;
        let mostly = 2 * samples.iter().filter(good).count() > samples.len();
        for one in samples.iter().filter(|one| one.reachable && one.away.is_finite() && (good(one) || !mostly)) {
            around.hold(one.place + one.waste * (one.away - self.half));
            sum += one.away - self.half;
            count += 1;
        }
        let size = if count == 0 { [0.0, 0.0] } else { [around.width(), around.height()] };
        let diameter = outline
            .as_circle()
            .filter(|_| contour > 0 && count > 0)
            .map(|(_, radius)| 2.0 * (radius - sum / f64::from(count)));
        let name = if contour == 0 { "outside".to_string() } else { self.name(contour).to_string() };
        MeasuredContour { name, diameter, size, worst, corner }
    }

    fn marks(&self, faults: &mut Faults) {
        let mut made = self.run.marks.clone();
        let wanted = self.wanted;
        for (name, place) in &wanted.marks {
            patience::check();
            let found = made.iter().position(|(one, _)| one.distance(*place) <= MARK_TOLERANCE);
            match found {
                Some(found) => drop(made.swap_remove(found)),
                None => {
                    let message = format!("the centre of {name} is not marked, at {}", at(*place));
                    faults.tell(FaultKind::Mark, message, Some(*place), None);
                }
            }
        }
        for (place, line) in made {
            let message = format!("line {line} marks a place that is no centre, at {}", at(place));
            faults.tell(FaultKind::Mark, message, Some(place), Some(line));
        }
    }
}

/// The slit that a cut runs along, with the piece of it: on its line, no nearer to its tip than half a kerf, so that the kerf does
/// not reach past it. Before its mouth it may begin in the waste.
fn runs_along(way: &Segment, wanted: &Wanted) -> Option<(usize, usize)> {
    if !way.is_line() {
        return None;
    }
    let half = wanted.kerf / 2.0;
    for (at, slit) in wanted.slits.iter().enumerate() {
        for (piece, one) in slit.iter().enumerate() {
            let ahead = (one.end - one.start).unit();
            let on = |place: Point| {
                let arm = place - one.start;
                let (along, aside) = (arm.dot(ahead), ahead.cross(arm).abs());
                let last = if piece + 1 == slit.len() { one.length() - half } else { one.length() };
                aside < OUTLINE_TOLERANCE && along < last + OUTLINE_TOLERANCE
            };
            // It must run over the slit itself, not only before its mouth.
            let over = (way.start - one.start).dot(ahead).max((way.end - one.start).dot(ahead)) > -OUTLINE_TOLERANCE;
            if on(way.start) && on(way.end) && over {
                return Some((at, piece));
            }
        }
    }
    None
}

/// Says that stretches of a contour are not cut.
fn not_cut(half: f64, name: &str, samples: &[Sample], open: &[(usize, usize)], faults: &mut Faults) {
    let missed: usize = open.iter().map(|(_, count)| count).sum();
    if missed == 0 {
        return;
    }
    let place = samples[open[0].0].place;
    let none = samples.iter().all(|one| one.away.is_infinite());
    let message = if none {
        format!("{name} is missing: nothing is cut there")
    } else if missed * 10 >= samples.len() * 9 {
        let away = samples.iter().map(|one| one.away).filter(|away| away.is_finite()).fold(0.0, f64::max);
        format!("{name} is not cut to its outline: metal of up to {} stays", mm(away - half))
    } else {
        format!("{name} is not cut all the way round: {} stays, at {}", mm(length(samples, open[0])), at(place))
    };
    faults.tell(FaultKind::NotCut, message, Some(place), None);
}

/// Runs of true in a ring: first place and count.
fn stretches(open: &[bool]) -> Vec<(usize, usize)> {
    let count = open.len();
    let Some(closed) = open.iter().position(|one| !one) else {
        return if count > 0 { vec![(0, count)] } else { Vec::new() };
    };
    let mut found: Vec<(usize, usize)> = Vec::new();
    let mut run = 0;
    for step in 1..=count {
        let here = (closed + step) % count;
        if open[here] {
            run += 1;
        } else if run > 0 {
            found.push(((closed + step + count - run) % count, run));
            run = 0;
        }
    }
    found
}

fn length(samples: &[Sample], (first, count): (usize, usize)) -> f64 {
    (1..count)
        .map(|step| {
            let (one, two) = (&samples[(first + step - 1) % samples.len()], &samples[(first + step) % samples.len()]);
            one.place.distance(two.place)
        })
        .sum()
}
