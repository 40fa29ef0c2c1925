//! How far a bend really runs: where cuts have taken part of a strip, the brake bends less than its full width.

use crate::plane::{MODELLING_TOLERANCE, Outline, Region};
use crate::quantity::tolerance::ROUNDING;

use super::flat::{Bend, Flat, Strip};

impl Flat {
    /// The stretches of a bend's middle line that have metal, as spans of u along its strip, in order, mm. A bend whose
    /// middle line is cut away altogether has none.
    pub fn stretches(&self, bend: &Bend) -> Vec<(f64, f64)> {
        let strip = self.strip_of(bend);
        let mut spans: Vec<(f64, f64)> = self
            .nodes
            .iter()
            .filter(|node| node.strip().is_some_and(|own| is_same(own, strip)))
            .flat_map(|node| spans_of(&node.region, strip))
            .collect();
        spans.sort_by(|one, two| one.0.total_cmp(&two.0));
        let mut joined: Vec<(f64, f64)> = Vec::new();
        for span in spans {
            match joined.last_mut() {
                Some(last) if span.0 - last.1 < 10.0 * MODELLING_TOLERANCE => last.1 = last.1.max(span.1),
                _ => joined.push(span),
            }
        }
        joined
    }

    /// Length of metal along a bend's middle line, mm.
    pub fn bent_length(&self, bend: &Bend) -> f64 {
        self.stretches(bend).iter().map(|span| span.1 - span.0).sum()
    }

    /// From the first to the last metal along a bend's middle line, mm: what the brake's tool must span.
    pub fn bend_span(&self, bend: &Bend) -> f64 {
        let all = self.stretches(bend);
        match (all.first(), all.last()) {
            (Some(first), Some(last)) => last.1 - first.0,
            _ => 0.0,
        }
    }
}

/// Whether two strips are one: a strip that a cut parted is several nodes.
fn is_same(one: &Strip, two: &Strip) -> bool {
    let near = MODELLING_TOLERANCE;
    one.origin.distance(two.origin) < near
        && (one.along - two.along).length() < near
        && (one.length - two.length).abs() < near
        && (one.width - two.width).abs() < near
}

/// Where the middle line of a strip runs in a region.
fn spans_of(region: &Region, strip: &Strip) -> Vec<(f64, f64)> {
    let mut crossed: Vec<f64> = region.outlines().flat_map(|outline| crossings(outline, strip)).collect();
    crossed.sort_by(f64::total_cmp);
    crossed.chunks_exact(2).map(|pair| (pair[0], pair[1])).collect()
}

fn crossings(outline: &Outline, strip: &Strip) -> Vec<f64> {
    let middle = strip.width / 2.0;
    let mut found = Vec::new();
    for (edge, _) in outline.segments() {
        let (a, b) = (strip.local(edge.start), strip.local(edge.end));
        let (from, to) = (a.1 - middle, b.1 - middle);
        if edge.is_line() {
            if (from < 0.0) != (to < 0.0) {
                found.push(a.0 + (b.0 - a.0) * from / (from - to));
            }
            continue;
        }
        // A circle crosses the line in two places; those on the arc count, once where two arcs meet on the line.
        let (centre, radius) = (strip.local(edge.centre()), edge.radius());
        let off = middle - centre.1;
        if off.abs() >= radius {
            continue;
        }
        let half = (radius * radius - off * off).sqrt();
        for u in [centre.0 - half, centre.0 + half] {
            let place = strip.place(u, middle);
            let (near, far) = (edge.start.distance(place) < ROUNDING, edge.end.distance(place) < ROUNDING);
            // A joint on the line belongs to the edge that leaves it upward, as for lines: below counts as not yet there.
            let counts = if near || far { (from < 0.0) != (to < 0.0) } else { edge.sweeps_over(place) };
            if counts {
                found.push(u);
            }
        }
    }
    found
}
