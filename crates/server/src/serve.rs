//! Listening, and stopping well.

use std::net::{IpAddr, SocketAddr, TcpListener};
use std::sync::Arc;
use std::time::Duration;

use actix_web::dev::{Server, ServerHandle};
use actix_web::middleware::{Compress, from_fn};
use actix_web::web::{self, Data, PathConfig, QueryConfig};
use actix_web::{App, HttpServer};
use rustls::ServerConfig;
use thiserror::Error;
use tokio::sync::mpsc;
use tolva_store::Store;
use tracing::Level;
use tracing_actix_web::TracingLogger;
use tracing_subscriber::Layer as _;
use tracing_subscriber::filter::Targets;
use tracing_subscriber::fmt::format::FmtSpan;
use tracing_subscriber::layer::SubscriberExt as _;
use tracing_subscriber::util::SubscriberInitExt as _;
use utoipa_actix_web::AppExt as _;

use crate::frames::{Frames, watch};
use crate::guard::{Hosts, guard};
use crate::live::Live;
use crate::phones::{Order, Phones, Reach};
use crate::proofs::Proofs;
use crate::{api, assets, gone};

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
    let asked = std::env::var("RUST_LOG").ok().and_then(|levels| levels.parse::<Targets>().ok());
    let usual = || Targets::new().with_default(Level::WARN).with_target("tolva", Level::INFO);
    let lines = tracing_subscriber::fmt::layer().json().with_span_events(FmtSpan::CLOSE).with_writer(std::io::stderr);
    tracing_subscriber::registry().with(lines.with_filter(asked.unwrap_or_else(usual))).init();
}

/// What all requests share, by whichever way they come.
#[derive(Clone)]
struct Shared {
    hosts: Data<Hosts>,
    store: Data<Store>,
    receivers: Data<api::Receivers>,
    proofs: Data<Proofs>,
    frames: Data<Frames>,
    live: Data<Live>,
    phones: Data<Phones>,
}

/// A server at a listener; over TLS where it is given a certificate: then for phones.
fn listening(shared: &Shared, listener: TcpListener, tls: Option<ServerConfig>) -> std::io::Result<Server> {
    let shared = shared.clone();
    let reach = if tls.is_some() { Reach::Air } else { Reach::Here };
    let server = HttpServer::new(move || {
        App::new()
            .into_utoipa_app()
            .app_data(reach)
            .app_data(shared.hosts.clone())
            .app_data(shared.store.clone())
            .app_data(shared.receivers.clone())
            .app_data(shared.proofs.clone())
            .app_data(shared.frames.clone())
            .app_data(shared.live.clone())
            .app_data(shared.phones.clone())
            .configure(api::routes)
            .into_app()
            .app_data(QueryConfig::default().error_handler(api::wrong_query))
            .app_data(PathConfig::default().error_handler(api::wrong_path))
            .configure(assets::pages)
            .default_service(web::to(assets::other))
            .wrap(from_fn(guard))
            .wrap(Compress::default())
            .wrap(TracingLogger::default())
    });
    let server = server.on_connect(gone::hold);
    let server = match tls {
        // The first server is the one that is told to stop.
        Some(tls) => server.listen_rustls_0_23(listener, tls)?.workers(2).disable_signals(),
        None => server.listen(listener)?,
    };
    // An answer goes out in two parts; held back, the second would wait forty milliseconds for the first.
    Ok(server.tcp_nodelay(true).shutdown_timeout(5).run())
}

/// Opens and closes the way for phones, as it is asked to.
async fn answer_phones(shared: Shared, mut orders: mpsc::UnboundedReceiver<Order>) {
    let mut open: Option<ServerHandle> = None;
    while let Some(order) = orders.recv().await {
        if let Some(before) = open.take() {
            // What is told to devices ends first; what is being answered is answered: a store is not left in the middle.
            shared.live.put_out();
            before.stop(true).await;
        }
        if let Order::Stop(answer) = order {
            let _ = answer.send(());
        } else if let Order::Listen(listener, tls, answer) = order {
            let begun = listening(&shared, listener, Some(*tls)).map(|server| {
                open = Some(server.handle());
                actix_web::rt::spawn(server);
            });
            let _ = answer.send(begun);
        }
    }
}

/// Serves until it is told to stop (Ctrl C or a termination signal), then lets what is under way finish.
pub async fn serve(store: Store, at: Serving, ready: impl FnOnce(&str)) -> Result<(), ServeError> {
    let wanted = SocketAddr::new(at.address, at.port);
    let listener = TcpListener::bind(wanted).map_err(|error| ServeError::Listen(wanted, error))?;
    let address = listener.local_addr()?;
    let (give, orders) = mpsc::unbounded_channel();
    let phones = Phones::of(store.clone(), give).await.map_err(std::io::Error::other)?;
    let live = Data::new(Live::default());
    let shared = Shared {
        hosts: Data::new(Hosts::new(address, &at.allow_hosts)),
        store: Data::new(store.clone()),
        receivers: Data::new(api::Receivers::default()),
        proofs: Data::new(Proofs::default()),
        frames: Data::new(Frames::new(Arc::clone(&live))),
        live,
        phones: Data::new(phones),
    };
    let (proofs, frames) = (shared.proofs.clone(), shared.frames.clone());
    let watching = actix_web::rt::spawn(watch(store.clone(), Arc::clone(&frames), Arc::clone(&proofs)));
    let ending = actix_web::rt::spawn(end_telling(shared.live.clone()));
    let server = listening(&shared, listener, None)?;
    let answering = actix_web::rt::spawn(answer_phones(shared.clone(), orders));
    tracing::info!(%address, "listening");
    ready(&format!("http://{address}/"));
    let upkeep = actix_web::rt::spawn(keep_up(store.clone(), at.backups));
    server.await?;
    tokio::time::timeout(Duration::from_secs(10), shared.phones.close()).await.ok();
    upkeep.abort();
    watching.abort();
    ending.abort();
    answering.abort();
    store.close().await;
    tracing::info!("stopped");
    Ok(())
}

/// Ends what screens listen to when the server is told to stop: they would keep it from stopping.
async fn end_telling(live: Data<Live>) {
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
    live.close();
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
