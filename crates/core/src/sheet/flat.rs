//! The flat model: panels and bend strips lying in the plane of the blank, with their names.

use std::collections::BTreeMap;
use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Box2, Outline, Point, Region, Segment, Tag, Vector};
use crate::space::Motion;
use crate::work::sheet::{Direction, Reach};

use super::bending::AllowanceRule;
use super::form::Form;
use super::hole::HoleWork;
use super::record::CutRecord;
use super::rib::Rib;

/// A bend strip: a rectangle between two tangent lines.
///
/// Its frame: `u` along the bend line from `origin`, `v` across from the first tangent line (v = 0) to the second
/// (v = `width`).
#[derive(Clone, Debug, PartialEq)]
pub struct Strip {
    /// Where u = v = 0.
    pub origin: Point,
    /// Unit vector of u.
    pub along: Vector,
    /// Unit vector of v, square to `along`.
    pub across: Vector,
    /// Length along the bend line, mm.
    pub length: f64,
    /// Flat width: the bend allowance, mm.
    pub width: f64,
    /// Bend angle, radians from flat.
    pub angle: f64,
    /// Inside radius, mm.
    pub radius: f64,
    /// Which face is inside the bend.
    pub direction: Direction,
}

impl Strip {
    /// Frame coordinates (u, v) of a point of the flat, mm.
    pub fn local(&self, point: Point) -> (f64, f64) {
        let from = point - self.origin;
        (from.dot(self.along), from.dot(self.across))
    }

    /// The point of the flat at frame coordinates (u, v), mm.
    pub fn place(&self, u: f64, v: f64) -> Point {
        self.origin + self.along * u + self.across * v
    }

    /// Distance of the neutral axis from the inside face, mm.
    pub fn neutral_depth(&self) -> f64 {
        self.width / self.angle - self.radius
    }

    /// The K-factor that its width amounts to for a thickness.
    pub fn k_factor(&self, thickness: f64) -> f64 {
        self.neutral_depth() / thickness
    }
}

/// A bend's sizes before it lies anywhere.
#[derive(Clone, Debug, PartialEq)]
pub struct BendSizes {
    /// Bend angle, radians from flat.
    pub angle: f64,
    /// Inside radius, mm.
    pub radius: f64,
    /// Which face is inside the bend.
    pub direction: Direction,
    /// Flat width: the bend allowance, mm.
    pub width: f64,
    /// How the width was found.
    pub rule: AllowanceRule,
    /// How it is made.
    pub make: BendMake,
}

impl BendSizes {
    /// The strip of this bend, from its frame and its length along the bend line, mm.
    pub fn strip(&self, origin: Point, along: Vector, across: Vector, length: f64) -> Strip {
        Strip {
            origin,
            along,
            across,
            length,
            width: self.width,
            angle: self.angle,
            radius: self.radius,
            direction: self.direction,
        }
    }
}

/// What a node of the part is.
#[derive(Clone, Debug, PartialEq)]
pub enum NodeKind {
    /// Flat.
    Panel,
    /// Bent.
    Strip(Strip),
}

/// A panel or a strip with the material that is left of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Node {
    /// Panel: the operation's name. Strip: the same name; see [`Node::is_panel`].
    pub name: String,
    /// Panel or strip.
    pub kind: NodeKind,
    /// Its material in the flat.
    pub region: Arc<Region>,
    /// Its box as laid down, before anything was cut from it: holes are centred by it.
    pub laid: Box2,
    /// A panel of what encloses something: its lower face is the outer one, whichever way anything is bent to it.
    pub is_shell: bool,
}

impl Node {
    /// How the names of its faces begin: a bend has its flange's name, and is told from it.
    pub fn stands(&self) -> String {
        format!("{}{}", self.name, if self.is_panel() { "" } else { ".bend" })
    }

    /// Whether it is a panel.
    pub fn is_panel(&self) -> bool {
        matches!(self.kind, NodeKind::Panel)
    }

    /// Its strip, when it is one.
    pub fn strip(&self) -> Option<&Strip> {
        match &self.kind {
            NodeKind::Panel => None,
            NodeKind::Strip(strip) => Some(strip),
        }
    }
}

/// What a tag on an edge stands for.
#[derive(Clone, Debug, PartialEq)]
pub struct TagRecord {
    /// Full name: `base.front`, `drain.3`.
    pub name: String,
    /// What it is.
    pub kind: TagKind,
}

/// Kinds of tagged edges.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum TagKind {
    /// No name.
    None,
    /// A panel's edge.
    Edge,
    /// The end of a bend strip.
    BendEnd,
    /// The line where a panel meets a strip.
    Joint,
    /// A hole; the number is its place in [`Flat::holes`].
    Hole(usize),
    /// A bend relief or a corner cut.
    Relief,
}

