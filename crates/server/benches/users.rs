//! People at work: fifty users who edit, save and look at the rack for a while; then one edit again and again while
//! bombs run.
//!
//! `cargo bench -p steelk-server --bench users`; STEELK_SECONDS for how long (60 is a minute), STEELK_BINARY for
//! another build of the server to hold it against. Figures are printed, nothing is asserted but that every answer is
//! one.

use std::io::Write as _;
use std::net::TcpStream;
use std::sync::Mutex;
use std::time::{Duration, Instant};

use serde_json::{Value, json};
use steelk_testing::root;
use steelk_testing::server::*;

fn main() {
    // Cargo's test runner builds and starts benches too: there is nothing to assert here.
    if !std::env::args().any(|one| one == "--bench") {
        return;
    }
    let seconds = std::env::var("STEELK_SECONDS").ok().and_then(|text| text.parse().ok()).unwrap_or(10);
    // As people work, and as fast as the server lets them.
    users(50, Duration::from_secs(seconds), Duration::from_secs(2));
    users(50, Duration::from_secs(seconds), Duration::from_millis(100));
    if std::env::var("STEELK_BINARY").is_err() {
        bombs();
    }
}

/// The middle, the ninety-fifth of a hundred, the ninety-ninth and the worst, milliseconds.
fn told(mut times: Vec<Duration>) -> String {
    times.sort();
    let at = |share: f64| times[((times.len() - 1) as f64 * share) as usize].as_secs_f64() * 1e3;
    format!("median {:.1} ms, 95 % {:.1}, 99 % {:.1}, worst {:.1}", at(0.5), at(0.95), at(0.99), at(1.0))
}

fn piece(mark: &str, width: usize) -> Value {
    let mut piece = demo_piece();
    piece["mark"] = json!(mark);
    piece["title"] = json!(format!("width {width}"));
    piece["variants"] = json!([]);
    piece
}

/// A keep-alive client, as a browser is.
struct User(ureq::Agent);

impl User {
    fn new() -> User {
        User(ureq::Agent::config_builder().http_status_as_error(false).build().into())
    }

    fn ask(&self, method: &str, url: &str, body: Option<&Value>) -> (u16, Value) {
        let request = ureq::http::Request::builder().method(method).uri(url).header("content-type", "application/json");
        let mut reply = match body {
            Some(body) => self.0.run(request.body(body.to_string()).unwrap()).unwrap(),
            None => self.0.run(request.body(()).unwrap()).unwrap(),
        };
        let text = reply.body_mut().with_config().limit(64 << 20).read_to_vec().unwrap();
        (reply.status().as_u16(), serde_json::from_slice(&text).unwrap_or_default())
    }
}

fn users(count: usize, during: Duration, pause: Duration) {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    let times: [Mutex<Vec<Duration>>; 3] = Default::default();
    std::thread::scope(|scope| {
        for user in 0..count {
            let (url, times) = (format!("{}/api", server.url), &times);
            scope.spawn(move || {
                let own = User::new();
                let timed = |at: usize, method: &str, path: &str, body: Option<&Value>, wanted: u16| {
                    let begun = Instant::now();
                    let (status, answer) = own.ask(method, &format!("{url}{path}"), body);
                    times[at].lock().unwrap().push(begun.elapsed());
                    assert_eq!(status, wanted, "{method} {path}: {answer}");
                    answer
                };
                let mark = format!("U-{user}");
                let made =
                    own.ask("POST", &format!("{url}/jobs/1/pieces"), Some(&json!({"document": piece(&mark, 0)}))).1;
                let (id, mut version) = (made["id"].as_i64().unwrap(), 1);
                // Not all at the same moment.
                std::thread::sleep(pause * user as u32 / count as u32);
                let until = Instant::now() + during;
                let mut turn = 0;
                while Instant::now() < until {
                    turn += 1;
                    let document = piece(&mark, turn);
                    timed(0, "POST", "/build", Some(&json!({"document": document})), 200);
                    let body = json!({"version": version, "document": document});
                    version = timed(1, "PUT", &format!("/pieces/{id}"), Some(&body), 200)["version"].as_i64().unwrap();
                    if turn % 10 == user % 10 {
                        timed(2, "GET", "/jobs/1", None, 200);
                    }
                    // Somebody who reads what came back before the next keystroke.
                    std::thread::sleep(pause);
                }
            });
        }
    });
    println!("{count} users for {} s, each with {} s between edits:", during.as_secs(), pause.as_secs_f64());
    for (name, times) in ["edits", "saves", "looks at the job"].iter().zip(times) {
        let times = times.into_inner().unwrap();
        println!("  {} {name}: {}", times.len(), told(times));
    }
}

/// How long an edit takes while bombs run: twenty heavy requests that nobody waits for, eight that somebody does, files
/// that stand for more than there is.
fn bombs() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    let host = server.url.trim_start_matches("http://").to_string();
    let edit = |own: &User| {
        let begun = Instant::now();
        let (status, _) =
            own.ask("POST", &format!("{}/api/build", server.url), Some(&json!({"document": demo_piece()})));
        assert_eq!(status, 200);
        begun.elapsed()
    };
    let user = User::new();
    let edits = |most: Duration| -> Vec<Duration> {
        let until = Instant::now() + most;
        let mut times = Vec::new();
        while Instant::now() < until {
            times.push(edit(&user));
        }
        times
    };
    println!("an edit alone: {}", told(edits(Duration::from_secs(2))));
    let body = json!({"document": perforated("H-1", "7 mm")}).to_string();
    let begin = |path: &str| {
        let mut stream = TcpStream::connect(&host).unwrap();
        let kind = "Content-Type: application/json\r\n";
        let head =
            format!("POST {path} HTTP/1.1\r\nHost: {host}\r\n{kind}Content-Length: {}\r\n\r\n{body}", body.len());
        stream.write_all(head.as_bytes()).unwrap();
        stream
    };
    let left: Vec<TcpStream> = (0..20).map(|_| begin("/api/cutting")).collect();
    let mut times = edits(Duration::from_secs(1));
    drop(left);
    times.extend(edits(Duration::from_secs(3)));
    println!("an edit while twenty heavy pieces are asked for and left: {}", told(times));
    std::thread::scope(|scope| {
        let crowd: Vec<_> = (0..8)
            .map(|_| {
                let (url, body) =
                    (format!("{}/api/cutting", server.url), json!({"document": perforated("H-1", "7 mm")}));
                scope.spawn(move || {
                    let begun = Instant::now();
                    assert_eq!(User::new().ask("POST", &url, Some(&body)).0, 200);
                    begun.elapsed()
                })
            })
            .collect();
        println!("an edit while eight heavy pieces are waited for: {}", told(edits(Duration::from_secs(5))));
        let waits = crowd.into_iter().map(|one| one.join().unwrap()).collect();
        println!("  those: {}", told(waits));
    });
    let hostile = root().join("crates/formats/tests/hostile");
    std::thread::scope(|scope| {
        for name in ["bomb-deep.dxf", "bomb-empty.dxf", "bomb-text.dxf"] {
            for _ in 0..4 {
                let (url, bytes) =
                    (format!("{}/api/outline?name=a.dxf", server.url), std::fs::read(hostile.join(name)).unwrap());
                scope.spawn(move || {
                    for _ in 0..5 {
                        assert_eq!(
                            ask("POST", &url, &[("content-type", "application/octet-stream")], Some(bytes.clone()))
                                .unwrap()
                                .status,
                            422
                        );
                    }
                });
            }
        }
        println!("an edit while files that unfold are read: {}", told(edits(Duration::from_secs(2))));
    });
}
