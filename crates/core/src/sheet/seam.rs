//! Joints between edges of the same or different blanks: what is said of each, and what they come to where the sheets lie.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Finding;
use crate::plane::Segment;
use crate::quantity::tolerance::{MODELLING_TOLERANCE, PARALLEL, TRACED};
use crate::quantity::{LengthUnit, length_text};
use crate::space::{Point3, Vector3};
use crate::work::sheet::{SeamAction, SeamAs, SeamLay, SeamWeld};

use super::face_names::wall_called;
use super::flat::Flat;
use super::fold::Folded;

/// A seam as it was said or made.
#[derive(Clone, Debug, PartialEq)]
pub struct SeamRecord {
    /// The operation that made it, or `OPERATION.n` of one that makes several.
    pub name: String,
    /// The two walls that lie together, by name: `base.cut`, `side.left`.
    pub walls: [String; 2],
    /// Edge to edge, or which covers the other.
    pub lay: SeamLay,
    /// Where it is welded.
    pub weld: SeamWeld,
    /// Whether the weld is ground flush.
    pub flush: bool,
    /// One of several that a seam became when its edges were parted: it may run beside nothing.
    pub half: bool,
}

impl SeamRecord {
    /// The operation that made it.
    pub fn operation(&self) -> &str {
        self.name.split('.').next().unwrap_or_default()
    }

    /// A seam edge to edge, welded from outside, as an operation makes it.
    pub fn plain(name: impl Into<String>, walls: [String; 2]) -> SeamRecord {
        let (lay, weld) = (SeamLay::EdgeToEdge, SeamWeld::Outside);
        SeamRecord { name: name.into(), walls, lay, weld, flush: false, half: false }
    }
}

/// A seam in words of the document, ready to be laid.
#[derive(Clone, Debug, PartialEq)]
pub struct SeamNumbers {
    /// The two walls.
    pub walls: [String; 2],
    /// How they lie together.
    pub seam: SeamAs,
}

/// Reads a seam.
pub(super) fn read_seam(given: &SeamAction) -> SeamNumbers {
    SeamNumbers { walls: [given.from.to_string(), given.to.to_string()], seam: given.seam.clone() }
}

/// What a seam comes to. Lengths mm, angles radians.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Seam {
    /// The operation that made it.
    pub name: String,
    /// The two walls.
    pub walls: [String; 2],
    /// The blanks that they are of, by their place in the set.
    pub blanks: [usize; 2],
    /// How far the two run beside each other.
    pub length: f64,
    /// How much of it a bead keeps out of: holes, heads and the faces of bolts nearer than a thickness.
    pub kept_out: f64,
    /// Between the sheets, from metal to metal: pi where they lie in one plane.
    pub angle: f64,
    /// The least distance between the two sheets.
    pub gap: f64,
    /// Between the two walls: what is open as a groove.
    pub groove: f64,
    /// How far apart the two walls are where the groove is widest.
    pub open: f64,
    /// Edge to edge, or which covers the other.
    pub lay: SeamLay,
    /// Where it is welded.
    pub weld: SeamWeld,
    /// Whether the weld is ground flush.
    pub flush: bool,
    /// The middle of where the two run beside each other.
    pub middle: Point3,
    /// Along it, a unit vector.
    pub along: Vector3,
}

impl Seam {
    /// Of two walls in one plane, as long as nothing.
    fn flat(record: &SeamRecord, blanks: [usize; 2], gap: f64, along: Vector3) -> Seam {
        Seam {
            name: record.name.clone(),
            walls: record.walls.clone(),
            blanks,
            length: 0.0,
            kept_out: 0.0,
            angle: std::f64::consts::PI,
            gap,
            groove: 0.0,
            open: gap,
            lay: record.lay,
            weld: record.weld,
            flush: record.flush,
            middle: Point3::default(),
            along,
        }
    }
}

/// Walls whose directions differ by more than this, radians, do not run together: half a degree.
const ASKEW: f64 = 0.0088;

/// Why two walls make no seam.
#[derive(Clone, Debug, PartialEq)]
pub enum SeamFault {
    /// No wall of this name.
    Unknown(String),
    /// A round edge, or one across a bend.
    NotStraight(String),
    /// They run in different directions, radians apart.
    Askew(f64),
    /// They do not run beside each other at all.
    Past,
    /// Further apart than is joined, mm.
    Apart(f64),
}

impl SeamFault {
    /// In words.
    pub(super) fn words(&self, seam: &SeamRecord, unit: LengthUnit) -> Finding {
        let [from, to] = &seam.walls;
        let (message, way_out, field) = match self {
            SeamFault::Unknown(name) => (
                format!("there is no edge called {name} at this step"),
                "Point at the edge, or check its name.".to_string(),
                if name == from { "from" } else { "to" },
            ),
            SeamFault::NotStraight(name) => (
                format!("{name} is not straight"),
                "Join straight edges.".to_string(),
                if name == from { "from" } else { "to" },
            ),
            SeamFault::Askew(angle) => (
                format!("{from} and {to} do not lie together: they run {} apart", crate::quantity::angle_text(*angle)),
                "Name two edges that run beside each other.".to_string(),
                "to",
            ),
            SeamFault::Past => (
                format!("{from} and {to} do not lie together: neither runs beside the other"),
                "Name two edges that run beside each other.".to_string(),
                "to",
            ),
            SeamFault::Apart(gap) => (
                format!("{from} and {to} do not lie together: they stand {} apart", length_text(*gap, unit)),
                "Bring the two together, or name the edge that lies beside it.".to_string(),
                "to",
            ),
        };
        Finding::error(message, way_out).at_field(field)
    }
}

