//! The mesh of a body: each edge in chords once, shared by its two faces, each face cut into triangles on its own chart. So the
//! mesh is closed as the body is, and nowhere further from it than its chord bound.

use std::collections::HashMap;
use std::f64::consts::TAU;

use crate::patience;
use crate::plane::{Point, triangulate};
use crate::quantity::tolerance::{LEVEL, MODELLING_TOLERANCE, ROUNDING};
use crate::space::{Mesh, Point3, Vector3};

use super::curve::cubic;
use super::{Body, BodyFace, Curve, Surface};

/// Why a body has no mesh.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("{face} could not be cut into triangles")]
pub struct MeshFault {
    /// The face's name.
    pub face: String,
}

/// The widest step round an arc however small it is, radians.
const WIDEST: f64 = TAU / 12.0;
/// Faces that meet at less than about 33 degrees show no edge between them: the sine of it.
const SOFT: f64 = 0.55;

/// The step round a radius whose chord strays no further than `chord` mm.
fn step(radius: f64, chord: f64) -> f64 {
    (2.0 * (1.0 - (chord / radius).min(0.5)).acos()).min(WIDEST)
}

/// Triangles over shared points, each with its face.
#[derive(Default)]
pub(crate) struct Facets {
    pub points: Vec<Point3>,
    pub triangles: Vec<[u32; 3]>,
    /// For each triangle its face.
    pub faces: Vec<u32>,
    /// Points along each edge of the body, both ends with it.
    runs: Vec<Vec<u32>>,
}

impl Facets {
    /// A walk along edges as indices of points.
    pub(crate) fn rim(&self, walk: &[super::Walked]) -> Vec<u32> {
        Body::rim(walk, &self.runs)
    }
}

/// How much finer chords are laid where coarse ones cross.
const FINER: f64 = 8.0;

impl Body {
    /// Triangles no further than `chord` mm from the body. `feature` says what a face is called in the mesh.
    ///
    /// # Errors
    /// [`MeshFault`] where a face's rim crosses itself in chords of a sixty-fourth of that still.
    pub fn mesh<'a>(&'a self, chord: f64, feature: impl Fn(&'a BodyFace) -> &'a str) -> Result<Mesh, MeshFault> {
        let Facets { points, triangles, faces, runs } = self.facets(chord)?;
        let mut mesh = Mesh { points, triangles, ..Mesh::default() };
        let owners: Vec<u32> = self
            .faces
            .iter()
            .map(|face| {
                let name = feature(face);
                let known = mesh.features.iter().rposition(|known| known == name);
                known.unwrap_or_else(|| {
                    mesh.features.push(name.to_string());
                    mesh.features.len() - 1
                }) as u32
            })
            .collect();
        mesh.owners = faces.iter().map(|&face| owners[face as usize]).collect();
        let shown = self.shown(&runs, &mesh.points);
        let lines: Vec<[u32; 2]> = shown.flat_map(|run| run.windows(2)).map(|pair| [pair[0], pair[1]]).collect();
        mesh.lines = lines;
        Ok(mesh)
    }

    /// Points along the edges that are seen.
    pub(crate) fn shown_runs<'a>(&'a self, facets: &'a Facets) -> impl Iterator<Item = &'a [u32]> {
        self.shown(&facets.runs, &facets.points)
    }

