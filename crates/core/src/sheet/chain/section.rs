//! A chain seen from its end: the metal's two faces, folded. A chain that runs into itself is found here, exactly.

use crate::finding::Finding;
use crate::plane::{Point, Segment, Vector, segment_distance};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flat::BendSizes;
use crate::work::sheet::Direction;

use super::link::ChainLink;

/// The metal is looked at this much thinner on each face, mm: faces that touch (a closed hem) do not cross.
const SKIN: f64 = 1.0e-4;

/// Faces of one piece, to the left and to the right of the way along the chain.
struct Faces {
    at: usize,
    both: [Segment; 2],
}

/// Refuses a chain that runs into itself, with the place measured from where the chain starts.
pub(super) fn check_clear(
    links: &[ChainLink],
    names: &[String],
    thickness: f64,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let faces = faces(links, thickness);
    let all: Vec<(usize, usize, Segment)> =
        faces.iter().flat_map(|one| [(one.at, 0, one.both[0]), (one.at, 1, one.both[1])]).collect();
    for (place, (one, face, a)) in all.iter().enumerate() {
        for (two, other, b) in &all[place + 1..] {
            // Neighbours on one face share an end; the two faces of one piece never meet.
            if one == two || (two - one == 1 && face == other) {
                continue;
            }
            if !a.extents().is_near(&b.extents(), SKIN) || segment_distance(a, b) >= SKIN * 0.5 {
                continue;
            }
            let spot = crossing(a, b);
            let name = |at: usize| match &links[at] {
                ChainLink::Flat { name, .. } => name.clone(),
                ChainLink::Curl { .. } => format!("the bend {}", names[at]),
            };
            return Err(Finding::error(
                format!(
                    "the profile runs into itself: {} meets {} at {} along and {} up from its start",
                    name(*two),
                    name(*one),
                    length_text(spot.x, unit),
                    length_text(spot.y, unit)
                ),
                "Shorten a leg, or turn it the other way.",
            )
            .at_field("legs"));
        }
    }
    Ok(())
}

fn faces(links: &[ChainLink], thickness: f64) -> Vec<Faces> {
    let half = thickness / 2.0 - SKIN;
    let mut place = Point::default();
    let mut heading = 0.0f64;
    let way = |heading: f64| Vector::new(heading.cos(), heading.sin());
    let mut found = Vec::new();
    for (at, link) in links.iter().enumerate() {
        let left = way(heading).left();
        match link {
            ChainLink::Flat { length, .. } => {
                let end = place + way(heading) * *length;
                found.push(Faces {
                    at,
                    both: [half, -half].map(|by| Segment::line(place + left * by, end + left * by)),
                });
                place = end;
            }
            ChainLink::Curl { sizes: BendSizes { angle, radius, direction, .. }, .. } => {
                let side = if *direction == Direction::Up { 1.0 } else { -1.0 };
                let arm = radius + thickness / 2.0;
                let centre = place + left * (side * arm);
                let turned = heading + side * angle;
                let end = centre - way(turned).left() * (side * arm);
                // An arc of more than half a turn is told in two.
                let halves = if *angle > 3.0 { 2 } else { 1 };
                for piece in 0..halves {
                    let (from, to) = (
                        heading + side * angle * f64::from(piece) / f64::from(halves),
                        heading + side * angle * f64::from(piece + 1) / f64::from(halves),
                    );
                    let bulge = (side * angle / f64::from(halves) / 4.0).tan();
                    let both = [half, -half].map(|by| {
                        let own = side * arm - by;
                        Segment { start: centre - way(from).left() * own, end: centre - way(to).left() * own, bulge }
                    });
                    found.push(Faces { at, both });
                }
                place = end;
                heading = turned;
            }
        }
    }
    found
}

/// Near where two segments that meet do so: the nearest of points along one.
fn crossing(a: &Segment, b: &Segment) -> Point {
    (0..=64)
        .map(|step| a.at(f64::from(step) / 64.0))
        .min_by(|one, two| b.distance_to(*one).total_cmp(&b.distance_to(*two)))
        .unwrap_or(a.start)
}
