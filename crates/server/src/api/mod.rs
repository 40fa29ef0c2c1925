//! The REST API. One router serves the binary and the tests.

mod bend_table;
mod bin;
mod build;
mod cutting;
pub mod download;
mod frame;
mod health;
mod job;
mod offers;
mod outline;
mod pack;
mod picture;
mod piece;
mod rack;
mod rename;
mod shop;
mod shop_frames;
mod shop_rules;
mod shop_screws;
mod table;

use std::sync::{Mutex, MutexGuard};

use actix_web::body::BoxBody;
use actix_web::error::PayloadError;
use actix_web::http::StatusCode;
use actix_web::http::header::{ALLOW, HeaderValue};
use actix_web::web::{self, ServiceConfig};
use actix_web::{HttpRequest, HttpResponse, Responder, ResponseError as _};
use steelk_store::Store;

use crate::files::Shop;
use crate::guarded::guarded;
use crate::line::{Line, busy};
use crate::problem::Problem;
use crate::reach::Reach;
use crate::summary::{Keeper, STAMP};

pub use bend_table::{BendTableText, BendTables, SaveBendTables};
pub use build::{AuditRequest, BuildRequest, FoldRequest};
pub use cutting::{CutterTable, CuttingRequest, SaveCutters, TableText};
pub use download::OutputLine;
pub use frame::{BarsRequest, CentreLinesRequest};
pub use health::Health;
pub use job::{JobDetail, JobFile, JobForm, LogLine, PieceLine};
pub use offers::OffersRequest;
pub use picture::PastPictureLine;
pub(crate) use picture::SlotName;
pub use piece::{NewPiece, PieceView, RevisionLine, SavePiece, Step};
pub use rack::{FoundPiece, JobLine, RackAnswer};
pub use rename::{RenameAnswer, RenameRequest, Renamed};
pub(crate) use shop::ShopTableName;
pub use shop::{FileTable, NameExamples, SaveFiles, TryNames};
pub use shop_frames::{SaveShopFrames, ShopFrames, ShopFramesTable};
pub use shop_rules::{SaveShopRules, ShopRulesTable};
pub use shop_screws::{SaveShopScrews, ShopScrews};

pub(crate) use bend_table::{
    __path_bend_table_file, __path_get_bend_tables, __path_read_bend_table, __path_save_bend_tables,
};
pub(crate) use bin::{__path_bin, __path_job_bin};
pub(crate) use build::{__path_audit_piece, __path_build_piece, __path_fold_piece};
pub(crate) use cutting::{
    __path_cutters_file, __path_cutting, __path_get_cutters, __path_read_cutters_file, __path_save_cutters,
};
pub(crate) use download::{__path_file, __path_job_file, __path_outputs, __path_piece_file};
pub(crate) use frame::{__path_get_sections, __path_plan_bars, __path_read_centre_lines, __path_saw};
pub(crate) use health::{__path_description, __path_health, __path_stock};
pub(crate) use job::{
    __path_add_job, __path_change_job, __path_copy_job, __path_export_job, __path_import_job, __path_job,
    __path_job_log, __path_put_back_job, __path_remove_job,
};
pub(crate) use offers::__path_offers_for;
pub(crate) use outline::{__path_pull_outline, __path_read_outline};
pub(crate) use pack::{__path_job_pack_file, __path_job_zip, __path_piece_zip};
pub(crate) use picture::{
    __path_get_drawing, __path_get_photo, __path_past_picture, __path_past_pictures, __path_put_drawing,
    __path_put_photo, __path_remove_drawing, __path_remove_photo, __path_restore_picture,
};
pub(crate) use piece::{
    __path_add_piece, __path_get_piece, __path_piece_version, __path_put_back_piece, __path_redo, __path_remove_piece,
    __path_restore_revision, __path_revision, __path_revisions, __path_save_piece, __path_undo,
};
pub(crate) use rack::__path_list_jobs;
pub(crate) use rename::__path_rename;
pub(crate) use shop::{__path_get_files, __path_past_shop_tables, __path_save_files, __path_try_names};
pub(crate) use shop_frames::{
    __path_get_shop_frames, __path_read_shop_frames, __path_save_shop_frames, __path_shop_frames_file,
    __path_try_section,
};
pub(crate) use shop_rules::{
    __path_get_shop_rules, __path_read_shop_rules, __path_rules, __path_save_shop_rules, __path_shop_rules_file,
};
pub(crate) use shop_screws::{
    __path_get_shop_screws, __path_read_shop_screws, __path_save_shop_screws, __path_shop_screws_file,
};
pub(crate) use table::__path_tables;

