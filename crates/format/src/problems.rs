//! What is wrong with a document, with a pointer to each wrong field.

use serde::Serialize;
use thiserror::Error;
use utoipa::ToSchema;

use crate::unit::unit_of;

/// What kind of problem it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProblemCode {
    /// A number that is out of its range: `least` and `most` say which.
    OutOfRange,
    /// Too few or too many of something, characters among them.
    Count,
    /// It refers to something that is not there.
    NotThere,
    /// It is there twice.
    Twice,
    /// It is not of its type, not known, or no JSON.
    Unreadable,
    /// It is not allowed for another reason: the message says which.
    NotAllowed,
}

/// A text that may be so long may have several lines: notes. Shorter ones are names and are written into files line by line.
const OF_LINES: usize = 600;

/// Whether a text is one line: without line breaks and control characters, which would end a line of a calendar, a table or
/// a log and begin another.
pub fn is_one_line(text: &str) -> bool {
    !text.chars().any(|one| one.is_control() || matches!(one, '\u{2028}' | '\u{2029}'))
}

/// A text as one line: what would break it is a space.
pub fn as_one_line(text: &str) -> String {
    text.chars().map(|one| if is_one_line(one.encode_utf8(&mut [0; 4])) { one } else { ' ' }).collect()
}

/// One wrong field.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Problem {
    /// JSON pointer (RFC 6901) to the field in the document.
    #[schema(example = "/setups/0/lights/0/distance_m")]
    pub pointer: String,
    /// What people call the field: `distance`, `f-number`; to those who use a screen it is told by [`crate::Catalogue::said`]. Empty where it is all of what was sent.
    pub field: String,
    /// What kind of problem it is.
    pub code: ProblemCode,
    /// The least that is allowed; left out where it is no matter of that.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub least: Option<f64>,
    /// The most that is allowed; left out where it is no matter of that.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub most: Option<f64>,
    /// The value that was given and what is allowed.
    pub message: String,
}

/// A name or a pointer in a message is no longer than so many characters.
const LONGEST_NAME: usize = 80;
/// A message is no longer than so many characters.
const LONGEST_MESSAGE: usize = 600;
/// So many names are told of what is there.
const MOST_NAMES: usize = 12;
/// So many problems are told.
const MOST_PROBLEMS: usize = 50;

impl Problem {
    /// A problem by its code. What somebody has made very long is shortened.
    pub fn new(pointer: impl Into<String>, code: ProblemCode, message: impl Into<String>) -> Self {
        let (pointer, message) = (cut(pointer.into(), LONGEST_MESSAGE), cut(message.into(), LONGEST_MESSAGE));
        Self { field: spoken(&pointer), pointer, code, least: None, most: None, message }
    }
}

impl Problem {
    /// In a line: where it is, unless it is all of what was sent, and what is wrong.
    fn line(&self) -> String {
        if self.pointer.is_empty() { self.message.clone() } else { format!("{}: {}", self.pointer, self.message) }
    }
}

fn cut(text: String, most: usize) -> String {
    match text.char_indices().nth(most) {
        Some((end, _)) => format!("{}…", &text[..end]),
        None => text,
    }
}

/// A name as it stands in a message: no longer than it can be read.
pub fn shortened(name: &str) -> String {
    cut(name.chars().take(LONGEST_NAME + 1).collect(), LONGEST_NAME)
}

/// Names in a message: the first of them, and how many more there are.
pub(crate) fn listed<'a>(names: impl ExactSizeIterator<Item = &'a str>) -> String {
    let more = names.len().saturating_sub(MOST_NAMES);
    let told = names.take(MOST_NAMES).map(shortened).collect::<Vec<_>>().join(", ");
    if more > 0 { format!("{told} and {more} more") } else { told }
}

/// Everything that is wrong with a document.
#[derive(Clone, Debug, PartialEq, Error)]
#[error("{}", self.0.iter().map(Problem::line).collect::<Vec<_>>().join("; "))]
pub struct Problems(pub Vec<Problem>);

impl Problems {
    /// One problem.
    pub fn one(pointer: impl Into<String>, message: impl Into<String>) -> Self {
        Self(vec![Problem::new(pointer, ProblemCode::NotAllowed, message)])
    }

    /// Of many the first, and how many more there are.
    #[must_use]
    pub fn at_most(all: impl ExactSizeIterator<Item = Problem>) -> Self {
        let more = all.len().saturating_sub(MOST_PROBLEMS);
        let mut told: Vec<Problem> = all.take(MOST_PROBLEMS).collect();
        if more > 0 {
            told.push(and_more(more));
        }
        Self(told)
    }

