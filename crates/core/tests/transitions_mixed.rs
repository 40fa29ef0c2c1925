//! Transitions between outlines of any two kinds, round, concave and from files: the surface against the outlines by arithmetic of its
//! own, and the sheets against each other.

use std::f64::consts::PI;

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::sheet::folded_body;
use steelk_core::space::query::{Probe, clash};
use steelk_core::space::{Point3, Vector3};
use steelk_testing::trials::{self, Dice};
use steelk_testing::*;

type Place = (f64, f64);

/// An outline as a piece says it and as corners and arcs that are known here: each edge's start and the tangent of a quarter of its sweep.
struct Known {
    said: Value,
    edges: Vec<(Place, f64)>,
}

fn mm(value: f64) -> String {
    format!("{value} mm")
}

/// An outline of a kind about so large, its box about the origin. Sizes are of whole hundredths.
fn outline(dice: &mut Dice, size: f64) -> Known {
    let mut of =
        |share: f64, spread: f64| (size * (share + spread * dice.below(1000) as f64 / 1000.0) * 100.0).round() / 100.0;
    let (w, d, rounding) = (of(0.7, 0.6), of(0.5, 0.6), of(0.06, 0.1));
    let quarter = (PI / 8.0).tan();
    match dice.below(6) {
        0 => {
            let (x, y) = (w / 2.0, d / 2.0);
            Known {
                said: json!({"rectangle": {"width": mm(w), "depth": mm(d)}}),
                edges: vec![((-x, -y), 0.0), ((x, -y), 0.0), ((x, y), 0.0), ((-x, y), 0.0)],
            }
        }
        1 => {
            let r = w / 2.0;
            Known {
                said: json!({"circle": {"diameter": mm(w)}}),
                edges: vec![((r, 0.0), quarter), ((0.0, r), quarter), ((-r, 0.0), quarter), ((0.0, -r), quarter)],
            }
        }
        2 => {
            let (r, x) = (d / 2.0, 0.2 * w);
            Known {
                said: json!({"obround": {"length": mm(2.0 * (x + r)), "width": mm(d)}}),
                edges: vec![((-x, -r), 0.0), ((x, -r), 1.0), ((x, r), 0.0), ((-x, r), 1.0)],
            }
        }
        // From a file: corners rounded by their own radius, one of them or all.
        3 => {
            let (x, y, r) = (w / 2.0, d / 2.0, rounding.min(d / 3.0));
            let mut edges = Vec::new();
            let corners =
                [((-x, -y), (1.0, 0.0)), ((x, -y), (0.0, 1.0)), ((x, y), (-1.0, 0.0)), ((-x, y), (0.0, -1.0))];
            let all = dice.one_in(2);
            for (at, ((cx, cy), (ux, uy))) in corners.into_iter().enumerate() {
                if at > 0 && !all {
                    edges.push(((cx, cy), 0.0));
                    continue;
                }
                // It comes from where it turns left to its own way.
                let (px, py) = (uy, -ux);
                edges.push(((cx - px * r, cy - py * r), quarter));
                edges.push(((cx + ux * r, cy + uy * r), 0.0));
            }
            from_file(edges)
        }
        // An L.
        4 => {
            let (x, y) = (w / 2.0, d / 2.0);
            let (a, b) = (w * 0.45, d * 0.4);
            from_file(vec![
                ((-x, -y), 0.0),
                ((x, -y), 0.0),
                ((x, -y + b), 0.0),
                ((-x + a, -y + b), 0.0),
                ((-x + a, y), 0.0),
                ((-x, y), 0.0),
            ])
        }
        // Corners anywhere round a middle, its box about the origin.
        _ => {
            let count = 3 + dice.below(6);
            let turns: Vec<Place> = (0..count)
                .map(|at| {
                    let angle = 2.0 * PI * (at as f64 + 0.5 * dice.below(100) as f64 / 100.0) / count as f64;
                    let far = size * (0.35 + 0.25 * dice.below(100) as f64 / 100.0);
                    ((far * angle.cos() * 100.0).round() / 100.0, (far * angle.sin() * 100.0).round() / 100.0)
                })
                .collect();
            let middle = |of: fn(&Place) -> f64| {
                let all: Vec<f64> = turns.iter().map(of).collect();
                (all.iter().copied().fold(f64::MAX, f64::min) + all.iter().copied().fold(f64::MIN, f64::max)) / 2.0
            };
            let (mx, my) = (middle(|one| one.0), middle(|one| one.1));
            from_file(turns.into_iter().map(|(x, y)| ((x - mx, y - my), 0.0)).collect())
        }
    }
}

