//! Measures dragging in a real browser: from a pointer's move to the frame that shows the plan at the new hour, and how
//! many plans a second are shown while the pointer never rests. `cargo xtask drag` runs it.

use std::time::Duration;

use tolva_e2e::{Browser, Tolva};

/// Thirty moves, each let to settle; then two seconds of moves at sixty a second.
const MEASURE: &str = r"
const done = arguments[0];
const strip = document.querySelector('[aria-label=\'The light of the day\']');
const said = document.querySelector('[aria-label=\'Day strip\'] [role=slider]');
const box = strip.getBoundingClientRect();
const at = (type, x) => strip.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, clientX: x, clientY: box.top + 60, isPrimary: true }));
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
    browser.close().await;
}
