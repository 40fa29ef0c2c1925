//! Saves, stale saves, undo and redo, restoring, removal.

use steelk_store::{Mark, NewJob, NewPiece, Picture, Slot, Store, StoreError, WholeRevision};

fn no_marks(_: &str) -> Vec<Mark> {
    Vec::new()
}

/// Documents of these tests are their own marks, one a word; case does not count.
fn words(document: &str) -> Vec<Mark> {
    document.split_whitespace().map(|word| Mark { text: word.into(), key: word.to_lowercase() }).collect()
}

fn with_piece() -> (Store, i64, i64) {
    let mut store = Store::in_memory(no_marks).unwrap();
    let job = store.add_job("TS-104", "Launching trolley", None).unwrap();
    let piece = store.add_piece(job.id, "one", "made").unwrap();
    (store, job.id, piece.id)
}

#[test]
fn a_save_is_a_revision_and_a_stale_one_is_refused_with_both_versions() {
    let (mut store, _, piece) = with_piece();
    let saved = store.save_piece(piece, 1, "two", "edit").unwrap();
    assert_eq!((saved.version, saved.document.as_str()), (2, "two"));
    let refused = store.save_piece(piece, 1, "other", "edit").unwrap_err();
    assert!(matches!(refused, StoreError::Stale { yours: 1, current: 2 }), "{refused}");
    assert_eq!(store.piece(piece).unwrap().document, "two");
}

#[test]
fn undo_and_redo_walk_the_edits_and_a_new_edit_drops_what_was_undone() {
    let (mut store, _, piece) = with_piece();
    store.save_piece(piece, 1, "two", "").unwrap();
    store.save_piece(piece, 2, "three", "").unwrap();
    let back = store.undo(piece, 3).unwrap();
    assert_eq!((back.document.as_str(), back.can_undo, back.can_redo), ("two", true, true));
    let back = store.undo(piece, 4).unwrap();
    assert_eq!((back.document.as_str(), back.can_undo, back.can_redo), ("one", false, true));
    assert!(matches!(store.undo(piece, 5), Err(StoreError::Nothing("undo"))));
    let forth = store.redo(piece, 5).unwrap();
    assert_eq!(forth.document, "two");
    let forth = store.redo(piece, 6).unwrap();
    assert_eq!((forth.document.as_str(), forth.can_redo), ("three", false));
    let back = store.undo(piece, 7).unwrap();
    let edit = store.save_piece(piece, back.version, "four", "").unwrap();
    assert!(!edit.can_redo);
    let back = store.undo(piece, edit.version).unwrap();
    assert_eq!(back.document, "two");
    assert_eq!(store.redo(piece, back.version).unwrap().document, "four");
    // Nothing was lost on the way: every state is still a revision.
    assert_eq!(store.revision(piece, 3).unwrap(), "three");
}

#[test]
fn an_old_revision_comes_back_as_an_edit_that_can_be_undone() {
    let (mut store, _, piece) = with_piece();
    store.save_piece(piece, 1, "two", "").unwrap();
    let restored = store.restore_revision(piece, 2, 1).unwrap();
    assert_eq!((restored.document.as_str(), restored.version), ("one", 3));
    assert_eq!(store.undo(piece, 3).unwrap().document, "two");
    assert!(matches!(store.restore_revision(piece, 4, 99), Err(StoreError::Missing { .. })));
    assert_eq!(store.revisions(piece).unwrap().len(), 4);
}

#[test]
fn pieces_and_jobs_are_taken_out_and_put_back() {
    let (mut store, job, piece) = with_piece();
    store.set_piece_removed(piece, true).unwrap();
    assert!(store.pieces(job).unwrap().is_empty());
    store.set_piece_removed(piece, false).unwrap();
    assert_eq!(store.pieces(job).unwrap().len(), 1);
    store.set_job_removed(job, true).unwrap();
    assert!(store.jobs().unwrap().is_empty());
    assert!(store.job(job).unwrap().removed);
    store.set_job_removed(job, false).unwrap();
    assert_eq!(store.jobs().unwrap().len(), 1);
    assert!(store.log(job, 100).unwrap().len() >= 5);
}