/// A wall where it lies: stretches of it with the frame that it is seen in.
struct Wall {
    blank: usize,
    /// Each stretch on the lower and on the upper face, start then end, metal on the left in the flat.
    stretches: Vec<[[Point3; 2]; 2]>,
    /// Along the wall.
    along: Vector3,
    /// From the wall into its metal, on the lower face, square to the wall.
    inward: Vector3,
    /// From the lower to the upper face.
    up: Vector3,
    /// Of a wall that runs round with a bend: how long it is at the neutral line, and its middle.
    round: Option<(f64, Point3)>,
    /// Holes that a bead along it would run into: their middles, and how far to both sides along it.
    holes: Vec<(Point3, f64)>,
}

fn wall(all: &[(&Flat, &Folded)], name: &str) -> Result<Wall, SeamFault> {
    let found = all.iter().enumerate().find_map(|(blank, (flat, folded))| {
        wall_called(flat, name).map(|(node, own)| (blank, *flat, *folded, node, own))
    });
    let Some((blank, flat, folded, node, own)) = found else { return Err(SeamFault::Unknown(name.into())) };
    let straight = own.iter().all(|one| one.is_line());
    // A wall across a strip runs round with it.
    let bent = flat.nodes[node]
        .strip()
        .is_some_and(|strip| own.iter().any(|one| (strip.local(one.start).1 - strip.local(one.end).1).abs() > TRACED));
    if !straight || own.is_empty() {
        return Err(SeamFault::NotStraight(name.into()));
    }
    let place = |point, z| folded.apply(node, point, z);
    let thickness = flat.thickness;
    let round = bent.then(|| (own.iter().map(Segment::length).sum(), place(own[0].at(0.5), thickness / 2.0)));
    let stretches: Vec<[[Point3; 2]; 2]> =
        own.iter().map(|one| [0.0, thickness].map(|z| [place(one.start, z), place(one.end, z)])).collect();
    // A bead is about as wide as the sheet is thick; a bolt's face about twice its hole where no head is told (common practice).
    let near = flat.holes.iter().filter(|hole| hole.panel == node).filter_map(|hole| {
        let (wide, high) = (hole.extents.width() / 2.0, hole.extents.height() / 2.0);
        let round = hole.outline.as_circle().is_some();
        let half =
            if round { (2.0 * wide).max(hole.work.head / 2.0) } else { wide.hypot(high).max(hole.work.head / 2.0) };
        let off = own.iter().map(|one| one.distance_to(hole.centre)).fold(f64::INFINITY, f64::min);
        (off < half + thickness).then(|| (place(hole.centre, thickness / 2.0), half + thickness))
    });
    let holes = near.collect();
    let [[start, end], [over, _]] = stretches[0];
    let (along, up) = ((end - start).unit(), (over - start).unit());
    // Metal lies on the left of an edge, seen from above.
    Ok(Wall { blank, stretches, along, inward: up.cross(along), up, round, holes })
}

