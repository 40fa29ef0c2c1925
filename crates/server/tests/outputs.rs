//! The one list of outputs: every row is written by `build`, served by the route, told to the menu, and withheld where the
//! piece is. (That the menu shows what it is told: `e2e/specs/files.spec.ts`.)

use std::collections::BTreeSet;
use std::path::Path;
use std::process::Command;

use serde_json::{Value, json};
use steelk_core::piece::MadeFrom;
use steelk_formats::output::{OUTPUTS, Of, Output};
use steelk_testing::root;
use steelk_testing::server::*;

/// The demo's pieces that have every file between them: a folded tray, a plate, a frame.
const DEMO: [(u32, &str, MadeFrom); 3] = [
    (2, "demo/02-tool-tray.json", MadeFrom::Sheet),
    (4, "demo/04-axle-plate.json", MadeFrom::Sheet),
    (11, "demo/11-trolley-frame.json", MadeFrom::Sections),
];

fn demo(file: &str) -> Value {
    serde_json::from_slice(&std::fs::read(root().join(file)).unwrap()).unwrap()
}

/// The marks of a piece that there is one of a file for, from the answer that the browser gets.
fn marks(answer: &Value, of: Of) -> Vec<String> {
    let lines = answer["frame"]["cut_list"].as_array().cloned().unwrap_or_default();
    let own = lines.iter().filter(|line| match of {
        Of::Member => line["line"]["kind"] == "member",
        Of::Wrap => line["wrap"] == true,
        Of::Plate => line["line"]["kind"] != "member",
        Of::Piece | Of::Blank | Of::Job => false,
    });
    match of {
        Of::Piece | Of::Blank => vec![String::new()],
        _ => own.map(|line| line["line"]["mark"].as_str().unwrap().to_string()).collect(),
    }
}

fn built(file: &str, out: &Path, more: &[&str]) -> BTreeSet<String> {
    let run = Command::new(env!("CARGO_BIN_EXE_steelk"))
        .args(["build", file, "--out", out.to_str().unwrap()])
        .args(more)
        .current_dir(root())
        .output()
        .unwrap();
    assert!(run.status.success(), "{}", String::from_utf8_lossy(&run.stderr));
    serde_json::from_slice(&std::fs::read(out.join("files.json")).unwrap()).unwrap()
}

#[test]
fn every_row_is_built_served_and_told() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    let told = get(&format!("{}/api/outputs", server.url)).json();
    assert_eq!(told.as_array().unwrap().len(), OUTPUTS.len());
    let mut seen = BTreeSet::new();
    for (id, file, made_from) in DEMO {
        let document = demo(file);
        let kind = document["kind"].as_str().unwrap();
        let answer = send("POST", &format!("{}/api/build", server.url), &json!({"document": document})).json();
        // The server stamps the revision, who made it and when; the command line is told.
        let revisions = get(&format!("{}/api/pieces/{id}/revisions", server.url)).json();
        let (who, day) = (revisions[0]["who"].as_str().unwrap(), &revisions[0]["at"].as_str().unwrap()[..10]);
        let out = folder.path().join(format!("out-{id}"));
        let mut written = built(file, &out, &["--revision", "1", "--by", who, "--date", day]);
        for (row, output) in OUTPUTS.iter().enumerate() {
            let kinds = told[row]["kinds"].as_array().unwrap();
            assert_eq!(kinds.iter().any(|one| one == kind), output.serves(made_from), "{} {kind}", output.key);
            if !output.serves(made_from) {
                continue;
            }
            assert_eq!((&told[row]["file"], &told[row]["words"]), (&json!(output.key), &json!(output.words)));
            for mark in marks(&answer, output.of) {
                let name = output.file(Some(&mark));
                let reply = get(&format!("{}/api/pieces/{id}/files/{name}", server.url));
                if (reply.status, output.key) == (409, "{mark}.nc1") {
                    assert!(reply.json()["detail"].as_str().unwrap().contains("has no NC1 file"));
                    continue;
                }
                assert_eq!((reply.status, reply.kind()), (200, output.media), "{name}: {}", reply.text());
                let given = reply.headers["content-disposition"].to_str().unwrap();
                let given = given.trim_start_matches("attachment; filename=\"").trim_end_matches('"').to_string();
                assert!(written.remove(&given), "{given} is served, and build wrote {written:?}");
                // Bars are searched for a time: which of several best plans is found may differ.
                if !matches!(output.key, "cutlist.pdf" | "cutlist.xlsx" | "bars.csv") {
                    assert!(std::fs::read(out.join(&given)).unwrap() == reply.body, "{given} differs");
                }
                seen.insert(output.key);
            }
        }
        assert_eq!(written, BTreeSet::new(), "written by build and in no row");
    }
    let job = get(&format!("{}/api/jobs/1/files/cutlist.csv", server.url));
    assert!(job.status == 200 && job.headers["content-disposition"].to_str().unwrap().contains("TS-104_cutlist.csv"));
    let unseen: Vec<&str> =
        OUTPUTS.iter().filter(|one| one.of != Of::Job && !seen.contains(one.key)).map(|one| one.key).collect();
    assert_eq!(unseen, Vec::<&str>::new(), "no demo piece has it");
}

