//! Every file of a piece, made before any of them is written: no half package is left behind.

use std::collections::HashSet;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

use steelk_core::beside;

use super::{NoFile, OUTPUTS, Order, Output, Without};

/// The files of a piece, and what is not among them.
#[derive(Debug, Default)]
pub struct Package {
    /// Names and contents.
    pub files: Vec<(String, Vec<u8>)>,
    /// Files that the shop needs and that are not there, in words with the reason.
    pub missing: Vec<String>,
    /// Files that it can do without and that are not there, in words.
    pub notes: Vec<String>,
}

/// Makes every file that the list has for a piece, two at a time where a second core is lent ([`beside`]).
///
/// # Errors
/// [`NoFile`] of a file without which nothing is given out.
pub fn package(order: &Order<'_>) -> Result<Package, NoFile> {
    let outputs = OUTPUTS.iter().filter(|output| output.serves(order.made_from()));
    let wanted: Vec<(&Output, String)> =
        outputs.flat_map(|output| order.marks(output.of).into_iter().map(move |mark| (output, mark))).collect();
    let mut all = Package::default();
    let mut taken = HashSet::new();
    for (at, made) in make_all(order, &wanted) {
        let (output, mark) = &wanted[at];
        let words = |fault: &NoFile| format!("{} is not written: {fault}", output.file(Some(mark)));
        match made {
            Ok(bytes) => {
                let mut name = output.file_name(order, mark);
                // Marks that differ only in letters that no file system takes.
                while !taken.insert(name.to_ascii_lowercase()) {
                    name = format!("again-{name}");
                }
                all.files.push((name, bytes));
            }
            Err(NoFile::NotThere(_)) => {}
            Err(fault) => match output.without {
                Without::Nothing => return Err(fault),
                Without::Incomplete => all.missing.push(words(&fault)),
                Without::Noted => all.notes.push(words(&fault)),
            },
        }
    }
    Ok(all)
}

type MadeFile = Result<Vec<u8>, NoFile>;

/// What takes as long as all other files together, planned, written, run and measured.
const LONGEST: &str = "cut.nc";

/// The files with their places among those wanted, in that order. The longest is begun first, and whoever is free takes the next one; after a fault that keeps
/// all back no more are begun.
fn make_all(order: &Order<'_>, wanted: &[(&Output, String)]) -> Vec<(usize, MadeFile)> {
    let mut turns: Vec<usize> = (0..wanted.len()).collect();
    turns.sort_by_key(|&at| wanted[at].0.key != LONGEST);
    let (next, ended) = (AtomicUsize::new(0), AtomicBool::new(false));
    let make_some = || {
        let mut made: Vec<(usize, MadeFile)> = Vec::new();
        while !ended.load(Ordering::Relaxed) {
            let Some(&at) = turns.get(next.fetch_add(1, Ordering::Relaxed)) else { break };
            let (output, mark) = &wanted[at];
            let file = output.make(order, mark);
            let kept_back = !matches!(file, Ok(_) | Err(NoFile::NotThere(_)));
            if kept_back && output.without == Without::Nothing {
                ended.store(true, Ordering::Relaxed);
            }
            made.push((at, file));
        }
        made
    };
    let (mut made, other) = beside::both(make_some, make_some);
    made.extend(other);
    made.sort_by_key(|(at, _)| *at);
    made
}
