//! The blanks of a piece as pieces of their own: what each is called, how many there are of it, and what its files are made from.

use crate::sheet::Sheets;

use super::Piece;
use super::made::Made;
use super::outcome::Outcome;

/// Alike blanks of one piece: one line of the cut list.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct BlankOf {
    /// The piece's mark with its letter, `H-1-B`; the piece's own where it comes to one blank.
    pub mark: String,
    /// The letter; empty where the piece comes to one blank.
    pub letter: String,
    /// How many of one piece.
    pub count: u32,
    /// The mark of the line that it is the opposite hand of.
    pub hand_of: Option<String>,
    /// The place of the first of them in the set.
    pub first: usize,
}

impl BlankOf {
    /// What is said beside its mark: how many a piece, and whose opposite hand it is; nothing of a piece of one blank.
    pub fn words(&self) -> String {
        let count = if self.count > 1 { format!(", {} a piece", self.count) } else { String::new() };
        let hand = self.hand_of.as_ref().map(|mark| format!(", opposite hand of {mark}")).unwrap_or_default();
        if self.letter.is_empty() { String::new() } else { format!("blank {}{count}{hand}", self.letter) }
    }
}

/// The lines that a piece's blanks come to, each with its mark; marks keep their letters however many are alike.
pub fn blanks_of(piece: &Piece, sheets: &Sheets) -> Vec<BlankOf> {
    let several = sheets.blanks().len() > 1;
    let letter = |which: usize| if several { Sheets::letter(which) } else { String::new() };
    let mark = |which: usize| match letter(which) {
        letter if letter.is_empty() => piece.mark.clone(),
        letter => format!("{}-{letter}", piece.mark),
    };
    let lines = sheets.lines();
    lines
        .iter()
        .map(|line| BlankOf {
            mark: mark(line.blanks[0]),
            letter: letter(line.blanks[0]),
            count: line.blanks.len() as u32,
            hand_of: line.hand_of.map(|other| mark(lines[other].blanks[0])),
            first: line.blanks[0],
        })
        .collect()
}

/// A blank as a piece of its own: the document with the blank's mark and number, and what was made with that blank alone. Rules,
/// call-outs and checks stay those of the whole piece: what keeps it back keeps its blanks back. `None` where there is no such blank.
pub fn alone(piece: &Piece, outcome: &Outcome, blank: &BlankOf) -> Option<(Piece, Outcome)> {
    let sheets = outcome.sheets()?.alone(blank.first)?;
    let mut own = piece.clone();
    own.mark.clone_from(&blank.mark);
    own.quantity = piece.quantity.saturating_mul(blank.count);
    own.spares = piece.spares.saturating_mul(blank.count);
    if !blank.letter.is_empty() {
        own.title = format!("{}, {}", piece.title, blank.words());
    }
    own.variants.clear();
    let of = Outcome {
        resolved: outcome.resolved.clone(),
        made: Some(Made::Sheet(sheets)),
        mesh: crate::space::Mesh::default(),
        callouts: outcome.callouts.clone(),
        rules: outcome.rules.clone(),
        breaches: outcome.breaches.clone(),
        findings: outcome.findings.clone(),
        states: outcome.states.clone(),
        cautions: outcome.cautions.clone(),
        audit: outcome.audit.clone(),
    };
    Some((own, of))
}
