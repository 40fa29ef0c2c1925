//! Frames: sections, bars, centre lines from files, and the files of a frame.

use std::time::{Duration, Instant};

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::nest::nest;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::work::frame::LinesAction;
use utoipa::ToSchema;

use crate::files::SEARCH;
use crate::frame_answer::{BarsView, SectionRow, sections};
use crate::problem::Problem;
use crate::saw_line::{SawView, saw_runs};

use super::download::{VariantOf, as_variant};
use super::{State, worked_out};

/// Sections that are kept, with their outlines and masses.
#[utoipa::path(get, path = "/api/sections", responses((status = 200, body = Vec<SectionRow>)))]
pub(crate) async fn get_sections() -> web::Json<Vec<SectionRow>> {
    web::Json(sections())
}

/// Bars to be planned.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BarsRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Which variant of the piece.
    #[serde(default)]
    pub variant: Option<String>,
    /// The unit to print.
    #[serde(default)]
    pub show: Option<LengthUnit>,
    /// How long each section is searched, seconds: 0.1 to 30; 1.5 where left out.
    #[serde(default)]
    pub seconds: Option<f64>,
}

/// Plans the bars of a frame. A request that is given up ends its search.
#[utoipa::path(post, path = "/api/bars", request_body = BarsRequest, responses((status = 200, body = Vec<BarsView>), (status = 422, body = Problem)))]
pub(crate) async fn plan_bars(
    state: web::Data<State>,
    request: web::Json<BarsRequest>,
) -> Result<web::Json<Vec<BarsView>>, Problem> {
    let seconds = request.seconds.unwrap_or(SEARCH);
    if !(0.1..=30.0).contains(&seconds) {
        return Err(Problem::field("seconds", format!("a search of {seconds} s is outside 0.1 to 30 s")));
    }
    worked_out(state, move |_| {
        let piece = as_variant(Piece::read(request.document.get().as_bytes())?, request.variant.as_deref())?;
        let show = request.show.unwrap_or(piece.unit);
        let outcome = evaluate(&piece, Options { show: Some(show), ..Options::default() });
        let frame =
            outcome.frame().ok_or_else(|| Problem::field("kind", "bars are of a frame, and this piece is none"))?;
        let plans = frame
            .bars
            .iter()
            .map(|group| {
                let group = group.for_frames(piece.count().cut());
                let end = Instant::now() + Duration::from_secs_f64(seconds);
                let solved = nest(&group.problem, &mut |_| Instant::now() < end);
                BarsView::new(&group, solved, show)
            })
            .collect();
        Ok(web::Json(plans))
    })
    .await
}

/// A file of centre lines.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CentreLinesRequest {
    /// Its name; `.csv` is read as CSV, anything else as DXF.
    pub name: String,
    /// Its text.
    pub text: String,
    /// Unit of its numbers, where the file does not say.
    #[serde(default)]
    pub unit: LengthUnit,
}

/// Reads centre lines from a DXF (3D lines, arcs, polylines) or CSV file.
#[utoipa::path(post, path = "/api/centre-lines", request_body = CentreLinesRequest, responses((status = 200, body = LinesAction), (status = 422, body = Problem)))]
pub(crate) async fn read_centre_lines(
    state: web::Data<State>,
    request: web::Json<CentreLinesRequest>,
) -> Result<web::Json<LinesAction>, Problem> {
    worked_out(state, move |_| {
        let is_csv = request.name.to_ascii_lowercase().ends_with(".csv");
        let read = if is_csv {
            steelk_formats::centre_lines::from_csv(&request.text, request.unit)
        } else {
            steelk_formats::centre_lines::from_dxf(request.text.as_bytes(), request.unit)
        };
        read.map(|lines| web::Json(LinesAction { source: request.name.chars().take(80).collect(), ..lines }))
            .map_err(|fault| Problem::field("text", fault.to_string()))
    })
    .await
}

/// Runs the machine files of a frame on the simulated saw and drill line.
#[utoipa::path(get, path = "/api/pieces/{id}/saw", params(("id" = i64, Path), VariantOf), responses((status = 200, body = Vec<SawView>), (status = 409, body = Problem)))]
pub(crate) async fn saw(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<web::Json<Vec<SawView>>, Problem> {
    worked_out(state, move |state| {
        let piece = Piece::read(state.store().piece(*id)?.document.as_bytes())?;
        let piece = as_variant(piece, of.variant.as_deref())?;
        // Not audited in full: there a machine file that goes wrong keeps everything back, here it is shown.
        let outcome = evaluate(&piece, Options::default());
        Ok(web::Json(saw_runs(&piece, &outcome)?))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/sections", web::get().to(get_sections))
        .route("/bars", web::post().to(plan_bars))
        .route("/pieces/{id}/saw", web::get().to(saw))
        .route("/centre-lines", web::post().to(read_centre_lines));
}
