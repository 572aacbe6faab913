//! Settings: what stands on a dial, each with the exact value it stands for and the nominal one engraved on it.
//!
//! Exact values are powers of two: shutter 2^(−n/3) s, aperture 2^(n/6), ISO 100·2^(n/3), and likewise for halves and
//! whole stops. Tolva computes with the exact value and shows the nominal one. Source: ISO 2720, APEX.

use std::marker::PhantomData;

use super::nominal::{
    APERTURE_HALVES, APERTURE_THIRDS, ISO_HALVES, ISO_THIRDS, SHUTTER_HALVES, SHUTTER_THIRDS, Series,
};
use super::stops::Stops;

/// A position on a dial, in thirtieths of a stop, so that thirds, halves and tenths are all whole numbers.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Notch(pub i32);

impl Notch {
    /// Thirtieths in a stop.
    pub const PER_STOP: i32 = 30;

    /// The position in stops.
    pub fn stops(self) -> Stops {
        Stops(f64::from(self.0) / f64::from(Self::PER_STOP))
    }
}

/// How far one click of a camera's dial goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// A third of a stop.
    Third,
    /// Half a stop.
    Half,
    /// A whole stop.
    Whole,
}

impl Step {
    pub(super) fn notches(self) -> i32 {
        match self {
            Self::Third => 10,
            Self::Half => 15,
            Self::Whole => 30,
        }
    }
}

/// What is engraved on one kind of dial.
pub trait Engraved: Copy + 'static {
    /// What a photographer calls it: "shutter".
    const NAME: &'static str;
    #[doc(hidden)]
    fn series(step: Step) -> &'static Engravings;
    /// The exact value at a position: seconds, f-number or ISO.
    fn exact(notch: Notch) -> f64;
    /// The position of an exact value, in stops on this dial's own scale.
    fn position(value: f64) -> f64;
    /// As engraved: `1/160`, `f/5.6`, `ISO 640`.
    fn label(nominal: f64) -> String;
}

/// A dial's own series, and the other one for the clicks the two share.
#[doc(hidden)]
pub struct Engravings {
    pub(super) series: Series,
    pub(super) other: Series,
}

/// The shutter: positions rise as the time gets shorter; 0 is one second.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Shutter;
/// The aperture: positions rise as the hole gets smaller; 0 is f/1.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Aperture;
/// The sensitivity: positions rise with it; 0 is ISO 100.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Iso;

/// The thirds (and whole stops) first, or the halves first.
fn pick(step: Step, thirds_first: &'static Engravings, halves_first: &'static Engravings) -> &'static Engravings {
    if step == Step::Half { halves_first } else { thirds_first }
}

macro_rules! both_orders {
    ($thirds:ident, $halves:ident, $step:expr) => {{
        static THIRDS_FIRST: Engravings = Engravings { series: $thirds, other: $halves };
        static HALVES_FIRST: Engravings = Engravings { series: $halves, other: $thirds };
        pick($step, &THIRDS_FIRST, &HALVES_FIRST)
    }};
}

impl Engraved for Shutter {
    const NAME: &'static str = "shutter";
    fn series(step: Step) -> &'static Engravings {
        both_orders!(SHUTTER_THIRDS, SHUTTER_HALVES, step)
    }
    fn exact(notch: Notch) -> f64 {
        (-notch.stops().0).exp2()
    }
    fn position(seconds: f64) -> f64 {
        -seconds.log2()
    }
    fn label(seconds: f64) -> String {
        let one_over = 1.0 / seconds;
        // 0.27 s is no "1/4": only what is near a whole divisor is said as one.
        let whole = (one_over / one_over.round() - 1.0).abs() < 0.012;
        if seconds < 0.29 && whole { format!("1/{one_over:.0}") } else { format!("{} s", trimmed(seconds)) }
    }
}

impl Engraved for Aperture {
    const NAME: &'static str = "aperture";
    fn series(step: Step) -> &'static Engravings {
        both_orders!(APERTURE_THIRDS, APERTURE_HALVES, step)
    }
    fn exact(notch: Notch) -> f64 {
        (notch.stops().0 / 2.0).exp2()
    }
    fn position(f_number: f64) -> f64 {
        2.0 * f_number.log2()
    }
    fn label(f_number: f64) -> String {
        format!("f/{}", trimmed(f_number))
    }
}

impl Engraved for Iso {
    const NAME: &'static str = "ISO";
    fn series(step: Step) -> &'static Engravings {
        both_orders!(ISO_THIRDS, ISO_HALVES, step)
    }
    fn exact(notch: Notch) -> f64 {
        100.0 * notch.stops().0.exp2()
    }
    fn position(iso: f64) -> f64 {
        (iso / 100.0).log2()
    }
    fn label(iso: f64) -> String {
        format!("ISO {iso:.0}")
    }
}

/// A number as engraved: with as many decimals as it takes to be right to half a percent, two at most.
fn trimmed(value: f64) -> String {
    let tells = |decimals: i32| {
        let scale = 10.0_f64.powi(decimals);
        ((value * scale).round() / scale / value - 1.0).abs() < 0.005
    };
    if tells(0) {
        format!("{value:.0}")
    } else if tells(1) {
        format!("{value:.1}")
    } else {
        format!("{value:.2}")
    }
}

/// One setting: what it says on the dial and the exact value computed with.
///
/// ```
/// use tolva_core::scale::{Setting, Shutter};
/// let sixtieth = Setting::<Shutter>::of(1.0 / 60.0);
/// assert_eq!((sixtieth.exact, sixtieth.label().as_str()), (1.0 / 64.0, "1/60"));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Setting<E> {
    /// The value computed with: seconds, f-number or ISO.
    pub exact: f64,
    /// The value shown: as engraved, or the value itself where it lies on no dial.
    pub nominal: f64,
    /// The exact position on its dial's scale; kept, since the search asks for it a thousand times.
    position: Stops,
    kind: PhantomData<E>,
}

impl<E: Engraved> Setting<E> {
    /// How near, as a ratio, a value must be to a nominal or exact one to mean that setting.
    const SAME: f64 = 0.012;

    /// The setting a value means, nominal or exact: 1/60 and 1/64 are both the dial's 1/60. A value on no dial
    /// (f/3.7) stands for itself. The value must be positive and finite: whoever reads a document sees to that.
    pub fn of(value: f64) -> Self {
        let near = |other: f64| (value / other - 1.0).abs() < Self::SAME;
        for step in [Step::Third, Step::Half] {
            let series = &E::series(step).series;
            // A nominal value wins over an exact one: f/13 is engraved a third over f/11 on one dial only.
            let found = series.positions().find(|(_, nominal)| (value / nominal - 1.0).abs() < 1e-6);
            if let Some((notch, nominal)) = found {
                return Self::at(notch, nominal);
            }
        }
        let series = &E::series(Step::Third).series;
        match series.positions().find(|(notch, nominal)| near(*nominal) || near(E::exact(Notch(*notch)))) {
            Some((notch, nominal)) => Self::at(notch, nominal),
            None => Self { exact: value, nominal: value, position: Stops(E::position(value)), kind: PhantomData },
        }
    }

    pub(super) fn at(notch: i32, nominal: f64) -> Self {
        let notch = Notch(notch);
        Self { exact: E::exact(notch), nominal, position: notch.stops(), kind: PhantomData }
    }

    /// The exact position on this dial's scale, in stops.
    pub fn position(self) -> Stops {
        self.position
    }

    /// As engraved: `1/160`, `1.3 s`, `f/5.6`, `ISO 640`.
    pub fn label(self) -> String {
        E::label(self.nominal)
    }
}
