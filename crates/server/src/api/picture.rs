//! The picture of a drawing and the photo of a sample: PNG, JPEG or WebP, told by its first bytes and not by its name.

use actix_web::HttpResponse;
use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use steelk_store::{PastPicture, Picture, Slot};
use utoipa::ToSchema;

use super::{File, LARGEST_PICTURE, State, body, off_thread};
use crate::problem::Problem;

/// The most pixels of a picture, across or up, and in all: a small file may unpack to far more than a page can show.
const LARGEST_SIDE: usize = 20_000;
const MOST_PIXELS: usize = 120_000_000;

/// What kind of picture these bytes are.
///
/// # Errors
/// A problem for anything but PNG, JPEG and WebP, for one that is broken, and for one with too many pixels.
pub(super) fn sniff(bytes: &[u8]) -> Result<&'static str, Problem> {
    let kind = if bytes.starts_with(b"\x89PNG\r\n\x1a\n") {
        "image/png"
    } else if bytes.starts_with(b"\xff\xd8\xff") {
        "image/jpeg"
    } else if bytes.len() > 12 && bytes.starts_with(b"RIFF") && &bytes[8..12] == b"WEBP" {
        "image/webp"
    } else {
        return Err(Problem::field(
            "picture",
            "this file is no PNG, JPEG or WebP picture; save the drawing as one of these and try again",
        ));
    };
    // Only the head is read: the picture itself is unpacked by nobody here.
    let size = imagesize::blob_size(bytes).map_err(|_| {
        Problem::field("picture", "this picture is broken: its size cannot be read; save it again and try again")
    })?;
    let (width, height) = (size.width, size.height);
    if width == 0 || height == 0 || width > LARGEST_SIDE || height > LARGEST_SIDE || width * height > MOST_PIXELS {
        let detail = format!(
            "a picture of {width} by {height} pixels: at most {LARGEST_SIDE} a side and {} million in all; scan it coarser",
            MOST_PIXELS / 1_000_000
        );
        return Err(Problem::field("picture", detail));
    }
    Ok(kind)
}

