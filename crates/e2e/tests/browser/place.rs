//! Place and hour: found by name, by coordinates and in files; the hour dragged; the horizon; the weather; the readings.

use tolva_e2e::{Browser, Key, Tolva};

async fn open(b: &Browser, tolva: &Tolva, page: &str) -> String {
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
    id
}

/// From a setup without a place to sun, sky and a day's light, by typing a name.
#[tokio::test]
async fn a_place_is_found_by_its_name() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Harvest supper at the mill").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/miller/place"))).await;
    b.shows("main", "Say where").await;
    b.shows("nav", "Needs place and hour").await;
    let place = b.field("A name, coordinates, or a file with a point in it", 0).await;
    place.click().await.expect("the field");
    place.send_keys("reykj").await.expect("typing");
    b.shows("[role=listbox]", "Iceland").await;
    b.xpath("//*[@role='option'][.//strong='Reykjavík']").await.click().await.expect("the town");
    b.shows("main", "Atlantic/Reykjavik, UTC+0").await;
    // The job's day is taken with it.
    tolva.holds_where(&id, "/setups/2/scene/at/date", |date| date == "2026-10-03").await;
    tolva.holds_where(&id, "/setups/2/scene/at/time", |time| time == "12:00").await;
    b.css("[aria-label='Day strip'] [role=slider]").await;
    b.shows("header", "Sun ").await;
    b.close().await;
}

#[tokio::test]
async fn coordinates_in_degrees_and_a_place_that_is_none() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    let place = b.field("Another place: a name or coordinates", 0).await;
    place.click().await.expect("the field");
    place.send_keys("27°42'N 85°19'E").await.expect("typing");
    b.shows("[role=listbox]", "Asia/Kathmandu").await;
    b.press(Key::Down).await;
    b.press(Key::Enter).await;
    b.shows("main", "Asia/Kathmandu, UTC+5:45").await;
    tolva
        .holds_where(&id, "/setups/0/scene/site/latitude_deg", |at| {
            at.as_f64().is_some_and(|at| (at - 27.7).abs() < 1e-6)
        })
        .await;
    // In numbers: at sea level and below it, and not off the globe.
    let sea = b.field("Above the sea, m", 0).await;
    b.fill(&sea, "-430").await;
    tolva.holds_where(&id, "/setups/0/scene/site/elevation_m", |metres| metres.as_f64() == Some(-430.0)).await;
    let latitude = b.field("Latitude, degrees", 0).await;
    b.holds(&latitude, "27.7").await;
    b.fill(&latitude, "99").await;
    b.shows("main [role=alert]", "from −90 to 90 degrees").await;
    b.fill(&latitude, "27.71234").await;
    tolva.holds_where(&id, "/setups/0/scene/site/latitude_deg", |at| at.as_f64() == Some(27.712_34)).await;
    let place = b.field("Another place: a name or coordinates", 0).await;
    place.click().await.expect("the field");
    place.send_keys("95, 200").await.expect("typing");
    b.shows("main [role=alert]", "95, 200 is not on the globe").await;
    b.shows("main [role=alert]", "latitude must be from −90 to 90").await;
    // What was typed is still there after a reload.
    b.driver.refresh().await.expect("a reload");
    let place = b.field("Another place: a name or coordinates", 0).await;
    b.holds(&place, "95, 200").await;
    b.close().await;
}

/// A point out of a GPX, one of several, and files that have none.
#[tokio::test]
async fn places_come_out_of_files() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    let write = |name: &str, text: &str| {
        let file = tolva.folder().join(name);
        std::fs::write(&file, text).expect("written");
        file.display().to_string()
    };
    let gpx = |points: &str| {
        format!("<gpx version=\"1.1\" creator=\"t\" xmlns=\"http://www.topografix.com/GPX/1/1\">{points}</gpx>")
    };
    let one = "<wpt lat=\"60.10\" lon=\"24.90\"><ele>7</ele><name>Slip</name></wpt>";
    let two = "<wpt lat=\"59.90\" lon=\"10.70\"><name>Pier</name></wpt>";
    b.css("[aria-label='Day strip']").await;
    let chooser = b.css("main input[type=file]").await;
    chooser.send_keys(write("none.gpx", &gpx(""))).await.expect("a file");
    b.shows("main [role=alert]", "none.gpx: this GPX has no point in it").await;
    chooser.send_keys(write("photo.jpg", "not a photo")).await.expect("a file");
    b.shows("main [role=alert]", "no file that is read").await;
    chooser.send_keys(write("one.gpx", &gpx(one))).await.expect("a file");
    tolva.holds_where(&id, "/setups/0/scene/site/name", |name| name == "Slip").await;
    tolva.holds_where(&id, "/setups/0/scene/site/elevation_m", |metres| metres.as_f64() == Some(7.0)).await;
    chooser.send_keys(write("two.gpx", &gpx(&format!("{one}{two}")))).await.expect("a file");
    b.xpath("//*[@role='dialog']//button[starts-with(normalize-space(), 'Pier')]")
        .await
        .click()
        .await
        .expect("a point");
    b.shows("main", "Europe/Oslo").await;
    b.close().await;
}

