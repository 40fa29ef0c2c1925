//! All tests of the simulated machines in one program: linked once, and its tests run side by side.

mod anything;
mod common;
mod programs;
mod saw;
mod tears;
mod transitions;
