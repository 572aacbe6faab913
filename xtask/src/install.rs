//! Installing what is missing: the front end's packages, and the browser the tests drive.

use std::path::Path;
use std::process::{Command, Stdio};

use crate::{Done, root, run};

/// The front end's packages, from its lock file, where they are not there yet or the lock file changed since.
pub fn front_end_packages() -> Done {
    let node = Command::new("node").arg("--version").output().map_err(|_| missing_node("is not installed"))?;
    let version = String::from_utf8_lossy(&node.stdout).trim().to_owned();
    let major = version.trim_start_matches('v').split('.').next().and_then(|major| major.parse::<u32>().ok());
    if major.is_none_or(|major| major < 20) {
        return Err(missing_node(&format!("is {version}")));
    }
    let age = |file: &Path| file.metadata().and_then(|data| data.modified()).ok();
    let installed = age(&root().join("web/node_modules/.package-lock.json"));
    if installed.is_some() && installed >= age(&root().join("web/package-lock.json")) {
        return Ok(());
    }
    println!("Installing the front end's packages from web/package-lock.json");
    // Not silent: on a fresh machine it is some seconds.
    run(Command::new("npm").args(["ci", "--no-audit", "--no-fund"]).current_dir(root().join("web")))
}

fn missing_node(how: &str) -> String {
    format!("Node.js {how}: Tolva's front end needs version 20 or newer, with npm")
}

/// Chromium and its driver, from Debian's packages.
pub fn browser() -> Done {
    debian("chromedriver", &["chromium", "chromium-driver"])
}

/// Installs Debian packages where a program of theirs is missing.
pub fn debian(program: &str, packages: &[&str]) -> Done {
    let there = Command::new(program).arg("--version").stdout(Stdio::null()).stderr(Stdio::null()).status();
    if there.is_ok_and(|status| status.success()) {
        return Ok(());
    }
    println!("Installing {} from Debian's packages", packages.join(", "));
    apt(&["update"])?;
    let mut arguments = vec!["install", "--yes", "--no-install-recommends"];
    arguments.extend(packages);
    apt(&arguments)
}

fn apt(arguments: &[&str]) -> Done {
    let is_root = Command::new("id").arg("-u").output().is_ok_and(|id| id.stdout == b"0\n");
    let mut command = if is_root {
        Command::new("apt-get")
    } else {
        let mut sudo = Command::new("sudo");
        sudo.args(["--", "apt-get"]);
        sudo
    };
    run(command.arg("--quiet=2").args(arguments).env("DEBIAN_FRONTEND", "noninteractive"))
}
