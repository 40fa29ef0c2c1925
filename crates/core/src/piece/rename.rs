//! Renaming: an operation or a call-out gets another name, and everything that cites it follows.

use std::collections::BTreeSet;

use crate::frame::matches;
use crate::quantity::{Expression, Node, parse};
use crate::sheet::Sheets;
use crate::work::Action;
use crate::work::cite::{Cites, rewritten};

use super::evaluate::evaluate;
use super::{DocumentError, Piece};

/// How an operation calls what it makes.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Calls {
    /// By its own name and what it is of it: `wall.front`.
    Own,
    /// By its own name and the whole name of what it made again: `again.wall.front`.
    Again,
    /// So too, with dashes for dots and the number of the copy before it: `copy.2-post-1`.
    Copy,
    /// As faces of the members that it works on: `post.1.drain`.
    Bore,
}

/// The renaming of one operation: what each name that anything has or cites is afterwards.
pub struct Renaming<'a> {
    operations: Vec<(&'a str, Calls)>,
    /// Beginnings of names whose next part is the renamed operation's name and means a line.
    lines: Vec<&'a str>,
    /// Operations that call flanges after the panels that they stand on, with what such a panel is called before and
    /// after.
    along: Vec<(&'a str, String, String)>,
    from: &'a str,
    to: &'a str,
}

impl<'a> Renaming<'a> {
    /// Of an operation of this piece.
    pub fn new(piece: &'a Piece, from: &'a str, to: &'a str) -> Renaming<'a> {
        let calls = |action: &Action| match action {
            Action::Again(_) => Calls::Again,
            Action::Copy(_) => Calls::Copy,
            Action::Bore(_) => Calls::Bore,
            _ => Calls::Own,
        };
        let operations = piece.operations.iter().map(|one| (one.name.as_str(), calls(&one.action))).collect();
        let lines = piece.operations.iter().flat_map(|one| lines_named(&one.name, &one.action, from)).collect();
        let mut renaming = Renaming { operations, lines, along: Vec::new(), from, to };
        for one in &piece.operations {
            if let Action::Bend(bend) = &one.action {
                let edges: Vec<&str> =
                    std::iter::once(&bend.edge).chain(&bend.also).map(|edge| edge.as_str()).collect();
                renaming.stand_on(&one.name, &edges);
            }
        }
        renaming
    }

    /// Flanges along edges that have one side's name, on several panels: `lip.up` and `lip.down` along `up.end` and
    /// `down.end`.
    fn stand_on(&mut self, operation: &'a str, edges: &[&str]) {
        let last = |name: &str| name.rsplit('.').next().unwrap_or_default().to_string();
        for edge in edges {
            let Some((panel, side)) = edge.rsplit_once('.') else { continue };
            let is_twin = edges.iter().filter(|other| last(other) == side).count() > 1;
            let (before, after) = (last(panel), last(&self.follow(panel)));
            if is_twin && before != after {
                self.along.push((operation, before, after));
            }
        }
    }

    /// What comes after the operation's name in the name of a flange, followed where it is a panel's.
    fn flange(&self, operation: &str, rest: &str) -> String {
        for (own, before, after) in &self.along {
            if *own == operation
                && let Some(further) = rest.strip_prefix(before.as_str())
                && further.chars().next().is_none_or(|next| ['.', '/', '-'].contains(&next))
            {
                return format!("{after}{further}");
            }
        }
        rest.to_string()
    }

    /// The name afterwards of what is called `name` before.
    pub fn follow(&self, name: &str) -> String {
        // What belongs to another part is of that part's operations.
        if name.contains(':') { name.to_string() } else { self.within(&self.bored(name), &['.', '/']) }
    }

    /// What was said of things by their names, with the names followed.
    fn said(&self, text: &str) -> String {
        let is_name = |sign: char| sign.is_ascii_alphanumeric() || "-_./".contains(sign);
        let mut said = String::new();
        let mut rest = text;
        while !rest.is_empty() {
            let length = rest.find(|sign| !is_name(sign)).unwrap_or(rest.len());
            // A dot at the end of a sentence is no part of a name.
            let name = rest[..length].trim_end_matches('.');
            said.push_str(&self.follow(name));
            rest = &rest[name.len()..];
            let between = rest.chars().next().map_or(0, char::len_utf8);
            said.push_str(&rest[..between]);
            rest = &rest[between..];
        }
        said
    }

    /// A name whose last part is the renamed hole in a member, with that part renamed.
    fn bored(&self, name: &str) -> String {
        let is_bore = self.operations.contains(&(self.from, Calls::Bore));
        match name.rsplit_once('.') {
            Some((member, last)) if is_bore && last == self.from && !self.lines.contains(&member) => {
                format!("{member}.{}", self.to)
            }
            _ => name.to_string(),
        }
    }

    /// A name whose operation ends at one of these signs.
    fn within(&self, name: &str, ends: &[char]) -> String {
        let ends_there = |length: usize| name[length..].chars().next().is_none_or(|next| ends.contains(&next));
        let first = self
            .operations
            .iter()
            .filter(|(own, _)| name.starts_with(own) && ends_there(own.len()))
            .max_by_key(|(own, _)| own.len());
        let Some(&(first, calls)) = first else { return name.to_string() };
        let rest = &name[first.len()..];
        let operation = first;
        let first = if first == self.from { self.to } else { first };
        let Some(sign) = rest.chars().next().filter(|sign| *sign != '/') else { return format!("{first}{rest}") };
        let rest = &rest[sign.len_utf8()..];
        match calls {
            Calls::Own | Calls::Bore => format!("{first}{sign}{}", self.flange(operation, rest)),
            Calls::Again => format!("{first}{sign}{}", self.within(rest, ends)),
            Calls::Copy => {
                let digits = rest.len() - rest.trim_start_matches(|sign: char| sign.is_ascii_digit()).len();
                let number = if digits > 0 && rest[digits..].starts_with('-') { digits + 1 } else { 0 };
                let (number, rest) = rest.split_at(number);
                format!("{first}{sign}{number}{}", self.within(rest, &['-', '.', '/']))
            }
        }
    }

    /// Whether a pattern takes in what the operation makes under the one name and not under the other.
    fn parts_ways(&self, pattern: &str) -> bool {
        let Some((start, _)) = pattern.split_once('*') else { return false };
        if start.contains(['.', '/']) {
            return false;
        }
        let takes = |name: &str| (name.starts_with(start), matches(pattern, name));
        takes(self.from) != takes(self.to)
    }
}

/// The operation, where it may have laid a line of this name: `path.drain` is that line then, and no hole in `path`.
fn lines_named<'a>(operation: &'a str, action: &Action, name: &str) -> Option<&'a str> {
    let has = match action {
        Action::Path(path) => path.legs.iter().any(|leg| leg.name() == Some(name)),
        Action::Ready(_) | Action::Copy(_) | Action::Lines(_) => true,
        _ => false,
    };
    has.then_some(operation)
}

