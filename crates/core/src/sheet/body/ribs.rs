//! Ribs across bends in the solid: face by face, what a rib opens is taken out of the loops of the sheet's faces.

use std::collections::HashMap;

use crate::quantity::tolerance::TRACED;
use crate::sheet::patch::{RibPatch, RibRim};
use crate::sheet::rib::RibPart;
use crate::space::{Body, BodyFace, Curve, Point3, Walked};

use super::builder::Builder;

impl Builder<'_> {
    /// Puts a rib into the sheet's faces; `node` is its strip. What does not join leaves the body open.
    pub(super) fn rib(&mut self, patch: &RibPatch, node: usize) {
        let Some(motion) = self.folded.strip_motion(node).copied() else { return };
        let body = patch.body.moved(&motion, str::to_string);
        // Corners on the tangent lines are those that the sheet has there.
        let mut known: HashMap<usize, usize> = HashMap::new();
        for (top, rim) in [false, true].into_iter().zip(&patch.rims) {
            for &(corner, place) in rim.crossings.iter().flatten() {
                let own = self.corner(node, place, top);
                known.insert(corner, own);
            }
        }
        let corners: Vec<usize> = body
            .corners
            .iter()
            .enumerate()
            .map(|(at, &place)| {
                known.get(&at).copied().unwrap_or_else(|| {
                    self.solid.corners.push(place);
                    self.solid.corners.len() - 1
                })
            })
            .collect();
        let first = self.solid.edges.len();
        self.solid.edges.extend(body.edges.into_iter().map(|mut edge| {
            (edge.from, edge.to) = (corners[edge.from], corners[edge.to]);
            edge
        }));
        self.solid.faces.extend(body.faces.into_iter().map(|mut face| {
            face.loops.iter_mut().flatten().for_each(|(edge, _)| *edge += first);
            face
        }));
        for (top, rim) in [false, true].into_iter().zip(&patch.rims) {
            self.open(node, top, rim, (&corners, first));
        }
    }

    /// Opens the faces of a strip and of what lies on its two tangent lines.
    fn open(&mut self, strip: usize, top: bool, rim: &RibRim, (corners, first): (&[usize], usize)) {
        let lines = rim.crossings.map(|both| both.map(|(corner, _)| corners[corner]));
        for (part, bounds) in
            [(RibPart::First, &lines[..1]), (RibPart::Bend, &lines[..]), (RibPart::Second, &lines[1..])]
        {
            let own = rim.edges.iter().filter(|(one, _)| *one == part);
            let edges: Vec<Walked> = own.map(|&(_, (edge, ahead))| (edge + first, ahead)).collect();
            let faces: Vec<usize> = match part {
                RibPart::Bend => self.faces_of(strip, top),
                _ => {
                    let joints = self.tree.joints.iter().filter(|joint| joint.strip == strip);
                    joints.flat_map(|joint| self.faces_of(joint.neighbour, top)).collect()
                }
            };
            if let Some(face) = faces.into_iter().find(|&face| self.holds(face, bounds)) {
                self.splice(face, edges, bounds, (strip, top));
            }
        }
    }

    fn faces_of(&self, node: usize, top: bool) -> Vec<usize> {
        self.faces
            .get(&(node, top))
            .into_iter()
            .chain(self.parted.get(&(node, top)).into_iter().flatten())
            .copied()
            .collect()
    }

    /// Whether a face's loops come to every one of these corners.
    fn holds(&self, face: usize, lines: &[[usize; 2]]) -> bool {
        let walks = || self.solid.faces[face].loops.iter().flatten();
        lines.iter().flatten().all(|corner| walks().any(|&one| self.ends(one).0 == *corner))
    }

    fn ends(&self, (edge, ahead): Walked) -> (usize, usize) {
        let edge = &self.solid.edges[edge];
        if ahead { (edge.from, edge.to) } else { (edge.to, edge.from) }
    }

    /// Takes the stretches between pairs of corners out of a face's loops, puts edges in, and links what is left again: a face that falls
    /// apart becomes several.
    fn splice(&mut self, face: usize, edges: Vec<Walked>, lines: &[[usize; 2]], key: (usize, bool)) {
        let place = |at: usize| self.solid.corners[at];
        let within = |one: Walked| {
            let (from, to) = self.ends(one);
            matches!(self.solid.edges[one.0].curve, Curve::Line)
                && lines.iter().any(|&[a, b]| lies_between(place(a), place(b), [place(from), place(to)]))
        };
        let (touched, kept): (Vec<Vec<Walked>>, Vec<Vec<Walked>>) =
            self.solid.faces[face].loops.iter().cloned().partition(|walk| walk.iter().any(|&one| within(one)));
        let mut all: Vec<Walked> = touched.iter().flatten().copied().filter(|&one| !within(one)).collect();
        all.extend(edges);
        let mut next: HashMap<usize, Vec<Walked>> = HashMap::new();
        for &one in &all {
            next.entry(self.ends(one).0).or_default().push(one);
        }
        let mut loops: Vec<Vec<Walked>> = Vec::new();
        for &start in &all {
            let begin = self.ends(start).0;
            if !next.get(&begin).is_some_and(|own| own.contains(&start)) {
                continue;
            }
            let mut walk = Vec::new();
            let mut here = begin;
            while let Some(one) = next.get_mut(&here).and_then(Vec::pop) {
                walk.push(one);
                here = self.ends(one).1;
            }
            loops.push(walk);
        }
        self.put_loops(face, (loops, kept), lines, key);
    }

    /// Gives a face its loops: the first rim keeps the face, every further one is a face of its own, with the openings that lie in it.
    fn put_loops(
        &mut self,
        face: usize,
        (loops, kept): (Vec<Vec<Walked>>, Vec<Vec<Walked>>),
        lines: &[[usize; 2]],
        key: (usize, bool),
    ) {
        let [a, b] = lines[0].map(|at| self.solid.corners[at]);
        let along = (b - a).unit();
        // How far along the bend loops reach.
        let span = |walk: &[Walked]| {
            let places = walk.iter().map(|&one| (self.solid.corners[self.ends(one).0] - a).dot(along));
            places.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), at| (low.min(at), high.max(at)))
        };
        let mut rims: Vec<(Vec<Vec<Walked>>, (f64, f64))> = loops
            .into_iter()
            .map(|walk| {
                let own = span(&walk);
                (vec![walk], own)
            })
            .collect();
        for hole in kept {
            let (low, high) = span(&hole);
            let middle = (low + high) / 2.0;
            let at = rims.iter().position(|(_, (low, high))| (*low..=*high).contains(&middle)).unwrap_or(0);
            match rims.get_mut(at) {
                Some((own, _)) => own.push(hole),
                None => rims.push((vec![hole], (low, high))),
            }
        }
        let BodyFace { name, owner, surface, .. } = self.solid.faces[face].clone();
        for (at, (loops, _)) in rims.into_iter().enumerate() {
            if at == 0 {
                self.solid.faces[face].loops = loops;
                continue;
            }
            self.parted.entry(key).or_default().push(self.solid.faces.len());
            let (name, owner, surface) = (name.clone(), owner.clone(), surface.clone());
            self.solid.faces.push(BodyFace { name, owner, surface, loops });
        }
    }
}

