//! Files out: any of the list of outputs, and the piece document.

use std::time::Duration;

use actix_web::HttpRequest;
use actix_web::http::StatusCode;
use actix_web::web::{self, ServiceConfig};
use steelk_core::drawing::{Paper, TemplateChoice};
use steelk_core::piece::{BlankOf, KINDS, Kind, Options, Outcome, Piece, alone, evaluate};
use steelk_core::quantity::{Dimension, LengthUnit};
use steelk_core::table::DatumCorner;
use steelk_formats::cutlist_csv::{JobCutLine, JobPiece};
use steelk_formats::output::{Choices, Heading, Make, OUTPUTS, Of, Output, Reader, Stamp, job_file_name, job_piece};
use steelk_store::{Job, PieceRow};

use crate::audited::audited;
use crate::files::{Shop, order};
use crate::line::within;
use crate::problem::Problem;
use crate::summary::said_of;

use super::shop::shop;
use super::{File, State, off_thread, worked_out};

/// A name that every file system takes.
pub(crate) fn file_name(stem: &str, end: &str) -> String {
    let safe = steelk_core::frame::file_stem(stem);
    format!("{safe}.{end}")
}

pub(super) fn attachment(name: &str, kind: &str, body: Vec<u8>) -> File {
    File { name: Some(name.to_string()), kind: kind.to_string(), body }
}

/// Which variant of a piece.
#[derive(Default, serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct VariantOf {
    /// Its name; the piece itself where left out.
    #[serde(default)]
    pub(crate) variant: Option<String>,
}

/// A blank of a piece of several as a piece of its own, by its letter; `None` where none is asked for.
pub(crate) fn as_blank(
    piece: &Piece,
    outcome: &Outcome,
    blanks: &[BlankOf],
    letter: Option<&str>,
) -> Result<Option<(Piece, Outcome)>, Problem> {
    let Some(letter) = letter.filter(|letter| !letter.is_empty()) else { return Ok(None) };
    let found = blanks.iter().find(|one| one.letter == letter).and_then(|blank| alone(piece, outcome, blank));
    let none = || {
        let known: Vec<&str> = blanks.iter().map(|one| one.letter.as_str()).filter(|one| !one.is_empty()).collect();
        let words =
            if known.is_empty() { "It comes to one.".into() } else { format!("Its blanks are {}.", known.join(", ")) };
        Problem::field("blank", format!("the piece has no blank {letter}. {words}"))
    };
    found.map(Some).ok_or_else(none)
}

/// The piece, or a variant of it as a piece of its own.
pub(crate) fn as_variant(piece: Piece, variant: Option<&str>) -> Result<Piece, Problem> {
    let Some(name) = variant.filter(|name| !name.is_empty()) else { return Ok(piece) };
    piece.variant(name).ok_or_else(|| {
        let known: Vec<&str> = piece.variants.iter().map(|one| one.name.as_str()).collect();
        let words = if known.is_empty() {
            "It has none.".to_string()
        } else {
            format!("Its variants are {}.", known.join(", "))
        };
        Problem::field("variant", format!("the piece has no variant called {name}. {words}"))
    })
}

/// How one file is asked for.
#[derive(Default, serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct FileOf {
    /// Which variant of the piece.
    #[serde(default)]
    variant: Option<String>,
    /// The template's paper; A4 where left out.
    #[serde(default)]
    #[param(inline)]
    paper: Paper,
    /// What the template's check line across measured on the last print, as people write lengths.
    #[serde(default)]
    across: Option<String>,
    /// What its check line up measured.
    #[serde(default)]
    up: Option<String>,
    /// From which corner of the blank holes are told; lower left where left out.
    #[serde(default)]
    #[param(inline)]
    corner: DatumCorner,
}

