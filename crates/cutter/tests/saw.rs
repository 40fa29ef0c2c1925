//! The simulated saw and drill line on files of the writer, on files with faults, and on anything.

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::frame::{Alike, Cut, Member, faces};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::work::frame::OneEnd;
use steelk_cutter::saw::{Drill, SawWanted, read, run};
use steelk_formats::nc1::{Heading, write};

fn member(section: &str, more: &[Value]) -> Member {
    let mut operations = vec![
        json!({"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "800 mm"}}]}}}),
        json!({"name": "bar", "do": {"member": {"lines": ["run"], "section": section}}}),
    ];
    operations.extend(more.iter().cloned());
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    let piece = Piece::read(document.to_string().as_bytes()).unwrap();
    evaluate(&piece, Options::default()).into_frame().unwrap().made.frame.members.remove(0)
}

/// What is wanted of a member, its holes placed by hand in each test.
fn wanted(member: &Member, holes: &[(char, f64, f64, f64)]) -> SawWanted {
    SawWanted {
        length: member.length(),
        angles: OneEnd::BOTH.map(|which| member.saw_angle(which)),
        coped: [0, 1].map(|at| !member.ends[at].cutouts.is_empty()),
        holes: holes.iter().map(|&(face, along, up, diameter)| Drill { face, along, up, diameter }).collect(),
        faces: faces(member).iter().map(|face| (face.letter, face.area(member))).collect(),
    }
}

fn heading(quantity: usize) -> Heading<'static> {
    Heading { order: "TS-104", drawing: "frame", mark: "P1", quantity, remarks: &[] }
}

#[test]
fn what_is_written_is_sawn_as_listed() {
    let cuts = |angle: &str, tilt: &str| {
        vec![
            json!({"name": "one", "do": {"end": {"of": ["bar"], "at": "start", "how": {"angle": {"angle": angle}}}}}),
            json!({"name": "two", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": "-30 deg", "tilt": tilt}}}}}),
            json!({"name": "holes", "do": {"bore": {"of": ["bar"], "face": "left", "diameter": "9 mm", "at": "200 mm", "off": "4 mm"}}}),
        ]
    };
    // The walls that a hole from the left, 4 above the middle, goes through: tubes have two, the others one.
    for (section, faces) in [
        ("SHS 50x50x3", "vh"),
        ("RHS 80x40x4", "vh"),
        ("L 60x60x6", "v"),
        ("UPE 100", "v"),
        ("IPE 100", "v"),
        ("FL 50x8", "v"),
    ] {
        for (angle, tilt) in [("0 deg", "0 deg"), ("45 deg", "0 deg"), ("20 deg", "15 deg")] {
            let bar = member(section, &cuts(angle, tilt));
            let text = write(&bar, &heading(4)).unwrap();
            let job = read(&text).unwrap_or_else(|fault| panic!("{section}: {fault}\n{text}"));
            assert_eq!((job.mark.as_str(), job.quantity, job.section.as_str()), ("P1", 4, section));
            let middle = job.height / 2.0;
            let holes: Vec<_> = faces.chars().map(|face| (face, 200.0, middle + 4.0, 9.0)).collect();
            let sawn = run(&job, &wanted(&bar, &holes));
            assert!(sawn.faults.is_empty(), "{section} {angle} {tilt}: {:?}\n{text}", sawn.faults);
        }
    }
}

/// The members of a ready frame whose corners are mitred, three at a time.
fn mitred(kind: &str, section: &str) -> Vec<Member> {
    let sizes = json!({"width": "1200 mm", "depth": "700 mm", "height": "850 mm"});
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-2", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": [
            {"name": "ready", "do": {"ready": {"kind": kind, "sizes": sizes}}},
            {"name": "bar", "do": {"member": {"lines": ["ready"], "section": section}}},
            {"name": "mitres", "do": {"joint": {"at": "all", "how": {"mitre": {}}}}},
        ],
    });
    let piece = Piece::read(document.to_string().as_bytes()).unwrap();
    evaluate(&piece, Options::default()).into_frame().unwrap().made.frame.members
}

#[test]
fn a_corner_of_three_mitres_is_told_to_its_sharp_point_and_sawn_to_the_round_one() {
    let members = mitred("table", "SHS 50x50x3");
    let rail = members.iter().find(|one| one.name.ends_with("front")).unwrap();
    let text = write(rail, &heading(1)).unwrap();
    let job = read(&text).unwrap();
    // By hand: 1,200 between the middles, 1,250 over the sharp corners, and the outside corner of 6 mm (twice the wall,
    // EN 10219-2 up to 6 mm) takes 6 (1 - 1/sqrt 2) off each end.
    let sharp = job.outlines.iter().flat_map(|(_, corners)| corners).map(|(along, _)| *along);
    let over = sharp.clone().fold(f64::NEG_INFINITY, f64::max) - sharp.fold(f64::INFINITY, f64::min);
    assert!((over - 1250.0).abs() < 0.02, "{over}");
    assert!((job.length - (1250.0 - 12.0 * (1.0 - 0.5f64.sqrt()))).abs() < 0.006, "{}", job.length);
    let sawn = run(&job, &wanted(rail, &[]));
    assert!(sawn.faults.is_empty(), "{:?}\n{text}", sawn.faults);
    // At 45 deg a corner of 6 mm takes no more than 6 mm off each end: 20 mm in all is a fault of the header.
    let short = text.replacen("1246.49,1246.49", "1230.00,1230.00", 1);
    assert_ne!(short, text);
    let told = run(&read(&short).unwrap(), &SawWanted { length: 1230.0, ..wanted(rail, &[]) }).faults.join("; ");
    assert!(told.contains("the header says 1230.00 mm"), "{told}");
}

#[test]
fn a_long_point_on_no_face_that_is_told_has_no_machine_file() {
    let members = mitred("box", "SQ 25");
    let faults: Vec<String> =
        members.iter().filter_map(|one| write(one, &heading(1)).err()).map(|fault| fault.to_string()).collect();
    assert!(!faults.is_empty());
    for fault in &faults {
        assert!(fault.contains("lies on none of the faces"), "{fault}");
        assert!(fault.contains("25.00 mm beyond"), "{fault}");
    }
}

#[test]
fn faults_are_found() {
    let bar = member(
        "SHS 50x50x3",
        &[
            json!({"name": "one", "do": {"end": {"of": ["bar"], "at": "start", "how": {"angle": {"angle": "0 deg", "tilt": "30 deg"}}}}}),
        ],
    );
    let text = write(&bar, &heading(1)).unwrap();
    let good = wanted(&bar, &[]);
    let told = |text: &str, wanted: &SawWanted| run(&read(text).unwrap(), wanted).faults.join("; ");
    assert_eq!(told(&text, &good), "");
    assert!(told(&text, &SawWanted { length: good.length + 1.0, ..good.clone() }).contains("should be"));
    assert!(
        told(&text, &SawWanted { angles: [Some(0.0), Some(0.0)], ..good.clone() })
            .contains("its start is cut at 30.00 deg")
    );
    assert!(told(&text, &wanted(&bar, &[('v', 100.0, 25.0, 9.0)])).contains("0 walls are drilled"));
    assert!(told(&text, &wanted(&bar, &[('v', 100.0, 25.0, 9.0)])).contains("face v has no hole of 9.00 mm"));
    let faces = good.faces.iter().map(|(letter, area)| (*letter, area + 40.0)).collect();
    assert!(told(&text, &SawWanted { faces, ..good.clone() }).contains("face h has"));
    assert!(told(&text, &SawWanted { faces: vec![('x', 1.0)], ..good.clone() }).contains("face x is not told"));
    // The header longer than the faces.
    let long = text.replacen("814.43,814.43", "900.00,900.00", 1);
    assert_ne!(long, text);
    assert!(told(&long, &SawWanted { length: 900.0, ..good.clone() }).contains("the header says 900.00 mm"));
    // A file that disagrees with itself: the header's angle without the front's lean.
    let bent = text.replace("  30.000\n", "  31.000\n").replace("  -30.000\n", "  -31.000\n");
    assert_ne!(bent, text);
    assert!(told(&bent, &good).contains("leans by"));
    let off = text.replace("EN\n", "BO\n  v 900.00u 25.00 9.00\nEN\n");
    assert!(told(&off, &good).contains("runs out over the bar"));
    for (bad, words) in [
        ("", "empty"),
        ("XX\n", "starts with ST"),
        ("ST\n  1\n", "24 lines"),
        (&text.replace("EN\n", ""), "no EN"),
        (&text.replace("AK", "ZZ"), "not one that this line runs"),
        (&text.replace("EN\n", "BO\n  25.00 9.00\nEN\n"), "a hole has a place"),
        (&text.replace("  v ", "    "), "an outline needs its face"),
        (&text.replace("  v ", "  q "), "there is no face q"),
        (&text.replace("  50.00\n  50.00", "  1e999\n  50.00"), "no number that a saw"),
    ] {
        let fault = read(bad).unwrap_err();
        assert!(fault.to_string().contains(words), "{fault}");
    }
}

fn notch(at: &str, face: &str, sizes: &[(&str, &str)]) -> Value {
    let mut action = json!({"of": ["bar"], "at": at, "face": face});
    for (name, text) in sizes {
        action[name] = json!(format!("{text} mm"));
    }
    json!({"name": format!("{at}-{face}"), "do": {"end_notch": action}})
}

#[test]
fn a_notched_web_is_told_corner_by_corner() {
    // UPE 100: 100 high, 55 wide. 30 deep and 40 long off the top of the start.
    let bar = member("UPE 100", &[notch("start", "top", &[("depth", "30"), ("length", "40")])]);
    let text = write(&bar, &heading(1)).unwrap();
    let job = read(&text).unwrap();
    let outline = |letter: char| job.outlines.iter().find(|(face, _)| *face == letter).unwrap().1.clone();
    assert_eq!(
        outline('v'),
        [(0.0, 0.0), (800.0, 0.0), (800.0, 100.0), (40.0, 100.0), (40.0, 70.0), (0.0, 70.0), (0.0, 0.0)]
    );
    assert_eq!(outline('o'), [(40.0, 0.0), (800.0, 0.0), (800.0, 55.0), (40.0, 55.0), (40.0, 0.0)]);
    assert_eq!(outline('u'), [(0.0, 0.0), (800.0, 0.0), (800.0, 55.0), (0.0, 55.0), (0.0, 0.0)]);
    let sawn = run(&job, &wanted(&bar, &[]));
    assert!(sawn.faults.is_empty(), "{:?}", sawn.faults);
    // A slot for a plate of 8 through the web of a beam (IPE 120: 120 high), 50 long.
    let bar = member("IPE 120", &[notch("finish", "left", &[("width", "8"), ("length", "50")])]);
    let job = read(&write(&bar, &heading(1)).unwrap()).unwrap();
    let (_, web) = &job.outlines[0];
    assert_eq!(
        web.as_slice(),
        [
            (0.0, 0.0),
            (800.0, 0.0),
            (800.0, 56.0),
            (750.0, 56.0),
            (750.0, 64.0),
            (800.0, 64.0),
            (800.0, 120.0),
            (0.0, 120.0),
            (0.0, 0.0)
        ]
    );
}

#[test]
fn a_point_is_told_by_its_corner() {
    // A flat 60 high runs on to two square tubes of 40 that cross at x = 900, 45 deg up and down: its tip is at
    // 900 - 20 sqrt 2, and its corners 30 behind it.
    let cross = |name: &str, up: &str| {
        let line = json!({"path": {"start": {"x": "900 mm"}, "legs": [{"by": {"x": "300 mm", "z": up}}]}});
        [
            json!({"name": format!("{name}-line"), "do": line}),
            json!({"name": name, "do": {"member": {"lines": [format!("{name}-line")], "section": "SHS 40x40x3"}}}),
        ]
    };
    let mut work = [cross("up", "300 mm"), cross("down", "-300 mm")].concat();
    work.push(json!({"name": "point", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"extend": {"to": ["up", "down"]}}}}}));
    let bar = member("FL 60x10", &work);
    let job = read(&write(&bar, &heading(1)).unwrap()).unwrap();
    let tip = 900.0 - 20.0 * 2f64.sqrt();
    let (_, web) = &job.outlines[0];
    let wanted_web = [(0.0, 0.0), (tip - 30.0, 0.0), (tip, 30.0), (tip - 30.0, 60.0), (0.0, 60.0), (0.0, 0.0)];
    assert_eq!(web.len(), wanted_web.len(), "{web:?}");
    for (one, two) in web.iter().zip(wanted_web) {
        assert!((one.0 - two.0).abs() < 0.006 && (one.1 - two.1).abs() < 0.006, "{web:?}");
    }
    // Cut square through its 10, its volume is that outline's area times 10: 60 x tip less two triangles of 30 by 30.
    assert!((bar.volume() - (60.0 * tip - 900.0) * 10.0).abs() < 1.0, "{}", bar.volume());
    let sawn = run(&job, &wanted(&bar, &[]));
    assert!(sawn.faults.is_empty(), "{:?}", sawn.faults);
    assert_eq!(wanted(&bar, &[]).angles[1], None, "no one angle of the saw makes it");
}

