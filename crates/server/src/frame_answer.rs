//! What the screen gets for a frame: lines, nodes, members, cut list with pictures, welds, bars, sections.

use std::collections::BTreeMap;

use serde::Serialize;
use steelk_core::finding::Why;
use steelk_core::frame::{FrameLine, has_wrap, piece_picture, why_length, why_mass};
use steelk_core::nest::BarResult;
use steelk_core::piece::{BarGroup, FrameOutcome, Outcome, Piece};
use steelk_core::plane::Point;
use steelk_core::quantity::{Amount, LengthUnit, decimal, length_text};
use steelk_core::section::{Form, Section, catalogue};
use steelk_core::space::Point3;
use utoipa::ToSchema;

use crate::answer::{Figure, outline_path};

/// A frame for the screen.
#[derive(Serialize, ToSchema)]
pub struct FrameView {
    /// Nodes by name.
    pub nodes: Vec<NodeView>,
    /// Centre lines.
    pub lines: Vec<LineView>,
    /// The cut list.
    pub cut_list: Vec<CutListView>,
    /// Mass and centre of gravity of the whole and of each sub-weldment, in words.
    pub sums: Vec<SumView>,
    /// Welds.
    pub welds: Vec<WeldView>,
    /// What is to be cut from bars.
    pub bars: Vec<BarGroupView>,
    /// Members that share space.
    pub clashes: Vec<ClashView>,
    /// Overall size, in words.
    pub size: String,
    /// Figures of lifting lugs, for review.
    pub lugs: Vec<Why>,
}

/// A node.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct NodeView {
    pub name: String,
    pub place: Point3,
    /// Coordinates with units.
    pub text: String,
}

/// A centre line: its ends, and places along an arc.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct LineView {
    pub name: String,
    pub places: Vec<Point3>,
    /// Length with its unit.
    pub text: String,
    /// Whether a section is on it.
    pub has_section: bool,
}

/// A line of the cut list with its picture.
#[derive(Serialize, ToSchema)]
pub struct CutListView {
    /// The line.
    pub line: FrameLine,
    /// Length with its unit.
    pub length_text: String,
    /// Short point to short point with its unit.
    pub short_text: String,
    /// Along the centroid with its unit.
    pub centroid_text: String,
    /// The piece from its side as an SVG path, y down.
    pub path: String,
    /// View box of the path.
    pub view_box: String,
    /// Where the picture's middle was taken out, along x.
    pub broken: Option<f64>,
    /// Whether it has a wrap template: round, with an end that is not square.
    pub wrap: bool,
    /// The working of its length.
    pub why_length: Option<Why>,
    /// The working of its mass.
    pub why_mass: Option<Why>,
}

/// A sum in words.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SumView {
    pub weldment: String,
    pub mass: f64,
    pub text: String,
    pub centre_of_gravity: Point3,
}

/// A weld.
#[derive(Serialize, ToSchema)]
pub struct WeldView {
    /// The weld.
    #[serde(flatten)]
    pub weld: steelk_core::frame::Weld,
    /// Length with its unit.
    pub length_text: String,
}

/// Pieces of one section and material.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct BarGroupView {
    pub section: String,
    pub material: String,
    pub mass_per_metre: f64,
    pub pieces: usize,
    /// Length of all pieces with its unit.
    pub length_text: String,
    /// Stock lengths with their units.
    pub stock: Vec<String>,
}

/// A clash.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct ClashView {
    pub members: Vec<String>,
    pub place: Point3,
    pub text: String,
}

/// A section for the picker.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SectionRow {
    pub name: String,
    pub form: String,
    /// Its outline as an even-odd SVG path, y down, mm, about the middle.
    pub path: String,
    pub width: f64,
    pub height: f64,
    /// kg/m in steel of 7850 kg/m3.
    pub mass_per_metre: f64,
    /// mm2.
    pub area: f64,
    pub source: String,
}

/// Every section that is kept.
pub fn sections() -> Vec<SectionRow> {
    catalogue().iter().map(|row| section_row(&row.section)).collect()
}

