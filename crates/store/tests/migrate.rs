//! Databases of every version that there was, laid down by the steps of their time and filled as they were filled then,
//! are brought up to date with nothing lost.

use rusqlite::Connection;
use steelk_store::{Among, Mark, Slot, Store, StoreError};

/// What each version added, as it is in the sources. A step is never changed once it is out.
const STEPS: [&str; 5] = [
    include_str!("../src/sql/001_jobs.sql"),
    include_str!("../src/sql/002_shop.sql"),
    include_str!("../src/sql/003_marks.sql"),
    include_str!("../src/sql/004_history.sql"),
    include_str!("../src/sql/005_summaries.sql"),
];

/// Two jobs; in the first A with an edit that was undone, B, a b that looks like it, a C that was taken out; in the second A.
const ROWS: &str = "
    INSERT INTO jobs (id, number, title, due) VALUES (1, 'TS-104', 'Launching trolley', '2026-12-18');
    INSERT INTO jobs (id, number, title, version, removed) VALUES (2, 'TS-107', 'Resin bench', 3, 1);
    INSERT INTO pieces (id, job_id, head, removed) VALUES (1, 1, 3, 0), (2, 1, 1, 0), (3, 1, 1, 0), (4, 1, 1, 1), (5, 2, 1, 0);
    INSERT INTO revisions (piece_id, number, document, action, origin, parent, note) VALUES
        (1, 1, 'A', 'made', 1, NULL, 'made A'), (1, 2, 'A wide', 'edited', 2, 1, 'wider'),
        (1, 3, 'A', 'undone', 1, NULL, ''), (2, 1, 'B', 'made', 1, NULL, ''), (3, 1, 'b', 'made', 1, NULL, ''),
        (4, 1, 'C', 'made', 1, NULL, ''), (5, 1, 'A', 'made', 1, NULL, '');
    INSERT INTO pictures (piece_id, kind, bytes) VALUES (2, 'image/png', x'01020304');
    INSERT INTO log (job_id, piece_id, what) VALUES (1, NULL, 'made job TS-104'), (1, 1, 'made A');";

/// The first word of a document is its mark; case does not count.
fn first_word(document: &str) -> Vec<Mark> {
    document.split_whitespace().take(1).map(|word| Mark { text: word.into(), key: word.to_lowercase() }).collect()
}

fn laid_down(path: &std::path::Path, version: usize) {
    let raw = Connection::open(path).unwrap();
    for step in &STEPS[..version] {
        raw.execute_batch(step).unwrap();
    }
    raw.execute_batch(ROWS).unwrap();
    if version >= 3 {
        raw.execute_batch(
            "INSERT INTO marks (job_id, key, mark, piece_id) VALUES (1, 'a', 'A', 1), (1, 'b', 'B', 2), (2, 'a', 'A', 5);",
        )
        .unwrap();
    }
    raw.pragma_update(None, "user_version", version as i64).unwrap();
}

#[test]
fn every_version_is_brought_up_to_date_with_all_that_is_in_it() {
    for version in 1..=STEPS.len() {
        let folder = tempfile::tempdir().unwrap();
        let path = folder.path().join("steelk.db");
        laid_down(&path, version);
        let mut store = Store::open(&path, first_word).unwrap();
        assert_eq!((store.is_older().unwrap(), store.integrity().unwrap().as_str()), (None, "ok"), "version {version}");
        let jobs: Vec<_> = store
            .all_jobs()
            .unwrap()
            .into_iter()
            .map(|job| (job.number, job.title, job.due, job.version, job.removed))
            .collect();
        assert_eq!(
            jobs,
            [
                ("TS-104".into(), "Launching trolley".into(), Some("2026-12-18".into()), 1, false),
                ("TS-107".into(), "Resin bench".into(), None, 3, true),
            ],
            "version {version}"
        );
        let pieces: Vec<_> = store
            .all_pieces(1)
            .unwrap()
            .into_iter()
            .map(|one| (one.document, one.version, one.can_undo, one.can_redo, one.removed, one.has_picture))
            .collect();
        let plain = |document: &str| (document.to_string(), 1, false, false, false, false);
        let (with_picture, taken_out) =
            (("B".into(), 1, false, false, false, true), ("C".into(), 1, false, false, true, false));
        assert_eq!(pieces, [("A".into(), 3, false, true, false, false), with_picture, plain("b"), taken_out]);
        assert_eq!(store.redo(1, 3).unwrap().document, "A wide");
        assert_eq!(store.picture(2, Slot::Drawing).unwrap().bytes, [1, 2, 3, 4]);
        // The redo is the newest line; those of before follow.
        let log: Vec<String> = store.log(1, 9).unwrap().into_iter().map(|line| line.what).collect();
        assert_eq!(log[1..], ["made A", "made job TS-104"]);
        // Nothing was worked out of it yet.
        assert_eq!(store.behind(Among::Job(1), "now").unwrap().pieces, [1, 2, 3]);
        assert_eq!((store.figures(1, "now").unwrap().pieces, store.figures(1, "now").unwrap().waiting), (3, 3));
    }
}

/// From before marks were kept all are taken; of two alike the older piece has it, and the other says so when it is saved.
#[test]
fn marks_of_an_older_database_are_taken_when_it_is_opened() {
    for version in [1, 2] {
        let folder = tempfile::tempdir().unwrap();
        let path = folder.path().join("steelk.db");
        laid_down(&path, version);
        let mut store = Store::open(&path, first_word).unwrap();
        assert!(matches!(store.add_piece(1, "a", "made"), Err(StoreError::Taken { .. })));
        assert!(matches!(store.save_piece(3, 1, "b", "edit"), Err(StoreError::Taken { .. })));
        store.save_piece(3, 1, "b2", "edit").unwrap();
        store.save_piece(2, 1, "B", "edit").unwrap();
        // Out of its job it has none.
        store.add_piece(1, "C", "made").unwrap();
        assert!(matches!(store.set_piece_removed(4, false), Err(StoreError::Taken { .. })));
        assert!(store.piece(4).unwrap().removed, "what is refused changes nothing");
    }
}

#[test]
fn a_database_of_a_later_steelk_is_left_as_it_is() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("steelk.db");
    laid_down(&path, STEPS.len());
    let later = STEPS.len() as i64 + 1;
    Connection::open(&path).unwrap().pragma_update(None, "user_version", later).unwrap();
    let before = std::fs::read(&path).unwrap();
    let known = STEPS.len() as i64;
    let is_newer = |opened: Result<Store, StoreError>| matches!(opened.err(), Some(StoreError::Newer { version, known: own }) if (version, own) == (later, known));
    assert!(is_newer(Store::open(&path, first_word)));
    assert!(is_newer(Store::open_to_read(&path, first_word)));
    let tables = |bytes: &[u8]| bytes[100..].to_vec();
    assert_eq!(tables(&std::fs::read(&path).unwrap()), tables(&before));
}
