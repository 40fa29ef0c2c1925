//! What the rack and a job tell is what a piece comes to: kept with its revision, never an old figure told as a new one,
//! and worked out again by itself.

use std::time::{Duration, Instant};

use serde_json::{Value, json};
use steelk_core::piece::Piece;
use steelk_core::stock::Workshop;
use steelk_server::marks::marks_of;
use steelk_server::summary::{STAMP, Summary};
use steelk_store::{Among, Store};
use steelk_testing::server::*;

/// The database of a folder, beside its server.
fn beside(folder: &std::path::Path) -> Store {
    Store::open(&folder.join("steelk.db"), marks_of).unwrap()
}

/// What is told of a piece, worked out here and now.
fn fresh(document: &Value) -> Value {
    let piece = Piece::read(document.to_string().as_bytes()).unwrap();
    // Written and read as what is told was.
    serde_json::from_str(&serde_json::to_string(&Summary::of(&piece, Workshop::default())).unwrap()).unwrap()
}

/// Every piece of a told job is as it would be worked out now; and the job's figures are their sums.
fn assert_fresh(server: &Server, told: &Value) {
    let (mut holds, mut callouts, mut broken, mut items, mut mass) = (0, 0, 0, 0, 0.0);
    for line in told["pieces"].as_array().unwrap() {
        let view = get(&format!("{}/api/pieces/{}", server.url, line["id"])).json();
        assert_eq!(line["version"], view["version"]);
        let wanted = fresh(&view["document"]);
        for (key, value) in wanted.as_object().unwrap() {
            assert_eq!(&line[key], value, "{key} of {}", line["mark"]);
        }
        let number = |key: &str| line[key].as_u64().unwrap();
        holds += number("holds");
        callouts += number("holds") + number("off") + number("unplaced");
        broken += number("broken") + number("errors");
        items += number("quantity");
        for variant in line["variants"].as_array().unwrap() {
            items += variant["quantity"].as_u64().unwrap();
            mass += variant["mass_total"].as_f64().unwrap();
        }
        mass += line["frame"]["mass_total"].as_f64().unwrap_or(0.0);
        let blanks = line["cut_lines"].as_array().unwrap().iter();
        mass += blanks.map(|blank| blank["mass_total"].as_f64().unwrap()).sum::<f64>();
    }
    let job = &told["job"];
    assert_eq!(
        [&job["holds"], &job["callouts"], &job["broken"], &job["items"], &job["waiting"]].map(|one| one.as_u64()),
        [holds, callouts, broken, items, 0].map(Some)
    );
    assert!((job["mass"].as_f64().unwrap() - mass).abs() < 1e-9 * mass.max(1.0), "{} and {mass} kg", job["mass"]);
    let is_proved = holds == callouts && broken == 0;
    assert_eq!(job["stage"], if is_proved { "proved" } else { "drafting" });
}

#[test]
fn what_is_kept_is_what_would_be_worked_out_now() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    for job in [1, 2] {
        assert_fresh(&server, &settled(&server, job));
    }
    // After a save, an undo, another piece and one taken out it is that again.
    let piece = format!("{}/api/pieces/1", server.url);
    let view = get(&piece).json();
    let mut document = view["document"].clone();
    document["quantity"] = json!(7);
    document["stock"]["thickness"] = json!("5 mm");
    assert_eq!(send("PUT", &piece, &json!({"version": view["version"], "document": document})).status, 200);
    let after = settled(&server, 1);
    assert_eq!((&after["pieces"][0]["quantity"], after["job"]["items"].as_u64() > Some(7)), (&json!(7), true));
    assert_fresh(&server, &after);
    let version = after["pieces"][0]["version"].clone();
    assert_eq!(send("POST", &format!("{piece}/undo"), &json!({"version": version})).status, 200);
    assert_fresh(&server, &settled(&server, 1));
    document["mark"] = json!("NEW-1");
    document["variants"] = json!([]);
    let made = send("POST", &format!("{}/api/jobs/1/pieces", server.url), &json!({"document": document}));
    assert_eq!(made.status, 201);
    let with = settled(&server, 1);
    assert_fresh(&server, &with);
    assert_eq!(ask("DELETE", &piece, &[], None).unwrap().status, 204);
    let without = settled(&server, 1);
    assert_eq!(without["pieces"].as_array().unwrap().len() + 1, with["pieces"].as_array().unwrap().len());
    assert_fresh(&server, &without);
}

