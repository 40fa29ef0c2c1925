//! What a piece comes to, measured and proved.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::audit::Audit;
use crate::brake::{BendReport, bend_reports};
use crate::finding::Finding;
use crate::proof::{Accepted, Breach, CallOutProof, Level, RuleOutcome};
use crate::quantity::LengthUnit;
use crate::sheet::{Figures, Part, Sheets};
use crate::space::Mesh;
use crate::stock::Workshop;

use super::made::{FrameOutcome, Made};
use super::resolved::{OperationState, Resolved};

/// How much of a piece is asked for. What is not asked for is left empty; what is there is the same, whatever is asked.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Need {
    /// Everything.
    #[default]
    All,
    /// What a picture of it shows, and what is wrong with its steps: no rules, no bars, no figures found twice.
    Picture,
    /// What its values and call-outs come to, and what is wrong with its steps: no mesh either.
    Words,
}

/// What to evaluate.
#[derive(Clone, Copy, Debug)]
pub struct Options<'a> {
    /// How many operations from the top; `None` for all.
    pub upto: Option<usize>,
    /// How far the mesh is folded, 0 flat to 1 done.
    pub fold: f64,
    /// The unit that is printed; the piece's own for `None`.
    pub show: Option<LengthUnit>,
    /// Whether it is a variant of a piece: what is accepted of the piece may be of nothing in it.
    pub variant: bool,
    /// The shop that it is checked for.
    pub shop: Workshop<'a>,
    /// How much of it.
    pub need: Need,
}

impl Default for Options<'_> {
    fn default() -> Self {
        Options { upto: None, fold: 1.0, show: None, variant: false, shop: Workshop::default(), need: Need::All }
    }
}

/// Everything that follows from a piece.
pub struct Outcome {
    /// Text to numbers.
    pub resolved: Resolved,
    /// What was made; `None` when nothing could be built.
    pub made: Option<Made>,
    /// The mesh at the fold asked for.
    pub mesh: Mesh,
    /// Call-outs measured back.
    pub callouts: Vec<CallOutProof>,
    /// How each rule stands.
    pub rules: Vec<RuleOutcome>,
    /// Where rules are broken.
    pub breaches: Vec<Breach>,
    /// Errors, warnings and hints.
    pub findings: Vec<Finding>,
    /// What became of each operation.
    pub states: Vec<OperationState>,
    /// Cautions to print with the part.
    pub cautions: Vec<String>,
    /// Figures found twice, by ways that share no code.
    pub audit: Audit,
}

impl Outcome {
    /// Rules that are broken: faults, without what is accepted, doubtful or worth knowing.
    pub fn broken(&self) -> impl Iterator<Item = &Breach> {
        self.breaches.iter().filter(|breach| breach.level == Level::Broken && breach.accepted.is_none())
    }

    /// What is accepted for this piece, with who said so and why.
    pub fn accepted(&self) -> impl Iterator<Item = (&Breach, &Accepted)> {
        self.breaches.iter().filter_map(|breach| Some((breach, breach.accepted.as_ref()?)))
    }

    /// The blanks of a plate or a sheet part.
    pub fn sheets(&self) -> Option<&Sheets> {
        match &self.made {
            Some(Made::Sheet(sheets)) => Some(sheets),
            _ => None,
        }
    }

    /// What a frame came to.
    pub fn frame(&self) -> Option<&FrameOutcome> {
        match &self.made {
            Some(Made::Frame(frame)) => Some(frame),
            _ => None,
        }
    }

    /// The part of a piece that comes to one blank; `None` for any other.
    pub fn part(&self) -> Option<&Part> {
        self.sheets()?.only().map(|blank| &blank.part)
    }

    /// All of a plate or a sheet part as one, its blanks side by side where it comes to several: for names, measures and pictures.
    pub fn laid_out(&self) -> Option<&Part> {
        self.sheets().map(Sheets::laid_out)
    }

    /// The figures of a piece that comes to one blank; `None` for any other.
    pub fn figures(&self) -> Option<&Figures> {
        self.sheets()?.only().map(|blank| &blank.figures)
    }

    /// The bends of every blank with the working of their allowances.
    pub fn bends(&self) -> Vec<BendReport> {
        let blanks = self.sheets().map(Sheets::blanks).unwrap_or_default();
        blanks.iter().flat_map(|blank| bend_reports(&blank.part, self.resolved.die, self.resolved.names.show)).collect()
    }

    /// The part alone, as [`part`](Self::part).
    pub fn into_part(self) -> Option<Part> {
        match self.made {
            Some(Made::Sheet(sheets)) => sheets.into_only().map(|blank| blank.part),
            _ => None,
        }
    }

    /// The frame alone, as [`frame`](Self::frame).
    pub fn into_frame(self) -> Option<FrameOutcome> {
        match self.made {
            Some(Made::Frame(frame)) => Some(frame),
            _ => None,
        }
    }
}