/// What a seam comes to.
///
/// # Errors
/// [`SeamFault`].
pub(super) fn seam_of(all: &[(&Flat, &Folded)], record: &SeamRecord) -> Result<Seam, SeamFault> {
    let (one, two) = (wall(all, &record.walls[0])?, wall(all, &record.walls[1])?);
    if let (Some((long, at)), Some((other, there))) = (one.round, two.round) {
        // Round a bend both were one: they lie together where their middles do.
        let gap = at.distance(there);
        let length = long.min(other);
        let blanks = [one.blank, two.blank];
        return Ok(Seam { length, middle: at, ..Seam::flat(record, blanks, gap, one.along) });
    }
    if one.round.is_some() || two.round.is_some() {
        let which = usize::from(two.round.is_some());
        return Err(SeamFault::NotStraight(record.walls[which].clone()));
    }
    let askew = one.along.cross(two.along).length().min(1.0).asin();
    if askew > ASKEW {
        return Err(SeamFault::Askew(askew));
    }
    let along = one.along;
    let from = one.stretches[0][0][0];
    let reach = |wall: &Wall| -> Vec<(f64, f64)> {
        let spans = wall.stretches.iter().map(|[low, high]| {
            // Both faces of a stretch: what it has on both.
            let span = |ends: &[Point3; 2]| {
                let (a, b) = ((ends[0] - from).dot(along), (ends[1] - from).dot(along));
                (a.min(b), a.max(b))
            };
            let (lower, upper) = (span(low), span(high));
            (lower.0.max(upper.0), lower.1.min(upper.1))
        });
        spans.filter(|(low, high)| high > low).collect()
    };
    let (mut length, mut middle, mut shared) = (0.0, 0.0, Vec::new());
    for a in reach(&one) {
        for b in reach(&two) {
            let (low, high) = (a.0.max(b.0), a.1.min(b.1));
            if high > low {
                length += high - low;
                shared.push((low, high));
                middle += (high - low) * (low + high) / 2.0;
            }
        }
    }
    if length < MODELLING_TOLERANCE {
        return Err(SeamFault::Past);
    }
    let at = middle / length;
    // Both seen along the seam, where its middle is: each sheet a band from its wall into its metal.
    let (x, y) = (one.inward, one.up);
    let flat_at = |wall: &Wall, upper: usize| {
        let [start, end] = wall.stretches[0][upper];
        let way = (end - start).unit();
        let rest = (start - from).dot(along);
        let point = start + way * ((at - rest) / way.dot(along));
        let by = point - from;
        [by.dot(x), by.dot(y)]
    };
    let band = |wall: &Wall| {
        let (low, high) = (flat_at(wall, 0), flat_at(wall, 1));
        let into = [wall.inward.dot(x), wall.inward.dot(y)];
        let deep = 20.0 * ((high[0] - low[0]).hypot(high[1] - low[1])).max(MODELLING_TOLERANCE);
        let out = |point: [f64; 2]| [point[0] + into[0] * deep, point[1] + into[1] * deep];
        [low, high, out(high), out(low)]
    };
    let (first, second) = (band(&one), band(&two));
    let gap = band_distance(&first, &second);
    let wall_far = |p: [f64; 2], q: [f64; 2]| (p[0] - q[0]).hypot(p[1] - q[1]);
    // Lower to lower and upper to upper where both faces look to the same side of the corner, crosswise where one is turned over.
    let (faces, there) = (one.up.dot(two.inward), two.up.dot(one.inward));
    let alike = if faces.abs() < PARALLEL { one.up.dot(two.up) > 0.0 } else { faces * there > 0.0 };
    let open = if alike {
        wall_far(first[0], second[0]).max(wall_far(first[1], second[1]))
    } else {
        wall_far(first[0], second[1]).max(wall_far(first[1], second[0]))
    };
    let middle_of = |wall: &Wall| {
        let (low, high) = (flat_at(wall, 0), flat_at(wall, 1));
        [(low[0] + high[0]) / 2.0, (low[1] + high[1]) / 2.0]
    };
    let (a, b) = (middle_of(&one), middle_of(&two));
    let centre = from + along * at + x * ((a[0] + b[0]) / 2.0) + y * ((a[1] + b[1]) / 2.0);
    let holes: Vec<(f64, f64)> = one
        .holes
        .iter()
        .chain(&two.holes)
        .map(|(place, half)| ((*place - from).dot(along), *half))
        .map(|(at, half)| (at - half, at + half))
        .collect();
    let kept_out = covered(&shared, holes);
    let angle = one.inward.angle_to(two.inward);
    let groove = std::f64::consts::PI - angle;
    let blanks = [one.blank, two.blank];
    Ok(Seam { length, kept_out, angle, groove, open, middle: centre, ..Seam::flat(record, blanks, gap, along) })
}

/// How much of some stretches of a line others cover, mm.
fn covered(stretches: &[(f64, f64)], mut by: Vec<(f64, f64)>) -> f64 {
    by.sort_by(|one, two| one.0.total_cmp(&two.0));
    let mut sum = 0.0;
    for &(low, high) in stretches {
        let mut from = low;
        for &(start, end) in &by {
            let (a, b) = (start.max(from), end.min(high));
            if b > a {
                sum += b - a;
                from = b;
            }
        }
    }
    sum
}

/// The least distance between two convex quadrilaterals of a plane, mm; 0 where they share something.
fn band_distance(one: &[[f64; 2]; 4], two: &[[f64; 2]; 4]) -> f64 {
    let inside = |point: [f64; 2], of: &[[f64; 2]; 4]| {
        let sides = (0..4).map(|at| {
            let (from, to) = (of[at], of[(at + 1) % 4]);
            (to[0] - from[0]) * (point[1] - from[1]) - (to[1] - from[1]) * (point[0] - from[0])
        });
        let sides: Vec<f64> = sides.collect();
        sides.iter().all(|&side| side > 0.0) || sides.iter().all(|&side| side < 0.0)
    };
    let to_side = |point: [f64; 2], from: [f64; 2], to: [f64; 2]| {
        let (dx, dy) = (to[0] - from[0], to[1] - from[1]);
        let share =
            ((point[0] - from[0]) * dx + (point[1] - from[1]) * dy) / (dx * dx + dy * dy).max(f64::MIN_POSITIVE);
        let share = share.clamp(0.0, 1.0);
        (point[0] - from[0] - dx * share).hypot(point[1] - from[1] - dy * share)
    };
    let mut least = f64::INFINITY;
    for (points, other) in [(one, two), (two, one)] {
        for &point in points {
            if inside(point, other) {
                return 0.0;
            }
            for at in 0..4 {
                least = least.min(to_side(point, other[at], other[(at + 1) % 4]));
            }
        }
    }
    least
}
