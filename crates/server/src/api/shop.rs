//! The shop's tables as they were before.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{State, off_thread};
use crate::problem::Problem;

/// Which table of the shop.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum ShopTableName {
    /// The cutters.
    Cutters,
    /// The measured bend tables.
    BendTables,
}

impl ShopTableName {
    /// Its name in the store.
    pub(super) fn key(self) -> &'static str {
        match self {
            ShopTableName::Cutters => "cutters",
            ShopTableName::BendTables => "bend_tables",
        }
    }
}

/// A table of the shop as it was before.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PastShopTable {
    pub version: i64,
    /// When it was saved.
    pub at: String,
    /// TOML of cutters, JSON of bend tables, as it was kept: what can be saved again.
    pub text: String,
}

/// What a table of the shop was before each save, newest first.
#[utoipa::path(get, path = "/api/shop/{table}/before", params(("table" = ShopTableName, Path)), responses((status = 200, body = Vec<PastShopTable>)))]
pub(crate) async fn past_shop_tables(
    state: web::Data<State>,
    table: web::Path<ShopTableName>,
) -> Result<web::Json<Vec<PastShopTable>>, Problem> {
    off_thread(move || {
        let all = state.store().past_shop_tables(table.key())?.into_iter();
        Ok(web::Json(all.map(|one| PastShopTable { version: one.version, at: one.at, text: one.text }).collect()))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config.route("/shop/{table}/before", web::get().to(past_shop_tables));
}
