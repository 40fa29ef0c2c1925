//! `steelk`: serve, build, check, schema, openapi.

fn main() -> std::process::ExitCode {
    steelk_server::command::run()
}
