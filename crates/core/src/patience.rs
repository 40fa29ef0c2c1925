//! How long work may go on. Whoever asks for it says whether it still should; the work asks at every turn of its long
//! loops and ends there when it should not.
//!
//! It ends by unwinding to [`with`], as a panic does but without a panic's words: every step between would otherwise
//! hand an error up that only two places make and only one reads. What is unwound owns what it makes, so nothing is
//! left half done. There is no clock here: the asker has it.

use std::cell::RefCell;
use std::panic::{AssertUnwindSafe, catch_unwind, resume_unwind};

/// The work was told not to go on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[error("the work was told to end before it was done")]
pub struct Stopped;

type GoOn = Box<dyn FnMut() -> bool>;

thread_local! {
    /// Who is asked: the outermost first.
    static ASKED: RefCell<Vec<GoOn>> = const { RefCell::new(Vec::new()) };
}

/// Asks as many as before, however the work ends.
struct Before(usize);

impl Drop for Before {
    fn drop(&mut self) {
        let inner = ASKED.with(|asked| asked.borrow_mut().split_off(self.0));
        drop(inner);
    }
}

/// Does the work for as long as `go_on` says so, and whoever is asked for the work around it. It is asked often, on the
/// thread of the work: its answer should cost no more than a look at a clock.
///
/// # Errors
/// [`Stopped`] where one of them said no. A panic of the work goes on as it is.
pub fn with<T>(go_on: impl FnMut() -> bool + 'static, work: impl FnOnce() -> T) -> Result<T, Stopped> {
    let _before = ASKED.with(|asked| {
        let mut asked = asked.borrow_mut();
        asked.push(Box::new(go_on));
        Before(asked.len() - 1)
    });
    catch_unwind(AssertUnwindSafe(work)).or_else(|thrown| match thrown.downcast::<Stopped>() {
        Ok(_) => Err(Stopped),
        Err(thrown) => resume_unwind(thrown),
    })
}

/// Whether anybody is asked for the work of this thread.
pub fn is_asked() -> bool {
    ASKED.with(|asked| !asked.borrow().is_empty())
}

/// Ends the work here where it should not go on. Costs next to nothing where nobody asked for an end.
///
/// # Panics
/// Unwinds with [`Stopped`] to the innermost [`with`].
pub fn check() {
    // Taken out while they answer, so that they may do anything, work of their own included.
    let mut all = ASKED.with(|asked| std::mem::take(&mut *asked.borrow_mut()));
    let goes_on = all.iter_mut().rev().all(|go_on| go_on());
    ASKED.with(|asked| *asked.borrow_mut() = all);
    if !goes_on {
        resume_unwind(Box::new(Stopped));
    }
}
