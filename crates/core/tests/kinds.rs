//! Kinds of piece: one list, a row a kind.

use serde_json::json;
use steelk_core::piece::{KINDS, Made, MadeFrom, Options, Piece, evaluate};

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
