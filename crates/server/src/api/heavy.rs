//! Work that takes its time: so much of it at once as there are processors, the rest in line, so that a small edit never waits behind
//! a crowd. Whoever leaves while in line is out of it, and his work is not begun.

use std::sync::LazyLock;
use std::time::Duration;

use actix_web::http::StatusCode;
use tokio::sync::Semaphore;

use super::off_thread;
use crate::problem::Problem;

/// One processor is left to small work where there are several.
static PLACES: LazyLock<Semaphore> = LazyLock::new(|| {
    let processors = std::thread::available_parallelism().map_or(1, std::num::NonZero::get);
    Semaphore::new(processors.saturating_sub(1).max(1))
});
/// Longer than this nobody stands in line.
const LONGEST: Duration = Duration::from_secs(30);

/// As [`off_thread`], in line with other heavy work.
pub(crate) async fn heavy<T, F>(work: F) -> Result<T, Problem>
where
    T: Send + 'static,
    F: FnOnce() -> Result<T, Problem> + Send + 'static,
{
    let busy = || {
        Problem::new(
            StatusCode::SERVICE_UNAVAILABLE,
            "Busy",
            format!("other work has kept every processor for {} s; try again in a moment", LONGEST.as_secs()),
        )
    };
    let place = tokio::time::timeout(LONGEST, PLACES.acquire()).await.map_err(|_| busy())?.map_err(|_| busy())?;
    // The place is kept by the work itself: it goes on when whoever asked has left.
    off_thread(move || {
        let _place = place;
        work()
    })
    .await
}
