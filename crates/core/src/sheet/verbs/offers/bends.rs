//! Flanges, hems, joggles and bends along a line.

use std::collections::BTreeMap;

use crate::plane::{MODELLING_TOLERANCE, Point};
use crate::quantity::{EdgeName, Expr};
use crate::sheet::flat::EdgeRecord;
use crate::sheet::pointed::Pointing;
use crate::work::sheet::{
    AngleIs, BendAction, BendPosition, CornerGap, CornerRelief, Corners, CreaseAction, CreasePosition, CreaseSide,
    Direction, HemAction, HemLength, HemStyle, JoggleAction, LegTo, OpenHem,
};
use crate::work::{Action, Group, Offer};

/// Flanges along the edges that are pointed at, round the panel that is, or along the ends of a tray's other walls too.
pub(in crate::sheet::verbs) fn bend(pointing: &Pointing<'_>) -> Vec<Offer> {
    let offer = |words: String, stem: &str, edges: &[&EdgeRecord], corners: Corners| {
        let leg = leg(pointing, edges);
        Offer::new(Group::Bend, words, stem, Action::Bend(flange(edges, leg, corners))).asking(&["leg", "angle"])
    };
    let Some(flat) = pointing.flat else { return Vec::new() };
    if pointing.nowhere() {
        let first = pointing.first_edge();
        return first
            .map(|edge| {
                offer("Bend a flange along an edge".into(), "flange", &[edge], Corners::default()).wanting("edge")
            })
            .into_iter()
            .collect();
    }
    if let Some(edges) = pointing.edges() {
        let mut all = match edges.len() {
            1 => vec![offer("Bend a flange here".into(), "flange", &edges, Corners::default())],
            count => {
                let corners = if meet(&edges) { mitred(pointing) } else { Corners::default() };
                let words = if meet(&edges) { "corners mitred" } else { "alike" };
                vec![offer(format!("Bend {count} flanges here, {words}"), "flanges", &edges, corners)]
            }
        };
        if let [edge] = edges[..] {
            let alike = flat.alike_edges(edge);
            if alike.len() > 1 {
                let words = format!("Bend lips along all {} of these, corners mitred", alike.len());
                all.push(offer(words, "lips", &alike, mitred(pointing)));
            }
        }
        return all;
    }
    let Some(panel) = pointing.panel() else { return Vec::new() };
    let free = pointing.free_edges(panel);
    if free.len() < 2 || !convex(&free) {
        return Vec::new();
    }
    let words = format!("Bend walls along all {} edges, corners mitred", free.len());
    vec![offer(words, "walls", &free, mitred(pointing))]
}

fn near(one: Point, two: Point) -> bool {
    one.distance(two) < MODELLING_TOLERANCE
}

/// Whether two of the edges share a corner.
fn meet(edges: &[&EdgeRecord]) -> bool {
    edges.iter().enumerate().any(|(at, one)| {
        edges
            .iter()
            .skip(at + 1)
            .any(|other| near(one.line.end, other.line.start) || near(one.line.start, other.line.end))
    })
}

/// Whether no corner between edges that follow one another turns in: walls there would run into each other.
fn convex(edges: &[&EdgeRecord]) -> bool {
    edges.iter().all(|one| {
        let way = one.line.end - one.line.start;
        edges
            .iter()
            .filter(|next| near(one.line.end, next.line.start))
            .all(|next| way.cross(next.line.end - next.line.start) > 0.0)
    })
}

fn mitred(pointing: &Pointing<'_>) -> Corners {
    let gap: Expr = match pointing.unit {
        crate::quantity::LengthUnit::Mm => "0.5 mm".into(),
        crate::quantity::LengthUnit::In => "0.02 in".into(),
    };
    Corners::Mitred(CornerGap { gap, relief: None::<CornerRelief> })
}

/// A leg that a brake can hold and that leaves the neighbours room: a fifth of the shortest edge, for lips less.
fn leg(pointing: &Pointing<'_>, edges: &[&EdgeRecord]) -> Expr {
    let shortest = edges.iter().map(|edge| edge.line.length()).fold(f64::INFINITY, f64::min);
    let (thickness, radius) = (pointing.thickness(), pointing.radius);
    let least = 6.0 * thickness + radius;
    let on_flange = edges.iter().all(|edge| pointing.flat.is_some_and(|flat| flat.stands_on(edge.panel).is_some()));
    let most = if on_flange { 15.0_f64 } else { 60.0 };
    pointing.about((shortest / 3.0).min(most).max(least))
}

