//! The shop's word on its files, and the shop's tables as they were before.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use steelk_core::stock::{example_bend_table, example_cutters, shipped_rules, write_cutters, write_screws};
use steelk_formats::output::{FileSettings, NamePattern, Named};
use utoipa::ToSchema;

use super::shop_frames::ShopFrames;
use super::{State, off_thread};
use crate::files::Shop;
use crate::problem::Problem;

/// Which table of the shop.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum ShopTableName {
    /// The cutters.
    Cutters,
    /// The measured bend tables.
    BendTables,
    /// Names of files and how contours leave.
    Files,
    /// How it joins frames, and its own sections.
    Frames,
    /// What its rules go by.
    Rules,
    /// Screws of its own.
    Screws,
}

impl ShopTableName {
    /// Its name in the store.
    pub(super) fn key(self) -> &'static str {
        match self {
            ShopTableName::Cutters => "cutters",
            ShopTableName::BendTables => "bend_tables",
            ShopTableName::Files => "files",
            ShopTableName::Frames => "frames",
            ShopTableName::Rules => "rules",
            ShopTableName::Screws => "screws",
        }
    }
}

/// A table of the shop as it was before.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PastShopTable {
    pub version: i64,
    /// When it was saved; nothing for what Steelk ships, which is version 0.
    pub at: String,
    /// TOML of cutters and rules, JSON of the others, as it was kept: what can be saved again.
    pub text: String,
}

impl ShopTableName {
    /// What Steelk ships, as text of the form that the table is kept in.
    fn shipped(self) -> String {
        let json = |value: serde_json::Result<String>| value.unwrap_or_default();
        match self {
            ShopTableName::Cutters => write_cutters(example_cutters()),
            ShopTableName::BendTables => json(serde_json::to_string(&[example_bend_table()])),
            ShopTableName::Files => json(serde_json::to_string(&FileSettings::default())),
            ShopTableName::Frames => json(serde_json::to_string(&ShopFrames::default())),
            ShopTableName::Rules => shipped_rules().write(),
            ShopTableName::Screws => write_screws(&[]),
        }
    }
}

/// What a table of the shop was before each save, newest first; last what Steelk ships, once something else is kept.
#[utoipa::path(get, path = "/api/shop/{table}/before", params(("table" = ShopTableName, Path)), responses((status = 200, body = Vec<PastShopTable>)))]
pub(crate) async fn past_shop_tables(
    state: web::Data<State>,
    table: web::Path<ShopTableName>,
) -> Result<web::Json<Vec<PastShopTable>>, Problem> {
    off_thread(move || {
        let store = state.store();
        let past = store.past_shop_tables(table.key())?.into_iter();
        let mut all: Vec<PastShopTable> =
            past.map(|one| PastShopTable { version: one.version, at: one.at, text: one.text }).collect();
        if store.shop_table(table.key())?.is_some() {
            all.push(PastShopTable { version: 0, at: String::new(), text: table.shipped() });
        }
        Ok(web::Json(all))
    })
    .await
}

/// The shop's word on its files.
#[derive(Serialize, ToSchema)]
pub struct FileTable {
    /// What a save must be made from.
    pub version: i64,
    /// Names and contours.
    pub settings: FileSettings,
    /// Names by the pattern.
    pub examples: NameExamples,
}

/// Names of a file of a made-up piece.
#[derive(Serialize, ToSchema)]
pub struct NameExamples {
    /// Everything known.
    pub full: String,
    /// Neither revision, material, thickness nor quantity known.
    pub bare: String,
}

/// A pattern to be tried.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TryNames {
    /// The pattern.
    pub names: String,
}

/// A save of the shop's word on its files.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveFiles {
    /// The version it was made from.
    pub version: i64,
    /// Names and contours.
    pub settings: FileSettings,
}

fn kept(state: &State) -> Result<FileTable, Problem> {
    let kept = state.store().shop_table(ShopTableName::Files.key())?;
    let (version, settings) = match kept {
        Some(saved) => {
            let settings: FileSettings = serde_json::from_str(&saved.text).map_err(|fault| {
                Problem::field("settings", format!("what is kept of files cannot be read: {fault}"))
            })?;
            (saved.version, settings)
        }
        None => (0, FileSettings::default()),
    };
    Ok(FileTable { version, examples: examples(&settings), settings })
}

/// Names by a pattern, of a made-up piece.
fn examples(settings: &FileSettings) -> NameExamples {
    let bare = Named { mark: "WB-02".into(), file: "blank".into(), ..Named::default() };
    let full = Named {
        revision: Some("3".into()),
        material: Some("S275".into()),
        thickness: Some("8mm".into()),
        quantity: Some(4),
        ..bare.clone()
    };
    NameExamples { full: settings.names.name(&full, "dxf"), bare: settings.names.name(&bare, "dxf") }
}

/// What the shop cuts with, what its rules go by, and its word on files.
pub(super) fn shop(state: &State) -> Result<Shop, Problem> {
    let rules = super::shop_rules::table(state)?.settings;
    Ok(Shop { cutters: super::cutting::table(state)?.cutters, files: kept(state)?.settings, rules })
}

/// The shop's word on its files.
#[utoipa::path(get, path = "/api/shop/files", responses((status = 200, body = FileTable)))]
pub(crate) async fn get_files(state: web::Data<State>) -> Result<web::Json<FileTable>, Problem> {
    off_thread(move || Ok(web::Json(kept(&state)?))).await
}

/// Saves the shop's word on its files.
#[utoipa::path(put, path = "/api/shop/files", request_body = SaveFiles, responses((status = 200, body = FileTable), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn save_files(
    state: web::Data<State>,
    save: web::Json<SaveFiles>,
) -> Result<web::Json<FileTable>, Problem> {
    off_thread(move || {
        let text = serde_json::to_string(&save.settings)
            .map_err(|fault| Problem::field("settings", format!("they cannot be written: {fault}")))?;
        state.store().put_shop_table(ShopTableName::Files.key(), save.version, &text)?;
        Ok(web::Json(kept(&state)?))
    })
    .await
}

/// What names a pattern gives, or why it is refused. Nothing is saved.
#[utoipa::path(post, path = "/api/shop/files/try", request_body = TryNames, responses((status = 200, body = NameExamples), (status = 422, body = Problem)))]
pub(crate) async fn try_names(given: web::Json<TryNames>) -> Result<web::Json<NameExamples>, Problem> {
    let names =
        NamePattern::try_from(given.into_inner().names).map_err(|fault| Problem::field("names", fault.to_string()))?;
    Ok(web::Json(examples(&FileSettings { names, ..FileSettings::default() })))
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/shop/files", web::get().to(get_files))
        .route("/shop/files", web::put().to(save_files))
        .route("/shop/files/try", web::post().to(try_names))
        .route("/shop/{table}/before", web::get().to(past_shop_tables));
}
