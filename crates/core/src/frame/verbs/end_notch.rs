//! Notches and slots in the ends of members.

use crate::finding::Finding;
use crate::frame::cutout::{Cutout, CutoutDepth, CutoutKind};
use crate::frame::fields::Fields;
use crate::frame::model::{ends_of, members_named, out_of};
use crate::plane::{Region, Vector};
use crate::work::Action;
use crate::work::frame::NotchEndAction;

use super::verb::{FrameVerb, OnMembers, Site};

/// Metal that is none, mm2 of the section.
const TRACE: f64 = 1e-3;

pub(super) const END_NOTCH: FrameVerb = FrameVerb::members(
    "end_notch",
    "notches ends",
    |action| if let Action::EndNotch(notch) = action { Some((&notch.of, "notch")) } else { None },
    read,
);

#[derive(Debug)]
struct EndNotchNumbers {
    said: NotchEndAction,
    depth: Option<f64>,
    length: f64,
    width: Option<f64>,
    off: f64,
}

fn read(fields: &mut Fields<'_>, action: &Action) -> Option<Box<dyn OnMembers>> {
    let Action::EndNotch(notch) = action else { return None };
    let depth = fields.maybe_size("depth", notch.depth.as_ref(), "a depth");
    let length = fields.size("length", &notch.length, "a length");
    let width = fields.maybe_size("width", notch.width.as_ref(), "a width of the slot");
    let off = fields.maybe("off", notch.off.as_ref(), "an offset from the middle");
    if notch.width.is_none() && (notch.depth.is_none() || notch.off.is_some()) {
        let (words, field) = if notch.depth.is_none() {
            ("a notch over the whole face needs a depth", "depth")
        } else {
            ("a notch over the whole face has no middle to move", "off")
        };
        let one = Finding::error(words, "Give a depth alone, or a width for a slot.");
        return fields.take(Err(one.at_field(field)));
    }
    Some(Box::new(EndNotchNumbers { said: notch.clone(), depth: depth?, length: length?, width: width?, off: off? }))
}

impl OnMembers for EndNotchNumbers {
    fn work(&self, site: &mut Site<'_, '_>, _: &str) -> Result<(), Finding> {
        let EndNotchNumbers { said: notch, depth, length, width, off } = self;
        let (depth, length, width, off) = (*depth, *length, *width, *off);
        let frame = &mut *site.frame;
        let chosen = members_named(frame, &notch.of, "of")?;
        for end in ends_of(&chosen, notch.at) {
            let member = &mut frame.members[end.member];
            let around = member.region.extents();
            let mut out = out_of(notch.face);
            // Seen on the drawn section; a mirror image has its left and right changed over.
            let turned = if member.mirrored { -1.0 } else { 1.0 };
            out = Vector::new(out.x * turned, out.y);
            let reach = if out.x.abs() > 0.5 { around.width() } else { around.height() };
            if depth.is_some_and(|depth| depth >= reach) && width.is_none() {
                return Err(Finding::error(
                    format!(
                        "a notch {:.1} mm deep takes all of {}, which is {reach:.1} mm there",
                        depth.unwrap_or_default(),
                        member.name
                    ),
                    "Take a smaller depth.",
                )
                .at_field("depth"));
            }
            let middle = around.centre();
            let level = |way: Vector| way.x * middle.x + way.y * middle.y;
            let mut sides = Vec::new();
            if let Some(depth) = depth {
                sides.push((out, level(out) + reach / 2.0 - depth));
            }
            if let Some(width) = width {
                let side = if out.x.abs() > 0.5 { Vector::new(0.0, 1.0) } else { Vector::new(turned, 0.0) };
                let at = level(side) + off;
                sides.extend([(side, at - width / 2.0), (-side, -(at + width / 2.0))]);
            }
            let kind = if width.is_some() { CutoutKind::Slot } else { CutoutKind::Notch };
            let cutout = Cutout { kind, sides, depth: CutoutDepth::Behind(length) };
            let taken: f64 = cutout.part_of(&member.region).iter().map(Region::area).sum();
            if taken < TRACE {
                return Err(Finding::error(
                    format!("it takes no metal of {}: it lies beside the section", member.name),
                    "Move it onto the section or make it deeper.",
                )
                .at_field(if width.is_some() { "off" } else { "depth" }));
            }
            if taken > member.region.area() - TRACE {
                return Err(Finding::error(
                    format!("it takes all of {}", member.name),
                    "Make it smaller, or shorten the member.",
                )
                .at_field("width"));
            }
            member.ends[end.which.at()].cutouts.push(cutout);
        }
        Ok(())
    }
}
