//! Questions asked of bodies against a general-purpose solid kernel: what two pieces of random frames share, how far they are
//! apart, and the area of a section. `STEELK_CASES=300 cargo test --release -p steelk-formats --test all queries:: -- --nocapture` for
//! the long run.

use steelk_testing::bars;
use steelk_testing::trials;

use serde_json::{Value, json};
use steelk_core::frame::{is_drilled, member_body};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::space::query::{DEEP, Probe, clash, clearance, section, shared_volume};
use steelk_core::space::{Body, Motion, Vector3};
use steelk_testing::python::answers;
use steelk_testing::trials::Dice;

fn ask(questions: &[Value]) -> Vec<Value> {
    answers("ask_solids.py", [] as [&str; 0], &serde_json::to_string(questions).unwrap())
}

fn share(dice: &mut Dice) -> f64 {
    dice.below(2001) as f64 / 1000.0 - 1.0
}

fn way(dice: &mut Dice) -> Vector3 {
    let way = Vector3::new(share(dice), share(dice), share(dice));
    if way.length() < 0.2 { Vector3::new(0.0, 0.0, 1.0) } else { way.unit() }
}

/// Bodies of random pieces, with where a random piece shows them.
fn bodies(seed: u64) -> Vec<(String, Body)> {
    let make = if seed.is_multiple_of(3) { trials::frame } else { trials::joints };
    let piece = Piece::read(make(seed).to_string().as_bytes()).unwrap();
    let Some(frame) = evaluate(&piece, Options::default()).into_frame() else { return Vec::new() };
    let made = &frame.made;
    let members = made.frame.members.iter().enumerate();
    let members = members.filter_map(|(at, member)| Some((member.name.clone(), made.member_body(at).ok()?.clone())));
    let plates = made.frame.plates.iter().zip(made.plate_bodies());
    let plates = plates.filter_map(|(plate, body)| Some((plate.name.clone(), body.as_ref().ok()?.clone())));
    members.chain(plates).collect()
}

