//! What call-outs measure, a second time: by the places that the measure names as its witnesses.

use crate::proof::CallOutProof;
use crate::work::measure::{FrameMeasure, Measure};

use super::Audit;

/// How far a value may be from the way between its witnesses, mm.
const NEAR: f64 = 1e-5;

/// Each measured length against the way between its witness places, told along its direction.
pub fn witnessed<'a>(measured: impl Iterator<Item = (&'a Measure, &'a CallOutProof)>) -> Audit {
    let mut audit = Audit::default();
    for (what, proof) in measured {
        let Some((value, way)) = proof.measured.zip(way(what, proof)) else { continue };
        audit.compare(
            "witness",
            format!("{} that call-out {} measures", what.words(), proof.name),
            "mm",
            ("by what it is of", value),
            ("between its witness places", way),
            (NEAR, "places and lengths are each found to 1e-6 mm"),
        );
    }
    audit
}

/// The length that the witnesses of a measure tell; `None` where they tell an angle, or nothing, or only part of it.
fn way(what: &Measure, proof: &CallOutProof) -> Option<f64> {
    let lengths: Vec<f64> = proof.witnesses.iter().map(|one| one.length()).collect();
    match (what, lengths.as_slice()) {
        (Measure::CentreOfGravity(_) | Measure::Frame(FrameMeasure::FrameCentre(_)), [one]) => Some(*one),
        (Measure::Frame(FrameMeasure::Diagonals(_)), [one, two]) => Some((one - two).abs()),
        (Measure::Frame(FrameMeasure::Between(_) | FrameMeasure::EndAngle(_)), _) => None,
        (Measure::Angle(_) | Measure::BendAngle(_), _) => None,
        // Welded from both sides, and kept off a hole, a weld is longer and shorter than the way along its seam.
        (Measure::WeldLength(_), _) => None,
        // Round stretches of an edge have no two places that tell their length.
        (Measure::EdgeLength(_), _) => None,
        // The chord of a bent member is shorter than it.
        (Measure::Frame(FrameMeasure::MemberLength(_) | FrameMeasure::ShortLength(_)), _) => None,
        (_, [one]) => Some(one.abs()),
        _ => None,
    }
}
