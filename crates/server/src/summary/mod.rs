//! What the rack and a job tell of a piece: worked out once a revision, kept beside it, never worked out to look at.

mod keeper;

pub use keeper::{Keeper, bring_up, keep};

use serde::Serialize;
use steelk_core::cutlist::{CutLine, cut_lines};
use steelk_core::finding::Severity;
use steelk_core::piece::{Kind, Options, Piece, evaluate};
use steelk_core::plane::Box2;
use steelk_core::proof::Verdict;
use steelk_core::quantity::LengthUnit;
use steelk_core::sheet::Part;
use steelk_core::stock::Workshop;
use utoipa::ToSchema;

/// What summaries are worked out with: a digest of all that settles them, taken when this is compiled.
pub const STAMP: &str = env!("STEELK_STAMP");

/// What is told of a piece.
#[derive(Clone, Debug, Default, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Summary {
    pub mark: String,
    pub title: String,
    pub quantity: u32,
    /// How many more are cut.
    pub spares: u32,
    /// Whether the first is measured before the rest are made.
    pub first_off: bool,
    /// None where it could not be read.
    pub kind: Option<Kind>,
    pub material: String,
    /// The unit that it is drawn in.
    pub unit: LengthUnit,
    pub holds: usize,
    pub off: usize,
    pub unplaced: usize,
    pub broken: usize,
    pub errors: usize,
    /// A line a blank, alike ones together.
    pub cut_lines: Vec<CutLine>,
    /// How many sheets one piece is made of.
    pub sheets: usize,
    /// How many are made, variants and all.
    #[serde(skip)]
    pub made: u64,
    /// Variants that are made, with their own marks and figures.
    pub variants: Vec<CutLine>,
    /// The blank as a path, y down, and its view box, for a small picture.
    pub path: String,
    pub view_box: String,
    /// Of a frame: its cut list.
    pub frame: Option<FrameBrief>,
    /// Why nothing is known of it: what was saved cannot be read, or not worked out. Its file is at `piece.json` as it
    /// is.
    pub unreadable: Option<String>,
}

/// A frame in its job.
#[derive(Clone, Debug, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct FrameBrief {
    pub size: String,
    /// kg.
    pub mass_each: f64,
    pub mass_total: f64,
    pub lines: Vec<steelk_core::frame::FrameLine>,
}

impl Summary {
    /// Works a piece out for a shop.
    pub fn of(piece: &Piece, shop: Workshop<'_>) -> Summary {
        let options = Options { shop, ..Options::default() };
        let outcome = evaluate(piece, options);
        let count = |verdict| outcome.callouts.iter().filter(|one| one.verdict == verdict).count();
        let skeleton = || match outcome.frame() {
            Some(frame) => crate::frame_answer::skeleton_path(frame),
            None => (String::new(), "0 0 1 1".into()),
        };
        let (path, view_box) = outcome.laid_out().map_or_else(skeleton, |part| {
            // SVG's y points down.
            let box_ = laid_box(part);
            let view = format!("{} {} {} {}", box_.low.x, -box_.high.y, box_.width(), box_.height());
            (crate::answer::preview_path(part), view)
        });
        Summary {
            mark: piece.mark.clone(),
            title: piece.title.clone(),
            quantity: piece.quantity,
            spares: piece.spares,
            first_off: piece.first_off,
            kind: Some(piece.kind),
            material: piece.stock.material.clone(),
            unit: piece.unit,
            holds: count(Verdict::Holds),
            off: count(Verdict::Off),
            unplaced: count(Verdict::Unplaced),
            broken: outcome.broken().count(),
            errors: outcome.findings.iter().filter(|one| one.severity == Severity::Error).count(),
            cut_lines: cut_lines(piece, &outcome),
            sheets: outcome.sheets().map_or(0, |sheets| sheets.blanks().len()),
            made: piece.made().iter().map(|one| u64::from(one.quantity)).sum(),
            variants: piece
                .made()
                .iter()
                .skip(1)
                .flat_map(|variant| cut_lines(variant, &evaluate(variant, options)))
                .collect(),
            path,
            view_box,
            frame: outcome.frame().map(|frame| {
                let mass = frame.made.list.sums.first().map_or(0.0, |sum| sum.mass);
                FrameBrief {
                    size: crate::frame_answer::size_text(frame, piece.unit),
                    mass_each: mass,
                    mass_total: mass * f64::from(piece.quantity),
                    lines: frame.made.list.lines.clone(),
                }
            }),
            unreadable: None,
        }
    }

    /// Of a piece of which nothing is known but its words, and why.
    pub fn unreadable(piece: i64, document: &str, why: String) -> Summary {
        let (mark, title) = said_of(piece, document);
        Summary { mark, title, errors: 1, view_box: "0 0 1 1".into(), unreadable: Some(why), ..Summary::default() }
    }

    /// As it is kept with the revision that it was worked out of; `stamp` is what it was worked out with.
    pub fn kept(&self, version: i64, stamp: &str) -> steelk_store::Summary {
        let of_variants = || self.variants.iter().map(|line| line.mark.as_str());
        let lines = || self.cut_lines.iter().chain(&self.variants);
        steelk_store::Summary {
            version,
            stamp: stamp.into(),
            retry_at: None,
            mark: self.mark.clone(),
            title: self.title.clone(),
            words: [self.mark.as_str(), &self.title, &self.material]
                .into_iter()
                .chain(of_variants())
                .collect::<Vec<_>>()
                .join("\n"),
            items: self.made,
            mass: lines().map(|line| line.mass_total).sum::<f64>()
                + self.frame.as_ref().map_or(0.0, |frame| frame.mass_total),
            holds: self.holds as u64,
            callouts: (self.holds + self.off + self.unplaced) as u64,
            broken: (self.broken + self.errors) as u64,
            line: serde_json::to_string(self).unwrap_or_default(),
        }
    }
}

/// The box around the blanks of a piece as they lie side by side, mm.
pub(crate) fn laid_box(part: &Part) -> Box2 {
    part.flat.nodes.iter().fold(Box2::EMPTY, |around, node| around.with(node.region.extents()))
}

/// The mark and title that a document states, be the rest of it what it may.
pub fn said_of(piece: i64, document: &str) -> (String, String) {
    let stated: serde_json::Value = serde_json::from_str(document).unwrap_or_default();
    let text = |field: &str, most: usize| -> String {
        let words = stated[field].as_str().unwrap_or_default();
        words.chars().filter(|c| !c.is_control()).take(most).collect()
    };
    let mark = text("mark", 40);
    (if mark.trim().is_empty() { format!("piece {piece}") } else { mark }, text("title", 200))
}
