//! Rim flanges over the full width, by an angle and parallel to a panel; tabs; who owns a corner; holes in rows on a rim: by hand.

use serde_json::{Value, json};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::sheet::{PanelSizes, Part, Sheets, folded_body};
use steelk_core::space::query::{Probe, clash};
use steelk_core::space::{Point3, Vector3};
use steelk_testing::*;

/// 400 by 300 below, 200 by 120 above, 150 high.
fn hood(extra: Value) -> Value {
    let size =
        |width: f64, depth: f64| json!({"rectangle": {"width": format!("{width} mm"), "depth": format!("{depth} mm")}});
    let mut fields = json!({"lower": size(400.0, 300.0), "upper": size(200.0, 120.0), "height": "150 mm"});
    for (key, value) in extra.as_object().expect("an object") {
        fields[key] = value.clone();
    }
    json!({"name": "hood", "do": {"transition": fields}})
}

fn made(thickness: &str, operations: Vec<Value>) -> Piece {
    piece(thickness, "2 mm", "0.5", Value::Array(operations))
}

fn sheets(outcome: &Outcome) -> &Sheets {
    outcome.sheets().expect("sheets")
}

/// A panel's face where it is folded to, of the flat's lower or upper side.
fn face(part: &Part, panel: &str, upper: bool) -> Vec<Point3> {
    let at = part.flat.panel(panel).expect("a panel");
    let z = if upper { part.flat.thickness } else { 0.0 };
    part.flat.nodes[at].region.outer.edges.iter().map(|edge| part.folded.apply(at, edge.start, z)).collect()
}

fn normal(places: &[Point3]) -> Vector3 {
    let sum = (1..places.len() - 1)
        .fold(Vector3::default(), |sum, at| sum + (places[at] - places[0]).cross(places[at + 1] - places[0]));
    sum.unit()
}

fn edge_length(part: &Part, name: &str) -> f64 {
    let edge = part.flat.edges.iter().find(|edge| edge.name == name).expect("an edge");
    part.flat.segments_of(edge.panel, edge.tag).iter().map(|one| one.length()).sum()
}

fn apart(all: &Sheets) {
    let probe = |part: &Part| Probe::new(&folded_body(&part.flat).expect("a solid")).expect("a mesh");
    let probes: Vec<Probe> = all.blanks().iter().map(|blank| probe(&blank.part)).collect();
    for one in 0..probes.len() {
        for two in one + 1..probes.len() {
            assert!(clash(&probes[one], &probes[two], 0.05).is_none(), "{one} and {two} share metal");
        }
    }
}

fn holds(outcome: &Outcome, but: &[&str]) {
    let broken: Vec<_> = outcome.breaches.iter().filter(|one| !but.contains(&one.rule.as_str())).collect();
    assert!(broken.is_empty(), "{broken:?}");
    assert!(outcome.audit.faults().is_empty(), "{:?}", outcome.audit.faults());
}

fn panel<'a>(outcome: &'a Outcome, name: &str) -> &'a PanelSizes {
    sheets(outcome).surfaces()[0].panels.iter().find(|one| one.name == name).expect("a panel")
}

