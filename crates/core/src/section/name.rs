//! A section from its name: `SHS 50x50x3`, `RHS 60x40x3 hot`, `CHS 48.3x3.2`, `L 50x50x5`, `UPE 100`, `UPN 100`, `IPE 120`, `FL 50x6`,
//! `RD 20`, `SQ 20`, `TB 45x95`, `HSS 4x4x1/4`, `PIPE 2`.

use crate::plane::Region;
use crate::quantity::decimal;
use crate::quantity::tolerance::ROUNDING;

use super::form::{Form, Section};
use super::outlines::{
    angle, beam, channel, hollow, hollow_radii, solid_rectangle, solid_round, tapered_channel, tube,
};
use super::rows::{angle_rows, beam_rows, us_form, us_rows};

/// Why a name is no section.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{message}")]
pub struct SectionFault {
    /// What is wrong.
    pub message: String,
    /// What to do.
    pub way_out: String,
}

fn fault(message: impl Into<String>, way_out: impl Into<String>) -> SectionFault {
    SectionFault { message: message.into(), way_out: way_out.into() }
}

/// The section of a name; capitals, spaces and the multiplication sign do not matter.
///
/// # Errors
/// [`SectionFault`]: an unknown kind, sizes missing or out of range, a size that the standard's table does not have.
pub fn section_named(name: &str) -> Result<Section, SectionFault> {
    let tidy = name.trim().replace(['\u{d7}', 'X', '*'], "x");
    let split = tidy.find(|c: char| c.is_ascii_digit() || c == '.').unwrap_or(tidy.len());
    let (prefix, sizes) = tidy.split_at(split);
    let kind = prefix.trim().to_ascii_uppercase();
    let (sizes, hot) = match sizes.to_ascii_lowercase().trim().strip_suffix("hot") {
        Some(rest) => (rest.trim().to_string(), true),
        None => (sizes.trim().to_ascii_lowercase(), false),
    };
    match kind.as_str() {
        "SHS" | "RHS" | "CHS" | "FL" | "RD" | "SQ" | "TB" => by_formula(&kind, &sizes, hot),
        "L" if us_rows().iter().any(|row| row.name == format!("L {sizes}")) => from_us(&format!("L {sizes}")),
        "L" => angle_named(&sizes),
        "IPE" | "HEA" | "HEB" | "UPE" | "UPN" => rolled(&kind, &sizes),
        "HSS" | "C" | "PIPE" => from_us(&format!("{kind} {sizes}")),
        _ => Err(fault(
            format!("\"{name}\" is no section"),
            "Type a kind and its sizes: SHS 50x50x3, RHS 60x40x3, CHS 48.3x3.2, L 50x50x5, UPE 100, UPN 100, IPE 120, HEA 100, FL 50x6, RD 20, SQ 20, \
             TB 45x95, HSS 4x4x1/4, C 4x5.4 or PIPE 2.",
        )),
    }
}

fn numbers(sizes: &str) -> Option<Vec<f64>> {
    sizes.split('x').map(|part| part.trim().parse::<f64>().ok().filter(|value| value.is_finite())).collect()
}

fn by_formula(kind: &str, sizes: &str, hot: bool) -> Result<Section, SectionFault> {
    let example = match kind {
        "SHS" => "SHS 50x50x3 or SHS 50x3",
        "RHS" => "RHS 60x40x3",
        "CHS" => "CHS 48.3x3.2",
        "FL" => "FL 50x6",
        "TB" => "TB 45x95",
        "RD" => "RD 20",
        _ => "SQ 20",
    };
    let bad = |why: &str| fault(format!("{kind} {sizes}: {why}"), format!("Type sizes in mm, such as {example}."));
    let given = numbers(sizes).ok_or_else(|| bad("the sizes are not numbers parted by x"))?;
    if given.iter().any(|size| !(0.2..=2000.0).contains(size)) {
        return Err(bad("a size must be from 0.2 to 2000 mm"));
    }
    let text = |value: f64| decimal(value, 3);
    let made = |name: String, form, region: Region, web: f64, radius: f64, source: &str| Section {
        name,
        form,
        region,
        web,
        flange: web,
        radius,
        source: source.into(),
        stated: None,
        one_way: false,
    };
    match (kind, given.as_slice()) {
        ("SHS", [side, wall]) | ("RHS", [side, wall]) => {
            box_section(*side, *side, *wall, hot).ok_or_else(|| bad(THICK))
        }
        ("SHS" | "RHS", [width, height, wall]) => box_section(*width, *height, *wall, hot).ok_or_else(|| bad(THICK)),
        ("CHS", [diameter, wall]) => {
            if *wall * 2.0 >= *diameter {
                return Err(bad(THICK));
            }
            let source = "A = pi (D - T) T, EN 10219-2 and EN 10210-2";
            let name = format!("CHS {}x{}{}", text(*diameter), text(*wall), if hot { " hot" } else { "" });
            Ok(made(name, Form::RoundHollow, tube(*diameter, *wall), *wall, diameter / 2.0, source))
        }
        ("FL", [width, thickness]) => Ok(made(
            format!("FL {}x{}", text(*width), text(*thickness)),
            Form::Flat,
            // A flat stands on edge when it is not rolled: its width is its height.
            solid_rectangle(*thickness, *width),
            *thickness,
            0.0,
            "sizes as typed, EN 10058 practice",
        )),
        ("TB", [width, height]) => Ok(made(
            format!("TB {}x{}", text(*width), text(*height)),
            Form::Timber,
            solid_rectangle(*width, *height),
            width.min(*height),
            0.0,
            "actual size as typed",
        )),
        ("RD", [diameter]) => Ok(made(
            format!("RD {}", text(*diameter)),
            Form::Round,
            solid_round(*diameter),
            *diameter,
            diameter / 2.0,
            "size as typed, EN 10060 practice",
        )),
        ("SQ", [side]) => Ok(made(
            format!("SQ {}", text(*side)),
            Form::Square,
            solid_rectangle(*side, *side),
            *side,
            0.0,
            "size as typed, EN 10059 practice",
        )),
        _ => Err(bad("there are too many or too few sizes")),
    }
}

