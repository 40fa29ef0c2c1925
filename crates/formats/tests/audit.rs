//! Files read back: what is spoiled between the part and its file is found, sound parts agree, and random ones do. In a short
//! fold of its own (Python, no code of ours) the corners of what the DXF says come to where ours do.

use serde_json::{Value, json};
use steelk_core::audit::Audit;
use steelk_core::brake::bend_rows;
use steelk_core::drawing::{add_bend_table, blank_drawing};
use steelk_core::frame::{frame_solids, member_body};
use steelk_core::piece::{Options, Outcome, Piece, audit_fully, evaluate};
use steelk_core::plane::Edge;
use steelk_core::release::ready;
use steelk_core::sheet::{Node, NodeKind, Part, folded_body};
use steelk_core::space::Body;
use steelk_core::work::sheet::Direction;
use steelk_formats::audit::{read_back, read_blank, read_solids};
use steelk_formats::dxf_file;
use steelk_formats::dxf_file::Style;

use steelk_testing::demo;
use steelk_testing::python::judged;
use steelk_testing::trials;

fn bracket() -> Part {
    let document = json!({
        "steelk": 1, "kind": "sheet", "mark": "X-1", "title": "test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "3 mm"}, "bending": {"radius": "3 mm"},
        "operations": [
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "120 mm", "depth": "80 mm"}}}}},
            {"name": "up", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "50 mm"}}},
            {"name": "down", "do": {"bend": {"edge": "base.front", "angle": "30 deg", "leg": "40 mm", "direction": "down"}}},
            {"name": "eye", "do": {"drill": {"panel": "base", "diameter": "9 mm", "place": {"from": [{"edge": "base.left", "distance": "20 mm"}]}}}},
            {"name": "window", "do": {"cut": {"panel": "base", "reach": "flat", "width": "30 mm", "height": "24 mm", "corner": "4 mm",
                "place": {"from": [{"edge": "up.tangent", "distance": "0 mm"}, {"edge": "base.right", "distance": "30 mm"}]}}}}
        ]
    });
    evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default()).into_part().unwrap()
}

fn keys(audit: &Audit) -> Vec<String> {
    let mut keys: Vec<String> = audit.disagreements().map(|pair| pair.check.clone()).collect();
    keys.sort();
    keys.dedup();
    keys
}

#[test]
fn a_sound_blank_reads_as_it_was_built() {
    let part = bracket();
    let (audit, read) = read_back(&part, None);
    assert_eq!(audit.faults(), Vec::<String>::new());
    assert!(audit.left_out.is_empty(), "{:?}", audit.left_out);
    let read = read.unwrap();
    assert_eq!((read.unit.as_str(), read.holes, read.bends.len()), ("read in millimetres", 2, 2));
    assert_eq!((read.bends[0].direction, read.bends[1].direction), (Direction::Up, Direction::Down));
    // The window takes 30 of the bend of 120, in the middle of the line: two stretches of metal.
    assert_eq!(read.bends[0].lines.len(), 2);
    assert!((read.bends[0].lines.iter().map(|line| line.length()).sum::<f64>() - 90.0).abs() < 1e-9);
    assert!(audit.pairs.iter().any(|pair| pair.check == "file_folded"));
}

/// What a file can be wrong in while every area stays: each is spoiled in the part after the file was read from a sound one.
#[test]
fn what_is_spoiled_is_found() {
    let spoiled = |spoil: fn(&mut Part)| {
        let mut part = bracket();
        spoil(&mut part);
        keys(&read_back(&part, None).0)
    };
    // Up and down changed over between the bends that fold and the file's: the folded part no longer agrees.
    let swapped = spoiled(|part| {
        for node in &mut part.flat.nodes {
            if let NodeKind::Strip(strip) = &mut node.kind {
                strip.direction = match strip.direction {
                    Direction::Up => Direction::Down,
                    Direction::Down => Direction::Up,
                };
            }
        }
    });
    assert_eq!(swapped, ["file_folded"]);
    // A blank that is the mirror image of the panels.
    let mirrored = spoiled(|part| {
        let turn = |outline: &steelk_core::plane::Outline| {
            let mut turned = outline.moved(|at| steelk_core::plane::Point::new(120.0 - at.x, at.y));
            turned.edges.iter_mut().for_each(|edge| edge.bulge = -edge.bulge);
            turned.counter_clockwise()
        };
        let region = &mut part.blank.region;
        region.outer = turn(&region.outer);
        region.holes = region.holes.iter().map(turn).collect();
    });
    assert!(mirrored.contains(&"file_panels_x".to_string()), "{mirrored:?}");
    assert!(!mirrored.contains(&"file_area".to_string()), "every area is the same");
    // A bend whose allowance the table says wrong: the panels come to lie elsewhere.
    let longer = spoiled(|part| {
        // A window may part a bend into several strips: all of the bend is spoiled.
        for node in &mut part.flat.nodes {
            if let (NodeKind::Strip(strip), "up") = (&mut node.kind, node.name.as_str()) {
                strip.width += 0.4;
            }
        }
    });
    assert!(longer.contains(&"file_folded".to_string()), "{longer:?}");
}