/// A named straight edge as it was laid down.
#[derive(Clone, Debug, PartialEq)]
pub struct EdgeRecord {
    /// Full name, `base.front`.
    pub name: String,
    /// Its tag on outlines.
    pub tag: Tag,
    /// The panel's index in [`Flat::nodes`].
    pub panel: usize,
    /// As laid down, material on the left.
    pub line: Segment,
    /// Names of the sides at its start and its end (`left`, `right`, ...): what `set_in` cites.
    pub sides: [String; 2],
    /// The bend laid along it, as an index in [`Flat::bends`].
    pub bends: Vec<usize>,
}

/// A bend as it was made.
#[derive(Clone, Debug, PartialEq)]
pub struct Bend {
    /// Name: that of its flange.
    pub name: String,
    /// Index of its strip in [`Flat::nodes`].
    pub strip: usize,
    /// Index of the panel on its first tangent line; `None` where another strip or nothing is.
    pub parent: Option<usize>,
    /// Index of the panel on its second tangent line; `None` where another strip or nothing is.
    pub flange: Option<usize>,
    /// The edge it was laid along, an index in [`Flat::edges`]; `None` for one that was laid along none.
    pub edge: Option<usize>,
    /// What its two ends are called: where u = 0, and where u is its length.
    pub ends: [String; 2],
    /// From the edge as laid down to the parent's tangent line, mm (0 or less: into the panel).
    pub tangent_at: f64,
    /// How it is made, which settles the rules that it keeps.
    pub make: BendMake,
    /// How its allowance was found.
    pub rule: AllowanceRule,
}

impl Bend {
    /// Whether a panel lies on either of its tangent lines.
    pub fn touches(&self, panel: usize) -> bool {
        self.parent == Some(panel) || self.flange == Some(panel)
    }
}

/// How a bend is made.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BendMake {
    /// On the press brake, in one stroke.
    Brake,
    /// Rolled.
    Roll,
    /// A hem: bent past square, then closed.
    Hem,
    /// A brake line of a developed surface, stepped with others that run to one corner.
    Line,
}

/// Which side of a bend's lines is meant.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BendSide {
    /// Outside mould line (outermost tangent above 90 deg).
    MouldOutside,
    /// Inside mould line (innermost tangent above 90 deg).
    MouldInside,
    /// Tangent line.
    Tangent,
}

impl BendSide {
    /// The side of this name.
    pub fn named(name: &str) -> Option<BendSide> {
        match name {
            "mould-outside" => Some(BendSide::MouldOutside),
            "mould-inside" => Some(BendSide::MouldInside),
            "tangent" => Some(BendSide::Tangent),
            _ => None,
        }
    }
}

/// A hole as it was made.
#[derive(Clone, Debug, PartialEq)]
pub struct Hole {
    /// Its own name: `bore`, or `drain.3` for one of several.
    pub name: String,
    /// The operation's name.
    pub operation: String,
    /// Index of the panel in [`Flat::nodes`].
    pub panel: usize,
    /// Its centre in the flat.
    pub centre: Point,
    /// Its box in the flat.
    pub extents: Box2,
    /// Its tag on the panel's hole outline.
    pub tag: Tag,
    /// Its outline in the flat, counter-clockwise, as it was made.
    pub outline: Outline,
    /// What is done there besides.
    pub work: HoleWork,
    /// What it was cut through.
    pub reach: Reach,
    /// The hole that it is a copy of, and how it lies to it.
    pub copy: Option<HoleCopy>,
    /// Of a row that is divided from corner to corner: nobody forgot its ends.
    pub is_divided: bool,
}

/// How a hole that was made again lies to the first: mirrored across the line through a point square to a unit vector,
/// then shifted, mm.
#[derive(Clone, Debug, PartialEq)]
pub struct HoleCopy {
    /// The first one's name.
    pub of: String,
    /// Point and normal of the mirror line; moved only where `None`.
    pub mirror: Option<(Point, Vector)>,
    /// The shift.
    pub shift: Vector,
}

impl HoleCopy {
    /// Where a point of the first one comes to.
    pub fn point(&self, point: Point) -> Point {
        let point = match self.mirror {
            Some((on, normal)) => point - normal * (2.0 * (point - on).dot(normal)),
            None => point,
        };
        point + self.shift
    }

    /// The first one's outline as the copy has it, counter-clockwise.
    pub fn outline(&self, outline: &Outline) -> Outline {
        let mut moved = outline.moved(|point| self.point(point));
        if self.mirror.is_some() {
            moved.edges.iter_mut().for_each(|edge| edge.bulge = -edge.bulge);
        }
        moved.counter_clockwise()
    }
}

/// A tab as it was laid.
#[derive(Clone, Debug, PartialEq)]
pub struct TabRecord {
    /// Its name, `ears.2`; its tip is the edge of that name.
    pub name: String,
    /// The operation's name.
    pub operation: String,
    /// Index of its panel in [`Flat::nodes`].
    pub panel: usize,
    /// Where it leaves the edge, material on the left.
    pub root: Segment,
    /// Its tip.
    pub tip: Segment,
}

