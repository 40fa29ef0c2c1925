//! The kernel on strips that no operation laid: chains of strips, a slit flange, rings, loose pieces, drawn bend lines.

use steelk_core::plane::{Outline, Point, Region, Vector};
use steelk_core::sheet::fold::fold;
use steelk_core::sheet::partition::{DrawnStrip, partition, strip_outline};
use steelk_core::sheet::tree::{Side, TreeError, grow, joints};
use steelk_core::sheet::{Flat, Node, NodeKind, StitchError, Strip, folded_mesh, stitch};
use steelk_core::work::sheet::Direction;

use steelk_testing::near;

fn rectangle(x: f64, y: f64, width: f64, height: f64) -> Region {
    let at = |dx, dy| (Point::new(x + dx, y + dy), 0);
    Region::solid(Outline::polygon(&[at(0.0, 0.0), at(width, 0.0), at(width, height), at(0.0, height)]))
}

fn panel(name: &str, region: Region) -> Node {
    let laid = region.extents();
    Node { name: name.into(), kind: NodeKind::Panel, region: region.into(), laid, is_shell: false }
}

/// A strip lying across y, bending what is above it.
fn strip(x: f64, y: f64, length: f64, width: f64, degrees: f64) -> Strip {
    let angle = degrees.to_radians();
    Strip {
        origin: Point::new(x, y),
        along: Vector::new(1.0, 0.0),
        across: Vector::new(0.0, 1.0),
        length,
        width,
        angle,
        radius: width / angle - 0.44 * 2.0,
        direction: Direction::Up,
    }
}

fn bent(name: &str, strip: Strip) -> Node {
    let region = Region::solid(strip_outline(&strip));
    let laid = region.extents();
    Node { name: name.into(), kind: NodeKind::Strip(strip), region: region.into(), laid, is_shell: false }
}

#[test]
fn a_rolled_part_is_strips_on_strips() {
    // Six strips of 15 deg on one another, between two flats: the far flat has turned 90 deg.
    let mut nodes = vec![panel("lead-in", rectangle(0.0, 0.0, 50.0, 20.0))];
    for step in 0..6 {
        nodes.push(bent(&format!("roll-{step}"), strip(0.0, 20.0 + 10.0 * f64::from(step), 50.0, 10.0, 15.0)));
    }
    nodes.push(panel("lead-out", rectangle(0.0, 80.0, 50.0, 20.0)));
    let tree = grow(&nodes).unwrap();
    assert_eq!(tree.joints.len(), 7);
    let folded = fold(&nodes, &tree, 2.0, 1.0);
    let up = |node: usize| {
        let low = folded.apply(node, Point::new(25.0, 90.0), 0.0);
        let high = folded.apply(node, Point::new(25.0, 90.0), 2.0);
        (high - low).unit()
    };
    let normal = up(7);
    near(normal.y, -1.0, 1e-9);
    near(normal.z, 0.0, 1e-9);
    // The chain is one arc: its middle line is as long as the strips, at the neutral radius 60 / (pi/2).
    let neutral = 60.0 / std::f64::consts::FRAC_PI_2;
    let end = folded.apply(7, Point::new(25.0, 80.0), 0.88);
    let z_neutral = folded.apply(0, Point::new(25.0, 20.0), 0.88).z;
    near(end.z - z_neutral, neutral, 0.5);
}

#[test]
fn a_strip_may_be_the_root_and_be_entered_from_either_side() {
    let nodes = vec![
        bent("roll", strip(0.0, 20.0, 50.0, 10.0, 90.0)),
        panel("low", rectangle(0.0, 0.0, 50.0, 20.0)),
        panel("high", rectangle(0.0, 30.0, 50.0, 20.0)),
    ];
    let tree = grow(&nodes).unwrap();
    assert_eq!(tree.links[1].unwrap().parent_side, Some(Side::First));
    assert_eq!(tree.links[2].unwrap().parent_side, Some(Side::Second));
    // Rooted at the far panel instead, the part is the same but for a rigid motion: distances agree.
    let turned = vec![nodes[2].clone(), nodes[0].clone(), nodes[1].clone()];
    let other = grow(&turned).unwrap();
    let (one, two) = (fold(&nodes, &tree, 2.0, 1.0), fold(&turned, &other, 2.0, 1.0));
    let (a, b) = (Point::new(3.0, 2.0), Point::new(40.0, 48.0));
    let first = one.apply(1, a, 0.0).distance(one.apply(2, b, 2.0));
    let second = two.apply(2, a, 0.0).distance(two.apply(0, b, 2.0));
    near(first, second, 1e-9);
    assert!(first < a.distance(b), "folded is nearer than flat");
}

