//! What is offered where somebody points builds as it stands, and what is measured there is what a call-out would measure.

use serde_json::{Value, json};
use steelk_core::offer::{Offers, offers};
use steelk_core::piece::{Kind, OperationState, Options, Outcome, Piece, evaluate};
use steelk_core::work::{Group, Offer, Operation};
use steelk_testing::{demo_pieces, trials};

fn outcome(piece: &Piece) -> Outcome {
    evaluate(piece, Options::default())
}

/// Everything of a part that can be pointed at, by name.
fn names(outcome: &Outcome) -> Vec<String> {
    let Some(part) = outcome.part() else { return Vec::new() };
    let flat = &part.flat;
    let mut all: Vec<String> = flat.edges.iter().map(|edge| edge.name.clone()).collect();
    for node in &flat.nodes {
        all.push(format!("{}.top", node.stands()));
        all.push(format!("{}.bottom", node.stands()));
    }
    all.extend(flat.bends.iter().map(|bend| format!("{}.bend", bend.name)));
    all.extend(flat.holes.iter().take(12).map(|hole| hole.name.clone()));
    all.extend(flat.holes.iter().take(12).map(|hole| hole.operation.clone()));
    all.extend(outcome.mesh.features.iter().take(200).cloned());
    all.sort();
    all.dedup();
    all
}

/// The piece with an offer's step at its end, and what it came to.
fn with(piece: &Piece, offer: &Offer) -> (Piece, Outcome) {
    let mut next = piece.clone();
    next.operations.push(Operation { name: "offered".into(), rested: false, action: offer.action.clone() });
    let made = outcome(&next);
    (next, made)
}

/// What is wrong with an offer's step, in words; `None` where it was made.
fn refused(piece: &Piece, offer: &Offer) -> Option<String> {
    let (_, made) = with(piece, offer);
    let said = made.findings.iter().find(|one| {
        one.operation.as_deref() == Some("offered") && one.severity == steelk_core::finding::Severity::Error
    });
    match (said, made.states.last()) {
        (Some(finding), _) => Some(finding.message.clone()),
        (None, Some(OperationState::Made)) => None,
        (None, state) => Some(format!("{state:?}")),
    }
}

fn asked(piece: &Piece, made: &Outcome, names: &[String]) -> Offers {
    offers(piece, made, names, piece.unit)
}

/// A panel of this size, thickness and unit.
fn begun(kind: &str, unit: &str, thickness: &str, operations: Value) -> Piece {
    let document = json!({
        "steelk": 1, "kind": kind, "mark": "O-1", "title": "offered", "quantity": 1, "unit": unit,
        "stock": {"material": "S275", "thickness": thickness}, "bending": {"radius": thickness},
        "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

fn rectangle(width: &str, depth: &str) -> Value {
    json!([{"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": width, "depth": depth}}}}}])
}

