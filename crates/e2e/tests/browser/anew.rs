//! A browser is used by one test after the other: each finds it as if nobody had been there.

use serde_json::json;
use tolva_e2e::{Browser, Tolva, settle};

const LEFT: &str = "return [document.cookie, localStorage.length, sessionStorage.length, history.length, innerWidth, \
                    document.visibilityState]";

/// What one leaves behind at an address, in storage, in cookies, in windows and in how it was looked at, the next does not
/// find there; and no service worker answers for the page.
#[tokio::test]
async fn a_browser_knows_nothing_of_the_one_before() {
    let tolva = Tolva::with_demo_data();
    for _ in 0..3 {
        let b = Browser::open().await;
        b.go(&tolva.url("nothing-here")).await;
        let workers = "navigator.serviceWorker.getRegistrations().then((all) => arguments[0](all.length))";
        let kept = b.driver.execute_async(workers, vec![]).await.expect("workers");
        assert_eq!(kept.json(), &json!(0), "a service worker stayed");
        let found = b.script(LEFT).await;
        let length = found[3].as_u64().expect("a length");
        assert_eq!(found, json!(["", 0, 0, length, 1280, "visible"]));
        assert!(length <= 2, "{length} pages were before this one");
        assert_eq!(b.driver.windows().await.expect("windows").len(), 1);

        // Now this one leaves all of it.
        b.go(&tolva.url("")).await;
        b.link("Ropeworks open day").await;
        settle(|| async {
            let kept = b.script("return navigator.serviceWorker?.controller != null").await;
            if kept == true { Ok(()) } else { Err("nothing keeps the page".to_owned()) }
        })
        .await;
        b.script("document.cookie = 'left=1'; localStorage.setItem('left', '1'); sessionStorage.setItem('left', '1')")
            .await;
        b.size(390, 844).await;
        b.cut(true).await;
        let second = b.driver.new_tab().await.expect("a second one");
        b.driver.switch_to_window(second).await.expect("there");
        b.close().await;
    }
}
