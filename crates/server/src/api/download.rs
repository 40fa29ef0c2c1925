//! Files out: blank DXF and SVG, cut list, report, piece document.

use std::time::Duration;

use actix_web::http::StatusCode;
use actix_web::web::{self, ServiceConfig};
use steelk_core::brake::{BendRow, bend_rows};
use steelk_core::cutlist::cut_line;
use steelk_core::drawing::{
    Drawing, FlatSheetWords, Paper, TemplateChoice, add_bend_table, blank_drawing, profile_drawing, template,
};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::quantity::{Dimension, decimal};
use steelk_core::release::{Ready, ready};
use steelk_core::sheet::{Part, folded_body};
use steelk_core::table::{DatumCorner, edge_rows, hole_rows};
use steelk_core::toolpath::profile;
use steelk_formats::cutlist_csv::{JobCutLine, write_job};

use crate::audited::audited;
use crate::line::within;
use crate::problem::Problem;

use super::job::said_of;
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

fn read(state: &State, id: i64, variant: &Option<String>) -> Result<(Piece, Outcome), Problem> {
    let piece = Piece::read(state.store().piece(id)?.document.as_bytes())?;
    let piece = as_variant(piece, variant.as_deref())?;
    let outcome = audited(&piece);
    Ok((piece, outcome))
}

/// The part of a piece, or why nothing of it is given out.
pub fn whole_part<'a>(piece: &Piece, outcome: &'a Outcome) -> Result<&'a Part, Problem> {
    match ready(piece, outcome)? {
        Ready::Sheet(sheets) => sheets.only().map(|blank| &blank.part).ok_or_else(|| {
            Problem::new(
                StatusCode::CONFLICT,
                "Several blanks",
                format!("{} comes to {} blanks; ask for one of them", piece.mark, sheets.blanks().len()),
            )
        }),
        Ready::Frame(_) => Err(Problem::new(
            StatusCode::CONFLICT,
            "Nothing to cut yet",
            format!("{} is a frame: it has a cut list and bars, and no blank", piece.mark),
        )),
    }
}

/// The blank's drawing; refused as [`whole_part`].
pub fn whole_blank(piece: &Piece, outcome: &Outcome) -> Result<Drawing, Problem> {
    Ok(blank_drawing(whole_part(piece, outcome)?, &piece.mark))
}

/// The blank's drawing with the bend table under it.
pub fn tabled_blank(piece: &Piece, outcome: &Outcome) -> Result<Drawing, Problem> {
    let part = whole_part(piece, outcome)?;
    let mut drawing = blank_drawing(part, &piece.mark);
    if !part.flat.bends.is_empty() {
        add_bend_table(&mut drawing, &bend_rows(part, outcome.resolved.die), &floor_words(piece, outcome));
    }
    Ok(drawing)
}

/// What the floor must know of a piece, line by line.
fn floor_words(piece: &Piece, outcome: &Outcome) -> Vec<String> {
    let mut lines = Vec::new();
    let Some(figures) = outcome.figures() else { return lines };
    let thickness = outcome.resolved.thickness.unwrap_or_default();
    lines.push(format!("{} {} mm, {} off", piece.stock.material, decimal(thickness, 3), piece.quantity));
    lines.push(format!(
        "blank {} x {} mm as cut, cut length {} mm, {} pierces",
        decimal(figures.blank_width, 2),
        decimal(figures.blank_height, 2),
        decimal(figures.cut_length, 0),
        figures.pierces
    ));
    lines.push(format!(
        "folded {} x {} x {} mm, {} kg (blank area x T x density)",
        decimal(figures.folded_size.x, 1),
        decimal(figures.folded_size.y, 1),
        decimal(figures.folded_size.z, 1),
        decimal(figures.mass, 3)
    ));
    if let Some(grain) = piece.grain {
        lines.push(format!("grain {}", grain.words()));
    }
    if figures.bends > 0 {
        lines.push(format!("bends by {}", outcome.resolved.method_words));
    }
    if piece.opposite_hand {
        lines.push("opposite hand".into());
    }
    lines
}

/// The bend table of a piece; refused as [`whole_blank`].
pub fn bend_table(piece: &Piece, outcome: &Outcome) -> Result<Vec<BendRow>, Problem> {
    Ok(bend_rows(whole_part(piece, outcome)?, outcome.resolved.die))
}

