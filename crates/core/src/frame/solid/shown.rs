//! A frame as triangles for the screen and for files that are looked at: the meshes of its bodies. Only what has no body is drawn
//! from its section's chords.

use crate::frame::member::Member;
use crate::space::{Body, BodyFace, Mesh};

/// A mesh at a chord bound, or at a finer one where that is too coarse for a face.
pub(in crate::frame) fn mesh_within<'a>(
    body: &'a Body,
    chord: f64,
    feature: impl Fn(&'a BodyFace) -> &'a str,
) -> Option<Mesh> {
    (0..4).find_map(|times| body.mesh(chord / f64::from(1 << (2 * times)), &feature).ok())
}

/// A hole is called by what drilled it, so that a click finds it; all else by the member.
pub(in crate::frame) fn feature<'a>(member: &'a Member, face: &'a BodyFace) -> &'a str {
    hole(member, &face.name).unwrap_or(&member.name)
}

/// What drilled the hole of a face's name.
pub(super) fn hole<'a>(member: &'a Member, name: &str) -> Option<&'a str> {
    let rest = name.strip_prefix(&member.name)?.strip_prefix('.')?;
    let is_of = |operation: &str| {
        rest.strip_prefix(operation).is_some_and(|count| {
            count.is_empty() || count.strip_prefix('-').is_some_and(|count| count.parse::<usize>().is_ok())
        })
    };
    member.bores.iter().map(|bore| bore.operation.as_str()).find(|operation| is_of(operation))
}
