//! Sheets of random transitions against a general-purpose solid kernel, which is told the outlines in numbers and reads the sheets from
//! their STEP files: valid, sharing nothing, their named faces on the planes between the outlines, gaps every 10 mm along each seam, and
//! what they hold. `STEELK_CASES=200 cargo test --release -p steelk-formats --test all transitions:: -- --nocapture` for the long run.

use serde_json::{Value, json};
use steelk_core::brake::bend_rows;
use steelk_core::drawing::{add_bend_table, blank_drawing};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::sheet::folded_body;
use steelk_formats::dxf_file::{self, Style};
use steelk_testing::piece;
use steelk_testing::python::{answers, judged};
use steelk_testing::trials::{self, Dice};

use crate::audit::panels_of;

/// A transition in numbers, for the kernel, and as a piece.
fn random(dice: &mut Dice) -> (Value, Piece, bool) {
    let mut between = |low: usize, high: usize| (low * 100 + dice.below((high - low) * 100)) as f64 / 100.0;
    let lower = [between(160, 420), between(160, 400)];
    let upper = [between(90, 300), between(90, 300)];
    let (height, thickness) = (between(120, 380), between(1, 4));
    let offset = [between(0, 120) - 60.0, between(0, 120) - 60.0];
    let tilts = [between(0, 24) - 12.0, between(0, 24) - 12.0];
    let gap = between(0, 3);
    let sides = if dice.one_in(2) { Some(3 + dice.below(10)) } else { None };
    let (inside, opposite, elevations) = (dice.one_in(2), dice.one_in(2), dice.one_in(3));
    let tilt = if elevations || !dice.one_in(3) { [0.0, 0.0] } else { tilts };
    let gap = if dice.one_in(2) { 0.0 } else { gap };
    // What stands at the ends; nothing where every face is held against its plane.
    let ends = if dice.one_in(2) { [0, 0] } else { [dice.below(9), dice.below(9)] };
    let bent = ends != [0, 0] && dice.one_in(2);
    let shape = |size: [f64; 2]| match sides {
        Some(sides) => json!({"polygon": {"sides": sides.to_string(), "size": format!("{} mm", size[0])}}),
        None => json!({"rectangle": {"width": format!("{} mm", size[0]), "depth": format!("{} mm", size[1])}}),
    };
    let mut fields = json!({
        "lower": shape(lower), "upper": shape(upper), "height": format!("{height} mm"),
        "offset_x": format!("{} mm", offset[0]), "offset_y": format!("{} mm", offset[1]),
        "sizes": if inside { "inside" } else { "outside" }, "corners": if bent { "bent" } else { "seams" },
        "gap": format!("{gap} mm"),
    });
    if elevations {
        fields["said"] = json!("elevations");
    } else {
        fields["tilt_x"] = json!(format!("{} deg", tilt[0]));
        fields["tilt_y"] = json!(format!("{} deg", tilt[1]));
    }
    let (mut collars, mut flanges, mut closed, mut rims) = (Vec::new(), Vec::new(), Vec::new(), Vec::new());
    for (end, what) in ["lower", "upper"].into_iter().zip(ends) {
        match what {
            1 => collars.push(json!({"end": end, "length": "25 mm"})),
            2 => flanges.push(json!({"end": end, "width": "20 mm"})),
            3 => flanges.push(json!({"end": end, "width": "15 mm", "inward": true})),
            4 => closed.push(json!(end)),
            5 => rims.push(json!({"end": end, "tilt_x": "5 deg", "tilt_y": "-3 deg"})),
            6 if sides.is_none() && !elevations => {
                flanges.push(
                    json!({"end": end, "width": "22 mm", "along": ["front", "back"], "full": true, "inward": inside}),
                );
                flanges.push(json!({"end": end, "width": "18 mm", "along": ["left", "right"], "inward": inside}));
            }
            7 => flanges.push(json!({"end": end, "width": "20 mm", "angle": "75 deg"})),
            8 => flanges.push(json!({"end": end, "width": "15 mm", "angle": "50 deg", "inward": true})),
            _ => {}
        }
    }
    for (field, list) in [("collars", collars), ("flanges", flanges), ("closed", closed), ("rims", rims)] {
        if !list.is_empty() {
            fields[field] = json!(list);
        }
    }
    // A pyramid: nothing stands on its point.
    let apex = ends[0] != 0 && ends[1] == 0 && !elevations && tilt == [0.0, 0.0];
    if apex {
        let all = fields.as_object_mut().unwrap();
        for field in ["upper", "tilt_x", "tilt_y"] {
            all.remove(field);
        }
        fields["apex"] = json!(true);
    }
    // Round or long above: triangles and brake lines.
    let is_round = ends != [0, 0] && !elevations && !apex && dice.one_in(3);
    if is_round {
        let [long, wide] = [upper[0].max(upper[1]), upper[0].min(upper[1])];
        fields["upper"] = match dice.below(2) {
            0 => json!({"circle": {"diameter": format!("{wide} mm")}}),
            _ => json!({"obround": {"length": format!("{} mm", long + 20.0), "width": format!("{wide} mm")}}),
        };
        fields["lines"] = json!((1 + dice.below(5)).to_string());
    }
    if ends != [0, 0] && sides.is_none() && !elevations && !apex && !is_round && dice.one_in(3) {
        fields["tabs"] = json!([{"along": ["left/front"], "width": "18 mm"}]);
    }
    let mut work = json!([{"name": "hood", "do": {"transition": fields}}]);
    if ends != [0, 0] && !bent && sides.is_none() && !elevations && !is_round && dice.one_in(3) {
        let line = json!({"panel": "hood.back", "edge": "hood.back.to-left", "distance": "45 mm"});
        work.as_array_mut().unwrap().push(json!({"name": "split", "do": {"split": {"at": {"line": line}}}}));
    }
    let mut piece = piece(&format!("{thickness} mm"), "2 mm", "0.5", work);
    piece.opposite_hand = opposite;
    // Sides between outlines of one shape on parallel planes are plane; so are those of three.
    let plain = ends == [0, 0] && tilt == [0.0, 0.0];
    let numbers = json!({
        "sides": sides, "lower": lower, "upper": upper, "height": height, "offset": offset, "tilt": tilt, "elevations": elevations,
        "thickness": thickness, "inside": inside, "gap": gap, "opposite": opposite, "plain": plain,
    });
    (numbers, piece, plain)
}

