//! A camera's curve: what light a level of a picture stands for.

use palette::SrgbLuma;

use crate::scale::Stops;

/// Levels of a picture of 8 bits.
const LEVELS: usize = 256;
/// A curve is kept at so many quarters of a stop, from this one on.
const QUARTERS: u8 = 31;
const FIRST: f64 = -5.0;
/// Mid grey. Source: physics.md, the grey card of 18 %.
const MID_GREY: f64 = 0.18;

/// What each level from 0 to 255 stands for in linear light, where 1 is full and mid grey 0.18.
#[derive(Clone, Debug, PartialEq)]
pub struct ToneCurve {
    linear: Vec<f64>,
}

/// Why levels make no curve.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum NotACurve {
    /// Not one value a level.
    #[error("a curve has {LEVELS} values, one for each level from 0 to 255, not {0}")]
    Length(usize),
    /// It falls, or is no number.
    #[error("a curve rises from level to level: at level {level} stands {value}")]
    Falls {
        /// Where.
        level: usize,
        /// What stands there.
        value: f64,
    },
}

impl ToneCurve {
    /// The curve of sRGB. Source: IEC 61966-2-1, by palette.
    pub fn srgb() -> Self {
        Self {
            linear: (0..=255u8)
                .map(|level| SrgbLuma::<f64>::new(f64::from(level) / 255.0).into_linear().luma)
                .collect(),
        }
    }

    /// A curve of its own: linear light for each level, from 0 to 255.
    ///
    /// # Errors
    /// Another number of values, or values that fall.
    pub fn of(linear: Vec<f64>) -> Result<Self, NotACurve> {
        if linear.len() != LEVELS {
            return Err(NotACurve::Length(linear.len()));
        }
        let falls = (0..LEVELS).find(|&level| {
            let value = linear[level];
            !value.is_finite() || value < 0.0 || (level > 0 && value < linear[level - 1])
        });
        match falls {
            Some(level) => Err(NotACurve::Falls { level, value: linear[level] }),
            None => Ok(Self { linear }),
        }
    }

    /// The curve by the level of a grey at each quarter of a stop from −5 to +2.5, 31 of them: between them the level goes
    /// straight, below the first and above the last the light does. Nothing where they are no curve.
    ///
    /// ```
    /// use tolva_core::{frame::ToneCurve, scale::Stops};
    /// let own = ToneCurve::srgb();
    /// let again = ToneCurve::of_quarters(&own.quarters()).expect("a curve");
    /// assert!((again.level_at(Stops(-1.0)) - own.level_at(Stops(-1.0))).abs() < 0.5);
    /// ```
    pub fn of_quarters(levels: &[f64]) -> Option<Self> {
        let good = levels.len() == usize::from(QUARTERS) && levels.windows(2).all(|two| two[0] <= two[1]);
        let (first, last) = (*levels.first()?, *levels.last()?);
        if !good || first < 0.0 || last > 255.0 {
            return None;
        }
        let light = |stops: f64| MID_GREY * stops.exp2();
        let ends = (light(FIRST), light(FIRST + 0.25 * f64::from(QUARTERS - 1)));
        let at = |level: f64| {
            if level <= first {
                // Where black is level 0 already at the first grey, it stands for no light.
                return ends.0 * if first > 0.0 { level / first } else { 0.0 };
            }
            let above = levels.partition_point(|one| *one < level);
            if above >= levels.len() {
                let rest = if last < 255.0 { (level - last) / (255.0 - last) } else { 0.0 };
                return ends.1 + (1.0f64.max(ends.1) - ends.1) * rest;
            }
            let (low, high) = (levels[above - 1], levels[above]);
            let part = if high > low { (level - low) / (high - low) } else { 0.0 };
            #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
            let below = (above - 1) as f64;
            light(FIRST + 0.25 * (below + part))
        };
        Self::of((0..=255u8).map(|level| at(f64::from(level))).collect()).ok()
    }

    /// The level of a grey at each quarter of a stop from −5 to +2.5.
    pub fn quarters(&self) -> Vec<f64> {
        (0..QUARTERS).map(|quarter| self.level_at(Stops(FIRST + 0.25 * f64::from(quarter)))).collect()
    }

    /// What each level stands for, from 0 to 255.
    pub fn linear(&self) -> &[f64] {
        &self.linear
    }

    /// What a level stands for; also between two.
    pub fn linear_at(&self, level: f64) -> f64 {
        let level = level.clamp(0.0, 255.0);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a level")]
        let below = (level.floor() as usize).min(LEVELS - 2);
        #[expect(clippy::cast_precision_loss, reason = "a level")]
        let part = level - below as f64;
        self.linear[below] * (1.0 - part) + self.linear[below + 1] * part
    }

    /// The level of a grey so many stops from mid grey.
    ///
    /// ```
    /// use tolva_core::{frame::ToneCurve, scale::Stops};
    /// assert_eq!(ToneCurve::srgb().level_at(Stops(0.0)).round(), 118.0);
    /// ```
    pub fn level_at(&self, stops: Stops) -> f64 {
        let wanted = MID_GREY * stops.ratio();
        let above = self.linear.partition_point(|value| *value < wanted);
        if above == 0 || above >= LEVELS {
            return if above == 0 { 0.0 } else { 255.0 };
        }
        let (low, high) = (self.linear[above - 1], self.linear[above]);
        #[expect(clippy::cast_precision_loss, reason = "a level")]
        let below = (above - 1) as f64;
        below + if high > low { (wanted - low) / (high - low) } else { 0.0 }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// Worked out from IEC 61966-2-1.
    /// A curve whose darkest greys are all level 0 has black as no light, not as five stops under mid grey.
    #[test]
    fn level_nought_is_black() {
        let mut levels = ToneCurve::srgb().quarters();
        levels[..4].fill(0.0);
        let curve = ToneCurve::of_quarters(&levels).expect("a curve");
        assert!(curve.linear_at(0.0).abs() < 1e-12 && curve.linear_at(1.0) > 0.0, "{:?}", &curve.linear()[..4]);
        assert!((curve.level_at(Stops(0.0)) - 118.0).abs() < 1.0);
    }

    #[rstest]
    #[case(118.0, 0.181_16)]
    #[case(255.0, 1.0)]
    #[case(0.0, 0.0)]
    fn srgb(#[case] level: f64, #[case] linear: f64) {
        assert!((ToneCurve::srgb().linear_at(level) - linear).abs() < 1e-4);
    }

    #[test]
    fn there_and_back() {
        let curve = ToneCurve::srgb();
        for level in [3.0, 17.4, 118.0, 200.5, 254.0] {
            let stops = Stops((curve.linear_at(level) / MID_GREY).log2());
            assert!((curve.level_at(stops) - level).abs() < 1e-6);
        }
        assert!(curve.level_at(Stops(9.0)) >= 255.0 && curve.level_at(Stops(-99.0)) < 1e-9);
    }

    #[test]
    fn what_is_no_curve() {
        assert_eq!(ToneCurve::of(vec![0.0; 3]), Err(NotACurve::Length(3)));
        let mut falls = ToneCurve::srgb().linear;
        falls[9] = 0.0;
        assert_eq!(ToneCurve::of(falls), Err(NotACurve::Falls { level: 9, value: 0.0 }));
    }
}
