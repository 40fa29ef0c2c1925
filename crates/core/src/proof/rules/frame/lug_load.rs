//! A lifting lug that is loaded beyond one of its review figures.

use crate::frame::LugFigures;
use crate::quantity::decimal;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{FrameContext, FrameRule};

pub(super) const RULE: FrameRule = FrameRule {
    key: "lug_load",
    title: "Lifting lugs within their review figures",
    source: "ASME BTH-1, 3-3.3: tension, fracture, double shear, and bearing 1.25 Fy Dp t / Nd (from memory); for review by a licensed engineer under the local code",
    about: About::Members,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &[],
    check,
};

/// The least of its figures, kN, in words.
fn weakest(lug: &LugFigures) -> (f64, &'static str) {
    [
        (lug.tension, "tension through its hole"),
        (lug.fracture, "one plane of fracture beyond the pin"),
        (lug.shear, "double shear beyond the pin"),
        (lug.bearing, "bearing of the pin"),
    ]
    .into_iter()
    .fold((f64::INFINITY, ""), |least, one| if one.0 < least.0 { one } else { least })
}

fn check(context: &FrameContext<'_>) -> Vec<Breach> {
    let plates = context.made.frame.plates.iter();
    plates
        .filter_map(|plate| Some((plate, plate.lug.as_ref()?)))
        .filter_map(|(plate, lug)| {
            let (least, words) = weakest(lug);
            (lug.load > least).then(|| {
                let (load, least) = (decimal(lug.load, 2), decimal(least, 2));
                RULE.breach(
                    format!("{} is lifted by with {load} kN; {words} allows {least} kN", plate.name),
                    "Make it thicker or wider, take a thicker pin, or let more lugs share the load; a licensed engineer decides.",
                    &[&plate.operation],
                    &[&plate.name],
                    "load <= tension, fracture, double shear and bearing, each",
                    format!("{load} kN > {least} kN"),
                )
            })
        })
        .collect()
}
