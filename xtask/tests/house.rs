//! The house is as `docs/architecture.md` draws it: the arrows between the crates, no circle between the modules of any of
//! them, and nothing of the format or of English where only quantities belong.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

use syn::visit::Visit;

fn crates() -> PathBuf {
    PathBuf::from(concat!(env!("CARGO_MANIFEST_DIR"), "/../crates"))
}

/// What each crate may know of the others.
const ARROWS: [(&str, &[&str]); 11] = [
    ("core", &[]),
    ("planner", &["core"]),
    ("format", &["core", "format-derive", "planner"]),
    ("format-derive", &[]),
    ("wording", &["core", "planner"]),
    ("calculators", &["core", "wording"]),
    ("devices", &["core", "pictures", "planner"]),
    ("pictures", &["core"]),
    ("places", &[]),
    ("store", &["format"]),
    ("server", &["calculators", "core", "devices", "format", "pictures", "places", "planner", "store", "wording"]),
];

/// The names in a section of a crate's manifest.
fn dependencies(of: &str) -> BTreeSet<String> {
    let manifest = fs::read_to_string(crates().join(of).join("Cargo.toml")).expect("a manifest");
    let section = manifest.split("\n[").find_map(|section| section.strip_prefix("dependencies]")).unwrap_or_default();
    section.lines().filter_map(|line| line.split(['.', ' ', '=']).next()).map(str::to_owned).collect()
}

#[test]
fn the_arrows_are_as_drawn() {
    for (of, may) in ARROWS {
        let knows: BTreeSet<String> =
            dependencies(of).iter().filter_map(|name| name.strip_prefix("tolva-")).map(str::to_owned).collect();
        let may: BTreeSet<String> = may.iter().map(|name| (*name).to_owned()).collect();
        assert_eq!(knows, may, "tolva-{of}");
    }
}

#[test]
fn rules_and_plans_know_no_wire() {
    for of in ["core", "planner"] {
        let knows = dependencies(of);
        for wire in ["utoipa", "serde", "serde_json"] {
            assert!(!knows.contains(wire), "tolva-{of} knows {wire}");
        }
    }
}

/// A module: its path from the crate's root.
type Module = Vec<String>;

/// The modules of a crate, and from which child each name a module gives on comes.
struct Tree {
    modules: BTreeMap<Module, syn::File>,
    given_on: BTreeMap<(Module, String), Module>,
}

/// Every name in a tree of a `use`, with the segments before it.
fn leaves(tree: &syn::UseTree, before: &[String], into: &mut Vec<Vec<String>>) {
    let with = |ident: &syn::Ident| [before, &[ident.to_string()]].concat();
    match tree {
        syn::UseTree::Path(path) => leaves(&path.tree, &with(&path.ident), into),
        syn::UseTree::Name(name) => into.push(with(&name.ident)),
        syn::UseTree::Rename(name) => into.push(with(&name.ident)),
        syn::UseTree::Glob(_) => into.push(before.to_vec()),
        syn::UseTree::Group(group) => group.items.iter().for_each(|item| leaves(item, before, into)),
    }
}

fn is_test(attributes: &[syn::Attribute]) -> bool {
    attributes.iter().any(|attribute| {
        attribute.path().is_ident("cfg")
            && attribute.parse_args::<syn::Path>().is_ok_and(|condition| condition.is_ident("test"))
    })
}

impl Tree {
    fn of(name: &str) -> Self {
        let root = crates().join(name).join("src");
        let mut tree = Self { modules: BTreeMap::new(), given_on: BTreeMap::new() };
        tree.read(&root, &root);
        for (module, file) in &tree.modules {
            for item in &file.items {
                let syn::Item::Use(given) = item else { continue };
                if matches!(given.vis, syn::Visibility::Inherited) {
                    continue;
                }
                let mut names = Vec::new();
                leaves(&given.tree, &[], &mut names);
                for path in names {
                    let child = [module.as_slice(), &path[..1]].concat();
                    if let (true, Some(last)) = (tree.modules.contains_key(&child), path.last()) {
                        tree.given_on.insert((module.clone(), last.clone()), child);
                    }
                }
            }
        }
        tree
    }

