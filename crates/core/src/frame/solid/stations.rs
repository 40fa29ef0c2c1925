//! Frames along a member, between which the section is carried straight or round.

use super::super::member::{Basis, Member, part_way};
use super::super::skeleton::Arc;
use super::BodyFault;

/// No face goes round further than this, radians.
const WIDEST: f64 = 2.6;
/// Levels nearer than this are one, mm.
const NEAR: f64 = 1e-7;

/// The frames with what lies between each and the next: none a straight stretch.
pub(super) struct Stations {
    pub frames: Vec<Basis>,
    pub arcs: Vec<Option<Arc>>,
}

impl Stations {
    /// `reaches` is, at the start and at the finish, the least and the greatest height of the end as cut. A cut that runs into
    /// a bend is told nowhere exactly.
    pub fn of(member: &Member, reaches: [(f64, f64); 2]) -> Result<Stations, BodyFault> {
        let mut stations = Stations { frames: vec![member.start], arcs: Vec::new() };
        let mut basis = member.start;
        for line in &member.lines {
            let parts = line.arc.map_or(1, |arc| (arc.sweep / WIDEST).ceil().max(1.0) as usize);
            for part in 1..=parts {
                stations.frames.push(part_way(basis, line, line.length() * part as f64 / parts as f64));
                stations.arcs.push(line.arc);
            }
            basis = super::super::member::along(basis, line);
        }
        if member.is_straight() {
            return Ok(stations);
        }
        for finish in [false, true] {
            let (low, high) = reaches[usize::from(finish)];
            let square = low.abs() < NEAR && high.abs() < NEAR;
            let arc = if finish { stations.arcs.last() } else { stations.arcs.first() };
            let line = if finish { member.lines.last() } else { member.lines.first() };
            let (Some(arc), Some(line)) = (arc, line) else { return Err(BodyFault::Bend) };
            if arc.is_some() && !square {
                // Metal beyond the arc runs on straight; a cut into the arc is not told exactly here.
                let beyond = if finish { low > NEAR } else { high < -NEAR };
                if !beyond {
                    return Err(BodyFault::Bend);
                }
                let at = if finish { stations.arcs.len() } else { 0 };
                stations.arcs.insert(at, None);
                stations.frames.insert(if finish { at + 1 } else { 0 }, member.basis(finish));
            } else if arc.is_none() {
                // The cut must leave something of the straight line that it is made in.
                let into = if finish { -low } else { high };
                if into > line.length() - NEAR {
                    return Err(BodyFault::Bend);
                }
            }
        }
        Ok(stations)
    }
}
