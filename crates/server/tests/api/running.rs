//! A running `tolva serve` with a data file of its own.

use std::io::{BufRead as _, BufReader};
use std::process::{Child, ChildStdout, Command, Stdio};

use reqwest::{Client, StatusCode};
use serde_json::Value;
use tempfile::TempDir;

#[path = "../../../e2e/src/timed.rs"]
mod timed;
use timed::Timed;

pub struct Running {
    pub client: Client,
    pub port: u16,
    child: Child,
    #[allow(dead_code, reason = "kept open, so that what it says has somewhere to go")]
    says: BufReader<ChildStdout>,
    folder: TempDir,
    arguments: Vec<String>,
    _timed: Timed,
}

impl Running {
    pub fn start() -> Self {
        Self::with(&[])
    }

    pub fn with(arguments: &[&str]) -> Self {
        let timed = Timed::begin();
        let folder = TempDir::new().expect("a folder");
        let arguments: Vec<String> = arguments.iter().map(|&argument| argument.to_owned()).collect();
        let (child, says, port) = launch(&folder, &arguments);
        Self { client: Client::new(), port, child, says, folder, arguments, _timed: timed }
    }

    /// Kills it (SIGKILL on Unix) and starts it again on the same data file.
    pub fn kill_and_start_again(&mut self) {
        self.child.kill().expect("killed");
        self.child.wait().expect("gone");
        let (child, says, port) = launch(&self.folder, &self.arguments);
        (self.child, self.says, self.port) = (child, says, port);
        self.client = Client::new();
    }

    pub fn url(&self, path: &str) -> String {
        format!("http://127.0.0.1:{}/{path}", self.port)
    }

    pub async fn get(&self, path: &str) -> (StatusCode, Value) {
        answer(self.client.get(self.url(path))).await
    }

    pub async fn post(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.client.post(self.url(path)).json(body)).await
    }

    pub async fn put(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        answer(self.client.put(self.url(path)).json(body)).await
    }
}

async fn answer(request: reqwest::RequestBuilder) -> (StatusCode, Value) {
    let answer = request.send().await.expect("an answer");
    let status = answer.status();
    let body = answer.bytes().await.expect("a body");
    (status, if body.is_empty() { Value::Null } else { serde_json::from_slice(&body).expect("JSON") })
}

fn launch(folder: &TempDir, arguments: &[String]) -> (Child, BufReader<ChildStdout>, u16) {
    let mut child = Command::new(env!("CARGO_BIN_EXE_tolva"))
        .args(["serve", "--port", "0", "--data"])
        .arg(folder.path().join("tolva.sqlite"))
        .args(arguments)
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .spawn()
        .expect("tolva serve");
    let mut says = BufReader::new(child.stdout.take().expect("its output"));
    let mut line = String::new();
    says.read_line(&mut line).expect("where it is");
    let port = line.trim().trim_end_matches('/').rsplit(':').next().and_then(|port| port.parse().ok());
    (child, says, port.unwrap_or_else(|| panic!("no port in “{line}”")))
}

impl Drop for Running {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
