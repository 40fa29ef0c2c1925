//! A frame as it is built: nodes, members, plates and where they meet.

use crate::finding::Finding;
use crate::plane::{Outline, Vector};
use crate::quantity::{LengthUnit, MemberName};
use crate::stock::{Material, stock};
use crate::work::frame::OneEnd;
use crate::work::frame::{MemberFace, WhichEnd};

use super::end_at::{EndAt, Meeting};
use super::laid_plate::FramePlate;
use super::member::Member;
use super::names::matches;
use super::skeleton::Skeleton;

/// A frame.
#[derive(Clone, Debug, Default)]
pub struct Frame {
    /// Nodes and lines.
    pub skeleton: Skeleton,
    /// Members in the order of their lines.
    pub members: Vec<Member>,
    /// Plates on it.
    pub plates: Vec<FramePlate>,
    /// Where members meet.
    pub meetings: Vec<Meeting>,
    /// Meetings that no joint settles.
    pub unsettled: Vec<usize>,
    /// Members that pass through a bore of another: which, and through which.
    pub passes: Vec<(usize, usize)>,
    /// The unit that its lists speak.
    pub unit: LengthUnit,
}

/// The material of a name, or another where none is named.
///
/// # Errors
/// A material that is not in the table.
pub fn material_named(name: Option<&String>, other: &'static Material) -> Result<&'static Material, Finding> {
    let Some(name) = name else { return Ok(other) };
    stock().material(name).ok_or_else(|| {
        let known: Vec<&str> = stock().materials.iter().map(|one| one.name.as_str()).collect();
        Finding::error(
            format!("there is no material called {name}"),
            format!("The materials are {}.", known.join(", ")),
        )
        .at_field("material")
    })
}

/// An outline whose points were mirrored: its edges are walked the other way with their arcs bulging as before.
pub fn mirrored_outline(outline: &Outline) -> Outline {
    let flipped = Outline {
        edges: outline.edges.iter().map(|edge| crate::plane::Edge { bulge: -edge.bulge, ..*edge }).collect(),
    };
    flipped.reversed()
}

/// Members by name, pattern or group.
///
/// # Errors
/// A name that no member has.
pub fn members_named(frame: &Frame, names: &[MemberName], field: &str) -> Result<Vec<usize>, Finding> {
    let mut all = Vec::new();
    for (at, name) in names.iter().enumerate() {
        let found: Vec<usize> = frame
            .members
            .iter()
            .enumerate()
            .filter(|(_, member)| {
                member.group == *name
                    || matches(name, &member.name)
                    || member.lines.iter().any(|line| line.name == *name)
            })
            .map(|(index, _)| index)
            .collect();
        if found.is_empty() {
            let known: Vec<&str> = frame.members.iter().map(|member| member.name.as_str()).take(12).collect();
            return Err(Finding::error(
                format!("there is no member called {name}"),
                if known.is_empty() {
                    "Put a section on lines first.".to_string()
                } else {
                    format!("Members are {}.", known.join(", "))
                },
            )
            .at_field(format!("{field}.{at}")));
        }
        all.extend(found);
    }
    all.sort_unstable();
    all.dedup();
    Ok(all)
}

/// The ends of members that are meant.
pub fn ends_of(members: &[usize], which: WhichEnd) -> Vec<EndAt> {
    members
        .iter()
        .flat_map(|&member| {
            let both = [EndAt { member, which: OneEnd::Start }, EndAt { member, which: OneEnd::Finish }];
            match which {
                WhichEnd::Start => both[..1].to_vec(),
                WhichEnd::Finish => both[1..].to_vec(),
                WhichEnd::Both => both.to_vec(),
            }
        })
        .collect()
}

/// The direction in a section that looks out of a face.
pub fn out_of(face: MemberFace) -> Vector {
    match face {
        MemberFace::Top => Vector::new(0.0, 1.0),
        MemberFace::Bottom => Vector::new(0.0, -1.0),
        MemberFace::Left => Vector::new(-1.0, 0.0),
        MemberFace::Right => Vector::new(1.0, 0.0),
    }
}
