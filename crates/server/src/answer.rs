//! What the screen gets for a piece: everything resolved, drawn, measured and proved, in one answer. The front end
//! draws it and computes nothing of the trade.

use std::collections::{BTreeMap, HashMap, HashSet};

use base64::Engine as _;
use serde::Serialize;
use steelk_core::brake::BendReport;
use steelk_core::cutlist::{CutLine, cut_lines};
use steelk_core::finding::{Finding, Why};
use steelk_core::frame::holes_made_by;
use steelk_core::piece::{Made, Need, OperationState, Outcome, Piece, blanks_of};
use steelk_core::plane::{Box2, Outline, Point, Region, Segment};
use steelk_core::proof::{Breach, CallOutProof, RuleOutcome};
use steelk_core::quantity::{Amount, Dimension, LengthUnit, Quantity, decimal, length_text, quantity_text};
use steelk_core::sheet::{Part, ResolvedValue, SheetBlank, Sheets, Standing, TagKind, cut_edges, sheet_verb};
use steelk_core::space::{HoleField, Mesh, Point3, Vector3};
use steelk_core::table::{DatumCorner, HoleRow, hole_rows};
use steelk_core::work::sheet::{Direction, Make};
use utoipa::ToSchema;

use crate::audit_answer::AuditAnswer;
use crate::frame_answer::{FrameView, frame_figures};
use crate::seam_answer::{SeamView, seam_views};
use crate::summary::laid_box;
use crate::surface_answer::{SurfaceView, surface_views};

/// Everything about a piece.
#[derive(Serialize, ToSchema)]
pub struct BuildAnswer {
    /// Stock and bending as they came out.
    pub heading: Heading,
    /// One entry an operation, in order.
    pub operations: Vec<OperationAnswer>,
    /// Call-outs, in order.
    pub callouts: Vec<CallOutProof>,
    /// The blank; absent while nothing is built.
    pub blank: Option<BlankView>,
    /// The folded mesh.
    pub mesh: MeshView,
    /// Figures with their working.
    pub figures: Vec<Figure>,
    /// Bends with their working.
    pub bends: Vec<BendReport>,
    /// Shop rules.
    pub rules: Vec<RuleOutcome>,
    /// Broken rules.
    pub breaches: Vec<Breach>,
    /// Errors, warnings, hints.
    pub findings: Vec<Finding>,
    /// Cautions to show with the part.
    pub cautions: Vec<String>,
    /// Its lines of the cut list, one a blank, alike ones together.
    pub cut_lines: Vec<CutLine>,
    /// Joints between edges of its blanks, with their welds.
    pub seams: Vec<SeamView>,
    /// What its transitions came to.
    pub surfaces: Vec<SurfaceView>,
    /// Names that may be cited at this step.
    pub names: NameLists,
    /// Figures found twice, as far as every answer has them; the rest comes with `/api/audit`.
    pub audit: AuditAnswer,
    /// What a frame has.
    pub frame: Option<FrameView>,
}

/// Stock and bending in words.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Heading {
    pub material: String,
    pub thickness: String,
    pub gauge: Option<String>,
    pub radius: String,
    pub method: String,
}

/// What became of an operation.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct OperationAnswer {
    pub name: String,
    pub state: OperationState,
    /// Of a bend: the names of its edge's two ends, for `set_in`.
    pub sides: Vec<String>,
    /// Of a profile or a roll: its section, as it is seen from its end.
    pub section: Option<SectionView>,
    pub values: Vec<ResolvedValue>,
    /// Of a solved outline: what is missing, implied, or in disagreement.
    pub standing: Option<Standing>,
}

/// Names for completing what is typed.
#[derive(Default, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct NameLists {
    pub panels: Vec<String>,
    /// Edges that are free to be bent or measured from.
    pub edges: Vec<String>,
    pub bends: Vec<String>,
    pub holes: Vec<String>,
    /// Pressed forms.
    pub forms: Vec<String>,
    /// Of a frame: nodes, lines, members with their groups.
    pub nodes: Vec<String>,
    pub lines: Vec<String>,
    pub members: Vec<String>,
    /// Of a frame: its members and plates one by one.
    pub pieces: Vec<String>,
    /// Of a frame: the faces of its pieces; none where they are too many to choose from.
    pub faces: Vec<String>,
    /// The operation that made a feature, where that is not the first part of its name: holes of a frame's members.
    pub made_by: BTreeMap<String, String>,
}

/// More faces than this are not listed.
const LISTED_FACES: usize = 3000;

/// A figure as shown.
#[derive(Serialize, ToSchema)]
pub struct Figure {
    /// Key for tests and tables.
    pub key: String,
    /// What it is.
    pub label: String,
    /// With its unit.
    pub text: String,
    /// Its working, where there is any.
    pub why: Option<Why>,
}

