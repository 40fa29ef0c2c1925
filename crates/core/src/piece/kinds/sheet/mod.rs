//! The pipeline of a plate or a sheet part: flat, folded, rules.

mod cautions;
mod read;

use crate::audit::light_sheet;
use crate::finding::{Finding, Severity};
use crate::piece::document::Kind;
use crate::piece::made::Made;
use crate::piece::resolved::OperationState;
use crate::piece::{Need, Piece};
use crate::proof::rules::Context;
use crate::proof::{Subject, check_rules};
use crate::sheet::fold::fold_at;
use crate::sheet::{Part, Sheets, build, folded_mesh};
use crate::space::Mesh;

use super::row::{KindRow, MadeFrom};
use super::shaped::{Asked, MESH_TOLERANCE, Shaped, said_so};

/// Bent sheet.
pub(super) const SHEET: KindRow = KindRow {
    kind: Kind::Sheet,
    word: "sheet part",
    made_from: MadeFrom::Sheet,
    withheld: "the piece has an error, so no blank is given out",
    nothing_yet: "the piece has no base yet; lay one down",
    read: read::read_operations,
    make,
    subject,
};

/// Flat plate: the same without bends.
pub(super) const PLATE: KindRow = KindRow { kind: Kind::Plate, word: "plate", ..SHEET };

fn make(asked: Asked<'_>) -> Shaped {
    let own_unit = asked.own_unit();
    let Asked { piece, resolved, options, show } = asked;
    let mut shaped = Shaped::default();
    let (Some(thickness), Some(material)) = (resolved.thickness, resolved.material) else { return shaped };
    let built = build(&resolved.operations, thickness, piece.opposite_hand, show);
    for finding in built.findings.iter().filter(|finding| finding.severity == Severity::Error) {
        let at = finding.operation.as_ref().and_then(|name| piece.operations.iter().position(|one| one.name == *name));
        if let Some(at) = at {
            resolved.states[at] = OperationState::Bad;
        }
    }
    shaped.findings.extend(built.findings.iter().cloned());
    let Some(sheets) = Sheets::of_built(&built, material.density) else { return shaped };
    shaped.findings.extend(sheets.lost_seams(show));
    let (mut whole, mut prisms) = (Mesh::default(), Vec::new());
    for blank in sheets.blanks().iter().filter(|_| options.need != Need::Words) {
        let part = &blank.part;
        let mesh = match folded_mesh(&part.flat, &part.tree, &part.folded, MESH_TOLERANCE) {
            Ok((mesh, own)) => {
                prisms.extend(own);
                mesh
            }
            Err(fault) => {
                shaped.findings.push(Finding::error(
                    format!("the folded part cannot be drawn: {fault}"),
                    "Leave the last step out and look at what it cut.",
                ));
                Mesh::default()
            }
        };
        if options.need == Need::All {
            // A mesh that is folded part of the way has another size.
            let nothing = Mesh::default();
            let sized = if options.fold < 1.0 { &nothing } else { &mesh };
            shaped.audit.extend(light_sheet(part, &blank.figures, sized, MESH_TOLERANCE));
        }
        whole.add(if options.fold < 1.0 { refolded(part, options.fold).unwrap_or_default() } else { mesh });
    }
    shaped.mesh = whole;
    let part = sheets.laid_out();
    // Where one of them cannot be drawn there is no telling what it runs into.
    if options.need == Need::All && prisms.len() == part.flat.nodes.len() {
        let (grain, die) = (piece.grain, resolved.die);
        let said = piece.cutting.as_ref();
        let said = (said.and_then(|one| one.cutter.as_deref()), said.and_then(|one| one.quality.as_deref()));
        let cutter = options.shop.cuts(said, material.family, thickness);
        let shop = options.shop.rules;
        let blanks: Vec<&Part> = sheets.blanks().iter().map(|blank| &blank.part).collect();
        let blanks = blanks.as_slice();
        let context = Context { part, blanks, material, prisms: &prisms, grain, die, shop, cutter, unit: show };
        let (rules, mut breaches) = check_rules(&context);
        if let Some(unit) = own_unit.filter(|_| !breaches.is_empty()) {
            said_so(&mut breaches, check_rules(&Context { unit, ..context }).1);
        }
        shaped.rules = rules;
        shaped.breaches.extend(breaches);
    }
    shaped.cautions = cautions::cautions(resolved, &sheets);
    shaped.made = Some(Made::Sheet(sheets));
    shaped
}

fn subject<'a>(_: &Piece, made: &'a Made) -> Subject<'a> {
    match made {
        Made::Sheet(sheets) => Subject::Sheets(sheets),
        _ => Subject::Nothing,
    }
}

/// Only the mesh, for the fold slider: no proofs, no rules.
pub(in crate::piece) fn fold_only(asked: Asked<'_>) -> Mesh {
    let Asked { piece, resolved, options, .. } = asked;
    let (Some(thickness), Some(material)) = (resolved.thickness, resolved.material) else { return Mesh::default() };
    let built = build(&resolved.operations, thickness, piece.opposite_hand, piece.unit);
    let mut whole = Mesh::default();
    if let Some(sheets) = Sheets::of_built(&built, material.density) {
        let folded = sheets.blanks().iter().filter_map(|blank| refolded(&blank.part, options.fold));
        folded.for_each(|mesh| whole.add(mesh));
    }
    whole
}

/// The mesh of a part folded part of the way.
fn refolded(part: &Part, fraction: f64) -> Option<Mesh> {
    let fraction = if fraction.is_finite() { fraction.clamp(0.0, 1.0) } else { 1.0 };
    let folded = fold_at(&part.flat.nodes, &part.tree, part.flat.thickness, fraction, &part.flat.pose);
    folded_mesh(&part.flat, &part.tree, &folded, MESH_TOLERANCE).ok().map(|(mesh, _)| mesh)
}
