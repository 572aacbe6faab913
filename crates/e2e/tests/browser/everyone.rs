//! For everyone: keyboard alone, both themes, narrow screens, no network.

use rstest::rstest;
use serde_json::Value;
use tolva_e2e::{Browser, Key, Theme, Tolva, settle};

const PAGES: [&str; 12] = [
    "",
    "/setups/doorway/place",
    "/setups/yard/place",
    "/setups/doorway/falling",
    "/setups/doorway/light",
    "/setups/doorway/blend",
    "/setups/doorway/colour",
    "/setups/net-store/depth",
    "/setups/doorway/set",
    "/setups/doorway/glass",
    "/setups/doorway/proof",
    "/setups/noon-quay/blend",
];

#[tokio::test]
async fn axe_finds_nothing_in_either_theme() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url("")).await;
    b.link("Ropeworks open day").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "the jobs");
    for page in PAGES {
        b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
        b.css(if page.is_empty() { "#setups" } else { "[aria-label='Answer']" }).await;
        assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "{page}");
    }
    b.button("Workings").await.click().await.expect("the workings");
    b.css("[role=dialog] table").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "the workings");
    // And by the button: the theme that is chosen stays from page to page.
    b.go(&tolva.url("")).await;
    b.theme(Theme::Dusk).await;
    b.go(&tolva.url("kit")).await;
    b.css("[aria-label='Theme: change to daylight']").await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// From the list of jobs to a changed plan without a pointer.
#[tokio::test]
async fn by_keyboard_alone() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.link("Ropeworks open day").await;
    tab_to(&b, "Ropeworks open day").await;
    b.press(Key::Enter).await;
    b.shows("h1", "Ropeworks open day").await;
    tab_to(&b, "Keeper in the rope-walk doorway").await;
    b.press(Key::Enter).await;
    b.shows("main h2", "Place and hour").await;
    for (key, step) in [
        ("3", "Blend"),
        ("4", "Colour"),
        ("5", "Depth and speed"),
        ("6", "Set"),
        ("7", "Glass and hazards"),
        ("2", "Light that is there"),
    ] {
        b.press(key).await;
        b.shows("main h2", step).await;
    }
    b.press("?").await;
    b.shows("[role=dialog]", "Find anything").await;
    b.press(Key::Escape).await;
    settle(|| async {
        let open = b.script("return document.querySelector('[role=dialog]') !== null").await;
        if open == false { Ok(()) } else { Err("the list of keys stays".to_owned()) }
    })
    .await;
    b.chord(Key::Control, 'k').await;
    b.css("[role=dialog] input").await;
    b.press("half and").await;
    // What it does comes before the jobs in which it is done.
    b.shows("[role=dialog] [role=menu] [data-focused]", "Blend: Half and half").await;
    b.press(Key::Enter).await;
    b.shows("nav[aria-label='Order of work']", "Half and half").await;
    b.saved().await;
    b.chord(Key::Control, 'z').await;
    b.shows("nav[aria-label='Order of work']", "Lift").await;
    // A setting on the dial card, by its list.
    tab_to(&b, "f/9").await;
    b.press(Key::Enter).await;
    b.css("[role=listbox]").await;
    b.press("f/11").await;
    b.press(Key::Enter).await;
    b.shows("[aria-label='Dial card']", "fixed").await;
    b.dialled("Aperture", "f/11").await;
    b.press("t").await;
    settle(|| async {
        let theme = b.script("return document.documentElement.dataset.theme").await;
        if theme == "dusk" { Ok(()) } else { Err(format!("the theme is {theme}")) }
    })
    .await;
    b.close().await;
}

/// Presses Tab until the focus is on something with this name.
async fn tab_to(b: &Browser, name: &str) {
    for _ in 0..60 {
        b.press(Key::Tab).await;
        let here = b
            .script(
                "const e = document.activeElement; return (e.getAttribute('aria-label') ?? '') + '\\n' + e.textContent",
            )
            .await;
        if here.as_str().is_some_and(|here| here.split('\n').any(|part| part.trim().starts_with(name))) {
            return;
        }
    }
    panic!("Tab never comes to {name}");
}

