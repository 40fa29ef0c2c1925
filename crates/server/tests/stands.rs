//! What comes in costs its own answer and no more: bombs, crowds, askers that leave, windows that race, a disk that is
//! full.
//!
//! `make test` runs ten rounds of each; the long run is `STEELK_CASES=300 cargo test --release -p steelk-server --test
//! stands`.

use std::collections::HashSet;
use std::io::Write as _;
use std::net::TcpStream;
use std::time::{Duration, Instant};

use serde_json::{Value, json};
use steelk_core::piece::mark_key;
use steelk_testing::root;
use steelk_testing::server::*;

fn rounds() -> usize {
    std::env::var("STEELK_CASES").ok().and_then(|text| text.parse().ok()).unwrap_or(10)
}

/// A plate of some fifteen thousand square holes: seconds of work.
fn heavy(mark: &str) -> Value {
    perforated(mark, "7 mm")
}

/// Asks for something and does not wait for the answer.
fn ask_and_leave(host: &str, path: &str, body: &str) -> TcpStream {
    let mut stream = TcpStream::connect(host).unwrap();
    let head = format!(
        "POST {path} HTTP/1.1\r\nHost: {host}\r\nContent-Type: application/json\r\nContent-Length: {}\r\n\r\n",
        body.len()
    );
    stream.write_all(head.as_bytes()).unwrap();
    stream.write_all(body.as_bytes()).unwrap();
    stream
}

fn working(server: &Server) -> u64 {
    get(&format!("{}/api/health", server.url)).json()["working"].as_u64().unwrap()
}

/// Waits until nothing is worked on.
fn quiet(server: &Server) -> bool {
    let until = Instant::now() + Duration::from_secs(60);
    while Instant::now() < until {
        if working(server) == 0 {
            return true;
        }
        std::thread::sleep(Duration::from_millis(20));
    }
    false
}

/// Twenty ask for heavy work of every kind and leave: what was begun for them ends, and an edit is answered meanwhile.
#[test]
fn work_that_its_asker_has_left_ends() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start_with(folder.path(), true, &["--longest-work", "600"]);
    let host = server.url.trim_start_matches("http://").to_string();
    let frame = get(&format!("{}/api/pieces/11", server.url)).json()["document"].clone();
    let plate = json!({"document": heavy("H-1")}).to_string();
    let bars = json!({"document": frame, "seconds": 30}).to_string();
    let left: Vec<TcpStream> = (0..20)
        .map(|at| match at % 5 {
            0 => ask_and_leave(&host, "/api/bars", &bars),
            1 => ask_and_leave(&host, "/api/audit", &plate),
            2 => ask_and_leave(&host, "/api/tables", &plate),
            3 => ask_and_leave(&host, "/api/build", &plate),
            _ => ask_and_leave(&host, "/api/cutting", &plate),
        })
        .collect();
    let until = Instant::now() + Duration::from_secs(60);
    while working(&server) < 10 && Instant::now() < until {
        std::thread::sleep(Duration::from_millis(5));
    }
    assert!(working(&server) >= 10, "they were never begun");
    drop(left);
    let edit = send("POST", &format!("{}/api/build", server.url), &json!({"document": demo_piece()}));
    assert_eq!(edit.status, 200);
    assert!(quiet(&server), "{} are worked on for nobody", working(&server));
}

/// A crowd that waits for heavy answers gets them one after the other; an edit does not wait for the crowd.
#[test]
fn an_edit_is_not_behind_a_crowd_of_heavy_work() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start_with(folder.path(), false, &["--longest-work", "600"]);
    let url = format!("{}/api/cutting", server.url);
    let body = json!({"document": perforated("H-1", "14 mm")});
    std::thread::scope(|scope| {
        let crowd: Vec<_> = (0..4).map(|_| scope.spawn(|| send("POST", &url, &body).status)).collect();
        while working(&server) < 4 {
            std::thread::sleep(Duration::from_millis(2));
        }
        let mut edits = 0;
        while working(&server) > 0 {
            let edit = send("POST", &format!("{}/api/build", server.url), &json!({"document": demo_piece()}));
            assert_eq!(edit.status, 200);
            edits += 1;
        }
        assert!(edits > 2, "{edits} edits were answered while four heavy pieces were worked on");
        for one in crowd {
            assert_eq!(one.join().unwrap(), 200);
        }
    });
}

