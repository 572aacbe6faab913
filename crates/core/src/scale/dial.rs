//! Dials: the settings a camera and its lens offer, ends included.

use super::setting::{Engraved, Engravings, Notch, Setting, Step};
use super::stops::Stops;

/// Which end of a dial.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DialEnd {
    /// The lowest position: slowest shutter, widest aperture, base ISO.
    Low,
    /// The highest position: fastest shutter, smallest aperture, highest ISO.
    High,
}

/// Whether two settings are the same click.
fn same<E: Engraved>(one: Setting<E>, other: Setting<E>) -> bool {
    (one.position() - other.position()).0.abs() < 1e-6
}

/// The settings one camera and its lens offer on one dial, from the lowest position to the highest. Both ends are on it,
/// also where they lie between two clicks: an f/1.8 lens begins at f/1.8 on half clicks too.
///
/// ```
/// use tolva_core::scale::{Dial, Aperture, Step};
/// let dial = Dial::<Aperture>::new(Step::Whole, 1.8, 22.0);
/// let labels: Vec<String> = dial.settings().take(4).map(|s| s.label()).collect();
/// assert_eq!(labels, ["f/1.8", "f/2", "f/2.8", "f/4"]);
/// assert_eq!(dial.nearest(tolva_core::scale::Stops(6.4)).label(), "f/8");
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Dial<E> {
    settings: Vec<Setting<E>>,
}

impl<E: Engraved> Dial<E> {
    /// How near to an end a click is that end itself, in stops.
    const SAME_CLICK: f64 = 0.12;

    /// A dial between two values, in either order: both ends, and every click between them. The values must be positive
    /// and finite.
    pub fn new(step: Step, one_end: f64, other_end: f64) -> Self {
        let (one, other) = (Setting::<E>::of(one_end), Setting::<E>::of(other_end));
        let (low, high) = if one.position().0 <= other.position().0 { (one, other) } else { (other, one) };
        let size = step.notches();
        let click = |position: f64| {
            #[expect(clippy::cast_possible_truncation, reason = "positions of what is allowed are a few hundred")]
            let clicks = (position * f64::from(Notch::PER_STOP) / f64::from(size)).clamp(-1e4, 1e4) as i32;
            clicks
        };
        let between = (click(low.position().0) - 1..=click(high.position().0) + 1)
            .map(|click| Self::at(step, click * size))
            .filter(|setting| {
                let position = setting.position().0;
                position > low.position().0 + Self::SAME_CLICK && position < high.position().0 - Self::SAME_CLICK
            });
        let mut settings: Vec<_> = std::iter::once(low).chain(between).collect();
        if high.position().0 > low.position().0 + 1e-9 {
            settings.push(high);
        }
        Self { settings }
    }

    /// All settings, from the lowest position to the highest. Never empty.
    pub fn settings(&self) -> impl DoubleEndedIterator<Item = Setting<E>> + '_ {
        self.settings.iter().copied()
    }

    /// The place in the list of the setting nearest to an exact position in stops. Of two as near, the lower.
    pub fn nearest_index(&self, position: Stops) -> usize {
        let after = self.settings.partition_point(|setting| setting.position().0 < position.0);
        match (after.checked_sub(1), self.settings.get(after)) {
            (Some(before), Some(next)) => {
                let nearer = next.position().0 - position.0 < position.0 - self.settings[before].position().0 - 1e-9;
                if nearer { after } else { before }
            }
            (None, _) => 0,
            (Some(last), None) => last,
        }
    }

    /// The setting nearest to an exact position in stops, or the dial's end.
    pub fn nearest(&self, position: Stops) -> Setting<E> {
        self.settings[self.nearest_index(position)]
    }

    /// The lowest setting that is not under a limit, by its engraved value or by the exact one; the dial's end where all
    /// are. A limit that is rounded to it is kept.
    ///
    /// ```
    /// use tolva_core::scale::{Dial, Shutter, Step};
    /// let dial = Dial::<Shutter>::new(Step::Third, 30.0, 1.0 / 8000.0);
    /// // 1/570 s is the slowest that is safe: 1/500 would be slower.
    /// assert_eq!(dial.not_under(1.0 / 570.0).label(), "1/640");
    /// assert_eq!(dial.not_under(1.0 / 60.0).label(), "1/60");
    /// ```
    pub fn not_under(&self, limit: f64) -> Setting<E> {
        let least = E::position(limit) - 1e-6;
        let keeps = |setting: &Setting<E>| setting.position().0 >= least || E::position(setting.nominal) >= least;
        self.settings.iter().copied().find(keeps).unwrap_or_else(|| self.end(DialEnd::High))
    }

    /// The setting at one end.
    pub fn end(&self, end: DialEnd) -> Setting<E> {
        self.settings[if end == DialEnd::Low { 0 } else { self.settings.len() - 1 }]
    }

    /// Which end of the dial a setting is at, if any.
    pub fn end_of(&self, setting: Setting<E>) -> Option<DialEnd> {
        [DialEnd::Low, DialEnd::High].into_iter().find(|end| same(self.end(*end), setting))
    }

    fn at(step: Step, notch: i32) -> Setting<E> {
        let Engravings { series, other } = E::series(step);
        let engraved = series.at(notch).or_else(|| other.at(notch));
        Setting::at(notch, engraved.unwrap_or_else(|| E::exact(Notch(notch))))
    }
}

