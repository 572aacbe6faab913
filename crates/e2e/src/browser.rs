//! A headless Chromium, and the few gestures the tests are made of.

use std::collections::BTreeSet;
use std::mem::ManuallyDrop;
use std::sync::Mutex;
use std::time::Duration;

use base64::Engine as _;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use thirtyfour::{ChromiumLikeCapabilities, LoggingPrefsLogLevel, TypingData};

use crate::chromium::Chromium;
use crate::timed::Timed;

const PATIENCE: Duration = Duration::from_secs(30);
const GLANCE: Duration = Duration::from_millis(60);

/// The two themes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Theme {
    /// For sun.
    Daylight,
    /// For the dark.
    Dusk,
}

/// A browser that knows nothing of any other.
pub struct Browser {
    /// For what has no gesture here. Never dropped: where a test fails the browser is killed, and a driver that is
    /// dropped would wait a minute for it to say goodbye.
    pub driver: ManuallyDrop<WebDriver>,
    chromium: Chromium,
    /// Where it went, to forget it all.
    been: Mutex<BTreeSet<String>>,
    timed: Timed,
}

/// Asks again and again until it is so; the last answer tells why it never was.
pub async fn settle<F: Future<Output = Result<(), String>>>(mut ask: impl FnMut() -> F) {
    let start = std::time::Instant::now();
    loop {
        match ask().await {
            Ok(()) => return,
            Err(why) if start.elapsed() > PATIENCE => panic!("{why}"),
            Err(_) => tokio::time::sleep(GLANCE).await,
        }
    }
}

impl Browser {
    /// Opens a window of 1280×800.
    pub async fn open() -> Self {
        let timed = Timed::begin();
        let chromium = Chromium::take().await;
        let mut capabilities = DesiredCapabilities::chrome();
        capabilities.set_debugger_address(&chromium.debugger).expect("its address");
        capabilities.set_browser_log_level(LoggingPrefsLogLevel::Severe).expect("its console");
        let start = std::time::Instant::now();
        let driver = loop {
            match WebDriver::new(&chromium.driver, capabilities.clone()).await {
                Ok(driver) => break driver,
                Err(error) if start.elapsed() > PATIENCE => panic!("no browser: {error}"),
                Err(_) => tokio::time::sleep(GLANCE).await,
            }
        };
        let browser = Self { driver: ManuallyDrop::new(driver), chromium, been: Mutex::default(), timed };
        browser.size(1280, 800).await;
        browser
    }

