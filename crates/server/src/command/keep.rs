//! `steelk backup`, `steelk restore`, `steelk verify`.

use std::path::Path;
use std::process::ExitCode;

use steelk_core::piece::{Options, Piece, evaluate};
use steelk_store::Store;

use super::folder;
use super::say::say;
use crate::guarded::guarded;
use crate::marks::marks_of;

/// A database to read from.
pub(super) fn opened(file: &Path) -> Result<Store, String> {
    if !file.is_file() {
        return Err(format!("{} is not there; say which folder is served with --data", file.display()));
    }
    Store::open_to_read(file, marks_of).map_err(|fault| format!("{} cannot be read: {fault}", file.display()))
}

/// A database whose every page is sound.
fn sound(file: &Path) -> Result<Store, String> {
    let store = opened(file)?;
    match store.integrity() {
        Ok(words) if words == "ok" => Ok(store),
        Ok(words) => Err(format!("{} is damaged: {words}", file.display())),
        Err(fault) => Err(format!("{} is damaged or no database of Steelk: {fault}", file.display())),
    }
}

/// What goes into a place beside it first, and to the place itself once it is whole and sound.
pub(super) fn whole(place: &Path, write: impl FnOnce(&Path) -> Result<(), String>) -> Result<(), String> {
    let part = place.with_extension("part");
    let words = |fault: std::io::Error| format!("{} cannot be written: {fault}", place.display());
    folder::private(&part).map_err(words)?.set_len(0).map_err(words)?;
    let done = write(&part).and_then(|()| sound(&part).map(drop));
    match done {
        Ok(()) => std::fs::rename(&part, place).map_err(words),
        Err(fault) => {
            let _ = std::fs::remove_file(&part);
            Err(fault)
        }
    }
}

/// What stands before a database is opened to write: its pages hang together, and one of an older Steelk, which is
/// about to be brought up to date, is kept beside it as it was.
pub(super) fn before_writing(file: &Path) -> Result<(), String> {
    let is_new = std::fs::metadata(file).is_ok_and(|known| known.len() == 0);
    if is_new {
        return Ok(());
    }
    let store = opened(file)?;
    let checked = store.quick_check().map_err(|fault| fault.to_string());
    if checked.as_deref() != Ok("ok") {
        let words = checked.unwrap_or_else(|fault| fault);
        return Err(format!(
            "{} is damaged ({words}); lay down the last copy with `steelk restore`, and keep this file",
            file.display()
        ));
    }
    if let Some(version) = store.is_older().map_err(|fault| format!("{}: {fault}", file.display()))?
        && version > 0
    {
        let copy = file.with_file_name(format!("steelk-before-{version}.db"));
        if !copy.exists() {
            whole(&copy, |part| store.copy_to(part).map_err(|fault| format!("{}: {fault}", copy.display())))?;
        }
    }
    Ok(())
}

/// Copies everything of a folder into one file while it may be served, and reads it back.
pub(super) fn backup(to: &Path, data: &Path) -> Result<(), String> {
    if to.exists() {
        return Err(format!("{} is there already; name a file that is not, nothing is written over", to.display()));
    }
    let store = opened(&data.join("steelk.db"))?;
    whole(to, |part| store.copy_to(part).map_err(|fault| format!("{} cannot be written: {fault}", to.display())))?;
    say!("{} holds everything of {}, and was read back", to.display(), data.display());
    Ok(())
}

/// Lays a copy down as a folder to serve, where none is.
pub(super) fn restore(from: &Path, data: &Path) -> Result<(), String> {
    sound(from)?;
    std::fs::create_dir_all(data).map_err(|fault| format!("{} cannot be made: {fault}", data.display()))?;
    let empty = std::fs::read_dir(data).map_err(|fault| format!("{} cannot be read: {fault}", data.display()))?.next();
    if empty.is_some() {
        return Err(format!(
            "{} is not empty; restore into a folder of its own, nothing is written over",
            data.display()
        ));
    }
    whole(&data.join("steelk.db"), |part| {
        std::fs::copy(from, part).map(drop).map_err(|fault| format!("{} cannot be copied: {fault}", from.display()))
    })?;
    say!("{} is laid down in {}; serve it with --data", from.display(), data.display());
    Ok(())
}

/// Reads everything of a folder: the file's pages, every revision, and works out every piece as it is now. Exit 1 when
/// something is wrong.
pub(super) fn verify(data: &Path) -> ExitCode {
    let store = match sound(&data.join("steelk.db")) {
        Ok(store) => store,
        Err(fault) => {
            say!("wrong  {fault}");
            return ExitCode::from(1);
        }
    };
    let (mut revisions, mut pieces, mut wrong) = (0u64, 0u64, 0u64);
    let looked = store.each_revision(&mut |one| {
        revisions += 1;
        pieces += u64::from(one.is_current);
        let found = match Piece::read(one.document.as_bytes()) {
            Err(fault) => Some(format!("cannot be read: {fault}")),
            Ok(piece) if one.is_current => {
                guarded(|| drop(evaluate(&piece, Options::default()))).err().map(|fault| fault.to_string())
            }
            Ok(_) => None,
        };
        if let Some(words) = found {
            wrong += 1;
            say!("wrong  job {}, piece {}, revision {}: {words}", one.job, one.piece, one.number);
        }
    });
    if let Err(fault) = looked {
        say!("wrong  {fault}");
        return ExitCode::from(1);
    }
    say!("{pieces} pieces, {revisions} revisions, {wrong} wrong; the file is sound");
    if wrong > 0 { ExitCode::from(1) } else { ExitCode::SUCCESS }
}
