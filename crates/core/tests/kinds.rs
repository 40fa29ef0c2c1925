//! Kinds of piece: one list, a row a kind.

use serde_json::json;
use steelk_core::frame::{FRAME_VERBS, frame_verb};
use steelk_core::piece::{KINDS, Made, MadeFrom, Options, Piece, evaluate};
use steelk_core::sheet::{SHEET_VERBS, sheet_verb};
use steelk_core::work::{Action, Trade};

fn begun(kind: &str) -> Piece {
    let document = json!({
        "steelk": 1, "kind": kind, "mark": "K-1", "title": "begun", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "3 mm"},
    });
    Piece::read(document.to_string().as_bytes()).unwrap()
}

/// A kind finds its own row, and its word in a document is that of the list.
#[test]
fn every_kind_has_its_own_row() {
    for row in &KINDS {
        let word = serde_json::to_value(row.kind).unwrap();
        let piece = begun(word.as_str().unwrap());
        assert_eq!(piece.kind, row.kind);
        assert_eq!(piece.kind.row().word, row.word);
    }
    // And the other way round: there is no kind that a document may name and the list has not.
    let known: Vec<String> = KINDS.iter().map(|row| serde_json::to_value(row.kind).unwrap().to_string()).collect();
    let refused = Piece::read(br#"{"steelk": 1, "kind": "cloud"}"#).unwrap_err().message;
    for name in refused.split('`').skip(1).step_by(2).filter(|name| *name != "cloud") {
        assert!(known.contains(&format!("\"{name}\"")), "{name} has no row: {refused}");
    }
    assert_eq!(refused.matches('`').count() / 2, KINDS.len() + 1, "{refused}");
}

/// What is made is of the kind that was asked for, and a begun piece is no file.
#[test]
fn a_begun_piece_says_what_to_do_first() {
    for row in &KINDS {
        let word = serde_json::to_value(row.kind).unwrap();
        let piece = begun(word.as_str().unwrap());
        let outcome = evaluate(&piece, Options::default());
        assert!(outcome.made.as_ref().is_none_or(Made::is_empty), "{}", row.word);
        assert!(outcome.sheets().is_none());
        assert_eq!(outcome.frame().is_some(), row.made_from == MadeFrom::Sections);
        let withheld = steelk_core::release::ready(&piece, &outcome).unwrap_err();
        assert_eq!(withheld.detail, row.nothing_yet);
    }
}

/// Every verb of the document has its row in the list of its trade, and no row is for none.
#[test]
fn every_verb_has_its_own_row() {
    // The document's own list, by what it says of one that it has not.
    let refused = serde_json::from_value::<Action>(json!({"shout": {}})).unwrap_err().to_string();
    let known: Vec<&str> = refused.split('`').skip(1).step_by(2).filter(|name| *name != "shout").collect();
    assert!(known.len() > 20, "{refused}");
    let mut rows: Vec<&str> =
        SHEET_VERBS.iter().map(|row| row.key).chain(FRAME_VERBS.iter().map(|row| row.key)).collect();
    rows.sort_unstable();
    let mut known = known;
    known.sort_unstable();
    assert_eq!(rows, known);
    let (mut of_sheet, mut of_frame) = (0, 0);
    for piece in demo() {
        for operation in &piece.operations {
            let written = serde_json::to_value(&operation.action).unwrap();
            assert_eq!(written.as_object().unwrap().keys().collect::<Vec<_>>(), [operation.action.key()]);
            let row = sheet_verb(&operation.action);
            assert_eq!(row.is_some(), operation.action.trade() == Trade::Sheet, "{}", operation.action.key());
            assert_eq!(frame_verb(&operation.action).is_some(), operation.action.trade() == Trade::Frame);
            of_sheet += usize::from(row.is_some());
            of_frame += usize::from(row.is_none());
        }
    }
    assert!(of_sheet > 30 && of_frame > 10, "{of_sheet} {of_frame}");
}

fn demo() -> Vec<Piece> {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
    let paths = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path());
    let pieces = paths.filter(|path| path.extension().is_some_and(|end| end == "json"));
    pieces.map(|path| Piece::read(&std::fs::read(path).unwrap()).unwrap()).collect()
}

/// Every bad field of a step is told, not the first alone, and the step leaves the frame as it was.
#[test]
fn a_step_of_a_frame_tells_every_fault() {
    let bore = json!({"bore": {"of": ["rail"], "diameter": "9 volts", "face": "top", "at": "Q", "off": "1 kg", "count": "2.5", "spacing": "10 mm"}});
    let path = json!({"path": {"start": {"x": "1 deg"}, "legs": [
        {"by": {"x": "a lot", "y": "2 kg"}}, {"arc": {"place": {"z": "?"}, "how": {"radius": {"radius": "-4 mm", "toward": "up"}}}}]}});
    let member = json!({"member": {"section": "SHS 1x1x1", "lines": ["rail"], "roll": "3 mm", "across": "4 deg"}});
    for (action, fields) in [
        (bore, vec!["diameter", "at", "off", "count"]),
        (path, vec!["start.x", "legs.0.by.x", "legs.0.by.y", "legs.1.arc.place.z", "legs.1.arc.how.radius.radius"]),
        (member, vec!["section", "roll", "across"]),
    ] {
        let document = json!({
            "steelk": 1, "kind": "frame", "mark": "F-1", "title": "faults", "quantity": 1, "unit": "mm",
            "stock": {"material": "S275"},
            "operations": [
                {"name": "rail", "do": {"path": {"start": {}, "legs": [{"by": {"x": "500 mm"}}]}}},
                {"name": "rails", "do": {"member": {"section": "SHS 50x50x3", "lines": ["rail.1"]}}},
                {"name": "bad", "do": action},
            ],
        });
        let outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
        let told: Vec<&str> = outcome
            .findings
            .iter()
            .filter(|one| one.operation.as_deref() == Some("bad"))
            .filter_map(|one| one.field.as_deref())
            .collect();
        assert_eq!(told, fields, "{:#?}", outcome.findings);
        let frame = &outcome.frame().unwrap().made.frame;
        assert_eq!((frame.members.len(), frame.members[0].bores.len()), (1, 0));
    }
}
