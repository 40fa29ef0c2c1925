//! Parallel offsets of closed outlines through `cavalier_contours`; arcs stay arcs.

use cavalier_contours::polyline::{PlineOffsetOptions, PlineSource, PlineSourceMut, Polyline};

use super::{Edge, MODELLING_TOLERANCE, Outline, Point};

/// Every outline at a distance from this one, mm: outward where positive, inward where negative. Outward corners are
/// rounded about the corner. Nothing when the outline is too narrow for it; several when a neck closes. Tags are lost.
pub fn offset(outline: &Outline, by: f64) -> Vec<Outline> {
    if let Some((centre, radius)) = outline.as_circle() {
        // Exact, and no business of the library's.
        return if radius + by > MODELLING_TOLERANCE { vec![Outline::circle(centre, radius + by, 0)] } else { vec![] };
    }
    let ahead = outline.clone().counter_clockwise();
    let mut line = Polyline::new_closed();
    for edge in &ahead.edges {
        line.add(edge.start.x, edge.start.y, edge.bulge);
    }
    // The library takes two edges for parallel where their lengths and the sine of their angle multiply to less than what makes two
    // places one: at its own 1e-5 any two edges of a few thousandths would be.
    let options = PlineOffsetOptions {
        handle_self_intersects: true,
        pos_equal_eps: MODELLING_TOLERANCE,
        offset_dist_eps: 10.0 * MODELLING_TOLERANCE,
        ..PlineOffsetOptions::default()
    };
    // The library offsets a counter-clockwise outline inward where positive.
    line.parallel_offset_opt(-by, &options)
        .into_iter()
        .map(|found| Outline {
            edges: found
                .iter_vertexes()
                .map(|vertex| Edge { start: Point::new(vertex.x, vertex.y), bulge: vertex.bulge, tag: 0 })
                .collect(),
        })
        .map(|mut found| {
            found.drop_short(MODELLING_TOLERANCE);
            found
        })
        .filter(|found| found.edges.len() > 1 && found.area() > MODELLING_TOLERANCE)
        .collect()
}
