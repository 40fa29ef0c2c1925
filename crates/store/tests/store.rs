//! Saves, stale saves, undo and redo, restoring, removal.

use steelk_store::{Picture, Slot, Store, StoreError};

fn with_piece() -> (Store, i64, i64) {
    let mut store = Store::in_memory().unwrap();
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
}

#[test]
fn a_file_survives_being_closed_and_is_sound() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("steelk.db");
    let mut store = Store::open(&path).unwrap();
    let job = store.add_job("TS-104", "Trolley", None).unwrap();
    store.add_piece(job.id, "one", "made").unwrap();
    drop(store);
    let store = Store::open(&path).unwrap();
    assert_eq!(store.pieces(job.id).unwrap()[0].document, "one");
    assert_eq!(store.integrity().unwrap(), "ok");
}