/// A section drawn and weighed.
pub fn section_row(section: &Section) -> SectionRow {
    let around = section.extents();
    let density = if section.form == Form::Timber { 500.0 } else { 7850.0 };
    SectionRow {
        name: section.name.clone(),
        form: section.form.words().into(),
        path: section.region.outlines().map(outline_path).collect(),
        width: around.width(),
        height: around.height(),
        mass_per_metre: section.mass_per_metre(density),
        area: section.area(),
        source: section.source.clone(),
    }
}

/// A polygon as a path and its view box, y down.
fn polygon(points: &[Point], size: (f64, f64)) -> (String, String) {
    let mut path = String::new();
    for (at, point) in points.iter().enumerate() {
        path.push_str(&format!(
            "{}{} {}",
            if at == 0 { "M" } else { "L" },
            decimal(point.x, 3),
            decimal(0.0 - point.y, 3)
        ));
    }
    if !path.is_empty() {
        path.push('Z');
    }
    let margin = size.1 * 0.08;
    let view = [-margin, -size.1 - margin, size.0 + 2.0 * margin, size.1 + 2.0 * margin];
    (path, view.map(|value| decimal(value, 3)).join(" "))
}

impl FrameView {
    /// The view of a frame.
    pub fn new(frame: &FrameOutcome, show: LengthUnit) -> FrameView {
        let made = &frame.made;
        let length = |value: f64| length_text(value, show);
        let with_section: std::collections::HashSet<&str> =
            made.frame.members.iter().flat_map(|member| &member.lines).map(|line| line.name.as_str()).collect();
        let cut_list = made
            .list
            .lines
            .iter()
            .enumerate()
            .map(|(index, line)| {
                let (member, plate) = (made.member_of_line(index), made.plate_of_line(index));
                let (path, view_box, broken) = match (member, plate) {
                    (Some(member), _) => {
                        let picture = piece_picture(member);
                        let (path, view) = polygon(&picture.outline, picture.size);
                        (path, view, picture.broken)
                    }
                    (None, Some(plate)) => {
                        let around = plate.part.blank.extents();
                        let margin = around.width().max(around.height()) * 0.04;
                        let view = [
                            around.low.x - margin,
                            -around.high.y - margin,
                            around.width() + 2.0 * margin,
                            around.height() + 2.0 * margin,
                        ];
                        let path = crate::answer::preview_path(&plate.part);
                        (path, view.map(|value| decimal(value, 3)).join(" "), None)
                    }
                    _ => (String::new(), "0 0 1 1".into(), None),
                };
                CutListView {
                    length_text: length(line.length),
                    short_text: length(line.short_length),
                    centroid_text: length(line.centroid_length),
                    path,
                    view_box,
                    broken,
                    wrap: member.is_some_and(has_wrap),
                    why_length: member.map(|member| why_length(member, show)),
                    why_mass: member.map(|member| why_mass(member, show)).or_else(|| {
                        plate.map(|plate| {
                            steelk_core::sheet::figures(&plate.part).why_mass(
                                plate.thickness,
                                plate.material.density,
                                show,
                            )
                        })
                    }),
                    line: line.clone(),
                }
            })
            .collect();
        FrameView {
            nodes: made
                .frame
                .skeleton
                .nodes
                .iter()
                .map(|node| NodeView {
                    name: node.name.clone(),
                    place: node.place,
                    text: format!("x {}, y {}, z {}", length(node.place.x), length(node.place.y), length(node.place.z)),
                })
                .collect(),
            lines: made
                .frame
                .skeleton
                .lines
                .iter()
                .map(|line| {
                    let steps = if line.arc.is_some() { 24 } else { 1 };
                    LineView {
                        name: line.name.clone(),
                        places: (0..=steps)
                            .map(|at| line.at(line.length() * f64::from(at) / f64::from(steps)))
                            .collect(),
                        text: length(line.length()),
                        has_section: with_section.contains(line.name.as_str()),
                    }
                })
                .collect(),
            cut_list,
            sums: made
                .list
                .sums
                .iter()
                .map(|sum| {
                    let at = sum.centre_of_gravity;
                    SumView {
                        weldment: sum.weldment.clone(),
                        mass: sum.mass,
                        centre_of_gravity: at,
                        text: format!(
                            "{} pieces, {}, centre of gravity x {}, y {}, z {}, paint {}",
                            sum.pieces,
                            show.says(Amount::Mass, sum.mass, 2),
                            length(at.x),
                            length(at.y),
                            length(at.z),
                            raised(&show.says(Amount::Paint, sum.paint, 2))
                        ),
                    }
                })
                .collect(),
            welds: frame
                .welds
                .iter()
                .map(|weld| WeldView { length_text: length(weld.length), weld: weld.clone() })
                .collect(),
            bars: frame.bars.iter().map(|group| bar_group(group, &length)).collect(),
            clashes: frame
                .clashes
                .iter()
                .map(|clash| ClashView {
                    members: clash.members.iter().map(|&at| made.frame.members[at].name.clone()).collect(),
                    place: clash.place,
                    text: raised(&show.says(Amount::Volume, clash.volume, 3)),
                })
                .collect(),
            size: size_text(frame, show),
            lugs: made
                .frame
                .plates
                .iter()
                .filter_map(|plate| plate.lug.as_ref())
                .flat_map(|lug| lug.whys.clone())
                .collect(),
        }
    }
}