    fn shown<'a>(&'a self, runs: &'a [Vec<u32>], points: &'a [Point3]) -> impl Iterator<Item = &'a [u32]> {
        let beside = self.faces_at_edges();
        let seen = move |edge: usize, run: &[u32]| self.shows(beside[edge], points, run);
        runs.iter().enumerate().filter(move |(edge, run)| seen(*edge, run)).map(|(_, run)| run.as_slice())
    }

    /// Triangles no further than `chord` mm from the body, each with its face: finer ones where those would cross, since a rim may
    /// pass nearer to itself than a chord strays.
    pub(crate) fn facets(&self, chord: f64) -> Result<Facets, MeshFault> {
        self.facets_at(chord)
            .or_else(|_| self.facets_at(chord / FINER))
            .or_else(|_| self.facets_at(chord / FINER.powi(2)))
    }

    fn facets_at(&self, chord: f64) -> Result<Facets, MeshFault> {
        let mut made = Facets { points: self.corners.clone(), ..Facets::default() };
        let least = self.torus_steps(chord);
        for (at, edge) in self.edges.iter().enumerate() {
            let mut run = vec![edge.from as u32];
            for place in self.chords(at, chord.min(least.get(&at).copied().unwrap_or(f64::INFINITY))) {
                run.push(made.points.len() as u32);
                made.points.push(place);
            }
            run.push(edge.to as u32);
            made.runs.push(run);
        }
        for (at, face) in self.faces.iter().enumerate() {
            patience::check();
            // Most faces are quads, strips between two curves, or ends of tubes: only the others are worth a triangulation.
            let cut = match &face.surface {
                Surface::Ruled { .. } => self.strip(face, &mut made),
                Surface::Cylinder { .. } | Surface::Cone { .. } => {
                    self.strip(face, &mut made).or_else(|| self.fill(face, chord, &mut made))
                }
                Surface::Plane { normal, .. } => self
                    .quad(face, *normal, &mut made)
                    .or_else(|| self.ring(face, *normal, &mut made))
                    .or_else(|| self.fill(face, chord, &mut made)),
                Surface::Torus { .. } => self.grid(face, &mut made).or_else(|| self.fill(face, chord, &mut made)),
            };
            cut.ok_or_else(|| MeshFault { face: face.name.clone() })?;
            made.faces.resize(made.triangles.len(), at as u32);
        }
        Ok(made)
    }

    /// Edges along tori, each with the chord bound that gives the rows of its face: opposite edges then have as many chords.
    fn torus_steps(&self, chord: f64) -> HashMap<usize, f64> {
        let mut bounds = HashMap::new();
        for face in &self.faces {
            let Surface::Torus { axis: own, major, minor, .. } = &face.surface else { continue };
            // Half of the bound for each of its two curvatures.
            let steps = [step(major + minor, chord / 2.0), step(*minor, chord / 2.0)];
            for &(edge, _) in face.loops.iter().flatten() {
                let Curve::Circle { axis, radius, .. } = &self.edges[edge].curve else { continue };
                let along = axis.dot(*own).abs() > 0.5;
                // The rise of a chord over that step on this edge's own radius.
                let bound = radius * (1.0 - (steps[usize::from(!along)] / 2.0).cos());
                let known = bounds.entry(edge).or_insert(bound);
                *known = bound.min(*known);
            }
        }
        bounds
    }

    /// A face of a torus between two rounds about the tube and two along it: rows and columns.
    fn grid(&self, face: &BodyFace, mesh: &mut Facets) -> Option<()> {
        let [walk] = face.loops.as_slice() else { return None };
        let &[a, b, c, d] = walk.as_slice() else { return None };
        let run = |(edge, ahead): (usize, bool), back: bool| {
            let mut run = mesh.runs[edge].clone();
            if ahead == back {
                run.reverse();
            }
            run
        };
        // The two that run one way and the two that run across, each from the same corner.
        let (bottom, right, top, left) = (run(a, false), run(b, false), run(c, true), run(d, true));
        if bottom.len() != top.len() || left.len() != right.len() {
            return None;
        }
        let surface = &face.surface;
        let foot = self.foot(face)?;
        let mut near = surface.turn(mesh.points[bottom[0] as usize]);
        let mut at = |index: u32, points: &[Point3]| {
            let place = points[index as usize];
            let turn = surface.turn(place);
            near = turn + TAU * ((near - turn) / TAU).round();
            (near, foot + surface.across_from(place, foot))
        };
        let along: Vec<(f64, f64)> = bottom.iter().map(|&index| at(index, &mesh.points)).collect();
        let back: Vec<(f64, f64)> = top.iter().rev().map(|&index| at(index, &mesh.points)).collect();
        let across: Vec<(f64, f64)> = left.iter().map(|&index| at(index, &mesh.points)).collect();
        // Either the turn stays along the way and the other changes, or the other way about.
        let still = |all: &[(f64, f64)], of: fn(&(f64, f64)) -> f64| {
            all.iter().all(|one| (of(one) - of(&all[0])).abs() < LEVEL)
        };
        let (turn, tube): (fn(&(f64, f64)) -> f64, fn(&(f64, f64)) -> f64) = (|one| one.0, |one| one.1);
        let round = still(&along, tube) && still(&back, tube) && still(&across, turn);
        let upright = still(&along, turn) && still(&back, turn) && still(&across, tube);
        if !round && !upright {
            return None;
        }
        let (columns, rows) = (bottom.len(), left.len());
        let mut rows_of: Vec<Vec<u32>> = vec![bottom.clone()];
        for row in 1..rows - 1 {
            patience::check();
            let mut own = vec![left[row]];
            for column in 1..columns - 1 {
                let (u, v) = if round { (along[column].0, across[row].1) } else { (across[row].0, along[column].1) };
                own.push(mesh.points.len() as u32);
                mesh.points.push(surface.element(u, v).0);
            }
            own.push(right[row]);
            rows_of.push(own);
        }
        rows_of.push(top);
        for pair in rows_of.windows(2) {
            for column in 1..columns {
                let (p, q) = (pair[0][column - 1], pair[0][column]);
                let (r, s) = (pair[1][column], pair[1][column - 1]);
                mesh.triangles.extend([[p, q, r], [p, r, s]]);
            }
        }
        Some(())
    }

    /// Places between the ends of an edge, so near that chords stray no further than `chord`.
    pub(in crate::space) fn chords(&self, edge: usize, chord: f64) -> Vec<Point3> {
        if let Some(round) = self.round(edge) {
            let radius = round.first.length().max(round.second.length());
            let parts = (round.sweep / step(radius, chord)).ceil().max(1.0) as usize;
            return (1..parts).map(|at| round.at(round.sweep * at as f64 / parts as f64)).collect();
        }
        let Curve::Cubic(points) = &self.edges[edge].curve else { return Vec::new() };
        let mut places = Vec::new();
        for (at, piece) in points.windows(4).step_by(3).enumerate() {
            let [a, b, c, d] = [0, 1, 2, 3].map(|at| piece[at].from_origin());
            // A chord of a curve strays an eighth of its second derivative at most (Taylor).
            let bent = (a + b * -2.0 + c).length().max((b + c * -2.0 + d).length());
            let parts = (0.75 * bent / chord).sqrt().ceil().max(1.0) as usize;
            let first = usize::from(at == 0);
            places.extend((first..parts).map(|part| cubic(piece, part as f64 / parts as f64).0));
        }
        places
    }

    /// A face's rim as indices of points, walked as the face walks it.
    fn rim(walk: &[(usize, bool)], runs: &[Vec<u32>]) -> Vec<u32> {
        let mut rim = Vec::new();
        for &(edge, ahead) in walk {
            let run = &runs[edge];
            let last = run.len() - 1;
            rim.extend((0..last).map(|at| run[if ahead { at } else { last - at }]));
        }
        rim
    }

    /// Triangles of a face by the triangulation of its chart.
    fn fill(&self, face: &BodyFace, chord: f64, mesh: &mut Facets) -> Option<()> {
        let chart = Chart::of(self, face, chord)?;
        let (mut flat, mut names, mut loops) = (Vec::new(), Vec::new(), Vec::new());
        let mut low = f64::INFINITY;
        let mut high = f64::NEG_INFINITY;
        for walk in &face.loops {
            let rim = Self::rim(walk, &mesh.runs);
            let first = flat.len();
            let mut near: Option<f64> = None;
            for &at in &rim {
                let (turn, across) = chart.at(mesh.points[at as usize], near);
                near = Some(turn);
                flat.push((turn, across));
                names.push(at);
            }
            // An opening is rolled out from the same turn as the outer rim.
            if first > 0 && chart.is_round() {
                let middle = flat[first..].iter().map(|at| at.0).sum::<f64>() / (flat.len() - first) as f64;
                let by = TAU * (((low + high) / 2.0 - middle) / TAU).round();
                flat[first..].iter_mut().for_each(|at| at.0 += by);
            } else {
                flat.iter().for_each(|at| (low, high) = (low.min(at.0), high.max(at.0)));
            }
            loops.push((first..flat.len()).collect::<Vec<usize>>());
        }
        let spread = flat.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(a, b), at| (a.min(at.1), b.max(at.1)));
        let scale = chart.scale(spread.1 - spread.0);
        let mut points: Vec<Point> = flat.iter().map(|&(u, v)| Point::new(u * scale.0, v * scale.1)).collect();
        let mut inner = Vec::new();
        for (u, v) in chart.inside(low, high, spread) {
            let at = Point::new(u * scale.0, v * scale.1);
            if within(&points, &loops, at) {
                inner.push([points.len(); 2]);
                names.push(mesh.points.len() as u32);
                mesh.points.push(face.surface.element(u, chart.foot + v).0);
                points.push(at);
            }
        }
        let found = triangulate(&points, &loops, &inner).ok()?;
        let out = face.surface.looks_out();
        for [a, b, c] in found.corners {
            let [a, b, c] = [a, b, c].map(|at| names[at]);
            mesh.triangles.push(if out { [a, b, c] } else { [a, c, b] });
        }
        Some(())
    }

    /// Triangles of a face between two curves whose ends straight lines join, each place joined to those of nearly its share or
    /// its turn.
    fn strip(&self, face: &BodyFace, mesh: &mut Facets) -> Option<()> {
        let [walk] = face.loops.as_slice() else { return None };
        let curved = |at: &usize| !matches!(self.edges[walk[*at].0].curve, Curve::Line);
        let one = (0..walk.len()).find(curved)?;
        if walk.len() != 4 || !curved(&((one + 2) % 4)) || curved(&((one + 1) % 4)) || curved(&((one + 3) % 4)) {
            return None;
        }
        let run = |mesh: &Facets, at: usize, back: bool| {
            let (edge, ahead) = walk[at % 4];
            let mut run = mesh.runs[edge].clone();
            if ahead == back {
                run.reverse();
            }
            run
        };
        // Both from the same side.
        let (near, far) = (run(mesh, one, false), run(mesh, one + 2, true));
        let shares = |run: &[u32]| -> Vec<f64> {
            if let Surface::Ruled { .. } = face.surface {
                return (0..run.len()).map(|at| at as f64 / (run.len() - 1) as f64).collect();
            }
            // How far round from the first.
            let mut turn = face.surface.turn(mesh.points[run[0] as usize]);
            let first = turn;
            run.iter()
                .map(|&at| {
                    let own = face.surface.turn(mesh.points[at as usize]);
                    turn = own + TAU * ((turn - own) / TAU).round();
                    (turn - first).abs()
                })
                .collect()
        };
        let (mine, theirs) = (shares(&near), shares(&far));
        // Curves that turn back are no strip.
        let rises = |shares: &[f64]| shares.windows(2).all(|pair| pair[1] > pair[0]);
        if !rises(&mine) || !rises(&theirs) || (mine.last()? - theirs.last()?).abs() > MODELLING_TOLERANCE {
            return None;
        }
        let triangles = zipped((&near, &mine), (&far, &theirs));
        mesh.triangles.extend(triangles);
        Some(())
    }

    /// A flat face of three or four places.
    fn quad(&self, face: &BodyFace, normal: Vector3, mesh: &mut Facets) -> Option<()> {
        let [walk] = face.loops.as_slice() else { return None };
        if walk.len() > 4 {
            return None;
        }
        let rim = Self::rim(walk, &mesh.runs);
        let cuts: &[[usize; 3]] = match rim.len() {
            3 => &[[0, 1, 2]],
            4 => &[[0, 1, 2], [0, 2, 3]],
            _ => return None,
        };
        let triangles: Vec<[u32; 3]> = cuts.iter().map(|cut| cut.map(|at| rim[at])).collect();
        look_out(&triangles, normal, &mesh.points)?;
        mesh.triangles.extend(triangles);
        Some(())
    }

    /// A flat face between two rims of as many edges, one round the other: the end of a tube.
    fn ring(&self, face: &BodyFace, normal: Vector3, mesh: &mut Facets) -> Option<()> {
        let [outer, inner] = face.loops.as_slice() else { return None };
        let count = outer.len();
        if inner.len() != count {
            return None;
        }
        let start = |&(edge, ahead): &(usize, bool)| {
            self.corners[if ahead { self.edges[edge].from } else { self.edges[edge].to }]
        };
        let end = |&(edge, ahead): &(usize, bool)| {
            self.corners[if ahead { self.edges[edge].to } else { self.edges[edge].from }]
        };
        // The inner rim runs the other way: its edge that ends nearest to where the outer begins goes with the first.
        let place = start(&outer[0]);
        let first =
            (0..count).min_by(|&a, &b| end(&inner[a]).distance(place).total_cmp(&end(&inner[b]).distance(place)))?;
        let mut triangles = Vec::new();
        for (at, walk) in outer.iter().enumerate() {
            let other = inner[(first + count - at) % count];
            let run = |(edge, ahead): (usize, bool), back: bool| {
                let mut run = mesh.runs[edge].clone();
                if ahead == back {
                    run.reverse();
                }
                run
            };
            let (near, far) = (run(*walk, false), run(other, true));
            let shares = |run: &[u32]| (0..run.len()).map(|at| at as f64 / (run.len() - 1) as f64).collect::<Vec<_>>();
            triangles.extend(zipped((&near, &shares(&near)), (&far, &shares(&far))));
        }
        look_out(&triangles, normal, &mesh.points)?;
        mesh.triangles.extend(triangles);
        Some(())
    }

    /// Whether an edge is drawn: its faces meet at an angle there, or a flat one runs out into a round one along a straight line,
    /// as at the corners of a tube.
    fn shows(&self, beside: [Option<usize>; 2], points: &[Point3], run: &[u32]) -> bool {
        let [Some(one), Some(other)] = beside else { return true };
        let middle = run.len() / 2;
        let place = if run.len() > 2 {
            points[run[middle] as usize]
        } else {
            let (a, b) = (points[run[0] as usize], points[run[1] as usize]);
            a + (b - a) * 0.5
        };
        let normal = |face: usize| self.faces[face].surface.normal_at(place);
        match (normal(one), normal(other)) {
            (Some(a), Some(b)) => {
                let is_flat = |face: usize| matches!(self.faces[face].surface, Surface::Plane { .. });
                let is_round = |face: usize| matches!(self.faces[face].surface, Surface::Cylinder { .. });
                let runs_out = (is_flat(one) && is_round(other)) || (is_round(one) && is_flat(other));
                a.cross(b).length() > SOFT || a.dot(b) < 0.0 || (runs_out && run.len() == 2)
            }
            _ => true,
        }
    }
}

