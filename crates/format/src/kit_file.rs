//! A kit as a file of its own: JSON, and a table of values (CSV) for a spreadsheet.

use std::collections::HashMap;

use serde::{Deserialize, Serialize};
use serde_json::{Map, Value, json};
use utoipa::ToSchema;

use super::check::kit as check_kit;
use super::migrate::{kit_is_weighed, names_of_the_field_in_a_kit};
use super::problems::{Checker, shortened};
use super::read::without_mark;
use super::table::{harmful_no_more, harmless};
use super::{FORMAT_VERSION, Kit, Problems, read_json};

/// The name every kit file carries in `format`.
const FORMAT: &str = "tolva-kit";
/// The columns of the table.
const COLUMNS: [&str; 4] = ["kind", "id", "field", "value"];
/// Fields that are words, whatever they look like.
const WORDS: [&str; 3] = ["id", "name", "holds_for"];

/// A kit file.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitFile {
    /// Always `tolva-kit`.
    #[schema(example = "tolva-kit")]
    pub format: String,
    /// The version of the format: as a job's.
    pub format_version: u32,
    /// The kit.
    pub kit: Kit,
}

/// A kit of one's own holds a tenth of what a job may: a job keeps what its setups use beside what is owned.
const OF_ONES_OWN: usize = 10;

impl Kit {
    /// Checks every value of a kit of one's own; pointers begin with `/kit`.
    ///
    /// # Errors
    /// All that is wrong, each with a pointer to its field.
    pub fn check(&self) -> Result<(), Problems> {
        self.checked(true)
    }

    /// The same of things that are put into a kit: what they need besides may be there.
    fn check_things(&self) -> Result<(), Problems> {
        self.checked(false)
    }

    fn checked(&self, whole: bool) -> Result<(), Problems> {
        let mut c = Checker::default();
        c.within("kit", |c| {
            for (field, count) in self.counts() {
                c.count_of(field, count, 0, Self::most_owned(field));
            }
            if !c.too_many() {
                self.ranges(c);
                check_kit(c, self);
            }
        });
        if !whole {
            c.forget_what_is_missing();
        }
        c.done()
    }

    /// So many things of a kind a kit of one's own holds at most.
    pub(crate) fn most_owned(field: &str) -> usize {
        most(field) / OF_ONES_OWN
    }

    /// So many different things of a kind the setups of a job use at most: what is owned finds room beside them.
    pub(crate) fn most_used(field: &str) -> usize {
        most(field) - Self::most_owned(field)
    }
}

fn most(field: &str) -> usize {
    Kit::MOST_ITEMS.iter().find(|(of, _)| *of == field).map_or(usize::MAX, |(_, most)| *most)
}

impl KitFile {
    /// A file of a kit.
    pub fn new(kit: Kit) -> Self {
        Self { format: FORMAT.to_owned(), format_version: FORMAT_VERSION, kit }
    }

    /// Reads a kit file.
    ///
    /// # Errors
    /// What is wrong, with a JSON pointer to each wrong field.
    pub fn from_json(json: &[u8]) -> Result<Self, Problems> {
        let file = Self::stored(json)?;
        file.kit.check()?;
        Ok(file)
    }

    /// The same without a look at any value: for what has retired from the kit, which is as many things as it is.
    ///
    /// # Errors
    /// What cannot be read, with a JSON pointer to it.
    pub fn stored(json: &[u8]) -> Result<Self, Problems> {
        let mut document: Value = read_json(json)?;
        let older =
            document["format_version"].as_u64().filter(|version| (3..u64::from(FORMAT_VERSION)).contains(version));
        let file: Self = if older.is_some() {
            names_of_the_field_in_a_kit(document.get_mut("kit"));
            kit_is_weighed(document.get_mut("kit"));
            document["format_version"] = json!(FORMAT_VERSION);
            read_json(document.to_string().as_bytes())?
        } else {
            read_json(json)?
        };
        if file.format != FORMAT || file.format_version != FORMAT_VERSION {
            let message = format!(
                "“{}”, version {}, is not a kit Tolva reads: it must be “{FORMAT}”, version {FORMAT_VERSION}",
                file.format, file.format_version
            );
            return Err(Problems::one("/format", message));
        }
        Ok(file)
    }

    /// The file as it is exported: indented, with a newline at its end.
    pub fn to_json(&self) -> String {
        serde_json::to_string_pretty(self).unwrap_or_default() + "\n"
    }

