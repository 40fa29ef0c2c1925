//! The rack as SQL tells it, against the same told by plain loops over lists; and when a summary is behind.

use proptest::prelude::*;
use steelk_store::{Among, Behind, FoundPiece, NewJob, NewPiece, RackPage, RackSort, Store, Summary};
use steelk_testing::law;

const NOW: &str = "rules of today";

/// A piece as a test makes it.
#[derive(Clone, Debug)]
struct Piece {
    summary: Option<Summary>,
    is_removed: bool,
}

#[derive(Clone, Debug)]
struct Job {
    number: String,
    title: String,
    due: Option<String>,
    is_removed: bool,
    pieces: Vec<Piece>,
}

const WORDS: [&str; 9] = ["Winch", "winch bracket", "Ärm", "TS-9", "ts-104", "proved", "plate 7", "%", "o'clock"];

fn word() -> impl Strategy<Value = String> {
    prop::sample::select(&WORDS[..]).prop_map(String::from)
}

fn summary() -> impl Strategy<Value = Summary> {
    let stamp = prop::sample::select(vec![NOW, NOW, NOW, "rules of yesterday"]);
    (1..3_i64, stamp, word(), word(), 0..4_u64, 0..40_i32, 0..3_u64, 0..2_u64, 0..8_u64).prop_map(
        |(version, stamp, mark, title, items, mass, holds, open, broken)| Summary {
            version,
            stamp: stamp.into(),
            retry_at: None,
            words: format!("{mark}\n{title}"),
            mark,
            title,
            items,
            mass: f64::from(mass) / 8.0,
            holds,
            callouts: holds + open,
            // Most pieces of a shop are whole.
            broken: broken.saturating_sub(5),
            line: "{}".into(),
        },
    )
}

fn job() -> impl Strategy<Value = Job> {
    let piece = (prop::option::weighted(0.9, summary()), prop::bool::weighted(0.2))
        .prop_map(|(summary, is_removed)| Piece { summary, is_removed });
    let due = prop::option::of(prop::sample::select(vec!["2026-12-18", "2027-01-22"]));
    (word(), word(), due, prop::bool::weighted(0.1), prop::collection::vec(piece, 0..5)).prop_map(
        |(number, title, due, is_removed, pieces)| Job { number, title, due: due.map(Into::into), is_removed, pieces },
    )
}

fn page() -> impl Strategy<Value = RackPage> {
    use RackSort::{Due, Mass, Number, Pieces, Stage, Title};
    let search = prop::collection::vec(
        prop::sample::select(vec!["WINCH", "bracket", "ä", "9", "prov", "draf", "7", "%", "'", "zz"]),
        0..3,
    );
    (search, prop::sample::select(vec![Number, Title, Due, Pieces, Mass, Stage]), any::<bool>(), 0..6_u32, 1..9_u32)
        .prop_map(|(search, sort, down, from, most)| RackPage { search: search.join(" "), sort, down, from, most })
}

/// A store with these jobs; every piece has two revisions, so that a summary of the first is behind.
fn laid_out(jobs: &[Job]) -> (Store, Vec<i64>) {
    let mut store = Store::in_memory(|_| Vec::new()).unwrap();
    let mut ids = Vec::new();
    for job in jobs {
        let pieces = job.pieces.iter().map(|_| NewPiece { document: "one".into(), ..NewPiece::default() }).collect();
        let new = NewJob { number: job.number.clone(), title: job.title.clone(), due: job.due.clone(), pieces };
        let id = store.add_whole_job(&new).unwrap().id;
        ids.push(id);
        let rows: Vec<i64> = store.told_pieces(id, NOW).unwrap().iter().map(|row| row.id).collect();
        for (row, piece) in rows.into_iter().zip(&job.pieces) {
            let first = piece.summary.iter().filter(|one| one.version == 1);
            store.put_summaries(&first.map(|one| (row, one.clone())).collect::<Vec<_>>()).unwrap();
            store.save_piece(row, 1, "two", "").unwrap();
            let second = piece.summary.iter().filter(|one| one.version == 2);
            store.put_summaries(&second.map(|one| (row, one.clone())).collect::<Vec<_>>()).unwrap();
            if piece.is_removed {
                store.set_piece_removed(row, true).unwrap();
            }
        }
        if job.is_removed {
            store.set_job_removed(id, true).unwrap();
        }
    }
    (store, ids)
}

/// What the rack should tell, without a database.
struct Plain {
    at: usize,
    pieces: usize,
    items: u64,
    mass: f64,
    holds: u64,
    callouts: u64,
    broken: u64,
    waiting: u64,
    is_proved: bool,
    found: Vec<(String, String)>,
}

