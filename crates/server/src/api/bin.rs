//! The bin: what was deleted and waits to be put back.

use actix_web::web::{self, ServiceConfig};
use serde::Serialize;
use utoipa::ToSchema;

use super::{State, off_thread};
use crate::problem::Problem;
use crate::summary::said_of;

/// A job in the bin.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct DeletedJobLine {
    pub id: i64,
    pub number: String,
    pub title: String,
    /// Pieces that come back with it.
    pub pieces: i64,
    /// When it was deleted.
    pub at: Option<String>,
}

/// A piece in its job's bin.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct DeletedPieceLine {
    pub id: i64,
    pub mark: String,
    pub title: String,
    pub at: Option<String>,
}

/// A picture that was deleted, or that another was put in the place of.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct DeletedPictureLine {
    /// Its piece.
    pub piece: i64,
    pub mark: String,
    /// `drawing` or `photo`.
    pub slot: String,
    pub number: i64,
    /// Bytes.
    pub size: i64,
    /// When it had been put in.
    pub at: String,
}

/// The bin of a job.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct JobBinView {
    pub pieces: Vec<DeletedPieceLine>,
    pub pictures: Vec<DeletedPictureLine>,
}

/// Jobs in the bin, the last deleted first.
#[utoipa::path(get, path = "/api/bin", responses((status = 200, body = Vec<DeletedJobLine>)))]
pub(crate) async fn bin(state: web::Data<State>) -> Result<web::Json<Vec<DeletedJobLine>>, Problem> {
    off_thread(move || {
        let line = |one: steelk_store::DeletedJob| DeletedJobLine {
            id: one.id,
            number: one.number,
            title: one.title,
            pieces: one.pieces,
            at: one.at,
        };
        Ok(web::Json(state.store().deleted_jobs()?.into_iter().map(line).collect()))
    })
    .await
}

/// What was deleted of a job, the last first.
#[utoipa::path(get, path = "/api/jobs/{id}/bin", params(("id" = i64, Path)), responses((status = 200, body = JobBinView), (status = 404, body = Problem)))]
pub(crate) async fn job_bin(state: web::Data<State>, id: web::Path<i64>) -> Result<web::Json<JobBinView>, Problem> {
    off_thread(move || {
        let store = state.store();
        let found = store.job_bin(*id)?;
        let piece = |one: steelk_store::DeletedPiece| {
            let (mark, title) = said_of(one.id, &one.document);
            DeletedPieceLine { id: one.id, mark, title, at: one.at }
        };
        let mut pictures = Vec::new();
        for one in found.pictures {
            let (mark, _) = said_of(one.piece, &store.piece(one.piece)?.document);
            pictures.push(DeletedPictureLine {
                piece: one.piece,
                mark,
                slot: one.slot,
                number: one.number,
                size: one.size,
                at: one.at,
            });
        }
        Ok(web::Json(JobBinView { pieces: found.pieces.into_iter().map(piece).collect(), pictures }))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config.route("/bin", web::get().to(bin)).route("/jobs/{id}/bin", web::get().to(job_bin));
}
