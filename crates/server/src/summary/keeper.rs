//! Summaries are brought up to date: at once after a save, all of them when the server begins, the few that are behind
//! where a job is looked at.

use std::collections::BTreeSet;
use std::sync::{Condvar, Mutex, MutexGuard};
use std::time::{Duration, Instant, SystemTime, UNIX_EPOCH};

use actix_web::http::StatusCode;
use actix_web::web;
use steelk_core::piece::Piece;
use steelk_store::{Among, Unsummed};

use super::Summary;
use crate::api::State;
use crate::files::Shop;
use crate::line::within;
use crate::problem::Problem;

/// How long a piece is worked on at most.
const LIMIT: Duration = Duration::from_secs(5);
/// After how long one that took longer is tried again, s.
const REST: i64 = 300;
/// So many are written at once: a write waits for the disk.
const BATCH: usize = 32;
/// So many pieces are looked through at once for those that are behind.
const LOOKED_AT: u32 = 500;
/// How long the keeper waits where too much is asked for at once.
const PAUSE: Duration = Duration::from_secs(1);

/// Pieces and jobs that were changed, and how far everything has been looked through.
#[derive(Default)]
struct Open {
    pieces: BTreeSet<i64>,
    jobs: BTreeSet<i64>,
    /// The piece after which to go on with all of them; `None` when they are through.
    all_after: Option<i64>,
}

/// What is to be brought up to date. What nobody tells it of is found when it is looked at.
#[derive(Default)]
pub struct Keeper {
    open: Mutex<Open>,
    told: Condvar,
}

impl Keeper {
    fn open(&self) -> MutexGuard<'_, Open> {
        self.open.lock().unwrap_or_else(|poisoned| poisoned.into_inner())
    }

    /// A piece has a new revision, or is back in its job.
    pub fn saved(&self, piece: i64) {
        self.open().pieces.insert(piece);
        self.told.notify_one();
    }

    /// The shop's rules changed: what every piece comes to is worked out again.
    pub fn all(&self) {
        self.open().all_after = Some(0);
        self.told.notify_one();
    }

    /// A job came with its pieces.
    pub fn came(&self, job: i64) {
        self.open().jobs.insert(job);
        self.told.notify_one();
    }

    /// Waits for something to do.
    fn next(&self) -> Open {
        let mut open = self.open();
        while open.pieces.is_empty() && open.jobs.is_empty() && open.all_after.is_none() {
            open = self.told.wait(open).unwrap_or_else(|poisoned| poisoned.into_inner());
        }
        let (pieces, jobs) = (std::mem::take(&mut open.pieces), std::mem::take(&mut open.jobs));
        Open { pieces, jobs, all_after: open.all_after }
    }
}

/// Brings everything up to date for as long as the server runs, on a thread of its own and in the line of work as
/// everybody.
pub fn keep(state: web::Data<State>) {
    state.keeper().open().all_after = Some(0);
    let work = move || {
        let Ok(runner) = actix_web::rt::Runtime::new() else { return };
        loop {
            let open = state.keeper().next();
            if let Err(problem) = runner.block_on(turn(&state, open)) {
                tracing::warn!(%problem, "summaries wait");
                std::thread::sleep(PAUSE);
            }
        }
    };
    if let Err(fault) = std::thread::Builder::new().name("summaries".into()).spawn(work) {
        tracing::warn!(%fault, "summaries are worked out only when they are looked at");
    }
}

/// Pieces that were told first, then those of jobs, then the next of all.
async fn turn(state: &web::Data<State>, open: Open) -> Result<(), Problem> {
    let mut pieces: Vec<i64> = open.pieces.into_iter().collect();
    for job in open.jobs {
        let stamp = state.stamp()?;
        pieces.extend(state.store().behind(Among::Job(job), &stamp)?.pieces);
    }
    let mut all_after = open.all_after;
    if pieces.is_empty()
        && let Some(piece) = all_after
    {
        let stamp = state.stamp()?;
        let behind = state.store().behind(Among::After { piece, most: LOOKED_AT }, &stamp)?;
        all_after = behind.last;
        pieces = behind.pieces;
    }
    let mut left = &pieces[..];
    while !left.is_empty() {
        let (own, batch) = (state.clone(), left.to_vec());
        // From when it is worked on: the first of them has all the time that a piece may take.
        let done = state.line().work(move || bring_up(&own, &batch, Instant::now() + 2 * limit(&own))).await;
        match done {
            Ok(done) => left = &left[done.max(1)..],
            Err(problem) if problem.status == StatusCode::SERVICE_UNAVAILABLE.as_u16() => {
                tracing::debug!(%problem, "summaries wait");
                actix_web::rt::time::sleep(PAUSE).await;
            }
            Err(problem) => {
                tracing::warn!(%problem, piece = left[0], "no summary");
                left = &left[1..];
            }
        }
    }
    state.keeper().open().all_after = all_after;
    Ok(())
}

/// How long a piece is worked on: all that is asked for at once is ended when it takes too long.
fn limit(state: &State) -> Duration {
    LIMIT.min(state.line().longest() / 3)
}

/// Works the summaries of these pieces out and keeps them until the time has come; how many of them are done with.
///
/// # Errors
/// [`Problem`] of the store.
pub fn bring_up(state: &State, pieces: &[i64], end: Instant) -> Result<usize, Problem> {
    let (mut made, mut done) = (Vec::new(), 0);
    let (shop, stamp) = (state.shop()?, state.stamp()?);
    for &piece in pieces {
        let left = end.saturating_duration_since(Instant::now());
        if left.is_zero() {
            break;
        }
        let unsummed = state.store().unsummed(piece, &stamp)?;
        if let Some(unsummed) = unsummed {
            let limit = limit(state);
            let Some(summary) = work_out(&unsummed, &shop, &stamp, limit, left) else { break };
            made.push((piece, summary));
        }
        done += 1;
        if made.len() == BATCH {
            state.store().put_summaries(&std::mem::take(&mut made))?;
        }
    }
    if !made.is_empty() {
        state.store().put_summaries(&made)?;
    }
    Ok(done)
}

/// The summary of a document; `None` where there was less time than a piece may take, and it was not enough.
fn work_out(
    unsummed: &Unsummed,
    shop: &Shop,
    stamp: &str,
    limit: Duration,
    left: Duration,
) -> Option<steelk_store::Summary> {
    let Unsummed { piece, version, document } = unsummed;
    let fault = |why: String| Summary::unreadable(*piece, document, why).kept(*version, stamp);
    let read = match Piece::read(document.as_bytes()) {
        Ok(read) => read,
        Err(why) => return Some(fault(why.to_string())),
    };
    match within(limit.min(left), || Summary::of(&read, shop.workshop())) {
        Ok(summary) => Some(summary.kept(*version, stamp)),
        Err(_) if left < limit => None,
        Err(why) => Some(steelk_store::Summary { retry_at: Some(now() + REST), ..fault(why) }),
    }
}

/// Seconds since 1970.
fn now() -> i64 {
    SystemTime::now().duration_since(UNIX_EPOCH).map_or(0, |since| since.as_secs().cast_signed())
}
