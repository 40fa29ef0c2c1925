//! What the cutting screen gets: how a piece is cut, the path for drawing, time and cost, and what the simulated cutter
//! measured.

use base64::Engine as _;
use serde::Serialize;
use steelk_core::finding::Finding;
use steelk_core::piece::{BlankOf, Outcome, Piece};
use steelk_core::plane::{Point, Segment};
use steelk_core::quantity::tolerance::ROUNDING;
use steelk_core::quantity::{Amount, LengthUnit, decimal, length_text};
use steelk_core::stock::Process;
use steelk_core::toolpath::{CuttingValue, Side, estimate};
use steelk_cutter::{Fault, Inspection, MoveKind, Run};
use steelk_formats::output::Stamp;
use steelk_formats::program::{Program, program, settings_of};
use utoipa::ToSchema;

use crate::answer::{Figure, down, move_to, outline_path, path_to};
use crate::files::Shop;
use crate::simulated::{simulate, wanted};

/// Metal left in a corner that is none, mm.
const NO_CORNER: f64 = 1e-4;

/// Everything about cutting a piece.
#[derive(Serialize, ToSchema)]
pub struct CuttingAnswer {
    /// The shop's cutters, and whether each reaches this sheet.
    pub cutters: Vec<CutterChoice>,
    /// The cutter and the row of its table; absent while there is none.
    pub cutter: Option<CutterUsed>,
    /// What each setting came to.
    pub values: Vec<CuttingValue>,
    /// What is wrong or worth knowing.
    pub findings: Vec<Finding>,
    /// Cautions at this machine.
    pub cautions: Vec<String>,
    /// The path; absent while there is no program.
    pub plan: Option<PlanView>,
    /// Time, cost, lengths.
    pub figures: Vec<Figure>,
    /// What the simulated cutter measured.
    pub inspection: Option<InspectionView>,
    /// Of a piece of several blanks: each of them, alike ones together.
    pub blanks: Vec<BlankChoice>,
}

/// A cutter to choose.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct CutterChoice {
    pub name: String,
    pub title: String,
    pub reaches: bool,
}

/// The cutter in words.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct CutterUsed {
    pub name: String,
    pub title: String,
    pub process: Process,
    pub row: String,
    pub kerf: String,
    pub speed: String,
    pub pierce: String,
    pub least_hole: String,
    pub gas: String,
    /// Its quality; empty where it has none.
    pub quality: String,
    /// Every quality that the cutter cuts this sheet in, the usual one first.
    pub qualities: Vec<String>,
    /// Whether the row is a made-up example.
    pub made_up: bool,
    /// Where the row's figures come from.
    pub source: String,
}

/// The path for drawing, mm from the program's zero, y down.
#[derive(Serialize, ToSchema)]
pub struct PlanView {
    /// Width and height of the stock, mm.
    pub stock: [f64; 2],
    /// The same in words.
    pub stock_text: String,
    /// The part that is wanted, as one even-odd path.
    pub part: String,
    /// Cuts along contours.
    pub bodies: String,
    /// Leads.
    pub leads: String,
    /// Pierces, as far as they are listed.
    pub pierces: Vec<Point>,
    /// Centre marks.
    pub marks: Vec<Point>,
    /// Cuts in order, the first of many.
    pub order: Vec<CutView>,
    /// How many more cuts there are.
    pub more: usize,
    /// Where the head is and when: base64 of little-endian f32 x 4 each, s, x, y (down), and 0 for tool off, 1 for on,
    /// 2 for standing. The head goes straight from one to the next.
    pub timeline: String,
}

/// One cut in the list.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct CutView {
    pub name: String,
    pub outside: bool,
    pub length: String,
    pub path: String,
}

/// What the simulated cutter measured, in words.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct InspectionView {
    pub holds: bool,
    /// One sentence.
    pub verdict: String,
    pub faults: Vec<Fault>,
    pub more: usize,
    pub contours: Vec<ContourView>,
    pub more_contours: usize,
    pub seconds: f64,
    pub time: String,
}

/// One contour as measured.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct ContourView {
    pub name: String,
    pub size: String,
    pub off: String,
    pub corner: String,
}

/// Cuts and contours listed one by one.
const MOST_LISTED: usize = 400;

/// How long something takes, in words: `1 h 02 min 03 s`.
pub fn time_text(seconds: f64) -> String {
    if seconds < 60.0 {
        return format!("{} s", decimal(seconds, 1));
    }
    let whole = seconds.round() as u64;
    let (hours, minutes, rest) = (whole / 3600, whole / 60 % 60, whole % 60);
    if hours > 0 { format!("{hours} h {minutes:02} min {rest:02} s") } else { format!("{minutes} min {rest:02} s") }
}

