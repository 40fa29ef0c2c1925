//! The reference libraries: scripts of `scripts/` that read a line or files and answer a line of JSON each. They share no
//! code with what they judge.

use std::ffi::OsStr;
use std::io::Write as _;
use std::process::{Command, Stdio};

use serde_json::Value;

use crate::root;

/// Runs a script and reads its answers, a line of JSON each; what it says when it fails is shown.
#[track_caller]
pub fn answers<A: AsRef<OsStr>>(script: &str, arguments: impl IntoIterator<Item = A>, input: &str) -> Vec<Value> {
    let python = root().join(".tools/venv/bin/python");
    assert!(python.exists(), "the reference libraries are not installed: run `make setup-test`");
    let mut run = Command::new(python)
        .arg(root().join("scripts").join(script))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap_or_else(|fault| panic!("{script} cannot be run: {fault}"));
    let mut questions = run.stdin.take().expect("a pipe");
    let answered = std::thread::scope(|scope| {
        // Beside the reading, so that neither waits for the other; one that reads nothing may be gone already.
        scope.spawn(move || questions.write_all(input.as_bytes()));
        run.wait_with_output()
    });
    let output = answered.unwrap_or_else(|fault| panic!("{script}: {fault}"));
    assert!(output.status.success(), "{script}: {}", String::from_utf8_lossy(&output.stderr));
    String::from_utf8_lossy(&output.stdout)
        .lines()
        .map(|line| serde_json::from_str(line).unwrap_or_else(|fault| panic!("{script} said {line:?}: {fault}")))
        .collect()
}

/// As [`answers`], of files alone.
#[track_caller]
pub fn judged<A: AsRef<OsStr>>(script: &str, files: impl IntoIterator<Item = A>) -> Vec<Value> {
    answers(script, files, "")
}