/// On a plain panel of any sensible size every step that is offered builds as it stands, whatever is pointed at; and on an empty
/// piece every way to begin does.
#[test]
fn on_a_plain_panel_every_offer_builds() {
    let mut dice = trials::Dice::new(15);
    let mut kinds = std::collections::BTreeSet::new();
    for case in 0..trials::cases(25) {
        let thickness = *dice.pick(&["1 mm", "1.5 mm", "3 mm", "6 mm", "1/8 in"]);
        let (width, depth) = (dice.size(120, 900), dice.size(120, 900));
        let unit = if case % 2 == 0 { "mm" } else { "in" };
        for kind in ["sheet", "plate"] {
            let empty = begun(kind, unit, thickness, json!([]));
            let made = outcome(&empty);
            for offer in asked(&empty, &made, &[]).offers {
                assert_eq!(refused(&empty, &offer), None, "{} of {kind} {thickness} {unit}", offer.words);
            }
            let piece = begun(kind, unit, thickness, rectangle(&format!("{width} mm"), &format!("{depth} mm")));
            let made = outcome(&piece);
            let corner = ["base.front/right".to_string(), "base.back/left".to_string()];
            let mut pointed: Vec<Vec<String>> = names(&made).into_iter().map(|name| vec![name]).collect();
            pointed.push(Vec::new());
            pointed.push(vec![corner[0].clone()]);
            pointed.push(corner.to_vec());
            pointed.push(vec!["base.left".into(), "base.front".into()]);
            pointed.push(vec!["base.left".into(), "base.right".into()]);
            for names in pointed {
                let all = asked(&piece, &made, &names);
                assert!(all.pointed.iter().all(|one| one.words.is_some()), "{names:?}: {:?}", all.pointed);
                for offer in all.offers {
                    kinds.insert(offer.action.key());
                    for field in offer.asks.iter().chain(&offer.wants) {
                        let action = serde_json::to_value(&offer.action).unwrap();
                        let at = format!("/{}/{}", offer.action.key(), field.replace('.', "/"));
                        // A distance up from a hole is none until it is typed.
                        let may_lack = field == "place.hole.y";
                        assert!(may_lack || action.pointer(&at).is_some(), "{field} of {}: {action}", offer.words);
                    }
                    let said = format!("{} at {names:?} of {kind} {width} x {depth}, {thickness}, {unit}", offer.words);
                    assert_eq!(refused(&piece, &offer), None, "{said}");
                    if kind == "plate" {
                        let bends = with(&piece, &offer).1.part().is_some_and(|part| !part.flat.bends.is_empty());
                        assert!(!bends, "a plate is offered to {said}");
                    }
                }
            }
        }
    }
    for verb in ["bend", "hem", "joggle", "crease", "notch", "tab", "drill", "cut", "corner"] {
        assert!(kinds.contains(verb), "{verb} is never offered");
    }
}

/// On pieces as people make them nothing is offered that has no place there: only a hole's sizes may have to be typed first.
#[test]
fn on_any_part_what_is_offered_has_its_place() {
    let mut pieces: Vec<Piece> = demo_pieces().into_iter().filter(|piece| piece.kind != Kind::Frame).collect();
    for seed in 0..trials::cases(12) {
        for document in [trials::sheet(seed), trials::plate(seed)] {
            pieces.push(Piece::read(document.to_string().as_bytes()).unwrap());
        }
    }
    let mut tried = 0;
    for piece in pieces {
        let made = outcome(&piece);
        if piece.opposite_hand || made.part().is_none() {
            continue;
        }
        // Of a part of many names every so many: which, by the mark.
        let all = names(&made);
        let step = all.len().div_ceil(14).max(1);
        for name in all.into_iter().step_by(step) {
            for offer in asked(&piece, &made, std::slice::from_ref(&name)).offers {
                let Some(why) = refused(&piece, &offer) else {
                    tried += 1;
                    continue;
                };
                assert!(offer.group == Group::Hole, "{} at {name} of {}: {why}", offer.words, piece.mark);
            }
        }
    }
    assert!(tried > 200, "{tried} alone were tried");
}

/// What lies between two places of a plate whose numbers are known, each once, with places that lie that far apart.
#[test]
fn two_picks_have_the_readings_of_a_known_plate() {
    let operations = json!([
        {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "120 mm", "depth": "80 mm"}}}}},
        {"name": "one", "do": {"drill": {"panel": "base", "diameter": "9 mm", "place": {"from": [
            {"edge": "base.left", "distance": "20 mm"}, {"edge": "base.front", "distance": "10 mm"}]}}}},
        {"name": "two", "do": {"drill": {"panel": "base", "diameter": "9 mm", "place": {"from": [
            {"edge": "base.left", "distance": "80 mm"}, {"edge": "base.front", "distance": "55 mm"}]}}}},
    ]);
    let piece = begun("plate", "mm", "10 mm", operations);
    let made = outcome(&piece);
    let read = |names: &[&str]| {
        let names: Vec<String> = names.iter().map(|one| one.to_string()).collect();
        let found = asked(&piece, &made, &names);
        for reading in &found.readings {
            for witness in &reading.witnesses {
                let long = format!("{:.6}", witness.length().abs());
                let text = reading.text.strip_suffix(" mm").unwrap();
                assert_eq!(long.parse::<f64>().unwrap(), text.parse::<f64>().unwrap(), "{}", reading.words);
            }
        }
        found.readings.iter().map(|one| format!("{}: {}", one.words, one.text)).collect::<Vec<_>>()
    };
    assert_eq!(
        read(&["one", "two"]),
        [
            "axis to axis: 75 mm",
            "distance along x: 60 mm",
            "distance along y: 45 mm",
            "least metal from the rim: 66 mm"
        ]
    );
    assert_eq!(read(&["base.left", "base.right"]), ["least distance: 120 mm"]);
    assert_eq!(read(&["one", "base.right"]), ["least distance: 100 mm", "least metal from the rim: 95.5 mm"]);
    assert_eq!(read(&["base.front", "base.right"]), ["angle between the edges, flat: 90 deg"]);
    assert_eq!(read(&["base.bottom", "base.top"]), ["least distance: 10 mm"]);
    assert_eq!(read(&["one"]), ["diameter: 9 mm"]);
    assert_eq!(read(&["base.left"]), ["length of this edge: 80 mm"]);
    assert_eq!(
        read(&["base.top"]),
        [
            "overall size along x: 120 mm",
            "overall size along y: 80 mm",
            "overall size along z: 10 mm",
            "thickness: 10 mm",
            // 120 x 80 less two holes of 9.
            "area of this panel: 9472.7655 mm2",
            "cut length of this panel: 456.549 mm"
        ]
    );
}

