//! An end as cells of the section, each cut by one surface, and the stretches that part them.

use std::rc::Rc;

use crate::frame::cut_plane::CutPlane;
use crate::frame::end::{Cope, End};
use crate::frame::plain::bodies;
use crate::plane::{Point, Region, Segment, Vector};
use crate::quantity::tolerance::{LEVEL, PARALLEL};
use crate::work::frame::OneEnd;

use super::super::member::Member;
use super::fault::BodyFault;
use super::path::{Graph, Kind, Path};
use super::split::{Crease, Loops, components, roots, split};
use super::surface::{EndSurface, crossing_planes};

/// Shares of a stretch nearer to its ends than this are its ends.
const WITHIN: f64 = 1e-6;

/// Places of the section nearer than this are one, mm.
pub(super) const ONE: f64 = 1e-6;

/// Surfaces that reach this nearly alike a little inside a cell are not told apart there, mm.
const SAME: f64 = 2e-3;

/// A stretch of a cell's rim between two places of the section.
pub(super) struct Stretch {
    /// Places, by index in [`EndCells::places`].
    pub from: usize,
    pub to: usize,
    pub path: Path,
    /// The surface of the cell on its left.
    pub left: usize,
    /// The surface of the cell on its right, or the edge of the section that it lies on.
    pub right: Beside,
}

/// What lies on the right of a stretch.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Beside {
    /// Another cell, by its surface.
    Cell(usize),
    /// Nothing: it is part of this edge of the section.
    Section(usize),
}

/// One end of a member.
pub(super) struct EndCells {
    pub which: OneEnd,
    pub surfaces: Vec<EndSurface>,
    /// Places of the section; the corners of the section first.
    pub places: Vec<Point>,
    pub stretches: Vec<Stretch>,
}

/// The edges of a section, the metal on their left: the outside, then the openings.
pub(super) fn section_loops(region: &Region) -> Vec<Vec<Segment>> {
    let outer = region.outer.clone().counter_clockwise();
    let holes = region.holes.iter().map(|hole| hole.clone().counter_clockwise().reversed());
    std::iter::once(outer).chain(holes).map(|one| one.segments().map(|(edge, _)| edge).collect()).collect()
}

struct Cell {
    surface: usize,
    loops: Loops,
}

impl EndCells {
    /// 1 at a finish, -1 at a start: the way out of the metal.
    pub fn way(&self) -> f64 {
        self.which.way()
    }

    /// Height of a surface over a place, in the end's frame, mm.
    pub fn height(&self, surface: usize, at: Point) -> f64 {
        self.surfaces[surface].reach(at, self.way())
    }

    /// The cells of a member's end. `sections` are the section's loops.
    pub fn of(member: &Member, which: OneEnd, sections: &[Vec<Segment>]) -> Result<EndCells, BodyFault> {
        let places = sections.iter().flatten().map(|edge| edge.start).collect();
        let mut end = EndCells { which, surfaces: Vec::new(), places, stretches: Vec::new() };
        let plain = |own: &End| own.planes.len() == 1 && own.copes.is_empty() && own.cutouts.is_empty();
        if plain(&member.ends[which.at()]) {
            end.surfaces.push(EndSurface::Plane(member.ends[which.at()].planes[0].clone()));
            let mut first = 0;
            for walk in sections {
                for (at, edge) in walk.iter().enumerate() {
                    let (from, to) = (first + at, first + (at + 1) % walk.len());
                    let right = Beside::Section(first + at);
                    end.stretches.push(Stretch { from, to, path: Path::of(edge), left: 0, right });
                }
                first += walk.len();
            }
            return Ok(end);
        }
        let mut cells = Vec::new();
        if member.has_cutouts() {
            for body in bodies(member).iter() {
                end.add(&body.region, &body.ends[which.at()], &mut cells)?;
            }
        } else {
            end.add(&member.region, &member.ends[which.at()], &mut cells)?;
        }
        end.part(cells, &sections.iter().flatten().copied().collect::<Vec<_>>())?;
        Ok(end)
    }

    fn surface(&mut self, own: EndSurface) -> usize {
        if let Some(known) = self.surfaces.iter().position(|one| one.is_same(&own)) {
            return known;
        }
        self.surfaces.push(own);
        self.surfaces.len() - 1
    }

