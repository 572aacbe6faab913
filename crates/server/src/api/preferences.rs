//! How one person likes things shown. Kept with the data, since a demo's port, and with it a browser's own storage,
//! changes at every start.

use actix_web::web::Data;
use actix_web::{HttpResponse, get, put};
use serde::{Deserialize, Serialize};
use tolva_format::{
    AutomaticConvention, Blend, Control, Depth, ExposureConvention, HandheldRule, Kit, Preference, Problems, Setup,
    WhiteBalance, check, renew_part_of_a_setup,
};
use tolva_store::Store;
use tolva_wording::Show;
use utoipa::ToSchema;

use super::body::Body;
use super::problem::ApiError;

/// The preferences.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Preferences {
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
    /// The theme.
    #[serde(default)]
    theme: Theme,
    /// Whether single letters and digits are keys.
    #[serde(default = "yes")]
    letter_keys: bool,
    /// The schools a new setup begins with.
    #[serde(default)]
    defaults: Defaults,
    /// How many drills this person wants to do in a week, 0 to 500; 0 for no goal.
    #[serde(default)]
    #[schema(maximum = 500)]
    drills_a_week: u32,
}

impl Default for Preferences {
    fn default() -> Self {
        Self {
            show: Show::default(),
            theme: Theme::default(),
            letter_keys: true,
            defaults: Defaults::default(),
            drills_a_week: 0,
        }
    }
}

/// Nobody does more drills in a week.
const MOST_A_WEEK: u32 = 500;

const fn yes() -> bool {
    true
}

/// The schools this person remembers. What is left out is as Tolva has it.
#[derive(Debug, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Defaults {
    /// How much flash.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    blend: Option<Blend>,
    /// How the flash is controlled.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    control: Option<Control>,
    /// The slowest shutter by hand.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    school: Option<HandheldRule>,
    /// How an exposure is judged.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    exposure: Option<ExposureConvention>,
    /// What the camera may set.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    automatic_exposure: Option<AutomaticConvention>,
    /// How the aperture is found.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    depth: Option<Depth>,
    /// What the camera is balanced for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    white_balance: Option<WhiteBalance>,
    /// What is kept first.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    preferences: Option<Vec<Preference>>,
}

impl Defaults {
    /// A setup that begins with these.
    pub fn begin(&self, setup: &mut Setup) {
        let Self { blend, control, school, exposure, automatic_exposure, depth, white_balance, preferences } = self;
        macro_rules! begin_with {
            ($($field:ident),*) => { $(if let Some(value) = $field { setup.$field = value.clone(); })* };
        }
        begin_with!(blend, exposure, automatic_exposure, depth, white_balance);
        if preferences.is_some() {
            setup.preferences.clone_from(preferences);
        }
        setup.speed.school = school.unwrap_or(setup.speed.school);
        for light in &mut setup.lights {
            light.control = control.unwrap_or(light.control);
        }
    }

    /// Checks every value as that of a setup which begins with it.
    ///
    /// # Errors
    /// All that is wrong; pointers begin with `/defaults`.
    fn check(&self) -> Result<(), Problems> {
        let kit = Kit::starter();
        let mut setup = Setup::new("new", &kit);
        self.begin(&mut setup);
        check(&setup, &kit).map_err(|wrong| wrong.under("/setup", "/defaults"))
    }
}

/// The theme.
#[derive(Clone, Copy, Debug, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Theme {
    /// As the device asks.
    #[default]
    Device,
    /// For sun.
    Daylight,
    /// For the dark.
    Dusk,
}

/// The preferences.
#[utoipa::path(
    operation_id = "get_preferences",
    responses((status = OK, description = "The preferences", body = Preferences)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/preferences")]
pub async fn get(store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(kept(&store).await?))
}

async fn kept(store: &Store) -> Result<Preferences, ApiError> {
    let Some(text) = store.preferences().await? else { return Ok(Preferences::default()) };
    let read = serde_json::from_str(&text).or_else(|_| {
        let mut before: serde_json::Value = serde_json::from_str(&text)?;
        if let Some(defaults) = before.get_mut("defaults") {
            renew_part_of_a_setup(defaults);
        }
        serde_json::from_value(before)
    });
    // Preferences that nothing can be made of are no reason to stop: they are the defaults again.
    let read: Preferences = read.unwrap_or_default();
    let defaults = if read.defaults.check().is_ok() { read.defaults } else { Defaults::default() };
    Ok(Preferences { defaults, ..read })
}

/// What this person's new setups begin with.
pub async fn begun(store: &Store) -> Result<Defaults, ApiError> {
    Ok(kept(store).await?.defaults)
}

/// How numbers are shown.
pub async fn shown(store: &Store) -> Result<Show, ApiError> {
    Ok(kept(store).await?.show)
}

/// Keeps the preferences.
#[utoipa::path(
    operation_id = "set_preferences",
    request_body = Preferences,
    responses(
        (status = OK, description = "The preferences", body = Preferences),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[put("/api/v1/preferences")]
pub async fn set(body: Body<Preferences>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    body.0.defaults.check()?;
    if body.0.drills_a_week > MOST_A_WEEK {
        let says = format!("{} drills a week: 0 to {MOST_A_WEEK}", body.0.drills_a_week);
        return Err(Problems::one("/drills_a_week", says).into());
    }
    let text = serde_json::to_string(&body.0).unwrap_or_default();
    store.set_preferences(&text).await?;
    Ok(HttpResponse::Ok().json(body.0))
}
