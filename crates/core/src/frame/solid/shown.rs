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

/// What drilled the hole of a face's name.
pub(in crate::frame) fn drilled_by<'a>(member: &'a Member, name: &str) -> Option<&'a str> {
    let rest = name.strip_prefix(&member.name)?.strip_prefix('.')?;
    let operations = || member.bores.iter().map(|bore| bore.operation.as_str());
    let numbered = |operation: &str| {
        let count = rest.strip_prefix(operation).and_then(|count| count.strip_prefix('-'));
        count.is_some_and(|count| count.parse::<usize>().is_ok())
    };
    operations().find(|operation| *operation == rest).or_else(|| operations().find(|operation| numbered(operation)))
}
