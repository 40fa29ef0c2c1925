//! The front end, inside the binary.

use actix_web::http::header;
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
struct Dist;

/// A file of the front end; any other path gets the page itself, which knows its own addresses.
pub async fn serve(request: HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    let (name, file) = match Dist::get(path) {
        Some(file) if !path.is_empty() => (path, Some(file)),
        _ if path.starts_with("assets/") => (path, None),
        _ => ("index.html", Dist::get("index.html")),
    };
    match file {
        Some(file) => {
            // Built files carry a hash of themselves in their names; the page does not.
            let keep = if name.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
            HttpResponse::Ok()
                .insert_header((header::CACHE_CONTROL, keep))
                .content_type(kind(name))
                .body(file.data.into_owned())
        }
        None if name == "index.html" => HttpResponse::ServiceUnavailable()
            .content_type("text/plain; charset=utf-8")
            .body("The front end is not built. Run `make demo`, which builds it, and start again.\n"),
        None => HttpResponse::NotFound().content_type("text/plain; charset=utf-8").body("No such file.\n"),
    }
}

fn kind(name: &str) -> &'static str {
    match name.rsplit_once('.').map(|(_, end)| end) {
        Some("html") => "text/html; charset=utf-8",
        Some("js") => "text/javascript; charset=utf-8",
        Some("css") => "text/css; charset=utf-8",
        Some("svg") => "image/svg+xml",
        Some("woff2") => "font/woff2",
        Some("woff") => "font/woff",
        Some("json") => "application/json",
        _ => "application/octet-stream",
    }
}
