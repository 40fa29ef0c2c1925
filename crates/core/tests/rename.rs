//! Renaming holds when the same part comes out, and everything on it is called by the new name where it was called by
//! the old one, and by nothing else: on random pieces of every kind, for each of their operations and call-outs.

use std::collections::BTreeSet;

use serde_json::{Value, json};
use steelk_core::piece::{Outcome, Piece, Renaming, evaluate};

use steelk_testing::trials::{self, Dice};
use steelk_testing::{base, bend, drill, near, piece, sound};

fn read(document: &Value) -> Piece {
    Piece::read(document.to_string().as_bytes()).unwrap()
}

/// Every name that anything of the made part has.
fn names_of(outcome: &Outcome) -> BTreeSet<String> {
    let mut names = BTreeSet::new();
    if let Some(part) = outcome.part() {
        let flat = &part.flat;
        names.extend(flat.nodes.iter().map(|one| one.name.clone()));
        names.extend(flat.bends.iter().map(|one| one.name.clone()));
        names.extend(flat.holes.iter().map(|one| one.name.clone()));
        names.extend(flat.edges.iter().map(|one| one.name.clone()));
    }
    if let Some(frame) = outcome.frame() {
        let frame = &frame.made.frame;
        names.extend(frame.skeleton.nodes.iter().map(|one| one.name.clone()));
        names.extend(frame.skeleton.lines.iter().map(|one| one.name.clone()));
        names.extend(frame.members.iter().flat_map(|one| [one.name.clone(), one.group.clone()]));
        names.extend(frame.plates.iter().map(|one| one.name.clone()));
    }
    names
}

/// What a part weighs, how large it is, and how its operations and call-outs stand.
fn came_to(outcome: &Outcome) -> (Vec<f64>, Vec<String>) {
    let figures = outcome.figures().map(|one| vec![one.mass, one.net_area, one.cut_length]).unwrap_or_default();
    let frame = outcome.frame().map(|one| {
        let mut all: Vec<f64> = one.made.frame.members.iter().map(|one| one.mass()).collect();
        all.sort_by(f64::total_cmp);
        all
    });
    let proofs = outcome.callouts.iter().map(|one| format!("{:?}", one.verdict));
    let stood = outcome.states.iter().map(|one| format!("{one:?}")).chain(proofs).collect();
    (figures.into_iter().chain(frame.unwrap_or_default()).collect(), stood)
}

fn same(before: &Outcome, after: &Outcome, told: &str) {
    let (old, new) = (came_to(before), came_to(after));
    assert_eq!(old.1, new.1, "{told}");
    assert_eq!(old.0.len(), new.0.len(), "{told}");
    for (old, new) in old.0.iter().zip(&new.0) {
        assert!((old - new).abs() <= 1e-9 * old.abs().max(1.0), "{told}: {old} before, {new} after");
    }
    let messages = |outcome: &Outcome| outcome.findings.len();
    assert_eq!(messages(before), messages(after), "{told}: {:?} {:?}", before.findings, after.findings);
}

fn renamed_everywhere(document: &Value, dice: &mut Dice) -> (usize, usize) {
    let piece = read(document);
    let before = evaluate(&piece, Default::default());
    let (mut done, mut refused) = (0, 0);
    for operation in &piece.operations {
        let from = operation.name.as_str();
        // A name like the others', one that begins as another does, one that another begins as.
        let to = match dice.below(3) {
            0 => format!("q-{}", dice.below(10)),
            1 => format!("{from}-2x"),
            _ => format!("{}-z", piece.operations[dice.below(piece.operations.len())].name),
        };
        let after = match piece.with_operation_renamed(from, &to) {
            Ok(after) => after,
            Err(fault) => {
                assert!(fault.message.contains("pattern"), "{from} to {to}: {fault}");
                refused += 1;
                continue;
            }
        };
        let told = format!("{from} to {to} in {document}");
        let found = evaluate(&after, Default::default());
        same(&before, &found, &told);
        let renaming = Renaming::new(&piece, from, &to);
        let followed: BTreeSet<String> = names_of(&before).iter().map(|name| renaming.follow(name)).collect();
        assert_eq!(followed, names_of(&found), "{told}");
        // There and back again is where it was.
        if let Ok(back) = after.with_operation_renamed(&to, from) {
            assert_eq!(back, piece, "{told}");
        }
        done += 1;
    }
    for callout in &piece.callouts {
        let after = piece.with_callout_renamed(&callout.name, "Zz").unwrap();
        same(&before, &evaluate(&after, Default::default()), &format!("{} in {document}", callout.name));
        assert_eq!(after.with_callout_renamed("Zz", &callout.name).unwrap(), piece);
        done += 1;
    }
    (done, refused)
}

