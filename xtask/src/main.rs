//! What the README's commands call: `cargo demo` and `cargo verify`, and what keeps the repository's made files fresh.

mod dev;
mod install;
mod made;
mod quick;
mod slowest;

use std::path::PathBuf;
use std::process::{Command, ExitCode};
use std::time::{Duration, Instant};

use clap::{Parser, Subcommand};

#[derive(Parser)]
#[command(name = "cargo xtask", about = "Set-up, demo, verify, and the files that are made")]
struct Xtask {
    #[command(subcommand)]
    task: Task,
}

#[derive(Subcommand)]
enum Task {
    /// Sets everything up, builds Tolva and starts it with demo data.
    Demo {
        /// What `tolva demo` takes, such as `--port 8465`.
        #[arg(trailing_var_arg = true, allow_hyphen_values = true)]
        arguments: Vec<String>,
    },
    /// For who works on it: the server and Vite's own with hot reload before it; both follow the files.
    Dev,
    /// Sets everything up, builds Tolva and passes every check and test.
    Verify,
    /// In two minutes: format, lint and unit tests of what was changed, and the browser tests of one screen.
    Quick {
        /// The screen, as its file in crates/e2e/tests/browser is called: `rail`, `frames`.
        screen: Option<String>,
        /// What was changed since this commit.
        #[arg(long, default_value = "HEAD")]
        since: String,
    },
    /// Runs the property tests on other draws than `verify` does, round after round, until one fails or the time is over.
    /// What it finds becomes a fixed case.
    Search {
        /// How long, in minutes; the last round is run to its end.
        #[arg(long, default_value_t = 10)]
        minutes: u64,
        /// How many cases each test draws in a round.
        #[arg(long, default_value_t = 128)]
        cases: u32,
        /// The seed of the first round; today's second of the epoch when it is not given.
        #[arg(long)]
        seed: Option<u64>,
    },
    /// The closed loop of plan, frame and learning on so many seeded sets; `verify` runs it on 1000.
    Loop {
        /// How many sets.
        #[arg(long, default_value_t = 10_000)]
        sets: u64,
    },
    /// The campaign against the server: kills, races, full disks, hostile requests, for some minutes. A short form of it is
    /// in `verify`.
    Siege {
        /// How long, in minutes.
        #[arg(long, default_value_t = 5)]
        minutes: u64,
        /// What is drawn is drawn from this.
        #[arg(long, default_value_t = 1)]
        seed: u64,
        /// With a release build, and the numbers only that reaches: with so many jobs.
        #[arg(long)]
        jobs: Option<usize>,
    },
    /// Makes the pictures in docs/screenshots/.
    Screenshots,
    /// Makes docs/openapi.json, the JSON Schema and the front end's types from the code.
    Made,
    /// Describes the queries for the offline check, from the migrations (installs sqlite3).
    Queries,
    /// Makes the list of the world's towns from the npm package it comes from.
    Places,
    /// Dragging and nudging in a browser, in a release build: from the move or the key to the frame that shows it.
    Drag,
    /// The speed of one plan, and of `solve` against a bare echo over loopback.
    Bench,
}

type Done = Result<(), String>;

fn main() -> ExitCode {
    let task = Xtask::parse().task;
    let done = match task {
        Task::Demo { arguments } => demo(&arguments),
        Task::Dev => dev::dev(),
        Task::Verify => verify(),
        Task::Quick { screen, since } => quick::quick(screen.as_deref(), &since),
        Task::Search { minutes, cases, seed } => search(minutes, cases, seed),
        Task::Loop { sets } => {
            run(cargo(&["test", "--quiet", "--package", "tolva-planner", "--test", "closed_loop", "--", "--nocapture"])
                .env("TOLVA_LOOP_SETS", sets.to_string()))
        }
        Task::Siege { minutes, seed, jobs } => siege(minutes, seed, jobs),
        Task::Screenshots => in_a_browser("screenshots", &[]),
        Task::Made => made::make(),
        Task::Queries => made::queries(),
        Task::Places => made::places(),
        Task::Drag => in_a_browser("drag", &["--release"]),
        Task::Bench => bench(),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(problem) => {
            eprintln!("\n{problem}");
            ExitCode::FAILURE
        }
    }
}

fn demo(arguments: &[String]) -> Done {
    step("Tolva is built, its front end beside it: the first time, some five minutes on two processors");
    let front_end = std::thread::spawn(|| -> Done {
        let begun = Instant::now();
        install::front_end_packages()?;
        npm(&["run", "build"])?;
        println!("\nThe front end is built, in {} s", begun.elapsed().as_secs());
        Ok(())
    });
    let server = run(cargo_once(&["build", "--package", "tolva-server"]));
    front_end.join().map_err(|_| "the front end: it broke off")??;
    server?;
    println!();
    let mut tolva = Command::new(root().join("target/debug/tolva"));
    run(tolva.arg("demo").args(arguments))
}