/// What heavy work took of memory is given back when it is done, most of it.
#[test]
fn memory_is_given_back() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start_with(folder.path(), false, &["--longest-work", "600"]);
    let before = server.memory();
    let (url, body) = (format!("{}/api/cutting", server.url), json!({"document": perforated("H-1", "14 mm")}));
    let most = std::thread::scope(|scope| {
        let crowd: Vec<_> = (0..2).map(|_| scope.spawn(|| send("POST", &url, &body).status)).collect();
        let mut most = before;
        while !crowd.iter().all(std::thread::ScopedJoinHandle::is_finished) {
            most = most.max(server.memory());
            std::thread::sleep(Duration::from_millis(2));
        }
        assert!(crowd.into_iter().all(|one| one.join().unwrap() == 200));
        most
    });
    assert!(most > before + 20_000, "it was no heavy work: {before} kB before, {most} kB at most");
    let until = Instant::now() + Duration::from_secs(60);
    while server.memory() > before + (most - before) * 2 / 3 && Instant::now() < until {
        // Asking would keep the threads awake that give it back when they have nothing to do for ten seconds.
        std::thread::sleep(Duration::from_millis(200));
    }
    let now = server.memory();
    assert!(now <= before + (most - before) * 2 / 3, "{before} kB before, {most} kB at most, {now} kB still held");
}

/// What takes longer than the server was started to allow is ended with words, wherever it is asked for; on the rack it
/// takes nothing with it.
#[test]
fn work_that_takes_too_long_is_ended_in_words() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start_with(folder.path(), false, &["--longest-work", "1"]);
    let ended = send("POST", &format!("{}/api/cutting", server.url), &json!({"document": heavy("H-1")}));
    // A quick machine may be done within the second.
    assert!(ended.status == 200 || ended.status == 422, "{}", ended.text());
    if ended.status == 422 {
        assert!(ended.json()["detail"].as_str().unwrap().contains("--longest-work"), "{}", ended.text());
    }
    assert!(quiet(&server));
}

