//! The proof: what the frame will look like, computed from the set. One layer a light, in linear light; power, shutter,
//! aperture, ISO, filter and white balance only weigh the layers. Single precision; the same set gives the same picture, bit
//! for bit, however many threads work on it.

mod bands;
mod body;
mod coat;
mod faces;
mod field;
mod figure;
mod mesh;
mod picture;
mod samples;
mod scene;
mod sky;
mod smooth;
mod spot;
mod there;
mod work;

pub use bands::{Band, Lit, layers, layers_of};
pub use body::{Figure, Shape, Thing};
pub use coat::{Clothes, Coat, Gloss, Look, Skin};
pub use faces::{Fineness, Source, at_card, layer};
pub use field::{Form, Part, Stuff};
pub use figure::Hair;
pub use glam::Vec3A;
pub use mesh::{Around, Cells, Mesh};
pub use picture::{Layer, MID_GREY, Picture, Size, luminance};
pub use scene::Scene;
pub use spot::{Seen, Spot};
pub use there::{Beyond, Place, There};
pub use work::Work;
