//! Whoever waits for an answer may go away. What only looks is dropped then; what changes something is done to its end, so that
//! nothing is left in the middle, and is told in case it would rather stop.

use std::convert::Infallible;
use std::future::{Ready, ready};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

use actix_web::dev::{Payload, ServiceRequest};
use actix_web::error::ErrorInternalServerError;
use actix_web::http::Method;
use actix_web::{Error, FromRequest, HttpMessage as _, HttpRequest};
use tolva_store::Rights;

use crate::rights::allowed;

/// Whether whoever asked has gone away.
#[derive(Clone, Debug, Default)]
pub struct Gone(Arc<AtomicBool>);

impl Gone {
    /// Whether they have by now.
    pub fn by_now(&self) -> bool {
        self.0.load(Ordering::Relaxed)
    }
}

impl FromRequest for Gone {
    type Error = Infallible;
    type Future = Ready<Result<Self, Infallible>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(Ok(request.extensions().get::<Self>().cloned().unwrap_or_default()))
    }
}

/// Tells that the line was cut, when it is dropped with it.
struct Line(Gone);

impl Drop for Line {
    fn drop(&mut self) {
        self.0.0.store(true, Ordering::Relaxed);
    }
}

/// Answers a request with what `answer` makes of it.
pub async fn answered<T, F>(request: ServiceRequest, answer: impl FnOnce(ServiceRequest) -> F) -> Result<T, Error>
where
    T: 'static,
    F: Future<Output = Result<T, Error>> + 'static,
{
    let (method, path) = (request.method(), request.match_info().as_str());
    let only_looks = matches!(*method, Method::GET | Method::HEAD)
        || path.starts_with("/api") && allowed(Rights::Look, method, path);
    if only_looks {
        return answer(request).await;
    }
    let gone = Gone::default();
    request.extensions_mut().insert(gone.clone());
    let _line = Line(gone);
    actix_web::rt::spawn(answer(request)).await.map_err(ErrorInternalServerError)?
}

#[cfg(test)]
mod tests {
    use std::io::Write as _;
    use std::net::{TcpListener, TcpStream};

    use actix_web::body::MessageBody;
    use actix_web::dev::ServiceResponse;
    use actix_web::middleware::{Next, from_fn};
    use actix_web::{App, HttpResponse, HttpServer, web};
    use tokio::sync::mpsc::{UnboundedSender, unbounded_channel};

    use super::*;

    async fn by_way(
        request: ServiceRequest,
        next: Next<impl MessageBody + 'static>,
    ) -> Result<ServiceResponse<impl MessageBody>, Error> {
        answered(request, move |request| next.call(request)).await
    }

    /// What changes something goes on when the line is cut, and is told that it was; what only looks ends there.
    #[actix_web::test]
    async fn a_cut_line_leaves_nothing_in_the_middle() {
        struct Ended(UnboundedSender<&'static str>);
        impl Drop for Ended {
            fn drop(&mut self) {
                let _ = self.0.send("ended");
            }
        }
        let (tell, mut told) = unbounded_channel();
        let listener = TcpListener::bind("127.0.0.1:0").expect("a port");
        let address = listener.local_addr().expect("its address");
        let server = HttpServer::new(move || {
            let (changes, looks) = (tell.clone(), tell.clone());
            App::new()
                .wrap(from_fn(by_way))
                .route(
                    "/changes",
                    web::post().to(move |gone: Gone| {
                        let tell = changes.clone();
                        async move {
                            let _ended = Ended(tell.clone());
                            let _ = tell.send("begun");
                            while !gone.by_now() {
                                tokio::task::yield_now().await;
                            }
                            let _ = tell.send("done");
                            HttpResponse::Ok().finish()
                        }
                    }),
                )
                .route(
                    "/looks",
                    web::get().to(move || {
                        let tell = looks.clone();
                        async move {
                            let _ended = Ended(tell.clone());
                            let _ = tell.send("begun");
                            std::future::pending::<HttpResponse>().await
                        }
                    }),
                )
        });
        let server = server.listen(listener).expect("it listens").workers(1).h1_allow_half_closed(false).run();
        let handle = server.handle();
        actix_web::rt::spawn(server);
        for (line, wanted) in
            [("POST /changes", vec!["begun", "done", "ended"]), ("GET /looks", vec!["begun", "ended"])]
        {
            let mut stream = TcpStream::connect(address).expect("a line");
            write!(stream, "{line} HTTP/1.1\r\nHost: x\r\nContent-Length: 0\r\n\r\n").expect("asked");
            let mut heard = vec![told.recv().await.expect("it begins")];
            drop(stream);
            while heard.last() != Some(&"ended") {
                heard.push(told.recv().await.expect("it ends"));
            }
            assert_eq!(heard, wanted, "{line}");
        }
        handle.stop(false).await;
    }
}