#[cfg(test)]
mod tests {
    use super::super::nominal::{
        APERTURE_HALVES, APERTURE_THIRDS, ISO_HALVES, ISO_THIRDS, SHUTTER_HALVES, SHUTTER_THIRDS, Series,
    };
    use super::super::setting::{Aperture, Iso, Shutter};
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    /// Every nominal value lies within half a click of the exact one it stands for: a slip by one place in a table
    /// would be a whole one.
    #[rstest]
    #[case::shutter_thirds(&SHUTTER_THIRDS, Shutter::position)]
    #[case::shutter_halves(&SHUTTER_HALVES, Shutter::position)]
    #[case::aperture_thirds(&APERTURE_THIRDS, Aperture::position)]
    #[case::aperture_halves(&APERTURE_HALVES, Aperture::position)]
    #[case::iso_thirds(&ISO_THIRDS, Iso::position)]
    #[case::iso_halves(&ISO_HALVES, Iso::position)]
    fn nominal_values_stand_where_they_are_engraved(#[case] series: &Series, #[case] position: fn(f64) -> f64) {
        for (notch, nominal) in series.positions() {
            let off = position(nominal) - Notch(notch).stops().0;
            assert!(off.abs() < Notch(series.step).stops().0 / 2.0, "{nominal} at {notch} is {off} stops off");
        }
    }

    /// Whole stops as in ISO 2720 and on every camera.
    #[test]
    fn whole_stops() {
        let labels = |all: Vec<String>| all.join(" ");
        assert_eq!(
            labels(Dial::<Shutter>::new(Step::Whole, 1.0, 1.0 / 1000.0).settings().map(Setting::label).collect()),
            "1 s 0.5 s 1/4 1/8 1/15 1/30 1/60 1/125 1/250 1/500 1/1000"
        );
        assert_eq!(
            labels(Dial::<Aperture>::new(Step::Whole, 1.4, 22.0).settings().map(Setting::label).collect()),
            "f/1.4 f/2 f/2.8 f/4 f/5.6 f/8 f/11 f/16 f/22"
        );
        assert_eq!(
            labels(Dial::<Iso>::new(Step::Whole, 100.0, 1600.0).settings().map(Setting::label).collect()),
            "ISO 100 ISO 200 ISO 400 ISO 800 ISO 1600"
        );
    }

    #[test]
    fn halves_have_their_own_engraving() {
        let dial = Dial::<Shutter>::new(Step::Half, 1.0 / 30.0, 1.0 / 250.0);
        let labels: Vec<_> = dial.settings().map(Setting::label).collect();
        assert_eq!(labels, ["1/30", "1/45", "1/60", "1/90", "1/125", "1/180", "1/250"]);
    }

    #[rstest]
    #[case(1.0 / 60.0, 1.0 / 64.0)]
    #[case(1.0 / 64.0, 1.0 / 64.0)]
    #[case(1.0 / 125.0, 1.0 / 128.0)]
    #[case(1.3, 2f64.powf(1.0 / 3.0))]
    #[case(0.37, 0.37)]
    fn a_shutter_value_means_a_setting(#[case] given: f64, #[case] exact: f64) {
        assert!((Setting::<Shutter>::of(given).exact - exact).abs() < 1e-12);
    }

    /// Common practice: ISO 5000 against 64 is 6⅓ on the dials, 6.29 as numbers; 1/200 to 1/20 is 3⅓.
    #[test]
    fn stops_between_settings_on_the_dials() {
        let iso = Setting::<Iso>::of(5000.0).position() - Setting::<Iso>::of(64.0).position();
        assert_eq!(iso.thirds(), "+6⅓");
        assert!((iso.0 - 19.0 / 3.0).abs() < 1e-9);
        assert!((Iso::position(5000.0) - Iso::position(64.0) - 6.29).abs() < 0.005);
        let shutter = Setting::<Shutter>::of(1.0 / 200.0).position() - Setting::<Shutter>::of(1.0 / 20.0).position();
        assert!((shutter.0 - 10.0 / 3.0).abs() < 1e-9);
    }

