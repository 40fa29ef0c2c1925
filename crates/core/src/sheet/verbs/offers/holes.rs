//! Holes and openings: in the middle of a panel, at its corners, from edges and bends, from another hole.

use crate::quantity::{Expr, PanelName};
use crate::sheet::pointed::{Pointed, Pointing};
use crate::work::sheet::{
    AlongPattern, BetweenPattern, CirclePattern, ClearanceHole, CornersPattern, CutAction, DrillAction, FromEdge,
    FromHole, HoleSide, InRound, Pattern, Place, Reach, Slot, SlotLength,
};
use crate::work::{Action, Group, Offer};

/// A hole that a panel of this narrowness has room for, mm.
fn small(narrow: f64, thickness: f64) -> f64 {
    (narrow / 8.0).clamp(thickness.max(4.0), 9.0_f64.max(thickness))
}

/// Round holes.
pub(in crate::sheet::verbs) fn drill(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let named = |panel: usize| PanelName::from(flat.nodes[panel].name.as_str());
    let size = |panel: usize| small(pointing.narrow(panel), flat.thickness);
    let diameter = |panel: usize| Some(pointing.about(size(panel)));
    let offer = |words: &str, stem: &str, action: DrillAction| {
        let asks = drill_asks(&action);
        Offer { asks, ..Offer::new(Group::Hole, words, stem, Action::Drill(action)) }
    };
    if let Some((panel, from)) = pointing.lines_of_one_panel(pointing.about_from_an_edge()) {
        let alone = match (from.len(), &pointing.at[0]) {
            (2, _) => "Drill a hole from these two",
            (_, Pointed::Bend(_)) => "Drill a hole from this bend",
            _ => "Drill a hole from this edge",
        };
        let mut all = Vec::new();
        if let ([one], Some(edge)) = (&from[..], pointing.edge()) {
            let row = AlongPattern {
                edge: one.edge.clone(),
                distance: one.distance.clone(),
                count: Some("4".into()),
                spaces: None,
                pitch: None,
                inset: Some(pointing.about(edge.line.length() / 8.0)),
                last_inset: None,
                ends: true,
            };
            let action = DrillAction {
                panel: named(panel),
                diameter: diameter(panel),
                pattern: Some(Pattern::Along(row)),
                ..DrillAction::default()
            };
            all.push(offer("Drill a row of holes along this edge", "row", action));
        }
        let place = Place { from, ..Place::default() };
        let action = DrillAction { panel: named(panel), diameter: diameter(panel), place, ..DrillAction::default() };
        all.insert(0, offer(alone, "hole", action));
        return all;
    }
    if let Some(edge) = pointing.edge().filter(|edge| !edge.line.is_line()) {
        let in_round = |distance: Option<Expr>| {
            let round = Some(InRound { edge: edge.name.as_str().into(), distance });
            let place = Place { round, ..Place::default() };
            let diameter =
                Some(pointing.about(small(edge.line.radius().min(pointing.narrow(edge.panel)), flat.thickness)));
            DrillAction { panel: named(edge.panel), diameter, place, ..DrillAction::default() }
        };
        let mut all = vec![offer("Drill a hole at the centre of this round edge", "hole", in_round(None))];
        let away = pointing.about_from_an_edge().min(edge.line.radius() / 2.0);
        all.push(offer("Drill a hole in the middle of this edge", "hole", in_round(Some(pointing.about(away)))));
        return all;
    }
    if let [Pointed::Hole(at)] = pointing.at[..] {
        let hole = &flat.holes[at];
        let away = hole.extents.width().max(hole.extents.height()) + 2.0 * size(hole.panel);
        let from = FromHole { hole: hole.name.as_str().into(), x: Some(pointing.about(away)), y: None };
        let place = Place { hole: Some(from), ..Place::default() };
        let action =
            DrillAction { panel: named(hole.panel), diameter: diameter(hole.panel), place, ..DrillAction::default() };
        return vec![offer("Drill a hole from this one", "hole", action)];
    }
    let Some(panel) = pointing.panel() else { return Vec::new() };
    let plain = DrillAction { panel: named(panel), diameter: diameter(panel), ..DrillAction::default() };
    let clearance = DrillAction {
        panel: named(panel),
        clearance: Some(ClearanceHole { bolt: "M6".into(), fit: Default::default() }),
        ..DrillAction::default()
    };
    let corners = |action: DrillAction| {
        let distance = pointing.about((pointing.narrow(panel) / 5.0).min(15.0_f64.max(2.0 * flat.thickness)));
        DrillAction { pattern: Some(Pattern::Corners(CornersPattern { distance, other: None })), ..action }
    };
    let grid = |action: DrillAction| {
        let distance = pointing.about((pointing.narrow(panel) / 5.0).min(15.0_f64.max(2.0 * flat.thickness)));
        let grid = BetweenPattern { columns: "3".into(), rows: "2".into(), distance, other: None };
        DrillAction { pattern: Some(Pattern::Between(grid)), ..action }
    };
    let circle = CirclePattern {
        count: "6".into(),
        diameter: pointing.about(pointing.narrow(panel) / 2.0),
        start: None,
        sweep: None,
    };
    let on_circle = DrillAction { pattern: Some(Pattern::Circle(circle)), ..plain.clone() };
    if pointing.nowhere() {
        return vec![offer("Drill a hole", "hole", plain).wanting("panel")];
    }
    let mut all = Vec::new();
    if crate::sheet::hole::has_four_corners(flat, panel) {
        all.push(offer("Drill four holes at its corners", "holes", corners(plain.clone())));
        all.push(offer("Drill four clearance holes at its corners", "bolts", corners(clearance.clone())));
        all.push(offer("Drill rows and columns of holes over it", "grid", grid(plain.clone())));
    }
    all.push(offer("Drill a hole in the middle", "hole", plain));
    all.push(offer("Drill a clearance hole in the middle", "bolt", clearance));
    all.push(offer("Drill holes round a circle", "circle", on_circle));
    all
}

