//! Slits: where an outline runs in and back over itself, it encloses nothing and parts the metal on either side. A cutter goes
//! along it once.

use super::{Outline, Segment};

/// A cut without width, from its mouth to its tip.
#[derive(Clone, Debug, PartialEq)]
pub struct Slit {
    /// Straight pieces end to end.
    pub line: Vec<Segment>,
    /// Whether its mouth opens into waste; one that lies wholly in metal has two tips.
    pub open: bool,
}

impl Slit {
    /// Its length, mm.
    pub fn length(&self) -> f64 {
        self.line.iter().map(Segment::length).sum()
    }
}

impl Outline {
    /// The outline without the slits that run into it, and those. Nothing is left of an outline that is a slit alone.
    pub fn without_slits(&self, tolerance: f64) -> (Option<Outline>, Vec<Slit>) {
        let mut edges = self.edges.clone();
        let mut found: Vec<Vec<Segment>> = Vec::new();
        let mut at = 0;
        let mut clean = 0;
        while edges.len() > 1 && clean <= edges.len() {
            let count = edges.len();
            let (here, next) = (at % count, (at + 1) % count);
            let (a, tip, c) = (edges[here].start, edges[next].start, edges[(at + 2) % count].start);
            let (out, back) = (tip - a, c - tip);
            let straight = edges[here].bulge == 0.0 && edges[next].bulge == 0.0;
            let turns_back = straight
                && out.dot(back) < 0.0
                && out.unit().cross(back).abs() <= tolerance
                && back.unit().cross(out).abs() <= tolerance;
            if !turns_back {
                at = next;
                clean += 1;
                continue;
            }
            let long = out.length().min(back.length());
            let mouth = tip - out.unit() * long;
            let slit = Segment::line(mouth, tip);
            match found.iter_mut().find(|line| line[0].start.distance(tip) <= tolerance) {
                Some(line) => line.insert(0, slit),
                None => found.push(vec![slit]),
            }
            if back.length() > out.length() {
                edges[here].tag = edges[next].tag;
            }
            if count == 2 {
                edges.clear();
                break;
            }
            edges.remove(next);
            if a.distance(c) <= tolerance {
                let here = if next < here { here - 1 } else { here };
                edges.remove(here);
            }
            at = at.saturating_sub(2);
            clean = 0;
        }
        let rest = Outline { edges };
        let left = rest.edges.len() > 1 && rest.area().abs() > tolerance;
        let slits = found.into_iter().map(|line| Slit { line, open: left }).collect();
        (left.then_some(rest), slits)
    }
}
