//! Cutting: the live plan with its simulation, the program as a file, and the shop's cutters.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::piece::{Options, Piece, blanks_of, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::stock::{Cutter, check_cutters, example_cutters, read_cutters, write_cutters};
use steelk_formats::output::Stamp;
use utoipa::ToSchema;

use super::download::{as_blank, as_variant, attachment};
use super::shop::{ShopTableName, shop};
use super::{File, State, off_thread, worked_out};
use crate::cutting_answer::{BlankChoice, CuttingAnswer};
use crate::problem::Problem;

/// A piece to plan the cutting of.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CuttingRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Which variant of the piece; the piece itself where left out.
    #[serde(default)]
    pub variant: Option<String>,
    /// Which blank of a piece of several, by its letter.
    #[serde(default)]
    pub blank: Option<String>,
    /// The unit to print; the piece's own where left out.
    #[serde(default)]
    pub show: Option<LengthUnit>,
}

/// The shop's cutters.
#[derive(Serialize, ToSchema)]
pub struct CutterTable {
    /// What a save must be made from.
    pub version: i64,
    /// Whether these are the made-up examples that Steelk ships.
    pub examples: bool,
    /// The cutters.
    pub cutters: Vec<Cutter>,
}

/// A save of the shop's cutters.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveCutters {
    /// The version it was made from.
    pub version: i64,
    /// The cutters.
    pub cutters: Vec<Cutter>,
}

/// A table as a file's text, to be read.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TableText {
    /// The whole text.
    pub text: String,
}

pub(super) fn table(state: &State) -> Result<CutterTable, Problem> {
    let kept = state.store().shop_table(ShopTableName::Cutters.key())?;
    match kept {
        Some(saved) => Ok(CutterTable {
            version: saved.version,
            examples: false,
            cutters: read_cutters(&saved.text).map_err(|fault| Problem::field(&fault.path, fault.message))?,
        }),
        None => Ok(CutterTable { version: 0, examples: true, cutters: example_cutters().to_vec() }),
    }
}

/// Plans how a piece is cut, writes its program and runs it on the simulated cutter. Nothing is saved.
#[utoipa::path(post, path = "/api/cutting", request_body = CuttingRequest, responses((status = 200, body = CuttingAnswer), (status = 422, body = Problem)))]
pub(crate) async fn cutting(
    state: web::Data<State>,
    request: web::Json<CuttingRequest>,
) -> Result<web::Json<CuttingAnswer>, Problem> {
    worked_out(state, move |state| {
        let piece = as_variant(Piece::read(request.document.get().as_bytes())?, request.variant.as_deref())?;
        let show = request.show.unwrap_or(piece.unit);
        let outcome = evaluate(&piece, Options { show: Some(show), ..Options::default() });
        let shop = shop(state)?;
        let blanks = outcome.sheets().map(|sheets| blanks_of(&piece, sheets)).unwrap_or_default();
        let own = as_blank(&piece, &outcome, &blanks, request.blank.as_deref())?;
        let (piece, outcome) = own.as_ref().map_or((&piece, &outcome), |(piece, outcome)| (piece, outcome));
        let mut answer = CuttingAnswer::new(piece, outcome, &shop, &Stamp::default(), show);
        answer.blanks = blanks.into_iter().filter(|one| !one.letter.is_empty()).map(BlankChoice::from).collect();
        Ok(web::Json(answer))
    })
    .await
}

/// The shop's cutters.
#[utoipa::path(get, path = "/api/cutters", responses((status = 200, body = CutterTable)))]
pub(crate) async fn get_cutters(state: web::Data<State>) -> Result<web::Json<CutterTable>, Problem> {
    off_thread(move || Ok(web::Json(table(&state)?))).await
}

/// Saves the shop's cutters.
#[utoipa::path(put, path = "/api/cutters", request_body = SaveCutters, responses((status = 200, body = CutterTable), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn save_cutters(
    state: web::Data<State>,
    save: web::Json<SaveCutters>,
) -> Result<web::Json<CutterTable>, Problem> {
    off_thread(move || {
        check_cutters(&save.cutters).map_err(|fault| Problem::field(&fault.path, fault.message))?;
        state.store().put_shop_table(ShopTableName::Cutters.key(), save.version, &write_cutters(&save.cutters))?;
        // Rules ask of a hole by what it is cut with.
        state.keeper().all();
        Ok(web::Json(table(&state)?))
    })
    .await
}

/// The shop's cutters as TOML, for the command line and for other shops.
#[utoipa::path(get, path = "/api/cutters.toml", responses((status = 200, body = String, content_type = "application/toml")))]
pub(crate) async fn cutters_file(state: web::Data<State>) -> Result<File, Problem> {
    off_thread(move || {
        let text = write_cutters(&table(&state)?.cutters);
        Ok(attachment("cutters.toml", "application/toml", text.into_bytes()))
    })
    .await
}

/// Reads cutters from TOML without keeping them: a file of another shop, or the table as it was before.
#[utoipa::path(post, path = "/api/cutters/read", request_body = TableText, responses((status = 200, body = Vec<Cutter>), (status = 422, body = Problem)))]
pub(crate) async fn read_cutters_file(given: web::Json<TableText>) -> Result<web::Json<Vec<Cutter>>, Problem> {
    off_thread(move || {
        read_cutters(&given.text).map(web::Json).map_err(|fault| Problem::field(&fault.path, fault.message))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/cutting", web::post().to(cutting))
        .route("/cutters", web::get().to(get_cutters))
        .route("/cutters", web::put().to(save_cutters))
        .route("/cutters/read", web::post().to(read_cutters_file))
        .route("/cutters.toml", web::get().to(cutters_file));
}