/// A blank to choose.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct BlankChoice {
    pub letter: String,
    pub mark: String,
    /// How many a piece has of it, and whose opposite hand it is.
    pub words: String,
}

impl From<BlankOf> for BlankChoice {
    fn from(blank: BlankOf) -> BlankChoice {
        let words = blank.words();
        BlankChoice { letter: blank.letter, mark: blank.mark, words }
    }
}

impl CuttingAnswer {
    /// The answer for an evaluated piece.
    pub fn new(piece: &Piece, outcome: &Outcome, shop: &Shop, stamp: &Stamp, show: LengthUnit) -> Self {
        let stock = outcome.resolved.material.zip(outcome.resolved.thickness);
        let mut answer = CuttingAnswer {
            cutters: shop
                .cutters
                .iter()
                .map(|one| CutterChoice {
                    name: one.name.clone(),
                    title: one.title.clone(),
                    reaches: stock
                        .is_some_and(|(material, thickness)| one.row(material.family, thickness, None).is_some()),
                })
                .collect(),
            cutter: None,
            values: Vec::new(),
            findings: Vec::new(),
            cautions: Vec::new(),
            plan: None,
            figures: Vec::new(),
            inspection: None,
            blanks: Vec::new(),
        };
        if let Ok(settings) = settings_of(piece, outcome, &shop.cutters) {
            let (cutter, row) = (&settings.cutter, &settings.row);
            answer.cutter = Some(CutterUsed {
                name: cutter.name.clone(),
                title: cutter.title.clone(),
                process: cutter.process,
                row: settings.row_words(show),
                kerf: length_text(row.kerf, show),
                speed: speed_text(row.speed, show),
                pierce: format!("{} s", decimal(row.pierce, 2)),
                least_hole: length_text(row.least_hole, show),
                gas: row.gas.clone(),
                quality: row.quality.clone(),
                qualities: stock.map_or_else(Vec::new, |(material, thickness)| {
                    let known = cutter.qualities(material.family, thickness);
                    known.into_iter().map(str::to_string).collect()
                }),
                made_up: row.made_up,
                source: if row.source.is_empty() { cutter.source.clone() } else { row.source.clone() },
            });
            answer.values = settings.values.clone();
            answer.cautions = cutter.process.cautions().iter().map(|one| (*one).to_string()).collect();
            answer.cautions.extend(outcome.cautions.iter().cloned());
        }
        match program(piece, outcome, &shop.cutters, stamp, shop.files.programs.of(piece.unit)) {
            Ok(program) => answer.fill(&program, show),
            Err(findings) => answer.findings = findings,
        }
        answer
    }

    fn fill(&mut self, program: &Program, show: LengthUnit) {
        self.findings = program.plan.notes.clone();
        match simulate(program, program.text.as_bytes()) {
            Ok((run, inspection)) => {
                self.plan = Some(plan_view(program, &run, show));
                self.figures = figures(program, &inspection, show);
                self.inspection = Some(inspection_view(&inspection, show));
            }
            Err(fault) => self.findings.push(Finding::error(
                format!("the simulated cutter stops: {fault}"),
                "This is a fault of Steelk's program; do not cut it.",
            )),
        }
    }
}

fn speed_text(speed: f64, show: LengthUnit) -> String {
    match show {
        LengthUnit::Mm => format!("{} mm/min", decimal(speed, 1)),
        LengthUnit::In => format!("{} in/min", decimal(speed / 25.4, 2)),
    }
}

fn ways<'a>(segments: impl Iterator<Item = &'a Segment>) -> String {
    let mut path = String::new();
    let mut pen: Option<Point> = None;
    for one in segments {
        if pen.is_none_or(|pen| pen.distance(one.start) > ROUNDING) {
            path.push_str(&move_to(one.start));
        }
        path_to(one, &mut path);
        pen = Some(one.end);
    }
    path
}

fn plan_view(program: &Program, run: &Run, show: LengthUnit) -> PlanView {
    let plan = &program.plan;
    let wanted = wanted(program);
    let part: String =
        std::iter::once(&wanted.outer).chain(wanted.holes.iter().map(|one| &one.outline)).map(outline_path).collect();
    let listed = plan.paths.len().min(MOST_LISTED);
    PlanView {
        stock: [plan.stock.0, plan.stock.1],
        stock_text: format!("{} by {}", length_text(plan.stock.0, show), length_text(plan.stock.1, show)),
        part,
        bodies: ways(plan.paths.iter().flat_map(|one| &one.body)),
        leads: ways(plan.paths.iter().flat_map(|one| one.lead_in.iter().chain(&one.lead_out))),
        pierces: plan.paths.iter().take(MOST_LISTED).map(|one| down(one.start())).collect(),
        marks: plan.marks.iter().map(|one| down(one.place)).collect(),
        order: plan
            .paths
            .iter()
            // The outside is last and always told.
            .enumerate()
            .filter(|(at, _)| *at + 1 < listed || *at + 1 == plan.paths.len())
            .map(|(_, one)| CutView {
                name: one.name.clone(),
                outside: one.side == Side::Outside,
                length: length_text(one.length(), show),
                path: ways(one.segments()),
            })
            .collect(),
        more: plan.paths.len() - listed,
        timeline: timeline(run),
    }
}

