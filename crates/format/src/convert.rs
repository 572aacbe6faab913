//! Every type of the format and its twin in the rules: the same names, so that each is the other by naming the fields
//! once. A field that is added to one of them and not here does not compile.

use crate::{
    Ambient, AngleHeight, Arrival, Artificial, AutomaticConvention, Backdrop, Background, BackgroundKind,
    BalanceReason, BareSurface, Believed, Blend, Board, Boom, Bounce, BounceOff, Camera, CameraAim, CameraPlace,
    CameraReading, Card, CardKind, Ceiling, CircleOfConfusion, Clothes, CloudHour, ContinuousOutput, Control, Depth,
    DiscSurface, Duration, Duty, EvReading, ExposureConvention, FallingOrder, FeatherTo, Filter, Finish, Fixed, Flash,
    FlashOutput, Floor, ForecastCloud, Gel, GuideNumberFeet, GuideNumberMetres, GuideNumberZoom, HandheldRule, Hazard,
    HazardKind, Head, IncidentReceptor, IsoRange, JobDay, Kit, Learnt, Lens, Light, LightPlace, LightWish, LocalTime,
    LuxReading, MeasuredOutput, Meter, MeterReading, MeteringMethod, Modifier, ModifierSurface, Movement, NamedLight,
    Obstacle, ObstacleHeight, OpenShade, Opening, Pace, Pane, PaneGlazing, Person, PowerRange, PowerStep, Preference,
    Preset, Product, ProductShape, Reading, RectangleSurface, Region, RegionPlace, Role, Scene, Schedule, Sensor, Set,
    Setup, Shot, ShotKind, ShutterRange, Side, Site, SizeHeight, Skin, Spectacles, Speed, Spill, Stand, StatedColour,
    SteadyCloud, Step, Support, SurfaceColour, Surroundings, Sync, Trigger, TunedLens, TunedThrough, TypicalLight,
    Unknown, Wall, Way, Weather, WhiteBalance, ZoomGuideNumber,
};

/// What becomes another type that means the same.
trait Twin<T> {
    fn twin(self) -> T;
}

macro_rules! itself {
    ($($of:ty),*) => {
        $(impl Twin<$of> for $of {
            fn twin(self) -> $of {
                self
            }
        })*
    };
}

itself!(bool, u8, u32, f64, String);

impl<One: Twin<Other>, Other> Twin<Option<Other>> for Option<One> {
    fn twin(self) -> Option<Other> {
        self.map(One::twin)
    }
}

impl<One: Twin<Other>, Other> Twin<Vec<Other>> for Vec<One> {
    fn twin(self) -> Vec<Other> {
        self.into_iter().map(One::twin).collect()
    }
}

/// Both ways between a type here and the one of the same name elsewhere.
macro_rules! twin {
    ($($at:ident)::+ : struct $name:ident { $($field:ident),* }) => {
        twin!(@struct $name, $($at)::+::$name, { $($field),* });
        twin!(@struct $($at)::+::$name, $name, { $($field),* });
    };
    ($($at:ident)::+ : enum $name:ident {
        $($variant:ident $(($of:ident))? $({ $($field:ident),* })?),*
    }) => {
        twin!(@enum $name, $($at)::+::$name, { $($variant $(($of))? $({ $($field),* })?),* });
        twin!(@enum $($at)::+::$name, $name, { $($variant $(($of))? $({ $($field),* })?),* });
    };
    (@struct $from:path, $to:path, { $($field:ident),* }) => {
        impl Twin<$to> for $from {
            fn twin(self) -> $to {
                let $from { $($field),* } = self;
                $to { $($field: $field.twin()),* }
            }
        }
        twin!(@from $from, $to);
    };
    (@enum $from:path, $to:path, { $($variant:ident $(($of:ident))? $({ $($field:ident),* })?),* }) => {
        impl Twin<$to> for $from {
            fn twin(self) -> $to {
                type From = $from;
                type To = $to;
                match self {
                    $(From::$variant $(($of))? $({ $($field),* })? => {
                        To::$variant $(($of.twin()))? $({ $($field: $field.twin()),* })?
                    })*
                }
            }
        }
        twin!(@from $from, $to);
    };
    (@from $from:path, $to:path) => {
        impl From<$from> for $to {
            fn from(one: $from) -> $to {
                one.twin()
            }
        }
    };
}

