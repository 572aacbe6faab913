//! How surfaces give light on: a colour, and what they mirror. Colours are in linear sRGB, as a neutral light shows them.

use super::field::Stuff;
use crate::exposure::MeteringMethod;

/// What a surface mirrors.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Gloss {
    /// Nothing.
    None,
    /// A soft highlight: so much straight on, so narrow (the exponent of the half way's cosine).
    Soft {
        /// The part that is mirrored straight on, 0 to 1.
        straight: f32,
        /// The exponent.
        narrow: f32,
    },
    /// What glows, as in a wet ball: an eye.
    Wet,
    /// Everything, as in a mirror: the part that is mirrored.
    Mirror(f32),
}

/// How a surface gives light on.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Coat {
    /// The part of the light it gives on to every side: red, green, blue.
    pub albedo: [f32; 3],
    /// What it mirrors.
    pub gloss: Gloss,
}

impl Coat {
    /// A matt one.
    pub const fn matt(albedo: [f32; 3]) -> Self {
        Self { albedo, gloss: Gloss::None }
    }

    const fn soft(albedo: [f32; 3], straight: f32, narrow: f32) -> Self {
        Self { albedo, gloss: Gloss::Soft { straight, narrow } }
    }
}

impl Coat {
    /// As ground is that people walk on: a little darker and paler from place to place.
    #[must_use]
    pub(super) fn worn(self, at: glam::Vec3A) -> Self {
        let patchy = 0.10 * (noise(at * 0.9) - 0.5) + 0.12 * (noise(at * 3.7) - 0.5) + 0.10 * (noise(at * 17.0) - 0.5);
        Self { albedo: self.albedo.map(|part| part * (1.0 + patchy)), ..self }
    }
}

/// Smooth noise of 0 to 1 on the level. Source: value noise between hashed corners.
fn noise(at: glam::Vec3A) -> f32 {
    let (x, y) = (at.x.floor(), at.y.floor());
    let (right, up) = (at.x - x, at.y - y);
    let ease = |part: f32| part * part * (3.0 - 2.0 * part);
    let corner = |dx: f32, dy: f32| {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "any number will do")]
        let mixed =
            ((x + dx) as i32 as u32).wrapping_mul(0x9e37_79b1) ^ ((y + dy) as i32 as u32).wrapping_mul(0x85eb_ca77);
        let mixed = (mixed ^ (mixed >> 15)).wrapping_mul(0x2c1b_3c6d);
        #[expect(clippy::cast_precision_loss, reason = "a part of 1")]
        let part = (mixed >> 8) as f32 / (1 << 24) as f32;
        part
    };
    let (a, b) = (ease(right), ease(up));
    let low = corner(0.0, 0.0) * (1.0 - a) + corner(1.0, 0.0) * a;
    let high = corner(0.0, 1.0) * (1.0 - a) + corner(1.0, 1.0) * a;
    low * (1.0 - b) + high * b
}

/// How deep a skin is. By the schools of reading it with a spot.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Skin {
    /// Pale.
    Pale,
    /// Of medium depth.
    #[default]
    Medium,
    /// Dark.
    Dark,
}

impl Skin {
    /// Every depth.
    pub const ALL: [Self; 3] = [Self::Pale, Self::Medium, Self::Dark];

    /// What it gives on, so far over mid grey as a spot off it is usually taken to be. Its tone is chosen.
    pub fn albedo(self) -> [f32; 3] {
        let (method, tone) = match self {
            Self::Pale => (MeteringMethod::SpotSkinPale, [1.33, 0.93, 0.72]),
            Self::Medium => (MeteringMethod::SpotSkinMedium, [1.44, 0.90, 0.61]),
            Self::Dark => (MeteringMethod::SpotSkinDark, [1.55, 0.87, 0.55]),
        };
        let luminance = 0.18 * method.surface().ratio();
        let own = crate::proof::luminance(tone);
        #[expect(clippy::cast_possible_truncation, reason = "a colour")]
        let scale = luminance as f32 / own;
        tone.map(|part| part * scale)
    }
}

