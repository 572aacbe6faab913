//! Running browsers. Starting one takes longer than many a test, so the next test gets the one that a test has closed: empty,
//! and with no other beside it.

use std::os::unix::process::CommandExt as _;
use std::process::{Child, Command, Stdio};
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

use tempfile::TempDir;

use crate::server::free_port;

const PATIENCE: Duration = Duration::from_secs(30);
const GLANCE: Duration = Duration::from_millis(20);

/// Closed ones, the last on top.
static CLOSED: Mutex<Vec<Chromium>> = Mutex::new(Vec::new());

/// What Chromium is told, and what a ChromeDriver that starts one itself would tell it.
const ARGUMENTS: [&str; 20] = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--force-device-scale-factor=1",
    // Tolva makes its certificate itself.
    "--ignore-certificate-errors",
    // Whatever is not this machine has no address.
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
    "--remote-debugging-port=0",
    "--enable-automation",
    "--test-type=webdriver",
    "--disable-default-apps",
    "--disable-hang-monitor",
    "--disable-popup-blocking",
    "--disable-prompt-on-repost",
    "--password-store=basic",
    "about:blank",
];

/// Ends both, and the folder of the profile, when the pipe to it is closed: when this is dropped, and also when the program
/// of the tests is killed.
const WATCHED: &str = "set -m; profile=$1; port=$2; shift 2
chromedriver \"--port=$port\" & driver=$!
chromium \"--user-data-dir=$profile\" \"$@\" & chromium=$!
cat
kill -KILL -- -$driver -$chromium
wait
rm -rf \"$profile\"";

/// A Chromium with a profile of its own, and its ChromeDriver.
pub(crate) struct Chromium {
    watcher: Child,
    /// Where its ChromeDriver is.
    pub driver: String,
    /// Where ChromeDriver finds it.
    pub debugger: String,
}

impl Chromium {
    /// One that was closed, or a new one.
    pub async fn take() -> Self {
        let closed = CLOSED.lock().unwrap_or_else(PoisonError::into_inner).pop();
        match closed {
            Some(chromium) => chromium,
            None => Self::start().await,
        }
    }

    /// Leaves it to the next.
    pub fn leave(self) {
        CLOSED.lock().unwrap_or_else(PoisonError::into_inner).push(self);
    }

    async fn start() -> Self {
        let profile = TempDir::new().expect("a folder").keep();
        let port = free_port();
        let watcher = Command::new("bash")
            .args(["-c", WATCHED, "watcher"])
            .arg(&profile)
            .arg(port.to_string())
            .args(ARGUMENTS)
            .stdin(Stdio::piped())
            .stdout(Stdio::null())
            .stderr(Stdio::null())
            // A press of Ctrl+C ends the tests, and then the watcher does its work.
            .process_group(0)
            .spawn()
            .expect("bash is missing");
        let start = Instant::now();
        let debugger = loop {
            // Chromium writes where it listens, when it does.
            let told = std::fs::read_to_string(profile.join("DevToolsActivePort")).unwrap_or_default();
            if let Some((debugger, _)) = told.split_once('\n') {
                break format!("127.0.0.1:{debugger}");
            }
            assert!(start.elapsed() < PATIENCE, "chromium does not start: cargo verify installs it");
            tokio::time::sleep(GLANCE).await;
        };
        Self { watcher, driver: format!("http://127.0.0.1:{port}"), debugger }
    }
}

impl Drop for Chromium {
    fn drop(&mut self) {
        drop(self.watcher.stdin.take());
        let _ = self.watcher.wait();
    }
}
