//! `cargo xtask quick`: what can be said in two minutes of what was changed.

use std::collections::BTreeSet;
use std::process::Command;

use crate::{Done, cargo, install, npm, root, run, step};

/// Format, lint and unit tests of what was changed since a commit, and the browser tests of a screen where one is named.
pub fn quick(screen: Option<&str>, since: &str) -> Done {
    let changed = Changed::since(since)?;
    step("Format");
    run(cargo(&["fmt", "--all", "--check"]))?;
    if changed.front_end {
        install::front_end_packages()?;
        step("The front end: formatted, checked");
        for script in ["format:check", "check", "lint"] {
            npm(&["run", script])?;
        }
    }
    if !changed.packages.is_empty() {
        let named = || changed.packages.iter().flat_map(|package| ["--package", package.as_str()]);
        step(&format!("{}: without a warning, and their tests", names(&changed.packages)));
        run(cargo(&["clippy", "--quiet", "--all-targets"]).args(named()).args(["--", "-D", "warnings"]))?;
        for package in &changed.packages {
            // Unit tests only: the API's and the browser's take longer than two minutes.
            let is_library = root().join(folder_of(package)).join("src/lib.rs").exists();
            let target = if is_library { "--lib" } else { "--bins" };
            run(cargo(&["test", "--quiet", "--package", package, target]))?;
        }
    }
    let Some(screen) = screen else { return Ok(()) };
    install::browser()?;
    install::front_end_packages()?;
    step(&format!("The browser tests of {screen}"));
    npm(&["run", "build"])?;
    run(cargo(&["build", "--quiet", "--package", "tolva-server"]))?;
    run(cargo(&["test", "--quiet", "--package", "tolva-e2e", "--test", "browser", "--", &format!("{screen}::")]))
}

/// What was changed.
#[derive(Debug, Default, PartialEq, Eq)]
struct Changed {
    packages: BTreeSet<String>,
    front_end: bool,
}

impl Changed {
    fn since(commit: &str) -> Result<Self, String> {
        let lines = |arguments: &[&str]| {
            let git = Command::new("git").args(arguments).current_dir(root()).output();
            let git = git.map_err(|error| format!("git: {error}"))?;
            if !git.status.success() {
                return Err(String::from_utf8_lossy(&git.stderr).trim().to_owned());
            }
            Ok(String::from_utf8_lossy(&git.stdout).into_owned())
        };
        let new = lines(&["ls-files", "--others", "--exclude-standard"])?;
        Ok(Self::of(lines(&["diff", "--name-only", commit])?.lines().chain(new.lines())))
    }

    /// By the paths of what was changed.
    fn of<'a>(paths: impl Iterator<Item = &'a str>) -> Self {
        let mut changed = Self::default();
        for path in paths {
            match path.split('/').collect::<Vec<_>>()[..] {
                ["crates", name, _, ..] => {
                    changed.packages.insert(format!("tolva-{name}"));
                }
                ["xtask", _, ..] => {
                    changed.packages.insert("xtask".to_owned());
                }
                ["web", ..] => changed.front_end = true,
                _ => {}
            }
        }
        changed
    }
}

fn folder_of(package: &str) -> String {
    package.strip_prefix("tolva-").map_or_else(|| package.to_owned(), |name| format!("crates/{name}"))
}

fn names(packages: &BTreeSet<String>) -> String {
    packages.iter().map(String::as_str).collect::<Vec<_>>().join(", ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn paths_tell_what_was_changed() {
        let of = |paths: &[&str]| Changed::of(paths.iter().copied());
        let packages = |names: &[&str]| names.iter().map(|name| (*name).to_owned()).collect();
        let core = of(&["crates/core/src/lib.rs", "crates/store/migrations/0001_jobs.sql", "README.md"]);
        assert_eq!(core, Changed { packages: packages(&["tolva-core", "tolva-store"]), front_end: false });
        assert_eq!(
            of(&["web/src/app.tsx", "xtask/src/main.rs"]),
            Changed { packages: packages(&["xtask"]), front_end: true }
        );
        assert_eq!(of(&["crates/README.md"]), Changed::default());
    }
}
