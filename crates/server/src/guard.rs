//! What every request passes: security headers, and writes only from our own pages.

use actix_web::body::MessageBody;
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::{Method, StatusCode, header};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::{Error, HttpRequest};

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

/// Refuses a write that a browser sends from another site's page, and any request for a foreign host name while bound
/// to this machine only (a page elsewhere could point its own name here).
///
/// # Errors
/// Whatever the service itself fails with.
pub async fn same_origin<B: MessageBody + 'static>(
    request: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<B>, Error> {
    if let Some(problem) = refusal(request.request()) {
        return Err(problem.into());
    }
    next.call(request).await
}

fn refusal(request: &HttpRequest) -> Option<Problem> {
    let text = |name: header::HeaderName| request.headers().get(name).and_then(|value| value.to_str().ok());
    let host = text(header::HOST).unwrap_or_default();
    let local_only = request.app_config().local_addr().ip().is_loopback();
    let name = host.rsplit_once(':').map_or(host, |(name, port)| if port.ends_with(']') { host } else { name });
    if local_only && !matches!(name, "127.0.0.1" | "localhost" | "[::1]") {
        return Some(Problem::new(
            StatusCode::FORBIDDEN,
            "Unknown host name",
            format!("this server answers on 127.0.0.1 only, not on \"{host}\""),
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
