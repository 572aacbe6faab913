//! Many clients on one job: of each round one wins, and every other is shown the winner's version.

use reqwest::{Client, Method, StatusCode};
use serde_json::Value;

use super::Report;
use super::client::{add, ask, demo_jobs, save};
use crate::Tolva;

/// So many clients, so many rounds.
pub async fn races(clients: usize, rounds: usize) -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let job = demo_jobs().remove(1);
    let id = add(&client, &tolva, &job).await;
    let url = tolva.url(&format!("api/v1/jobs/{id}"));
    let mut faults = Vec::new();
    let mut based_on = 1;
    for round in 0..rounds {
        let saves = (0..clients).map(|saver| {
            let (client, url) = (client.clone(), url.clone());
            let body = save(&job, based_on, &format!("round {round}, saver {saver}"));
            tokio::spawn(async move { ask(&client, Method::PUT, url, Some(&body)).await.expect("an answer") })
        });
        let mut answers: Vec<(StatusCode, Value)> = Vec::new();
        for save in saves.collect::<Vec<_>>() {
            answers.push(save.await.expect("joined"));
        }
        let won: Vec<&Value> =
            answers.iter().filter(|(status, _)| *status == StatusCode::OK).map(|(_, body)| body).collect();
        let [winner] = won.as_slice() else {
            faults.push(format!("round {round}: {} won", won.len()));
            break;
        };
        for (status, problem) in answers.iter().filter(|(status, _)| *status != StatusCode::OK) {
            if *status != StatusCode::CONFLICT || problem["theirs"]["job"] != winner["job"] {
                faults.push(format!("round {round}: a loser was answered {status}"));
            }
        }
        based_on = winner["revision"].as_i64().unwrap_or_default();
    }
    Report::of(format!("{rounds} races of {clients} clients"), faults)
}
