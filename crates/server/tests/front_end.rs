//! The front end's own checks, and the browser tests, started by Cargo's runner.

use std::process::Command;
use steelk_testing::root;
use steelk_testing::server::*;

/// Runs node on a tool of the repository and returns its output; a failure shows everything it said.
#[track_caller]
fn node(tool: &str, arguments: &[&str], folder: &str, environment: &[(&str, &str)]) -> String {
    let entry = root().join("node_modules").join(tool);
    assert!(entry.exists(), "{tool} is not installed: run `make setup-test`");
    let run = Command::new("node")
        .arg(entry.canonicalize().unwrap())
        .args(arguments)
        .envs(environment.iter().copied())
        .current_dir(root().join(folder).canonicalize().unwrap())
        .output()
        .expect("node runs");
    let said = format!("{}{}", String::from_utf8_lossy(&run.stdout), String::from_utf8_lossy(&run.stderr));
    assert!(run.status.success(), "{tool} failed:\n{said}");
    said
}

#[test]
fn types_and_style_are_sound() {
    node("typescript/bin/tsc", &["--noEmit"], "web", &[]);
    node("typescript/bin/tsc", &["--noEmit"], "e2e", &[]);
    node("eslint/bin/eslint.js", &["src"], "web", &[]);
    let laid_out = ["--check", "web/src", "e2e", "web/vite.config.ts", "web/eslint.config.js"];
    node("prettier/bin/prettier.cjs", &laid_out, ".", &[]);
}

#[test]
fn generated_types_are_fresh() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("schema.d.ts");
    node("openapi-typescript/bin/cli.js", &["../docs/openapi.json", "-o", out.to_str().unwrap()], "web", &[]);
    let read = |path: &std::path::Path| std::fs::read_to_string(path).unwrap();
    assert_eq!(read(&out), read(&root().join("web/src/api/schema.d.ts")), "run `make types`");
}

#[test]
fn unit_tests() {
    let said = node("vitest/vitest.mjs", &["run"], "web", &[("NO_COLOR", "1")]);
    assert!(said.contains("passed"), "{said}");
}

#[test]
fn browser_tests() {
    assert!(std::path::Path::new("/usr/bin/chromium").exists(), "chromium is not installed: run `make setup-test`");
    assert!(root().join("web/dist/index.html").exists(), "the front end is not built: run `make setup-test`");
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), true);
    let said = node("@playwright/test/cli.js", &["test"], "e2e", &[("BASE_URL", &server.url), ("NO_COLOR", "1")]);
    assert!(said.contains(" passed"), "no browser test ran:\n{said}");
}
