//! Measures dragging and nudging in a real browser: from a pointer's move to the frame that shows the plan at the new
//! hour, how many plans a second are shown while the pointer never rests, and from a key pressed on a mark of the rail or
//! the colour line to the frame with what it changes. `cargo xtask drag` runs it.

use std::time::Duration;

use tolva_e2e::{Browser, Tolva};

/// Thirty moves, each let to settle; then two seconds of moves at sixty a second.
const MEASURE: &str = r"
const done = arguments[0];
const strip = document.querySelector('[aria-label=\'The light of the day\']');
const said = document.querySelector('[aria-label=\'Day strip\'] [role=slider]');
const box = strip.getBoundingClientRect();
const at = (type, x) => strip.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, pointerType: 'mouse', clientX: x, clientY: box.top + 60, isPrimary: true }));
strip.setPointerCapture = () => {}; strip.hasPointerCapture = () => true;
let moved = 0, shown = [], frames = 0;
new MutationObserver(() => requestAnimationFrame(() => { frames++; if (moved) { shown.push(performance.now() - moved); moved = 0; } }))
  .observe(said, { attributes: true, attributeFilter: ['aria-valuetext'] });
const rest = (ms) => new Promise((go) => setTimeout(go, ms));
(async () => {
  at('pointerdown', box.left + box.width * 0.5);
  await rest(300); shown = [];
  for (let n = 0; n < 30; n++) { moved = performance.now(); at('pointermove', box.left + box.width * (0.3 + 0.015 * n)); await rest(120); }
  const alone = shown.slice().sort((a, b) => a - b);
  frames = 0; const begun = performance.now(); let n = 0;
  while (performance.now() - begun < 2000) { at('pointermove', box.left + box.width * (0.3 + 0.4 * Math.abs(Math.sin(n++ / 40)))); await new Promise(requestAnimationFrame); }
  const rate = frames / 2;
  at('pointerup', box.left + box.width * 0.5);
  done({ median: alone[Math.floor(alone.length / 2)], most: alone[alone.length - 1], seen: alone.length, rate });
})();
";

/// A hundred presses of the arrow keys on a mark, each until what is watched has changed.
const NUDGE: &str = r"
const done = arguments[arguments.length - 1];
const mark = document.querySelector(arguments[0]), watched = document.querySelector(arguments[1]);
let pressed = 0, shown = [];
new MutationObserver(() => requestAnimationFrame(() => { if (pressed) { shown.push(performance.now() - pressed); pressed = 0; } }))
  .observe(watched, { subtree: true, childList: true, characterData: true, attributes: true });
const rest = (ms) => new Promise((go) => setTimeout(go, ms));
const press = (type, key) => mark.dispatchEvent(new KeyboardEvent(type, { key, bubbles: true, cancelable: true }));
(async () => {
  mark.focus();
  for (let n = 0; n < 100; n++) {
    const key = Math.floor(n / 5) % 2 ? 'ArrowRight' : 'ArrowLeft';
    pressed = performance.now(); press('keydown', key); press('keyup', key);
    await rest(120);
  }
  const sorted = shown.sort((a, b) => a - b);
  const at = (share) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))];
  done({ median: at(0.5), high: at(0.95), most: at(1), seen: sorted.length });
})();
";

#[tokio::main]
async fn main() {
    let tolva = Tolva::with_demo_data();
    let browser = Browser::open().await;
    let job = tolva.job_id("Ropeworks open day").await;
    browser.go(&tolva.url(&format!("jobs/{job}/setups/doorway/place"))).await;
    browser.css("[aria-label='Day strip'] [role=slider]").await;
    tokio::time::sleep(Duration::from_millis(500)).await;
    let found = browser.driver.execute_async(MEASURE, vec![]).await.expect("a measurement").json().clone();
    println!(
        "From a move to the frame with its plan: median {:.1} ms, most {:.1} ms of {} moves. While dragging: {:.0} plans \
         shown a second.",
        found["median"].as_f64().unwrap_or_default(),
        found["most"].as_f64().unwrap_or_default(),
        found["seen"],
        found["rate"].as_f64().unwrap_or_default()
    );
    let weir = tolva.job_id("Weir Lane, behind glass").await;
    for (what, page, mark, watched) in [
        ("the outlines in glass", "glass", "[data-thing='light/A']", "[aria-label^='The frame through the lens.']"),
        ("the contours", "set", "[data-thing='light/A']", "[aria-label='The set from above']"),
        ("the dial card", "blend", "[aria-label^='Behind, together']", "[aria-label='Dial card']"),
        (
            "the swatches",
            "colour",
            "[aria-label^='White balance: moves']",
            "[aria-label='What becomes of each region']",
        ),
    ] {
        let glass = page == "glass";
        let setup = if glass { format!("{weir}/setups/shopfront") } else { format!("{job}/setups/doorway") };
        browser.go(&tolva.url(&format!("jobs/{setup}/{page}"))).await;
        if glass {
            let above = browser.xpath("//label[normalize-space()='From above']").await;
            above.click().await.expect("seen from above");
        }
        browser.css(mark).await;
        tokio::time::sleep(Duration::from_millis(700)).await;
        let arguments = vec![mark.into(), watched.into()];
        let found = browser.driver.execute_async(NUDGE, arguments).await.expect("a measurement").json().clone();
        println!(
            "From a key to the frame with {what}: median {:.1} ms, 95 of 100 within {:.1} ms, most {:.1} ms of {} presses.",
            found["median"].as_f64().unwrap_or_default(),
            found["high"].as_f64().unwrap_or_default(),
            found["most"].as_f64().unwrap_or_default(),
            found["seen"]
        );
    }
    browser.close().await;
}