/// Files of a few bytes that stand for more than there is time or memory for; each is answered, as a refusal where it
/// is one.
#[test]
fn bombs_are_answered() {
    let (folder, hostile) = (tempfile::tempdir().unwrap(), root().join("crates/formats/tests/hostile"));
    let server = Server::start(folder.path(), true);
    let file = |path: &str, bytes: Vec<u8>| {
        let kind = [("content-type", "application/octet-stream")];
        ask(
            if path.contains("/pieces/") { "PUT" } else { "POST" },
            &format!("{}{path}", server.url),
            &kind,
            Some(bytes),
        )
        .unwrap()
    };
    for name in ["bomb-deep.dxf", "bomb-empty.dxf", "bomb-text.dxf"] {
        let bytes = std::fs::read(hostile.join(name)).unwrap();
        let lines = json!({"name": name, "text": String::from_utf8_lossy(&bytes)});
        assert_eq!(file(&format!("/api/outline?name={name}"), bytes).status, 422, "{name}");
        let lines = send("POST", &format!("{}/api/centre-lines", server.url), &lines);
        assert!(lines.status == 200 || lines.status == 422, "{name}: {}", lines.text());
    }
    // Sixty thousand layers, uses of uses, groups within groups, an entity that stands for a thousand of itself.
    let layers: String = (0..60_000).map(|at| format!("<g id='l{at}'><path d='M0 0h5v5h-5z'/></g>")).collect();
    let uses: String =
        (1..30).map(|at| format!("<g id='u{at}'><use href='#u{}'/><use href='#u{}'/></g>", at - 1, at - 1)).collect();
    let entities: String =
        (1..12).map(|at| format!("<!ENTITY e{at} \"{}\">", format!("&e{};", at - 1).repeat(10))).collect();
    let svgs = [
        format!("<svg xmlns='http://www.w3.org/2000/svg'>{layers}</svg>"),
        format!("<svg xmlns='http://www.w3.org/2000/svg'><path id='u0' d='M0 0h5v5z'/>{uses}<use href='#u29'/></svg>"),
        format!("<svg xmlns='http://www.w3.org/2000/svg'>{}{}</svg>", "<g>".repeat(100_000), "</g>".repeat(100_000)),
        format!(
            "<!DOCTYPE svg [<!ENTITY e0 \"M0 0h5\">{entities}]><svg xmlns='http://www.w3.org/2000/svg'><path d='&e11;'/></svg>"
        ),
    ];
    for (at, svg) in svgs.into_iter().enumerate() {
        let answer = file("/api/outline?name=a.svg", svg.into_bytes());
        assert!(answer.status == 200 || answer.status == 422, "{at}: {}", answer.text());
    }
    // A small file that says it has four thousand million pixels.
    let mut endless = std::fs::read(root().join("demo/06-gusset.png")).unwrap();
    endless[16..24].copy_from_slice(&[0, 1, 0, 0, 0, 1, 0, 0]);
    assert_eq!(file("/api/pieces/1/drawing", endless).status, 422);
    // Documents that ask for more than there is: holes, members, words, depth.
    let many = |count: &str| {
        let mut piece = heavy("H-2");
        piece["operations"][1]["do"]["cut"]["pattern"] = json!(null);
        piece["operations"][1]["do"]["cut"]["repeat"] = json!([{"count": count, "spacing": "0.001 mm"}, {"count": count, "spacing": "0.001 mm", "direction": "90 deg"}]);
        piece
    };
    let deep = format!("{{\"document\": {}{}}}", "[".repeat(100_000), "]".repeat(100_000));
    let mut expression = heavy("H-3");
    expression["stock"]["thickness"] = json!(format!("{}3 mm{}", "(".repeat(50_000), ")".repeat(50_000)));
    for body in [json!({"document": many("99999999")}).to_string(), json!({"document": expression}).to_string(), deep] {
        let answer = ask("POST", &format!("{}/api/build", server.url), &[], Some(body.into_bytes())).unwrap();
        assert!(matches!(answer.status, 200 | 400 | 422), "{}", answer.text());
    }
    let edit = send("POST", &format!("{}/api/build", server.url), &json!({"document": demo_piece()}));
    assert_eq!(edit.status, 200);
    assert!(quiet(&server));
}

/// A job that is copied is there, and is told, though its pieces cannot be worked out in time: nobody is asked to try
/// again what is done already.
#[test]
fn what_was_written_is_told_whatever_else_is_to_do() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start_with(folder.path(), false, &["--longest-work", "1"]);
    let url = format!("{}/api", server.url);
    assert_eq!(send("POST", &format!("{url}/jobs"), &json!({"number": "TS-1", "title": "Heavy"})).status, 201);
    for at in 0..4 {
        let piece = json!({"document": heavy(&format!("H-{at}"))});
        assert_eq!(send("POST", &format!("{url}/jobs/1/pieces"), &piece).status, 201);
    }
    let copy = send("POST", &format!("{url}/jobs/1/copy"), &json!({}));
    assert_eq!(copy.status, 201, "{}", copy.text());
    let told = copy.json();
    let pieces = told["pieces"].as_array().unwrap();
    let marks: Vec<&str> = pieces.iter().map(|one| one["mark"].as_str().unwrap()).collect();
    assert_eq!(marks, ["H-0", "H-1", "H-2", "H-3"]);
    // Each is worked out, or says that it is not yet, and is before long: with its figures, or why there are none.
    assert!(
        pieces
            .iter()
            .all(|one| one["cut_lines"].as_array().is_some_and(|lines| !lines.is_empty()) || one["waiting"] == true),
        "{told}"
    );
    let later = settled(&server, told["job"]["id"].as_i64().unwrap());
    let why = |one: &Value| one["unreadable"].as_str().is_some_and(|why| why.contains("not worked out within"));
    let mut pieces = later["pieces"].as_array().unwrap().iter();
    assert!(
        pieces.all(|one| one["cut_lines"].as_array().is_some_and(|lines| !lines.is_empty()) || why(one)),
        "{later}"
    );
    let form = json!({"number": "TS-1", "title": "Renamed", "version": 1});
    assert_eq!(send("PUT", &format!("{url}/jobs/1"), &form).json()["job"]["title"], "Renamed");
}

