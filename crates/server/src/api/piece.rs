//! Pieces: open, save, undo, redo, revisions.

use actix_web::HttpResponse;
use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::piece::Piece;
use steelk_store::PieceRow;
use utoipa::ToSchema;

use super::{Made, State, off_thread};
use crate::problem::Problem;

/// A saved piece.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PieceView {
    pub id: i64,
    pub job_id: i64,
    /// What a save must be made from.
    pub version: i64,
    pub document: Piece,
    pub can_undo: bool,
    pub can_redo: bool,
    pub has_picture: bool,
    pub has_photo: bool,
    pub removed: bool,
}

impl PieceView {
    /// From its row.
    ///
    /// # Errors
    /// [`Problem`] when what was saved cannot be read by this Steelk.
    pub fn new(row: &PieceRow) -> Result<Self, Problem> {
        Ok(PieceView {
            id: row.id,
            job_id: row.job_id,
            version: row.version,
            document: Piece::read(row.document.as_bytes())?,
            can_undo: row.can_undo,
            can_redo: row.can_redo,
            has_picture: row.has_picture,
            has_photo: row.has_photo,
            removed: row.removed,
        })
    }
}

/// A piece to add to a job.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPiece {
    /// Its document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
}

/// A save.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SavePiece {
    /// The version it was made from.
    pub version: i64,
    /// The document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// What was done, for the log.
    #[serde(default)]
    pub note: String,
}

/// An undo, a redo or a restoring.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Step {
    /// The version it is made from.
    pub version: i64,
}

/// Which version a piece is at.
#[derive(Serialize, ToSchema)]
pub struct PieceVersion {
    /// The newest revision's number.
    pub version: i64,
    /// Whether it is deleted.
    pub removed: bool,
}

/// A revision in the list.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct RevisionLine {
    pub number: i64,
    pub action: String,
    pub note: String,
    pub who: String,
    pub at: String,
}

fn note(text: &str, otherwise: &str) -> String {
    let plain: String = text.chars().filter(|c| !c.is_control()).take(200).collect();
    if plain.trim().is_empty() { otherwise.to_string() } else { plain }
}

/// Which version a piece is at: what a window asks to learn whether another one saved.
#[utoipa::path(get, path = "/api/pieces/{id}/version", params(("id" = i64, Path)), responses((status = 200, body = PieceVersion), (status = 404, body = Problem)))]
pub(crate) async fn piece_version(
    state: web::Data<State>,
    id: web::Path<i64>,
) -> Result<web::Json<PieceVersion>, Problem> {
    off_thread(move || {
        let (version, removed) = state.store().piece_version(*id)?;
        Ok(web::Json(PieceVersion { version, removed }))
    })
    .await
}

/// Adds a piece to a job.
#[utoipa::path(post, path = "/api/jobs/{job}/pieces", params(("job" = i64, Path)), request_body = NewPiece, responses((status = 201, body = PieceView), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn add_piece(
    state: web::Data<State>,
    job: web::Path<i64>,
    new: web::Json<NewPiece>,
) -> Result<Made<PieceView>, Problem> {
    off_thread(move || {
        let piece = Piece::read(new.document.get().as_bytes())?;
        let row = state.store().add_piece(*job, &piece.to_keep()?, &format!("made {}", piece.mark))?;
        state.keeper().saved(row.id);
        Ok(Made(PieceView::new(&row)?))
    })
    .await
}

/// Opens a piece.
#[utoipa::path(get, path = "/api/pieces/{id}", params(("id" = i64, Path)), responses((status = 200, body = PieceView), (status = 404, body = Problem)))]
pub(crate) async fn get_piece(state: web::Data<State>, id: web::Path<i64>) -> Result<web::Json<PieceView>, Problem> {
    off_thread(move || Ok(web::Json(PieceView::new(&state.store().piece(*id)?)?))).await
}

/// Saves a piece; a save made from an older version is refused with both versions.
#[utoipa::path(put, path = "/api/pieces/{id}", params(("id" = i64, Path)), request_body = SavePiece, responses((status = 200, body = PieceView), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn save_piece(
    state: web::Data<State>,
    id: web::Path<i64>,
    save: web::Json<SavePiece>,
) -> Result<web::Json<PieceView>, Problem> {
    off_thread(move || {
        let piece = Piece::read(save.document.get().as_bytes())?;
        let row = state.store().save_piece(*id, save.version, &piece.to_keep()?, &note(&save.note, "edited"))?;
        state.keeper().saved(row.id);
        Ok(web::Json(PieceView::new(&row)?))
    })
    .await
}