    /// Makes the page so wide and so high, as a phone's below 600.
    pub async fn size(&self, width: u32, height: u32) {
        let metrics = json!({ "width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 600 });
        self.driver.cdp().send_raw("Emulation.setDeviceMetricsOverride", metrics).await.expect("a size");
        let touch = json!({ "enabled": width < 600 });
        self.driver.cdp().send_raw("Emulation.setTouchEmulationEnabled", touch).await.expect("fingers");
    }

    /// Goes to an address.
    pub async fn go(&self, url: &str) {
        self.been.lock().expect("no other goes").extend(origin(url));
        self.driver.goto(url).await.expect(url);
    }

    /// Cuts the line of this page, or mends it. A service worker has a line of its own, which stays: while the page's is cut
    /// nothing goes by way of it.
    pub async fn cut(&self, cut: bool) {
        self.driver.cdp().send_raw("Network.enable", json!({})).await.expect("a look at the line");
        let past = json!({ "bypass": cut });
        self.driver.cdp().send_raw("Network.setBypassServiceWorker", past).await.expect("past it");
        let line = json!({ "offline": cut, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1 });
        self.driver.cdp().send_raw("Network.emulateNetworkConditions", line).await.expect("a line");
        // The page itself knows of it a moment later.
        settle(|| async {
            let known = self.script("return navigator.onLine").await;
            if known == !cut { Ok(()) } else { Err(format!("cut: {cut}, and the page has a line: {known}")) }
        })
        .await;
    }

    /// Waits for an element.
    pub async fn css(&self, selector: &str) -> WebElement {
        let query = self.driver.query(By::Css(selector)).wait(PATIENCE, GLANCE);
        query.first().await.unwrap_or_else(|_| panic!("there is no {selector}"))
    }

    /// The button with this name, seen or only heard.
    pub async fn button(&self, name: &str) -> WebElement {
        let path = format!("//button[@aria-label={q} or normalize-space()={q}]", q = quoted(name));
        self.xpath(&path).await
    }

    /// The link with this text.
    pub async fn link(&self, text: &str) -> WebElement {
        self.xpath(&format!("//a[normalize-space()={q} or .//strong[normalize-space()={q}]]", q = quoted(text))).await
    }

    /// The field with this name; the `nth` of those that share it, from 0.
    pub async fn field(&self, name: &str, nth: usize) -> WebElement {
        let path = format!(
            "(//*[self::input or self::textarea][@id=//label[normalize-space()={q}]/@for])[{}]",
            nth + 1,
            q = quoted(name)
        );
        self.xpath(&path).await
    }

    /// Chooses an option of the list with this name.
    pub async fn pick(&self, list: &str, option: &str) {
        let list = quoted(list);
        let button = format!("//*[span[normalize-space()={list}] or normalize-space()={list}]/following::button[1]");
        self.xpath(&button).await.click().await.expect("the list");
        let option = format!("//*[@role='option'][normalize-space()={}]", quoted(option));
        self.xpath(&option).await.click().await.expect("the option");
    }

    /// The setting of this name on the dial card.
    pub async fn dial(&self, name: &str) -> WebElement {
        let card = "//section[@aria-label='Dial card']";
        self.xpath(&format!("{card}//button[preceding-sibling::*//*[normalize-space()={}]]", quoted(name))).await
    }

    /// Waits until the setting of this name on the dial card is so.
    pub async fn dialled(&self, name: &str, wanted: &str) {
        settle(|| async {
            let text = self.dial(name).await.text().await.unwrap_or_default();
            if text == wanted { Ok(()) } else { Err(format!("{name} is “{text}”, not “{wanted}”")) }
        })
        .await;
    }

    /// Waits until a field holds this.
    pub async fn holds(&self, field: &WebElement, wanted: &str) {
        settle(|| async {
            let value = field.prop("value").await.expect("a value").unwrap_or_default();
            if value == wanted { Ok(()) } else { Err(format!("the field holds “{value}”, not “{wanted}”")) }
        })
        .await;
    }

    /// Opens the menu with this name and chooses what is called so.
    pub async fn menu(&self, menu: &str, entry: &str) {
        self.button(menu).await.click().await.expect("the menu");
        let path = format!("//*[@role='menuitem'][normalize-space()={}]", quoted(entry));
        self.xpath(&path).await.click().await.expect("the entry");
    }

    /// The mark on the stop rail whose name begins so.
    pub async fn mark(&self, name: &str) -> WebElement {
        self.css(&format!("[role=slider][aria-label^='{name}:']")).await
    }

    /// Waits for an element by its path.
    pub async fn xpath(&self, path: &str) -> WebElement {
        let query = self.driver.query(By::XPath(path)).wait(PATIENCE, GLANCE);
        query.first().await.unwrap_or_else(|_| panic!("there is no {path}"))
    }

    /// Types into a field in place of what stands there, and leaves it.
    pub async fn fill(&self, field: &WebElement, text: &str) {
        field.click().await.expect("the field");
        field.send_keys(Key::Control + "a").await.expect("all of it");
        field.send_keys(text).await.expect("typing");
        field.send_keys(Key::Tab + "").await.expect("leaving");
    }

    /// Presses keys wherever the focus is.
    pub async fn press(&self, keys: impl Into<TypingData>) {
        self.driver.action_chain().send_keys(keys).perform().await.expect("keys");
    }

    /// Holds a key while pressing another.
    pub async fn chord(&self, held: Key, key: impl Into<char>) {
        let key: char = key.into();
        self.driver
            .action_chain()
            .key_down(held.clone())
            .send_keys(key.to_string())
            .key_up(held)
            .perform()
            .await
            .expect("keys");
    }

    /// Drags an element sideways by so many pixels, in small steps.
    pub async fn drag(&self, element: &WebElement, by: i64) {
        let mut chain = self.driver.action_chain().move_to_element_center(element).click_and_hold();
        for _ in 0..10 {
            chain = chain.move_by_offset(by / 10, 0);
        }
        chain.release().perform().await.expect("a drag");
    }

    /// A finger that goes down at a point, moves by so many pixels in small steps, and is lifted.
    pub async fn swipe(&self, x: f64, y: f64, by_x: f64, by_y: f64) {
        let steps = 12_i32;
        self.finger("touchStart", Some((x, y))).await;
        for step in 1..=steps {
            let part = f64::from(step) / f64::from(steps);
            self.finger("touchMove", Some((x + by_x * part, y + by_y * part))).await;
        }
        self.finger("touchEnd", None).await;
    }

    /// A finger that presses and is lifted.
    pub async fn tap(&self, x: f64, y: f64) {
        self.finger("touchStart", Some((x, y))).await;
        self.finger("touchEnd", None).await;
    }

    async fn finger(&self, kind: &str, at: Option<(f64, f64)>) {
        let points: Vec<Value> = at.into_iter().map(|(x, y)| json!({ "x": x, "y": y })).collect();
        let event = json!({ "type": kind, "touchPoints": points });
        self.driver.cdp().send_raw("Input.dispatchTouchEvent", event).await.expect("a finger");
    }

    /// Makes every request take so many milliseconds longer, as a slow link does.
    pub async fn slow(&self, milliseconds: u32) {
        let link =
            json!({ "offline": false, "latency": milliseconds, "downloadThroughput": -1, "uploadThroughput": -1 });
        self.driver.cdp().send_raw("Network.enable", json!({})).await.expect("the network");
        self.driver.cdp().send_raw("Network.emulateNetworkConditions", link).await.expect("a slow link");
    }

    /// Lets nothing through whose address is like this.
    pub async fn block(&self, address: &str) {
        self.driver.cdp().send_raw("Network.enable", json!({})).await.expect("the network");
        let blocked = json!({ "urls": [address] });
        self.driver.cdp().send_raw("Network.setBlockedURLs", blocked).await.expect("it is blocked");
    }

    /// All the text a selector shows.
    pub async fn text(&self, selector: &str) -> String {
        self.css(selector).await.text().await.unwrap_or_default()
    }

    /// Waits until a selector shows a text.
    pub async fn shows(&self, selector: &str, wanted: &str) {
        settle(|| async {
            let text = self.text(selector).await;
            if text.contains(wanted) {
                Ok(())
            } else {
                Err(format!("{selector} shows “{text}”, not “{wanted}”"))
            }
        })
        .await;
    }

    /// Scrolls to an element, so that it stands in the middle.
    pub async fn centre(&self, element: &WebElement) {
        let arguments = vec![element.to_json().expect("an element")];
        let script = "arguments[0].scrollIntoView({ block: 'center' })";
        self.driver.execute(script, arguments).await.expect("scrolled");
    }

    /// Waits until there is nothing like it.
    pub async fn gone(&self, selector: &str) {
        settle(|| async {
            let all = self.driver.find_all(By::Css(selector)).await.map_err(|error| error.to_string())?;
            if all.is_empty() { Ok(()) } else { Err(format!("{selector} is still there")) }
        })
        .await;
    }

    /// Waits until an element's text has something no more.
    pub async fn shows_no_more(&self, selector: &str, text: &str) {
        settle(|| async {
            let now = self.text(selector).await;
            if now.contains(text) { Err(now) } else { Ok(()) }
        })
        .await;
    }

    /// Waits until an element's attribute is so.
    pub async fn has(&self, selector: &str, attribute: &str, wanted: &str) {
        settle(|| async {
            let value = self.css(selector).await.attr(attribute).await.unwrap_or_default().unwrap_or_default();
            if value == wanted {
                Ok(())
            } else {
                Err(format!("{selector} has {attribute}=“{value}”, not “{wanted}”"))
            }
        })
        .await;
    }

    /// Waits until everything is saved.
    pub async fn saved(&self) {
        self.shows("header [role=status]", "Saved").await;
    }

    /// How many sheets the page takes when it is printed on the paper it asks for.
    pub async fn pages_printed(&self) -> usize {
        let asked = json!({ "preferCSSPageSize": true, "printBackground": true });
        let printed = self.driver.cdp().send_raw("Page.printToPDF", asked).await.expect("a PDF");
        let bytes = base64::engine::general_purpose::STANDARD.decode(printed["data"].as_str().expect("its bytes"));
        // Every page is an object that says so (ISO 32000-1, 7.7.3.3); Chromium writes them plainly.
        let text = String::from_utf8_lossy(&bytes.expect("base64")).into_owned();
        ["/Type /Page\n", "/Type /Page/", "/Type /Page "].map(|page| text.matches(page).count()).iter().sum()
    }

    /// Runs a script in the page.
    pub async fn script(&self, script: &str) -> Value {
        self.driver.execute(script, vec![]).await.expect(script).json().clone()
    }

    /// Chooses a theme by its button.
    pub async fn theme(&self, theme: Theme) {
        let name = if theme == Theme::Dusk { "dusk" } else { "daylight" };
        let wanted = format!("[aria-label='Theme: change to {name}']");
        self.css("[aria-label^='Theme:']").await;
        if let Ok(button) = self.driver.find(By::Css(wanted)).await {
            button.click().await.expect("the theme");
        }
        let ground = if theme == Theme::Dusk { "rgb(25, 25, 25)" } else { "rgb(222, 222, 222)" };
        settle(|| async {
            let now = self.script("return getComputedStyle(document.body).backgroundColor").await;
            if now == ground { Ok(()) } else { Err(format!("the ground is {now}, not {ground}")) }
        })
        .await;
    }

    /// What axe-core finds wrong with the page as it stands, by some of its rules; all that are taken where none are named.
    async fn found_wrong(&self, rules: &str) -> Vec<String> {
        if self.script("return typeof axe === 'undefined'").await == true {
            let axe = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/node_modules/axe-core/axe.min.js");
            let source = std::fs::read_to_string(axe).expect("axe-core: cargo verify installs it");
            self.script(&source).await;
        }
        let run = format!(
            "const done = arguments[0]; axe.run(document, {{ runOnly: {rules} }}).then((r) => done(r.violations.map((v) => \
             v.id + ': ' + v.help + ' ' + v.nodes.map((n) => n.target.join(' ') + ' ' + n.any.map((a) => \
             a.message).join()).join(' | '))))"
        );
        let found = self.driver.execute_async(run, vec![]).await.expect("axe").json().clone();
        serde_json::from_value(found).expect("a list")
    }

    /// What axe-core finds wrong with the page as it stands.
    pub async fn axe(&self) -> Vec<String> {
        self.found_wrong("['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']").await
    }

    /// The same in both themes: everything in the one that stands, and in the other what hangs on its colours, which is all
    /// that differs.
    pub async fn axe_in_both_themes(&self) -> Vec<String> {
        let mut wrong = self.axe().await;
        let root = "const root = document.documentElement; ";
        let turn = "const was = root.dataset.theme; root.dataset.theme = \
                    getComputedStyle(document.body).backgroundColor === 'rgb(25, 25, 25)' ? 'daylight' : 'dusk'; return was";
        let was = self.script(&format!("{root}{turn}")).await;
        let of_colour = self.found_wrong("{ type: 'rule', values: ['color-contrast', 'link-in-text-block'] }").await;
        wrong.extend(of_colour.into_iter().map(|one| format!("in the other theme, {one}")));
        self.script(&format!("{root}root.dataset.theme = {was}")).await;
        wrong
    }

    /// Errors the page wrote to its console: failed scripts, refused styles, broken requests. That half a number is none
    /// is no error: a field shows at every letter what it would do.
    pub async fn console_errors(&self) -> Vec<String> {
        let log = self.driver.browser_log().await.expect("the console");
        log.into_iter().map(|entry| entry.message).filter(|message| !half_a_number(message)).collect()
    }

    /// Closes it: the next that is opened finds nothing of it. One that is not closed, because its test failed, is killed.
    pub async fn close(self) {
        let Self { driver, chromium, been, timed } = self;
        drop(timed);
        if forget(&driver, been.into_inner().expect("no other goes")).await.is_ok() {
            chromium.leave();
        }
    }
}

/// Leaves one window that has been nowhere, and nothing that was stored.
async fn forget(driver: &WebDriver, been: BTreeSet<String>) -> WebDriverResult<()> {
    let old = driver.windows().await?;
    let new = driver.new_tab().await?;
    for window in old {
        driver.switch_to_window(window).await?;
        driver.close_window().await?;
    }
    driver.switch_to_window(new).await?;
    for origin in been {
        let all = json!({ "origin": origin, "storageTypes": "all" });
        driver.cdp().send_raw("Storage.clearDataForOrigin", all).await?;
    }
    // Cookies do not tell ports apart.
    driver.cdp().send_raw("Network.clearBrowserCookies", json!({})).await?;
    driver.clone().quit().await
}

/// What tells whose an address is: everything before its path.
fn origin(url: &str) -> Option<String> {
    let (scheme, rest) = url.split_once("://")?;
    Some(format!("{scheme}://{}", rest.split('/').next()?))
}

/// Whether a line of the console is of half a number that was asked about.
fn half_a_number(message: &str) -> bool {
    let asked = ["/api/v1/read - ", "/api/v1/solve - ", "/api/v1/kit/edit - "];
    message.contains("422") && asked.iter().any(|path| message.contains(path))
}

fn quoted(text: &str) -> String {
    format!("\"{text}\"")
}
