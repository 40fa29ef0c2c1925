//! Cut plans: what is cut, how long leads are, which order, what is refused; time and cost; the cutters' tables.

use steelk_core::finding::Finding;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::plane::{Point, Segment, segment_distance};
use steelk_core::quantity::LengthUnit;
use steelk_core::stock::{Cutter, CutterRow, Family, check_cutters, example_cutters, read_cutters, write_cutters};
use steelk_core::toolpath::{Plan, Settings, Side, estimate, plan, profile, settings};
use steelk_core::work::cutting::{Cutting, LeadShape, SmallHoles};
use steelk_testing::trials::Dice;

const BASE: &str = r#"{"rectangle":{"width":"200 mm","depth":"100 mm"}}"#;

fn piece(thickness: &str, more: &str) -> Piece {
    let text = format!(
        r#"{{"steelk":1,"kind":"plate","mark":"T-1","title":"","quantity":1,"unit":"mm",
        "stock":{{"material":"S275","thickness":"{thickness}"}},
        "operations":[{{"name":"base","do":{{"lay_down":{{"shape":{BASE}}}}}}}{more}]}}"#
    );
    Piece::read(text.as_bytes()).expect("a document")
}

fn planned(piece: &Piece, cutting: &Cutting) -> Result<(Plan, Settings), Vec<Finding>> {
    let outcome = evaluate(piece, Options::default());
    let resolved = &outcome.resolved;
    let (material, thickness) = (resolved.material.unwrap(), resolved.thickness.unwrap());
    let settings = settings(cutting, example_cutters(), material, thickness, &resolved.names)?;
    let plan = plan(&profile(outcome.part().unwrap()), &settings, LengthUnit::Mm)?;
    Ok((plan, settings))
}

fn on(cutter: &str) -> Cutting {
    Cutting { cutter: Some(cutter.into()), ..Cutting::default() }
}

fn hole(name: &str, diameter: &str, x: f64, y: f64) -> String {
    format!(
        r#",{{"name":"{name}","do":{{"drill":{{"panel":"base","diameter":"{diameter}","place":{{"from":[
        {{"edge":"base.left","distance":"{x} mm"}},{{"edge":"base.front","distance":"{y} mm"}}]}}}}}}}}"#
    )
}

#[test]
fn a_path_runs_half_a_kerf_into_the_waste_and_keeps_its_arcs() {
    let (plan, settings) = planned(&piece("3 mm", &hole("bore", "30 mm", 100.0, 50.0)), &Cutting::default()).unwrap();
    let half = settings.row.kerf / 2.0;
    assert_eq!(plan.paths.len(), 2);
    let bore = &plan.paths[0];
    assert_eq!((bore.name.as_str(), bore.side), ("bore", Side::Inside));
    // The hole's circle less half the kerf: two arcs, nothing broken up.
    assert_eq!(bore.body.len(), 2);
    for arc in &bore.body {
        assert!((arc.radius() - (15.0 - half)).abs() < 1e-9);
        assert!(arc.bulge > 0.0, "holes are travelled with the waste on the left");
    }
    let outside = &plan.paths[1];
    let length: f64 = outside.body.iter().map(Segment::length).sum();
    // Four straight sides and a full turn of half a kerf about the corners.
    assert!((length - (600.0 + 2.0 * std::f64::consts::PI * half)).abs() < 1e-6, "{length}");
    let turned: f64 = outside.body.iter().map(Segment::sweep).sum();
    assert!((turned + std::f64::consts::TAU).abs() < 1e-6, "the outside is travelled clockwise");
}

