//! Faults that were found in silence, one minimal document each, with the true figure and how it is derived.

use std::f64::consts::PI;
use std::path::Path;
use steelk_core::frame::WeldKind;

use i_overlay::core::fill_rule::FillRule;
use i_overlay::core::overlay_rule::OverlayRule;
use i_overlay::float::single::SingleFloatOverlay;
use steelk_core::finding::Severity;
use steelk_core::frame::{FrameMade, file_stem};
use steelk_core::piece::{Options, Outcome, Piece, audit_fully, evaluate};
use steelk_core::plane::{Outline, Point};
use steelk_core::proof::Verdict;
use steelk_core::sheet::{figures, folded_body};
use steelk_testing::near;

fn document(name: &str) -> Piece {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/faults").join(format!("{name}.json"));
    Piece::read(&std::fs::read(path).unwrap()).unwrap()
}

fn errors(outcome: &Outcome) -> Vec<String> {
    outcome
        .findings
        .iter()
        .filter(|one| one.severity == Severity::Error && one.callout.is_none())
        .map(|one| one.message.clone())
        .collect()
}

/// Evaluated, without an error, and every figure the same both ways.
#[track_caller]
fn sound(name: &str) -> Outcome {
    let mut outcome = evaluate(&document(name), Options::default());
    assert_eq!(errors(&outcome), Vec::<String>::new(), "{name}");
    audit_fully(&mut outcome);
    assert_eq!(outcome.audit.faults(), Vec::<String>::new(), "{name}");
    outcome
}

fn made(outcome: &Outcome) -> &FrameMade {
    &outcome.frame().unwrap().made
}

fn net_area(outcome: &Outcome) -> f64 {
    figures(outcome.part().unwrap()).net_area
}

/// Area under a slope of V over B whose upper end is rounded by 10 into an upright: the triangle, and between the slope's end and
/// the arc's the corner that the arc leaves, R^2 (tan(a/2) - a/2) above and beside it for a turn of a.
fn wedge(base: f64, rise: f64) -> f64 {
    let turn = PI / 2.0 - (rise / base).atan();
    let trim = 10.0 * (turn / 2.0).tan();
    // Two tangents of length trim and the arc between them enclose trim R - R^2 a / 2, beside the upright that goes on.
    base * rise / 2.0 + (trim * 10.0 - 100.0 * turn / 2.0)
}

#[test]
fn cuts_with_a_tangent_arc_are_made_in_every_panel() {
    // The cut lies along the plate's front and right edges: 100 wide, 20 high where slope and side would meet.
    near(net_area(&sound("sheet-cut-meets-none")), 200.0 * 100.0 - wedge_of(100.0, 20.0), 2e-3);
    for name in ["sheet-cut-not-made", "sheet-cut-takes-all"] {
        let outcome = sound(name);
        let mut bare = document(name);
        bare.operations.retain(|operation| operation.name != "c");
        let bare = evaluate(&bare, Options::default());
        // What the other library says that the tool shares with the blank before it.
        let tool = &outcome.part().unwrap().flat.cuts[0].tool;
        let polygon =
            |outline: &Outline| -> Vec<[f64; 2]> { outline.flatten(1e-4).into_iter().map(|at| [at.x, at.y]).collect() };
        let blank = vec![polygon(&bare.part().unwrap().blank.region.outer)];
        let shared = blank.overlay(&vec![polygon(tool)], OverlayRule::Intersect, FillRule::EvenOdd);
        let area: f64 = shared
            .iter()
            .flatten()
            .map(|ring| {
                (0..ring.len())
                    .map(|at| {
                        let ([ax, ay], [bx, by]) = (ring[at], ring[(at + 1) % ring.len()]);
                        (ax * by - bx * ay) / 2.0
                    })
                    .sum::<f64>()
            })
            .sum();
        assert!(area > 300.0);
        near(net_area(&bare) - net_area(&outcome), area, 5e-3);
        let took = outcome.part().unwrap().flat.cuts[0]
            .nodes
            .iter()
            .filter(|node| node.after != vec![node.before.clone()])
            .count();
        assert!(took >= 3, "{name} took from {took} nodes");
    }
}

