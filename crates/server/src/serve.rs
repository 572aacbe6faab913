//! Listening, and stopping well.

use std::net::{IpAddr, SocketAddr, TcpListener};
use std::sync::Arc;
use std::time::Duration;

use actix_web::middleware::{Compress, from_fn};
use actix_web::web::{self, Data, PathConfig, QueryConfig};
use actix_web::{App, HttpServer};
use thiserror::Error;
use tolva_store::Store;
use tracing_actix_web::TracingLogger;
use tracing_subscriber::EnvFilter;
use tracing_subscriber::fmt::format::FmtSpan;
use utoipa_actix_web::AppExt as _;

use crate::frames::{Frames, watch};
use crate::guard::{Hosts, guard};
use crate::proofs::Proofs;
use crate::{api, assets};

/// Where to listen.
pub struct Serving {
    pub address: IpAddr,
    pub port: u16,
    pub allow_hosts: Vec<String>,
    /// Whether a backup is made each day.
    pub backups: bool,
}

/// Why it does not listen.
#[derive(Debug, Error)]
pub enum ServeError {
    #[error("cannot listen on {0}: {1}. Another Tolva may be there: choose another port with --port")]
    Listen(SocketAddr, std::io::Error),
    #[error("the server stopped: {0}")]
    Stopped(#[from] std::io::Error),
}

/// Logs as one JSON object a line on standard error; `RUST_LOG` chooses how much: with `info` each request is a line.
pub fn log() {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn,tolva=info"));
    tracing_subscriber::fmt()
        .json()
        .with_span_events(FmtSpan::CLOSE)
        .with_env_filter(filter)
        .with_writer(std::io::stderr)
        .init();
}

/// Serves until it is told to stop (Ctrl C or a termination signal), then lets what is under way finish.
pub async fn serve(store: Store, at: Serving, ready: impl FnOnce(&str)) -> Result<(), ServeError> {
    let wanted = SocketAddr::new(at.address, at.port);
    let listener = TcpListener::bind(wanted).map_err(|error| ServeError::Listen(wanted, error))?;
    let address = listener.local_addr()?;
    let hosts = Data::new(Hosts::new(address, &at.allow_hosts));
    let data = Data::new(store.clone());
    let receivers = Data::new(api::Receivers::default());
    let proofs = Data::new(Proofs::default());
    let frames = Data::new(Frames::default());
    let watching = actix_web::rt::spawn(watch(store.clone(), Arc::clone(&frames), Arc::clone(&proofs)));
    let ending = actix_web::rt::spawn(end_telling(Arc::clone(&frames)));
    let server = HttpServer::new(move || {
        App::new()
            .into_utoipa_app()
            .app_data(hosts.clone())
            .app_data(data.clone())
            .app_data(receivers.clone())
            .app_data(proofs.clone())
            .app_data(frames.clone())
            .configure(api::routes)
            .into_app()
            .app_data(QueryConfig::default().error_handler(api::wrong_query))
            .app_data(PathConfig::default().error_handler(api::wrong_path))
            .configure(assets::pages)
            .default_service(web::to(assets::other))
            .wrap(from_fn(guard))
            .wrap(Compress::default())
            .wrap(TracingLogger::default())
    })
    .listen(listener)?
    // An answer goes out in two parts; held back, the second would wait forty milliseconds for the first.
    .tcp_nodelay(true)
    .shutdown_timeout(5)
    .run();
    tracing::info!(%address, "listening");
    ready(&format!("http://{address}/"));
    let upkeep = actix_web::rt::spawn(keep_up(store.clone(), at.backups));
    server.await?;
    upkeep.abort();
    watching.abort();
    ending.abort();
    store.close().await;
    tracing::info!("stopped");
    Ok(())
}

/// Ends what screens listen to when the server is told to stop: they would keep it from stopping.
async fn end_telling(frames: Arc<Frames>) {
    let interrupted = tokio::signal::ctrl_c();
    #[cfg(unix)]
    {
        let Ok(mut terminated) = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate()) else {
            return;
        };
        tokio::select! { _ = interrupted => {}, _ = terminated.recv() => {} }
    }
    #[cfg(not(unix))]
    let _ = interrupted.await;
    frames.close();
}

/// So often is looked whether something is to be done.
const BETWEEN: Duration = Duration::from_hours(1);

/// Empties the bin, thins out what is old and makes the day's backup: at the start, and from then on.
async fn keep_up(store: Store, backups: bool) {
    loop {
        if backups && let Err(error) = store.backup_of_the_day().await {
            tracing::warn!(%error, "no backup was made");
        }
        if !store.read_only()
            && let Err(error) = store.upkeep().await
        {
            tracing::warn!(%error, "the data file was not kept up");
        }
        actix_web::rt::time::sleep(BETWEEN).await;
    }
}
