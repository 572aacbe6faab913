//! What is wrong with what a calculator was asked.

use serde::Serialize;
use thiserror::Error;

/// One wrong field.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct Problem {
    /// JSON pointer (RFC 6901) to the field.
    pub pointer: String,
    /// The value that was given and what is allowed.
    pub message: String,
}

/// Everything that is wrong.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
#[error("{}", self.0.iter().map(|p| format!("{}: {}", p.pointer, p.message)).collect::<Vec<_>>().join("; "))]
pub struct Problems(pub Vec<Problem>);

impl Problems {
    /// One problem.
    pub fn one(pointer: impl Into<String>, message: impl Into<String>) -> Self {
        Self(vec![Problem { pointer: pointer.into(), message: message.into() }])
    }
}
