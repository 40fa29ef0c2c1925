//! The `steelk` binary.

/// Gives memory back to the machine after heavy work, which the usual one keeps in each thread's own pool.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// The allocator's `mi_option_purge_delay`, milliseconds: how long what is freed stays with the process. The crate has
/// a name for the options before and after it and none for this one.
const PURGE_DELAY: libmimalloc_sys::mi_option_t = 15;

fn main() -> std::process::ExitCode {
    give_back_at_once();
    steelk_server::command::run()
}

/// Has the allocator give memory back when it is freed. As it comes it does so a second later, when the next thing is
/// asked of it: a server that nobody asks anything any more would hold what its last heavy work took.
#[allow(unsafe_code, reason = "the allocator's options can be set in no other way from within")]
fn give_back_at_once() {
    // SAFETY: it takes two numbers and stores one of them; no memory is handed over, and nothing has been freed yet that
    // another value would have been read for. A number that is no option is ignored.
    unsafe { libmimalloc_sys::mi_option_set(PURGE_DELAY, 0) }
}