#[test]
fn leads_are_no_longer_than_a_hole_takes_and_stay_in_the_waste() {
    for shape in [LeadShape::Arc, LeadShape::Line] {
        for (size, cutter) in [("3 mm", "laser-example"), ("8 mm", "plasma-example"), ("40 mm", "plasma-example")] {
            let cutting = Cutting { lead: shape, lead_in: Some("10 mm".into()), ..on(cutter) };
            let (plan, settings) = planned(&piece("3 mm", &hole("bore", size, 100.0, 50.0)), &cutting).unwrap();
            let radius = size[..size.len() - 3].parse::<f64>().unwrap() / 2.0;
            let lead = plan.paths[0].lead_in.expect("a lead");
            // Common practice: no longer than the radius less the kerf.
            assert!(lead.length() <= radius - settings.row.kerf + 1e-9, "{size}: {}", lead.length());
            let centre = Point::new(100.0, 50.0) - plan.origin;
            for step in 0..=20 {
                let away = (lead.at(f64::from(step) / 20.0) - Point::default() - centre).length();
                assert!(radius - away >= settings.row.kerf / 2.0 - 1e-9, "{size} {shape:?}: bites at {step}");
            }
            // It runs into the path: end on start, and for an arc in the same direction.
            let first = plan.paths[0].body[0];
            assert!(lead.end.distance(first.start) < 1e-9);
        }
    }
}

#[test]
fn holes_come_before_the_outside_and_the_way_is_shortened() {
    let more: String = (0..12)
        .map(|at| {
            hole(&format!("h{at}"), "8 mm", 20.0 + f64::from(at * 7 % 12) * 14.0, if at % 2 == 0 { 20.0 } else { 80.0 })
        })
        .collect();
    let (plan, _) = planned(&piece("3 mm", &more), &Cutting::default()).unwrap();
    assert_eq!(plan.paths.len(), 13);
    assert!(plan.paths[..12].iter().all(|one| one.side == Side::Inside));
    assert_eq!(plan.paths[12].side, Side::Outside);
    let mut names: Vec<&str> = plan.paths.iter().map(|one| one.name.as_str()).collect();
    names.sort_unstable();
    names.dedup();
    assert_eq!(names.len(), 13, "each is cut once");
    assert!(plan.travel < 0.7 * plan.travel_listed, "{} against {}", plan.travel, plan.travel_listed);
    // The travel that is told is the way between the paths.
    let mut here = Point::default();
    let mut sum = 0.0;
    for path in &plan.paths {
        sum += here.distance(path.start());
        here = path.end();
    }
    assert!((sum + here.distance(Point::default()) - plan.travel).abs() < 1e-6);
}

#[test]
fn small_holes_go_to_the_drill_press_or_stop_the_program() {
    let document =
        piece("12 mm", &format!("{}{}", hole("small", "5 mm", 40.0, 50.0), hole("large", "20 mm", 150.0, 50.0)));
    let (plan, settings) = planned(&document, &Cutting::default()).unwrap();
    assert_eq!(settings.row.least_hole, 6.0);
    assert_eq!(plan.drilled, ["small"]);
    assert_eq!(plan.marks.len(), 1);
    assert!((plan.marks[0].place - (Point::new(40.0, 50.0) - plan.origin)).distance(Point::default()) < 1e-9);
    assert_eq!(plan.paths.len(), 2);
    let refuse = Cutting { small_holes: SmallHoles::Refuse, ..Cutting::default() };
    let fault = planned(&document, &refuse).unwrap_err();
    assert!(fault[0].message.contains("small of diameter 5 mm is below the 6 mm"), "{}", fault[0].message);
    // A slot cannot be drilled: it is refused either way.
    let slot = r#",{"name":"slot","do":{"cut":{"panel":"base","slot":{"length":"20 mm","width":"4 mm"}}}}"#;
    let fault = planned(&piece("12 mm", slot), &Cutting::default()).unwrap_err();
    assert!(fault[0].message.contains("slot is narrower than the 6 mm"), "{}", fault[0].message);
}