fn from_file(edges: Vec<(Place, f64)>) -> Known {
    let mut path = format!("M {} {}", edges[0].0.0, edges[0].0.1);
    for (at, &(_, bulge)) in edges.iter().enumerate() {
        let (x, y) = edges[(at + 1) % edges.len()].0;
        path += &if bulge == 0.0 { format!(" L {x} {y}") } else { format!(" A {bulge} {x} {y}") };
    }
    Known { said: json!({"profile": {"unit": "mm", "outer": path + " Z"}}), edges }
}

/// How far a place is from an outline.
fn off(known: &Known, (x, y): Place) -> f64 {
    let count = known.edges.len();
    (0..count)
        .map(|at| {
            let ((ax, ay), bulge) = known.edges[at];
            let (bx, by) = known.edges[(at + 1) % count].0;
            let (dx, dy) = (bx - ax, by - ay);
            let chord = dx.hypot(dy);
            if bulge == 0.0 {
                let share = (((x - ax) * dx + (y - ay) * dy) / (chord * chord)).clamp(0.0, 1.0);
                return (x - ax - dx * share).hypot(y - ay - dy * share);
            }
            // The arc's middle from its chord and the tangent of a quarter of its sweep: left of the chord by its apothem.
            let sweep = 4.0 * bulge.atan();
            let radius = chord / 2.0 / (sweep / 2.0).sin();
            let apothem = radius * (sweep / 2.0).cos();
            let (cx, cy) = ((ax + bx) / 2.0 - dy / chord * apothem, (ay + by) / 2.0 + dx / chord * apothem);
            // Only beyond its chord is a place on it.
            let beyond = (x - ax) * dy - (y - ay) * dx > -1e-7 * chord;
            if beyond { ((x - cx).hypot(y - cy) - radius).abs() } else { f64::MAX }
        })
        .fold(f64::MAX, f64::min)
}

/// The area of a level slice within walls whose metal lies `within` of their faces, mm2: each wall's line moved by what its metal measures
/// level, neighbours to where they meet.
fn slice(panels: &[Vec<Point3>], z: f64, within: f64) -> f64 {
    let mut lines: Vec<(Place, Place, f64)> = Vec::new();
    for corners in panels {
        let count = corners.len();
        let crossings: Vec<Place> = (0..count)
            .filter_map(|at| {
                let (a, b) = (corners[at], corners[(at + 1) % count]);
                ((a.z > z) != (b.z > z)).then(|| {
                    let share = (z - a.z) / (b.z - a.z);
                    (a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share)
                })
            })
            .collect();
        let [one, two] = crossings[..] else { continue };
        // Corners go round counter-clockwise seen from within.
        let outward = -(corners[1] - corners[0]).cross(corners[2] - corners[1]).unit();
        let level = outward.x.hypot(outward.y);
        // The inside lies on the left.
        let ahead = (two.0 - one.0) * -outward.y + (two.1 - one.1) * outward.x > 0.0;
        lines.push(if ahead { (one, two, within / level) } else { (two, one, within / level) });
    }
    let mut round = vec![lines.swap_remove(0)];
    while !lines.is_empty() {
        let end = round[round.len() - 1].1;
        let away = |at: &Place| (at.0 - end.0).hypot(at.1 - end.1);
        let next = (0..lines.len()).min_by(|&a, &b| away(&lines[a].0).total_cmp(&away(&lines[b].0))).expect("a line");
        round.push(lines.swap_remove(next));
    }
    let count = round.len();
    let moved = |at: usize| {
        let ((ax, ay), (bx, by), by_how_much) = round[at];
        let long = (bx - ax).hypot(by - ay);
        let (ux, uy) = ((bx - ax) / long, (by - ay) / long);
        ((ax - uy * by_how_much, ay + ux * by_how_much), (ux, uy))
    };
    let mut corners = Vec::new();
    for at in 0..count {
        let ((p, d), (q, e)) = (moved((at + count - 1) % count), moved(at));
        let turn = d.0 * e.1 - d.1 * e.0;
        if turn.abs() < 1e-9 {
            corners.push(q);
        } else {
            let share = ((q.0 - p.0) * e.1 - (q.1 - p.1) * e.0) / turn;
            corners.push((p.0 + d.0 * share, p.1 + d.1 * share));
        }
    }
    (0..count)
        .map(|at| {
            let (a, b) = (corners[at], corners[(at + 1) % count]);
            (a.0 * b.1 - b.0 * a.1) / 2.0
        })
        .sum()
}

