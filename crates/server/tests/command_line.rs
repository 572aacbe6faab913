//! The command line as a person uses it.

use std::path::{Path, PathBuf};
use std::process::{Command, Output};

use serde_json::Value;
use tempfile::TempDir;

fn tolva(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_tolva")).args(arguments).output().expect("tolva")
}

fn demo(name: &str) -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(name)
}

fn text(bytes: &[u8]) -> String {
    String::from_utf8_lossy(bytes).into_owned()
}

#[test]
fn solve_writes_plans_and_on_request_the_workings() {
    let file = demo("ropeworks-open-day.json");
    let file = file.to_str().expect("a path");
    let plans: Value = serde_json::from_slice(&tolva(&["solve", file]).stdout).expect("JSON");
    let all = plans["plans"].as_array().expect("plans");
    assert_eq!(all.len(), 5);
    assert_eq!(all[0]["plan"]["dial_card"]["lights"][0]["power"], "1/8");
    assert!(all[0]["plan"]["workings"].as_array().is_some_and(Vec::is_empty));
    assert!(all.iter().any(|plan| plan["plan"]["possible"] == false), "one of them cannot be done as wished");
    let plans: Value = serde_json::from_slice(&tolva(&["solve", file, "--workings"]).stdout).expect("JSON");
    assert!(plans["plans"][0]["plan"]["workings"].as_array().is_some_and(|lines| lines.len() > 10));
}

#[test]
fn set_writes_the_set_in_words_or_as_a_drawing() {
    let file = demo("guild-days.json");
    let file = file.to_str().expect("a path");
    let found: Value = serde_json::from_slice(&tolva(&["set", file]).stdout).expect("JSON");
    assert_eq!(found["setups"].as_array().map(Vec::len), Some(4));
    assert!(found["setups"][0]["moves"][0].as_str().is_some_and(|line| line.starts_with("A: ")), "{found}");
    let drawing = text(&tolva(&["set", file, "--setup", "teapot", "--svg"]).stdout);
    assert!(drawing.starts_with("<svg") && drawing.contains("North window"), "{drawing}");
    assert!(!tolva(&["set", file, "--svg"]).status.success(), "a drawing is of one setup");
}

#[test]
fn a_wrong_file_is_refused_with_the_path() {
    let folder = TempDir::new().expect("a folder");
    let wrong = folder.path().join("wrong.json");
    let good = std::fs::read_to_string(demo("harvest-supper.json")).expect("the demo data");
    std::fs::write(&wrong, good.replace("\"f_number\": 4.0", "\"f_number\": 400")).expect("written");
    let done = tolva(&["solve", wrong.to_str().expect("a path")]);
    assert!(!done.status.success());
    let said = text(&done.stderr);
    assert!(said.contains("/setups/0/fixed/f_number: 400 is not allowed here: it must be from 0.7 to 128"), "{said}");
    assert!(text(&tolva(&["solve", "nowhere.json"]).stderr).contains("nowhere.json"));
}

#[test]
fn what_is_imported_is_exported_the_same() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("tolva.sqlite");
    let data = data.to_str().expect("a path");
    let file = demo("harvest-supper.json");
    let done = tolva(&["import", file.to_str().expect("a path"), "--data", data]);
    assert!(done.status.success(), "{}", text(&done.stderr));
    let exported = tolva(&["export", "Harvest supper at the mill", "--data", data]);
    let read = |bytes: &[u8]| serde_json::from_slice::<Value>(bytes).expect("JSON");
    let original = read(&std::fs::read(&file).expect("the demo data"));
    // Written again, the one and the other are the same document.
    let job = |value: Value| tolva_format::Job::from_json(value.to_string().as_bytes()).expect("a job");
    assert_eq!(job(read(&exported.stdout)), job(original));
    let none = tolva(&["export", "Nothing", "--data", data]);
    assert!(text(&none.stderr).contains("Harvest supper at the mill"), "it says what there is");
}