/// The wedge of the first fault, by its corners and the arc's circular segment (shoelace, and R^2 (a - sin a) / 2).
fn wedge_of(base: f64, rise: f64) -> f64 {
    let slope = (rise / base).atan();
    let turn = PI / 2.0 - slope;
    let trim = 10.0 * (turn / 2.0).tan();
    let long = base.hypot(rise) - trim;
    let (x, y) = (long * slope.cos(), long * slope.sin());
    let corners = [(0.0, 0.0), (base, 0.0), (base, rise + trim), (x, y)];
    let shoelace: f64 = (0..4)
        .map(|at| {
            let (a, b) = (corners[at], corners[(at + 1) % 4]);
            a.0 * b.1 - b.0 * a.1
        })
        .sum::<f64>()
        / 2.0;
    // The arc bulges into the wedge: its segment is no part of it.
    shoelace - 100.0 * (turn - turn.sin()) / 2.0
}

#[test]
fn both_ways_to_the_wedge_agree() {
    near(wedge(100.0, 20.0), wedge_of(100.0, 20.0), 1e-9);
}

#[test]
fn mirrored_cuts_are_mirrored() {
    let outcome = sound("sheet-cut-mirror-copies");
    let flat = &outcome.part().unwrap().flat;
    let corners = |outline: &Outline| {
        let mut all: Vec<(i64, i64)> = outline
            .edges
            .iter()
            .map(|edge| ((edge.start.x * 1e3).round() as i64, (edge.start.y * 1e3).round() as i64))
            .collect();
        all.sort_unstable();
        all
    };
    // The triangle's box is 40 by 20 about (50, 25) with its tip over the right end; across the middle at 50 it hangs.
    assert_eq!(corners(&flat.holes[0].outline), [(30_000, 15_000), (70_000, 15_000), (70_000, 35_000)]);
    assert_eq!(corners(&flat.holes[1].outline), [(30_000, 85_000), (70_000, 65_000), (70_000, 85_000)]);
}

#[test]
fn a_cut_made_again_reaches_as_far() {
    let outcome = sound("sheet-again-loses-reach");
    let flat = &outcome.part().unwrap().flat;
    assert_eq!(flat.holes[0].reach, flat.holes[1].reach);
    let mut bare = document("sheet-again-loses-reach");
    bare.operations.truncate(2);
    // Two windows of 30 by 60, each across the bend.
    near(net_area(&evaluate(&bare, Options::default())) - net_area(&outcome), 2.0 * 30.0 * 60.0, 1e-6);
}

#[test]
fn an_arcs_centre_is_no_part_of_the_size() {
    let outcome = sound("plate-size-counts-arc-centre");
    near(outcome.figures().unwrap().folded_size.y, 60.0, 1e-9);
    assert_eq!(outcome.callouts[0].verdict, Verdict::Holds);
}

#[test]
fn overlapped_corners_keep_their_gap_round_a_hexagon() {
    let outcome = sound("sheet-overlap-gap");
    let part = outcome.part().unwrap();
    // Least distance between every two neighbouring walls, by corners of one against the flat faces of the other.
    let walls: Vec<usize> =
        (0..part.flat.nodes.len()).filter(|&at| part.flat.nodes[at].is_panel() && at != 0).collect();
    assert_eq!(walls.len(), 6);
    let solid = |at: usize| -> Vec<steelk_core::space::Point3> {
        let outline = &part.flat.nodes[at].region.outer;
        let mut all = Vec::new();
        for (edge, _) in outline.segments() {
            for step in 0..400 {
                for z in [0.0, 1.0, 2.0] {
                    all.push(part.folded.apply(at, edge.at(f64::from(step) / 400.0), z));
                }
            }
        }
        all
    };
    // How far a place is from the metal of a wall: in the wall's own flat, out of its outline and out of its thickness.
    let away = |at: usize, place: steelk_core::space::Point3| {
        let (flat, z) = part.folded.unfold(at, place);
        let outline = &part.flat.nodes[at].region.outer;
        let beside = if outline.contains(flat) {
            0.0
        } else {
            outline.segments().map(|(edge, _)| edge.distance_to(flat)).fold(f64::INFINITY, f64::min)
        };
        beside.hypot((z - 2.0).max(-z).max(0.0))
    };
    for (which, &one) in walls.iter().enumerate() {
        let two = walls[(which + 1) % walls.len()];
        let least = solid(one)
            .into_iter()
            .map(|place| away(two, place))
            .chain(solid(two).into_iter().map(|place| away(one, place)))
            .fold(f64::INFINITY, f64::min);
        near(least, 0.6, 1e-6);
    }
}