/// Everything a page asks for comes from this Tolva, and nothing it needs is refused by its own policy.
#[tokio::test]
async fn no_request_leaves_the_machine() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    for page in PAGES {
        b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
        b.css(if page.is_empty() { "#setups" } else { "[aria-label='Answer']" }).await;
        let asked = async || -> Vec<String> {
            let asked = b.script("return performance.getEntriesByType('resource').map((entry) => entry.name)").await;
            serde_json::from_value(asked).expect("addresses")
        };
        // A font is asked for once there is text in it, and stands in the list once it has come.
        settle(|| async {
            let fonts = asked().await.iter().any(|address| address.contains("woff2"));
            if fonts { Ok(()) } else { Err("its fonts do not come with it".to_owned()) }
        })
        .await;
        let asked = asked().await;
        let outside: Vec<&String> = asked.iter().filter(|address| !address.starts_with(&tolva.url(""))).collect();
        assert!(outside.is_empty(), "{outside:?}");
    }
    let reached = b.script("return fetch('http://127.0.0.1:9/').then(() => 'reached', (error) => String(error))").await;
    assert!(reached.as_str().is_some_and(|said| said.contains("TypeError")), "the policy lets nothing out: {reached}");
    b.close().await;
}

/// What is only there after a press: sheets, menus, the calendar. In both themes, wide and on a phone.
#[rstest]
#[tokio::test]
async fn axe_finds_nothing_in_what_opens(#[values(1280, 390)] width: u32) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    let at = async |page: &str| b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
    b.size(width, 844).await;
    at("").await;
    b.css("#setups").await;
    let clean = async |what: &str| {
        let told = format!("{what}, {width}");
        // What lies under a sheet is hidden from those who hear the page, its heading and its landmark too. Axe
        // knows that of sheets that cover the middle of the window only.
        let under = ["landmark-one-main", "page-has-heading-one"];
        let mut wrong = b.axe_in_both_themes().await;
        wrong.retain(|one| !under.iter().any(|rule| one.starts_with(rule)));
        assert_eq!(wrong, Vec::<String>::new(), "{told}");
        let over = b.script("return document.documentElement.scrollWidth - window.innerWidth").await;
        assert!(over.as_f64().is_some_and(|over| over <= 0.0), "{told}: {over}");
        b.press(Key::Escape).await;
        b.gone("[role=dialog]").await;
    };
    b.button("What it was before").await.click().await.expect("the past");
    b.css("[role=dialog] li").await;
    clean("what it was before").await;
    at("/setups/doorway/depth").await;
    b.css("main h2").await;
    b.button("Edit this camera").await.click().await.expect("the camera");
    b.css("[role=dialog] input").await;
    clean("the camera").await;
    at("/setups/doorway/place").await;
    b.css("[aria-label='Day strip']").await;
    b.button("Open the calendar").await.click().await.expect("the calendar");
    b.css("[role=dialog] table").await;
    clean("the calendar").await;
    for (key, holds) in [("q", "[role=dialog] dl"), ("?", "[role=dialog] kbd")] {
        at("/setups/doorway/blend").await;
        b.css("[aria-label='Answer']").await;
        b.press(key).await;
        b.css(holds).await;
        clean(key).await;
    }
    at("/setups/doorway/blend").await;
    b.css("[aria-label='Answer']").await;
    b.chord(Key::Control, 'k').await;
    b.css("[role=dialog] [role=menu]").await;
    clean("the finder").await;
    for (button, holds) in
        [("Workings", "In words"), ("Other ways", "comes first: "), ("Schools", "Slowest shutter by hand")]
    {
        at("/setups/doorway/blend").await;
        b.css("main h2").await;
        let button_here = b.button(button).await;
        // The bar at the bottom lies over what is no further up.
        b.centre(&button_here).await;
        button_here.click().await.expect("the sheet");
        if width > 600 || button != "Workings" {
            b.shows("[role=dialog]", holds).await;
        } else {
            b.css("[role=dialog] table").await;
        }
        clean(button).await;
    }
    at("/setups/doorway/blend").await;
    b.css("main h2").await;
    let menu = if width > 600 { "This setup, and new ones" } else { "More" };
    b.menu(menu, "Names of job and setup").await;
    b.css("[role=dialog] input").await;
    clean("the names").await;
    if width < 600 {
        b.button("More").await.click().await.expect("the menu");
        b.css("[role=menuitem]").await;
        clean("the menu").await;
    }
    b.close().await;
}

