//! From text to numbers: stock, call-outs, operations.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::quantity::{Dimension, Known, LengthUnit, Names, Quantity, decimal, parse};
use crate::stock::{THICKEST, stock};
use crate::work::cite::{self, Cites};

use super::Piece;
use super::kinds::MadeFrom;
use super::resolved::Resolved;

/// No sheet is that thin, mm: the thinnest foil is several times it.
const THINNEST: f64 = 1e-3;

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
    let kind = piece.kind.row();
    let of_sheet = kind.made_from == MadeFrom::Sheet;
    if of_sheet {
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
    } else if of_sheet {
        texts.push(("T".into(), piece.stock.thickness.to_string()));
    }
    if let Some(text) = &piece.scale {
        match scale(text, &names) {
            Ok(scale) => {
                names.scale = Some(scale);
                let message = format!("made to scale: lengths are {} of what is typed", decimal(scale, 6));
                let stay = "Thickness, inside radius, threads and screws stay as they are.";
                findings.push(Finding::hint(message, stay).at_field("scale"));
            }
            Err(fault) => findings.push(fault.at_field("scale")),
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
            Some(Ok(quantity)) => {
                names.full_size().bring(*quantity, Dimension::LENGTH, wanted, text, Default::default())
            }
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
        if thickness <= THINNEST || thickness > THICKEST {
            findings.push(
                Finding::error(
                    format!(
                        "a thickness of {} is no sheet or plate: {} to {} is",
                        crate::quantity::length_text(thickness, show),
                        crate::quantity::length_text(0.001, show),
                        crate::quantity::length_text(THICKEST, show)
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
                    "{} is neither a usual thickness nor a gauge of {}",
                    crate::quantity::length_text(thickness, show),
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
        read_with: None,
        operations: Vec::new(),
        values: BTreeMap::new(),
        states: Vec::new(),
        findings,
    };
    resolved.drives = drives(piece);
    if let Some(text) = &piece.bending.die {
        match resolved.names.full_size().read(text, Dimension::LENGTH, "a die opening") {
            Ok(die) => resolved.die = Some(die),
            Err(fault) => resolved.findings.push(Finding::in_field(&fault, "bending.die")),
        }
    }
    (kind.read)(piece, upto, &mut resolved);
    resolved
}

/// The least and the greatest scale.
const SCALES: std::ops::RangeInclusive<f64> = 0.01..=100.0;

/// A scale as drawings say it, `1:4`, or as a number.
fn scale(text: &str, names: &Names) -> Result<f64, Finding> {
    let parts: Vec<&str> = text.split(':').collect();
    let number =
        |text: &str| names.read(text, Dimension::NUMBER, "a scale").map_err(|fault| Finding::in_field(&fault, "scale"));
    let found = match parts.as_slice() {
        [one] => number(one)?,
        [one, two] => number(one)? / number(two)?,
        _ => f64::NAN,
    };
    if SCALES.contains(&found) {
        return Ok(found);
    }
    Err(Finding::error(format!("{text} is no scale: 1:100 to 100:1 is"), "Type it as 1:4, or as 0.25."))
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
