//! For everyone: keyboard alone, both themes, narrow screens, no network.

use tolva_e2e::{Browser, Key, Theme, Tolva, settle};

const PAGES: [&str; 10] = [
    "",
    "/setups/doorway/place",
    "/setups/yard/place",
    "/setups/doorway/falling",
    "/setups/doorway/light",
    "/setups/doorway/blend",
    "/setups/doorway/colour",
    "/setups/net-store/depth",
    "/setups/doorway/lights",
    "/setups/noon-quay/blend",
];

#[tokio::test]
async fn axe_finds_nothing_in_either_theme() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    for theme in [Theme::Daylight, Theme::Dusk] {
        b.go(&tolva.url("")).await;
        b.theme(theme).await;
        b.link("Ropeworks open day").await;
        assert_eq!(b.axe().await, Vec::<String>::new(), "the jobs, {theme:?}");
        for page in PAGES {
            b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
            b.css(if page.is_empty() { "#setups" } else { "[aria-label='Answer']" }).await;
            assert_eq!(b.axe().await, Vec::<String>::new(), "{page}, {theme:?}");
        }
        b.button("Workings").await.click().await.expect("the workings");
        b.css("[role=dialog] table").await;
        assert_eq!(b.axe().await, Vec::<String>::new(), "the workings, {theme:?}");
    }
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
    for (key, step) in
        [("3", "Blend"), ("4", "Colour"), ("5", "Depth and speed"), ("6", "Lights"), ("2", "Light that is there")]
    {
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
    b.shows("[role=dialog] [role=menu]", "Blend: Half and half").await;
    b.press(Key::Down).await;
    b.press(Key::Enter).await;
    b.shows("nav", "Half and half").await;
    b.saved().await;
    b.chord(Key::Control, 'z').await;
    b.shows("nav", "Lift").await;
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

/// What is only there after a press: the sheets of the kit, the finder, the keys, the calendar, the places that were
/// found. In both themes.
#[tokio::test]
async fn axe_finds_nothing_in_what_opens() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    for theme in [Theme::Daylight, Theme::Dusk] {
        b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/depth"))).await;
        b.theme(theme).await;
        b.button("Edit this camera").await.click().await.expect("the camera");
        b.css("[role=dialog] input").await;
        assert_eq!(b.axe().await, Vec::<String>::new(), "the camera, {theme:?}");
        b.press(Key::Escape).await;
        b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/place"))).await;
        b.css("[aria-label='Day strip']").await;
        b.button("Open the calendar").await.click().await.expect("the calendar");
        b.css("[role=dialog] table").await;
        assert_eq!(b.axe().await, Vec::<String>::new(), "the calendar, {theme:?}");
        b.press(Key::Escape).await;
        b.chord(Key::Control, 'k').await;
        b.css("[role=dialog] [role=menu]").await;
        assert_eq!(b.axe().await, Vec::<String>::new(), "the finder, {theme:?}");
        b.press(Key::Escape).await;
        // What stands over a setup, wide and on a phone.
        for width in [1280, 390] {
            b.size(width, 844).await;
            for (button, holds) in [("Other ways", "comes first: "), ("Schools", "Slowest shutter by hand")] {
                b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/blend"))).await;
                b.button(button).await.click().await.expect("the sheet");
                b.shows("[role=dialog]", holds).await;
                assert_eq!(b.axe().await, Vec::<String>::new(), "{button}, {theme:?}, {width}");
                let over = b.script("return document.documentElement.scrollWidth - window.innerWidth").await;
                assert_eq!(over.as_f64(), Some(0.0), "{button}, {theme:?}, {width}");
            }
        }
        b.size(1280, 800).await;
    }
    b.close().await;
}
