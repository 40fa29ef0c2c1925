//! Renaming what a piece's work is called by.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::piece::Piece;
use utoipa::ToSchema;

use super::{State, worked_out};
use crate::problem::Problem;

/// What is renamed.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Deserialize, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Renamed {
    /// An operation, and all names of what it makes.
    Operation,
    /// A call-out, in all expressions that cite it.
    Callout,
}

/// A piece of which something gets another name.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RenameRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// What is renamed.
    pub what: Renamed,
    /// Its name.
    pub from: String,
    /// Its name afterwards.
    pub to: String,
}

/// The piece with everything that cites the name following.
#[derive(Serialize, ToSchema)]
pub struct RenameAnswer {
    /// The piece document; nothing is saved.
    pub document: Piece,
}

/// Renames an operation or a call-out of a piece, and everything that cites it, without saving it.
#[utoipa::path(post, path = "/api/rename", request_body = RenameRequest, responses((status = 200, body = RenameAnswer), (status = 422, body = Problem)))]
pub(crate) async fn rename(
    state: web::Data<State>,
    request: web::Json<RenameRequest>,
) -> Result<web::Json<RenameAnswer>, Problem> {
    worked_out(state, move |_| {
        let piece = Piece::read(request.document.get().as_bytes())?;
        let document = match request.what {
            Renamed::Operation => piece.with_operation_renamed(&request.from, &request.to),
            Renamed::Callout => piece.with_callout_renamed(&request.from, &request.to),
        };
        // Whoever types a name sees the field: its path in the document is not theirs to read.
        let document = document.map_err(|fault| Problem::field(&fault.path, fault.message))?;
        Ok(web::Json(RenameAnswer { document }))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config.route("/rename", web::post().to(rename));
}