    /// The same, of another kind.
    #[must_use]
    pub fn coded(mut self, code: ProblemCode) -> Self {
        self.0.iter_mut().for_each(|problem| problem.code = code);
        self
    }

    /// The same problems of a part of a larger document, which stands at `prefix` there.
    #[must_use]
    pub fn within(self, prefix: &str) -> Self {
        let moved = |p: Problem| {
            let pointer = format!("{prefix}{}", p.pointer);
            Problem { field: spoken(&pointer), pointer, ..p }
        };
        Self(self.0.into_iter().map(moved).collect())
    }

    /// The same problems of a part that stands somewhere else: one beginning of their pointers for another.
    #[must_use]
    pub fn under(self, from: &str, to: &str) -> Self {
        let moved = |p: Problem| {
            let pointer = p.pointer.strip_prefix(from).map_or_else(|| p.pointer.clone(), |rest| format!("{to}{rest}"));
            Problem { pointer, ..p }
        };
        Self(self.0.into_iter().map(moved).collect())
    }
}

/// What people call the field a pointer leads to: its last name, without the unit.
fn spoken(pointer: &str) -> String {
    let named = |part: &&str| !part.is_empty() && part.parse::<usize>().is_err();
    let last = pointer.rsplit('/').find(named).unwrap_or_default().replace("~1", "/").replace("~0", "~");
    let name = match unit_of(&last) {
        "" => last.as_str(),
        // The unit is the last part of the name, as it is written there.
        _ => last.rsplit_once('_').map_or(last.as_str(), |(name, _)| name),
    };
    name.replace("f_number", "f-number").replace('_', " ")
}

fn and_more(more: usize) -> Problem {
    Problem::new("", ProblemCode::Count, format!("and {more} more: set these right first"))
}

/// A step into a document.
#[derive(Clone, Copy, Debug)]
enum Step {
    Field(&'static str),
    Index(usize),
}

/// Collects problems while a document is walked.
#[derive(Debug, Default)]
pub(super) struct Checker {
    at: Vec<Step>,
    found: Vec<Problem>,
    /// How many more there were.
    more: usize,
    /// Whether a list is longer than it may be.
    too_many: bool,
}

impl Checker {
    /// Walks into a field and out again.
    pub(super) fn within<T>(&mut self, field: &'static str, walk: impl FnOnce(&mut Self) -> T) -> T {
        // What stands in a list has no field of its own.
        if field.is_empty() { walk(self) } else { self.step(Step::Field(field), walk) }
    }

    fn step<T>(&mut self, step: Step, walk: impl FnOnce(&mut Self) -> T) -> T {
        self.at.push(step);
        let result = walk(self);
        self.at.pop();
        result
    }

