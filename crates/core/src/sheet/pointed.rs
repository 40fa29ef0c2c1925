//! What somebody points at on a plate or a sheet part, and what the rows of verbs make their offers from.

use crate::plane::{Box2, Point, Vector};
use crate::quantity::tolerance::PARALLEL;
use crate::quantity::{LengthUnit, angle_text, length_text};
use crate::work::about;
use crate::work::sheet::{FromEdge, HoleSide};

use super::corner::free_corners;
use super::face_names::wall_called;
use super::flat::{Bend, EdgeRecord, Flat, Hole, Node};
use super::patch::hole_face;

/// What a name on the part stands for.
#[derive(Clone, Debug, PartialEq)]
pub enum Pointed {
    /// A named edge of which something is left, by its place in [`Flat::edges`].
    Edge(usize),
    /// A panel, by its node; and which of its faces, where one was pointed at.
    Panel(usize, Option<bool>),
    /// A bend, by its place in [`Flat::bends`].
    Bend(usize),
    /// A hole, by its place in [`Flat::holes`].
    Hole(usize),
    /// All holes of an operation, by the place of the first.
    Holes(usize),
    /// A pressed form, by its place in [`Flat::forms`].
    Form(usize),
    /// A rib across a bend, by its place in [`Flat::ribs`].
    Rib(usize),
    /// A corner between two free edges of a panel: its node, its two edges as a corner is cited (`front/right`).
    Corner(usize, String),
    /// A wall with no verb of its own: the side of a cut, the end of a bend. It can be measured from.
    Wall(String),
}

/// All that is pointed at, with the part that it is on.
pub struct Pointing<'a> {
    /// The part in the flat; `None` while nothing is laid down.
    pub flat: Option<&'a Flat>,
    /// In the order pointed at.
    pub at: Vec<Pointed>,
    /// The unit that values are offered in.
    pub unit: LengthUnit,
    /// Inside radius of bends that say none, mm.
    pub radius: f64,
}

/// What a name stands for; `None` where the part has nothing of that name.
pub fn pointed(flat: &Flat, name: &str) -> Option<Pointed> {
    if let Some((edge, _)) = name.split_once('/') {
        let panel = flat.nodes.iter().position(|node| node.is_panel() && is_of(edge, &node.name))?;
        let stem = format!("{}.", flat.nodes[panel].name);
        return free_corners(flat, panel)
            .into_iter()
            .find(|corner| name.strip_prefix(&stem) == Some(&corner.name))
            .map(|corner| Pointed::Corner(panel, corner.name));
    }
    if let Some(at) = flat.edges.iter().position(|edge| edge.name == name) {
        let edge = &flat.edges[at];
        if !flat.segments_of(edge.panel, edge.tag).is_empty() {
            return Some(Pointed::Edge(at));
        }
    }
    if let Some(at) = flat.holes.iter().position(|hole| hole.name == name) {
        return Some(Pointed::Hole(at));
    }
    if let Some(at) = flat.holes.iter().position(|hole| hole.operation == name) {
        return Some(Pointed::Holes(at));
    }
    if let Some(at) = form_of(flat, name) {
        return Some(Pointed::Form(at));
    }
    let made_of = |known: &str| known == name || name.rsplit_once('.').is_some_and(|(stem, _)| stem == known);
    let rib = flat.ribs.iter().position(|rib| made_of(&rib.name));
    if let Some(at) = rib.or_else(|| flat.ribs.iter().position(|rib| rib.operation == name)) {
        return Some(Pointed::Rib(at));
    }
    let (stem, face) = match name.rsplit_once('.') {
        Some((stem, "top")) => (stem, Some(true)),
        Some((stem, "bottom")) => (stem, Some(false)),
        _ => (name, None),
    };
    if let Some(bend) = stem.strip_suffix(".bend") {
        let bend = flat.bends.iter().position(|one| one.name == bend || flat.nodes[one.strip].name == bend)?;
        return Some(Pointed::Bend(bend));
    }
    if let Some(panel) = flat.panel(stem) {
        return Some(Pointed::Panel(panel, face));
    }
    // A side of a hole that is no circle is of the hole.
    if let Some((hole, _)) = name.split_once(".side-")
        && let Some(at) = flat.holes.iter().position(|one| one.name == hole)
    {
        return Some(Pointed::Hole(at));
    }
    if let Some((hole, _)) = hole_face(flat, name) {
        return Some(Pointed::Hole(hole));
    }
    wall_called(flat, name).map(|_| Pointed::Wall(name.into()))
}