#[test]
fn a_job_changed_in_between_is_refused() {
    let (mut store, job, _) = with_piece();
    let changed = store.change_job(job, 1, "TS-105", "Other", Some("2026-12-01")).unwrap();
    assert_eq!(changed.version, 2);
    assert!(matches!(store.change_job(job, 1, "X", "Y", None), Err(StoreError::Stale { yours: 1, current: 2 })));
    assert!(matches!(store.job(999), Err(StoreError::Missing { what: "job", id: 999 })));
}

#[test]
fn a_picture_is_kept_and_replaced() {
    let (mut store, _, piece) = with_piece();
    assert!(matches!(store.picture(piece, Slot::Drawing), Err(StoreError::Missing { .. })));
    let picture = |byte| Picture { kind: "image/png".into(), bytes: vec![byte; 3] };
    store.put_picture(piece, Slot::Drawing, &picture(1)).unwrap();
    store.put_picture(piece, Slot::Drawing, &picture(2)).unwrap();
    assert_eq!(store.picture(piece, Slot::Drawing).unwrap(), picture(2));
    assert!(store.piece(piece).unwrap().has_picture);
    // What was there before is kept, and may be put in again.
    let past = |store: &Store, slot| -> Vec<i64> {
        store.past_pictures(piece, slot).unwrap().iter().map(|one| one.number).collect()
    };
    assert_eq!((past(&store, Slot::Drawing), past(&store, Slot::Photo)), (vec![1], vec![]));
    let first = store.past_picture(piece, Slot::Drawing, 1).unwrap();
    assert_eq!(first, picture(1));
    store.put_picture(piece, Slot::Drawing, &first).unwrap();
    assert_eq!(store.past_picture(piece, Slot::Drawing, 2).unwrap(), picture(2));
    assert_eq!(past(&store, Slot::Drawing), [2, 1]);
    assert!(matches!(store.past_picture(piece, Slot::Photo, 1), Err(StoreError::Missing { .. })));
    assert!(matches!(store.past_pictures(999, Slot::Photo), Err(StoreError::Missing { .. })));
}

#[test]
fn a_shops_table_is_kept_with_those_before_it() {
    let mut store = Store::in_memory(no_marks).unwrap();
    for (version, text) in ["one", "two", "three"].iter().enumerate() {
        assert_eq!(store.put_shop_table("cutters", version as i64, text).unwrap(), version as i64 + 1);
    }
    assert!(matches!(store.put_shop_table("cutters", 1, "late"), Err(StoreError::Stale { yours: 1, current: 3 })));
    let past = store.past_shop_tables("cutters").unwrap();
    assert_eq!(past.iter().map(|one| (one.version, one.text.as_str())).collect::<Vec<_>>(), [(2, "two"), (1, "one")]);
    assert_eq!(store.shop_table("cutters").unwrap().unwrap().text, "three");
    assert!(store.past_shop_tables("bend_tables").unwrap().is_empty());
}

/// A database that may grow no further, as on a full disk: what does not fit is refused in words, and nothing of it is there.
#[test]
fn a_full_disk_is_said_and_loses_nothing() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("steelk.db");
    let mut store = Store::open(&path, no_marks).unwrap();
    let job = store.add_job("TS-1", "Full", None).unwrap().id;
    let piece = store.add_piece(job, "first", "made").unwrap().id;
    store.limit_pages(60).unwrap();
    let large = "x".repeat(20_000);
    let mut kept = 1;
    let refused = loop {
        match store.save_piece(piece, kept, &large, "edit") {
            Ok(row) => kept = row.version,
            Err(fault) => break fault,
        }
        assert!(kept < 100, "60 pages held {kept} texts of 20 kB");
    };
    assert!(matches!(refused, StoreError::Full) && refused.to_string().contains("make room"), "{refused}");
    let whole = NewJob {
        number: "2".into(),
        pieces: vec![NewPiece { document: large, ..NewPiece::default() }],
        ..NewJob::default()
    };
    assert!(matches!(store.add_whole_job(&whole), Err(StoreError::Full)));
    assert_eq!((store.piece(piece).unwrap().version, store.jobs().unwrap().len()), (kept, 1));
    assert_eq!(store.integrity().unwrap(), "ok");
    store.limit_pages(6000).unwrap();
    assert_eq!(store.save_piece(piece, kept, "small", "edit").unwrap().version, kept + 1);
}

