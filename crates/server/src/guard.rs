//! What every request passes: security headers, and writes only from our own pages.

use std::sync::Arc;
use std::time::Duration;

use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{Payload, ServiceRequest, ServiceResponse};
use actix_web::error::PayloadError;
use actix_web::http::{Method, StatusCode, header};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::{Error, HttpMessage as _, HttpRequest, ResponseError as _, web};

use futures_util::{StreamExt as _, stream};
use tokio::sync::Semaphore;
use tokio::time::{Instant, timeout_at};

use crate::api::State;
use crate::line::busy;
use crate::problem::Problem;

/// Headers of every answer. Inline styles are allowed because the component library writes them; scripts never are.
pub fn headers() -> DefaultHeaders {
    DefaultHeaders::new()
        .add((
            "Content-Security-Policy",
            "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; \
             font-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
        ))
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("X-Frame-Options", "DENY"))
        .add(("Referrer-Policy", "no-referrer"))
        .add(("Cross-Origin-Opener-Policy", "same-origin"))
}

/// Refuses a write that a browser sends from another site's page, any request under a host name that is not ours, and a
/// packed body: a few bytes of it could unpack to more than there is memory. A refusal goes the way of every answer,
/// with its headers.
///
/// # Errors
/// Whatever the service itself fails with.
pub async fn same_origin<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, Error> {
    if let Some(problem) = refusal(request.request()) {
        return Ok(request.into_response(problem.error_response()).map_into_right_body());
    }
    Ok(next.call(request).await?.map_into_left_body())
}

/// Ends a body that is not there in time, be it sent drop by drop: whoever reads it is told so.
///
/// # Errors
/// Whatever the service itself fails with.
pub async fn bodies_in_time<B: MessageBody + 'static>(
    patience: Duration,
    mut request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, Error> {
    let end = Instant::now() + patience;
    let sent = stream::unfold(request.take_payload(), move |mut body| async move {
        match timeout_at(end, body.next()).await {
            Ok(part) => Some((part?, body)),
            Err(_) => Some((Err(PayloadError::Io(std::io::ErrorKind::TimedOut.into())), Payload::None)),
        }
    });
    request.set_payload(Payload::Stream { payload: Box::pin(sent) });
    next.call(request).await
}

/// How much of bodies is held at once, in MiB: a crowd of large files waits for each other instead of taking all
/// memory.
pub struct BodyRoom(Arc<Semaphore>);

/// MiB of bodies that are held at once.
const BODIES: usize = 2 * crate::api::LARGEST_JOB / MIB;
const MIB: usize = 1024 * 1024;
/// What a body of unknown length is taken for, MiB: the most of any but a job's file.
const UNKNOWN: usize = crate::api::LARGEST_PICTURE / MIB;
/// How long a body waits for its room.
const WAIT: Duration = Duration::from_secs(20);

impl Default for BodyRoom {
    fn default() -> Self {
        BodyRoom(Arc::new(Semaphore::new(BODIES)))
    }
}

/// Waits until there is room for the body, and keeps it until the answer is made.
///
/// # Errors
/// Whatever the service itself fails with.
pub async fn room_for_body<B: MessageBody + 'static>(
    room: Arc<BodyRoom>,
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<EitherBody<B>>, Error> {
    let is_write = !matches!(*request.method(), Method::GET | Method::HEAD | Method::OPTIONS);
    let length = request.headers().get(header::CONTENT_LENGTH).and_then(|value| value.to_str().ok()?.parse().ok());
    // One that says more than is ever taken is refused by its reader before it is read.
    let wanted = length.map_or(UNKNOWN, |bytes: usize| bytes.div_ceil(MIB)).min(BODIES);
    if !is_write || wanted <= 1 {
        return Ok(next.call(request).await?.map_into_left_body());
    }
    let taken = timeout_at(Instant::now() + WAIT, room.0.acquire_many(wanted as u32)).await;
    let Ok(Ok(_taken)) = taken else {
        return Ok(request.into_response(busy().error_response()).map_into_right_body());
    };
    Ok(next.call(request).await?.map_into_left_body())
}

fn refusal(request: &HttpRequest) -> Option<Problem> {
    let text = |name: header::HeaderName| request.headers().get(name).and_then(|value| value.to_str().ok());
    let host = text(header::HOST).unwrap_or_default();
    if let Some(state) = request.app_data::<web::Data<State>>()
        && !state.reach().knows(host)
    {
        return Some(Problem::new(
            StatusCode::FORBIDDEN,
            "Unknown host name",
            format!("this server answers {}, not under \"{host}\"", state.reach().words()),
        ));
    }
    let mut packings = request.headers().get_all(header::CONTENT_ENCODING);
    if packings.any(|how| !how.as_bytes().eq_ignore_ascii_case(b"identity")) {
        return Some(Problem::new(
            StatusCode::UNSUPPORTED_MEDIA_TYPE,
            "Packed bodies are not read",
            "send it as it is, without Content-Encoding",
        ));
    }
    if matches!(*request.method(), Method::GET | Method::HEAD | Method::OPTIONS) {
        return None;
    }
    let origin_host = text(header::ORIGIN).map(|origin| origin.split_once("://").map_or(origin, |(_, rest)| rest));
    let foreign = origin_host.is_some_and(|origin| origin != host)
        || text(header::HeaderName::from_static("sec-fetch-site"))
            .is_some_and(|site| !matches!(site, "same-origin" | "none"));
    foreign
        .then(|| Problem::new(StatusCode::FORBIDDEN, "Not from here", "changes are taken from Steelk's own pages only"))
}