    /// The kit as a table: one value a line, with the kind, the id of the thing, and the path of the field.
    pub fn to_csv(&self) -> String {
        let mut table = csv::Writer::from_writer(Vec::new());
        // Writing into memory cannot fail.
        let _ = table.write_record(COLUMNS);
        let kit = json!(self.kit);
        for (kind, things) in kit.as_object().into_iter().flatten() {
            for thing in things.as_array().into_iter().flatten() {
                let id = thing["id"].as_str().unwrap_or_default();
                let mut leaves = Vec::new();
                flatten(thing, "", &mut leaves);
                for (field, value) in leaves {
                    let id = harmless(id);
                    let _ = table.write_record([kind.as_str(), &id, &field, &harmless(&value)]);
                }
            }
        }
        table.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default()
    }

    /// Reads a kit file of either kind.
    ///
    /// # Errors
    /// As [`KitFile::from_json`] and [`KitFile::from_csv`].
    pub fn from_any(bytes: &[u8]) -> Result<Self, Problems> {
        let is_json = without_mark(bytes).iter().find(|byte| !byte.is_ascii_whitespace()) == Some(&b'{');
        if is_json { Self::from_json(bytes) } else { Self::from_csv(bytes) }
    }

    /// Reads a table as [`KitFile::to_csv`] writes it. A kind that is not in it stays empty, and what it is put into is
    /// checked as a whole: a table may hold a single thing.
    ///
    /// # Errors
    /// A line that cannot be read, with its number, or a value that is wrong, with its field.
    pub fn from_csv(table: &[u8]) -> Result<Self, Problems> {
        let mut rows = csv::Reader::from_reader(without_mark(table));
        let header = rows.headers().map_err(|error| Problems::one("", error.to_string()))?;
        if header != COLUMNS.as_slice() {
            return Err(Problems::one("", format!("the first line must be {}", COLUMNS.join(","))));
        }
        let mut kit = json!({
            "cameras": [], "lenses": [], "flashes": [], "modifiers": [], "gels": [], "filters": [], "stands": [],
            "triggers": [], "booms": [], "boards": [], "backdrops": [], "meters": [],
        });
        let mut places: HashMap<(String, String), usize> = HashMap::new();
        for (index, row) in rows.records().enumerate() {
            let line = index + 2;
            let wrong = |message: String| Problems::one("", format!("line {line}: {message}"));
            let row = row.map_err(|error| wrong(error.to_string()))?;
            let [kind, id, field, text] = [0, 1, 2, 3].map(|column| row.get(column).unwrap_or_default());
            let Some(things) = kit.get_mut(kind).and_then(Value::as_array_mut) else {
                return Err(wrong(format!("“{}” is no kind of thing", shortened(kind))));
            };
            let path: Vec<&str> = field.split('/').take(DEEPEST + 1).collect();
            if path.len() > DEEPEST {
                return Err(wrong(format!("“{}” is no field of a thing: none lies so deep", shortened(field))));
            }
            let at = *places.entry((kind.to_owned(), id.to_owned())).or_insert_with(|| {
                things.push(json!({ "id": id }));
                things.len() - 1
            });
            if at >= Kit::most_owned(kind) {
                return Err(wrong(format!("these are too many {kind}: at most {}", Kit::most_owned(kind))));
            }
            let text = harmful_no_more(text);
            let value = if WORDS.iter().any(|word| field.ends_with(word)) {
                json!(text)
            } else {
                serde_json::from_str(text).ok().filter(is_a_leaf).unwrap_or_else(|| json!(text))
            };
            put(&mut things[at], &path, value).map_err(wrong)?;
        }
        names_of_the_field_in_a_kit(Some(&mut kit));
        let file = Self::new(read_json::<Kit>(kit.to_string().as_bytes()).map_err(|p| p.within("/kit"))?);
        file.kit.check_things()?;
        Ok(file)
    }
}

/// As deep as a field of a thing lies: `output/guide_number_zoom/table/1/guide_number_m` is five names long.
const DEEPEST: usize = 8;

/// What stands alone: an empty list or object is a value too, and what is in others has lines of its own.
fn is_a_leaf(value: &Value) -> bool {
    match value {
        Value::Array(items) => items.is_empty(),
        Value::Object(fields) => fields.is_empty(),
        _ => true,
    }
}