/// With its revisions a piece undoes and redoes elsewhere as it would have here.
#[test]
fn a_piece_goes_elsewhere_with_its_history() {
    let (mut store, job, piece) = with_piece();
    for (version, document) in [(1, "two"), (2, "three")] {
        store.save_piece(piece, version, document, "edit").unwrap();
    }
    store.undo(piece, 3).unwrap();
    store.undo(piece, 4).unwrap();
    store.redo(piece, 5).unwrap();
    store.restore_revision(piece, 6, 1).unwrap();
    store.undo(piece, 7).unwrap();
    let revisions = store.whole_revisions(piece).unwrap();
    let document = store.piece(piece).unwrap().document;
    let job_with = |revisions: Vec<WholeRevision>| NewJob {
        number: "2".into(),
        pieces: vec![NewPiece { document: document.clone(), revisions, ..NewPiece::default() }],
        ..NewJob::default()
    };
    let made = store.add_whole_job(&job_with(revisions.clone())).unwrap();
    let other = store.pieces(made.id).unwrap()[0].id;
    assert_eq!(store.whole_revisions(other).unwrap(), revisions);
    // Both walk on alike, to the first revision and back.
    let mut version = revisions.len() as i64;
    for step in ["undo", "redo", "redo", "undo", "undo", "undo", "redo"] {
        let take = |store: &mut Store, id| match step {
            "undo" => store.undo(id, version),
            _ => store.redo(id, version),
        };
        let both = [piece, other]
            .map(|id| take(&mut store, id).map(|row| (row.document, row.version, row.can_undo, row.can_redo)));
        let [one, two] = both.map(|own| own.map_err(|fault| fault.to_string()));
        assert_eq!(one, two, "{step} at {version}");
        version += i64::from(one.is_ok());
    }
    // What no saves could have made is refused, and nothing of it is there.
    type Spoil = fn(&mut Vec<WholeRevision>);
    let spoilt: [Spoil; 9] = [
        |all| all[1].number = 7,
        |all| all[2].parent = Some(3),
        |all| all[3].origin = 4,
        |all| all[3].document = "other".into(),
        |all| all[1].action = "made".into(),
        |all| all[1].action = "dreamt".into(),
        |all| all[1].parent = None,
        |all| drop(all.pop()),
        |all| drop(all.remove(0)),
    ];
    for (at, spoil) in spoilt.iter().enumerate() {
        let mut wrong = revisions.clone();
        spoil(&mut wrong);
        let refused = store.add_whole_job(&job_with(wrong));
        assert!(matches!(refused, Err(StoreError::History { .. })), "{at}: {refused:?}");
    }
    assert_eq!(store.jobs().unwrap().iter().map(|one| one.id).collect::<Vec<_>>(), [job, made.id]);
}

#[test]
fn a_file_survives_being_closed_and_is_sound() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("steelk.db");
    let mut store = Store::open(&path, no_marks).unwrap();
    let job = store.add_job("TS-104", "Trolley", None).unwrap();
    store.add_piece(job.id, "one", "made").unwrap();
    drop(store);
    let store = Store::open(&path, no_marks).unwrap();
    assert_eq!(store.pieces(job.id).unwrap()[0].document, "one");
    assert_eq!(store.integrity().unwrap(), "ok");
}