/// The form of a name, of one of its faces, or the first of an operation of that name.
fn form_of(flat: &Flat, name: &str) -> Option<usize> {
    let stem = name.rsplit_once('.').map_or("", |(stem, _)| stem);
    let exact = flat.forms.iter().position(|form| form.name == name);
    let first = || flat.forms.iter().position(|form| form.operation == name);
    exact.or_else(first).or_else(|| flat.forms.iter().position(|form| form.name == stem))
}

/// Whether an edge is a panel's own by its name.
fn is_of(edge: &str, panel: &str) -> bool {
    edge.strip_prefix(panel).and_then(|rest| rest.strip_prefix('.')).is_some_and(|rest| !rest.is_empty())
}

impl Pointed {
    /// What it is, in words with its size: "edge base.front, 120 mm".
    pub fn words(&self, flat: &Flat, unit: LengthUnit) -> String {
        let length = |value: f64| length_text(value, unit);
        match self {
            Pointed::Edge(at) => {
                let edge = &flat.edges[*at];
                let long: f64 = flat.segments_of(edge.panel, edge.tag).iter().map(|one| one.length()).sum();
                format!("edge {}, {}", edge.name, length(long))
            }
            Pointed::Panel(panel, face) => {
                let name = &flat.nodes[*panel].name;
                match face {
                    Some(true) => format!("panel {name}, its upper face"),
                    Some(false) => format!("panel {name}, its lower face"),
                    None => format!("panel {name}"),
                }
            }
            Pointed::Bend(at) => {
                let bend = &flat.bends[*at];
                let strip = flat.strip_of(bend);
                let way = strip.direction.word();
                format!("bend {}, {} {way}, inside radius {}", bend.name, angle_text(strip.angle), length(strip.radius))
            }
            Pointed::Hole(at) => {
                let hole = &flat.holes[*at];
                format!("hole {}, {}", hole.name, hole_size(hole, unit))
            }
            Pointed::Holes(at) => {
                let hole = &flat.holes[*at];
                let count = flat.holes.iter().filter(|one| one.operation == hole.operation).count();
                format!("{count} holes {}, {}", hole.operation, hole_size(hole, unit))
            }
            Pointed::Form(at) => format!("form {}", flat.forms[*at].words(unit)),
            Pointed::Rib(at) => flat.ribs[*at].words(flat, unit),
            Pointed::Corner(panel, at) => format!("corner {at} of {}", flat.nodes[*panel].name),
            Pointed::Wall(name) => format!("wall {name}"),
        }
    }
}

fn hole_size(hole: &Hole, unit: LengthUnit) -> String {
    match hole.outline.as_circle() {
        Some((_, radius)) => format!("diameter {}", length_text(2.0 * radius, unit)),
        None => {
            let own = hole.outline.extents();
            format!("{} by {}", length_text(own.width(), unit), length_text(own.height(), unit))
        }
    }
}

impl<'a> Pointing<'a> {
    /// Whether nothing is pointed at.
    pub fn nowhere(&self) -> bool {
        self.at.is_empty()
    }