fn is_made(outcome: &Outcome) -> bool {
    outcome.findings.iter().all(|one| one.severity != Severity::Error)
        && outcome.breaches.iter().all(|one| !matches!(one.rule.as_str(), "flat_overlap" | "folded_clash"))
}

#[test]
fn random_transitions_against_the_solid_kernel() {
    let folder = std::env::temp_dir().join(format!("steelk-transitions-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let most = trials::cases(25) as usize;
    let (mut asked, mut ours) = (Vec::new(), Vec::new());
    let (mut seed, mut unmade) = (0, 0);
    while asked.len() < most {
        seed += 1;
        let (mut numbers, piece, plain) = random(&mut Dice::new(seed + 170));
        let outcome = evaluate(&piece, Options::default());
        let Some(sheets) = outcome.sheets().filter(|_| is_made(&outcome)) else {
            unmade += 1;
            continue;
        };
        let paths: Vec<String> = sheets
            .blanks()
            .iter()
            .enumerate()
            .map(|(at, blank)| {
                let body = folded_body(&blank.part.flat)
                    .unwrap_or_else(|fault| panic!("seed {seed}: {fault:?} of {}", json!(piece.operations)));
                let path = folder.join(format!("{seed}-{at}.step"));
                std::fs::write(&path, steelk_formats::step::write(&body, "trial", &Default::default())).unwrap();
                path.to_string_lossy().into_owned()
            })
            .collect();
        numbers["sheets"] = json!(paths);
        ours.push((seed, plain, sheets.surfaces()[0].capacity, numbers["gap"].as_f64().unwrap()));
        asked.push(numbers);
    }
    // What a random outline asks too much of is refused in words: not most of them.
    assert!(unmade < 2 * most, "{unmade} of {seed} were not made");
    let said = answers("ask_transitions.py", [] as [&str; 0], &serde_json::to_string(&asked).unwrap());
    assert_eq!(said.len(), asked.len());
    let mut held = 0;
    for ((seed, plain, capacity, gap), said) in ours.into_iter().zip(&said) {
        let n = |field: &str| said[field].as_f64().unwrap_or(f64::NAN);
        assert_eq!(said["valid"], true, "seed {seed}: {said}");
        assert!(n("shared") < 1e-6, "seed {seed} shares metal: {said}");
        if !plain {
            continue;
        }
        held += 1;
        assert!(n("named") < 1e-6 && n("far") < 1e-6, "seed {seed}: {said}");
        let capacity = capacity.expect("plane sides");
        assert!((n("capacity") - capacity).abs() < 1e-6 * capacity, "seed {seed}: {capacity} against {said}");
        let gaps = said["gaps"].as_array().expect("gaps");
        for found in gaps {
            let found = found.as_f64().unwrap();
            assert!((found - gap).abs() < 1e-6, "seed {seed}: a gap of {gap} and {said}");
        }
    }
    assert!(held > 4, "{held} with nothing at their ends");
    println!("{most} transitions, {held} of them face by face; {unmade} refused in words");
    std::fs::remove_dir_all(&folder).unwrap();
}

/// Every blank of random transitions, folded from its drawing by the arithmetic of another language: its panels' corners come to where
/// the folded body has them, within 1e-3 mm. Angles and the K-factor are told exactly, since a drawing rounds; what it says is held
/// against them.
#[test]
fn every_blank_of_a_transition_folds_from_its_drawing() {
    let folder = std::env::temp_dir().join(format!("steelk-transition-folds-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let most = trials::cases(25) as usize;
    let (mut files, mut seeds, mut seed) = (Vec::new(), Vec::new(), 0);
    while seeds.len() < most {
        seed += 1;
        let (_, piece, _) = random(&mut Dice::new(seed + 4170));
        let outcome = evaluate(&piece, Options::default());
        let Some(sheets) = outcome.sheets().filter(|_| is_made(&outcome)) else { continue };
        let angles: Vec<f64> = sheets.surfaces()[0].edges.iter().map(|edge| edge.bend_angle()).collect();
        for (which, blank) in sheets.blanks().iter().enumerate().filter(|(_, blank)| !blank.part.flat.bends.is_empty())
        {
            let mut drawing = blank_drawing(&blank.part, "X", LengthUnit::Mm);
            add_bend_table(&mut drawing, &bend_rows(&blank.part, None, LengthUnit::Mm), &[], LengthUnit::Mm);
            let paths = ["dxf", "json"].map(|kind| folder.join(format!("{seed}-{which}.{kind}")));
            std::fs::write(&paths[0], dxf_file::write(&drawing, &Style::default()).unwrap()).unwrap();
            let panels = panels_of(&blank.part);
            let wanted =
                json!({"thickness": blank.part.flat.thickness, "panels": panels, "angles": angles, "k": [0.5]});
            std::fs::write(&paths[1], wanted.to_string()).unwrap();
            files.extend(paths);
            seeds.push((seed, which, panels.len()));
        }
    }
    let found = judged("fold_dxf.py", &files);
    assert_eq!(found.len(), seeds.len());
    let mut corners = 0;
    for ((seed, which, panels), found) in seeds.into_iter().zip(&found) {
        assert!(found["worst"].as_f64().unwrap() < 1e-3, "seed {seed}, blank {which}: {found}");
        assert_eq!(found["panels"], json!(panels), "seed {seed}, blank {which}");
        assert!(found["corners"].as_u64().unwrap() as usize >= 3 * panels, "seed {seed}, blank {which}: {found}");
        corners += found["corners"].as_u64().unwrap();
    }
    println!("{} blanks, {corners} corners", found.len());
    std::fs::remove_dir_all(&folder).unwrap();
}