/// Triangles between two runs of places, taken as their shares come.
fn zipped((near, mine): (&[u32], &[f64]), (far, theirs): (&[u32], &[f64])) -> Vec<[u32; 3]> {
    let (mut a, mut b) = (0, 0);
    let mut triangles = Vec::with_capacity(near.len() + far.len());
    while a + 1 < near.len() || b + 1 < far.len() {
        if b + 1 >= far.len() || (a + 1 < near.len() && mine[a + 1] <= theirs[b + 1]) {
            triangles.push([near[a], near[a + 1], far[b]]);
            a += 1;
        } else {
            triangles.push([near[a], far[b + 1], far[b]]);
            b += 1;
        }
    }
    triangles
}

/// Whether triangles all look along a normal: then they lie side by side.
fn look_out(triangles: &[[u32; 3]], normal: Vector3, points: &[Point3]) -> Option<()> {
    let out = triangles.iter().all(|corners| {
        let [a, b, c] = corners.map(|at| points[at as usize]);
        (b - a).cross(c - a).dot(normal) > 0.0
    });
    out.then_some(())
}

/// Whether a place lies inside closed loops, even-odd.
fn within(points: &[Point], loops: &[Vec<usize>], at: Point) -> bool {
    let mut inside = false;
    for ring in loops {
        for (index, &from) in ring.iter().enumerate() {
            let (a, b) = (points[from], points[ring[(index + 1) % ring.len()]]);
            if (a.y > at.y) != (b.y > at.y) && at.x < a.x + (at.y - a.y) / (b.y - a.y) * (b.x - a.x) {
                inside = !inside;
            }
        }
    }
    inside
}

