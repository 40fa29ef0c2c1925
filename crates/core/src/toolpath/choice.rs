//! How a piece is cut: what the document says, and the numbers that follow with the cutter's table.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Finding;
use crate::quantity::tolerance::WHOLE;
use crate::quantity::{Dimension, Expr, LengthUnit, Names, decimal, length_text};
use crate::stock::{Cutter, CutterRow, Material};
use crate::work::cutting::{Cutting, LeadShape, SmallHoles};

/// What a field came to, for the screen.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CuttingValue {
    /// `lead_in`, `lead_out`, `margin`, `tabs.count`, `tabs.width`.
    pub field: String,
    /// With its unit.
    pub text: String,
    /// Whether the document says it.
    pub given: bool,
}

/// How a piece is cut, in numbers: mm.
#[derive(Clone, Debug, PartialEq)]
pub struct Settings {
    /// The cutter.
    pub cutter: Cutter,
    /// The row of its table.
    pub row: CutterRow,
    /// Shape of leads.
    pub lead: LeadShape,
    /// Length of lead-ins.
    pub lead_in: f64,
    /// Length of lead-outs; 0 is none.
    pub lead_out: f64,
    /// How many tabs, and their width.
    pub tabs: Option<(usize, f64)>,
    /// What becomes of small holes.
    pub small_holes: SmallHoles,
    /// Stock around the blank.
    pub margin: f64,
    /// What each field came to.
    pub values: Vec<CuttingValue>,
}

/// The most tabs.
const MOST_TABS: f64 = 40.0;

struct Read<'a> {
    names: &'a Names,
    values: Vec<CuttingValue>,
    findings: Vec<Finding>,
}

impl Read<'_> {
    fn keep(&mut self, field: &str, text: String, given: bool) {
        self.values.push(CuttingValue { field: field.into(), text, given });
    }

    fn length(&mut self, field: &str, given: Option<&Expr>, otherwise: f64, wanted: &str, range: (f64, f64)) -> f64 {
        let show = |value: f64| length_text(value, self.names.show);
        let Some(text) = given else {
            self.keep(field, show(otherwise), false);
            return otherwise;
        };
        match self.names.read(text, Dimension::LENGTH, wanted) {
            Ok(value) if (range.0..=range.1).contains(&value) => {
                self.keep(field, show(value), true);
                value
            }
            Ok(value) => {
                let message = format!(
                    "{} is no {}: {} to {} is",
                    show(value),
                    wanted.trim_start_matches("a "),
                    show(range.0),
                    show(range.1)
                );
                self.findings
                    .push(Finding::error(message, "Type a length within these.").at_field(format!("cutting.{field}")));
                otherwise
            }
            Err(fault) => {
                self.findings.push(Finding::in_field(&fault, format!("cutting.{field}")));
                otherwise
            }
        }
    }
}