/// Leaves out edges that no face walks, and corners that no edge has.
pub(super) fn without_loose(body: &mut Body) {
    let mut used = vec![false; body.edges.len()];
    body.faces.iter().flat_map(|face| face.loops.iter().flatten()).for_each(|&(edge, _)| used[edge] = true);
    let edges = renumbered(&used);
    let mut at = 0;
    body.edges.retain(|_| {
        at += 1;
        used[at - 1]
    });
    body.faces.iter_mut().flat_map(|face| face.loops.iter_mut().flatten()).for_each(|(edge, _)| *edge = edges[*edge]);
    let mut ends = vec![false; body.corners.len()];
    body.edges.iter().for_each(|edge| (ends[edge.from], ends[edge.to]) = (true, true));
    let corners = renumbered(&ends);
    let mut at = 0;
    body.corners.retain(|_| {
        at += 1;
        ends[at - 1]
    });
    body.edges.iter_mut().for_each(|edge| (edge.from, edge.to) = (corners[edge.from], corners[edge.to]));
}

/// For each of a list its number among those that are kept.
fn renumbered(kept: &[bool]) -> Vec<usize> {
    let mut next = 0;
    kept.iter()
        .map(|&own| {
            let at = next;
            next += usize::from(own);
            at
        })
        .collect()
}

/// Whether two places lie on the straight between two others.
fn lies_between(a: Point3, b: Point3, both: [Point3; 2]) -> bool {
    let (way, long) = ((b - a).unit(), (b - a).length());
    both.into_iter().all(|place| {
        let along = (place - a).dot(way);
        (place - a - way * along).length() < TRACED && (-TRACED..=long + TRACED).contains(&along)
    })
}
