//! The command line: build, check, schema.

use std::path::{Path, PathBuf};
use std::process::{Command, Output};
use steelk_testing::root;
use steelk_testing::server::*;

fn steelk(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_steelk")).args(arguments).current_dir(root()).output().unwrap()
}

/// The one file of a folder whose name ends so.
fn file_in(folder: &Path, end: &str) -> PathBuf {
    let all = std::fs::read_dir(folder).unwrap().map(|file| file.unwrap().path());
    let own: Vec<PathBuf> = all.filter(|path| path.to_str().unwrap().ends_with(end)).collect();
    assert_eq!(own.len(), 1, "{end} in {}: {own:?}", folder.display());
    own[0].clone()
}

#[test]
fn build_writes_the_package() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("a/b");
    let run = steelk(&["build", "demo/02-tool-tray.json", "--out", out.to_str().unwrap()]);
    assert!(run.status.success(), "{}", String::from_utf8_lossy(&run.stderr));
    for name in [
        "blank.dxf",
        "blank.svg",
        "profile.dxf",
        "profile.svg",
        "cut.nc",
        "holes.csv",
        "edges.csv",
        "cutlist.csv",
        "template.pdf",
        "report.json",
        "flat.pdf",
        "bends.csv",
        "part.step",
        "part.glb",
    ] {
        assert!(std::fs::metadata(file_in(&out, &format!("_{name}"))).unwrap().len() > 100, "{name}");
    }
    let report: serde_json::Value =
        serde_json::from_slice(&std::fs::read(file_in(&out, "report.json")).unwrap()).unwrap();
    assert_eq!(report["callouts"][0]["verdict"], "holds");
    assert!(report["figures"]["mass"].as_f64().unwrap() > 1.0);
    assert!(String::from_utf8_lossy(&run.stdout).contains("zinc"), "the caution is said");
    // A variant is built as a piece of its own; one that is not there is said.
    let light = folder.path().join("light");
    let run = steelk(&["build", "demo/02-tool-tray.json", "--variant", "light", "--out", light.to_str().unwrap()]);
    assert!(run.status.success(), "{}", String::from_utf8_lossy(&run.stderr));
    let report: serde_json::Value =
        serde_json::from_slice(&std::fs::read(file_in(&light, "report.json")).unwrap()).unwrap();
    assert_eq!(report["mark"], "TT-01L");
    let run = steelk(&["build", "demo/02-tool-tray.json", "--variant", "heavy", "--out", light.to_str().unwrap()]);
    assert_eq!(run.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&run.stderr).contains("Its variants are light"));
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
    // A trial piece is checked as what it is made of.
    let card = steelk(&["check", "demo/21-tapered-hood.json", "--variant", "card"]);
    assert_eq!(card.status.code(), Some(0));
    assert!(String::from_utf8_lossy(&card.stdout).starts_with("TH-01-card "));
    let none = steelk(&["check", "demo/21-tapered-hood.json", "--variant", "paper"]);
    assert_eq!(none.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&none.stderr).contains("Its variants are elevations, card"));
    let missing = steelk(&["check", "demo/none.json"]);
    assert_eq!(missing.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&missing.stderr).contains("demo/none.json cannot be read"));
}

