//! Killed at any moment, a server loses nothing that it has acknowledged: no save of a job, none of the kit, no added or
//! binned job, no preferences.

use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};

use rand::{Rng as _, SeedableRng as _};
use rand_chacha::ChaCha8Rng;
use reqwest::{Client, Method, StatusCode};
use serde_json::{Value, json};
use tokio::sync::Notify;

use super::Report;
use super::client::{add, ask, demo_jobs, save};
use crate::Tolva;

/// What one writer has been told, and what it has asked without an answer.
#[derive(Clone, Default)]
struct Known {
    acknowledged: String,
    asked: String,
    /// What it was answered instead of an acknowledgement, where the server was still there.
    refused: Option<String>,
}

impl Known {
    fn holds(&self, there: &str) -> bool {
        there == self.acknowledged || there == self.asked
    }
}

/// Counts acknowledgements, and tells when there are enough.
struct Count {
    acknowledged: AtomicU64,
    enough: u64,
    reached: Notify,
}

impl Count {
    fn one_more(&self) {
        if self.acknowledged.fetch_add(1, Ordering::Relaxed) + 1 == self.enough {
            self.reached.notify_one();
        }
    }
}

/// One writer, from a round's beginning until the server is gone.
struct Writer {
    client: Client,
    known: Known,
    count: Arc<Count>,
    round: u64,
}

impl Writer {
    /// Writes again and again; `request` gives for each text what is asked, or nothing where the last answer leaves no
    /// way on.
    async fn write(mut self, mut request: impl FnMut(&str, Option<&Value>) -> (Method, String, Value)) -> Known {
        let mut last = None;
        for number in 0_u64.. {
            let text = format!("round {}, write {number}", self.round);
            let (method, url, body) = request(&text, last.as_ref());
            self.known.asked.clone_from(&text);
            match ask(&self.client, method, url, Some(&body)).await {
                Some((status, answer)) if status.is_success() => {
                    self.known.acknowledged = text;
                    last = Some(answer);
                    self.count.one_more();
                }
                answer => {
                    self.known.refused = answer.map(|(status, body)| format!("{status} {}", body["detail"]));
                    break;
                }
            }
        }
        // Nobody waits for a writer that has given up.
        self.count.reached.notify_one();
        self.known
    }
}

/// A blend that stands for a text: preferences have no place for words. Lift goes from −6 to 3 stops.
fn blend(text: &str) -> Value {
    let number = text.bytes().fold(0_u32, |sum, byte| (sum * 31 + u32::from(byte)) % 8999);
    json!({ "lift": { "subject_stops": f64::from(number) / 1000.0 - 6.0, "background_stops": 0.0 } })
}

