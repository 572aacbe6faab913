//! What is wrong with a document, with a pointer to each wrong field.

use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

/// One wrong field.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Problem {
    /// JSON pointer (RFC 6901) to the field in the document.
    #[schema(example = "/setups/0/lights/0/distance_m")]
    pub pointer: String,
    /// The value that was given and what is allowed.
    pub message: String,
}

/// Everything that is wrong with a document.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
#[error("{}", self.0.iter().map(|p| format!("{}: {}", p.pointer, p.message)).collect::<Vec<_>>().join("; "))]
pub struct Problems(pub Vec<Problem>);

impl Problems {
    /// One problem.
    pub fn one(pointer: impl Into<String>, message: impl Into<String>) -> Self {
        Self(vec![Problem { pointer: pointer.into(), message: message.into() }])
    }

    /// The same problems of a part of a larger document, which stands at `prefix` there.
    #[must_use]
    pub fn within(self, prefix: &str) -> Self {
        let moved = |p: Problem| Problem { pointer: format!("{prefix}{}", p.pointer), message: p.message };
        Self(self.0.into_iter().map(moved).collect())
    }
}

impl Problems {
    /// The same problems of a part that stands somewhere else: one beginning of their pointers for another.
    #[must_use]
    pub fn under(self, from: &str, to: &str) -> Self {
        let moved = |p: Problem| {
            let pointer = p.pointer.strip_prefix(from).map_or_else(|| p.pointer.clone(), |rest| format!("{to}{rest}"));
            Problem { pointer, message: p.message }
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
        self.step(Step::Field(field), walk)
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

    /// How many problems there are so far.
    pub(super) fn count(&self) -> usize {
        self.found.len()
    }

    /// Notes what is wrong with a field.
    pub(super) fn wrong(&mut self, field: &str, message: impl Into<String>) {
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
        self.found.push(Problem { pointer, message: message.into() });
    }

    /// A number within a range, in a unit.
    pub(super) fn number(&mut self, field: &str, value: f64, allowed: &std::ops::RangeInclusive<f64>, unit: &str) {
        if !allowed.contains(&value) {
            let (low, high) = (allowed.start(), allowed.end());
            let unit = if unit.is_empty() { String::new() } else { format!(" {unit}") };
            self.wrong(field, format!("{value} is not allowed here: it must be from {low} to {high}{unit}"));
        }
    }

    /// A text of a length.
    pub(super) fn text(&mut self, field: &str, value: &str, least: usize, most: usize) {
        let length = value.chars().count();
        if length < least {
            self.wrong(field, "this must not be empty");
        } else if length > most {
            self.wrong(field, format!("{length} characters are too many: at most {most}"));
        }
    }

    /// Everything that was found.
    pub(super) fn done(self) -> Result<(), Problems> {
        if self.found.is_empty() { Ok(()) } else { Err(Problems(self.found)) }
    }
}
