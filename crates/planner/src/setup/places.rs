//! Places in lists: which light of a setup, and which flash of what is worked out. Each of the two is a type of its own, so
//! that one cannot be used for the other where a setup has continuous lights.

use super::{Light, LightPlace, Setup};

/// Which light of a setup: its place in the setup's list, flashes and continuous lights counted alike.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct LightIndex(pub usize);

/// Which flash of a setup: its place among the flashes alone, as they are listed where they are worked out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct FlashIndex(pub usize);

/// Lets lists be indexed by the one kind of place that is meant for them.
macro_rules! indexed {
    ($index:ty: $($one:ty),+) => {
        $(
            impl std::ops::Index<$index> for Vec<$one> {
                type Output = $one;

                fn index(&self, at: $index) -> &$one {
                    &self[at.0]
                }
            }

            impl std::ops::IndexMut<$index> for Vec<$one> {
                fn index_mut(&mut self, at: $index) -> &mut $one {
                    &mut self[at.0]
                }
            }
        )+
    };
}
pub(crate) use indexed;

indexed!(LightIndex: Light, LightPlace);

impl Setup {
    /// Its lights, each with its place.
    pub fn each_light(&self) -> impl DoubleEndedIterator<Item = (LightIndex, &Light)> {
        self.lights.iter().enumerate().map(|(at, light)| (LightIndex(at), light))
    }

    /// The place of the light that is called by a letter.
    pub fn light_called(&self, id: &str) -> Option<LightIndex> {
        self.lights.iter().position(|light| light.id == id).map(LightIndex)
    }
}
