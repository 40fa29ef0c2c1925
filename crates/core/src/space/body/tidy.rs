//! Bodies put in order once their faces are made: loops chained from directed edges, what no face uses taken out, and corners that
//! part one curve in two.

use std::collections::HashMap;

use crate::patience;
use crate::plane::{Outline, Point};
use crate::quantity::tolerance::{LEVEL, PARALLEL, ROUNDING};
use crate::space::{Point3, Vector3};

use super::{Body, Curve};

/// An edge with the way that it is walked.
pub type Walked = (usize, bool);

impl Body {
    /// Corner where a walked edge begins, and where it ends.
    pub fn ends_of(&self, (edge, ahead): Walked) -> (usize, usize) {
        let edge = &self.edges[edge];
        if ahead { (edge.from, edge.to) } else { (edge.to, edge.from) }
    }

    /// Places along a walked edge, its own ends left out.
    fn places(&self, (edge, ahead): Walked) -> Vec<Point3> {
        let mut all = Vec::new();
        self.walk(edge, |place, _| all.push(place));
        if !ahead {
            all.reverse();
        }
        all
    }

    /// Directed edges as closed loops, the metal's inside to their left seen against `normal`. Edges walked both ways are
    /// inside the face and dropped. `None` where they do not close.
    pub fn chained(&self, directed: &[Walked], normal: Vector3) -> Option<Vec<Vec<Walked>>> {
        let mut left: Vec<Walked> = Vec::new();
        for &(edge, ahead) in directed {
            match left.iter().position(|&other| other == (edge, !ahead)) {
                Some(at) => {
                    left.swap_remove(at);
                }
                None => left.push((edge, ahead)),
            }
        }
        let mut from: HashMap<usize, Vec<Walked>> = HashMap::new();
        for &walked in &left {
            from.entry(self.ends_of(walked).0).or_default().push(walked);
        }
        let mut loops = Vec::new();
        while let Some(first) = left.iter().copied().find(|&one| from[&self.ends_of(one).0].contains(&one)) {
            patience::check();
            let mut walk: Vec<Walked> = Vec::new();
            let mut here = first;
            loop {
                let (begin, end) = self.ends_of(here);
                from.get_mut(&begin)?.retain(|&other| other != here);
                walk.push(here);
                if end == self.ends_of(first).0 {
                    break;
                }
                let next = from.get(&end)?;
                // Where several leave, the sharpest turn to the left: what touches in a corner stays apart.
                here = match next.as_slice() {
                    [] => return None,
                    [one] => *one,
                    several => {
                        let corner = self.corners[end];
                        let into = corner - *self.places(here).last()?;
                        let turn = |one: &Walked| {
                            let out = self.places(*one)[0] - corner;
                            normal.dot(into.cross(out)).atan2(into.dot(out))
                        };
                        *several.iter().max_by(|one, two| turn(one).total_cmp(&turn(two)))?
                    }
                };
            }
            loops.push(walk);
        }
        Some(loops)
    }

    /// Loops sorted into faces: each outer loop first, with the openings in it. `across` and `up` span the face as seen from
    /// outside.
    pub fn nested(&self, loops: Vec<Vec<Walked>>, across: Vector3, up: Vector3) -> Vec<Vec<Vec<Walked>>> {
        let flat = |walk: &Vec<Walked>| -> Outline {
            let places = walk.iter().flat_map(|&one| {
                let start = self.corners[self.ends_of(one).0];
                let straight = matches!(self.edges[one.0].curve, Curve::Line);
                std::iter::once(start).chain(if straight { Vec::new() } else { self.places(one) })
            });
            let corner = |place: Point3| {
                let arm = place.from_origin();
                (Point::new(arm.dot(across), arm.dot(up)), 0)
            };
            Outline::polygon(&places.map(corner).collect::<Vec<_>>())
        };
        let all: Vec<(Vec<Walked>, Outline)> = loops.into_iter().map(|walk| (walk.clone(), flat(&walk))).collect();
        let (outer, inner): (Vec<_>, Vec<_>) = all.into_iter().partition(|(_, outline)| outline.area() > 0.0);
        let mut faces: Vec<(Vec<Vec<Walked>>, Outline)> =
            outer.into_iter().map(|(walk, outline)| (vec![walk], outline)).collect();
        for (walk, opening) in inner {
            let at = opening.edges[0].start.toward(opening.edges[1 % opening.edges.len()].start, 0.5);
            // The smallest that holds it.
            let holder = faces
                .iter_mut()
                .filter(|(_, outline)| outline.contains(at))
                .min_by(|one, two| one.1.area().total_cmp(&two.1.area()));
            if let Some((loops, _)) = holder {
                loops.push(walk);
            }
        }
        faces.into_iter().map(|(loops, _)| loops).collect()
    }