/// The flat sheet as a PDF of one page; refused as [`whole_blank`].
pub fn flat_sheet_pdf(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    let part = whole_part(piece, outcome)?;
    let bends = bend_rows(part, outcome.resolved.die);
    let mut lines = floor_words(piece, outcome);
    lines.extend(outcome.cautions.iter().take(3).cloned());
    let words =
        FlatSheetWords { mark: piece.mark.clone(), title: piece.title.clone(), lines, grain: piece.grain, bends };
    Ok(steelk_formats::flat_sheet::write(part, &words))
}

/// The folded part as STEP; refused as [`whole_blank`], or when it has no closed solid.
pub fn part_step(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    let part = whole_part(piece, outcome)?;
    let solid = folded_body(&part.flat).map_err(|fault| {
        Problem::new(StatusCode::CONFLICT, "No solid", format!("{} has no STEP file: {fault}", piece.mark))
    })?;
    Ok(steelk_formats::step::write(&solid, &piece.mark).into_bytes())
}

/// How far a chord of a GLB strays from its round, mm.
const GLB_CHORD: f64 = 0.1;

/// The folded part as GLB: the mesh of its body, or the one that is shown where it has no closed body; refused as
/// [`whole_blank`].
pub fn part_glb(piece: &Piece, outcome: &Outcome) -> Result<Vec<u8>, Problem> {
    let part = whole_part(piece, outcome)?;
    let own = folded_body(&part.flat).ok().and_then(|body| body.mesh(GLB_CHORD, |face| &face.owner).ok());
    Ok(steelk_formats::glb::write(own.as_ref().unwrap_or(&outcome.mesh), &piece.mark))
}

/// What the cutter follows of a part; refused as [`whole_blank`].
pub fn whole_profile(piece: &Piece, outcome: &Outcome) -> Result<Drawing, Problem> {
    Ok(profile_drawing(&profile(whole_part(piece, outcome)?)))
}

/// The template of a part as PDF; refused as [`whole_blank`], or when it cannot be laid out.
pub fn whole_template(piece: &Piece, outcome: &Outcome, choice: TemplateChoice) -> Result<Vec<u8>, Problem> {
    let part = whole_part(piece, outcome)?;
    let sheets = template(part, &piece.mark, choice).map_err(|fault| Problem::field("template", fault.to_string()))?;
    Ok(steelk_formats::pdf::write(&sheets, &format!("{} {}, 1:1", piece.mark, piece.title)))
}

/// The blank as DXF.
#[utoipa::path(get, path = "/api/pieces/{id}/blank.dxf", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "image/vnd.dxf"), (status = 409, body = Problem)))]
pub(crate) async fn blank_dxf(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let bytes = steelk_formats::dxf_file::write(&tabled_blank(&piece, &outcome)?)?;
        Ok(attachment(&file_name(&piece.mark, "dxf"), "image/vnd.dxf", bytes))
    })
    .await
}

/// The blank as SVG at true size.
#[utoipa::path(get, path = "/api/pieces/{id}/blank.svg", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 409, body = Problem)))]
pub(crate) async fn blank_svg(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let text = steelk_formats::svg::write(&whole_blank(&piece, &outcome)?, &piece.mark);
        Ok(attachment(&file_name(&piece.mark, "svg"), "image/svg+xml", text.into_bytes()))
    })
    .await
}

/// The piece's cut list.
#[utoipa::path(get, path = "/api/pieces/{id}/cutlist.csv", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
pub(crate) async fn piece_cut_list(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let lines: Vec<_> = cut_line(&piece, &outcome).into_iter().collect();
        let name = file_name(&format!("{}-cutlist", piece.mark), "csv");
        Ok(attachment(&name, "text/csv; charset=utf-8", steelk_formats::cutlist_csv::write(&lines)?))
    })
    .await
}

/// What the cutter follows, and nothing else, as DXF.
#[utoipa::path(get, path = "/api/pieces/{id}/profile.dxf", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "image/vnd.dxf"), (status = 409, body = Problem)))]
pub(crate) async fn profile_dxf(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let bytes = steelk_formats::dxf_file::write(&whole_profile(&piece, &outcome)?)?;
        Ok(attachment(&file_name(&format!("{}-profile", piece.mark), "dxf"), "image/vnd.dxf", bytes))
    })
    .await
}