/// The numbers of how a piece is cut, or every reason why there are none.
///
/// # Errors
/// An unknown cutter, a thickness that it does not reach, values that cannot be read.
pub fn settings(
    cutting: &Cutting,
    cutters: &[Cutter],
    material: &Material,
    thickness: f64,
    names: &Names,
) -> Result<Settings, Vec<Finding>> {
    let show = |value: f64| length_text(value, names.show);
    let quality = cutting.quality.as_deref();
    let reach = |cutter: &Cutter| cutter.row(material.family, thickness, quality).cloned();
    let in_quality = quality.map(|own| format!(" in quality \"{own}\"")).unwrap_or_default();
    let what = format!("{} of {}{in_quality}", show(thickness), material.title);
    let (cutter, row) = match &cutting.cutter {
        Some(name) => {
            let cutter = cutters.iter().find(|one| one.name == *name).ok_or_else(|| {
                let known: Vec<&str> = cutters.iter().map(|one| one.name.as_str()).collect();
                vec![
                    Finding::error(
                        format!("there is no cutter called {name}"),
                        format!("The shop's cutters are {}.", known.join(", ")),
                    )
                    .at_field("cutting.cutter"),
                ]
            })?;
            let row = reach(cutter).ok_or_else(|| {
                let known = cutter.qualities(material.family, thickness);
                if quality.is_some() && !known.is_empty() {
                    let known: Vec<String> = known.iter().map(|one| format!("\"{one}\"")).collect();
                    let way_out = format!("It cuts this sheet in quality {}: choose one of them.", known.join(" or "));
                    return vec![
                        Finding::error(format!("the table of {name} has no row for {what}"), way_out)
                            .at_field("cutting.quality"),
                    ];
                }
                let others: Vec<&str> =
                    cutters.iter().filter(|one| reach(one).is_some()).map(|one| one.name.as_str()).collect();
                let way_out = if others.is_empty() {
                    "No cutter of the shop does; add a row to its table.".to_string()
                } else {
                    format!("Cut it on {}, or add a row to the cutter's table.", others.join(" or "))
                };
                vec![
                    Finding::error(format!("the table of {name} has no row for {what}"), way_out)
                        .at_field("cutting.cutter"),
                ]
            })?;
            (cutter, row)
        }
        None => cutters.iter().find_map(|one| Some((one, reach(one)?))).ok_or_else(|| {
            vec![
                Finding::error(
                    format!("no cutter of the shop has a row for {what}"),
                    "Add a row to a cutter's table, or send the piece elsewhere.",
                )
                .at_field("cutting.cutter"),
            ]
        })?,
    };
    let mut read = Read { names, values: Vec::new(), findings: Vec::new() };
    // Common practice: a lead long enough that the pierce's crater, wider than the kerf, stays clear of the part.
    let usual = (3.0 * row.kerf + 0.25 * thickness).clamp(1.0, 12.0);
    let lead_in = read.length("lead_in", cutting.lead_in.as_ref(), usual, "a lead-in", (row.kerf, 100.0));
    let lead_out = read.length("lead_out", cutting.lead_out.as_ref(), lead_in / 2.0, "a lead-out", (0.0, 100.0));
    let room = lead_in.max(lead_out) + 2.0 * row.kerf;
    let least_margin = room.max(2.0);
    let usual_margin = (room + 2.0).max(thickness).max(5.0).ceil();
    let margin = read.length(
        "margin",
        cutting.margin.as_ref(),
        usual_margin,
        "a margin for these leads",
        (least_margin, 1000.0),
    );
    let mut tabs = None;
    if let Some(given) = &cutting.tabs {
        let count = names.read(&given.count, Dimension::NUMBER, "a count of tabs");
        match count {
            Ok(count) if (count - count.round()).abs() < WHOLE && (1.0..=MOST_TABS).contains(&count.round()) => {
                read.keep("tabs.count", decimal(count, 0), true);
                let width = read.length("tabs.width", Some(&given.width), 0.5, "a tab's width", (0.05, 50.0));
                tabs = Some((count.round() as usize, width));
            }
            Ok(count) => read.findings.push(
                Finding::error(
                    format!("{} is no count of tabs: 1 to {MOST_TABS} is", decimal(count, 6)),
                    "Type a whole number, or take the tabs out.",
                )
                .at_field("cutting.tabs.count"),
            ),
            Err(fault) => read.findings.push(Finding::in_field(&fault, "cutting.tabs.count")),
        }
    }
    if !read.findings.is_empty() {
        return Err(read.findings);
    }
    Ok(Settings {
        cutter: cutter.clone(),
        row,
        lead: cutting.lead,
        lead_in,
        lead_out,
        tabs,
        small_holes: cutting.small_holes,
        margin,
        values: read.values,
    })
}

impl Settings {
    /// The row of the table in words: what was looked up, for whom, up to which thickness.
    pub fn row_words(&self, unit: LengthUnit) -> String {
        let (family, quality) = (self.row.family.words(), self.row.quality_words());
        format!("row for {family} up to {}{quality}", length_text(self.row.thickness, unit))
    }
}
