//! The API over real HTTP: builds, saves, stale saves, refusals, limits, headers, downloads.

use serde_json::{Value, json};
use steelk_testing::root;
use steelk_testing::server::*;

/// The head of a grey picture of 16 by 16 pixels: all that is ever read of it.
const SMALL_JPEG: &[u8] = b"\xff\xd8\xff\xe0\x00\x04\x00\x00\xff\xc0\x00\x0b\x08\x00\x10\x00\x10\x01\x01\x11\x00";

fn start() -> (tempfile::TempDir, Server) {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    (folder, server)
}

fn get_json(server: &Server, path: &str) -> Value {
    get(&format!("{}{path}", server.url)).json()
}

#[test]
fn the_demo_job_is_on_the_rack_with_one_fault() {
    let (_folder, server) = start();
    settled(&server, 1);
    let jobs = rack(&server);
    assert_eq!(jobs.len(), 2);
    let job = jobs.iter().find(|job| job["number"] == "TS-104").unwrap();
    assert_eq!(
        (job["number"].as_str(), job["pieces"].as_u64(), job["stage"].as_str()),
        (Some("TS-104"), Some(11), Some("drafting"))
    );
    assert!(job["holds"].as_u64() < job["callouts"].as_u64() && job["broken"].as_u64() > Some(0));
    let detail = get(&format!("{}/api/jobs/{}", server.url, job["id"])).json();
    let marks: Vec<&str> =
        detail["pieces"].as_array().unwrap().iter().map(|one| one["mark"].as_str().unwrap()).collect();
    assert_eq!(
        marks,
        ["WB-02", "TT-01", "SB-05", "AP-04", "PF-05", "GS-06", "PE-07", "TF-08", "MG-09", "DC-10", "LT-01"]
    );
    assert!(detail["pieces"].as_array().unwrap().iter().all(|one| one["has_picture"] == true));
}

#[test]
fn a_live_build_answers_everything_at_once() {
    let (_folder, server) = start();
    let url = format!("{}/api/build", server.url);
    let answer = send("POST", &url, &json!({"document": demo_piece()})).json();
    assert_eq!(answer["blank"]["size"], json!(["120 mm", "134.786 mm"]));
    assert_eq!(answer["callouts"].as_array().unwrap().len(), 9);
    assert!(answer["callouts"].as_array().unwrap().iter().all(|one| one["verdict"] == "holds"));
    assert!(answer["mesh"]["positions"].as_str().unwrap().len() > 1000);
    assert_eq!(answer["bends"][0]["why"]["formula"], "BA = A (R + K T), A in radians");
    let inches = send("POST", &url, &json!({"document": demo_piece(), "show": "in", "upto": 1})).json();
    assert_eq!(inches["blank"]["size"], json!(["4.7244 in", "3.1496 in"]));
    assert_eq!(inches["operations"][1]["state"], "ahead");
    let flat =
        send("POST", &format!("{}/api/fold", server.url), &json!({"document": demo_piece(), "fold": 0.0})).json();
    let height = flat["extents"][5].as_f64().unwrap() - flat["extents"][2].as_f64().unwrap();
    assert!((height - 3.0).abs() < 1e-5, "flat is one thickness high: {height}");
}

#[test]
fn a_draft_is_answered_with_its_picture_and_figures_and_a_value_with_its_words() {
    let (_dir, server) = start();
    let asked = |document: &Value, need: &str| {
        let body = json!({"document": document, "need": need});
        send("POST", &format!("{}/api/build", server.url), &body).json()
    };
    let rack = rack(&server);
    let job = get_json(&server, &format!("/api/jobs/{}", rack[0]["id"]));
    for mark in ["WB-02", "AP-04", "LT-01"] {
        let id = job["pieces"].as_array().unwrap().iter().find(|one| one["mark"] == mark).unwrap()["id"].clone();
        let document = get_json(&server, &format!("/api/pieces/{id}/piece.json"));
        let all = asked(&document, "all");
        let (picture, words) = (asked(&document, "picture"), asked(&document, "words"));
        assert!(!all["rules"].as_array().unwrap().is_empty(), "{mark}");
        for key in ["heading", "operations", "callouts", "blank", "mesh", "bends", "names"] {
            assert_eq!(picture[key], all[key], "{mark}: {key} of a picture");
        }
        // What a draft does to size and mass is told beside it.
        for key in ["blank", "mass", "size", "folded_size", "folded"] {
            let of =
                |answer: &Value| answer["figures"].as_array().unwrap().iter().find(|one| one["key"] == key).cloned();
            assert_eq!(of(&picture), of(&all), "{mark}: {key}");
        }
        assert!(picture["figures"].as_array().unwrap().iter().any(|one| one["key"] == "mass"), "{mark}");
        for key in ["heading", "operations", "callouts", "bends"] {
            assert_eq!(words[key], all[key], "{mark}: {key} in words");
        }
        assert!(words["mesh"]["positions"] == "" && words["blank"].is_null(), "{mark}: no picture was asked for");
        assert!(words.to_string().len() * 2 < all.to_string().len(), "{mark}");
    }
    let refused =
        send("POST", &format!("{}/api/build", server.url), &json!({"document": demo_piece(), "need": "some"}));
    assert_eq!(refused.status, 400);
}

#[test]
fn a_name_is_changed_with_all_that_cites_it_and_saved_as_any_change() {
    let (_folder, server) = start();
    let rename = |what: &str, from: &str, to: &str, document: &Value| {
        let body = json!({"document": document, "what": what, "from": from, "to": to});
        send("POST", &format!("{}/api/rename", server.url), &body)
    };
    let first = get(&format!("{}/api/pieces/1", server.url)).json();
    let (piece, version) = (&first["document"], first["version"].as_i64().unwrap());
    let operation = piece["operations"][1]["name"].as_str().unwrap();
    let renamed = rename("operation", operation, "other-name", piece).json()["document"].clone();
    assert_eq!(renamed["operations"][1]["name"], "other-name");
    let callout = piece["callouts"][0]["name"].as_str().unwrap();
    let renamed = rename("callout", callout, "OTHER", &renamed).json()["document"].clone();
    let build = |document: &Value| {
        let answer = send("POST", &format!("{}/api/build", server.url), &json!({"document": document})).json();
        (answer["blank"]["size"].clone(), answer["figures"].clone(), answer["findings"].as_array().unwrap().len())
    };
    assert_eq!(build(piece), build(&renamed));
    let url = format!("{}/api/pieces/1", server.url);
    let saved = send("PUT", &url, &json!({"version": version, "document": renamed, "note": "renamed"})).json();
    let undone = send("POST", &format!("{url}/undo"), &json!({"version": saved["version"]})).json();
    assert_eq!(&undone["document"], piece);
    for (what, from, to, words) in [
        ("operation", "nobody", "x", "no operation called nobody"),
        ("operation", operation, "Not A Name", "no operation name"),
        ("callout", callout, "T", "already means something"),
    ] {
        let refused = rename(what, from, to, piece);
        assert_eq!(refused.status, 422);
        assert!(refused.text().contains(words), "{}", refused.text());
    }
    assert_eq!(rename("colour", operation, "x", piece).status, 400);
}

