//! Laws of bent sheet on random parts: metal is neither made nor lost, mirrored parts have mirrored blanks, nothing lies
//! over itself without a word, shells close.

use steelk_testing::law;

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::plane::common_area;
use steelk_core::sheet::{folded_body, folded_mesh};
use steelk_testing::{bend, part, piece};

/// A random tray: walls along some edges in one operation, lips on some walls, a hem, a joggle.
#[derive(Clone, Debug)]
struct Tray {
    size: (f64, f64),
    thickness: f64,
    radius: f64,
    k: f64,
    edges: Vec<usize>,
    angle: f64,
    leg: f64,
    corners: usize,
    lip: Option<(f64, f64)>,
    down: bool,
}

fn tray() -> impl Strategy<Value = Tray> {
    (
        (60.0..300.0f64, 60.0..300.0f64),
        0.5..4.0f64,
        0.3..6.0f64,
        0.2..0.5f64,
        prop::sample::subsequence(vec![0usize, 1, 2, 3], 1..=4),
        20.0..120.0f64,
        0.1..0.35f64,
        0usize..4,
        prop::option::of((30.0..100.0f64, 0.25..0.8f64)),
        any::<bool>(),
    )
        .prop_map(|(size, thickness, radius, k, edges, angle, share, corners, lip, down)| {
            let least = 3.0 * (radius + thickness) + 2.0;
            Tray {
                size,
                thickness,
                radius,
                k,
                edges,
                angle,
                leg: least + share * size.0.min(size.1),
                corners,
                lip,
                down,
            }
        })
}

const SIDES: [&str; 4] = ["front", "right", "back", "left"];

fn made(tray: &Tray) -> Option<(Piece, Outcome)> {
    let corners = match tray.corners {
        0 => json!({"open": {}}),
        1 => json!({"closed": {"gap": "0.5 mm"}}),
        2 => json!({"mitred": {"gap": "0.5 mm"}}),
        _ => json!({"overlapped": {"gap": "0.5 mm"}}),
    };
    let direction = if tray.down { "down" } else { "up" };
    let edges: Vec<String> = tray.edges.iter().map(|&at| format!("base.{}", SIDES[at])).collect();
    let mut work = vec![
        steelk_testing::base(&format!("{} mm", tray.size.0), &format!("{} mm", tray.size.1)),
        bend(
            "wall",
            &edges[0],
            &format!("{} deg", tray.angle),
            &format!("{} mm", tray.leg),
            json!({"also": &edges[1..], "corners": corners, "direction": direction}),
        ),
    ];
    if let Some((angle, share)) = tray.lip {
        let names: Vec<String> = match edges.len() {
            1 => vec!["wall.end".into()],
            _ => tray.edges.iter().map(|&at| format!("wall.{}.end", SIDES[at])).collect(),
        };
        let leg = 2.5 * (tray.radius + tray.thickness) + share * tray.leg * 0.5;
        work.push(bend(
            "lip",
            &names[0],
            &format!("{angle} deg"),
            &format!("{leg} mm"),
            json!({"also": &names[1..], "corners": {"mitred": {"gap": "0.5 mm"}}, "direction": direction}),
        ));
    }
    let piece = piece(
        &format!("{} mm", tray.thickness),
        &format!("{} mm", tray.radius),
        &format!("{}", tray.k),
        Value::Array(work),
    );
    let outcome = evaluate(&piece, Options::default());
    // A wall with nothing left between its corners is refused in words: that is no part to look at.
    let refused = outcome.findings.iter().any(|one| one.severity == Severity::Error);
    (!refused && outcome.part().is_some()).then_some((piece, outcome))
}

/// What was refused is no case of a law: as many as were asked for are built and held to it.
fn refused() -> TestCaseError {
    TestCaseError::reject("refused in words")
}

