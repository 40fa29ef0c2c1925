//! Laws of the sheet kernel, on random valid parts.

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::plane::Point;
use steelk_core::sheet::fold::fold;
use steelk_core::sheet::partition::{DrawnStrip, partition};
use steelk_core::sheet::{NodeKind, Part, figures, folded_mesh, stitch, tree};

use steelk_testing::{law, *};

/// A random part: a base, some of its four edges bent, lips on some flanges, a few holes.
#[derive(Clone, Debug)]
struct Recipe {
    thickness: f64,
    radius: f64,
    k: f64,
    size: (f64, f64),
    flanges: [Option<(f64, f64, bool)>; 4],
    lips: [Option<(f64, f64, bool)>; 4],
    position: &'static str,
    relief: bool,
    hole: bool,
}

fn recipe() -> impl Strategy<Value = Recipe> {
    let flange = || prop::option::of((10.0f64..150.0, 25.0f64..60.0, any::<bool>()));
    let position = prop_oneof![Just("material_inside"), Just("material_outside"), Just("bend_outside")];
    (
        (0.8f64..4.0, 0.5f64..6.0, 0.3f64..0.5),
        (120.0f64..400.0, 110.0f64..300.0),
        [flange(), flange(), flange(), flange()],
        [flange(), flange(), flange(), flange()],
        position,
        any::<bool>(),
        any::<bool>(),
    )
        .prop_map(|((thickness, radius, k), size, flanges, lips, position, relief, hole)| Recipe {
            thickness,
            radius,
            k,
            size,
            flanges,
            lips,
            position,
            relief,
            hole,
        })
}

fn document(recipe: &Recipe) -> Piece {
    let mm = |value: f64| format!("{value} mm");
    let mut operations = vec![base(&mm(recipe.size.0), &mm(recipe.size.1))];
    let sides = [
        ("front", ["left", "right"]),
        ("right", ["front", "back"]),
        ("back", ["right", "left"]),
        ("left", ["back", "front"]),
    ];
    // Clear of the corner: the widest setback any of these takes, plus the relief's depth.
    let clear = mm(3.0 * (recipe.radius + recipe.thickness) + 2.0);
    for ((side, ends), (flange, lip)) in sides.iter().zip(recipe.flanges.iter().zip(&recipe.lips)) {
        let Some((angle, leg, up)) = flange else { continue };
        let mut extra = json!({"position": recipe.position, "direction": if *up { "up" } else { "down" }, "leg_to": "tangent", "set_in": {ends[0]: clear, ends[1]: clear}});
        if recipe.relief {
            extra["relief"] = json!({"shape": if *up { "rectangular" } else { "obround" }});
        }
        operations.push(bend(side, &format!("base.{side}"), &format!("{angle} deg"), &mm(*leg), extra));
        if let Some((angle, leg, up)) = lip {
            let name = format!("{side}-lip");
            let extra =
                json!({"direction": if *up { "up" } else { "down" }, "leg_to": "tangent", "position": "bend_outside"});
            operations.push(bend(&name, &format!("{side}.end"), &format!("{angle} deg"), &mm(*leg * 0.6), extra));
        }
    }
    if recipe.hole {
        operations.push(drill("bore", "base", "14 mm", json!({"repeat": [{"count": "2", "spacing": "25 mm"}]})));
    }
    piece(&mm(recipe.thickness), &mm(recipe.radius), &recipe.k.to_string(), Value::Array(operations))
}

fn made(recipe: &Recipe) -> (Piece, Part) {
    let piece = document(recipe);
    let part = part(&sound(&piece)).clone();
    (piece, part)
}

