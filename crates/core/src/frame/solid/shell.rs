//! The shell of a member: its walls between its two ends, the faces of its ends, and the walls of what is cut out of them.
//! Corners, edges and faces are made once and found again by what they are, so the shell closes by construction.

use std::collections::HashMap;

use crate::plane::{Point, Segment, Vector};
use crate::quantity::tolerance::{LEVEL, PARALLEL, ROUNDING};
use crate::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Tube, Vector3, Walked};
use crate::work::frame::OneEnd;

use super::super::member::{Basis, Member};
use super::ends::{Beside, EndCells, ONE, Stretch, section_loops};
use super::fault::BodyFault;
use super::path::Kind;
use super::stations::{Stations, Straight};
use super::surface::{EndSurface, tube_of};
use super::wall::Wall;
use super::wall_names::wall_names;

/// How far the middle of a traced stretch may lie off the edge of the section that it follows, mm.
const ON_SECTION: f64 = 1e-4;

/// Which end, as an index.
fn index(end: &EndCells) -> usize {
    end.which.at()
}

struct Maker<'a> {
    member: &'a Member,
    section: Vec<Segment>,
    /// What the wall over each is called.
    names: Vec<String>,
    /// For each edge of the section the one that follows it.
    next: Vec<usize>,
    stations: Stations,
    body: Body,
    /// At each end, for each place of its cells: the heights there with their corners.
    levels: [Vec<Vec<(f64, usize)>>; 2],
    /// Straight edges by their corners.
    straight: HashMap<(usize, usize), usize>,
    /// At each end, for each stretch: its edge on the left cell's surface and on the other's.
    rims: [Vec<(usize, usize)>; 2],
    /// Corners of the section at each station between the ends.
    rings: Vec<Vec<usize>>,
    /// Edges of the section at each station between the ends.
    hoops: Vec<Vec<usize>>,
    /// Edges of the section's corners along each stretch that is round.
    rails: Vec<Vec<Option<usize>>>,
}

/// The exact body of a member without its holes, with its straight stretches to drill them in.
///
/// # Errors
/// [`BodyFault`] where something of it is told in facets only.
pub(super) fn shell(member: &Member) -> Result<(Body, Vec<Straight>), BodyFault> {
    let loops = clear_of_holes(member, section_loops(&member.region));
    let ends = [EndCells::of(member, OneEnd::Start, &loops)?, EndCells::of(member, OneEnd::Finish, &loops)?];
    let mut next = Vec::new();
    for walk in &loops {
        let first = next.len();
        next.extend((0..walk.len()).map(|at| first + (at + 1) % walk.len()));
    }
    let names = wall_names(&loops);
    let section: Vec<Segment> = loops.into_iter().flatten().collect();
    let reaches = [0, 1].map(|which| heights(&ends[which]));
    not_crossed(member, &ends)?;
    let stations = Stations::of(member, reaches)?;
    let between = stations.frames.len() - 2;
    let mut maker = Maker {
        member,
        section,
        names,
        next,
        stations,
        body: Body::default(),
        levels: [vec![Vec::new(); ends[0].places.len()], vec![Vec::new(); ends[1].places.len()]],
        straight: HashMap::new(),
        rims: [Vec::new(), Vec::new()],
        rings: Vec::with_capacity(between),
        hoops: Vec::with_capacity(between),
        rails: Vec::new(),
    };
    for end in &ends {
        maker.rims(end)?;
    }
    maker.along();
    let walls = maker.walls(&ends)?;
    for end in &ends {
        maker.cut_walls(end)?;
        maker.faces(end)?;
    }
    let plain = ends.iter().all(|end| end.surfaces.len() == 1);
    let body = if plain { std::mem::take(&mut maker.body) } else { maker.body.tidied() };
    if !body.is_closed() {
        return Err(BodyFault::End);
    }
    Ok((body, maker.stations.straight(walls)))
}

