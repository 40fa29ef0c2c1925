//! Edges that cuts make: named by the cut, the side of its tool and where they stand; in the table, and measured from.

use serde_json::{Value, json};
use steelk_core::measure::measure;
use steelk_core::piece::Outcome;
use steelk_core::sheet::cut_edges;
use steelk_core::table::edge_rows;
use steelk_core::work::measure::Measure;

use steelk_testing::*;

fn rows(outcome: &Outcome) -> Vec<(String, f64, Option<f64>)> {
    edge_rows(outcome.part().unwrap()).into_iter().map(|row| (row.name, row.length, row.radius)).collect()
}

fn of<'a>(rows: &'a [(String, f64, Option<f64>)], stem: &str) -> Vec<&'a (String, f64, Option<f64>)> {
    rows.iter().filter(|row| row.0.starts_with(stem)).collect()
}

fn measured(outcome: &Outcome, what: Value) -> f64 {
    let what: Measure = serde_json::from_value(what).unwrap();
    measure(outcome.part().unwrap(), &what).unwrap().value
}

/// A gap of 20 x 30 whose middle stands on the front edge: two sides of 15 and one of 20 are new edges.
#[test]
fn a_cut_over_an_edge_makes_three() {
    let gap = json!({"name": "gap", "do": {"cut": {"panel": "base", "width": "20 mm", "height": "30 mm", "reach": "flat",
        "place": {"from": [{"edge": "base.front", "distance": "0 mm"}, {"edge": "base.left", "distance": "50 mm"}]}}}});
    let outcome = sound(&piece("3 mm", "3 mm", "0.42", json!([base("120 mm", "80 mm"), gap])));
    let all = rows(&outcome);
    let mut lengths: Vec<f64> = of(&all, "gap.side-").iter().map(|row| row.1).collect();
    lengths.sort_by(f64::total_cmp);
    assert_eq!(lengths.len(), 3, "{all:?}");
    for (own, wanted) in lengths.iter().zip([15.0, 15.0, 20.0]) {
        assert!((own - wanted).abs() < 1e-9, "{lengths:?}");
    }
    // The front edge is what is left of it, and every length together is the way round the blank.
    let front = all.iter().find(|row| row.0 == "base.front").unwrap();
    assert!((front.1 - 100.0).abs() < 1e-9);
    let round: f64 = all.iter().map(|row| row.1).sum();
    assert!((round - outcome.part().unwrap().blank.region.outer.perimeter()).abs() < 1e-9);
    // From the back edge to the bottom of the gap: 80 - 15. From the left edge to its nearer side: 50 - 10.
    let bottom = of(&all, "gap.side-").into_iter().find(|row| (row.1 - 20.0).abs() < 1e-9).unwrap().0.clone();
    let to = |name: &str, from: &str| measured(&outcome, json!({"distance": {"from": from, "to": name}}));
    assert!((to(&bottom, "base.back") - 65.0).abs() < 1e-9);
    let mut sides: Vec<f64> =
        of(&all, "gap.side-").into_iter().filter(|row| row.0 != bottom).map(|row| to(&row.0, "base.left")).collect();
    sides.sort_by(f64::total_cmp);
    assert!((sides[0] - 40.0).abs() < 1e-9 && (sides[1] - 60.0).abs() < 1e-9, "{sides:?}");
}

/// A cut across a bend makes an edge of its own on panel, strip and flange, and those on the flange are measured as it stands.
#[test]
fn a_cut_over_a_bend_names_its_edges_by_where_they_stand() {
    let window = json!({"name": "open", "do": {"cut": {"panel": "base", "width": "24 mm", "height": "60 mm", "reach": "flat",
        "place": {"from": [{"edge": "up.tangent", "distance": "0 mm"}, {"edge": "base.left", "distance": "0 mm"}]}}}});
    let outcome = sound(&piece(
        "3 mm",
        "3 mm",
        "0.42",
        json!([base("120 mm", "80 mm"), bend("up", "base.back", "90 deg", "60 mm", json!({})), window]),
    ));
    let all = rows(&outcome);
    let made = cut_edges(&outcome.part().unwrap().flat);
    // The long side of the tool, 12 from the left edge, stands on three nodes.
    let long: Vec<&str> = made
        .iter()
        .filter(|edge| edge.stretches.iter().all(|one| one.is_line() && (one.start.x - one.end.x).abs() < 1e-9))
        .map(|edge| edge.name.as_str())
        .collect();
    assert_eq!(long.len(), 3, "{made:?}");
    let stems: std::collections::BTreeSet<&str> =
        long.iter().map(|name| name.split('.').take(2).last().unwrap()).collect();
    assert_eq!(stems.len(), 1, "one side of the tool: {long:?}");
    let sum: f64 = of(&all, "open.side-").iter().filter(|row| long.contains(&row.0.as_str())).map(|row| row.1).sum();
    assert!((sum - 60.0).abs() < 1e-9, "{sum}");
    let on = |node: &str| long.iter().find(|name| name.ends_with(&format!(".{node}"))).unwrap().to_string();
    for panel in ["base", "up"] {
        let far = measured(&outcome, json!({"distance": {"from": on(panel), "to": format!("{panel}.right")}}));
        assert!((far - 108.0).abs() < 1e-9, "{panel}: {far}");
    }
}

/// Round sides tell their radius; two stretches of one side share its name.
#[test]
fn stretches_of_one_side_share_a_name() {
    // A slot over the front edge with a web left in its middle: its bottom is parted in two by a second cut.
    let cut = |name: &str, width: &str, height: &str, left: &str| {
        json!({"name": name, "do": {"cut": {"panel": "base", "width": width, "height": height, "reach": "flat",
            "place": {"from": [{"edge": "base.front", "distance": "0 mm"}, {"edge": "base.left", "distance": left}]}}}})
    };
    let outcome = sound(&piece(
        "3 mm",
        "3 mm",
        "0.42",
        json!([
            base("120 mm", "80 mm"),
            cut("wide", "60 mm", "20 mm", "60 mm"),
            cut("deep", "10 mm", "50 mm", "60 mm")
        ]),
    ));
    let all = rows(&outcome);
    let wide = of(&all, "wide.side-");
    // 60 less the 10 that the second cut opens: one name, two stretches of 25.
    let bottom = wide.iter().find(|row| (row.1 - 50.0).abs() < 1e-9).unwrap();
    let made = cut_edges(&outcome.part().unwrap().flat);
    assert_eq!(made.iter().find(|edge| edge.name == bottom.0).unwrap().stretches.len(), 2);
    // A round notch in the back edge: half a circle of 6.
    let mouse = json!({"name": "mouse", "do": {"notch": {"edge": "base.back", "shape": {"round": "6 mm"}}}});
    let all = rows(&sound(&piece("3 mm", "3 mm", "0.42", json!([base("120 mm", "80 mm"), mouse]))));
    let [(_, length, radius)] = of(&all, "mouse.cut-1.base")[..] else { panic!("{all:?}") };
    assert!((length - std::f64::consts::PI * 6.0).abs() < 1e-6, "{length}");
    assert!((radius.unwrap() - 6.0).abs() < 1e-9);
}
