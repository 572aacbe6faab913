//! A setup as a document of the open format, inside what is sent.

use std::sync::Arc;

use serde::{Serialize, Serializer};
use serde_json::value::RawValue;
use tolva_planner::setup::Setup;
use utoipa::openapi::{Ref, RefOr, Schema};

/// A setup, written as whoever asks for a plan writes setups: wording knows no format.
#[derive(Clone, Debug)]
pub struct Document(Arc<RawValue>);

/// How setups are written.
pub type Write<'a> = dyn Fn(&Setup) -> Document + 'a;

impl Document {
    /// What is written. What cannot be is written as null.
    pub fn of(written: &impl Serialize) -> Self {
        let written = serde_json::value::to_raw_value(written);
        Self(written.unwrap_or_else(|_| RawValue::NULL.to_owned()).into())
    }

    /// The JSON of it.
    pub fn json(&self) -> &str {
        self.0.get()
    }
}

impl PartialEq for Document {
    fn eq(&self, other: &Self) -> bool {
        self.json() == other.json()
    }
}

impl Serialize for Document {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.0.serialize(serializer)
    }
}

/// It is described where the format is: as `Setup`.
impl utoipa::PartialSchema for Document {
    fn schema() -> RefOr<Schema> {
        RefOr::Ref(Ref::from_schema_name("Setup"))
    }
}

impl utoipa::ToSchema for Document {
    fn name() -> std::borrow::Cow<'static, str> {
        "Setup".into()
    }
}
