//! Parts of a section in which an end is cut in a way of its own: notches, slots for plates, copes along another section.
//! The bodies that such a member is made of are plain ones, side by side.

use crate::plane::{Outline, Point, Region, Vector, subtract};

use super::cut_plane::CutPlane;

/// What a cutout is called in the shop.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CutoutKind {
    /// Everything from one face to a depth.
    Notch,
    /// A strip of a width, for a plate.
    Slot,
    /// One strip of an end that is fitted into another section's outline.
    Cope,
}

/// How far a cutout goes along the member.
#[derive(Clone, Debug, PartialEq)]
pub enum CutoutDepth {
    /// So far behind the end as it is cut, mm.
    Behind(f64),
    /// To a plane of its own, in the end's frame.
    To(CutPlane),
}

/// A part of the section in which an end is cut further back than the rest.
#[derive(Clone, Debug, PartialEq)]
pub struct Cutout {
    /// What it is.
    pub kind: CutoutKind,
    /// The part: where `way . place >= level` for all of these, mm; each way a unit vector of the section.
    pub sides: Vec<(Vector, f64)>,
    /// How far along.
    pub depth: CutoutDepth,
}

impl Cutout {
    /// Whether a place of the section lies in it.
    pub fn holds(&self, at: Point) -> bool {
        self.sides.iter().all(|(way, level)| way.x * at.x + way.y * at.y >= *level)
    }

    /// What it takes of a region.
    pub fn part_of(&self, region: &Region) -> Vec<Region> {
        self.sides.iter().fold(vec![region.clone()], |parts, &(way, level)| {
            parts.iter().flat_map(|part| within(part, way, level)).collect()
        })
    }
}

/// A square as large as needed that holds everything of a region beyond a level along a direction.
fn beyond(region: &Region, way: Vector, level: f64) -> Outline {
    let around = region.extents();
    let far = around.width() + around.height() + level.abs() + around.centre().distance(Point::default());
    let across = way.left();
    let middle = Point::default() + way * (level + far);
    Outline::polygon(&[
        (middle + way * -far + across * -far, 0),
        (middle + way * far + across * -far, 0),
        (middle + way * far + across * far, 0),
        (middle + way * -far + across * far, 0),
    ])
    .counter_clockwise()
}

/// Where a region lies along a direction: least and greatest, mm.
pub(super) fn span(region: &Region, way: Vector) -> (f64, f64) {
    let mut found = (f64::INFINITY, f64::NEG_INFINITY);
    for (one, _) in region.outer.segments() {
        let mut hold = |at: Point| {
            let level = way.x * at.x + way.y * at.y;
            found = (found.0.min(level), found.1.max(level));
        };
        hold(one.start);
        if !one.is_line() {
            for out in [way, -way] {
                let at = one.centre() + out * one.radius();
                if one.sweeps_over(at) {
                    hold(at);
                }
            }
        }
    }
    found
}

/// Less than this is a film of rounding, mm and mm2.
pub(super) const FILM: f64 = 1e-6;

/// The part of a region where `way . place >= level`.
pub(super) fn within(region: &Region, way: Vector, level: f64) -> Vec<Region> {
    let (low, high) = span(region, way);
    if level <= low + FILM {
        return vec![region.clone()];
    }
    if level >= high - FILM {
        return Vec::new();
    }
    let parts = subtract(region, &beyond(region, -way, -level));
    parts.into_iter().filter(|part| part.area() > FILM).collect()
}