/// 0 ready, 1 off or broken, 2 refused; a number that drives the work and is measured nowhere is no fault by itself.
/// A shop's own rules, and what is accepted, are as good on the command line as in the application.
#[test]
fn check_goes_by_the_shops_rules_and_tells_what_is_accepted() {
    let folder = tempfile::tempdir().unwrap();
    let said = |run: &std::process::Output| String::from_utf8_lossy(&run.stdout).into_owned();
    let strict = folder.path().join("rules.toml");
    let mut rules = steelk_core::stock::shipped_rules().clone();
    rules.asks.edge.laser = 15.0;
    std::fs::write(&strict, rules.write()).unwrap();
    let piece = "demo/01-winch-bracket.json";
    let shipped = steelk(&["check", piece]);
    assert!(!said(&shipped).contains("broken leaves"), "{}", said(&shipped));
    let own = steelk(&["check", piece, "--rules", strict.to_str().unwrap()]);
    let line = said(&own).lines().find(|line| line.starts_with("broken ")).expect("a broken rule").to_string();
    assert!(line.contains("of material at") && own.status.code() == Some(1), "{line}");
    std::fs::write(&strict, "asks = 3").unwrap();
    let bad = steelk(&["check", piece, "--rules", strict.to_str().unwrap()]);
    assert_eq!(bad.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&bad.stderr).contains("rules.toml"));
    // Two rules of this bracket are broken; accepted they are told as such.
    let text =
        std::fs::read_to_string(concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/03-stop-bracket.json")).unwrap();
    let mut document: serde_json::Value = serde_json::from_str(&text).unwrap();
    let outcome = steelk_core::piece::evaluate(
        &steelk_core::piece::Piece::read(text.as_bytes()).unwrap(),
        steelk_core::piece::Options::default(),
    );
    let accepted: Vec<_> = outcome
        .broken()
        .map(|one| {
            serde_json::json!({"rule": one.rule, "said": one.message, "features": one.features,
                "reason": "drilled after bending", "by": "M. Ferro", "on": "2026-11-29"})
        })
        .collect();
    assert_eq!(accepted.len(), 2);
    document["accepted"] = serde_json::Value::Array(accepted);
    let path = folder.path().join("bracket.json");
    std::fs::write(&path, document.to_string()).unwrap();
    let told = said(&steelk(&["check", path.to_str().unwrap()]));
    assert!(told.contains("2 accepted"), "{told}");
    assert!(
        told.lines().filter(|line| line.starts_with("accept ") && line.ends_with("(M. Ferro, 2026-11-29)")).count()
            == 2
    );
    assert!(!told.lines().any(|line| line.starts_with("broken ")), "{told}");
}

#[test]
fn the_exit_code_of_check_says_how_the_piece_stands() {
    let folder = tempfile::tempdir().unwrap();
    let text = std::fs::read_to_string(root().join("demo/01-winch-bracket.json")).unwrap();
    let code = |name: &str, document: serde_json::Value| {
        let path = folder.path().join(name);
        std::fs::write(&path, document.to_string()).unwrap();
        steelk(&["check", path.to_str().unwrap()]).status.code()
    };
    let piece: serde_json::Value = serde_json::from_str(&text).unwrap();
    assert_eq!(code("good.json", piece.clone()), Some(0));
    let mut unmeasured = piece.clone();
    unmeasured["callouts"][0].as_object_mut().unwrap().remove("measure").unwrap();
    assert_eq!(code("unmeasured.json", unmeasured.clone()), Some(0));
    // A number that nothing hangs on and nothing is measured by is one that was forgotten.
    unmeasured["callouts"]
        .as_array_mut()
        .unwrap()
        .push(serde_json::json!({"name": "Z", "text": "depth", "value": "50 mm"}));
    assert_eq!(code("forgotten.json", unmeasured), Some(1));
    assert_eq!(code("refused.json", serde_json::from_str(&text.replace("90 deg", "190 deg")).unwrap()), Some(2));
}

/// Whoever reads may have had enough: that is no panic, and files are written whole.
#[test]
fn a_reader_that_goes_away_is_no_fault() {
    use std::process::Stdio;
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("out");
    for arguments in [
        vec!["schema"],
        vec!["check", "demo/02-tool-tray.json"],
        vec!["build", "demo/02-tool-tray.json", "--out", out.to_str().unwrap()],
    ] {
        let mut run = Command::new(env!("CARGO_BIN_EXE_steelk"))
            .args(&arguments)
            .current_dir(root())
            .stdout(Stdio::piped())
            .stderr(Stdio::piped())
            .spawn()
            .unwrap();
        drop(run.stdout.take());
        let done = run.wait_with_output().unwrap();
        assert_eq!(
            (done.status.code(), String::from_utf8_lossy(&done.stderr).as_ref()),
            (Some(0), ""),
            "{arguments:?}"
        );
    }
    let files = |folder: &std::path::Path| std::fs::read_dir(folder).unwrap().count();
    let whole = folder.path().join("whole");
    steelk(&["build", "demo/02-tool-tray.json", "--out", whole.to_str().unwrap()]);
    assert_eq!(files(&out), files(&whole));
}

