//! The shop's measured bend tables: kept, read from CSV, given out as CSV.

use actix_web::http::StatusCode;
use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use steelk_core::stock::{BendTable, BendTableFault, example_bend_table};
use utoipa::ToSchema;

use super::download::{attachment, file_name};
use super::shop::ShopTableName;
use super::{File, State, off_thread};
use crate::problem::Problem;

/// The most tables that a shop keeps.
const MOST_TABLES: usize = 200;

/// The shop's bend tables.
#[derive(Serialize, ToSchema)]
pub struct BendTables {
    /// Counts up with every save; 0 while the made-up example is shown.
    pub version: i64,
    /// Whether this is the made-up example.
    pub examples: bool,
    /// The tables.
    pub tables: Vec<BendTable>,
}

/// A save of the shop's bend tables.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveBendTables {
    /// The version that they were made from.
    pub version: i64,
    /// The tables.
    pub tables: Vec<BendTable>,
}

/// A bend table as text.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendTableText {
    /// What it is called where the text does not say.
    pub name: String,
    /// CSV, its head telling columns and units.
    pub text: String,
}

fn refused(fault: &BendTableFault) -> Problem {
    Problem::field("table", format!("{}. {}", fault.message, fault.way_out))
}

fn kept(state: &State) -> Result<BendTables, Problem> {
    let kept = state.store().shop_table(ShopTableName::BendTables.key())?;
    match kept {
        Some(saved) => {
            let tables = serde_json::from_str(&saved.text)
                .map_err(|fault| Problem::field("tables", format!("the kept bend tables cannot be read: {fault}")))?;
            Ok(BendTables { version: saved.version, examples: false, tables })
        }
        None => Ok(BendTables { version: 0, examples: true, tables: vec![example_bend_table().clone()] }),
    }
}

/// The shop's bend tables.
#[utoipa::path(get, path = "/api/bend-tables", responses((status = 200, body = BendTables)))]
pub(crate) async fn get_bend_tables(state: web::Data<State>) -> Result<web::Json<BendTables>, Problem> {
    off_thread(move || Ok(web::Json(kept(&state)?))).await
}

/// Saves the shop's bend tables.
#[utoipa::path(put, path = "/api/bend-tables", request_body = SaveBendTables, responses((status = 200, body = BendTables), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn save_bend_tables(
    state: web::Data<State>,
    save: web::Json<SaveBendTables>,
) -> Result<web::Json<BendTables>, Problem> {
    off_thread(move || {
        if save.tables.len() > MOST_TABLES {
            return Err(Problem::field("tables", format!("{} tables; {MOST_TABLES} is the most", save.tables.len())));
        }
        for (at, table) in save.tables.iter().enumerate() {
            table.check().map_err(|fault| refused(&fault))?;
            if save.tables[..at].iter().any(|other| other.name == table.name) {
                return Err(Problem::field("tables", format!("two tables are called {}; name each apart", table.name)));
            }
        }
        let text = serde_json::to_string(&save.tables)
            .map_err(|fault| Problem::field("tables", format!("the tables cannot be written: {fault}")))?;
        state.store().put_shop_table(ShopTableName::BendTables.key(), save.version, &text)?;
        Ok(web::Json(kept(&state)?))
    })
    .await
}

/// Reads a bend table from CSV without keeping it.
#[utoipa::path(post, path = "/api/bend-tables/read", request_body = BendTableText, responses((status = 200, body = BendTable), (status = 422, body = Problem)))]
pub(crate) async fn read_bend_table(given: web::Json<BendTableText>) -> Result<web::Json<BendTable>, Problem> {
    off_thread(move || BendTable::read_csv(&given.text, &given.name).map(web::Json).map_err(|fault| refused(&fault)))
        .await
}

/// One of the shop's bend tables as CSV.
#[utoipa::path(get, path = "/api/bend-tables/{at}/table.csv", params(("at" = usize, Path)), responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
pub(crate) async fn bend_table_file(state: web::Data<State>, at: web::Path<usize>) -> Result<File, Problem> {
    off_thread(move || {
        let tables = kept(&state)?.tables;
        let table = tables.get(*at).ok_or_else(|| {
            let words = format!("there is no bend table number {}; there are {}", *at + 1, tables.len());
            Problem::new(StatusCode::NOT_FOUND, "No such table", words)
        })?;
        Ok(attachment(&file_name(&table.name, "csv"), "text/csv; charset=utf-8", table.write_csv().into_bytes()))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/bend-tables", web::get().to(get_bend_tables))
        .route("/bend-tables", web::put().to(save_bend_tables))
        .route("/bend-tables/read", web::post().to(read_bend_table))
        .route("/bend-tables/{at}/table.csv", web::get().to(bend_table_file));
}