fn flange(edges: &[&EdgeRecord], leg: Expr, corners: Corners) -> BendAction {
    let mut names = edges.iter().map(|edge| EdgeName::from(edge.name.as_str()));
    BendAction {
        edge: names.next().unwrap_or_default(),
        also: names.collect(),
        own: BTreeMap::new(),
        corners,
        angle: "90 deg".into(),
        angle_is: AngleIs::default(),
        stands: None,
        direction: Direction::Up,
        leg,
        leg_to: LegTo::Outside,
        up_to: None,
        position: BendPosition::MaterialInside,
        radius: None,
        set_in: BTreeMap::new(),
        relief: None,
        method: None,
    }
}

/// Hems along the edge that is pointed at.
pub(in crate::sheet::verbs) fn hem(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(edge) = one_edge(pointing) else { return Vec::new() };
    let thickness = pointing.thickness();
    let length = pointing.about((6.0 * thickness + pointing.radius).max(8.0));
    let hem = |style| {
        Action::Hem(HemAction {
            edge: edge.name.as_str().into(),
            style,
            direction: Direction::Up,
            position: BendPosition::MaterialInside,
            set_in: BTreeMap::new(),
            relief: None,
            method: None,
        })
    };
    let closed = hem(HemStyle::Closed(HemLength { length: length.clone() }));
    let open = hem(HemStyle::Open(OpenHem { length, gap: pointing.about(thickness.max(1.0)) }));
    if pointing.nowhere() {
        return vec![
            Offer::new(Group::Bend, "Hem an edge", "hem", closed).asking(&["style.closed.length"]).wanting("edge"),
        ];
    }
    vec![
        Offer::new(Group::Bend, "Hem this edge, pressed flat", "hem", closed).asking(&["style.closed.length"]),
        Offer::new(Group::Bend, "Hem this edge, open", "hem", open).asking(&["style.open.length", "style.open.gap"]),
    ]
}

fn one_edge<'a>(pointing: &Pointing<'a>) -> Option<&'a EdgeRecord> {
    if pointing.nowhere() { pointing.first_edge() } else { pointing.edge() }
}

/// A joggle along the edge that is pointed at.
pub(in crate::sheet::verbs) fn joggle(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(edge) = one_edge(pointing) else { return Vec::new() };
    let thickness = pointing.thickness();
    let action = JoggleAction {
        edge: edge.name.as_str().into(),
        // Two bends of 90 deg one right after the other need that much between the faces.
        offset: pointing.about(2.0 * pointing.radius + 3.0 * thickness),
        angle: None,
        leg: pointing.about((6.0 * thickness + pointing.radius).max(15.0)),
        direction: Direction::Up,
        position: BendPosition::BendOutside,
        radius: None,
        set_in: BTreeMap::new(),
        relief: None,
        method: None,
    };
    let action = Action::Joggle(action);
    if pointing.nowhere() {
        return vec![
            Offer::new(Group::Bend, "Joggle an edge", "joggle", action).asking(&["offset", "leg"]).wanting("edge"),
        ];
    }
    vec![Offer::new(Group::Bend, "Joggle this edge", "joggle", action).asking(&["offset", "leg"])]
}

/// A bend across the panel that is pointed at, or along a line at a distance from the edge that is.
pub(in crate::sheet::verbs) fn crease(pointing: &Pointing<'_>) -> Vec<Offer> {
    let edge = match pointing.edge() {
        Some(edge) => Some(edge),
        None => pointing.panel().and_then(|panel| pointing.free_edges(panel).into_iter().next()),
    };
    let (Some(edge), Some(flat)) = (edge, pointing.flat) else { return Vec::new() };
    // The middle of the panel, measured square to the edge.
    let line = &edge.line;
    let inward = (line.end - line.start).unit().left();
    let deep = flat.nodes[edge.panel].region.outer.edges.iter().map(|one| (one.start - line.start).dot(inward));
    let deep = deep.fold(0.0, f64::max);
    let action = CreaseAction {
        panel: flat.nodes[edge.panel].name.as_str().into(),
        edge: edge.name.as_str().into(),
        distance: pointing.about(deep / 2.0),
        turn: None,
        moves: CreaseSide::Near,
        angle: "90 deg".into(),
        direction: Direction::Up,
        position: CreasePosition::Centred,
        radius: None,
        method: None,
    };
    let words = match (pointing.nowhere(), pointing.edge().is_some()) {
        (true, _) => "Bend a panel along a line on it",
        (_, true) => "Bend along a line at a distance from this edge",
        _ => "Bend this panel along a line on it",
    };
    let offer = Offer::new(Group::Bend, words, "fold", Action::Crease(action)).asking(&["distance", "angle"]);
    vec![if pointing.nowhere() { offer.wanting("edge") } else { offer }]
}