/// Front and rear over the full width: 400 and twice the sides' 30; the sides between, 300 long. All of them lie in the plane of the rim,
/// and where the full ones go past the ends of their bends they reach back to the rim's own edge.
#[test]
fn one_pair_over_the_full_width() {
    let outcome = sound(&made(
        "2 mm",
        vec![hood(json!({"corners": "seams", "flanges": [
            {"end": "lower", "width": "25 mm", "along": ["front", "back"], "full": true},
            {"end": "lower", "width": "30 mm", "along": ["left", "right"]},
        ]}))],
    ));
    let part = sheets(&outcome).laid_out();
    for (name, long) in [("front", 460.0), ("back", 460.0), ("left", 300.0), ("right", 300.0)] {
        near(edge_length(part, &format!("hood.lower-rim-{name}.outer")), long, 1e-8);
        face(part, &format!("hood.lower-rim-{name}"), false).iter().for_each(|place| near(place.z, 0.0, 1e-8));
        near(panel(&outcome, &format!("hood.lower-rim-{name}")).off_plane.expect("a flange"), 0.0, 1e-9);
    }
    let front = face(part, "hood.lower-rim-front", false);
    // Its ears: at x 200 to 230 it goes from y -175 back to the opening's line, y -150; between, it begins at the tangent line.
    let back_to = |at_ear: bool| {
        let own = front.iter().filter(|place| if at_ear { place.x > 200.5 } else { place.x.abs() < 199.0 });
        own.map(|place| place.y).fold(f64::NEG_INFINITY, f64::max)
    };
    near(back_to(true), -150.0, 1e-8);
    assert!(back_to(false) < -150.5, "{front:?}");
    let left = face(part, "hood.lower-rim-left", false);
    near(left.iter().map(|place| place.y).fold(0.0, f64::min), -150.0, 1e-8);
    apart(sheets(&outcome));
    holds(&outcome, &["inside_radius"]);
    assert_eq!(sheets(&outcome).seams().len(), 8, "four of walls, four of flanges");
    // Inward, one pair runs through and the other stands between its outer edges.
    let inward = sound(&made(
        "2 mm",
        vec![hood(json!({"corners": "seams", "flanges": [
            {"end": "lower", "width": "25 mm", "along": ["front", "back"], "full": true, "inward": true},
            {"end": "lower", "width": "30 mm", "along": ["left", "right"], "inward": true},
        ]}))],
    ));
    let left = face(sheets(&inward).laid_out(), "hood.lower-rim-left", false);
    let reach = left.iter().filter(|place| place.x > -180.0).map(|place| place.y.abs()).fold(0.0, f64::max);
    near(reach, 125.0, 1e-8);
    apart(sheets(&inward));
}

/// A flange bent from its wall by an angle turns by it; parallel to the rear wall its plane is that one's; both say how far they are from
/// the rim's plane: the outer edge at the sine of what is left.
#[test]
fn flanges_by_an_angle_and_parallel_to_a_panel() {
    let slope = (150.0f64 / 90.0).atan();
    let flange = |extra: Value| {
        let mut fields = json!({"end": "lower", "width": "30 mm", "along": ["front"]});
        fields.as_object_mut().expect("fields").extend(extra.as_object().expect("fields").clone());
        sound(&made("2 mm", vec![hood(json!({"corners": "seams", "flanges": [fields]}))]))
    };
    for (extra, turn, leaves) in [
        // Outward it leaves the wall's own line by 40 deg: that line goes down at the slope.
        (json!({"angle": "40 deg"}), 40f64.to_radians(), slope - 40f64.to_radians()),
        (
            json!({"angle": "70 deg", "inward": true}),
            70f64.to_radians(),
            std::f64::consts::PI - slope - 70f64.to_radians(),
        ),
        // The rear wall leans the other way by as much: parallel to it the flange turns by twice the rest of a straight angle.
        (json!({"parallel_to": "back"}), 2.0 * slope, slope),
    ] {
        let outcome = flange(extra.clone());
        let part = sheets(&outcome).laid_out();
        let (wall, own) =
            (normal(&face(part, "hood.front", false)), normal(&face(part, "hood.lower-rim-front", false)));
        near(wall.angle_to(own), turn, 1e-9);
        near(panel(&outcome, "hood.lower-rim-front").off_plane.expect("told"), 30.0 * leaves.sin(), 1e-9);
        if extra.get("parallel_to").is_some() {
            let back = normal(&face(part, "hood.back", false));
            near(own.cross(back).length(), 0.0, 1e-9);
        }
        apart(sheets(&outcome));
    }
    // All round by one angle they meet on one line at each corner: their outer corners are one place.
    let round = sound(&made(
        "2 mm",
        vec![hood(json!({"corners": "seams", "flanges": [{"end": "lower", "width": "30 mm", "angle": "90 deg"}]}))],
    ));
    let part = sheets(&round).laid_out();
    apart(sheets(&round));
    for name in ["front", "right", "back", "left"] {
        let (wall, own) = (
            normal(&face(part, &format!("hood.{name}"), false)),
            normal(&face(part, &format!("hood.lower-rim-{name}"), false)),
        );
        near(wall.dot(own), 0.0, 1e-9);
    }
}

