//! Whether whoever waits for an answer has gone away. What takes long and changes nothing ends then. Everything else is done to
//! its end: what was sent the moment before a page was closed is kept.

use std::any::Any;
use std::convert::Infallible;
use std::future::{Ready, ready};
use std::os::fd::OwnedFd;
use std::sync::Arc;
use std::time::Duration;

use actix_tls::accept::rustls_0_23::TlsStream;
use actix_web::dev::{Extensions, Payload};
use actix_web::rt::net::TcpStream;
use actix_web::{FromRequest, HttpRequest};
use rustix::event::{PollFd, PollFlags, Timespec, poll};

/// How often a line is checked while something long is under way.
const LOOK: Duration = Duration::from_millis(200);

/// A line that requests come by.
#[derive(Clone, Debug)]
struct Line(Arc<OwnedFd>);

/// Keeps a hold of a line when it is opened, with TLS or without.
pub fn hold(connection: &dyn Any, about: &mut Extensions) {
    use std::os::fd::AsFd as _;
    let over_tls = || connection.downcast_ref::<TlsStream<TcpStream>>().map(|stream| stream.get_ref().0);
    let stream = connection.downcast_ref::<TcpStream>().or_else(over_tls);
    if let Some(Ok(own)) = stream.map(|stream| stream.as_fd().try_clone_to_owned()) {
        about.insert(Line(Arc::new(own)));
    }
}

/// Tells of whoever asked whether they have gone.
#[derive(Clone, Debug)]
pub struct Gone(Option<Line>);

impl Gone {
    /// Whether they have by now.
    pub fn by_now(&self) -> bool {
        let Some(Line(line)) = &self.0 else { return false };
        // This tells of a closed line also while bytes on it are unread: over TLS its closing message is.
        let mut looked_at = [PollFd::new(line, PollFlags::RDHUP)];
        match poll(&mut looked_at, Some(&Timespec::default())) {
            Ok(_) => looked_at[0].revents().intersects(PollFlags::RDHUP | PollFlags::HUP | PollFlags::ERR),
            Err(_) => false,
        }
    }

    /// Waits until they have.
    pub async fn comes(&self) {
        while !self.by_now() {
            tokio::time::sleep(LOOK).await;
        }
    }
}

impl FromRequest for Gone {
    type Error = Infallible;
    type Future = Ready<Result<Self, Infallible>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(Ok(Self(request.conn_data::<Line>().cloned())))
    }
}

#[cfg(test)]
mod tests {
    use std::io::Write as _;
    use std::net::{TcpListener, TcpStream};

    use actix_web::{App, HttpResponse, HttpServer, web};
    use tokio::sync::mpsc::unbounded_channel;

    use super::{Gone, hold};

    /// Whoever waits is there until the line is cut; what was begun is done to its end, also where the line was cut the moment
    /// after it was asked for.
    #[actix_web::test]
    async fn a_cut_line_is_noticed_and_nothing_is_left_in_the_middle() {
        let (tell, mut told) = unbounded_channel();
        let listener = TcpListener::bind("127.0.0.1:0").expect("a port");
        let address = listener.local_addr().expect("its address");
        let server = HttpServer::new(move || {
            let (long, short) = (tell.clone(), tell.clone());
            let takes_long = move |gone: Gone| {
                let tell = long.clone();
                async move {
                    let _ = tell.send(if gone.by_now() { "gone at once" } else { "begun" });
                    gone.comes().await;
                    let _ = tell.send("done");
                    HttpResponse::Ok().finish()
                }
            };
            let keeps = move || {
                let _ = short.send("kept");
                async { HttpResponse::Ok().finish() }
            };
            App::new().route("/long", web::post().to(takes_long)).route("/keeps", web::put().to(keeps))
        });
        let server = server.on_connect(hold).listen(listener).expect("it listens").workers(1).run();
        let handle = server.handle();
        actix_web::rt::spawn(server);
        let ask = |line: &str| {
            let mut stream = TcpStream::connect(address).expect("a line");
            write!(stream, "{line} HTTP/1.1\r\nHost: x\r\nContent-Length: 0\r\n\r\n").expect("asked");
            stream
        };
        let waits = ask("POST /long");
        assert_eq!(told.recv().await, Some("begun"));
        drop(waits);
        assert_eq!(told.recv().await, Some("done"));
        for _ in 0..20 {
            drop(ask("PUT /keeps"));
            assert_eq!(told.recv().await, Some("kept"));
        }
        handle.stop(false).await;
    }
}
