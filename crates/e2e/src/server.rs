//! A running `tolva`.

use std::io::{BufRead as _, BufReader};
use std::net::TcpListener;
use std::path::PathBuf;
use std::process::{Child, Command, Stdio};

use tempfile::TempDir;

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

/// A port that was free a moment ago.
pub(crate) fn free_port() -> u16 {
    let listener = TcpListener::bind("127.0.0.1:0").expect("a free port");
    listener.local_addr().expect("its address").port()
}

impl Tolva {
    /// Starts with the demo data, imported from its files.
    pub fn with_demo_data() -> Self {
        let folder = TempDir::new().expect("a folder");
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
                .arg(folder.path().join("tolva.sqlite"))
                .arg(demo.join(file))
                .stdout(Stdio::null())
                .status()
                .expect("tolva import");
            assert!(done.success(), "the demo data was not imported");
        }
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
        let jobs: serde_json::Value =
            reqwest::get(self.url("api/v1/jobs")).await.expect("the jobs").json().await.expect("a list");
        let found = jobs["jobs"].as_array().expect("a list").iter().find(|job| job["name"] == name);
        found.expect("the job")["id"].as_str().expect("its id").to_owned()
    }

    /// Saves a job as another program would.
    pub async fn save(&self, id: &str, based_on: i64, job: &serde_json::Value) {
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
    pub async fn job(&self, id: &str) -> serde_json::Value {
        let body: serde_json::Value =
            reqwest::get(self.url(&format!("api/v1/jobs/{id}"))).await.expect("the job").json().await.expect("a job");
        body["job"].clone()
    }
}

impl Drop for Tolva {
    fn drop(&mut self) {
        self.kill();
    }
}
