//! A blank larger than any sheet that stockholders keep.

use crate::quantity::tolerance::MODELLING_TOLERANCE;
use crate::sheet::Part;
use crate::stock::Grain;

use super::super::rule::{About, Breach, Level, WhenBroken};
use super::context::{Context, SheetRule};

pub(super) const RULE: SheetRule = SheetRule {
    key: "stock_sheet",
    title: "Blank larger than stock sheets",
    source: "the shop's stock sheets, the grain along their length, its trim all round; as shipped data/bending.toml and 10 mm (common practice)",
    about: About::Stock,
    broken: WhenBroken::Told,
    levels: &[Level::Broken],
    by: &[],
    settings: &["sheet", "asks.trim_mm"],
    check,
};

fn check(context: &Context<'_>) -> Vec<Breach> {
    context.blanks.iter().filter_map(|part| check_one(context, part)).collect()
}

fn check_one(context: &Context<'_>, part: &Part) -> Option<Breach> {
    let size = part.blank.extents();
    // The grain runs along a sheet's length; where it is fixed, the blank cannot be turned on it.
    let (long, short) = match context.grain {
        Some(Grain::AlongX) => (size.width(), size.height()),
        Some(Grain::AlongY) => (size.height(), size.width()),
        None => (size.width().max(size.height()), size.width().min(size.height())),
    };
    let (sheets, trim) = (&context.shop.sheets, context.shop.asks.trim_mm);
    let fits = |length: f64, width: f64| {
        long <= length - 2.0 * trim + MODELLING_TOLERANCE && short <= width - 2.0 * trim + MODELLING_TOLERANCE
    };
    if sheets.iter().any(|sheet| fits(sheet.length_mm, sheet.width_mm)) {
        return None;
    }
    let largest =
        sheets.iter().max_by(|one, two| (one.length_mm * one.width_mm).total_cmp(&(two.length_mm * two.width_mm)))?;
    let root = part.flat.nodes[0].name.clone();
    Some(Breach {
        rule: RULE.key.into(),
        said: None,
        accepted: None,
        level: Level::Broken,
        message: format!(
            "a blank of {} by {}{} fits no stock sheet; the largest is {}",
            context.show(long),
            context.show(short),
            if context.grain.is_some() { " across the grain" } else { "" },
            largest.name
        ),
        way_out: match context.grain {
            Some(_) if long < short => {
                "Turn the grain on the blank, make it of two parts, or order a sheet cut to size."
            }
            _ => "Make it of two parts with a joint, or order a sheet cut to size.",
        }
        .into(),
        operations: vec![root.clone()],
        features: vec![root],
        why: RULE.why(
            format!("blank + {} all round <= a stock sheet", context.show(trim)),
            format!(
                "{} by {} is more than {} by {}",
                context.show(long + 2.0 * trim),
                context.show(short + 2.0 * trim),
                context.show(largest.length_mm),
                context.show(largest.width_mm)
            ),
        ),
    })
}
