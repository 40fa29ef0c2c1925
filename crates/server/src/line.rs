//! The line that work stands in: no more at once than the machine has cores for, a small edit never behind a heavy
//! piece, an end to what its asker has left or what takes too long.
//!
//! Work enters by a *quick* place. What is not done after [`STAGES`]' first time gives that place up and goes on in a
//! place of the next stage, and so on; of the later ones there are fewer than cores. So quick work finds a core
//! whatever else is asked for, and what nobody has told how long it takes is told apart by how long it has taken.

use std::cell::Cell;
use std::collections::VecDeque;
use std::rc::Rc;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use std::sync::{Arc, Condvar, Mutex, MutexGuard};
use std::time::{Duration, Instant};

use actix_web::http::StatusCode;
use actix_web::web;
use cpu_time::ThreadTime;
use steelk_core::patience;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

use crate::guarded::guarded;
use crate::problem::Problem;

/// How long work stays in each stage, of the time that a core gave it: by the clock, an edit that stood beside heavy
/// work for a moment would be taken for heavy, and wait behind it. The first is an edit of an ordinary piece, which
/// takes a few milliseconds; then the first edit of all and a look at a job; then an edit of a large piece and most
/// files; then an edit of a perforation. What is longer still, its audit and its files, has places of its own, so that
/// the edit is not behind them.
const STAGES: [Duration; 4] =
    [Duration::from_millis(10), Duration::from_millis(50), Duration::from_millis(250), Duration::from_millis(2500)];
/// So many may wait or be worked on; more is more than a shop's people ask for at once.
const MOST_WAITING: usize = 256;
/// How often parked work looks whether its asker is still there.
const LOOK: Duration = Duration::from_millis(20);

/// The places of a server.
pub struct Line {
    quick: Arc<Semaphore>,
    /// Places of the stages behind the quick one.
    later: [Arc<Places>; STAGES.len()],
    inside: Arc<AtomicUsize>,
    longest: Duration,
}

/// Places for work that takes longer, taken on the thread of the work, in the order of asking.
struct Places {
    now: Mutex<Now>,
    changed: Condvar,
}

struct Now {
    free: usize,
    /// Who waits, the first to be next.
    waiting: VecDeque<u64>,
    tickets: u64,
}

impl Places {
    fn of(count: usize) -> Arc<Places> {
        let now = Now { free: count.max(1), waiting: VecDeque::new(), tickets: 0 };
        Arc::new(Places { now: Mutex::new(now), changed: Condvar::new() })
    }

    fn now(&self) -> MutexGuard<'_, Now> {
        self.now.lock().unwrap_or_else(|poisoned| poisoned.into_inner())
    }

    /// Waits for a place for as long as `go_on` says so.
    fn take(self: &Arc<Self>, go_on: impl Fn() -> bool) -> Option<Place> {
        let mut now = self.now();
        now.tickets += 1;
        let own = now.tickets;
        now.waiting.push_back(own);
        let got = loop {
            if now.free > 0 && now.waiting.front() == Some(&own) {
                now.free -= 1;
                break true;
            }
            if !go_on() {
                break false;
            }
            now = match self.changed.wait_timeout(now, LOOK) {
                Ok((now, _)) => now,
                Err(poisoned) => poisoned.into_inner().0,
            };
        };
        now.waiting.retain(|ticket| *ticket != own);
        self.changed.notify_all();
        got.then(|| Place(Arc::clone(self)))
    }
}

struct Place(Arc<Places>);

impl Drop for Place {
    fn drop(&mut self) {
        self.0.now().free += 1;
        self.0.changed.notify_all();
    }
}

