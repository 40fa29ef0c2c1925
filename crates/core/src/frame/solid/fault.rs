//! Why a member has no exact body.

/// Why a member has no exact body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum BodyFault {
    /// Something cut out of an end on several rounds, or surfaces that all but touch.
    #[error("an end on several rounds with a cut in it, or with rounds that all but touch, is told in facets")]
    End,
    /// A cut into a bend.
    #[error("a cut that runs into a bend is told in facets")]
    Bend,
    /// Cuts of both ends meet.
    #[error("cuts of its two ends meet, so it comes apart")]
    Crossed,
}
