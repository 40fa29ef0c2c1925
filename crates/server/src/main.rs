//! The `steelk` binary.

/// Gives memory back to the machine after heavy work, which the usual one keeps in each thread's own pool.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// The allocator's `mi_option_purge_delay`, milliseconds: how long what is freed stays with the process. The crate has
/// a name for the options before and after it and none for this one.
const PURGE_DELAY: libmimalloc_sys::mi_option_t = 15;

fn main() -> std::process::ExitCode {
    steelk_server::command::run(give_back_at_once)
}

/// Has the allocator give memory back when it is freed. As it comes it does so a second later, when the next thing is
/// asked of it: a server that nobody asks anything any more would hold what its last heavy work took. A command that ends with
/// its work is spared the time.
#[allow(unsafe_code, reason = "the allocator's options can be set in no other way from within")]
fn give_back_at_once() {
    // SAFETY: it takes two numbers and stores one of them; no memory is handed over. What was freed before the server begins
    // was freed under the other value, which harms nothing. A number that is no option is ignored.
    unsafe { libmimalloc_sys::mi_option_set(PURGE_DELAY, 0) }
}
