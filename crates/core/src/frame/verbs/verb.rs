//! What a verb of frame work is: its row, and what an operation of it does.

use std::fmt::Debug;

use crate::finding::Finding;
use crate::frame::fields::Fields;
use crate::frame::laid_plate::FramePlate;
use crate::frame::layout::Layout;
use crate::frame::model::Frame;
use crate::frame::plate::PlateContext;
use crate::frame::pointed::Pointing;
use crate::frame::reader::Reader;
use crate::quantity::{LengthUnit, MemberName, Names};
use crate::section::Section;
use crate::stock::Material;
use crate::work::{Action, Offer};

/// A verb of frame work.
pub struct FrameVerb {
    /// Its key in the document.
    pub key: &'static str,
    /// What it does, where a copy of members does not make it again: `cuts ends`.
    pub(in crate::frame) not_copied: Option<&'static str>,
    /// The members that it works on, with what they have of it: `holes`.
    pub(in crate::frame) of: fn(&Action) -> Option<(&[MemberName], &'static str)>,
    /// What it offers where somebody points; nowhere: what its list begins with.
    pub(in crate::frame) offers: fn(&Pointing<'_>) -> Vec<Offer>,
    /// When it is done, and how it is read.
    pub(in crate::frame) step: Step,
}

/// When a verb is done.
pub(in crate::frame) enum Step {
    /// In order, while the frame is laid out.
    Layout(fn(&mut Fields<'_>, &Action, &Given<'_>) -> Option<Box<dyn LaysOut>>),
    /// In order, once every member is there and every joint is settled.
    Members(fn(&mut Fields<'_>, &Action) -> Option<Box<dyn OnMembers>>),
}

/// What a frame gives to all of its work.
pub(in crate::frame) struct Given<'a> {
    /// Material of what names none.
    pub material: &'static Material,
    /// Sections of the shop's own.
    pub sections: &'a [Section],
}

/// What lays a frame out.
pub(in crate::frame) trait LaysOut: Debug {
    /// Lays it out.
    ///
    /// # Errors
    /// Why it cannot be; what was laid before stands.
    fn lay_out(self: Box<Self>, layout: &mut Layout, name: &str) -> Result<(), Finding>;
}

/// What works on members that are there.
pub(in crate::frame) trait OnMembers: Debug {
    /// Does it.
    ///
    /// # Errors
    /// Why it cannot be done; what was done before stands.
    fn work(&self, site: &mut Site<'_, '_>, name: &str) -> Result<(), Finding>;
}

/// A frame whose members are there, and what is put on it.
pub(in crate::frame) struct Site<'a, 'n> {
    pub frame: &'a mut Frame,
    pub plates: &'a mut Vec<FramePlate>,
    /// Of plates, whose work is read as any plate's.
    pub reader: Reader<'n>,
    pub names: &'n Names,
    pub material: &'static Material,
    pub unit: LengthUnit,
}

impl<'n> Site<'_, 'n> {
    /// For laying a plate, with the reader of its text.
    pub fn plate(&mut self) -> (PlateContext<'_>, &mut Reader<'n>) {
        let context = PlateContext {
            frame: self.frame,
            names: self.names,
            material: self.material,
            unit: self.unit,
            plates: self.plates,
        };
        (context, &mut self.reader)
    }
}

impl FrameVerb {
    /// A verb that lays out lines and members, which copies make again.
    pub(super) const fn layout(
        key: &'static str,
        read: fn(&mut Fields<'_>, &Action, &Given<'_>) -> Option<Box<dyn LaysOut>>,
    ) -> FrameVerb {
        FrameVerb { key, not_copied: None, of: |_| None, offers: |_| Vec::new(), step: Step::Layout(read) }
    }

    /// A verb that works on members.
    pub(super) const fn members(
        key: &'static str,
        does: &'static str,
        of: fn(&Action) -> Option<(&[MemberName], &'static str)>,
        read: fn(&mut Fields<'_>, &Action) -> Option<Box<dyn OnMembers>>,
    ) -> FrameVerb {
        FrameVerb { key, not_copied: Some(does), of, offers: |_| Vec::new(), step: Step::Members(read) }
    }

    pub(super) const fn offering(self, offers: fn(&Pointing<'_>) -> Vec<Offer>) -> FrameVerb {
        FrameVerb { offers, ..self }
    }

    /// What this verb offers where somebody points.
    pub fn offers(&self, pointing: &Pointing<'_>) -> Vec<Offer> {
        (self.offers)(pointing)
    }
}