/// Circles of the section parted where no hole goes through: a hole lies whole in one wall.
fn clear_of_holes(member: &Member, mut loops: Vec<Vec<Segment>>) -> Vec<Vec<Segment>> {
    let meets = |at: Point| {
        member.bores.iter().any(|bore| {
            let side = bore.into.left();
            (side.x * at.x + side.y * at.y - member.across(bore)).abs() < bore.diameter / 2.0 + 0.01
        })
    };
    for walk in &mut loops {
        let &[one, two] = walk.as_slice() else { continue };
        let (centre, radius) = (one.centre(), one.radius());
        let round = !one.is_line() && two.centre().distance(centre) < ONE && (two.radius() - radius).abs() < ONE;
        if !round || !(meets(one.start) || meets(two.start)) {
            continue;
        }
        let at = |turn: f64| centre + Vector::new(turn.cos(), turn.sin()) * radius;
        let half = std::f64::consts::PI;
        let free =
            (1..48).map(|step| half * f64::from(step) / 48.0).find(|&turn| !meets(at(turn)) && !meets(at(turn + half)));
        if let Some(turn) = free {
            let bulge = one.bulge.signum();
            let (a, b) = (at(turn), at(turn + half));
            *walk = vec![Segment { start: a, end: b, bulge }, Segment { start: b, end: a, bulge }];
        }
    }
    loops
}

/// The least and the greatest height of an end as cut.
fn heights(end: &EndCells) -> (f64, f64) {
    let mut found = (f64::INFINITY, f64::NEG_INFINITY);
    for one in &end.stretches {
        let mut hold = |surface: usize| {
            for share in [0.0, 0.25, 0.5, 0.75, 1.0] {
                let height = end.height(surface, one.path.at(share));
                found = (found.0.min(height), found.1.max(height));
            }
        };
        hold(one.left);
        if let Beside::Cell(right) = one.right {
            hold(right);
        }
    }
    found
}

/// Ends that meet in the middle leave no one body.
fn not_crossed(member: &Member, ends: &[EndCells; 2]) -> Result<(), BodyFault> {
    if !member.is_straight() {
        return Ok(());
    }
    let length = member.lines[0].length();
    let clear = heights(&ends[0]).1 < length + heights(&ends[1]).0 - ONE;
    // Mostly that is all; where it is not, place by place.
    let at =
        |place: Point| length + member.cut_reach(OneEnd::Finish, place) - member.cut_reach(OneEnd::Start, place) > ONE;
    let places = || {
        let ends = ends.iter().flat_map(|end| &end.stretches);
        ends.flat_map(|one| [0.02, 0.25, 0.5, 0.75, 0.98].map(|share| (one.path.at(share), one.path.inside())))
    };
    if clear || places().all(|(on, inside)| at(on) && at(inside)) { Ok(()) } else { Err(BodyFault::Crossed) }
}

