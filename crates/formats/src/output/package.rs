//! Every file of a piece, made before any of them is written: no half package is left behind.

use std::collections::HashSet;

use super::{NoFile, OUTPUTS, Order, Without};

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

/// Makes every file that the list has for a piece.
///
/// # Errors
/// [`NoFile`] of a file without which nothing is given out.
pub fn package(order: &Order<'_>) -> Result<Package, NoFile> {
    let mut all = Package::default();
    let mut taken = HashSet::new();
    for output in OUTPUTS.iter().filter(|output| output.serves(order.made_from())) {
        for mark in order.marks(output.of) {
            let words = |fault: &NoFile| format!("{} is not written: {fault}", output.file(Some(&mark)));
            match output.make(order, &mark) {
                Ok(bytes) => {
                    let mut name = output.file_name(order, &mark);
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
    }
    Ok(all)
}
