//! Jobs: one job, copying, files in and out, the log.

use std::collections::BTreeMap;
use std::time::{Duration, Instant};

use actix_web::HttpResponse;
use actix_web::http::StatusCode;
use actix_web::web::{self, ServiceConfig};
use base64::Engine as _;
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::piece::Piece;
use steelk_store::{Among, Job, NewJob, NewPiece, Picture, Slot, ToldPiece, WholeRevision};
use utoipa::ToSchema;

use super::picture::sniff;
use super::rack::JobLine;
use super::{File, LARGEST_JOB, Made, State, body, off_thread, worked_out};
use crate::problem::Problem;
use crate::summary::{Summary, bring_up, said_of};

/// How long a job is worked on before it is told with what is known.
const MOMENT: Duration = Duration::from_secs(1);

/// A job with its pieces.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct JobDetail {
    pub job: JobLine,
    pub pieces: Vec<PieceLine>,
}

/// A piece in its job.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PieceLine {
    pub id: i64,
    pub version: i64,
    pub has_picture: bool,
    /// What is told of it is what was last known; it is being worked out again.
    pub waiting: bool,
    /// As it was kept.
    #[serde(flatten)]
    #[schema(value_type = Summary)]
    pub told: BTreeMap<String, Box<RawValue>>,
}

/// A job's own fields.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JobForm {
    /// Job number as people call it.
    pub number: String,
    /// What it is.
    pub title: String,
    /// Due date.
    #[serde(default)]
    pub due: Option<String>,
    /// The version a change is made from; left out for a new job.
    #[serde(default)]
    pub version: Option<i64>,
}

/// A whole job as a file.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct JobFile {
    /// File version; 1.
    pub steelk_job: u32,
    pub number: String,
    pub title: String,
    #[serde(default)]
    pub due: Option<String>,
    pub pieces: Vec<JobFilePiece>,
}

/// A piece in a job file.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JobFilePiece {
    /// Its document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Its drawing's picture, base64.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub picture: Option<String>,
    /// A photo to trace, base64.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photo: Option<String>,
    /// Every revision, oldest first, where they were asked for; the last is the document.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub revisions: Vec<JobFileRevision>,
}

/// A revision of a piece in a job file.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct JobFileRevision {
    /// Counts up from 1.
    pub number: i64,
    /// `made`, `edited`, `undone`, `redone` or `restored`.
    pub action: String,
    /// The edit whose document this one equals: itself, for an edit.
    pub origin: i64,
    /// The origin that it was made from.
    #[serde(default)]
    pub parent: Option<i64>,
    #[serde(default)]
    pub note: String,
    #[serde(default)]
    pub who: String,
    pub at: String,
    /// Its document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
}

/// What of a job goes into its file.
#[derive(Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct ExportOf {
    /// Every revision of its pieces too.
    #[serde(default)]
    revisions: bool,
}

/// A line of the log.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct LogLine {
    pub at: String,
    pub who: String,
    pub what: String,
    pub piece_id: Option<i64>,
    /// The mark of the piece, deleted or not.
    pub mark: Option<String>,
}

impl JobForm {
    fn check(&self) -> Result<(), Problem> {
        let good = |text: &str, most: usize| {
            let count = text.trim().chars().count();
            count > 0 && count <= most && !text.chars().any(char::is_control)
        };
        if !good(&self.number, 40) {
            return Err(Problem::field("number", "a job number has 1 to 40 characters, such as TS-104"));
        }
        if !good(&self.title, 200) {
            return Err(Problem::field("title", "a title has 1 to 200 characters"));
        }
        if let Some(due) = &self.due
            && !is_date(due)
        {
            return Err(Problem::field("due", format!("\"{due}\" is no date; write it as 2026-12-01")));
        }
        Ok(())
    }
}

fn is_date(text: &str) -> bool {
    let parts: Vec<&str> = text.split('-').collect();
    let [year, month, day] = parts[..] else { return false };
    let in_range = |part: &str, digits: usize, low: u32, high: u32| {
        part.len() == digits && part.parse::<u32>().is_ok_and(|value| (low..=high).contains(&value))
    };
    in_range(year, 4, 1900, 2999) && in_range(month, 2, 1, 12) && in_range(day, 2, 1, 31)
}

