//! A disk that fills up, as a file system of three megabytes: every write is refused as such, none that was acknowledged
//! is lost, and when there is room again the next save is taken.

use std::path::Path;
use std::process::Command;

use rand::{Rng as _, SeedableRng as _};
use rand_chacha::ChaCha8Rng;
use reqwest::{Client, Method, StatusCode};
use serde_json::{Value, json};
use tempfile::TempDir;

use super::Report;
use super::client::{add, ask, demo_jobs, save};
use crate::Tolva;

/// A small file system, taken away when it is dropped.
struct SmallDisk(TempDir);

impl SmallDisk {
    /// Nothing where this machine does not let one be made: only its administrator may.
    fn new() -> Option<Self> {
        let folder = TempDir::new().ok()?;
        let made = Command::new("mount")
            .args(["-t", "tmpfs", "-o", "size=3m", "tmpfs"])
            .arg(folder.path())
            .output()
            .is_ok_and(|done| done.status.success());
        made.then_some(Self(folder))
    }
}

impl Drop for SmallDisk {
    fn drop(&mut self) {
        let _ = Command::new("umount").arg("--lazy").arg(self.0.path()).output();
    }
}

/// Takes all the room there is.
fn fill(file: &Path) {
    let mut size = 4 * 1024 * 1024;
    while size >= 512 {
        let mut bytes = std::fs::read(file).unwrap_or_default();
        bytes.resize(bytes.len() + size, 7);
        // A write that does not fit leaves what did.
        let _ = std::fs::write(file, &bytes);
        size /= 2;
    }
}

/// So many times; nothing where this machine lets no small file system be made.
pub async fn full_disk(seed: u64, rounds: u64) -> Option<Report> {
    let mut rng = ChaCha8Rng::seed_from_u64(seed);
    let job = demo_jobs().remove(1);
    let (mut faults, mut refused) = (Vec::new(), 0);
    for round in 0..rounds {
        let disk = SmallDisk::new()?;
        let mut tolva = Tolva::start(TempDir::new_in(disk.0.path()).ok()?);
        let client = Client::new();
        let id = add(&client, &tolva, &job).await;
        let url = tolva.url(&format!("api/v1/jobs/{id}"));
        let mut wrong = |what: String| faults.push(format!("round {round}: {what}"));
        let ballast = disk.0.path().join("ballast");
        fill(&ballast);
        let (mut notes, mut revision) = (job["notes"].as_str().unwrap_or_default().to_owned(), 1);
        let mut preferences: Option<Value> = None;
        for number in 0..30 {
            let noise: String = (0..3000).map(|_| char::from(rng.random_range(b'a'..=b'z'))).collect();
            let text = format!("{number}{noise}");
            match ask(&client, Method::PUT, url.clone(), Some(&save(&job, revision, &text))).await {
                Some((StatusCode::OK, saved)) => (notes, revision) = (text, saved["revision"].as_i64().unwrap_or(0)),
                Some((StatusCode::INSUFFICIENT_STORAGE, _)) => refused += 1,
                other => {
                    wrong(format!("a save was answered {:?}", other.map(|(status, body)| (status, body.to_string()))));
                }
            }
            let wanted = json!(if number % 2 == 0 { ["depth"] } else { ["low_iso"] });
            let body = json!({ "defaults": { "preferences": wanted } });
            match ask(&client, Method::PUT, tolva.url("api/v1/preferences"), Some(&body)).await {
                Some((StatusCode::OK, _)) => preferences = Some(wanted),
                Some((StatusCode::INSUFFICIENT_STORAGE, _)) => refused += 1,
                other => wrong(format!("preferences were answered {:?}", other.map(|(status, _)| status))),
            }
        }
        if ask(&client, Method::GET, url.clone(), None).await.is_none_or(|(status, _)| status != StatusCode::OK) {
            wrong("the job cannot be read while the disk is full".to_owned());
        }
        std::fs::remove_file(&ballast).ok()?;
        match ask(&client, Method::PUT, url.clone(), Some(&save(&job, revision, "room again"))).await {
            Some((StatusCode::OK, _)) => "room again".clone_into(&mut notes),
            other => wrong(format!("with room again a save was answered {:?}", other.map(|(status, _)| status))),
        }
        tolva.kill();
        tolva.run();
        let there = ask(&client, Method::GET, tolva.url(&format!("api/v1/jobs/{id}")), None).await?.1;
        if there["job"]["notes"] != json!(notes) {
            wrong("an acknowledged save is lost".to_owned());
        }
        let kept = ask(&client, Method::GET, tolva.url("api/v1/preferences"), None).await?.1;
        if preferences.is_some_and(|wanted| kept["defaults"]["preferences"] != wanted) {
            wrong("acknowledged preferences are lost".to_owned());
        }
    }
    Some(Report::of(format!("{rounds} full disks, {refused} writes refused"), faults))
}