/// The blank for the screen; millimetres, y down, so that it can be drawn as it is.
#[derive(Serialize, ToSchema)]
pub struct BlankView {
    /// Box around it.
    pub extents: Box2,
    /// Size with units, x then y.
    pub size: [String; 2],
    /// All material as one even-odd path.
    pub path: String,
    /// Panels, for picking.
    pub panels: Vec<Shape>,
    /// Named edges.
    pub edges: Vec<Shape>,
    /// Holes, but for perforations.
    pub holes: Vec<HoleView>,
    /// Pressed forms.
    pub forms: Vec<FormView>,
    /// Perforations: many holes of one shape.
    pub fields: Vec<FieldView>,
    /// Bends.
    pub bends: Vec<BendView>,
    /// Corners between free edges, for picking.
    pub corners: Vec<CornerView>,
    /// Of a piece of several blanks: each of them as it lies here, side by side.
    pub sheets: Vec<SheetView>,
}

/// One of several blanks.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SheetView {
    /// `H-1-B`; alike blanks share theirs.
    pub mark: String,
    pub letter: String,
    /// How many of it a piece has, and whose opposite hand it is, in words.
    pub words: String,
    /// Box around it, y down.
    pub extents: Box2,
    /// Its material as one even-odd path.
    pub path: String,
    /// Size with units, x then y.
    pub size: [String; 2],
    /// Mass with its unit.
    pub mass: String,
    /// The panels that it has.
    pub panels: Vec<String>,
}

/// A corner between two free edges of a panel.
#[derive(Serialize, ToSchema)]
pub struct CornerView {
    /// As it is cited: `base.front/right`.
    pub name: String,
    /// On the blank, y down.
    pub at: Point,
    /// On the folded part, in the middle of the sheet, mm.
    pub made: Point3,
}

/// More corners than this are not sent: nobody picks among them.
const MOST_CORNERS: usize = 400;

/// A named path with a place for its label.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Shape {
    pub name: String,
    pub operation: String,
    pub path: String,
    pub label: Point,
    /// Its size or length in words, for the table of edges and holes.
    pub text: String,
}

/// A hole on the blank.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct HoleView {
    pub name: String,
    /// Its letter and number in the hole table.
    pub balloon: String,
    pub operation: String,
    pub path: String,
    pub label: Point,
    /// Its size, what is done there, and where it stands.
    pub text: String,
    /// Whether it goes through the sheet.
    pub through: bool,
    /// Whether the cutter cuts it.
    pub cut: bool,
    /// The largest circle at its face, where a head is sunk or bored; empty otherwise.
    pub head: String,
    /// The box around it with its head: left, top, width, height; y down.
    pub around: [f64; 4],
}

/// A form on the blank.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct FormView {
    pub name: String,
    pub operation: String,
    /// Its footprint.
    pub path: String,
    /// From its centre out over its open side; nothing where it is closed all round.
    pub arrow: Option<[Point; 2]>,
    pub label: Point,
    /// What it is and which way it stands.
    pub text: String,
    /// Whether it stands out of the upper face.
    pub up: bool,
    /// The box around it: left, top, width, height; y down.
    pub around: [f64; 4],
}

/// The whole blank as one SVG path for a small picture; perforations of more holes than it could show are left out.
pub fn preview_path(part: &Part) -> String {
    const MOST_SHOWN: usize = 2000;
    let region = &part.blank.region;
    let holes = if region.holes.len() <= MOST_SHOWN { &region.holes[..] } else { &[] };
    std::iter::once(&region.outer).chain(holes).map(outline_path).collect()
}

/// A perforation on the blank: copies of one path.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct FieldView {
    pub operation: String,
    /// One hole as an SVG path that moves from its place on: relative commands only.
    pub path: String,
    /// Places, base64 of f32 x 2 each; y down.
    pub places: String,
    pub count: usize,
    /// Size of one and how many, in words.
    pub text: String,
}

/// A bend on the blank.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct BendView {
    pub name: String,
    pub line: [Point; 2],
    pub tangents: Vec<[Point; 2]>,
    pub direction: Direction,
    pub text: String,
    /// Length along the bend line with its unit.
    pub length: String,
    /// Bend allowance with its unit.
    pub allowance: String,
    /// Bend deduction with its unit.
    pub deduction: String,
}

/// The mesh as base64 of little-endian arrays: positions f32 x 3 a point, corners u32 x 3 a triangle, owners u32 a
/// triangle, lines u32 x 2 an edge worth drawing.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct MeshView {
    pub positions: String,
    pub triangles: String,
    pub owners: String,
    pub lines: String,
    pub features: Vec<String>,
    /// Perforations: holes that the triangles leave closed.
    pub fields: Vec<MeshField>,
    /// Box around the points: least x y z, greatest x y z.
    pub extents: [f32; 6],
}