/// A unit's power written as one: `m2` as `m\u{b2}`.
fn raised(text: &str) -> String {
    match text.strip_suffix('2') {
        Some(rest) => format!("{rest}\u{b2}"),
        None => text.strip_suffix('3').map_or_else(|| text.to_string(), |rest| format!("{rest}\u{b3}")),
    }
}

/// Overall size of a frame in words.
pub fn size_text(frame: &FrameOutcome, show: LengthUnit) -> String {
    frame.made.extents().map_or("nothing yet".into(), |around| {
        let size = around.size();
        let length = |value: f64| length_text(value, show);
        format!("{} \u{d7} {} \u{d7} {}", length(size.x), length(size.y), length(size.z))
    })
}

fn bar_group(group: &BarGroup, length: &dyn Fn(f64) -> String) -> BarGroupView {
    BarGroupView {
        section: group.section.clone(),
        material: group.material.clone(),
        mass_per_metre: group.mass_per_metre,
        pieces: group.problem.pieces.iter().map(|piece| piece.quantity).sum(),
        length_text: length(group.problem.pieces.iter().map(|piece| piece.length * piece.quantity as f64).sum()),
        stock: group
            .problem
            .stock
            .iter()
            .map(|bar| match bar.quantity {
                Some(count) => format!("{count} x {}", length(bar.length)),
                None => length(bar.length),
            })
            .collect(),
    }
}

/// Figures of a frame for the proof strip.
pub fn frame_figures(piece: &Piece, outcome: &Outcome, show: LengthUnit) -> Vec<Figure> {
    let Some(frame) = outcome.frame() else { return Vec::new() };
    let list = &frame.made.list;
    let mass = list.sums.first().map_or(0.0, |sum| sum.mass);
    let plain = |key: &str, label: &str, text: String| Figure { key: key.into(), label: label.into(), text, why: None };
    let bars: usize =
        frame.bars.iter().map(|group| group.problem.pieces.iter().map(|one| one.quantity).sum::<usize>()).sum();
    vec![
        plain("size", "overall size", size_text(frame, show)),
        plain("members", "members \u{b7} lines of the list", format!("{bars} \u{b7} {}", list.lines.len())),
        plain("welds", "welds", {
            let length: f64 = frame.welds.iter().map(|weld| weld.length).sum();
            format!("{} \u{b7} {}", frame.welds.len(), show.says(Amount::Run, length, 2))
        }),
        Figure {
            key: "mass".into(),
            label: "mass each".into(),
            text: show.says(Amount::Mass, mass, 3),
            why: Some(Why {
                title: "Mass of the frame".into(),
                formula: "sum of each line's mass x quantity".into(),
                working: list
                    .lines
                    .iter()
                    .map(|line| {
                        format!("{} {} x {}", line.mark, line.quantity, show.says(Amount::Mass, line.mass_each, 3))
                    })
                    .collect::<Vec<_>>()
                    .join(" + "),
                source: "each line's own working is in the cut list".into(),
            }),
        },
        plain("mass_total", "mass of all", show.says(Amount::Mass, mass * f64::from(piece.quantity), 3)),
    ]
}