impl FileOf {
    fn choices(&self, piece: &Piece, outcome: &Outcome) -> Result<Choices, Problem> {
        let measured = |field: &str, text: &Option<String>| -> Result<Option<f64>, Problem> {
            let Some(text) = text.as_deref().map(str::trim).filter(|text| !text.is_empty()) else { return Ok(None) };
            let names = &outcome.resolved.names;
            names
                .read(text, Dimension::LENGTH, "what a check line measured")
                .map(Some)
                .map_err(|fault| Problem::field(field, format!("{}. {}", fault.message, fault.way_out)))
        };
        let template = TemplateChoice {
            paper: self.paper,
            across: measured("across", &self.across)?,
            up: measured("up", &self.up)?,
            unit: piece.unit,
        };
        Ok(Choices { template, corner: self.corner })
    }
}

/// The files that there are.
#[utoipa::path(get, path = "/api/outputs", responses((status = 200, body = Vec<OutputLine>)))]
pub(crate) async fn outputs() -> web::Json<Vec<OutputLine>> {
    web::Json(OUTPUTS.iter().map(OutputLine::of).collect())
}

/// A file of the list, as the menu shows it.
#[derive(serde::Serialize, utoipa::ToSchema)]
pub struct OutputLine {
    /// Its name in the address, `{mark}` standing for a mark where there is one for each.
    pub file: String,
    /// The kinds of piece that have it; none for one of a job.
    pub kinds: Vec<Kind>,
    /// What it is one of.
    pub of: Of,
    /// Words for the menu.
    pub words: String,
    /// For whom it is.
    pub reader: Reader,
    /// Whether it is what that reader is sent first.
    pub first: bool,
    /// Media type.
    pub media: String,
}

impl OutputLine {
    fn of(output: &Output) -> Self {
        OutputLine {
            file: output.key.into(),
            kinds: KINDS.iter().filter(|kind| output.serves(kind.made_from)).map(|kind| kind.kind).collect(),
            of: output.of,
            words: output.words.into(),
            reader: output.reader,
            first: output.first,
            media: output.media.into(),
        }
    }
}

/// Which file of what.
#[derive(serde::Deserialize)]
pub(crate) struct FileAt {
    id: i64,
    file: String,
}

/// The last name of an address as it was before it was packed. The router's own leaves it open whether a slash was one: marks
/// may have any letter.
fn last_name(request: &HttpRequest) -> String {
    let packed = request.uri().path().rsplit('/').next().unwrap_or_default();
    percent_encoding::percent_decode_str(packed).decode_utf8_lossy().into_owned()
}

fn no_such_file(mark: &str, file: &str) -> Problem {
    Problem::new(StatusCode::NOT_FOUND, "Not there", format!("{mark} has no file {file}"))
}

/// A file of a piece: any of the list, of a mark where there is one for each.
#[utoipa::path(get, path = "/api/pieces/{id}/files/{file}", params(("id" = i64, Path), ("file" = String, Path), FileOf), responses((status = 200, body = String, content_type = "application/octet-stream"), (status = 404, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn file(
    state: web::Data<State>,
    path: web::Path<FileAt>,
    of: web::Query<FileOf>,
    request: HttpRequest,
) -> Result<File, Problem> {
    let name = last_name(&request);
    worked_out(state, move |state| {
        let row = state.store().piece(path.id)?;
        let piece = as_variant(Piece::read(row.document.as_bytes())?, of.variant.as_deref())?;
        let made_from = piece.kind.row().made_from;
        let asked = |output: &'static Output| Some((output, output.asked(&name)?));
        let (output, mark) = OUTPUTS
            .iter()
            .filter(|output| output.serves(made_from))
            .find_map(asked)
            .ok_or_else(|| no_such_file(&piece.mark, &name))?;
        let shop = shop(state)?;
        let outcome = audited(&piece, shop.workshop());
        let choices = of.choices(&piece, &outcome)?;
        order(&piece, &outcome, &shop, &stamp(state, &row)?, |mut order| {
            order.choices = choices;
            let body = output.make(&order, mark)?;
            Ok(attachment(&output.file_name(&order, mark), output.media, body))
        })
    })
    .await
}

