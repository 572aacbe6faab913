//! What a sum is asked and what it gives, and the reading of it.

use serde::{Deserialize, Serialize};
use serde_json::{Map, Value, json};
use utoipa::ToSchema;

use crate::problem::{Problem, Problems};

/// A sum as it is offered.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CalculatorOffer {
    /// Its name: `depth-of-field`.
    pub name: String,
    /// What it is called.
    pub title: String,
    /// What it belongs to: `Lens`.
    pub group: String,
    /// What it works out, and by what.
    pub says: String,
    /// What it is asked.
    pub asked: Vec<Asked>,
    /// What it gives. Each sum of numbers also gives its `workings`, line by line.
    pub given: Vec<Given>,
}

/// One thing a sum is asked.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Asked {
    /// Its field.
    pub field: String,
    /// What it is called.
    pub name: String,
    /// Its unit; empty where it has none.
    pub unit: String,
    /// What it is first offered as.
    pub usual: Value,
    /// The least it may be; null for words.
    pub least: Option<f64>,
    /// The most it may be; null for words.
    pub most: Option<f64>,
    /// The words it may be; empty where it is a number or free.
    pub choices: Vec<String>,
    /// Whether it may be left out.
    pub optional: bool,
    /// The choice that needs it; null where every one does, or where there is none.
    pub goes_with: Option<String>,
}

/// One thing a sum gives.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Given {
    /// Its field.
    pub field: String,
    /// What it is called.
    pub name: String,
    /// Its unit; empty where it has none.
    pub unit: String,
}

impl Asked {
    pub(super) fn number(field: &str, name: &str, unit: &str, usual: f64, (least, most): (f64, f64)) -> Self {
        Self {
            field: field.to_owned(),
            name: name.to_owned(),
            unit: unit.to_owned(),
            usual: json!(usual),
            least: Some(least),
            most: Some(most),
            choices: Vec::new(),
            optional: false,
            goes_with: None,
        }
    }

    /// The same, where it may be left out.
    pub(super) fn or_left_out(self) -> Self {
        Self { optional: true, ..self }
    }

    pub(super) fn text(field: &str, name: &str, usual: &str) -> Self {
        Self { usual: json!(usual), least: None, most: None, ..Self::number(field, name, "", 0.0, (0.0, 0.0)) }
    }
}

impl Given {
    pub(super) fn new(field: &str, name: &str, unit: &str) -> Self {
        Self { field: field.to_owned(), name: name.to_owned(), unit: unit.to_owned() }
    }
}

/// A number a sum is asked for: field, name, unit, what it is first offered as, least, most.
pub(super) struct Number(pub &'static str, pub &'static str, pub &'static str, pub f64, pub f64, pub f64);

/// A sum of numbers.
pub(super) struct Sum {
    pub name: &'static str,
    pub title: &'static str,
    pub group: &'static str,
    pub says: &'static str,
    /// A word to choose first, with what may be chosen: its field, its name, the words.
    pub choice: Option<(&'static str, &'static str, &'static [&'static str])>,
    pub asked: &'static [Number],
    /// Fields that may be left out, and the choice that needs them; empty where none does.
    pub optional: &'static [(&'static str, &'static str)],
    pub given: &'static [(&'static str, &'static str, &'static str)],
    pub work: fn(&Values) -> Result<Worked, Problems>,
}

/// What was asked, read and within its range.
pub(super) struct Values {
    numbers: Vec<(String, Option<f64>)>,
    texts: Vec<(String, String)>,
    /// The word that was chosen, where there is one to choose.
    pub choice: String,
}

/// What came out: a value for each field that is given, and how.
pub(super) struct Worked {
    pub values: Vec<Option<f64>>,
    pub workings: Vec<String>,
}

impl Values {
    /// A number that was asked for and must be there: the reading has seen to it.
    pub fn get(&self, field: &str) -> f64 {
        self.maybe(field).unwrap_or(f64::NAN)
    }

    /// A number that may have been left out.
    pub fn maybe(&self, field: &str) -> Option<f64> {
        self.numbers.iter().find(|(name, _)| name == field).and_then(|(_, value)| *value)
    }

    /// A text that was asked for, or a word that was chosen: the reading has seen to it.
    pub fn text(&self, field: &str) -> &str {
        self.texts.iter().find(|(name, _)| name == field).map_or("", |(_, text)| text)
    }

