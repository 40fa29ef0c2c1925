//! `steelk build`.

use std::path::Path;

use steelk_core::beside;
use steelk_formats::output::Stamp;

use super::say::say;
use super::{package, read_piece};
use crate::api::download::as_variant;
use crate::audited::audited;
use crate::files::{Shop, whole_package};

pub(super) fn run(path: &Path, out: &Path, variant: Option<&str>, shop: &Shop, stamp: &Stamp) -> Result<(), String> {
    let piece = as_variant(read_piece(path)?, variant).map_err(|problem| problem.detail)?;
    // One person waits for it: every core may work.
    let (outcome, made) = beside::lent(|| {
        let outcome = audited(&piece, shop.workshop());
        let made = whole_package(&piece, &outcome, shop, stamp);
        (outcome, made)
    });
    let made = made.map_err(|problem| problem.detail)?;
    package::write(out, made.files)?;
    made.notes.iter().for_each(|note| say!("note: {note}"));
    for caution in &outcome.cautions {
        say!("caution: {caution}");
    }
    if made.missing.is_empty() { Ok(()) } else { Err(made.missing.join("\n")) }
}