#[test]
fn the_solid_kernel_gives_the_same_answers() {
    let folder = std::env::temp_dir().join(format!("steelk-queries-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let most = trials::cases(25) as usize;
    let (mut questions, mut ours) = (Vec::new(), Vec::new());
    let mut seed = 0;
    while questions.len() < 2 * most {
        seed += 1;
        let mut dice = Dice::new(seed + 4000);
        let own = bodies(seed);
        if own.len() < 2 {
            continue;
        }
        let write = |name: &str, body: &Body| {
            let path = folder.join(format!("{seed}-{name}.step"));
            std::fs::write(&path, steelk_formats::step::write(body, "trial", &Default::default())).unwrap();
            path
        };
        // As they lie in the frame, where most touch; and one of them moved anywhere.
        let (at, other) = (dice.below(own.len()), dice.below(own.len()));
        let (one, mut two) = (own[at].1.clone(), own[(if at == other { at + 1 } else { other }) % own.len()].1.clone());
        if dice.one_in(2) {
            let middle = two.mass().centre;
            let by = Motion::turn(middle, way(&mut dice), share(&mut dice) * 3.0);
            let to = Motion::shift(one.mass().centre - middle + way(&mut dice) * (dice.below(400) as f64));
            two = two.moved(&to.after(&by), str::to_string);
        }
        let (a, b) = (Probe::new(&one).unwrap(), Probe::new(&two).unwrap());
        let met = clash(&a, &b, DEEP).map(|found| (found, shared_volume(&a, &b)));
        questions.push(json!({"one": write("one", &one), "two": write("two", &two)}));
        ours.push(json!({"seed": seed, "clash": met.is_some(), "volume": met.map_or(0.0, |met| met.1.0),
        "distance": match clearance(&a, &b) {
            Ok(found) => json!(found.map_or(0.0, |found| found.distance)),
            Err(_) => Value::Null,
        }}));
        let around = one.extents();
        let size = around.size();
        let point = around.low
            + Vector3::new(
                size.x * share(&mut dice).abs(),
                size.y * share(&mut dice).abs(),
                size.z * share(&mut dice).abs(),
            );
        let normal = way(&mut dice);
        if let Ok(cut) = section(&one, point, normal) {
            questions.push(json!({"one": write("one", &one), "point": [point.x, point.y, point.z],
                "normal": [normal.x, normal.y, normal.z]}));
            ours.push(json!({"seed": seed, "area": cut.area()}));
        }
    }
    let found = ask(&questions);
    std::fs::remove_dir_all(&folder).unwrap();
    assert_eq!(found.len(), ours.len());
    let (mut clashes, mut apart, mut sections, mut faults) = (0, 0, 0, Vec::new());
    for (kernel, own) in found.iter().zip(&ours) {
        let number = |of: &Value, name: &str| of[name].as_f64();
        if let (Some(theirs), Some(area)) = (number(kernel, "area"), number(own, "area")) {
            sections += 1;
            if (theirs - area).abs() > 1e-5 * area.max(1.0) {
                faults.push(format!("section: {theirs} and {own}"));
            }
            continue;
        }
        // The kernel gave no answer in its time.
        let Some(shared) = number(kernel, "volume") else { continue };
        if own["clash"] == true {
            clashes += 1;
            let volume = number(own, "volume").unwrap();
            // By lines: about. In several places at once they are far between.
            if (shared - volume).abs() > 0.1 * shared + 20.0 {
                faults.push(format!("clash: {kernel} and {own}"));
            }
        } else if shared > 1.0 {
            faults.push(format!("clash missed: {kernel} and {own}"));
        }
        if let (Some(theirs), Some(distance)) = (number(kernel, "distance"), number(own, "distance")) {
            apart += usize::from(distance > 0.0);
            if (theirs - distance).abs() > 1e-5 {
                faults.push(format!("distance: {kernel} and {own}"));
            }
        }
    }
    println!("{clashes} clashes, {apart} clearances, {sections} sections");
    assert!(faults.is_empty(), "{} differ:\n{}", faults.len(), faults.join("\n"));
    assert!(clashes > most / 10 && apart > most / 5 && sections > most / 2);
}

/// A drilled bar against the kernel's own: the bar without its holes, less a cylinder each.
#[test]
fn the_solid_kernel_drills_the_same_bars() {
    let folder = std::env::temp_dir().join(format!("steelk-drilled-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let most = trials::cases(25) as usize;
    let mut questions = Vec::new();
    let (mut seed, mut over_corners) = (0, 0);
    while questions.len() < most {
        seed += 1;
        let piece = Piece::read(bars::drilled(seed).to_string().as_bytes()).unwrap();
        let Some(frame) = evaluate(&piece, Options::default()).into_frame() else { continue };
        let [member] = frame.made.frame.members.as_slice() else { continue };
        let Ok(body) = member_body(member) else { continue };
        // Of those whose holes are all in a wall by themselves one in four is enough.
        let openings: usize = body.faces.iter().map(|face| face.loops.len() - 1).sum();
        let over = openings < 2 * member.bored_walls();
        if member.bores.is_empty()
            || !member.bores.iter().all(|bore| is_drilled(member, bore, &body))
            || (!over && seed % 4 > 0)
        {
            continue;
        }
        over_corners += usize::from(over);
        let mut plain = member.clone();
        plain.strip_bores();
        let write = |name: &str, body: &Body| {
            let path = folder.join(format!("{seed}-{name}.step"));
            std::fs::write(&path, steelk_formats::step::write(body, "trial", &Default::default())).unwrap();
            path
        };
        let around = member.region.extents();
        let far = around.width() + around.height();
        let drills: Vec<Value> = member
            .bores
            .iter()
            .map(|bore| {
                // From well outside, in the middle of the face, off to the left of the way in.
                let start = around.centre() + bore.into.left() * bore.off - bore.into * far;
                let basis = member.basis_along(bore.along);
                let point = basis.place(start.x, start.y, 0.0);
                let way = basis.turn_out(Vector3::new(bore.into.x, bore.into.y, 0.0));
                // One wall only: to the middle of what is between it and the next.
                let all = member.walls(bore);
                let centre = bore.into.x * around.centre().x + bore.into.y * around.centre().y;
                let depth = match all.as_slice() {
                    [one, two, ..] if bore.one_wall => far - centre + (one.1 + two.0) / 2.0,
                    _ => 2.0 * far,
                };
                json!({"point": [point.x, point.y, point.z], "way": [way.x, way.y, way.z], "diameter": bore.diameter, "depth": depth})
            })
            .collect();
        questions.push(json!({"one": write("plain", &member_body(&plain).unwrap()), "two": write("drilled", &body), "drills": drills, "seed": seed}));
    }
    let (mut alike, mut faults) = (0, Vec::new());
    for (question, answer) in questions.iter().zip(ask(&questions)) {
        let (Some(theirs), Some(ours)) = (answer["volume"].as_f64(), answer["other"].as_f64()) else { continue };
        alike += 1;
        if answer["valid"] != true || (theirs / ours - 1.0).abs() > 1e-6 {
            faults.push(format!("{}: {answer}", question["seed"]));
        }
    }
    std::fs::remove_dir_all(&folder).unwrap();
    println!("{alike} bars of {}, {over_corners} with a hole over a corner", questions.len());
    assert!(faults.is_empty(), "{} differ:\n{}", faults.len(), faults.join("\n"));
    assert!(alike > most / 2 && over_corners > most / 4);
}

/// Ends on two rounds at once open in the kernel as one valid solid of the list's volume.
#[test]
fn the_solid_kernel_opens_ends_on_two_rounds() {
    let folder = std::env::temp_dir().join(format!("steelk-rounds-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let most = trials::cases(25) as usize;
    let (mut questions, mut wanted, mut seed) = (Vec::new(), Vec::new(), 0);
    while questions.len() < most {
        seed += 1;
        let piece = Piece::read(bars::two_rounds(seed).to_string().as_bytes()).unwrap();
        let Some(frame) = evaluate(&piece, Options::default()).into_frame() else { continue };
        for member in frame.made.frame.members.iter().filter(|member| member.ends.iter().any(|end| end.copes.len() > 1))
        {
            let Ok(body) = member_body(member) else { continue };
            let path = folder.join(format!("{seed}-{}.step", member.name));
            std::fs::write(&path, steelk_formats::step::write(&body, "trial", &Default::default())).unwrap();
            questions.push(json!({"one": path, "two": path, "drills": []}));
            wanted.push((seed, member.volume()));
        }
    }
    let (mut answered, mut faults) = (0, Vec::new());
    for ((seed, volume), answer) in wanted.iter().zip(ask(&questions)) {
        // The kernel gives some no answer in its time.
        let Some(theirs) = answer["volume"].as_f64() else { continue };
        answered += 1;
        if answer["valid"] != true || (theirs / volume - 1.0).abs() > 1e-6 {
            faults.push(format!("{seed}: {answer} and {volume}"));
        }
    }
    std::fs::remove_dir_all(&folder).unwrap();
    assert!(faults.is_empty(), "{} of {} differ:\n{}", faults.len(), wanted.len(), faults.join("\n"));
    assert!(answered * 2 > wanted.len(), "{answered} of {} were answered", wanted.len());
}
