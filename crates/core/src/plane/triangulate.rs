//! Constrained triangulation of flat polygons through `spade`, for screen and mesh only: nothing that is cut is
//! computed from it.

use std::collections::{HashMap, HashSet, VecDeque};

use spade::{ConstrainedDelaunayTriangulation, Point2, Triangulation as _};

use super::Point;
use crate::patience;

/// Triangles over a list of points, counter-clockwise.
#[derive(Clone, Debug, Default)]
pub struct Triangles {
    /// Corner indices into the points handed in.
    pub corners: Vec<[usize; 3]>,
}

/// Why a polygon could not be cut into triangles.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum TriangulateError {
    /// A coordinate is not finite or too large.
    #[error("a corner has a coordinate that cannot be drawn")]
    BadCoordinate,
    /// The boundary crosses itself.
    #[error("the outline crosses itself")]
    Crossing,
}

/// What rounding leaves of nothing is nothing: the triangulation refuses coordinates below its exact arithmetic's reach.
fn small(coordinate: f64) -> f64 {
    if coordinate.abs() < spade::MIN_ALLOWED_VALUE { 0.0 } else { coordinate }
}

/// Triangulates the inside of closed loops (even-odd) given as indices into `points`, with `inner` edges forced in as
/// well. Every triangle edge that lies on a loop is an edge of that loop: no points are added.
///
/// # Errors
/// [`TriangulateError`] for coordinates out of range or loops that cross.
pub fn triangulate(
    points: &[Point],
    loops: &[Vec<usize>],
    inner: &[[usize; 2]],
) -> Result<Triangles, TriangulateError> {
    // Equal points are one vertex in the triangulation: find each one's first index.
    let mut first_of: HashMap<(u64, u64), usize> = HashMap::new();
    let canonical: Vec<usize> = points
        .iter()
        .enumerate()
        .map(|(at, point)| *first_of.entry((small(point.x).to_bits(), small(point.y).to_bits())).or_insert(at))
        .collect();
    let mut dense = vec![usize::MAX; points.len()];
    let mut vertices = Vec::new();
    let mut original = Vec::new();
    let mut boundary: HashSet<(usize, usize)> = HashSet::new();
    let mut edges = Vec::new();
    let mut place = |index: usize| {
        let index = canonical[index];
        if dense[index] == usize::MAX {
            dense[index] = vertices.len();
            vertices.push(Point2::new(small(points[index].x), small(points[index].y)));
            original.push(index);
        }
        dense[index]
    };
    for ring in loops {
        for (at, &from) in ring.iter().enumerate() {
            let (from, to) = (place(from), place(ring[(at + 1) % ring.len()]));
            if from != to {
                edges.push([from, to]);
                // An edge walked twice bounds nothing: even-odd.
                let key = (from.min(to), from.max(to));
                if !boundary.remove(&key) {
                    boundary.insert(key);
                }
            }
        }
    }
    for &[from, to] in inner {
        let (from, to) = (place(from), place(to));
        if from != to {
            edges.push([from, to]);
        }
    }
    let mut conflict = false;
    let mesh = ConstrainedDelaunayTriangulation::<Point2<f64>>::try_bulk_load_cdt(vertices, edges, |_| conflict = true)
        .map_err(|_| TriangulateError::BadCoordinate)?;
    if conflict {
        return Err(TriangulateError::Crossing);
    }
    let key = |one: usize, two: usize| (one.min(two), one.max(two));
    // Flood from outside: each boundary edge crossed turns outside to inside and back.
    let mut inside: Vec<Option<bool>> = vec![None; mesh.num_all_faces()];
    let mut queue = VecDeque::new();
    inside[mesh.outer_face().fix().index()] = Some(false);
    queue.push_back(mesh.outer_face().fix());
    while let Some(face) = queue.pop_front() {
        patience::check();
        let here = inside[face.index()] == Some(true);
        let handle = mesh.face(face);
        let around: Vec<_> = match handle.as_inner() {
            Some(inner) => inner.adjacent_edges().to_vec(),
            None => mesh.convex_hull().collect(),
        };
        for edge in around {
            // Hull edges are walked with the outside on their own side or on the other: look at both.
            for side in [edge, edge.rev()] {
                let next = side.face().fix();
                if inside[next.index()].is_some() {
                    continue;
                }
                let crosses = boundary.contains(&key(side.from().index(), side.to().index()));
                inside[next.index()] = Some(here != crosses);
                queue.push_back(next);
            }
        }
    }
    let mut corners = Vec::new();
    for face in mesh.inner_faces() {
        if inside[face.fix().index()] == Some(true) {
            corners.push(face.vertices().map(|vertex| original[vertex.index()]));
        }
    }
    Ok(Triangles { corners })
}
