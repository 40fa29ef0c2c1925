//! The exact bodies of a frame's pieces, each made once it is asked for; members of one shape are made once and moved.

use std::sync::OnceLock;

use crate::frame::laid_plate::FramePlate;
use crate::space::{Body, Box3, Mesh, Motion};

use super::super::member::Member;
use super::super::shape;
use super::fault::BodyFault;
use super::piece::{FACETS, member_body, plate_body};
use super::shown::mesh_within;

/// The exact bodies of a frame's pieces where they lie; why there is none of those that have none.
#[derive(Clone, Debug, Default)]
pub struct FrameBodies {
    firsts: OnceLock<Vec<usize>>,
    members: Vec<OnceLock<Result<Body, BodyFault>>>,
    /// The mesh of each first of its shape, where it lies.
    shown: Vec<OnceLock<Option<Mesh>>>,
    /// The box around each member.
    boxes: Vec<OnceLock<Box3>>,
    plates: OnceLock<Vec<Result<Body, String>>>,
}

impl FrameBodies {
    /// None made yet, for so many members.
    pub fn new(members: usize) -> FrameBodies {
        FrameBodies {
            members: vec![OnceLock::new(); members],
            boxes: vec![OnceLock::new(); members],
            shown: vec![OnceLock::new(); members],
            ..FrameBodies::default()
        }
    }

    /// For each member the first that has its shape.
    pub(in crate::frame) fn firsts(&self, members: &[Member]) -> &[usize] {
        self.firsts.get_or_init(|| shape::firsts(members))
    }

    pub(in crate::frame) fn member(&self, members: &[Member], at: usize) -> Result<&Body, BodyFault> {
        let first = self.firsts(members)[at];
        if first == at {
            return self.members[at].get_or_init(|| member_body(&members[at])).as_ref().map_err(|fault| *fault);
        }
        let body = self.member(members, first)?;
        let (from, to) = (&members[first], &members[at]);
        let made = self.members[at].get_or_init(|| {
            let motion = to.start.motion().after(&from.start.motion().inverse());
            Ok(body.moved(&motion, |name| renamed(name, from, to)))
        });
        made.as_ref().map_err(|fault| *fault)
    }

    /// The box around a member that has a body.
    pub(in crate::frame) fn extents(&self, members: &[Member], at: usize) -> Result<Box3, BodyFault> {
        let body = self.member(members, at)?;
        Ok(*self.boxes[at].get_or_init(|| body.extents()))
    }

    /// The mesh of the first member of a member's shape and the motion that carries it to that member; `None` without a body.
    pub(in crate::frame) fn shown(&self, members: &[Member], at: usize) -> Option<(&Mesh, Motion)> {
        let first = self.firsts(members)[at];
        let made = self.shown[first].get_or_init(|| {
            let body = self.member(members, first).ok()?;
            mesh_within(body, FACETS, |face| &face.name)
        });
        let motion = members[at].start.motion().after(&members[first].start.motion().inverse());
        made.as_ref().map(|mesh| (mesh, motion))
    }

    pub(in crate::frame) fn plates(&self, plates: &[FramePlate]) -> &[Result<Body, String>] {
        self.plates.get_or_init(|| plates.iter().map(plate_body).collect())
    }
}

/// A name of one member's body as the other's.
pub(in crate::frame) fn renamed(name: &str, from: &Member, to: &Member) -> String {
    match name.strip_prefix(&from.name) {
        Some("") => to.name.clone(),
        Some(rest) if rest.starts_with('.') => format!("{}{rest}", to.name),
        _ => name.to_string(),
    }
}
