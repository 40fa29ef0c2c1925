//! A running server for tests: the real binary on a free port, ended when dropped.

use std::io::{BufRead as _, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

/// The program under test: the one beside the test's own, or `STEELK_BINARY` to hold another build against it.
fn binary() -> PathBuf {
    if let Ok(other) = std::env::var("STEELK_BINARY") {
        return other.into();
    }
    let own = std::env::current_exe().expect("a test has a file");
    let built = own.parent().and_then(Path::parent).expect("it lies in a folder of what was built").join("steelk");
    assert!(built.exists(), "{} is not built: it is with the tests of the server", built.display());
    built
}

pub struct Server {
    child: Child,
    pub url: String,
}

impl Server {
    pub fn start(data: &Path, demo: bool) -> Server {
        Server::start_with(data, demo, &[])
    }

    pub fn start_with(data: &Path, demo: bool, more: &[&str]) -> Server {
        Server::begin(Command::new(binary()), data, demo, more)
    }

    /// Started by another program that is given the server's own command line.
    pub fn start_under(program: &str, arguments: &[&str], data: &Path, more: &[&str]) -> Server {
        let mut command = Command::new(program);
        command.args(arguments).arg(binary());
        Server::begin(command, data, false, more)
    }

    fn begin(mut command: Command, data: &Path, demo: bool, more: &[&str]) -> Server {
        command.arg("serve").arg("--data").arg(data).args(["--port", "0"]).args(more).stdout(Stdio::piped());
        // The log of a server under test is noise.
        command.stderr(if std::env::var("STEELK_LOG").is_ok() { Stdio::inherit() } else { Stdio::null() });
        if demo {
            command.arg("--demo");
        }
        let mut child = command.spawn().expect("the server starts");
        let mut lines = BufReader::new(child.stdout.take().expect("a pipe")).lines();
        let first = lines.next().expect("a line").expect("readable");
        let url = first.trim_start_matches("Steelk is at ").to_string();
        assert!(url.starts_with("http://127.0.0.1:"), "{first}");
        // Keep the pipe empty, so that the server never waits for us.
        std::thread::spawn(move || lines.for_each(drop));
        Server { child, url }
    }

    /// Memory that it holds now, kB.
    pub fn memory(&self) -> u64 {
        let status = std::fs::read_to_string(format!("/proc/{}/status", self.child.id())).unwrap_or_default();
        let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:"));
        line.and_then(|text| text.trim().trim_end_matches(" kB").parse().ok()).expect("the system tells memory")
    }

    /// SIGKILL: no handler runs, nothing is flushed by the program.
    pub fn kill(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        self.kill();
    }
}

pub fn demo_piece() -> serde_json::Value {
    serde_json::from_str(include_str!("../../../demo/01-winch-bracket.json")).expect("the demo is sound")
}

/// A plate of 1010 by 760 mm full of square holes; some fifteen thousand at a pitch of 7 mm: seconds of work.
pub fn perforated(mark: &str, pitch: &str) -> serde_json::Value {
    serde_json::json!({"steelk": 1, "kind": "plate", "mark": mark, "title": "heavy", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275", "thickness": "3 mm"}, "operations": [
            {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "1010 mm", "depth": "760 mm"}}}}},
            {"name": "perf", "do": {"cut": {"panel": "base", "outline": {"rectangle": {"width": "4 mm", "depth": "4 mm"}},
                "pattern": {"fill": {"rows": "square", "pitch": pitch, "margin": "3 mm"}}}}}]})
}

pub struct Reply {
    pub status: u16,
    pub headers: ureq::http::HeaderMap,
    pub body: Vec<u8>,
}

impl Reply {
    pub fn json(&self) -> serde_json::Value {
        serde_json::from_slice(&self.body)
            .unwrap_or_else(|_| panic!("no JSON: {}", String::from_utf8_lossy(&self.body)))
    }

    pub fn text(&self) -> String {
        String::from_utf8_lossy(&self.body).into_owned()
    }

    pub fn kind(&self) -> &str {
        self.headers["content-type"].to_str().expect("plain text")
    }
}

/// One request; any status is an answer.
pub fn ask(method: &str, url: &str, headers: &[(&str, &str)], body: Option<Vec<u8>>) -> Result<Reply, ureq::Error> {
    let agent: ureq::Agent = ureq::Agent::config_builder().http_status_as_error(false).build().into();
    let mut request = ureq::http::Request::builder().method(method).uri(url);
    for (name, value) in headers {
        request = request.header(*name, *value);
    }
    let mut reply = match body {
        Some(body) => {
            if !headers.iter().any(|(name, _)| name.eq_ignore_ascii_case("content-type")) {
                request = request.header("content-type", "application/json");
            }
            agent.run(request.body(body).expect("a request"))?
        }
        None => agent.run(request.body(()).expect("a request"))?,
    };
    let body = reply.body_mut().with_config().limit(64 * 1024 * 1024).read_to_vec()?;
    Ok(Reply { status: reply.status().as_u16(), headers: reply.headers().clone(), body })
}

pub fn get(url: &str) -> Reply {
    ask("GET", url, &[], None).expect("an answer")
}

pub fn send(method: &str, url: &str, body: &serde_json::Value) -> Reply {
    ask(method, url, &[], Some(body.to_string().into_bytes())).expect("an answer")
}

/// The jobs on the first page of the rack.
pub fn rack(server: &Server) -> Vec<serde_json::Value> {
    let answer = get(&format!("{}/api/jobs", server.url)).json();
    answer["jobs"].as_array().unwrap_or_else(|| panic!("no rack: {answer}")).clone()
}

/// A job once all of its pieces are worked out.
pub fn settled(server: &Server, job: i64) -> serde_json::Value {
    let until = std::time::Instant::now() + std::time::Duration::from_secs(120);
    loop {
        let told = get(&format!("{}/api/jobs/{job}", server.url)).json();
        if told["job"]["waiting"] == 0 {
            return told;
        }
        assert!(std::time::Instant::now() < until, "it is still being worked out: {}", told["job"]);
        std::thread::sleep(std::time::Duration::from_millis(100));
    }
}