#[test]
fn flanges_that_cannot_be_are_refused() {
    for (extra, words) in [
        (json!([{"end": "lower", "width": "20 mm", "full": true}]), "both go over the full width"),
        (
            json!([{"end": "lower", "width": "20 mm", "along": ["front"], "parallel_to": "right"}]),
            "no flange along it is parallel",
        ),
        (
            json!([{"end": "lower", "width": "20 mm", "along": ["front"], "parallel_to": "front"}]),
            "is parallel to front itself",
        ),
        (json!([{"end": "lower", "width": "20 mm", "angle": "9 deg", "parallel_to": "front"}]), "not both"),
        (
            json!([{"end": "lower", "width": "20 mm", "along": ["front"], "full": true}, {"end": "lower", "width": "20 mm", "along": ["left"], "angle": "40 deg"}]),
            "do not lie in one plane",
        ),
    ] {
        let outcome =
            evaluate(&made("2 mm", vec![hood(json!({"corners": "seams", "flanges": extra}))]), Options::default());
        let said: Vec<&str> = outcome.findings.iter().map(|one| one.message.as_str()).collect();
        assert!(said.iter().any(|one| one.contains(words)), "{words}: {said:?}");
    }
}

/// The card model: one sheet of 0.5 mm with a tab where it closes. The tab lies on the inner face of the panel beside it: 0.5 mm within its
/// outer face, and its own other face as much further in. Its outer edge is shorter at each end by what 45 deg take over its flat part.
#[test]
fn a_tab_lies_within_the_panel_beside_it() {
    let outcome = sound(&made(
        "0.5 mm",
        vec![hood(json!({"radius": "0.5 mm", "tabs": [{"along": ["left/front"], "width": "12 mm"}]}))],
    ));
    let all = sheets(&outcome);
    assert_eq!((all.blanks().len(), all.seams().len()), (1, 0), "a tab is glued: nothing is welded");
    let part = all.laid_out();
    let front = face(part, "hood.front", false);
    let out = normal(&front);
    let out = if out.y > 0.0 { -out } else { out };
    let tab = "hood.left-tab-front";
    face(part, tab, false).iter().for_each(|place| near((*place - front[0]).dot(out), -0.5, 1e-9));
    face(part, tab, true).iter().for_each(|place| near((*place - front[0]).dot(out), -1.0, 1e-9));
    near(panel(&outcome, tab).off_plane.expect("told"), 0.0, 1e-9);
    // Ends at 45 deg: the flat part is 12 less the setback (R + T) tan(A/2) deep, and as much shorter at each end.
    let bend = part.flat.bends.iter().find(|bend| bend.name == tab).expect("its bend");
    let strip = part.flat.strip_of(bend);
    let flat_part = 12.0 - (0.5 + 0.5) * (strip.angle / 2.0).tan();
    // Below, the corner of its panel is sharp: square to the edge it would come out under the rim, so it begins further up.
    let edge = (100f64.powi(2) + 90f64.powi(2) + 150f64.powi(2)).sqrt();
    let outer = edge_length(part, &format!("{tab}.outer"));
    assert!(outer < edge - 2.0 * flat_part && outer > edge - 2.0 * flat_part - 2.0, "{outer} of {edge}");
    for place in face(part, tab, false).into_iter().chain(face(part, tab, true)) {
        assert!((-1e-9..150.0 + 1e-9).contains(&place.z), "the tab leaves the rims' planes: {place:?}");
    }
    holds(&outcome, &["inside_radius"]);
    // A side left out: its tabs lie in its plane, to glue the model down by.
    let open = sound(&made(
        "0.5 mm",
        vec![hood(
            json!({"radius": "0.5 mm", "without": ["back"], "tabs": [{"along": ["left/back", "right/back"], "width": "10 mm"}]}),
        )],
    ));
    let part = sheets(&open).laid_out();
    let lean = (90.0f64 / 150.0).atan();
    for name in ["hood.left-tab-back", "hood.right-tab-back"] {
        for place in face(part, name, false) {
            // The rear wall's plane by its slope: at the height z it stands at y = 150 - z tan(lean).
            near((place.y - 150.0) * lean.cos() + place.z * lean.sin(), 0.0, 1e-8);
        }
    }
    // By an angle of its own it says how far it is from where it should lie.
    let turned = sound(&made(
        "0.5 mm",
        vec![hood(
            json!({"radius": "0.5 mm", "tabs": [{"along": ["left/front"], "width": "12 mm", "angle": "60 deg", "clip": "90 deg"}]}),
        )],
    ));
    assert!(panel(&turned, tab).off_plane.expect("told") > 1.0);
}

