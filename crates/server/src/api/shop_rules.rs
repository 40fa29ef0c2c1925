//! What the shop's rules go by, and the list of the rules.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use steelk_core::proof::{RuleTold, all_rules};
use steelk_core::stock::{ShopRules, shipped_rules};
use utoipa::ToSchema;

use super::cutting::TableText;
use super::download::attachment;
use super::shop::ShopTableName;
use super::{File, State, off_thread};
use crate::problem::Problem;

/// What the shop's rules go by.
#[derive(Serialize, ToSchema)]
pub struct ShopRulesTable {
    /// What a save must be made from.
    pub version: i64,
    /// The shop's.
    pub settings: ShopRules,
    /// What Steelk ships: common practice, and machines that are made up.
    pub shipped: ShopRules,
}

/// A save of what the shop's rules go by.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveShopRules {
    /// The version it was made from.
    pub version: i64,
    /// The shop's.
    pub settings: ShopRules,
}

pub(super) fn table(state: &State) -> Result<ShopRulesTable, Problem> {
    let kept = state.store().shop_table(ShopTableName::Rules.key())?;
    let (version, settings) = match kept {
        Some(saved) => {
            (saved.version, ShopRules::read(&saved.text).map_err(|fault| Problem::field(&fault.path, fault.message))?)
        }
        None => (0, shipped_rules().clone()),
    };
    Ok(ShopRulesTable { version, settings, shipped: shipped_rules().clone() })
}

/// Every rule: what it is about, where it comes from, and what of the shop's settings it goes by.
#[utoipa::path(get, path = "/api/rules", responses((status = 200, body = Vec<RuleTold>)))]
pub(crate) async fn rules() -> web::Json<Vec<RuleTold>> {
    web::Json(all_rules())
}

/// What the shop's rules go by.
#[utoipa::path(get, path = "/api/shop/rules", responses((status = 200, body = ShopRulesTable)))]
pub(crate) async fn get_shop_rules(state: web::Data<State>) -> Result<web::Json<ShopRulesTable>, Problem> {
    off_thread(move || Ok(web::Json(table(&state)?))).await
}

/// Saves what the shop's rules go by. Every piece is held against it from then on.
#[utoipa::path(put, path = "/api/shop/rules", request_body = SaveShopRules, responses((status = 200, body = ShopRulesTable), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn save_shop_rules(
    state: web::Data<State>,
    save: web::Json<SaveShopRules>,
) -> Result<web::Json<ShopRulesTable>, Problem> {
    off_thread(move || {
        save.settings.check().map_err(|fault| Problem::field(&fault.path, fault.message))?;
        state.store().put_shop_table(ShopTableName::Rules.key(), save.version, &save.settings.write())?;
        state.keeper().all();
        Ok(web::Json(table(&state)?))
    })
    .await
}

/// What the shop's rules go by as TOML, for the command line and for other shops.
#[utoipa::path(get, path = "/api/shop/rules.toml", responses((status = 200, body = String, content_type = "application/toml")))]
pub(crate) async fn shop_rules_file(state: web::Data<State>) -> Result<File, Problem> {
    off_thread(move || {
        let text = table(&state)?.settings.write();
        Ok(attachment("rules.toml", "application/toml", text.into_bytes()))
    })
    .await
}

/// Reads what rules go by from TOML without keeping it: a file of another shop, or the table as it was before.
#[utoipa::path(post, path = "/api/shop/rules/read", request_body = TableText, responses((status = 200, body = ShopRules), (status = 422, body = Problem)))]
pub(crate) async fn read_shop_rules(given: web::Json<TableText>) -> Result<web::Json<ShopRules>, Problem> {
    off_thread(move || {
        ShopRules::read(&given.text).map(web::Json).map_err(|fault| Problem::field(&fault.path, fault.message))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/rules", web::get().to(rules))
        .route("/shop/rules", web::get().to(get_shop_rules))
        .route("/shop/rules", web::put().to(save_shop_rules))
        .route("/shop/rules/read", web::post().to(read_shop_rules))
        .route("/shop/rules.toml", web::get().to(shop_rules_file));
}