    /// Takes out edges and corners that no face uses, and corners that part one curve in two.
    pub fn tidied(mut self) -> Body {
        self.join_curves();
        let mut used = vec![false; self.edges.len()];
        self.faces.iter().flat_map(|face| face.loops.iter().flatten()).for_each(|&(edge, _)| used[edge] = true);
        let mut edge_of = vec![0; self.edges.len()];
        let mut corner_of: Vec<Option<usize>> = vec![None; self.corners.len()];
        let mut tidy = Body::default();
        for (at, edge) in self.edges.iter().enumerate().filter(|(at, _)| used[*at]) {
            edge_of[at] = tidy.edges.len();
            let mut own = edge.clone();
            for end in [&mut own.from, &mut own.to] {
                *end = *corner_of[*end].get_or_insert_with(|| {
                    tidy.corners.push(self.corners[*end]);
                    tidy.corners.len() - 1
                });
            }
            tidy.edges.push(own);
        }
        tidy.faces = self.faces;
        for (edge, _) in tidy.faces.iter_mut().flat_map(|face| face.loops.iter_mut().flatten()) {
            *edge = edge_of[*edge];
        }
        tidy
    }

    /// Joins two edges that are one curve and meet where nothing else does.
    fn join_curves(&mut self) {
        let mut at_corner: Vec<Vec<usize>> = vec![Vec::new(); self.corners.len()];
        let mut seen = vec![false; self.edges.len()];
        for &(edge, _) in self.faces.iter().flat_map(|face| face.loops.iter().flatten()) {
            if !std::mem::replace(&mut seen[edge], true) {
                at_corner[self.edges[edge].from].push(edge);
                at_corner[self.edges[edge].to].push(edge);
            }
        }
        for corner in 0..self.corners.len() {
            let &[one, two] = at_corner[corner].as_slice() else { continue };
            if one == two {
                continue;
            }
            let Some(joined) = self.joined(one, two, corner) else { continue };
            let far = if self.edges[two].from == corner { self.edges[two].to } else { self.edges[two].from };
            self.edges[one] = joined;
            for walk in self.faces.iter_mut().flat_map(|face| face.loops.iter_mut()) {
                walk.retain(|&(edge, _)| edge != two);
            }
            // What was walked toward the corner on the first edge is walked so still: its near end stays where it was.
            at_corner[corner].clear();
            at_corner[far].iter_mut().filter(|edge| **edge == two).for_each(|edge| *edge = one);
        }
    }

    /// The first edge, run on over the second; the corner between them is let go. `None` where they are not one curve.
    fn joined(&self, one: usize, two: usize, corner: usize) -> Option<super::BodyEdge> {
        let (first, second) = (&self.edges[one], &self.edges[two]);
        let far = if second.from == corner { second.to } else { second.from };
        let near = if first.from == corner { first.to } else { first.from };
        if far == near {
            return None;
        }
        // Walked one after the other, both the same way about their axis.
        let same_way = (first.to == corner) == (second.from == corner);
        let like = |one: Vector3, two: Vector3| (one - two * if same_way { 1.0 } else { -1.0 }).length() < PARALLEL;
        let one_curve = match (&first.curve, &second.curve) {
            (Curve::Line, Curve::Line) => {
                let (a, b) = (self.corners[corner] - self.corners[near], self.corners[far] - self.corners[corner]);
                a.unit().cross(b.unit()).length() < PARALLEL && a.dot(b) > 0.0
            }
            (
                Curve::Circle { centre, axis, radius },
                Curve::Circle { centre: other, axis: turned, radius: as_round },
            ) => centre.distance(*other) < LEVEL && (radius - as_round).abs() < ROUNDING && like(*axis, *turned),
            (
                Curve::Ellipse { centre, axis, major, long, short },
                Curve::Ellipse { centre: other, axis: turned, major: way, long: as_long, short: as_short },
            ) => {
                centre.distance(*other) < LEVEL
                    && (long - as_long).abs() < LEVEL
                    && (short - as_short).abs() < ROUNDING
                    && like(*axis, *turned)
                    && major.dot(*way).abs() > 1.0 - PARALLEL
            }
            _ => false,
        };
        let (from, to) = if first.to == corner { (near, far) } else { (far, near) };
        one_curve.then(|| super::BodyEdge { from, to, curve: first.curve.clone() })
    }
}