/// The owner's sheet goes through: the front's edge comes up to the outer faces of the sides, which end on its inner face.
#[test]
fn a_corner_has_an_owner() {
    // A plain tube of 400 by 300: edge to edge the front is 400 less T at each end, with its corners it is 400.
    let corner = |owner: Option<&str>| {
        let edge = |side: &str| {
            let mut edge = json!({"between": format!("front/{side}"), "joint": "seam"});
            if let Some(owner) = owner {
                edge["owner"] = json!(owner);
            }
            edge
        };
        let upper = json!({"rectangle": {"width": "400 mm", "depth": "300 mm"}});
        sound(&made(
            "3 mm",
            vec![hood(json!({"corners": "seams", "upper": upper, "edges": [edge("left"), edge("right")]}))],
        ))
    };
    let wide = |outcome: &Outcome, panel: &str| {
        let at = sheets(outcome).laid_out().flat.panel(panel).expect("a panel");
        sheets(outcome).laid_out().flat.nodes[at].region.extents().width()
    };
    let (both, front) = (corner(None), corner(Some("front")));
    near(wide(&both, "hood.front"), 400.0 - 6.0, 1e-9);
    near(wide(&front, "hood.front"), 400.0, 1e-9);
    near(wide(&front, "hood.left"), 300.0 - 6.0, 1e-9);
    for seam in sheets(&front).seams() {
        near(seam.gap, 0.0, 1e-6);
    }
    apart(sheets(&front));
    let refused =
        made("3 mm", vec![hood(json!({"edges": [{"between": "front/left", "joint": "seam", "owner": "back"}]}))]);
    let outcome = evaluate(&refused, Options::default());
    assert!(
        outcome.findings.iter().any(|one| one.message.contains("back is neither front nor left")),
        "{:?}",
        outcome.findings
    );
}

/// Where the holes of an operation come to lie on the outer faces, by the panel.
fn holes(outcome: &Outcome, operation: &str) -> Vec<(String, Point3)> {
    let part = sheets(outcome).laid_out();
    let own = part.flat.holes.iter().filter(|hole| hole.operation == operation);
    own.map(|hole| (part.flat.nodes[hole.panel].name.clone(), part.folded.apply(hole.panel, hole.centre, 0.0)))
        .collect()
}

fn row(panels: &[&str], extra: Value) -> Value {
    let mut rim = json!({"distance": "12.5 mm", "spaces": "6"});
    rim.as_object_mut().expect("fields").extend(extra.as_object().expect("fields").clone());
    let panel = |name: &str| format!("hood.lower-rim-{name}");
    let also: Vec<String> = panels[1..].iter().map(|name| panel(name)).collect();
    json!({"name": "row", "do": {"drill": {"panel": panel(panels[0]), "also": also, "diameter": "9 mm", "pattern": {"rim": rim}}}})
}

