//! Frames along a member, between which the section is carried straight or round.

use super::super::member::{Basis, Member, part_way};
use super::super::skeleton::Arc;
use super::fault::BodyFault;
use super::wall::Wall;
use crate::work::frame::OneEnd;

/// No face goes round further than this, radians.
const WIDEST: f64 = 2.6;
/// Levels nearer than this are one, mm.
const NEAR: f64 = 1e-7;

/// The frames with what lies between each and the next: none a straight stretch.
pub(super) struct Stations {
    pub frames: Vec<Basis>,
    pub arcs: Vec<Option<Arc>>,
    /// Where each frame stands along the member's line, mm.
    pub along: Vec<f64>,
}

/// A straight stretch of a member, to drill in.
pub(super) struct Straight {
    /// The frame that it begins in.
    pub basis: Basis,
    /// Where it begins along the member's line, mm.
    pub from: f64,
    /// How long it is between its frames, mm.
    pub length: f64,
    /// Whether it has the member's own start and finish; otherwise a bend begins there.
    pub has_end: [bool; 2],
    /// Its walls.
    pub walls: Vec<Wall>,
}

impl Stations {
    /// `reaches` is, at the start and at the finish, the least and the greatest height of the end as cut. A cut that runs into
    /// a bend is told nowhere exactly.
    pub fn of(member: &Member, reaches: [(f64, f64); 2]) -> Result<Stations, BodyFault> {
        let mut stations = Stations { frames: vec![member.start], arcs: Vec::new(), along: vec![0.0] };
        let mut passed = 0.0;
        let mut basis = member.start;
        for line in &member.lines {
            let parts = line.arc.map_or(1, |arc| (arc.sweep / WIDEST).ceil().max(1.0) as usize);
            for part in 1..=parts {
                let distance = line.length() * part as f64 / parts as f64;
                stations.frames.push(part_way(basis, line, distance));
                stations.along.push(passed + distance);
                stations.arcs.push(line.arc);
            }
            passed += line.length();
            basis = super::super::member::along(basis, line);
        }
        if member.is_straight() {
            return Ok(stations);
        }
        for which in OneEnd::BOTH {
            let (low, high) = reaches[which.at()];
            let square = low.abs() < NEAR && high.abs() < NEAR;
            let arc = if which.is_finish() { stations.arcs.last() } else { stations.arcs.first() };
            let line = if which.is_finish() { member.lines.last() } else { member.lines.first() };
            let (Some(arc), Some(line)) = (arc, line) else { return Err(BodyFault::Bend) };
            if arc.is_some() && !square {
                // Metal beyond the arc runs on straight; a cut into the arc is not told exactly here.
                let beyond = if which.is_finish() { low > NEAR } else { high < -NEAR };
                if !beyond {
                    return Err(BodyFault::Bend);
                }
                let at = if which.is_finish() { stations.arcs.len() } else { 0 };
                stations.arcs.insert(at, None);
                let at = if which.is_finish() { at + 1 } else { 0 };
                stations.frames.insert(at, member.basis(which));
                stations.along.insert(at, if which.is_finish() { passed } else { 0.0 });
            } else if arc.is_none() {
                // The cut must leave something of the straight line that it is made in.
                let into = if which.is_finish() { -low } else { high };
                if into > line.length() - NEAR {
                    return Err(BodyFault::Bend);
                }
            }
        }
        Ok(stations)
    }

    /// The straight stretches with their walls.
    pub fn straight(&self, walls: Vec<Vec<Wall>>) -> Vec<Straight> {
        let last = self.arcs.len() - 1;
        let all = walls.into_iter().enumerate().filter(|(stretch, _)| self.arcs[*stretch].is_none());
        all.map(|(stretch, walls)| Straight {
            basis: self.frames[stretch],
            from: self.along[stretch],
            length: self.along[stretch + 1] - self.along[stretch],
            has_end: [stretch == 0, stretch == last],
            walls,
        })
        .collect()
    }
}
