//! The server's log: what was asked, how it was answered and how long it took. Never what is in a document, a name or a
//! mark.

use std::io::IsTerminal as _;
use std::panic::PanicHookInfo;
use std::time::Instant;

use actix_web::Error;
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::middleware::Next;
use tracing::Level;
use tracing_subscriber::filter::Targets;
use tracing_subscriber::layer::SubscriberExt as _;
use tracing_subscriber::util::SubscriberInitExt as _;

/// Begins the log on standard error, from this level on. A panic is a line of its own with its place, and without its
/// words, which may quote a document.
pub fn begin(level: Level) {
    // What we stand on says more than a shop wants to read, unless somebody looks closer.
    let others = if level > Level::INFO { level } else { level.min(Level::WARN) };
    let lines = tracing_subscriber::fmt::layer()
        .with_writer(std::io::stderr)
        .with_ansi(std::io::stderr().is_terminal())
        .with_target(false);
    let wanted = Targets::new().with_default(others).with_target("steelk_server", level);
    let begun = tracing_subscriber::registry().with(lines).with(wanted).try_init();
    // Another log is there already, in a test: that one stands.
    drop(begun);
    std::panic::set_hook(Box::new(|panic: &PanicHookInfo<'_>| {
        let place = panic.location().map_or("an unknown place".into(), ToString::to_string);
        tracing::error!("work stopped at {place}; it was answered with an error, and nothing else was touched");
    }));
}

/// Writes a line for a request: errors of ours as errors, refusals and answers for whoever looks closer. The address is
/// written as its pattern: what stands for it may be a mark.
///
/// # Errors
/// Whatever the service itself fails with.
pub async fn requests<B: MessageBody>(request: ServiceRequest, next: Next<B>) -> Result<ServiceResponse<B>, Error> {
    let (begun, method) = (Instant::now(), request.method().clone());
    let result = next.call(request).await;
    let took = begun.elapsed().as_millis() as u64;
    let (status, pattern) = match &result {
        Ok(answer) => (answer.status(), answer.request().match_pattern()),
        Err(fault) => (fault.as_response_error().status_code(), None),
    };
    let (status, pattern) = (status.as_u16(), pattern.unwrap_or_else(|| "elsewhere".into()));
    match status {
        500.. => tracing::error!(%method, pattern, status, took, "failed"),
        400.. => tracing::debug!(%method, pattern, status, took, "refused"),
        _ => tracing::debug!(%method, pattern, status, took, "answered"),
    }
    result
}