/// What a random outline may ask too much of, in words.
const REFUSED: [&str; 7] = [
    "do not go round alike",
    "nothing is left of",
    "has no length left",
    "crosses the lower one",
    "would be bent by",
    "lies almost along",
    "two sides of the surface",
];

#[test]
fn outlines_of_any_two_kinds() {
    let most = trials::cases(200);
    let (mut made, mut refused, mut worst) = (0, 0, 0.0f64);
    for seed in 1..=most {
        let mut dice = Dice::new(seed + 9200);
        let (low, high) = (200.0 + dice.below(200) as f64, 120.0 + dice.below(300) as f64);
        let (lower, upper) = (outline(&mut dice, low), outline(&mut dice, high));
        let height = 90.0 + dice.below(300) as f64;
        let offset = (dice.below(120) as f64 - 60.0, dice.below(120) as f64 - 60.0);
        let (inside, seams, opposite) = (dice.one_in(2), dice.one_in(2), dice.one_in(3));
        let fields = json!({
            "lower": lower.said, "upper": upper.said, "height": mm(height),
            "offset_x": mm(offset.0), "offset_y": mm(offset.1), "lines": (1 + dice.below(4)).to_string(),
            "sizes": if inside { "inside" } else { "outside" }, "corners": if seams { "seams" } else { "bent" },
        });
        let thickness = 0.8 + dice.below(20) as f64 / 10.0;
        let mut piece: Piece =
            piece(&mm(thickness), "2 mm", "0.5", json!([{"name": "hood", "do": {"transition": fields}}]));
        piece.opposite_hand = opposite;
        let outcome = evaluate(&piece, Options::default());
        let errors: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
        for error in &errors {
            assert!(
                REFUSED.iter().any(|words| error.message.contains(words)),
                "seed {seed}: {} {fields}",
                error.message
            );
        }
        let Some(all) = outcome.sheets().filter(|_| errors.is_empty()) else {
            refused += 1;
            continue;
        };
        made += 1;
        let surface = &all.surfaces()[0];
        // Each corner on one of the outlines.
        let hand = if opposite { -1.0 } else { 1.0 };
        for panel in &surface.panels {
            for &corner in &panel.corners {
                let place = surface.points[corner];
                let x = hand * place.x;
                let far = if place.z.abs() < 1e-9 {
                    off(&lower, (x, place.y))
                } else {
                    near(place.z, height, 1e-9);
                    off(&upper, (x - offset.0, place.y - offset.1))
                };
                assert!(far < 1e-6, "seed {seed}: {} has a corner {far} off its outline: {fields}", panel.name);
            }
        }
        // The walls close up with their two ends: what all of them turn to comes to nothing, of each end what lies on its outline.
        let area = |corners: &[Point3]| {
            (1..corners.len() - 1).fold(Vector3::default(), |sum, k| {
                sum + (corners[k] - corners[0]).cross(corners[k + 1] - corners[0]) * 0.5
            })
        };
        let turned = surface.panels.iter().fold(Vector3::default(), |sum, panel| {
            sum + area(&panel.corners.iter().map(|&corner| surface.points[corner]).collect::<Vec<_>>())
        });
        assert!(turned.x.abs() < 1e-5 && turned.y.abs() < 1e-5, "seed {seed}: {turned:?} {fields}");
        // What it holds: slice by slice, each wall as far in as its metal lies level.
        let panels: Vec<Vec<Point3>> = surface
            .panels
            .iter()
            .map(|panel| {
                let mut corners: Vec<Point3> = panel.corners.iter().map(|&corner| surface.points[corner]).collect();
                // A mirror turns the way round.
                if opposite {
                    corners.reverse();
                }
                corners
            })
            .collect();
        let slices = 300;
        let step = height / f64::from(slices);
        let within = if inside { 0.0 } else { thickness };
        let held: f64 = (0..slices).map(|at| slice(&panels, (f64::from(at) + 0.5) * step, within)).sum::<f64>() * step;
        let capacity = surface.capacity.expect("plane rims");
        worst = worst.max((capacity - held).abs() / held);
        assert!((capacity - held).abs() < 1e-4 * held, "seed {seed}: holds {capacity}, by slices {held}: {fields}");
        let told: Vec<&str> = outcome.breaches.iter().map(|one| one.rule.as_str()).collect();
        let unmade = ["flat_overlap", "folded_clash", "relief_missing"].iter().find(|rule| told.contains(rule));
        assert!(unmade.is_none(), "seed {seed}: {unmade:?} {fields}");
        let probes: Vec<Probe> = all
            .blanks()
            .iter()
            .map(|blank| {
                let body =
                    folded_body(&blank.part.flat).unwrap_or_else(|fault| panic!("seed {seed}: {fault:?} {fields}"));
                let (volume, own) = (body.mass().volume, blank.figures.folded_volume);
                assert!((volume - own).abs() < 1e-5 * own, "seed {seed}: {volume} and {own}");
                Probe::new(&body).expect("a mesh")
            })
            .collect();
        for one in 0..probes.len() {
            for two in one + 1..probes.len() {
                let found = clash(&probes[one], &probes[two], 0.05);
                assert!(found.is_none(), "seed {seed}: {one} and {two} share metal: {found:?} {fields}");
            }
        }
        assert!(outcome.audit.faults().is_empty(), "seed {seed}: {:?}", outcome.audit.faults());
    }
    println!("{made} made, {refused} refused in words; what they hold within {worst:.1e} of their slices");
    assert!(made > 4 * refused, "{made} made, {refused} refused");
}