/// What is typed of a hole: its size, then where it goes.
fn drill_asks(action: &DrillAction) -> Vec<String> {
    let size = if action.clearance.is_some() { "clearance.bolt" } else { "diameter" };
    let pattern: &[&str] = match &action.pattern {
        Some(Pattern::Corners(_)) => &["pattern.corners.distance"],
        Some(Pattern::Circle(_)) => &["pattern.circle.count", "pattern.circle.diameter"],
        Some(Pattern::Along(_)) => &["pattern.along.distance", "pattern.along.count", "pattern.along.inset"],
        Some(Pattern::Between(_)) => &["pattern.between.columns", "pattern.between.rows", "pattern.between.distance"],
        _ => &[],
    };
    let mut asks = vec![size.to_string()];
    asks.extend(pattern.iter().map(|one| (*one).to_string()));
    asks.extend(from_asks(&action.place));
    asks
}

/// What is typed of a place: each distance.
fn from_asks(place: &Place) -> Vec<String> {
    let mut asks: Vec<String> = (0..place.from.len()).map(|at| format!("place.from.{at}.distance")).collect();
    if place.round.as_ref().is_some_and(|round| round.distance.is_some()) {
        asks.push("place.round.distance".into());
    }
    if place.hole.is_some() {
        asks.push("place.hole.x".into());
        asks.push("place.hole.y".into());
    }
    asks
}

/// Slots and rectangular openings.
pub(in crate::sheet::verbs) fn cut(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let from_lines = pointing.lines_of_one_panel(pointing.about_from_an_edge() + 10.0);
    let (panel, place, words) = match from_lines {
        Some((panel, from)) => {
            let words = match (from.len(), &pointing.at[0]) {
                (2, _) => "from these two",
                (_, Pointed::Bend(_)) => "from this bend",
                _ => "from this edge",
            };
            (panel, Place { from, ..Place::default() }, words)
        }
        None => {
            let Some(panel) = pointing.panel() else { return Vec::new() };
            (panel, Place::default(), if pointing.nowhere() { "" } else { "in the middle" })
        }
    };
    let narrow = pointing.narrow(panel);
    let base = CutAction { panel: flat.nodes[panel].name.as_str().into(), place, ..CutAction::default() };
    let width = small(narrow, flat.thickness).max(flat.thickness);
    let slot =
        Slot { length: pointing.about(2.5 * width), width: pointing.about(width), length_is: SlotLength::Overall };
    let slot = CutAction { slot: Some(slot), ..base.clone() };
    let opening = CutAction {
        width: Some(pointing.about((narrow / 4.0).min(40.0))),
        height: Some(pointing.about((narrow / 6.0).min(25.0))),
        ..base.clone()
    };
    let said = |what: &str| format!("Cut {what} {words}").trim_end().to_string();
    let placed = from_asks(&base.place);
    let asking = |sizes: [&str; 2]| -> Vec<String> {
        sizes.into_iter().map(str::to_string).chain(placed.iter().cloned()).collect()
    };
    let offer = |what: &str, stem: &str, action: CutAction, sizes: [&str; 2]| {
        let mut offer = Offer::new(Group::Hole, said(what), stem, Action::Cut(action));
        offer.asks = asking(sizes);
        offer
    };
    let mut offers = vec![
        offer("a slot", "slot", slot, ["slot.width", "slot.length"]),
        offer("a rectangular opening", "opening", opening, ["width", "height"]),
    ];
    // Out over an edge that is free: what it leaves of the rim is open.
    if let ([one], Some(edge)) = (&base.place.from[..], pointing.edge())
        && edge.bends.is_empty()
    {
        let deep = (narrow / 6.0).min(20.0);
        let from = vec![FromEdge { distance: pointing.about(deep), to: HoleSide::Far, ..one.clone() }];
        let window = CutAction {
            width: Some(pointing.about((edge.line.length() / 3.0).min(40.0))),
            // Half of it beyond the edge.
            height: Some(pointing.about(2.0 * deep)),
            place: Place { from, ..Place::default() },
            reach: Reach::Open,
            ..base.clone()
        };
        let mut open = Offer::new(Group::Hole, "Cut a window open over this edge", "window", Action::Cut(window));
        open.asks = vec!["width".into(), "place.from.0.distance".into()];
        offers.push(open);
    }
    offers.into_iter().map(|one| if pointing.nowhere() { one.wanting("panel") } else { one }).collect()
}

impl Pointing<'_> {
    /// How far from an edge or a bend a hole is offered, mm.
    pub(super) fn about_from_an_edge(&self) -> f64 {
        15.0_f64.max(4.0 * self.thickness() + self.radius)
    }
}