#[test]
fn round_ends_have_a_template_instead() {
    let post = [
        json!({"name": "up", "do": {"path": {"start": {"x": "800 mm", "z": "-300 mm"}, "legs": [{"by": {"z": "600 mm"}}]}}}),
        json!({"name": "post", "do": {"member": {"lines": ["up"], "section": "CHS 60.3x3.2"}}}),
        json!({"name": "fit", "do": {"joint": {"at": "all", "how": {"trim": {}}}}}),
    ];
    let bar = member("CHS 48.3x3.2", &post);
    assert!(write(&bar, &heading(1)).unwrap_err().to_string().contains("wrap template"));
    // A square tube on the same round has flat faces: their outlines curve, and the saw line measures them.
    let bar = member("SHS 40x40x3", &post);
    let text = write(&bar, &heading(1)).unwrap();
    let job = read(&text).unwrap();
    assert!(job.outlines.iter().any(|(_, corners)| corners.len() > 20));
    let sawn = run(&job, &wanted(&bar, &[]));
    assert!(sawn.faults.is_empty(), "{:?}", sawn.faults);
    // The saddle on the side face: sqrt(R^2 - y^2) short of the post's middle, so its foot and its middle differ by
    // 30.15 - sqrt(30.15^2 - 20^2).
    let (_, side) = job.outlines.iter().find(|(face, _)| *face == 'o').unwrap();
    let ends: Vec<f64> = side.iter().map(|(along, _)| *along).filter(|along| *along > 400.0).collect();
    let (low, high) = ends.iter().fold((f64::MAX, 0.0f64), |(low, high), at| (low.min(*at), high.max(*at)));
    let saddle = 30.15 - (30.15f64 * 30.15 - 400.0).sqrt();
    assert!((high - low - saddle).abs() < 0.02, "{} is not {saddle}", high - low);
}