/// The largest JSON body, bytes.
pub const LARGEST_BODY: usize = 3 * 1024 * 1024;
/// The largest file of a whole job, bytes: what is given out can be taken in again.
pub const LARGEST_JOB: usize = 256 * 1024 * 1024;
/// The largest drawing picture, bytes.
pub const LARGEST_PICTURE: usize = 20 * 1024 * 1024;

/// What handlers share.
pub struct State {
    store: Mutex<Store>,
    reach: Reach,
    line: Line,
    keeper: Keeper,
}

impl State {
    /// Around an open store, with the line that work stands in.
    pub fn new(store: Store, reach: Reach, line: Line) -> Self {
        State { store: Mutex::new(store), reach, line, keeper: Keeper::default() }
    }

    /// Who brings summaries up to date.
    pub fn keeper(&self) -> &Keeper {
        &self.keeper
    }

    /// The shop: what it cuts with, what its rules go by, its word on files.
    ///
    /// # Errors
    /// [`Problem`] of the store, or of a table that cannot be read.
    pub fn shop(&self) -> Result<Shop, Problem> {
        shop::shop(self)
    }

    /// What summaries are worked out with now: this Steelk, and the shop's tables that its rules go by.
    ///
    /// # Errors
    /// [`Problem`] of the store.
    pub fn stamp(&self) -> Result<String, Problem> {
        let store = self.store();
        let version = |table: shop::ShopTableName| -> Result<i64, Problem> {
            Ok(store.shop_table(table.key())?.map_or(0, |kept| kept.version))
        };
        let (rules, cutters) = (version(shop::ShopTableName::Rules)?, version(shop::ShopTableName::Cutters)?);
        // As long as a shop has saved neither, this Steelk alone.
        Ok(if rules + cutters == 0 { STAMP.into() } else { format!("{STAMP}+{rules}+{cutters}") })
    }

    /// The line that work stands in.
    pub fn line(&self) -> &Line {
        &self.line
    }

    /// From where the server can be reached.
    pub fn reach(&self) -> &Reach {
        &self.reach
    }

    /// The store. A handler that panicked while holding it left SQLite's own transaction to roll back, so the lock is
    /// taken all the same.
    pub fn store(&self) -> MutexGuard<'_, Store> {
        self.store.lock().unwrap_or_else(|poisoned| poisoned.into_inner())
    }
}

/// A file to download (an `HttpResponse` cannot be made off the network threads).
pub(crate) struct File {
    pub name: Option<String>,
    pub kind: String,
    pub body: Vec<u8>,
}

impl Responder for File {
    type Body = BoxBody;
    fn respond_to(self, _: &HttpRequest) -> HttpResponse {
        let mut reply = HttpResponse::Ok();
        match self.name {
            Some(name) => reply.insert_header(("Content-Disposition", format!("attachment; filename=\"{name}\""))),
            // Shown in a page rather than saved: nothing in it may run.
            None => reply
                .insert_header(("Content-Security-Policy", "default-src 'none'; sandbox"))
                .insert_header(("Cache-Control", "no-cache")),
        };
        reply.content_type(self.kind).body(self.body)
    }
}

/// The bytes of a body that is a file, or why there are none: `what` is its largest size in words.
pub(crate) fn body(payload: Result<web::Bytes, actix_web::Error>, what: &str) -> Result<web::Bytes, Problem> {
    payload.map_err(|fault| match fault.as_error::<PayloadError>() {
        Some(PayloadError::Overflow) => Problem::new(StatusCode::PAYLOAD_TOO_LARGE, "Too large", what),
        Some(PayloadError::Io(why)) if why.kind() == std::io::ErrorKind::TimedOut => too_slow(),
        _ => Problem::new(StatusCode::BAD_REQUEST, "The request cannot be read", fault.to_string()),
    })
}