/// A reading goes into a call-out as it is: the call-out then measures the same, in the unit that is shown.
#[test]
fn a_reading_is_what_its_call_out_measures() {
    let mut taken = 0;
    for piece in demo_pieces().into_iter().filter(|piece| piece.kind != Kind::Frame) {
        let made = outcome(&piece);
        let all = names(&made);
        let step = all.len().div_ceil(9).max(1);
        let some: Vec<&String> = all.iter().step_by(step).collect();
        for pair in some.iter().flat_map(|one| some.iter().map(move |other| [(*one).clone(), (*other).clone()])) {
            for reading in asked(&piece, &made, &pair).readings {
                let mut next = piece.clone();
                let text = json!({"name": "READ", "value": reading.text, "measure": reading.measure});
                next.callouts.push(serde_json::from_value(text).unwrap());
                let proof = outcome(&next).callouts.pop().unwrap();
                assert_eq!(proof.measured_text, reading.text, "{} {pair:?} of {}", reading.words, piece.mark);
                taken += 1;
                if taken > 300 {
                    return;
                }
            }
        }
    }
}

/// A name that is gone is told as gone, and nothing is offered for it.
#[test]
fn what_is_gone_is_offered_nothing() {
    let piece = begun("sheet", "mm", "3 mm", rectangle("100 mm", "60 mm"));
    let made = outcome(&piece);
    for name in ["base.nowhere", "ghost", "base.front/front", "", "base.front/", "/", "..", "base.top.top"] {
        let all = asked(&piece, &made, &[name.to_string()]);
        assert_eq!(all.pointed[0].words, None, "{name}");
        assert!(all.offers.is_empty() && all.readings.is_empty(), "{name}");
    }
    // With nothing pointed at there is the list of verbs.
    let list = asked(&piece, &made, &[]);
    assert!(list.offers.len() >= 8, "{:?}", list.offers.iter().map(|one| &one.words).collect::<Vec<_>>());
    assert!(list.offers.iter().all(|one| !one.wants.is_empty()));
}

fn frame(operations: Value, unit: &str) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "O-2", "title": "offered", "quantity": 1, "unit": unit,
        "stock": {"material": "S275"}, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

/// Everything of a frame that can be pointed at.
fn frame_names(made: &Outcome) -> Vec<String> {
    // Bare lines are drawn as one thing, and pointed at each by its own name.
    let mut all: Vec<String> = made.mesh.features.iter().filter(|one| *one != "skeleton").cloned().collect();
    let own = &made.frame().unwrap().made.frame;
    all.extend(own.skeleton.nodes.iter().map(|one| one.name.clone()));
    all.extend(own.skeleton.lines.iter().map(|one| one.name.clone()));
    all.sort();
    all.dedup();
    all
}