    /// The edges, where only straight edges are pointed at; each once.
    pub fn edges(&self) -> Option<Vec<&'a EdgeRecord>> {
        let flat = self.flat?;
        let mut all: Vec<&EdgeRecord> = Vec::new();
        for one in &self.at {
            let Pointed::Edge(at) = one else { return None };
            let edge = &flat.edges[*at];
            if !edge.line.is_line() {
                return None;
            }
            if !all.iter().any(|known| known.name == edge.name) {
                all.push(edge);
            }
        }
        (!all.is_empty()).then_some(all)
    }

    /// The one straight edge that is pointed at.
    pub fn edge(&self) -> Option<&'a EdgeRecord> {
        self.edges().filter(|all| all.len() == 1).map(|all| all[0])
    }

    /// The one panel that is pointed at, or the first where nothing is.
    pub fn panel(&self) -> Option<usize> {
        match &self.at[..] {
            [] => self.flat?.nodes.iter().position(Node::is_panel),
            [Pointed::Panel(panel, _)] => Some(*panel),
            _ => None,
        }
    }

    /// The straight edges of a panel of which something is left, that are its own: not what cuts made.
    pub fn free_edges(&self, panel: usize) -> Vec<&'a EdgeRecord> {
        let Some(flat) = self.flat else { return Vec::new() };
        flat.edges
            .iter()
            .filter(|edge| {
                edge.panel == panel
                    && edge.line.is_line()
                    && is_of(&edge.name, &flat.nodes[panel].name)
                    && !flat.segments_of(panel, edge.tag).is_empty()
            })
            .collect()
    }

    /// The first edge that could be worked on: what a verb of edges begins with where nothing is pointed at.
    pub fn first_edge(&self) -> Option<&'a EdgeRecord> {
        let panel = self.panel()?;
        self.free_edges(panel).into_iter().next().or_else(|| {
            let flat = self.flat?;
            (0..flat.nodes.len()).find_map(|at| self.free_edges(at).into_iter().next())
        })
    }

    /// The box of a panel as it was laid down, mm.
    pub fn laid(&self, panel: usize) -> Option<Box2> {
        Some(self.flat?.nodes[panel].laid)
    }

    /// The shorter side of a panel as it was laid down, mm.
    pub fn narrow(&self, panel: usize) -> f64 {
        self.laid(panel).map_or(100.0, |laid| laid.width().min(laid.height()))
    }

    /// Thickness, mm; 3 where there is no part.
    pub fn thickness(&self) -> f64 {
        self.flat.map_or(3.0, |flat| flat.thickness)
    }

    /// A length near one in mm, as the piece's unit is typed.
    pub fn about(&self, millimetres: f64) -> crate::quantity::Expr {
        about(millimetres, self.unit)
    }

    /// What a hole is placed from: the edges and bends that are pointed at, all of one panel, and that panel. `None` where something
    /// else is pointed at, or nothing.
    pub fn lines_of_one_panel(&self, distance: f64) -> Option<(usize, Vec<FromEdge>)> {
        let flat = self.flat?;
        let mut panels: Vec<usize> = Vec::new();
        let mut from: Vec<FromEdge> = Vec::new();
        let mut ways: Vec<Vector> = Vec::new();
        for one in &self.at {
            let (panel, edge, way) = match one {
                Pointed::Edge(at) if flat.edges[*at].line.is_line() => {
                    let edge = &flat.edges[*at];
                    (edge.panel, edge.name.clone(), (edge.line.end - edge.line.start).unit())
                }
                Pointed::Bend(at) => {
                    let bend = &flat.bends[*at];
                    (bend.parent?, format!("{}.mould-outside", bend.name), flat.strip_of(bend).along)
                }
                _ => return None,
            };
            panels.push(panel);
            ways.push(way);
            from.push(FromEdge { edge: edge.as_str().into(), distance: self.about(distance), to: HoleSide::Centre });
        }
        let &panel = panels.first()?;
        // Two lines that run the same way fix one direction twice.
        let crossing = match ways[..] {
            [_] => true,
            [one, two] => one.cross(two).abs() > PARALLEL,
            _ => false,
        };
        let fits = crossing && panels.iter().all(|&one| one == panel);
        fits.then_some((panel, from))
    }
}

impl Flat {
    /// Every corner between two free edges of a panel: as it is cited (`base.front/right`), the panel's node, where it lies.
    pub fn corners(&self) -> Vec<(String, usize, Point)> {
        let panels = (0..self.nodes.len()).filter(|&at| self.nodes[at].is_panel());
        panels
            .flat_map(|panel| {
                let stem = &self.nodes[panel].name;
                let corners = free_corners(self, panel).into_iter();
                corners.map(move |corner| (format!("{stem}.{}", corner.name), panel, corner.place))
            })
            .collect()
    }

    /// The edges of the flanges that one operation made which are what this edge is of its own: the ends of all of a tray's walls.
    /// This one first; only straight ones of which something is left.
    pub fn alike_edges(&self, edge: &EdgeRecord) -> Vec<&EdgeRecord> {
        let operation = |name: &str| name.split('.').next().unwrap_or(name).to_string();
        let own = edge.name.rsplit('.').next().unwrap_or(&edge.name);
        let mut all: Vec<&EdgeRecord> = self
            .edges
            .iter()
            .filter(|other| {
                other.line.is_line()
                    && operation(&other.name) == operation(&edge.name)
                    && other.name.rsplit('.').next() == Some(own)
                    && self.bends.iter().any(|bend| bend.flange == Some(other.panel))
                    && !self.segments_of(other.panel, other.tag).is_empty()
            })
            .collect();
        all.sort_by_key(|other| other.name != edge.name);
        all
    }

    /// The bend that a panel stands on.
    pub fn stands_on(&self, panel: usize) -> Option<&Bend> {
        self.bends.iter().find(|bend| bend.flange == Some(panel))
    }
}