fn too_slow() -> Problem {
    Problem::new(StatusCode::REQUEST_TIMEOUT, "Too slow", "the request's body did not come in time")
}

/// Something newly made: status 201.
pub(crate) struct Made<T>(pub T);

impl<T: serde::Serialize> Responder for Made<T> {
    type Body = BoxBody;
    fn respond_to(self, _: &HttpRequest) -> HttpResponse {
        HttpResponse::Created().json(self.0)
    }
}

/// Runs work that blocks for a moment (the database) off the network threads, to its end whether or not its asker
/// waits: a save that came is kept. A panic in it is its own answer and nobody else's.
pub(crate) async fn off_thread<T, F>(work: F) -> Result<T, Problem>
where
    T: Send + 'static,
    F: FnOnce() -> Result<T, Problem> + Send + 'static,
{
    web::block(|| guarded(work)).await.map_err(|_| busy())??
}

/// Works something out (a build, a file) in the line, for as long as its asker waits and it does not take too long.
pub(crate) async fn worked_out<T, F>(state: web::Data<State>, work: F) -> Result<T, Problem>
where
    T: Send + 'static,
    F: FnOnce(&State) -> Result<T, Problem> + Send + 'static,
{
    let own = state.clone();
    state.line().work(move || work(&own)).await
}

/// What is asked of no address, or of one that is not asked that.
async fn elsewhere(request: HttpRequest) -> HttpResponse {
    let known = crate::openapi::methods_of(request.path());
    let asked = format!("{} {}", request.method(), request.path());
    if known.is_empty() {
        return Problem::new(StatusCode::NOT_FOUND, "Not there", format!("{asked} is no address here"))
            .error_response();
    }
    let known = known.join(", ");
    let words = format!("{asked} is not asked here; {known} may be");
    let mut answer = Problem::new(StatusCode::METHOD_NOT_ALLOWED, "Not asked here", words).error_response();
    if let Ok(value) = HeaderValue::from_str(&known) {
        answer.headers_mut().insert(ALLOW, value);
    }
    answer
}

/// Every route.
pub fn routes(config: &mut ServiceConfig) {
    let json = web::JsonConfig::default().limit(LARGEST_BODY).error_handler(|fault, _| {
        let too_large = matches!(
            fault,
            actix_web::error::JsonPayloadError::Overflow { .. }
                | actix_web::error::JsonPayloadError::OverflowKnownLength { .. }
        );
        let is_slow = matches!(&fault, actix_web::error::JsonPayloadError::Payload(PayloadError::Io(why))
            if why.kind() == std::io::ErrorKind::TimedOut);
        if is_slow {
            return too_slow().into();
        }
        let status = if too_large { StatusCode::PAYLOAD_TOO_LARGE } else { StatusCode::BAD_REQUEST };
        Problem::new(
            status,
            "The request cannot be read",
            format!("{fault}; at most {LARGEST_BODY} bytes of JSON are read"),
        )
        .into()
    });
    let path = web::PathConfig::default().error_handler(|_, request| {
        Problem::new(StatusCode::NOT_FOUND, "Not there", format!("{} is no address here", request.path())).into()
    });
    let query = web::QueryConfig::default().error_handler(|fault, _| {
        Problem::new(StatusCode::BAD_REQUEST, "The address cannot be read", fault.to_string()).into()
    });
    config.app_data(json).app_data(path).app_data(query).app_data(web::PayloadConfig::new(LARGEST_PICTURE)).service(
        web::scope("/api")
            .configure(build::routes)
            .configure(offers::routes)
            .configure(rename::routes)
            .configure(job::routes)
            .configure(piece::routes)
            .configure(rack::routes)
            .configure(bin::routes)
            .configure(pack::routes)
            .configure(picture::routes)
            .configure(outline::routes)
            .configure(table::routes)
            .configure(download::routes)
            .configure(cutting::routes)
            .configure(bend_table::routes)
            .configure(frame::routes)
            .configure(shop_frames::routes)
            .configure(shop_rules::routes)
            .configure(shop_screws::routes)
            .configure(shop::routes)
            .configure(health::routes)
            .default_service(web::to(elsewhere)),
    );
    config.default_service(web::get().to(crate::site::serve));
}
