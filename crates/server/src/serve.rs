//! Listening, and stopping well.

use std::net::{IpAddr, SocketAddr, TcpListener};

use actix_web::middleware::{Compress, from_fn};
use actix_web::web::{self, Data};
use actix_web::{App, HttpServer};
use thiserror::Error;
use tolva_store::Store;
use tracing_actix_web::TracingLogger;
use tracing_subscriber::EnvFilter;
use tracing_subscriber::fmt::format::FmtSpan;
use utoipa_actix_web::AppExt as _;

use crate::guard::{Hosts, guard};
use crate::{api, assets};

/// Where to listen.
pub struct Serving {
    pub address: IpAddr,
    pub port: u16,
    pub allow_hosts: Vec<String>,
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
    let server = HttpServer::new(move || {
        App::new()
            .into_utoipa_app()
            .app_data(hosts.clone())
            .app_data(data.clone())
            .app_data(receivers.clone())
            .configure(api::routes)
            .into_app()
            .default_service(web::get().to(assets::serve))
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
    server.await?;
    store.close().await;
    tracing::info!("stopped");
    Ok(())
}
