//! The front end, inside the binary, packed when it was built (`web/pack.mjs`).

use actix_web::http::header::{self, Encoding, Header as _};
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::{EmbeddedFile, RustEmbed};

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
            let mut answer = HttpResponse::Ok();
            answer.insert_header((header::CACHE_CONTROL, keep)).content_type(kind(name));
            // What is packed is given as it was packed, to whoever reads it so.
            answer.insert_header((header::VARY, "accept-encoding"));
            match packed(&request, name) {
                Some((way, packed)) => {
                    answer.insert_header((header::CONTENT_ENCODING, way)).body(packed.data.into_owned())
                }
                None => answer.body(file.data.into_owned()),
            }
        }
        None if name == "index.html" => HttpResponse::ServiceUnavailable()
            .content_type("text/plain; charset=utf-8")
            .body("The front end is not built. Run `make demo`, which builds it, and start again.\n"),
        None => HttpResponse::NotFound().content_type("text/plain; charset=utf-8").body("No such file.\n"),
    }
}

/// The best packed form of a file that the asker reads; none where there is none, or where it asks for none.
fn packed(request: &HttpRequest, name: &str) -> Option<(&'static str, EmbeddedFile)> {
    let accepted = header::AcceptEncoding::parse(request).ok()?;
    let ways = [("br", ".br", Encoding::brotli()), ("gzip", ".gz", Encoding::gzip())];
    let there =
        ways.into_iter().filter_map(|(way, end, encoding)| Some((way, encoding, Dist::get(&format!("{name}{end}"))?)));
    let there: Vec<_> = there.collect();
    let known: Vec<Encoding> =
        there.iter().map(|(_, encoding, _)| encoding.clone()).chain([Encoding::identity()]).collect();
    let best = accepted.negotiate(known.iter())?;
    there.into_iter().find(|(_, encoding, _)| *encoding == best).map(|(way, _, file)| (way, file))
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
