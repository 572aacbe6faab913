//! Questions, as quantities.

use tolva_core::colour::{Kelvin, Mired};
use tolva_core::exposure::{CameraSettings, MeteringMethod};
use tolva_core::modifier::Bounce;
use tolva_core::optics::{HandheldRule, Movement, Sensor};
use tolva_core::scale::{Aperture, Iso, Metres, Millimetres, Power, Setting, Shutter, Stops};

use super::scene::{Misset, PictureScene};
use super::things::{Before, PlateLine, Pointed};

/// Which dial of a camera is asked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum CameraDial {
    /// The shutter.
    Shutter,
    /// The aperture.
    Aperture,
    /// The ISO.
    Iso,
}

/// Something that is changed between two frames.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Moved {
    /// The shutter.
    Shutter(Setting<Shutter>, Setting<Shutter>),
    /// The aperture.
    Aperture(Setting<Aperture>, Setting<Aperture>),
    /// The ISO.
    Iso(Setting<Iso>, Setting<Iso>),
    /// The power of the flash.
    Power(Power, Power),
    /// How far the flash stands from the subject.
    Distance(Metres, Metres),
    /// A filter of so many stops goes onto the lens.
    Filter(Stops),
}

/// Which light is asked about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Which {
    /// The light that is there.
    Ambient,
    /// The flash.
    Flash,
}

/// What is asked of a guide number.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum GuideAsks {
    /// The aperture at a distance.
    Aperture,
    /// The distance at an aperture.
    Distance,
    /// The power at both.
    Power,
}