/// A bend that ends against metal without a relief: its tear is one line in the file, and the file folds by it.
fn torn() -> Part {
    let document = json!({
        "steelk": 1, "kind": "sheet", "mark": "T-1", "title": "torn", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "3 mm"}, "bending": {"radius": "3 mm", "method": {"k_factor": "0.42"}},
        "operations": [
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "120 mm", "depth": "80 mm"}}}}},
            {"name": "up", "do": {"bend": {"edge": "base.back", "angle": "90 deg", "leg": "40 mm", "set_in": {"left": "20 mm", "right": "30 mm"}}}},
        ],
    });
    evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default()).into_part().unwrap()
}

#[test]
fn a_tear_is_one_line_and_the_file_folds_by_it() {
    let part = torn();
    let drawing = blank_drawing(&part, "X", steelk_core::quantity::LengthUnit::Mm);
    let cut: Vec<_> = drawing
        .strokes
        .iter()
        .filter(|(layer, _)| *layer == steelk_core::drawing::Layer::Cut)
        .map(|(_, stroke)| stroke.clone())
        .collect();
    // Round the T that the blank is: eight edges, and the two tears.
    assert_eq!(cut.len(), 8 + 2);
    let own = steelk_core::sheet::figures(&part);
    let drawn: f64 = cut
        .iter()
        .map(|stroke| match stroke {
            steelk_core::drawing::Stroke::Segment(one) => one.length(),
            steelk_core::drawing::Stroke::Circle { radius, .. } => std::f64::consts::TAU * radius,
        })
        .sum();
    assert!((own.cut_length - drawn).abs() < 1e-9, "{} and {drawn}", own.cut_length);
    assert_eq!(own.pierces, 1 + 2);
    let (audit, read) = read_back(&part, None);
    assert!(audit.faults().is_empty(), "{:?}", audit.faults());
    assert!(audit.left_out.is_empty(), "{:?}", audit.left_out);
    assert!(audit.pairs.iter().any(|pair| pair.check == "file_folded"));
    // Material outside at 90 deg: the bend is set in by its setback R + T.
    let tears: f64 = read.unwrap().slits.iter().map(|slit| slit.length()).sum();
    assert!((tears - 2.0 * 6.0).abs() < 1e-6, "{tears}");
}

