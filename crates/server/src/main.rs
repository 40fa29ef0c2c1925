//! The `steelk` binary.

/// Gives memory back to the machine after heavy work, which the usual one keeps in each thread's own pool.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() -> std::process::ExitCode {
    steelk_server::command::run()
}
