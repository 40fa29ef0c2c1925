//! How the shop joins frames, and the sections that it keeps of its own.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use steelk_core::frame::{own_sections, read_own_section};
use steelk_core::quantity::Names;
use steelk_core::work::frame::{OwnSection, UsualJoints};
use utoipa::ToSchema;

use super::cutting::TableText;
use super::download::attachment;
use super::shop::ShopTableName;
use super::{File, State, off_thread};
use crate::frame_answer::{SectionRow, section_row};
use crate::problem::Problem;

/// At most so many sections are kept: a shop's own are a drawer full, not a catalogue.
const MOST_SECTIONS: usize = 200;

/// How the shop joins frames, and its own sections.
#[derive(Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShopFrames {
    /// How members of a new frame meet where no step says so; left open where it is none.
    pub usual_joints: Option<UsualJoints>,
    /// Its own sections: a piece that uses one keeps it by value.
    pub sections: Vec<OwnSection>,
}

impl Default for ShopFrames {
    fn default() -> Self {
        ShopFrames { usual_joints: Some(UsualJoints::Mitre), sections: Vec::new() }
    }
}

/// What is kept of frames, with its sections as they come out.
#[derive(Serialize, ToSchema)]
pub struct ShopFramesTable {
    /// What a save must be made from.
    pub version: i64,
    /// As kept.
    pub settings: ShopFrames,
    /// Each section drawn and weighed, in the order that they are kept in.
    pub shown: Vec<SectionRow>,
}

/// A save of them.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveShopFrames {
    /// The version it was made from.
    pub version: i64,
    /// To be kept.
    pub settings: ShopFrames,
}

fn table(state: &State) -> Result<ShopFramesTable, Problem> {
    let kept = state.store().shop_table(ShopTableName::Frames.key())?;
    let (version, settings) = match kept {
        Some(saved) => {
            let settings = serde_json::from_str(&saved.text).map_err(|fault| {
                Problem::field("settings", format!("what is kept of frames cannot be read: {fault}"))
            })?;
            (saved.version, settings)
        }
        None => (0, ShopFrames::default()),
    };
    let shown = shown(&settings)?;
    Ok(ShopFramesTable { version, settings, shown })
}

/// Each section drawn and weighed, or which of them cannot be. A shop's section cites no call-out: it belongs to no piece.
fn shown(settings: &ShopFrames) -> Result<Vec<SectionRow>, Problem> {
    if settings.sections.len() > MOST_SECTIONS {
        let many = settings.sections.len();
        return Err(Problem::field("sections", format!("{many} sections are too many: {MOST_SECTIONS} are kept")));
    }
    let names = Names::default();
    let mut findings = Vec::new();
    let all = own_sections(&settings.sections, &names, &mut findings);
    if let Some(fault) = findings.first() {
        let field = fault.field.as_deref().unwrap_or("sections").trim_start_matches("frame.");
        return Err(Problem::field(field, format!("{}. {}", fault.message, fault.way_out)));
    }
    for (at, bars) in settings.sections.iter().enumerate().map(|(at, one)| (at, &one.bars)) {
        for (bar, text) in bars.iter().enumerate() {
            let length = names.read(text, steelk_core::quantity::Dimension::LENGTH, "a bar length");
            let wrong = match length {
                Ok(length) if length > 0.0 => continue,
                Ok(_) => format!("a bar of {text} has no length: type one above 0 mm"),
                Err(fault) => fault.to_string(),
            };
            return Err(Problem::field(&format!("sections.{at}.bars.{bar}"), wrong));
        }
    }
    Ok(all.iter().map(section_row).collect())
}

/// How the shop joins frames, and its own sections.
#[utoipa::path(get, path = "/api/shop/frames", responses((status = 200, body = ShopFramesTable)))]
pub(crate) async fn get_shop_frames(state: web::Data<State>) -> Result<web::Json<ShopFramesTable>, Problem> {
    off_thread(move || Ok(web::Json(table(&state)?))).await
}

/// Saves them. Pieces keep what they have: a section is taken over by value.
#[utoipa::path(put, path = "/api/shop/frames", request_body = SaveShopFrames, responses((status = 200, body = ShopFramesTable), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn save_shop_frames(
    state: web::Data<State>,
    save: web::Json<SaveShopFrames>,
) -> Result<web::Json<ShopFramesTable>, Problem> {
    off_thread(move || {
        shown(&save.settings)?;
        let text = serde_json::to_string(&save.settings)
            .map_err(|fault| Problem::field("settings", format!("they cannot be written: {fault}")))?;
        state.store().put_shop_table(ShopTableName::Frames.key(), save.version, &text)?;
        Ok(web::Json(table(&state)?))
    })
    .await
}

/// One section drawn and weighed, or why it cannot be. Nothing is saved.
#[utoipa::path(post, path = "/api/shop/frames/try", request_body = OwnSection, responses((status = 200, body = SectionRow), (status = 422, body = Problem)))]
pub(crate) async fn try_section(given: web::Json<OwnSection>) -> Result<web::Json<SectionRow>, Problem> {
    let section = read_own_section(&given, &Names::default()).map_err(|fault| {
        Problem::field(fault.field.as_deref().unwrap_or("outline"), format!("{}. {}", fault.message, fault.way_out))
    })?;
    Ok(web::Json(section_row(&section)))
}

/// How the shop joins frames, and its own sections, as JSON for other shops.
#[utoipa::path(get, path = "/api/shop/frames.json", responses((status = 200, body = ShopFrames)))]
pub(crate) async fn shop_frames_file(state: web::Data<State>) -> Result<File, Problem> {
    off_thread(move || {
        let text = serde_json::to_vec_pretty(&table(&state)?.settings)
            .map_err(|fault| Problem::field("settings", format!("they cannot be written: {fault}")))?;
        Ok(attachment("sections.json", "application/json", text))
    })
    .await
}

/// Reads them from JSON without keeping them: a file of another shop, or the table as it was before.
#[utoipa::path(post, path = "/api/shop/frames/read", request_body = TableText, responses((status = 200, body = ShopFrames), (status = 422, body = Problem)))]
pub(crate) async fn read_shop_frames(given: web::Json<TableText>) -> Result<web::Json<ShopFrames>, Problem> {
    off_thread(move || {
        let settings: ShopFrames = serde_json::from_str(&given.text)
            .map_err(|fault| Problem::field("sections", format!("no sections can be read of it: {fault}")))?;
        shown(&settings)?;
        Ok(web::Json(settings))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/shop/frames", web::get().to(get_shop_frames))
        .route("/shop/frames", web::put().to(save_shop_frames))
        .route("/shop/frames.json", web::get().to(shop_frames_file))
        .route("/shop/frames/read", web::post().to(read_shop_frames))
        .route("/shop/frames/try", web::post().to(try_section));
}
