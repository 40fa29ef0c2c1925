//! The pipeline of a frame: skeleton, members, cut list, clashes, welds, bars, proofs.

use std::collections::BTreeMap;

use crate::audit::light_frame;
use crate::finding::{Finding, Severity};
use crate::frame::{
    FACETS, FrameInput, FrameMade, Member, build_frame, clashes, frame_list, frame_mesh, in_facets, undrilled,
    weld_cautions, welds,
};
use crate::nest::{BarPiece, BarProblem, StockBar};
use crate::proof::{FrameContext, Subject, check_frame_rules};
use crate::quantity::Dimension;
use crate::space::Mesh;
use crate::stock::ONE_PERSON;
use crate::work::Operation;
use crate::work::frame::FrameSettings;

use super::outcome::{BarGroup, FrameOutcome};
use super::{OperationState, Options, Outcome, Piece, Resolved, StockChoice, resolve};

/// Where no bars are named: 6 m, as most stockholders keep (practice), mm.
const USUAL_BAR: f64 = 6000.0;

pub(super) fn evaluate_frame(piece: &Piece, options: Options) -> Outcome {
    let show = options.show.unwrap_or(piece.unit);
    let mut resolved = resolve(piece, options.upto, show);
    let mut findings = std::mem::take(&mut resolved.findings);
    let settings = piece.frame.clone().unwrap_or_default();
    let mut outcome = FrameOutcome::default();
    let mut mesh = Mesh::default();
    let (mut rules, mut breaches) = (Vec::new(), Vec::new());
    let numbers = Settings::read(&settings, &resolved, &mut findings);
    outcome.saw_step = numbers.saw_step;
    outcome.weld_gap = numbers.weld_gap;
    if let Some(material) = resolved.material {
        let operations: Vec<&Operation> = piece
            .operations
            .iter()
            .zip(&resolved.states)
            .filter(|(_, state)| **state == OperationState::Made)
            .map(|(operation, _)| operation)
            .collect();
        let input = FrameInput { operations, names: &resolved.names, material, unit: show };
        let built = build_frame(&input);
        for finding in built.findings.iter().filter(|finding| finding.severity == Severity::Error) {
            let at =
                finding.operation.as_ref().and_then(|name| piece.operations.iter().position(|one| one.name == *name));
            if let Some(at) = at {
                resolved.states[at] = OperationState::Bad;
            }
        }
        findings.extend(built.findings);
        resolved.values.extend(built.values);
        let list = frame_list(&built.frame, numbers.saw_step);
        outcome.made = FrameMade::new(built.frame, list);
        mesh = frame_mesh(&outcome.made);
        hold_skeleton(&outcome.made, &mut mesh);
        findings.extend(undrilled(&outcome.made).into_iter().map(|(operation, members)| {
            Finding::warning(
                format!(
                    "this hole is not in the solid of {}: it runs along a wall of the section or touches one of its corners, or \
                     reaches into a bend; its weight, lists and machine files have it",
                    members.join(", ")
                ),
                "Move it off the corner or the wall, or take a smaller one; else drill it by the list and not by the solid.",
            )
            .of_operation(&operation)
        }));
        findings.extend(in_facets(&outcome.made).into_iter().map(|(fault, members)| {
            Finding::warning(
                format!("the solid of {} is near and not exact: {fault}, {FACETS} mm near", members.join(", ")),
                "Its lengths, weight and machine files are exact; cut by those and not by the solid.",
            )
        }));
        let met = clashes(&outcome.made);
        outcome.clashes = met.members;
        outcome.plate_clashes = met.plates;
        findings.extend(met.unseen.iter().map(|piece| {
            Finding::warning(
                format!("nothing says whether {piece}, so it was not looked at for clashes"),
                "Look on the view whether it runs into its neighbours.",
            )
        }));
        let found = welds(&outcome.made, settings.weld_symbols, numbers.weld_gap);
        outcome.welds = found.welds;
        findings.extend(found.notes);
        outcome.bars = bar_groups(&outcome.made, &numbers);
        let longest = |section: &str| numbers.longest(section);
        let context = FrameContext {
            made: &outcome.made,
            clashes: &outcome.clashes,
            plate_clashes: &outcome.plate_clashes,
            longest_bar: &longest,
            unit: show,
        };
        (rules, breaches) = check_frame_rules(&context);
    }
    let subject = if outcome.made.frame.members.is_empty() && outcome.made.frame.skeleton.nodes.is_empty() {
        Subject::Nothing
    } else {
        Subject::Frame(&outcome.made, settings.welded_tolerance)
    };
    let callouts = super::prove::prove_all(piece, &resolved, subject);
    super::prove::idle_callouts(piece, &callouts, &mut findings);
    let cautions = cautions(&outcome, &resolved);
    let audit = light_frame(&outcome.made);
    let states = resolved.states.clone();
    Outcome {
        resolved,
        part: None,
        mesh,
        figures: None,
        bends: Vec::new(),
        callouts,
        rules,
        breaches,
        findings,
        states,
        cautions,
        audit,
        frame: Some(outcome),
    }
}

