//! Screws that the shop keeps of its own, beside those of the standards: a hole takes one over by its numbers.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use steelk_core::stock::{Screw, check_screws, read_screws, write_screws};
use utoipa::ToSchema;

use super::cutting::TableText;
use super::download::attachment;
use super::shop::ShopTableName;
use super::{File, State, off_thread};
use crate::problem::Problem;

/// Screws that the shop keeps of its own.
#[derive(Serialize, ToSchema)]
pub struct ShopScrews {
    /// What a save must be made from.
    pub version: i64,
    /// Its screws.
    pub screws: Vec<Screw>,
}

/// A save of them.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveShopScrews {
    /// The version it was made from.
    pub version: i64,
    /// To be kept.
    pub screws: Vec<Screw>,
}

fn kept(state: &State) -> Result<ShopScrews, Problem> {
    let Some(saved) = state.store().shop_table(ShopTableName::Screws.key())? else {
        return Ok(ShopScrews { version: 0, screws: Vec::new() });
    };
    let screws = read_screws(&saved.text).map_err(|fault| Problem::field(&fault.path, fault.message))?;
    Ok(ShopScrews { version: saved.version, screws })
}

/// Screws that the shop keeps of its own.
#[utoipa::path(get, path = "/api/shop/screws", responses((status = 200, body = ShopScrews)))]
pub(crate) async fn get_shop_screws(state: web::Data<State>) -> Result<web::Json<ShopScrews>, Problem> {
    off_thread(move || Ok(web::Json(kept(&state)?))).await
}

/// Saves them. Holes keep the numbers that they took.
#[utoipa::path(put, path = "/api/shop/screws", request_body = SaveShopScrews, responses((status = 200, body = ShopScrews), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn save_shop_screws(
    state: web::Data<State>,
    save: web::Json<SaveShopScrews>,
) -> Result<web::Json<ShopScrews>, Problem> {
    off_thread(move || {
        check_screws(&save.screws).map_err(|fault| Problem::field(&fault.path, fault.message))?;
        state.store().put_shop_table(ShopTableName::Screws.key(), save.version, &write_screws(&save.screws))?;
        Ok(web::Json(kept(&state)?))
    })
    .await
}

/// Reads screws from CSV without keeping them: a file of another shop, or the table as it was before.
#[utoipa::path(post, path = "/api/shop/screws/read", request_body = TableText, responses((status = 200, body = Vec<Screw>), (status = 422, body = Problem)))]
pub(crate) async fn read_shop_screws(given: web::Json<TableText>) -> Result<web::Json<Vec<Screw>>, Problem> {
    off_thread(move || {
        read_screws(&given.text).map(web::Json).map_err(|fault| Problem::field(&fault.path, fault.message))
    })
    .await
}

/// The shop's own screws as CSV.
#[utoipa::path(get, path = "/api/shop/screws.csv", responses((status = 200, body = String, content_type = "text/csv")))]
pub(crate) async fn shop_screws_file(state: web::Data<State>) -> Result<File, Problem> {
    off_thread(move || {
        let text = write_screws(&kept(&state)?.screws);
        Ok(attachment("screws.csv", "text/csv; charset=utf-8", text.into_bytes()))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/shop/screws", web::get().to(get_shop_screws))
        .route("/shop/screws", web::put().to(save_shop_screws))
        .route("/shop/screws/read", web::post().to(read_shop_screws))
        .route("/shop/screws.csv", web::get().to(shop_screws_file));
}
