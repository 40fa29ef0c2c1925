//! The line that work stands in: no more at once than the machine has cores for, a small edit never behind a heavy
//! piece, an end to what its asker has left or what takes too long.
//!
//! Work enters by a *quick* place. What is not done after `STAGES`' first time gives that place up and goes on in a
//! place of a later stage, and so on; of the last ones there are fewer than cores. So quick work finds a core
//! whatever else is asked for, and what nobody has told how long it takes is told apart by how long it has taken.
//! Whoever has had more of a core stands further back.
//!
//! What is quick no more stands still for moments while quick work wants all cores (`Cores`). It does so of itself,
//! where it asks whether to go on and holds nothing: put back by the system it would hold up everybody who waits for
//! what it holds, the process's memory first of all.
//!
//! Each work has a thread of its own: one that ends gives back what memory it kept for itself.

use std::cell::Cell;
use std::rc::Rc;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use std::sync::{Arc, Condvar, Mutex, MutexGuard};
use std::time::{Duration, Instant};

use actix_web::http::StatusCode;
use cpu_time::ThreadTime;
use steelk_core::patience;
use tokio::sync::{OwnedSemaphorePermit, Semaphore, oneshot};

use crate::guarded::guarded;
use crate::problem::Problem;

/// How long work stays in each stage, of the time that a core gave it: by the clock, an edit that stood beside heavy
/// work for a moment would be taken for heavy, and wait behind it. An edit takes a few milliseconds, of a full piece a
/// dozen; the first of all, a look at a job and most files some dozens; an edit of a perforation a quarter of a second.
/// What is longer still, its audit and its files, has places of its own, so that the edit is not behind them. Each
/// stage is as long again as all before it, so that nobody waits much longer in it than the share of a core that is
/// theirs beside so many makes them.
const STAGES: [Duration; 7] = [
    Duration::from_millis(4),
    Duration::from_millis(8),
    Duration::from_millis(16),
    Duration::from_millis(32),
    Duration::from_millis(64),
    Duration::from_millis(250),
    Duration::from_millis(2500),
];
/// What has gone on to so many later stages is quick work yet; what has gone further makes way for it.
const QUICK_STAGES: usize = 2;
/// How long what is quick no more stands still at most while there is more quick work than cores, and how long it then
/// has a core at least.
const STILL: Duration = Duration::from_millis(20);
const GOES_ON: Duration = Duration::from_millis(5);
/// Who has had a core for a millisecond longer stands so many milliseconds further back: an edit that needed a little
/// more than its first moment passes the heavy work that came before it, and nobody is passed for ever.
const BEHIND: u32 = 50;
/// So many may wait or be worked on; more is more than a shop's people ask for at once.
const MOST_WAITING: usize = 256;
/// How often parked work looks whether its asker is still there.
const LOOK: Duration = Duration::from_millis(20);

/// The places of a server.
pub struct Line {
    quick: Arc<Semaphore>,
    /// Places of the stages behind the quick one.
    later: [Arc<Places>; STAGES.len()],
    cores: Arc<Cores>,
    inside: Arc<AtomicUsize>,
    longest: Duration,
}

/// Places for work that takes longer, taken on the thread of the work, in the order of [`Waiting::turn`].
struct Places {
    now: Mutex<Now>,
    changed: Condvar,
}

struct Now {
    free: usize,
    waiting: Vec<Waiting>,
    tickets: u64,
}

/// Somebody who waits for a place. The least is next.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
struct Waiting {
    /// When it would be its turn: see [`BEHIND`].
    turn: Instant,
    ticket: u64,
}

impl Places {
    fn of(count: usize) -> Arc<Places> {
        let now = Now { free: count.max(1), waiting: Vec::new(), tickets: 0 };
        Arc::new(Places { now: Mutex::new(now), changed: Condvar::new() })
    }