/// A part through a fold that shares no code: the DXF opened by ezdxf, panels told apart by shapely, each turned about its bends
/// by its own arithmetic.
#[test]
fn a_short_fold_in_another_language_comes_to_the_same_corners() {
    let folder = std::env::temp_dir().join(format!("steelk-fold-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let mut parts = vec![bracket(), torn()];
    for name in ["01-winch-bracket", "02-tool-tray", "03-stop-bracket"] {
        let piece = demo(name);
        parts.push(evaluate(&piece, Options::default()).into_part().unwrap());
    }
    for (at, part) in parts.iter().enumerate() {
        let mut drawing = blank_drawing(part, "X", steelk_core::quantity::LengthUnit::Mm);
        add_bend_table(
            &mut drawing,
            &bend_rows(part, None, steelk_core::quantity::LengthUnit::Mm),
            &[],
            steelk_core::quantity::LengthUnit::Mm,
        );
        let path = folder.join(format!("{at}.dxf"));
        std::fs::write(&path, dxf_file::write(&drawing, &Style::default()).unwrap()).unwrap();
        let panels = panels_of(part);
        std::fs::write(
            folder.join(format!("{at}.json")),
            json!({"thickness": part.flat.thickness, "panels": panels}).to_string(),
        )
        .unwrap();
        let found = &judged("fold_dxf.py", [&path, &folder.join(format!("{at}.json"))])[0];
        let (worst, corners) = (found["worst"].as_f64().unwrap(), found["corners"].as_u64().unwrap());
        assert!(worst < 2e-3 && corners >= 4, "part {at}: {worst} mm off over {corners} corners");
    }
    std::fs::remove_dir_all(&folder).unwrap();
}

/// Every panel's corners in the flat, with where they go.
pub fn panels_of(part: &Part) -> Vec<Value> {
    let panels = part.flat.nodes.iter().enumerate().filter(|(_, node)| node.is_panel());
    let corners = |which: usize, node: &Node| -> Vec<Value> {
        let corner = |edge: &Edge| {
            let to = part.folded.apply(which, edge.start, 0.0);
            json!([edge.start.x, edge.start.y, to.x, to.y, to.z])
        };
        node.region.outer.edges.iter().map(corner).collect()
    };
    panels.map(|(which, node)| json!({"name": node.name, "corners": corners(which, node)})).collect()
}

fn built(make: fn(u64) -> Value, seed: u64) -> Option<Outcome> {
    let piece = Piece::read(make(seed).to_string().as_bytes()).unwrap();
    let mut outcome = evaluate(&piece, Options::default());
    let audit = std::mem::take(&mut outcome.audit);
    ready(&piece, &outcome).ok()?;
    outcome.audit = audit;
    Some(outcome)
}

#[test]
fn random_blanks_read_as_they_were_built() {
    let mut read_so_far = 0;
    for (name, make) in [("plates", trials::plate as fn(u64) -> Value), ("sheets", trials::sheet)] {
        let (mut looked, mut folded) = (0, 0);
        for seed in 0..trials::cases(200) {
            let Some(outcome) = built(make, seed) else { continue };
            let (audit, read) = read_back(outcome.part().unwrap(), outcome.resolved.die);
            assert_eq!(audit.faults(), Vec::<String>::new(), "{name} {seed}: {}", make(seed));
            assert!(read.is_some());
            looked += 1;
            folded += usize::from(audit.pairs.iter().any(|pair| pair.check == "file_folded"));
        }
        println!("{name}: {looked} read back, {folded} folded from their files");
        read_so_far += looked;
    }
    assert!(read_so_far > 50);
}

/// 25 random parts through the solid kernel: valid closed solids of our volume, centre and size.
#[test]
fn random_parts_open_in_the_solid_kernel() {
    let folder = std::env::temp_dir().join(format!("steelk-trials-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let mut wanted = Vec::new();
    let mut paths = Vec::new();
    let most = trials::cases(25) as usize;
    for seed in 0.. {
        if wanted.len() >= most || seed > 40 * most as u64 {
            break;
        }
        let make = if seed % 3 == 0 { trials::plate as fn(u64) -> Value } else { trials::sheet };
        let Some(mut outcome) = built(make, seed) else { continue };
        audit_fully(&mut outcome);
        let Ok(body) = folded_body(&outcome.part().unwrap().flat) else { continue };
        let path = folder.join(format!("{seed}.step"));
        std::fs::write(&path, steelk_formats::step::write(&body, "trial", &Default::default())).unwrap();
        wanted.push((seed, body.mass()));
        paths.push(path);
    }
    let found = judged("read_step.py", &paths);
    std::fs::remove_dir_all(&folder).unwrap();
    assert_eq!((found.len(), wanted.len()), (most, most));
    for (one, (seed, mass)) in found.iter().zip(&wanted) {
        assert_eq!(
            (one["solids"].as_u64(), one["valid"].as_bool(), one["closed"].as_bool()),
            (Some(1), Some(true), Some(true)),
            "{seed}"
        );
        let volume = one["volume"].as_f64().unwrap();
        assert!((volume / mass.volume - 1.0).abs() < 1e-6, "{seed}: {volume} and {}", mass.volume);
        let area = one["area"].as_f64().unwrap();
        assert!((area / mass.area - 1.0).abs() < 1e-5, "{seed}: {area} and {}", mass.area);
        let centre: Vec<f64> = one["centre"].as_array().unwrap().iter().map(|at| at.as_f64().unwrap()).collect();
        let off = (centre[0] - mass.centre.x).hypot(centre[1] - mass.centre.y).hypot(centre[2] - mass.centre.z);
        assert!(off < 1e-4, "{seed}: centres {off} mm apart");
    }
}

/// Members with points, copes, cutouts and holes open in the solid kernel as one valid solid each, with the volume, surface and
/// centre that their faces come to.
#[test]
fn random_members_open_in_the_solid_kernel() {
    let folder = std::env::temp_dir().join(format!("steelk-members-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let (mut wanted, mut paths) = (Vec::new(), Vec::new());
    let most = trials::cases(25) as usize;
    let (mut holes, mut open) = (0, 0);
    for seed in 0.. {
        if wanted.len() >= most || seed > 40 * most as u64 {
            break;
        }
        let piece = Piece::read(trials::joints(seed).to_string().as_bytes()).unwrap();
        let outcome = evaluate(&piece, Options::default());
        if ready(&piece, &outcome).is_err() {
            continue;
        }
        for member in &outcome.into_frame().unwrap().made.frame.members {
            let Ok(body) = member_body(member) else { continue };
            let shown = body.faces.iter().filter(|face| {
                member.bores.iter().any(|bore| face.name.starts_with(&format!("{}.{}", member.name, bore.operation)))
            });
            (holes, open) = (holes + 2 * member.bored_walls(), open + shown.count());
            let path = folder.join(format!("{seed}-{}.step", wanted.len()));
            std::fs::write(&path, steelk_formats::step::write(&body, "trial", &Default::default())).unwrap();
            wanted.push((format!("{seed} {} {}", member.name, member.section.name), body.mass()));
            paths.push(path);
        }
    }
    let found = judged("read_step.py", &paths);
    if std::env::var("STEELK_KEEP").is_err() {
        std::fs::remove_dir_all(&folder).unwrap();
    }
    assert_eq!(found.len(), wanted.len());
    println!("{} members; {open} of {holes} half rounds of holes are in the bodies", wanted.len());
    let mut faults = Vec::new();
    for (one, (name, mass)) in found.iter().zip(&wanted) {
        let number = |of: &str| one[of].as_f64().unwrap();
        let sound = one["solids"] == 1 && one["valid"] == true && one["closed"] == true;
        let centre: Vec<f64> = one["centre"].as_array().unwrap().iter().map(|at| at.as_f64().unwrap()).collect();
        let off = (centre[0] - mass.centre.x).hypot(centre[1] - mass.centre.y).hypot(centre[2] - mass.centre.z);
        let (volume, area) = (number("volume") / mass.volume - 1.0, number("area") / mass.area - 1.0);
        if !sound || volume.abs() > 1e-6 || area.abs() > 1e-5 || off > 1e-3 {
            faults.push(format!(
                "{name}: solids {}, valid {}, closed {}, volume {volume:e}, area {area:e}, centre {off} mm off",
                one["solids"], one["valid"], one["closed"]
            ));
        }
    }
    assert!(faults.is_empty(), "{} of {}:\n{}", faults.len(), wanted.len(), faults.join("\n"));
    // Holes that meet a corner of their section are left out, and few do.
    assert!(open * 4 >= holes * 3, "{open} of {holes}");
}

/// STEP files of random parts and members read back as the bodies that they were written from; one figure changed in the text is
/// found.
#[test]
fn solids_read_back_from_their_text() {
    let mut seen = 0;
    for seed in 0..trials::cases(200) / 4 {
        let make = match seed % 3 {
            0 => trials::plate as fn(u64) -> Value,
            1 => trials::sheet,
            _ => trials::joints,
        };
        let piece = Piece::read(make(seed).to_string().as_bytes()).unwrap();
        let outcome = evaluate(&piece, Options::default());
        let mut solids: Vec<(String, Body)> = Vec::new();
        if let Some(part) = outcome.part() {
            solids.extend(folded_body(&part.flat).ok().map(|body| ("part".to_string(), body)));
        }
        if let Some(frame) = outcome.frame() {
            solids.extend(frame_solids(&frame.made).0);
        }
        let audit = read_solids(&solids, "trial");
        assert!(audit.faults().is_empty(), "{seed}: {:?}", audit.faults());
        seen += solids.len();
    }
    assert!(seen > 20, "{seen}");
    let body = folded_body(&bracket().flat).unwrap();
    let text = steelk_formats::step::write(&body, "bracket", &Default::default());
    let found = steelk_formats::step_read::read(&text).unwrap().remove(0).1;
    assert!((found.mass().volume - body.mass().volume).abs() < 1e-3);
    let changed = text.replacen("CYLINDRICAL_SURFACE('',", "CYLINDRICAL_SURFACE('x',", 1);
    assert!(steelk_formats::step_read::read(&changed).is_ok(), "names mean nothing");
    // A face turned inside out: its surface counts against the others.
    let face = text.lines().find(|line| line.contains("=ADVANCED_FACE(") && line.ends_with(",.T.);")).unwrap();
    let turned = text.replace(face, &face.replace(",.T.);", ",.F.);"));
    let found = steelk_formats::step_read::read(&turned).unwrap().remove(0).1;
    assert!((found.mass().area - body.mass().area).abs() > 1.0);
    assert!(steelk_formats::step_read::read(&text.replace("VERTEX_POINT", "VORTEX")).is_err());
}

/// A file with bends and no table under it has no allowances: it is read, and the fold is left out rather than guessed.
#[test]
fn a_blank_without_its_table_is_read_as_far_as_it_goes() {
    let part = bracket();
    let bytes =
        dxf_file::write(&blank_drawing(&part, "X", steelk_core::quantity::LengthUnit::Mm), &Style::default()).unwrap();
    let read = read_blank(&bytes).unwrap();
    assert!(read.bends.iter().all(|bend| bend.allowance.is_nan()));
    assert!(read_blank(b"no drawing").is_err());
}