async fn put(
    state: web::Data<State>,
    id: i64,
    slot: Slot,
    payload: Result<web::Bytes, actix_web::Error>,
) -> Result<HttpResponse, Problem> {
    let megabytes = LARGEST_PICTURE / 1024 / 1024;
    let bytes = body(payload, &format!("a picture may have {megabytes} MB; scan it coarser or crop it"))?;
    let kind = sniff(&bytes)?;
    off_thread(move || {
        Ok(state.store().put_picture(id, slot, &Picture { kind: kind.into(), bytes: bytes.to_vec() })?)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

async fn get(state: web::Data<State>, id: i64, slot: Slot) -> Result<File, Problem> {
    off_thread(move || {
        let picture = state.store().picture(id, slot)?;
        Ok(File { name: None, kind: picture.kind, body: picture.bytes })
    })
    .await
}

/// Puts in the picture of the drawing.
#[utoipa::path(put, path = "/api/pieces/{id}/drawing", params(("id" = i64, Path)), request_body(content = String, content_type = "application/octet-stream"), responses((status = 204), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn put_drawing(
    state: web::Data<State>,
    id: web::Path<i64>,
    payload: Result<web::Bytes, actix_web::Error>,
) -> Result<HttpResponse, Problem> {
    put(state, *id, Slot::Drawing, payload).await
}

/// The picture of the drawing.
#[utoipa::path(get, path = "/api/pieces/{id}/drawing", params(("id" = i64, Path)), responses((status = 200, description = "The picture", content((Vec<u8> = "image/png"), (Vec<u8> = "image/jpeg"), (Vec<u8> = "image/webp"))), (status = 404, body = Problem)))]
pub(crate) async fn get_drawing(state: web::Data<State>, id: web::Path<i64>) -> Result<File, Problem> {
    get(state, *id, Slot::Drawing).await
}

/// Puts in a photo or scan to trace an outline from.
#[utoipa::path(put, path = "/api/pieces/{id}/photo", params(("id" = i64, Path)), request_body(content = String, content_type = "application/octet-stream"), responses((status = 204), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn put_photo(
    state: web::Data<State>,
    id: web::Path<i64>,
    payload: Result<web::Bytes, actix_web::Error>,
) -> Result<HttpResponse, Problem> {
    put(state, *id, Slot::Photo, payload).await
}

/// The photo to trace.
#[utoipa::path(get, path = "/api/pieces/{id}/photo", params(("id" = i64, Path)), responses((status = 200, description = "The picture", content((Vec<u8> = "image/png"), (Vec<u8> = "image/jpeg"), (Vec<u8> = "image/webp"))), (status = 404, body = Problem)))]
pub(crate) async fn get_photo(state: web::Data<State>, id: web::Path<i64>) -> Result<File, Problem> {
    get(state, *id, Slot::Photo).await
}

/// Deletes the picture of the drawing; it waits among those before.
#[utoipa::path(delete, path = "/api/pieces/{id}/drawing", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
pub(crate) async fn remove_drawing(state: web::Data<State>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    off_thread(move || Ok(state.store().remove_picture(*id, Slot::Drawing)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Deletes the photo to trace; it waits among those before.
#[utoipa::path(delete, path = "/api/pieces/{id}/photo", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
pub(crate) async fn remove_photo(state: web::Data<State>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    off_thread(move || Ok(state.store().remove_picture(*id, Slot::Photo)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A picture that was there before the one that is there now.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PastPictureLine {
    /// Counts up from 1 as pictures are put in their place.
    pub number: i64,
    /// Its media type.
    pub kind: String,
    /// Bytes.
    pub size: i64,
    /// When it had been put in.
    pub at: String,
}

/// Which picture of a piece.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub(crate) enum SlotName {
    /// The drawing.
    Drawing,
    /// What is traced.
    Photo,
}

impl From<SlotName> for Slot {
    fn from(name: SlotName) -> Slot {
        match name {
            SlotName::Drawing => Slot::Drawing,
            SlotName::Photo => Slot::Photo,
        }
    }
}

/// The pictures that were there before, newest first.
#[utoipa::path(get, path = "/api/pieces/{id}/{slot}/before", params(("id" = i64, Path), ("slot" = SlotName, Path)), responses((status = 200, body = Vec<PastPictureLine>), (status = 404, body = Problem)))]
pub(crate) async fn past_pictures(
    state: web::Data<State>,
    path: web::Path<(i64, SlotName)>,
) -> Result<web::Json<Vec<PastPictureLine>>, Problem> {
    off_thread(move || {
        let all = state.store().past_pictures(path.0, path.1.into())?.into_iter();
        let line =
            |one: PastPicture| PastPictureLine { number: one.number, kind: one.kind, size: one.size, at: one.at };
        Ok(web::Json(all.map(line).collect()))
    })
    .await
}

/// One of the pictures that were there before.
#[utoipa::path(get, path = "/api/pieces/{id}/{slot}/before/{number}", params(("id" = i64, Path), ("slot" = SlotName, Path), ("number" = i64, Path)), responses((status = 200, description = "The picture", content((Vec<u8> = "image/png"), (Vec<u8> = "image/jpeg"), (Vec<u8> = "image/webp"))), (status = 404, body = Problem)))]
pub(crate) async fn past_picture(
    state: web::Data<State>,
    path: web::Path<(i64, SlotName, i64)>,
) -> Result<File, Problem> {
    off_thread(move || {
        let picture = state.store().past_picture(path.0, path.1.into(), path.2)?;
        Ok(File { name: None, kind: picture.kind, body: picture.bytes })
    })
    .await
}

/// Puts one of the pictures that were there before in again; the one that is there now is kept among those before.
#[utoipa::path(post, path = "/api/pieces/{id}/{slot}/before/{number}/restore", params(("id" = i64, Path), ("slot" = SlotName, Path), ("number" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
pub(crate) async fn restore_picture(
    state: web::Data<State>,
    path: web::Path<(i64, SlotName, i64)>,
) -> Result<HttpResponse, Problem> {
    off_thread(move || {
        let slot = path.1.into();
        let mut store = state.store();
        let picture = store.past_picture(path.0, slot, path.2)?;
        Ok(store.put_picture(path.0, slot, &picture)?)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/pieces/{id}/drawing", web::put().to(put_drawing))
        .route("/pieces/{id}/drawing", web::get().to(get_drawing))
        .route("/pieces/{id}/drawing", web::delete().to(remove_drawing))
        .route("/pieces/{id}/photo", web::delete().to(remove_photo))
        .route("/pieces/{id}/photo", web::put().to(put_photo))
        .route("/pieces/{id}/photo", web::get().to(get_photo))
        .route("/pieces/{id}/{slot}/before", web::get().to(past_pictures))
        .route("/pieces/{id}/{slot}/before/{number}", web::get().to(past_picture))
        .route("/pieces/{id}/{slot}/before/{number}/restore", web::post().to(restore_picture));
}

#[cfg(test)]
mod tests {
    use super::sniff;

    const PNG: &[u8] = include_bytes!("../../../../demo/06-gusset.png");

    #[test]
    fn a_good_picture_is_known_and_a_broken_or_endless_one_refused() {
        assert_eq!(sniff(PNG).unwrap(), "image/png");
        for bytes in [&b""[..], b"GIF89a", b"RIFF....WAVE", b"<svg/>"] {
            assert!(sniff(bytes).unwrap_err().detail.contains("no PNG, JPEG or WebP"));
        }
        for bytes in [&PNG[..8], b"\xff\xd8\xff", b"RIFF\0\0\0\0WEBPVP8 "] {
            assert!(sniff(bytes).unwrap_err().detail.contains("broken"), "{bytes:?}");
        }
        let mut endless = PNG.to_vec();
        endless[16..24].copy_from_slice(&[0, 1, 0, 0, 0, 1, 0, 0]);
        assert!(sniff(&endless).unwrap_err().detail.contains("65536 by 65536 pixels"));
    }

    proptest::proptest! {
        #[test]
        fn any_bytes_are_known_or_refused(head in 0usize..4, bytes in proptest::collection::vec(proptest::num::u8::ANY, 0..200)) {
            let start: &[u8] = [&b""[..], b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff", b"RIFF\0\0\0\0WEBP"][head];
            let _ = sniff(&[start, &bytes].concat());
        }

        #[test]
        fn any_damage_to_a_picture_is_taken_or_refused(at in 0usize..400, byte in proptest::num::u8::ANY, end in 0usize..400) {
            let mut bytes = PNG[..end.max(at + 1)].to_vec();
            bytes[at] = byte;
            let _ = sniff(&bytes);
        }
    }
}
