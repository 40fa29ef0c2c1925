//! The order of core's modules, written once, read from the source itself: each uses only those before it, and no files use each
//! other in a circle. What a module hands on (`pub use`) counts as its file, where it is written. And tolerances have names.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

use syn::visit::Visit;

/// Each may use what stands before it.
const ORDER: [&str; 23] = [
    "patience", "beside", "quantity", "finding", "plane", "space", "stock", "section", "work", "sheet", "frame",
    "measure", "proof", "nest", "toolpath", "brake", "audit", "piece", "cutlist", "table", "drawing", "release",
    "offer",
];

/// The way to a module or to something in it: `sheet`, `flange`, `bend`.
type Way = Vec<String>;

/// A file of core.
#[derive(Default)]
struct Source {
    /// What it calls something else by: from `use` lines, public or not.
    names: BTreeMap<String, Way>,
    /// The ways that it writes out, from `crate` on.
    ways: BTreeSet<Way>,
}

struct Reader<'a> {
    own: Way,
    modules: &'a BTreeSet<Way>,
    source: Source,
}

impl Reader<'_> {
    /// From `crate` on; `None` for what is not ours.
    fn since_crate(&self, way: &[String]) -> Option<Way> {
        let (first, rest) = way.split_first()?;
        let mut own = self.own.clone();
        match first.as_str() {
            "crate" => Some(rest.to_vec()),
            "self" => Some([own, rest.to_vec()].concat()),
            "super" => {
                let ups = way.iter().take_while(|one| *one == "super").count();
                own.truncate(own.len().checked_sub(ups)?);
                Some([own, way[ups..].to_vec()].concat())
            }
            _ => {
                own.push(first.clone());
                self.modules.contains(&own).then(|| [own, rest.to_vec()].concat())
            }
        }
    }

    fn tree(&mut self, tree: &syn::UseTree, before: &mut Way) {
        match tree {
            syn::UseTree::Path(path) => {
                before.push(path.ident.to_string());
                self.tree(&path.tree, before);
                before.pop();
            }
            syn::UseTree::Group(group) => group.items.iter().for_each(|one| self.tree(one, before)),
            syn::UseTree::Name(name) => self.imported(&name.ident.to_string(), &name.ident.to_string(), before),
            syn::UseTree::Rename(name) => self.imported(&name.ident.to_string(), &name.rename.to_string(), before),
            syn::UseTree::Glob(_) => panic!("{:?}: a glob hides what is used; name it", self.own),
        }
    }

    fn imported(&mut self, name: &str, called: &str, before: &Way) {
        let mut way = before.clone();
        let mut called = called.to_string();
        if name == "self" {
            called = if called == "self" { before.last().cloned().unwrap_or_default() } else { called };
        } else {
            way.push(name.to_string());
        }
        if let Some(way) = self.since_crate(&way) {
            self.source.names.insert(called, way);
        }
    }
}

impl<'ast> Visit<'ast> for Reader<'_> {
    fn visit_item_mod(&mut self, item: &'ast syn::ItemMod) {
        let of_tests = item
            .attrs
            .iter()
            .any(|one| one.path().is_ident("cfg") && one.parse_args::<syn::Ident>().is_ok_and(|ident| ident == "test"));
        if !of_tests {
            syn::visit::visit_item_mod(self, item);
        }
    }

    fn visit_item_use(&mut self, item: &'ast syn::ItemUse) {
        self.tree(&item.tree, &mut Vec::new());
    }

    /// `pub(super)` uses nothing.
    fn visit_vis_restricted(&mut self, _: &'ast syn::VisRestricted) {}

    fn visit_path(&mut self, path: &'ast syn::Path) {
        let way: Way = path.segments.iter().map(|one| one.ident.to_string()).collect();
        self.source.ways.insert(way);
        syn::visit::visit_path(self, path);
    }
}

fn files(folder: &Path, into: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files(&path, into);
        } else if path.extension().is_some_and(|end| end == "rs") {
            into.push(path);
        }
    }
}

/// Every module of core with the modules that it uses, each where its thing is written.
fn uses() -> BTreeMap<Way, BTreeSet<Way>> {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let mut paths = Vec::new();
    files(&root, &mut paths);
    let way_of = |path: &Path| -> Way {
        let inner = path.strip_prefix(&root).unwrap().with_extension("");
        let mut way: Way = inner.components().map(|one| one.as_os_str().to_string_lossy().into_owned()).collect();
        if way.last().is_some_and(|last| last == "mod" || last == "lib") {
            way.pop();
        }
        way
    };
    let modules: BTreeSet<Way> = paths.iter().map(|path| way_of(path)).collect();
    let mut sources = BTreeMap::new();
    for path in &paths {
        let file = syn::parse_file(&std::fs::read_to_string(path).unwrap()).unwrap();
        let mut reader = Reader { own: way_of(path), modules: &modules, source: Source::default() };
        reader.visit_file(&file);
        // What it calls by an imported name goes on from there.
        let ways = std::mem::take(&mut reader.source.ways);
        let found: BTreeSet<Way> = ways
            .into_iter()
            .filter_map(|way| match reader.source.names.get(&way[0]) {
                Some(known) => Some([known.clone(), way[1..].to_vec()].concat()),
                None => reader.since_crate(&way),
            })
            .collect();
        reader.source.ways = found;
        sources.insert(reader.own.clone(), reader.source);
    }
    sources
        .iter()
        .map(|(own, source)| {
            let to = source.ways.iter().map(|way| written_in(way, &modules, &sources, 0));
            (own.clone(), to.filter(|to| to != own).collect())
        })
        .collect()
}

