//! What a notch takes of a section.

use crate::plane::{Outline, Point, Region, Vector, common_area};

/// Area of a region beyond a level along a direction of the section, mm2.
pub fn area_beyond(region: &Region, face: Vector, level: f64) -> f64 {
    let around = region.extents();
    let far = around.width() + around.height() + level.abs();
    let across = face.left();
    let middle = Point::default() + face * (level + far);
    let beyond = Outline::polygon(&[
        (middle + face * -far + across * -far, 0),
        (middle + face * far + across * -far, 0),
        (middle + face * far + across * far, 0),
        (middle + face * -far + across * far, 0),
    ])
    .counter_clockwise();
    let shared = |outline: &Outline| common_area(outline, &beyond);
    shared(&region.outer) - region.holes.iter().map(shared).sum::<f64>()
}
