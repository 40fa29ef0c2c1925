//! How far the members of a frame reach beyond its centre lines.

use crate::section::Section;
use crate::space::{Point3, Vector3};

use super::member::Basis;
use super::skeleton::CentreLine;

/// How far members reach beyond the box of their lines, mm along each axis, before it and after it.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct Reach {
    pub before: Vector3,
    pub after: Vector3,
}

/// How far members of a section reach beyond straight lines, each cut square at the ends of its line.
pub(super) fn reach(lines: &[CentreLine], section: &Section) -> Reach {
    let around = section.region.extents();
    let mut bare = [[f64::INFINITY; 3], [f64::NEG_INFINITY; 3]];
    let mut whole = bare;
    let hold = |sizes: &mut [[f64; 3]; 2], place: Point3| {
        for (axis, value) in [place.x, place.y, place.z].into_iter().enumerate() {
            sizes[0][axis] = sizes[0][axis].min(value);
            sizes[1][axis] = sizes[1][axis].max(value);
        }
    };
    for line in lines {
        // As it lies once it is laid: its up is settled anew there.
        let line = CentreLine::straight("", line.from, line.to);
        let basis = Basis::about(line.from, line.heading(0.0), line.up);
        for place in [line.from, line.to] {
            hold(&mut bare, place);
            for u in [around.low.x, around.high.x] {
                for v in [around.low.y, around.high.y] {
                    hold(&mut whole, place + basis.u * u + basis.v * v);
                }
            }
        }
    }
    let by = |axis: usize| (bare[0][axis] - whole[0][axis], whole[1][axis] - bare[1][axis]);
    let [x, y, z] = [by(0), by(1), by(2)];
    Reach { before: Vector3::new(x.0, y.0, z.0), after: Vector3::new(x.1, y.1, z.1) }
}