    #[test]
    fn the_ends_are_known() {
        let dial = Dial::<Iso>::new(Step::Third, 64.0, 6400.0);
        assert_eq!(dial.end_of(dial.end(DialEnd::Low)), Some(DialEnd::Low));
        assert_eq!(dial.nearest(Stops(40.0)), dial.end(DialEnd::High));
        assert_eq!(dial.end_of(Setting::of(400.0)), None);
        let has = |iso: f64| dial.nearest(Setting::<Iso>::of(iso).position()) == Setting::of(iso);
        assert!(has(400.0) && !has(102_400.0) && !has(410.0));
    }

    /// A lens begins where it begins, whatever the clicks: and the clicks go on from there.
    #[rstest]
    #[case(Step::Third, 1.8, "f/1.8 f/2 f/2.2")]
    #[case(Step::Half, 1.8, "f/1.8 f/2 f/2.4")]
    #[case(Step::Whole, 1.8, "f/1.8 f/2 f/2.8")]
    #[case(Step::Third, 3.5, "f/3.5 f/4 f/4.5")]
    #[case(Step::Half, 3.5, "f/3.5 f/4 f/4.8")]
    #[case(Step::Whole, 3.5, "f/3.5 f/4 f/5.6")]
    #[case(Step::Half, 4.5, "f/4.5 f/4.8 f/5.6")]
    #[case(Step::Whole, 4.5, "f/4.5 f/5.6 f/8")]
    #[case(Step::Third, 0.95, "f/0.95 f/1 f/1.1")]
    #[case(Step::Half, 0.95, "f/0.95 f/1 f/1.2")]
    #[case(Step::Whole, 0.95, "f/0.95 f/1 f/1.4")]
    fn the_ends_are_on_the_dial(#[case] step: Step, #[case] widest: f64, #[case] first: &str) {
        let dial = Dial::<Aperture>::new(step, widest, 22.0);
        let labels: Vec<String> = dial.settings().take(3).map(Setting::label).collect();
        assert_eq!(labels.join(" "), first);
        assert_eq!(dial.end(DialEnd::High).label(), "f/22");
    }

    /// What some cameras have beyond the usual: nothing is clipped.
    #[test]
    fn long_times_short_times_and_high_sensitivities() {
        let ends = |one: f64, other: f64| {
            let dial = Dial::<Shutter>::new(Step::Third, one, other);
            [dial.end(DialEnd::Low).label(), dial.end(DialEnd::High).label()]
        };
        assert_eq!(ends(60.0, 1.0 / 16_000.0), ["60 s", "1/16000"]);
        assert_eq!(ends(900.0, 1.0 / 32_000.0), ["900 s", "1/32000"]);
        assert_eq!(ends(3600.0, 1.0 / 80_000.0), ["3600 s", "1/80000"]);
        let isos = Dial::<Iso>::new(Step::Third, 50.0, 204_800.0);
        assert_eq!([isos.end(DialEnd::Low).label(), isos.end(DialEnd::High).label()], ["ISO 50", "ISO 204800"]);
        assert_eq!(isos.settings().count(), 37);
        assert_eq!(Dial::<Iso>::new(Step::Whole, 3.0, 3_276_800.0).end(DialEnd::High).label(), "ISO 3276800");
    }

    #[rstest]
    #[case(0.37, "0.37 s")]
    #[case(0.27, "0.27 s")]
    #[case(0.4, "0.4 s")]
    #[case(1.0 / 180.0, "1/180")]
    #[case(75.0, "75 s")]
    fn what_is_on_no_dial_is_shown_as_it_is(#[case] seconds: f64, #[case] label: &str) {
        assert_eq!(Setting::<Shutter>::of(seconds).label(), label);
    }

    proptest! {
        #[test]
        fn nearest_is_within_half_a_click(stops in -4.9..14.9_f64) {
            let dial = Dial::<Shutter>::new(Step::Third, 30.0, 1.0 / 32_000.0);
            prop_assert!((dial.nearest(Stops(stops)).position().0 - stops).abs() <= 1.0 / 6.0 + 1e-9);
        }

        #[test]
        fn a_setting_means_itself(click in 0usize..60) {
            let dial = Dial::<Shutter>::new(Step::Third, 30.0, 1.0 / 32_000.0);
            let setting = dial.settings().nth(click).expect("sixty-one clicks");
            prop_assert_eq!(Setting::<Shutter>::of(setting.nominal), setting);
            prop_assert_eq!(Setting::<Shutter>::of(setting.exact), setting);
        }
    }
}
