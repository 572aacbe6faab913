//! Requests over TLS as a phone on the set makes them, with a path as it is spelt. The server's own tests use this file, too.

use std::io::{Read as _, Write as _};
use std::net::TcpStream;
use std::sync::Arc;

use rustls::client::danger::{HandshakeSignatureValid, ServerCertVerified, ServerCertVerifier};
use rustls::pki_types::{CertificateDer, ServerName, UnixTime};
use rustls::{ClientConfig, ClientConnection, DigitallySignedStruct, Error, SignatureScheme, StreamOwned};

/// Takes any certificate: whether it is the right one is for whoever holds the fingerprints against each other.
#[derive(Debug)]
struct Any;

impl ServerCertVerifier for Any {
    fn verify_server_cert(
        &self,
        _: &CertificateDer<'_>,
        _: &[CertificateDer<'_>],
        _: &ServerName<'_>,
        _: &[u8],
        _: UnixTime,
    ) -> Result<ServerCertVerified, Error> {
        Ok(ServerCertVerified::assertion())
    }
    fn verify_tls12_signature(
        &self,
        _: &[u8],
        _: &CertificateDer<'_>,
        _: &DigitallySignedStruct,
    ) -> Result<HandshakeSignatureValid, Error> {
        Ok(HandshakeSignatureValid::assertion())
    }
    fn verify_tls13_signature(
        &self,
        _: &[u8],
        _: &CertificateDer<'_>,
        _: &DigitallySignedStruct,
    ) -> Result<HandshakeSignatureValid, Error> {
        Ok(HandshakeSignatureValid::assertion())
    }
    fn supported_verify_schemes(&self) -> Vec<SignatureScheme> {
        vec![SignatureScheme::ECDSA_NISTP256_SHA256, SignatureScheme::ED25519, SignatureScheme::RSA_PSS_SHA256]
    }
}

/// An answer: its status, its head, its body.
pub struct Answer {
    /// 0 where the line was cut before one came.
    pub status: u16,
    /// All before its body.
    pub head: String,
    /// What it says.
    pub body: String,
}

/// A line over TLS on which something was asked, with what a device carries.
pub fn asked(
    port: u16,
    method: &str,
    path: &str,
    (carries, body): (&str, Option<(&str, String)>),
) -> StreamOwned<ClientConnection, TcpStream> {
    let provider = Arc::new(rustls::crypto::ring::default_provider());
    let config = ClientConfig::builder_with_provider(provider)
        .with_safe_default_protocol_versions()
        .expect("versions")
        .dangerous()
        .with_custom_certificate_verifier(Arc::new(Any))
        .with_no_client_auth();
    let name = ServerName::try_from("127.0.0.1").expect("an address");
    let connection = ClientConnection::new(Arc::new(config), name).expect("a connection");
    let mut line = StreamOwned::new(connection, TcpStream::connect(("127.0.0.1", port)).expect("it listens"));
    let cookie = if carries.is_empty() { String::new() } else { format!("Cookie: tolva-device={carries}\r\n") };
    let (kind, text) = body.map_or_else(
        || (String::new(), String::new()),
        |(kind, text)| (format!("Content-Type: {kind}\r\nContent-Length: {}\r\n", text.len()), text),
    );
    write!(
        line,
        "{method} {path} HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nOrigin: https://127.0.0.1:{port}\r\n{cookie}{kind}\
         Accept-Encoding: identity\r\nConnection: close\r\n\r\n{text}"
    )
    .expect("asked");
    line
}

/// A request over TLS, with what a device carries.
pub fn ask(port: u16, method: &str, path: &str, with: (&str, Option<(&str, String)>)) -> Answer {
    let mut line = asked(port, method, path, with);
    let mut all = Vec::new();
    // The other side may close without saying so.
    let _ = line.read_to_end(&mut all);
    let all = String::from_utf8_lossy(&all).into_owned();
    let (head, body) = all.split_once("\r\n\r\n").unwrap_or((&all, ""));
    let status = head.split(' ').nth(1).and_then(|status| status.parse().ok()).unwrap_or_default();
    Answer { status, head: head.to_owned(), body: body.to_owned() }
}

/// Other spellings of a path: each letter in turn as its percent-code, all of them, codes of codes, slashes and question marks
/// more than there should be.
pub fn spellings(path: &str) -> Vec<String> {
    let coded = |at: usize, letter: char, lower: bool| {
        let code = if lower { format!("%{:02x}", letter as u32) } else { format!("%{:02X}", letter as u32) };
        format!("{}{code}{}", &path[..at], &path[at + 1..])
    };
    let letters = || path.char_indices().skip(1);
    let each = letters().flat_map(|(at, letter)| [true, false].map(|lower| coded(at, letter, lower)));
    let whole = letters().fold(String::new(), |all, (_, letter)| format!("{all}%{:02x}", letter as u32));
    let twice = whole.replace('%', "%25");
    each.chain([format!("/{whole}"), format!("/{twice}"), format!("/{path}"), format!("{path}/"), format!("{path}?")])
        .collect()
}