/// Holes of one shape in one panel, for the folded view.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct MeshField {
    pub feature: String,
    /// Their outline about its place: x, y, x, y, mm.
    pub ring: Vec<f32>,
    /// Unit vectors of the outline's x and y on the folded part.
    pub along: [f32; 3],
    pub across: [f32; 3],
    /// The place of the first on the lower and on the upper face, mm.
    pub lower: [f32; 3],
    pub upper: [f32; 3],
    /// How far each lies from the first, along `along` and `across`: base64 of f32 x 2 each, mm. Absent where it is the blank's
    /// field of the same place in its list: those are sent once.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub places: Option<String>,
}

impl MeshView {
    /// Packs the mesh of a piece of one blank: where the holes of its perforations lie comes with the blank.
    pub fn of_blank(mesh: &Mesh) -> Self {
        Self::with(mesh, |field| mesh_field(field, None))
    }

    /// Packs a mesh.
    pub fn new(mesh: &Mesh) -> Self {
        Self::with(mesh, |field| mesh_field(field, Some(packed(field.places.iter().flatten().map(|&v| v as f32)))))
    }

    fn with(mesh: &Mesh, field: impl FnMut(&HoleField) -> MeshField) -> Self {
        let encode = |bytes: Vec<u8>| base64::engine::general_purpose::STANDARD.encode(bytes);
        let floats = mesh.points.iter().flat_map(|point| [point.x as f32, point.y as f32, point.z as f32]);
        let around = mesh.extents();
        let extents = if mesh.points.is_empty() {
            [0.0; 6]
        } else {
            [around.low.x, around.low.y, around.low.z, around.high.x, around.high.y, around.high.z].map(|v| v as f32)
        };
        MeshView {
            positions: encode(floats.flat_map(f32::to_le_bytes).collect()),
            triangles: encode(mesh.triangles.iter().flatten().flat_map(|at| at.to_le_bytes()).collect()),
            owners: encode(mesh.owners.iter().flat_map(|at| at.to_le_bytes()).collect()),
            lines: encode(mesh.lines.iter().flatten().flat_map(|at| at.to_le_bytes()).collect()),
            features: mesh.features.clone(),
            fields: mesh.fields.iter().map(field).collect(),
            extents,
        }
    }
}

fn mesh_field(field: &HoleField, places: Option<String>) -> MeshField {
    let three = |v: Vector3| [v.x as f32, v.y as f32, v.z as f32];
    MeshField {
        feature: field.feature.clone(),
        ring: field.ring.iter().flatten().map(|&v| v as f32).collect(),
        along: three(field.along),
        across: three(field.across),
        lower: three(field.lower.from_origin()),
        upper: three(field.upper.from_origin()),
        places,
    }
}

fn packed(floats: impl Iterator<Item = f32>) -> String {
    base64::engine::general_purpose::STANDARD.encode(floats.flat_map(f32::to_le_bytes).collect::<Vec<u8>>())
}

impl BuildAnswer {
    /// The answer for an evaluated piece, printed in `show`; what `need` leaves out is empty.
    pub fn new(piece: &Piece, outcome: &Outcome, show: LengthUnit, need: Need) -> Self {
        let resolved = &outcome.resolved;
        let length = |value: Option<f64>| {
            value.map_or("not known".into(), |value| quantity_text(Quantity::new(value, Dimension::LENGTH), show))
        };
        let part = outcome.laid_out();
        let bends = outcome.bends();
        BuildAnswer {
            heading: Heading {
                material: resolved.material.map_or(piece.stock.material.clone(), |material| material.title.clone()),
                thickness: length(resolved.thickness),
                gauge: resolved.gauge.clone(),
                radius: length(resolved.radius),
                method: resolved.method_words.clone(),
            },
            operations: piece
                .operations
                .iter()
                .zip(&outcome.states)
                .map(|(operation, &state)| OperationAnswer {
                    name: operation.name.clone(),
                    state,
                    sides: part.map(|part| sides(part, operation)).unwrap_or_default(),
                    section: part.and_then(|part| section(part, operation, show)),
                    values: resolved.values.get(&operation.name).cloned().unwrap_or_default(),
                    standing: resolved
                        .operations
                        .iter()
                        .find(|(name, _)| *name == operation.name)
                        .and_then(|(_, numbers)| numbers.standing().cloned()),
                })
                .collect(),
            callouts: outcome.callouts.clone(),
            audit: AuditAnswer::new(piece, outcome, None, show),
            blank: outcome
                .sheets()
                .filter(|_| need != Need::Words)
                .map(|sheets| blank_view(piece, sheets, &bends, show)),
            mesh: if outcome.part().is_some() {
                MeshView::of_blank(&outcome.mesh)
            } else {
                MeshView::new(&outcome.mesh)
            },
            figures: match &outcome.made {
                // A draft tells what it does to size and mass.
                _ if need == Need::Words => Vec::new(),
                Some(Made::Frame(_)) => frame_figures(piece, outcome, show),
                Some(Made::Sheet(_)) => figure_list(piece, outcome, show),
                None => Vec::new(),
            },
            bends,
            rules: outcome.rules.clone(),
            breaches: outcome.breaches.clone(),
            findings: outcome.findings.clone(),
            cautions: outcome.cautions.clone(),
            cut_lines: cut_lines(piece, outcome),
            seams: outcome.sheets().map(|sheets| seam_views(piece, outcome, sheets, show)).unwrap_or_default(),
            surfaces: outcome.sheets().map(|sheets| surface_views(sheets, show)).unwrap_or_default(),
            names: match &outcome.made {
                _ if need == Need::Words => NameLists::default(),
                Some(Made::Frame(frame)) => frame_names(piece, frame),
                Some(Made::Sheet(_)) => part.map(name_lists).unwrap_or_default(),
                None => NameLists::default(),
            },
            frame: outcome.frame().filter(|_| need != Need::Words).map(|frame| FrameView::new(frame, show)),
        }
    }
}