/// Each ready frame builds as it is offered, in either unit; and on it every step that is offered for a node, a line, a side, an end
/// or two of them does.
#[test]
fn on_ready_frames_every_offer_builds() {
    let mut kinds = std::collections::BTreeSet::new();
    for unit in ["mm", "in"] {
        let empty = frame(json!([]), unit);
        let made = outcome(&empty);
        let begins = asked(&empty, &made, &[]).offers;
        assert!(begins.len() >= 6, "{begins:?}");
        for begin in begins {
            let said = format!("{} in {unit}", begin.words);
            assert_eq!(refused(&empty, &begin), None, "{said}");
            kinds.insert(begin.action.key());
            let (piece, made) = with(&empty, &begin);
            if begin.action.key() == "ready" && begin.asks.contains(&"section".to_string()) {
                assert!(made.frame().unwrap().made.frame.unsettled.is_empty(), "{said}");
                assert!(made.frame().unwrap().clashes.is_empty(), "{said}");
            }
            let all = frame_names(&made);
            let some: Vec<&String> = all.iter().step_by(all.len().div_ceil(9).max(1)).collect();
            let singles = all.iter().skip(if unit == "mm" { 0 } else { 1 }).step_by(all.len().div_ceil(16).max(1));
            let mut pointed: Vec<Vec<String>> = singles.map(|one| vec![one.clone()]).collect();
            // A side, an end, a node of it, whatever the others are.
            pointed.extend(
                ["top", "start", "n1"].iter().filter_map(|what| {
                    Some(vec![all.iter().find(|one| one.rsplit('.').next() == Some(what))?.clone()])
                }),
            );
            pointed.push(Vec::new());
            pointed.extend(some.iter().zip(some.iter().skip(1)).map(|(one, two)| vec![(*one).clone(), (*two).clone()]));
            for names in pointed {
                let found = asked(&piece, &made, &names);
                assert!(found.pointed.iter().all(|one| one.words.is_some()), "{names:?}: {:?}", found.pointed);
                for mut offer in found.offers {
                    kinds.insert(offer.action.key());
                    let mut next = piece.clone();
                    next.operations[0].name = "offered-first".into();
                    // The first step is called as whatever is kept would be: cited names follow it.
                    let text = serde_json::to_string(&offer.action).unwrap().replace("\"offered", "\"offered-first");
                    offer.action = serde_json::from_str(&text).unwrap();
                    let why = refused(&next, &offer);
                    // A plate on a side, and a gusset, may have no room there: what stands in the way is told.
                    let may = offer.group == Group::Plate || offer.group == Group::Joint;
                    assert!(why.is_none() || may, "{} at {names:?} of {said}: {why:?}", offer.words);
                }
            }
        }
    }
    for verb in ["ready", "path", "node", "divide", "joint", "end", "bore", "plate", "copy"] {
        assert!(kinds.contains(verb), "{verb} is never offered");
    }
}

/// What lies between two places of a known table.
#[test]
fn two_picks_have_the_readings_of_a_known_table() {
    let sizes = json!({"width": "1200 mm", "depth": "700 mm", "height": "800 mm", "rail": "200 mm"});
    let ready = json!({"kind": "table", "sizes": sizes, "section": "SHS 50x50x3", "sizes_to": "outside"});
    let piece = frame(json!([{"name": "own", "do": {"ready": ready}}]), "mm");
    let made = outcome(&piece);
    let read = |names: &[&str]| {
        let names: Vec<String> = names.iter().map(|one| one.to_string()).collect();
        let found = asked(&piece, &made, &names).readings;
        found.iter().map(|one| format!("{}: {}", one.words, one.text)).collect::<Vec<_>>()
    };
    assert_eq!(
        read(&["own.leg-1.left", "own.leg-2.right"])[..2],
        ["distance of these faces: 1200 mm", "clear opening between the members: 1100 mm"]
    );
    assert_eq!(
        read(&["own.leg-1"]),
        ["length, long point to long point: 750 mm", "length, short point to short point: 750 mm"]
    );
    assert_eq!(read(&["own.rail-front", "own.top-front"])[0], "clear opening between the members: 500 mm");
    assert_eq!(read(&["own.n1", "own.n2"]), ["distance: 1150 mm"]);
}
