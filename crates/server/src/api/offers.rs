//! What can be done with, and measured of, what somebody points at.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::offer::{MOST_POINTED, Offers, offers};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use utoipa::ToSchema;

use super::download::as_variant;
use super::{State, worked_out};
use crate::problem::Problem;

/// A piece with what is pointed at on it.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OffersRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Which variant of the piece; the piece itself where left out.
    #[serde(default)]
    pub variant: Option<String>,
    /// How many operations from the top.
    #[serde(default)]
    pub upto: Option<usize>,
    /// The unit to print; the piece's own where left out.
    #[serde(default)]
    pub show: Option<LengthUnit>,
    /// The names that are pointed at, in order; none for what the lists of verbs begin with.
    #[serde(default)]
    pub at: Vec<String>,
}

/// What is offered where somebody points, without saving anything.
#[utoipa::path(post, path = "/api/offers", request_body = OffersRequest, responses((status = 200, body = Offers), (status = 422, body = Problem)))]
pub(crate) async fn offers_for(
    state: web::Data<State>,
    request: web::Json<OffersRequest>,
) -> Result<web::Json<Offers>, Problem> {
    if request.at.len() > MOST_POINTED {
        return Err(Problem::field(
            "at",
            format!("{} things are pointed at, and {MOST_POINTED} can be at once; choose fewer", request.at.len()),
        ));
    }
    worked_out(state, move |state| {
        let piece = as_variant(Piece::read(request.document.get().as_bytes())?, request.variant.as_deref())?;
        let own = state.shop()?;
        let options = Options { upto: request.upto, show: request.show, shop: own.workshop(), ..Options::default() };
        let outcome = evaluate(&piece, options);
        Ok(web::Json(offers(&piece, &outcome, &request.at, request.show.unwrap_or(piece.unit))))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config.route("/offers", web::post().to(offers_for));
}