fn sides(part: &Part, operation: &steelk_core::work::Operation) -> Vec<String> {
    if let steelk_core::work::Action::Rib(rib) = &operation.action {
        return part.flat.bend(&rib.bend).map(|bend| bend.ends.to_vec()).unwrap_or_default();
    }
    // Of several edges all the sides; each once.
    let edges = sheet_verb(&operation.action).map(|verb| verb.edges(&operation.action)).unwrap_or_default();
    let mut sides: Vec<String> = Vec::new();
    for edge in part.flat.edges.iter().filter(|edge| edges.iter().any(|one| **one == edge.name)) {
        sides.extend(edge.sides.iter().filter(|side| !sides.contains(side)).cloned().collect::<Vec<_>>());
    }
    sides
}

/// The metal's outline seen from its end, x along the blank, y up.
#[derive(Serialize, ToSchema)]
pub struct SectionView {
    /// The outline, closed by its first point, mm.
    pub outline: Vec<Point>,
    /// Left, lower, width, height, mm.
    pub extents: [f64; 4],
    /// Names of its straight pieces, beside them.
    pub names: Vec<SectionName>,
    /// Its size in words.
    pub words: String,
}

/// A name in a section.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SectionName {
    pub name: String,
    pub x: f64,
    pub y: f64,
}

/// The section of a profile or a roll as it is folded: from its own panels and bends, in order along the blank.
fn section(part: &Part, operation: &steelk_core::work::Operation, show: LengthUnit) -> Option<SectionView> {
    if !sheet_verb(&operation.action).is_some_and(|verb| verb.seen_from_its_end) {
        return None;
    }
    let flat = &part.flat;
    let stem = format!("{}.", operation.name);
    let mut nodes: Vec<usize> = (0..flat.nodes.len())
        .filter(|&at| flat.nodes[at].name == operation.name || flat.nodes[at].name.starts_with(&stem))
        .collect();
    if nodes.is_empty() {
        // The work is in the list and could not be done, or another step of the same name was.
        return None;
    }
    nodes.sort_by(|&one, &two| flat.nodes[one].laid.low.x.total_cmp(&flat.nodes[two].laid.low.x));
    let seen = |at: usize, x: f64, z: f64| {
        let node = &flat.nodes[at];
        let place = part.folded.apply(at, Point::new(x, node.laid.centre().y), z);
        Point::new(place.x, place.z)
    };
    let (mut lower, mut upper, mut names) = (Vec::new(), Vec::new(), Vec::new());
    for &at in &nodes {
        let node = &flat.nodes[at];
        let (low, high) = (node.laid.low.x, node.laid.high.x);
        let steps = node.strip().map_or(1, |strip| (strip.angle / 0.1).ceil() as usize);
        for step in 0..=steps {
            let x = low + (high - low) * step as f64 / steps as f64;
            lower.push(seen(at, x, 0.0));
            upper.push(seen(at, x, flat.thickness));
        }
        if node.is_panel() {
            let middle = seen(at, (low + high) / 2.0, flat.thickness / 2.0);
            let short = node.name.strip_prefix(&stem).unwrap_or(&node.name).to_string();
            names.push(SectionName { name: short, x: middle.x, y: middle.y });
        }
    }
    upper.reverse();
    let outline: Vec<Point> = lower.into_iter().chain(upper).collect();
    let around = outline.iter().fold(Box2::EMPTY, |mut around, &point| {
        around.hold(point);
        around
    });
    let length = |value: f64| length_text(value, show);
    Some(SectionView {
        extents: [around.low.x, around.low.y, around.width(), around.height()],
        words: format!("{} by {}", length(around.width()), length(around.height())),
        outline,
        names,
    })
}