#[test]
fn bent_parts_give_out_their_files_and_their_variants() {
    let (_folder, server) = start();
    let piece = |file: &str| get(&format!("{}/api/pieces/2/files/{file}", server.url));
    let bends = piece("bends.csv");
    assert_eq!(bends.headers["content-type"], "text/csv; charset=utf-8");
    let text = String::from_utf8(bends.body).unwrap();
    let mut rows = csv::Reader::from_reader(text.as_bytes());
    let rows: Vec<csv::StringRecord> = rows.records().map(Result::unwrap).collect();
    assert_eq!(rows.len(), 4);
    // 90 deg, R 2, T 2, K 0.42: BA = pi/2 x 2.84 = 4.461.
    assert_eq!((&rows[0][0], &rows[0][1], &rows[0][7]), ("B1", "front", "4.461"));
    assert!(piece("flat.pdf").body.starts_with(b"%PDF-"));
    let step = String::from_utf8(piece("part.step").body).unwrap();
    assert!(step.starts_with("ISO-10303-21;") && step.contains("AUTOMOTIVE_DESIGN") && step.contains("CLOSED_SHELL"));
    let glb = piece("part.glb").body;
    assert_eq!((&glb[..4], u32::from_le_bytes(glb[8..12].try_into().unwrap()) as usize), (&b"glTF"[..], glb.len()));
    let dxf = String::from_utf8_lossy(&piece("blank.dxf").body).into_owned();
    assert!(dxf.contains("B1 up 90 deg R2") && dxf.contains("B4  left  up 90 deg"), "bend marks and the bend table");
    // The light variant has no drain: fewer faces, more metal, its own mark.
    let light = get(&format!("{}/api/pieces/2/files/part.step?variant=light", server.url));
    assert!(
        light.headers["content-disposition"].to_str().unwrap().contains("TT-01L_r1_DX51D_2mm_x1_part.step"),
        "{:?}",
        light.headers
    );
    assert!(light.body.len() < step.len());
    let answer = |variant: Value| {
        let document = get(&format!("{}/api/pieces/2", server.url)).json()["document"].clone();
        send("POST", &format!("{}/api/build", server.url), &json!({"document": document, "variant": variant}))
    };
    let holes = |answer: Value| answer["blank"]["holes"].as_array().unwrap().len();
    assert_eq!((holes(answer(Value::Null).json()), holes(answer(json!("light")).json())), (46, 1));
    let unknown = answer(json!("heavy"));
    assert_eq!(unknown.status, 422);
    assert!(unknown.json()["detail"].as_str().unwrap().contains("Its variants are light"), "{}", unknown.json());
    assert_eq!(get(&format!("{}/api/pieces/2/files/flat.pdf?variant=heavy", server.url)).status, 422);
    // What a bad piece gives out: nothing.
    let mut bad = get(&format!("{}/api/pieces/2", server.url)).json();
    bad["document"]["operations"][1]["do"]["bend"]["leg"] = json!("1 mm");
    send(
        "PUT",
        &format!("{}/api/pieces/2", server.url),
        &json!({"version": bad["version"], "document": bad["document"]}),
    );
    for file in ["bends.csv", "flat.pdf", "part.step", "part.glb"] {
        let reply = piece(file);
        assert_eq!(reply.status, 409, "{file}");
        assert!(reply.json()["detail"].as_str().unwrap().contains("leaves no flat"), "{file}");
    }
}

#[test]
fn bend_tables_are_read_kept_and_given_out() {
    let (_folder, server) = start();
    let url = format!("{}/api/bend-tables", server.url);
    let first = get(&url).json();
    assert_eq!((first["version"].as_i64(), first["examples"].as_bool()), (Some(0), Some(true)));
    let csv = "# ours\n# measured\nfamily;thickness_mm;radius_mm;angle_deg;deduction_mm\nmild_steel;2;2;90;3,6\n";
    let read = send("POST", &format!("{url}/read"), &json!({"name": "file", "text": csv})).json();
    assert_eq!((read["name"].as_str(), read["rows"][0]["value"].as_f64()), (Some("ours"), Some(3.6)));
    let saved = send("PUT", &url, &json!({"version": 0, "tables": [read]})).json();
    assert_eq!((saved["version"].as_i64(), saved["examples"].as_bool()), (Some(1), Some(false)));
    let file = get(&format!("{url}/0/table.csv"));
    let again =
        send("POST", &format!("{url}/read"), &json!({"name": "x", "text": String::from_utf8(file.body).unwrap()}))
            .json();
    assert_eq!(again, saved["tables"][0]);
    assert_eq!(send("PUT", &url, &json!({"version": 0, "tables": []})).status, 409, "a stale save");
    let twice = json!({"version": 1, "tables": [saved["tables"][0], saved["tables"][0]]});
    assert_eq!(send("PUT", &url, &twice).status, 422);
    for bad in
        ["", "family,thickness_mm\n", "family,thickness_mm,radius_mm,angle_deg,k_factor\nmild_steel,2,2,90,NaN\n"]
    {
        let reply = send("POST", &format!("{url}/read"), &json!({"name": "x", "text": bad}));
        assert_eq!(reply.status, 422, "{bad}");
        assert!(reply.json()["detail"].as_str().unwrap().len() > 20);
    }
    assert_eq!(get(&format!("{url}/7/table.csv")).status, 404);
}

#[test]
fn refusals_are_problem_details_with_the_field() {
    let (_folder, server) = start();
    let url = format!("{}/api/build", server.url);
    let mut bad = demo_piece();
    bad["operations"][1]["do"]["bend"]["leg"] = json!(60);
    let reply = send("POST", &url, &json!({"document": bad}));
    assert_eq!(reply.status, 422);
    assert_eq!(reply.headers["content-type"], "application/problem+json");
    assert_eq!(reply.json()["field"], "operations[1].do.bend.leg");
    for (method, path, body, status) in [
        ("POST", "/api/build", json!({"document": demo_piece(), "nonsense": 1}), 400),
        ("POST", "/api/fold", json!({"document": demo_piece(), "fold": 2.0}), 422),
        ("POST", "/api/jobs", json!({"number": "", "title": "x"}), 422),
        ("POST", "/api/jobs", json!({"number": "N", "title": "x", "due": "soon"}), 422),
        ("POST", "/api/jobs/1/pieces", json!({"document": demo_piece()}), 422),
        ("POST", "/api/import", json!({"steelk_job": 9, "number": "N", "title": "x", "pieces": []}), 422),
        ("POST", "/api/jobs/99/pieces", json!({"document": demo_piece()}), 404),
    ] {
        let reply = send(method, &format!("{}{path}", server.url), &body);
        assert_eq!(reply.status, status, "{path}: {}", String::from_utf8_lossy(&reply.body));
        let problem = reply.json();
        assert_eq!(problem["status"], status);
        assert!(problem["detail"].as_str().unwrap().len() > 10);
    }
    for path in ["/api/pieces/99", "/api/jobs/x", "/api/nothing", "/api/pieces/1/revisions/77"] {
        assert_eq!(get(&format!("{}{path}", server.url)).status, 404, "{path}");
    }
    let twice = send("POST", &format!("{}/api/jobs/1/pieces", server.url), &json!({"document": demo_piece()})).json();
    assert!(twice["detail"].as_str().unwrap().contains("WB-02 is taken"), "{twice}");
    // A variant's mark is a mark as any other: the mudguard's port side has this one.
    let mut other = demo_piece();
    other["mark"] = json!("WB-09");
    other["variants"] = json!([{"name": "port", "mark": "MG-09P", "quantity": 3}]);
    let url = format!("{}/api/jobs/1/pieces", server.url);
    let twice = send("POST", &url, &json!({"document": other})).json();
    assert!(twice["detail"].as_str().unwrap().contains("MG-09P is taken"), "{twice}");
    // What is made of it counts: three brackets of the variant beside two of the piece, each in the cut list.
    let before = get(&format!("{}/api/jobs/1", server.url)).json()["job"].clone();
    other["variants"] = json!([{"name": "port", "quantity": 3, "opposite_hand": true}]);
    assert_eq!(send("POST", &url, &json!({"document": other})).status, 201);
    let after = get(&format!("{}/api/jobs/1", server.url)).json();
    assert_eq!(after["job"]["items"].as_u64().unwrap(), before["items"].as_u64().unwrap() + 5);
    let line = &after["pieces"].as_array().unwrap().last().unwrap()["variants"][0];
    assert_eq!((line["mark"].as_str(), line["quantity"].as_u64()), (Some("WB-09-port"), Some(3)));
}

