//! The pipeline of a frame: skeleton, members, cut list, clashes, welds, bars, rules.

mod bars;
mod cautions;
mod plates;
mod settings;

use crate::audit::light_frame;
use crate::finding::{Finding, Severity};
use crate::frame::{
    FACETS, FrameInput, FrameMade, build_frame, clashes, frame_list, frame_mesh, in_facets, odd_mass, own_sections,
    undrilled, welds,
};
use crate::piece::document::Kind;
use crate::piece::made::{FrameOutcome, Made};
use crate::piece::resolved::{OperationState, Resolved};
use crate::piece::{Need, Options, Piece};
use crate::proof::{FrameContext, Subject, check_frame_rules};
use crate::quantity::LengthUnit;
use crate::space::Mesh;
use crate::work::Operation;

use super::row::{KindRow, MadeFrom};
use super::shaped::{Asked, Shaped, said_so};

/// Welded frame.
pub(super) const FRAME: KindRow = KindRow {
    kind: Kind::Frame,
    word: "frame",
    made_from: MadeFrom::Sections,
    withheld: "the frame has an error, so no list is given out",
    nothing_yet: "no line has a section yet; put one on",
    read,
    make,
    subject,
};

/// A frame's work is read as it is built: later steps name what earlier ones made.
fn read(piece: &Piece, upto: Option<usize>, resolved: &mut Resolved) {
    for (at, operation) in piece.operations.iter().enumerate() {
        resolved.states.push(if upto.is_some_and(|upto| at >= upto) {
            OperationState::Ahead
        } else if operation.rested {
            OperationState::Rested
        } else {
            OperationState::Made
        });
    }
}

fn make(asked: Asked<'_>) -> Shaped {
    let own_unit = asked.own_unit();
    let Asked { piece, resolved, options, show } = asked;
    let settings = piece.frame.clone().unwrap_or_default();
    let mut shaped = Shaped::default();
    let mut outcome = FrameOutcome::default();
    let numbers = settings::Settings::read(&settings, resolved, &mut shaped.findings);
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
        let usual_joints = settings.usual_joints;
        let sections = own_sections(&settings.sections, &resolved.names, &mut shaped.findings);
        shaped.findings.extend(sections.iter().filter_map(|one| odd_mass(one, &material.name, material.density)));
        let names = &resolved.names;
        let input = FrameInput { operations, names, material, sections, unit: show, usual_joints };
        let mut built = build_frame(&input);
        for finding in &mut built.findings {
            finding.message = show.retold(&finding.message);
            finding.way_out = show.retold(&finding.way_out);
        }
        for finding in built.findings.iter().filter(|finding| finding.severity == Severity::Error) {
            let at =
                finding.operation.as_ref().and_then(|name| piece.operations.iter().position(|one| one.name == *name));
            if let Some(at) = at {
                resolved.states[at] = OperationState::Bad;
            }
        }
        shaped.findings.extend(built.findings);
        resolved.values.extend(built.values);
        let list = frame_list(&built.frame, numbers.saw_step);
        outcome.made = FrameMade::new(built.frame, list);
        if options.need != Need::Words {
            shaped.mesh = frame_mesh(&outcome.made);
            hold_skeleton(&outcome.made, &mut shaped.mesh);
            let found = welds(&outcome.made, settings.weld_symbols, numbers.weld_gap);
            outcome.welds = found.welds;
            outcome.unlike = found.unlike;
            shaped.findings.extend(found.notes);
        }
        if options.need == Need::All {
            prove(&mut outcome, &mut shaped, &numbers, options, show, own_unit);
        }
    }
    shaped.cautions = cautions::cautions(&outcome, resolved);
    if options.need == Need::All {
        shaped.audit = light_frame(&outcome.made);
    }
    shaped.made = Some(Made::Frame(outcome));
    shaped
}

/// What stands before a frame is cut: what its solid leaves out, clashes, bars, rules.
fn prove(
    outcome: &mut FrameOutcome,
    shaped: &mut Shaped,
    numbers: &settings::Settings,
    options: Options<'_>,
    show: LengthUnit,
    own_unit: Option<LengthUnit>,
) {
    shaped.findings.extend(undrilled(&outcome.made).into_iter().map(|(operation, members)| {
        Finding::warning(
            format!(
                "this hole is not in the solid of {}: it runs along a wall of the section or touches one of its corners, or \
                 reaches into a bend; its weight, lists and machine files have it",
                members.join(", ")
            ),
            "Move it clear of the corner or the wall, or take a smaller one; else drill it by the list and not by the solid.",
        )
        .of_operation(&operation)
    }));
    shaped.findings.extend(in_facets(&outcome.made).into_iter().map(|(fault, members)| {
        Finding::warning(
            format!("the solid of {} is near and not exact: {fault}, {FACETS} mm near", members.join(", ")),
            "Its lengths, weight and machine files are exact; cut by those and not by the solid.",
        )
    }));
    let met = clashes(&outcome.made);
    outcome.clashes = met.members;
    outcome.plate_clashes = met.plates;
    shaped.findings.extend(met.unseen.iter().map(|piece| {
        Finding::warning(
            format!("nothing says whether {piece}, so it was not looked at for clashes"),
            "Look on the view whether it runs into its neighbours.",
        )
    }));
    outcome.bars = bars::bar_groups(&outcome.made, numbers);
    let longest = |section: &str| numbers.longest(section);
    let context = FrameContext {
        made: &outcome.made,
        clashes: &outcome.clashes,
        plate_clashes: &outcome.plate_clashes,
        welds: &outcome.welds,
        unlike: &outcome.unlike,
        longest_bar: &longest,
        shop: options.shop.rules,
        unit: show,
    };
    (shaped.rules, shaped.breaches) = check_frame_rules(&context);
    if let Some(unit) = own_unit.filter(|_| !shaped.breaches.is_empty()) {
        said_so(&mut shaped.breaches, check_frame_rules(&FrameContext { unit, ..context }).1);
    }
}

fn subject<'a>(piece: &Piece, made: &'a Made) -> Subject<'a> {
    let Made::Frame(outcome) = made else { return Subject::Nothing };
    let frame = &outcome.made.frame;
    if frame.members.is_empty() && frame.skeleton.nodes.is_empty() {
        return Subject::Nothing;
    }
    Subject::Frame(&outcome.made, piece.frame.as_ref().and_then(|settings| settings.welded_tolerance))
}

/// Lines with no section on them yet are held by the mesh's box, so that a bare skeleton can be looked at.
fn hold_skeleton(made: &FrameMade, mesh: &mut Mesh) {
    if !made.frame.members.is_empty() || made.frame.skeleton.nodes.is_empty() {
        return;
    }
    mesh.features.push("skeleton".into());
    mesh.points.extend(made.frame.skeleton.nodes.iter().map(|node| node.place));
}
