//! Tabs on an edge, and the slots that they go through in the folded part.

use std::sync::Arc;

use crate::finding::Finding;
use crate::plane::{Edge, MODELLING_TOLERANCE, Outline, Point, Segment, Vector};
use crate::quantity::{LengthUnit, length_text};
use crate::sheet::flange::{EdgeFrame, folded_now, straight_edge};
use crate::sheet::flat::{EdgeRecord, Flat, TabRecord, TagKind};
use crate::sheet::hole::{self, HoleWork, NewHole};
use crate::sheet::reader::Reader;
use crate::work::sheet::{SlotsAction, TabAction};

use super::edge::{check_row, read_row, row_places};

/// Tabs in numbers, mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct TabNumbers {
    pub edge: String,
    pub width: f64,
    pub height: f64,
    pub at: Option<f64>,
    pub count: usize,
    pub spacing: f64,
}

/// Slots for tabs in numbers, mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct SlotsNumbers {
    pub tabs: String,
    pub panel: String,
    pub clearance: f64,
}

/// Reads tabs. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_tab(reader: &mut Reader<'_>, given: &TabAction) -> Option<TabNumbers> {
    let width = reader.size("width", &given.width, "a tab's width");
    let height = reader.size("height", &given.height, "a tab's height");
    let (at, count, spacing) = read_row(reader, &given.at, &given.count, &given.spacing)?;
    Some(TabNumbers { edge: given.edge.to_string(), width: width?, height: height?, at, count, spacing })
}

/// Reads slots. `None` when a field was bad; the findings are in the reader.
pub(in crate::sheet) fn read_slots(reader: &mut Reader<'_>, given: &SlotsAction) -> Option<SlotsNumbers> {
    let clearance = reader.zero_or_more("clearance", &given.clearance, "a clearance")?;
    Some(SlotsNumbers { tabs: given.tabs.to_string(), panel: given.panel.to_string(), clearance })
}

/// Puts tabs on an edge.
pub(in crate::sheet) fn lay_tabs(
    flat: &mut Flat,
    name: &str,
    given: &TabNumbers,
    unit: LengthUnit,
) -> Result<(), Finding> {
    let index = straight_edge(flat, &given.edge)?;
    let edge = flat.edges[index].clone();
    let frame = EdgeFrame::new(edge.line);
    let places = row_places(edge.line.length(), given.at, given.count, given.spacing);
    check_row(&places, given.width / 2.0, edge.line.length(), &edge.name, unit)?;
    let single = places.len() == 1;
    for (number, s) in places.into_iter().enumerate() {
        let (low, high) = (s - given.width / 2.0, s + given.width / 2.0);
        let own = if single { format!("{name}.1") } else { format!("{name}.{}", number + 1) };
        let outline = &flat.nodes[edge.panel].region.outer;
        // The stretch of the edge that the whole tab stands on.
        let stretch = outline.segments().position(|(segment, tag)| {
            let (a, b) = ((segment.start - frame.start).dot(frame.along), (segment.end - frame.start).dot(frame.along));
            tag == edge.tag && a <= low + MODELLING_TOLERANCE && b >= high - MODELLING_TOLERANCE
        });
        let Some(stretch) = stretch else {
            return Err(Finding::error(
                format!("{} has no straight stretch of {} left for {own}", edge.name, length_text(given.width, unit)),
                "Move the tab, or choose an edge that is left.",
            )
            .at_field("at"));
        };
        let tip_tag = flat.tag(own.clone(), TagKind::Edge);
        let side_tag = flat.tag(format!("{own}.sides"), TagKind::Relief);
        let root = Segment::line(frame.place(low, 0.0), frame.place(high, 0.0));
        let tip = Segment::line(frame.place(low, given.height), frame.place(high, given.height));
        let edges = &mut Arc::make_mut(&mut flat.nodes[edge.panel].region).outer.edges;
        let added = [
            Edge { start: root.start, bulge: 0.0, tag: side_tag },
            Edge { start: tip.start, bulge: 0.0, tag: tip_tag },
            Edge { start: tip.end, bulge: 0.0, tag: side_tag },
            Edge { start: root.end, bulge: 0.0, tag: edge.tag },
        ];
        edges.splice(stretch + 1..stretch + 1, added);
        Arc::make_mut(&mut flat.nodes[edge.panel].region).outer.drop_short(MODELLING_TOLERANCE);
        flat.edges.push(EdgeRecord {
            name: own.clone(),
            tag: tip_tag,
            panel: edge.panel,
            line: tip,
            sides: edge.sides.clone(),
            bends: Vec::new(),
        });
        flat.tabs.push(TabRecord { name: own, operation: name.to_string(), panel: edge.panel, root, tip });
    }
    Ok(())
}