proptest! {
    #![proptest_config(law::cases(96))]

    /// Folding then unfolding any point of the sheet returns it, at any fold.
    #[test]
    fn fold_then_unfold_returns(recipe in recipe(), fraction in 0.01f64..=1.0, u in 0.0f64..1.0, v in 0.0f64..1.0, h in 0.0f64..1.0) {
        let (_, part) = made(&recipe);
        let folded = fold(&part.flat.nodes, &part.tree, part.flat.thickness, fraction);
        for (at, node) in part.flat.nodes.iter().enumerate() {
            let around = node.region.extents();
            let flat = Point::new(around.low.x + u * around.width(), around.low.y + v * around.height());
            let z = h * part.flat.thickness;
            let (back, height) = folded.unfold(at, folded.apply(at, flat, z));
            prop_assert!(back.distance(flat) < 1e-9 && (height - z).abs() < 1e-9, "{}: {:?} {}", node.name, back, height);
        }
    }

    /// A panel keeps its area and its distances when folded; neighbours still meet along their tangent lines.
    #[test]
    fn panels_are_rigid_and_stay_joined(recipe in recipe()) {
        let (_, part) = made(&recipe);
        for (at, node) in part.flat.nodes.iter().enumerate().filter(|(_, node)| node.is_panel()) {
            let corners: Vec<Point> = node.region.outer.edges.iter().map(|edge| edge.start).collect();
            let places: Vec<_> = corners.iter().map(|&corner| part.folded.apply(at, corner, 0.0)).collect();
            for one in 0..corners.len() {
                for two in 0..one {
                    prop_assert!((corners[one].distance(corners[two]) - places[one].distance(places[two])).abs() < 1e-9);
                }
            }
        }
        for joint in &part.tree.joints {
            let NodeKind::Strip(strip) = &part.flat.nodes[joint.strip].kind else { unreachable!() };
            let v = if joint.side == tree::Side::First { 0.0 } else { strip.width };
            for u in [0.0, 0.5, 1.0] {
                for z in [0.0, part.flat.thickness] {
                    let place = strip.place(u * strip.length, v);
                    let gap = part.folded.apply(joint.strip, place, z).distance(part.folded.apply(joint.neighbour, place, z));
                    prop_assert!(gap < 1e-9, "joint opens by {}", gap);
                }
            }
        }
    }

    /// The mesh is closed, and its volume nears the exact folded volume as it is refined.
    #[test]
    fn mesh_is_closed_and_converges(recipe in recipe()) {
        let (_, part) = made(&recipe);
        let exact = figures(&part).folded_volume;
        // Chords of bends lose volume and chords of holes gain it, so a coarse mesh may be right by luck: what counts
        // is that a tenth of the tolerance leaves a bound that shrinks with it.
        for (tolerance, bound) in [(0.2, 1e-2), (0.02, 1.5e-3), (0.002, 2e-4)] {
            let (mesh, _) = folded_mesh(&part.flat, &part.tree, &part.folded, tolerance).unwrap();
            prop_assert!(mesh.is_watertight());
            let error = (mesh.volume() - exact).abs() / exact;
            prop_assert!(error < bound, "{} at {}", error, tolerance);
        }
    }

    /// The blank is the sum of its nodes, and cutting it along its strips gives the same panels and the same tree.
    #[test]
    fn blank_cut_along_its_strips_is_the_part(mut recipe in recipe()) {
        // With no relief the bend's end and the material beside it touch along a slit of no width.
        recipe.relief |= recipe.position != "bend_outside";
        let (_, part) = made(&recipe);
        let blank = stitch(&part.flat.nodes).unwrap().region;
        prop_assert!((blank.area() - part.flat.area()).abs() < 1e-6 * blank.area());
        let strips: Vec<DrawnStrip> = part.flat.bends.iter()
            .map(|bend| DrawnStrip { name: bend.name.clone(), strip: part.flat.strip_of(bend).clone() }).collect();
        let nodes = partition(&blank, &strips);
        prop_assert_eq!(nodes.len(), part.flat.nodes.len());
        let areas = |nodes: &[steelk_core::sheet::Node]| {
            let mut areas: Vec<f64> = nodes.iter().map(|node| node.region.area()).collect();
            areas.sort_by(f64::total_cmp);
            areas
        };
        for (one, two) in areas(&nodes).iter().zip(areas(&part.flat.nodes)) {
            prop_assert!((one - two).abs() < 1e-3, "{} {}", one, two);
        }
        let grown = tree::grow(&nodes).unwrap();
        prop_assert_eq!(grown.joints.len(), part.tree.joints.len());
    }

    /// K-factor, allowance and deduction that say the same give the same blank.
    #[test]
    fn equivalent_methods_give_one_blank(recipe in recipe()) {
        let (mut piece, part) = made(&recipe);
        let by_k = part.blank.region.area();
        for method in [json!({"allowance": format!("pi/2 * (R + {}*T)", recipe.k)}), json!({"deduction": format!("2*(R + T) - pi/2 * (R + {}*T)", recipe.k)})] {
            piece.bending.method = serde_json::from_value(method).unwrap();
            let other = steelk_testing::part(&sound(&piece)).blank.region.area();
            prop_assert!((other - by_k).abs() < 1e-6, "{} {}", other, by_k);
        }
    }

    /// Flat is the limit of folding: at a very small fold every point is near where it lay.
    #[test]
    fn unfolded_is_the_blank(recipe in recipe()) {
        let (_, part) = made(&recipe);
        for fraction in [0.0, 1e-7] {
            let folded = fold(&part.flat.nodes, &part.tree, part.flat.thickness, fraction);
            for (at, node) in part.flat.nodes.iter().enumerate() {
                let place = node.region.outer.edges[0].start;
                let moved = folded.apply(at, place, 0.0);
                prop_assert!((moved.x - place.x).abs() < 1e-3 && (moved.y - place.y).abs() < 1e-3 && moved.z.abs() < 1e-3);
            }
        }
    }
}