    fn now(&self) -> MutexGuard<'_, Now> {
        self.now.lock().unwrap_or_else(|poisoned| poisoned.into_inner())
    }

    /// Waits for a place for as long as `go_on` says so, after having had a core for so long.
    fn take(self: &Arc<Self>, had: Duration, go_on: impl Fn() -> bool) -> Option<Place> {
        let mut now = self.now();
        now.tickets += 1;
        let own = Waiting { turn: Instant::now() + had * BEHIND, ticket: now.tickets };
        now.waiting.push(own);
        let got = loop {
            if now.free > 0 && now.waiting.iter().min() == Some(&own) {
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
        now.waiting.retain(|one| *one != own);
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
    Quick(
        #[allow(dead_code, reason = "held, not read")] OwnedSemaphorePermit,
        #[allow(dead_code, reason = "held, not read")] AtWork,
    ),
    /// One of a later stage.
    Later(usize, #[allow(dead_code, reason = "held, not read")] Place, AtWork),
}

/// How many are at work at this moment.
struct Cores {
    count: usize,
    quick: AtomicUsize,
    later: AtomicUsize,
    gate: Mutex<()>,
    fewer: Condvar,
}

impl Cores {
    fn of(count: usize) -> Arc<Cores> {
        let (quick, later) = Default::default();
        Arc::new(Cores { count, quick, later, gate: Mutex::new(()), fewer: Condvar::new() })
    }

    fn is_crowded(&self, more: usize) -> bool {
        let quick = self.quick.load(Ordering::SeqCst);
        quick > 0 && quick + self.later.load(Ordering::SeqCst) + more > self.count
    }
}

/// Somebody at work, for as long as this lives.
struct AtWork {
    cores: Arc<Cores>,
    is_quick: bool,
}

impl AtWork {
    fn begin(cores: &Arc<Cores>, is_quick: bool) -> AtWork {
        let one = AtWork { cores: Arc::clone(cores), is_quick };
        one.counted().fetch_add(1, Ordering::SeqCst);
        one
    }

    fn counted(&self) -> &AtomicUsize {
        if self.is_quick { &self.cores.quick } else { &self.cores.later }
    }

    /// Waits until there is a core for one more, for [`STILL`] at most.
    fn stand_still(&self) {
        self.counted().fetch_sub(1, Ordering::SeqCst);
        let gate = self.cores.gate.lock().unwrap_or_else(|poisoned| poisoned.into_inner());
        // However it is woken it goes on: the gate guards nothing.
        let _ = self.cores.fewer.wait_timeout_while(gate, STILL, |()| self.cores.is_crowded(1));
        self.counted().fetch_add(1, Ordering::SeqCst);
    }
}

impl Drop for AtWork {
    fn drop(&mut self) {
        self.counted().fetch_sub(1, Ordering::SeqCst);
        self.cores.fewer.notify_all();
    }
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
        let later = |at| Places::of(if at <= QUICK_STAGES { cores } else { cores - 1 });
        Line {
            quick: Arc::new(Semaphore::new(cores)),
            later: std::array::from_fn(later),
            cores: Cores::of(cores),
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
        let (later, cores, longest) = (self.later.clone(), Arc::clone(&self.cores), self.longest);
        let (told, done) = oneshot::channel();
        let on_its_thread = move || {
            let (begun, core) = (Instant::now(), ThreadTime::now());
            let mut held = Held::Quick(quick, AtWork::begin(&cores, true));
            let (mut waited, mut went_on) = (Duration::ZERO, Duration::ZERO);
            let is_wanted = move || !has_left.load(Ordering::Relaxed);
            let go_on = move || {
                if !is_wanted() {
                    return false;
                }
                let worked = begun.elapsed().saturating_sub(waited);
                let stage = match &held {
                    Held::Later(at, ..) => at + 1,
                    _ => 0,
                };
                // The clock is the cheaper one to look at, and never behind the core's.
                if STAGES.get(stage).is_none_or(|most| worked <= *most || core.elapsed() <= *most) {
                    if let Held::Later(_, _, at_work) = &held
                        && !at_work.is_quick
                        && cores.is_crowded(0)
                        && core.elapsed() > went_on + GOES_ON
                    {
                        let still = Instant::now();
                        at_work.stand_still();
                        waited += still.elapsed();
                        went_on = core.elapsed();
                    }
                    return worked < longest;
                }
                // The place that it had is given up first: nobody waits for one while holding another.
                held = Held::None;
                let parked = Instant::now();
                let Some(place) = later[stage].take(core.elapsed(), &is_wanted) else { return false };
                waited += parked.elapsed();
                held = Held::Later(stage, place, AtWork::begin(&cores, stage < QUICK_STAGES));
                true
            };
            let done = guarded(|| patience::with(go_on, work));
            // Out of the line before the answer is seen.
            drop(inside);
            let _ = told.send(done);
        };
        std::thread::Builder::new().name("work".into()).spawn(on_its_thread).map_err(|_| busy())?;
        match done.await {
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
            "it was worked on for {} s and was not done, so it was ended and nothing was changed by it; leave steps of the piece out, \
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
        assert_eq!(line.later.each_ref().map(|places| places.now().free), [2, 2, 2, 1, 1, 1, 1]);
        let at_work = [&line.cores.quick, &line.cores.later].map(|count| count.load(Ordering::SeqCst));
        assert_eq!(at_work, [0, 0]);
        assert_eq!(line.quick.available_permits(), 2);
    }

    #[actix_web::test]
    async fn heavy_work_goes_on_under_a_crowd_of_quick_work() {
        let line = Arc::new(Line::new(1, Duration::from_secs(600)));
        let heavy = {
            let line = Arc::clone(&line);
            actix_web::rt::spawn(async move {
                line.work(|| {
                    // So much of a core, however long it takes.
                    let core = ThreadTime::now();
                    while core.elapsed() < Duration::from_millis(200) {
                        patience::check();
                        std::hint::spin_loop();
                    }
                    Ok(())
                })
                .await
            })
        };
        let (mut turns, until) = (0, Instant::now() + Duration::from_secs(120));
        while !heavy.is_finished() && Instant::now() < until {
            assert_eq!(line.work(|| turning(2)).await.unwrap(), 2);
            turns += 1;
        }
        assert!(heavy.is_finished(), "it was not done after {turns} turns of quick work");
        // While it was worked on the quick work was not kept waiting for all of it.
        assert!(turns > 5, "{turns} turns");
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