/// What the cutter follows as SVG at true size.
#[utoipa::path(get, path = "/api/pieces/{id}/profile.svg", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 409, body = Problem)))]
pub(crate) async fn profile_svg(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let text = steelk_formats::svg::write(&whole_profile(&piece, &outcome)?, &piece.mark);
        Ok(attachment(&file_name(&format!("{}-profile", piece.mark), "svg"), "image/svg+xml", text.into_bytes()))
    })
    .await
}

/// How a template is printed.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct TemplateOf {
    /// The paper; A4 where left out.
    #[serde(default)]
    #[param(inline)]
    paper: Paper,
    /// What the check line across measured on the last print, as people write lengths.
    across: Option<String>,
    /// What the check line up measured.
    up: Option<String>,
    /// Which variant of the piece.
    variant: Option<String>,
}

/// The 1:1 template on sheets of paper, as PDF.
#[utoipa::path(get, path = "/api/pieces/{id}/template.pdf", params(("id" = i64, Path), TemplateOf), responses((status = 200, body = String, content_type = "application/pdf"), (status = 409, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn template_pdf(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<TemplateOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let measured = |field: &str, text: &Option<String>| -> Result<Option<f64>, Problem> {
            let Some(text) = text.as_deref().map(str::trim).filter(|text| !text.is_empty()) else { return Ok(None) };
            let names = &outcome.resolved.names;
            names
                .read(text, Dimension::LENGTH, "what a check line measured")
                .map(Some)
                .map_err(|fault| Problem::field(field, format!("{}. {}", fault.message, fault.way_out)))
        };
        let choice = TemplateChoice {
            paper: of.paper,
            across: measured("across", &of.across)?,
            up: measured("up", &of.up)?,
            unit: piece.unit,
        };
        let bytes = whole_template(&piece, &outcome, choice)?;
        Ok(attachment(&file_name(&format!("{}-template", piece.mark), "pdf"), "application/pdf", bytes))
    })
    .await
}

/// The bend table.
#[utoipa::path(get, path = "/api/pieces/{id}/bends.csv", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "text/csv"), (status = 409, body = Problem)))]
pub(crate) async fn bends_csv(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let bytes = steelk_formats::bends_csv::write(&bend_table(&piece, &outcome)?)?;
        Ok(attachment(&file_name(&format!("{}-bends", piece.mark), "csv"), "text/csv; charset=utf-8", bytes))
    })
    .await
}

/// The flat sheet: blank, sizes and bend table on one page.
#[utoipa::path(get, path = "/api/pieces/{id}/blank.pdf", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "application/pdf"), (status = 409, body = Problem)))]
pub(crate) async fn blank_pdf(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let bytes = flat_sheet_pdf(&piece, &outcome)?;
        Ok(attachment(&file_name(&format!("{}-flat", piece.mark), "pdf"), "application/pdf", bytes))
    })
    .await
}

/// The folded part as one closed solid (STEP AP214).
#[utoipa::path(get, path = "/api/pieces/{id}/part.step", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "model/step"), (status = 409, body = Problem)))]
pub(crate) async fn step_file(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        Ok(attachment(&file_name(&piece.mark, "step"), "model/step", part_step(&piece, &outcome)?))
    })
    .await
}

/// The folded part as a mesh to look at (GLB).
#[utoipa::path(get, path = "/api/pieces/{id}/part.glb", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "model/gltf-binary"), (status = 409, body = Problem)))]
pub(crate) async fn glb_file(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        Ok(attachment(&file_name(&piece.mark, "glb"), "model/gltf-binary", part_glb(&piece, &outcome)?))
    })
    .await
}

/// The edge table.
#[utoipa::path(get, path = "/api/pieces/{id}/edges.csv", params(("id" = i64, Path), VariantOf), responses((status = 200, body = String, content_type = "text/csv"), (status = 409, body = Problem)))]
pub(crate) async fn edge_table(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let rows = edge_rows(whole_part(&piece, &outcome)?);
        let name = file_name(&format!("{}-edges", piece.mark), "csv");
        Ok(attachment(&name, "text/csv; charset=utf-8", steelk_formats::edges_csv::write(&rows)?))
    })
    .await
}

/// From which corner of the blank the holes are placed.
#[derive(serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct HoleTableOf {
    /// The datum corner; lower left where left out.
    #[serde(default)]
    #[param(inline)]
    corner: DatumCorner,
    /// Which variant of the piece.
    variant: Option<String>,
}

