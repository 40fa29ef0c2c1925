//! What a frame says of saw, bars and welds, in numbers.

use crate::finding::Finding;
use crate::nest::StockBar;
use crate::piece::resolved::Resolved;
use crate::quantity::Dimension;
use crate::work::frame::FrameSettings;

/// Where no bars are named: 6 m, as most stockholders keep (practice), mm.
const USUAL_BAR: f64 = 6000.0;

/// Settings in numbers: mm and radians.
pub(super) struct Settings {
    pub saw_step: f64,
    pub kerf: f64,
    pub end_trim: f64,
    pub grip: f64,
    pub weld_gap: f64,
    bars: Vec<(Option<String>, StockBar)>,
}

impl Settings {
    pub fn read(settings: &FrameSettings, resolved: &Resolved, findings: &mut Vec<Finding>) -> Settings {
        let mut value = |text: &str, dimension: Dimension, wanted: &str, field: String, other: f64| match resolved
            .names
            .read(text, dimension, wanted)
        {
            Ok(value) if value >= 0.0 => value,
            Ok(_) => {
                findings.push(
                    Finding::error(format!("{wanted} of {text} is below zero"), "Type 0 or more.").at_field(field),
                );
                other
            }
            Err(fault) => {
                findings.push(Finding::in_field(&fault, field));
                other
            }
        };
        let length = Dimension::LENGTH;
        let saw_step =
            value(&settings.saw_step, Dimension::ANGLE, "a saw's step", "frame.saw_step".into(), 0.5f64.to_radians());
        let kerf = value(&settings.kerf, length, "a kerf", "frame.kerf".into(), 3.0);
        let end_trim = value(&settings.end_trim, length, "an end trim", "frame.end_trim".into(), 0.0);
        let grip = value(&settings.grip, length, "a grip allowance", "frame.grip".into(), 0.0);
        let weld_gap = value(&settings.weld_gap, length, "a gap to weld", "frame.weld_gap".into(), 5.0);
        let bars = settings
            .bars
            .iter()
            .enumerate()
            .map(|(at, bar)| {
                let length = value(&bar.length, length, "a bar length", format!("frame.bars.{at}.length"), USUAL_BAR);
                let section = bar.section.as_ref().map(|name| {
                    crate::section::section_named(name).map_or_else(|_| name.clone(), |section| section.name)
                });
                (section, StockBar { length, quantity: bar.quantity.map(|count| count as usize) })
            })
            .collect();
        let mut bars: Vec<(Option<String>, StockBar)> = bars;
        // Bars of a section of the shop's own, where the piece names none of it.
        for (at, own) in settings.sections.iter().enumerate() {
            let name = own.name.trim().to_string();
            if bars.iter().any(|(section, _)| section.as_deref().is_some_and(|one| one.eq_ignore_ascii_case(&name))) {
                continue;
            }
            for (bar, text) in own.bars.iter().enumerate() {
                let field = format!("frame.sections.{at}.bars.{bar}");
                let length = value(text, length, "a bar length", field, USUAL_BAR);
                bars.push((Some(name.clone()), StockBar { length, quantity: None }));
            }
        }
        Settings { saw_step, kerf, end_trim, grip, weld_gap, bars }
    }

    pub fn stock(&self, section: &str) -> Vec<StockBar> {
        let own =
            |bar: &&(Option<String>, StockBar)| bar.0.as_deref().is_some_and(|one| one.eq_ignore_ascii_case(section));
        let chosen: Vec<StockBar> = if self.bars.iter().any(|bar| own(&bar)) {
            self.bars.iter().filter(own).map(|(_, bar)| bar.clone()).collect()
        } else {
            self.bars.iter().filter(|(name, _)| name.is_none()).map(|(_, bar)| bar.clone()).collect()
        };
        if chosen.is_empty() { vec![StockBar { length: USUAL_BAR, quantity: None }] } else { chosen }
    }

    pub fn longest(&self, section: &str) -> f64 {
        self.stock(section).iter().map(|bar| bar.length).fold(0.0, f64::max) - 2.0 * self.end_trim - self.grip
    }
}