impl Piece {
    /// The piece with an operation renamed, and all names that cite it or what it makes.
    ///
    /// # Errors
    /// [`DocumentError`]: no such operation, a name that is none or is taken, a pattern that would take in other things
    /// afterwards.
    pub fn with_operation_renamed(&self, from: &str, to: &str) -> Result<Piece, DocumentError> {
        let at = self
            .operations
            .iter()
            .position(|one| one.name == from)
            .ok_or_else(|| DocumentError::new("operations", format!("there is no operation called {from}")))?;
        let renaming = Renaming::new(self, from, to);
        let mut parted = None;
        let mut piece: Piece = rewritten(self, |met| {
            if met.cites != Cites::Name || met.in_plate {
                return None;
            }
            if met.text.contains('*') && renaming.parts_ways(met.text) {
                parted = Some(met.text.to_string());
            }
            Some(renaming.follow(met.text))
        })
        .map_err(|fault| DocumentError::new("document", fault))?;
        if let Some(pattern) = parted {
            return Err(DocumentError::new(
                format!("operations[{at}].name"),
                format!(
                    "the pattern {pattern} takes in one of {from} and {to} and not the other, so that it would mean other \
                     things; choose a name that fits it, or name there what is meant in full"
                ),
            ));
        }
        piece.operations[at].name = to.to_string();
        for acceptance in &mut piece.accepted {
            for name in &mut acceptance.features {
                *name = renaming.follow(name);
            }
            acceptance.said = renaming.said(&acceptance.said);
        }
        piece.check()?;
        // How things are called is told above a second time, apart from where they are made: it is held against that.
        let followed: BTreeSet<String> = names_of(self).iter().map(|name| renaming.follow(name)).collect();
        if let Some(name) = followed.symmetric_difference(&names_of(&piece)).next() {
            return Err(DocumentError::new(
                format!("operations[{at}].name"),
                format!(
                    "with {to} for {from} other things would be called otherwise too, {name} among them; choose another name"
                ),
            ));
        }
        Ok(piece)
    }