/// A solved group for the screen.
#[derive(Serialize, ToSchema)]
pub struct BarsView {
    /// Section.
    pub section: String,
    /// Material.
    pub material: String,
    /// The plan, where there is one.
    pub result: Option<BarResult>,
    /// Why there is none.
    pub fault: Option<String>,
    /// In words: bars, bound, whether proved.
    pub words: String,
    /// How much a turned neighbour takes over, for marks that are turned to share a cut, mm.
    pub shared: BTreeMap<String, f64>,
    /// Lengths of the marks, mm.
    pub lengths: BTreeMap<String, f64>,
    /// Kerf, mm.
    pub kerf: f64,
    /// Cut off each end, mm.
    pub end_trim: f64,
}

fn bars(count: usize) -> String {
    if count == 1 { "1 bar".into() } else { format!("{count} bars") }
}

impl BarsView {
    /// A group with what came of it.
    pub fn new(
        group: &BarGroup,
        solved: Result<BarResult, steelk_core::nest::NestError>,
        show: LengthUnit,
    ) -> BarsView {
        let words = match &solved {
            Ok(result) => {
                format!(
                    "{}, {}; at least {} and {} are needed: {}",
                    bars(result.bars_used),
                    length_text(result.length_used, show),
                    bars(result.lower_bound),
                    length_text(result.length_bound, show),
                    if result.optimal { "proved best" } else { "best found" }
                ) + if result.turned.is_empty() { "" } else { "; mitres turned to share their cuts" }
            }
            Err(fault) => format!("{}. {}", fault.message, fault.way_out),
        };
        let shared = match &solved {
            Ok(result) => group
                .problem
                .pieces
                .iter()
                .filter(|piece| result.turned.contains(&piece.mark))
                .map(|piece| (piece.mark.clone(), piece.shared))
                .collect(),
            Err(_) => BTreeMap::new(),
        };
        BarsView {
            shared,
            section: group.section.clone(),
            material: group.material.clone(),
            fault: solved.as_ref().err().map(|fault| format!("{}. {}", fault.message, fault.way_out)),
            result: solved.ok(),
            words,
            lengths: group.problem.pieces.iter().map(|piece| (piece.mark.clone(), piece.length)).collect(),
            kerf: group.problem.kerf,
            end_trim: group.problem.end_trim,
        }
    }
}

/// A frame's centre lines seen from the corner, as a path and its view box, for a small picture.
pub fn skeleton_path(frame: &FrameOutcome) -> (String, String) {
    // The corner standpoint of the stage: from the right, in front and above.
    let (right, up) = ((0.7809, 0.6247, 0.0), (-0.2938, 0.3672, 0.8826));
    let seen = |at: Point3| {
        Point::new(at.x * right.0 + at.y * right.1 + at.z * right.2, at.x * up.0 + at.y * up.1 + at.z * up.2)
    };
    let mut path = String::new();
    let mut around = steelk_core::plane::Box2::EMPTY;
    for line in frame.made.frame.skeleton.lines.iter().take(400) {
        let steps = if line.arc.is_some() { 12 } else { 1 };
        for at in 0..=steps {
            let place = seen(line.at(line.length() * f64::from(at) / f64::from(steps)));
            around.hold(place);
            path.push_str(&format!(
                "{}{} {}",
                if at == 0 { "M" } else { "L" },
                decimal(place.x, 1),
                decimal(0.0 - place.y, 1)
            ));
        }
    }
    if path.is_empty() {
        return (path, "0 0 1 1".into());
    }
    let margin = 0.03 * around.width().max(around.height()).max(1.0);
    let view =
        [around.low.x - margin, -around.high.y - margin, around.width() + 2.0 * margin, around.height() + 2.0 * margin];
    (path, view.map(|value| decimal(value, 1)).join(" "))
}