#[test]
fn a_wrong_file_among_good_ones_imports_none() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("tolva.sqlite");
    let data = data.to_str().expect("a path");
    let wrong = folder.path().join("wrong.json");
    std::fs::write(&wrong, "{}").expect("written");
    let file = demo("harvest-supper.json");
    let done = tolva(&["import", file.to_str().expect("a path"), wrong.to_str().expect("a path"), "--data", data]);
    assert!(!done.status.success());
    assert!(!Path::new(data).exists(), "no data file was made");
}

/// A job with its frames comes as the ZIP that it was taken out as; one of something else is told, and no data file is made.
#[test]
fn a_job_with_its_frames_is_imported() {
    use std::io::Write as _;
    let folder = TempDir::new().expect("a folder");
    let path = |name: &str| folder.path().join(name).to_str().expect("a path").to_owned();
    let zip = |name: &str, parts: &[(&str, &[u8])]| {
        let mut zip = zip::ZipWriter::new(std::fs::File::create(path(name)).expect("a file"));
        for (part, bytes) in parts {
            let stored = zip::write::SimpleFileOptions::default().compression_method(zip::CompressionMethod::Stored);
            zip.start_file(*part, stored).expect("a part");
            zip.write_all(bytes).expect("written");
        }
        zip.finish().expect("a ZIP");
        path(name)
    };
    let job = std::fs::read(demo("harvest-supper.json")).expect("the demo data");
    let data = path("tolva.sqlite");
    let of_holiday = zip("holiday.zip", &[("beach.jpg", b"sand")]);
    let none = tolva(&["import", &of_holiday, "--data", &data]);
    assert!(
        !none.status.success() && text(&none.stderr).contains("it holds no job.tolva.json"),
        "{}",
        text(&none.stderr)
    );
    let wrong = zip("wrong.zip", &[("job.tolva.json", &job), ("frames.json", br#"{ "frames": [{ "id": 3 }] }"#)]);
    let none = tolva(&["import", &wrong, "--data", &data]);
    assert!(text(&none.stderr).contains("/frames/0/id"), "{}", text(&none.stderr));
    assert!(!Path::new(&data).exists(), "no data file was made");
    let good = zip("good.zip", &[("job.tolva.json", &job), ("frames.json", br#"{ "frames": [] }"#)]);
    let beside = demo("bindery-evening.json");
    let done = tolva(&["import", &good, beside.to_str().expect("a path"), "--data", &data]);
    assert!(done.status.success(), "{}", text(&done.stderr));
    let told = text(&done.stdout);
    assert!(told.contains("Harvest supper at the mill") && told.contains("Bindery evening"), "{told}");
}

/// A copy is made and brought back; what was there before stays beside it.
#[test]
fn a_data_file_is_backed_up_and_restored() {
    let folder = TempDir::new().expect("a folder");
    let path = |name: &str| folder.path().join(name).to_str().expect("a path").to_owned();
    let (data, copy) = (path("tolva.sqlite"), path("copy.sqlite"));
    let import = |file: &str| {
        let done = tolva(&["import", demo(file).to_str().expect("a path"), "--data", &data]);
        assert!(done.status.success(), "{}", text(&done.stderr));
    };
    import("harvest-supper.json");
    let done = tolva(&["backup", &copy, "--data", &data]);
    assert!(done.status.success(), "{}", text(&done.stderr));
    assert!(text(&tolva(&["backup", &copy, "--data", &data]).stderr).contains("is there already"));
    import("bindery-evening.json");
    let done = tolva(&["restore", &copy, "--data", &data]);
    assert!(text(&done.stdout).contains("1 jobs"), "{} {}", text(&done.stdout), text(&done.stderr));
    let none = text(&tolva(&["export", "nothing", "--data", &data]).stderr);
    assert!(none.contains("Harvest supper") && !none.contains("Bindery"), "{none}");
    assert_eq!(std::fs::read_dir(folder.path().join("backups")).expect("a folder").count(), 1);
    let wrong = tolva(&["restore", demo("harvest-supper.json").to_str().expect("a path"), "--data", &data]);
    assert!(!wrong.status.success() && text(&wrong.stderr).contains("harvest-supper.json"), "{}", text(&wrong.stderr));
}

/// A terminal obeys control characters: names are printed without them.
#[test]
fn names_are_printed_without_control_characters() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("tolva.sqlite");
    let data = data.to_str().expect("a path");
    let file = folder.path().join("job.json");
    let good = std::fs::read_to_string(demo("harvest-supper.json")).expect("the demo data");
    std::fs::write(&file, good.replace("Harvest supper at the mill", "Red \\u001b[31m alert")).expect("written");
    let done = tolva(&["import", file.to_str().expect("a path"), "--data", data]);
    assert!(!done.status.success() && !done.stderr.contains(&0x1b), "{}", text(&done.stderr));
    assert!(text(&done.stderr).contains("one line: no line breaks or control characters"), "{}", text(&done.stderr));
    assert!(tolva(&["import", &demo("harvest-supper.json").to_string_lossy(), "--data", data]).status.success());
    assert!(!tolva(&["export", "none", "--data", data]).stderr.contains(&0x1b));
}

/// Reached from elsewhere, it says in plain words who can do what; on this machine alone it does not.
#[test]
fn who_can_do_what_is_said_where_others_can() {
    let folder = TempDir::new().expect("a folder");
    let said = |address: &str, count: usize| {
        use std::io::BufRead as _;
        let mut child = Command::new(env!("CARGO_BIN_EXE_tolva"))
            .args(["serve", "--port", "0", "--no-backups", "--address", address, "--data"])
            .arg(folder.path().join("tolva.sqlite"))
            .stdout(std::process::Stdio::piped())
            .stderr(std::process::Stdio::null())
            .spawn()
            .expect("tolva serve");
        let lines = std::io::BufReader::new(child.stdout.take().expect("its output")).lines();
        let told: Vec<String> = lines.take(count).map_while(Result::ok).collect();
        child.kill().expect("killed");
        child.wait().expect("gone");
        told
    };
    let here = said("127.0.0.1", 2);
    assert!(here[0].starts_with("Tolva is at http://127.0.0.1") && here[1].contains("tolva.sqlite"), "{here:?}");
    let elsewhere = said("0.0.0.0", 3);
    assert!(elsewhere[2].starts_with("Everyone on the networks this machine is on can now open it"), "{elsewhere:?}");
}

#[test]
fn a_taken_port_is_said() {
    let taken = std::net::TcpListener::bind("127.0.0.1:0").expect("a port");
    let port = taken.local_addr().expect("its address").port().to_string();
    let said = text(&tolva(&["demo", "--port", &port]).stderr);
    assert!(said.contains("cannot listen on 127.0.0.1") && said.contains("--port"), "{said}");
}

#[test]
fn the_documents_are_written() {
    let openapi: Value = serde_json::from_slice(&tolva(&["openapi"]).stdout).expect("JSON");
    assert!(openapi["paths"]["/api/v1/solve"]["post"].is_object());
    let schema: Value = serde_json::from_slice(&tolva(&["schema"]).stdout).expect("JSON");
    assert_eq!(schema["$schema"], "https://json-schema.org/draft/2020-12/schema");
}

/// Runs it with something on its standard input.
fn with_input(arguments: &[&str], input: &str) -> Output {
    use std::io::Write as _;
    let mut child = Command::new(env!("CARGO_BIN_EXE_tolva"))
        .args(arguments)
        .stdin(std::process::Stdio::piped())
        .stdout(std::process::Stdio::piped())
        .stderr(std::process::Stdio::piped())
        .spawn()
        .expect("tolva");
    child.stdin.take().expect("its input").write_all(input.as_bytes()).expect("written");
    child.wait_with_output().expect("its output")
}

#[test]
fn the_day_of_a_job_file() {
    let file = demo("ropeworks-open-day.json");
    let file = file.to_str().expect("a path");
    let day: Value = serde_json::from_slice(&tolva(&["day", file]).stdout).expect("JSON");
    assert_eq!((day["date"].as_str(), day["slots"].as_array().map(Vec::len)), (Some("2026-08-29"), Some(5)));
    assert_eq!(text(&tolva(&["day", file, "--csv"]).stdout).lines().count(), 6);
    assert_eq!(text(&tolva(&["day", file, "--ics"]).stdout).matches("BEGIN:VEVENT").count(), 5);
    let none = tolva(&["day", file, "--date", "2026-13-01"]);
    assert!(!none.status.success() && text(&none.stderr).contains("2026-13-01"), "{}", text(&none.stderr));
}

#[test]
fn the_pack_list_of_a_job_file() {
    let file = demo("foundry-band.json");
    let file = file.to_str().expect("a path");
    let list: Value = serde_json::from_slice(&tolva(&["pack", file]).stdout).expect("JSON");
    let items = list["items"].as_array().expect("items");
    let kinds: std::collections::BTreeSet<&str> = items.iter().filter_map(|item| item["kind"].as_str()).collect();
    assert!(
        ["camera", "flash", "battery", "modifier", "stand", "memory"].iter().all(|kind| kinds.contains(kind)),
        "{kinds:?}"
    );
    let keys: std::collections::BTreeSet<&str> = items.iter().filter_map(|item| item["key"].as_str()).collect();
    assert_eq!(keys.len(), items.len(), "each is ticked off by itself");
    let weights: f64 = items.iter().filter_map(|item| item["weight_kg"].as_f64()).sum();
    assert!((weights - list["weighed_kg"].as_f64().expect("a sum")).abs() < 0.06);
    let table = text(&tolva(&["pack", file, "--csv"]).stdout);
    assert_eq!(csv::Reader::from_reader(table.as_bytes()).records().count(), items.len());
}

#[test]
fn light_and_falling_light_of_a_job_file() {
    let file = demo("ropeworks-open-day.json");
    let file = file.to_str().expect("a path");
    let light: Value = serde_json::from_slice(&tolva(&["light", file]).stdout).expect("JSON");
    assert_eq!(light["setups"].as_array().map(Vec::len), Some(5));
    assert!(light["setups"][0]["sun_report"]["says"].as_str().is_some_and(|says| says.starts_with("Sun 6.5° up")));
    let falling: Value = serde_json::from_slice(&tolva(&["falling", file, "--setup", "doorway"]).stdout).expect("JSON");
    assert_eq!(falling["setups"][0]["falling"]["last"]["clock"], "20:55");
    let csv = text(&tolva(&["falling", file, "--setup", "doorway", "--csv"]).stdout);
    assert!(csv.lines().nth(2).is_some_and(|line| line.contains("Shutter 1/200 to 1/125")), "{csv}");
    assert!(text(&tolva(&["falling", file, "--setup", "doorway", "--ics"]).stdout).contains("BEGIN:VALARM"));
    let none = tolva(&["falling", file, "--setup", "attic"]);
    assert!(!none.status.success() && text(&none.stderr).contains("doorway, yard"), "{}", text(&none.stderr));
}

#[test]
fn sums_go_line_by_line() {
    let good = r#"{"utc_date": "2026-06-25", "latitude_deg": -28.6065, "longitude_deg": -72.1402}"#;
    let done = with_input(&["sum", "sun-times"], &format!("{good}\n{{\"utc_date\": 1}}\n\n{good}\n"));
    let lines: Vec<Value> =
        text(&done.stdout).lines().map(|line| serde_json::from_str(line).expect("an object a line")).collect();
    assert_eq!(lines.len(), 3);
    // pvlib 0.16.1 gives 11:41:32; within 30 s.
    assert!(lines[0]["sunrise_utc"].as_str().is_some_and(|at| at.starts_with("2026-06-25T11:41:")), "{:?}", lines[0]);
    assert_eq!((&lines[1]["errors"][0]["pointer"], &lines[2]), (&Value::from("/utc_date"), &lines[0]));
    assert!(!done.status.success() && text(&done.stderr).contains("1 of the lines"));
    // A byte-order mark is no matter, and a line that is no text is a line that is wrong.
    let mut child = std::process::Command::new(env!("CARGO_BIN_EXE_tolva"));
    let mut child = child.args(["sum", "sun-times"]).stdin(std::process::Stdio::piped());
    child = child.stdout(std::process::Stdio::piped()).stderr(std::process::Stdio::null());
    let mut child = child.spawn().expect("tolva");
    let input = [b"\xff\xfe\n\xef\xbb\xbf", good.as_bytes(), b"\n"].concat();
    std::io::Write::write_all(&mut child.stdin.take().expect("its input"), &input).expect("written");
    let done = child.wait_with_output().expect("its output");
    let lines: Vec<Value> =
        text(&done.stdout).lines().map(|line| serde_json::from_str(line).expect("an object a line")).collect();
    assert!(lines[0]["errors"].is_array() && lines[1]["sunrise_utc"].is_string(), "{lines:?}");
    let none = with_input(&["sum", "moon"], "");
    assert!(!none.status.success() && text(&none.stderr).contains("sun-position, sun-times"));
}

#[test]
fn colour_of_a_job_file() {
    let done = tolva(&["colour", demo("bindery-evening.json").to_str().expect("a path"), "--setup", "jetty"]);
    assert!(done.status.success(), "{}", text(&done.stderr));
    let found: serde_json::Value = serde_json::from_slice(&done.stdout).expect("JSON");
    let setup = &found["setups"][0];
    assert_eq!((&setup["setup_id"], &setup["colour"]["balance"]["label"]), (&"jetty".into(), &"7500 K".into()));
    let chosen: Vec<_> =
        setup["conventions"].as_array().expect("ways").iter().filter(|way| way["chosen"] == true).collect();
    assert_eq!(chosen.len(), 1);
    assert_eq!(chosen[0]["name"], "Deliberately warm");
    let found = with_input(&["sum", "rendered-grey"], "{\"light_kelvin\": 2850, \"white_balance_kelvin\": 4990}\n");
    assert!(text(&found.stdout).contains("\"linear_r\":1.65"), "{}", text(&found.stdout));
}

fn reference(name: &str) -> String {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../pictures/tests/data");
    folder.join(name).to_str().expect("a path").to_owned()
}

/// One JSON object a line.
fn lines(output: &Output) -> Vec<Value> {
    text(&output.stdout).lines().map(|line| serde_json::from_str(line).expect("JSON")).collect()
}

/// The names of the reference tables are the fields; truth and tolerances are checked in `tolva-pictures`.
#[test]
fn frames_are_measured_and_taken_apart() {
    let (without, with) = (reference("hall-without.jpg"), reference("hall-with.jpg"));
    let folder = TempDir::new().expect("a folder");
    let patches = folder.path().join("patches.csv");
    std::fs::write(&patches, "pair,left,top,width,height\nhall,54,44,52,52\n").expect("written");
    let patches = patches.to_str().expect("a path");
    let found = lines(&tolva(&["measure", &with, "--patches", patches]));
    assert_eq!(
        (&found[0]["shutter_s"], &found[0]["iso"], &found[0]["flash"]),
        (&0.008.into(), &800.0.into(), &true.into())
    );
    assert_eq!(found[1]["left"], 54.0);
    assert!((found[1]["stops"].as_f64().expect("stops") + 1.57).abs() < 0.1, "{}", found[1]);
    let map = folder.path().join("map.png");
    let map = map.to_str().expect("a path");
    let found = lines(&tolva(&["separate", &without, &with, "--patches", patches, "-o", map]));
    assert!((found[0]["flash_share"].as_f64().expect("a share") - 0.8117).abs() < 0.03, "{}", found[0]);
    assert!(std::fs::read(map).expect("a map").starts_with(b"\x89PNG"));
}

#[test]
fn a_target_and_a_curve_are_found() {
    let found = lines(&tolva(&["target", &reference("target-2.jpg")]));
    assert!((found[0]["off_stops"].as_f64().expect("stops") + 0.6).abs() < 0.1, "{}", found[0]);
    assert_eq!(lines(&tolva(&["target", &reference("bracket-a-4.jpg")])), [Value::Null]);
    let bracket: Vec<String> = (1..=7).map(|number| reference(&format!("bracket-a-{number}.jpg"))).collect();
    let arguments: Vec<&str> = std::iter::once("curve").chain(bracket.iter().map(String::as_str)).collect();
    let found = lines(&tolva(&arguments));
    assert_eq!((found.len(), &found[20]["stops"], found[20]["known"] == true), (31, &0.0.into(), true));
    assert!((found[20]["level"].as_f64().expect("a level") - 118.0).abs() < 0.1);
}

/// What cannot be read is named, and the others are measured all the same.
#[test]
fn a_wrong_frame_among_good_ones_is_named() {
    let folder = TempDir::new().expect("a folder");
    let wrong = folder.path().join("notes.jpg");
    std::fs::write(&wrong, "no picture").expect("written");
    let wrong = wrong.to_str().expect("a path");
    let output = tolva(&["measure", wrong, &reference("target-1.jpg")]);
    assert!(!output.status.success() && text(&output.stderr).contains("1 of the files"), "{}", text(&output.stderr));
    let found = lines(&output);
    assert!(found[0]["error"].as_str().expect("an error").contains("no JPEG, PNG or TIFF"), "{}", found[0]);
    assert_eq!(found[1]["file"], "target-1.jpg");
    let output = tolva(&["curve", &reference("bracket-a-1.jpg"), &reference("bracket-a-2.jpg")]);
    assert!(text(&output.stderr).contains("3 to 11 frames, not 2"), "{}", text(&output.stderr));
    let outside = folder.path().join("patches.csv");
    std::fs::write(&outside, "left,top,width,height\n700,44,52,52\n").expect("written");
    let outside = outside.to_str().expect("a path");
    let output =
        tolva(&["separate", &reference("hall-without.jpg"), &reference("hall-with.jpg"), "--patches", outside]);
    assert!(text(&output.stderr).contains("does not lie in the frame of 720 × 480"), "{}", text(&output.stderr));
}

/// The stand-in camera takes a frame that Tolva measures, marked as simulated, and says what was hidden when it is asked.
#[test]
fn the_stand_in_takes_a_frame() {
    let folder = TempDir::new().expect("a folder");
    let frame = folder.path().join("frame.jpg");
    let frame = frame.to_str().expect("a path");
    let job = demo("ropeworks-open-day.json");
    let job = job.to_str().expect("a path");
    let take = ["stand-in", job, "--setup", "doorway", "-o", frame, "--longest", "96", "--reveal"];
    let hidden = lines(&tolva(&take));
    assert!(hidden.iter().any(|one| one["hidden"] == "camera") && hidden.iter().any(|one| one["hidden"] == "light"));
    let found = lines(&tolva(&["measure", frame]));
    assert_eq!(
        (&found[0]["simulated"], &found[0]["flash"], &found[0]["width"]),
        (&true.into(), &true.into(), &96.into())
    );
    assert!(found[0]["lacks"].as_array().is_some_and(Vec::is_empty), "{}", found[0]);
}

/// Plan, frame, learn, and again: what a camera hides is off in the first frames and not in the third. First without flash,
/// then with it (common practice, no source).
#[test]
fn the_third_frame_comes_as_planned() {
    let folder = TempDir::new().expect("a folder");
    let of = |name: &str| folder.path().join(name).to_str().expect("a path").to_owned();
    let (job, frame, marks) = (of("job.json"), of("frame.jpg"), of("marks.csv"));
    std::fs::copy(demo("ropeworks-open-day.json"), &job).expect("copied");
    // Skin of medium depth and the sky over the hills, against a grey card: as `tolva proof` has them.
    let table = "region,left,top,width,height,surface_stops\nbehind,20,60,80,30,0.138\nlit,216,166,14,14,0.391\n";
    std::fs::write(&marks, table).expect("written");
    let mut lit = Vec::new();
    for number in ["1", "2", "3"] {
        let mut take =
            vec!["stand-in", &job, "--setup", "doorway", "-o", &frame, "--longest", "480", "--number", number];
        if number == "1" {
            take.push("--without-flash");
        }
        assert!(tolva(&take).status.success());
        let said = lines(&tolva(&["learn", &job, &frame, "--setup", "doorway", "--marks", &marks, "-o", &job]));
        let off = said.iter().find(|one| one["region"] == "lit").and_then(|one| one["off_stops"].as_f64());
        lit.push(off.expect("it is told"));
        let changes = said.iter().filter(|one| one["change"].is_string()).count();
        assert!(number == "3" || changes > 0, "{said:?}");
        if number == "3" {
            let behind = said.iter().find(|one| one["region"] == "behind").and_then(|one| one["off_stops"].as_f64());
            assert!(behind.expect("it is told").abs() < 0.1, "{said:?}");
        }
    }
    assert!(lit[1].abs() > 0.5 && lit[2].abs() < 0.1, "{lit:?}");
    let output =
        tolva(&["learn", &job, &reference("target-1.jpg"), "--setup", "doorway", "--marks", &reference("targets.csv")]);
    assert!(text(&output.stderr).contains("missing field `region`"), "{}", text(&output.stderr));
}

/// A card is one HTML file; a log comes from a data file, in both forms.
#[test]
fn a_card_and_a_log() {
    let file = demo("ropeworks-open-day.json");
    let file = file.to_str().expect("a path");
    let card = text(&tolva(&["card", file, "--setup", "doorway", "--a4", "--feet"]).stdout);
    assert!(card.starts_with("<!doctype html>") && card.contains("size: A4") && card.contains("ft"), "{card}");
    let none = tolva(&["card", file, "--setup", "attic"]);
    assert!(!none.status.success() && text(&none.stderr).contains("attic"), "{}", text(&none.stderr));
    let folder = tempfile::TempDir::new().expect("a folder");
    let data = folder.path().join("tolva.sqlite");
    let data = data.to_str().expect("a path");
    assert!(tolva(&["import", file, "--data", data]).status.success());
    let log = tolva(&["log", "Ropeworks open day", "--data", data]);
    let log: Value = serde_json::from_slice(&log.stdout).expect("JSON");
    assert_eq!((&log["format"], &log["entries"][0]["kind"]), (&"tolva-log".into(), &"made".into()));
    let table = text(&tolva(&["log", "Ropeworks open day", "--csv", "--data", data]).stdout);
    assert_eq!(csv::Reader::from_reader(table.as_bytes()).records().count(), 1);
}

/// The same number and level give the same drills, as JSON and on paper; a skill nobody teaches is named with those there are.
#[test]
fn drills_by_number() {
    let ten = tolva(&["drill", "--seed", "4", "--level", "2", "--count", "10"]);
    let all = lines(&ten);
    assert_eq!(all.len(), 10);
    for one in &all {
        let (answer, options) = (&one["answer"], one["drill"]["options"].as_array().expect("options"));
        assert!(options.contains(answer) && one["drill"]["level"] == 2, "{one}");
        assert!(one["workings"].as_array().is_some_and(|lines| !lines.is_empty()), "{one}");
    }
    assert_eq!(tolva(&["drill", "--seed", "4", "--level", "2", "--count", "10"]).stdout, ten.stdout);
    let gels = lines(&tolva(&["drill", "--skill", "gels", "--skill", "powers", "--count", "4"]));
    let skills: Vec<_> = gels.iter().map(|one| one["drill"]["skill"]["code"].as_str()).collect();
    assert_eq!(skills, [Some("gels"), Some("powers"), Some("gels"), Some("powers")]);
    let folder = TempDir::new().expect("a folder");
    let sheet = folder.path().join("sheet.html");
    let to = sheet.to_str().expect("a path");
    assert!(tolva(&["drill", "--sheet", "--a5", "--count", "12", "-o", to]).status.success());
    let html = std::fs::read_to_string(&sheet).expect("the sheet");
    assert!(html.contains("size: A5 portrait") && html.contains("Answers to sheet 1, level 1"));
    let without = text(&tolva(&["drill", "--sheet", "--without-answers"]).stdout);
    assert!(!without.contains("Answers to sheet"));
    // For a class: which drills, and nothing of their answers.
    let class: Value =
        serde_json::from_slice(&tolva(&["drill", "--class", "Tuesdays", "--skill", "gels", "--count", "3"]).stdout)
            .expect("JSON");
    assert_eq!((&class["format"], class["drills"].as_array().map(Vec::len)), (&"tolva-class".into(), Some(3)));
    let long = tolva(&["drill", "--class", "Tuesdays", "--count", "41"]);
    assert!(!long.status.success() && text(&long.stderr).contains("a class has 1 to 40 drills; this one has 41"));
    let wrong = tolva(&["drill", "--skill", "juggling"]);
    assert!(
        !wrong.status.success()
            && text(&wrong.stderr).contains("there is no skill “juggling”; there is equal_exposures")
    );
    assert!(!tolva(&["drill", "--level", "4"]).status.success());
}