#[test]
fn a_renamed_piece_is_the_same_piece() {
    let (mut done, mut refused) = (0, 0);
    for seed in 0..trials::cases(3) {
        let mut dice = Dice::new(seed ^ 0x4E41);
        for document in [trials::plate(seed), trials::sheet(seed), trials::frame(seed), trials::joints(seed)] {
            let (more, less) = renamed_everywhere(&document, &mut dice);
            (done, refused) = (done + more, refused + less);
        }
    }
    assert!(done > 10 * refused, "{done} renamed, {refused} refused");
}

#[test]
fn what_is_made_again_follows_by_the_name_within_its_name() {
    let document = piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("100 mm", "80 mm"),
            bend("wall", "base.left", "90 deg", "30 mm", json!({})),
            {"name": "again", "do": {"again": {"of": ["wall"], "how": {"mirror": {"panel": "base", "along": "x"}}}}},
            drill("bore", "again.wall", "6 mm", json!({})),
        ]),
    );
    let before = sound(&document);
    let after = document.with_operation_renamed("wall", "flap").unwrap();
    let text = after.write();
    assert!(text.contains("\"again.flap\"") && !text.contains("wall"), "{text}");
    near(sound(&after).figures().unwrap().mass, before.figures().unwrap().mass, 1e-12);
}

#[test]
fn lists_keys_and_variants_follow() {
    let document = piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("100 mm", "80 mm"),
            bend(
                "lip",
                "base.front",
                "90 deg",
                "A",
                json!({"also": ["base.left"], "own": {"base.left": {"leg": "A + 1 mm"}},
                "corners": {"closed": {"gap": "1 mm", "relief": {"square": "A/3"}}}})
            ),
            bend("rim", "lip.left.end", "", "12 mm", json!({"stands": {"parallel": "base"}})),
        ]),
    );
    let mut document: Value = serde_json::from_str(&document.write()).unwrap();
    document["callouts"] = json!([{"name": "A", "value": "20 mm"}]);
    document["variants"] = json!([{"name": "light", "rest": ["rim"]}]);
    let document = read(&document);
    let after = serde_json::to_value(document.with_operation_renamed("base", "floor").unwrap()).unwrap();
    let lip = &after["operations"][1]["do"]["bend"];
    assert_eq!((&lip["edge"], &lip["also"]), (&json!("floor.front"), &json!(["floor.left"])));
    assert_eq!(lip["own"], json!({"floor.left": {"leg": "A + 1 mm"}}));
    assert_eq!(after["operations"][2]["do"]["bend"]["stands"], json!({"parallel": "floor"}));
    let after = serde_json::to_value(document.with_operation_renamed("rim", "hook").unwrap()).unwrap();
    assert_eq!(after["variants"][0]["rest"], json!(["hook"]));
    let after = serde_json::to_value(document.with_callout_renamed("A", "Q").unwrap()).unwrap();
    assert_eq!(after["operations"][1]["do"]["bend"]["corners"]["closed"]["relief"], json!({"square": "Q/3"}));
}

#[test]
fn names_of_a_plate_on_a_frame_are_its_own() {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"},
        "callouts": [{"name": "A", "value": "60 mm"}],
        "operations": [
            {"name": "base", "do": {"path": {"start": {}, "legs": [{"by": {"z": "1000 mm"}}]}}},
            {"name": "post", "do": {"member": {"lines": ["base"], "section": "SHS 50x50x3"}}},
            {"name": "foot", "do": {"plate": {"kind": {"base": {"of": ["post"], "at": "start",
                "shape": {"rectangle": {"width": "150 mm", "depth": "150 mm"}}}}, "thickness": "8 mm",
                "work": [{"name": "hole", "do": {"drill": {"panel": "base", "diameter": "12 mm",
                    "place": {"from": [{"edge": "base.left", "distance": "A/2"}]}}}}]}}},
        ],
    });
    let document = read(&document);
    let before = evaluate(&document, Default::default());
    assert!(
        before.findings.iter().all(|one| one.severity != steelk_core::finding::Severity::Error),
        "{:?}",
        before.findings
    );
    let after = document.with_operation_renamed("base", "line").unwrap();
    let text = after.write();
    assert!(text.contains("\"lines\": [\n            \"line\"") && text.contains("\"panel\": \"base\""), "{text}");
    assert!(text.contains("\"base.left\""), "{text}");
    same(&before, &evaluate(&after, Default::default()), "base to line");
    // Its expressions cite the frame's call-outs.
    let after = document.with_callout_renamed("A", "Q").unwrap();
    assert!(after.write().contains("\"distance\": \"Q/2\""));
    assert_eq!(after.callouts[0].name, "Q");
}

