//! Several who save at once, each with a connection of their own: every save is kept or refused, none is lost.

use std::sync::Barrier;

use steelk_store::{Mark, Store, StoreError};

fn words(document: &str) -> Vec<Mark> {
    document.split_whitespace().map(|word| Mark { text: word.into(), key: word.to_lowercase() }).collect()
}

const PEOPLE: usize = 4;
const TURNS: usize = 20;

#[test]
fn of_saves_made_from_one_version_one_is_kept_and_the_others_are_told_which() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("steelk.db");
    let mut store = Store::open(&path, |_| Vec::new()).unwrap();
    let job = store.add_job("TS-104", "Launching trolley", None).unwrap().id;
    let piece = store.add_piece(job, "first", "").unwrap().id;
    let together = Barrier::new(PEOPLE);
    // What each of them was told: the version they saved from, their words, and how it went.
    let told: Vec<(i64, String, Result<i64, i64>)> = std::thread::scope(|scope| {
        let people: Vec<_> = (0..PEOPLE)
            .map(|person| {
                let (path, together) = (&path, &together);
                scope.spawn(move || {
                    let mut own = Store::open(path, |_| Vec::new()).unwrap();
                    let mut told = Vec::new();
                    for turn in 0..TURNS {
                        let from = own.piece(piece).unwrap().version;
                        let words = format!("turn {turn} of {person}");
                        together.wait();
                        let went = match own.save_piece(piece, from, &words, "") {
                            Ok(row) => Ok(row.version),
                            Err(StoreError::Stale { yours, current }) => {
                                assert_eq!(yours, from);
                                Err(current)
                            }
                            Err(other) => panic!("{other}"),
                        };
                        told.push((from, words, went));
                        together.wait();
                    }
                    told
                })
            })
            .collect();
        people.into_iter().flat_map(|person| person.join().unwrap()).collect()
    });
    let kept: Vec<_> = told.iter().filter_map(|(_, words, went)| Some((went.ok()?, words))).collect();
    // Everybody had looked before anybody saved: each turn one of them was first.
    assert_eq!(kept.len(), TURNS);
    for (from, _, went) in &told {
        assert!(went.is_ok_and(|version| version == from + 1) || went.is_err_and(|current| current > *from));
    }
    assert_eq!(store.revisions(piece).unwrap().len(), TURNS + 1);
    for (version, words) in kept {
        assert_eq!(&store.revision(piece, version).unwrap(), words);
    }
}

#[test]
fn of_pieces_of_one_mark_made_at_once_one_is_made() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("steelk.db");
    let mut store = Store::open(&path, words).unwrap();
    let job = store.add_job("TS-104", "Launching trolley", None).unwrap().id;
    let together = Barrier::new(PEOPLE);
    let made: usize = std::thread::scope(|scope| {
        let people: Vec<_> = (0..PEOPLE)
            .map(|_| {
                scope.spawn(|| {
                    let mut own = Store::open(&path, words).unwrap();
                    (0..TURNS)
                        .filter(|turn| {
                            together.wait();
                            match own.add_piece(job, &format!("P-{turn:02}"), "") {
                                Ok(_) => true,
                                // The other was first, or was writing when we had read.
                                Err(StoreError::Taken { .. } | StoreError::Held) => false,
                                Err(other) => panic!("{other}"),
                            }
                        })
                        .count()
                })
            })
            .collect();
        people.into_iter().map(|person| person.join().unwrap()).sum()
    });
    let mut marks: Vec<String> = store.pieces(job).unwrap().into_iter().map(|row| row.document).collect();
    marks.sort();
    marks.dedup();
    assert_eq!((marks.len(), store.pieces(job).unwrap().len()), (made, made));
    assert_eq!(made, TURNS);
}

/// The bin: what was taken out of a job or off the rack is out of every list, keeps all it has, and comes back once there
/// is room for its mark.
#[test]
fn what_is_in_the_bin_is_in_no_list_and_comes_back_whole() {
    let mut store = Store::in_memory(words).unwrap();
    let job = store.add_job("TS-104", "Launching trolley", None).unwrap().id;
    let piece = store.add_piece(job, "P-01", "made").unwrap().id;
    store.save_piece(piece, 1, "P-01 wide", "wider").unwrap();
    store.set_piece_removed(piece, true).unwrap();
    assert!(store.pieces(job).unwrap().is_empty() && store.told_pieces(job, "").unwrap().is_empty());
    assert_eq!(store.figures(job, "").unwrap().pieces, 0);
    assert_eq!(store.all_pieces(job).unwrap().len(), 1);
    // Its mark is free while it is out, and it does not come back beside another that has it.
    let other = store.add_piece(job, "p-01", "made").unwrap().id;
    assert!(matches!(store.set_piece_removed(piece, false), Err(StoreError::Taken { .. })));
    store.set_piece_removed(other, true).unwrap();
    store.set_piece_removed(piece, false).unwrap();
    let back = store.piece(piece).unwrap();
    assert_eq!((back.document.as_str(), back.version, back.can_undo, back.removed), ("P-01 wide", 2, true, false));

    store.set_job_removed(job, true).unwrap();
    assert!(store.jobs().unwrap().is_empty());
    assert_eq!(store.rack(&steelk_store::RackPage { most: 9, ..Default::default() }, "").unwrap().all, 0);
    store.set_job_removed(job, false).unwrap();
    assert_eq!(store.jobs().unwrap().len(), 1);
    assert_eq!(store.piece(piece).unwrap().document, "P-01 wide");
    for missing in [store.set_piece_removed(99, true), store.set_job_removed(99, true)] {
        assert!(matches!(missing, Err(StoreError::Missing { id: 99, .. })));
    }
}
