//! The report: figures, call-outs with their verdicts, rules, findings, cautions. JSON.

use serde::Serialize;
use steelk_core::brake::BendReport;
use steelk_core::cutlist::{CutLine, cut_lines};
use steelk_core::finding::Finding;
use steelk_core::frame::{FrameLine, Sum, Weld};
use steelk_core::piece::{Outcome, Piece};
use steelk_core::proof::{Breach, CallOutProof, RuleOutcome};
use steelk_core::release::rule_stamp;
use steelk_core::sheet::{AfterWelding, Figures, Seam, Sheets};

use crate::output::Stamp;

/// What `report.json` holds. Lengths in mm, areas in mm2, volumes in mm3, masses in kg, angles in radians.
#[derive(Serialize)]
#[allow(missing_docs)]
pub struct Report<'a> {
    pub steelk_report: u32,
    pub mark: &'a str,
    pub title: &'a str,
    pub quantity: u32,
    pub spares: u32,
    pub first_off: bool,
    /// Which revision it is of, who made it and when; what is not known is left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub revision: Option<&'a str>,
    #[serde(skip_serializing_if = "Option::is_none")]
    pub by: Option<&'a str>,
    #[serde(skip_serializing_if = "Option::is_none")]
    pub date: Option<&'a str>,
    /// The note that applies: that it is not released.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub release: Option<String>,
    /// A line a blank, alike ones together.
    pub cut_list: Vec<CutLine>,
    /// Of a piece of one blank.
    pub figures: Option<&'a Figures>,
    /// Joints between edges of its blanks.
    #[serde(skip_serializing_if = "<[_]>::is_empty")]
    pub seams: &'a [Seam],
    /// Holes in joints, drilled after welding: in no blank.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub after_welding: Vec<&'a AfterWelding>,
    pub bends: Vec<BendReport>,
    pub callouts: &'a [CallOutProof],
    pub rules: &'a [RuleOutcome],
    pub breaches: &'a [Breach],
    pub findings: &'a [Finding],
    pub cautions: &'a [String],
    /// Of a frame: its lists.
    pub frame: Option<FrameLists<'a>>,
}

/// The lists of a frame.
#[derive(Serialize)]
#[allow(missing_docs)]
pub struct FrameLists<'a> {
    /// The cut list: members, then plates.
    pub lines: &'a [FrameLine],
    /// Mass, centre of gravity, paint and pieces of the whole, then of each sub-weldment.
    pub sums: &'a [Sum],
    pub welds: &'a [Weld],
}

impl<'a> Report<'a> {
    /// The report of an evaluated piece.
    pub fn new(piece: &'a Piece, outcome: &'a Outcome, stamp: &'a Stamp) -> Self {
        Report {
            steelk_report: 1,
            mark: &piece.mark,
            title: &piece.title,
            quantity: piece.quantity,
            spares: piece.spares,
            first_off: piece.first_off,
            revision: stamp.revision.as_deref(),
            by: stamp.by.as_deref(),
            date: stamp.date.as_deref(),
            release: rule_stamp(outcome),
            cut_list: cut_lines(piece, outcome),
            seams: outcome.sheets().map(Sheets::seams).unwrap_or_default(),
            after_welding: outcome
                .sheets()
                .into_iter()
                .flat_map(Sheets::surfaces)
                .flat_map(|surface| &surface.after_welding)
                .collect(),
            figures: outcome.figures(),
            bends: outcome.bends(),
            callouts: &outcome.callouts,
            rules: &outcome.rules,
            breaches: &outcome.breaches,
            findings: &outcome.findings,
            cautions: &outcome.cautions,
            frame: outcome.frame().map(|frame| FrameLists {
                lines: &frame.made.list.lines,
                sums: &frame.made.list.sums,
                welds: &frame.welds,
            }),
        }
    }

    /// As text, indented, ending in a line break.
    pub fn write(&self) -> String {
        let mut text = serde_json::to_string_pretty(self).unwrap_or_default();
        text.push('\n');
        text
    }
}