    fn read(&mut self, folder: &Path, root: &Path) {
        for entry in fs::read_dir(folder).expect("a folder") {
            let path = entry.expect("an entry").path();
            if path.is_dir() {
                self.read(&path, root);
                continue;
            }
            let inside = path.strip_prefix(root).expect("inside").with_extension("");
            let mut module: Module = inside.iter().map(|part| part.to_string_lossy().into_owned()).collect();
            if module.last().is_some_and(|last| ["lib", "main", "mod"].contains(&last.as_str())) {
                module.pop();
            }
            // What is only there for tests may look at anything.
            if module.last().is_some_and(|last| last == "tests") || path.extension().is_none_or(|end| end != "rs") {
                continue;
            }
            let text = fs::read_to_string(&path).expect("a file");
            self.modules.insert(module, syn::parse_file(&text).expect("Rust"));
        }
    }

    /// Where a path leads that is written in a module: the module that has what it names.
    fn leads(&self, from: &[String], path: &[String]) -> Option<Module> {
        let mut at: Module = match path.first()?.as_str() {
            "crate" => Vec::new(),
            "super" => from[..from.len().checked_sub(1)?].to_vec(),
            "self" => from.to_vec(),
            first if self.modules.contains_key(&[from, &[first.to_owned()]].concat()) => {
                [from, &[first.to_owned()]].concat()
            }
            _ => return None,
        };
        for segment in &path[1..] {
            if segment == "super" {
                at.pop()?;
                continue;
            }
            let child = [at.as_slice(), std::slice::from_ref(segment)].concat();
            if self.modules.contains_key(&child) {
                at = child;
            } else if let Some(child) = self.given_on.get(&(at.clone(), segment.clone())) {
                at.clone_from(child);
            } else {
                break;
            }
        }
        Some(at)
    }

    /// What leads from one module to another beside it: for every folder, which of its children know which.
    fn beside(&self) -> BTreeMap<Module, BTreeSet<Module>> {
        let mut all: BTreeMap<Module, BTreeSet<Module>> = BTreeMap::new();
        for (module, file) in &self.modules {
            let mut paths = Paths::default();
            paths.visit_file(file);
            for path in paths.0 {
                let Some(to) = self.leads(module, &path) else { continue };
                let common = module.iter().zip(&to).take_while(|(a, b)| a == b).count();
                // What holds a module, or is held by it, stands not beside it.
                if common < module.len() && common < to.len() {
                    all.entry(module[..=common].to_vec()).or_default().insert(to[..=common].to_vec());
                }
            }
        }
        all
    }
}

/// All paths of a file but those that are only there for tests.
#[derive(Default)]
struct Paths(Vec<Vec<String>>);

impl<'ast> Visit<'ast> for Paths {
    fn visit_item_mod(&mut self, item: &'ast syn::ItemMod) {
        if !is_test(&item.attrs) {
            syn::visit::visit_item_mod(self, item);
        }
    }

    fn visit_item_use(&mut self, item: &'ast syn::ItemUse) {
        leaves(&item.tree, &[], &mut self.0);
    }

    fn visit_path(&mut self, path: &'ast syn::Path) {
        self.0.push(path.segments.iter().map(|segment| segment.ident.to_string()).collect());
        syn::visit::visit_path(self, path);
    }
}

/// A circle from a module back to it, where there is one.
fn circle(from: &Module, knows: &BTreeMap<Module, BTreeSet<Module>>) -> Option<Vec<Module>> {
    let mut ways: Vec<Vec<Module>> = vec![vec![from.clone()]];
    let mut seen = BTreeSet::new();
    while let Some(way) = ways.pop() {
        for next in way.last().and_then(|last| knows.get(last)).into_iter().flatten() {
            let longer = [way.as_slice(), std::slice::from_ref(next)].concat();
            if next == from {
                return Some(longer);
            }
            if seen.insert(next.clone()) {
                ways.push(longer);
            }
        }
    }
    None
}