/// One server a folder; the folder's files are for its owner alone; the network only with consent in plain words.
#[test]
fn a_folder_has_one_server_and_the_network_wants_consent() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().join("data");
    let mut first = Server::start(&data, false);
    let words = |arguments: &[&str]| {
        let run = steelk(arguments);
        assert_eq!(run.status.code(), Some(2));
        String::from_utf8_lossy(&run.stderr).into_owned()
    };
    let serve = ["serve", "--port", "0", "--data", data.to_str().unwrap()];
    assert!(words(&serve).contains("another Steelk serves"), "{}", words(&serve));
    #[cfg(unix)]
    for file in std::fs::read_dir(&data).unwrap() {
        use std::os::unix::fs::PermissionsExt as _;
        let file = file.unwrap();
        let (known, own) = (file.metadata().unwrap(), if file.path().is_dir() { 0o700 } else { 0o600 });
        assert_eq!(known.permissions().mode() & 0o777, own, "{:?}", file.path());
    }
    // The day's copy is made without being asked for.
    let copies = || {
        std::fs::read_dir(data.join("copies"))
            .is_ok_and(|mut all| all.any(|one| one.unwrap().file_name().to_str().unwrap().ends_with(".db")))
    };
    let until = std::time::Instant::now() + std::time::Duration::from_secs(20);
    while !copies() && std::time::Instant::now() < until {
        std::thread::sleep(std::time::Duration::from_millis(20));
    }
    assert!(copies(), "no copy of the day");
    first.kill();
    let other = folder.path().join("other");
    let open = ["serve", "--port", "0", "--data", other.to_str().unwrap(), "--bind", "0.0.0.0"];
    let refused = words(&open);
    assert!(refused.contains("no accounts") && refused.contains("--without-accounts-i-understand"), "{refused}");
    assert!(!other.exists(), "what was refused made nothing");
    // The first folder is free again.
    let again = Server::start(&data, false);
    let health = get(&format!("{}/api/health", again.url)).json();
    assert_eq!((health["status"].as_str(), health["open_to_network"].as_bool()), (Some("ok"), Some(false)));
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

#[test]
fn simulate_tells_a_good_program_from_bad_ones() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("out");
    let piece = "demo/04-axle-plate.json";
    assert!(steelk(&["build", piece, "--out", out.to_str().unwrap()]).status.success());
    let file = file_in(&out, "cut.nc");
    let text = std::fs::read_to_string(&file).unwrap();
    let said = |text: &str| {
        let bad = folder.path().join("bad.nc");
        std::fs::write(&bad, text).unwrap();
        let run = steelk(&["simulate", bad.to_str().unwrap(), "--against", piece]);
        (run.status.code(), String::from_utf8_lossy(&run.stdout).to_string())
    };
    let (code, words) = said(&text);
    assert_eq!(code, Some(0), "{words}");
    assert!(words.contains("holds  no edge further off") && words.contains("diameter 52 mm"), "{words}");
    let (code, words) = said(&text.replace("G21", "G20"));
    assert_eq!(code, Some(1));
    assert!(words.contains("wrong units"), "{words}");
    let start = text.find("(CUT BORE)").unwrap();
    let end = start + text[start..].find("(CUT BOLT").unwrap();
    let (code, words) = said(&format!("{}{}", &text[..start], &text[end..]));
    assert_eq!(code, Some(1));
    assert!(words.contains("bore is missing"), "{words}");
    let (code, words) = said("G21\nG0 X5\nM7\n");
    assert_eq!(code, Some(1));
    assert!(words.contains("the cutter stops") && words.contains("line 3: M7"), "{words}");
    // Another piece's program.
    let run = steelk(&["simulate", file.to_str().unwrap(), "--against", "demo/06-gusset.json"]);
    assert_eq!(run.status.code(), Some(1));
    let run = steelk(&["simulate", "none.nc", "--against", piece]);
    assert_eq!(run.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&run.stderr).contains("none.nc cannot be read"));
}