fn any_json() -> impl Strategy<Value = Value> {
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        any::<f64>().prop_map(|number| json!(number)),
        any::<i64>().prop_map(Value::from),
        "\\PC{0,12}".prop_map(Value::from),
        prop_oneof![
            Just("1e999"),
            Just("-5 mm"),
            Just("base.back"),
            Just("base"),
            Just("A"),
            Just("90 deg"),
            Just("179.9999999 deg"),
            Just("1e8 mm"),
            Just("0")
        ]
        .prop_map(Value::from),
    ];
    leaf.prop_recursive(3, 24, 5, |inner| {
        prop_oneof![
            prop::collection::vec(inner.clone(), 0..5).prop_map(Value::Array),
            prop::collection::hash_map("[a-z_]{1,10}", inner, 0..5)
                .prop_map(|map| Value::Object(map.into_iter().collect())),
        ]
    })
}

proptest! {
    #[test]
    fn random_json_never_panics(value in any_json()) {
        let _ = Piece::read(value.to_string().as_bytes());
    }

    #[test]
    fn random_bytes_never_panic(bytes in prop::collection::vec(any::<u8>(), 0..200)) {
        prop_assert!(Piece::read(&bytes).is_err());
    }

    /// A sound document with any one value replaced by anything is read or refused, built or reported; never a panic,
    /// never a number that is not finite.
    #[test]
    fn a_spoilt_document_never_panics(pick in 0usize..200, value in any_json()) {
        let mut document: Value = serde_json::from_str(include_str!("../../../demo/02-tool-tray.json")).unwrap();
        let mut paths = Vec::new();
        collect(&document, &mut String::new(), &mut paths);
        let path = paths[pick % paths.len()].clone();
        *document.pointer_mut(&path).unwrap() = value;
        if let Ok(piece) = Piece::read(document.to_string().as_bytes()) {
            let outcome = evaluate(&piece, Options::default());
            if let Some(figures) = outcome.figures() {
                prop_assert!(figures.mass.is_finite() && figures.cut_length.is_finite() && figures.blank_width.is_finite());
            }
        }
    }
}

fn collect(value: &Value, path: &mut String, paths: &mut Vec<String>) {
    if !path.is_empty() {
        paths.push(path.clone());
    }
    let children: Vec<(String, &Value)> = match value {
        Value::Object(map) => map.iter().map(|(key, inner)| (key.clone(), inner)).collect(),
        Value::Array(list) => list.iter().enumerate().map(|(at, inner)| (at.to_string(), inner)).collect(),
        _ => Vec::new(),
    };
    for (key, inner) in children {
        let length = path.len();
        path.push('/');
        path.push_str(&key);
        collect(inner, path, paths);
        path.truncate(length);
    }
}
