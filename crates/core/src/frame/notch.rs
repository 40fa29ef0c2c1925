//! What a notch takes of a section, and the bodies that a notched member is made of.

use crate::plane::{Outline, Point, Region, Vector, common_area, subtract};

use super::member::{Member, Notch};

/// A square as large as needed that holds everything beyond a level along a direction.
fn beyond(region: &Region, face: Vector, level: f64) -> Outline {
    let around = region.extents();
    let far = around.width() + around.height() + level.abs() + around.centre().distance(Point::default());
    let across = face.left();
    let middle = Point::default() + face * (level + far);
    Outline::polygon(&[
        (middle + face * -far + across * -far, 0),
        (middle + face * far + across * -far, 0),
        (middle + face * far + across * far, 0),
        (middle + face * -far + across * far, 0),
    ])
    .counter_clockwise()
}

/// Area of a region beyond a level along a direction of the section, mm2.
pub fn area_beyond(region: &Region, face: Vector, level: f64) -> f64 {
    let taken = beyond(region, face, level);
    let shared = |outline: &Outline| common_area(outline, &taken);
    shared(&region.outer) - region.holes.iter().map(shared).sum::<f64>()
}

/// The plain bodies that a notched member is made of, side by side: what a notch leaves alone, and what it shortens. The
/// member itself where it has none.
pub fn bodies(member: &Member) -> Vec<Member> {
    let mut all = vec![Member { ends: member.ends.clone(), ..member.clone() }];
    all[0].ends.iter_mut().for_each(|end| end.notches.clear());
    for (which, end) in member.ends.iter().enumerate() {
        for notch in &end.notches {
            all = all.into_iter().flat_map(|body| parted(&body, which, notch)).collect();
        }
    }
    all
}

fn parted(body: &Member, which: usize, notch: &Notch) -> Vec<Member> {
    let left = subtract(&body.region, &beyond(&body.region, notch.face, notch.level));
    let taken = subtract(&body.region, &beyond(&body.region, -notch.face, -notch.level));
    let kept = left.into_iter().map(|region| Member { region, ..body.clone() });
    let shortened = taken.into_iter().map(|region| {
        let mut part = Member { region, ..body.clone() };
        for cut in &mut part.ends[which].planes {
            cut.level -= cut.normal.z.abs() * notch.length;
        }
        part
    });
    kept.chain(shortened).filter(|part| part.region.area() > 1e-3).collect()
}
