//! From a part's profile to paths in the order they are cut.

use crate::finding::Finding;
use crate::patience;
use crate::plane::{Edge, Outline, Point, Segment, Vector, offset};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use crate::quantity::{LengthUnit, length_text};
use crate::work::cutting::{LeadShape, SmallHoles};

use super::choice::Settings;
use super::lead::{Clear, Meeting, across, lead};
use super::order::{Stop, shorten, travel};
use super::profile::{CutHole, Profile};
use super::tab;

/// Which side of its contour a path runs on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Side {
    /// Within a hole.
    Inside,
    /// Round the part.
    Outside,
    /// Along a slit, once.
    Along,
}

/// One cut from pierce to tool off, mm from the program's zero. Waste lies to the left of it.
#[derive(Clone, Debug, PartialEq)]
pub struct CutPath {
    /// What is cut: a hole's name, or `outside`.
    pub name: String,
    /// Side of the contour.
    pub side: Side,
    /// From the pierce onto the path.
    pub lead_in: Option<Segment>,
    /// Along the contour, half a kerf from it.
    pub body: Vec<Segment>,
    /// Away from the path.
    pub lead_out: Option<Segment>,
}

impl CutPath {
    /// The whole cut in order.
    pub fn segments(&self) -> impl Iterator<Item = &Segment> {
        self.lead_in.iter().chain(&self.body).chain(&self.lead_out)
    }

    /// Where it is pierced.
    pub fn start(&self) -> Point {
        self.segments().next().map_or(Point::default(), |one| one.start)
    }

    /// Where the tool goes off.
    pub fn end(&self) -> Point {
        self.segments().last().map_or(Point::default(), |one| one.end)
    }

    /// Length of the cut, leads included, mm.
    pub fn length(&self) -> f64 {
        self.segments().map(Segment::length).sum()
    }
}

/// A centre mark, mm from the program's zero.
#[derive(Clone, Debug, PartialEq)]
pub struct Mark {
    /// The hole's name.
    pub name: String,
    /// Where.
    pub place: Point,
}

/// A cut program before it is written, mm from the program's zero: the lower left corner of the stock.
#[derive(Clone, Debug, PartialEq)]
pub struct Plan {
    /// The program's zero in the plane of the blank.
    pub origin: Point,
    /// Width and height of the stock.
    pub stock: (f64, f64),
    /// Centre marks, made first.
    pub marks: Vec<Mark>,
    /// Cuts in order: inside before outside.
    pub paths: Vec<CutPath>,
    /// Holes that the cutter would spoil: marked and left to the drill press.
    pub drilled: Vec<String>,
    /// Way of the head with the tool off, from zero and back.
    pub travel: f64,
    /// The same in the order that the contours are listed in.
    pub travel_listed: f64,
    /// What is worth knowing.
    pub notes: Vec<Finding>,
}

impl Plan {
    /// Length of all cuts, leads included, mm.
    pub fn cut_length(&self) -> f64 {
        self.paths.iter().map(CutPath::length).sum()
    }

    /// Number of pierces.
    pub fn pierces(&self) -> usize {
        self.paths.len()
    }
}

/// What a program's decimals round away, mm.
const ROUNDED_AWAY: f64 = 1e-4;

/// The outline without corners between straight edges that lie no further than a program's decimals off the line past them: the parallel of
/// two edges that all but run on in one line is ill found, the more so where one of them is short.
fn straightened(outline: &Outline) -> Outline {
    let count = outline.edges.len();
    let is_kept = |at: usize| outline.edges[at].bulge != 0.0 || outline.edges[(at + count - 1) % count].bulge != 0.0;
    let mut edges: Vec<Edge> = Vec::new();
    let mut dropped: Vec<Point> = Vec::new();
    for at in 0..count {
        let (here, next) = (outline.edges[at], outline.edges[(at + 1) % count].start);
        let last = edges.last().map(|edge| edge.start);
        let runs_on = last.is_some_and(|last| {
            let line = Segment::line(last, next);
            dropped.iter().chain([&here.start]).all(|place| line.distance_to(*place) < ROUNDED_AWAY)
        });
        if runs_on && !is_kept(at) {
            dropped.push(here.start);
        } else {
            edges.push(here);
            dropped.clear();
        }
    }
    Outline { edges }
}

