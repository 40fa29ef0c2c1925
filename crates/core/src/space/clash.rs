//! Whether two convex prisms share space, and how deep, by separating directions.

use super::{Box3, Point3, Vector3};
use crate::patience;
use crate::quantity::tolerance::ROUNDING;

/// A triangular prism: a triangle on the lower face of a sheet and the matching one on the upper face. On a bend the
/// two differ a little; the six corners still bound a convex body to within the mesh tolerance.
#[derive(Clone, Debug)]
pub struct Prism {
    /// Lower triangle, then upper triangle, matching corners.
    pub corners: [Point3; 6],
    /// The box around it.
    pub extents: Box3,
}

impl Prism {
    /// From its corners: lower three, upper three.
    pub fn new(corners: [Point3; 6]) -> Self {
        let mut extents = Box3::EMPTY;
        corners.iter().for_each(|&corner| extents.hold(corner));
        Prism { corners, extents }
    }

    fn edges(&self) -> [Vector3; 9] {
        let c = &self.corners;
        [
            c[1] - c[0],
            c[2] - c[1],
            c[0] - c[2],
            c[4] - c[3],
            c[5] - c[4],
            c[3] - c[5],
            c[3] - c[0],
            c[4] - c[1],
            c[5] - c[2],
        ]
    }

    fn normals(&self) -> [Vector3; 5] {
        let e = self.edges();
        [e[0].cross(e[1]), e[3].cross(e[4]), e[0].cross(e[6]), e[1].cross(e[7]), e[2].cross(e[8])]
    }

    fn shadow(&self, direction: Vector3) -> (f64, f64) {
        self.corners.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), corner| {
            let at = corner.from_origin().dot(direction);
            (low.min(at), high.max(at))
        })
    }

    /// How deep two prisms share space, mm: the least push that would part them; `None` when some direction already
    /// parts them to within `skin` mm.
    pub fn depth(&self, other: &Prism, skin: f64) -> Option<f64> {
        if !self.extents.overlaps(&other.extents, skin) {
            return None;
        }
        let mut least = f64::INFINITY;
        let mut parts = |direction: Vector3| {
            let length = direction.length();
            if length < ROUNDING {
                return false;
            }
            let unit = direction * (1.0 / length);
            let ((a, b), (c, d)) = (self.shadow(unit), other.shadow(unit));
            let push = (b - c).min(d - a);
            least = least.min(push);
            push <= skin
        };
        if self.normals().into_iter().chain(other.normals()).any(&mut parts) {
            return None;
        }
        for one in self.edges() {
            for two in other.edges() {
                if parts(one.cross(two)) {
                    return None;
                }
            }
        }
        Some(least)
    }
}

/// The deepest clash between two bodies made of prisms, mm, with a place in it; `None` when they only touch or are
/// apart to within `skin` mm.
pub fn deepest_clash(one: &[Prism], two: &[Prism], skin: f64) -> Option<(f64, Point3)> {
    let around = |body: &[Prism]| {
        body.iter().fold(Box3::EMPTY, |mut whole, prism| {
            whole.hold(prism.extents.low);
            whole.hold(prism.extents.high);
            whole
        })
    };
    let (first, second) = (around(one), around(two));
    if !first.overlaps(&second, skin) {
        return None;
    }
    let mut deepest: Option<(f64, Point3)> = None;
    for prism in one.iter().filter(|prism| prism.extents.overlaps(&second, skin)) {
        patience::check();
        for other in two.iter().filter(|other| other.extents.overlaps(&prism.extents, skin)) {
            if let Some(depth) = prism.depth(other, skin)
                && deepest.is_none_or(|(known, _)| depth > known)
            {
                let middle =
                    prism.corners.iter().fold(Vector3::default(), |sum, c| sum + c.from_origin()) * (1.0 / 6.0);
                deepest = Some((depth, Point3::new(middle.x, middle.y, middle.z)));
            }
        }
    }
    deepest
}
