//! Whether the server stands, and to whom it is open.

use actix_web::web::{self, ServiceConfig};
use serde::Serialize;
use steelk_core::stock::Stock;
use utoipa::ToSchema;

use super::{State, off_thread};
use crate::problem::Problem;

/// How the server stands.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Health {
    /// Always `ok`: whoever asks is answered only when the database answers.
    pub status: String,
    pub version: String,
    /// Whoever reaches the address can read, change and delete everything: there are no accounts.
    pub open_to_network: bool,
    /// How much work is waiting or worked on.
    pub working: usize,
}

/// Whether the server and its database answer.
#[utoipa::path(get, path = "/api/health", responses((status = 200, body = Health), (status = 500, body = Problem)))]
pub(crate) async fn health(state: web::Data<State>) -> Result<web::Json<Health>, Problem> {
    off_thread(move || {
        state.store().jobs()?;
        Ok(web::Json(Health {
            status: "ok".into(),
            version: env!("CARGO_PKG_VERSION").into(),
            open_to_network: state.reach().is_open(),
            working: state.line().inside(),
        }))
    })
    .await
}

/// This description.
#[utoipa::path(get, path = "/api/openapi.json", responses((status = 200, body = serde_json::Value)))]
pub(crate) async fn description() -> web::Json<serde_json::Value> {
    web::Json(crate::openapi::document())
}

/// Materials, threads, standard sheets: what Steelk knows of stock.
#[utoipa::path(get, path = "/api/stock", responses((status = 200, body = Stock)))]
pub(crate) async fn stock() -> web::Json<&'static Stock> {
    web::Json(steelk_core::stock::stock())
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/health", web::get().to(health))
        .route("/openapi.json", web::get().to(description))
        .route("/stock", web::get().to(stock));
}
