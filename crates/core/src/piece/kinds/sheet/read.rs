//! The work of a plate or a sheet part, from text to numbers.

use crate::finding::Finding;
use crate::piece::Piece;
use crate::piece::document::Kind;
use crate::piece::resolved::{OperationState, Resolved};
use crate::quantity::Dimension;
use crate::quantity::tolerance::ROUNDING;
use crate::sheet::{Bends, MethodNumbers, Numbers, bending, read_operation, sheet_verb};
use crate::work::sheet::Method;

/// Reads every operation up to `upto`; a plate's may not bend.
pub(super) fn read_operations(piece: &Piece, upto: Option<usize>, resolved: &mut Resolved) {
    let method = piece_method(piece, resolved).and_then(|formula| with_table(piece, resolved, formula));
    let given = match (resolved.thickness, resolved.radius, method) {
        (Some(thickness), Some(radius), Some(method)) => {
            Some(Numbers { names: resolved.names.clone(), thickness, radius, method })
        }
        _ => None,
    };
    resolved.read_with.clone_from(&given);
    for (at, operation) in piece.operations.iter().enumerate() {
        if upto.is_some_and(|upto| at >= upto) {
            resolved.states.push(OperationState::Ahead);
            continue;
        }
        let Some(given) = &given else {
            resolved.states.push(OperationState::Bad);
            continue;
        };
        let bends = sheet_verb(&operation.action).is_some_and(|verb| verb.bends == Bends::Yes);
        if piece.kind == Kind::Plate && bends && !operation.rested {
            resolved.states.push(OperationState::Bad);
            resolved.findings.push(
                Finding::error(
                    format!("{} bends sheet, and {} is a plate", operation.name, piece.mark),
                    "Make the piece a sheet part, or take the bend out.",
                )
                .of_operation(&operation.name),
            );
            continue;
        }
        let read = read_operation(operation, given);
        resolved.values.insert(operation.name.clone(), read.values);
        if operation.rested {
            resolved.states.push(OperationState::Rested);
            continue;
        }
        resolved.findings.extend(read.findings.into_iter().map(|fault| fault.of_operation(&operation.name)));
        match read.numbers {
            Some(numbers) => {
                resolved.operations.push((operation.name.clone(), numbers));
                resolved.states.push(OperationState::Made);
            }
            None => resolved.states.push(OperationState::Bad),
        }
    }
}

/// The piece's own way of computing blanks, as a K-factor for every bend. An allowance or a deduction is that of a
/// 90 deg bend at the piece's radius, which gives it back exactly for such a bend.
fn piece_method(piece: &Piece, resolved: &mut Resolved) -> Option<MethodNumbers> {
    let (thickness, radius) = (resolved.thickness?, resolved.radius?);
    let square = std::f64::consts::FRAC_PI_2;
    let read = |resolved: &mut Resolved, text: &str, dimension, wanted: &str, field: &str| match resolved
        .names
        .full_size()
        .read(text, dimension, wanted)
    {
        Ok(value) => Some(value),
        Err(fault) => {
            resolved.findings.push(Finding::in_field(&fault, field));
            None
        }
    };
    let (k, source, words) = match &piece.bending.method {
        None => {
            let material = resolved.material?;
            (
                material.k_factor,
                format!("K-factor of {} ({})", material.name, material.source),
                format!("K {}", material.k_factor),
            )
        }
        Some(Method::KFactor(text)) => {
            let k = read(resolved, text, Dimension::NUMBER, "a K-factor", "bending.method.k_factor")?;
            (k, "K-factor typed for this piece".to_string(), format!("K {}", crate::quantity::decimal(k, 4)))
        }
        Some(Method::Allowance(text)) => {
            let allowance = read(resolved, text, Dimension::LENGTH, "a bend allowance", "bending.method.allowance")?;
            let shown = crate::quantity::length_text(allowance, resolved.names.show);
            (
                bending::k_from_allowance(allowance, square, radius, thickness),
                format!("from the piece's bend allowance of {shown} at 90 deg"),
                format!("BA {shown}"),
            )
        }
        Some(Method::Deduction(text)) => {
            let deduction = read(resolved, text, Dimension::LENGTH, "a bend deduction", "bending.method.deduction")?;
            let allowance = 2.0 * bending::mould_setback(square, radius, thickness) - deduction;
            let shown = crate::quantity::length_text(deduction, resolved.names.show);
            (
                bending::k_from_allowance(allowance, square, radius, thickness),
                format!("from the piece's bend deduction of {shown} at 90 deg"),
                format!("BD {shown}"),
            )
        }
        Some(Method::Din6935) => {
            resolved.method_words = "DIN 6935".into();
            return Some(MethodNumbers::Din6935);
        }
        Some(Method::KCurve(points)) => {
            let mut curve: Vec<(f64, f64)> = Vec::new();
            for (at, point) in points.iter().enumerate() {
                let field = format!("bending.method.k_curve.{at}");
                let ratio = read(resolved, &point.ratio, Dimension::NUMBER, "a ratio R/T", &field)?;
                curve.push((ratio, read(resolved, &point.k, Dimension::NUMBER, "a K-factor", &field)?));
            }
            if let Err((what, way_out)) = bending::check_curve(&curve) {
                resolved.findings.push(Finding::error(what, way_out).at_field("bending.method"));
                return None;
            }
            resolved.method_words = "K by R/T".into();
            return Some(MethodNumbers::Curve(curve));
        }
    };
    if !(-ROUNDING..=1.0 + ROUNDING).contains(&k) {
        let shown = crate::quantity::decimal(k, 4);
        resolved.findings.push(
            Finding::error(
                format!("the piece's bending comes to a K-factor of {shown}, outside 0 to 1"),
                "Check the K-factor, allowance or deduction against the thickness and the radius.",
            )
            .at_field("bending.method"),
        );
        return None;
    }
    resolved.method_words = words;
    Some(MethodNumbers::KFactor { k: k.clamp(0.0, 1.0), source })
}

/// The piece's measured table before its formula. A table of another family or thickness is refused in words, and the
/// formula stands in so that the part can still be looked at; the error keeps it from being given out.
fn with_table(piece: &Piece, resolved: &mut Resolved, formula: MethodNumbers) -> Option<MethodNumbers> {
    let Some(table) = &piece.bending.table else { return Some(formula) };
    let (material, thickness) = (resolved.material?, resolved.thickness?);
    let die = resolved.die;
    // Family and thickness are the table's to answer for as a whole; radius and angle are each bend's.
    let own = table
        .rows
        .iter()
        .any(|row| row.family == material.family && (row.thickness_mm - thickness).abs() < crate::stock::SAME_SIZE);
    if !own {
        if let Err(fault) = table.read(material.family, thickness, die, 0.0, 90.0, resolved.names.show) {
            resolved.findings.push(Finding::error(fault.message, fault.way_out).at_field("bending.table"));
        }
        return Some(formula);
    }
    resolved.method_words = format!("table {}", table.name);
    Some(MethodNumbers::Table {
        table: std::sync::Arc::new(table.clone()),
        family: material.family,
        die,
        formula: Box::new(formula),
    })
}