fn told_piece(state: &State, piece: ToldPiece) -> Result<PieceLine, Problem> {
    let line = match piece.line {
        Some(line) => line,
        None => {
            let (mark, title) = said_of(piece.id, &state.store().piece(piece.id)?.document);
            serde_json::to_string(&Summary { mark, title, view_box: "0 0 1 1".into(), ..Summary::default() })
                .unwrap_or_default()
        }
    };
    let told = serde_json::from_str(&line).unwrap_or_default();
    let ToldPiece { id, version, has_picture, is_behind: waiting, .. } = piece;
    Ok(PieceLine { id, version, has_picture, waiting, told })
}

/// A job as it is kept.
fn detail(state: &State, job: i64) -> Result<JobDetail, Problem> {
    let stamp = state.stamp()?;
    let (line, pieces) = {
        let store = state.store();
        let job = store.job(job)?;
        (JobLine::new(&job, &store.figures(job.id, &stamp)?), store.told_pieces(job.id, &stamp)?)
    };
    let pieces = pieces.into_iter().map(|piece| told_piece(state, piece)).collect::<Result<_, _>>()?;
    Ok(JobDetail { job: line, pieces })
}

/// A job as it is, its pieces worked out first where they are behind, for a moment and where there is a place for it.
async fn told(state: web::Data<State>, job: i64) -> Result<JobDetail, Problem> {
    let own = state.clone();
    let told = off_thread(move || detail(&own, job)).await?;
    if told.job.waiting == 0 {
        return Ok(told);
    }
    let brought = worked_out(state.clone(), move |state| {
        let stamp = state.stamp()?;
        let behind = state.store().behind(Among::Job(job), &stamp)?.pieces;
        bring_up(state, &behind, Instant::now() + MOMENT)
    })
    .await;
    match brought {
        Ok(_) => off_thread(move || detail(&state, job)).await,
        Err(_) => Ok(told),
    }
}

/// A job that came whole. It is there, so it is told at once: what its pieces come to follows.
async fn came(state: web::Data<State>, job: i64) -> Result<Made<JobDetail>, Problem> {
    state.keeper().came(job);
    Ok(Made(off_thread(move || detail(&state, job)).await?))
}

/// Makes a job.
#[utoipa::path(post, path = "/api/jobs", request_body = JobForm, responses((status = 201, body = JobDetail), (status = 422, body = Problem)))]
pub(crate) async fn add_job(state: web::Data<State>, form: web::Json<JobForm>) -> Result<Made<JobDetail>, Problem> {
    form.check()?;
    off_thread(move || {
        let job = state.store().add_job(form.number.trim(), form.title.trim(), form.due.as_deref())?;
        Ok(Made(detail(&state, job.id)?))
    })
    .await
}

/// One job with its pieces.
#[utoipa::path(get, path = "/api/jobs/{id}", params(("id" = i64, Path)), responses((status = 200, body = JobDetail), (status = 404, body = Problem)))]
pub(crate) async fn job(state: web::Data<State>, id: web::Path<i64>) -> Result<web::Json<JobDetail>, Problem> {
    Ok(web::Json(told(state, *id).await?))
}

/// Changes a job's number, title or due date.
#[utoipa::path(put, path = "/api/jobs/{id}", params(("id" = i64, Path)), request_body = JobForm, responses((status = 200, body = JobDetail), (status = 409, body = Problem)))]
pub(crate) async fn change_job(
    state: web::Data<State>,
    id: web::Path<i64>,
    form: web::Json<JobForm>,
) -> Result<web::Json<JobDetail>, Problem> {
    form.check()?;
    let own = state.clone();
    let job = off_thread(move || {
        let version =
            form.version.ok_or_else(|| Problem::field("version", "say which version this change is made from"))?;
        Ok(own.store().change_job(*id, version, form.number.trim(), form.title.trim(), form.due.as_deref())?)
    })
    .await?;
    Ok(web::Json(told(state, job.id).await?))
}

