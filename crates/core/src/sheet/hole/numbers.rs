//! Holes in numbers: mm and radians.

use crate::plane::Vector;
use crate::sheet::shape::Laid;
use crate::stock::{Screw, Thread};
use crate::work::sheet::{Face, HoleSide, Make, Reach, RimCorners, RimLine, Spacing, Stagger};

/// The numbers of one operation's holes.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct HoleNumbers {
    pub panel: String,
    /// Further panels that get the same.
    pub also: Vec<String>,
    pub reach: Reach,
    pub shape: HoleShape,
    /// Turned from the direction that it is placed along, radians.
    pub turn: f64,
    pub work: WorkNumbers,
    pub place: PlaceNumbers,
    pub spread: SpreadNumbers,
    /// Mirrored across the panel's centre lines: to the other side along x, along y.
    pub mirror: (bool, bool),
    /// Places left out, counted from one.
    pub skip: Vec<usize>,
}

/// Shapes of hole, mm.
#[derive(Clone, Debug, PartialEq)]
pub enum HoleShape {
    /// Diameter.
    Round(f64),
    /// Width, height, corner radius.
    Rectangle(f64, f64, f64),
    /// Width, height, and a tool radius that opens the corners: on the bisector, or along the longer side.
    Opened {
        /// Along.
        width: f64,
        /// Across.
        height: f64,
        /// Of the tool.
        radius: f64,
        /// On the corner's bisector; along the longer side otherwise.
        bisector: bool,
    },
    /// Centre to centre, width.
    Slot(f64, f64),
    /// Head diameter, slot width, travel.
    Keyhole(f64, f64, f64),
    /// Any outline, placed by the centre of its box.
    Outline(Box<Laid>),
}

/// What is drilled, mm and radians. The default is a plain hole through.
#[derive(Clone, Debug, Default, PartialEq)]
#[allow(missing_docs)]
pub struct WorkNumbers {
    /// What it is called on a drawing: "M10", "clearance M8 medium"; empty for a plain hole.
    pub designation: String,
    /// Where the designation's size comes from.
    pub source: String,
    /// Diameter drilled; 0 where nothing is drilled.
    pub drill: f64,
    /// Depth at full diameter of a blind hole.
    pub depth: Option<f64>,
    /// Angle of the drill's point.
    pub point: f64,
    /// Depth of full thread.
    pub thread_depth: Option<f64>,
    /// The thread that it is tapped with.
    pub thread: Option<&'static Thread>,
    /// The screw that its head is for, where it is said by one.
    pub screw: Option<&'static Screw>,
    /// Head diameter and cone angle.
    pub countersink: Option<(f64, f64)>,
    /// Diameter and depth.
    pub counterbore: Option<(f64, f64)>,
    pub face: Face,
    pub make: Make,
}

/// Where the first hole goes, mm.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PlaceNumbers {
    /// Distances from lines.
    pub from: Vec<FromNumbers>,
    /// Another hole's name, and how far across and up from its centre.
    pub hole: Option<(String, Vector)>,
    /// A round edge's name, and how far in from its middle; at its centre where that is `None`.
    pub round: Option<(String, Option<f64>)>,
}

/// A distance from a line, mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct FromNumbers {
    pub edge: String,
    pub distance: f64,
    pub to: HoleSide,
}

/// Several off.
#[derive(Clone, Debug, PartialEq)]
pub enum SpreadNumbers {
    /// Rows of rows; none is a single hole.
    Rows(Vec<RepeatNumbers>),
    /// Count, radius, first angle, and the arc that they share (`None`: the whole circle).
    Circle(usize, f64, f64, Option<f64>),
    /// Places from the first.
    Points(Vec<Vector>),
    /// Along an edge.
    Along(AlongNumbers),
    /// Rows, pitch, margin.
    Fill(Stagger, f64, f64),
    /// From the left and the right side, from the other two.
    Corners(f64, f64),
    /// Columns, rows, and the same two distances.
    Between(usize, usize, f64, f64),
    /// Along the flange of a rim.
    Rim(RimRowNumbers),
}

/// A row at a spacing.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct RepeatNumbers {
    pub count: usize,
    pub spacing: f64,
    pub spacing_is: Spacing,
    pub along: Option<String>,
}

/// A row along the flange of a rim.
#[derive(Clone, Debug, PartialEq)]
pub struct RimRowNumbers {
    /// From the opening's edge or the outer one, mm.
    pub distance: f64,
    /// Which of the two.
    pub from: RimLine,
    /// How many equal spaces, or the most from hole to hole, mm.
    pub spaces: Result<usize, f64>,
    /// What becomes of the corner holes.
    pub corners: RimCorners,
}

/// A row along an edge.
#[derive(Clone, Debug, PartialEq)]
pub struct AlongNumbers {
    /// The edge.
    pub edge: String,
    /// From the edge to the row.
    pub distance: f64,
    /// How many equal spaces, or the most from hole to hole.
    pub spaces: Result<usize, f64>,
    /// From the edge's start to the first, from its end to the last.
    pub inset: (f64, f64),
    /// Whether the ends are made.
    pub ends: bool,
}