/// Kills a server so many times.
#[expect(clippy::too_many_lines, reason = "one round from its beginning to its end")]
pub async fn kills(seed: u64, rounds: u64) -> Report {
    let mut rng = ChaCha8Rng::seed_from_u64(seed);
    let mut tolva = Tolva::empty();
    let client = Client::new();
    let job = demo_jobs().remove(1);
    let id = add(&client, &tolva, &job).await;
    let binned = add(&client, &tolva, &job).await;
    let (mut faults, mut acknowledged) = (Vec::new(), 0);
    let [mut notes, mut stand, mut theme] = [(); 3].map(|()| Known::default());
    notes.acknowledged = job["notes"].as_str().unwrap_or_default().to_owned();
    let mut jobs = 2;
    for round in 0..rounds {
        let (_, now) = ask(&client, Method::GET, tolva.url(&format!("api/v1/jobs/{id}")), None).await.expect("a job");
        let (_, kit) = ask(&client, Method::GET, tolva.url("api/v1/kit"), None).await.expect("the kit");
        let count = Arc::new(Count {
            acknowledged: AtomicU64::new(0),
            enough: rng.random_range(1..40),
            reached: Notify::new(),
        });
        let writer =
            |known: &Known| Writer { client: Client::new(), known: known.clone(), count: Arc::clone(&count), round };
        let revision =
            |answer: Option<&Value>, before: &Value| answer.unwrap_or(before)["revision"].as_i64().unwrap_or(1);
        let (job_url, kit_url) = (tolva.url(&format!("api/v1/jobs/{id}")), tolva.url("api/v1/kit"));
        let saves = tokio::spawn(writer(&notes).write({
            let (job, now) = (job.clone(), now.clone());
            move |text, last| (Method::PUT, job_url.clone(), save(&job, revision(last, &now), text))
        }));
        let kits = tokio::spawn(writer(&stand).write(move |text, last| {
            let mut things = kit["kit"].clone();
            things["stands"][0]["name"] = json!(text);
            let body = json!({ "based_on": revision(last, &kit), "change": "Name", "kit": things });
            (Method::PUT, kit_url.clone(), body)
        }));
        let preferences_url = tolva.url("api/v1/preferences");
        let preferences = tokio::spawn(writer(&theme).write(move |text, _| {
            (Method::PUT, preferences_url.clone(), json!({ "defaults": { "blend": blend(text) } }))
        }));
        let bins = {
            let (client, url, count) = (Client::new(), tolva.url(&format!("api/v1/jobs/{binned}")), Arc::clone(&count));
            tokio::spawn(async move {
                let (mut known, mut asked) = (None, None);
                for number in 0_u64.. {
                    let into = number % 2 == 0;
                    asked = Some(into);
                    let (method, url) =
                        if into { (Method::DELETE, url.clone()) } else { (Method::POST, format!("{url}/restore")) };
                    match ask(&client, method, url, None).await {
                        Some((status, _)) if status.is_success() => known = Some(into),
                        _ => break,
                    }
                    count.one_more();
                }
                (known, asked)
            })
        };
        let adds = {
            let (client, url, job, count) = (Client::new(), tolva.url("api/v1/jobs"), job.clone(), Arc::clone(&count));
            tokio::spawn(async move {
                let (mut added, mut asked) = (0_u64, 0_u64);
                // A few: the list stays short.
                while asked < 3 {
                    asked += 1;
                    match ask(&client, Method::POST, url.clone(), Some(&job)).await {
                        Some((StatusCode::CREATED, _)) => added += 1,
                        _ => break,
                    }
                    count.one_more();
                }
                (added, asked)
            })
        };
        count.reached.notified().await;
        tolva.kill();
        notes = saves.await.expect("joined");
        stand = kits.await.expect("joined");
        theme = preferences.await.expect("joined");
        let (was_binned, asked_binned) = bins.await.expect("joined");
        let (added, asked) = adds.await.expect("joined");
        acknowledged += count.acknowledged.load(Ordering::Relaxed);
        tolva.run();

        let get = async |path: String| ask(&client, Method::GET, tolva.url(&path), None).await.expect("an answer").1;
        let there = get(format!("api/v1/jobs/{id}")).await;
        let mut lost = |held: bool, what: String| {
            if !held {
                faults.push(format!("round {round}: {what}"));
            }
        };
        for known in [&mut notes, &mut stand, &mut theme] {
            if let Some(refused) = known.refused.take() {
                lost(false, format!("a write was answered {refused}"));
            }
        }
        let text = there["job"]["notes"].as_str().unwrap_or_default().to_owned();
        lost(notes.holds(&text), format!("the job says “{text}”, acknowledged was “{}”", notes.acknowledged));
        let kit = get("api/v1/kit".to_owned()).await;
        let name = kit["kit"]["stands"][0]["name"].as_str().unwrap_or_default().to_owned();
        let held = stand.acknowledged.is_empty() || stand.holds(&name);
        lost(held, format!("the kit says “{name}”, acknowledged was “{}”", stand.acknowledged));
        let kept = get("api/v1/preferences".to_owned()).await["defaults"]["blend"].clone();
        let held = theme.acknowledged.is_empty() || kept == blend(&theme.acknowledged) || kept == blend(&theme.asked);
        lost(held, format!("the preferences say {kept}"));
        let bin = get("api/v1/jobs?binned=true&limit=200".to_owned()).await;
        let is = bin["jobs"].as_array().is_some_and(|all| all.iter().any(|one| one["id"] == json!(binned)));
        let held = was_binned.is_none() || Some(is) == was_binned || Some(is) == asked_binned;
        lost(held, format!("binned is {is}, acknowledged was {was_binned:?}"));
        let all = get("api/v1/jobs".to_owned()).await["total"].as_u64().unwrap_or_default()
            + bin["total"].as_u64().unwrap_or_default();
        lost(
            (jobs + added..=jobs + asked).contains(&all),
            format!("{all} jobs are there, {} were added", jobs + added),
        );
        jobs = all;
        // What was taken though its answer was lost is what there is now.
        notes.acknowledged = text;
        stand.acknowledged = name;
        if kept == blend(&theme.asked) {
            theme.acknowledged.clone_from(&theme.asked);
        }
        if bin["total"].as_u64().unwrap_or_default() > 0 {
            ask(&client, Method::POST, tolva.url(&format!("api/v1/jobs/{binned}/restore")), None).await;
        }
    }
    Report::of(format!("{rounds} kills, {acknowledged} acknowledged writes, {} lost", faults.len()), faults)
}