    /// The cells of a part of the section: at each place the surface that comes first, seen from the metal.
    fn add(&mut self, region: &Region, own: &End, into: &mut Vec<Cell>) -> Result<(), BodyFault> {
        let loops: Loops = section_loops(region).iter().map(|walk| walk.iter().map(Path::of).collect()).collect();
        let mut cells: Vec<(Option<usize>, Loops)> = vec![(None, loops)];
        for cut in &own.planes {
            let plane = self.surface(EndSurface::Plane(cut.clone()));
            cells = self.over(cells, plane)?;
        }
        for cope in &own.copes {
            let (across, level) = cope.beside().ok_or(BodyFault::End)?;
            for (_, loops) in &mut cells {
                loops.iter_mut().for_each(|walk| *walk = at_kinks(walk, across, level, cope.radius));
            }
            let round = self.surface(EndSurface::Round(cope.clone()));
            let mut next = Vec::new();
            for (known, loops) in cells {
                // Beside the other member its fibres end on a plane.
                let off = |at: Point| across.x * at.x + across.y * at.y - level;
                let lines = Crease::Lines(across.left());
                let (low, rest) = split(&loops, &lines, true, &|at| off(at) + cope.radius).ok_or(BodyFault::End)?;
                let (middle, high) = split(&rest, &lines, true, &|at| off(at) - cope.radius).ok_or(BodyFault::End)?;
                for aside in [low, high].into_iter().filter(|loops| !loops.is_empty()) {
                    let plane = self.surface(EndSurface::Plane(cope.aside(self.way())));
                    next.extend(self.over(vec![(known, aside)], plane)?);
                }
                if !middle.is_empty() {
                    next.extend(self.over(vec![(known, middle)], round)?);
                }
            }
            cells = next;
        }
        if own.copes.len() > 1 {
            // Curves of two rounds may touch a cell's edge and pinch it: each cell is looked at along its rim for what comes first.
            let first = |at: Point| {
                let planes = own.planes.iter().map(|cut| cut.reach(at));
                let all = planes.chain(own.copes.iter().map(|cope| cope.reach(at, self.way())));
                all.map(|height| height * self.way()).fold(f64::INFINITY, f64::min) * self.way()
            };
            for (surface, loops) in &cells {
                let Some(surface) = *surface else { return Err(BodyFault::End) };
                let looks =
                    loops.iter().flatten().flat_map(|path| (1..16).map(|look| path.inside_at(f64::from(look) / 16.0)));
                if looks.into_iter().any(|at| (self.height(surface, at) - first(at)).abs() > SAME) {
                    return Err(BodyFault::End);
                }
            }
        }
        for (surface, loops) in cells {
            into.push(Cell { surface: surface.ok_or(BodyFault::End)?, loops });
        }
        Ok(())
    }

    /// Cells after another surface has been laid over them.
    #[allow(clippy::type_complexity)]
    fn over(&self, cells: Vec<(Option<usize>, Loops)>, own: usize) -> Result<Vec<(Option<usize>, Loops)>, BodyFault> {
        let mut next = Vec::new();
        for (known, loops) in cells {
            let Some(known) = known.filter(|&known| known != own) else {
                next.push((Some(own), loops));
                continue;
            };
            let apart = |at: Point| (self.height(own, at) - self.height(known, at)) * self.way();
            if let (EndSurface::Round(one), EndSurface::Round(two)) = (&self.surfaces[own], &self.surfaces[known])
                && let Some(planes) = crossing_planes(one, two)
            {
                // Their curves cross each other: parted along both, each part is one round's or the other's.
                let parts = self
                    .parts(touched(loops, two, &planes, self.way()), one, &planes)?
                    .into_iter()
                    .flat_map(components);
                let parts = parts.map(|part| (parted_to(&part, &apart), part));
                next.extend(parts.map(|(first, part)| (Some(if first { own } else { known }), part)));
                continue;
            }
            let slope = || {
                let zero = apart(Point::default());
                Vector::new(apart(Point::new(1.0, 0.0)) - zero, apart(Point::new(0.0, 1.0)) - zero)
            };
            let (crease, linear) = match (&self.surfaces[own], &self.surfaces[known]) {
                (EndSurface::Plane(_), EndSurface::Plane(_)) => (Crease::Lines(slope().unit().left()), true),
                (EndSurface::Round(cope), EndSurface::Plane(plane))
                | (EndSurface::Plane(plane), EndSurface::Round(cope)) => match Graph::new(cope, plane, self.way()) {
                    Some(graph) => (Crease::Graph(Rc::new(graph)), false),
                    None => (Crease::Lines(cope.beside().ok_or(BodyFault::End)?.0.left()), false),
                },
                (EndSurface::Round(one), EndSurface::Round(two)) => {
                    (Crease::Rounds([one.clone(), two.clone()], self.way()), false)
                }
            };
            let (first, rest) = split(&loops, &crease, linear, &apart).ok_or(BodyFault::End)?;
            next.extend([(Some(own), first), (Some(known), rest)].into_iter().filter(|(_, loops)| !loops.is_empty()));
        }
        Ok(next)
    }