/// Cuts the slots that tabs go through.
///
/// # Errors
/// No such tabs or panel; a tab that does not go through the panel; as a hole.
pub(in crate::sheet) fn slots(
    flat: &mut Flat,
    name: &str,
    given: &SlotsNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let tabs: Vec<TabRecord> = flat.tabs.iter().filter(|tab| tab.operation == given.tabs).cloned().collect();
    if tabs.is_empty() {
        let mut known: Vec<&str> = flat.tabs.iter().map(|tab| tab.operation.as_str()).collect();
        known.dedup();
        let way_out = match known.is_empty() {
            true => "Put tabs on an edge first.".to_string(),
            false => format!("The operations with tabs are {}.", known.join(", ")),
        };
        return Err(
            Finding::error(format!("there are no tabs called {} at this step", given.tabs), way_out).at_field("tabs")
        );
    }
    let panel = flat.find_panel(&given.panel)?;
    let folded = folded_now(flat)?;
    let Some(home) = folded.motion(panel).map(crate::space::Motion::inverse) else { return Ok(Vec::new()) };
    let thickness = flat.thickness;
    let (mut made, mut notes) = (Vec::new(), Vec::new());
    for (number, tab) in tabs.iter().enumerate() {
        // The tab's four long edges as the panel sees them: where each crosses the panel's two faces.
        let mut corners: Vec<Point> = Vec::new();
        let mut through = true;
        for (root, tip) in [(tab.root.start, tab.tip.start), (tab.root.end, tab.tip.end)] {
            for z in [0.0, thickness] {
                let (from, to) =
                    (home.apply(folded.apply(tab.panel, root, z)), home.apply(folded.apply(tab.panel, tip, z)));
                let rise = to.z - from.z;
                if rise.abs() < MODELLING_TOLERANCE {
                    return Err(Finding::error(
                        format!("the tab {} lies along {} and does not go through it", tab.name, given.panel),
                        "Name the panel that the tab stands against.",
                    )
                    .at_field("panel"));
                }
                let (low, high) = (from.z.min(to.z), from.z.max(to.z));
                if high < thickness - MODELLING_TOLERANCE && low > MODELLING_TOLERANCE {
                    through = false;
                }
                if high < -MODELLING_TOLERANCE || low > thickness + MODELLING_TOLERANCE {
                    return Err(Finding::error(
                        format!(
                            "the tab {} ends {} short of {}",
                            tab.name,
                            length_text(if high < 0.0 { -high } else { low - thickness }, unit),
                            given.panel
                        ),
                        "Make the tab higher, or name the panel that it reaches.",
                    )
                    .at_field("tabs"));
                }
                for face in [0.0, thickness] {
                    let share = (face - from.z) / rise;
                    corners.push(Point::new(from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share));
                }
            }
        }
        if !through {
            notes.push(Finding::warning(
                format!("the tab {} ends within {}", tab.name, given.panel),
                "Make it higher if it is to stand out on the other side.",
            ));
        }
        let (from, to) = (
            home.apply(folded.apply(tab.panel, tab.root.start, 0.0)),
            home.apply(folded.apply(tab.panel, tab.root.end, 0.0)),
        );
        let along = Vector::new(to.x - from.x, to.y - from.y).unit();
        let span = |by: Vector| {
            corners
                .iter()
                .map(|point| (*point - Point::default()).dot(by))
                .fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), one| (low.min(one), high.max(one)))
        };
        let (u, v) = (span(along), span(along.left()));
        let centre = Point::default() + along * ((u.0 + u.1) / 2.0) + along.left() * ((v.0 + v.1) / 2.0);
        let (wide, deep) = (u.1 - u.0 + 2.0 * given.clearance, v.1 - v.0 + 2.0 * given.clearance);
        let own = if tabs.len() == 1 { name.to_string() } else { format!("{name}.{}", number + 1) };
        made.push(NewHole {
            name: own,
            outline: Outline::rounded_rectangle(centre, along, wide, deep, 0.0, 0),
            centre,
            work: HoleWork::plain(),
            copy: None,
        });
    }
    hole::put(flat, panel, name, made, unit)?;
    Ok(notes)
}
