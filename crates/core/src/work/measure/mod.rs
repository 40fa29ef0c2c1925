//! What call-outs may measure.

mod along;
mod frame;
mod sheet;

pub use along::{Along, Axis, Distance};
pub use frame::{BetweenMembers, BetweenNodes, FrameMeasure, OfEnd, OfMember, OfWeldment, TwoDiagonals};
pub use sheet::{
    BetweenEdges, BetweenPanels, HoleAlong, LegOf, Measure, OfBend, OfEdge, OfForm, OfHole, OfPanel, OfSeam, RimTo,
};
