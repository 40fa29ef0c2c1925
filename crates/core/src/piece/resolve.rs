//! From text to numbers: stock, call-outs, operations.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Finding;
use crate::quantity::{Dimension, Known, LengthUnit, Names, Quantity, parse};
use crate::sheet::{MethodNumbers, Numbers, OperationNumbers, ResolvedValue, bending, read_operation};
use crate::stock::{Material, THICKEST, stock};
use crate::work::Action;
use crate::work::cite::{self, Cites};
use crate::work::sheet::Method;

use super::{Kind, Piece};

/// What became of one operation.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OperationState {
    /// Built.
    Made,
    /// Left out on purpose.
    Rested,
    /// After the caret.
    Ahead,
    /// Could not be used.
    Bad,
}

/// A piece in numbers.
#[derive(Clone, Debug)]
pub struct Resolved {
    /// The names that expressions may cite.
    pub names: Names,
    /// The material; `None` when the piece names one that is not in the table.
    pub material: Option<&'static Material>,
    /// Thickness, mm.
    pub thickness: Option<f64>,
    /// How the thickness was named, when by gauge.
    pub gauge: Option<String>,
    /// Inside radius, mm.
    pub radius: Option<f64>,
    /// Die opening that the piece names, mm.
    pub die: Option<f64>,
    /// How blanks are computed, in words, for the heading.
    pub method_words: String,
    /// Each call-out's value, or why it has none.
    pub callouts: BTreeMap<String, Result<Quantity, String>>,
    /// Which operations cite each call-out, directly or through another call-out.
    pub drives: BTreeMap<String, Vec<String>>,
    /// Good operations in order, as numbers.
    pub operations: Vec<(String, OperationNumbers)>,
    /// What each field came to, by operation.
    pub values: BTreeMap<String, Vec<ResolvedValue>>,
    /// What became of each operation so far (build may add more bad ones).
    pub states: Vec<OperationState>,
    /// What is wrong.
    pub findings: Vec<Finding>,
}

/// Turns a piece into numbers. `upto` is how many operations from the top are taken (the caret), `None` for all; `show`
/// is the unit that is printed.
pub fn resolve(piece: &Piece, upto: Option<usize>, show: LengthUnit) -> Resolved {
    let mut findings = Vec::new();
    let material = stock().material(&piece.stock.material);
    if material.is_none() {
        let known: Vec<&str> = stock().materials.iter().map(|one| one.name.as_str()).collect();
        findings.push(
            Finding::error(
                format!("there is no material called {}", piece.stock.material),
                format!("The materials are {}.", known.join(", ")),
            )
            .at_field("stock.material"),
        );
    }
    let mut names = Names::new(piece.unit);
    names.show = show;
    let mut gauge = None;
    let mut texts: Vec<(String, String)> =
        piece.callouts.iter().map(|callout| (callout.name.clone(), callout.value.to_string())).collect();
    if piece.kind != Kind::Frame {
        texts.push(("R".into(), piece.bending.radius.to_string()));
    }
    let is_gauge = {
        let lower = piece.stock.thickness.trim().to_ascii_lowercase();
        lower.ends_with("ga") || lower.ends_with("gauge") || lower.ends_with("ga.")
    };
    if is_gauge {
        let known = match material.map(|material| material.read_thickness(&piece.stock.thickness, &names)) {
            Some(Ok(found)) => {
                gauge = found.gauge;
                Known::Value(Quantity::new(found.millimetres, Dimension::LENGTH))
            }
            Some(Err(fault)) => {
                findings.push(Finding::in_field(&fault, "stock.thickness"));
                Known::Broken(fault.message)
            }
            None => Known::Broken("the material is not known, so neither is its gauge".into()),
        };
        names.set("T", known);
    } else {
        if piece.kind != Kind::Frame {
            texts.push(("T".into(), piece.stock.thickness.to_string()));
        }
    }
    let settled = names.settle(&texts);
    let mut callouts = BTreeMap::new();
    for (at, callout) in piece.callouts.iter().enumerate() {
        match &settled[&callout.name] {
            Ok(quantity) => {
                callouts.insert(callout.name.clone(), Ok(*quantity));
            }
            Err(fault) => {
                let finding = Finding::in_field(fault, format!("callouts.{at}.value"));
                findings.push(finding.of_callout(&callout.name));
                callouts.insert(callout.name.clone(), Err(fault.message.clone()));
            }
        }
    }
    let length = |name: &str, field: &str, wanted: &str, text: &str, findings: &mut Vec<Finding>, names: &mut Names| {
        let found = match settled.get(name) {
            Some(Ok(quantity)) => names.bring(*quantity, Dimension::LENGTH, wanted, text, Default::default()),
            Some(Err(fault)) => Err(fault.clone()),
            None => return None,
        };
        match found {
            Ok(value) => {
                names.set(name, Known::Value(Quantity::new(value, Dimension::LENGTH)));
                Some(value)
            }
            Err(fault) => {
                names.set(name, Known::Broken(fault.message.clone()));
                findings.push(Finding::in_field(&fault, field));
                None
            }
        }
    };
    let radius = length("R", "bending.radius", "an inside radius", &piece.bending.radius, &mut findings, &mut names);
    let thickness = if is_gauge {
        match names.get("T") {
            Some(Known::Value(quantity)) => Some(quantity.value),
            _ => None,
        }
    } else {
        length("T", "stock.thickness", "a thickness", &piece.stock.thickness, &mut findings, &mut names)
    };
    let radius = radius.filter(|&radius| {
        if radius < 0.0 {
            findings.push(
                Finding::error("an inside radius may not be negative", "Type 0 or more.").at_field("bending.radius"),
            );
        }
        radius >= 0.0
    });
    let thickness = thickness.filter(|&thickness| {
        if thickness <= 1e-3 || thickness > THICKEST {
            findings.push(
                Finding::error(
                    format!(
                        "a thickness of {} mm is no sheet or plate: 0.001 to {THICKEST} mm is",
                        crate::quantity::decimal(thickness, 6)
                    ),
                    "Type the sheet's thickness, such as 3 mm or 14 ga.",
                )
                .at_field("stock.thickness"),
            );
            return false;
        }
        true
    });
    if let (Some(material), Some(thickness)) = (material, thickness)
        && !material.is_stocked(thickness)
    {
        findings.push(
            Finding::hint(
                format!(
                    "{} mm is neither a usual thickness nor a gauge of {}",
                    crate::quantity::decimal(thickness, 4),
                    material.family.words()
                ),
                "Ask the stockholder, or pick a usual thickness.",
            )
            .at_field("stock.thickness"),
        );
    }
    let mut resolved = Resolved {
        names,
        material,
        thickness,
        gauge,
        radius,
        die: None,
        method_words: String::new(),
        callouts,
        drives: BTreeMap::new(),
        operations: Vec::new(),
        values: BTreeMap::new(),
        states: Vec::new(),
        findings,
    };
    resolved.drives = drives(piece);
    if let Some(text) = &piece.bending.die {
        match resolved.names.read(text, Dimension::LENGTH, "a die opening") {
            Ok(die) => resolved.die = Some(die),
            Err(fault) => resolved.findings.push(Finding::in_field(&fault, "bending.die")),
        }
    }
    read_operations(piece, upto, &mut resolved);
    resolved
}