/// Names of a frame: groups stand before their members.
fn frame_names(piece: &Piece, frame: &steelk_core::piece::FrameOutcome) -> NameLists {
    let made = &frame.made.frame;
    let mut members: Vec<String> = Vec::new();
    for member in &made.members {
        if !members.contains(&member.group) {
            members.push(member.group.clone());
        }
    }
    members.extend(made.members.iter().map(|member| member.name.clone()));
    let mut lines: Vec<String> = piece
        .operations
        .iter()
        .map(|operation| operation.name.clone())
        .filter(|name| made.skeleton.lines.iter().any(|line| line.name.starts_with(&format!("{name}."))))
        .collect();
    lines.extend(made.skeleton.lines.iter().map(|line| line.name.clone()));
    let members_own = made.members.iter().map(|member| member.name.clone());
    let pieces: Vec<String> = members_own.chain(made.plates.iter().map(|plate| plate.name.clone())).collect();
    let bodies = (0..made.members.len()).filter_map(|at| frame.made.member_body(at).ok());
    let bodies = bodies.chain(frame.made.plate_bodies().iter().filter_map(|body| body.as_ref().ok()));
    let mut known = HashSet::new();
    let mut faces: Vec<String> = bodies
        .flat_map(|body| &body.faces)
        .filter(|face| known.insert(face.name.as_str()))
        .take(LISTED_FACES + 1)
        .map(|face| face.name.clone())
        .collect();
    if faces.len() > LISTED_FACES {
        faces.clear();
    }
    NameLists {
        nodes: made.skeleton.nodes.iter().map(|node| node.name.clone()).collect(),
        lines,
        members,
        pieces,
        faces,
        made_by: holes_made_by(&frame.made),
        ..NameLists::default()
    }
}

fn name_lists(part: &Part) -> NameLists {
    let flat = &part.flat;
    NameLists {
        nodes: Vec::new(),
        lines: Vec::new(),
        members: Vec::new(),
        pieces: Vec::new(),
        faces: Vec::new(),
        made_by: BTreeMap::new(),
        panels: flat.nodes.iter().filter(|node| node.is_panel()).map(|node| node.name.clone()).collect(),
        edges: flat
            .edges
            .iter()
            .filter(|edge| !flat.segments_of(edge.panel, edge.tag).is_empty())
            .map(|edge| edge.name.clone())
            .collect(),
        bends: flat.bends.iter().map(|bend| bend.name.clone()).collect(),
        forms: flat.forms.iter().map(|form| form.name.clone()).collect(),
        holes: {
            // Of a perforation the first hole stands for all: a list of thousands helps nobody.
            let fields = flat.fields();
            let hidden: HashSet<usize> = fields.iter().flat_map(|(.., holes)| holes[1..].iter().copied()).collect();
            flat.holes
                .iter()
                .enumerate()
                .filter(|(at, _)| !hidden.contains(at))
                .map(|(_, one)| one.name.clone())
                .collect()
        },
    }
}

pub(crate) fn down(point: Point) -> Point {
    Point::new(point.x, 0.0 - point.y)
}

fn number(value: f64) -> String {
    decimal(value, 6)
}

pub(crate) fn path_to(segment: &Segment, path: &mut String) {
    use std::fmt::Write as _;
    let end = down(segment.end);
    let _ = if segment.is_line() {
        write!(path, "L{} {}", number(end.x), number(end.y))
    } else {
        let radius = number(segment.radius());
        let large = u8::from(segment.sweep().abs() > std::f64::consts::PI);
        let sweep = u8::from(segment.bulge < 0.0);
        write!(path, "A{radius} {radius} 0 {large} {sweep} {} {}", number(end.x), number(end.y))
    };
}

pub(crate) fn move_to(point: Point) -> String {
    let point = down(point);
    format!("M{} {}", number(point.x), number(point.y))
}

pub(crate) fn outline_path(outline: &Outline) -> String {
    let mut path = outline.edges.first().map(|edge| move_to(edge.start)).unwrap_or_default();
    for (segment, _) in outline.segments() {
        path_to(&segment, &mut path);
    }
    path.push('Z');
    path
}