#[test]
fn a_renaming_that_cannot_be_is_refused_and_a_name_is_told_from_a_value() {
    let document = piece(
        "A/20",
        "2 mm",
        "0.4",
        json!([base("A", "AB + A"), bend("wall", "base.left", "90 deg", "max(A, AB)/2 - A*0 + 1 mm", json!({}))]),
    );
    let mut document: Value = serde_json::from_str(&document.write()).unwrap();
    document["callouts"] = json!([
        {"name": "A", "value": "40 mm"},
        {"name": "AB", "value": "A + 20 mm", "tolerance": {"plus_minus": "A/40"}},
    ]);
    document["variants"] = json!([{"name": "long", "set": {"A": "50 mm", "AB": "A + 30 mm"}, "rest": ["wall"]}]);
    let piece = read(&document);
    let after = piece.with_callout_renamed("A", "Q1").unwrap();
    let text = serde_json::to_value(&after).unwrap();
    assert_eq!(text["stock"]["thickness"], "Q1/20");
    assert_eq!(
        text["operations"][0]["do"]["lay_down"]["shape"]["rectangle"],
        json!({"width": "Q1", "depth": "AB + Q1"})
    );
    assert_eq!(text["operations"][1]["do"]["bend"]["leg"], "max(Q1, AB)/2 - Q1*0 + 1 mm");
    assert_eq!(text["callouts"][1], json!({"name": "AB", "value": "Q1 + 20 mm", "tolerance": {"plus_minus": "Q1/40"}}));
    assert_eq!(text["variants"][0]["set"], json!({"Q1": "50 mm", "AB": "Q1 + 30 mm"}));
    same(&evaluate(&piece, Default::default()), &evaluate(&after, Default::default()), "A to Q1");
    let after = piece.with_operation_renamed("wall", "flap").unwrap();
    assert_eq!(serde_json::to_value(&after).unwrap()["variants"][0]["rest"], json!(["flap"]));
    let words = |result: Result<Piece, steelk_core::piece::DocumentError>| result.unwrap_err().to_string();
    assert!(words(piece.with_callout_renamed("A", "AB")).contains("taken by another call-out"));
    assert!(words(piece.with_callout_renamed("A", "T")).contains("already means something"));
    assert!(words(piece.with_callout_renamed("C", "D")).contains("no call-out called C"));
    assert!(words(piece.with_operation_renamed("wall", "base")).contains("taken by another operation"));
    assert!(words(piece.with_operation_renamed("wall", "Wall")).contains("no operation name"));
    assert!(words(piece.with_operation_renamed("roof", "wall")).contains("no operation called roof"));
}

#[test]
fn what_names_a_panel_cites_no_callout_of_that_name() {
    let mut document: Value = serde_json::from_str(
        &piece("2 mm", "2 mm", "0.4", json!([base("60 mm", "C"), drill("hole", "base", "6 mm", json!({}))])).write(),
    )
    .unwrap();
    document["callouts"] = json!([
        {"name": "base", "value": "7 mm"}, {"name": "hole", "value": "C/2"}, {"name": "C", "value": "40 mm"},
    ]);
    let outcome = evaluate(&read(&document), Default::default());
    let drives = |at: usize| outcome.callouts[at].drives.clone();
    assert_eq!((drives(0), drives(1), drives(2)), (vec![], vec![], vec!["base".to_string()]));
    // Nor does renaming the one touch the other.
    let after = read(&document).with_callout_renamed("base", "other").unwrap();
    assert!(after.write().contains("\"panel\": \"base\""));
}

