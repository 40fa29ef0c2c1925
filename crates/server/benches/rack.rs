//! A design office's rack: 2,000 jobs with 100,000 pieces, looked at, searched, sorted and opened.
//!
//! `cargo bench -p steelk-server --bench rack`; STEELK_PIECES and STEELK_JOBS for another size. Figures are printed; what
//! is told is held in `tests/summaries.rs` and in the store's own tests.

use std::process::Command;
use std::time::{Duration, Instant};
use steelk_testing::server::*;

/// How often each is asked.
const TIMES: usize = 60;

fn size(name: &str, otherwise: usize) -> usize {
    std::env::var(name).ok().and_then(|text| text.parse().ok()).unwrap_or(otherwise)
}

fn main() {
    // Cargo's test runner builds and starts benches too: there is nothing to assert here.
    if !std::env::args().any(|one| one == "--bench") {
        return;
    }
    let (jobs, pieces) = (size("STEELK_JOBS", 2000), size("STEELK_PIECES", 100_000));
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().join("office");
    let laid = Command::new(env!("CARGO_BIN_EXE_steelk"))
        .args(["office", "--jobs", &jobs.to_string(), "--pieces", &pieces.to_string(), "--data"])
        .arg(&data)
        .status();
    assert!(laid.unwrap().success());
    let begun = Instant::now();
    let server = Server::start_with(&data, false, &["--copies", "0"]);
    println!("{jobs} jobs, {pieces} pieces; the server was there after {:.1} s", begun.elapsed().as_secs_f64());
    let agent = ureq::Agent::new_with_defaults();
    let pages = jobs.div_ceil(50);
    let asked: [(&str, &dyn Fn(usize) -> String); 10] = [
        ("by number, any page", &|at| format!("jobs?from={}", at % pages * 50)),
        ("by title, backwards", &|_| "jobs?sort=title&down=true".into()),
        ("by pieces", &|_| "jobs?sort=pieces".into()),
        ("by mass, any page", &|at| format!("jobs?sort=mass&from={}", at % pages * 50)),
        ("by stage", &|_| "jobs?sort=stage&down=true".into()),
        ("a job's words", &|at| format!("jobs?search=slip%20{at}")),
        ("a piece's mark", &|at| format!("jobs?search=p-0{}", 10 + at % 40)),
        ("words of no job", &|_| "jobs?search=zzz".into()),
        ("two words, by mass", &|_| "jobs?search=winch%20bracket&sort=mass".into()),
        ("one job", &|at| format!("jobs/{}", 1 + at * 31 % jobs)),
    ];
    for (words, path) in asked {
        let mut times: Vec<Duration> = (0..TIMES)
            .map(|at| {
                let url = format!("{}/api/{}", server.url, path(at));
                let begun = Instant::now();
                let mut answer = agent.get(&url).call().unwrap();
                answer.body_mut().with_config().limit(64 << 20).read_to_vec().unwrap();
                begun.elapsed()
            })
            .collect();
        times.sort();
        let at = |share: f64| times[((times.len() - 1) as f64 * share) as usize].as_secs_f64() * 1e3;
        println!("{words:20}: median {:5.1} ms, 95 % {:5.1}, worst {:5.1}", at(0.5), at(0.95), at(1.0));
    }
}