#[test]
fn a_shops_own_cutters_are_taken_and_bad_ones_refused() {
    let folder = tempfile::tempdir().unwrap();
    let table = std::fs::read_to_string(root().join("data/cutters.toml")).unwrap();
    let own = folder.path().join("cutters.toml");
    std::fs::write(&own, table.replace("kerf = 0.3,", "kerf = 0.36,")).unwrap();
    let out = folder.path().join("out");
    let build =
        |table: &str| steelk(&["build", "demo/04-axle-plate.json", "--out", out.to_str().unwrap(), "--cutters", table]);
    assert!(build(own.to_str().unwrap()).status.success());
    assert!(std::fs::read_to_string(file_in(&out, "cut.nc")).unwrap().contains("(KERF 0.36 MM)"));
    // With the examples the program is for another kerf.
    let run = steelk(&["simulate", file_in(&out, "cut.nc").to_str().unwrap(), "--against", "demo/04-axle-plate.json"]);
    assert_eq!(run.status.code(), Some(1));
    assert!(String::from_utf8_lossy(&run.stdout).contains("written for a kerf of 0.36 mm; this cutter's is 0.3 mm"));
    std::fs::write(&own, table.replace("kerf = 0.3,", "kerf = -1.0,")).unwrap();
    let run = build(own.to_str().unwrap());
    assert_eq!(run.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&run.stderr).contains("-1 mm is outside 0.01 to 20 mm"));
}

#[test]
fn what_no_cutter_takes_is_said_and_the_rest_is_written() {
    let folder = tempfile::tempdir().unwrap();
    let piece = folder.path().join("narrow.json");
    let text = std::fs::read_to_string(root().join("demo/04-axle-plate.json")).unwrap();
    let mut document: serde_json::Value = serde_json::from_str(&text).unwrap();
    document["cutting"] = serde_json::json!({"cutter": "plasma-example", "small_holes": "refuse"});
    std::fs::write(&piece, document.to_string()).unwrap();
    let out = folder.path().join("out");
    std::fs::create_dir_all(&out).unwrap();
    // A program of an earlier build must not pass for this one's.
    std::fs::write(out.join("cut.nc"), "old").unwrap();
    let run = steelk(&["build", piece.to_str().unwrap(), "--out", out.to_str().unwrap()]);
    assert_eq!(run.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&run.stderr).contains("cut.nc is not written"), "{run:?}");
    assert!(!out.join("cut.nc").exists());
    assert!(file_in(&out, "profile.dxf").exists() && file_in(&out, "template.pdf").exists());
}

#[test]
fn a_frame_is_built_and_its_machine_files_are_sawn() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("frame");
    let run = steelk(&["build", "demo/11-trolley-frame.json", "--out", out.to_str().unwrap()]);
    assert!(run.status.success(), "{}", String::from_utf8_lossy(&run.stderr));
    for name in [
        "cutlist.csv",
        "cutlist.xlsx",
        "cutlist.pdf",
        "bars.csv",
        "welds.csv",
        "frame.step",
        "frame.glb",
        "R1.nc1",
        "PADEYE-profile.dxf",
    ] {
        assert!(std::fs::metadata(file_in(&out, &format!("_{name}"))).unwrap().len() > 100, "{name}");
    }
    let said = String::from_utf8_lossy(&run.stdout);
    assert!(said.contains("C1 has no NC1 file") && said.contains("licensed engineer"), "{said}");
    let file = file_in(&out, "_R1.nc1");
    let run = steelk(&["simulate", file.to_str().unwrap(), "--against", "demo/11-trolley-frame.json"]);
    assert_eq!(run.status.code(), Some(0), "{}", String::from_utf8_lossy(&run.stdout));
    let text = std::fs::read_to_string(&file).unwrap();
    std::fs::write(&file, text.replace("2460.00,2460.00", "2400.00,2400.00")).unwrap();
    let run = steelk(&["simulate", file.to_str().unwrap(), "--against", "demo/11-trolley-frame.json"]);
    assert_eq!(run.status.code(), Some(1));
    assert!(String::from_utf8_lossy(&run.stdout).contains("should be 2460.00 mm"));
    let check = steelk(&["check", "demo/11-trolley-frame.json"]);
    assert_eq!(check.status.code(), Some(0), "{}", String::from_utf8_lossy(&check.stdout));
}