#[test]
fn a_slit_flange_is_one_strip_with_two_panels() {
    let nodes = vec![
        panel("base", rectangle(0.0, 0.0, 60.0, 20.0)),
        bent("bend", strip(0.0, 20.0, 60.0, 5.0, 90.0)),
        panel("left", rectangle(0.0, 25.0, 28.0, 30.0)),
        panel("right", rectangle(32.0, 25.0, 28.0, 30.0)),
    ];
    let tree = grow(&nodes).unwrap();
    assert_eq!(tree.joints.iter().map(|joint| joint.length).collect::<Vec<_>>(), [60.0, 28.0, 28.0]);
    let blank = stitch(&nodes).unwrap();
    near(blank.region.area(), 60.0 * 25.0 + 2.0 * 28.0 * 30.0, 1e-9);
    assert!(!blank.region.contains(Point::new(30.0, 40.0)) && blank.region.contains(Point::new(30.0, 22.0)));
}

#[test]
fn a_ring_is_refused_with_its_members() {
    // A closed picture frame of four panels and four strips cannot fold.
    let along_y = |x: f64, y: f64| Strip {
        origin: Point::new(x, y),
        along: Vector::new(0.0, 1.0),
        across: Vector::new(1.0, 0.0),
        ..strip(0.0, 0.0, 20.0, 5.0, 90.0)
    };
    let nodes = vec![
        panel("a", rectangle(0.0, 0.0, 20.0, 20.0)),
        bent("ab", along_y(20.0, 0.0)),
        panel("b", rectangle(25.0, 0.0, 20.0, 20.0)),
        bent("bc", strip(25.0, 20.0, 20.0, 5.0, 90.0)),
        panel("c", rectangle(25.0, 25.0, 20.0, 20.0)),
        bent("cd", along_y(20.0, 25.0)),
        panel("d", rectangle(0.0, 25.0, 20.0, 20.0)),
        bent("da", strip(0.0, 20.0, 20.0, 5.0, 90.0)),
    ];
    let Err(TreeError::Ring(members)) = grow(&nodes) else { panic!("a ring was folded") };
    for name in ["a", "b", "c", "d", "bend ab", "bend bc", "bend cd", "bend da"] {
        assert!(members.iter().any(|member| member == name), "{name} is not named in {members:?}");
    }
    // With one bend taken away it is a chain and folds.
    let chain: Vec<Node> = nodes[..7].to_vec();
    assert_eq!(grow(&chain).unwrap().order.len(), 7);
}

#[test]
fn loose_and_empty_parts_are_refused() {
    assert_eq!(grow(&[]), Err(TreeError::Empty));
    assert_eq!(stitch(&[]).unwrap_err(), StitchError::Empty);
    let apart = vec![
        panel("base", rectangle(0.0, 0.0, 20.0, 20.0)),
        bent("far", strip(0.0, 30.0, 20.0, 5.0, 90.0)),
        panel("other", rectangle(0.0, 40.0, 20.0, 20.0)),
    ];
    assert_eq!(grow(&apart), Err(TreeError::Loose(vec!["bend far".into(), "other".into()])));
    assert_eq!(stitch(&apart).unwrap_err(), StitchError::Pieces(3));
    // Touching at a corner only is no joint.
    let corner = vec![panel("base", rectangle(0.0, 0.0, 20.0, 20.0)), bent("bend", strip(20.0, 20.0, 20.0, 5.0, 90.0))];
    assert!(joints(&corner).is_empty());
}

