//! A folder of files that a build made, with a list of them, so that the next build into it takes its dead ones away.

use std::path::Path;

use super::say::say;

/// The list, beside the files.
const LIST: &str = "files.json";
/// What builds made before they kept a list.
const UNLISTED: [&str; 3] = ["cut.nc", "template.pdf", "part.step"];

/// Writes files into a folder, each whole or not at all, and takes away what an earlier build listed there and this one
/// did not make: it would pass for this piece's. What no build made is left alone.
///
/// # Errors
/// In words, with the file.
pub(super) fn write(out: &Path, files: Vec<(String, Vec<u8>)>) -> Result<(), String> {
    std::fs::create_dir_all(out).map_err(|fault| format!("{} cannot be made: {fault}", out.display()))?;
    let mut before: Vec<String> =
        std::fs::read(out.join(LIST)).ok().and_then(|list| serde_json::from_slice(&list).ok()).unwrap_or_default();
    before.extend(UNLISTED.map(str::to_string));
    let now: Vec<&String> = files.iter().map(|(name, _)| name).collect();
    // A list is a file like another: what it names beyond this folder is not touched.
    let plain = |name: &str| Path::new(name).file_name().is_some_and(|own| own == name);
    for name in before.iter().filter(|name| plain(name) && !now.contains(name)) {
        let dead = out.join(name);
        if dead.is_file() {
            std::fs::remove_file(&dead).map_err(|fault| format!("{} cannot be taken away: {fault}", dead.display()))?;
        }
    }
    let list = serde_json::to_vec_pretty(&now).map_err(|fault| fault.to_string())?;
    put(out, LIST, &list)?;
    for (name, bytes) in &files {
        put(out, name, bytes)?;
        say!("{}", out.join(name).display());
    }
    Ok(())
}

fn put(out: &Path, name: &str, bytes: &[u8]) -> Result<(), String> {
    let (file, part) = (out.join(name), out.join(format!("{name}.part")));
    std::fs::write(&part, bytes)
        .and_then(|()| std::fs::rename(&part, &file))
        .map_err(|fault| format!("{} cannot be written: {fault}", file.display()))
}