#[test]
fn a_straight_shaft_passes_a_slanted_panel() {
    let outcome = sound("sheet-slanted-through-hole");
    let part = outcome.part().unwrap();
    let base = part.flat.panel("base").unwrap();
    let up = part.folded.motion(base).unwrap().direction(steelk_core::space::Vector3::new(0.0, 0.0, 1.0));
    for hole in part.flat.holes.iter() {
        // The shaft, 10 across and square to the base, at every height of the sheet there.
        let axis = part.folded.apply(part.flat.holes[0].panel, part.flat.holes[0].centre, 1.5);
        let own = part.folded.motion(hole.panel).unwrap();
        for turn in 0..72 {
            let (sine, cosine) = (f64::from(turn) * 5f64.to_radians()).sin_cos();
            let side = steelk_core::space::Vector3::new(cosine * 4.997, sine * 4.997, 0.0);
            for level in 0..=20 {
                let z = 3.0 * f64::from(level) / 20.0;
                // Down the shaft to this height of the sheet.
                let (from, way) = (own.inverse().apply(axis + side), own.inverse().direction(up));
                let at = from + way * ((z - from.z) / way.z);
                assert!(hole.outline.contains(Point::new(at.x, at.y)), "{} at {turn}, {z}", hole.name);
            }
        }
    }
}

#[test]
fn odd_bends_have_their_files() {
    // DIN 6935 below 15 deg of bend: v = 0, so the blank is the sum of the outside legs, 80 + 40.
    let shallow = sound("sheet-din-shallow");
    near(shallow.figures().unwrap().blank_height, 120.0, 1e-6);
    for name in ["sheet-notch-to-tangent", "sheet-hole-at-steep-bend", "sheet-din-shallow"] {
        let outcome = sound(name);
        assert!(outcome.audit.left_out.is_empty(), "{name}: {:?}", outcome.audit.left_out);
        let body = folded_body(&outcome.part().unwrap().flat).unwrap();
        near(body.mass().volume / (outcome.figures().unwrap().folded_volume), 1.0, 1e-6);
    }
}

#[test]
fn plates_lie_where_they_are_told() {
    // Centre lines 600 by 800, 40 wide: the opening is 560 by 760, and 1 mm all round is left.
    let panel = sound("frame-panel-off");
    let plate = &made(&panel).frame.plates[0];
    near(figures(&plate.part).blank_width, 558.0, 1e-6);
    near(figures(&plate.part).blank_height, 758.0, 1e-6);
    let centre = plate.centre_of_gravity();
    let middle = made(&panel).frame.members.iter().fold((0.0, 0.0), |sum, member| {
        let at = member.centre_of_gravity();
        (sum.0 + at.x / 4.0, sum.1 + at.y / 4.0)
    });
    near(centre.x, middle.0, 1e-6);
    near(centre.y, middle.1, 1e-6);
    near(centre.z, 0.0, 1e-6);
    assert!(panel.frame().unwrap().plate_clashes.is_empty());
    // A cap over the upper end of a post of 500: 4 thick on top, in the middle.
    let cap = sound("frame-cap-off");
    let at = made(&cap).frame.plates[0].centre_of_gravity();
    near(at.x, 0.0, 1e-9);
    near(at.y, 0.0, 1e-9);
    near(at.z, 502.0, 1e-9);
    // Along x up is z and right is y: off is to the right on top and below, up on the sides.
    let off = sound("frame-plate-off-sign");
    let place =
        |name: &str| made(&off).frame.plates.iter().find(|plate| plate.name == name).unwrap().centre_of_gravity();
    for name in ["ftop", "fbottom"] {
        near(place(name).y, 5.0, 1e-9);
    }
    for name in ["fleft", "fright"] {
        near(place(name).z, 5.0, 1e-9);
    }
}

#[test]
fn wrap_templates_wrap_onto_the_cut_at_either_end() {
    let outcome = sound("frame-wrap-start-mirrored");
    assert!(outcome.audit.pairs.iter().any(|pair| pair.check == "wrap_template"));
}