/// An operation of so many holes is a perforation.
pub const LEAST_FIELD: usize = 250;

/// The part in the flat.
#[derive(Clone, Debug, Default)]
pub struct Flat {
    /// Thickness, mm.
    pub thickness: f64,
    /// Panels and strips; the first is the root, which stays put.
    pub nodes: Vec<Node>,
    /// What each tag stands for; index 0 is "no name".
    pub tags: Arc<Vec<TagRecord>>,
    /// Named edges.
    pub edges: Vec<EdgeRecord>,
    /// Bends in the order made.
    pub bends: Vec<Bend>,
    /// Holes in the order made.
    pub holes: Arc<Vec<Hole>>,
    /// Pressed forms in the order made.
    pub forms: Arc<Vec<Form>>,
    /// Ribs across bends in the order made.
    pub ribs: Arc<Vec<Rib>>,
    /// Tabs in the order made.
    pub tabs: Vec<TabRecord>,
    /// What each cut found and left, in the order made.
    pub cuts: Vec<Arc<CutRecord>>,
    /// How the root lies in the piece: still, but for blanks that were parted from another.
    pub pose: Motion,
}

impl Flat {
    /// An empty part of this thickness, mm.
    pub fn new(thickness: f64) -> Self {
        let none = TagRecord { name: String::new(), kind: TagKind::None };
        Flat { thickness, tags: Arc::new(vec![none]), ..Flat::default() }
    }

    /// A fresh tag.
    pub fn tag(&mut self, name: impl Into<String>, kind: TagKind) -> Tag {
        Arc::make_mut(&mut self.tags).push(TagRecord { name: name.into(), kind });
        (self.tags.len() - 1) as Tag
    }

    /// The panel of this name.
    pub fn panel(&self, name: &str) -> Option<usize> {
        self.nodes.iter().position(|node| node.is_panel() && node.name == name)
    }

    /// The panel of this name.
    ///
    /// # Errors
    /// No such panel at this step, with those that there are; at the field `panel`.
    pub(in crate::sheet) fn find_panel(&self, name: &str) -> Result<usize, Finding> {
        self.panel(name).ok_or_else(|| {
            let known: Vec<&str> =
                self.nodes.iter().filter(|node| node.is_panel()).map(|node| node.name.as_str()).collect();
            let way_out = match known.is_empty() {
                true => "Lay down a base panel first.".to_string(),
                false => format!("The panels at this step are {}.", known.join(", ")),
            };
            Finding::error(format!("there is no panel called {name} at this step"), way_out).at_field("panel")
        })
    }

    /// How far a panel as it was laid reaches from a strip, square to it, mm: past its second tangent line, or back from
    /// its first.
    pub fn laid_reach(&self, panel: usize, strip: &Strip, beyond: bool) -> f64 {
        let Box2 { low, high } = self.nodes[panel].laid;
        [low, Point::new(high.x, low.y), high, Point::new(low.x, high.y)]
            .iter()
            .map(|&corner| {
                let v = strip.local(corner).1;
                if beyond { v - strip.width } else { -v }
            })
            .fold(0.0, f64::max)
    }

    /// The bend of this name.
    pub fn bend(&self, name: &str) -> Option<&Bend> {
        self.bends.iter().find(|bend| bend.name == name)
    }

    /// The strip of a bend.
    pub fn strip_of(&self, bend: &Bend) -> &Strip {
        // A bend is only made together with its strip.
        self.nodes[bend.strip].strip().expect("a bend's node is a strip")
    }

    /// The straight edges of a panel that still carry this tag.
    pub fn segments_of(&self, panel: usize, tag: Tag) -> Vec<Segment> {
        self.nodes[panel].region.outer.segments().filter(|(_, one)| *one == tag).map(|(segment, _)| segment).collect()
    }

    /// Perforations: holes through a panel that one operation made in such numbers that they are drawn as copies. Each
    /// is the operation's name, its panel, and the holes' places in [`Flat::holes`].
    pub fn fields(&self) -> Vec<(String, usize, Vec<usize>)> {
        let mut by_operation: BTreeMap<(&str, usize), Vec<usize>> = BTreeMap::new();
        for (at, hole) in self.holes.iter().enumerate().filter(|(_, hole)| hole.work.through) {
            by_operation.entry((&hole.operation, hole.panel)).or_default().push(at);
        }
        by_operation
            .into_iter()
            .filter(|(_, holes)| holes.len() >= LEAST_FIELD)
            .map(|((operation, panel), holes)| (operation.to_string(), panel, holes))
            .collect()
    }

    /// Net area of the blank, mm2: the sum of its nodes.
    pub fn area(&self) -> f64 {
        self.nodes.iter().map(|node| node.region.area()).sum()
    }
}