fn verify() -> Done {
    install::browser()?;
    install::front_end_packages()?;
    step("The front end: formatted, checked, built, and no heavier than it may be");
    for script in ["format:check", "check", "lint", "build", "weigh"] {
        npm(&["run", script])?;
    }
    let once = |arguments: &[&str]| run(cargo_once(arguments));
    step("The code: formatted, without a warning");
    once(&["fmt", "--all", "--check"])?;
    once(&["clippy", "--workspace", "--all-targets", "--quiet", "--", "-D", "warnings"])?;
    step("The made files are those the code makes");
    // With the tests at once: by themselves the programs would be built with fewer features, and most of it again.
    once(&["test", "--quiet", "--workspace", "--no-run"])?;
    made::check()?;
    step("The tests, the browser's among them");
    let times = slowest::begin()?;
    let done = run(cargo_once(&["test", "--workspace", "--no-fail-fast"]).env(slowest::TIMES, &times));
    slowest::tell(&times);
    done
}

/// Runs one of the programs that drive a browser, on a fresh build.
fn in_a_browser(program: &str, profile: &[&str]) -> Done {
    install::browser()?;
    install::front_end_packages()?;
    npm(&["run", "build"])?;
    run(cargo(&[&["build", "--quiet", "--package", "tolva-server"], profile].concat()))?;
    run(cargo(&[&["run", "--quiet", "--package", "tolva-e2e", "--bin", program], profile].concat()))
}

/// The crates that have property tests.
const SEARCHED: [&str; 7] = [
    "tolva-core",
    "tolva-planner",
    "tolva-format",
    "tolva-wording",
    "tolva-calculators",
    "tolva-pictures",
    "tolva-places",
];

fn search(minutes: u64, cases: u32, seed: Option<u64>) -> Done {
    let now = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH).map_or(0, |since| since.as_secs());
    let start = Instant::now();
    for seed in seed.unwrap_or(now).. {
        step(&format!("Searching from seed {seed}, {cases} cases a test"));
        let mut tests = cargo(&["test", "--quiet"]);
        for package in SEARCHED {
            tests.args(["--package", package]);
        }
        let mut readers = cargo(&["test", "--quiet", "--package", "tolva-server", "--test", "readers"]);
        for tests in [&mut tests, &mut readers] {
            run(tests.env("PROPTEST_RNG_SEED", seed.to_string()).env("PROPTEST_CASES", cases.to_string()))?;
        }
        if start.elapsed() >= Duration::from_secs(60 * minutes) {
            println!("\nNothing found up to seed {seed}, in {} min", start.elapsed().as_secs() / 60);
            break;
        }
    }
    Ok(())
}

fn siege(minutes: u64, seed: u64, jobs: Option<usize>) -> Done {
    let profile: &[&str] = if jobs.is_some() { &["--release"] } else { &[] };
    let with = |arguments: &[&str]| cargo(&[arguments, profile].concat());
    run(with(&["build", "--quiet", "--package", "tolva-server"]))?;
    let mut siege = with(&["run", "--quiet", "--package", "tolva-e2e", "--bin", "siege"]);
    let numbers = [("--minutes", minutes), ("--seed", seed), ("--jobs", jobs.unwrap_or(0) as u64)];
    run(siege.arg("--").args(numbers.into_iter().flat_map(|(name, number)| [name.to_owned(), number.to_string()])))
}

fn bench() -> Done {
    for bench in ["solve", "light", "day", "set", "glass", "proof"] {
        run(cargo(&["bench", "--package", "tolva-wording", "--bench", bench]))?;
    }
    run(cargo(&["bench", "--package", "tolva-pictures", "--bench", "frames"]))?;
    run(cargo(&["bench", "--package", "tolva-server", "--bench", "home"]))?;
    run(cargo(&["bench", "--package", "tolva-server", "--features", "echo", "--bench", "load"]))
}

fn step(what: &str) {
    println!("\n== {what}");
}

/// The folder of the repository: the one cargo runs this in, which need not be the one it was built in.
fn root() -> PathBuf {
    let xtask = std::env::var_os("CARGO_MANIFEST_DIR").unwrap_or_else(|| env!("CARGO_MANIFEST_DIR").into());
    PathBuf::from(xtask).join("..")
}

fn cargo(arguments: &[&str]) -> Command {
    let mut command = Command::new(env!("CARGO"));
    command.args(arguments).current_dir(root());
    command
}

/// What is built once is not built to be built again: a fifth less on a fresh machine. `demo` and `verify` share it.
fn cargo_once(arguments: &[&str]) -> Command {
    let mut command = cargo(arguments);
    command.env("CARGO_INCREMENTAL", "0");
    command
}

fn npm(arguments: &[&str]) -> Done {
    let mut command = Command::new("npm");
    run(command.arg("--silent").args(arguments).current_dir(root().join("web")))
}

/// Runs a command to its end; anything but success is an error that names it.
fn run(mut command: impl std::borrow::BorrowMut<Command>) -> Done {
    let command = command.borrow_mut();
    let name = format!("{command:?}").replace('"', "");
    let status = command.status().map_err(|error| format!("{name}: {error}"))?;
    if status.success() { Ok(()) } else { Err(format!("{name}: {status}")) }
}