#[test]
fn mitres_share_a_cut_only_where_the_section_turns() {
    let angle = evaluate(&document("frame-mitres-cannot-turn"), Options::default());
    let shared = |outcome: &Outcome| outcome.frame().unwrap().bars[0].problem.pieces[0].shared;
    near(shared(&angle), 0.0, 0.0);
    // The same ring of a square tube can: 50 deep at 45 deg, less what the slanted kerf is longer along the bar.
    let text = document("frame-mitres-cannot-turn").write().replace("L 50x50x5", "SHS 50x50x3");
    let tube = evaluate(&Piece::read(text.as_bytes()).unwrap(), Options::default());
    near(shared(&tube), 50.0 - 3.0 * (2f64.sqrt() - 1.0), 1e-6);
}

#[test]
fn a_corner_of_three_is_the_same_whatever_the_order() {
    let ends = |piece: &Piece| -> Vec<(String, String, String)> {
        let outcome = evaluate(piece, Options::default());
        assert_eq!(errors(&outcome), Vec::<String>::new());
        let mut all: Vec<_> = made(&outcome)
            .frame
            .members
            .iter()
            .map(|member| {
                let words = |finish: usize| {
                    let mut by: Vec<String> = member.ends[finish].planes.iter().map(|cut| cut.by.to_string()).collect();
                    by.sort_unstable();
                    by.join("; ")
                };
                (member.name.clone(), words(0), words(1))
            })
            .collect();
        all.sort();
        all
    };
    let piece = document("frame-mitre-of-three");
    let first = ends(&piece);
    let mut turned = piece.clone();
    turned.operations.swap(0, 1);
    turned.operations.swap(2, 3);
    assert_eq!(first, ends(&turned));
    // The two of one group are mitred with each other, and the bar is cut to both.
    let near_a = first.iter().find(|one| one.0 == "near.a").unwrap();
    assert_eq!(near_a.2, "mitre with near.b");
    let bar = first.iter().find(|one| one.0 == "cross.bar").unwrap();
    assert!(bar.1.starts_with("face of near."), "{}", bar.1);
    let outcome = evaluate(&piece, Options::default());
    let bar = made(&outcome).frame.members.iter().find(|member| member.name == "cross.bar").unwrap();
    // The faces of both lie in one plane: one cut, to the two of them.
    assert_eq!((bar.ends[0].planes.len(), bar.ends[0].planes[0].to.len()), (1, 2));
}

#[test]
fn diagonals_on_a_chord_are_mitred_on_the_plane_between_them() {
    let outcome = sound("frame-mitre-on-chord");
    let frame = &made(&outcome).frame;
    let end = |name: &str, finish: usize| {
        let member = frame.members.iter().find(|member| member.name == name).unwrap();
        let mut by: Vec<String> = member.ends[finish].planes.iter().map(|cut| cut.by.to_string()).collect();
        by.sort();
        by
    };
    assert_eq!(end("d.left", 1), ["face of c.chord", "mitre with d.right"]);
    assert_eq!(end("d.right", 0), ["face of c.chord", "mitre with d.left"]);
    assert!(outcome.frame().unwrap().clashes.is_empty());
    // One piece of the saw: the frame is its own mirror image.
    let diagonals: Vec<_> = made(&outcome)
        .list
        .lines
        .iter()
        .filter(|line| line.members.iter().any(|name| name.starts_with("d.")))
        .collect();
    assert_eq!(diagonals.iter().map(|line| line.quantity).sum::<usize>(), 2);
    assert_eq!(diagonals.len(), 1);
}

#[test]
fn masses_stay_above_nothing() {
    let outcome = evaluate(&document("frame-negative-mass"), Options::default());
    assert!(errors(&outcome)[0].contains("whose face is 10.0 mm wide"), "{:?}", errors(&outcome));
    // Without it the flat weighs 100 x 10 x 200 x 7850.
    near(made(&outcome).list.sums[0].mass, 100.0 * 10.0 * 200.0 * 7850e-9, 1e-9);
    sound("frame-centre-slanted");
}