/// The module in whose file the thing at the end of a way is written.
fn written_in(way: &[String], modules: &BTreeSet<Way>, sources: &BTreeMap<Way, Source>, deep: usize) -> Way {
    assert!(deep < 20, "{way:?} is handed on without end");
    let length = (0..=way.len()).rev().find(|&length| modules.contains(&way[..length])).unwrap_or(0);
    let (module, rest) = way.split_at(length);
    match rest.first().and_then(|name| sources[module].names.get(name)) {
        Some(known) => written_in(&[known.clone(), rest[1..].to_vec()].concat(), modules, sources, deep + 1),
        None => module.to_vec(),
    }
}

#[test]
fn each_module_uses_only_those_before_it() {
    let place = |name: &str| ORDER.iter().position(|own| *own == name);
    let mut against = BTreeSet::new();
    let mut count = 0;
    for (own, to) in uses() {
        let Some(top) = own.first() else { continue };
        let at = place(top).unwrap_or_else(|| panic!("{top} has no place in the order: give it one"));
        for other in to {
            let Some(there) = other.first().and_then(|other| place(other)) else { continue };
            count += usize::from(there != at);
            if there > at {
                against.insert(format!("{} uses {}", own.join("::"), other.join("::")));
            }
        }
    }
    assert!(count > 600, "only {count} uses were found: the source is written in a way that this test cannot read");
    assert!(against.is_empty(), "against the order of modules: {against:#?}");
}

#[test]
fn no_files_use_each_other_in_a_circle() {
    let mut all = uses();
    // The root only names its modules.
    all.remove(&Vec::new());
    let from = |own: &Way| -> BTreeSet<Way> {
        let (mut reached, mut next) = (BTreeSet::new(), vec![own.clone()]);
        while let Some(at) = next.pop() {
            let to = all.get(&at).into_iter().flatten();
            next.extend(to.filter(|to| reached.insert((*to).clone())).cloned());
        }
        reached
    };
    let reached: BTreeMap<&Way, BTreeSet<Way>> = all.keys().map(|own| (own, from(own))).collect();
    let left: BTreeMap<&Way, Vec<String>> = all
        .iter()
        .filter(|(own, _)| reached[own].contains(*own))
        .map(|(own, to)| (own, to.iter().filter(|to| reached[to].contains(own)).map(|to| to.join("::")).collect()))
        .collect();
    let circles: Vec<String> =
        left.iter().map(|(own, to)| format!("{} uses {}", own.join("::"), to.join(", "))).collect();
    assert!(circles.is_empty(), "in circles: {circles:#?}");
}

/// Small figures in the middle of the code.
#[derive(Default)]
struct Figures(Vec<String>);

impl<'ast> Visit<'ast> for Figures {
    fn visit_item_mod(&mut self, item: &'ast syn::ItemMod) {
        if !item.attrs.iter().any(|one| one.path().is_ident("cfg")) {
            syn::visit::visit_item_mod(self, item);
        }
    }

    fn visit_item_const(&mut self, _: &'ast syn::ItemConst) {}

    fn visit_impl_item_const(&mut self, _: &'ast syn::ImplItemConst) {}

    fn visit_lit_float(&mut self, figure: &'ast syn::LitFloat) {
        if figure.base10_digits().contains("e-") {
            self.0.push(figure.to_string());
        }
    }

    fn visit_macro(&mut self, one: &'ast syn::Macro) {
        self.tokens(one.tokens.clone());
    }
}

impl Figures {
    /// Figures among the tokens of a macro; what is told in words is one token, of text.
    fn tokens(&mut self, tokens: proc_macro2::TokenStream) {
        for token in tokens {
            match token {
                proc_macro2::TokenTree::Group(group) => self.tokens(group.stream()),
                proc_macro2::TokenTree::Literal(figure) => {
                    let figure = figure.to_string();
                    if figure.starts_with(|c: char| c.is_ascii_digit()) && figure.contains("e-") {
                        self.0.push(figure);
                    }
                }
                _ => {}
            }
        }
    }
}

#[test]
fn a_tolerance_has_a_name_and_a_reason() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    let (mut bare, mut named) = (Vec::new(), 0);
    for one in ["core", "formats", "cutter", "store", "server"] {
        let mut paths = Vec::new();
        files(&crates.join(one).join("src"), &mut paths);
        for path in paths {
            let text = std::fs::read_to_string(&path).unwrap();
            named += text.lines().filter(|line| line.contains("const ") && line.contains("e-")).count();
            let shown = path.strip_prefix(crates).unwrap().display().to_string();
            // An audit's tolerance stands beside its reason in words, which is told with it.
            if shown.contains("/audit") {
                continue;
            }
            let mut figures = Figures::default();
            figures.visit_file(&syn::parse_file(&text).unwrap());
            bare.extend(figures.0.iter().map(|figure| format!("{shown}: {figure}")));
        }
    }
    assert!(
        named > 60,
        "only {named} named tolerances were found: the source is written in a way that this cannot read"
    );
    assert!(bare.is_empty(), "name these (quantity::tolerance, or a constant of the file): {bare:#?}");
}