fn read_operations(piece: &Piece, upto: Option<usize>, resolved: &mut Resolved) {
    if piece.kind == Kind::Frame {
        // A frame's work is read as it is built: later steps name what earlier ones made.
        for (at, operation) in piece.operations.iter().enumerate() {
            resolved.states.push(if upto.is_some_and(|upto| at >= upto) {
                OperationState::Ahead
            } else if operation.rested {
                OperationState::Rested
            } else {
                OperationState::Made
            });
        }
        return;
    }
    let method = piece_method(piece, resolved).and_then(|formula| with_table(piece, resolved, formula));
    let given = match (resolved.thickness, resolved.radius, method) {
        (Some(thickness), Some(radius), Some(method)) => {
            Some(Numbers { names: resolved.names.clone(), thickness, radius, method })
        }
        _ => None,
    };
    for (at, operation) in piece.operations.iter().enumerate() {
        if upto.is_some_and(|upto| at >= upto) {
            resolved.states.push(OperationState::Ahead);
            continue;
        }
        let Some(given) = &given else {
            resolved.states.push(OperationState::Bad);
            continue;
        };
        let bends = matches!(
            operation.action,
            Action::Bend(_)
                | Action::Profile(_)
                | Action::Roll(_)
                | Action::Hem(_)
                | Action::Joggle(_)
                | Action::Crease(_)
        );
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
            let rises = curve.windows(2).all(|pair| pair[0].0 < pair[1].0);
            if curve.is_empty() || curve.len() > 50 || !rises || curve.iter().any(|(_, k)| !(0.0..=1.0).contains(k)) {
                resolved.findings.push(
                    Finding::error(
                        "a curve of K has 1 to 50 points of rising R/T, each K from 0 to 1",
                        "Put the points in order and correct the figures.",
                    )
                    .at_field("bending.method"),
                );
                return None;
            }
            resolved.method_words = "K by R/T".into();
            return Some(MethodNumbers::Curve(curve));
        }
    };
    if !(-1e-9..=1.0 + 1e-9).contains(&k) {
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
    let own = table.rows.iter().any(|row| row.family == material.family && (row.thickness_mm - thickness).abs() < 5e-3);
    if !own {
        if let Err(fault) = table.read(material.family, thickness, die, 0.0, 90.0) {
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

/// Which operations cite each call-out, through other call-outs too.
fn drives(piece: &Piece) -> BTreeMap<String, Vec<String>> {
    let cites = |text: &str| parse(text).map(|one| one.names()).unwrap_or_default();
    let of_callout: BTreeMap<&str, Vec<String>> =
        piece.callouts.iter().map(|callout| (callout.name.as_str(), cites(&callout.value))).collect();
    let mut drives: BTreeMap<String, Vec<String>> = BTreeMap::new();
    let mut mark = |start: Vec<String>, user: &str| {
        let mut queue = start;
        let mut seen: Vec<String> = Vec::new();
        while let Some(name) = queue.pop() {
            if seen.contains(&name) {
                continue;
            }
            if let Some(more) = of_callout.get(name.as_str()) {
                queue.extend(more.iter().cloned());
                let users = drives.entry(name.clone()).or_default();
                if !users.iter().any(|known| known == user) {
                    users.push(user.to_string());
                }
            }
            seen.push(name);
        }
    };
    mark(cites(&piece.stock.thickness), "stock");
    mark(cites(&piece.bending.radius), "bending");
    for operation in &piece.operations {
        let mut names = Vec::new();
        cite::each(&operation.action, |met| {
            if met.cites == Cites::Value {
                names.extend(cites(met.text));
            }
        });
        mark(names, &operation.name);
    }
    drives
}