/// Nobody looks at the rack: after a save its figures are worked out all the same, and an older Steelk's when the
/// server begins.
#[test]
fn what_is_behind_is_worked_out_in_the_background() {
    let folder = tempfile::tempdir().unwrap();
    let mut server = Server::start(folder.path(), true);
    let is_behind = |stamp| {
        let store = beside(folder.path());
        [1, 2].iter().map(|job| store.behind(Among::Job(*job), stamp).unwrap().pieces.len()).sum::<usize>()
    };
    let wait = || {
        let until = Instant::now() + Duration::from_secs(120);
        while is_behind(STAMP) > 0 {
            assert!(Instant::now() < until, "{} are still behind", is_behind(STAMP));
            std::thread::sleep(Duration::from_millis(50));
        }
    };
    wait();
    let piece = format!("{}/api/pieces/2", server.url);
    let view = get(&piece).json();
    let saved = send("PUT", &piece, &json!({"version": view["version"], "document": view["document"]}));
    assert_eq!(saved.status, 200);
    wait();
    server.kill();
    // As an older Steelk would have left it: its rules counted one more that holds.
    let mut store = beside(folder.path());
    let told = store.told_pieces(1, STAMP).unwrap();
    let wrong = |line: &str| {
        let mut line: Value = serde_json::from_str(line).unwrap();
        line["holds"] = json!(999);
        line.to_string()
    };
    let older: Vec<_> = told
        .iter()
        .map(|row| {
            let line = wrong(row.line.as_deref().unwrap());
            let (version, stamp) = (row.version, "older".to_string());
            (row.id, steelk_store::Summary { version, stamp, holds: 999, callouts: 999, line, ..Default::default() })
        })
        .collect();
    store.put_summaries(&older).unwrap();
    drop(store);
    assert_eq!((is_behind(STAMP), is_behind("older")), (older.len(), told_of_second(folder.path())));
    let server = Server::start(folder.path(), true);
    // Before it is worked out again it is told as what it was, and nothing is proved by it.
    let first = get(&format!("{}/api/jobs/1", server.url)).json();
    for line in first["pieces"].as_array().unwrap() {
        assert_eq!(line["waiting"] == true, line["holds"] == 999, "{line}");
    }
    wait();
    assert_fresh(&server, &settled(&server, 1));
}

fn told_of_second(folder: &std::path::Path) -> usize {
    beside(folder).told_pieces(2, STAMP).unwrap().len()
}

#[test]
fn a_piece_that_takes_too_long_is_told_so_and_not_tried_at_every_look() {
    let folder = tempfile::tempdir().unwrap();
    // A third of the longest work is what one piece may take.
    let server = Server::start_with(folder.path(), false, &["--longest-work", "1"]);
    assert_eq!(send("POST", &format!("{}/api/jobs", server.url), &json!({"number": "N", "title": "x"})).status, 201);
    let mut light = demo_piece();
    light["variants"] = json!([]);
    // Forty times what one such plate takes: far more than a third of a second on any machine.
    let mut heavy = perforated("HEAVY", "7 mm");
    heavy["variants"] =
        (0..40).map(|at| json!({"name": format!("v{at}"), "mark": format!("V{at}"), "quantity": 1})).collect();
    for document in [heavy, light] {
        let made = send("POST", &format!("{}/api/jobs/1/pieces", server.url), &json!({"document": document}));
        assert_eq!(made.status, 201);
    }
    let told = settled(&server, 1);
    let [heavy, light] = &told["pieces"].as_array().unwrap()[..] else { panic!("{told}") };
    assert!(heavy["unreadable"].as_str().unwrap().contains("not worked out within"), "{heavy}");
    assert_eq!((&heavy["mark"], &heavy["waiting"], &heavy["errors"]), (&json!("HEAVY"), &json!(false), &json!(1)));
    assert!(light["unreadable"].is_null() && light["holds"].as_u64() > Some(0), "{light}");
    assert_eq!(told["job"]["stage"], "drafting");
}

#[test]
fn the_rack_is_searched_sorted_and_paged() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    for number in ["TS-9", "ts-1000", "TS-20"] {
        let made = send("POST", &format!("{}/api/jobs", server.url), &json!({"number": number, "title": "Spare"}));
        assert_eq!(made.status, 201);
    }
    for job in [1, 2] {
        settled(&server, job);
    }
    let asked = |query: &str| get(&format!("{}/api/jobs?{query}", server.url)).json();
    let numbers = |query: &str| -> Vec<String> {
        let answer = asked(query);
        answer["jobs"].as_array().unwrap().iter().map(|job| job["number"].as_str().unwrap().into()).collect()
    };
    assert_eq!(numbers(""), ["TS-9", "TS-20", "TS-104", "TS-107", "ts-1000"]);
    assert_eq!(numbers("down=true&most=2&from=1"), ["TS-107", "TS-104"]);
    assert_eq!(numbers("search=spare&sort=number"), ["TS-9", "TS-20", "ts-1000"]);
    assert_eq!(numbers("sort=pieces&down=true&most=2"), ["TS-104", "TS-107"]);
    let found = asked("search=winch%20bracket");
    assert_eq!((&found["found"], &found["all"]), (&json!(1), &json!(5)));
    // Found by one of its pieces, which is told.
    assert_eq!(found["jobs"][0]["found"][0]["id"], 1, "{found}");
    assert_eq!(asked("search=%25")["found"], 0, "a sign is itself, not any word");
    assert_eq!(asked("from=99")["found"], 5);
    for (query, status) in [("most=0", 422), ("most=501", 422), ("sort=colour", 400), ("depth=1", 400)] {
        assert_eq!(get(&format!("{}/api/jobs?{query}", server.url)).status, status, "{query}");
    }
    let long = "x".repeat(201);
    let refused = get(&format!("{}/api/jobs?search={long}", server.url));
    assert_eq!((refused.status, refused.json()["field"].as_str()), (422, Some("search")));
}
