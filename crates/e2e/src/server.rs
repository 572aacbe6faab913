//! A running `tolva`.

use std::io::{BufRead as _, BufReader};
use std::net::TcpListener;
use std::path::PathBuf;
use std::process::{Child, Command, Stdio};
use std::sync::OnceLock;

use serde_json::Value;
use tempfile::TempDir;

use crate::browser::settle;

/// A Tolva with a data file of its own, killed when it is dropped.
pub struct Tolva {
    child: Option<Child>,
    port: u16,
    folder: TempDir,
}

/// The binary beside this test, which `cargo verify` builds first.
fn binary() -> PathBuf {
    let own = std::env::current_exe().expect("the path of this test");
    let folder = own.ancestors().find(|folder| folder.join("tolva").is_file());
    folder.expect("the binary tolva is not built: run cargo build -p tolva-server").join("tolva")
}

/// The demo data as one file beside the binary, made anew by each program that asks for it.
fn demo_data() -> PathBuf {
    let folder = binary().with_file_name("demo-data-of-tests");
    if folder.exists() {
        std::fs::remove_dir_all(&folder).expect("the one of an earlier run goes");
    }
    std::fs::create_dir_all(&folder).expect("a folder");
    let made = folder.join("tolva.sqlite");
    let demo = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    // In the order of `tolva demo`: the last imported stands on top.
    for file in [
        "weir-lane.json",
        "guild-days.json",
        "bindery-evening.json",
        "foundry-band.json",
        "harvest-supper.json",
        "ropeworks-open-day.json",
    ] {
        let done = Command::new(binary())
            .args(["import", "--data"])
            .arg(&made)
            .arg(demo.join(file))
            .stdout(Stdio::null())
            .status()
            .expect("tolva import");
        assert!(done.success(), "the demo data was not imported");
    }
    let beside = std::fs::read_dir(&folder).expect("the folder").count();
    assert_eq!(beside, 1, "what an import wrote is in the one file");
    made
}

/// A port that was free a moment ago.
pub(crate) fn free_port() -> u16 {
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    listener.local_addr().expect("its address").port()
}

impl Tolva {
    /// Starts with the demo data, imported from its files.
    pub fn with_demo_data() -> Self {
        static MADE: OnceLock<PathBuf> = OnceLock::new();
        let folder = TempDir::new().expect("a folder");
        let made = MADE.get_or_init(demo_data);
        std::fs::copy(made, folder.path().join("tolva.sqlite")).expect("a copy of the demo data");
        Self::start(folder)
    }

    /// Starts with an empty data file.
    pub fn empty() -> Self {
        Self::start(TempDir::new().expect("a folder"))
    }

    /// Starts in a folder, with what is there.
    pub fn start(folder: TempDir) -> Self {
        let mut tolva = Self { child: None, port: 0, folder };
        tolva.run();
        tolva
    }

    /// Starts it, the first time on a free port, from then on on the same one.
    pub fn run(&mut self) {
        let mut child = Command::new(binary())
            .args(["serve", "--port", &self.port.to_string(), "--data"])
            .arg(self.folder.path().join("tolva.sqlite"))
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .expect("tolva serve");
        let mut said = String::new();
        BufReader::new(child.stdout.take().expect("its output")).read_line(&mut said).expect("where it is");
        let port = said.trim().trim_end_matches('/').rsplit(':').next().and_then(|port| port.parse().ok());
        self.port = port.unwrap_or_else(|| panic!("it said: {said}"));
        self.child = Some(child);
    }

    /// Kills it at once, as a crash would (SIGKILL on Unix).
    pub fn kill(&mut self) {
        if let Some(mut child) = self.child.take() {
            child.kill().expect("killed");
            child.wait().expect("gone");
        }
    }

    /// The number of its process.
    pub fn pid(&self) -> u32 {
        self.child.as_ref().expect("it runs").id()
    }

    /// An address in it.
    pub fn url(&self, path: &str) -> String {
        format!("http://127.0.0.1:{}/{path}", self.port)
    }

    /// A folder that is thrown away with it.
    pub fn folder(&self) -> PathBuf {
        self.folder.path().to_owned()
    }

    /// The id of a stored job.
    pub async fn job_id(&self, name: &str) -> String {
        let jobs: Value = reqwest::get(self.url("api/v1/jobs")).await.expect("the jobs").json().await.expect("a list");
        let found = jobs["jobs"].as_array().expect("a list").iter().find(|job| job["name"] == name);
        found.expect("the job")["id"].as_str().expect("its id").to_owned()
    }

    /// Saves a job as another program would.
    pub async fn save(&self, id: &str, based_on: i64, job: &Value) {
        let body = serde_json::json!({ "based_on": based_on, "change": "Elsewhere", "job": job });
        let address = self.url(&format!("api/v1/jobs/{id}"));
        let answer = reqwest::Client::new().put(address).json(&body).send().await.expect("an answer");
        assert!(answer.status().is_success(), "{}", answer.status());
    }

    /// Chooses a theme, as another window would.
    pub async fn theme(&self, theme: &str) {
        let body = serde_json::json!({ "theme": theme });
        let answer = reqwest::Client::new().put(self.url("api/v1/preferences")).json(&body).send().await;
        assert!(answer.expect("an answer").status().is_success());
    }

    /// A stored job's document.
    pub async fn job(&self, id: &str) -> Value {
        let body: Value =
            reqwest::get(self.url(&format!("api/v1/jobs/{id}"))).await.expect("the job").json().await.expect("a job");
        body["job"].clone()
    }

    /// Waits until a place of the stored job, by its JSON pointer, is as it should be. What a press leads to may be
    /// asked of Tolva first, so that "Saved" in the header can still be that of the change before.
    pub async fn holds_where(&self, id: &str, pointer: &str, good: impl Fn(&Value) -> bool) {
        settle(|| async {
            let found = self.job(id).await.pointer(pointer).cloned().unwrap_or(Value::Null);
            if good(&found) { Ok(()) } else { Err(format!("{pointer} is {found}")) }
        })
        .await;
    }

    /// Waits until a place of the stored job is this; null is also where there is none.
    pub async fn holds(&self, id: &str, pointer: &str, wanted: impl Into<Value>) {
        let wanted = wanted.into();
        self.holds_where(id, pointer, |found| {
            let near = found.as_f64().zip(wanted.as_f64()).is_some_and(|(a, b)| (a - b).abs() < 1e-6);
            near || *found == wanted
        })
        .await;
    }
}

impl Drop for Tolva {
    fn drop(&mut self) {
        self.kill();
    }
}