#[test]
fn what_is_marked_or_left_is_not_cut() {
    let make = |make: &str| {
        format!(r#",{{"name":"tap","do":{{"drill":{{"panel":"base","tapped":{{"thread":"M8"}},"make":"{make}"}}}}}}"#)
    };
    let count = |make_: &str| {
        let (plan, _) = planned(&piece("6 mm", &make(make_)), &Cutting::default()).unwrap();
        (plan.paths.len(), plan.marks.len())
    };
    assert_eq!((count("cut"), count("mark"), count("leave")), ((2, 0), (1, 1), (1, 0)));
}

#[test]
fn tabs_part_the_outside_evenly_on_straight_stretches() {
    let tabs = steelk_core::work::cutting::Tabs { count: "4".into(), width: "1.5 mm".into() };
    let (plan, settings) = planned(&piece("3 mm", ""), &Cutting { tabs: Some(tabs), ..Cutting::default() }).unwrap();
    assert_eq!(plan.paths.len(), 4);
    for at in 0..4 {
        let (end, start) = (plan.paths[at].body.last().unwrap().end, plan.paths[(at + 1) % 4].body[0].start);
        // Between the round ends of the kerf the tab's own width is left.
        assert!((end.distance(start) - (1.5 + settings.row.kerf)).abs() < 1e-6);
        // No lead of any piece runs across it.
        let tab = Segment::line(end.toward(start, 0.3), end.toward(start, 0.7));
        for path in &plan.paths {
            for lead in path.lead_in.iter().chain(&path.lead_out) {
                assert!(segment_distance(lead, &tab) > settings.row.kerf / 2.0);
            }
        }
    }
    let wide = steelk_core::work::cutting::Tabs { count: "30".into(), width: "30 mm".into() };
    let fault = planned(&piece("3 mm", ""), &Cutting { tabs: Some(wide), ..Cutting::default() }).unwrap_err();
    assert!(fault[0].message.contains("30 tabs of 30 mm leave too little"), "{}", fault[0].message);
}

#[test]
fn settings_are_refused_in_words() {
    let refused =
        |cutting: Cutting, thickness: &str| planned(&piece(thickness, ""), &cutting).unwrap_err()[0].message.clone();
    assert!(refused(on("no-such"), "3 mm").contains("there is no cutter called no-such"));
    assert!(
        refused(on("laser-example"), "60 mm").contains("the table of laser-example has no row for 60 mm of Mild steel")
    );
    assert!(
        refused(Cutting { lead_in: Some("300 mm".into()), ..on("laser-example") }, "3 mm")
            .contains("300 mm is no lead-in")
    );
    assert!(refused(Cutting { margin: Some("3 kg".into()), ..on("laser-example") }, "3 mm").contains("mass"));
    let tabs = |count: &str| Some(steelk_core::work::cutting::Tabs { count: count.into(), width: "1 mm".into() });
    assert!(refused(Cutting { tabs: tabs("2.5"), ..Cutting::default() }, "3 mm").contains("2.5 is no count of tabs"));
    // Without a choice the first cutter that reaches the sheet is taken.
    assert_eq!(planned(&piece("60 mm", ""), &Cutting::default()).unwrap().1.cutter.name, "waterjet-example");
}

/// A jet of 5 mm is no waterjet's (common practice: about 1 mm): most likely 0.5 was meant, and a hole of 20 would come out as it
/// is planned, but of the wrong size at the machine.
#[test]
fn a_kerf_that_no_such_machine_cuts_is_said() {
    let made = evaluate(&piece("3 mm", ""), Options::default());
    let (part, material) = (made.part().unwrap(), made.resolved.material.unwrap());
    let notes = |kerf: f64| {
        let mut cutters = example_cutters().to_vec();
        let jet = cutters.iter_mut().find(|one| one.name == "waterjet-example").unwrap();
        jet.rows.iter_mut().for_each(|row| row.kerf = kerf);
        let settings = settings(&on("waterjet-example"), &cutters, material, 3.0, &made.resolved.names).unwrap();
        let notes = plan(&profile(part), &settings, LengthUnit::Mm).unwrap().notes;
        notes.into_iter().map(|one| one.message).collect::<Vec<_>>()
    };
    assert_eq!(notes(5.0), ["the table of waterjet-example says a kerf of 5 mm: a waterjet cuts no wider than 2 mm"]);
    assert_eq!(notes(1.0), [""; 0]);
    // None of the shipped examples is warned of.
    for cutter in example_cutters() {
        assert!(cutter.rows.iter().all(|row| row.kerf <= cutter.process.widest_kerf()), "{}", cutter.name);
    }
}

/// By hand: 600 mm and a turn of the kerf at 5500 mm/min, one pierce of 0.25 s, the way there and back at 60 m/min.
#[test]
fn time_and_cost_follow_their_formula() {
    let cutting = Cutting { lead_in: Some("2 mm".into()), lead_out: Some("0 mm".into()), ..on("laser-example") };
    let (plan, settings) = planned(&piece("3 mm", ""), &cutting).unwrap();
    let found = estimate(&plan, &settings);
    let cut = 600.0 + std::f64::consts::PI * 0.18 + 2.0;
    let seconds = cut / 5500.0 * 60.0 + 0.25 + plan.travel / 1000.0;
    assert!((found.seconds - seconds).abs() < 1e-6, "{} against {seconds}", found.seconds);
    assert!((found.cost - seconds / 3600.0 * 90.0).abs() < 1e-9);
    assert_eq!(found.currency, "EUR");
    assert!(found.why_time.working.contains("5500 mm/min"));
}

#[test]
fn tables_are_read_written_and_refused_with_the_field() {
    let cutters = example_cutters();
    // Plainly marked for what they are.
    assert!(cutters.iter().all(|one| one.source.contains("made-up") && one.name.ends_with("-example")));
    assert_eq!(read_cutters(&write_cutters(cutters)).unwrap(), cutters);
    let laser = &cutters[0];
    // The thinnest row that serves a thickness.
    assert_eq!(laser.row(Family::MildSteel, 2.0, None).unwrap().thickness, 2.0);
    assert_eq!(laser.row(Family::MildSteel, 2.1, None).unwrap().thickness, 3.0);
    assert!(laser.row(Family::MildSteel, 20.1, None).is_none());
    let bad = |change: fn(&mut Cutter)| {
        let mut cutters = cutters.to_vec();
        change(&mut cutters[0]);
        check_cutters(&cutters).unwrap_err().path
    };
    assert_eq!(bad(|one| one.rows[1].kerf = 0.0), "cutter[0].rows[1].kerf");
    assert_eq!(bad(|one| one.rows[1].kerf = f64::NAN), "cutter[0].rows[1].kerf");
    assert_eq!(bad(|one| one.rows[1] = one.rows[0].clone()), "cutter[0].rows[1].thickness");
    assert_eq!(bad(|one| one.rows.clear()), "cutter[0].rows");
    assert_eq!(bad(|one| one.rapid = -1.0), "cutter[0].rapid");
    assert_eq!(bad(|one| one.on.code = "M30".into()), "cutter[0].on.code");
    assert_eq!(bad(|one| one.off.code = one.on.code.clone()), "cutter[0].off.code");
    assert_eq!(bad(|one| one.name = "plasma-example".into()), "cutter[1].name");
    assert!(read_cutters("cutter = 3").is_err() && read_cutters("").is_err() && read_cutters("cutter = []").is_err());
}

/// What the shop lists first is usual; a quality that is asked for is the one that is cut, with its own kerf and speed.
#[test]
fn a_quality_is_asked_for_by_its_name() {
    let fine = Cutting { quality: Some("fine".into()), ..on("laser-example") };
    let (usual, fine) =
        (planned(&piece("3 mm", ""), &on("laser-example")).unwrap().1, planned(&piece("3 mm", ""), &fine).unwrap().1);
    assert_eq!((usual.row.quality.as_str(), usual.row.kerf), ("", 0.18));
    assert_eq!((fine.row.quality.as_str(), fine.row.kerf), ("fine", 0.17));
    assert_eq!(fine.row_words(LengthUnit::Mm), "row for mild steel up to 3 mm in quality fine");
    // A thickness past its rows, and a name that no row has, are refused with those that there are.
    for (thickness, quality) in [("10 mm", "fine"), ("3 mm", "mirror")] {
        let asked = Cutting { quality: Some(quality.into()), ..on("laser-example") };
        let refused = planned(&piece(thickness, ""), &asked).unwrap_err();
        let [one] = refused.as_slice() else { panic!("{refused:?}") };
        assert_eq!(one.field.as_deref(), Some("cutting.quality"));
        assert!(one.message.contains(&format!("in quality \"{quality}\"")), "{}", one.message);
        assert!(one.way_out.starts_with("It cuts this sheet in quality \"\""), "{}", one.way_out);
    }
    // Without a cutter it is the first that cuts in this quality.
    let any = Cutting { quality: Some("fine".into()), ..Cutting::default() };
    assert_eq!(planned(&piece("5 mm", ""), &any).unwrap().1.cutter.name, "laser-example");
}

/// Laws of finding a row in any table: it serves; none of its quality that serves is thinner; unasked its quality is that of the
/// first row listed that serves; and there is none where no row of the quality serves.
#[test]
fn rows_are_found_by_their_laws() {
    let mut dice = Dice::new(4);
    let qualities = ["", "fine", "fast"];
    let families = [Family::MildSteel, Family::Stainless];
    for _ in 0..2000 {
        let mut cutter = example_cutters()[0].clone();
        let model = cutter.rows[0].clone();
        cutter.rows.clear();
        for _ in 0..1 + dice.below(8) {
            let row = CutterRow {
                family: *dice.pick(&families),
                thickness: dice.size(1, 12),
                quality: (*dice.pick(&qualities)).into(),
                ..model.clone()
            };
            cutter.rows.push(row);
        }
        let (family, thickness) = (*dice.pick(&families), dice.size(1, 12));
        let serves = |row: &CutterRow| row.family == family && row.thickness >= thickness;
        for asked in [None, Some("fine"), Some("")] {
            let first = cutter.rows.iter().find(|row| serves(row));
            let found = cutter.row(family, thickness, asked);
            let Some(found) = found else {
                assert!(!cutter.rows.iter().any(|row| serves(row) && asked.is_none_or(|own| row.quality == own)));
                continue;
            };
            assert!(serves(found));
            assert_eq!(found.quality, asked.unwrap_or(&first.unwrap().quality));
            let like = |row: &&CutterRow| serves(row) && row.quality == found.quality;
            assert!(cutter.rows.iter().filter(like).all(|row| row.thickness >= found.thickness));
            assert!(cutter.qualities(family, thickness).contains(&found.quality.as_str()));
        }
    }
}

#[test]
fn rows_tell_where_they_come_from_and_two_of_a_thickness_need_two_qualities() {
    let mut cutters = example_cutters().to_vec();
    // Every row that is shipped is marked for what it is.
    assert!(cutters.iter().all(|one| one.rows.iter().all(|row| row.made_up)));
    let row = &mut cutters[0].rows[0];
    (row.made_up, row.source) = (false, "the shop, cut and measured".into());
    let again = read_cutters(&write_cutters(&cutters)).unwrap();
    assert_eq!(again, cutters);
    let twin = cutters[0].rows[0].clone();
    cutters[0].rows.push(CutterRow { quality: "fast".into(), ..twin.clone() });
    assert_eq!(check_cutters(&cutters), Ok(()));
    cutters[0].rows.push(CutterRow { quality: "fast".into(), ..twin });
    let fault = check_cutters(&cutters).unwrap_err();
    assert!(fault.path.ends_with(".thickness") && fault.message.contains("in quality fast"), "{fault}");
    cutters[0].rows.pop();
    cutters[0].rows[0].quality = " fine".into();
    assert_eq!(check_cutters(&cutters).unwrap_err().path, "cutter[0].rows[0].quality");
}
