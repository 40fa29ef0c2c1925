//! Machine files of random frames on the simulated saw and drill line: what comes off is what the list says, or there
//! is no file and the reason is said. The line reads the file's text alone and shares no code with its writer.

use serde_json::Value;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::release::ready;
use steelk_core::stock::Workshop;
use steelk_server::audited::audited;
use steelk_server::saw_line::saw_runs;
use steelk_testing::trials;

fn piece(document: &Value) -> Piece {
    Piece::read(document.to_string().as_bytes()).unwrap()
}

/// Paths in space, chords with braces, and ready frames.
fn documents() -> impl Iterator<Item = (u64, Value)> {
    let families = [trials::frame, trials::joints, trials::ready];
    (0..trials::cases(200)).map(move |seed| (seed, families[(seed / 4 % 3) as usize](seed)))
}

#[test]
fn random_frames_come_off_the_line_as_listed() {
    let (mut frames, mut files, mut without) = (0, 0, 0);
    for (seed, document) in documents() {
        let piece = piece(&document);
        let outcome = evaluate(&piece, Options::default());
        if ready(&piece, &outcome).is_err() {
            continue;
        }
        frames += 1;
        for run in saw_runs(&piece, &outcome).unwrap() {
            assert!(!run.words.is_empty());
            if run.has_file {
                assert!(run.good, "seed {seed}, {}: {}\n{document}", run.mark, run.words);
                files += 1;
            } else {
                without += 1;
            }
        }
    }
    println!("{frames} frames, {files} machine files, {without} pieces without one");
    assert!(frames > 50 && files > 50);
}

#[test]
fn what_stands_before_a_file_holds_for_random_frames() {
    for (seed, document) in documents().filter(|(seed, _)| seed % 4 == 0) {
        let piece = piece(&document);
        let outcome = audited(&piece, Workshop::default());
        if outcome.findings.iter().all(|one| one.severity != steelk_core::finding::Severity::Error) {
            assert_eq!(outcome.audit.faults(), Vec::<String>::new(), "seed {seed}: {document}");
        }
    }
}