#[test]
fn a_clash_keeps_the_files_back() {
    let folder = tempfile::tempdir().unwrap();
    let piece = folder.path().join("frame.json");
    let text = std::fs::read_to_string(root().join("demo/11-trolley-frame.json")).unwrap();
    std::fs::write(&piece, text.replace("\"at\": \"corners\"", "\"at\": \"tees\"")).unwrap();
    let out = folder.path().join("out");
    let run = steelk(&["build", piece.to_str().unwrap(), "--out", out.to_str().unwrap()]);
    assert_eq!(run.status.code(), Some(2));
    assert!(
        String::from_utf8_lossy(&run.stderr).contains("run into each other"),
        "{}",
        String::from_utf8_lossy(&run.stderr)
    );
    assert!(!out.exists());
}

#[test]
fn a_bare_list_is_nested() {
    let folder = tempfile::tempdir().unwrap();
    let list = folder.path().join("bars.json");
    let write = |text: &str| std::fs::write(&list, text).unwrap();
    write(
        r#"{"stock": [{"length": "6000 mm", "quantity": null}], "kerf": "3 mm", "end_trim": "0 mm",
        "pieces": [{"mark": "P1", "length": "1234 mm", "quantity": 7}, {"mark": "P2", "length": "20 in", "quantity": 3}]}"#,
    );
    let run = steelk(&["nest", list.to_str().unwrap()]);
    assert!(run.status.success(), "{}", String::from_utf8_lossy(&run.stderr));
    let answer: serde_json::Value = serde_json::from_slice(&run.stdout).unwrap();
    assert_eq!(
        (&answer["bars_used"], &answer["lower_bound"], &answer["optimal"]),
        (&2.into(), &2.into(), &true.into())
    );
    let marks: Vec<&str> = answer["plan"]
        .as_array()
        .unwrap()
        .iter()
        .flat_map(|bar| bar["marks"].as_array().unwrap())
        .map(|mark| mark.as_str().unwrap())
        .collect();
    assert_eq!((marks.len(), marks.iter().filter(|mark| **mark == "P1").count()), (10, 7));
    assert_eq!(answer["plan"][0]["stock"], "6000 mm");
    for (text, words) in [
        (r#"{"stock": [], "pieces": []}"#, "no bars"),
        (
            r#"{"stock": [{"length": "6000 mm"}], "pieces": [{"mark": "P1", "length": "7 m", "quantity": 1}]}"#,
            "longer than any bar",
        ),
        (r#"{"stock": [{"length": "90 deg"}], "pieces": []}"#, "stock[0].length"),
        (r#"{"stock": [{"length": "6 m", "colour": 1}], "pieces": []}"#, "unknown field"),
        ("nothing", "expected"),
    ] {
        write(text);
        let run = steelk(&["nest", list.to_str().unwrap()]);
        assert_eq!(run.status.code(), Some(2), "{text}");
        assert!(String::from_utf8_lossy(&run.stderr).contains(words), "{}", String::from_utf8_lossy(&run.stderr));
    }
}

/// A copy taken while it is served is whole, is checked, writes nothing over, and comes back as a folder that serves
/// the same.
#[test]
fn what_is_kept_is_copied_laid_down_and_looked_at() {
    let folder = tempfile::tempdir().unwrap();
    let path = |name: &str| folder.path().join(name).to_str().unwrap().to_string();
    let (data, copy, other) = (path("data"), path("copy.db"), path("other"));
    let mut server = Server::start(folder.path().join("data").as_path(), true);
    let url = format!("{}/api/pieces/1", server.url);
    // Saves go on meanwhile.
    let saver = std::thread::spawn(move || {
        let mut document = demo_piece();
        for version in 1..30 {
            document["title"] = serde_json::json!(format!("save {version}"));
            let saved = send("PUT", &url, &serde_json::json!({"version": version, "document": document}));
            assert_eq!(saved.status, 200);
        }
    });
    let run = steelk(&["backup", &copy, "--data", &data]);
    assert_eq!(run.status.code(), Some(0), "{}", String::from_utf8_lossy(&run.stderr));
    saver.join().unwrap();
    server.kill();
    let refused = |arguments: &[&str], words: &str| {
        let run = steelk(arguments);
        let said = String::from_utf8_lossy(&run.stderr).into_owned();
        assert_eq!(run.status.code(), Some(2), "{said}");
        assert!(said.contains(words), "{said}");
    };
    refused(&["backup", &copy, "--data", &data], "is there already");
    refused(&["backup", &path("no.db"), "--data", &path("nowhere")], "is not there");
    refused(&["restore", &copy, "--data", &data], "is not empty");
    assert_eq!(steelk(&["restore", &copy, "--data", &other]).status.code(), Some(0));
    let looked = steelk(&["verify", "--data", &other]);
    let said = String::from_utf8_lossy(&looked.stdout).into_owned();
    assert!(looked.status.success() && said.contains("14 pieces") && said.contains("0 wrong"), "{said}");
    let again = Server::start(folder.path().join("other").as_path(), false);
    assert_eq!(get(&format!("{}/api/jobs/1", again.url)).json()["pieces"].as_array().unwrap().len(), 11);
    drop(again);
    // One revision spoiled by hand, one page damaged, a database of a later Steelk.
    let database = folder.path().join("other/steelk.db");
    let change = |sql: &str| {
        let sqlite = "import sqlite3, sys; c = sqlite3.connect(sys.argv[1]); c.executescript(sys.argv[2]); c.close()";
        let python = root().join(".tools/venv/bin/python");
        assert!(Command::new(python).args(["-c", sqlite]).arg(&database).arg(sql).status().unwrap().success());
    };
    change("UPDATE revisions SET document = '{}' WHERE piece_id = 3");
    let looked = steelk(&["verify", "--data", &other]);
    let said = String::from_utf8_lossy(&looked.stdout).into_owned();
    assert!(looked.status.code() == Some(1) && said.contains("piece 3, revision 1: cannot be read"), "{said}");
    // Of an older Steelk: kept beside as it was before it is brought up to date.
    change(
        "UPDATE revisions SET document = '{\"mark\": \"X\"}' WHERE piece_id = 3; DROP TABLE marks; DROP TABLE past_pictures; DROP TABLE past_shop_tables; DROP TABLE summaries; DROP TABLE summary_lines; PRAGMA user_version = 2",
    );
    drop(Server::start(folder.path().join("other").as_path(), false));
    assert!(folder.path().join("other/steelk-before-2.db").exists());
    change("SELECT count(*) FROM marks");
    change("PRAGMA user_version = 99");
    refused(&["serve", "--data", &other, "--port", "0"], "newer Steelk");
    refused(&["backup", &path("later.db"), "--data", &other], "newer Steelk");
    assert!(!folder.path().join("later.db").exists() && !folder.path().join("later.part").exists());
    let mut bytes = std::fs::read(&copy).unwrap();
    for byte in &mut bytes[4096..20_000] {
        *byte ^= 0x5a;
    }
    std::fs::write(path("bad.db"), &bytes).unwrap();
    std::fs::create_dir(path("fourth")).unwrap();
    std::fs::write(path("fourth/steelk.db"), &bytes).unwrap();
    refused(&["serve", "--data", &path("fourth"), "--port", "0"], "is damaged");
    refused(&["restore", &path("bad.db"), "--data", &path("third")], "is damaged");
    std::fs::write(path("text.db"), "no database at all, and long enough to be one ".repeat(30)).unwrap();
    refused(&["restore", &path("text.db"), "--data", &path("third")], "cannot be read");
    assert!(!folder.path().join("third").exists());
}

/// A second build into a folder leaves no dead file of the first, and nothing of anybody else's is touched.
#[test]
fn a_second_build_leaves_no_dead_files() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("out");
    let build = |arguments: &[&str]| {
        let run = steelk(&[&["build", "--out", out.to_str().unwrap()], arguments].concat());
        assert_eq!(run.status.code(), Some(0), "{}", String::from_utf8_lossy(&run.stderr));
    };
    let names = || -> Vec<String> {
        let files = std::fs::read_dir(&out).unwrap();
        let mut names: Vec<String> = files.map(|file| file.unwrap().file_name().into_string().unwrap()).collect();
        names.sort();
        names
    };
    build(&["demo/11-trolley-frame.json"]);
    assert!(
        names().iter().any(|name| name.ends_with(".nc1")) && names().contains(&"LT-01_S275_x1_frame.step".to_string())
    );
    let report: serde_json::Value =
        serde_json::from_slice(&std::fs::read(file_in(&out, "report.json")).unwrap()).unwrap();
    let frame = &report["frame"];
    let lines: f64 = frame["lines"].as_array().unwrap().iter().map(|line| line["mass_total"].as_f64().unwrap()).sum();
    assert!((lines - frame["sums"][0]["mass"].as_f64().unwrap()).abs() < 1e-6 && lines > 90.0, "{lines} kg");
    let welds: f64 = frame["welds"].as_array().unwrap().iter().map(|weld| weld["length"].as_f64().unwrap()).sum();
    assert!((7000.0..8000.0).contains(&welds), "{welds} mm");
    std::fs::write(out.join("notes.txt"), "mine").unwrap();
    std::fs::write(folder.path().join("outside.txt"), "mine too").unwrap();
    // A list that points elsewhere takes nothing away there.
    let mut list: Vec<String> = serde_json::from_slice(&std::fs::read(out.join("files.json")).unwrap()).unwrap();
    list.push("../outside.txt".into());
    std::fs::write(out.join("files.json"), serde_json::to_vec(&list).unwrap()).unwrap();
    build(&["demo/02-tool-tray.json"]);
    let listed: Vec<String> = serde_json::from_slice(&std::fs::read(out.join("files.json")).unwrap()).unwrap();
    let mut expected = listed.clone();
    expected.extend(["files.json".to_string(), "notes.txt".to_string()]);
    expected.sort();
    assert_eq!(names(), expected);
    assert!(listed.iter().any(|name| name.ends_with("_part.step")) && folder.path().join("outside.txt").exists());
    // The variant's program makes the variant, and not the piece.
    build(&["demo/02-tool-tray.json", "--variant", "light"]);
    let program = file_in(&out, "_cut.nc");
    let simulate = |more: &[&str]| {
        let own = ["simulate", program.to_str().unwrap(), "--against", "demo/02-tool-tray.json"];
        steelk(&[&own[..], more].concat()).status.code()
    };
    assert_eq!((simulate(&["--variant", "light"]), simulate(&[])), (Some(0), Some(1)));
    assert_eq!(simulate(&["--variant", "none"]), Some(2));
}

/// The rack from the command line, and what was deleted put back, while it is served.
#[test]
fn what_was_deleted_is_listed_and_put_back() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().to_str().unwrap();
    let server = Server::start(folder.path(), true);
    let list = |more: &[&str]| {
        let run = steelk(&[&["jobs", "--data", data], more].concat());
        assert!(run.status.success());
        String::from_utf8_lossy(&run.stdout).into_owned()
    };
    assert!(
        list(&[]).contains("TS-104 Launching trolley, due 2026-12-18") && list(&[]).contains("WB-02 Winch bracket")
    );
    assert_eq!(list(&["--deleted"]).trim(), "nothing is deleted");
    let delete = |what: &str| ask("DELETE", &format!("{}/api/{what}", server.url), &[], None).unwrap().status;
    assert_eq!((delete("pieces/1"), delete("jobs/2")), (204, 204));
    let deleted = list(&["--deleted"]);
    assert!(deleted.contains("WB-02 Winch bracket (deleted)") && deleted.contains("TS-107"), "{deleted}");
    assert!(!deleted.contains("TT-01") && !list(&[]).contains("WB-02"), "{deleted}");
    let back = steelk(&["put-back", "--data", data, "--piece", "1", "--job", "2"]);
    assert!(back.status.success(), "{}", String::from_utf8_lossy(&back.stderr));
    assert_eq!(list(&["--deleted"]).trim(), "nothing is deleted");
    assert_eq!(rack(&server).len(), 2);
    assert_eq!(steelk(&["put-back", "--data", data, "--piece", "999"]).status.code(), Some(2));
    assert_eq!(steelk(&["jobs", "--data", "nowhere-at-all"]).status.code(), Some(2));
}
