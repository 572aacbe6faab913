//! The nominal series as engraved on cameras, in thirds and in halves of a stop.
//!
//! Source: ISO 2720 and ISO 12232 for the whole stops and the thirds of film speed; the rest as engraved on cameras
//! (from memory). A nominal value stands for the exact power of two nearest to it.

/// One nominal series: the values from a first position on, a fixed step apart.
pub(super) struct Series {
    /// Position of the first value, in thirtieths of a stop.
    pub first: i32,
    /// Thirtieths of a stop from one value to the next.
    pub step: i32,
    pub values: &'static [f64],
}

impl Series {
    pub(super) fn at(&self, notch: i32) -> Option<f64> {
        let from_first = notch - self.first;
        if from_first < 0 || from_first % self.step != 0 {
            return None;
        }
        self.values.get(usize::try_from(from_first / self.step).ok()?).copied()
    }

    pub(super) fn last(&self) -> i32 {
        self.first + self.step * (i32::try_from(self.values.len()).unwrap_or(1) - 1)
    }

    pub(super) fn positions(&self) -> impl Iterator<Item = (i32, f64)> {
        (self.first..).step_by(self.step.unsigned_abs() as usize).zip(self.values.iter().copied())
    }
}

/// Shutter times in seconds, the slowest first.
pub(super) const SHUTTER_THIRDS: Series = Series {
    first: -150,
    step: 10,
    values: &[
        30.0,
        25.0,
        20.0,
        15.0,
        13.0,
        10.0,
        8.0,
        6.0,
        5.0,
        4.0,
        3.2,
        2.5,
        2.0,
        1.6,
        1.3,
        1.0,
        0.8,
        0.6,
        0.5,
        0.4,
        0.3,
        1.0 / 4.0,
        1.0 / 5.0,
        1.0 / 6.0,
        1.0 / 8.0,
        1.0 / 10.0,
        1.0 / 13.0,
        1.0 / 15.0,
        1.0 / 20.0,
        1.0 / 25.0,
        1.0 / 30.0,
        1.0 / 40.0,
        1.0 / 50.0,
        1.0 / 60.0,
        1.0 / 80.0,
        1.0 / 100.0,
        1.0 / 125.0,
        1.0 / 160.0,
        1.0 / 200.0,
        1.0 / 250.0,
        1.0 / 320.0,
        1.0 / 400.0,
        1.0 / 500.0,
        1.0 / 640.0,
        1.0 / 800.0,
        1.0 / 1000.0,
        1.0 / 1250.0,
        1.0 / 1600.0,
        1.0 / 2000.0,
        1.0 / 2500.0,
        1.0 / 3200.0,
        1.0 / 4000.0,
        1.0 / 5000.0,
        1.0 / 6400.0,
        1.0 / 8000.0,
        1.0 / 10_000.0,
        1.0 / 13_000.0,
        1.0 / 16_000.0,
        1.0 / 20_000.0,
        1.0 / 25_000.0,
        1.0 / 32_000.0,
    ],
};

pub(super) const SHUTTER_HALVES: Series = Series {
    first: -150,
    step: 15,
    values: &[
        30.0,
        20.0,
        15.0,
        10.0,
        8.0,
        6.0,
        4.0,
        3.0,
        2.0,
        1.5,
        1.0,
        0.7,
        0.5,
        0.3,
        1.0 / 4.0,
        1.0 / 6.0,
        1.0 / 8.0,
        1.0 / 10.0,
        1.0 / 15.0,
        1.0 / 20.0,
        1.0 / 30.0,
        1.0 / 45.0,
        1.0 / 60.0,
        1.0 / 90.0,
        1.0 / 125.0,
        1.0 / 180.0,
        1.0 / 250.0,
        1.0 / 350.0,
        1.0 / 500.0,
        1.0 / 750.0,
        1.0 / 1000.0,
        1.0 / 1500.0,
        1.0 / 2000.0,
        1.0 / 3000.0,
        1.0 / 4000.0,
        1.0 / 6000.0,
        1.0 / 8000.0,
    ],
};

pub(super) const APERTURE_THIRDS: Series = Series {
    first: 0,
    step: 10,
    values: &[
        1.0, 1.1, 1.2, 1.4, 1.6, 1.8, 2.0, 2.2, 2.5, 2.8, 3.2, 3.5, 4.0, 4.5, 5.0, 5.6, 6.3, 7.1, 8.0, 9.0, 10.0, 11.0,
        13.0, 14.0, 16.0, 18.0, 20.0, 22.0, 25.0, 29.0, 32.0, 36.0, 40.0, 45.0, 51.0, 57.0, 64.0,
    ],
};

pub(super) const APERTURE_HALVES: Series = Series {
    first: 0,
    step: 15,
    values: &[
        1.0, 1.2, 1.4, 1.7, 2.0, 2.4, 2.8, 3.3, 4.0, 4.8, 5.6, 6.7, 8.0, 9.5, 11.0, 13.0, 16.0, 19.0, 22.0, 27.0, 32.0,
        38.0, 45.0, 54.0, 64.0,
    ],
};

pub(super) const ISO_THIRDS: Series = Series {
    first: -60,
    step: 10,
    values: &[
        25.0, 32.0, 40.0, 50.0, 64.0, 80.0, 100.0, 125.0, 160.0, 200.0, 250.0, 320.0, 400.0, 500.0, 640.0, 800.0,
        1000.0, 1250.0, 1600.0, 2000.0, 2500.0, 3200.0, 4000.0, 5000.0, 6400.0, 8000.0, 10_000.0, 12_800.0, 16_000.0,
        20_000.0, 25_600.0, 32_000.0, 40_000.0, 51_200.0, 64_000.0, 80_000.0, 102_400.0,
    ],
};

pub(super) const ISO_HALVES: Series = Series {
    first: -60,
    step: 15,
    values: &[
        25.0, 35.0, 50.0, 70.0, 100.0, 140.0, 200.0, 280.0, 400.0, 560.0, 800.0, 1100.0, 1600.0, 2200.0, 3200.0,
        4500.0, 6400.0, 9000.0, 12_800.0, 18_000.0, 25_600.0, 36_000.0, 51_200.0, 72_000.0, 102_400.0,
    ],
};