fn timeline(run: &Run) -> String {
    // Long programs in coarser steps: what goes over the wire stays within some megabytes.
    let step = if run.moves.len() < 6000 { 0.2 } else { 0.9 };
    let mut values: Vec<f32> = Vec::new();
    let mut push = |time: f64, place: Point, state: f32| {
        values.extend([time as f32, place.x as f32, (0.0 - place.y) as f32, state]);
    };
    for one in &run.moves {
        let state = match one.kind {
            MoveKind::Rapid => 0.0,
            MoveKind::Cut => 1.0,
            MoveKind::Wait => 2.0,
        };
        let parts = (one.way.sweep().abs() / step).ceil().max(1.0) as usize;
        for part in 1..=parts {
            let share = part as f64 / parts as f64;
            push(one.start + (one.end - one.start) * share, one.way.at(share), state);
        }
    }
    let bytes: Vec<u8> = values.into_iter().flat_map(f32::to_le_bytes).collect();
    base64::engine::general_purpose::STANDARD.encode(bytes)
}

fn figures(program: &Program, inspection: &Inspection, show: LengthUnit) -> Vec<Figure> {
    let plan = &program.plan;
    let reckoned = estimate(plan, &program.settings);
    let plain = |key: &str, label: &str, text: String| Figure { key: key.into(), label: label.into(), text, why: None };
    let saved = plan.travel_listed - plan.travel;
    let percent = if plan.travel_listed > 0.0 { 100.0 * saved / plan.travel_listed } else { 0.0 };
    let round = |value: f64| decimal(value / show.millimetres(), if show == LengthUnit::Mm { 0 } else { 1 });
    let unit = show.sign();
    vec![
        Figure {
            key: "time".into(),
            label: "time each".into(),
            text: time_text(reckoned.seconds),
            why: Some(reckoned.why_time),
        },
        Figure {
            key: "cost".into(),
            label: "cost each".into(),
            text: format!("{} {}", decimal(reckoned.cost, 2), reckoned.currency),
            why: Some(reckoned.why_cost),
        },
        plain("simulated", "simulated, with accelerations", time_text(inspection.seconds)),
        plain("cut_length", "cut length with leads", format!("{} {unit}", round(plan.cut_length()))),
        plain("pierces", "pierces", plan.pierces().to_string()),
        plain("marks", "centre marks", plan.marks.len().to_string()),
        plain(
            "travel",
            "travel without cutting",
            if saved > 0.5 {
                format!("{} {unit}, {} {unit} saved ({} %)", round(plan.travel), round(saved), decimal(percent, 0))
            } else {
                format!("{} {unit}", round(plan.travel))
            },
        ),
    ]
}

fn inspection_view(found: &Inspection, show: LengthUnit) -> InspectionView {
    let length = |value: f64| length_text(value, show);
    // What is measured is told finer than it is drawn.
    let fine = |value: f64| show.says(Amount::Length, value, 4);
    let verdict = if found.holds {
        format!(
            "the part comes out: no edge further off than {}, {} contours measured{}",
            fine(found.worst),
            found.contours.len(),
            if found.tabs > 0 { format!(", held by {} tabs", found.tabs) } else { String::new() }
        )
    } else {
        format!("the part comes out wrong: {}", found.faults.first().map_or("", |one| one.message.as_str()))
    };
    InspectionView {
        holds: found.holds,
        verdict,
        faults: found.faults.clone(),
        more: found.more,
        contours: found
            .contours
            .iter()
            .take(MOST_LISTED)
            .map(|one| ContourView {
                name: one.name.clone(),
                size: match one.diameter {
                    Some(diameter) => format!("diameter {}", length(diameter)),
                    None => format!("{} by {}", length(one.size[0]), length(one.size[1])),
                },
                off: fine(one.worst),
                corner: if one.corner > NO_CORNER { fine(one.corner) } else { String::new() },
            })
            .collect(),
        more_contours: found.contours.len().saturating_sub(MOST_LISTED),
        seconds: found.seconds,
        time: time_text(found.seconds),
    }
}
