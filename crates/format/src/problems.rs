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

/// One wrong field.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Problem {
    /// JSON pointer (RFC 6901) to the field in the document.
    #[schema(example = "/setups/0/lights/0/distance_m")]
    pub pointer: String,
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

impl Problem {
    /// A problem by its code.
    pub fn new(pointer: impl Into<String>, code: ProblemCode, message: impl Into<String>) -> Self {
        Self { pointer: pointer.into(), code, least: None, most: None, message: message.into() }
    }
}

/// Everything that is wrong with a document.
#[derive(Clone, Debug, PartialEq, Error)]
#[error("{}", self.0.iter().map(|p| format!("{}: {}", p.pointer, p.message)).collect::<Vec<_>>().join("; "))]
pub struct Problems(pub Vec<Problem>);

impl Problems {
    /// One problem.
    pub fn one(pointer: impl Into<String>, message: impl Into<String>) -> Self {
        Self(vec![Problem::new(pointer, ProblemCode::NotAllowed, message)])
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
        let moved = |p: Problem| Problem { pointer: format!("{prefix}{}", p.pointer), ..p };
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
        let pointer = self.pointer(field);
        self.found.push(Problem::new(pointer, code, message));
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
            let problem = Problem::new(self.pointer(field), ProblemCode::OutOfRange, message);
            self.found.push(Problem { least: Some(low), most: Some(high), ..problem });
        }
    }

    /// A text of a length.
    pub(super) fn text(&mut self, field: &str, value: &str, least: usize, most: usize) {
        let length = value.chars().count();
        if length < least {
            self.coded(field, ProblemCode::Count, "this must not be empty");
        } else if length > most {
            self.coded(field, ProblemCode::Count, format!("{length} characters are too many: at most {most}"));
        }
    }

    /// A list of so many items.
    pub(super) fn count_of(&mut self, field: &str, count: usize, fewest: usize, most: usize) {
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

    /// Everything that was found.
    pub(super) fn done(self) -> Result<(), Problems> {
        if self.found.is_empty() { Ok(()) } else { Err(Problems(self.found)) }
    }
}
