//! A surface of plane polygons with its ends and rims.

use std::collections::HashMap;

use crate::finding::Finding;
use crate::space::{Motion, Point3, Vector3};

/// What a polygon of the surface is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum FacePart {
    /// Between the outlines.
    Wall,
    /// Of a straight collar at the lower (0) or the upper (1) end.
    Collar(usize),
    /// The outline's own face at an end.
    End(usize),
    /// A flange along a rim.
    Flange(usize),
    /// A tab on an edge of another one; it shares no corner with the rest.
    Tab,
}

/// One plane polygon of the surface.
#[derive(Clone, Debug)]
pub(super) struct Face {
    /// `front`, `up-rim-3`.
    pub name: String,
    /// Its corners, by their place in [`Surface::points`], counter-clockwise seen from within.
    pub corners: Vec<usize>,
    /// Unit vector out of the body that the surface bounds.
    pub outward: Vector3,
    /// What it is.
    pub part: FacePart,
    /// Left out, with flanges in its place: its edges are theirs.
    pub gone: bool,
}

/// What an edge of the surface that has one face only keeps to.
#[derive(Clone, Debug)]
pub(super) struct Rim {
    /// `lower`, `upper`, `front`, `rear`, `outer`, `start`.
    pub name: String,
    /// The half of space that the metal keeps to is the one that this unit vector points to.
    pub keeps: Vector3,
    /// How far into it, mm.
    pub by: f64,
}

/// An end of the surface.
#[derive(Clone, Debug)]
pub(super) struct End {
    /// `lower`, `upper`; `rear`, `front` by elevations; a panel's name.
    pub name: String,
    /// A place of its plane.
    pub at: Point3,
    /// Unit vector of its plane, into the body.
    pub into: Vector3,
    /// Whether its corners lie in one plane.
    pub is_plane: bool,
    /// The panel that is left out, where the opening is its place.
    pub panel: Option<usize>,
}

/// The surface between two outlines.
#[derive(Clone, Debug)]
pub(super) struct Surface {
    /// Corners of the lower outline, then of the upper one, then further ones, mm.
    pub points: Vec<Point3>,
    /// How many are of the lower outline, of the upper one.
    pub counts: [usize; 2],
    /// Both ends; then openings where panels are left out.
    pub ends: Vec<End>,
    /// Walls in order, counter-clockwise seen from above; then what is at the ends.
    pub faces: Vec<Face>,
    /// What edges of one face only keep to, by their corners as the face walks them.
    pub rims: HashMap<(usize, usize), Rim>,
    /// What is worth knowing.
    pub notes: Vec<Finding>,
    /// Rounds that are made of flats, with how far those lie within, mm.
    pub chords: Vec<(String, f64)>,
}

/// A vector tilted about the line along x, then about the one along y.
pub(super) fn tilted(v: Vector3, (about_x, about_y): (f64, f64)) -> Vector3 {
    let (about_x, about_y) = (about_x.sin_cos(), about_y.sin_cos());
    let v = Vector3::new(v.x, v.y * about_x.1 - v.z * about_x.0, v.y * about_x.0 + v.z * about_x.1);
    Vector3::new(v.x * about_y.1 + v.z * about_y.0, v.y, v.z * about_y.1 - v.x * about_y.0)
}

impl Surface {
    /// Turned from lying on its rear profile to standing, its front profile on the plane y = 0.
    pub fn stand_up(&mut self, distance: f64) {
        let (x, y, z) = (Vector3::new(1.0, 0.0, 0.0), Vector3::new(0.0, 0.0, 1.0), Vector3::new(0.0, -1.0, 0.0));
        let motion = Motion::to_frame(Point3::new(0.0, distance, 0.0), x, y, z);
        self.points.iter_mut().for_each(|point| *point = motion.apply(*point));
        for end in &mut self.ends {
            end.at = motion.apply(end.at);
            end.into = motion.direction(end.into);
        }
        self.faces.iter_mut().for_each(|face| face.outward = motion.direction(face.outward));
        self.rims.values_mut().for_each(|rim| rim.keeps = motion.direction(rim.keeps));
    }

    /// Which face has an edge, walked from one corner to the next.
    pub fn owners(&self) -> HashMap<(usize, usize), usize> {
        let mut all = HashMap::new();
        for (at, face) in self.faces.iter().enumerate().filter(|(_, face)| !face.gone) {
            let count = face.corners.len();
            for k in 0..count {
                all.insert((face.corners[k], face.corners[(k + 1) % count]), at);
            }
        }
        all
    }

    /// The edges of walls on an opening that no other face has, or that a panel has which is left out, as the walls walk them, with the wall.
    pub fn open_edges(&self, end: usize) -> Vec<(usize, usize, usize)> {
        let owners = self.owners();
        if let Some(panel) = self.ends[end].panel {
            let corners = &self.faces[panel].corners;
            let sides = (0..corners.len()).map(|k| (corners[(k + 1) % corners.len()], corners[k]));
            let mut all: Vec<_> =
                sides.filter_map(|edge| owners.get(&edge).map(|&face| (edge.0, edge.1, face))).collect();
            all.sort_unstable_by_key(|&(from, _, face)| (face, from));
            return all;
        }
        let of_end = |point: usize| match end {
            0 => point < self.counts[0],
            _ => (self.counts[0]..self.counts[0] + self.counts[1]).contains(&point),
        };
        let mut all: Vec<_> = owners
            .iter()
            .filter(|((from, to), _)| of_end(*from) && of_end(*to) && !owners.contains_key(&(*to, *from)))
            .map(|(&(from, to), &face)| (from, to, face))
            .collect();
        all.sort_unstable_by_key(|&(from, _, face)| (face, from));
        all
    }
}