/// The hole table.
#[utoipa::path(get, path = "/api/pieces/{id}/holes.csv", params(("id" = i64, Path), HoleTableOf), responses((status = 200, body = String, content_type = "text/csv"), (status = 409, body = Problem)))]
pub(crate) async fn hole_table(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<HoleTableOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        // Places of holes are cut from as a drawing is: not while something is wrong.
        let rows = hole_rows(whole_part(&piece, &outcome)?, of.corner, piece.unit);
        let name = file_name(&format!("{}-holes", piece.mark), "csv");
        Ok(attachment(&name, "text/csv; charset=utf-8", steelk_formats::holes_csv::write(&rows)?))
    })
    .await
}

/// How long one piece may keep a job's cut list waiting.
const LONGEST_PIECE: Duration = Duration::from_secs(20);

fn lines_of(piece: &Piece) -> Vec<JobCutLine> {
    let mut lines = Vec::new();
    for piece in piece.made() {
        let outcome = evaluate(&piece, Options::default());
        lines.extend(cut_line(&piece, &outcome).map(JobCutLine::Piece));
        let framed = outcome.frame().into_iter().flat_map(|frame| &frame.made.list.lines);
        lines.extend(framed.map(|line| JobCutLine::Frame(piece.mark.clone(), piece.quantity, Box::new(line.clone()))));
    }
    lines
}

/// The job's cut list.
#[utoipa::path(get, path = "/api/jobs/{id}/cutlist.csv", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
pub(crate) async fn job_cut_list(state: web::Data<State>, id: web::Path<i64>) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let job = state.store().job(*id)?;
        let rows = state.store().pieces(*id)?;
        let mut lines = Vec::new();
        for row in rows {
            let own = Piece::read(row.document.as_bytes())
                .map_err(|fault| fault.to_string())
                .and_then(|piece| within(LONGEST_PIECE, || lines_of(&piece)));
            // A list that left one out in silence would be short of steel.
            lines.extend(own.unwrap_or_else(|why| vec![JobCutLine::Unread(said_of(&row).0, why)]));
        }
        let name = file_name(&format!("{}-cutlist", job.number), "csv");
        Ok(attachment(&name, "text/csv; charset=utf-8", write_job(&lines)?))
    })
    .await
}

/// Figures, proofs and cautions as JSON.
#[utoipa::path(get, path = "/api/pieces/{id}/report.json", params(("id" = i64, Path), VariantOf), responses((status = 200, body = serde_json::Value, content_type = "application/json"), (status = 404, body = Problem)))]
pub(crate) async fn report(
    state: web::Data<State>,
    id: web::Path<i64>,
    of: web::Query<VariantOf>,
) -> Result<File, Problem> {
    worked_out(state, move |state| {
        let (piece, outcome) = read(state, *id, &of.variant)?;
        let text = steelk_formats::report::Report::new(&piece, &outcome).write();
        Ok(attachment(&file_name(&format!("{}-report", piece.mark), "json"), "application/json", text.into_bytes()))
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
            Err(_) => (said_of(&row).0, row.document),
        };
        Ok(attachment(&file_name(&mark, "json"), "application/json", text.into_bytes()))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config
        .route("/pieces/{id}/blank.dxf", web::get().to(blank_dxf))
        .route("/pieces/{id}/blank.svg", web::get().to(blank_svg))
        .route("/pieces/{id}/cutlist.csv", web::get().to(piece_cut_list))
        .route("/pieces/{id}/holes.csv", web::get().to(hole_table))
        .route("/pieces/{id}/profile.dxf", web::get().to(profile_dxf))
        .route("/pieces/{id}/profile.svg", web::get().to(profile_svg))
        .route("/pieces/{id}/template.pdf", web::get().to(template_pdf))
        .route("/pieces/{id}/bends.csv", web::get().to(bends_csv))
        .route("/pieces/{id}/blank.pdf", web::get().to(blank_pdf))
        .route("/pieces/{id}/part.step", web::get().to(step_file))
        .route("/pieces/{id}/part.glb", web::get().to(glb_file))
        .route("/pieces/{id}/edges.csv", web::get().to(edge_table))
        .route("/pieces/{id}/report.json", web::get().to(report))
        .route("/pieces/{id}/piece.json", web::get().to(piece_file))
        .route("/jobs/{id}/cutlist.csv", web::get().to(job_cut_list));
}
