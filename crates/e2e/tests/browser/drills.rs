//! Drills: a round on a phone and by keyboard, the workings after each answer, progress, a sheet of paper.

use tolva_e2e::{Browser, Key, Tolva, settle};

use crate::frames::reference;

async fn at_the_drills() -> (Tolva, Browser) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("drills")).await;
    b.shows("main", "Skill by skill").await;
    (tolva, b)
}

/// A newcomer on a phone: ten questions, each answered with a thumb, with its workings, to the end of the round.
#[tokio::test]
async fn ten_with_a_thumb() {
    let (_tolva, b) = at_the_drills().await;
    b.size(390, 844).await;
    b.button("Practise ten").await.click().await.expect("ten");
    b.shows("main", "What is new first.").await;
    for number in 1..=10 {
        b.css(&format!("section[aria-label='Drill {number} of 10']")).await;
        let wide = b.script("return document.documentElement.scrollWidth").await;
        assert!(wide.as_u64().is_some_and(|wide| wide <= 390), "{wide}");
        if number == 1 {
            assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "a question");
        }
        b.button("One more").await.click().await.expect("a click of the dial");
        b.button("Answer").await.click().await.expect("answered");
        b.css("[data-testid=verdict] li").await;
        if number == 1 {
            assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "the workings");
        }
        b.button("Next").await.click().await.expect("next");
    }
    b.shows("main h1", "of 10 right").await;
    b.button("Enough for now").await.click().await.expect("enough");
    b.shows("main", "10 answered this week").await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// Waits until what stands for the answer is so: a page that is busy draws a moment later.
async fn becomes(b: &Browser, is_so: impl Fn(&str) -> bool) {
    settle(|| async {
        let now = b.text("output").await;
        if is_so(&now) { Ok(()) } else { Err(format!("the answer is {now}")) }
    })
    .await;
}

/// On a desk without a pointer: a dial by its arrows, a choice by Enter, and Enter again for the next.
#[tokio::test]
async fn by_keyboard() {
    let (_tolva, b) = at_the_drills().await;
    b.button("Practise: What shows in glass").await.send_keys(Key::Enter).await.expect("glass");
    b.css("svg[role=img][aria-label^='From above']").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "a pane");
    b.button("Yes").await.send_keys(Key::Enter).await.expect("yes");
    b.css("[data-testid=verdict]").await;
    b.press(Key::Enter).await;
    b.css("section[aria-label='Drill 2 of 10']").await;
    b.button("End the round").await.click().await.expect("the end");
    b.button("Practise: Fractions of power").await.send_keys(Key::Enter).await.expect("powers");
    b.css("section[aria-label='Drill 1 of 10'] input[type=range]").await.focus().await.expect("the dial");
    let before = b.text("output").await;
    // A drill may begin at an end of its dial.
    let at_its_end = b.script("return document.activeElement.value === document.activeElement.max").await == true;
    b.press(if at_its_end { Key::Left } else { Key::Right }).await;
    becomes(&b, |now| now != before).await;
    b.button("Answer").await.send_keys(Key::Enter).await.expect("answered");
    b.css("[data-testid=verdict]").await;
    b.button("End the round").await.click().await.expect("the end");
    // In stops: a mark on a rail, dragged a third of it to the right.
    b.button("Practise: Half and half").await.click().await.expect("stops");
    let mark = b.css("[data-testid=rail-mark]").await;
    becomes(&b, |now| now == "0").await;
    b.drag(&mark, 240).await;
    becomes(&b, |now| now.starts_with('+')).await;
    b.css("section[aria-label='Drill 1 of 10'] input[type=range]").await.focus().await.expect("the mark");
    let before = b.text("output").await;
    b.press(Key::Left).await;
    becomes(&b, |now| now != before).await;
    b.close().await;
}

/// A set with hidden faults, on a phone: dials, a frame, what it tells, another, and at the end what was hidden.
#[tokio::test]
async fn a_set_with_hidden_faults() {
    let (_tolva, b) = at_the_drills().await;
    b.size(390, 844).await;
    b.button("Too bright or too dark").await.click().await.expect("a set");
    b.shows("main h1", "Reach the lit side on mid grey").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "before a frame");
    b.button("One more of Power").await.send_keys(Key::Enter).await.expect("a click");
    b.button("Take frame 1").await.send_keys(Key::Enter).await.expect("a frame");
    settle(|| async {
        let wide = b.script("return document.querySelector('figure img')?.naturalWidth ?? 0").await;
        if wide == 480 { Ok(()) } else { Err(format!("{wide} pixels")) }
    })
    .await;
    b.shows("[aria-label=Frames] li", "Lit side: ").await;
    b.button("One less of Shutter").await.click().await.expect("a click");
    b.button("Take frame 2").await.click().await.expect("another");
    b.css("[aria-label=Frames] li:nth-child(2)").await;
    // Two frames from the middle of the dials may have reached it, which a slow server says late.
    settle(|| async {
        let shown = b
            .script(
                "const shown = document.querySelector(\"[aria-label='What was hidden']\");
                 const end = [...document.querySelectorAll('button:not([data-disabled])')];
                 if (!shown) end.find((one) => one.textContent === 'Show what was hidden')?.click();
                 return Boolean(shown)",
            )
            .await;
        if shown == true { Ok(()) } else { Err("it is not shown what was hidden".to_owned()) }
    })
    .await;
    b.shows("[aria-label='What was hidden']", "stop against its figures").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "the end");
    let wide = b.script("return document.documentElement.scrollWidth").await;
    assert!(wide.as_u64().is_some_and(|wide| wide <= 390), "{wide}");
    b.button("Enough for now").await.click().await.expect("enough");
    b.shows("main", "after 2 frames").await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// Frames of one's own camera are held against a task; a class's file is given away, and opened.