/// Settings in numbers: mm and radians.
struct Settings {
    saw_step: f64,
    kerf: f64,
    end_trim: f64,
    grip: f64,
    weld_gap: f64,
    bars: Vec<(Option<String>, StockBar)>,
}

impl Settings {
    fn read(settings: &FrameSettings, resolved: &Resolved, findings: &mut Vec<Finding>) -> Settings {
        let mut value = |text: &str, dimension: Dimension, wanted: &str, field: String, other: f64| match resolved
            .names
            .read(text, dimension, wanted)
        {
            Ok(value) if value >= 0.0 => value,
            Ok(_) => {
                findings.push(
                    Finding::error(format!("{wanted} of {text} is below zero"), "Type 0 or more.").at_field(field),
                );
                other
            }
            Err(fault) => {
                findings.push(Finding::in_field(&fault, field));
                other
            }
        };
        let length = Dimension::LENGTH;
        let saw_step =
            value(&settings.saw_step, Dimension::ANGLE, "a saw's step", "frame.saw_step".into(), 0.5f64.to_radians());
        let kerf = value(&settings.kerf, length, "a kerf", "frame.kerf".into(), 3.0);
        let end_trim = value(&settings.end_trim, length, "an end trim", "frame.end_trim".into(), 0.0);
        let grip = value(&settings.grip, length, "a grip loss", "frame.grip".into(), 0.0);
        let weld_gap = value(&settings.weld_gap, length, "a gap to weld", "frame.weld_gap".into(), 5.0);
        let bars = settings
            .bars
            .iter()
            .enumerate()
            .map(|(at, bar)| {
                let length = value(&bar.length, length, "a bar length", format!("frame.bars.{at}.length"), USUAL_BAR);
                let section = bar.section.as_ref().map(|name| {
                    crate::section::section_named(name).map_or_else(|_| name.clone(), |section| section.name)
                });
                (section, StockBar { length, quantity: bar.quantity.map(|count| count as usize) })
            })
            .collect();
        Settings { saw_step, kerf, end_trim, grip, weld_gap, bars }
    }

    fn stock(&self, section: &str) -> Vec<StockBar> {
        let own = |bar: &&(Option<String>, StockBar)| bar.0.as_deref() == Some(section);
        let chosen: Vec<StockBar> = if self.bars.iter().any(|bar| own(&bar)) {
            self.bars.iter().filter(own).map(|(_, bar)| bar.clone()).collect()
        } else {
            self.bars.iter().filter(|(name, _)| name.is_none()).map(|(_, bar)| bar.clone()).collect()
        };
        if chosen.is_empty() { vec![StockBar { length: USUAL_BAR, quantity: None }] } else { chosen }
    }

    fn longest(&self, section: &str) -> f64 {
        self.stock(section).iter().map(|bar| bar.length).fold(0.0, f64::max) - 2.0 * self.end_trim - self.grip
    }
}

fn bar_groups(made: &FrameMade, settings: &Settings) -> Vec<BarGroup> {
    let mut groups: BTreeMap<(String, String), BarGroup> = BTreeMap::new();
    for (index, line) in made.list.lines.iter().enumerate().filter(|(_, line)| line.kind == "member") {
        let Some(member) = made.list.line_of.iter().position(|own| *own == index).map(|at| &made.frame.members[at])
        else {
            continue;
        };
        let group = groups.entry((line.section.clone(), line.material.clone())).or_insert_with(|| BarGroup {
            section: line.section.clone(),
            material: line.material.clone(),
            mass_per_metre: member.section.mass_per_metre(member.material.density),
            problem: BarProblem {
                stock: settings.stock(&line.section),
                kerf: settings.kerf,
                end_trim: settings.end_trim,
                grip: settings.grip,
                pieces: Vec::new(),
            },
        });
        group.problem.pieces.push(BarPiece {
            mark: line.mark.clone(),
            length: line.length,
            quantity: line.quantity,
            shared: shared_slant(member, settings.kerf),
        });
    }
    groups.into_values().collect()
}

/// Lines with no section on them yet are held by the mesh's box, so that a bare skeleton can be looked at.
fn hold_skeleton(made: &FrameMade, mesh: &mut Mesh) {
    if !made.frame.members.is_empty() || made.frame.skeleton.nodes.is_empty() {
        return;
    }
    mesh.features.push("skeleton".into());
    mesh.points.extend(made.frame.skeleton.nodes.iter().map(|node| node.place));
}

