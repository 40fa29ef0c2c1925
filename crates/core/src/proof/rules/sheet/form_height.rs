//! A form that is drawn higher than sheet lasts, or a louvre that hardly opens.

use crate::quantity::decimal;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::{Form, Pressed};

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "form_height",
    title: "Height of pressed forms",
    source: "common practice, the tool's maker decides: a bead up to 3T, a dimple up to half its diameter, a collar up to 2T and half its hole, a louvre's opening at least 2T",
    about: About::Holes,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// Thicknesses that a bead may stand, a collar, and that a louvre opens at least.
const BEAD: f64 = 3.0;
const COLLAR: f64 = 2.0;
const OPENING: f64 = 2.0;

/// What a form's height is held against: at most or at least this, mm, and why.
fn bounds(form: &Form, thickness: f64) -> Vec<(bool, f64, String)> {
    let times = |by: f64| format!("{}T", decimal(by, 3));
    match &form.shape {
        Pressed::Louvre { .. } => vec![(false, OPENING * thickness, times(OPENING))],
        // What is too much is refused.
        Pressed::KnockOut { .. } => Vec::new(),
        Pressed::Extruded { inside, .. } => {
            vec![(true, COLLAR * thickness, times(COLLAR)), (true, inside / 2.0, "half of its hole".into())]
        }
        Pressed::Raised { .. } => match form.outline.as_circle() {
            Some((_, radius)) => vec![(true, radius, "half of its diameter".into())],
            None => vec![(true, BEAD * thickness, times(BEAD))],
        },
    }
}

fn check(context: &Context<'_>) -> Vec<Breach> {
    let mut found: Vec<Breach> = Vec::new();
    for form in context.part.flat.forms.iter() {
        // All of one operation are alike.
        if found.iter().any(|known| known.operations[0] == form.operation) {
            continue;
        }
        let height = form.shape.height();
        for (is_most, bound, words) in bounds(form, context.part.flat.thickness) {
            let off = if is_most { height - bound } else { bound - height };
            if off <= MODELLING_TOLERANCE {
                continue;
            }
            let (sign, how, way_out) = match is_most {
                true => ("<=", "at the most", "Press it lower, or ask the tool's maker."),
                false => (">=", "at the least", "Press it higher, or ask the tool's maker."),
            };
            let word = form.shape.word();
            found.push(Breach {
                rule: RULE.key.into(),
                said: None,
                accepted: None,
                level: Level::Broken,
                message: format!(
                    "the {word} {} is {} high; {} ({words}) {how}",
                    form.name,
                    context.show(height),
                    context.show(bound)
                ),
                way_out: way_out.into(),
                operations: vec![form.operation.clone()],
                features: vec![form.name.clone()],
                why: RULE.why(
                    format!("height {sign} {words}"),
                    format!("{} and {}", context.show(height), context.show(bound)),
                ),
            });
        }
    }
    found
}
