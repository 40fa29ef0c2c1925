//! Heads of holes said by a screw: "counterbored for M5", "countersunk for #8", "keyhole for M5 with washer".

use crate::quantity::Expr;
use crate::sheet::reader::Reader;
use crate::stock::{Fit, Head, Screw, stock};
use crate::work::sheet::{Counterbore, Countersink, DrillAction, Keyhole};

use super::angle::angle;

/// A head in numbers: its diameter, mm, with a countersink's angle, radians, or a counterbore's depth, mm.
pub(super) struct HeadNumbers {
    pub diameter: f64,
    pub other: f64,
    /// The screw that says it.
    pub screw: Option<&'static Screw>,
}

/// What a head goes through a keyhole with to spare, mm across (common practice).
const TO_SPARE: f64 = 1.0;

/// The screw that a hole with no size of its own is drilled for.
pub(super) fn said_by(drill: &DrillAction) -> Option<&str> {
    let sink = drill.countersink.as_ref().and_then(|one| one.screw.as_deref());
    sink.or(drill.counterbore.as_ref().and_then(|one| one.screw.as_deref()))
}

/// Whether the heads of a drill are said by screws that there are: what is none is refused where it is typed.
pub(super) fn are_known(drill: &DrillAction) -> bool {
    let sink = drill.countersink.as_ref().and_then(|one| one.screw.as_deref()).map(|size| (Head::Flat, size));
    let bore = drill.counterbore.as_ref().and_then(|one| one.screw.as_deref()).map(|size| (Head::Socket, size));
    [sink, bore].into_iter().flatten().all(|(head, size)| stock().screw(head, size).is_some())
}

/// A medium clearance hole for a screw: diameter, designation, source.
pub(super) fn clearance(reader: &mut Reader<'_>, size: &str) -> Option<(f64, String, String)> {
    let Some(found) = stock().clearance(size) else {
        let known: Vec<&str> = stock().clearances.iter().map(|one| one.bolt.as_str()).collect();
        reader.refuse(
            "clearance",
            format!("there is no clearance hole for {} in the table", size.trim()),
            &format!("Say the hole's diameter; the table has {}.", known.join(", ")),
        );
        return None;
    };
    Some((found.diameter(Fit::Medium), format!("clearance {} medium", found.bolt), found.source.clone()))
}

/// The screw of a size with this head, where nothing else says the same.
fn screw(
    reader: &mut Reader<'_>,
    field: &str,
    head: Head,
    size: &str,
    typed: &[(&str, &Expr)],
) -> Option<&'static Screw> {
    if let Some((what, text)) = typed.iter().find(|(_, text)| !text.is_empty()) {
        reader.refuse(
            &format!("{field}.{what}"),
            format!("{} is given and a screw, {}, too", text.trim(), size.trim()),
            "Take one of them out: the screw says it.",
        );
        return None;
    }
    let found = stock().screw(head, size);
    if found.is_none() {
        reader.refuse(
            &format!("{field}.screw"),
            format!("there is no {} for {} in the table", head.words(), size.trim()),
            &format!("The table has {}; for another type the numbers.", stock().screw_sizes(head).join(", ")),
        );
    }
    found
}

/// Reads a countersink.
pub(super) fn countersink(reader: &mut Reader<'_>, sink: &Countersink) -> Option<HeadNumbers> {
    let Some(size) = &sink.screw else {
        let diameter = reader.size("countersink.diameter", &sink.diameter, "a head diameter");
        let cone = angle(reader, "countersink.angle", &sink.angle, 90.0, "a countersink's angle", (1.0, 179.0));
        return diameter.zip(cone).map(|(diameter, other)| HeadNumbers { diameter, other, screw: None });
    };
    let nothing = Expr::default();
    let typed = [("diameter", &sink.diameter), ("angle", sink.angle.as_ref().unwrap_or(&nothing))];
    let screw = screw(reader, "countersink", Head::Flat, size, &typed)?;
    // Every flat head of the table has its angle.
    let cone = screw.angle?.to_radians();
    Some(HeadNumbers { diameter: screw.diameter, other: cone, screw: Some(screw) })
}

/// Reads a counterbore.
pub(super) fn counterbore(reader: &mut Reader<'_>, bore: &Counterbore) -> Option<HeadNumbers> {
    let Some(size) = &bore.screw else {
        let diameter = reader.size("counterbore.diameter", &bore.diameter, "a counterbore's diameter");
        let deep = reader.size("counterbore.depth", &bore.depth, "a counterbore's depth");
        return diameter.zip(deep).map(|(diameter, other)| HeadNumbers { diameter, other, screw: None });
    };
    let typed = [("diameter", &bore.diameter), ("depth", &bore.depth)];
    let screw = screw(reader, "counterbore", Head::Socket, size, &typed)?;
    // Every socket head of the table has its counterbore.
    let (diameter, deep) = screw.counterbore?;
    Some(HeadNumbers { diameter, other: deep, screw: Some(screw) })
}

/// Reads a keyhole: head, slot, travel, mm. For a screw the slot has a medium clearance, and the head that bears on the sheet goes
/// up beside its hole whole.
pub(super) fn keyhole(reader: &mut Reader<'_>, keyhole: &Keyhole) -> Option<(f64, f64, f64)> {
    let Some(size) = &keyhole.screw else {
        let head = reader.size("keyhole.head", &keyhole.head, "a head's diameter");
        let slot = reader.size("keyhole.slot", &keyhole.slot, "a slot's width");
        let travel = reader.size("keyhole.travel", &keyhole.travel, "a travel");
        return Some((head?, slot?, travel?));
    };
    let typed = [("head", &keyhole.head), ("slot", &keyhole.slot)];
    let screw = screw(reader, "keyhole", keyhole.bears, size, &typed)?;
    let (slot, ..) = clearance(reader, &screw.size)?;
    let head = screw.diameter + TO_SPARE;
    let travel = if keyhole.travel.is_empty() {
        (head + screw.diameter) / 2.0
    } else {
        reader.size("keyhole.travel", &keyhole.travel, "a travel")?
    };
    Some((head, slot, travel))
}