/// A question, as quantities. What is asked for stands in it where it is right.
#[derive(Clone, Debug, PartialEq)]
pub enum Asked {
    /// From one exposure to one as bright; `find` is the dial of the second that is asked for.
    Equal {
        /// What stands.
        from: CameraSettings,
        /// What is as bright.
        to: CameraSettings,
        /// What is asked for.
        find: CameraDial,
    },
    /// By how much a light moves when something is changed.
    Moves {
        /// What is changed, one after the other.
        moved: Vec<Moved>,
        /// Which light is asked about.
        of: Which,
    },
    /// A flash straight at the subject, without anything before it.
    Guide {
        /// Its guide number in metres at ISO 100.
        guide_number_m: f64,
        /// Its power.
        power: Power,
        /// How far.
        distance: Metres,
        /// The aperture.
        aperture: Setting<Aperture>,
        /// The ISO.
        iso: Setting<Iso>,
        /// What is asked for.
        find: GuideAsks,
    },
    /// A flash is moved; by how much its light changes.
    Farther {
        /// From here.
        from: Metres,
        /// To here.
        to: Metres,
        /// Whether the second distance is asked for rather than the change.
        find_distance: bool,
    },
    /// What lights give together.
    Together {
        /// Each by itself, in stops from mid grey.
        lights: Vec<Stops>,
    },
    /// A key and a fill, each read by itself: how far the shadow side lies under the lit one.
    Ratio {
        /// The key, in stops from mid grey.
        key: Stops,
        /// The fill, which reaches both sides.
        fill: Stops,
    },
    /// What a flash adds to the light that is there, so that both come to a wish.
    Missing {
        /// The light that is there, in stops from mid grey.
        ambient: Stops,
        /// What both are to come to.
        wish: Stops,
    },
    /// A power so many stops from another.
    PowerBy {
        /// What stands.
        from: Power,
        /// What it is turned by.
        by: Stops,
    },
    /// What lies between two powers.
    PowerBetween {
        /// What stood.
        from: Power,
        /// What stands now.
        to: Power,
    },
    /// A light through a gel.
    Gelled {
        /// The light.
        light: Kelvin,
        /// The gel.
        by: Mired,
    },
    /// The shift that makes one light another.
    Shift {
        /// From this.
        from: Kelvin,
        /// To this.
        to: Kelvin,
    },
    /// Which gel of those there are brings a light nearest to another.
    WhichGel {
        /// From this.
        from: Kelvin,
        /// To this.
        to: Kelvin,
        /// Those there are, by what they shift.
        gels: Vec<Mired>,
    },
    /// The aperture at which the nearest and the farthest of a group are just sharp.
    Group {
        /// The lens.
        focal: Millimetres,
        /// The nearest.
        nearest: Metres,
        /// The farthest.
        farthest: Metres,
        /// The largest blur that counts as sharp.
        circle: Millimetres,
    },
    /// The slowest shutter by hand.
    ByHand {
        /// The lens.
        focal: Millimetres,
        /// Which rule is asked for: practitioners differ.
        school: HandheldRule,
        /// What stabilisation is good for.
        stabilisation: Stops,
        /// The sensor.
        sensor: Sensor,
    },
    /// The slowest shutter at which what moves goes no farther than so many pixels.
    Frozen {
        /// What moves.
        movement: Movement,
        /// The lens.
        focal: Millimetres,
        /// How far it is.
        distance: Metres,
        /// So many pixels.
        pixels: f64,
        /// The sensor.
        sensor: Sensor,
    },
    /// A spot meter on a surface gives an exposure; the shutter that puts the surface where it belongs.
    Spot {
        /// What it is pointed at.
        on: MeteringMethod,
        /// What it says.
        says: CameraSettings,
    },
    /// A meter turned away from a light that it read straight on.
    Turned {
        /// With a dome or a flat receptor.
        pointed: Pointed,
        /// By how many degrees.
        by_deg: f64,
        /// What it said straight on.
        straight: Setting<Aperture>,
    },
    /// A wide aperture in bright light: the filter that keeps the shutter at the sync speed.
    FilterFor {
        /// The sync speed.
        sync: Setting<Shutter>,
        /// What the light asks for at the aperture that is wanted.
        needs: Setting<Shutter>,
    },
    /// The same by high-speed sync: what the flash loses.
    HighSpeed {
        /// The sync speed.
        sync: Setting<Shutter>,
        /// The shutter.
        shutter: Setting<Shutter>,
        /// What high-speed sync takes at the sync speed already.
        fixed: Stops,
    },
    /// What bounce costs against the head aimed straight.
    Bounced {
        /// The bounce.
        bounce: Bounce,
        /// How far the subject is.
        subject: Metres,
    },
    /// When a flash is ready again.
    Ready {
        /// From empty after a full pop, in seconds.
        full_s: f64,
        /// The power.
        power: Power,
    },
    /// The most power at which a flash is ready in time.
    ReadyEvery {
        /// From empty after a full pop, in seconds.
        full_s: f64,
        /// From frame to frame, in seconds.
        every_s: f64,
    },
    /// A picture and its plate: what was turned between them.
    Plate {
        /// The picture.
        picture: PlateLine,
        /// The plate.
        plate: PlateLine,
        /// Whether the plate is to be without flash.
        without_flash: bool,
    },
    /// A pane seen from above: whether a light shows in it.
    Shows(Before),
    /// The same: where the light shows in the pane's plane.
    ShowsAt(Before),
    /// A picture of a scene: which dials stand wrong.
    Misset {
        /// The scene.
        scene: PictureScene,
        /// What stands wrong.
        misset: Vec<Misset>,
        /// What is offered.
        ways: Vec<Vec<Misset>>,
        /// Whether the picture as it was wished stands beside it.
        beside: bool,
    },
    /// Which of several pictures of a scene a rail is of.
    WhichPicture {
        /// The scene.
        scene: PictureScene,
        /// Where each region of the right one comes out.
        rail: Vec<Stops>,
        /// What stands wrong in each.
        ways: Vec<Vec<Misset>>,
    },
}

impl Asked {
    /// The pictures that belong to the question, each as what stands wrong in it.
    pub fn pictures(&self) -> Option<(PictureScene, Vec<Vec<Misset>>)> {
        match self {
            Self::Misset { scene, misset, beside: true, .. } => Some((*scene, vec![Vec::new(), misset.clone()])),
            Self::Misset { scene, misset, .. } => Some((*scene, vec![misset.clone()])),
            Self::WhichPicture { scene, ways, .. } => Some((*scene, ways.clone())),
            _ => None,
        }
    }
}