#[tokio::test]
async fn the_hour_is_dragged_and_everything_follows() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    b.shows("header", "Sun 6.5° up").await;
    let hour = b.css("[aria-label='Day strip'] [role=slider]").await;
    b.drag(&hour, 40).await;
    // An hour and a half on the light has fallen: the readings are followed, and say so.
    b.shows("header", "under the horizon").await;
    b.shows("aside", "Read it again").await;
    tolva.holds_where(&id, "/setups/0/scene/at/time", |time| time.as_str().is_some_and(|time| time > "20:30")).await;
    b.button("Undo: Hour moved").await.click().await.expect("undo");
    b.shows("header", "Sun 6.5° up").await;
    b.script("document.querySelector(\"[aria-label='Day strip'] [role=slider]\").focus()").await;
    b.press(Key::Right).await;
    tolva.holds_where(&id, "/setups/0/scene/at/time", |time| time == "19:31").await;
    b.chord(Key::Shift, Key::Left).await;
    tolva.holds_where(&id, "/setups/0/scene/at/time", |time| time == "18:31").await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// An hour that summer time leaves out is kept in its field with what is wrong; one that comes twice is asked about.
#[tokio::test]
async fn hours_that_clocks_leave_out_or_show_twice() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    let segment = async |of: &str, text: &str| {
        let path = format!("//*[@role='spinbutton' and starts-with(@aria-label, '{of}')]");
        b.xpath(&path).await.click().await.expect("the segment");
        b.press(text).await;
    };
    segment("year", "2027").await;
    segment("month", "03").await;
    segment("day", "28").await;
    b.press(Key::Enter).await;
    tolva.holds_where(&id, "/setups/0/scene/at/date", |date| date == "2027-03-28").await;
    // Both keys of an hour are typed before it counts.
    segment("hour", "03").await;
    b.press(Key::Enter).await;
    b.shows("main [role=alert]", "does not come on 2027-03-28 in Europe/Helsinki: clocks are put forward").await;
    b.shows("main", "03").await;
    tolva.holds_where(&id, "/setups/0/scene/at/time", |time| time == "19:26").await;
    segment("hour", "05").await;
    b.press(Key::Enter).await;
    tolva.holds_where(&id, "/setups/0/scene/at/time", |time| time == "05:26").await;
    segment("month", "10").await;
    segment("day", "31").await;
    segment("hour", "03").await;
    b.press(Key::Enter).await;
    b.shows("main", "Clocks show this hour twice").await;
    b.xpath("//label[normalize-space()='Second time']").await.click().await.expect("the second");
    b.shows("main", "UTC+2").await;
    tolva.holds_where(&id, "/setups/0/scene/at/second_time", |second| second == true).await;
    b.close().await;
}