#[test]
fn bent_members_have_no_file() {
    let bent = member(
        "CHS 48.3x3.2",
        &[
            json!({"name": "arch", "do": {"path": {"start": {"y": "900 mm"}, "legs": [{"arc": {"place": {"x": "800 mm", "y": "900 mm"}, "how": {"radius": {"radius": "500 mm", "toward": "up"}}}}]}}}),
            json!({"name": "hoop", "do": {"member": {"lines": ["arch"], "section": "CHS 48.3x3.2"}}}),
        ],
    );
    assert!(write(&bent, &heading(1)).is_ok(), "the straight one");
}

#[test]
fn a_mirrored_channel_is_told_as_drawn() {
    // A channel with a hole above the middle and a notch at its start; and its mirror image about x = 900.
    let work = [
        notch("start", "top", &[("depth", "30"), ("length", "40")]),
        json!({"name": "hole", "do": {"bore": {"of": ["bar"], "face": "left", "diameter": "11 mm", "at": "150 mm", "off": "12 mm"}}}),
    ];
    let mut operations = vec![
        json!({"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "800 mm"}}]}}}),
        json!({"name": "bar", "do": {"member": {"lines": ["run"], "section": "UPE 100"}}}),
        json!({"name": "twin", "do": {"copy": {"how": {"mirror": {"axis": "x", "at": "900 mm"}}}}}),
    ];
    operations.extend(work);
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    let piece = Piece::read(document.to_string().as_bytes()).unwrap();
    let members = evaluate(&piece, Options::default()).into_frame().unwrap().made.frame.members;
    let (one, twin) = (&members[0], &members[1]);
    assert!(twin.mirrored && !one.mirrored);
    assert_eq!(Cut::of(one).alike(&Cut::of(twin)), Alike::Opposite);
    assert_eq!(Cut::of(twin).alike(&Cut::of(&twin.turned_round())), Alike::Same);
    let files: Vec<_> = [one, twin].iter().map(|member| read(&write(member, &heading(1)).unwrap()).unwrap()).collect();
    // Both have the web's back in front and the hole 12 above the middle. The mirror image turned end for end has its notch at
    // the other end of the file.
    assert_eq!(files[0].holes, [Drill { face: 'v', along: 150.0, up: 62.0, diameter: 11.0 }]);
    assert_eq!(files[1].holes, [Drill { face: 'v', along: 650.0, up: 62.0, diameter: 11.0 }]);
    let web = |at: usize| &files[at].outlines[0].1;
    assert!(web(0).contains(&(40.0, 100.0)) && web(1).contains(&(760.0, 100.0)), "{:?}", web(1));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]
    #[test]
    fn anything_is_read_or_refused(text in "(ST\n)?([ a-zA-Z0-9.,\\-]{0,30}\n){0,40}(EN)?") {
        if let Ok(job) = read(&text) {
            let _ = run(&job, &SawWanted::default());
        }
    }

    #[test]
    fn a_damaged_file_is_read_or_refused(at in 0usize..600, byte in any::<u8>()) {
        let bar = member("SHS 50x50x3", &[]);
        let mut bytes = write(&bar, &heading(1)).unwrap().into_bytes();
        let at = at % bytes.len();
        bytes[at] = byte;
        if let Ok(job) = read(&String::from_utf8_lossy(&bytes)) {
            let _ = run(&job, &wanted(&bar, &[]));
        }
    }

    /// Whatever the ends are, the file comes off the line as it is wanted, and so does the file of the same piece turned round,
    /// with the same faces.
    #[test]
    fn any_plane_notch_and_slot_comes_off_as_wanted(
        section in prop::sample::select(vec!["SHS 50x50x3", "RHS 80x40x4", "L 60x40x5", "UPE 100", "UPN 120", "IPE 120", "FL 60x10", "SQ 30"]),
        angle in -40i32..40,
        tilt in -40i32..40,
        face in prop::sample::select(vec!["top", "bottom", "left", "right"]),
        depth in 3u32..18,
        length in 10u32..120,
        width in prop::option::of(4u32..12),
        hole in 300u32..500,
    ) {
        let mut sizes = vec![("length".to_string(), length), ("depth".to_string(), depth)];
        sizes.extend(width.map(|width| ("width".to_string(), width)));
        let texts: Vec<(String, String)> = sizes.iter().map(|(name, size)| (name.clone(), size.to_string())).collect();
        let sizes: Vec<(&str, &str)> = texts.iter().map(|(name, size)| (name.as_str(), size.as_str())).collect();
        let bar = member(section, &[
            json!({"name": "one", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": format!("{angle} deg"), "tilt": format!("{tilt} deg")}}}}}),
            notch("finish", face, &sizes),
            json!({"name": "hole", "do": {"bore": {"of": ["bar"], "face": "left", "diameter": "5 mm", "at": format!("{hole} mm"), "off": "2 mm"}}}),
        ]);
        let holes = |bar: &Member| -> Vec<(char, f64, f64, f64)> {
            bar.bores.iter().flat_map(|bore| bar.face_holes(bore)).map(|hole| (hole.letter, hole.along, hole.up, hole.diameter)).collect()
        };
        let sawn = run(&read(&write(&bar, &heading(1)).unwrap()).unwrap(), &wanted(&bar, &holes(&bar)));
        prop_assert!(sawn.faults.is_empty(), "{section}: {:?}", sawn.faults);
        let turned = bar.turned_round();
        prop_assert_eq!(Cut::of(&bar).alike(&Cut::of(&turned)), Alike::Same);
        prop_assert!((turned.volume() - bar.volume()).abs() < 1e-6 * bar.volume());
        // A turned piece is told as drawn: it is the same file.
        prop_assert_eq!(write(&turned, &heading(1)).unwrap(), write(&bar, &heading(1)).unwrap());
        // And turned twice it is itself.
        let again = turned.turned_round();
        prop_assert!((again.start.origin.distance(bar.start.origin)) < 1e-9 && !again.mirrored);
        prop_assert_eq!(again.region, bar.region.clone());
    }
}
