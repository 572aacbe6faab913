//! The rate of `solve` over loopback, as a ratio to a bare JSON echo of the same server in the same run.
//!
//! Both get the same body over the same number of connections, in turns, so that whatever else the machine does falls
//! on both. A number of requests, not a time: it stops by itself.

#[path = "../tests/api/running.rs"]
#[allow(dead_code, reason = "the tests use more of it")]
mod running;

use std::time::{Duration, Instant};

use running::Running;
use serde_json::{Value, json};

const CONNECTIONS: usize = 8;
const REQUESTS: usize = 400;
const ROUNDS: usize = 5;

fn main() {
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build().expect("a runtime");
    runtime.block_on(compare());
}

async fn compare() {
    let tolva = Running::start();
    let job: Value =
        serde_json::from_str(include_str!("../../../demo/ropeworks-open-day.json")).expect("the demo data");
    let body = json!({ "setup": job["setups"][0], "kit": job["kit"] });
    let (mut echo, mut solve) = (Duration::ZERO, Duration::ZERO);
    for round in 0..=ROUNDS {
        let once = (load(&tolva, "api/v1/echo", &body).await, load(&tolva, "api/v1/solve", &body).await);
        // The first round warms up.
        if round > 0 {
            echo += once.0;
            solve += once.1;
        }
    }
    let all = u32::try_from(ROUNDS * CONNECTIONS * REQUESTS).expect("a small number");
    let rate = |time: Duration| f64::from(all) / time.as_secs_f64();
    println!("echo:  {:>7.0} requests/s", rate(echo));
    println!("solve: {:>7.0} requests/s", rate(solve));
    println!("ratio of solve to echo: {:.2}", rate(solve) / rate(echo));
}

async fn load(tolva: &Running, path: &str, body: &Value) -> Duration {
    let start = Instant::now();
    let connections = (0..CONNECTIONS).map(|_| {
        let (client, url, body) = (tolva.client.clone(), tolva.url(path), body.clone());
        tokio::spawn(async move {
            for _ in 0..REQUESTS {
                let answer = client.post(&url).json(&body).send().await.expect("an answer");
                assert!(answer.status().is_success());
                answer.bytes().await.expect("a body");
            }
        })
    });
    for connection in connections.collect::<Vec<_>>() {
        connection.await.expect("all requests");
    }
    start.elapsed()
}
