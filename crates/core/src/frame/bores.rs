//! What holes of a member run into: each other, and the cuts of its ends. Weights take each hole off whole, so neither may be.

use crate::plane::{Box2, Outline, Point, Region};
use crate::work::frame::OneEnd;

use super::cutout::CutoutDepth;
use super::member::{Bore, Member};

/// Nearer than this is touching, mm.
const NEAR: f64 = 1e-6;
/// Looks over a wall for where a coped end comes nearest.
const LOOKS: usize = 16;

impl Member {
    /// The walls that a hole is drilled through: where each begins and ends along its way in, mm.
    pub(super) fn drilled(&self, bore: &Bore) -> Vec<(f64, f64)> {
        let mut walls = self.walls(bore);
        walls.truncate(if bore.one_wall { 1 } else { walls.len() });
        walls
    }

    /// A hole's axis across its way in, mm to the left of the section's own zero.
    pub(super) fn across(&self, bore: &Bore) -> f64 {
        let (side, middle) = (bore.into.left(), self.region.extents().centre());
        side.x * middle.x + side.y * middle.y + bore.off
    }

    /// What a hole takes of the section in one wall: as wide as the drill, from face to face.
    fn window(&self, bore: &Bore, wall: (f64, f64)) -> Box2 {
        let (side, across, radius) = (bore.into.left(), self.across(bore), bore.diameter / 2.0);
        let mut around = Box2::EMPTY;
        for level in [wall.0, wall.1] {
            for at in [across - radius, across + radius] {
                around.hold(Point::default() + side * at + bore.into * level);
            }
        }
        around
    }

    /// Whether two holes run into each other in the metal.
    pub(super) fn holes_meet(&self, one: &Bore, two: &Bore) -> bool {
        let (r, s) = (one.diameter / 2.0, two.diameter / 2.0);
        let apart = (one.along - two.along).abs();
        if apart > r + s - NEAR {
            return false;
        }
        let middle = self.region.extents().centre();
        let axis = |bore: &Bore| middle + bore.into.left() * bore.off;
        let windows =
            |bore: &Bore| self.drilled(bore).into_iter().map(|wall| self.window(bore, wall)).collect::<Vec<_>>();
        let (first, second) = (windows(one), windows(two));
        first.iter().flat_map(|a| second.iter().map(move |b| (a, b))).any(|(a, b)| {
            let (low, high) = (
                Point::new(a.low.x.max(b.low.x), a.low.y.max(b.low.y)),
                Point::new(a.high.x.min(b.high.x), a.high.y.min(b.high.y)),
            );
            if low.x > high.x - NEAR || low.y > high.y - NEAR {
                return false;
            }
            if one.into.cross(two.into).abs() < 0.5 {
                let by = axis(one) - axis(two);
                return one.into.cross(by).hypot(apart) < r + s - NEAR;
            }
            // Crosswise: each is narrowed to where it comes nearest to the other within what both take.
            let half = |bore: &Bore, radius: f64| {
                let (side, at) = (bore.into.left(), axis(bore));
                let level = |at: Point| side.x * at.x + side.y * at.y;
                let (x, y) = (level(low) - level(at), level(high) - level(at));
                let off = if x * y < 0.0 { 0.0 } else { x.abs().min(y.abs()) };
                (radius * radius - off * off).max(0.0).sqrt()
            };
            apart < half(one, r) + half(two, s) - NEAR
        })
    }

    /// The end whose cut a hole runs into.
    pub(super) fn hole_leaves(&self, bore: &Bore) -> Option<OneEnd> {
        let radius = bore.diameter / 2.0;
        let length = self.line_length();
        self.drilled(bore).into_iter().find_map(|wall| {
            let window = self.window(bore, wall);
            let corner =
                |x: f64, y: f64| Point::new(window.low.x + window.width() * x, window.low.y + window.height() * y);
            let square = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)].map(|(x, y)| (corner(x, y), 0));
            let region = Region::solid(Outline::polygon(&square));
            OneEnd::BOTH.into_iter().find(|&which| {
                let end = &self.ends[which.at()];
                let cut = |reach: f64| {
                    if which.is_finish() {
                        length + reach < bore.along + radius - NEAR
                    } else {
                        reach > bore.along - radius + NEAR
                    }
                };
                let sawn = |at: Point| self.sawn_reach(which, at);
                let looks = if end.copes.is_empty() { 1 } else { LOOKS };
                let share = |step: usize| step as f64 / looks as f64;
                let all = (0..=looks).flat_map(|x| (0..=looks).map(move |y| (share(x), share(y))));
                all.into_iter().any(|(x, y)| cut(sawn(corner(x, y))))
                    || end.cutouts.iter().any(|cutout| {
                        let part = cutout.part_of(&region);
                        let places = part.iter().flat_map(|part| part.outer.edges.iter().map(|edge| edge.start));
                        places.into_iter().any(|at| match &cutout.depth {
                            CutoutDepth::To(plane) => cut(plane.reach(at)),
                            CutoutDepth::Behind(depth) => {
                                cut(sawn(at) + if which.is_finish() { -depth } else { *depth })
                            }
                        })
                    })
            })
        })
    }
}
