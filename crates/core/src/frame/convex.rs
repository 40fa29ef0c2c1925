//! Convex bodies for clashes: cut by half-spaces, with their volume.

use crate::space::{Point3, Vector3};

/// A closed convex body by its faces, each a flat polygon counter-clockwise seen from outside.
#[derive(Clone, Debug, Default)]
pub struct Convex {
    /// Its faces.
    pub faces: Vec<Vec<Point3>>,
}

/// Corners nearer than this are one, mm.
const NEAR: f64 = 1.0e-7;

impl Convex {
    /// Between two rings of as many corners: counter-clockwise seen from the upper one.
    pub fn between(lower: &[Point3], upper: &[Point3]) -> Convex {
        let count = lower.len();
        let mut faces = vec![upper.to_vec(), lower.iter().rev().copied().collect()];
        for at in 0..count {
            let next = (at + 1) % count;
            faces.push(vec![lower[at], lower[next], upper[next], upper[at]]);
        }
        Convex { faces }
    }

    /// Outward planes: unit normal and level.
    pub fn planes(&self) -> Vec<(Vector3, f64)> {
        self.faces
            .iter()
            .filter_map(|face| {
                let normal = newell(face);
                let length = normal.length();
                if length < 1e-9 {
                    return None;
                }
                let normal = normal * (1.0 / length);
                Some((normal, face[0].from_origin().dot(normal)))
            })
            .collect()
    }

    /// What is left where `normal . place <= level`.
    pub fn cut(&self, normal: Vector3, level: f64) -> Convex {
        let side = |place: Point3| place.from_origin().dot(normal) - level;
        let (mut any_in, mut any_out) = (false, false);
        for place in self.faces.iter().flatten() {
            let at = side(*place);
            any_in |= at < -NEAR;
            any_out |= at > NEAR;
        }
        if !any_out {
            return self.clone();
        }
        if !any_in {
            return Convex::default();
        }
        let mut faces = Vec::new();
        let mut seam: Vec<Point3> = Vec::new();
        for face in &self.faces {
            let mut kept = Vec::new();
            for (at, &here) in face.iter().enumerate() {
                let next = face[(at + 1) % face.len()];
                let (a, b) = (side(here), side(next));
                if a <= NEAR {
                    kept.push(here);
                    if a > -NEAR {
                        seam.push(here);
                    }
                }
                if (a < -NEAR && b > NEAR) || (a > NEAR && b < -NEAR) {
                    let meet = here + (next - here) * (a / (a - b));
                    kept.push(meet);
                    seam.push(meet);
                }
            }
            if kept.len() > 2 {
                faces.push(kept);
            }
        }
        // The new face: the corners on the plane, in order about their middle.
        let middle = seam.iter().fold(Vector3::default(), |sum, place| sum + place.from_origin())
            * (1.0 / seam.len().max(1) as f64);
        let across = if normal.x.abs() < 0.7 { Vector3::new(1.0, 0.0, 0.0) } else { Vector3::new(0.0, 1.0, 0.0) };
        let a = (across - normal * across.dot(normal)).unit();
        let b = normal.cross(a);
        let turn = |place: &Point3| {
            let arm = place.from_origin() - middle;
            arm.dot(b).atan2(arm.dot(a))
        };
        seam.sort_by(|one, two| turn(one).total_cmp(&turn(two)));
        seam.dedup_by(|one, two| one.distance(*two) < NEAR);
        if seam.len() > 2 {
            faces.push(seam);
        }
        Convex { faces }
    }

    /// Volume, mm3.
    pub fn volume(&self) -> f64 {
        let Some(first) = self.faces.first().and_then(|face| face.first()).copied() else { return 0.0 };
        let mut total = 0.0;
        for face in &self.faces {
            for at in 1..face.len().saturating_sub(1) {
                total += (face[0] - first).dot((face[at] - first).cross(face[at + 1] - first));
            }
        }
        total / 6.0
    }

    /// Volume shared with another, mm3, and a place in it.
    pub fn shared(&self, other: &Convex) -> (f64, Option<Point3>) {
        let mut rest = self.clone();
        for (normal, level) in other.planes() {
            rest = rest.cut(normal, level);
            if rest.faces.is_empty() {
                return (0.0, None);
            }
        }
        let volume = rest.volume();
        let count = rest.faces.iter().map(Vec::len).sum::<usize>().max(1) as f64;
        let sum = rest.faces.iter().flatten().fold(Vector3::default(), |sum, place| sum + place.from_origin());
        let mean = sum * (1.0 / count);
        (volume, Some(Point3::new(mean.x, mean.y, mean.z)))
    }
}

fn newell(face: &[Point3]) -> Vector3 {
    let mut normal = Vector3::default();
    for (at, here) in face.iter().enumerate() {
        let next = face[(at + 1) % face.len()];
        normal = normal + (*here - face[0]).cross(next - face[0]);
    }
    normal
}

#[cfg(test)]
mod tests {
    use super::*;

    fn block(low: Point3, size: f64) -> Convex {
        let ring = |z: f64| {
            [(0.0, 0.0), (size, 0.0), (size, size), (0.0, size)]
                .map(|(x, y)| Point3::new(low.x + x, low.y + y, z))
                .to_vec()
        };
        Convex::between(&ring(low.z), &ring(low.z + size))
    }

    #[test]
    fn cubes_share_what_they_should() {
        let one = block(Point3::default(), 10.0);
        assert!((one.volume() - 1000.0).abs() < 1e-9);
        let (shared, place) = one.shared(&block(Point3::new(5.0, 6.0, 7.0), 10.0));
        assert!((shared - 60.0).abs() < 1e-9, "{shared}");
        assert!(place.unwrap().distance(Point3::new(7.5, 8.0, 8.5)) < 1e-9);
        assert_eq!(one.shared(&block(Point3::new(10.0, 0.0, 0.0), 10.0)).0, 0.0);
        // A corner off a cube: a sixth of the cube of its legs.
        let way = Vector3::new(1.0, 1.0, 1.0).unit();
        let cut = one.cut(way, way.x * 27.0);
        assert!((cut.volume() - (1000.0 - 27.0 / 6.0)).abs() < 1e-9);
    }
}