/// Two windows do what they like at once, with marks that are alike or only look alike: adding, renaming, undoing,
/// taking out and putting back, copying the job. Of what looks alike one alone is ever there.
#[test]
fn two_windows_never_have_two_marks_alike() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), false);
    let url = format!("{}/api", server.url);
    assert_eq!(send("POST", &format!("{url}/jobs"), &json!({"number": "TS-1", "title": "Raced"})).status, 201);
    let document = |mark: &str| {
        let mut piece = demo_piece();
        piece["mark"] = json!(mark);
        piece["variants"] = json!([]);
        piece
    };
    let made = |mark: &str| {
        send("POST", &format!("{url}/jobs/1/pieces"), &json!({"document": document(mark)})).json()["id"]
            .as_i64()
            .unwrap()
    };
    let (one, two) = (made("P-1"), made("P-2"));
    let mut both_refused = 0;
    for round in 0..rounds() {
        let marks = [format!("Q-{round}"), format!("q\u{2013}{round}"), format!("\u{ff31}-{round}")];
        let alike = |at: usize| marks[(round + at) % 3].clone();
        let window = |id: i64, at: usize| {
            let piece = format!("{url}/pieces/{id}");
            let version = || get(&piece).json()["version"].clone();
            let save =
                |mark: &str| send("PUT", &piece, &json!({"version": version(), "document": document(mark)})).status;
            match (round + at) % 4 {
                // Takes the mark, gives it up, and takes it back by undoing.
                0 => vec![
                    save(&alike(at)),
                    save(&format!("R-{id}")),
                    send("POST", &format!("{piece}/undo"), &json!({"version": version()})).status,
                ],
                1 => vec![
                    send("POST", &format!("{url}/jobs/1/pieces"), &json!({"document": document(&alike(at))})).status,
                ],
                2 => {
                    let taken = save(&alike(at));
                    let gone = ask("DELETE", &piece, &[], None).unwrap().status;
                    vec![taken, gone, send("POST", &format!("{piece}/put-back"), &json!({})).status]
                }
                _ => vec![save(&alike(at)), send("POST", &format!("{url}/jobs/1/copy"), &json!({})).status],
            }
        };
        let statuses: Vec<Vec<u16>> = std::thread::scope(|scope| {
            let both = [scope.spawn(|| window(one, 0)), scope.spawn(|| window(two, 1))];
            both.into_iter().map(|own| own.join().unwrap()).collect()
        });
        assert!(
            statuses.iter().flatten().all(|own| matches!(own, 200 | 201 | 204 | 409 | 422)),
            "{round}: {statuses:?}"
        );
        both_refused += usize::from(statuses.iter().all(|own| own[0] == 422));
        for job in rack(&server) {
            let pieces = get(&format!("{url}/jobs/{}", job["id"])).json();
            let mut seen = HashSet::new();
            for piece in pieces["pieces"].as_array().unwrap() {
                let mark = piece["mark"].as_str().unwrap();
                assert!(seen.insert(mark_key(mark)), "round {round}: two of {mark} in job {}: {statuses:?}", job["id"]);
            }
            // Copies have done their part.
            if job["id"] != 1 {
                assert_eq!(ask("DELETE", &format!("{url}/jobs/{}", job["id"]), &[], None).unwrap().status, 204);
            }
        }
        // Whoever was left outside comes back in under another mark for the next round.
        for id in [one, two] {
            let piece = format!("{url}/pieces/{id}");
            let version = get(&piece).json()["version"].clone();
            send("PUT", &piece, &json!({"version": version, "document": document(&format!("Z-{id}-{round}"))}));
            let back = send("POST", &format!("{piece}/put-back"), &json!({})).status;
            assert!(back == 204, "{back}");
        }
    }
    assert!(both_refused < rounds() / 2 + 1, "in {both_refused} rounds nobody got the mark");
}