impl Maker<'_> {
    fn basis(&self, end: &EndCells) -> Basis {
        self.member.basis(end.which)
    }

    /// The corner of a place at a height of an end.
    fn corner(&mut self, end: &EndCells, place: usize, height: f64) -> usize {
        let which = index(end);
        let known = self.levels[which][place].iter().find(|(level, _)| (level - height).abs() < ONE);
        if let Some((_, corner)) = known {
            return *corner;
        }
        let at = end.places[place];
        self.body.corners.push(self.basis(end).place(at.x, at.y, height));
        let corner = self.body.corners.len() - 1;
        self.levels[which][place].push((height, corner));
        corner
    }

    fn edge(&mut self, from: usize, to: usize, curve: Curve) -> usize {
        self.body.edges.push(BodyEdge { from, to, curve });
        self.body.edges.len() - 1
    }

    /// A straight edge, made once.
    fn line(&mut self, from: usize, to: usize) -> Walked {
        if let Some(&edge) = self.straight.get(&(from.min(to), from.max(to))) {
            return (edge, self.body.edges[edge].from == from);
        }
        let edge = self.edge(from, to, Curve::Line);
        self.straight.insert((from.min(to), from.max(to)), edge);
        (edge, true)
    }

    /// The edges of an end's cells, each on the surfaces beside it.
    fn rims(&mut self, end: &EndCells) -> Result<(), BodyFault> {
        for one in &end.stretches {
            let edge = self.rim(end, one, one.left)?;
            let other = match one.right {
                Beside::Cell(right) => {
                    let alike = |share: f64| {
                        let at = one.path.at(share);
                        (end.height(one.left, at) - end.height(right, at)).abs() < ONE
                    };
                    if alike(0.0) && alike(0.5) && alike(1.0) { edge } else { self.rim(end, one, right)? }
                }
                Beside::Section(_) => edge,
            };
            self.rims[index(end)].push((edge, other));
        }
        for levels in &mut self.levels[index(end)] {
            levels.sort_by(|one, two| one.0.total_cmp(&two.0));
        }
        Ok(())
    }

    /// A stretch on one surface.
    fn rim(&mut self, end: &EndCells, one: &Stretch, surface: usize) -> Result<usize, BodyFault> {
        let (at, to) = (end.places[one.from], end.places[one.to]);
        let from = self.corner(end, one.from, end.height(surface, at));
        let to = self.corner(end, one.to, end.height(surface, to));
        let curve = self.curve(end, one, surface, (from, to))?;
        Ok(self.edge(from, to, curve))
    }

    fn curve(
        &self,
        end: &EndCells,
        one: &Stretch,
        surface: usize,
        (from, to): (usize, usize),
    ) -> Result<Curve, BodyFault> {
        let basis = self.basis(end);
        let on = |share: f64| {
            let at = one.path.at(share);
            basis.place(at.x, at.y, end.height(surface, at))
        };
        let (from, middle, to) = (self.body.corners[from], on(0.5), self.body.corners[to]);
        // The round of the section that an arc of it makes.
        let wall = |bulge: f64| {
            let centre = Segment { start: one.path.from, end: one.path.to, bulge }.centre();
            let radius = centre.distance(one.path.from);
            Tube { point: basis.place(centre.x, centre.y, 0.0), axis: basis.w, radius }
        };
        match (&end.surfaces[surface], &one.path.kind) {
            (EndSurface::Plane(_), Kind::Line) => Ok(Curve::Line),
            (EndSurface::Plane(cut), Kind::Arc(bulge)) => {
                Ok(wall(*bulge).cut(basis.turn_out(cut.normal), from, middle, to))
            }
            (EndSurface::Round(cope), Kind::Line) => {
                let by = one.path.to - one.path.from;
                let normal = basis.turn_out(Vector3::new(by.x, by.y, 0.0)).cross(basis.w).unit();
                Ok(tube_of(cope, &basis).cut(normal, from, middle, to))
            }
            (EndSurface::Round(cope), Kind::Arc(bulge)) => {
                let (tube, wall) = (tube_of(cope, &basis), wall(*bulge));
                if let Some(normal) = crossed(&tube, &wall, from, middle, to) {
                    return Ok(wall.cut(normal, from, middle, to));
                }
                let sweep = 4.0 * bulge.atan().abs();
                let parts = (sweep / 0.4).ceil().max(2.0) as usize;
                let mut through: Vec<Point3> = (0..=parts).map(|part| on(part as f64 / parts as f64)).collect();
                (through[0], through[parts]) = (from, to);
                tube.meet(&wall, &through).map(Curve::Cubic).ok_or(BodyFault::End)
            }
            (EndSurface::Round(cope), Kind::Trace(trace, first, last)) => {
                let sides = [Some(one.left), if let Beside::Cell(right) = one.right { Some(right) } else { None }];
                let other = sides.into_iter().flatten().find_map(|side| match &end.surfaces[side] {
                    EndSurface::Round(other) if side != surface => Some(tube_of(other, &basis)),
                    _ => None,
                });
                let (tube, other) = (tube_of(cope, &basis), other.ok_or(BodyFault::End)?);
                let parts = 16;
                let mut through: Vec<Point3> = (0..=parts)
                    .map(|part| {
                        let at = trace.at(first + (last - first) * f64::from(part) / f64::from(parts));
                        basis.place(at.x, at.y, at.z)
                    })
                    .collect();
                (through[0], through[parts as usize]) = (from, to);
                tube.meet(&other, &through).map(Curve::Cubic).ok_or(BodyFault::End)
            }
            (EndSurface::Plane(_), Kind::Trace(..)) => Err(BodyFault::End),
            // Where a round and a plane reach alike the plane cuts the round.
            (_, Kind::Graph(graph)) => {
                Ok(tube_of(graph.cope(), &basis).cut(basis.turn_out(graph.normal()), from, middle, to))
            }
        }
    }

    /// Corners and edges of the section at the stations between the ends, and along what is round.
    fn along(&mut self) {
        let last = self.stations.frames.len() - 1;
        for station in 1..last {
            let basis = self.stations.frames[station];
            let first = self.body.corners.len();
            let places: Vec<Point> = self.section.iter().map(|one| one.start).collect();
            self.body.corners.extend(places.iter().map(|at| basis.place(at.x, at.y, 0.0)));
            self.rings.push((first..self.body.corners.len()).collect());
            let mut hoops = Vec::new();
            for at in 0..self.section.len() {
                let one = self.section[at];
                let curve = if one.is_line() {
                    Curve::Line
                } else {
                    let centre = one.centre();
                    let axis = if one.bulge > 0.0 { basis.w } else { -basis.w };
                    Curve::Circle { centre: basis.place(centre.x, centre.y, 0.0), axis, radius: one.radius() }
                };
                hoops.push(self.edge(first + at, first + self.next[at], curve));
            }
            self.hoops.push(hoops);
        }
        self.rails = vec![vec![None; self.section.len()]; last];
    }

    /// Up the wall at a corner of the section along a stretch, from a height of the start to one of the finish.
    fn rise(&mut self, corner: usize, stretch: usize, low: usize, high: usize) -> Result<Vec<Walked>, BodyFault> {
        let last = self.stations.arcs.len() - 1;
        if let Some(arc) = self.stations.arcs[stretch] {
            if let Some(edge) = self.rails[stretch][corner] {
                return Ok(vec![(edge, true)]);
            }
            let place = self.body.corners[low];
            let arm = place - arc.centre;
            let centre = arc.centre + arc.axis * arm.dot(arc.axis);
            let curve = Curve::Circle { centre, axis: arc.axis, radius: (place - centre).length() };
            let edge = self.edge(low, high, curve);
            self.rails[stretch][corner] = Some(edge);
            return Ok(vec![(edge, true)]);
        }
        let mut all: Vec<usize> = Vec::new();
        if stretch == 0 {
            all.extend(self.levels[0][corner].iter().map(|(_, corner)| *corner));
        } else {
            all.push(low);
        }
        if stretch == last {
            all.extend(self.levels[1][corner].iter().map(|(_, corner)| *corner));
        } else {
            all.push(high);
        }
        self.climb(&all, low, high)
    }

    /// Straight edges through corners that stand over each other, from one of them to another.
    fn climb(&mut self, all: &[usize], from: usize, to: usize) -> Result<Vec<Walked>, BodyFault> {
        let find = |corner: usize| all.iter().position(|&own| own == corner).ok_or(BodyFault::End);
        let (a, b) = (find(from)?, find(to)?);
        let steps: Vec<usize> = if a <= b { all[a..=b].to_vec() } else { all[b..=a].iter().rev().copied().collect() };
        Ok(steps.windows(2).map(|pair| self.line(pair[0], pair[1])).collect())
    }

    /// Between two corners over one place of an end.
    fn step(&mut self, end: &EndCells, place: usize, from: usize, to: usize) -> Result<Vec<Walked>, BodyFault> {
        let all: Vec<usize> = self.levels[index(end)][place].iter().map(|(_, corner)| *corner).collect();
        self.climb(&all, from, to)
    }

    /// The run of an end along an edge of the section, in the sense of the edge, with the corners where it begins and ends.
    fn run(&mut self, end: &EndCells, edge: usize) -> Result<(Vec<Walked>, usize, usize), BodyFault> {
        let mut own: Vec<(f64, usize)> = Vec::new();
        let whole = super::path::Path::of(&self.section[edge]);
        for (at, one) in end.stretches.iter().enumerate() {
            if one.right == Beside::Section(edge) {
                own.push((whole.share_of(one.path.middle(), ON_SECTION).ok_or(BodyFault::End)?, at));
            }
        }
        own.sort_by(|one, two| one.0.total_cmp(&two.0));
        let mut walk: Vec<Walked> = Vec::new();
        let mut first = None;
        let mut here = None;
        for (_, at) in own {
            let rim = self.rims[index(end)][at].0;
            let one = &end.stretches[at];
            let walked = (rim, self.body.edges[rim].from == self.known(end, one.from, one.left)?);
            let (from, to) = self.body.ends_of(walked);
            if let Some(known) = here.filter(|&known| known != from) {
                walk.extend(self.step(end, one.from, known, from)?);
            }
            first.get_or_insert(from);
            walk.push(walked);
            here = Some(to);
        }
        match (first, here) {
            (Some(first), Some(last)) => Ok((walk, first, last)),
            _ => Err(BodyFault::End),
        }
    }

    /// The corner of a place on a surface, which is there.
    fn known(&self, end: &EndCells, place: usize, surface: usize) -> Result<usize, BodyFault> {
        let height = end.height(surface, end.places[place]);
        let levels = &self.levels[index(end)][place];
        levels.iter().find(|(level, _)| (level - height).abs() < ONE).map(|(_, corner)| *corner).ok_or(BodyFault::End)
    }

    /// The walls that the section's edges make, for each stretch.
    fn walls(&mut self, ends: &[EndCells; 2]) -> Result<Vec<Vec<Wall>>, BodyFault> {
        let last = self.stations.arcs.len() - 1;
        let mut walls: Vec<Vec<Wall>> = (0..=last).map(|_| Vec::new()).collect();
        for edge in 0..self.section.len() {
            let after = self.next[edge];
            let (bottom, mut low, mut low_after) = self.run(&ends[0], edge)?;
            let mut bottom = bottom;
            for stretch in 0..=last {
                let (top, high, high_after) = if stretch == last {
                    self.run(&ends[1], edge)?
                } else {
                    let hoop = self.hoops[stretch][edge];
                    (vec![(hoop, true)], self.rings[stretch][edge], self.rings[stretch][after])
                };
                let up = self.rise(after, stretch, low_after, high_after)?;
                let down = self.rise(edge, stretch, low, high)?;
                let back = |walk: &[Walked]| -> Vec<Walked> {
                    walk.iter().rev().map(|&(edge, ahead)| (edge, !ahead)).collect()
                };
                let mut walk = bottom.clone();
                walk.extend(up);
                walk.extend(back(&top));
                walk.extend(back(&down));
                let one = self.section[edge];
                walls[stretch].push(Wall::new(one, self.body.faces.len()));
                let surface = self.wall_surface(&one, stretch);
                self.face(format!("{}.{}", self.member.name, self.names[edge]), surface, vec![walk]);
                (bottom, low, low_after) = (top, high, high_after);
            }
        }
        Ok(walls)
    }

    fn face(&mut self, name: String, surface: Surface, loops: Vec<Vec<Walked>>) {
        self.body.faces.push(BodyFace { name, owner: self.member.name.clone(), surface, loops });
    }

    /// The walls of what is cut out of an end: where two cells beside each other have heights of their own.
    fn cut_walls(&mut self, end: &EndCells) -> Result<(), BodyFault> {
        // By the way that a wall looks and where it stands.
        let mut planes: Vec<(Vector, f64, Vec<Walked>)> = Vec::new();
        for (at, one) in end.stretches.iter().enumerate() {
            let Beside::Cell(right) = one.right else { continue };
            let (on_left, on_right) = self.rims[index(end)][at];
            if on_left == on_right {
                continue;
            }
            if !matches!(one.path.kind, Kind::Line) {
                return Err(BodyFault::End);
            }
            let middle = one.path.middle();
            let above = end.height(one.left, middle) > end.height(right, middle);
            // The metal goes on where the end reaches further out; the wall looks to the other side.
            let metal_left = above == end.which.is_finish();
            let by = (one.path.to - one.path.from).unit();
            let out = if metal_left { by.right() } else { by.left() };
            let ahead = |edge: usize, surface: usize, maker: &Self| -> Result<Walked, BodyFault> {
                Ok((edge, maker.body.edges[edge].from == maker.known(end, one.from, surface)?))
            };
            let (left, right) = (ahead(on_left, one.left, self)?, ahead(on_right, right, self)?);
            let (low, high) = if above { (right, left) } else { (left, right) };
            // Seen from outside with the metal on the left of the path: along the lower edge, up, back, down.
            let ((a, b), (c, d)) = (self.body.ends_of(low), self.body.ends_of(high));
            let mut walk = vec![low];
            walk.extend(self.step(end, one.to, b, d)?);
            walk.push((high.0, !high.1));
            walk.extend(self.step(end, one.from, c, a)?);
            if !metal_left {
                walk = walk.into_iter().rev().map(|(edge, ahead)| (edge, !ahead)).collect();
            }
            let level = out.x * middle.x + out.y * middle.y;
            match planes.iter_mut().find(|(way, known, _)| way.dot(out) > 1.0 - PARALLEL && (known - level).abs() < ONE)
            {
                Some((_, _, all)) => all.extend(walk),
                None => planes.push((out, level, walk)),
            }
        }
        let basis = self.basis(end);
        for (out, level, directed) in planes {
            let normal = basis.turn_out(Vector3::new(out.x, out.y, 0.0));
            let loops = self.body.chained(&directed, normal).ok_or(BodyFault::End)?;
            let point = basis.place(out.x * level, out.y * level, 0.0);
            for loops in self.body.nested(loops, normal.cross(-basis.w), basis.w) {
                self.face(self.end_name(end), Surface::Plane { point, normal, across: basis.w }, loops);
            }
        }
        Ok(())
    }

    fn end_name(&self, end: &EndCells) -> String {
        format!("{}.{}", self.member.name, end.which.word())
    }

    /// The faces that an end's surfaces make.
    fn faces(&mut self, end: &EndCells) -> Result<(), BodyFault> {
        let basis = self.basis(end);
        let out = basis.w * end.way();
        for surface in 0..end.surfaces.len() {
            let mut directed: Vec<Walked> = Vec::new();
            for (at, one) in end.stretches.iter().enumerate() {
                let (left, right) = self.rims[index(end)][at];
                // Ahead along the stretch as seen from outside a finish, back at a start.
                let sense = |edge: usize, own: usize| -> Result<bool, BodyFault> {
                    Ok((self.body.edges[edge].from == self.known(end, one.from, own)?) == end.which.is_finish())
                };
                if one.left == surface {
                    directed.push((left, sense(left, surface)?));
                }
                if one.right == Beside::Cell(surface) {
                    directed.push((right, !sense(right, surface)?));
                }
            }
            if directed.is_empty() {
                continue;
            }
            let loops = self.body.chained(&directed, out).ok_or(BodyFault::End)?;
            let made = end.surfaces[surface].face(&basis, end.way());
            for loops in self.body.nested(loops, basis.u * end.way(), basis.v) {
                self.face(self.end_name(end), made.clone(), loops);
            }
        }
        Ok(())
    }

    /// The surface that an edge of the section makes along a stretch.
    fn wall_surface(&self, one: &Segment, stretch: usize) -> Surface {
        let basis = &self.stations.frames[stretch];
        let out = (one.end - one.start).unit().right();
        let normal = basis.u * out.x + basis.v * out.y;
        let place = |at: Point| basis.place(at.x, at.y, 0.0);
        // A corner that turns left has its metal within.
        let outward = one.bulge > 0.0;
        let Some(arc) = &self.stations.arcs[stretch] else {
            if one.is_line() {
                return Surface::Plane { point: place(one.start), normal, across: basis.w };
            }
            let arm = (one.start - one.centre()).unit();
            return Surface::Cylinder {
                point: place(one.centre()),
                axis: basis.w,
                across: basis.u * arm.x + basis.v * arm.y,
                radius: one.radius(),
                outward,
            };
        };
        let flat = |place: Point3| {
            let arm = place - arc.centre;
            let up = arm.dot(arc.axis);
            (arm - arc.axis * up, up)
        };
        if !one.is_line() {
            let (arm, up) = flat(place(one.centre()));
            return Surface::Torus {
                point: arc.centre + arc.axis * up,
                axis: arc.axis,
                across: arm.unit(),
                major: arm.length(),
                minor: one.radius(),
                outward,
            };
        }
        let ((from, low), (to, high)) = (flat(place(one.start)), flat(place(one.end)));
        let across = from.unit();
        if (high - low).abs() < ROUNDING {
            // Square to the axis: it stays in its plane.
            return Surface::Plane { point: place(one.start), normal, across };
        }
        let looks_out = normal.dot(across) > 0.0;
        if (from.length() - to.length()).abs() < ROUNDING {
            let point = arc.centre + arc.axis * low;
            return Surface::Cylinder { point, axis: arc.axis, across, radius: from.length(), outward: looks_out };
        }
        Surface::Cone {
            point: arc.centre + arc.axis * low,
            axis: arc.axis,
            across,
            radius: from.length(),
            slope: (to.length() - from.length()) / (high - low),
            outward: looks_out,
        }
    }
}

/// Two rounds of one radius whose axes meet cross in plane ellipses: the plane that these places lie in.
fn crossed(one: &Tube, two: &Tube, from: Point3, middle: Point3, to: Point3) -> Option<Vector3> {
    let (_, ways) = one.crossing(two)?;
    ways.into_iter().find(|way| (middle - from).dot(*way).abs() < LEVEL && (to - from).dot(*way).abs() < LEVEL)
}
