//! The command line: build, check, schema.

mod common;

use std::process::{Command, Output};

use common::root;

fn steelk(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_steelk")).args(arguments).current_dir(root()).output().unwrap()
}

#[test]
fn build_writes_the_package() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("a/b");
    let run = steelk(&["build", "demo/02-tool-tray.json", "--out", out.to_str().unwrap()]);
    assert!(run.status.success(), "{}", String::from_utf8_lossy(&run.stderr));
    for name in ["blank.dxf", "blank.svg", "cutlist.csv", "report.json"] {
        assert!(std::fs::metadata(out.join(name)).unwrap().len() > 100, "{name}");
    }
    let report: serde_json::Value = serde_json::from_slice(&std::fs::read(out.join("report.json")).unwrap()).unwrap();
    assert_eq!(report["callouts"][0]["verdict"], "holds");
    assert!(report["figures"]["mass"].as_f64().unwrap() > 1.0);
    assert!(String::from_utf8_lossy(&run.stdout).contains("zinc"), "the caution is said");
}

#[test]
fn check_exits_by_the_verdict() {
    let good = steelk(&["check", "demo/01-winch-bracket.json"]);
    assert_eq!(good.status.code(), Some(0));
    assert!(String::from_utf8_lossy(&good.stdout).contains("holds"));
    let off = steelk(&["check", "demo/03-stop-bracket.json"]);
    assert_eq!(off.status.code(), Some(1));
    let table = String::from_utf8_lossy(&off.stdout).to_string();
    assert!(table.contains("off -6 mm") && table.contains("too near the bend"), "{table}");
    let missing = steelk(&["check", "demo/none.json"]);
    assert_eq!(missing.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&missing.stderr).contains("demo/none.json cannot be read"));
}

#[test]
fn a_bad_piece_writes_nothing() {
    let folder = tempfile::tempdir().unwrap();
    let piece = folder.path().join("bad.json");
    let text = std::fs::read_to_string(root().join("demo/01-winch-bracket.json")).unwrap();
    std::fs::write(&piece, text.replace("\"90 deg\"", "\"190 deg\"")).unwrap();
    let out = folder.path().join("out");
    let run = steelk(&["build", piece.to_str().unwrap(), "--out", out.to_str().unwrap()]);
    assert_eq!(run.status.code(), Some(2));
    assert!(
        String::from_utf8_lossy(&run.stderr).contains("a bend of 190 deg cannot be made"),
        "{}",
        String::from_utf8_lossy(&run.stderr)
    );
    assert!(!out.exists());
    std::fs::write(&piece, "{\"steelk\": 1}").unwrap();
    let run = steelk(&["check", piece.to_str().unwrap()]);
    assert!(String::from_utf8_lossy(&run.stderr).contains("missing field"));
}

#[test]
fn schema_is_json_schema_of_the_piece() {
    let run = steelk(&["schema"]);
    let schema: serde_json::Value = serde_json::from_slice(&run.stdout).unwrap();
    assert_eq!(schema["$schema"], "https://json-schema.org/draft/2020-12/schema");
    assert!(schema["properties"]["operations"].is_object() && schema["$defs"]["Measure"].is_object());
}