    /// Walks into each item of a list.
    pub(super) fn each<'a, T>(&mut self, field: &'static str, items: &'a [T], mut walk: impl FnMut(&mut Self, &'a T)) {
        self.within(field, |c| {
            for (index, item) in items.iter().enumerate() {
                c.step(Step::Index(index), |c| walk(c, item));
            }
        });
    }

    /// Notes what is wrong with a field.
    pub(super) fn wrong(&mut self, field: &str, message: impl Into<String>) {
        self.coded(field, ProblemCode::NotAllowed, message);
    }

    /// Notes what is wrong with a field, and of what kind it is.
    pub(super) fn coded(&mut self, field: &str, code: ProblemCode, message: impl Into<String>) {
        self.note(field, |pointer| Problem::new(pointer, code, message));
    }

    fn note(&mut self, field: &str, problem: impl FnOnce(String) -> Problem) {
        if self.found.len() < MOST_PROBLEMS {
            let pointer = self.pointer(field);
            self.found.push(problem(pointer));
        } else {
            self.more += 1;
        }
    }

    /// Whether nothing more is told in full.
    pub(super) fn is_full(&self) -> bool {
        self.found.len() >= MOST_PROBLEMS
    }

    /// Whether a list is longer than it may be: what is in it is then not looked at.
    pub(super) fn too_many(&self) -> bool {
        self.too_many
    }

    fn pointer(&self, field: &str) -> String {
        let mut pointer = String::new();
        for step in &self.at {
            match step {
                Step::Field(name) => pointer.extend(["/", name]),
                Step::Index(index) => pointer.extend(["/", &index.to_string()]),
            }
        }
        if !field.is_empty() {
            pointer.push('/');
            pointer.push_str(&field.replace('~', "~0").replace('/', "~1"));
        }
        pointer
    }

    /// A number within a range, in the unit that its name ends with.
    pub(super) fn number(&mut self, field: &str, value: f64, allowed: &std::ops::RangeInclusive<f64>) {
        if !allowed.contains(&value) {
            let (low, high) = (*allowed.start(), *allowed.end());
            let allowed = format!("it must be from {low} to {high} {}", unit_of(field));
            let message = format!("{value} is not allowed here: {}", allowed.trim_end());
            self.note(field, |pointer| Problem {
                least: Some(low),
                most: Some(high),
                ..Problem::new(pointer, ProblemCode::OutOfRange, message)
            });
        }
    }

    /// A text of a length.
    pub(super) fn text(&mut self, field: &str, value: &str, least: usize, most: usize) {
        let length = value.chars().count();
        if length < least {
            self.coded(field, ProblemCode::Count, "this must not be empty");
        } else if length > most {
            self.coded(field, ProblemCode::Count, format!("{length} characters are too many: at most {most}"));
        } else if most < OF_LINES && !is_one_line(value) {
            self.coded(field, ProblemCode::NotAllowed, "this is one line: no line breaks or control characters");
        } else if value.chars().any(|one| one.is_control() && !matches!(one, '\n' | '\r' | '\t')) {
            self.coded(field, ProblemCode::NotAllowed, "control characters are not allowed here");
        }
    }

    /// A list of so many items.
    pub(super) fn count_of(&mut self, field: &str, count: usize, fewest: usize, most: usize) {
        self.too_many |= count > most;
        if fewest > 0 && !(fewest..=most).contains(&count) {
            self.coded(
                field,
                ProblemCode::Count,
                format!("{count} are not allowed here: it must be from {fewest} to {most}"),
            );
        } else if count > most {
            self.coded(field, ProblemCode::Count, format!("{count} are too many: at most {most}"));
        }
    }

    /// Lets go what is only wrong since something else is not there: of a part, to be checked with the rest.
    pub(super) fn forget_what_is_missing(&mut self) {
        let missing = |problem: &Problem| match problem.code {
            ProblemCode::NotThere => true,
            ProblemCode::Count => problem.message.starts_with("0 are not allowed"),
            _ => false,
        };
        self.found.retain(|problem| !missing(problem));
    }

    /// Everything that was found.
    pub(super) fn done(mut self) -> Result<(), Problems> {
        if self.more > 0 {
            self.found.push(and_more(self.more));
        }
        if self.found.is_empty() { Ok(()) } else { Err(Problems(self.found)) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("/setups/0/lights/0/distance_m", "distance")]
    #[case("/setup/fixed/f_number", "f-number")]
    #[case("/job/setups/3", "setups")]
    #[case("/camera_id", "camera id")]
    #[case("", "")]
    fn fields_as_people_know_them(#[case] pointer: &str, #[case] name: &str) {
        assert_eq!(Problem::new(pointer, ProblemCode::NotAllowed, "").field, name);
    }

    /// A name is one line; notes have several. Neither holds what a terminal or a calendar would take for an order.
    #[rstest]
    #[case("A\r\nBEGIN:VEVENT", false, true)]
    #[case("Two\nlines", false, true)]
    #[case("A\ttab", false, true)]
    #[case("Bell \u{7}", false, false)]
    #[case("Escape \u{1b}[2J", false, false)]
    #[case("Next line \u{85}", false, false)]
    #[case("A line \u{2028} of its own", false, true)]
    #[case("Käthe’s quay, 27° ½", true, true)]
    fn names_are_one_line(#[case] text: &str, #[case] name: bool, #[case] notes: bool) {
        let allowed = |most: usize| {
            let mut c = Checker::default();
            c.text("name", text, 1, most);
            c.done().is_ok()
        };
        assert_eq!((allowed(120), allowed(4000)), (name, notes), "{text:?}");
        assert!(is_one_line(&as_one_line(text)) && as_one_line(text).chars().count() == text.chars().count());
    }

    #[test]
    fn what_is_told_stays_short() {
        let mut c = Checker::default();
        for _ in 0..1000 {
            c.wrong(&"x".repeat(100_000), "y".repeat(100_000));
        }
        let problems = c.done().expect_err("wrong");
        assert_eq!((problems.0.len(), problems.0[50].message.as_str()), (51, "and 950 more: set these right first"));
        assert!(problems.to_string().len() < 100_000);
        let names: Vec<String> = (0..20).map(|number| format!("{number}{}", "n".repeat(500))).collect();
        let told = listed(names.iter().map(String::as_str));
        assert!(told.ends_with(" and 8 more") && told.len() < 1200, "{told}");
    }
}