fn blank_view(piece: &Piece, sheets: &Sheets, reports: &[BendReport], show: LengthUnit) -> BlankView {
    let part = sheets.laid_out();
    let flat = &part.flat;
    let length = |value: f64| quantity_text(Quantity::new(value, Dimension::LENGTH), show);
    let extents = laid_box(part);
    let in_field = flat.fields();
    let field_tags: HashSet<u32> =
        in_field.iter().flat_map(|(.., holes)| holes.iter().map(|&at| flat.holes[at].tag)).collect();
    let plain = |outline: &&Outline| outline.edges.first().is_none_or(|edge| !field_tags.contains(&edge.tag));
    let without_fields = |region: &Region| Region {
        outer: region.outer.clone(),
        holes: region.holes.iter().filter(plain).cloned().collect(),
    };
    let path: String = part.blank.region.outlines().filter(plain).map(outline_path).collect();
    let panels = flat
        .nodes
        .iter()
        .filter(|node| node.is_panel())
        .map(|node| Shape {
            name: node.name.clone(),
            operation: node.name.clone(),
            path: node.region.outlines().filter(plain).map(outline_path).collect(),
            label: down(without_fields(&node.region).centroid()),
            text: format!("{} by {}", length(node.laid.width()), length(node.laid.height())),
        })
        .collect();
    let edge_shape = |name: &str, operation: &str, segments: &[Segment]| {
        let longest = segments.iter().max_by(|one, two| one.length().total_cmp(&two.length()))?;
        let mut path = String::new();
        for segment in segments {
            path.push_str(&move_to(segment.start));
            path_to(segment, &mut path);
        }
        let total: f64 = segments.iter().map(Segment::length).sum();
        Some(Shape {
            name: name.to_string(),
            operation: operation.to_string(),
            path,
            label: down(longest.at(0.5)),
            text: length(total),
        })
    };
    let laid = flat.edges.iter().filter_map(|edge| {
        let segments = flat.segments_of(edge.panel, edge.tag);
        edge_shape(&edge.name, &flat.nodes[edge.panel].name, &segments)
    });
    // Edges that cuts have made belong to what made them.
    let made = cut_edges(flat).into_iter().filter_map(|edge| {
        let record = &flat.tags[edge.tag as usize];
        let operation = match record.kind {
            TagKind::Hole(hole) => flat.holes[hole].operation.as_str(),
            _ => record.name.split('.').next().unwrap_or_default(),
        };
        edge_shape(&edge.name, operation, &edge.stretches)
    });
    let edges = laid.chain(made).collect();
    let outlines = part.blank.region.holes.iter().filter(plain);
    let cut: HashMap<u32, &Outline> = outlines.filter_map(|one| Some((one.edges.first()?.tag, one))).collect();
    // A perforation's holes are many and have no balloons.
    let alone = flat.holes.iter().any(|hole| !field_tags.contains(&hole.tag));
    let each = sheets.blanks().iter().filter(|_| alone);
    let rows: Vec<HoleRow> = each.flat_map(|blank| hole_rows(&blank.part, DatumCorner::default(), show)).collect();
    // Places are told from the lower left corner of the blank that a hole is on.
    let lows: HashMap<&str, Point> = sheets
        .blanks()
        .iter()
        .enumerate()
        .flat_map(|(which, blank)| {
            let low = blank.part.blank.extents().low + sheets.shift(which);
            blank.part.flat.holes.iter().map(move |hole| (hole.name.as_str(), low))
        })
        .collect();
    let balloons: HashMap<&str, String> = rows.iter().map(|row| (row.name.as_str(), row.balloon.clone())).collect();
    let holes = flat
        .holes
        .iter()
        .filter(|hole| !field_tags.contains(&hole.tag))
        .filter_map(|hole| {
            let outline = if hole.work.through { *cut.get(&hole.tag)? } else { &hole.outline };
            let size = match outline.as_circle() {
                Some((_, radius)) => format!("diameter {}", length(2.0 * radius)),
                None => format!("{} by {}", length(hole.extents.width()), length(hole.extents.height())),
            };
            let work = if hole.work.words.is_empty() { String::new() } else { format!(", {}", hole.work.words) };
            let low = lows.get(hole.name.as_str()).copied().unwrap_or(extents.low);
            let centre = format!("at x {}, y {}", length(hole.centre.x - low.x), length(hole.centre.y - low.y));
            Some(HoleView {
                name: hole.name.clone(),
                balloon: balloons.get(hole.name.as_str()).cloned().unwrap_or_default(),
                operation: hole.operation.clone(),
                path: outline_path(outline),
                label: down(hole.centre),
                text: format!("{size}{work}, {centre}"),
                through: hole.work.through,
                cut: hole.work.make == Make::Cut,
                around: {
                    let own = outline.extents();
                    let head = hole.work.head / 2.0;
                    let (left, right) = (own.low.x.min(hole.centre.x - head), own.high.x.max(hole.centre.x + head));
                    let (low, high) = (own.low.y.min(hole.centre.y - head), own.high.y.max(hole.centre.y + head));
                    [left, -high, right - left, high - low]
                },
                head: match hole.work.head {
                    head if head > 0.0 => outline_path(&Outline::circle(hole.centre, head / 2.0, 0)),
                    _ => String::new(),
                },
            })
        })
        .collect();
    let forms = flat.forms.iter().map(|form| FormView {
        name: form.name.clone(),
        operation: form.operation.clone(),
        path: outline_path(&form.outline),
        arrow: form.opening().map(|by| [down(form.centre), down(form.centre + form.ways[1] * (1.5 * by))]),
        label: down(form.centre),
        text: form.words(show),
        up: form.up,
        around: {
            let own = &form.extents;
            [own.low.x, -own.high.y, own.width(), own.height()]
        },
    });
    let ribs = flat.ribs.iter().filter_map(|rib| {
        let footprint = rib.footprint(flat)?;
        let own = footprint.extents();
        Some(FormView {
            name: rib.name.clone(),
            operation: rib.operation.clone(),
            path: outline_path(&footprint),
            arrow: None,
            label: down(rib.centre),
            text: rib.words(flat, show),
            up: rib.stands_up(flat),
            around: [own.low.x, -own.high.y, own.width(), own.height()],
        })
    });
    let forms = forms.chain(ribs).collect();
    let bends = flat
        .bends
        .iter()
        .zip(reports)
        .map(|(bend, report)| {
            let strip = flat.strip_of(bend);
            let line = |v: f64| [down(strip.place(0.0, v)), down(strip.place(strip.length, v))];
            BendView {
                name: bend.name.clone(),
                line: line(strip.width / 2.0),
                tangents: vec![line(0.0), line(strip.width)],
                direction: strip.direction,
                length: length(report.length),
                allowance: length(report.allowance),
                deduction: length(report.deduction),
                text: format!(
                    "{} {} {} R{}",
                    report.mark,
                    strip.direction.word(),
                    decimal(strip.angle.to_degrees(), 2),
                    decimal(strip.radius / show.millimetres(), if show == LengthUnit::Mm { 2 } else { 3 })
                ),
            }
        })
        .collect();
    let flipped =
        Box2 { low: Point::new(extents.low.x, -extents.high.y), high: Point::new(extents.high.x, -extents.low.y) };
    BlankView {
        extents: flipped,
        size: [length(extents.width()), length(extents.height())],
        path,
        panels,
        edges,
        holes,
        forms,
        fields: in_field.iter().map(|field| field_view(part, field, &length)).collect(),
        bends,
        corners: corners(part),
        sheets: sheet_views(piece, sheets, show),
    }
}

