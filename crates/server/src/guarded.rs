//! Work that must not take anything else down: should it end in a panic, that is an answer in words and no more.

use std::panic::{AssertUnwindSafe, catch_unwind, resume_unwind};

use actix_web::http::StatusCode;
use steelk_core::patience::Stopped;

use crate::problem::Problem;

/// Work ended where nobody foresaw it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[error(
    "Steelk's own working stopped at a place that nobody foresaw. Nothing was changed by it; please keep the piece's file for whoever looks after Steelk"
)]
pub struct Panicked;

/// Does the work. What it was about to change in memory of its own is lost with it; nothing that outlives it may be half
/// changed when it panics, which holds for evaluating (it owns what it makes) and for the store (SQLite rolls back). Work that was
/// told to end is none of a panic's: that goes on to whoever told it.
///
/// # Errors
/// [`Panicked`] instead of a panic.
pub fn guarded<T>(work: impl FnOnce() -> T) -> Result<T, Panicked> {
    catch_unwind(AssertUnwindSafe(work)).map_err(|thrown| {
        if thrown.is::<Stopped>() {
            resume_unwind(thrown);
        }
        Panicked
    })
}

impl From<Panicked> for Problem {
    fn from(fault: Panicked) -> Self {
        Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "This could not be worked out", fault.to_string())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn work_that_is_told_to_end_is_no_panic() {
        let ended = steelk_core::patience::with(|| false, || guarded(steelk_core::patience::check));
        assert_eq!(ended, Err(Stopped));
    }

    #[test]
    fn a_panic_is_an_answer() {
        assert_eq!(guarded(|| 7), Ok(7));
        let silent = std::panic::take_hook();
        std::panic::set_hook(Box::new(|_| {}));
        let ended = guarded(|| -> u32 { panic!("unforeseen") });
        std::panic::set_hook(silent);
        assert_eq!(ended, Err(Panicked));
        assert_eq!(Problem::from(Panicked).status, 500);
    }
}