twin!(tolva_planner::setup: struct Setup { id, name, notes, scene, regions, blend, camera_id, lens_id, focal_length_mm, camera_distance_m, fixed, filter_ids, sync, depth, circle_of_confusion, speed, pace, exposure, automatic_exposure, white_balance, preferences, falling_order, lights, set, shots, schedule, learnt });
twin!(tolva_planner::setup: struct Learnt { of, bound, frames, from });
twin!(tolva_planner::setup: struct Believed { what, more_stops, sure_stops });
twin!(tolva_planner::setup: enum Unknown { Camera { camera_id, lens_id }, Meter { meter_id }, Ambient { region_id }, Light { light_id, flash_id, modifier_id }, Spill { light_id, region_id } });
twin!(tolva_planner::setup: enum Sync { Ordinary, HighSpeed, Electronic });
twin!(tolva_planner::setup: enum Depth { Free, OneHead, Rows { rows, apart_m }, Deep { depth_m }, CloseUp { magnification, depth_mm, stacked, overlap } });
twin!(tolva_planner::setup: struct Speed { slowest_shutter_s, tripod, school, movement, blur_px });
twin!(tolva_planner::setup: struct Pace { every_s, burst_frames, frames });
twin!(tolva_planner::setup: struct Region { id, name, role, ambient, place });
twin!(tolva_planner::setup: struct Fixed { shutter_s, f_number, iso });
twin!(tolva_planner::setup: enum Control { Manual, Ttl });
twin!(tolva_planner::setup: enum LightWish { Key, Fill { ratio_stops }, Rim { over_stops }, Place { stops } });
twin!(tolva_planner::setup: struct Light { id, flash_id, units, modifier_id, gel_ids, stand_id, boom_id, group, zoom_mm, bounce, feather_deg, on_camera, wish, aimed_at, control, distance_m, power_stops, spill, place });
twin!(tolva_planner::setup: struct Spill { region_id, stops });
twin!(tolva_planner::setup: struct Set { people, products, camera, cards, walls, ceiling, floor, openings, panes, hazards, wind_m_s });
twin!(tolva_planner::setup: struct Person { id, name, x_m, y_m, height_m, seated, facing_deg, spectacles, skin, clothes });
twin!(tolva_planner::setup: enum Skin { Pale, Medium, Dark });
twin!(tolva_planner::setup: enum Clothes { Pale, Middling, Dark });
twin!(tolva_planner::setup: struct Product { id, name, x_m, y_m, table_m, shape, facing_deg, finish });
twin!(tolva_planner::setup: enum ProductShape { Box { width_m, depth_m, height_m }, Cylinder { diameter_m, height_m }, Ball { diameter_m } });
twin!(tolva_planner::setup: enum Finish { Matt, Satin, Mirror });
twin!(tolva_planner::setup: struct CameraPlace { direction_deg, elevation_deg, portrait, aim });
twin!(tolva_planner::setup: enum CameraAim { Subject, Point { x_m, y_m, z_m } });
twin!(tolva_planner::setup: struct Card { id, name, kind, x_m, y_m, z_m, facing_deg, tilt_deg, width_m, height_m });
twin!(tolva_planner::setup: enum CardKind { White, Silver, Gold, Black, Diffuser, Mirror });
twin!(tolva_planner::setup: struct Wall { id, name, from_x_m, from_y_m, to_x_m, to_y_m, height_m, reflectance, colour });
twin!(tolva_planner::setup: struct Ceiling { height_m, reflectance, colour });
twin!(tolva_planner::setup: struct Floor { reflectance, colour });
twin!(tolva_planner::setup: struct Opening { id, name, x_m, y_m, z_m, facing_deg, width_m, height_m });
twin!(tolva_planner::setup: struct Pane { id, name, glazing, x_m, y_m, z_m, facing_deg, tilt_deg, width_m, height_m, turns });
twin!(tolva_planner::setup: enum PaneGlazing { Single, Double, Mirror });
twin!(tolva_planner::setup: struct Spectacles { tilt_deg });
twin!(tolva_planner::setup: struct Shot { id, name, kind, who, frames, step_stops, parts, lights_off, people_out, notes, taken });
twin!(tolva_planner::setup: struct Schedule { build_min, shoot_min, pinned, spot });
twin!(tolva_planner::setup: struct JobDay { begin, end, people, ways, way_min });
twin!(tolva_planner::setup: struct Arrival { id, name, at, setup_ids });
twin!(tolva_planner::setup: struct Way { id, from, to, minutes });
twin!(tolva_planner::setup: enum ShotKind { Picture, CleanPlate, HelperPair, MultipleExposure, Stack, Bracket, Panning });
twin!(tolva_planner::setup: struct Hazard { id, kind, from_x_m, from_y_m, to_x_m, to_y_m, height_m });
twin!(tolva_planner::setup: enum HazardKind { Edge, Road, Water, Crowd, OverheadLine, Cable });
twin!(tolva_planner::setup: struct LightPlace { direction_deg, elevation_deg, feather_to, roll_deg, head, support });
twin!(tolva_planner::setup: enum FeatherTo { Camera, Away, Up, Down });
twin!(tolva_planner::setup: struct Head { azimuth_deg, elevation_deg });
twin!(tolva_planner::setup: enum Support { Stand, Boom { arm_m }, Held, Clamped });
twin!(tolva_planner::setup: enum RegionPlace { Face { person_id, side }, Product { product_id, side }, Wall { wall_id }, Point { x_m, y_m, z_m, azimuth_deg, elevation_deg } });
twin!(tolva_planner::setup: enum Side { Left, Right, Front, Top });
twin!(tolva_planner::setup: enum Blend { Fill { ambient_stops, fill_stops }, HalfAndHalf { subject_stops }, Lift { subject_stops, background_stops }, Overpower { subject_stops, ambient_stops }, Silhouette { background_stops }, AmbientOnly { subject_stops } });