/// A hill ends the sun; one that covers the sky is refused and what was there stays.
#[tokio::test]
async fn a_hill_ends_the_sun_and_cannot_cover_the_sky() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/yard/place").await;
    b.shows("header", "sets 20:26").await;
    b.button("Add a hill or a house").await.click().await.expect("a hill");
    b.shows("header", "behind what stands in the way").await;
    tolva.holds_where(&id, "/setups/1/scene/horizon/0/height/size/height_m", |high| high.as_f64() == Some(12.0)).await;
    let what = b.field("What", 0).await;
    b.fill(&what, "the ridge").await;
    tolva.holds_where(&id, "/setups/1/scene/horizon/0/name", |name| name == "the ridge").await;
    b.shows("[aria-labelledby='sun-times']", "Sun goes behind the ridge").await;
    let to = b.field("To, degrees", 0).await;
    b.fill(&to, "360").await;
    let from = b.field("From, degrees", 0).await;
    b.fill(&from, "0").await;
    let far = b.field("So far away", 0).await;
    b.fill(&far, "1").await;
    // 12 m high all around, 1 m away: what was typed stays in its field, and the yard is as it was.
    b.shows("main [role=alert]", "covers the sky").await;
    assert_eq!(far.prop("value").await.expect("a value").as_deref(), Some("1"));
    tolva.holds_where(&id, "/setups/1/scene/horizon/0/height/size/distance_m", |far| far.as_f64() == Some(30.0)).await;
    b.fill(&far, "25").await;
    tolva.holds_where(&id, "/setups/1/scene/horizon/0/height/size/distance_m", |far| far.as_f64() == Some(25.0)).await;
    b.close().await;
}

#[tokio::test]
async fn weather_and_surroundings_change_the_light() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/yard/place").await;
    b.button("Simulated forecast").await.click().await.expect("a forecast");
    b.shows("main", "made up: no real weather").await;
    b.shows("[aria-label='Day strip']", "Cloud: simulated").await;
    b.shows("aside", "Simulated weather").await;
    tolva.holds_where(&id, "/setups/1/scene/weather/forecast/simulated", |simulated| simulated == true).await;
    b.button("By hand instead").await.click().await.expect("by hand");
    let cloud = b.field("Cloud, eighths of the sky", 0).await;
    b.fill(&cloud, "8").await;
    tolva.holds_where(&id, "/setups/1/scene/weather/steady/cloud_eighths", |cloud| cloud.as_f64() == Some(8.0)).await;
    b.xpath("//button[.//*[normalize-space()='Open ground']]").await.click().await.expect("the list");
    b.xpath("//*[@role='option'][normalize-space()='Under trees']").await.click().await.expect("trees");
    b.shows("aside", "Colour must be measured").await;
    b.close().await;
}

/// A reading taken later beats the one before it; a stand-in's is marked wherever it shows.
#[tokio::test]
async fn readings_are_taken_again() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    b.css("[aria-label='Day strip'] [role=slider]").await;
    b.script("document.querySelector(\"[aria-label='Day strip'] [role=slider]\").focus()").await;
    b.chord(Key::Shift, Key::Right).await;
    tolva.holds_where(&id, "/setups/0/scene/at/time", |time| time == "20:26").await;
    b.link("Light that is there").await.click().await.expect("the light");
    b.shows("main", "Read 1 h 00 min ago, −3").await;
    b.button("Read again").await.click().await.expect("again");
    let again = b.field("New reading, 20:26", 0).await;
    b.fill(&again, "10.2").await;
    tolva
        .holds_where(&id, "/setups/0/regions/0/ambient/readings/1/reading/ev/ev100", |ev| ev.as_f64() == Some(10.2))
        .await;
    b.shows("[aria-label='Earlier readings of Behind']", "19:26, EV 12.6, incident, dome").await;
    b.shows("nav", "10.2,").await;
    b.button("Simulated meter: read Face, lit side").await.click().await.expect("the stand-in");
    b.shows("main", "Simulated reading at this hour").await;
    tolva.holds_where(&id, "/setups/0/regions/1/ambient/readings/1/simulated", |simulated| simulated == true).await;
    b.link("Falling light").await.click().await.expect("falling light");
    b.shows("main", "Simulated: cloud or a reading in it is made up").await;
    b.close().await;
}

/// The subject is turned by keys on the compass, and the side the sun stands on follows.
#[tokio::test]
async fn the_subject_is_turned() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/yard/place").await;
    b.shows("main", "before the lens").await;
    b.shows("aside", "Sun and lens").await;
    b.shows("aside", "optical finder").await;
    let facing = b.field("Subject faces, degrees", 0).await;
    b.fill(&facing, "200").await;
    b.shows("main", "behind the camera").await;
    b.shows("aside", "Sun in the eyes").await;
    b.script("document.querySelector(\"[aria-label='The subject faces']\").focus()").await;
    b.press(Key::Left).await;
    tolva.holds_where(&id, "/setups/1/scene/facing_deg", |facing| facing.as_f64() == Some(195.0)).await;
    b.close().await;
}
