//! The folder that jobs are kept in: one server at a time, and for its owner's eyes alone.

use std::fs::{File, OpenOptions, TryLockError};
use std::path::{Path, PathBuf};

/// Opens the folder, makes it where it is missing, and takes it for this server until the lock is dropped. The path of
/// the database in it.
///
/// # Errors
/// In words: that it cannot be made or written, or that another server has it.
pub(super) fn open(folder: &Path) -> Result<(PathBuf, File), String> {
    let words = |what: &str, fault: &dyn std::fmt::Display| format!("{} {what}: {fault}", folder.display());
    private_folder(folder).map_err(|fault| words("cannot be made", &fault))?;
    let lock = private(&folder.join("steelk.lock"))
        .map_err(|fault| words("cannot be written to, and jobs could not be saved there", &fault))?;
    match lock.try_lock() {
        Ok(()) => {}
        Err(TryLockError::WouldBlock) => {
            return Err(format!(
                "another Steelk serves {} already; use that one, or give this one a folder of its own with --data",
                folder.display()
            ));
        }
        Err(TryLockError::Error(fault)) => return Err(words("cannot be locked", &fault)),
    }
    let database = folder.join("steelk.db");
    // What SQLite lays beside its file has the mode of that file.
    private(&database).map_err(|fault| words("holds a database that cannot be written to", &fault))?;
    Ok((database, lock))
}

/// A folder that its owner alone can look into, made where it is missing; one that is there is left as it is.
pub(super) fn private_folder(path: &Path) -> std::io::Result<()> {
    let mut builder = std::fs::DirBuilder::new();
    builder.recursive(true);
    #[cfg(unix)]
    std::os::unix::fs::DirBuilderExt::mode(&mut builder, 0o700);
    builder.create(path)
}

/// A file that its owner alone can read, made where it is missing.
pub(super) fn private(path: &Path) -> std::io::Result<File> {
    let mut options = OpenOptions::new();
    options.read(true).write(true).create(true).truncate(false);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    let file = options.open(path)?;
    #[cfg(unix)]
    file.set_permissions(std::os::unix::fs::PermissionsExt::from_mode(0o600))?;
    Ok(file)
}
