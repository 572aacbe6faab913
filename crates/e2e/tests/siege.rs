//! The campaign against the server in short: `cargo xtask siege` goes on for as long as it is let.

use tolva_e2e::siege::{Report, devices, documented, full_disk, heaviest_requests, hostile_files, kills, races};

fn held(report: &Report) {
    assert!(report.faults.is_empty(), "{report}");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_killed_server_loses_nothing_it_acknowledged() {
    held(&kills(1, 8).await);
}

#[tokio::test(flavor = "multi_thread")]
async fn of_many_clients_one_wins() {
    held(&races(16, 3).await);
}

/// Where this machine lets a small file system be mounted; the store's own tests fill a file everywhere.
#[tokio::test(flavor = "multi_thread")]
async fn a_full_disk_loses_nothing() {
    if let Some(report) = full_disk(1, 1).await {
        held(&report);
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn the_heaviest_within_the_limits_is_answered() {
    held(&heaviest_requests(None).await);
}

#[tokio::test(flavor = "multi_thread")]
async fn hostile_files_are_refused_in_words() {
    held(&hostile_files(1, 12).await);
}

#[tokio::test(flavor = "multi_thread")]
async fn no_device_gets_further_than_it_may() {
    held(&devices(1, 60).await);
}

/// The seeds beyond the first are those with which a search has found something.
#[tokio::test(flavor = "multi_thread")]
async fn every_answer_is_documented() {
    for (seed, requests) in [(1, 400), (14, 100), (21, 400), (1057, 450)] {
        held(&documented(seed, requests, None).await);
    }
}
