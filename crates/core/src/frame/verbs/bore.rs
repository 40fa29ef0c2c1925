//! Holes through members.

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::member::Bore;
use crate::frame::model::{members_named, out_of};
use crate::plane::Vector;
use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::work::Action;
use crate::work::frame::BoreAction;
use crate::work::frame::OneEnd;

use super::offers;
use super::verb::{FrameVerb, OnMembers, Site};

pub(super) const BORE: FrameVerb = FrameVerb::members(
    "bore",
    "bores holes",
    |action| if let Action::Bore(bore) = action { Some((&bore.of, "holes")) } else { None },
    read,
)
.offering(offers::bore);

#[derive(Debug)]
struct BoreNumbers {
    said: BoreAction,
    diameter: f64,
    at: f64,
    off: f64,
    count: usize,
    spacing: f64,
}

fn read(fields: &mut Fields<'_>, action: &Action) -> Option<Box<dyn OnMembers>> {
    let Action::Bore(bore) = action else { return None };
    let diameter = fields.size("diameter", &bore.diameter, "a diameter");
    let at = fields.length("at", &bore.at, "a distance along the member");
    let off = fields.maybe("off", bore.off.as_ref(), "an offset from the middle");
    let count = bore.count.as_ref().map_or(Some(1), |text| fields.count("count", text, "a number of holes", 500));
    let spacing = fields.maybe("spacing", bore.spacing.as_ref(), "a spacing");
    let (count, spacing) = (count?, spacing?);
    if count > 1 && spacing.abs() < MODELLING_TOLERANCE {
        let apart = Finding::error("several holes need a spacing", "Say how far apart they are.");
        return fields.take(Err(apart.at_field("spacing")));
    }
    Some(Box::new(BoreNumbers { said: bore.clone(), diameter: diameter?, at: at?, off: off?, count, spacing }))
}

impl OnMembers for BoreNumbers {
    fn work(&self, site: &mut Site<'_, '_>, name: &str) -> Result<(), Finding> {
        let BoreNumbers { said: bore, diameter, at, off, count, spacing } = self;
        let (diameter, at, off, count, spacing) = (*diameter, *at, *off, *count, *spacing);
        let frame = &mut *site.frame;
        let chosen = members_named(frame, &bore.of, "of")?;
        for index in chosen {
            let member = &mut frame.members[index];
            let length = member.length();
            let from_long = member.reach(OneEnd::Start).0;
            for turn in 0..count {
                let from = if at < 0.0 { length + at - spacing * turn as f64 } else { at + spacing * turn as f64 };
                if from < diameter / 2.0 || from > length - diameter / 2.0 {
                    return Err(Finding::error(
                        format!(
                            "a hole {from:.1} mm along {} runs out over its end: it is {length:.1} mm long",
                            member.name
                        ),
                        "Move it onto the member or bore fewer.",
                    )
                    .at_field("at"));
                }
                // Off the middle is up or to the right on the drawn section; a mirror image has its left and right changed over.
                let turned = |v: Vector| if member.mirrored { Vector::new(-v.x, v.y) } else { v };
                let out = out_of(bore.face);
                let side = if out.x.abs() > 0.5 { Vector::new(0.0, off) } else { Vector::new(off, 0.0) };
                let into = turned(-out);
                let made = Bore {
                    operation: name.to_string(),
                    into,
                    off: turned(side).dot(into.left()),
                    along: from_long + from,
                    diameter,
                    one_wall: bore.one_wall,
                    purpose: Some(bore.purpose),
                };
                let around = member.region.extents();
                let wide = if made.into.x.abs() > 0.5 { around.height() } else { around.width() };
                if made.off.abs() + diameter / 2.0 > wide / 2.0 + MODELLING_TOLERANCE {
                    return Err(Finding::error(
                    format!(
                        "a hole of {diameter:.1} mm {:.1} mm from the middle runs out over {}, whose face is {wide:.1} mm wide there",
                        off.abs(),
                        member.name
                    ),
                    "Take a smaller hole, or move it onto the face.",
                )
                .at_field("diameter"));
                }
                if member.walls(&made).is_empty() {
                    return Err(Finding::error(
                        format!("a hole {off:.1} mm from the middle misses the metal of {}", member.name),
                        "Move it onto the section.",
                    )
                    .at_field("off"));
                }
                if let Some(which) = member.hole_leaves(&made) {
                    return Err(Finding::error(
                        format!(
                            "a hole of {diameter:.1} mm {from:.1} mm along {} runs into the cut of its {}",
                            member.name,
                            which.word()
                        ),
                        "Move it further in: a hole that is cut open is a notch.",
                    )
                    .at_field("at"));
                }
                if let Some(other) = member.bores.iter().find(|other| member.holes_meet(&made, other)) {
                    return Err(Finding::error(
                        format!(
                            "a hole of {diameter:.1} mm {from:.1} mm along {} runs into one of {} of {:.1} mm",
                            member.name, other.operation, other.diameter
                        ),
                        "Move one of them, or leave one out: what both take would be taken twice.",
                    )
                    .at_field("at"));
                }
                member.bores.push(made);
            }
        }
        Ok(())
    }
}
