//! From a blank with bend strips drawn in it to panels and strips: for flats that come without any operations, and as
//! a check on those that operations laid.

use std::sync::Arc;

use crate::patience;
use crate::plane::{Outline, Region, common_outlines, subtract};

use super::flat::{Node, NodeKind, Strip};

/// A strip drawn on a blank, with its name.
#[derive(Clone, Debug)]
pub struct DrawnStrip {
    /// The bend's name.
    pub name: String,
    /// The strip.
    pub strip: Strip,
}

/// Cuts a blank along strips. Panels come first, largest first, named `panel-1`, `panel-2`, ...; then the strips, each
/// with whatever material lies in it (several nodes where a cut parts it).
pub fn partition(blank: &Region, strips: &[DrawnStrip]) -> Vec<Node> {
    let mut panels = vec![blank.clone()];
    let mut nodes = Vec::new();
    for drawn in strips {
        patience::check();
        let rectangle = strip_outline(&drawn.strip);
        let cutter = strip_cutter(&drawn.strip);
        for region in common_region(blank, &rectangle) {
            let laid = region.extents();
            nodes.push(Node {
                name: drawn.name.clone(),
                kind: NodeKind::Strip(drawn.strip.clone()),
                region: Arc::new(region),
                laid,
                is_shell: false,
            });
        }
        panels = panels
            .iter()
            .flat_map(|panel| {
                if panel.extents().is_near(&rectangle.extents(), 0.0) {
                    subtract(panel, &cutter)
                } else {
                    vec![panel.clone()]
                }
            })
            .collect();
    }
    panels.sort_by(|one, two| two.area().total_cmp(&one.area()));
    let mut all: Vec<Node> = panels
        .into_iter()
        .enumerate()
        .map(|(at, region)| {
            let laid = region.extents();
            Node {
                name: format!("panel-{}", at + 1),
                kind: NodeKind::Panel,
                region: Arc::new(region),
                laid,
                is_shell: false,
            }
        })
        .collect();
    all.extend(nodes);
    all
}

/// The strip's rectangle, counter-clockwise.
pub fn strip_outline(strip: &Strip) -> Outline {
    let corner = |u: f64, v: f64| (strip.place(u, v), 0);
    Outline::polygon(&[
        corner(0.0, 0.0),
        corner(strip.length, 0.0),
        corner(strip.length, strip.width),
        corner(0.0, strip.width),
    ])
    .counter_clockwise()
}

/// How far a cut runs past a strip's ends, mm: a strip usually ends on the blank's own edge, and two collinear edges
/// would leave it to rounding whether the panels come apart.
const RUN_OUT: f64 = 1.0e-4;

fn strip_cutter(strip: &Strip) -> Outline {
    let longer = Strip { origin: strip.place(-RUN_OUT, 0.0), length: strip.length + 2.0 * RUN_OUT, ..strip.clone() };
    strip_outline(&longer)
}

fn common_region(blank: &Region, rectangle: &Outline) -> Vec<Region> {
    let mut pieces: Vec<Region> = common_outlines(&blank.outer, rectangle).into_iter().map(Region::solid).collect();
    for hole in &blank.holes {
        if hole.extents().is_near(&rectangle.extents(), 0.0) {
            pieces = pieces.iter().flat_map(|piece| subtract(piece, hole)).collect();
        }
    }
    pieces
}
