//! The order of core's modules, written once: each uses only those before it. Read from the source itself.

use std::collections::BTreeSet;
use std::path::{Path, PathBuf};

/// Each may use what stands before it.
const ORDER: [&str; 20] = [
    "patience", "quantity", "finding", "plane", "space", "stock", "section", "work", "sheet", "frame", "measure",
    "proof", "nest", "toolpath", "piece", "cutlist", "table", "drawing", "audit", "release",
];

/// What still goes against the order, to become less and never more: `user -> used`.
const AGAINST: [&str; 5] = ["frame -> measure", "piece -> audit", "piece -> table", "work -> frame", "work -> sheet"];

fn sources(folder: &Path, into: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            sources(&path, into);
        } else if path.extension().is_some_and(|end| end == "rs") {
            into.push(path);
        }
    }
}

/// The modules that a file names as `crate::module`, tests at its end apart.
fn used(text: &str) -> BTreeSet<String> {
    let own = text.split("#[cfg(test)]").next().unwrap_or_default();
    let code: Vec<&str> = own.lines().filter(|line| !line.trim_start().starts_with("//")).collect();
    let code = code.join("\n");
    code.split("crate::")
        .skip(1)
        .flat_map(|rest| {
            let word =
                |text: &str| -> String { text.chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect() };
            match rest.strip_prefix('{') {
                // `use crate::{one::Thing, two};`
                Some(list) => {
                    let mut deep = 0;
                    let list: String = list
                        .chars()
                        .take_while(|c| {
                            deep += i32::from(*c == '{') - i32::from(*c == '}');
                            deep >= 0
                        })
                        .collect();
                    list.split(',').map(|one| word(one.trim())).collect::<Vec<_>>()
                }
                None => vec![word(rest)],
            }
        })
        .collect()
}

#[test]
fn each_module_uses_only_those_before_it() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let mut files = Vec::new();
    sources(&root, &mut files);
    let place = |name: &str| ORDER.iter().position(|own| *own == name);
    let mut against = BTreeSet::new();
    let mut uses = 0;
    for file in &files {
        let inner = file.strip_prefix(&root).unwrap();
        let own = inner.components().next().unwrap().as_os_str().to_str().unwrap().trim_end_matches(".rs");
        if own == "lib" {
            continue;
        }
        let at = place(own).unwrap_or_else(|| panic!("{own} has no place in the order: give it one"));
        for other in used(&std::fs::read_to_string(file).unwrap()) {
            let Some(there) = place(&other) else { continue };
            uses += usize::from(there != at);
            if there > at {
                against.insert(format!("{own} -> {other}"));
            }
        }
    }
    assert!(uses > 300, "only {uses} uses were found: the source is written in a way that this test cannot read");
    let known: BTreeSet<String> = AGAINST.iter().map(ToString::to_string).collect();
    let new: Vec<_> = against.difference(&known).collect();
    let gone: Vec<_> = known.difference(&against).collect();
    assert!(new.is_empty(), "against the order of modules: {new:?}");
    assert!(gone.is_empty(), "in order by now, take them off the list: {gone:?}");
}
