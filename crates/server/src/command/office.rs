//! `steelk office`: a folder as a design office has after years, to measure on. Its jobs are made up of the demo's
//! pieces.

use std::collections::HashMap;
use std::path::Path;

use steelk_core::piece::Piece;
use steelk_core::stock::Workshop;
use steelk_store::{Job, NewJob, NewPiece, Store};

use super::{folder, say::say};
use crate::marks::marks_of;
use crate::summary::{STAMP, Summary};

/// Quantities repeat after so many jobs: each document is worked out once, however many jobs have it.
const QUANTITIES: u32 = 5;
/// What jobs are called, in turn.
const TITLES: [&str; 8] = [
    "Launching trolley",
    "Resin bench extraction",
    "Slip cradle",
    "Mast crutches",
    "Workshop stair",
    "Rudder stocks",
    "Paint store racks",
    "Winch house frame",
];

/// Makes the folder; refuses one that has jobs.
pub(super) fn lay_down(data: &Path, jobs: u32, pieces: u32) -> Result<(), String> {
    let (file, _lock) = folder::open(data)?;
    let mut store = Store::open(&file, marks_of).map_err(|fault| format!("{}: {fault}", file.display()))?;
    if !store.all_jobs().map_err(|fault| fault.to_string())?.is_empty() {
        return Err(format!("{} has jobs already; an office is laid down in a new folder", data.display()));
    }
    let demo: Vec<Piece> =
        crate::demo::pieces().map_err(|problem| problem.to_string())?.into_iter().map(|(_, piece)| piece).collect();
    let mut known: HashMap<String, Summary> = HashMap::new();
    for at in 0..jobs {
        // The first jobs take what does not divide evenly.
        let count = pieces / jobs + u32::from(at < pieces % jobs);
        let documents: Vec<(Piece, String)> =
            (0..count).map(|place| document(&demo, at, place)).collect::<Result<_, _>>()?;
        let job = add(&mut store, at, &documents).map_err(|fault| fault.to_string())?;
        let told = store.told_pieces(job.id, "").map_err(|fault| fault.to_string())?;
        let kept: Vec<_> = told
            .iter()
            .zip(documents)
            .map(|(row, (piece, document))| {
                let summary = known.entry(document).or_insert_with(|| Summary::of(&piece, Workshop::default()));
                (row.id, summary.kept(row.version, STAMP))
            })
            .collect();
        store.put_summaries(&kept).map_err(|fault| fault.to_string())?;
    }
    say!("{jobs} jobs with {pieces} pieces are in {}", data.display());
    Ok(())
}

/// A piece of the demo under the mark of its place.
fn document(demo: &[Piece], job: u32, place: u32) -> Result<(Piece, String), String> {
    let mut piece = demo[place as usize % demo.len()].clone();
    piece.mark = format!("P-{:03}", place + 1);
    piece.quantity = 1 + job % QUANTITIES;
    // Marks of variants follow the piece's own: no two of a job are alike.
    piece.variants.iter_mut().for_each(|variant| variant.mark = None);
    let document = piece.to_keep().map_err(|fault| fault.to_string())?;
    Ok((piece, document))
}

fn add(store: &mut Store, at: u32, documents: &[(Piece, String)]) -> Result<Job, steelk_store::StoreError> {
    let title = TITLES[at as usize % TITLES.len()];
    let pieces = documents.iter().map(|(piece, document)| NewPiece {
        document: document.clone(),
        note: format!("made {}", piece.mark),
        ..NewPiece::default()
    });
    store.add_whole_job(&NewJob {
        number: format!("TS-{}", 1000 + at),
        title: format!("{title} {}", 1 + at / TITLES.len() as u32),
        due: Some(format!("{}-{:02}-{:02}", 2026 + at / 400, 1 + at % 12, 1 + at % 28)),
        pieces: pieces.collect(),
    })
}
