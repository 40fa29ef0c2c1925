//! Solves a rough outline for the numbers that a drawing puts on it, and says how it stands: what is missing, what is
//! implied, what disagrees.
//!
//! A sketch is points and circles with rough places; statements tie them together. Every statement becomes one or
//! two equations in millimetres. Damped least squares brings the rough places onto them; the rank of their slopes,
//! taken in the order of the drawing, tells independent numbers from implied ones and names the circuit of numbers
//! that disagree.

mod dual;
mod equation;
mod newton;
mod sketch;
mod standing;

pub use sketch::{Circle, CircleAt, Edge, EdgeAt, PointAt, Sketch, Statement, StatementKind};
pub use standing::{Conflict, Loose, Role, Solution, measured, solve};
