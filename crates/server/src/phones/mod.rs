//! Phones and tablets on the set's own network: a code that is good for two minutes and one device, over TLS with Tolva's
//! own certificate; what each device may do.

mod caller;
mod certificate;

use std::collections::HashMap;
use std::net::{IpAddr, Ipv4Addr, SocketAddr, TcpListener, UdpSocket};
use std::sync::atomic::{AtomicU16, Ordering};
use std::sync::{Mutex, PoisonError, RwLock};
use std::time::{Duration, Instant};

use rustls::ServerConfig;
use sha2::{Digest as _, Sha256};
use tokio::sync::{mpsc, oneshot};
use tolva_store::{Device, Rights, Store, StoreError};
use uuid::Uuid;

pub use caller::{Caller, Reach};
pub use certificate::{Certificate, NoCertificate};

/// So long a code is good.
pub const CODE_LASTS: Duration = Duration::from_mins(2);
/// What a device carries is called so.
pub const COOKIE: &str = "tolva-device";

/// What the main thread is asked to do.
pub enum Order {
    /// Listen here, by this certificate; the answer is whether it does.
    Listen(TcpListener, Box<ServerConfig>, oneshot::Sender<std::io::Result<()>>),
    /// Listen no more; answered when nothing listens any more.
    Stop(oneshot::Sender<()>),
}

#[derive(Clone, Debug)]
struct Code {
    says: String,
    until: Instant,
    rights: Rights,
}

/// How phones reach this Tolva.
#[derive(Clone, Debug)]
pub struct Serving {
    /// Where.
    pub address: SocketAddr,
    /// What its certificate is known by.
    pub fingerprint: String,
}