/// 12.5 from the opening the row of the front is 400 and twice 12.5 long from mitre to mitre: six spaces of 70.833, five holes without the
/// corners; on each of the four sheets the row lies on the line round the opening.
#[test]
fn a_row_on_the_rim_from_corner_to_corner() {
    let flanges = json!([{"end": "lower", "width": "25 mm"}]);
    let shape = |flanges: &Value| hood(json!({"corners": "seams", "gap": "0.5 mm", "flanges": flanges}));
    let all = ["front", "right", "back", "left"];
    let outcome = sound(&made("2 mm", vec![shape(&flanges), row(&all, json!({}))]));
    let found = holes(&outcome, "row");
    assert_eq!(found.len(), 20);
    for (panel, at) in &found {
        let (along, off, long) = match panel.rsplit('-').next().expect("a side") {
            "front" | "back" => (at.x, at.y.abs(), 425.0),
            _ => (at.y, at.x.abs(), 325.0),
        };
        near(at.z, 0.0, 1e-8);
        near(off, if long > 400.0 { 162.5 } else { 212.5 }, 1e-8);
        // Counted from the middle in spaces.
        let space = along / (long / 6.0);
        near(space, space.round(), 1e-8);
        assert!(space.abs() < 2.5, "{panel}: {space}");
    }
    // A corner hole would lie in the mitre.
    let refused =
        evaluate(&made("2 mm", vec![shape(&flanges), row(&all, json!({"corners": "made"}))]), Options::default());
    assert!(
        refused.findings.iter().any(|one| one.message.contains("lies in the joint of hood.lower-rim-front and")),
        "{:?}",
        refused.findings
    );
    // Drilled after welding it is in no blank, and each of the four is listed once, where it is.
    let after = sound(&made("2 mm", vec![shape(&flanges), row(&all, json!({"corners": "after_welding"}))]));
    assert_eq!(holes(&after, "row").len(), 20);
    let mut listed: Vec<(f64, f64)> =
        sheets(&after).surfaces()[0].after_welding.iter().map(|hole| (hole.at.x.round(), hole.at.y.round())).collect();
    listed.sort_by(|one, two| one.partial_cmp(two).expect("numbers"));
    assert_eq!(listed.len(), 4);
    for hole in &sheets(&after).surfaces()[0].after_welding {
        near(hole.at.x.abs(), 212.5, 1e-8);
        near(hole.at.y.abs(), 162.5, 1e-8);
        near(hole.diameter, 9.0, 1e-9);
    }
    // One pair owns the corners: its row has them, the other's has not.
    let owned = json!([
        {"end": "lower", "width": "25 mm", "along": ["front", "back"], "full": true},
        {"end": "lower", "width": "30 mm", "along": ["left", "right"]},
    ]);
    let owned = sound(&made(
        "2 mm",
        vec![shape(&owned), row(&all, json!({"corners": "made", "from": "outer", "distance": "10 mm"}))],
    ));
    let found = holes(&owned, "row");
    let of = |side: &str| found.iter().filter(|(panel, _)| panel.ends_with(side)).count();
    assert_eq!((of("front"), of("back"), of("left"), of("right")), (7, 7, 5, 5));
    let far = found.iter().filter(|(panel, _)| panel.ends_with("front")).map(|(_, at)| at.x.abs()).fold(0.0, f64::max);
    near(far, 200.0 + 30.0 - 10.0, 1e-8);
    for (extra, words) in [
        (json!({"spaces": "1"}), "leaves no hole on hood.lower-rim-front"),
        (json!({"pitch": "80 mm"}), "one of them"),
        (json!({"distance": "24 mm"}), "runs out over the edge"),
    ] {
        let outcome = evaluate(&made("2 mm", vec![shape(&flanges), row(&all, extra)]), Options::default());
        assert!(outcome.findings.iter().any(|one| one.message.contains(words)), "{words}: {:?}", outcome.findings);
    }
    let mut mirrored = row(&all, json!({}));
    mirrored["do"]["drill"]["mirror"] = json!("across");
    let outcome = evaluate(&made("2 mm", vec![shape(&flanges), mirrored]), Options::default());
    assert!(
        outcome.findings.iter().any(|one| one.message.contains("mirroring adds nothing")),
        "{:?}",
        outcome.findings
    );
    let lone = evaluate(
        &made(
            "2 mm",
            vec![
                shape(&flanges),
                json!({"name": "row", "do": {"drill": {"panel": "hood.front", "diameter": "9 mm", "pattern": {"rim": {"distance": "9 mm", "spaces": "3"}}}}}),
            ],
        ),
        Options::default(),
    );
    assert!(
        lone.findings.iter().any(|one| one.message.contains("hood.front is no flange along a rim")),
        "{:?}",
        lone.findings
    );
}