#[test]
fn what_a_copy_leaves_out_is_named() {
    for (name, left) in [("frame-copy-drops-ends", "e cuts ends"), ("frame-copy-drops-plate", "g lays plates")] {
        let outcome = evaluate(&document(name), Options::default());
        assert!(errors(&outcome)[0].starts_with(left), "{:?}", errors(&outcome));
    }
    // A line that is named twice has its section once.
    let outcome = sound("frame-panics");
    assert_eq!(made(&outcome).frame.members.len(), 1);
    // A member over a line that is not there, which panicked once it was copied, is refused in words.
    let outcome = evaluate(&document("frame-panics-copy"), Options::default());
    assert_eq!(errors(&outcome)[0], "there is no line called post-rear");
}

#[test]
fn marks_are_their_own_in_file_names_too() {
    let outcome = sound("frame-marks-collide");
    let stems: Vec<String> = made(&outcome).list.lines.iter().map(|line| file_stem(&line.mark)).collect();
    assert_eq!(stems.len(), 2);
    assert_ne!(stems[0], stems[1], "{stems:?}");
}

/// Lengths of weld by kind.
fn welded(outcome: &Outcome) -> Vec<(String, f64)> {
    let mut all: Vec<(String, f64)> = Vec::new();
    for weld in &outcome.frame().unwrap().welds {
        match all.iter_mut().find(|(kind, _)| *kind == weld.kind.words()) {
            Some((_, length)) => *length += weld.length,
            None => all.push((weld.kind.words().to_string(), weld.length)),
        }
    }
    all.sort_by(|one, two| one.0.cmp(&two.0));
    all
}

#[track_caller]
fn same(found: &[(String, f64)], expected: &[(&str, f64)]) {
    assert_eq!(
        found.iter().map(|one| one.0.as_str()).collect::<Vec<_>>(),
        expected.iter().map(|one| one.0).collect::<Vec<_>>()
    );
    for (one, two) in found.iter().zip(expected) {
        near(one.1, two.1, 0.02);
    }
}

#[test]
fn welds_run_on_the_rim_of_what_lies_together() {
    // SHS 40x40x4: corners of 8, flats of 24. An end on a side of the same width: fillets of 24 across where the run goes on,
    // a butt of 24 where both stop, flares of 40 along the run's corners. Each once.
    same(
        &welded(&sound("frame-butt-weld-twice")),
        &[("butt", 24.0), ("fillet", 24.0), ("flare along the corner", 80.0)],
    );
    // The same in the middle of a run, without a node: it goes on both ways.
    same(&welded(&sound("frame-touch-no-weld")), &[("fillet", 48.0), ("flare along the corner", 80.0)]);
    // A mitre made by angles: the outline on a plane at 45 deg, two flats as they are and two longer by sqrt 2, four corners
    // of 8 whose quarter ellipses are 8 sqrt 2 by 8 (perimeter by Ramanujan).
    let (a, b) = (8.0 * 2f64.sqrt(), 8.0f64);
    let ellipse = PI * (3.0 * (a + b) - ((3.0 * a + b) * (a + 3.0 * b)).sqrt());
    same(&welded(&sound("frame-angled-end-no-weld")), &[("butt on the mitre", 48.0 + 48.0 * 2f64.sqrt() + ellipse)]);
    // A plate larger than the run lies on its top: RHS 100x50x4 is 34 flat there, 500 long.
    same(&welded(&sound("frame-face-plate-weld")), &[("fillet", 2.0 * 34.0), ("flare along the corner", 2.0 * 500.0)]);
    // A panel with 1 mm round it is welded along both faces of each edge.
    let panel = sound("frame-panel-off");
    let fillets: f64 = welded(&panel).iter().filter(|one| one.0 == "fillet").map(|one| one.1).sum();
    near(fillets, 2.0 * 2.0 * (558.0 + 758.0), 1e-6);
    assert_eq!(panel.frame().unwrap().welds.iter().filter(|weld| weld.kind == WeldKind::ButtOnMitre).count(), 4);
}

#[test]
fn steel_is_not_welded_to_aluminium_without_a_word() {
    let outcome = sound("frame-two-materials");
    assert!(outcome.frame().unwrap().welds.is_empty());
    let said = outcome.breaches.iter().find(|one| one.rule == "unlike_metals").unwrap();
    assert!(said.message.contains("mild steel is not welded to aluminium"), "{}", said.message);
}