/// Plans the cuts of a profile.
///
/// # Errors
/// Holes that the cutter cannot make, a kerf wider than the part's own shape, tabs that leave nothing to cut.
pub fn plan(profile: &Profile, settings: &Settings, unit: LengthUnit) -> Result<Plan, Vec<Finding>> {
    let show = |value: f64| length_text(value, unit);
    let around = profile.outer.extents();
    let origin = around.low - Vector::new(settings.margin, settings.margin);
    let shift = Point::default() - origin;
    let moved = |outline: &Outline| outline.moved(|point| point + shift);
    let (mut faults, mut notes, mut drilled) = (Vec::new(), Vec::new(), Vec::new());
    let mut marks: Vec<Mark> =
        profile.marks.iter().map(|(name, place, _)| Mark { name: name.clone(), place: *place + shift }).collect();
    let mut inner = Vec::new();
    for hole in &profile.cut {
        patience::check();
        match cut_hole(hole, &moved(&hole.outline), settings, unit) {
            Ok(HoleCut::Paths(paths)) => inner.extend(paths),
            Ok(HoleCut::Mark(place)) => {
                drilled.push(hole.name.clone());
                marks.push(Mark { name: hole.name.clone(), place });
            }
            Err(fault) => faults.push(fault),
        }
    }
    let half = settings.row.kerf / 2.0;
    // How far a place in the waste is from the part; none within the part.
    let way_out = |place: Point| -> Option<f64> {
        let own = place - shift;
        let inside = |outline: &Outline| outline.contains(own);
        if inside(&profile.outer) && !profile.cut.iter().any(|hole| inside(&hole.outline)) {
            return None;
        }
        let outlines = std::iter::once(&profile.outer).chain(profile.cut.iter().map(|hole| &hole.outline));
        Some(outlines.flat_map(Outline::segments).map(|(one, _)| one.distance_to(own)).fold(f64::INFINITY, f64::min))
    };
    for (at, slit) in profile.slits.iter().enumerate() {
        let line: Vec<Segment> =
            slit.line.iter().map(|one| Segment::line(one.start + shift, one.end + shift)).collect();
        match along_slit(&format!("tear {}", at + 1), &line, slit.open, &way_out, settings) {
            Some(path) => inner.push(path),
            None => faults.push(
                Finding::error(
                    format!(
                        "a tear of {} beside a bend is too short for a kerf of {}",
                        show(slit.length()),
                        show(settings.row.kerf)
                    ),
                    "Give the bend a relief there.",
                )
                .at_field("cutting.cutter"),
            ),
        }
    }
    let process = settings.cutter.process;
    if settings.row.kerf > process.widest_kerf() {
        notes.push(Finding::warning(
            format!(
                "the table of {} says a kerf of {}: {} cuts no wider than {}",
                settings.cutter.name,
                show(settings.row.kerf),
                process.words(),
                show(process.widest_kerf())
            ),
            "Measure a cut and put its width in the shop's table: every edge lies off by half of what is wrong there.",
        ));
    }
    let contour = moved(&profile.outer);
    let mut round = offset(&straightened(&contour), half);
    round.sort_by(|one, two| two.area().total_cmp(&one.area()));
    let mut outer = Vec::new();
    if let Some(round) = round.first() {
        let clockwise: Vec<Segment> = round.reversed().segments().map(|(one, _)| one).collect();
        match outside(clockwise, &contour, settings) {
            Some(paths) => outer = paths,
            None => faults.push(
                Finding::error(
                    format!(
                        "{} tabs of {} leave too little of the outside to cut",
                        settings.tabs.map_or(0, |tabs| tabs.0),
                        show(settings.tabs.map_or(0.0, |tabs| tabs.1))
                    ),
                    "Make fewer or narrower tabs.",
                )
                .at_field("cutting.tabs"),
            ),
        }
    }
    if outer.is_empty() && faults.is_empty() {
        faults.push(Finding::error(
            "no path runs round the outside of this part",
            "Look at its outline on the bench: it may run into itself.",
        ));
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let bare: Vec<&str> =
        inner.iter().chain(&outer).filter(|one| one.lead_in.is_none()).map(|one| one.name.as_str()).collect();
    if let Some(first) = bare.first() {
        let more = if bare.len() > 1 { format!(" and {} more", bare.len() - 1) } else { String::new() };
        notes.push(Finding::warning(
            format!("there is no room for a lead in {first}{more}: the pierce lies on the path"),
            "A nick may stay at the start; drill a start hole, or cut it on a cutter with a narrower kerf.",
        ));
    }
    if let Some(first) = drilled.first() {
        let more = if drilled.len() > 1 { format!(" and {} more", drilled.len() - 1) } else { String::new() };
        notes.push(Finding::hint(
            format!(
                "{first}{more} below the least hole of {} are marked and left to the drill press",
                show(settings.row.least_hole)
            ),
            "Choose another cutter to have them cut.",
        ));
    }
    let home = Point::default();
    let stop = |path: &CutPath| Stop { come: path.start(), leave: path.end() };
    let spot = |mark: &Mark| Stop { come: mark.place, leave: mark.place };
    let way = |marks: &[Mark], inner: &[CutPath]| {
        let stops: Vec<Stop> =
            marks.iter().map(spot).chain(inner.iter().map(stop)).chain(outer.iter().map(stop)).collect();
        travel(home, &stops, &(0..stops.len()).collect::<Vec<_>>())
    };
    let travel_listed = way(&marks, &inner);
    marks = reorder(marks, home, spot);
    let from = marks.last().map_or(home, |mark| mark.place);
    inner = reorder(inner, from, stop);
    let travel = way(&marks, &inner);
    inner.extend(outer);
    Ok(Plan {
        origin,
        stock: (around.width() + 2.0 * settings.margin, around.height() + 2.0 * settings.margin),
        marks,
        paths: inner,
        drilled,
        travel,
        travel_listed,
        notes,
    })
}

fn reorder<T>(all: Vec<T>, home: Point, stop: impl Fn(&T) -> Stop) -> Vec<T> {
    let stops: Vec<Stop> = all.iter().map(stop).collect();
    let mut slots: Vec<Option<T>> = all.into_iter().map(Some).collect();
    shorten(home, &stops).into_iter().filter_map(|at| slots[at].take()).collect()
}

/// What one hole comes to.
enum HoleCut {
    Paths(Vec<CutPath>),
    Mark(Point),
}

/// The paths of one hole, its outline from the program's zero.
fn cut_hole(hole: &CutHole, outline: &Outline, settings: &Settings, unit: LengthUnit) -> Result<HoleCut, Finding> {
    let show = |value: f64| length_text(value, unit);
    let row = &settings.row;
    let circle = outline.as_circle();
    let fits = match circle {
        Some((_, radius)) => 2.0 * radius >= row.least_hole - MODELLING_TOLERANCE,
        None => !offset(outline, -(row.least_hole / 2.0 - MODELLING_TOLERANCE).max(MODELLING_TOLERANCE)).is_empty(),
    };
    if !fits {
        return match circle {
            Some((centre, _)) if settings.small_holes == SmallHoles::Drill => Ok(HoleCut::Mark(centre)),
            Some((_, radius)) => Err(Finding::error(
                format!(
                    "{} of diameter {} is below the {} that {} cuts in this sheet",
                    hole.name,
                    show(2.0 * radius),
                    show(row.least_hole),
                    settings.cutter.name
                ),
                "Send small holes to the drill press, or choose another cutter.",
            )
            .at_field("cutting.small_holes")),
            None => Err(Finding::error(
                format!(
                    "{} is narrower than the {} that {} cuts in this sheet",
                    hole.name,
                    show(row.least_hole),
                    settings.cutter.name
                ),
                "Choose another cutter, or make it wider.",
            )
            .at_field("cutting.cutter")),
        };
    }
    let half = row.kerf / 2.0;
    let loops = offset(&straightened(outline), -half);
    if loops.is_empty() {
        return Err(Finding::error(
            format!("{} is no wider than the kerf of {}", hole.name, show(row.kerf)),
            "Choose a cutter with a narrower kerf, or make it wider.",
        )
        .at_field("cutting.cutter"));
    }
    let clear = Clear { contour: outline, half };
    Ok(HoleCut::Paths(
        loops
            .iter()
            .map(|one| {
                let path: Vec<Segment> = one.segments().map(|(segment, _)| segment).collect();
                let cap = circle.map(|(_, radius)| radius - row.kerf);
                closed(&hole.name, Side::Inside, path, &clear, settings, cap)
            })
            .collect(),
    ))
}

/// A closed path begun where there is most room for its lead. `cap` is the longest lead a round hole takes: its radius
/// less the kerf.
fn closed(
    name: &str,
    side: Side,
    path: Vec<Segment>,
    clear: &Clear<'_>,
    settings: &Settings,
    cap: Option<f64>,
) -> CutPath {
    let mut candidates: Vec<usize> = (0..path.len()).collect();
    // Straight stretches first, long before short: a start on them shows least and can be dressed.
    candidates.sort_by(|&one, &two| {
        path[two].is_line().cmp(&path[one].is_line()).then(path[two].length().total_cmp(&path[one].length()))
    });
    let mut best: Option<(Vec<Segment>, Segment)> = None;
    for at in candidates.into_iter().take(12) {
        patience::check();
        // A circle begins at a quarter point, so that it stays two arcs.
        let fraction = if cap.is_some() { 0.0 } else { 0.5 };
        let body = begin(&path, at, fraction);
        let meeting = meeting_at_start(&body);
        let wanted = settings.lead_in.min(longest(meeting, clear, side, cap));
        let Some(found) = lead(meeting, settings.lead, wanted, true, clear) else { continue };
        let full = found.length() >= wanted - ROUNDING
            && wanted >= settings.lead_in.min(cap.unwrap_or(f64::INFINITY)) - ROUNDING;
        if best.as_ref().is_none_or(|(_, known)| found.length() > known.length() + ROUNDING) {
            best = Some((body, found));
        }
        if full {
            break;
        }
    }
    let (body, lead_in) = match best {
        Some((body, lead_in)) => (body, Some(lead_in)),
        None => (begin(&path, 0, 0.0), None),
    };
    let meeting = meeting_at_start(&body);
    let out = settings.lead_out.min(longest(meeting, clear, side, cap));
    let lead_out = if lead_in.is_some() { lead(meeting, settings.lead, out, false, clear) } else { None };
    CutPath { name: name.to_string(), side, lead_in, body, lead_out }
}

/// The longest lead that a waste takes: half its width less the kerf; a round hole's radius less the kerf.
fn longest(at: Meeting, clear: &Clear<'_>, side: Side, cap: Option<f64>) -> f64 {
    match (side, cap) {
        (Side::Outside | Side::Along, _) => f64::INFINITY,
        (Side::Inside, Some(cap)) => cap,
        (Side::Inside, None) => (across(at, clear.contour) + clear.half) / 2.0 - 2.0 * clear.half,
    }
}

/// The cut along a slit, from its mouth to half a kerf before its tip, where the kerf's own round reaches it. It begins in the waste
/// before the mouth where there is any, by no more than a lead; one that lies in the metal begins half a kerf from its end.
/// `None` where it is too short for that.
fn along_slit(
    name: &str,
    line: &[Segment],
    open: bool,
    way_out: &dyn Fn(Point) -> Option<f64>,
    settings: &Settings,
) -> Option<CutPath> {
    let half = settings.row.kerf / 2.0;
    let mut body = line.to_vec();
    let last = body.last_mut()?;
    let ahead = (last.end - last.start).unit();
    if last.length() <= half + MODELLING_TOLERANCE {
        return None;
    }
    last.end = last.end - ahead * half;
    let first = body.first_mut()?;
    let ahead = (first.end - first.start).unit();
    let mut lead_in = None;
    if open {
        // The longest lead that keeps clear of the part, but as far out as the kerf of the outside will clear anyway.
        let clear = |long: f64| {
            (0..=8)
                .map(|step| half + (long - half) * f64::from(step) / 8.0)
                .all(|out| way_out(first.start - ahead * out).is_some_and(|away| away > half - MODELLING_TOLERANCE))
        };
        let wanted = settings.lead_in.max(half);
        let long = [1.0, 0.5, 0.25].map(|share| wanted * share).into_iter().find(|&long| long > half && clear(long));
        lead_in = Some(Segment::line(first.start - ahead * long.unwrap_or(half), first.start));
    } else {
        if first.length() <= half + MODELLING_TOLERANCE {
            return None;
        }
        first.start = first.start + ahead * half;
    }
    Some(CutPath { name: name.to_string(), side: Side::Along, lead_in, body, lead_out: None })
}

fn begin(path: &[Segment], at: usize, fraction: f64) -> Vec<Segment> {
    let mut body = Vec::with_capacity(path.len() + 1);
    if fraction > 0.0 {
        body.push(path[at].part(fraction, 1.0));
    } else {
        body.push(path[at]);
    }
    body.extend(path[at + 1..].iter().chain(&path[..at]));
    if fraction > 0.0 {
        body.push(path[at].part(0.0, fraction));
    }
    body
}

fn direction(one: &Segment, at_end: bool) -> Vector {
    if one.is_line() {
        return (one.end - one.start).unit();
    }
    let arm = if at_end { one.end } else { one.start } - one.centre();
    (if one.bulge > 0.0 { arm.left() } else { arm.right() }).unit()
}

fn meeting_at_start(body: &[Segment]) -> Meeting {
    Meeting { place: body[0].start, ahead: direction(&body[0], false) }
}

/// The cuts round the part: one, or as many as there are tabs. `None` when tabs leave nothing to cut.
fn outside(path: Vec<Segment>, contour: &Outline, settings: &Settings) -> Option<Vec<CutPath>> {
    let clear = Clear { contour, half: settings.row.kerf / 2.0 };
    let whole = closed("outside", Side::Outside, path, &clear, settings, None);
    let Some((count, width)) = settings.tabs else { return Some(vec![whole]) };
    let pieces = tab::part(&whole.body, count, width + settings.row.kerf);
    if pieces.is_empty() || pieces.iter().any(Vec::is_empty) {
        return None;
    }
    Some(
        pieces
            .into_iter()
            .map(|body| {
                // Straight leads: a curved one would run across the tab.
                let end = &body[body.len() - 1];
                let finish = Meeting { place: end.end, ahead: direction(end, true) };
                CutPath {
                    name: "outside".into(),
                    side: Side::Outside,
                    lead_in: lead(meeting_at_start(&body), LeadShape::Line, settings.lead_in, true, &clear),
                    lead_out: lead(finish, LeadShape::Line, settings.lead_out, false, &clear),
                    body,
                }
            })
            .collect(),
    )
}
