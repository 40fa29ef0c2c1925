//! Offers and readings on a plate or a sheet part.

use crate::measure::measure;
use crate::piece::{Kind, Outcome, Piece};
use crate::quantity::LengthUnit;
use crate::sheet::{Bends, Part, Pointed, Pointing, SHEET_VERBS, pointed, read_operation, would_stand};
use crate::work::measure::{
    Along, Axis, BetweenEdges, BetweenPanels, Distance, HoleAlong, LegOf, Measure, OfBend, OfEdge, OfForm, OfHole,
    OfPanel, RimTo,
};
use crate::work::sheet::LegTo;
use crate::work::{Group, Offer, Operation};

use super::told::{Offers, PointedAt, readings};

pub(super) fn offers(piece: &Piece, outcome: &Outcome, names: &[String], show: LengthUnit) -> Offers {
    let part = outcome.laid_out();
    let found: Vec<Option<Pointed>> =
        names.iter().map(|name| part.and_then(|part| pointed(&part.flat, name))).collect();
    let all_there = found.iter().all(Option::is_some);
    let said = names.iter().zip(&found).map(|(name, found)| PointedAt {
        name: name.clone(),
        words: part.zip(found.as_ref()).map(|(part, found)| found.words(&part.flat, show)),
    });
    let pointed_at = said.collect();
    let at: Vec<Pointed> = found.into_iter().flatten().collect();
    let pointing = Pointing {
        flat: part.map(|part| &part.flat),
        at,
        unit: piece.unit,
        radius: outcome.resolved.radius.unwrap_or(0.0),
    };
    let offers = if all_there {
        SHEET_VERBS
            .iter()
            .filter(|verb| piece.kind != Kind::Plate || verb.bends == Bends::No)
            .flat_map(|verb| verb.offers(&pointing))
            .filter(|offer| fits(piece, outcome, offer))
            .collect()
    } else {
        Vec::new()
    };
    let readings = match part {
        Some(part) if all_there => {
            let tried = measures(part, names, &pointing.at).into_iter();
            readings(tried.map(|(words, what)| (words, measure(part, &what), what)), show)
        }
        _ => Vec::new(),
    };
    Offers { pointed: pointed_at, offers, readings }
}

/// The measures that one or two picks may have, in the order that they are offered; not all of them can be taken.
fn measures(part: &Part, names: &[String], at: &[Pointed]) -> Vec<(String, Measure)> {
    match (names, at) {
        ([name], [one]) => of_one(part, name, one),
        ([first, second], [one, other]) => {
            let (from, to) = (feature(part, first, one), feature(part, second, other));
            let distance =
                |along| Measure::Distance(Distance { from: from.as_str().into(), to: to.as_str().into(), along });
            let least = if matches!((one, other), (Pointed::Hole(_), Pointed::Hole(_))) {
                "axis to axis"
            } else {
                "least distance"
            };
            let mut all = vec![(least.to_string(), distance(None))];
            all.extend(
                [Axis::X, Axis::Y, Axis::Z]
                    .map(|axis| (format!("distance along {}", axis.letter()), distance(Some(axis)))),
            );
            let is_hole = |pointed: &Pointed| matches!(pointed, Pointed::Hole(_));
            if is_hole(one) || is_hole(other) {
                let (hole, to) = if is_hole(one) { (first, second) } else { (second, first) };
                let rim = RimTo {
                    hole: hole.as_str().into(),
                    to: to.trim_end_matches(".bottom").trim_end_matches(".top").into(),
                };
                all.push(("least metal from the rim".into(), Measure::Rim(rim)));
            }
            if let (Pointed::Edge(_), Pointed::Edge(_)) = (one, other) {
                let between = BetweenEdges { from: first.as_str().into(), to: second.as_str().into() };
                all.push(("angle between the edges, flat".into(), Measure::EdgeAngle(between)));
            }
            if let (Some(from), Some(to)) = (panel(part, one), panel(part, other))
                && from != to
            {
                let between = BetweenPanels { from: from.as_str().into(), to: to.as_str().into() };
                all.push(("angle between the panels".into(), Measure::Angle(between)));
            }
            all
        }
        _ => Vec::new(),
    }
}

/// What a distance is measured to: of a panel its face, of a bend its outside mould line.
fn feature(part: &Part, name: &str, pointed: &Pointed) -> String {
    match pointed {
        Pointed::Panel(_, None) => format!("{name}.top"),
        Pointed::Bend(at) => format!("{}.mould-outside", part.flat.bends[*at].name),
        Pointed::Hole(at) => part.flat.holes[*at].name.clone(),
        _ => name.to_string(),
    }
}