/// A disk that fills up under a running server: saves are refused in words, what was saved is there, and with room
/// again it goes on. The small disk is a memory file system in a name space of our own.
#[test]
fn a_full_disk_is_said_in_words_and_loses_nothing() {
    let folder = tempfile::tempdir().unwrap();
    let may = std::process::Command::new("unshare").args(["-Urm", "true"]).status();
    if !may.is_ok_and(|status| status.success()) {
        println!("nobody may mount a small file system here; the store's own test of a full file stands alone");
        return;
    }
    let mount = format!("mount -t tmpfs -o size=3m none {0} && exec \"$@\"", folder.path().display());
    let server = Server::start_under("unshare", &["-Urm", "sh", "-c", &mount, "sh"], &folder.path().join("data"), &[]);
    let url = format!("{}/api", server.url);
    assert_eq!(send("POST", &format!("{url}/jobs"), &json!({"number": "TS-1", "title": "Small"})).status, 201);
    assert_eq!(send("POST", &format!("{url}/jobs/1/pieces"), &json!({"document": demo_piece()})).status, 201);
    let mut document = demo_piece();
    document["title"] = json!("x".repeat(190));
    // Words enough to fill it: call-outs that nobody reads.
    let callout = document["callouts"][0].clone();
    let more = (0..300).map(|at| {
        let mut own = callout.clone();
        own["name"] = json!(format!("X{at}"));
        own
    });
    document["callouts"].as_array_mut().unwrap().extend(more);
    let mut version = 1;
    let refused = loop {
        let answer = send("PUT", &format!("{url}/pieces/1"), &json!({"version": version, "document": document}));
        if answer.status != 200 {
            break answer;
        }
        version = answer.json()["version"].as_i64().unwrap();
        assert!(version < 500, "3 MB held {version} saves");
    };
    assert_eq!(
        (refused.status, refused.json()["title"].as_str()),
        (507, Some("The disk is full")),
        "{}",
        refused.text()
    );
    assert!(refused.json()["detail"].as_str().unwrap().contains("make room there and save again"));
    let piece = get(&format!("{url}/pieces/1")).json();
    assert_eq!(piece["version"], version, "what was saved is there");
    let import = get(&format!("{url}/jobs/1/job.json?revisions=true")).body;
    assert_eq!(ask("POST", &format!("{url}/import"), &[], Some(import)).unwrap().status, 507);
    assert_eq!(rack(&server).len(), 1, "no half job");
}

/// A folder on a disk that can only be read is refused at the start, in words.
#[test]
fn a_disk_that_can_only_be_read_is_refused_in_words() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().join("data");
    drop(Server::start(&data, true));
    let mount = format!("mount --bind {0} {0} && mount -o remount,bind,ro {0} && exec \"$@\"", folder.path().display());
    let run = std::process::Command::new("unshare")
        .args(["-Urm", "sh", "-c", &mount, "sh", env!("CARGO_BIN_EXE_steelk"), "serve", "--port", "0", "--data"])
        .arg(&data)
        .output();
    let Ok(run) = run.map(|run| (run.status.code(), String::from_utf8_lossy(&run.stderr).into_owned())) else { return };
    if run.1.contains("Operation not permitted") || run.1.contains("permission denied") {
        println!("nobody may mount a folder here");
        return;
    }
    assert!(run.0 == Some(2) && run.1.contains("cannot be written to, and jobs could not be saved there"), "{run:?}");
}
