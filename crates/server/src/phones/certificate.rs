//! Tolva's own certificate for the set's network: made once, kept beside the data file, known by its fingerprint.

use std::fmt::Write as _;
use std::net::IpAddr;
use std::path::{Path, PathBuf};

use rcgen::{CertificateParams, DnType, KeyPair, SanType};
use rustls::ServerConfig;
use rustls::pki_types::{CertificateDer, PrivateKeyDer, PrivatePkcs8KeyDer};
use sha2::{Digest as _, Sha256};

/// A certificate with its key, both DER.
pub struct Certificate {
    der: Vec<u8>,
    key: Vec<u8>,
}

/// Why there is none.
#[derive(Debug, thiserror::Error)]
pub enum NoCertificate {
    #[error("the certificate cannot be made: {0}")]
    Made(#[from] rcgen::Error),
    #[error("the certificate cannot be kept beside the data file: {0}")]
    Kept(#[from] std::io::Error),
    #[error("the certificate cannot be used: {0}")]
    Used(#[from] rustls::Error),
}

fn beside(data: &Path) -> (PathBuf, PathBuf) {
    (data.with_extension("phones.certificate.der"), data.with_extension("phones.key.der"))
}

impl Certificate {
    /// The one that is kept beside a data file, or a new one for these addresses.
    pub fn of(data: &Path, addresses: &[IpAddr]) -> Result<Self, NoCertificate> {
        let (certificate, key) = beside(data);
        if let (Ok(der), Ok(key)) = (std::fs::read(&certificate), std::fs::read(&key)) {
            return Ok(Self { der, key });
        }
        let mut params = CertificateParams::new(vec!["tolva.local".to_owned(), "localhost".to_owned()])?;
        params.subject_alt_names.extend(addresses.iter().copied().map(SanType::IpAddress));
        params.distinguished_name.push(DnType::CommonName, "Tolva on this set");
        let pair = KeyPair::generate()?;
        let made = params.self_signed(&pair)?;
        let made = Self { der: made.der().to_vec(), key: pair.serialize_der() };
        std::fs::write(certificate, &made.der)?;
        secret(&key, &made.key)?;
        Ok(made)
    }

    /// The SHA-256 of it, as browsers show it: `3F A2 …`.
    pub fn fingerprint(&self) -> String {
        let mut said = String::new();
        for byte in Sha256::digest(&self.der) {
            let _ = write!(said, "{}{byte:02X}", if said.is_empty() { "" } else { " " });
        }
        said
    }

    /// What a server needs to speak by it.
    pub fn config(&self) -> Result<ServerConfig, NoCertificate> {
        let chain = vec![CertificateDer::from(self.der.clone())];
        let key = PrivateKeyDer::Pkcs8(PrivatePkcs8KeyDer::from(self.key.clone()));
        let provider = std::sync::Arc::new(rustls::crypto::ring::default_provider());
        let config = ServerConfig::builder_with_provider(provider).with_safe_default_protocol_versions()?;
        Ok(config.with_no_client_auth().with_single_cert(chain, key)?)
    }
}

/// Writes what nobody else on this machine is to read.
fn secret(file: &Path, bytes: &[u8]) -> std::io::Result<()> {
    let mut options = std::fs::OpenOptions::new();
    options.write(true).create(true).truncate(true);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    std::io::Write::write_all(&mut options.open(file)?, bytes)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_is_made_once() {
        let folder = tempfile::tempdir().expect("a folder");
        let data = folder.path().join("tolva.sqlite");
        let made = Certificate::of(&data, &[[192, 168, 1, 7].into()]).expect("made");
        let again = Certificate::of(&data, &[]).expect("kept");
        assert_eq!(made.fingerprint(), again.fingerprint());
        assert_eq!(made.fingerprint().split(' ').count(), 32);
        assert!(made.config().is_ok());
    }
}
