//! The picture of a drawing: PNG, JPEG or WebP, told by its first bytes and not by its name.

use actix_web::HttpResponse;
use actix_web::web::{self, ServiceConfig};
use steelk_store::Picture;

use super::{File, LARGEST_PICTURE, State, off_thread};
use crate::problem::Problem;

/// What kind of picture these bytes are.
///
/// # Errors
/// A problem for anything but PNG, JPEG and WebP.
pub(super) fn sniff(bytes: &[u8]) -> Result<&'static str, Problem> {
    if bytes.starts_with(b"\x89PNG\r\n\x1a\n") {
        Ok("image/png")
    } else if bytes.starts_with(b"\xff\xd8\xff") {
        Ok("image/jpeg")
    } else if bytes.len() > 12 && bytes.starts_with(b"RIFF") && &bytes[8..12] == b"WEBP" {
        Ok("image/webp")
    } else {
        Err(Problem::field(
            "picture",
            "this file is no PNG, JPEG or WebP picture; save the drawing as one of these and try again",
        ))
    }
}

/// Puts in the picture of the drawing.
#[utoipa::path(put, path = "/api/pieces/{id}/drawing", params(("id" = i64, Path)), request_body(content = String, content_type = "application/octet-stream"), responses((status = 204), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn put_drawing(
    state: web::Data<State>,
    id: web::Path<i64>,
    payload: Result<web::Bytes, actix_web::Error>,
) -> Result<HttpResponse, Problem> {
    let bytes = payload.map_err(|_| {
        let megabytes = LARGEST_PICTURE / 1024 / 1024;
        Problem::new(
            actix_web::http::StatusCode::PAYLOAD_TOO_LARGE,
            "Too large",
            format!("a drawing's picture may have {megabytes} MB; scan it coarser or crop it"),
        )
    })?;
    let kind = sniff(&bytes)?;
    off_thread(move || Ok(state.store().put_picture(*id, &Picture { kind: kind.into(), bytes: bytes.to_vec() })?))
        .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The picture of the drawing.
#[utoipa::path(get, path = "/api/pieces/{id}/drawing", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "image/png"), (status = 404, body = Problem)))]
pub(crate) async fn get_drawing(state: web::Data<State>, id: web::Path<i64>) -> Result<File, Problem> {
    off_thread(move || {
        let picture = state.store().picture(*id)?;
        Ok(File { name: None, kind: picture.kind, body: picture.bytes })
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/pieces/{id}/drawing", web::put().to(put_drawing))
        .route("/pieces/{id}/drawing", web::get().to(get_drawing));
}
