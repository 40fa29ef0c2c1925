//! Corners, notches, tabs and the slots that take them.

use crate::sheet::flat::EdgeRecord;
use crate::sheet::pointed::{Pointed, Pointing};
use crate::work::sheet::{
    Chamfer, CornerAction, CornerShape, Notch, NotchAction, NotchShape, NotchSizes, SlotsAction, TabAction,
};
use crate::work::{Action, Group, Offer};

/// Corners rounded, clipped or notched: those that are pointed at, or all of a panel.
pub(in crate::sheet::verbs) fn corner(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let corners: Option<Vec<(usize, &String)>> = pointing
        .at
        .iter()
        .map(|one| if let Pointed::Corner(panel, at) = one { Some((*panel, at)) } else { None })
        .collect();
    let (panel, at, words) = match corners.as_deref() {
        Some([(panel, first), others @ ..]) => {
            if others.iter().any(|(other, _)| other != panel) {
                return Vec::new();
            }
            let mut at = vec![(*first).clone()];
            for (_, other) in others {
                if !at.contains(other) {
                    at.push((*other).clone());
                }
            }
            let words = if at.len() == 1 { "this corner".to_string() } else { format!("these {} corners", at.len()) };
            (*panel, at, words)
        }
        _ => {
            let Some(panel) = pointing.panel() else { return Vec::new() };
            if crate::sheet::corner::free_corners(flat, panel).is_empty() {
                return Vec::new();
            }
            let words = if pointing.nowhere() { "corners" } else { "every corner of it" };
            (panel, Vec::new(), words.to_string())
        }
    };
    let size = pointing.about((pointing.narrow(panel) / 8.0).min(10.0));
    let shapes = [
        ("Round", &["shape.round"][..], CornerShape::Round(size.clone())),
        ("Clip", &["shape.chamfer.leg"], CornerShape::Chamfer(Chamfer { leg: size.clone(), other: None, angle: None })),
        (
            "Notch",
            &["shape.notch.width", "shape.notch.depth"],
            CornerShape::Notch(Notch { width: size.clone(), depth: size, corner: None }),
        ),
    ];
    let offer = |(verb, asks, shape): (&str, &[&str], CornerShape)| {
        let action = CornerAction { panel: flat.nodes[panel].name.as_str().into(), at: at.clone(), shape };
        let offer = Offer::new(Group::Edge, format!("{verb} {words}"), "corner", Action::Corner(action)).asking(asks);
        if pointing.nowhere() { offer.wanting("panel") } else { offer }
    };
    let most = if pointing.nowhere() { 1 } else { 3 };
    shapes.into_iter().take(most).map(offer).collect()
}

fn edge<'a>(pointing: &Pointing<'a>) -> Option<&'a EdgeRecord> {
    if pointing.nowhere() { pointing.first_edge() } else { pointing.edge() }
}

/// A notch in the middle of an edge.
pub(in crate::sheet::verbs) fn notch(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(edge) = edge(pointing) else { return Vec::new() };
    let narrow = pointing.narrow(edge.panel);
    let sizes = NotchSizes {
        width: pointing.about((edge.line.length() / 6.0).min(20.0)),
        depth: pointing.about((narrow / 6.0).min(10.0)),
        corner: None,
    };
    let notch = |shape| {
        let edge = edge.name.as_str().into();
        Action::Notch(NotchAction { edge, shape, at: None, count: None, spacing: None })
    };
    if pointing.nowhere() {
        return vec![
            Offer::new(Group::Edge, "Notch an edge", "notch", notch(NotchShape::Square(sizes)))
                .asking(&["shape.square.width", "shape.square.depth"])
                .wanting("edge"),
        ];
    }
    vec![
        Offer::new(Group::Edge, "Notch this edge", "notch", notch(NotchShape::Square(sizes)))
            .asking(&["shape.square.width", "shape.square.depth"]),
    ]
}

/// A tab on an edge.
pub(in crate::sheet::verbs) fn tab(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(edge) = edge(pointing) else { return Vec::new() };
    let action = Action::Tab(TabAction {
        edge: edge.name.as_str().into(),
        width: pointing.about((edge.line.length() / 6.0).min(20.0)),
        height: pointing.about(2.0 * pointing.thickness()),
        at: None,
        count: None,
        spacing: None,
    });
    if pointing.nowhere() {
        return vec![
            Offer::new(Group::Edge, "Put tabs on an edge", "tabs", action).asking(&["width", "height"]).wanting("edge"),
        ];
    }
    vec![Offer::new(Group::Edge, "Put a tab on this edge", "tabs", action).asking(&["width", "height"])]
}

/// Slots for tabs, through the panel that is pointed at.
pub(in crate::sheet::verbs) fn slots(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let [Pointed::Panel(panel, _)] = pointing.at[..] else { return Vec::new() };
    // The tabs that point at it are for whoever points to know: the newest ones of another panel are offered.
    let Some(tabs) = flat.tabs.iter().rev().find(|tab| tab.panel != panel) else { return Vec::new() };
    let action = SlotsAction {
        tabs: tabs.operation.as_str().into(),
        panel: flat.nodes[panel].name.as_str().into(),
        clearance: pointing.about_small(0.2),
    };
    vec![
        Offer::new(Group::Edge, format!("Cut slots for the tabs {}", tabs.operation), "slots", Action::Slots(action))
            .asking(&["clearance"]),
    ]
}

impl Pointing<'_> {
    /// A small clearance, mm, to two places.
    fn about_small(&self, millimetres: f64) -> crate::quantity::Expr {
        match self.unit {
            crate::quantity::LengthUnit::Mm => format!("{millimetres} mm").as_str().into(),
            crate::quantity::LengthUnit::In => {
                format!("{} in", crate::quantity::decimal(millimetres / 25.4, 3)).as_str().into()
            }
        }
    }
}
