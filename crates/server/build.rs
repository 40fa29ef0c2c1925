//! The front end is embedded from `web/dist`; a checkout that has not built it yet still compiles, and says so in the
//! browser. And what summaries are worked out with has a stamp: a digest of its sources.

use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::path::{Path, PathBuf};

/// All that settles what is told of a piece: the rules and computation, their tables, what tells them, and what they
/// stand on.
const SETTLE: [&str; 4] = ["../core/src", "../../data", "src", "../../Cargo.lock"];

fn main() {
    let dist = Path::new("../../web/dist");
    if std::fs::create_dir_all(dist).is_err() {
        println!("cargo::warning=web/dist could not be made; the front end will be missing");
    }
    println!("cargo::rerun-if-changed=../../web/dist");
    println!("cargo::rerun-if-changed=../../demo");
    let mut digest = DefaultHasher::new();
    for place in SETTLE {
        println!("cargo::rerun-if-changed={place}");
        let mut files = Vec::new();
        collect(Path::new(place), &mut files);
        files.sort();
        for file in files {
            file.hash(&mut digest);
            std::fs::read(&file).unwrap_or_default().hash(&mut digest);
        }
    }
    println!("cargo::rustc-env=STEELK_STAMP={:016x}", digest.finish());
}

/// Every file below a place, or the one that it is.
fn collect(place: &Path, files: &mut Vec<PathBuf>) {
    match std::fs::read_dir(place) {
        Ok(entries) => entries.flatten().for_each(|entry| collect(&entry.path(), files)),
        Err(_) => files.push(place.into()),
    }
}