#[test]
fn no_modules_know_each_other_in_a_circle() {
    let mut found = Vec::new();
    for (of, _) in ARROWS {
        let tree = Tree::of(of);
        assert!(!tree.modules.is_empty(), "nothing is looked at in {of}");
        let knows = tree.beside();
        for module in knows.keys() {
            if let Some(circle) = circle(module, &knows) {
                let names: Vec<String> = circle.iter().map(|module| module.join("::")).collect();
                found.push(format!("{of}: {}", names.join(" → ")));
            }
        }
    }
    assert!(found.is_empty(), "{}", found.join("\n"));
}

#[test]
fn a_circle_would_be_found() {
    let module = |name: &str| vec![name.to_owned()];
    let knows = |pairs: &[(&str, &str)]| {
        let mut all: BTreeMap<Module, BTreeSet<Module>> = BTreeMap::new();
        for (from, to) in pairs {
            all.entry(module(from)).or_default().insert(module(to));
        }
        all
    };
    assert!(circle(&module("a"), &knows(&[("a", "b"), ("b", "c"), ("c", "a")])).is_some());
    assert!(circle(&module("a"), &knows(&[("a", "b"), ("b", "c"), ("a", "c")])).is_none());
}

/// Every file of the repository, from its root.
fn all_files() -> Vec<String> {
    let root = crates().join("..");
    let listed = std::process::Command::new("git")
        .args(["ls-files", "--cached", "--others", "--exclude-standard"])
        .current_dir(&root)
        .output()
        .expect("git lists the files");
    String::from_utf8(listed.stdout).expect("names").lines().map(str::to_owned).collect()
}

/// The files that a text names between back-ticks: `core/set/mirror.rs`.
fn named_files(text: &str) -> Vec<String> {
    const ENDINGS: [&str; 9] = [".rs", ".ts", ".tsx", ".mjs", ".csv", ".md", ".js", ".json", ".gz"];
    let is_name = |one: &&str| {
        let plain = |letter: char| letter.is_ascii_alphanumeric() || "_-./".contains(letter);
        ENDINGS.iter().any(|end| one.ends_with(end) && one.len() > end.len()) && one.chars().all(plain)
    };
    text.split('`').skip(1).step_by(2).filter(is_name).map(str::to_owned).collect()
}

/// Docs and doc comments name files that are there: by their end, or from a crate's own folder.
#[test]
fn docs_name_files_that_exist() {
    let files = all_files();
    let exists = |name: &str| {
        let ends = files.iter().any(|file| file == name || file.ends_with(&format!("/{name}")));
        let of_crate = name.split_once('/').map(|(of, rest)| format!("crates/{of}/src/{rest}"));
        ends || of_crate.is_some_and(|path| files.contains(&path))
    };
    let (mut named, mut missing) = (0, Vec::new());
    for file in &files {
        let ending = Path::new(file).extension().unwrap_or_default();
        let is_doc = ending == "md" && file != "CHANGELOG.md";
        if !is_doc && ending != "rs" {
            continue;
        }
        let Ok(text) = fs::read_to_string(crates().join("..").join(file)) else { continue };
        let doc = |line: &&str| is_doc || ["///", "//!"].iter().any(|mark| line.trim_start().starts_with(mark));
        for line in text.lines().filter(doc) {
            for name in named_files(line) {
                named += 1;
                // What a test hands in, and what a person writes, is no file of ours.
                if !exists(&name) && !ELSEWHERE.contains(&name.as_str()) {
                    missing.push(format!("{file}: {name}"));
                }
            }
        }
    }
    assert!(named > 200, "only {named} names were found");
    assert!(missing.is_empty(), "{missing:#?}");
}

/// Files that are named and belong to whoever uses Tolva, or to its papers.
const ELSEWHERE: [&str; 1] = ["frames.json"];