fn plain(at: usize, job: &Job, terms: &[String]) -> Option<Plain> {
    let inside: Vec<&Piece> = job.pieces.iter().filter(|piece| !piece.is_removed).collect();
    let known: Vec<&Summary> = inside.iter().filter_map(|piece| piece.summary.as_ref()).collect();
    let waiting = inside
        .iter()
        .filter(|piece| !piece.summary.as_ref().is_some_and(|one| one.version == 2 && one.stamp == NOW))
        .count() as u64;
    let (holds, callouts) = (known.iter().map(|one| one.holds).sum(), known.iter().map(|one| one.callouts).sum());
    let broken = known.iter().map(|one| one.broken).sum();
    let is_proved = !inside.is_empty() && waiting == 0 && holds == callouts && broken == 0;
    let own = format!("{} {}", job.number, job.title).to_lowercase();
    let stage = if is_proved { "proved" } else { "drafting" };
    let of_job = |term: &str| own.contains(term) || term.len() >= 3 && stage.starts_with(term);
    let of_piece = |one: &Summary, term: &str| one.words.to_lowercase().contains(term);
    if !terms.iter().all(|term| of_job(term) || known.iter().any(|one| of_piece(one, term))) {
        return None;
    }
    let open: Vec<&String> = terms.iter().filter(|term| !of_job(term)).collect();
    let found = known
        .iter()
        .filter(|one| !open.is_empty() && open.iter().all(|term| of_piece(one, term)))
        .take(3)
        .map(|one| (one.mark.clone(), one.title.clone()))
        .collect();
    let (items, mass) = (known.iter().map(|one| one.items).sum(), known.iter().fold(0.0, |mass, one| mass + one.mass));
    Some(Plain { at, pieces: inside.len(), items, mass, holds, callouts, broken, waiting, is_proved, found })
}

/// How two texts stand as the rack orders them, told another way: pieces of text between numbers, numbers as numbers.
fn order(text: &str) -> Vec<(String, u64)> {
    let mut parts = vec![(String::new(), 0)];
    for letter in text.to_lowercase().chars() {
        let last = parts.last_mut().unwrap();
        match letter.to_digit(10) {
            Some(digit) => last.1 = last.1 * 10 + u64::from(digit),
            None if last.1 > 0 => parts.push((letter.to_string(), 0)),
            None => last.0.push(letter),
        }
    }
    parts
}

proptest! {
    // The long run is `STEELK_CASES=20000`.
    #![proptest_config(law::cases(200))]

    #[test]
    fn the_rack_is_what_plain_loops_tell(jobs in prop::collection::vec(job(), 0..9), page in page()) {
        let (store, ids) = laid_out(&jobs);
        let rack = store.rack(&page, NOW).unwrap();
        let terms: Vec<String> = page.search.to_lowercase().split_whitespace().map(String::from).collect();
        let mut wanted: Vec<Plain> = jobs
            .iter()
            .enumerate()
            .filter(|(_, job)| !job.is_removed)
            .filter_map(|(at, job)| plain(at, job, &terms))
            .collect();
        wanted.sort_by(|one, other| {
            let (a, b) = (&jobs[one.at], &jobs[other.at]);
            let by_key = match page.sort {
                RackSort::Number => order(&a.number).cmp(&order(&b.number)).then_with(|| a.number.cmp(&b.number)),
                RackSort::Title => order(&a.title).cmp(&order(&b.title)).then_with(|| a.title.cmp(&b.title)),
                RackSort::Due => a.due.cmp(&b.due),
                RackSort::Pieces => one.pieces.cmp(&other.pieces),
                RackSort::Mass => one.mass.total_cmp(&other.mass),
                RackSort::Stage => one.is_proved.cmp(&other.is_proved),
            };
            let all = by_key.then(one.at.cmp(&other.at));
            if page.down { all.reverse() } else { all }
        });
        prop_assert_eq!(rack.found, wanted.len() as u64);
        prop_assert_eq!(rack.all, jobs.iter().filter(|job| !job.is_removed).count() as u64);
        let on_page: Vec<&Plain> = wanted.iter().skip(page.from as usize).take(page.most as usize).collect();
        prop_assert_eq!(
            rack.jobs.iter().map(|one| one.job.id).collect::<Vec<_>>(),
            on_page.iter().map(|one| ids[one.at]).collect::<Vec<_>>()
        );
        for (told, plain) in rack.jobs.iter().zip(on_page) {
            let figures = &told.figures;
            prop_assert_eq!(
                (figures.pieces, figures.items, figures.mass, figures.holds, figures.callouts),
                (plain.pieces as u64, plain.items, plain.mass, plain.holds, plain.callouts)
            );
            prop_assert_eq!(
                (figures.broken, figures.waiting, figures.is_proved),
                (plain.broken, plain.waiting, plain.is_proved)
            );
            let found: Vec<_> = told.found.iter().map(|FoundPiece { mark, title, .. }| (mark.clone(), title.clone())).collect();
            prop_assert_eq!(&found, &plain.found);
        }
    }
}

