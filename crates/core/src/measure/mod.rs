//! Probes on the built geometry. Nothing here looks at the numbers that were typed.

mod extents;
mod feature;
mod figures;
mod heads;
mod part;
mod probe;

pub use extents::folded_extents;
pub use feature::{Feature, feature};
pub use figures::{Figures, figures, folded_centre};
pub use part::Part;
pub use probe::{
    Along, Axis, BetweenPanels, Distance, HoleAlong, LegOf, Measure, MeasureError, Measured, OfBend, OfHole, measure,
    span,
};