#[test]
fn a_pattern_that_would_part_ways_is_not_left_behind_in_silence() {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"},
        "operations": [
            {"name": "leg-a", "do": {"path": {"start": {}, "legs": [{"by": {"z": "500 mm"}}]}}},
            {"name": "leg-b", "do": {"path": {"start": {"x": "400 mm"}, "legs": [{"by": {"z": "500 mm"}}]}}},
            {"name": "legs", "do": {"member": {"lines": ["leg-*"], "section": "SHS 50x50x3"}}},
        ],
    });
    let piece = read(&document);
    let refused = piece.with_operation_renamed("leg-a", "post").unwrap_err();
    assert!(refused.path == "operations[0].name" && refused.message.contains("leg-*"), "{refused}");
    let after = piece.with_operation_renamed("leg-a", "leg-front").unwrap();
    same(&evaluate(&piece, Default::default()), &evaluate(&after, Default::default()), "leg-a to leg-front");
    // One that was not taken in must not be afterwards either.
    let refused = piece.with_operation_renamed("legs", "leg-all");
    assert!(refused.is_err());
}

#[test]
fn a_hole_in_a_member_is_followed_where_it_is_cited_as_a_face() {
    let frame = |leg: &str, hole: &str| {
        let faces = json!({"frame": {"faces": {"from": hole, "to": format!("{leg}.wall-1")}}});
        json!({
            "steelk": 1, "kind": "frame", "mark": "F-1", "title": "", "quantity": 1, "unit": "mm",
            "stock": {"material": "S275"},
            "callouts": [{"name": "A", "value": "25 mm", "measure": faces}],
            "operations": [
                {"name": "rail", "do": {"path": {"start": {}, "legs": [
                    {"by": {"x": "500 mm", "name": leg.strip_prefix("rail.")}}, {"by": {"y": "500 mm", "name": "far"}}]}}},
                {"name": "beam", "do": {"member": {"lines": [leg], "section": "SHS 50x50x3"}}},
                {"name": "drain", "do": {"bore": {"of": [leg], "face": "top", "diameter": "12 mm", "at": "100 mm"}}},
            ],
        })
    };
    let measured = |piece: &Piece| {
        let outcome = evaluate(piece, Default::default());
        (outcome.callouts[0].measured, outcome.callouts[0].reason.clone())
    };
    // A line called as the hole is stays what it is called.
    for (leg, hole, after) in
        [("rail.near", "rail.near.drain", "rail.near.vent"), ("rail.drain", "rail.drain.drain", "rail.drain.vent")]
    {
        let piece = read(&frame(leg, hole));
        let before = measured(&piece);
        assert!(before.0.is_some(), "{}", before.1);
        let renamed = piece.with_operation_renamed("drain", "vent").unwrap();
        assert_eq!(measured(&renamed).0, before.0);
        let text = serde_json::to_value(&renamed).unwrap();
        assert_eq!(
            text["callouts"][0]["measure"]["frame"]["faces"],
            json!({"from": after, "to": format!("{leg}.wall-1")})
        );
        assert_eq!(text["operations"][2]["do"]["bore"]["of"], json!([leg]));
    }
}

#[test]
fn flanges_called_after_the_panels_they_stand_on_follow() {
    let document = piece(
        "2 mm",
        "2 mm",
        "0.4",
        json!([
            base("100 mm", "80 mm"),
            bend("up", "base.front", "90 deg", "30 mm", json!({})),
            bend("rear", "base.back", "90 deg", "30 mm", json!({})),
            bend("lip", "up.end", "90 deg", "20 mm", json!({"also": ["rear.end"]})),
            bend("hook", "lip.up.end", "90 deg", "12 mm", json!({"also": ["lip.rear.end"]})),
            drill("bore", "hook.up", "4 mm", json!({})),
        ]),
    );
    let before = sound(&document);
    let after = document.with_operation_renamed("up", "flap").unwrap();
    let text = serde_json::to_value(&after).unwrap();
    assert_eq!(text["operations"][4]["do"]["bend"]["edge"], "lip.flap.end");
    assert_eq!(text["operations"][5]["do"]["drill"]["panel"], "hook.flap");
    same(&before, &sound(&after), "up to flap");
    assert_eq!(after.with_operation_renamed("flap", "up").unwrap(), document);
    // What stands after the operation's name and is a side's stays.
    let after = document.with_operation_renamed("lip", "brim").unwrap();
    assert_eq!(serde_json::to_value(&after).unwrap()["operations"][4]["do"]["bend"]["also"], json!(["brim.rear.end"]));
}
