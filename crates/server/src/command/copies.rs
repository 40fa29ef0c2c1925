//! Copies of everything, one a day, the newest few of them kept beside the database.

use std::path::{Path, PathBuf};
use std::time::Duration;

use super::folder::private_folder;
use super::keep;

/// How often the server looks whether the day has its copy.
const LOOK: Duration = Duration::from_secs(600);

/// Makes the day's copy now where there is none, and looks again every ten minutes for as long as the server runs.
pub(super) fn keep_daily(database: PathBuf, most: usize) {
    let run = move || {
        loop {
            match of_today(&database, most) {
                Ok(Some(copy)) => tracing::info!(copy = %copy.display(), "the day's copy was made and read back"),
                Ok(None) => {}
                Err(fault) => tracing::error!("the day's copy could not be made: {fault}"),
            }
            std::thread::sleep(LOOK);
        }
    };
    if let Err(fault) = std::thread::Builder::new().name("copies".into()).spawn(run) {
        tracing::error!("no copies are made: {fault}");
    }
}

/// Makes the copy of this day where there is none and takes away all but the newest `most`; the copy where one was
/// made.
fn of_today(database: &Path, most: usize) -> Result<Option<PathBuf>, String> {
    let words = |fault: &dyn std::fmt::Display| format!("{}: {fault}", database.display());
    let store = keep::opened(database)?;
    let day = store.today().map_err(|fault| words(&fault))?;
    let folder = database.with_file_name("copies");
    let copy = folder.join(format!("steelk-{day}.db"));
    if copy.exists() {
        return Ok(None);
    }
    private_folder(&folder).map_err(|fault| words(&fault))?;
    keep::whole(&copy, |part| store.copy_to(part).map_err(|fault| words(&fault)))?;
    let mut all: Vec<PathBuf> = std::fs::read_dir(&folder)
        .map_err(|fault| words(&fault))?
        .filter_map(|entry| Some(entry.ok()?.path()))
        .filter(|path| is_copy(path))
        .collect();
    // Their names are their days: the newest last.
    all.sort();
    for old in &all[..all.len().saturating_sub(most)] {
        std::fs::remove_file(old).map_err(|fault| words(&fault))?;
    }
    Ok(Some(copy))
}

/// Whether a file is one of ours, `steelk-2026-12-01.db`: what somebody laid beside them is not taken away.
fn is_copy(path: &Path) -> bool {
    let name = path.file_name().and_then(|name| name.to_str()).unwrap_or_default();
    let day = name.strip_prefix("steelk-").and_then(|rest| rest.strip_suffix(".db")).unwrap_or_default();
    day.len() == 10
        && day
            .bytes()
            .enumerate()
            .all(|(at, byte)| if at == 4 || at == 7 { byte == b'-' } else { byte.is_ascii_digit() })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::marks::marks_of;
    use steelk_store::Store;

    #[test]
    fn one_copy_a_day_and_the_newest_are_kept() {
        let folder = tempfile::tempdir().unwrap();
        let database = folder.path().join("steelk.db");
        Store::open(&database, marks_of).unwrap().add_job("TS-1", "Copied", None).unwrap();
        let copies = folder.path().join("copies");
        std::fs::create_dir(&copies).unwrap();
        for name in
            ["steelk-2001-01-01.db", "steelk-2001-01-02.db", "steelk-2001-01-03.db", "steelk-mine.db", "notes.txt"]
        {
            std::fs::write(copies.join(name), "old").unwrap();
        }
        let copy = of_today(&database, 2).unwrap().expect("the first of the day");
        assert_eq!(Store::open_to_read(&copy, marks_of).unwrap().jobs().unwrap()[0].title, "Copied");
        assert!(of_today(&database, 2).unwrap().is_none());
        let mut left: Vec<_> = std::fs::read_dir(&copies).unwrap().map(|one| one.unwrap().file_name()).collect();
        left.sort();
        let today = copy.file_name().unwrap();
        assert_eq!(left, ["notes.txt".as_ref(), "steelk-2001-01-03.db".as_ref(), today, "steelk-mine.db".as_ref()]);
        let gone = of_today(&folder.path().join("none.db"), 2).unwrap_err();
        assert!(gone.contains("is not there"), "{gone}");
    }
}