/// Whichever way a mark comes back, it is refused where another piece has it by then, and nothing is changed.
#[test]
fn no_two_pieces_of_a_job_have_marks_that_look_alike() {
    let mut store = Store::in_memory(words).unwrap();
    let job = store.add_job("TS-104", "Trolley", None).unwrap().id;
    let other_job = store.add_job("TS-105", "Other", None).unwrap().id;
    let taken = |result: Result<_, StoreError>| match result {
        Err(StoreError::Taken { mark, other }) => (mark, other),
        Err(fault) => panic!("{fault}"),
        Ok(_) => panic!("two alike"),
    };
    let one = store.add_piece(job, "A-1 A-1L", "made").unwrap().id;
    store.add_piece(other_job, "A-1", "made").unwrap();
    assert_eq!(taken(store.add_piece(job, "a-1l", "made").map(drop)), ("a-1l".into(), "A-1L".into()));
    assert_eq!(store.pieces(job).unwrap().len(), 1, "what was refused left nothing");
    let two = store.add_piece(job, "B-1", "made").unwrap().id;
    taken(store.save_piece(two, 1, "A-1", "edit").map(drop));
    assert_eq!(store.piece(two).unwrap().version, 1);
    // A mark given up can be taken, and then not undone to.
    store.save_piece(one, 1, "C-1", "edit").unwrap();
    store.save_piece(two, 1, "A-1", "edit").unwrap();
    taken(store.undo(one, 2).map(drop));
    taken(store.restore_revision(one, 2, 1).map(drop));
    assert_eq!(store.piece(one).unwrap().document, "C-1");
    // Nor put back, nor redone to.
    store.set_piece_removed(two, true).unwrap();
    store.undo(one, 2).unwrap();
    taken(store.set_piece_removed(two, false));
    assert!(store.piece(two).unwrap().removed);
    store.redo(one, 3).unwrap();
    store.set_piece_removed(two, false).unwrap();
    taken(store.undo(one, 4).map(drop));
    // A piece that is out keeps no mark from others, whatever is done to it.
    store.set_piece_removed(two, true).unwrap();
    store.save_piece(two, 2, "D-1", "edit").unwrap();
    store.add_piece(job, "D-1", "made").unwrap();
}

#[test]
fn whole_jobs_are_made_whole_or_not_at_all() {
    let mut store = Store::in_memory(words).unwrap();
    let piece = |document: &str| NewPiece {
        document: document.into(),
        note: "brought in".into(),
        pictures: vec![(Slot::Photo, Picture { kind: "image/png".into(), bytes: vec![7; 9] })],
        revisions: Vec::new(),
    };
    let job = |pieces: &[&str]| NewJob {
        number: "TS-1".into(),
        title: "Job".into(),
        due: None,
        pieces: pieces.iter().map(|one| piece(one)).collect(),
    };
    assert!(matches!(store.add_whole_job(&job(&["A", "B", "a"])), Err(StoreError::Taken { .. })));
    assert!(matches!(store.lay_out_on_empty(&[job(&["A"]), job(&["B", "B", "b"])]), Err(StoreError::Taken { .. })));
    assert!(store.jobs().unwrap().is_empty(), "half a job was left");
    assert!(store.lay_out_on_empty(&[job(&["A"]), job(&["A", "B"])]).unwrap());
    assert!(!store.lay_out_on_empty(&[job(&["C"])]).unwrap(), "the rack is not empty any more");
    let jobs = store.jobs().unwrap();
    assert_eq!(jobs.iter().map(|job| store.pieces(job.id).unwrap().len()).collect::<Vec<_>>(), [1, 2]);
    let made = store.add_whole_job(&job(&["A", "B"])).unwrap();
    let pieces = store.pieces(made.id).unwrap();
    assert!(pieces.iter().all(|one| one.has_photo && !one.has_picture && !one.can_undo));
    assert_eq!(store.picture(pieces[1].id, Slot::Photo).unwrap().bytes, [7; 9]);
}