fn sheet_views(piece: &Piece, sheets: &Sheets, show: LengthUnit) -> Vec<SheetView> {
    if sheets.only().is_some() {
        return Vec::new();
    }
    let lines = blanks_of(piece, sheets);
    let length = |value: f64| quantity_text(Quantity::new(value, Dimension::LENGTH), show);
    let view = |(which, blank): (usize, &SheetBlank)| {
        let line = &lines[sheets.line_of(which)];
        let (around, by) = (blank.part.blank.extents(), sheets.shift(which));
        let (low, high) = (around.low + by, around.high + by);
        SheetView {
            mark: line.mark.clone(),
            letter: line.letter.clone(),
            words: line.words(),
            extents: Box2 { low: Point::new(low.x, -high.y), high: Point::new(high.x, -low.y) },
            path: blank.part.blank.region.outlines().map(|one| outline_path(&one.moved(|place| place + by))).collect(),
            size: [length(around.width()), length(around.height())],
            mass: show.says(Amount::Mass, blank.figures.mass, 3),
            panels: blank.part.flat.nodes.iter().filter(|node| node.is_panel()).map(|node| node.name.clone()).collect(),
        }
    };
    sheets.blanks().iter().enumerate().map(view).collect()
}

fn corners(part: &Part) -> Vec<CornerView> {
    let all = part.flat.corners().into_iter().take(MOST_CORNERS);
    all.map(|(name, panel, at)| CornerView {
        name,
        at: down(at),
        made: part.folded.apply(panel, at, part.flat.thickness / 2.0),
    })
    .collect()
}

fn field_view(
    part: &Part,
    (operation, _, holes): &(String, usize, Vec<usize>),
    length: &dyn Fn(f64) -> String,
) -> FieldView {
    let all = &part.flat.holes;
    let first = &all[holes[0]];
    let mut path = String::new();
    let mut from = first.centre;
    for (at, (segment, _)) in first.outline.segments().enumerate() {
        if at == 0 {
            path.push_str(&format!("m{} {}", number(segment.start.x - from.x), number(from.y - segment.start.y)));
        }
        from = segment.start;
        let (x, y) = (number(segment.end.x - from.x), number(from.y - segment.end.y));
        if segment.is_line() {
            path.push_str(&format!("l{x} {y}"));
        } else {
            let radius = number(segment.radius());
            let large = u8::from(segment.sweep().abs() > std::f64::consts::PI);
            path.push_str(&format!("a{radius} {radius} 0 {large} {} {x} {y}", u8::from(segment.bulge < 0.0)));
        }
    }
    path.push('z');
    let places = packed(holes.iter().flat_map(|&at| [all[at].centre.x as f32, -all[at].centre.y as f32]));
    let size = match first.outline.as_circle() {
        Some((_, radius)) => format!("diameter {}", length(2.0 * radius)),
        None => format!("{} by {}", length(first.extents.width()), length(first.extents.height())),
    };
    FieldView {
        operation: operation.clone(),
        path,
        places,
        count: holes.len(),
        text: format!("{} of {size}", holes.len()),
    }
}