#[test]
fn a_flat_with_drawn_bend_lines_folds() {
    // A plain 100 x 90 sheet with two strips drawn across it: a channel, with a hole across the first bend.
    let mut blank = rectangle(0.0, 0.0, 100.0, 90.0);
    blank.holes.push(Outline::circle(Point::new(50.0, 22.5), 6.0, 0));
    let drawn = |name: &str, y: f64| DrawnStrip { name: name.into(), strip: strip(0.0, y, 100.0, 5.0, 90.0) };
    let nodes = partition(&blank, &[drawn("low", 20.0), drawn("high", 60.0)]);
    let panels: Vec<&Node> = nodes.iter().filter(|node| node.is_panel()).collect();
    assert_eq!(panels.len(), 3);
    // The hole parts the first strip in two nodes. Both ways round it turn about one axis, so the part folds; drawn
    // with a different angle on one side it would not.
    assert_eq!(nodes.iter().filter(|node| node.name == "low").count(), 2);
    let area: f64 = nodes.iter().map(|node| node.region.area()).sum();
    near(area, blank.area(), 1e-2);
    let tree = grow(&nodes).unwrap();
    let folded = fold(&nodes, &tree, 2.0, 1.0);
    for joint in &tree.joints {
        let NodeKind::Strip(strip) = &nodes[joint.strip].kind else { unreachable!() };
        let v = if joint.side == Side::First { 0.0 } else { strip.width };
        let place = strip.place(3.0, v);
        let gap = folded.apply(joint.strip, place, 0.0).distance(folded.apply(joint.neighbour, place, 0.0));
        near(gap, 0.0, 1e-9);
    }
    let flat = Flat { nodes: nodes.clone(), ..Flat::new(2.0) };
    let (mesh, _) = folded_mesh(&flat, &tree, &folded, 0.02).unwrap();
    assert!(mesh.is_watertight(), "the window is walled all round");
    let mut uneven = nodes.clone();
    let last = uneven.iter().rposition(|node| node.name == "low").unwrap();
    if let NodeKind::Strip(strip) = &mut uneven[last].kind {
        strip.angle *= 0.9;
    }
    assert!(matches!(grow(&uneven), Err(TreeError::Ring(_))));
    // Without the hole it folds to a channel whose walls face each other, 35 + two setbacks apart.
    blank.holes.clear();
    let nodes = partition(&blank, &[drawn("low", 20.0), drawn("high", 60.0)]);
    let tree = grow(&nodes).unwrap();
    let folded = fold(&nodes, &tree, 2.0, 1.0);
    let at = |name: &str| {
        nodes
            .iter()
            .position(|node| {
                node.is_panel() && node.region.contains(Point::new(50.0, if name == "low" { 5.0 } else { 85.0 }))
            })
            .unwrap()
    };
    let (a, b) =
        (folded.apply(at("low"), Point::new(50.0, 5.0), 2.0), folded.apply(at("high"), Point::new(50.0, 85.0), 2.0));
    let radius = strip(0.0, 0.0, 1.0, 5.0, 90.0).radius;
    near((a - b).y.abs(), 35.0 + 2.0 * radius, 1e-9);
}

#[test]
fn the_neutral_length_is_kept_while_folding() {
    let nodes = vec![
        panel("base", rectangle(0.0, 0.0, 20.0, 20.0)),
        bent("bend", strip(0.0, 20.0, 20.0, 8.0, 120.0)),
        panel("flange", rectangle(0.0, 28.0, 20.0, 20.0)),
    ];
    let tree = grow(&nodes).unwrap();
    let NodeKind::Strip(of) = &nodes[1].kind else { unreachable!() };
    let depth = of.neutral_depth();
    for fraction in [0.05, 0.3, 0.7, 1.0] {
        let folded = fold(&nodes, &tree, 2.0, fraction);
        let steps = 400;
        let mut length = 0.0;
        let mut before = folded.apply(1, Point::new(5.0, 20.0), 2.0 - depth);
        for step in 1..=steps {
            let here = folded.apply(1, Point::new(5.0, 20.0 + 8.0 * f64::from(step) / f64::from(steps)), 2.0 - depth);
            length += here.distance(before);
            before = here;
        }
        near(length, 8.0, 1e-4);
    }
}
