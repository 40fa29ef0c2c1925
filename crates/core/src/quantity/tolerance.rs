//! How near is the same: every figure that two values are held together by, each with its reason.
//!
//! What only one file needs is a constant of its own, beside what it is for. A figure in the middle of a line says nothing
//! of whether it is a length, an angle or a share, nor why it is that large; the order's test refuses one.

/// Two points nearer than this are one point, in millimetres: a thousandth of what any cutter resolves, and far above
/// the rounding of double precision on a part of tens of metres.
pub const MODELLING_TOLERANCE: f64 = 1.0e-6;

/// What a few hundred operations of double precision may leave between two ways to reach one figure: of lengths in
/// millimetres up to some metres, of angles and of shares. A limit that is met is not broken by it.
pub const ROUNDING: f64 = 1.0e-9;

/// Sine of the angle between directions that are parallel, and how far below 1 their product may be: both come from unit
/// vectors, which carry only rounding.
pub const PARALLEL: f64 = 1.0e-9;

/// How far below 1 the product of two directions may be that lean by a millionth of a radian: half the square of that, and as
/// much again for rounding.
pub const PARALLEL_COSINE: f64 = 1.0e-12;

/// A turn, in radians, or its sine, tangent or bulge, that is none: 0.001 mm over a metre.
pub const NO_TURN: f64 = 1.0e-6;

/// Where faces that were reached by different sums lie level, in millimetres: a tenth of what parts two points, so that no
/// two that are level are told apart by their corners.
pub const LEVEL: f64 = 1.0e-7;

/// How far a corner of a blank may lie off the line that it was cut along, in millimetres: cuts are traced through a grid,
/// and what is nearest to a corner is taken for it.
pub const TRACED: f64 = 1.0e-5;

/// An area that is none, in square millimetres: of two outlines that share no more than an edge.
pub const NO_AREA: f64 = 1.0e-6;

/// How far a typed count may be off a whole number: 22.999999 is 23.
pub const WHOLE: f64 = 1.0e-6;

/// A size that nothing is divided by, in millimetres, square millimetres or as a share: what would come out is rounding.
pub const NOTHING: f64 = 1.0e-12;

/// [`ROUNDING`] squared: a squared length that is none, in square millimetres.
pub const NOTHING_SQUARED: f64 = 1.0e-18;

/// The least that a square is taken for so that it can be divided by: only zero itself is below.
pub const LEAST_DIVISOR: f64 = 1.0e-300;

/// Square metres in a square millimetre.
pub const SQUARE_METRES: f64 = 1.0e-6;

/// Cubic metres in a cubic millimetre: densities are in kg/m3.
pub const CUBIC_METRES: f64 = 1.0e-9;