twin!(tolva_planner::setup: enum AutomaticConvention { Nothing, Shutter, Aperture, Iso });
twin!(tolva_planner::setup: enum ExposureConvention { TrustTheMeter, ProtectHighlights, AddALittle });
twin!(tolva_planner::setup: enum FallingOrder { ShutterFirst, IsoFirst, ApertureFirst });
twin!(tolva_planner::setup: enum Preference { LowIso, Depth, Pace, LowPower, NoFilter });

twin!(tolva_planner::setup: struct Kit { cameras, lenses, flashes, modifiers, gels, filters, stands, triggers, booms, boards, backdrops, meters });
twin!(tolva_planner::setup: struct Meter { id, name, more_stops, sure_stops });
twin!(tolva_planner::setup: struct Lens { id, name, shortest_mm, longest_mm, widest_f_number, smallest_f_number, stabilisation_stops, closest_focus_m, largest_magnification, pupil_ratio, weight_kg });
twin!(tolva_planner::setup: struct Gel { id, name, shift_mired, shift_duv, loss_stops });
twin!(tolva_planner::setup: struct Filter { id, name, density_stops });
twin!(tolva_planner::setup: struct Stand { id, name, highest_m, carries_kg, footprint_m, weight_kg });
twin!(tolva_planner::setup: struct Boom { id, name, reach_m, carries_kg, weight_kg });
twin!(tolva_planner::setup: struct Board { id, name, kind, width_m, height_m });
twin!(tolva_planner::setup: struct Backdrop { id, name, width_m, height_m, reflectance, colour });
twin!(tolva_planner::setup: struct Trigger { id, name, channels, groups });
twin!(tolva_planner::setup: struct Camera { id, name, sensor, shutter, aperture_step, iso, sync_rated_s, sync_safe_s, sync_electronic_s, slow_sync_floor_s, stabilisation_stops, frames_per_s, weight_kg, tuned, curve });
twin!(tolva_planner::setup: struct TunedLens { lens_id, more_stops, sure_stops });
twin!(tolva_planner::setup: struct ShutterRange { slowest_s, fastest_s, step });
twin!(tolva_planner::setup: struct IsoRange { base_iso, highest_iso, step });
twin!(tolva_planner::setup: struct Flash { id, name, output, power, recycle_full_s, pops_full, duty, high_speed_loss_stops, ttl, kelvin, tint_duv, rendering, durations, weight_kg, tuned });
twin!(tolva_planner::setup: struct TunedThrough { modifier_id, more_stops, sure_stops });
twin!(tolva_planner::setup: struct Duty { full_pops, rest_s });
twin!(tolva_planner::setup: enum FlashOutput { GuideNumberMetres(of), GuideNumberFeet(of), GuideNumberZoom(of), Measured(of), Continuous(of) });
twin!(tolva_planner::setup: struct GuideNumberZoom { table });
twin!(tolva_planner::setup: struct ContinuousOutput { lux_at_1_m, battery_full_min });
twin!(tolva_planner::setup: struct GuideNumberMetres { guide_number_m, holds_for });
twin!(tolva_planner::setup: struct GuideNumberFeet { guide_number_ft, holds_for });
twin!(tolva_planner::setup: struct MeasuredOutput { f_number, iso, distance_m, power_stops, modifier_id });
twin!(tolva_planner::setup: struct PowerRange { lowest_stops, step });
twin!(tolva_planner::setup: struct Modifier { id, name, surface, loss_stops, exponent, grid_half_angle_deg, weight_kg, area_m2 });
twin!(tolva_planner::setup: enum ModifierSurface { Bare(of), Disc(of), Rectangle(of) });
twin!(tolva_planner::setup: struct BareSurface {});
twin!(tolva_planner::setup: struct DiscSurface { diameter_m });
twin!(tolva_planner::setup: struct RectangleSurface { width_m, height_m });