/// How much of a member's length a turned neighbour takes over: both ends one plain mitre of the same angle, leaning along the
/// same axis of the section. The saw cut of a slant is longer than the kerf along the bar; that is taken off. mm.
fn shared_slant(member: &Member, kerf: f64) -> f64 {
    let lean = |finish: usize| match (member.ends[finish].planes.as_slice(), member.ends[finish].copes.as_slice()) {
        ([cut], []) if cut.angle() > 1e-4 => Some((cut.normal.x / cut.normal.z, cut.normal.y / cut.normal.z)),
        _ => None,
    };
    let (Some(one), Some(two)) = (lean(0), lean(1)) else { return 0.0 };
    let plain = |lean: (f64, f64)| lean.0.abs() < 1e-6 || lean.1.abs() < 1e-6;
    let same = (one.0.abs() - two.0.abs()).abs() < 1e-6 && (one.1.abs() - two.1.abs()).abs() < 1e-6;
    if !plain(one) || !same || !member.is_straight() {
        return 0.0;
    }
    // The neighbour lies in the bar with its slant the other way: a section that cannot be brought onto itself so would give
    // another piece.
    let way = if one.0.abs() > 1e-6 { [1.0, 0.0] } else { [0.0, 1.0] };
    let turns = |matrix: &[[f64; 2]; 2]| {
        let to = [matrix[0][0] * way[0] + matrix[0][1] * way[1], matrix[1][0] * way[0] + matrix[1][1] * way[1]];
        (to[0] + way[0]).abs() < 1e-9 && (to[1] + way[1]).abs() < 1e-9
    };
    if !member.section.is_round() && !member.section.symmetries().iter().any(turns) {
        return 0.0;
    }
    let around = member.region.extents();
    let (depth, slope) =
        if one.0.abs() > 1e-6 { (around.width(), one.0.abs()) } else { (around.height(), one.1.abs()) };
    (depth * slope - kerf * (slope.hypot(1.0) - 1.0)).max(0.0)
}

fn cautions(outcome: &FrameOutcome, resolved: &Resolved) -> Vec<String> {
    let mut all = Vec::new();
    let Some(whole) = outcome.made.list.sums.first().filter(|sum| sum.pieces > 0) else { return all };
    all.push("Saw ends and burrs are sharp: gloves, and deburr what hands will touch.".into());
    if whole.mass > ONE_PERSON {
        let show = |value: f64, places: usize| crate::quantity::decimal(value, places);
        let at = whole.centre_of_gravity;
        all.push(format!(
            "{} kg: two people or a lift; the centre of gravity is at x {}, y {}, z {} mm.",
            show(whole.mass, 1),
            show(at.x, 0),
            show(at.y, 0),
            show(at.z, 0)
        ));
    }
    all.extend(weld_cautions(&outcome.made));
    if outcome.made.frame.plates.iter().any(|plate| plate.lug.is_some()) {
        all.push(format!("Lifting lugs: the figures are {}.", crate::frame::REVIEW));
    }
    all.extend(resolved.material.and_then(|material| material.caution.clone()));
    all.push(
        "Follow local codes; a licensed engineer decides on anything that lifts, guards or carries people.".into(),
    );
    all
}

impl Piece {
    /// The plates of a frame as plate pieces of their own, one for each line of the cut list, with how many.
    pub fn frame_plates(&self, outcome: &Outcome) -> Vec<Piece> {
        let Some(frame) = &outcome.frame else { return Vec::new() };
        let list = &frame.made.list;
        let mut all = Vec::new();
        for (index, line) in list.lines.iter().enumerate() {
            let Some(at) = list.line_of_plate.iter().position(|own| *own == index) else { continue };
            let plate = &frame.made.frame.plates[at];
            all.push(Piece {
                // Bent work on it makes it a sheet part.
                kind: if plate.part.flat.bends.is_empty() { super::Kind::Plate } else { super::Kind::Sheet },
                mark: format!("{}-{}", self.mark, line.mark).chars().take(40).collect(),
                title: format!("{} of {}", line.kind, self.mark),
                quantity: line.quantity as u32,
                stock: StockChoice {
                    material: plate.material.name.clone(),
                    thickness: format!("{} mm", plate.thickness).into(),
                },
                variants: Vec::new(),
                frame: None,
                callouts: self
                    .callouts
                    .iter()
                    .map(|callout| super::CallOut { measure: None, place: None, ..callout.clone() })
                    .collect(),
                operations: plate.work.clone(),
                ..self.clone()
            });
        }
        all
    }
}