/// Takes a job off the rack; it can be put back.
#[utoipa::path(delete, path = "/api/jobs/{id}", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
pub(crate) async fn remove_job(state: web::Data<State>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    off_thread(move || Ok(state.store().set_job_removed(*id, true)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Puts a job back on the rack.
#[utoipa::path(post, path = "/api/jobs/{id}/put-back", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
pub(crate) async fn put_back_job(state: web::Data<State>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    off_thread(move || Ok(state.store().set_job_removed(*id, false)?)).await?;
    Ok(HttpResponse::NoContent().finish())
}

fn raw(text: &str) -> Result<Box<RawValue>, Problem> {
    RawValue::from_string(text.trim().to_string()).map_err(|fault| Problem::field("document", fault.to_string()))
}

fn too_large(bytes: usize) -> Problem {
    Problem::new(
        StatusCode::PAYLOAD_TOO_LARGE,
        "Too large for one file",
        format!(
            "the job's file would have {bytes} bytes or more, and {LARGEST_JOB} is the most that could be brought in again; leave \
             its revisions out, or move pieces with large pictures to a job of their own"
        ),
    )
}

fn file_of(state: &State, id: i64, with_revisions: bool) -> Result<JobFile, Problem> {
    // Under one lock: a file of one moment.
    let store = state.store();
    let job = store.job(id)?;
    let rows = store.pieces(id)?;
    let mut pieces = Vec::new();
    let mut size = 0;
    for row in rows {
        if with_revisions {
            // Looked at before they are read: a long history may be more than there is memory.
            size += store.revisions_size(row.id)?;
        }
        let kept = |has: bool, slot: Slot| -> Result<Option<String>, Problem> {
            if !has {
                return Ok(None);
            }
            let bytes = store.picture(row.id, slot)?.bytes;
            Ok(Some(base64::engine::general_purpose::STANDARD.encode(bytes)))
        };
        let (picture, photo) = (kept(row.has_picture, Slot::Drawing)?, kept(row.has_photo, Slot::Photo)?);
        let pictured = [&picture, &photo].into_iter().flatten().map(String::len).sum::<usize>();
        size += row.document.len() + pictured;
        if size > LARGEST_JOB {
            return Err(too_large(size));
        }
        let document = raw(&row.document)?;
        let mut revisions = Vec::new();
        for one in if with_revisions { store.whole_revisions(row.id)? } else { Vec::new() } {
            let WholeRevision { number, document, action, origin, parent, note, who, at } = one;
            revisions.push(JobFileRevision {
                number,
                document: raw(&document)?,
                action,
                origin,
                parent,
                note,
                who,
                at,
            });
        }
        pieces.push(JobFilePiece { document, picture, photo, revisions });
    }
    Ok(JobFile { steelk_job: 1, number: job.number, title: job.title, due: job.due, pieces })
}

/// A revision of a file as it is kept: readable, and its words no longer than words are.
fn revision(one: &JobFileRevision) -> Result<WholeRevision, Problem> {
    let document = one.document.get().to_string();
    Piece::read(document.as_bytes())?;
    let plain = |text: &str, most: usize| -> String { text.chars().filter(|c| !c.is_control()).take(most).collect() };
    Ok(WholeRevision {
        number: one.number,
        document,
        action: plain(&one.action, 20),
        origin: one.origin,
        parent: one.parent,
        note: plain(&one.note, 200),
        who: plain(&one.who, 80),
        at: plain(&one.at, 40),
    })
}

fn same(text: &str, piece: &Piece) -> bool {
    Piece::read(text.as_bytes()).is_ok_and(|own| own == *piece)
}

/// Puts a job file on the rack as a new job, whole or not at all. Everything is read before anything is written.
pub(crate) fn take_in(state: &State, file: &JobFile, number: &str) -> Result<Job, Problem> {
    if file.steelk_job != 1 {
        return Err(Problem::field(
            "steelk_job",
            format!("this job file is version {}; version 1 is read here", file.steelk_job),
        ));
    }
    JobForm { number: number.into(), title: file.title.clone(), due: file.due.clone(), version: None }.check()?;
    let mut pieces = Vec::new();
    for (at, entry) in file.pieces.iter().enumerate() {
        let under = |mut problem: Problem| {
            problem.field = Some(format!("pieces[{at}].document.{}", problem.field.unwrap_or_default()));
            problem.detail = format!("piece {} of the file: {}", at + 1, problem.detail);
            problem
        };
        let piece = Piece::read(entry.document.get().as_bytes()).map_err(|fault| under(fault.into()))?;
        let given = |text: &Option<String>| -> Result<Option<Picture>, Problem> {
            let Some(text) = text else { return Ok(None) };
            let bytes = base64::engine::general_purpose::STANDARD
                .decode(text)
                .map_err(|fault| under(Problem::field("picture", fault.to_string())))?;
            let kind = sniff(&bytes).map_err(under)?;
            Ok(Some(Picture { kind: kind.into(), bytes }))
        };
        let pictures = [(Slot::Drawing, given(&entry.picture)?), (Slot::Photo, given(&entry.photo)?)];
        let revisions = entry
            .revisions
            .iter()
            .map(|one| {
                revision(one).map_err(|mut problem| {
                    problem.field = Some(format!("pieces[{at}].revisions[{}]", one.number));
                    problem.detail =
                        format!("piece {} of the file, revision {}: {}", at + 1, one.number, problem.detail);
                    problem
                })
            })
            .collect::<Result<Vec<_>, Problem>>()?;
        let document = match revisions.last() {
            // As it stands in its history, word for word.
            Some(last) if same(&last.document, &piece) => last.document.clone(),
            Some(_) => {
                return Err(under(Problem::field(
                    "revisions",
                    "the last of its revisions is another piece than its document",
                )));
            }
            None => piece.to_keep().map_err(|fault| under(fault.into()))?,
        };
        pieces.push(NewPiece {
            document,
            revisions,
            note: format!("brought in {}", piece.mark),
            pictures: pictures.into_iter().filter_map(|(slot, picture)| Some((slot, picture?))).collect(),
        });
    }
    let job = NewJob { number: number.into(), title: file.title.clone(), due: file.due.clone(), pieces };
    Ok(state.store().add_whole_job(&job)?)
}

/// Copies a job with its pieces and drawings.
#[utoipa::path(post, path = "/api/jobs/{id}/copy", params(("id" = i64, Path)), responses((status = 201, body = JobDetail), (status = 404, body = Problem)))]
pub(crate) async fn copy_job(state: web::Data<State>, id: web::Path<i64>) -> Result<Made<JobDetail>, Problem> {
    let own = state.clone();
    let job = off_thread(move || {
        let file = file_of(&own, *id, false)?;
        let number: String = format!("{} copy", file.number).chars().take(40).collect();
        take_in(&own, &file, &number)
    })
    .await?;
    came(state, job.id).await
}

/// The whole job as one file.
#[utoipa::path(get, path = "/api/jobs/{id}/job.json", params(("id" = i64, Path), ExportOf), responses((status = 200, body = JobFile), (status = 404, body = Problem), (status = 413, body = Problem)))]
pub(crate) async fn export_job(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<ExportOf>,
) -> Result<File, Problem> {
    off_thread(move || {
        let file = file_of(&state, *id, of.revisions)?;
        let name = super::download::file_name(&file.number, "json");
        let body = serde_json::to_vec_pretty(&file).unwrap_or_default();
        if body.len() > LARGEST_JOB {
            return Err(too_large(body.len()));
        }
        Ok(File { name: Some(name), kind: "application/json".into(), body })
    })
    .await
}

/// Brings a job in from a file.
#[utoipa::path(post, path = "/api/import", request_body = JobFile, responses((status = 201, body = JobDetail), (status = 422, body = Problem)))]
pub(crate) async fn import_job(
    state: web::Data<State>,
    payload: Result<web::Bytes, actix_web::Error>,
) -> Result<Made<JobDetail>, Problem> {
    let file = body(payload, &format!("a job's file may have {} MB", LARGEST_JOB / 1024 / 1024))?;
    let own = state.clone();
    let job = off_thread(move || {
        let file: JobFile = serde_json::from_slice(&file)
            .map_err(|fault| Problem::field("document", format!("this is no job file: {fault}")))?;
        take_in(&own, &file, file.number.trim())
    })
    .await?;
    came(state, job.id).await
}

/// What was done on a job, newest first.
#[utoipa::path(get, path = "/api/jobs/{id}/log", params(("id" = i64, Path)), responses((status = 200, body = Vec<LogLine>), (status = 404, body = Problem)))]
pub(crate) async fn job_log(state: web::Data<State>, id: web::Path<i64>) -> Result<web::Json<Vec<LogLine>>, Problem> {
    off_thread(move || {
        state.store().job(*id)?;
        let lines = state.store().log(*id, 500)?;
        Ok(web::Json(
            lines
                .into_iter()
                .map(|one| LogLine { at: one.at, who: one.who, what: one.what, piece_id: one.piece_id, mark: one.mark })
                .collect(),
        ))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/jobs", web::post().to(add_job))
        .service(
            web::resource("/import").app_data(web::PayloadConfig::new(LARGEST_JOB)).route(web::post().to(import_job)),
        )
        .route("/jobs/{id}", web::get().to(job))
        .route("/jobs/{id}", web::put().to(change_job))
        .route("/jobs/{id}", web::delete().to(remove_job))
        .route("/jobs/{id}/put-back", web::post().to(put_back_job))
        .route("/jobs/{id}/copy", web::post().to(copy_job))
        .route("/jobs/{id}/job.json", web::get().to(export_job))
        .route("/jobs/{id}/log", web::get().to(job_log));
}