twin!(tolva_core::time: struct LocalTime { date, time, second_time });
twin!(tolva_core::ambient: struct Scene { site, at, facing_deg, horizon, weather, surroundings, background });
twin!(tolva_core::ambient: struct Site { name, latitude_deg, longitude_deg, elevation_m, time_zone });
twin!(tolva_core::ambient: struct Obstacle { name, from_deg, to_deg, height });
twin!(tolva_core::ambient: enum ObstacleHeight { Angle(of), Size(of) });
twin!(tolva_core::ambient: struct AngleHeight { altitude_deg });
twin!(tolva_core::ambient: struct SizeHeight { height_m, distance_m });
twin!(tolva_core::ambient: enum Weather { Steady(of), Forecast(of) });
twin!(tolva_core::ambient: struct SteadyCloud { cloud_eighths });
twin!(tolva_core::ambient: struct ForecastCloud { source, simulated, hours });
twin!(tolva_core::ambient: struct CloudHour { utc, cloud_eighths });
twin!(tolva_core::ambient: enum Surroundings { OpenGround, Snow, Sand, Water, OpenShade(of), Trees, Awning, DarkStreet, Artificial(of) });
twin!(tolva_core::ambient: struct OpenShade { sky_percent });
twin!(tolva_core::ambient: struct Artificial { light, mains_hz });
twin!(tolva_core::ambient: struct Background { what, sunlit_percent });
twin!(tolva_core::ambient: enum BackgroundKind { Upright, Ground, Sky });
twin!(tolva_core::ambient: enum Role { Background, LitSide, ShadowSide, Part });
twin!(tolva_core::ambient: enum TypicalLight { Home, Workplace, SportsHall, Stage, ShopFronts, FloodlitBuilding, Street, Candles });

twin!(tolva_core::exposure: enum MeteringMethod { Unsaid, IncidentDome, IncidentFlat, Luxmeter, SpotGrey, SpotWhite, SpotPalm, SpotSkinPale, SpotSkinMedium, SpotSkinDark, Camera });
twin!(tolva_core::exposure: enum IncidentReceptor { Flat, Dome });
twin!(tolva_core::exposure: struct Ambient { guess_ev100, readings, colour, film_ids });
twin!(tolva_core::exposure: struct MeterReading { reading, method, surface_stops, at, place, meter_id, simulated });
twin!(tolva_core::exposure: enum Reading { Ev(of), Lux(of), Camera(of) });
twin!(tolva_core::exposure: struct EvReading { ev100 });
twin!(tolva_core::exposure: struct LuxReading { illuminance_lux, receptor });
twin!(tolva_core::exposure: struct CameraReading { shutter_s, f_number, iso, compensation_stops });

twin!(tolva_core::colour: enum WhiteBalance { Flash, Ambient, Between, Measured, Preset(of), Kelvin { kelvin, tint_duv, reason } });
twin!(tolva_core::colour: enum BalanceReason { ByHand, Fixed, Warm, Cool, Night, Look });
twin!(tolva_core::colour: enum Preset { Tungsten, Fluorescent, Daylight, Flash, Cloudy, Shade });
twin!(tolva_core::colour: enum NamedLight { Candle, SodiumLamp, HouseLamp, Halogen, Fluorescent, WarmLed, WhiteLed, Daylight, Cloud, OpenShade, Leaves, BlueHour });
twin!(tolva_core::colour: enum StatedColour { FromPlace, Named(of), Kelvin { kelvin, tint_duv }, Meter { kelvin, duv }, GreyPatch { red, green, blue, kelvin, tint_duv } });

twin!(tolva_core::flash: struct Duration { power_stops, t01_s });
twin!(tolva_core::flash: struct ZoomGuideNumber { zoom_mm, guide_number_m });

twin!(tolva_core::modifier: enum BounceOff { Ceiling, SideWall, BackWall });
twin!(tolva_core::modifier: struct Bounce { off, away_m, reflectance, colour });
twin!(tolva_core::modifier: enum SurfaceColour { White, Cream, Wood, Brick, Green, Blue });

twin!(tolva_core::optics: enum CircleOfConfusion { SensorDiagonal, TwoPixels, Print { long_side_cm } });
twin!(tolva_core::optics: struct Sensor { width_mm, height_mm, width_px });
twin!(tolva_core::optics: enum Movement { Still, HeldPose, Posing, Children, Walking, Dancing, Running, Wing, Speed { metres_per_s } });
twin!(tolva_core::optics: enum HandheldRule { OneOverFocal, OneOverTwiceFocal, Stabilised, DenseSensor });

twin!(tolva_core::scale: enum Step { Third, Half, Whole });
twin!(tolva_core::scale: enum PowerStep { Tenth, Third, Half, Whole });
