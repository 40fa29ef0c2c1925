//! Sections of structural members: hollow, angle, channel, beam, flat, round, square, timber, or any outline of your own.
//! A section is a region seen from its end, about the middle of its box: u across, v up, mm.

mod catalogue;
mod form;
mod name;
mod outlines;
mod rows;

pub use catalogue::{CatalogueRow, catalogue};
pub use form::{Form, Section, own_section};
pub use name::{SectionFault, section_named};
pub use outlines::{angle, beam, channel, hollow, solid_rectangle, solid_round, tapered_channel, tube};
