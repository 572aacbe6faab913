//! Computing away from the threads that talk to the network: on a few threads, for a limited time.

use std::num::NonZero;
use std::sync::LazyLock;
use std::time::Duration;

use actix_web::http::StatusCode;
use tokio::sync::Semaphore;

use super::problem::{ApiError, ProblemDocument};

/// So long an answer is waited for. No request that is within the limits needs a tenth of it.
/// A development build takes many times as long.
const PATIENCE: Duration = Duration::from_secs(if cfg!(debug_assertions) { 90 } else { 10 });

/// As many at once as there are processors: more would only hold each other up.
static AT_ONCE: LazyLock<Semaphore> =
    LazyLock::new(|| Semaphore::new(std::thread::available_parallelism().map_or(2, NonZero::get)));

/// Works something out elsewhere. Who goes away before it begins takes it along; what has begun ends soon by itself, for
/// everything it is made from has been counted.
pub async fn worked_out<T, E>(work: impl FnOnce() -> Result<T, E> + Send + 'static) -> Result<T, ApiError>
where
    T: Send + 'static,
    E: Send + 'static,
    ApiError: From<E>,
{
    tokio::time::timeout(PATIENCE, elsewhere(work)).await.map_err(|_| too_long())??.map_err(ApiError::from)
}

async fn elsewhere<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    let place = AT_ONCE.acquire().await.map_err(|_| too_long())?;
    let work = move || {
        let _place = place;
        work()
    };
    tokio::task::spawn_blocking(work).await.map_err(|_| ProblemDocument::broken().into())
}

fn too_long() -> ApiError {
    let problem = ProblemDocument::new(StatusCode::SERVICE_UNAVAILABLE, "too_long", "It takes too long");
    problem.saying("this could not be worked out in time: try again in a moment").into()
}