#[test]
fn saves_undo_redo_restore_and_stale_saves() {
    let (_folder, server) = start();
    let url = format!("{}/api/pieces/1", server.url);
    let first = get(&url).json();
    let mut document = first["document"].clone();
    document["title"] = json!("changed");
    let saved = send("PUT", &url, &json!({"version": first["version"], "document": document, "note": "title"})).json();
    assert_eq!((saved["document"]["title"].as_str(), saved["can_undo"].as_bool()), (Some("changed"), Some(true)));
    let stale = send("PUT", &url, &json!({"version": first["version"], "document": first["document"]}));
    assert_eq!(stale.status, 409);
    assert_eq!((&stale.json()["yours"], &stale.json()["current"]), (&first["version"], &saved["version"]));
    let undone = send("POST", &format!("{url}/undo"), &json!({"version": saved["version"]})).json();
    assert_eq!(
        (undone["document"]["title"].as_str(), undone["can_redo"].as_bool()),
        (Some("Winch bracket"), Some(true))
    );
    let redone = send("POST", &format!("{url}/redo"), &json!({"version": undone["version"]})).json();
    assert_eq!(redone["document"]["title"], "changed");
    assert_eq!(send("POST", &format!("{url}/redo"), &json!({"version": redone["version"]})).status, 409);
    let restored = send("POST", &format!("{url}/revisions/1/restore"), &json!({"version": redone["version"]})).json();
    assert_eq!(restored["document"]["title"], "Winch bracket");
    assert_eq!(get(&format!("{url}/revisions")).json().as_array().unwrap().len(), 5);
    assert_eq!(get(&format!("{url}/revisions/2")).json()["title"], "changed");
    let log = get(&format!("{}/api/jobs/1/log", server.url)).json();
    assert!(log.as_array().unwrap().iter().any(|one| one["what"] == "title"));
}

#[test]
fn jobs_are_made_copied_exported_brought_in_and_put_back() {
    let (_folder, server) = start();
    let copy = send("POST", &format!("{}/api/jobs/1/copy", server.url), &json!({})).json();
    assert_eq!(
        (copy["job"]["number"].as_str(), copy["pieces"].as_array().map(Vec::len)),
        (Some("TS-104 copy"), Some(11))
    );
    assert_eq!(copy["pieces"][0]["has_picture"], true);
    let file = get(&format!("{}/api/jobs/1/job.json", server.url)).json();
    let brought = send("POST", &format!("{}/api/import", server.url), &file).json();
    assert_eq!(brought["pieces"][1]["cut_lines"], copy["pieces"][1]["cut_lines"], "the file alone rebuilds the job");
    let url = format!("{}/api/jobs/1", server.url);
    assert_eq!(ask("DELETE", &url, &[], None).unwrap().status, 204);
    let count = || rack(&server).len();
    assert_eq!(count(), 3);
    assert_eq!(send("POST", &format!("{url}/put-back"), &json!({})).status, 204);
    assert_eq!(count(), 4);
    let piece = format!("{}/api/pieces/1", server.url);
    assert_eq!(ask("DELETE", &piece, &[], None).unwrap().status, 204);
    assert_eq!(get(&url).json()["job"]["pieces"], 10);
    assert_eq!(send("POST", &format!("{piece}/put-back"), &json!({})).status, 204);
    let changed =
        send("PUT", &url, &json!({"number": "TS-104", "title": "Trolley", "due": "2026-12-24", "version": 1}));
    assert_eq!(changed.json()["job"]["title"], "Trolley");
    assert_eq!(send("PUT", &url, &json!({"number": "TS-104", "title": "Late", "version": 1})).status, 409);
    let mut spoilt = file.clone();
    spoilt["pieces"][1]["document"]["stock"]["thickness"] = json!(2);
    let refused = send("POST", &format!("{}/api/import", server.url), &spoilt);
    assert_eq!((refused.status, refused.json()["field"].as_str()), (422, Some("pieces[1].document.stock.thickness")));
    assert_eq!(count(), 4, "a refused file leaves nothing behind");
}

/// A job's file with its revisions brings them in again: undo walks as it did.
#[test]
fn a_job_goes_elsewhere_with_its_revisions() {
    let (_folder, server) = start();
    let piece = format!("{}/api/pieces/1", server.url);
    let first = get(&piece).json()["document"].clone();
    let mut document = first.clone();
    document["title"] = json!("changed");
    assert_eq!(send("PUT", &piece, &json!({"version": 1, "document": document, "note": "title"})).status, 200);
    let export = format!("{}/api/jobs/1/job.json", server.url);
    assert!(get(&export).json()["pieces"][0]["revisions"].is_null());
    let file = get(&format!("{export}?revisions=true")).json();
    assert_eq!(file["pieces"][0]["revisions"].as_array().unwrap().len(), 2);
    let brought = send("POST", &format!("{}/api/import", server.url), &file).json();
    let own = format!("{}/api/pieces/{}", server.url, brought["pieces"][0]["id"]);
    let now = get(&own).json();
    assert_eq!((&now["version"], &now["document"]["title"]), (&json!(2), &json!("changed")));
    assert_eq!(get(&format!("{own}/revisions")).json(), get(&format!("{piece}/revisions")).json());
    assert_eq!(send("POST", &format!("{own}/undo"), &json!({"version": 2})).json()["document"], first);
    let jobs = || rack(&server).len();
    let before = jobs();
    for (field, value, wanted) in [
        ("parent", json!(9), "no earlier edit"),
        ("document", json!({"steelk": 1}), "revision 2"),
        ("document", first.clone(), "another piece"),
        ("number", json!(5), "is where revision 2 should be"),
    ] {
        let mut spoilt = file.clone();
        spoilt["pieces"][0]["revisions"][1][field] = value;
        let refused = send("POST", &format!("{}/api/import", server.url), &spoilt);
        assert_eq!((refused.status, refused.text().contains(wanted)), (422, true), "{field}: {}", refused.text());
    }
    assert_eq!(jobs(), before);
}

/// What a picture or a table of the shop is put in place of can be had again.
#[test]
fn pictures_and_shop_tables_keep_their_history() {
    let (_folder, server) = start();
    let url = format!("{}/api/pieces/1/drawing", server.url);
    let drawn = get(&url).body;
    let kind = [("content-type", "application/octet-stream")];
    assert_eq!(ask("PUT", &url, &kind, Some(SMALL_JPEG.to_vec())).unwrap().status, 204);
    let past = get(&format!("{url}/before")).json();
    assert_eq!((past[0]["number"].as_i64(), past[0]["kind"].as_str()), (Some(1), Some("image/png")));
    assert_eq!(past[0]["size"].as_u64(), Some(drawn.len() as u64));
    assert_eq!(get(&format!("{url}/before/1")).body, drawn);
    assert_eq!(send("POST", &format!("{url}/before/1/restore"), &json!({})).status, 204);
    assert_eq!(get(&url).body, drawn);
    assert_eq!(get(&format!("{url}/before/2")).body, SMALL_JPEG);
    assert_eq!(get(&format!("{url}/before/9")).status, 404);
    assert_eq!(get(&format!("{}/api/pieces/1/thing/before", server.url)).status, 404);
    let cutters = format!("{}/api/cutters", server.url);
    let table = get(&cutters).json()["cutters"].clone();
    for version in 0..3 {
        assert_eq!(send("PUT", &cutters, &json!({"version": version, "cutters": table})).status, 200);
    }
    let past = get(&format!("{}/api/shop/cutters/before", server.url)).json();
    assert_eq!(
        past.as_array().unwrap().iter().map(|one| one["version"].as_i64().unwrap()).collect::<Vec<_>>(),
        [2, 1, 0]
    );
    assert!(past[0]["text"].as_str().unwrap().contains("kerf"));
    assert_eq!(get(&format!("{}/api/shop/bend-tables/before", server.url)).json(), json!([]));
    assert_eq!(get(&format!("{}/api/shop/other/before", server.url)).status, 404);
}