/// Where a panel is left out its place is an opening too: flanges lie in its plane, 20 wide outward, mitred where walls are apart.
#[test]
fn flanges_where_a_panel_is_left_out() {
    let outcome = sound(&made(
        "2 mm",
        vec![hood(json!({"corners": "seams", "without": ["back"], "closed": ["upper"],
            "flanges": [{"opening": "back", "along": ["left", "right"], "width": "20 mm"}]}))],
    ));
    let part = sheets(&outcome).laid_out();
    let lean = (90.0f64 / 150.0).atan();
    for name in ["hood.back-rim-left", "hood.back-rim-right"] {
        let own = face(part, name, false);
        for place in &own {
            // In the rear wall's plane by its slope.
            near((place.y - 150.0) * lean.cos() + place.z * lean.sin(), 0.0, 1e-8);
        }
        near(panel(&outcome, name).off_plane.expect("a flange"), 0.0, 1e-9);
        // Outward of the side walls: past the side's own width there.
        assert!(own.iter().all(|place| place.x.abs() > 100.0), "{own:?}");
    }
    apart(sheets(&outcome));
    let refused = made("2 mm", vec![hood(json!({"flanges": [{"opening": "back", "width": "20 mm"}]}))]);
    let outcome = evaluate(&refused, Options::default());
    assert!(outcome.findings.iter().any(|one| one.message.contains("back is there")), "{:?}", outcome.findings);
}

/// The demo's hood by plan and as its elevations say it, with flanges and their rows: four sheets each, alike in area, cut and holes, their
/// holes on the rim at the same places of the piece but for where its origin is; and its model from one sheet, with nothing to look at.
#[test]
fn the_demo_hood_both_ways_and_its_model() {
    let piece = demo("21-tapered-hood");
    let plan = sound(&piece);
    let elevations = sound(&piece.variant("elevations").expect("the variant"));
    let lists = |outcome: &Outcome| {
        let figure = |blank: &steelk_core::sheet::SheetBlank| {
            (blank.figures.net_area, blank.figures.cut_length, blank.part.flat.holes.len())
        };
        let mut all: Vec<(f64, f64, usize)> = sheets(outcome).blanks().iter().map(figure).collect();
        all.sort_by(|one, two| one.0.total_cmp(&two.0));
        all
    };
    let (one, two) = (lists(&plan), lists(&elevations));
    assert_eq!((one.len(), two.len()), (4, 4));
    for ((area, cut, holes), (area_2, cut_2, holes_2)) in one.iter().zip(&two) {
        near(*area, *area_2, 1e-4);
        near(*cut, *cut_2, 1e-5);
        assert_eq!(holes, holes_2);
    }
    let places = |outcome: &Outcome, rows: [&str; 2]| {
        let mut all: Vec<Point3> =
            rows.into_iter().flat_map(|row| holes(outcome, row)).map(|(_, place)| place).collect();
        all.sort_by(|one, two| (one.x.round(), one.y).partial_cmp(&(two.x.round(), two.y)).expect("numbers"));
        all
    };
    let by_plan = places(&plan, ["holes-long", "holes-short"]);
    let by_elevations = places(&elevations, ["profile-holes-long", "profile-holes-short"]);
    assert_eq!((by_plan.len(), by_elevations.len()), (20, 20));
    // Front profiles stand on y = 0, their middle at half their height.
    let shift = Vector3::new(0.0, 150.0, -180.0);
    for (one, two) in by_plan.iter().zip(&by_elevations) {
        near((*one + shift).distance(*two), 0.0, 1e-6);
    }
    let model = sound(&piece.variant("card").expect("the variant"));
    assert_eq!((sheets(&model).blanks().len(), sheets(&model).seams().len()), (1, 0));
    holds(&model, &[]);
    holds(&plan, &[]);
    for (outcome, count) in [(&plan, 2), (&model, 2)] {
        let held = outcome.callouts.iter().filter(|one| one.verdict == steelk_core::proof::Verdict::Holds).count();
        assert_eq!(held, count);
    }
}