/// Every value of a thing with its path; an empty object or list is a value too.
fn flatten(value: &Value, path: &str, into: &mut Vec<(String, String)>) {
    let under = |key: &str| if path.is_empty() { key.to_owned() } else { format!("{path}/{key}") };
    match value {
        Value::Object(fields) if !fields.is_empty() => {
            fields.iter().for_each(|(key, value)| flatten(value, &under(key), into));
        }
        Value::Array(items) if !items.is_empty() => {
            items.iter().enumerate().for_each(|(index, item)| flatten(item, &under(&index.to_string()), into));
        }
        Value::String(text) => into.push((path.to_owned(), text.clone())),
        other => into.push((path.to_owned(), other.to_string())),
    }
}

/// Puts a value at a path, making lists where a number stands in it.
fn put(mut at: &mut Value, path: &[&str], value: Value) -> Result<(), String> {
    for name in path {
        at = inside(at, name)?;
    }
    *at = value;
    Ok(())
}

/// The place of a name in a value, made where it is not there.
fn inside<'a>(at: &'a mut Value, first: &str) -> Result<&'a mut Value, String> {
    if let Ok(index) = first.parse::<usize>() {
        if at.is_null() {
            *at = json!([]);
        }
        let items = at.as_array_mut().ok_or_else(|| format!("“{first}” is no place in a list"))?;
        if index > items.len() {
            return Err(format!("“{first}” comes before the one in front of it"));
        }
        if index == items.len() {
            items.push(Value::Null);
        }
        Ok(&mut items[index])
    } else {
        if at.is_null() {
            *at = Value::Object(Map::new());
        }
        let fields = at.as_object_mut().ok_or_else(|| format!("“{}” is no field here", shortened(first)))?;
        Ok(fields.entry(first.to_owned()).or_insert(Value::Null))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[test]
    fn there_and_back() {
        let file = KitFile::new(Kit::starter());
        assert_eq!(KitFile::from_json(file.to_json().as_bytes()).expect("JSON"), file);
        let table = file.to_csv();
        assert!(table.starts_with("kind,id,field,value\n"), "{table}");
        assert!(table.contains("flashes,small,output/guide_number_zoom/table/1/guide_number_m,36"));
        assert_eq!(KitFile::from_csv(table.as_bytes()).expect("a table"), file);
    }

    /// A kit as version 3 wrote it, in both forms.
    #[test]
    fn a_kit_of_version_3_is_read() {
        let file = KitFile::new(Kit::starter());
        let before = file
            .to_json()
            .replace("\"ttl\"", "\"automatic\"")
            .replace(&format!("version\": {FORMAT_VERSION}"), "version\": 3");
        assert!(before.contains("\"automatic\"") && before.contains("\"format_version\": 3"));
        assert_eq!(KitFile::from_json(before.as_bytes()).expect("JSON"), file);
        let table = file.to_csv().replace(",ttl,", ",automatic,");
        assert_eq!(KitFile::from_csv(table.as_bytes()).expect("a table"), file);
    }

    #[test]
    fn a_name_that_looks_like_a_number_stays_a_name() {
        let mut file = KitFile::new(Kit::starter());
        file.kit.stands[0].name = "17".to_owned();
        assert_eq!(KitFile::from_csv(file.to_csv().as_bytes()).expect("a table"), file);
    }

    #[rstest]
    #[case("a,b\n1,2\n", "", "the first line must be kind,id,field,value")]
    #[case("kind,id,field,value\ntents,t,name,T\n", "", "line 2: “tents” is no kind of thing")]
    #[case("kind,id,field,value\nstands,t,legs/3,1\n", "", "line 2: “3” comes before")]
    #[case("kind,id,field,value\nstands,t,highest_m,tall\n", "/kit/stands/0/highest_m", "expected f64")]
    fn tables_that_are_refused(#[case] table: &str, #[case] pointer: &str, #[case] says: &str) {
        let wrong = KitFile::from_csv(table.as_bytes()).expect_err("wrong");
        assert!(wrong.0[0].pointer == pointer && wrong.0[0].message.contains(says), "{wrong}");
    }

    #[test]
    fn values_are_checked() {
        let mut file = KitFile::new(Kit::starter());
        file.kit.filters[0].density_stops = 40.0;
        let wrong = KitFile::from_csv(file.to_csv().as_bytes()).expect_err("wrong");
        assert_eq!(wrong.0[0].pointer, "/kit/filters/0/density_stops");
        let other = file.to_json().replace("tolva-kit", "other-kit");
        assert_eq!(KitFile::from_json(other.as_bytes()).expect_err("wrong").0[0].pointer, "/format");
    }
}
