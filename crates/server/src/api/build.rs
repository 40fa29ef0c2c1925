//! The live build.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::piece::{Need, Options, Piece, evaluate, fold_only};
use steelk_core::quantity::LengthUnit;
use utoipa::ToSchema;

use super::download::as_variant;
use super::{State, worked_out};
use crate::answer::{BuildAnswer, MeshView};
use crate::audit_answer::AuditAnswer;
use crate::audited::audited_as_read;
use crate::problem::Problem;

/// A piece to build.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BuildRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Which variant of the piece; the piece itself where left out.
    #[serde(default)]
    pub variant: Option<String>,
    /// How many operations from the top (the caret); all where left out.
    #[serde(default)]
    pub upto: Option<usize>,
    /// The unit to print; the piece's own where left out.
    #[serde(default)]
    pub show: Option<LengthUnit>,
    /// How much of it: everything where left out.
    #[serde(default)]
    pub need: Need,
}

/// A piece to fold part of the way.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FoldRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Which variant of the piece; the piece itself where left out.
    #[serde(default)]
    pub variant: Option<String>,
    /// How many operations from the top.
    #[serde(default)]
    pub upto: Option<usize>,
    /// 0 flat to 1 folded.
    pub fold: f64,
}

/// Builds, measures and proves a piece without saving it.
#[utoipa::path(post, path = "/api/build", request_body = BuildRequest, responses((status = 200, body = BuildAnswer), (status = 422, body = Problem)))]
pub(crate) async fn build_piece(
    state: web::Data<State>,
    request: web::Json<BuildRequest>,
) -> Result<web::Json<BuildAnswer>, Problem> {
    worked_out(state, move |state| {
        let piece = as_variant(Piece::read(request.document.get().as_bytes())?, request.variant.as_deref())?;
        let own = state.shop()?;
        let options = Options {
            upto: request.upto,
            show: request.show,
            variant: request.variant.as_deref().is_some_and(|name| !name.is_empty()),
            shop: own.workshop(),
            need: request.need,
            ..Options::default()
        };
        let outcome = evaluate(&piece, options);
        Ok(web::Json(BuildAnswer::new(&piece, &outcome, request.show.unwrap_or(piece.unit), request.need)))
    })
    .await
}

/// A piece whose files are to be read back before they are given out.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Which variant of the piece; the piece itself where left out.
    #[serde(default)]
    pub variant: Option<String>,
    /// The unit to print; the piece's own where left out.
    #[serde(default)]
    pub show: Option<LengthUnit>,
}

/// Every check that stands before a file: all figures both ways, and the blank as the cutter reads it. Of the whole
/// piece.
#[utoipa::path(post, path = "/api/audit", request_body = AuditRequest, responses((status = 200, body = AuditAnswer), (status = 422, body = Problem)))]
pub(crate) async fn audit_piece(
    state: web::Data<State>,
    request: web::Json<AuditRequest>,
) -> Result<web::Json<AuditAnswer>, Problem> {
    worked_out(state, move |state| {
        let piece = as_variant(Piece::read(request.document.get().as_bytes())?, request.variant.as_deref())?;
        let (outcome, as_read) = audited_as_read(&piece, state.shop()?.workshop());
        let show = request.show.unwrap_or(piece.unit);
        Ok(web::Json(AuditAnswer::new(&piece, &outcome, as_read.as_ref(), show)))
    })
    .await
}

/// Only the mesh of a piece, folded part of the way.
#[utoipa::path(post, path = "/api/fold", request_body = FoldRequest, responses((status = 200, body = MeshView), (status = 422, body = Problem)))]
pub(crate) async fn fold_piece(
    state: web::Data<State>,
    request: web::Json<FoldRequest>,
) -> Result<web::Json<MeshView>, Problem> {
    if !(0.0..=1.0).contains(&request.fold) {
        return Err(Problem::field("fold", format!("a fold of {} is outside 0 (flat) to 1 (folded)", request.fold)));
    }
    worked_out(state, move |_| {
        let piece = as_variant(Piece::read(request.document.get().as_bytes())?, request.variant.as_deref())?;
        let mesh = fold_only(&piece, Options { upto: request.upto, fold: request.fold, ..Options::default() });
        Ok(web::Json(MeshView::of_blank(&mesh)))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/build", web::post().to(build_piece))
        .route("/fold", web::post().to(fold_piece))
        .route("/audit", web::post().to(audit_piece));
}