#[test]
fn downloads_and_no_download_of_what_must_not_be_cut() {
    let (_folder, server) = start();
    let file = |name: &str| get(&format!("{}/api/pieces/1/files/{name}", server.url));
    let dxf = file("blank.dxf");
    assert_eq!(
        (dxf.status, dxf.headers["content-disposition"].to_str().unwrap()),
        (200, "attachment; filename=\"WB-02_r1_S275_3mm_x2_blank.dxf\"")
    );
    assert!(String::from_utf8_lossy(&dxf.body).contains("BEND-UP"));
    assert!(String::from_utf8_lossy(&file("blank.svg").body).contains("mm"));
    assert!(String::from_utf8_lossy(&file("cutlist.csv").body).contains("134.786"));
    let holes = String::from_utf8_lossy(&file("holes.csv?corner=upper_left").body).into_owned();
    assert!(holes.starts_with("balloon,hole,x mm,y mm") && holes.lines().count() == 6, "{holes}");
    assert!(holes.contains("B1,bore,60,"), "{holes}");
    assert_eq!(file("report.json").json()["callouts"].as_array().unwrap().len(), 9);
    assert_eq!(get(&format!("{}/api/pieces/1/piece.json", server.url)).json(), demo_piece());
    let list = get(&format!("{}/api/jobs/1/files/cutlist.csv", server.url));
    // Eleven plates and sheets, and a line for each of the frame's marks.
    let list = String::from_utf8_lossy(&list.body).into_owned();
    let frame = get(&format!("{}/api/pieces/11/files/cutlist.csv", server.url));
    let marks = String::from_utf8_lossy(&frame.body)
        .lines()
        .filter(|line| line.contains(",S235") || line.contains(",S275") || line.contains(",S355"))
        .count();
    let (framed, plain): (Vec<&str>, Vec<&str>) = list.lines().skip(1).partition(|line| line.starts_with("LT-01 "));
    assert_eq!((plain.len(), framed.len()), (11, marks), "{list}");
    let member = framed.iter().find(|line| line.starts_with("LT-01 R1,")).expect("R1");
    assert!(member.contains("SHS") && member.contains("deg"), "{member}");
    let mut bad = demo_piece();
    bad["operations"][4]["do"]["drill"]["diameter"] = json!("400 mm");
    let saved = send("PUT", &format!("{}/api/pieces/1", server.url), &json!({"version": 1, "document": bad}));
    assert_eq!(saved.status, 200, "work in progress is kept");
    let refused = file("blank.dxf");
    assert_eq!(refused.status, 409);
    assert!(refused.json()["detail"].as_str().unwrap().contains("foot"), "{}", refused.json());
}

#[test]
fn pictures_are_told_by_their_bytes_and_bounded() {
    let (_folder, server) = start();
    let url = format!("{}/api/pieces/1/drawing", server.url);
    let put = |bytes: Vec<u8>| ask("PUT", &url, &[("content-type", "application/octet-stream")], Some(bytes));
    assert_eq!(put(b"<svg onload=alert(1)>".to_vec()).unwrap().status, 422);
    assert_eq!(put(SMALL_JPEG.to_vec()).unwrap().status, 204);
    let kept = get(&url);
    assert_eq!((kept.headers["content-type"].to_str().unwrap(), kept.body.as_slice()), ("image/jpeg", SMALL_JPEG));
    assert!(
        kept.headers["content-security-policy"].to_str().unwrap().contains("sandbox")
            || kept
                .headers
                .get_all("content-security-policy")
                .iter()
                .any(|one| one.to_str().unwrap().contains("sandbox"))
    );
    let mut large = b"\x89PNG\r\n\x1a\n".to_vec();
    large.resize(21 * 1024 * 1024, 0);
    // The server may close the door before all of it is through.
    if let Ok(reply) = put(large) {
        assert_eq!(reply.status, 413);
        assert!(reply.json()["detail"].as_str().unwrap().contains("20 MB"));
    }
    assert_eq!(get(&url).body, SMALL_JPEG);
    let long = format!("{{\"document\": \"{}\"}}", "x".repeat(4 * 1024 * 1024));
    if let Ok(reply) = ask("POST", &format!("{}/api/build", server.url), &[], Some(long.into_bytes())) {
        assert_eq!(reply.status, 413);
    }
    assert_eq!(get(&format!("{}/api/jobs", server.url)).status, 200, "still serving");
}