/// The place that a piece of work has.
enum Held {
    None,
    Quick(#[allow(dead_code, reason = "held, not read")] OwnedSemaphorePermit),
    /// One of a later stage.
    Later(usize, #[allow(dead_code, reason = "held, not read")] Place),
}

/// Somebody in the line, for as long as this lives: counted, and told when whoever asked has left.
struct Inside(Arc<AtomicUsize>);

impl Inside {
    fn enter(count: &Arc<AtomicUsize>) -> Option<Inside> {
        let inside = Inside(Arc::clone(count));
        (count.fetch_add(1, Ordering::SeqCst) < MOST_WAITING).then_some(inside)
    }
}

impl Drop for Inside {
    fn drop(&mut self) {
        self.0.fetch_sub(1, Ordering::SeqCst);
    }
}

/// Says that the asker has left when the future that waits for the work is dropped.
struct Asker(Arc<AtomicBool>);

impl Drop for Asker {
    fn drop(&mut self) {
        self.0.store(true, Ordering::Relaxed);
    }
}

impl Line {
    /// A line for a machine of so many cores; work that has been worked on for `longest` is ended.
    pub fn new(cores: usize, longest: Duration) -> Line {
        let cores = cores.max(1);
        Line {
            quick: Arc::new(Semaphore::new(cores)),
            later: [cores, cores - 1, cores - 1, cores - 1].map(Places::of),
            inside: Arc::new(AtomicUsize::new(0)),
            longest,
        }
    }

    /// After how long work is ended.
    pub fn longest(&self) -> Duration {
        self.longest
    }

    /// How much work is in the line, waiting or worked on.
    pub fn inside(&self) -> usize {
        self.inside.load(Ordering::SeqCst)
    }

    /// Does work off the network threads, when its turn comes. It is ended when the future is dropped, which happens
    /// when whoever asked closes the connection, and when it takes too long.
    ///
    /// # Errors
    /// [`Problem`]: too many wait, it took too long, it panicked; or what the work itself says.
    pub async fn work<T, F>(&self, work: F) -> Result<T, Problem>
    where
        T: Send + 'static,
        F: FnOnce() -> Result<T, Problem> + Send + 'static,
    {
        let inside = Inside::enter(&self.inside).ok_or_else(busy)?;
        let quick = Arc::clone(&self.quick).acquire_owned().await.map_err(|_| busy())?;
        let has_left = Arc::new(AtomicBool::new(false));
        let _asker = Asker(Arc::clone(&has_left));
        let (later, longest) = (self.later.clone(), self.longest);
        let done = web::block(move || {
            let _inside = inside;
            let (begun, core) = (Instant::now(), ThreadTime::now());
            let mut held = Held::Quick(quick);
            let mut waited = Duration::ZERO;
            let is_wanted = move || !has_left.load(Ordering::Relaxed);
            let go_on = move || {
                if !is_wanted() {
                    return false;
                }
                let worked = begun.elapsed().saturating_sub(waited);
                let stage = match &held {
                    Held::Later(at, _) => at + 1,
                    _ => 0,
                };
                // The clock is the cheaper one to look at, and never behind the core's.
                if STAGES.get(stage).is_none_or(|most| worked <= *most || core.elapsed() <= *most) {
                    return worked < longest;
                }
                // The place that it had is given up first: nobody waits for one while holding another.
                held = Held::None;
                let parked = Instant::now();
                let Some(place) = later[stage].take(&is_wanted) else { return false };
                waited += parked.elapsed();
                held = Held::Later(stage, place);
                true
            };
            guarded(|| patience::with(go_on, work))
        })
        .await;
        match done {
            Ok(Ok(Ok(done))) => done,
            Ok(Ok(Err(_stopped))) => Err(too_long(longest)),
            Ok(Err(panicked)) => Err(panicked.into()),
            Err(_) => Err(busy()),
        }
    }
}

/// What one gap between two looks at the clock counts at most: longer is a wait for a place.
const LONGEST_GAP: Duration = Duration::from_millis(250);

/// Does a part of the work that must not take the rest down or keep it waiting: one piece of a list.
///
/// # Errors
/// In words: it panicked, or it was not done within `limit`.
pub fn within<T>(limit: Duration, work: impl FnOnce() -> T) -> Result<T, String> {
    let is_late = Rc::new(Cell::new(false));
    let late = Rc::clone(&is_late);
    let (mut spent, mut last) = (Duration::ZERO, Instant::now());
    let go_on = move || {
        let now = Instant::now();
        spent += (now - last).min(LONGEST_GAP);
        last = now;
        late.set(spent > limit);
        spent <= limit
    };
    match guarded(|| patience::with(go_on, work)) {
        Ok(Ok(done)) => Ok(done),
        Err(panicked) => Err(panicked.to_string()),
        Ok(Err(_stopped)) => {
            if !is_late.get() {
                // Whoever asked for the whole has left: this ends it too.
                patience::check();
            }
            Err(format!(
                "it was not worked out within {} s, so the rest goes on without it; open it by itself",
                limit.as_secs_f64()
            ))
        }
    }
}

/// Too much is asked for at once.
pub fn busy() -> Problem {
    Problem::new(
        StatusCode::SERVICE_UNAVAILABLE,
        "Busy",
        "too much is being worked out at this moment; nothing of yours is lost, try again in a few seconds",
    )
}

/// What the work that was ended is told as.
fn too_long(longest: Duration) -> Problem {
    Problem::new(
        StatusCode::UNPROCESSABLE_ENTITY,
        "This takes too long",
        format!(
            "it was worked on for {} s and was not done, so it was ended and nothing was changed by it; take work off the piece, \
             or make several of it (fewer holes, edges or members), or have the server started with a longer --longest-work",
            longest.as_secs()
        ),
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Work of so many milliseconds that can be ended.
    fn turning(milliseconds: u64) -> Result<u64, Problem> {
        let until = Instant::now() + Duration::from_millis(milliseconds);
        while Instant::now() < until {
            patience::check();
            std::hint::spin_loop();
        }
        Ok(milliseconds)
    }

    async fn is_empty(line: &Line) -> bool {
        for _ in 0..500 {
            if line.inside() == 0 {
                return true;
            }
            tokio::time::sleep(Duration::from_millis(10)).await;
        }
        false
    }

    #[actix_web::test]
    async fn quick_work_is_done_while_heavy_work_waits_for_its_place() {
        let line = Arc::new(Line::new(2, Duration::from_secs(600)));
        let heavy: Vec<_> = (0..20)
            .map(|_| {
                let line = Arc::clone(&line);
                actix_web::rt::spawn(async move { line.work(|| turning(3_600_000)).await })
            })
            .collect();
        // All of them are past their quick places once this one has had its turn behind them.
        assert_eq!(line.work(|| turning(1)).await.unwrap(), 1);
        assert_eq!(line.work(|| turning(1)).await.unwrap(), 1);
        assert_eq!(line.inside(), 20);
        // Their askers leave: each ends, waiting or worked on.
        for one in heavy {
            one.abort();
        }
        assert!(is_empty(&line).await, "{} are worked on for nobody", line.inside());
        assert_eq!(line.later.each_ref().map(|places| places.now().free), [2, 1, 1, 1]);
        assert_eq!(line.quick.available_permits(), 2);
    }

    #[actix_web::test]
    async fn what_takes_too_long_is_ended_and_what_panics_frees_its_place() {
        let line = Line::new(1, Duration::from_millis(400));
        let ended = line.work(|| turning(3_600_000)).await.unwrap_err();
        assert_eq!(ended.status, 422);
        assert!(ended.detail.contains("--longest-work"), "{}", ended.detail);
        let silent = std::panic::take_hook();
        std::panic::set_hook(Box::new(|_| {}));
        let panicked = line.work(|| -> Result<(), Problem> { panic!("unforeseen") }).await.unwrap_err();
        std::panic::set_hook(silent);
        assert_eq!(panicked.status, 500);
        assert!(is_empty(&line).await);
        assert_eq!(line.quick.available_permits(), 1);
    }

    #[test]
    fn one_part_of_the_work_is_ended_without_the_rest() {
        let limit = Duration::from_millis(50);
        assert_eq!(within(limit, || turning(1).unwrap()), Ok(1));
        assert!(within(limit, || turning(3_600_000).unwrap()).unwrap_err().contains("within 0.05 s"));
        // The whole is ended: so is the part, and not for being late.
        let begun = Instant::now();
        let go_on = move || begun.elapsed() < Duration::from_millis(20);
        let whole = patience::with(go_on, || within(Duration::from_secs(600), || turning(3_600_000).unwrap()));
        assert_eq!(whole, Err(patience::Stopped));
    }

    #[actix_web::test]
    async fn a_crowd_is_told_to_come_back() {
        let line = Arc::new(Line::new(1, Duration::from_secs(600)));
        let crowd: Vec<_> = (0..MOST_WAITING)
            .map(|_| {
                let line = Arc::clone(&line);
                actix_web::rt::spawn(async move { line.work(|| turning(3_600_000)).await })
            })
            .collect();
        tokio::task::yield_now().await;
        while line.inside() < MOST_WAITING {
            tokio::time::sleep(Duration::from_millis(5)).await;
        }
        assert_eq!(line.work(|| turning(1)).await.unwrap_err().status, 503);
        crowd.into_iter().for_each(|one| one.abort());
        assert!(is_empty(&line).await);
    }
}