/// A piece with a bad operation: every row of its trade is refused in words, by the route and by the command line.
#[test]
fn every_row_is_withheld_with_the_piece() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    for (id, file, made_from) in DEMO {
        let mut document = demo(file);
        let last = document["operations"].as_array().unwrap().len();
        document["operations"][last - 1]["do"] = match made_from {
            MadeFrom::Sheet => json!({"drill": {"panel": "base", "diameter": "9000 mm"}}),
            MadeFrom::Sections => json!({"member": {"lines": ["nowhere"], "section": "SHS 50x50x3"}}),
        };
        let own = format!("{}/api/pieces/{id}", server.url);
        assert_eq!(send("PUT", &own, &json!({"version": 1, "document": document})).status, 200);
        let refused = |output: &Output| {
            let reply = get(&format!("{own}/files/{}", output.file(Some("R1"))));
            assert_eq!(reply.status, 409, "{}: {}", output.key, reply.text());
            assert!(reply.json()["detail"].as_str().unwrap().len() > 20, "{}", output.key);
        };
        OUTPUTS.iter().filter(|output| output.serves(made_from)).for_each(refused);
        let path = folder.path().join("bad.json");
        std::fs::write(&path, document.to_string()).unwrap();
        let out = folder.path().join("bad");
        let run = Command::new(env!("CARGO_BIN_EXE_steelk"))
            .args(["build", path.to_str().unwrap(), "--out", out.to_str().unwrap()])
            .output()
            .unwrap();
        assert!(run.status.code() == Some(2) && !out.exists());
    }
    // The job's list says which pieces are not in it, and why.
    let list = get(&format!("{}/api/jobs/1/files/cutlist.csv", server.url)).text();
    for mark in ["TT-01", "AP-04", "LT-01"] {
        let line = list.lines().find(|line| line.starts_with(&format!("{mark},"))).unwrap_or_else(|| panic!("{list}"));
        assert!(line.contains("NOT IN THIS LIST"), "{line}");
    }
    assert_eq!(get(&format!("{}/api/jobs/1/files/other.csv", server.url)).status, 404);
}

/// A mark may be called anything that can be painted on steel: its files have addresses and names all the same.
#[test]
fn marks_with_strange_letters_have_their_files() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    for (at, mark) in ["A/B", "50%", "C+D", "a b", "M%2F", "\u{e9}?#"].iter().enumerate() {
        let piece = json!({
            "steelk": 1, "kind": "frame", "mark": format!("ST-{at}"), "title": "", "quantity": 1, "unit": "mm",
            "stock": {"material": "S275"}, "operations": [
                {"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "800 mm"}}]}}},
                {"name": "bar", "do": {"member": {"lines": ["run"], "section": "SHS 50x50x3", "mark": mark}}},
            ],
        });
        let made = send("POST", &format!("{}/api/jobs/1/pieces", server.url), &json!({"document": piece}));
        assert_eq!(made.status, 201, "{}", made.text());
        let answer = send("POST", &format!("{}/api/build", server.url), &json!({"document": piece})).json();
        let own = marks(&answer, Of::Member).remove(0);
        assert!(own.starts_with(mark), "{own}");
        let packed: String = own.bytes().map(|byte| format!("%{byte:02X}")).collect();
        let reply = get(&format!("{}/api/pieces/{}/files/{packed}.nc1", server.url, made.json()["id"]));
        assert_eq!(reply.status, 200, "{own}: {}", reply.text());
        let name = reply.headers["content-disposition"].to_str().unwrap();
        assert!(name.ends_with(".nc1\"") && !name.contains(['/', '%', '+', '#', '?']), "{name}");
    }
}

/// The shop's pattern names every file, and its contours are how it wants them; what cannot be a pattern is refused in words.
#[test]
fn the_shop_has_the_word_on_names_and_contours() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    let url = format!("{}/api/shop/files", server.url);
    let kept = get(&url).json();
    assert_eq!(kept["examples"]["full"], "WB-02_r3_S275_8mm_x4_blank.dxf");
    assert_eq!(kept["examples"]["bare"], "WB-02_blank.dxf");
    let blank = || get(&format!("{}/api/pieces/1/files/blank.dxf", server.url));
    assert!(blank().text().contains("LWPOLYLINE"));
    let settings =
        json!({"names": "{thickness}-{material}-{mark}-{file}[ rev {revision}]", "contours": "lines_and_arcs"});
    assert_eq!(send("PUT", &url, &json!({"version": 0, "settings": settings})).status, 200);
    let own = blank();
    let name = own.headers["content-disposition"].to_str().unwrap();
    assert!(name.contains("\"3mm-S275-WB-02-blank rev 1.dxf\""), "{name}");
    assert!(!own.text().contains("LWPOLYLINE") && own.text().contains("ARC"));
    assert_eq!(send("PUT", &url, &json!({"version": 0, "settings": settings})).status, 409, "a stale save");
    let tried = |names: &str| send("POST", &format!("{url}/try"), &json!({"names": names}));
    assert_eq!(tried("{file} of {mark}").json()["full"], "blank of WB-02.dxf");
    for (bad, words) in [
        ("{mark}", "{file} is missing"),
        ("[{mark}]-{file}", "{mark} is missing outside"),
        ("{mark}/{file}", "'/' does not belong"),
        ("{mark}-{file}-{colour}", "{colour} is no value"),
        ("{mark}-{file}[-{revision}", "do not pair"),
        ("{mark-{file}", "do not pair"),
        ("{mark}[[{file}]]{file}", "do not pair"),
    ] {
        let reply = tried(bad);
        assert_eq!((reply.status, reply.json()["field"].as_str()), (422, Some("names")), "{bad}");
        assert!(reply.json()["detail"].as_str().unwrap().contains(words), "{bad}: {}", reply.text());
        let saved = send("PUT", &url, &json!({"version": 1, "settings": {"names": bad}}));
        assert!((400..500).contains(&saved.status) && saved.text().contains(words), "{bad}: {}", saved.text());
    }
    let before = get(&format!("{}/api/shop/files/before", server.url)).json();
    let versions: Vec<i64> = before.as_array().unwrap().iter().filter_map(|one| one["version"].as_i64()).collect();
    assert_eq!(versions, [0], "before the one save there is what Steelk ships");
}