/// Who dictates, or whose hands shake, can switch single letters off; with a modifier they go on.
#[tokio::test]
async fn letters_can_be_switched_off() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/blend"))).await;
    b.shows("main h2", "Blend").await;
    b.press("?").await;
    b.xpath("//label[normalize-space()='Single letters and digits are keys']").await.click().await.expect("off");
    b.press(Key::Escape).await;
    b.gone("[role=dialog]").await;
    for key in ["4", "w", "t", "q", "?"] {
        b.press(key).await;
    }
    b.shows("main h2", "Blend").await;
    assert_eq!(b.script("return document.querySelector('[role=dialog]')").await, Value::Null);
    b.chord(Key::Control, 'k').await;
    b.css("[role=dialog] input").await;
    b.close().await;
}

/// The title says where one is, and who goes to another step is brought to its heading.
#[tokio::test]
async fn title_and_focus_follow_the_step() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/place"))).await;
    b.shows("main h2", "Place and hour").await;
    assert_eq!(
        b.script("return document.title").await,
        "Place and hour: Keeper in the rope-walk doorway, Ropeworks open day"
    );
    for (key, name) in [("3", "Blend"), ("6", "Set")] {
        b.press(key).await;
        settle(|| async {
            let here = b
                .script("return [document.title, document.activeElement.tagName, document.activeElement.textContent]")
                .await;
            let good =
                here[0].as_str().is_some_and(|title| title.starts_with(name)) && here[1] == "H2" && here[2] == name;
            if good { Ok(()) } else { Err(here.to_string()) }
        })
        .await;
    }
    b.close().await;
}

/// The verdict is said once it has settled, and not at every frame of a drag.
#[tokio::test]
async fn the_verdict_is_announced_when_it_has_settled() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/blend"))).await;
    let said = "[aria-label='Answer'] [role=status]";
    b.shows(said, "Behind at −1⅓").await;
    let mark = b.mark("Behind, together").await;
    b.driver
        .action_chain()
        .move_to_element_center(&mark)
        .click_and_hold()
        .move_by_offset(50, 0)
        .perform()
        .await
        .expect("held");
    b.shows("[aria-label='Answer'] > p", "Behind at −⅓").await;
    assert!(b.text(said).await.contains("−1⅓"), "it is not said while it is dragged");
    b.driver.action_chain().release().perform().await.expect("let go");
    b.shows(said, "Behind at −⅓").await;
    b.close().await;
}

/// Marks know Home, End and Page; typed numbers are spin buttons, and what is wrong with one is tied to it.
#[tokio::test]
async fn sliders_and_spin_buttons() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/blend"))).await;
    let mark = "[role=slider][aria-label^='Behind, together:']";
    b.css(mark).await;
    b.script(&format!("document.querySelector(\"{mark}\").focus()")).await;
    b.press(Key::PageUp).await;
    b.has(mark, "aria-valuetext", "+⅔ stops").await;
    for (key, end) in [(Key::Home, -6.0), (Key::End, 3.0)] {
        b.press(key).await;
        settle(|| async {
            let stops = tolva.job(&id).await["setups"][0]["blend"]["lift"]["background_stops"].as_f64();
            if stops == Some(end) { Ok(()) } else { Err(format!("behind is {stops:?}, not {end}")) }
        })
        .await;
    }
    let field = b.field("Behind, stops", 0).await;
    assert_eq!(field.attr("role").await.expect("a role").as_deref(), Some("spinbutton"));
    assert_eq!(field.attr("aria-valuemax").await.expect("an end").as_deref(), Some("3"));
    b.fill(&field, "9").await;
    b.shows("main [role=alert]", "must be from −6 to +3 stops").await;
    let tied = b
        .script("const e = document.querySelector('[aria-invalid=true]'); return document.getElementById(e.getAttribute('aria-errormessage')).textContent")
        .await;
    assert!(tied.as_str().is_some_and(|told| told.contains("must be from −6")), "{tied}");
    b.close().await;
}

/// Tab goes from one control to the next, and never puts a frame round a whole panel.
#[tokio::test]
async fn tab_frames_controls_and_no_panels() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    for page in ["set", "place", "depth"] {
        b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/{page}"))).await;
        b.css("main h2").await;
        b.css("[aria-label='Answer']").await;
        for _ in 0..70 {
            b.press(Key::Tab).await;
            let large = b
                .script("return [...document.querySelectorAll('body *')].filter(e => { const r = e.getBoundingClientRect(); return r.width > 420 && r.height > 160 && getComputedStyle(e).outlineStyle !== 'none'; }).map(e => e.outerHTML.slice(0, 120))[0] ?? null")
                .await;
            assert_eq!(large, Value::Null, "{page}");
        }
    }
    b.close().await;
}