#[test]
fn headers_and_same_origin() {
    let (_folder, server) = start();
    let page = get(&format!("{}/", server.url));
    let policy = page.headers["content-security-policy"].to_str().unwrap().to_string();
    assert!(policy.contains("script-src 'self'") && !policy.contains("script-src 'self' 'unsafe-inline'"));
    assert_eq!(
        (page.headers["x-content-type-options"].to_str().unwrap(), page.headers["x-frame-options"].to_str().unwrap()),
        ("nosniff", "DENY")
    );
    let host = server.url.trim_start_matches("http://").to_string();
    let write = |headers: &[(&str, &str)]| {
        ask("POST", &format!("{}/api/jobs", server.url), headers, Some(br#"{"number":"N","title":"x"}"#.to_vec()))
            .unwrap()
            .status
    };
    assert_eq!(write(&[("origin", "http://elsewhere.example")]), 403);
    assert_eq!(write(&[("sec-fetch-site", "cross-site")]), 403);
    assert_eq!(write(&[("origin", &format!("http://{host}")), ("sec-fetch-site", "same-origin")]), 201);
    assert_eq!(
        ask("GET", &format!("{}/api/jobs", server.url), &[("host", "rebound.example")], None).unwrap().status,
        403
    );
    assert_eq!(get(&format!("{}/assets/none.js", server.url)).status, 404);
    assert_eq!(get(&format!("{}/pieces/1", server.url)).headers["content-type"], "text/html; charset=utf-8");
}

/// The committed description, schema and (through `make types`) the front end's types are what the Rust types say now.
#[test]
fn generated_files_are_fresh() {
    let (_folder, server) = start();
    let read = |name: &str| -> Value { serde_json::from_slice(&std::fs::read(root().join(name)).unwrap()).unwrap() };
    assert_eq!(get(&format!("{}/api/openapi.json", server.url)).json(), read("docs/openapi.json"), "run `make types`");
    assert_eq!(steelk_server::openapi::piece_schema(), read("docs/piece.schema.json"), "run `make types`");
    let schema = read("docs/piece.schema.json");
    assert!(schema["$defs"]["BendAction"]["properties"]["leg_to"].is_object());
    assert_eq!(schema["additionalProperties"], false, "unknown fields are refused by the schema as by the reader");
}

#[test]
fn an_outline_comes_in_from_a_file_or_is_refused() {
    let (_folder, server) = start();
    let dxf = get(&format!("{}/api/pieces/7/files/blank.dxf", server.url)).body;
    let send_file = |bytes: &[u8]| {
        let url = format!("{}/api/outline?name=lug.dxf", server.url);
        ask("POST", &url, &[("content-type", "application/octet-stream")], Some(bytes.to_vec())).unwrap()
    };
    let answer = send_file(&dxf);
    assert_eq!(answer.status, 200);
    let shape = answer.json()["shape"].clone();
    assert!(shape["profile"]["source"].as_str().unwrap().starts_with("lug.dxf (read in millimetres"));
    let mut piece = get(&format!("{}/api/pieces/7", server.url)).json()["document"].clone();
    piece["callouts"] = json!([]);
    piece["operations"] = json!([{"name": "base", "do": {"lay_down": {"shape": shape}}}]);
    let built = send("POST", &format!("{}/api/build", server.url), &json!({"document": piece})).json();
    assert_eq!(built["blank"]["size"], json!(["140 mm", "122 mm"]));
    assert_eq!(built["blank"]["holes"].as_array().unwrap().len(), 1);
    let refused = send_file(b"no drawing at all");
    assert_eq!(refused.status, 422);
    assert!(refused.json()["detail"].as_str().unwrap().contains("lug.dxf: it cannot be read as DXF"));
}

#[test]
fn cutting_is_planned_simulated_and_given_out() {
    let (_folder, server) = start();
    let piece = get(&format!("{}/api/pieces/4", server.url)).json();
    let document = piece["document"].clone();
    let url = format!("{}/api/cutting", server.url);
    let answer = send("POST", &url, &json!({"document": document})).json();
    assert_eq!(answer["inspection"]["holds"], true, "{}", answer["inspection"]);
    assert_eq!(answer["cutter"]["name"], "laser-example");
    assert_eq!(answer["plan"]["order"].as_array().unwrap().len(), 6);
    let timeline = answer["plan"]["timeline"].as_str().unwrap();
    assert!(timeline.len() > 500);
    let figure = |key: &str| {
        let all = answer["figures"].as_array().unwrap();
        all.iter().find(|one| one["key"] == key).unwrap()["text"].as_str().unwrap().to_string()
    };
    assert_eq!((figure("pierces").as_str(), figure("marks").as_str()), ("6", "2"));
    let program = get(&format!("{}/api/pieces/4/files/cut.nc", server.url));
    assert_eq!(program.status, 200);
    assert!(program.text().starts_with("%\n(PIECE AP-04 AXLE PLATE)\n(REVISION 1)\n"));
    for (file, kind) in [
        ("profile.dxf", "image/vnd.dxf"),
        ("profile.svg", "image/svg+xml"),
        ("template.pdf?paper=letter&across=99.2%20mm", "application/pdf"),
        ("edges.csv", "text/csv; charset=utf-8"),
    ] {
        let reply = get(&format!("{}/api/pieces/4/files/{file}", server.url));
        assert_eq!((reply.status, reply.kind()), (200, kind), "{file}");
    }
    let bad = get(&format!("{}/api/pieces/4/files/template.pdf?across=3%20deg", server.url));
    assert_eq!((bad.status, bad.json()["field"].as_str()), (422, Some("across")));
    // An outline that disagrees is not given out to cut, and the answer says why.
    let mut wrong = document.clone();
    wrong["operations"][1]["do"] = json!({"drill": {"panel": "base", "diameter": "999 mm"}});
    let answer = send("POST", &url, &json!({"document": wrong})).json();
    assert!(answer["plan"].is_null() && answer["inspection"].is_null());
    assert!(answer["findings"][0]["message"].as_str().unwrap().contains("the piece has an error"));
}

#[test]
fn the_shops_cutters_are_kept_with_a_version() {
    let (_folder, server) = start();
    let url = format!("{}/api/cutters", server.url);
    let table = get(&url).json();
    assert_eq!((table["version"].as_i64(), table["examples"].as_bool()), (Some(0), Some(true)));
    let mut cutters = table["cutters"].clone();
    cutters[0]["rows"][0]["kerf"] = json!(0.21);
    let saved = send("PUT", &url, &json!({"version": 0, "cutters": cutters})).json();
    assert_eq!((saved["version"].as_i64(), saved["examples"].as_bool()), (Some(1), Some(false)));
    let stale = send("PUT", &url, &json!({"version": 0, "cutters": cutters}));
    assert_eq!((stale.status, stale.json()["current"].as_i64()), (409, Some(1)));
    cutters[0]["rows"][0]["speed"] = json!(-5);
    let bad = send("PUT", &url, &json!({"version": 1, "cutters": cutters}));
    assert_eq!((bad.status, bad.json()["field"].as_str()), (422, Some("cutter[0].rows[0].speed")));
    let file = get(&format!("{}/api/cutters.toml", server.url));
    assert!(file.text().contains("kerf = 0.21"));
}

/// A table as it was before comes back as a change: read, and kept only by a save. A file that is none is refused with its place.
#[test]
fn tables_of_the_shop_are_read_again_as_they_were() {
    let (_folder, server) = start();
    let at = |path: &str| format!("{}/api/{path}", server.url);
    let read = |path: &str, text: &str| send("POST", &at(path), &json!({"text": text}));
    // Cutters and rules as they leave are read as they are.
    let cutters = get(&at("cutters")).json()["cutters"].clone();
    assert_eq!(read("cutters/read", &get(&at("cutters.toml")).text()).json(), cutters);
    let rules = get(&at("shop/rules")).json()["settings"].clone();
    assert_eq!(read("shop/rules/read", &get(&at("shop/rules.toml")).text()).json(), rules);
    let sections = json!({"usual_joints": "butt", "sections": [
        {"name": "Keel rail", "outline": {"rectangle": {"width": "40 mm", "depth": "20 mm"}}, "source": "the maker's sheet"}]});
    assert_eq!(send("PUT", &at("shop/frames"), &json!({"version": 0, "settings": sections})).status, 200);
    assert_eq!(read("shop/frames/read", &get(&at("shop/frames.json")).text()).json(), sections);
    let screws = json!([{"head": "flat", "size": "Insert 5", "diameter": 9.4, "height": 1.2, "angle": 100.0,
        "counterbore": null, "source": "measured"}]);
    let kept = send("PUT", &at("shop/screws"), &json!({"version": 0, "screws": screws}));
    assert_eq!((kept.status, &kept.json()["screws"]), (200, &screws));
    assert_eq!(read("shop/screws/read", &get(&at("shop/screws.csv")).text()).json(), screws);
    // What was before each save can be read, and nothing is kept by that.
    assert_eq!(send("PUT", &at("shop/screws"), &json!({"version": 1, "screws": []})).status, 200);
    let before = get(&at("shop/screws/before")).json();
    assert_eq!(read("shop/screws/read", before[0]["text"].as_str().unwrap()).json(), screws);
    assert_eq!(get(&at("shop/screws")).json()["screws"], json!([]));
    // Another save came between.
    assert_eq!(send("PUT", &at("shop/screws"), &json!({"version": 1, "screws": screws})).status, 409);
    for (path, text, field) in [
        ("cutters/read", "cutter = 3", "cutters"),
        ("shop/rules/read", "[asks]", "rules"),
        ("shop/frames/read", "{}", "sections"),
        ("shop/screws/read", "a,b\n1,2", "screws"),
    ] {
        let refused = read(path, text);
        assert_eq!((refused.status, refused.json()["field"].as_str()), (422, Some(field)), "{path}");
    }
}

/// The log tells a piece's mark after it was deleted too.
#[test]
fn the_log_keeps_the_mark_of_a_deleted_piece() {
    let (_folder, server) = start();
    let pieces = get(&format!("{}/api/jobs/1", server.url)).json()["pieces"].clone();
    let (id, mark) = (pieces[0]["id"].clone(), pieces[0]["mark"].clone());
    let gone = ask("DELETE", &format!("{}/api/pieces/{id}", server.url), &[], None).unwrap();
    assert_eq!(gone.status, 204);
    let log = get(&format!("{}/api/jobs/1/log", server.url)).json();
    assert_eq!((&log[0]["what"], &log[0]["piece_id"], &log[0]["mark"]), (&json!("deleted the piece"), &id, &mark));
}

/// What the shop's rules go by is kept with a version, and every piece follows: its answer, its line in the job, its papers.
#[test]
fn the_shops_rules_are_kept_with_a_version_and_every_piece_follows() {
    let (_folder, server) = start();
    let url = format!("{}/api/shop/rules", server.url);
    let table = get(&url).json();
    assert_eq!((table["version"].as_i64(), &table["settings"]), (Some(0), &table["shipped"]));
    let rules = get(&format!("{}/api/rules", server.url)).json();
    let near = rules.as_array().unwrap().iter().find(|one| one["rule"] == "hole_to_bend").unwrap();
    assert_eq!((&near["settings"], &near["levels"]), (&json!(["asks.bend", "asks.slot_bend"]), &json!(["broken"])));
    // Two holes of this bracket stand 5.25 mm from a bend in 4 mm: 1.31 T.
    let job = get(&format!("{}/api/jobs/1", server.url)).json();
    let bracket = job["pieces"].as_array().unwrap().iter().find(|one| one["mark"] == "SB-05").unwrap()["id"].clone();
    let piece = format!("{}/api/pieces/{bracket}", server.url);
    let document = get(&piece).json()["document"].clone();
    let broken = || {
        let answer = send("POST", &format!("{}/api/build", server.url), &json!({"document": document})).json();
        answer["breaches"].as_array().unwrap().iter().filter(|one| one["level"] == "broken").count()
    };
    let told = || {
        let until = std::time::Instant::now() + std::time::Duration::from_secs(60);
        loop {
            let job = get(&format!("{}/api/jobs/1", server.url)).json();
            let line = job["pieces"].as_array().unwrap().iter().find(|one| one["id"] == bracket).unwrap().clone();
            if line["waiting"] == false {
                return line["broken"].as_u64().unwrap();
            }
            assert!(std::time::Instant::now() < until, "it is never worked out again");
            std::thread::sleep(std::time::Duration::from_millis(50));
        }
    };
    assert_eq!((broken(), told()), (2, 2));
    let mut settings = table["settings"].clone();
    settings["asks"]["bend"] = json!(1.3);
    let saved = send("PUT", &url, &json!({"version": 0, "settings": settings})).json();
    assert_eq!((saved["version"].as_i64(), &saved["settings"]["asks"]["bend"]), (Some(1), &json!(1.3)));
    assert_eq!(saved["shipped"]["asks"]["bend"], json!(2.0));
    assert_eq!((broken(), told()), (0, 0));
    let stale = send("PUT", &url, &json!({"version": 0, "settings": settings}));
    assert_eq!((stale.status, stale.json()["current"].as_i64()), (409, Some(1)));
    settings["brake"]["force_kn"] = json!(-5);
    let bad = send("PUT", &url, &json!({"version": 1, "settings": settings}));
    assert_eq!((bad.status, bad.json()["field"].as_str()), (422, Some("brake.force_kn")));
    let unknown = send("PUT", &url, &json!({"version": 1, "settings": {"asks": {}}}));
    assert!((400..500).contains(&unknown.status), "{}", unknown.status);
    assert!(get(&format!("{url}.toml")).text().contains("bend = 1.3"));
    // Before the first save there is what Steelk ships.
    let before = get(&format!("{url}/before")).json();
    assert_eq!((before[0]["version"].as_i64(), before.as_array().unwrap().len()), (Some(0), 1));
    // Back as it was, under another version: the papers say so again.
    let again = send("PUT", &url, &json!({"version": 1, "settings": table["settings"]}));
    assert_eq!(again.status, 200);
    assert_eq!((broken(), told()), (2, 2));
    assert_eq!(get(&format!("{url}/before")).json().as_array().unwrap().len(), 2);
}

/// How the shop joins frames and its own sections are kept with a version; what is no section is refused with its field.
#[test]
fn the_shops_frames_are_kept_with_a_version() {
    let (_folder, server) = start();
    let url = format!("{}/api/shop/frames", server.url);
    let table = get(&url).json();
    assert_eq!((table["version"].as_i64(), &table["settings"]["usual_joints"]), (Some(0), &json!("mitre")));
    let rail = json!({"name": "Rail", "outline": {"rectangle": {"width": "30 mm", "depth": "1 in"}}, "mass_per_metre": 6.0,
        "bars": ["3100 mm"], "symmetry": "none"});
    let settings = |sections: serde_json::Value| json!({"usual_joints": null, "sections": sections});
    let saved = send("PUT", &url, &json!({"version": 0, "settings": settings(json!([rail]))}));
    assert_eq!(saved.status, 200, "{}", saved.text());
    let saved = saved.json();
    let shown = &saved["shown"][0];
    assert_eq!((shown["name"].as_str(), shown["mass_per_metre"].as_f64()), (Some("Rail"), Some(6.0)));
    assert_eq!((shown["width"].as_f64(), shown["height"].as_f64()), (Some(30.0), Some(25.4)));
    assert_eq!(get(&url).json()["settings"], settings(json!([rail])));
    let stale = send("PUT", &url, &json!({"version": 0, "settings": settings(json!([]))}));
    assert_eq!((stale.status, stale.json()["current"].as_i64()), (409, Some(1)));
    let refused = |changed: serde_json::Value| {
        let mut bad = rail.clone();
        for (key, value) in changed.as_object().unwrap() {
            bad[key] = value.clone();
        }
        let told = send("PUT", &url, &json!({"version": 1, "settings": settings(json!([rail, bad]))}));
        assert_eq!(told.status, 422, "{}", told.text());
        told.json()["field"].as_str().unwrap_or_default().to_string()
    };
    assert_eq!(refused(json!({"name": "rail"})), "sections.1.name");
    assert_eq!(refused(json!({"name": "IPE 100"})), "sections.1.name");
    assert_eq!(refused(json!({"name": "Bar", "mass_per_metre": -1.0})), "sections.1.mass_per_metre");
    assert_eq!(refused(json!({"name": "Bar", "bars": ["3 m", "long"]})), "sections.1.bars.1");
    assert!(
        refused(json!({"name": "Bar", "outline": {"circle": {"diameter": "A"}}})).starts_with("sections.1.outline")
    );
    let tried = send("POST", &format!("{url}/try"), &rail).json();
    assert_eq!(tried["area"].as_f64().map(f64::round), Some(762.0));
    assert_eq!(get(&url).json()["version"], 1);
}

#[test]
fn photos_are_kept_and_travel_with_the_job_file() {
    let (_folder, server) = start();
    let photo = get(&format!("{}/api/pieces/5/photo", server.url));
    assert_eq!((photo.status, photo.kind()), (200, "image/png"));
    assert_eq!(get(&format!("{}/api/pieces/4/photo", server.url)).status, 404);
    let copy = send("POST", &format!("{}/api/jobs/1/copy", server.url), &json!({})).json();
    let flange =
        copy["pieces"].as_array().unwrap().iter().find(|one| one["mark"] == "PF-05").unwrap()["id"].as_i64().unwrap();
    let again = get(&format!("{}/api/pieces/{flange}/photo", server.url));
    assert_eq!(again.status, 200);
    assert_eq!(get(&format!("{}/api/pieces/{flange}", server.url)).json()["has_photo"], true);
}

#[test]
fn tables_and_pulls_are_answered_live() {
    let (_folder, server) = start();
    let document = get(&format!("{}/api/pieces/4", server.url)).json()["document"].clone();
    let url = format!("{}/api/tables", server.url);
    let left = send("POST", &url, &json!({"document": document})).json();
    let right = send("POST", &url, &json!({"document": document, "corner": "upper_right", "show": "in"})).json();
    assert_eq!(left["holes"].as_array().unwrap().len(), 7);
    let x = |answer: &serde_json::Value| -> f64 {
        answer["holes"][1]["x"].as_str().unwrap().split(' ').next().unwrap().parse().unwrap()
    };
    // The same hole from both sides of a plate 160 mm wide.
    assert!((x(&left) + 25.4 * x(&right) - 160.0).abs() < 0.01);
    let flange = get(&format!("{}/api/pieces/5", server.url)).json()["document"].clone();
    let pull = format!("{}/api/pull", server.url);
    // It is defined: nothing is left to say.
    assert_eq!(send("POST", &pull, &json!({"document": flange, "operation": "base"})).json()["says"], json!([]));
    let none = send("POST", &pull, &json!({"document": document, "operation": "base"}));
    assert_eq!(none.status, 422);
}

#[test]
fn a_frame_gives_out_its_lists_bars_and_machine_files() {
    let (_folder, server) = start();
    let piece = |file: &str| get(&format!("{}/api/pieces/11/{file}", server.url));
    let document = get(&format!("{}/api/pieces/11", server.url)).json()["document"].clone();
    let answer = send("POST", &format!("{}/api/build", server.url), &json!({"document": document})).json();
    let list = answer["frame"]["cut_list"].as_array().unwrap();
    assert_eq!(list[0]["line"]["mark"], "X1");
    assert_eq!(list[0]["length_text"], "1060 mm");
    assert!(list.iter().all(|line| line["path"].as_str().unwrap().starts_with('M')));
    assert_eq!(answer["frame"]["clashes"], json!([]));
    // Pieces and their faces to choose from: each face is of a piece, and each piece has some.
    let names = |of: &str| -> Vec<String> {
        answer["names"][of].as_array().unwrap().iter().map(|one| one.as_str().unwrap().to_string()).collect()
    };
    let (pieces, faces) = (names("pieces"), names("faces"));
    let of = |piece: &str, face: &str| face.strip_prefix(piece).is_some_and(|rest| rest.starts_with('.'));
    assert!(faces.iter().all(|face| pieces.iter().any(|piece| of(piece, face))), "{faces:?}");
    assert!(pieces.iter().all(|piece| faces.iter().any(|face| of(piece, face))), "{pieces:?}");
    assert!(answer["callouts"].as_array().unwrap().iter().all(|one| one["verdict"] == "holds"));
    let bars = send("POST", &format!("{}/api/bars", server.url), &json!({"document": document, "seconds": 0.5})).json();
    assert!(bars.as_array().unwrap().iter().all(|group| group["result"]["optimal"] == true), "{bars}");
    let bad = send("POST", &format!("{}/api/bars", server.url), &json!({"document": document, "seconds": 900}));
    assert_eq!(bad.status, 422);
    for (file, kind, start) in [
        ("cutlist.csv", "text/csv; charset=utf-8", "mark,qty"),
        ("bars.csv", "text/csv; charset=utf-8", "bar,section"),
        ("welds.csv", "text/csv; charset=utf-8", "weld,joint"),
        ("cutlist.pdf", "application/pdf", "%PDF"),
        ("cutlist.xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "PK"),
        ("frame.step", "model/step", "ISO-10303-21"),
        ("frame.glb", "model/gltf-binary", "glTF"),
        ("R1.nc1", "text/plain; charset=us-ascii", "ST"),
        ("C1-wrap.pdf", "application/pdf", "%PDF"),
    ] {
        let reply = piece(&format!("files/{file}"));
        assert_eq!((reply.status, reply.headers["content-type"].to_str().unwrap()), (200, kind), "{file}");
        assert!(reply.body.starts_with(start.as_bytes()), "{file}");
    }
    assert_eq!(piece("files/none.nc1").status, 404);
    assert_eq!(piece("files/C1.nc1").status, 409);
    assert_eq!(piece("files/blank.dxf").status, 404);
    let sawn = piece("saw").json();
    let with_file: Vec<&Value> = sawn.as_array().unwrap().iter().filter(|one| one["has_file"] == true).collect();
    assert!(with_file.len() == 6 && with_file.iter().all(|one| one["good"] == true), "{sawn}");
    // A plate or sheet has none of these.
    let plate = get(&format!("{}/api/pieces/4/files/bars.csv", server.url));
    assert_eq!(plate.status, 404);
    let sections = get(&format!("{}/api/sections", server.url)).json();
    assert!(sections.as_array().unwrap().len() > 150);
    let lines = send(
        "POST",
        &format!("{}/api/centre-lines", server.url),
        &json!({"name": "a.csv", "text": "0,0,0,1,0,0\n", "unit": "in"}),
    )
    .json();
    assert_eq!(lines["lines"], json!(["0 0 0, 1 0 0"]));
    let bad = send("POST", &format!("{}/api/centre-lines", server.url), &json!({"name": "a.csv", "text": "nothing"}));
    assert_eq!(bad.status, 422);
}

/// One piece that cannot be read: it is told with its file, its neighbours and the lists are as before, and it can be
/// taken out.
#[test]
fn a_piece_that_cannot_be_read_takes_nothing_with_it() {
    let (folder, server) = start();
    let before = get(&format!("{}/api/jobs/1", server.url)).json();
    let broken = "{\"steelk\": 1, \"mark\": \"XX-9\", \"title\": \"From elsewhere\", \"kind\": \"hat\"}";
    let mut store =
        steelk_store::Store::open(&folder.path().join("steelk.db"), steelk_server::marks::marks_of).unwrap();
    let id = store.add_piece(1, broken, "made").unwrap().id;
    assert_eq!(rack(&server).len(), 2);
    let after = get(&format!("{}/api/jobs/1", server.url)).json();
    let pieces = after["pieces"].as_array().unwrap();
    let (own, others) = pieces.split_last().unwrap();
    assert_eq!(others, before["pieces"].as_array().unwrap().as_slice());
    assert_eq!((own["mark"].as_str(), own["title"].as_str()), (Some("XX-9"), Some("From elsewhere")));
    assert!(own["unreadable"].as_str().unwrap().contains("hat"), "{own}");
    let file = get(&format!("{}/api/pieces/{id}/piece.json", server.url));
    assert_eq!((file.status, file.text().as_str()), (200, broken));
    let list = get(&format!("{}/api/jobs/1/files/cutlist.csv", server.url)).text();
    assert!(list.contains("XX-9,\"NOT IN THIS LIST: ") && list.contains("WB-02"), "{list}");
    assert_eq!(get(&format!("{}/api/pieces/{id}", server.url)).status, 422);
    assert_eq!(ask("DELETE", &format!("{}/api/pieces/{id}", server.url), &[], None).unwrap().status, 204);
    assert_eq!(get(&format!("{}/api/jobs/1", server.url)).json()["pieces"], before["pieces"]);
    let back = ask("POST", &format!("{}/api/pieces/{id}/put-back", server.url), &[], None).unwrap();
    assert_eq!(back.status, 204);
}

/// A few bytes that unpack to more than there is memory are not unpacked; a refusal has every header that an answer
/// has.
#[test]
fn packed_bodies_are_refused_and_refusals_have_their_headers() {
    let (_folder, server) = start();
    let url = format!("{}/api/import", server.url);
    for how in ["gzip", "br", "deflate", "zstd", "identity, gzip", "nonsense"] {
        let refused = ask("POST", &url, &[("content-encoding", how)], Some(vec![31, 139, 8, 0])).unwrap();
        assert_eq!((refused.status, refused.kind()), (415, "application/problem+json"), "{how}");
        assert!(refused.headers["content-security-policy"].to_str().unwrap().contains("default-src 'self'"));
    }
    let plain = json!({"number": "TS-9", "title": "Nine"}).to_string().into_bytes();
    let jobs = format!("{}/api/jobs", server.url);
    assert_eq!(ask("POST", &jobs, &[("content-encoding", "identity")], Some(plain.clone())).unwrap().status, 201);
    let foreign = ask("POST", &jobs, &[("origin", "http://elsewhere.example")], Some(plain)).unwrap();
    assert_eq!((foreign.status, foreign.headers["x-frame-options"].to_str().unwrap()), (403, "DENY"));
}

/// An address that is asked something else says what may be asked of it; one that is none says so.
#[test]
fn other_methods_are_told_from_other_addresses() {
    let (_folder, server) = start();
    let allowed = |method: &str, path: &str| {
        let answer = ask(method, &format!("{}{path}", server.url), &[], None).unwrap();
        let allow = answer.headers.get("allow").map(|value| value.to_str().unwrap().to_string());
        (answer.status, answer.kind().to_string(), allow.unwrap_or_default())
    };
    let problem = || "application/problem+json".to_string();
    assert_eq!(allowed("DELETE", "/api/sections"), (405, problem(), "GET".into()));
    assert_eq!(allowed("PATCH", "/api/pieces/1"), (405, problem(), "DELETE, GET, PUT".into()));
    assert_eq!(allowed("TRACE", "/api/jobs"), (405, problem(), "GET, POST".into()));
    assert_eq!(allowed("GET", "/api/nothing"), (404, problem(), String::new()));
    assert_eq!(allowed("DELETE", "/api/pieces/1/2/3"), (404, problem(), String::new()));
}

/// Two windows add, undo and copy at once: of what looks alike one alone is there.
#[test]
fn two_windows_never_make_two_marks_alike() {
    let (_folder, server) = start();
    let marks = |url: &str| -> Vec<String> {
        let job = get(&format!("{url}/api/jobs/1")).json();
        job["pieces"].as_array().unwrap().iter().map(|one| one["mark"].as_str().unwrap().to_lowercase()).collect()
    };
    let mut made = 0;
    for round in 0..10 {
        let both: Vec<u16> = std::thread::scope(|scope| {
            let windows: Vec<_> = [format!("Q-{round}"), format!("q\u{2013}{round}")]
                .into_iter()
                .map(|mark| {
                    let url = format!("{}/api/jobs/1/pieces", server.url);
                    scope.spawn(move || {
                        let mut document = demo_piece();
                        document["mark"] = json!(mark);
                        send("POST", &url, &json!({"document": document})).status
                    })
                })
                .collect();
            windows.into_iter().map(|window| window.join().unwrap()).collect()
        });
        let count = |status: u16| both.iter().filter(|own| **own == status).count();
        assert_eq!((count(201), count(422)), (1, 1), "round {round}: {both:?}");
        made += 1;
        let all = marks(&server.url);
        let own = all.iter().filter(|mark| mark.starts_with('q')).count();
        assert_eq!(own, made, "round {round}: {all:?}");
    }
}

/// What is read fits in the limit and what would be kept of it does not: it is refused, and the piece is as it was.
#[test]
fn a_save_that_could_not_be_opened_again_is_refused() {
    let (_folder, server) = start();
    let mut document = demo_piece();
    let also = vec!["base.front"; 130_000];
    document["operations"][1]["do"]["bend"]["also"] = json!(also);
    let compact = document.to_string();
    assert!(compact.len() < 2 * 1024 * 1024);
    let url = format!("{}/api/pieces/1", server.url);
    let refused = send("PUT", &url, &json!({"version": 1, "document": document}));
    assert_eq!(refused.status, 422, "{}", refused.text());
    assert!(refused.json()["detail"].as_str().unwrap().contains("2097152 is the most that could be opened again"));
    assert_eq!(get(&url).json()["version"], 1);
}

/// Heads and bodies that come drop by drop are ended and not waited for; meanwhile and afterwards others are answered.
#[test]
fn slow_heads_and_bodies_are_ended() {
    use std::io::{Read as _, Write as _};
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start_with(folder.path(), true, &["--patience", "1"]);
    let host = server.url.trim_start_matches("http://").to_string();
    let begun = |head: &str| {
        let mut stream = std::net::TcpStream::connect(&host).unwrap();
        stream.set_read_timeout(Some(std::time::Duration::from_secs(60))).unwrap();
        stream.write_all(head.as_bytes()).unwrap();
        stream
    };
    let head = format!("POST /api/build HTTP/1.1\r\nHost: {host}\r\nContent-Type: application/json\r\n");
    let mut slow: Vec<_> = (0..20).map(|_| begun(&format!("{head}Content-Length: 5000\r\n\r\n{{"))).collect();
    let mut heads: Vec<_> = (0..20).map(|_| begun(&head)).collect();
    let build = |document: Value| send("POST", &format!("{}/api/build", server.url), &json!({"document": document}));
    assert_eq!(build(demo_piece()).status, 200);
    for stream in &mut slow {
        let mut answer = String::new();
        stream.read_to_string(&mut answer).unwrap();
        assert!(answer.starts_with("HTTP/1.1 408") && answer.contains("application/problem+json"), "{answer}");
        assert!(answer.contains("x-content-type-options"), "{answer}");
    }
    for stream in &mut heads {
        let mut answer = String::new();
        // Closed, with or without a word.
        stream.read_to_string(&mut answer).unwrap();
        assert!(answer.is_empty() || answer.starts_with("HTTP/1.1 408"), "{answer}");
    }
    assert_eq!(build(demo_piece()).status, 200);
}

/// What is deleted waits in the bin, with its time, and comes back whole: pieces, pictures, jobs.
#[test]
fn what_is_deleted_waits_in_the_bin() {
    let (_folder, server) = start();
    let url = &server.url;
    let job = rack(&server).iter().find(|job| job["number"] == "TS-104").unwrap()["id"].clone();
    let bin = || get_json(&server, &format!("/api/jobs/{job}/bin"));
    assert_eq!(bin(), json!({"pieces": [], "pictures": []}));
    let pieces = || get_json(&server, &format!("/api/jobs/{job}"))["pieces"].as_array().unwrap().clone();
    let (first, second) = (pieces()[0].clone(), pieces()[1].clone());
    for one in [&first, &second] {
        assert_eq!(send("DELETE", &format!("{url}/api/pieces/{}", one["id"]), &json!({})).status, 204);
    }
    let gone = bin();
    let marks: Vec<&str> = gone["pieces"].as_array().unwrap().iter().map(|one| one["mark"].as_str().unwrap()).collect();
    assert_eq!(marks, [second["mark"].as_str().unwrap(), first["mark"].as_str().unwrap()], "the last deleted first");
    assert!(gone["pieces"][0]["at"].as_str().unwrap() >= gone["pieces"][1]["at"].as_str().unwrap());
    // A deleted piece is in no archive and in no list of the job.
    let list = get(&format!("{url}/api/jobs/{job}/files/cutlist.csv")).text();
    assert!(!list.contains(first["mark"].as_str().unwrap()));
    assert_eq!(send("POST", &format!("{url}/api/pieces/{}/put-back", first["id"]), &json!({})).status, 204);
    assert_eq!(bin()["pieces"].as_array().unwrap().len(), 1);
    // A picture: deleted, gone, in the bin, put back as it was.
    let drawing = format!("{url}/api/pieces/{}/drawing", first["id"]);
    let before = get(&drawing).body;
    assert_eq!(send("DELETE", &drawing, &json!({})).status, 204);
    assert_eq!((get(&drawing).status, send("DELETE", &drawing, &json!({})).status), (404, 404));
    let picture = bin()["pictures"][0].clone();
    assert_eq!(
        (&picture["piece"], &picture["mark"], picture["slot"].as_str()),
        (&first["id"], &first["mark"], Some("drawing"))
    );
    assert_eq!(picture["size"].as_u64(), Some(before.len() as u64));
    assert_eq!(send("POST", &format!("{drawing}/before/{}/restore", picture["number"]), &json!({})).status, 204);
    assert!(get(&drawing).body == before, "the same picture");
    // A whole job.
    assert_eq!(get_json(&server, "/api/bin"), json!([]));
    assert_eq!(send("DELETE", &format!("{url}/api/jobs/{job}"), &json!({})).status, 204);
    let jobs = get_json(&server, "/api/bin");
    assert_eq!((jobs[0]["number"].as_str(), jobs[0]["pieces"].as_u64()), (Some("TS-104"), Some(10)));
    assert_eq!(send("POST", &format!("{url}/api/jobs/{job}/put-back"), &json!({})).status, 204);
    assert_eq!(get_json(&server, "/api/bin"), json!([]));
}

fn names(archive: &[u8]) -> Vec<String> {
    let archive = zip::ZipArchive::new(std::io::Cursor::new(archive)).unwrap();
    archive.file_names().map(|name| name.unwrap().into_owned()).collect()
}

/// One ZIP of a piece and one of a job hold what the routes give one by one, and tell what they lack; the pack has every page.
#[test]
fn everything_comes_at_once() {
    let (_folder, server) = start();
    let url = &server.url;
    let job = rack(&server).iter().find(|job| job["number"] == "TS-104").unwrap()["id"].clone();
    let pieces = get_json(&server, &format!("/api/jobs/{job}"))["pieces"].as_array().unwrap().clone();
    let of = |mark: &str| pieces.iter().find(|one| one["mark"] == mark).unwrap()["id"].clone();
    let answer = get(&format!("{url}/api/pieces/{}/all.zip", of("WB-02")));
    assert_eq!(answer.status, 200);
    let mut archive = zip::ZipArchive::new(std::io::Cursor::new(answer.body.clone())).unwrap();
    for (end, file) in
        [("profile.dxf", "profile.dxf"), ("bends.csv", "bends.csv"), ("flat.pdf", "flat.pdf"), ("cut.nc", "cut.nc")]
    {
        let name = names(&answer.body).into_iter().find(|name| name.ends_with(end)).unwrap();
        let mut own = Vec::new();
        std::io::Read::read_to_end(&mut archive.by_name(&name).unwrap(), &mut own).unwrap();
        let alone = get(&format!("{url}/api/pieces/{}/files/{file}", of("WB-02"))).body;
        assert!(own == alone, "{name} is another file than the one that is given out alone");
    }
    let whole = get(&format!("{url}/api/jobs/{job}/all.zip"));
    assert_eq!(whole.status, 200);
    let all = names(&whole.body);
    assert!(all.iter().any(|name| name.ends_with("cutlist.csv") && !name.contains('/')), "{all:?}");
    for one in &pieces {
        let mark = one["mark"].as_str().unwrap();
        assert!(all.iter().any(|name| name.starts_with(&format!("{mark}/"))), "{mark} in {all:?}");
    }
    // The piece with a fault says so in its files' names.
    let broken: Vec<&str> =
        pieces.iter().filter(|one| one["broken"].as_u64() > Some(0)).map(|one| one["mark"].as_str().unwrap()).collect();
    assert!(!broken.is_empty());
    for name in &all {
        let is_broken = broken.iter().any(|mark| name.starts_with(&format!("{mark}/")));
        assert_eq!(name.contains("NOT-RELEASED"), is_broken, "{name}");
    }
    // Marks that differ only in letters that no file system takes have folders of their own.
    for mark in ["Q/1", "Q-1"] {
        let mut copy = get_json(&server, &format!("/api/pieces/{}", of("GS-06")))["document"].clone();
        copy["mark"] = mark.into();
        let made = send("POST", &format!("{url}/api/jobs/{job}/pieces"), &json!({"document": copy}));
        assert_eq!(made.status, 201, "{}", made.text());
    }
    let folders: Vec<String> = names(&get(&format!("{url}/api/jobs/{job}/all.zip")).body)
        .into_iter()
        .filter(|name| name.starts_with('Q') && name.ends_with("profile.dxf"))
        .collect();
    assert_eq!(folders.len(), 2, "{folders:?}");
    let pack = get(&format!("{url}/api/jobs/{job}/pack.pdf"));
    assert_eq!((pack.status, &pack.body[..5]), (200, &b"%PDF-"[..]));
    let text = String::from_utf8_lossy(&pack.body);
    for one in &pieces {
        assert!(
            text.contains(&format!("({})", one["mark"].as_str().unwrap())),
            "{} is not in the contents",
            one["mark"]
        );
    }
}
