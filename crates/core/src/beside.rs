//! Two works beside each other, where whoever asks lends a second core for it.
//!
//! What comes out is the same either way. A server that shares its cores among many lends none; a command that one person
//! waits for does.

use std::cell::Cell;
use std::panic::resume_unwind;

use crate::patience;

thread_local! {
    static LENT: Cell<bool> = const { Cell::new(false) };
}

/// Lends a second core to the work, for as long as it takes.
pub fn lent<T>(work: impl FnOnce() -> T) -> T {
    struct Before(bool);
    impl Drop for Before {
        fn drop(&mut self) {
            LENT.set(self.0);
        }
    }
    let _before = Before(LENT.replace(true));
    work()
}

/// Does both works: at the same time where a second core is lent, one after the other otherwise. Where somebody is asked whether
/// the work should go on ([`patience`]) it is one after the other: a work on another thread could not be ended.
///
/// # Panics
/// Where one of the works does.
pub fn both<A, B: Send>(one: impl FnOnce() -> A, other: impl FnOnce() -> B + Send) -> (A, B) {
    if !LENT.get() || patience::is_asked() {
        return (one(), other());
    }
    std::thread::scope(|scope| {
        let beside = scope.spawn(|| lent(other));
        let first = one();
        (first, beside.join().unwrap_or_else(|thrown| resume_unwind(thrown)))
    })
}
