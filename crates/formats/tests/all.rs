//! All tests of formats in one program: linked once, and its tests run side by side.

mod audit;
mod blanks;
mod corpus;
mod dxf_in;
mod flat_sheet;
mod forms;
mod frames;
mod gcode;
mod heads;
mod inches;
mod kernel_trial;
mod offset;
mod outputs;
mod papers;
mod queries;
mod reference;
mod ribs;
mod solid;
mod svg_in;
mod template;
mod transitions;
