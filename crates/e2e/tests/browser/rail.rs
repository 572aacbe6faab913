//! The stop rail as a control: dragged, nudged, taken back.

use tolva_e2e::{Browser, Key, Tolva, settle};

async fn open(b: &Browser, tolva: &Tolva) -> String {
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/blend"))).await;
    b.mark("Behind, together").await;
    id
}

fn slider(name: &str) -> String {
    format!("[role=slider][aria-label^='{name}:']")
}

#[tokio::test]
async fn a_mark_is_nudged_by_thirds_and_by_stops() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    open(&b, &tolva).await;
    let background = slider("Behind, together");
    b.has(&background, "aria-valuetext", "−1⅓ stops").await;
    b.script(&format!("document.querySelector(\"{background}\").focus()")).await;
    b.press(Key::Right).await;
    b.shows("[aria-label='Answer']", "Behind at −1,").await;
    b.chord(Key::Shift, Key::Right).await;
    b.shows("[aria-label='Answer']", "Behind at 0,").await;
    let id = tolva.job_id("Ropeworks open day").await;
    tolva
        .holds_where(&id, "/setups/0/blend/lift/background_stops", |to| to.as_f64().is_some_and(|to| to.abs() < 0.01))
        .await;
    // The focus stays on the mark that was moved.
    let focused = b.script("return document.activeElement.getAttribute('aria-label')").await;
    assert!(focused.as_str().is_some_and(|name| name.starts_with("Behind, together")), "{focused}");
    b.close().await;
}

#[tokio::test]
async fn a_mark_is_dragged_and_undo_takes_it_back() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    open(&b, &tolva).await;
    let face = slider("Face, lit side, together");
    b.has(&face, "aria-valuetext", "0 stops").await;
    // A stop is so many pixels wide: the drag goes one stop down.
    let per_stop = b
        .script("const t = [...document.querySelectorAll('svg text')]; const at = (s) => t.find((e) => e.textContent === s).getBoundingClientRect(); return (at('+1').x + at('+1').width / 2) - (at('0').x + at('0').width / 2)")
        .await
        .as_f64()
        .expect("pixels");
    let mark = b.css(&face).await;
    #[allow(clippy::cast_possible_truncation, reason = "some fifty pixels")]
    b.drag(&mark, -(per_stop as i64) - 4).await;
    b.shows("[aria-label='Answer']", "Face, lit side at −1").await;
    b.saved().await;
    b.button("Undo: Mark moved").await.click().await.expect("undo");
    b.shows("[aria-label='Answer']", "Face, lit side at 0").await;
    b.button("Redo: Mark moved").await.click().await.expect("redo");
    b.shows("[aria-label='Answer']", "Face, lit side at −1").await;
    b.close().await;
}

/// Dragging what lies behind in a fill makes it a lift, and the flash's own mark changes the fill.
#[tokio::test]
async fn marks_change_the_wish_they_belong_to() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva).await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/yard/blend"))).await;
    let lozenge = slider("Face, lit side, flash A");
    b.css(&lozenge).await;
    b.script(&format!("document.querySelector(\"{lozenge}\").focus()")).await;
    b.press(Key::Left).await;
    settle(|| async {
        let fill = tolva.job(&id).await["setups"][1]["blend"]["fill"]["fill_stops"].as_f64();
        if fill.is_some_and(|f| (f + 4.0 / 3.0).abs() < 0.01) { Ok(()) } else { Err(format!("fill is {fill:?}")) }
    })
    .await;
    let background = slider("Behind, together");
    b.script(&format!("document.querySelector(\"{background}\").focus()")).await;
    b.press(Key::Left).await;
    b.shows("nav", "Lift").await;
    b.close().await;
}