fn panel(part: &Part, pointed: &Pointed) -> Option<String> {
    match pointed {
        Pointed::Panel(at, _) => Some(part.flat.nodes[*at].name.clone()),
        _ => None,
    }
}

fn of_one(part: &Part, name: &str, pointed: &Pointed) -> Vec<(String, Measure)> {
    let sizes = || {
        [Axis::X, Axis::Y, Axis::Z]
            .map(|along| (format!("overall size along {}", along.letter()), Measure::Size(Along { along })))
            .to_vec()
    };
    match pointed {
        Pointed::Edge(_) => vec![
            ("length of this edge".into(), Measure::EdgeLength(OfEdge { edge: name.into() })),
            ("radius of this edge".into(), Measure::EdgeRadius(OfEdge { edge: name.into() })),
        ],
        Pointed::Hole(at) => {
            let own = &part.flat.holes[*at];
            let hole = || own.name.as_str().into();
            let size = |along| Measure::HoleSize(HoleAlong { hole: hole(), along });
            if own.outline.as_circle().is_some() {
                let mut all = vec![("diameter".into(), Measure::Diameter(OfHole { hole: hole() }))];
                if own.work.head > 0.0 {
                    all.push(("depth of its head".into(), Measure::HeadDepth(OfHole { hole: hole() })));
                }
                if !own.work.through {
                    all.push(("metal left under it".into(), Measure::Floor(OfHole { hole: hole() })));
                }
                if part.flat.holes.iter().filter(|one| one.operation == own.operation).count() > 1 {
                    let of = OfHole { hole: own.operation.as_str().into() };
                    all.push((format!("number of {}", own.operation), Measure::HoleCount(of)));
                }
                return all;
            }
            let of = || OfHole { hole: hole() };
            vec![
                ("size along x".into(), size(Axis::X)),
                ("size along y".into(), size(Axis::Y)),
                ("area of this hole".into(), Measure::HoleArea(of())),
                ("length of its cut".into(), Measure::HoleCutLength(of())),
            ]
        }
        Pointed::Holes(_) => {
            vec![("number of holes".into(), Measure::HoleCount(OfHole { hole: name.into() }))]
        }
        Pointed::Bend(at) => {
            let bend = || part.flat.bends[*at].name.as_str().into();
            let of = || OfBend { bend: bend() };
            vec![
                ("leg, outside".into(), Measure::Leg(LegOf { bend: bend(), to: LegTo::Outside })),
                ("leg, inside".into(), Measure::Leg(LegOf { bend: bend(), to: LegTo::Inside })),
                ("angle of this bend".into(), Measure::BendAngle(of())),
                ("inside radius".into(), Measure::InsideRadius(of())),
                ("setback".into(), Measure::Setback(of())),
            ]
        }
        Pointed::Panel(..) => {
            let mut all = sizes();
            all.push(("thickness".into(), Measure::Thickness));
            if let Some(panel) = panel(part, pointed) {
                let of = || OfPanel { panel: panel.as_str().into() };
                all.push(("area of this panel".into(), Measure::PanelArea(of())));
                all.push(("cut length of this panel".into(), Measure::PanelCutLength(of())));
            }
            all
        }
        Pointed::Form(at) => {
            let form = part.flat.forms[*at].name.as_str().into();
            vec![("height of this form".into(), Measure::FormHeight(OfForm { form }))]
        }
        Pointed::Rib(_) | Pointed::Corner(..) | Pointed::Wall(_) => Vec::new(),
    }
}

/// Whether an offer has a place on the part. What only its sizes keep from it (a hole where another is) is offered all the same: they
/// are there to be typed.
fn fits(piece: &Piece, outcome: &Outcome, offer: &Offer) -> bool {
    let (Some(sheets), Some(given)) = (outcome.sheets(), &outcome.resolved.read_with) else { return true };
    // The opposite hand is turned once all is done: a step more is tried on it by whoever keeps it.
    if piece.opposite_hand || matches!(offer.group, Group::Hole) {
        return true;
    }
    let operation = Operation { name: NEW.into(), rested: false, action: offer.action.clone() };
    let Some(numbers) = read_operation(&operation, given).numbers else { return false };
    would_stand(&sheets.set(), &outcome.resolved.operations, (NEW, &numbers), piece.unit).is_ok()
}

/// What no operation of a document is called.
const NEW: &str = "a new step";
