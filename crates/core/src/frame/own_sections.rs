//! Sections of the shop's own, from their text to numbers.

use crate::finding::Finding;
use crate::quantity::{Names, decimal};
use crate::section::{Section, SectionFault, own_section, section_named};
use crate::work::frame::{OwnSection, Symmetry};

use super::plate::shape_outline;

/// How far a stated mass may lie from what the outline makes before it is worth saying: rolling tolerances of sections are 4 % to 6 %
/// (EN 10219-2: 6 % of a length's mass).
const NEAR: f64 = 0.06;

/// Reads the sections that a frame keeps; what is wrong with one is said, and it is left out.
pub fn own_sections(given: &[OwnSection], names: &Names, findings: &mut Vec<Finding>) -> Vec<Section> {
    let mut all: Vec<Section> = Vec::new();
    for (at, one) in given.iter().enumerate() {
        match read(one, names) {
            Ok(section) if all.iter().any(|other| is_called(other, &section.name)) => findings.push(
                Finding::error(
                    format!("two sections of your own are called {}", section.name),
                    "Call one of them otherwise.",
                )
                .at_field(format!("frame.sections.{at}.name")),
            ),
            Ok(section) => all.push(section),
            Err(fault) => {
                let field = fault.field.clone().unwrap_or_default();
                findings.push(fault.at_field(format!("frame.sections.{at}.{field}").trim_end_matches('.').to_string()));
            }
        }
    }
    all
}

/// Whether a section has this name, however it is written.
pub fn is_called(section: &Section, name: &str) -> bool {
    section.name.eq_ignore_ascii_case(name.trim())
}

/// The section of a name: one of your own, else a standard's.
///
/// # Errors
/// A name that neither has.
pub fn section_called(own: &[Section], name: &str) -> Result<Section, SectionFault> {
    match own.iter().find(|one| is_called(one, name)) {
        Some(section) => Ok(section.clone()),
        None => section_named(name).map_err(|mut fault| {
            if !own.is_empty() {
                let known: Vec<&str> = own.iter().map(|one| one.name.as_str()).collect();
                fault.way_out = format!("{} Your own are {}.", fault.way_out, known.join(", "));
            }
            fault
        }),
    }
}

/// One section in numbers.
///
/// # Errors
/// No name or a standard's, an outline that cannot be read, a mass of nothing.
pub fn read(given: &OwnSection, names: &Names) -> Result<Section, Finding> {
    let name = given.name.trim();
    if name.is_empty() {
        return Err(Finding::error("a section of your own has no name", "Give it one.").at_field("name"));
    }
    if let Ok(standard) = section_named(name) {
        return Err(Finding::error(
            format!("{} is a section of the standards", standard.name),
            "Call your own otherwise, so that no list says one and means the other.",
        )
        .at_field("name"));
    }
    let (outer, holes) = shape_outline(&given.outline, names).map_err(|fault| {
        let field = fault.field.clone().map_or("outline".into(), |field| format!("outline.{field}"));
        fault.at_field(field)
    })?;
    let stated = given.mass_per_metre;
    if let Some(mass) = stated.filter(|mass| !(mass.is_finite() && *mass > 0.0)) {
        return Err(Finding::error(
            format!("a metre of {name} cannot weigh {mass} kg"),
            "State a mass above 0 kg/m, or leave it out.",
        )
        .at_field("mass_per_metre"));
    }
    let drawn = own_section(name, &outer, &holes);
    let source = given.source.trim();
    if source.chars().count() > 80 || source.chars().any(char::is_control) {
        return Err(Finding::error(
            format!("where {name} comes from is told in {} characters", source.chars().count()),
            "Tell it in at most 80 characters on one line.",
        )
        .at_field("source"));
    }
    let source = if source.is_empty() { drawn.source.clone() } else { source.to_string() };
    Ok(Section { stated, source, one_way: given.symmetry == Symmetry::None, ..drawn })
}

/// What is worth saying of a stated mass: that the outline makes another in this material, of this density in kg/m3.
pub fn odd_mass(section: &Section, material: &str, density: f64) -> Option<Finding> {
    let stated = section.stated?;
    let made = Section { stated: None, ..section.clone() }.mass_per_metre(density);
    ((stated - made).abs() > NEAR * made).then(|| {
        Finding::warning(
            format!(
                "{} is stated to weigh {} kg/m, and its outline makes {} kg/m of {material}",
                section.name,
                decimal(stated, 3),
                decimal(made, 3)
            ),
            "Weigh a metre, or correct the outline: masses go by what is stated.",
        )
    })
}