/// Why phones cannot be let in.
#[derive(Debug, thiserror::Error)]
pub enum NoPhones {
    #[error(transparent)]
    Certificate(#[from] NoCertificate),
    #[error("nothing can be listened to: {0}")]
    Listen(#[from] std::io::Error),
    #[error("the server is stopping")]
    Stopping,
}

/// The devices there are, and who may come.
pub struct Phones {
    store: Store,
    devices: RwLock<HashMap<String, Device>>,
    codes: Mutex<Vec<Code>>,
    serving: Mutex<Option<Serving>>,
    /// Where it was reached last.
    port: AtomicU16,
    orders: mpsc::UnboundedSender<Order>,
}

/// The hash by which what a device carries is known.
fn hash(token: &str) -> String {
    format!("{:x}", Sha256::digest(token.as_bytes()))
}

/// Where this machine is on its network: nothing is sent to find out.
fn own_address() -> IpAddr {
    let found = UdpSocket::bind((Ipv4Addr::UNSPECIFIED, 0)).and_then(|socket| {
        // A documentation address (RFC 5737): it only chooses the way out.
        socket.connect((Ipv4Addr::new(192, 0, 2, 1), 9))?;
        socket.local_addr()
    });
    found.map_or(IpAddr::V4(Ipv4Addr::LOCALHOST), |address| address.ip())
}

impl Phones {
    /// Those that were let in before.
    pub async fn of(store: Store, orders: mpsc::UnboundedSender<Order>) -> Result<Self, StoreError> {
        let devices = store.devices().await?.into_iter().map(|device| (device.token_hash.clone(), device)).collect();
        Ok(Self {
            store,
            devices: RwLock::new(devices),
            codes: Mutex::default(),
            serving: Mutex::default(),
            port: AtomicU16::new(PORT),
            orders,
        })
    }

    /// How they reach this Tolva; nothing where they do not.
    pub fn serving(&self) -> Option<Serving> {
        self.serving.lock().unwrap_or_else(PoisonError::into_inner).clone()
    }

    /// Lets phones reach this Tolva, from now on.
    pub async fn open(&self) -> Result<Serving, NoPhones> {
        if let Some(serving) = self.serving() {
            return Ok(serving);
        }
        let ip = own_address();
        let certificate = Certificate::of(self.store.file(), &[ip, IpAddr::V4(Ipv4Addr::LOCALHOST)])?;
        // Where it was before, or the usual port, where that is free: a phone that was let in finds the same address again.
        let before = self.port.load(Ordering::Relaxed);
        let bound = |port: u16| TcpListener::bind((Ipv4Addr::UNSPECIFIED, port));
        let listener = bound(before).or_else(|_| bound(PORT)).or_else(|_| bound(0))?;
        let address = SocketAddr::new(ip, listener.local_addr()?.port());
        let (answer, answered) = oneshot::channel();
        let order = Order::Listen(listener, Box::new(certificate.config()?), answer);
        self.orders.send(order).map_err(|_| NoPhones::Stopping)?;
        answered.await.map_err(|_| NoPhones::Stopping)??;
        self.port.store(address.port(), Ordering::Relaxed);
        let serving = Serving { address, fingerprint: certificate.fingerprint() };
        *self.serving.lock().unwrap_or_else(PoisonError::into_inner) = Some(serving.clone());
        Ok(serving)
    }

    /// Phones no longer reach it; those that were let in may come again when it is opened again.
    pub async fn close(&self) {
        *self.serving.lock().unwrap_or_else(PoisonError::into_inner) = None;
        self.codes.lock().unwrap_or_else(PoisonError::into_inner).clear();
        let (answer, answered) = oneshot::channel();
        if self.orders.send(Order::Stop(answer)).is_ok() {
            // Opened again at once, it gets the same address.
            let _ = answered.await;
        }
    }

    /// A new code for one device. The ones before are no longer good. It has 122 random bits and lives two minutes: at a
    /// million guesses a second the odds of finding it are one in 4 × 10²⁸, so guessing needs no limit of its own.
    pub fn code(&self, rights: Rights) -> String {
        let says = Uuid::new_v4().simple().to_string();
        let mut codes = self.codes.lock().unwrap_or_else(PoisonError::into_inner);
        codes.clear();
        codes.push(Code { says: says.clone(), until: Instant::now() + CODE_LASTS, rights });
        says
    }

    /// Lets a device in by a code: what it carries from now on. Nothing where the code is not good, or was used.
    pub async fn join(&self, code: &str, name: &str) -> Result<Option<String>, StoreError> {
        let found = {
            let mut codes = self.codes.lock().unwrap_or_else(PoisonError::into_inner);
            codes.retain(|one| one.until > Instant::now());
            let at = codes.iter().position(|one| one.says == code);
            at.map(|at| codes.swap_remove(at))
        };
        let Some(code) = found else { return Ok(None) };
        let token = format!("{}{}", Uuid::new_v4().simple(), Uuid::new_v4().simple());
        let device = Device {
            id: Uuid::new_v4().to_string(),
            name: name.to_owned(),
            token_hash: hash(&token),
            rights: code.rights,
            joined_at: String::new(),
        };
        self.store.keep_device(&device).await?;
        self.devices.write().unwrap_or_else(PoisonError::into_inner).insert(device.token_hash.clone(), device);
        Ok(Some(token))
    }

    /// The device that carries this.
    pub fn device(&self, token: &str) -> Option<Device> {
        self.devices.read().unwrap_or_else(PoisonError::into_inner).get(&hash(token)).cloned()
    }

    /// Whether somebody who came in may still be here: the machine itself, or a device that was not put out, while phones
    /// reach this Tolva.
    pub fn is_in(&self, caller: &Caller) -> bool {
        let devices = self.devices.read().unwrap_or_else(PoisonError::into_inner);
        let reached = || self.serving().is_some();
        caller.device_id.is_empty() || (reached() && devices.values().any(|device| device.id == caller.device_id))
    }

    /// All devices, the first let in first.
    pub async fn all(&self) -> Result<Vec<Device>, StoreError> {
        self.store.devices().await
    }

    /// Another name or other rights for a device; whether it is there.
    pub async fn change(&self, id: &str, name: &str, rights: Rights) -> Result<bool, StoreError> {
        let found = self.all().await?.into_iter().find(|device| device.id == id);
        let Some(device) = found else { return Ok(false) };
        let device = Device { name: name.to_owned(), rights, ..device };
        self.store.keep_device(&device).await?;
        self.devices.write().unwrap_or_else(PoisonError::into_inner).insert(device.token_hash.clone(), device);
        Ok(true)
    }

    /// Puts a device out: what it carries is worth nothing from now on. Whether it was there.
    pub async fn put_out(&self, id: &str) -> Result<bool, StoreError> {
        let done = self.store.put_out(id).await?;
        self.devices.write().unwrap_or_else(PoisonError::into_inner).retain(|_, device| device.id != id);
        Ok(done)
    }
}

/// Where phones reach it, where that is free.
const PORT: u16 = 8466;