    /// A number that this choice needs.
    pub fn needed(&self, field: &str) -> Result<f64, Problems> {
        let missing = || Problems::one(format!("/{field}"), format!("this is missing: “{}” needs it", self.choice));
        self.maybe(field).ok_or_else(missing)
    }
}

impl Sum {
    pub fn offer(&self) -> CalculatorOffer {
        let choice = self.choice.map(|(field, name, words)| Asked {
            choices: words.iter().map(|word| (*word).to_owned()).collect(),
            ..Asked::text(field, name, words.first().copied().unwrap_or_default())
        });
        let number = |number: &Number| {
            let left_out = self.optional.iter().find(|(field, _)| *field == number.0);
            Asked {
                optional: left_out.is_some(),
                goes_with: left_out.filter(|(_, choice)| !choice.is_empty()).map(|(_, choice)| (*choice).to_owned()),
                ..Asked::number(number.0, number.1, number.2, number.3, (number.4, number.5))
            }
        };
        CalculatorOffer {
            name: self.name.to_owned(),
            title: self.title.to_owned(),
            group: self.group.to_owned(),
            says: self.says.to_owned(),
            asked: choice.into_iter().chain(self.asked.iter().map(number)).collect(),
            given: self.given.iter().map(|(field, name, unit)| Given::new(field, name, unit)).collect(),
        }
    }

    /// Reads what is asked, works it out, and writes what is given.
    pub fn work(&self, asked: &Map<String, Value>) -> Result<Value, Problems> {
        let worked = (self.work)(&read(&self.offer().asked, asked)?)?;
        let mut out = Map::new();
        for ((field, _, _), value) in self.given.iter().zip(worked.values) {
            out.insert((*field).to_owned(), json!(value.filter(|value| value.is_finite())));
        }
        out.insert("workings".to_owned(), json!(worked.workings));
        Ok(Value::Object(out))
    }
}

/// So many fields that are not asked are told by name.
const MOST_TOLD: usize = 12;

/// Reads what is asked: every field there is, each within its range.
pub(super) fn read(asked: &[Asked], from: &Map<String, Value>) -> Result<Values, Problems> {
    let mut wrong = Vec::new();
    let mut note = |field: &str, message: String| {
        let pointer = format!("/{}", field.replace('~', "~0").replace('/', "~1"));
        wrong.push(Problem { pointer, message });
    };
    let all: Vec<&str> = asked.iter().map(|one| one.field.as_str()).collect();
    let mut unknown = from.keys().filter(|field| !all.contains(&field.as_str()));
    for field in unknown.by_ref().take(MOST_TOLD) {
        note(field, format!("“{field}” is not asked here; there is {}", all.join(", ")));
    }
    let more = unknown.count();
    if more > 0 {
        note("", format!("and {more} more that are not asked here"));
    }
    let mut values = Values { numbers: Vec::new(), texts: Vec::new(), choice: String::new() };
    for one in asked {
        let (field, value) = (&one.field, from.get(&one.field).filter(|value| !value.is_null()));
        match (one.least, one.most) {
            (Some(least), Some(most)) => {
                let number = value.and_then(Value::as_f64);
                let allowed = format!("it must be from {least} to {most} {}", one.unit);
                let allowed = allowed.trim_end();
                match (value, number) {
                    (None, _) if !one.optional => note(field, format!("this is missing: {allowed}")),
                    (Some(value), None) => note(field, format!("{value} is no number: {allowed}")),
                    (_, Some(number)) if !(least..=most).contains(&number) => {
                        note(field, format!("{number} is not allowed here: {allowed}"));
                    }
                    _ => {}
                }
                values.numbers.push((field.clone(), number));
            }
            _ if one.choices.is_empty() => match value.map(Value::as_str) {
                Some(Some(text)) => values.texts.push((field.clone(), text.to_owned())),
                Some(None) => note(field, format!("{} is no text: write {}", value.unwrap_or(&Value::Null), one.usual)),
                None => note(field, format!("this is missing: write {}", one.usual)),
            },
            _ => {
                let choices = one.choices.join(" or ");
                match value.and_then(Value::as_str) {
                    Some(word) if one.choices.iter().any(|choice| choice == word) => {
                        word.clone_into(&mut values.choice);
                        values.texts.push((field.clone(), word.to_owned()));
                    }
                    Some(word) => note(field, format!("“{word}” is not allowed here: it must be {choices}")),
                    None => note(field, format!("this is missing: it must be {choices}")),
                }
            }
        }
    }
    if wrong.is_empty() { Ok(values) } else { Err(Problems(wrong)) }
}