#[tokio::test]
async fn a_task_and_a_class() {
    let (tolva, b) = at_the_drills().await;
    b.button("Do it: A slow shutter, and flash at its end").await.click().await.expect("a task");
    let all = ["courtyard-with.jpg", "courtyard-without.jpg"].map(reference).join("\n");
    b.css("main input[type=file]").await.send_keys(all).await.expect("frames");
    b.shows("main", "2 of 2 came").await;
    b.button("Hold them against the task").await.click().await.expect("held");
    // In the order they were taken, not in that they came in.
    b.shows("[aria-label='What was found']", "Frame 1: the flash stayed off.").await;
    b.shows("[aria-label='What was found']", "Frame 2: at the settings of the first.").await;
    b.shows("main", "not yet as it was asked for").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "a task");

    let name = b.field("Name of the class", 0).await;
    b.fill(&name, "Tuesdays").await;
    let link = b.link("File for the class").await.attr("href").await.expect("a link").expect("an address");
    let answer = reqwest::get(tolva.url(link.trim_start_matches('/'))).await.expect("an answer");
    let file = tolva.folder().join("tuesdays.json");
    std::fs::write(&file, answer.text().await.expect("a file")).expect("written");
    let open = b.css("input[type=file][accept*=json]").await;
    open.send_keys(file.display().to_string()).await.expect("opened");
    b.shows("section[aria-label='Drill 1 of 20']", "Drills of “Tuesdays”, the same for everybody in it.").await;
    b.button("End the round").await.click().await.expect("the end");
    std::fs::write(&file, "no class").expect("written");
    b.css("input[type=file][accept*=json]").await.send_keys(file.display().to_string()).await.expect("opened");
    b.shows("main [role=alert]", "tuesdays.json is no class file.").await;
    b.close().await;
}

/// A sheet of exercises and their answers, printed: each on one page.
#[tokio::test]
async fn a_sheet_is_printed() {
    let (tolva, b) = at_the_drills().await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "the skills");
    let link = b.link("The sheet, to print").await.attr("href").await.expect("a link").expect("an address");
    assert!(link.contains("seed=1") && link.contains("answers=true"), "{link}");
    for (paper, count) in [("a4", 20), ("a5", 12)] {
        for level in 1..=3 {
            let sheet =
                format!("api/v1/drills/sheet.html?seed=1&level={level}&answers=true&count={count}&paper={paper}");
            b.go(&tolva.url(&sheet)).await;
            assert_eq!(b.pages_printed().await, 2, "{paper}, level {level}");
        }
    }
    b.close().await;
}

/// Pictures belong to some: both come, and what stands wrong is chosen; a rail is held against four.
#[tokio::test]
async fn the_picture_is_read() {
    let (_tolva, b) = at_the_drills().await;
    let come = async |wanted: usize| {
        settle(|| async {
            let there =
                "return [...document.querySelectorAll('figure img')].filter((one) => one.naturalWidth > 0).length";
            let there = b.script(there).await;
            if there == wanted { Ok(()) } else { Err(format!("{there} of {wanted} pictures")) }
        })
        .await;
    };
    b.button("Practise: Read the picture").await.click().await.expect("pictures");
    come(2).await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "two pictures");
    b.css("[role=group] button").await.click().await.expect("a choice");
    b.shows("[data-testid=verdict]", "The shutter moves the light that is there alone").await;
    b.button("End the round").await.click().await.expect("the end");
    b.button("Practise: Rail and picture").await.click().await.expect("a rail");
    come(4).await;
    b.css("svg[role=img][aria-label^='Rail: Behind at']").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "a rail");
    b.button("Picture 2").await.click().await.expect("a choice");
    b.shows("[data-testid=verdict]", "Picture 4").await;
    b.close().await;
}

/// A goal is one's own, and stays; without one nothing is said of it.
#[tokio::test]
async fn a_goal_is_set_and_stays() {
    let (tolva, b) = at_the_drills().await;
    b.shows("main", "0 answered this week.").await;
    b.pick("A week", "20 drills").await;
    b.shows("main", "0 answered this week of the 20 you set yourself.").await;
    b.go(&tolva.url("drills")).await;
    b.shows("main", "of the 20 you set yourself").await;
    b.close().await;
}