proptest! {
    #![proptest_config(law::cases(96))]

    /// The blank is the sum of its nodes; nothing lies over itself in the flat unless the rule says so; the mesh and the
    /// solid close; folding and unfolding agree.
    #[test]
    fn random_trays_hold_together(tray in tray()) {
        let Some((_, outcome)) = made(&tray) else { return Err(refused()) };
        let found = part(&outcome);
        prop_assert!((found.blank.region.area() - found.flat.area()).abs() < 1e-6 * found.flat.area());
        let told = outcome.breaches.iter().any(|one| one.rule == "flat_overlap");
        for one in 0..found.flat.nodes.len() {
            for two in 0..one {
                let (a, b) = (&found.flat.nodes[one].region.outer, &found.flat.nodes[two].region.outer);
                if a.extents().is_near(&b.extents(), 0.0) {
                    let shared = common_area(a, b);
                    prop_assert!(told || shared < 1e-3, "{} and {} share {} mm2", found.flat.nodes[one].name, found.flat.nodes[two].name, shared);
                }
            }
        }
        let (mesh, _) = folded_mesh(&found.flat, &found.tree, &found.folded, 0.1).unwrap();
        prop_assert!(mesh.is_watertight());
        let solid = folded_body(&found.flat);
        prop_assert!(solid.is_ok(), "{:?}", solid.err());
        for (at, node) in found.flat.nodes.iter().enumerate() {
            for edge in &node.region.outer.edges {
                let (flat, z) = found.folded.unfold(at, found.folded.apply(at, edge.start, tray.thickness * 0.3));
                prop_assert!(flat.distance(edge.start) < 1e-8 && (z - tray.thickness * 0.3).abs() < 1e-8);
            }
        }
    }

    /// Walls of one operation never run into each other, and with every corner treated neither do their lips.
    #[test]
    fn treated_corners_never_clash(tray in tray()) {
        let Some((_, outcome)) = made(&tray) else { return Err(refused()) };
        for breach in outcome.breaches.iter().filter(|one| one.rule == "folded_clash") {
            let neighbours = |name: &str| SIDES.iter().position(|side| breach.features.iter().any(|one| *one == format!("{name}.{side}")));
            let walls = breach.features.iter().all(|one| one.starts_with("wall."));
            let opposite = {
                let sides: Vec<usize> = breach.features.iter().filter_map(|one| SIDES.iter().position(|side| one.ends_with(side))).collect();
                sides.len() == 2 && sides[0].abs_diff(sides[1]) == 2
            };
            prop_assert!(!walls || opposite, "{} ({:?})", breach.message, neighbours("wall"));
        }
    }

    /// The opposite hand: mirrored blank, same mass, mirrored centre of gravity, same bends.
    #[test]
    fn mirrored_parts_have_mirrored_blanks(tray in tray()) {
        let Some((mut piece, outcome)) = made(&tray) else { return Err(refused()) };
        piece.opposite_hand = true;
        let other = evaluate(&piece, Options::default());
        let (one, two) = (part(&outcome), part(&other));
        prop_assert_eq!(one.blank.region.outer.edges.len(), two.blank.region.outer.edges.len());
        for edge in &one.blank.region.outer.edges {
            let image = steelk_core::plane::Point::new(-edge.start.x, edge.start.y);
            prop_assert!(two.blank.region.outer.edges.iter().any(|other| other.start.distance(image) < 1e-9));
        }
        let (a, b) = (outcome.figures().unwrap(), other.figures().unwrap());
        prop_assert!((a.mass - b.mass).abs() < 1e-12 * a.mass.max(1.0));
        prop_assert!((a.centre_of_gravity.x + b.centre_of_gravity.x).abs() < 1e-8);
        prop_assert!((a.centre_of_gravity.z - b.centre_of_gravity.z).abs() < 1e-8);
    }

    /// A profile of any turns either is refused where it meets itself, or its blank is as long as its straights and bends
    /// and its folded volume is that of a swept section.
    #[test]
    fn random_profiles(legs in prop::collection::vec((15.0..80.0f64, -120.0..120.0f64), 2..7), thickness in 0.5..3.0f64) {
        let radius = thickness;
        let text: Vec<Value> = legs.iter().enumerate().map(|(at, (length, turn))| {
            let turn = if at == 0 || turn.abs() < 5.0 { if at == 0 { 0.0 } else { 45.0 } } else { *turn };
            json!({"line": {"length": format!("{length} mm"), "turn": format!("{turn} deg")}})
        }).collect();
        let made = piece(&format!("{thickness} mm"), &format!("{radius} mm"), "0.4", json!([{"name": "p", "do": {"profile": {"legs": text, "width": "100 mm"}}}]));
        let outcome = evaluate(&made, Options::default());
        match outcome.part() {
            None => {
                prop_assert!(outcome.findings.iter().any(|one| one.message.contains("runs into itself") || one.message.contains("too short")), "{:?}", outcome.findings);
                return Err(refused());
            }
            Some(found) => {
                let developed: f64 = found.flat.nodes.iter().map(|node| node.region.area() / 100.0).sum();
                prop_assert!((found.blank.extents().width() - developed).abs() < 1e-9);
                // What the section check lets through, the folded solid does not contradict: no clash between pieces.
                let clash: Vec<_> = outcome.breaches.iter().filter(|one| one.rule == "folded_clash").collect();
                prop_assert!(clash.is_empty(), "{:?}", clash);
                prop_assert!(folded_body(&found.flat).is_ok());
            }
        }
    }
}
