//! Everything of a piece or of a job at once: one ZIP, and a printed pack.

use std::collections::HashSet;
use std::time::Duration;

use actix_web::web::{self, ServiceConfig};
use steelk_core::piece::{Outcome, Piece};
use steelk_formats::output::{Heading, Packed, Stamp, job_pack, pages, zip_of};
use steelk_store::{Job, PieceRow};

use super::download::{VariantOf, as_variant, attachment, file_name, job_list, stamp};
use super::shop::shop;
use super::{File, State, worked_out};
use crate::audited::audited;
use crate::files::{Shop, order, whole_package};
use crate::line::within;
use crate::problem::Problem;
use crate::summary::said_of;

/// How long one piece may keep the others waiting.
const LONGEST_PIECE: Duration = Duration::from_secs(60);

/// What is not in an archive, in a file of its own: nobody should have to miss it.
const NOT_HERE: &str = "NOT-IN-THIS-ZIP.txt";

type Files = Vec<(String, Vec<u8>)>;

fn missing(words: Vec<String>) -> Option<(String, Vec<u8>)> {
    (!words.is_empty()).then(|| (NOT_HERE.to_string(), format!("{}\n", words.join("\n")).into_bytes()))
}

/// Every file of a piece as one ZIP.
#[utoipa::path(get, path = "/api/pieces/{id}/all.zip", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "application/zip"), (status = 404, body = Problem), (status = 409, body = Problem)))]
pub(crate) async fn piece_zip(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let row = state.store().piece(*id)?;
        let piece = as_variant(Piece::read(row.document.as_bytes())?, of.variant.as_deref())?;
        let (shop, stamp) = (shop(state)?, stamp(state, &row)?);
        let outcome = audited(&piece, shop.workshop());
        let made = whole_package(&piece, &outcome, &shop, &stamp)?;
        let mut files = made.files;
        files.extend(missing(made.missing.into_iter().chain(made.notes).collect()));
        Ok(attachment(&zip_name(&piece.mark, &piece, &outcome, &stamp), "application/zip", zip_of(&files)?))
    })
    .await
}

/// The name of a piece's archive: its mark, its revision, and that it is not released.
fn zip_name(mark: &str, piece: &Piece, outcome: &Outcome, stamp: &Stamp) -> String {
    let head = Heading::new(piece, outcome, stamp);
    let revision = stamp.revision.as_ref().map_or_else(String::new, |own| format!("_r{own}"));
    let warning = if head.note.is_some() { "_NOT-RELEASED" } else { "" };
    file_name(&format!("{mark}{revision}{warning}"), "zip")
}

/// Each piece of a job, with its variants as pieces of their own, or why one cannot be read.
fn each_piece(
    state: &State,
    job: i64,
    mut each: impl FnMut(&PieceRow, &Stamp, Result<Piece, String>),
) -> Result<(), Problem> {
    let rows = state.store().pieces(job)?;
    for row in rows {
        let stamp = stamp(state, &row)?;
        match Piece::read(row.document.as_bytes()) {
            Ok(piece) => piece.made().into_iter().for_each(|own| each(&row, &stamp, Ok(own))),
            Err(fault) => each(&row, &stamp, Err(fault.to_string())),
        }
    }
    Ok(())
}

/// Every file of every piece of a job as one ZIP, a folder a piece, with the job's cut list.
#[utoipa::path(get, path = "/api/jobs/{id}/all.zip", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "application/zip"), (status = 404, body = Problem)))]
pub(crate) async fn job_zip(state: web::Data<State>, id: web::Path<i64>) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let job = state.store().job(*id)?;
        let shop = shop(state)?;
        let (mut files, mut words): (Files, Vec<String>) = (vec![job_list(state, &job, &shop)?], Vec::new());
        let mut folders = HashSet::new();
        each_piece(state, job.id, |row, stamp, piece| {
            let piece = match piece {
                Ok(piece) => piece,
                Err(why) => return words.push(format!("{}: {why}", said_of(row.id, &row.document).0)),
            };
            let made = within(LONGEST_PIECE, || {
                let outcome = audited(&piece, shop.workshop());
                whole_package(&piece, &outcome, &shop, stamp).map_err(|problem| problem.detail)
            });
            match made.and_then(|made| made) {
                Ok(made) => {
                    let mut folder = steelk_core::frame::file_stem(&piece.mark);
                    // Marks that differ only in letters that no file system takes.
                    while !folders.insert(folder.to_ascii_lowercase()) {
                        folder.push_str("-again");
                    }
                    files.extend(made.files.into_iter().map(|(name, bytes)| (format!("{folder}/{name}"), bytes)));
                    words
                        .extend(made.missing.into_iter().chain(made.notes).map(|one| format!("{}: {one}", piece.mark)));
                }
                Err(why) => words.push(format!("{}: {why}", piece.mark)),
            }
        })?;
        files.extend(missing(words));
        Ok(attachment(&file_name(&job.number, "zip"), "application/zip", zip_of(&files)?))
    })
    .await
}

/// The printed pack of a job: what is in it and what is not, then every flat and list.
#[utoipa::path(get, path = "/api/jobs/{id}/pack.pdf", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "application/pdf"), (status = 404, body = Problem)))]
pub(crate) async fn job_pack_file(state: web::Data<State>, id: web::Path<i64>) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let job: Job = state.store().job(*id)?;
        let shop = shop(state)?;
        let mut all = Vec::new();
        each_piece(state, job.id, |row, stamp, piece| {
            all.push(match piece {
                Ok(piece) => packed(&piece, stamp, &shop),
                Err(why) => {
                    let (mark, title) = said_of(row.id, &row.document);
                    let head = Heading { mark, title, stamp: stamp.clone(), note: None };
                    Packed { head, count: None, material: String::new(), pages: Err(why) }
                }
            });
        })?;
        let name = file_name(&format!("{}_pack", job.number), "pdf");
        Ok(attachment(&name, "application/pdf", job_pack(&job.number, &job.title, all)?))
    })
    .await
}

fn packed(piece: &Piece, stamp: &Stamp, shop: &Shop) -> Packed {
    let made = within(LONGEST_PIECE, || {
        let outcome = audited(piece, shop.workshop());
        let own = order(piece, &outcome, shop, stamp, |order| Ok(pages(&order)?)).map_err(|problem| problem.detail);
        (Heading::new(piece, &outcome, stamp), own)
    });
    let (head, pages) = made.unwrap_or_else(|why| {
        let (mark, title) = (piece.mark.clone(), piece.title.clone());
        (Heading { mark, title, stamp: stamp.clone(), note: None }, Err(why))
    });
    Packed { head, count: Some(piece.count()), material: piece.stock.material.clone(), pages }
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/pieces/{id}/all.zip", web::get().to(piece_zip))
        .route("/jobs/{id}/all.zip", web::get().to(job_zip))
        .route("/jobs/{id}/pack.pdf", web::get().to(job_pack_file));
}