/// Which revision a piece's newest is, who made it and on what day.
pub(super) fn stamp(state: &State, row: &PieceRow) -> Result<Stamp, Problem> {
    let all = state.store().revisions(row.id)?;
    let own = all.into_iter().find(|one| one.number == row.version);
    Ok(Stamp {
        revision: Some(row.version.to_string()),
        by: own.as_ref().map(|one| one.who.clone()).filter(|who| !who.is_empty()),
        date: own.map(|one| one.at.chars().take(DAY).collect()),
    })
}

/// Characters of a day: `2026-11-28`.
const DAY: usize = 10;

/// How long one piece may keep a job's cut list waiting.
const LONGEST_PIECE: Duration = Duration::from_secs(20);

/// What every piece of a job brings to its list.
fn job_pieces(state: &State, job: i64, shop: &Shop) -> Result<Vec<JobPiece>, Problem> {
    let mut all = Vec::new();
    let rows = state.store().pieces(job)?;
    for row in rows {
        let stamp = stamp(state, &row)?;
        let own = Piece::read(row.document.as_bytes()).map_err(|fault| fault.to_string()).and_then(|piece| {
            within(LONGEST_PIECE, || {
                let made = piece.made();
                let options = Options { shop: shop.workshop(), ..Options::default() };
                made.iter().map(|one| job_piece(one, &evaluate(one, options), &stamp)).collect::<Vec<_>>()
            })
        });
        // A list that left one out in silence would be short of steel.
        all.extend(own.unwrap_or_else(|why| {
            let head = Heading { mark: said_of(row.id, &row.document).0, stamp, ..Heading::default() };
            vec![JobPiece { head, unit: LengthUnit::Mm, lines: vec![JobCutLine::Missing(why)] }]
        }));
    }
    Ok(all)
}

/// The cut list of a job with its name.
pub(super) fn job_list(state: &State, job: &Job, shop: &Shop) -> Result<(String, Vec<u8>), Problem> {
    let pieces = job_pieces(state, job.id, shop)?;
    let list = OUTPUTS.iter().find_map(|output| match output.make {
        Make::Job(make) => Some((output, make)),
        _ => None,
    });
    let Some((output, make)) = list else { return Err(no_such_file(&job.number, "cutlist.csv")) };
    Ok((job_file_name(output, &job.number, &shop.files), make(&pieces)?))
}

/// A file of a job.
#[utoipa::path(get, path = "/api/jobs/{id}/files/{file}", params(("id" = i64, Path), ("file" = String, Path)), responses((status = 200, body = String, content_type = "application/octet-stream"), (status = 404, body = Problem)))]
pub(crate) async fn job_file(state: web::Data<State>, path: web::Path<FileAt>) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let job = state.store().job(path.id)?;
        let (output, make) = OUTPUTS
            .iter()
            .find_map(|output| match output.make {
                Make::Job(make) if output.key == path.file => Some((output, make)),
                _ => None,
            })
            .ok_or_else(|| no_such_file(&job.number, &path.file))?;
        let shop = shop(state)?;
        let all = job_pieces(state, path.id, &shop)?;
        let name = job_file_name(output, &job.number, &shop.files);
        Ok(attachment(&name, output.media, make(&all)?))
    })
    .await
}

/// The piece document; one that cannot be read is given out as it was saved.
#[utoipa::path(get, path = "/api/pieces/{id}/piece.json", params(("id" = i64, Path)), responses((status = 200, body = Piece), (status = 404, body = Problem)))]
pub(crate) async fn piece_file(state: web::Data<State>, id: web::Path<i64>) -> Result<File, Problem> {
    off_thread(move || {
        let row = state.store().piece(*id)?;
        let (mark, text) = match Piece::read(row.document.as_bytes()) {
            Ok(piece) => (piece.mark.clone(), piece.write()),
            Err(_) => (said_of(row.id, &row.document).0, row.document),
        };
        Ok(attachment(&file_name(&mark, "json"), "application/json", text.into_bytes()))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/outputs", web::get().to(outputs))
        .route("/pieces/{id}/files/{file}", web::get().to(file))
        .route("/pieces/{id}/piece.json", web::get().to(piece_file))
        .route("/jobs/{id}/files/{file}", web::get().to(job_file));
}
