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

/// Files with their own sum in their names are kept for good, and go out as they were packed, to those who read them so; the page
/// itself is asked for again.
#[test]
fn the_front_end_goes_out_packed() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(folder.path(), false);
    let page = get(&server.url);
    assert_eq!(page.headers["cache-control"], "no-cache");
    let text = page.text();
    let script = text.split('"').find(|part| part.starts_with("/assets/") && part.ends_with(".js")).expect("a script");
    let given = |way: &str| {
        let reply = ask("GET", &format!("{}{script}", server.url), &[("accept-encoding", way)], None).unwrap();
        let keep = reply.headers["cache-control"].to_str().unwrap();
        assert!(keep.contains("immutable") && reply.headers["vary"].to_str().unwrap().contains("accept-encoding"));
        let way = reply.headers.get("content-encoding").map(|one| one.to_str().unwrap().to_string());
        (way.unwrap_or_default(), reply.body)
    };
    let on_disk = |end: &str| std::fs::read(root().join(format!("web/dist{script}{end}"))).unwrap();
    let plain = on_disk("");
    for (asked, way, end) in [
        ("gzip, deflate, br", "br", ".br"),
        ("br", "br", ".br"),
        ("gzip", "gzip", ".gz"),
        ("br;q=0, gzip", "gzip", ".gz"),
        ("identity", "", ""),
    ] {
        let (said, body) = given(asked);
        assert_eq!(said, way, "{asked}");
        assert!(body == on_disk(end), "{asked}: {} bytes of {}", body.len(), on_disk(end).len());
        assert!(end.is_empty() || body.len() * 2 < plain.len(), "{asked}: {} of {}", body.len(), plain.len());
    }
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