    /// The piece with a call-out renamed, and all expressions that cite it.
    ///
    /// An expression that cannot be read cites nothing, and stays as it is written.
    ///
    /// # Errors
    /// [`DocumentError`]: no such call-out, a name that is none or is taken.
    pub fn with_callout_renamed(&self, from: &str, to: &str) -> Result<Piece, DocumentError> {
        let at = self
            .callouts
            .iter()
            .position(|one| one.name == from)
            .ok_or_else(|| DocumentError::new("callouts", format!("there is no call-out called {from}")))?;
        let mut piece: Piece =
            rewritten(self, |met| (met.cites == Cites::Value).then(|| follow_callout(met.text, from, to)).flatten())
                .map_err(|fault| DocumentError::new("document", fault))?;
        piece.callouts[at].name = to.to_string();
        for variant in &mut piece.variants {
            if let Some(value) = variant.set.remove(from) {
                variant.set.insert(to.to_string(), value);
            }
        }
        piece.check()?;
        Ok(piece)
    }
}

/// Every name that anything of the made piece has.
fn names_of(piece: &Piece) -> BTreeSet<String> {
    let outcome = evaluate(piece, Default::default());
    let mut names = BTreeSet::new();
    for blank in outcome.sheets().map(Sheets::blanks).unwrap_or_default() {
        let flat = &blank.part.flat;
        names.extend(flat.nodes.iter().map(|one| one.name.clone()));
        names.extend(flat.bends.iter().map(|one| one.name.clone()));
        names.extend(flat.holes.iter().map(|one| one.name.clone()));
        names.extend(flat.edges.iter().map(|one| one.name.clone()));
    }
    if let Some(frame) = outcome.frame() {
        let frame = &frame.made.frame;
        names.extend(frame.skeleton.nodes.iter().map(|one| one.name.clone()));
        names.extend(frame.skeleton.lines.iter().map(|one| one.name.clone()));
        names.extend(frame.members.iter().map(|one| one.name.clone()));
        names.extend(frame.plates.iter().map(|one| one.name.clone()));
    }
    names
}

/// An expression with a call-out renamed where it cites it.
fn follow_callout(text: &str, from: &str, to: &str) -> Option<String> {
    let mut places = Vec::new();
    places_of(&parse(text).ok()?, from, &mut places);
    if places.is_empty() {
        return None;
    }
    places.sort_unstable();
    let mut after = text.to_string();
    for (start, end) in places.into_iter().rev() {
        after.replace_range(start..end, to);
    }
    Some(after)
}

fn places_of(expression: &Expression, name: &str, places: &mut Vec<(usize, usize)>) {
    match &expression.node {
        Node::Name(own) if own == name => places.push((expression.span.start, expression.span.end)),
        Node::Name(_) | Node::Bare(_) | Node::Measured(_) => {}
        Node::Negative(inner) | Node::Round(_, inner) => places_of(inner, name, places),
        Node::Binary(_, left, right) => {
            places_of(left, name, places);
            places_of(right, name, places);
        }
        Node::Call(_, arguments) => arguments.iter().for_each(|one| places_of(one, name, places)),
    }
}
