//! Tables for the shop, live: holes with balloons from a chosen datum corner, edges.

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::quantity::{LengthUnit, length_text};
use steelk_core::sheet::Sheets;
use steelk_core::table::{DatumCorner, HoleRow, edge_rows, hole_rows};
use steelk_core::work::sheet::Make;
use utoipa::ToSchema;

use crate::problem::Problem;

use super::download::as_variant;
use super::{State, worked_out};

/// A piece to table.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TableRequest {
    /// The piece document.
    #[schema(value_type = Piece)]
    pub document: Box<RawValue>,
    /// Which variant of the piece; the piece itself where left out.
    #[serde(default)]
    pub variant: Option<String>,
    /// The corner of the blank that holes are placed from.
    #[serde(default)]
    pub corner: DatumCorner,
    /// How many operations from the top; all where left out.
    #[serde(default)]
    pub upto: Option<usize>,
    /// The unit to print; the piece's own where left out.
    #[serde(default)]
    pub show: Option<LengthUnit>,
}

/// Holes and edges, with units.
#[derive(Serialize, ToSchema)]
pub struct TableAnswer {
    /// Holes, the first of many.
    pub holes: Vec<HoleLine>,
    /// How many more holes there are; the CSV has them all.
    pub more: usize,
    /// Edges.
    pub edges: Vec<EdgeLine>,
}

/// A hole in the table.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct HoleLine {
    /// The letter of its blank; empty where there is one.
    pub blank: String,
    pub balloon: String,
    pub name: String,
    pub x: String,
    pub y: String,
    pub size: String,
    pub work: String,
    pub cutter: String,
    pub count: usize,
}

/// An edge in the table.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct EdgeLine {
    /// The letter of its blank; empty where there is one.
    pub blank: String,
    pub name: String,
    pub stretches: usize,
    pub length: String,
    pub radius: String,
}

/// Holes listed one by one.
const MOST_LISTED: usize = 400;

/// The hole table and the edge table.
#[utoipa::path(post, path = "/api/tables", request_body = TableRequest, responses((status = 200, body = TableAnswer), (status = 422, body = Problem)))]
pub(crate) async fn tables(
    state: web::Data<State>,
    request: web::Json<TableRequest>,
) -> Result<web::Json<TableAnswer>, Problem> {
    worked_out(state, move |_| {
        let piece = as_variant(Piece::read(request.document.get().as_bytes())?, request.variant.as_deref())?;
        let show = request.show.unwrap_or(piece.unit);
        let outcome = evaluate(&piece, Options { upto: request.upto, show: Some(show), ..Options::default() });
        let Some(sheets) = outcome.sheets() else {
            return Ok(web::Json(TableAnswer { holes: Vec::new(), more: 0, edges: Vec::new() }));
        };
        let letter = |which: usize| if sheets.only().is_some() { String::new() } else { Sheets::letter(which) };
        let parts = || sheets.blanks().iter().enumerate().map(|(which, blank)| (letter(which), &blank.part));
        let rows: Vec<(String, HoleRow)> = parts()
            .flat_map(|(blank, part)| {
                hole_rows(part, request.corner, show).into_iter().map(move |row| (blank.clone(), row))
            })
            .collect();
        let length = |value: f64| length_text(value, show);
        Ok(web::Json(TableAnswer {
            more: rows.len().saturating_sub(MOST_LISTED),
            holes: rows
                .into_iter()
                .take(MOST_LISTED)
                .map(|(blank, row)| HoleLine {
                    blank,
                    balloon: row.balloon,
                    name: row.name,
                    x: length(row.x),
                    y: length(row.y),
                    size: row.size,
                    work: row.work,
                    cutter: match row.make {
                        Make::Cut => "cuts",
                        Make::Mark => "marks",
                        Make::Leave => "leaves",
                        Make::Punch => "leaves to the punch",
                    }
                    .into(),
                    count: row.count,
                })
                .collect(),
            edges: parts()
                .flat_map(|(blank, part)| edge_rows(part).into_iter().map(move |row| (blank.clone(), row)))
                .map(|(blank, row)| EdgeLine {
                    blank,
                    name: row.name,
                    stretches: row.stretches,
                    length: length(row.length),
                    radius: row.radius.map(length).unwrap_or_default(),
                })
                .collect(),
        }))
    })
    .await
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config.route("/tables", web::post().to(tables));
}