fn figure_list(piece: &Piece, outcome: &Outcome, show: LengthUnit) -> Vec<Figure> {
    let (Some(figures), Some(part)) = (outcome.figures(), outcome.part()) else {
        return outcome.sheets().map(|sheets| figures_of_several(piece, sheets, show)).unwrap_or_default();
    };
    let unit = show.sign();
    let size = |value: f64| decimal(value / show.millimetres(), if show == LengthUnit::Mm { 2 } else { 4 });
    let pair = |one: f64, two: f64| format!("{} \u{d7} {} {unit}", size(one), size(two));
    let plain = |key: &str, label: &str, text: String| Figure { key: key.into(), label: label.into(), text, why: None };
    let mass = figures.why_mass(part.flat.thickness, part.density, show);
    let folded = figures.folded_size;
    vec![
        plain("blank", "blank", pair(figures.blank_width, figures.blank_height)),
        plain("cut_length", "cut length", format!("{} {unit}", size(figures.cut_length))),
        plain("pierces", "pierces", figures.pierces.to_string()),
        plain("bends", "bends", figures.bends.to_string()),
        Figure {
            key: "mass".into(),
            label: "mass each".into(),
            text: show.says(Amount::Mass, figures.mass, 3),
            why: Some(mass),
        },
        plain("mass_total", "mass of all", show.says(Amount::Mass, figures.mass * f64::from(piece.quantity), 3)),
        plain("net_area", "net area", format!("{} {unit}\u{b2}", show.bare(Amount::Area, figures.net_area, 2))),
        plain(
            "folded_size",
            "folded size",
            format!("{} \u{d7} {} \u{d7} {} {unit}", size(folded.x), size(folded.y), size(folded.z)),
        ),
        plain(
            "centre_of_gravity",
            "centre of gravity",
            format!(
                "x {}, y {}, z {} {unit}",
                size(figures.centre_of_gravity.x),
                size(figures.centre_of_gravity.y),
                size(figures.centre_of_gravity.z)
            ),
        ),
        plain(
            "folded_volume",
            "folded volume",
            format!(
                "{} {unit}\u{b3} ({})",
                show.bare(Amount::Cubic, figures.folded_volume, 1),
                show.says(Amount::Mass, figures.folded_mass, 3)
            ),
        ),
    ]
}

/// Figures of a piece of several blanks: of all of them together, and how many there are.
fn figures_of_several(piece: &Piece, sheets: &Sheets, show: LengthUnit) -> Vec<Figure> {
    let whole = sheets.whole();
    let unit = show.sign();
    let size = |value: f64| decimal(value / show.millimetres(), if show == LengthUnit::Mm { 2 } else { 4 });
    let plain = |key: &str, label: &str, text: String| Figure { key: key.into(), label: label.into(), text, why: None };
    let lines = blanks_of(piece, sheets);
    let marks: Vec<String> = lines
        .iter()
        .map(|line| if line.count > 1 { format!("{} \u{d7} {}", line.count, line.letter) } else { line.letter.clone() })
        .collect();
    let working: Vec<String> = sheets
        .blanks()
        .iter()
        .enumerate()
        .map(|(which, blank)| {
            format!("{} {}", lines[sheets.line_of(which)].mark, show.says(Amount::Mass, blank.figures.mass, 4))
        })
        .collect();
    let mass = Why {
        title: "Mass".into(),
        formula: "mass = sum of net blank area x thickness x density over the sheets".into(),
        working: format!("{} = {}", working.join(" + "), show.says(Amount::Mass, whole.mass, 4)),
        source: "metal is neither made nor lost in a bend; density from data/materials.toml".into(),
    };
    let (folded, centre) = (whole.folded_size, whole.centre_of_gravity);
    let volume = show.bare(Amount::Cubic, whole.folded_volume, 1);
    vec![
        plain("sheets", "sheets", format!("{}: {}", whole.sheets, marks.join(", "))),
        plain("cut_length", "cut length", format!("{} {unit}", size(whole.cut_length))),
        plain("pierces", "pierces", whole.pierces.to_string()),
        plain("bends", "bends", whole.bends.to_string()),
        Figure {
            key: "mass".into(),
            label: "mass each".into(),
            text: show.says(Amount::Mass, whole.mass, 3),
            why: Some(mass),
        },
        plain("mass_total", "mass of all", show.says(Amount::Mass, whole.mass * f64::from(piece.quantity), 3)),
        plain("net_area", "net area", format!("{} {unit}\u{b2}", show.bare(Amount::Area, whole.net_area, 2))),
        plain(
            "folded_size",
            "folded size",
            format!("{} \u{d7} {} \u{d7} {} {unit}", size(folded.x), size(folded.y), size(folded.z)),
        ),
        plain(
            "centre_of_gravity",
            "centre of gravity",
            format!("x {}, y {}, z {} {unit}", size(centre.x), size(centre.y), size(centre.z)),
        ),
        plain(
            "folded_volume",
            "folded volume",
            format!("{volume} {unit}\u{b3} ({})", show.says(Amount::Mass, whole.folded_mass, 3)),
        ),
    ]
}