/// How bright clothes are.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Clothes {
    /// White or nearly.
    Pale,
    /// In between.
    #[default]
    Middling,
    /// Black or nearly.
    Dark,
}

impl Clothes {
    /// Every brightness.
    pub const ALL: [Self; 3] = [Self::Pale, Self::Middling, Self::Dark];

    fn albedo(self) -> [f32; 3] {
        match self {
            Self::Pale => [0.62, 0.61, 0.58],
            Self::Middling => [0.13, 0.17, 0.22],
            Self::Dark => [0.030, 0.030, 0.034],
        }
    }
}

/// Somebody's skin and clothes.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Look {
    /// Their skin.
    pub skin: Skin,
    /// What they wear.
    pub clothes: Clothes,
    /// Which of a few colours of hair.
    pub hair: u8,
}

/// A few colours of hair, chosen.
const HAIR: [[f32; 3]; 4] =
    [[0.030, 0.021, 0.016], [0.075, 0.044, 0.026], [0.013, 0.011, 0.011], [0.150, 0.105, 0.062]];

impl Look {
    /// What a part of a figure gives on.
    pub fn coat(&self, of: Stuff) -> Coat {
        match of {
            Stuff::Skin => Coat::soft(self.skin.albedo(), 0.028, 14.0),
            Stuff::Lips => {
                let [red, green, blue] = self.skin.albedo();
                Coat::soft([red * 0.90, green * 0.66, blue * 0.70], 0.035, 30.0)
            }
            Stuff::Hair => Coat::soft(HAIR[usize::from(self.hair) % HAIR.len()], 0.030, 18.0),
            Stuff::Shirt => Coat::matt(self.clothes.albedo()),
            Stuff::Trousers => Coat::matt(self.clothes.albedo().map(|part| part * 0.45 + 0.01)),
            Stuff::Shoes => Coat::soft([0.022, 0.019, 0.017], 0.03, 20.0),
        }
    }

    /// An eye so far from the middle of its sight (the cosine): its pupil, its iris, its white.
    pub fn eye(sight: f32) -> Coat {
        let albedo = match sight {
            _ if sight > 0.985 => [0.004; 3],
            _ if sight > 0.880 => [0.085, 0.060, 0.040],
            _ => [0.36, 0.33, 0.31],
        };
        Coat { albedo, gloss: Gloss::Wet }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// As a spot is read off them: +1, +⅓ and −⅔ from mid grey (common practice, no source).
    #[rstest]
    #[case(Skin::Pale, 1.0)]
    #[case(Skin::Medium, 1.0 / 3.0)]
    #[case(Skin::Dark, -2.0 / 3.0)]
    fn skin_is_as_deep_as_a_spot_takes_it(#[case] skin: Skin, #[case] stops: f32) {
        let luminance = crate::proof::luminance(skin.albedo());
        assert!(((luminance / 0.18).log2() - stops).abs() < 1e-4);
        let [red, green, blue] = skin.albedo();
        assert!(red > green && green > blue && red < 0.6);
    }

    #[test]
    fn nothing_gives_back_more_than_it_gets() {
        for skin in Skin::ALL {
            for clothes in Clothes::ALL {
                let look = Look { skin, clothes, hair: 3 };
                for stuff in [Stuff::Skin, Stuff::Lips, Stuff::Hair, Stuff::Shirt, Stuff::Trousers, Stuff::Shoes] {
                    assert!(look.coat(stuff).albedo.into_iter().all(|part| (0.0..0.9).contains(&part)));
                }
            }
        }
        assert!(Look::eye(1.0).albedo[0] < Look::eye(0.9).albedo[0] && Look::eye(0.5).albedo[0] > 0.3);
    }
}
