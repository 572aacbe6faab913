//! Drills for a class as a file to give away: which skill, which level, which seed. They are asked on the dials of the kit
//! Tolva comes with, so that everybody has the same questions.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::problems::{ProblemCode, Problems, shortened};

/// The name every such file carries in `format`.
const FORMAT: &str = "tolva-class";
/// Its version.
const VERSION: u32 = 1;
/// The longest name.
const MOST_NAME: usize = 80;
/// The most drills in a file: two rounds of a lesson.
const MOST_DRILLS: usize = 40;
/// The largest seed: numbers that every reader of JSON keeps whole.
pub const MOST_SEED: u64 = 1 << 53;

/// Drills for a class.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClassFile {
    /// Always `tolva-class`.
    #[schema(example = "tolva-class")]
    pub format: String,
    /// The version of the format: 1.
    pub format_version: u32,
    /// What the class is called, 1 to 80 characters.
    #[schema(min_length = 1, max_length = 80)]
    pub name: String,
    /// The drills, 1 to 40, in the order they are asked.
    #[schema(min_items = 1, max_items = 40)]
    pub drills: Vec<ClassDrill>,
}

/// A drill of a class.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClassDrill {
    /// The skill, by its code: `equal_exposures`.
    #[schema(max_length = 40)]
    pub skill: String,
    /// The level, 1 to 3.
    #[schema(minimum = 1, maximum = 3)]
    pub level: u8,
    /// What it is drawn with.
    #[schema(maximum = 9_007_199_254_740_992_u64)]
    pub seed: u64,
}

impl ClassFile {
    /// Drills under a name.
    ///
    /// ```
    /// use tolva_format::{ClassDrill, ClassFile};
    /// let drill = ClassDrill { skill: "equal_exposures".to_owned(), level: 1, seed: 7 };
    /// let class = ClassFile::of("Tuesdays", vec![drill])?;
    /// assert_eq!(class.format, "tolva-class");
    /// assert!(ClassFile::of("", class.drills).is_err());
    /// # Ok::<(), tolva_format::Problems>(())
    /// ```
    ///
    /// # Errors
    /// As [`ClassFile::check`] has them.
    pub fn of(name: &str, drills: Vec<ClassDrill>) -> Result<Self, Problems> {
        let file = Self { format: FORMAT.to_owned(), format_version: VERSION, name: name.trim().to_owned(), drills };
        file.check()?;
        Ok(file)
    }

    /// Checks what a file says, but for whether there are such skills.
    ///
    /// # Errors
    /// The first thing that is wrong, with a pointer to it.
    pub fn check(&self) -> Result<(), Problems> {
        if self.format != FORMAT {
            let says = format!("“{}” is no class file: those have \"format\": \"{FORMAT}\"", shortened(&self.format));
            return Err(Problems::one("/format", says));
        }
        if self.format_version != VERSION {
            let says = format!("version {} of class files is not known here: {VERSION} is", self.format_version);
            return Err(Problems::one("/format_version", says));
        }
        let name = self.name.trim().chars().count();
        if !(1..=MOST_NAME).contains(&name) {
            let says = format!("a class has a name of 1 to {MOST_NAME} characters; this one has {name}");
            return Err(Problems::one("/name", says).coded(ProblemCode::Count));
        }
        if !(1..=MOST_DRILLS).contains(&self.drills.len()) {
            let says = format!("a class has 1 to {MOST_DRILLS} drills; this one has {}", self.drills.len());
            return Err(Problems::one("/drills", says).coded(ProblemCode::Count));
        }
        for (at, drill) in self.drills.iter().enumerate() {
            if !(1..=3).contains(&drill.level) {
                let says = format!("{} is no level: they go from 1 to 3", drill.level);
                return Err(Problems::one(format!("/drills/{at}/level"), says).coded(ProblemCode::OutOfRange));
            }
            if drill.seed > MOST_SEED {
                let says = format!("{} is too large: at most {MOST_SEED}", drill.seed);
                return Err(Problems::one(format!("/drills/{at}/seed"), says).coded(ProblemCode::OutOfRange));
            }
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::read_json;
    use rstest::rstest;
    use serde_json::{Value, json};

    fn good() -> Value {
        json!({
            "format": "tolva-class", "format_version": 1, "name": "Tuesdays",
            "drills": [{ "skill": "powers", "level": 2, "seed": 5 }]
        })
    }

    #[test]
    fn a_class_is_read_as_it_was_written() {
        let read: ClassFile = read_json(good().to_string().as_bytes()).expect("good");
        assert_eq!(read.check(), Ok(()));
        assert_eq!(json!(read), good());
    }

    #[rstest]
    #[case("/format", json!("tolva-job"))]
    #[case("/format_version", json!(2))]
    #[case("/name", json!(" "))]
    #[case("/name", json!("x".repeat(81)))]
    #[case("/drills", json!([]))]
    #[case("/drills/0/level", json!(4))]
    #[case("/drills/0/seed", json!((1_u64 << 53) + 1))]
    fn what_is_wrong_is_named(#[case] pointer: &str, #[case] value: Value) {
        let mut file = good();
        *file.pointer_mut(pointer).expect("it is there") = value;
        let read: ClassFile = read_json(file.to_string().as_bytes()).expect("of its types");
        assert_eq!(read.check().expect_err("wrong").0[0].pointer, pointer);
    }
}
