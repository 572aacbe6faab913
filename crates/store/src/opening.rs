//! Opening a data file: what it is, is looked at before anything is written to it.

use std::fs::File;
use std::io::{ErrorKind, Read as _};
use std::path::{Path, PathBuf};

use sqlx::migrate::Migrator;
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{AssertSqlSafe, ConnectOptions as _, Connection as _, SqliteConnection};

use crate::beside::short_name;
use crate::connection::{Connections, to_write};
use crate::error::NotOpened;

static MIGRATOR: Migrator = sqlx::migrate!();

/// What every SQLite file begins with.
const SQLITE: &[u8; 16] = b"SQLite format 3\0";
/// Where in it the number of the program stands that it belongs to (<https://sqlite.org/fileformat.html>, 1.3).
const APPLICATION_ID: std::ops::Range<usize> = 68..72;
/// Tolva's. Data files of before have none.
const TOLVA: [u8; 4] = *b"Tolv";

/// What is there under a file's name.
#[derive(Debug, PartialEq, Eq)]
enum There {
    /// Nothing, or an empty file.
    Nothing,
    /// A SQLite file, ours or of before files had a program's number.
    Data,
}

/// Opens a data file, makes it where there is none, and brings its tables up to date.
pub(crate) async fn open(file: &Path, options: SqliteConnectOptions) -> Result<Connections, NotOpened> {
    let options = options.filename(file);
    let there = look_at(file)?;
    if there == There::Nothing {
        let folder = file.parent().filter(|folder| !folder.as_os_str().is_empty() && !folder.is_dir());
        if let Some(folder) = folder {
            let says = format!("there is no folder {}", folder.display());
            return Err(std::io::Error::new(ErrorKind::NotFound, says).into());
        }
        migrate(options.clone().create_if_missing(true)).await?;
        return Ok(Connections::new(options, false).await?);
    }
    let read_only = !can_be_written(file);
    // Beside a file in a folder that cannot be written, the log's index cannot be made: it is read as it stands, unless
    // there is something in the log.
    let logged = with_ending(file, "-wal").metadata().is_ok_and(|log| log.len() > 0);
    let looking = options.clone().read_only(true).immutable(read_only && !logged);
    let before = looked_into(&looking).await?;
    let ours = MIGRATOR.iter().map(|step| step.version).max().unwrap_or_default();
    match before {
        None => return Err(NotOpened::NotTolva),
        Some(version) if version > ours => return Err(NotOpened::Newer),
        Some(version) if version < ours => {
            if read_only {
                return Err(NotOpened::OlderAndReadOnly);
            }
            let copy = file.with_file_name(format!("{}.before-{ours}.sqlite", short_name(file)));
            if !copy.exists() {
                copy_into(&mut options.clone().connect().await?, &copy).await?;
            }
            migrate(options.clone()).await?;
        }
        Some(_) => {}
    }
    Ok(Connections::new(if read_only { looking } else { options }, read_only).await?)
}

/// A copy must be a data file of Tolva's, whole, with something in it, and not newer than this program.
pub(crate) async fn is_data_file(file: &Path) -> Result<(), NotOpened> {
    if look_at(file)? == There::Nothing {
        return Err(NotOpened::Empty);
    }
    let ours = MIGRATOR.iter().map(|step| step.version).max().unwrap_or_default();
    // As it stands: a copy has nothing in a log beside it.
    let looking = SqliteConnectOptions::new().filename(file).read_only(true).immutable(true);
    match looked_into(&looking).await? {
        Some(0) => Err(NotOpened::Empty),
        None => Err(NotOpened::NotTolva),
        Some(version) if version > ours => Err(NotOpened::Newer),
        Some(_) => Ok(()),
    }
}

/// A file that SQLite keeps beside another: `tolva.sqlite-wal`.
fn with_ending(file: &Path, ending: &str) -> PathBuf {
    let mut name = file.as_os_str().to_owned();
    name.push(ending);
    name.into()
}

/// Copies a data file as it is at one instant, while others go on reading and writing it.
pub(crate) async fn copy_into(from: &mut SqliteConnection, to: &Path) -> Result<(), sqlx::Error> {
    sqlx::query("VACUUM INTO ?").bind(to.to_string_lossy().into_owned()).execute(from).await?;
    // What a copy is for is that it outlives the disk's next moment.
    if let Ok(written) = File::open(to) {
        written.sync_all().map_err(sqlx::Error::Io)?;
    }
    Ok(())
}

async fn migrate(options: SqliteConnectOptions) -> Result<(), NotOpened> {
    let mut connection = to_write(options).connect().await?;
    MIGRATOR.run_direct(None, &mut connection, false).await.map_err(|error| NotOpened::Store(error.into()))?;
    connection.close().await?;
    Ok(())
}

/// What the file's first bytes say.
fn look_at(file: &Path) -> Result<There, NotOpened> {
    // Opening a pipe would wait for whoever writes into it.
    if file.metadata().is_ok_and(|about| !about.is_file()) {
        return Err(NotOpened::NoFile);
    }
    let mut header = Vec::new();
    match File::open(file) {
        Ok(open) => open.take(100).read_to_end(&mut header)?,
        Err(error) if error.kind() == ErrorKind::NotFound => return Ok(There::Nothing),
        Err(error) => return Err(error.into()),
    };
    let number = header.get(APPLICATION_ID);
    match number {
        _ if header.is_empty() => Ok(There::Nothing),
        Some(number) if header.starts_with(SQLITE) && (number == TOLVA || number == [0; 4]) => Ok(There::Data),
        _ => Err(NotOpened::NotTolva),
    }
}

fn can_be_written(file: &Path) -> bool {
    let refused = |kind| matches!(kind, ErrorKind::PermissionDenied | ErrorKind::ReadOnlyFilesystem);
    !File::options().append(true).open(file).is_err_and(|error| refused(error.kind()))
}

/// How far a data file has been brought up to date; nothing where its tables are another program's.
async fn looked_into(options: &SqliteConnectOptions) -> Result<Option<i64>, NotOpened> {
    let mut connection = options.connect().await?;
    let named = |name: &'static str| {
        AssertSqlSafe(format!("SELECT COUNT(*) FROM sqlite_schema WHERE type = 'table' AND name {name}"))
    };
    let tables: i64 = sqlx::query_scalar(named("NOT LIKE 'sqlite_%'")).fetch_one(&mut connection).await?;
    if tables == 0 {
        return Ok(Some(0));
    }
    let ours: i64 =
        sqlx::query_scalar(named("IN ('_sqlx_migrations', 'preference')")).fetch_one(&mut connection).await?;
    if ours < 2 {
        return Ok(None);
    }
    let version: Option<i64> =
        sqlx::query_scalar("SELECT MAX(version) FROM _sqlx_migrations").fetch_one(&mut connection).await?;
    let health: String = sqlx::query_scalar("PRAGMA quick_check(1)").fetch_one(&mut connection).await?;
    connection.close().await?;
    if health == "ok" { Ok(Some(version.unwrap_or_default())) } else { Err(NotOpened::Damaged(health)) }
}
