//! The whole pipeline: piece, numbers, geometry, measures, proofs.

use crate::audit::{Audit, full_frame, full_sheet, full_welds, light_sheet};
use crate::brake::bend_rows;
use crate::finding::{Finding, Severity};
use crate::proof::rules::Context;
use crate::proof::{Subject, check_rules};
use crate::sheet::bending::why_allowance;
use crate::sheet::fold::fold;
use crate::sheet::{Figures, Part, build, figures, folded_mesh};
use crate::space::Mesh;
use crate::stock::ONE_PERSON;

use super::outcome::{BendReport, MESH_TOLERANCE, Options, Outcome};
use super::prove::{idle_callouts, prove_all};
use super::{OperationState, Piece, Resolved, resolve};

/// Runs the whole pipeline. Never fails: what is wrong is in `findings`, and the good operations stand.
pub fn evaluate(piece: &Piece, options: Options) -> Outcome {
    if piece.kind == super::Kind::Frame {
        return super::frame::evaluate_frame(piece, options);
    }
    let show = options.show.unwrap_or(piece.unit);
    let resolved = resolve(piece, options.upto, show);
    let mut findings = resolved.findings.clone();
    let mut states = resolved.states.clone();
    let mut outcome_mesh = Mesh::default();
    let mut part = None;
    let (mut rules, mut breaches) = (Vec::new(), Vec::new());
    if let (Some(thickness), Some(material)) = (resolved.thickness, resolved.material) {
        let built = build(&resolved.operations, thickness, piece.opposite_hand, show);
        for finding in &built.findings {
            let bad = finding.severity == Severity::Error;
            let at =
                finding.operation.as_ref().and_then(|name| piece.operations.iter().position(|one| one.name == *name));
            if let (true, Some(at)) = (bad, at) {
                states[at] = OperationState::Bad;
            }
        }
        findings.extend(built.findings.iter().cloned());
        part = Part::new(&built, material.density);
        if let Some(part) = &part {
            match folded_mesh(&part.flat, &part.tree, &part.folded, MESH_TOLERANCE) {
                Ok((mesh, prisms)) => {
                    let context = Context { part, material, prisms: &prisms, grain: piece.grain, unit: show };
                    (rules, breaches) = check_rules(&context);
                    outcome_mesh = mesh;
                    if options.fold < 1.0 {
                        outcome_mesh = refolded(part, options.fold).unwrap_or_default();
                    }
                }
                Err(fault) => findings.push(Finding::error(
                    format!("the folded part cannot be drawn: {fault}"),
                    "Rest the last operation and look at what it cut.",
                )),
            }
        }
    }
    let figures = part.as_ref().map(figures);
    let audit = match (&part, &figures) {
        (Some(part), Some(figures)) => {
            // A mesh that is folded part of the way has another size.
            let nothing = Mesh::default();
            let whole = if options.fold < 1.0 { &nothing } else { &outcome_mesh };
            light_sheet(part, figures, whole, MESH_TOLERANCE)
        }
        _ => Audit::default(),
    };
    let callouts = prove_all(piece, &resolved, part.as_ref().map_or(Subject::Nothing, Subject::Part));
    idle_callouts(piece, &callouts, &mut findings);
    let bends = part.as_ref().map(|part| bend_reports(part, resolved.die)).unwrap_or_default();
    let cautions = cautions(&resolved, figures.as_ref());
    Outcome {
        resolved,
        part,
        mesh: outcome_mesh,
        figures,
        bends,
        callouts,
        rules,
        breaches,
        findings,
        states,
        cautions,
        audit,
        frame: None,
    }
}

/// The checks that a file waits for, added to an outcome's audit; nothing where they were made already.
pub fn audit_fully(outcome: &mut Outcome) {
    if outcome.audit.full {
        return;
    }
    if let (Some(part), Some(figures)) = (&outcome.part, &outcome.figures) {
        // Those are made again without a bound on how much is looked at.
        outcome.audit.pairs.retain(|pair| !crate::audit::BOUNDED.contains(&pair.check.as_str()));
        outcome.audit.extend(full_sheet(part, figures));
    }
    if let Some(frame) = &outcome.frame {
        outcome.audit.extend(full_frame(&frame.made));
        outcome.audit.extend(full_welds(&frame.made, &frame.welds, frame.weld_gap));
    }
    outcome.audit.full = true;
}

/// Only the mesh of a piece, for the fold slider: no proofs, no rules.
pub fn fold_only(piece: &Piece, options: Options) -> Mesh {
    let resolved = resolve(piece, options.upto, options.show.unwrap_or(piece.unit));
    let (Some(thickness), Some(material)) = (resolved.thickness, resolved.material) else { return Mesh::default() };
    let built = build(&resolved.operations, thickness, piece.opposite_hand, piece.unit);
    Part::new(&built, material.density).and_then(|part| refolded(&part, options.fold)).unwrap_or_default()
}

/// The mesh of a part folded part of the way.
fn refolded(part: &Part, fraction: f64) -> Option<Mesh> {
    let fraction = if fraction.is_finite() { fraction.clamp(0.0, 1.0) } else { 1.0 };
    let folded = fold(&part.flat.nodes, &part.tree, part.flat.thickness, fraction);
    folded_mesh(&part.flat, &part.tree, &folded, MESH_TOLERANCE).ok().map(|(mesh, _)| mesh)
}

fn bend_reports(part: &Part, die: Option<f64>) -> Vec<BendReport> {
    let thickness = part.flat.thickness;
    part.flat
        .bends
        .iter()
        .zip(bend_rows(part, die))
        .map(|(bend, row)| {
            let strip = part.flat.strip_of(bend);
            let setback = crate::sheet::bending::outside_setback(strip.angle, strip.radius, thickness);
            BendReport {
                mark: row.mark,
                tooling: row.tooling,
                source: row.source,
                name: bend.name.clone(),
                angle: strip.angle,
                direction: strip.direction,
                radius: strip.radius,
                length: row.length,
                allowance: strip.width,
                deduction: crate::sheet::bending::deduction(setback, strip.width),
                k_factor: strip.k_factor(thickness),
                why: why_allowance(&bend.name, strip.angle, strip.radius, thickness, strip.width, &bend.rule),
            }
        })
        .collect()
}

fn cautions(resolved: &Resolved, figures: Option<&Figures>) -> Vec<String> {
    let mut cautions = Vec::new();
    let Some(figures) = figures else { return cautions };
    cautions.push("Cut edges and burrs are sharp: gloves, and deburr what hands will touch.".into());
    if figures.bends > 0 {
        cautions.push("Keep hands clear of the brake's closing tools; long legs whip as they come up.".into());
    }
    if figures.mass > ONE_PERSON {
        cautions.push(format!(
            "{} kg: two people or a lift; the centre of gravity is at x {}, y {}, z {} mm.",
            crate::quantity::decimal(figures.mass, 1),
            crate::quantity::decimal(figures.centre_of_gravity.x, 0),
            crate::quantity::decimal(figures.centre_of_gravity.y, 0),
            crate::quantity::decimal(figures.centre_of_gravity.z, 0)
        ));
    }
    cautions.extend(resolved.material.and_then(|material| material.caution.clone()));
    cautions.push(
        "Follow local codes; a licensed engineer decides on anything that lifts, guards or carries people.".into(),
    );
    cautions
}