/// A surface rolled out: a turn (or a length on a plane) and how far across.
struct Chart<'a> {
    surface: &'a Surface,
    /// What lengths across are reckoned from.
    foot: f64,
    /// The step round, radians, and for a torus round its tube.
    steps: (f64, f64),
}

impl<'a> Chart<'a> {
    fn of(body: &Body, face: &'a BodyFace, chord: f64) -> Option<Chart<'a>> {
        let surface = &face.surface;
        let foot = body.foot(face)?;
        let steps = match surface {
            Surface::Cylinder { radius, .. } => (step(*radius, chord), 0.0),
            Surface::Cone { radius, slope, .. } => (step(radius + slope * foot, chord), 0.0),
            // Half of the bound for each of its two curvatures.
            Surface::Torus { major, minor, .. } => (step(major + minor, chord / 2.0), step(*minor, chord / 2.0)),
            _ => (0.0, 0.0),
        };
        Some(Chart { surface, foot, steps })
    }

    fn is_round(&self) -> bool {
        !matches!(self.surface, Surface::Plane { .. })
    }

    fn at(&self, place: Point3, near: Option<f64>) -> (f64, f64) {
        let turn = self.surface.turn(place);
        let turn = match near {
            Some(near) if self.is_round() => turn + TAU * ((near - turn) / TAU).round(),
            _ => turn,
        };
        (turn, self.surface.across_from(place, self.foot))
    }

    /// How the chart is drawn out for the triangulation. On what is straight across, lengths across count for little: so
    /// triangles join places of nearly one turn, and none spans more of the round than a step or two.
    fn scale(&self, spread: f64) -> (f64, f64) {
        match self.surface {
            Surface::Plane { .. } | Surface::Ruled { .. } => (1.0, 1.0),
            Surface::Cylinder { .. } | Surface::Cone { .. } => (1.0, 0.5 * self.steps.0 / spread.max(ROUNDING)),
            Surface::Torus { major, minor, .. } => (*major, *minor),
        }
    }

    /// Places inside that a torus needs, as it is round both ways.
    fn inside(&self, low: f64, high: f64, spread: (f64, f64)) -> Vec<(f64, f64)> {
        if !matches!(self.surface, Surface::Torus { .. }) {
            return Vec::new();
        }
        let parts = |from: f64, to: f64, step: f64| ((to - from) / step).ceil().max(1.0) as usize;
        let (round, across) = (parts(low, high, self.steps.0), parts(spread.0, spread.1, self.steps.1));
        let share = |from: f64, to: f64, at: usize, all: usize| from + (to - from) * at as f64 / all as f64;
        (1..round)
            .flat_map(|u| (1..across).map(move |v| (u, v)))
            .map(|(u, v)| (share(low, high, u, round), share(spread.0, spread.1, v, across)))
            .collect()
    }
}