const THICK: &str = "the wall leaves no room inside for its corners";

fn box_section(width: f64, height: f64, wall: f64, hot: bool) -> Option<Section> {
    let radii = hollow_radii(wall, hot);
    if width.min(height) <= 2.0 * radii.0 {
        return None;
    }
    let text = |value: f64| decimal(value, 3);
    let square = (width - height).abs() < ROUNDING;
    let kind = if square { "SHS" } else { "RHS" };
    // As people write them, the greater size first; it stands upright.
    let (high, wide) = if width > height { (width, height) } else { (height, width) };
    Some(Section {
        name: format!("{kind} {}x{}x{}{}", text(high), text(wide), text(wall), if hot { " hot" } else { "" }),
        form: if square { Form::SquareHollow } else { Form::RectangularHollow },
        region: hollow(wide, high, wall, radii),
        web: wall,
        flange: wall,
        radius: radii.0,
        source: if hot {
            "EN 10210-2: corner radii 1.5 T outside, 1.0 T inside".into()
        } else {
            "EN 10219-2: outer corner 2.0 T to 6 mm, 2.5 T to 10 mm, 3.0 T above".into()
        },
        stated: None,
        one_way: false,
    })
}

fn angle_named(sizes: &str) -> Result<Section, SectionFault> {
    let given = numbers(sizes).unwrap_or_default();
    let wanted = match given.as_slice() {
        [long, thickness] => Some((*long, *long, *thickness)),
        [one, two, thickness] => Some((one.max(*two), one.min(*two), *thickness)),
        _ => None,
    };
    let row = wanted.and_then(|(long, short, thickness)| {
        angle_rows().iter().find(|row| row.long == long && row.short == short && row.thickness == thickness)
    });
    let Some(row) = row else {
        let near: Vec<String> = angle_rows()
            .iter()
            .filter(|row| given.first().is_some_and(|size| (row.long - size).abs() <= 10.0))
            .map(|row| format!("L {}x{}x{}", row.long, row.short, row.thickness))
            .take(8)
            .collect();
        return Err(fault(
            format!("L {sizes} is not in the table of EN 10056-1 here"),
            if near.is_empty() {
                "Type an angle such as L 50x50x5 or L 100x75x8.".into()
            } else {
                format!("Near it are {}.", near.join(", "))
            },
        ));
    };
    Ok(Section {
        name: format!("L {}x{}x{}", row.long, row.short, row.thickness),
        form: Form::Angle,
        region: angle(row.long, row.short, row.thickness, row.root),
        web: row.thickness,
        flange: row.thickness,
        radius: row.root,
        source: "EN 10056-1 (from memory): root radius r1, toe radius r1 / 2".into(),
        stated: None,
        one_way: false,
    })
}

/// Taper of UPN flanges up to 300 mm: 8 % (EN 10365, from memory).
const TAPER: f64 = 0.08;

fn rolled(kind: &str, sizes: &str) -> Result<Section, SectionFault> {
    let name = format!("{kind} {sizes}");
    let Some(row) = beam_rows().iter().find(|row| row.name == name) else {
        let known: Vec<&str> =
            beam_rows().iter().filter(|row| row.name.starts_with(kind)).map(|row| row.name.as_str()).collect();
        return Err(fault(
            format!("{name} is not in the table of EN 10365 here"),
            format!("There are {}.", known.join(", ")),
        ));
    };
    let (form, region) = match row.form.as_str() {
        "channel" => (Form::Channel, channel(row.height, row.width, row.web, row.flange, row.root)),
        "tapered" => (Form::Channel, tapered_channel(row.height, row.width, row.web, row.flange, TAPER, row.root)),
        _ => (Form::Beam, beam(row.height, row.width, row.web, row.flange, row.root)),
    };
    Ok(Section {
        name,
        form,
        region,
        web: row.web,
        flange: row.flange,
        radius: row.root,
        source: "EN 10365 (from memory)".into(),
        stated: None,
        one_way: false,
    })
}

fn from_us(name: &str) -> Result<Section, SectionFault> {
    let Some(row) = us_rows().iter().find(|row| row.name == name) else {
        let kind = name.split(' ').next().unwrap_or_default();
        let known: Vec<&str> = us_rows()
            .iter()
            .filter(|row| row.name.starts_with(&format!("{kind} ")))
            .map(|row| row.name.as_str())
            .collect();
        return Err(fault(format!("{name} is not in the US table here"), format!("There are {}.", known.join(", "))));
    };
    let inch = 25.4;
    let (height, width, web, flange) = (row.height * inch, row.width * inch, row.web * inch, row.flange * inch);
    let form = us_form(row);
    let (region, radius) = match form {
        // ASTM A500 practice: outer corner 2 t.
        Form::SquareHollow | Form::RectangularHollow => (hollow(width, height, web, (2.0 * web, web)), 2.0 * web),
        Form::Angle => (angle(height, width, web, web), web),
        Form::Channel => (channel(height, width, web, flange, web), web),
        _ => (tube(height, web), height / 2.0),
    };
    Ok(Section {
        name: name.to_string(),
        form,
        region,
        web,
        flange,
        radius,
        source: "AISC Manual and ASME B36.10, nominal sizes (from memory)".into(),
        stated: None,
        one_way: false,
    })
}