    /// A cell parted where a round and each of these planes reach alike.
    fn parts(&self, loops: Loops, round: &Cope, planes: &[CutPlane]) -> Result<Vec<Loops>, BodyFault> {
        let mut all = vec![loops];
        for plane in planes {
            let mut next = Vec::new();
            for loops in all {
                let (low, high) = if plane.normal.z.abs() < PARALLEL {
                    // Along the fibres: straight over the section.
                    let way = Vector::new(plane.normal.x, plane.normal.y);
                    let off = |at: Point| way.x * at.x + way.y * at.y - plane.level;
                    split(&loops, &Crease::Lines(way.left()), true, &off)
                } else {
                    match Graph::new(round, plane, self.way()) {
                        Some(graph) => {
                            let graph = Rc::new(graph);
                            split(&loops, &Crease::Graph(graph.clone()), false, &|at| graph.apart(at))
                        }
                        None => None,
                    }
                }
                .ok_or(BodyFault::End)?;
                next.extend([low, high].into_iter().filter(|loops| !loops.is_empty()));
            }
            all = next;
        }
        Ok(all)
    }

    fn place(&mut self, at: Point) -> usize {
        if let Some(known) = self.places.iter().position(|place| place.distance(at) < ONE) {
            return known;
        }
        self.places.push(at);
        self.places.len() - 1
    }

    /// The stretches between cells: every rim parted where another begins or ends on it and where heights cross.
    fn part(&mut self, cells: Vec<Cell>, section: &[Segment]) -> Result<(), BodyFault> {
        let mut rims: Vec<(Path, usize)> = Vec::new();
        for cell in cells {
            for path in cell.loops.into_iter().flatten() {
                self.place(path.from);
                rims.push((path, cell.surface));
            }
        }
        // Twice: where heights of two cells cross between their ends, a place is added and both are parted there too.
        for round in 0..2 {
            rims = self.parted(rims);
            if round == 1 {
                break;
            }
            let pairs = self.pairs(&rims);
            let mut more = Vec::new();
            for (at, other) in pairs.into_iter().enumerate() {
                let Some(other) = other.filter(|&other| other > at) else { continue };
                let (path, left) = &rims[at];
                let right = rims[other].1;
                if *left != right {
                    let apart = |at: Point| self.height(*left, at) - self.height(right, at);
                    let alike = [0.0, 0.5, 1.0].iter().all(|&share| apart(path.at(share)).abs() < ONE);
                    if !alike {
                        more.extend(roots(path, false, &apart).into_iter().map(|share| path.at(share)));
                    }
                }
            }
            more.into_iter().for_each(|at| {
                self.place(at);
            });
        }
        let pairs = self.pairs(&rims);
        for (at, (path, left)) in rims.iter().enumerate() {
            let right = match pairs[at] {
                // Told once, by the first of the two; inside one surface not at all.
                Some(other) if other < at || rims[other].1 == *left => continue,
                Some(other) => Beside::Cell(rims[other].1),
                None => Beside::Section(on_section(path, section).ok_or(BodyFault::End)?),
            };
            let (from, to) = (self.known(path.from)?, self.known(path.to)?);
            self.stretches.push(Stretch { from, to, path: path.clone(), left: *left, right });
        }
        Ok(())
    }

    fn known(&self, at: Point) -> Result<usize, BodyFault> {
        self.places.iter().position(|place| place.distance(at) < ONE).ok_or(BodyFault::End)
    }

