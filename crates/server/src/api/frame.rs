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

use crate::audited::audited;
use crate::frame_answer::{BarsView, SectionRow, sections};
use crate::frame_files;
use crate::problem::Problem;

use super::download::{VariantOf, as_variant, attachment, file_name};
use super::{File, State, worked_out};

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
    let seconds = request.seconds.unwrap_or(frame_files::SEARCH);
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
                let group = frame_files::for_all(group, piece.quantity);
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

/// Which file of a frame.
#[derive(Deserialize, utoipa::IntoParams)]
pub(crate) struct FrameFileOf {
    id: i64,
    /// `cutlist.csv`, `cutlist.xlsx`, `cutlist.pdf`, `bars.csv`, `welds.csv`, `frame.step`, `frame.glb`, `MARK.nc1`,
    /// `MARK-wrap.pdf`, `MARK-wrap.dxf`.
    file: String,
}

/// A file of a frame.
#[utoipa::path(get, path = "/api/pieces/{id}/frame/{file}", params(("id" = i64, Path), ("file" = String, Path), VariantOf), responses((status = 200, body = String, content_type = "application/octet-stream"), (status = 404, body = Problem), (status = 409, body = Problem)))]
pub(crate) async fn frame_file(
    state: web::Data<State>,
    path: web::Path<FrameFileOf>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let piece = Piece::read(state.store().piece(path.id)?.document.as_bytes())?;
        let piece = as_variant(piece, of.variant.as_deref())?;
        let outcome = audited(&piece);
        let csv = "text/csv; charset=utf-8";
        let name = |end: &str, kind: &str, body: Vec<u8>| {
            let (stem, extension) = end.rsplit_once('.').unwrap_or((end, "txt"));
            attachment(&file_name(&format!("{}-{stem}", piece.mark), extension), kind, body)
        };
        let file = path.file.as_str();
        Ok(match file {
            "cutlist.csv" => name(file, csv, frame_files::cut_list_csv(&piece, &outcome)?),
            "bars.csv" => name(file, csv, frame_files::bars_csv(&piece, &outcome)?),
            "welds.csv" => name(file, csv, frame_files::welds_csv(&piece, &outcome)?),
            "cutlist.xlsx" => name(
                file,
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                frame_files::cut_list_xlsx(&piece, &outcome)?,
            ),
            "cutlist.pdf" => name(file, "application/pdf", frame_files::cut_list_pdf(&piece, &outcome)?),
            "frame.glb" => name(file, "model/gltf-binary", frame_files::frame_glb(&piece, &outcome)?),
            "frame.step" => name(file, "model/step", frame_files::frame_step(&piece, &outcome)?),
            _ => {
                let missing = || {
                    Problem::new(
                        actix_web::http::StatusCode::NOT_FOUND,
                        "Not there",
                        format!("{} has no file {file}", piece.mark),
                    )
                };
                if let Some(mark) = file.strip_suffix(".nc1") {
                    let all = frame_files::nc1_files(&piece, &outcome)?;
                    let (_, text) = all.into_iter().find(|(own, _)| own == mark).ok_or_else(missing)?;
                    let text = text.map_err(|fault| {
                        Problem::new(actix_web::http::StatusCode::CONFLICT, "No machine file", fault.to_string())
                    })?;
                    name(file, "text/plain; charset=us-ascii", text.into_bytes())
                } else if let Some(mark) = file.strip_suffix("-wrap.pdf") {
                    name(file, "application/pdf", frame_files::wrap_pdf(&piece, &outcome, mark)?.ok_or_else(missing)?)
                } else if let Some(mark) = file.strip_suffix("-wrap.dxf") {
                    name(file, "image/vnd.dxf", frame_files::wrap_dxf(&piece, &outcome, mark)?.ok_or_else(missing)?)
                } else {
                    return Err(missing());
                }
            }
        })
    })
    .await
}

/// Runs the machine files of a frame on the simulated saw and drill line.
#[utoipa::path(get, path = "/api/pieces/{id}/saw", params(("id" = i64, Path), VariantOf), responses((status = 200, body = Vec<frame_files::SawView>), (status = 409, body = Problem)))]
pub(crate) async fn saw(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<web::Json<Vec<frame_files::SawView>>, Problem> {
    worked_out(state, move |state| {
        let piece = Piece::read(state.store().piece(*id)?.document.as_bytes())?;
        let piece = as_variant(piece, of.variant.as_deref())?;
        // Not audited in full: there a machine file that goes wrong keeps everything back, here it is shown.
        let outcome = evaluate(&piece, Options::default());
        Ok(web::Json(frame_files::saw_runs(&piece, &outcome)?))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/sections", web::get().to(get_sections))
        .route("/bars", web::post().to(plan_bars))
        .route("/pieces/{id}/saw", web::get().to(saw))
        .route("/centre-lines", web::post().to(read_centre_lines))
        .route("/pieces/{id}/frame/{file}", web::get().to(frame_file));
}
