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

/// What takes a while may wait for others of its kind.
const LONG_PATIENCE: Duration = Duration::from_secs(if cfg!(debug_assertions) { 240 } else { 60 });

/// As many at once as there are processors: more would only hold each other up.
static AT_ONCE: LazyLock<Semaphore> =
    LazyLock::new(|| Semaphore::new(std::thread::available_parallelism().map_or(2, NonZero::get)));

/// Pictures, archives and the like take their time: they have places of their own, one less than there are processors, so that
/// what is worked out at every touch of a dial never waits for them.
static LONG_AT_ONCE: LazyLock<Semaphore> = LazyLock::new(|| {
    Semaphore::new(std::thread::available_parallelism().map_or(1, |all| all.get().saturating_sub(1).max(1)))
});

/// Works out what takes a while: previews, frames of the stand-in camera, archives.
pub async fn long_worked_out<T, E>(work: impl FnOnce() -> Result<T, E> + Send + 'static) -> Result<T, ApiError>
where
    T: Send + 'static,
    E: Send + 'static,
    ApiError: From<E>,
{
    tokio::time::timeout(LONG_PATIENCE, elsewhere(&LONG_AT_ONCE, work))
        .await
        .map_err(|_| too_long())??
        .map_err(ApiError::from)
}

/// Works something out elsewhere. Who goes away before it begins takes it along; what has begun ends soon by itself, for
/// everything it is made from has been counted.
pub async fn worked_out<T, E>(work: impl FnOnce() -> Result<T, E> + Send + 'static) -> Result<T, ApiError>
where
    T: Send + 'static,
    E: Send + 'static,
    ApiError: From<E>,
{
    tokio::time::timeout(PATIENCE, elsewhere(&AT_ONCE, work)).await.map_err(|_| too_long())??.map_err(ApiError::from)
}

async fn elsewhere<T: Send + 'static>(
    places: &'static Semaphore,
    work: impl FnOnce() -> T + Send + 'static,
) -> Result<T, ApiError> {
    let place = places.acquire().await.map_err(|_| too_long())?;
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