fn summary_of(version: i64) -> Summary {
    Summary { version, stamp: NOW.into(), mark: "P-01".into(), line: format!("\"of {version}\""), ..Summary::default() }
}

/// A store with one job of one piece; their numbers.
fn with_piece() -> (Store, i64, i64) {
    let mut store = Store::in_memory(|_| Vec::new()).unwrap();
    let job = store.add_job("TS-104", "Launching trolley", None).unwrap().id;
    let piece = store.add_piece(job, "one", "").unwrap().id;
    (store, job, piece)
}

/// Whether it is behind, asked in every way.
fn is_behind(store: &Store, job: i64, piece: i64, stamp: &str) -> bool {
    let of_job = store.behind(Among::Job(job), stamp).unwrap().pieces == [piece];
    let of_all = store.behind(Among::After { piece: 0, most: 9 }, stamp).unwrap().pieces == [piece];
    let told = store.told_pieces(job, stamp).unwrap()[0].is_behind;
    let unsummed = store.unsummed(piece, stamp).unwrap().is_some();
    let waiting = store.figures(job, stamp).unwrap().waiting == 1;
    assert_eq!([of_all, told, unsummed, waiting], [of_job; 4]);
    of_job
}

#[test]
fn a_summary_is_behind_after_a_save_an_undo_and_under_another_stamp() {
    let (mut store, job, piece) = with_piece();
    assert!(is_behind(&store, job, piece, NOW));
    assert_eq!(store.told_pieces(job, NOW).unwrap()[0].line, None);
    store.put_summaries(&[(piece, summary_of(1))]).unwrap();
    assert!(!is_behind(&store, job, piece, NOW));
    assert!(is_behind(&store, job, piece, "rules of tomorrow"));
    store.save_piece(piece, 1, "two", "").unwrap();
    assert!(is_behind(&store, job, piece, NOW));
    // What was last known is still there, and said to be behind.
    assert_eq!(store.told_pieces(job, NOW).unwrap()[0].line.as_deref(), Some("\"of 1\""));
    store.put_summaries(&[(piece, summary_of(2))]).unwrap();
    assert!(!is_behind(&store, job, piece, NOW));
    store.undo(piece, 2).unwrap();
    assert!(is_behind(&store, job, piece, NOW));
    assert_eq!(store.unsummed(piece, NOW).unwrap().unwrap().document, "one");
}

#[test]
fn a_summary_that_comes_after_the_next_save_is_left_out() {
    let (mut store, job, piece) = with_piece();
    let asked = store.unsummed(piece, NOW).unwrap().unwrap();
    store.save_piece(piece, 1, "two", "").unwrap();
    store.put_summaries(&[(piece, summary_of(asked.version)), (99, summary_of(1))]).unwrap();
    assert!(is_behind(&store, job, piece, NOW));
    assert_eq!(store.told_pieces(job, NOW).unwrap()[0].line, None);
}

#[test]
fn what_could_not_be_worked_out_is_tried_again_when_its_time_has_come() {
    let (mut store, job, piece) = with_piece();
    let until = |retry_at| Summary { retry_at: Some(retry_at), broken: 1, ..summary_of(1) };
    store.put_summaries(&[(piece, until(i64::MAX))]).unwrap();
    assert!(!is_behind(&store, job, piece, NOW));
    store.put_summaries(&[(piece, until(1))]).unwrap();
    assert!(is_behind(&store, job, piece, NOW));
}

#[test]
fn pieces_out_of_their_job_wait_for_nothing_and_all_are_looked_through_in_turn() {
    let (mut store, job, first) = with_piece();
    let second = store.add_piece(job, "two", "").unwrap().id;
    let third = store.add_piece(job, "three", "").unwrap().id;
    store.set_piece_removed(second, true).unwrap();
    let after = |piece| store.behind(Among::After { piece, most: 1 }, NOW).unwrap();
    assert_eq!(after(0), Behind { pieces: vec![first], last: Some(first) });
    assert_eq!(after(first), Behind { pieces: vec![third], last: Some(third) });
    assert_eq!(after(third), Behind { pieces: vec![], last: None });
    assert_eq!(store.unsummed(second, NOW).unwrap(), None);
}