/// Takes a piece out of its job; it can be put back.
#[utoipa::path(delete, path = "/api/pieces/{id}", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
pub(crate) async fn remove_piece(state: web::Data<State>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    off_thread(move || Ok(state.store().set_piece_removed(*id, true)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Puts a piece back that was taken out.
#[utoipa::path(post, path = "/api/pieces/{id}/put-back", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
pub(crate) async fn put_back_piece(state: web::Data<State>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    off_thread(move || {
        state.store().set_piece_removed(*id, false)?;
        state.keeper().saved(*id);
        Ok(())
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Goes back one edit.
#[utoipa::path(post, path = "/api/pieces/{id}/undo", params(("id" = i64, Path)), request_body = Step, responses((status = 200, body = PieceView), (status = 409, body = Problem)))]
pub(crate) async fn undo(
    state: web::Data<State>,
    id: web::Path<i64>,
    step: web::Json<Step>,
) -> Result<web::Json<PieceView>, Problem> {
    off_thread(move || {
        let row = state.store().undo(*id, step.version)?;
        state.keeper().saved(row.id);
        Ok(web::Json(PieceView::new(&row)?))
    })
    .await
}

/// Goes forward one edit.
#[utoipa::path(post, path = "/api/pieces/{id}/redo", params(("id" = i64, Path)), request_body = Step, responses((status = 200, body = PieceView), (status = 409, body = Problem)))]
pub(crate) async fn redo(
    state: web::Data<State>,
    id: web::Path<i64>,
    step: web::Json<Step>,
) -> Result<web::Json<PieceView>, Problem> {
    off_thread(move || {
        let row = state.store().redo(*id, step.version)?;
        state.keeper().saved(row.id);
        Ok(web::Json(PieceView::new(&row)?))
    })
    .await
}

/// Every revision, newest first.
#[utoipa::path(get, path = "/api/pieces/{id}/revisions", params(("id" = i64, Path)), responses((status = 200, body = Vec<RevisionLine>), (status = 404, body = Problem)))]
pub(crate) async fn revisions(
    state: web::Data<State>,
    id: web::Path<i64>,
) -> Result<web::Json<Vec<RevisionLine>>, Problem> {
    off_thread(move || {
        state.store().piece(*id)?;
        let lines = state.store().revisions(*id)?;
        Ok(web::Json(
            lines
                .into_iter()
                .map(|one| RevisionLine {
                    number: one.number,
                    action: one.action,
                    note: one.note,
                    who: one.who,
                    at: one.at,
                })
                .collect(),
        ))
    })
    .await
}

/// The document of one revision.
#[utoipa::path(get, path = "/api/pieces/{id}/revisions/{number}", params(("id" = i64, Path), ("number" = i64, Path)), responses((status = 200, body = Piece), (status = 404, body = Problem)))]
pub(crate) async fn revision(
    state: web::Data<State>,
    path: web::Path<(i64, i64)>,
) -> Result<web::Json<Piece>, Problem> {
    off_thread(move || Ok(web::Json(Piece::read(state.store().revision(path.0, path.1)?.as_bytes())?))).await
}

/// Brings an older revision back as a new edit.
#[utoipa::path(post, path = "/api/pieces/{id}/revisions/{number}/restore", params(("id" = i64, Path), ("number" = i64, Path)), request_body = Step, responses((status = 200, body = PieceView), (status = 409, body = Problem)))]
pub(crate) async fn restore_revision(
    state: web::Data<State>,
    path: web::Path<(i64, i64)>,
    step: web::Json<Step>,
) -> Result<web::Json<PieceView>, Problem> {
    off_thread(move || {
        let row = state.store().restore_revision(path.0, step.version, path.1)?;
        state.keeper().saved(row.id);
        Ok(web::Json(PieceView::new(&row)?))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/jobs/{job}/pieces", web::post().to(add_piece))
        .route("/pieces/{id}", web::get().to(get_piece))
        .route("/pieces/{id}/version", web::get().to(piece_version))
        .route("/pieces/{id}", web::put().to(save_piece))
        .route("/pieces/{id}", web::delete().to(remove_piece))
        .route("/pieces/{id}/put-back", web::post().to(put_back_piece))
        .route("/pieces/{id}/undo", web::post().to(undo))
        .route("/pieces/{id}/redo", web::post().to(redo))
        .route("/pieces/{id}/revisions", web::get().to(revisions))
        .route("/pieces/{id}/revisions/{number}", web::get().to(revision))
        .route("/pieces/{id}/revisions/{number}/restore", web::post().to(restore_revision));
}