    fn parted(&self, rims: Vec<(Path, usize)>) -> Vec<(Path, usize)> {
        let mut all = Vec::new();
        for (path, surface) in rims {
            let mut shares: Vec<f64> = self
                .places
                .iter()
                .filter(|place| place.distance(path.from) > ONE && place.distance(path.to) > ONE)
                .filter_map(|&place| path.share_of(place, ONE))
                .filter(|share| (0.0..1.0).contains(share))
                .collect();
            shares.sort_by(f64::total_cmp);
            shares.push(1.0);
            let mut from = 0.0;
            for to in shares {
                let part = path.part(from, to);
                if part.from.distance(part.to) > ONE || part.middle().distance(part.from) > ONE {
                    all.push((part, surface));
                }
                from = to;
            }
        }
        all
    }

    /// For each rim the one that runs back along it.
    fn pairs(&self, rims: &[(Path, usize)]) -> Vec<Option<usize>> {
        let near = |one: Point, two: Point| one.distance(two) < 4.0 * ONE;
        let mut found = vec![None; rims.len()];
        for at in 0..rims.len() {
            if found[at].is_some() {
                continue;
            }
            let path = &rims[at].0;
            let other = (at + 1..rims.len()).find(|&other| {
                let back = &rims[other].0;
                found[other].is_none()
                    && near(back.from, path.to)
                    && near(back.to, path.from)
                    && near(back.middle(), path.middle())
            });
            if let Some(other) = other {
                (found[at], found[other]) = (Some(other), Some(at));
            }
        }
        found
    }
}

/// Edges of a cell along the flank of a round, parted where the curve of its crossing touches them.
fn touched(loops: Loops, round: &Cope, planes: &[CutPlane], way: f64) -> Loops {
    let Some((across, level)) = round.beside() else { return loops };
    let aside = round.aside(way);
    let on_flank = |at: Point| ((across.x * at.x + across.y * at.y - level).abs() - round.radius).abs() < LEVEL;
    let parted = |path: Path| -> Vec<Path> {
        if !matches!(path.kind, Kind::Line) || !on_flank(path.from) || !on_flank(path.to) {
            return vec![path];
        }
        let mut shares: Vec<f64> = planes
            .iter()
            .filter(|plane| plane.normal.z.abs() > PARALLEL)
            .flat_map(|plane| roots(&path, true, &|at| aside.reach(at) - plane.reach(at)))
            .filter(|share| (WITHIN..1.0 - WITHIN).contains(share))
            .collect();
        shares.sort_by(f64::total_cmp);
        shares.push(1.0);
        let mut from = 0.0;
        shares.into_iter().map(|to| path.part(std::mem::replace(&mut from, to), to)).collect()
    };
    loops.into_iter().map(|walk| walk.into_iter().flat_map(parted).collect()).collect()
}

/// Whether a cell that no crease runs through lies where a difference is below zero.
fn parted_to(loops: &Loops, apart: &dyn Fn(Point) -> f64) -> bool {
    let looks = loops.iter().flatten().flat_map(|path| [path.middle(), path.inside(), path.at(0.25), path.at(0.75)]);
    looks.map(apart).max_by(|one, two| one.abs().total_cmp(&two.abs())).is_some_and(|most| most < 0.0)
}

/// The edge of the section that a rim lies on.
fn on_section(path: &Path, section: &[Segment]) -> Option<usize> {
    let middle = path.middle();
    let like = |edge: &Segment| matches!(path.kind, Kind::Line) == edge.is_line();
    section.iter().position(|edge| like(edge) && edge.distance_to(middle) < ONE)
}

/// Rims parted where they touch the flank of a cope: there the curve of their cut has a corner.
fn at_kinks(walk: &[Path], across: Vector, level: f64, radius: f64) -> Vec<Path> {
    let mut all = Vec::new();
    for path in walk {
        let Kind::Arc(bulge) = path.kind else {
            all.push(path.clone());
            continue;
        };
        let one = Segment { start: path.from, end: path.to, bulge };
        let tips = [across, -across].map(|way| one.centre() + way * one.radius());
        let mut shares: Vec<f64> = tips
            .into_iter()
            .filter(|tip| ((across.x * tip.x + across.y * tip.y - level).abs() - radius).abs() < ONE)
            .filter_map(|tip| path.share_of(tip, ONE))
            .filter(|share| (WITHIN..1.0 - WITHIN).contains(share))
            .collect();
        shares.sort_by(f64::total_cmp);
        shares.push(1.0);
        let mut from = 0.0;
        for to in shares {
            all.push(path.part(from, to));
            from = to;
        }
    }
    all
}