/// Cones of many brake lines: narrow panels keep a length of their rim between the reliefs of their bends, down to 2.6 mm, and fold.
#[test]
fn cones_of_many_lines() {
    for (thickness, lines, low, high) in [
        (1.0, 8, 120.0, 60.0),
        (1.0, 18, 300.0, 100.0),
        (3.0, 4, 120.0, 60.0),
        (3.0, 12, 300.0, 100.0),
        (1.0, 36, 300.0, 150.0),
    ] {
        let round = |across: f64| json!({"circle": {"diameter": mm(across)}});
        let fields = json!({"lower": round(low), "upper": round(high), "height": "200 mm", "lines": lines.to_string()});
        let outcome =
            sound(&piece(&mm(thickness), "2 mm", "0.5", json!([{"name": "cone", "do": {"transition": fields}}])));
        let all = outcome.sheets().expect("a sheet");
        let [blank] = all.blanks() else { panic!("one sheet") };
        assert_eq!(blank.part.flat.bends.len(), 4 * lines - 1);
        folded_body(&blank.part.flat).unwrap_or_else(|fault| panic!("{lines} lines on {low} and {high}: {fault:?}"));
        for edge in &blank.part.flat.edges {
            let length = edge.line.length();
            assert!(length > high * (PI / (4.0 * lines as f64)).sin() / 4.0, "{} is {length} long", edge.name);
        }
    }
}
