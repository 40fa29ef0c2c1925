//! An outline from a file: DXF or SVG in, a shape, its layers and what was changed out. Nothing is saved.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::piece::{Piece, resolve};
use steelk_core::plane::tidy::{Tolerances, tidy};
use steelk_core::quantity::{LengthUnit, decimal};
use steelk_core::sheet::{MOST_EDGES, pull_to_round, write_path};
use steelk_core::work::Action;
use steelk_core::work::shape::{BaseShape, Profile, Saying};
use steelk_core::work::sheet::LayDown;
use steelk_formats::strokes::{Layers, Strokes};
use steelk_formats::{dxf_read, svg_read};
use utoipa::{IntoParams, ToSchema};

use crate::answer::outline_path;
use crate::problem::Problem;

use super::{State, body, worked_out};

/// Which file it is.
#[derive(Deserialize, IntoParams)]
pub(crate) struct OutlineOf {
    /// The file's name, for messages and the shape's source.
    name: String,
    /// Which layers are cuts, by name: `CUT:yes,NOTES:no`; by the usual meaning of their names where left out.
    #[serde(default)]
    layers: String,
    /// Ends nearer than this are one point, mm; 0.05 where left out.
    #[serde(default)]
    gap: Option<f64>,
}

/// A layer of the file.
#[derive(Serialize, ToSchema)]
pub(crate) struct OutlineLayer {
    /// Its name.
    name: String,
    /// How many strokes lie on it.
    strokes: usize,
    /// Whether they were taken as cuts.
    taken: bool,
}

/// A shape from a file.
#[derive(Serialize, ToSchema)]
pub(crate) struct OutlineAnswer {
    /// The profile, to lay down or to cut.
    shape: BaseShape,
    /// What was changed or left out, in words.
    changes: Vec<String>,
    /// The file's layers.
    layers: Vec<OutlineLayer>,
    /// Its size and number of holes, in words.
    size: String,
    /// It as one even-odd path, y down, for a small picture.
    picture: String,
    /// The box around it: left, top, width, height.
    around: [f64; 4],
}

/// Contours in the small picture; more could not be told apart.
const MOST_DRAWN: usize = 1500;

/// DXF or SVG, told by what it begins with and not by its name.
fn strokes(bytes: &[u8], layers: &Layers) -> Result<Strokes, String> {
    let head = String::from_utf8_lossy(&bytes[..bytes.len().min(4096)]).to_ascii_lowercase();
    if head.trim_start_matches('\u{feff}').trim_start().starts_with('<') {
        return svg_read::read(bytes, layers).map_err(|fault| fault.to_string());
    }
    dxf_read::read(bytes, layers).map_err(|fault| fault.to_string())
}

fn chosen(text: &str) -> Result<Layers, Problem> {
    let mut layers = Layers::default();
    for entry in text.split(',').filter(|entry| !entry.is_empty()) {
        let taken = match entry.rsplit_once(':') {
            Some((name, "yes")) => (name, true),
            Some((name, "no")) => (name, false),
            _ => return Err(Problem::field("layers", format!("\"{entry}\" is no choice: write NAME:yes or NAME:no"))),
        };
        layers.chosen.insert(taken.0.to_ascii_uppercase(), taken.1);
    }
    Ok(layers)
}

/// Reads a DXF or SVG file into a profile.
#[utoipa::path(post, path = "/api/outline", params(OutlineOf), request_body(content = String, content_type = "application/octet-stream"), responses((status = 200, body = OutlineAnswer), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn read_outline(
    state: web::Data<State>,
    of: web::Query<OutlineOf>,
    payload: Result<web::Bytes, actix_web::Error>,
) -> Result<web::Json<OutlineAnswer>, Problem> {
    let megabytes = dxf_read::LARGEST_DXF / 1024 / 1024;
    let bytes = body(payload, &format!("an outline's file may have {megabytes} MB"))?;
    // A name is shown and kept: no more of it than a name has.
    let name: String = of.name.chars().filter(|c| !c.is_control()).take(80).collect();
    let layers = chosen(&of.layers)?;
    let mut tolerances = Tolerances::default();
    if let Some(gap) = of.gap {
        if !(0.001..=5.0).contains(&gap) {
            return Err(Problem::field("gap", format!("a gap of {gap} mm is outside 0.001 to 5 mm")));
        }
        tolerances.gap = gap;
    }
    worked_out(state, move |_| {
        let refuse = |fault: String| Problem::field("outline", format!("{name}: {fault}"));
        let found = strokes(&bytes, &layers).map_err(refuse)?;
        let tidied = tidy(&found.strokes, tolerances).map_err(|fault| {
            let left = found.notes.join(", ");
            refuse(format!("{fault} ({left}). Export the contour as closed lines, arcs or polylines and try again"))
        })?;
        let edges = tidied.region.outer.edges.len();
        if edges > MOST_EDGES {
            return Err(refuse(format!("its outer contour has {edges} edges; {MOST_EDGES} is the most")));
        }
        let changes: Vec<String> = found.notes.into_iter().chain(tidied.changes).collect();
        let shape = BaseShape::Profile(Profile {
            unit: LengthUnit::Mm,
            outer: write_path(&tidied.region.outer),
            holes: tidied.region.holes.iter().map(write_path).collect(),
            source: format!("{name} ({})", changes.join(", ")),
        });
        let around = tidied.region.extents();
        let holes = tidied.region.holes.len();
        let size = format!(
            "{} by {} mm, {holes} {}",
            decimal(around.width(), 3),
            decimal(around.height(), 3),
            if holes == 1 { "hole" } else { "holes" }
        );
        let picture = tidied.region.outlines().take(MOST_DRAWN).map(outline_path).collect();
        let box_ = [around.low.x, 0.0 - around.high.y, around.width(), around.height()];
        let layers = found.layers.into_iter();
        let layers =
            layers.map(|one| OutlineLayer { name: one.name, strokes: one.strokes, taken: one.taken }).collect();
        Ok(web::Json(OutlineAnswer { shape, changes, layers, size, picture, around: box_ }))
    })
    .await
}

/// An outline to pull to round numbers.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PullRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// The operation that lays the traced outline down.
    pub operation: String,
}

/// What has to be said further.
#[derive(Serialize, ToSchema)]
pub struct PullAnswer {
    /// Rules and round numbers, in the order that they were found.
    pub says: Vec<Saying>,
}

/// What has to be said of a traced outline so that it is defined in round numbers. Nothing is saved.
#[utoipa::path(post, path = "/api/pull", request_body = PullRequest, responses((status = 200, body = PullAnswer), (status = 422, body = Problem)))]
pub(crate) async fn pull_outline(
    state: web::Data<State>,
    request: web::Json<PullRequest>,
) -> Result<web::Json<PullAnswer>, Problem> {
    worked_out(state, move |_| {
        let piece = Piece::read(request.document.get().as_bytes())?;
        let drawn =
            piece.operations.iter().find(|one| one.name == request.operation).and_then(|one| match &one.action {
                Action::LayDown(LayDown { shape: BaseShape::Drawn(drawn), .. }) => Some(drawn),
                _ => None,
            });
        let Some(drawn) = drawn else {
            let detail = format!("{} is no drawn outline of this piece", request.operation);
            return Err(Problem::field("operation", detail));
        };
        let names = resolve(&piece, None, piece.unit).names;
        let says =
            pull_to_round(drawn, &names, piece.unit).map_err(|fault| Problem::field("underlay", fault.to_string()))?;
        Ok(web::Json(PullAnswer { says }))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config.route("/outline", web::post().to(read_outline)).route("/pull", web::post().to(pull_outline));
}
