//! A schema fuzzer (schemathesis) over every operation of the API: whatever its description allows, and what it does
//! not, is answered as the description says, never with an error of ours.
//!
//! The long run: `STEELK_CASES=100 cargo test --release -p steelk-server --test schema`.

use std::process::Command;
use steelk_testing::root;
use steelk_testing::server::*;

#[test]
fn every_answer_is_one_that_is_described() {
    let cases = std::env::var("STEELK_CASES").unwrap_or("10".into());
    let tool = root().join(".tools/venv/bin/st");
    assert!(tool.exists(), "the schema fuzzer is not installed: run `make setup-test`");
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start_with(folder.path(), true, &["--longest-work", "10"]);
    let run = Command::new(tool)
        .arg("--config-file")
        .arg(root().join("scripts/schemathesis.toml"))
        .arg("run")
        .arg(root().join("docs/openapi.json"))
        .args([
            "--url",
            &server.url,
            "--max-examples",
            &cases,
            "--checks",
            "all",
            "--continue-on-failure",
            "--seed",
            "1",
        ])
        .args(["--phases", if std::env::var("STEELK_CASES").is_ok() { "coverage,fuzzing" } else { "fuzzing" }])
        .args(["--suppress-health-check", "all", "--warnings", "off", "--no-color", "--generation-database", "none"])
        .current_dir(folder.path())
        .output()
        .expect("the schema fuzzer runs");
    let said = String::from_utf8_lossy(&run.stdout);
    assert!(run.status.success(), "{said}\n{}", String::from_utf8_lossy(&run.stderr));
    assert!(said.contains("Tested: "), "nothing was tried:\n{said}");
    assert_eq!(get(&format!("{}/api/health", server.url)).status, 200);
}
