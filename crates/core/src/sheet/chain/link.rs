//! Strips and panels end to end, in numbers.

use crate::sheet::flat::BendSizes;

/// One piece of a chain.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::sheet) enum ChainLink {
    /// A flat panel: name, length in mm.
    Flat {
        /// Full name of the panel.
        name: String,
        /// Along the chain, mm.
        length: f64,
    },
    /// A bend.
    Curl {
        /// Full name; `None` takes that of the panel farther from the one that stays.
        name: Option<String>,
        /// Its sizes.
        sizes: BendSizes,
    },
}

impl ChainLink {
    pub(super) fn span(&self) -> f64 {
        match self {
            ChainLink::Flat { length, .. } => *length,
            ChainLink::Curl { sizes, .. } => sizes.width,
        }
    }
}

/// A chain about to be laid.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::sheet) struct Chain {
    /// The operation: all that it makes is called by it.
    pub operation: String,
    /// Pieces in order.
    pub links: Vec<ChainLink>,
    /// Which piece stays put.
    pub root: usize,
    /// Along the bends, mm: from where to where.
    pub width: (f64, f64),
}
