//! Frames from files: measured, taken apart, a target found, a curve recovered. One JSON object a line.

use std::io::{BufWriter, Write as _};
use std::path::{Path, PathBuf};

use clap::Args;
use serde::Deserialize;
use serde_json::{Value, json};
use tolva_core::frame::{Exposed, Extent, Mark, Pair, TwoTone, found, recovered};
use tolva_core::scale::Stops;
use tolva_pictures::{Frame, Lacking, Taken, Unreadable, levels, read, read_two, share_map};

use super::error::CliError;

/// Frames to measure.
#[derive(Debug, Args)]
pub struct Measure {
    /// The frames: JPEG, PNG, TIFF, or raw files by the preview they carry.
    #[arg(required = true)]
    files: Vec<PathBuf>,
    /// A table with the columns left, top, width, height, in pixels of the frame: what to measure.
    #[arg(long, value_name = "CSV")]
    patches: Option<PathBuf>,
}

/// Two frames of one place.
#[derive(Debug, Args)]
pub struct Separate {
    /// The frame without flash.
    without: PathBuf,
    /// The frame with flash.
    with: PathBuf,
    /// A table with the columns left, top, width, height, in pixels of the frames.
    #[arg(long, value_name = "CSV")]
    patches: Option<PathBuf>,
    /// Where to write the share of flash as a picture, PNG.
    #[arg(short, long, value_name = "FILE")]
    out: Option<PathBuf>,
}

/// A frame with a two-tone target in it.
#[derive(Debug, Args)]
pub struct TargetIn {
    /// The frame.
    file: PathBuf,
}

/// A bracket of one still scene.
#[derive(Debug, Args)]
pub struct Bracket {
    /// Three to eleven frames, about a stop apart.
    #[arg(required = true)]
    files: Vec<PathBuf>,
}

/// A patch of a table, in pixels of the frame.
#[derive(Clone, Copy, Debug, Deserialize)]
pub(super) struct Patch {
    pub left: f64,
    pub top: f64,
    pub width: f64,
    pub height: f64,
}

impl Patch {
    fn mark(self, size: Extent) -> Mark {
        Mark::of_pixels([self.left, self.top, self.width, self.height], size)
    }

    /// Whether some of it lies in the frame.
    fn inside(self, Extent { wide, high }: Extent) -> bool {
        #[expect(clippy::cast_precision_loss, reason = "a size in pixels")]
        let (wide, high) = (wide as f64, high as f64);
        let good = [self.left, self.top, self.width, self.height].iter().all(|one| one.is_finite() && *one >= 0.0);
        good && self.width > 0.0
            && self.height > 0.0
            && self.left + self.width <= wide
            && self.top + self.height <= high
    }

    /// # Errors
    /// A patch that is not in the frame.
    pub(super) fn within(self, size: Extent, file: &Path) -> Result<Mark, CliError> {
        let Self { left, top, width, height } = self;
        self.inside(size).then(|| self.mark(size)).ok_or_else(|| {
            let said = format!("the patch {left},{top},{width},{height} does not lie in the frame of {size} pixels");
            CliError::Frame(file.to_owned(), said)
        })
    }
}

fn patches(file: Option<&PathBuf>) -> Result<Vec<Patch>, CliError> {
    let Some(file) = file else { return Ok(Vec::new()) };
    let wrong = |error: csv::Error| CliError::Frame(file.clone(), error.to_string());
    // A folder opens as a file does, and holds no line.
    if !file.is_file() {
        return Err(CliError::Frame(file.clone(), "this is no file of patches".to_owned()));
    }
    let mut reader = csv::ReaderBuilder::new().trim(csv::Trim::All).from_path(file).map_err(wrong)?;
    reader.deserialize().collect::<Result<_, _>>().map_err(wrong)
}

fn bytes(file: &Path) -> Result<Vec<u8>, CliError> {
    std::fs::read(file).map_err(|error| CliError::File(file.to_owned(), error))
}

pub(super) fn frame(file: &Path) -> Result<Frame, CliError> {
    read(&bytes(file)?, None).map_err(|wrong| CliError::Frame(file.to_owned(), wrong.to_string()))
}

pub(super) fn lacks(lacking: &[Lacking]) -> Vec<&'static str> {
    let word = |one: &Lacking| match one {
        Lacking::Shutter => "shutter_s",
        Lacking::Aperture => "f_number",
        Lacking::Iso => "iso",
    };
    lacking.iter().map(word).collect()
}

fn exposure(taken: &Taken, file: &Path) -> Result<tolva_core::exposure::Ev, CliError> {
    taken.ev100().map_err(|lacking| {
        CliError::Frame(file.to_owned(), format!("its EXIF does not say {}", lacks(&lacking).join(", ")))
    })
}

/// Says what files hold; one that is wrong gives an object with its `error`, and the others are measured all the same.
pub fn measure(asked: &Measure) -> Result<(), CliError> {
    let patches = patches(asked.patches.as_ref())?;
    let mut out = BufWriter::new(std::io::stdout().lock());
    let mut wrong = 0;
    for file in &asked.files {
        match measured(file, &patches) {
            Ok(lines) => lines.iter().try_for_each(|line| writeln!(out, "{line}"))?,
            Err(error) => {
                wrong += 1;
                writeln!(out, "{}", json!({ "file": name(file), "error": error.to_string() }))?;
            }
        }
        out.flush()?;
    }
    if wrong == 0 { Ok(()) } else { Err(CliError::FramesWrong(wrong)) }
}

fn name(file: &Path) -> String {
    file.file_name().unwrap_or(file.as_os_str()).to_string_lossy().into_owned()
}

fn measured(file: &Path, patches: &[Patch]) -> Result<Vec<Value>, CliError> {
    let Frame { photo, taken, size, preview } = frame(file)?;
    let name = name(file);
    let whole = json!({
        "file": name,
        "width": size.wide, "height": size.high,
        "shutter_s": taken.shutter_s, "f_number": taken.f_number, "iso": taken.iso,
        "ev100": taken.ev100().ok().map(|ev| ev.0),
        "focal_length_mm": taken.focal_length_mm, "flash": taken.flash,
        "at": taken.at.map(|at| at.to_string()), "camera": taken.camera,
        "lacks": taken.settings().err().map_or_else(Vec::new, |lacking| lacks(&lacking)),
        "wrong": taken.wrong, "raw_preview": preview, "simulated": taken.simulated,
    });
    let of = |patch: &Patch| {
        let found = photo.measured(patch.within(size, file)?);
        Ok(json!({
            "file": name,
            "left": patch.left, "top": patch.top, "width": patch.width, "height": patch.height,
            "stops": found.stops().map(|stops| stops.0), "clipped_share": found.clipped,
            "red_over_green": found.red_over_green(), "blue_over_green": found.blue_over_green(),
            "clipped": found.is_clipped(), "too_dark": found.is_dark(),
        }))
    };
    std::iter::once(Ok(whole)).chain(patches.iter().map(of)).collect()
}

/// Takes two frames apart.
pub fn separate(asked: &Separate) -> Result<(), CliError> {
    let patches = patches(asked.patches.as_ref())?;
    let (without, with) = (bytes(&asked.without)?, bytes(&asked.with)?);
    let [without, with] = read_two([&without, &with], None);
    let of = |file: &PathBuf, read: Result<Frame, Unreadable>| {
        read.map_err(|wrong| CliError::Frame(file.clone(), wrong.to_string()))
    };
    let (without, with) = (of(&asked.without, without)?, of(&asked.with, with)?);
    let pair = Pair {
        without: &without.photo,
        without_at: exposure(&without.taken, &asked.without)?,
        with: &with.photo,
        with_at: exposure(&with.taken, &asked.with)?,
    };
    let separated = pair.separated().map_err(|wrong| CliError::Frame(asked.with.clone(), wrong.to_string()))?;
    let mut out = BufWriter::new(std::io::stdout().lock());
    for patch in &patches {
        let parted = separated.parted(patch.within(with.size, &asked.with)?);
        let line = json!({
            "left": patch.left, "top": patch.top, "width": patch.width, "height": patch.height,
            "ambient_stops": parted.ambient.map(|one| one.0), "flash_stops": parted.flash.map(|one| one.0),
            "together_stops": parted.together.map(|one| one.0), "flash_share": parted.flash_share,
            "clipped": parted.clipped, "too_dark": parted.too_dark,
        });
        writeln!(out, "{line}")?;
    }
    out.flush()?;
    if let Some(file) = &asked.out {
        let wrong = |error| CliError::File(file.clone(), error);
        let map =
            share_map(separated.size(), &separated.shares()).map_err(|error| wrong(std::io::Error::other(error)))?;
        std::fs::write(file, map).map_err(wrong)?;
    }
    Ok(())
}

/// Finds a two-tone target; null where there is none.
pub fn target(asked: &TargetIn) -> Result<(), CliError> {
    let frame = frame(&asked.file)?;
    let line = found(&frame.photo, TwoTone::default()).map(|target| {
        #[expect(clippy::cast_precision_loss, reason = "a size in pixels")]
        let (wide, high) = (frame.size.wide as f64, frame.size.high as f64);
        json!({
            "file": name(&asked.file),
            "target_left": (target.at.left * wide).round(), "target_top": (target.at.top * high).round(),
            "target_width": (target.at.width * wide).round(), "target_height": (target.at.height * high).round(),
            "off_stops": target.off.0,
            "red_over_green": target.light.red_over_green(), "blue_over_green": target.light.blue_over_green(),
            "clipped": target.clipped, "stray_share": target.stray,
        })
    });
    Ok(writeln!(std::io::stdout(), "{}", line.unwrap_or(Value::Null))?)
}

/// The camera's own curve from a bracket: the level of a grey at each quarter of a stop, 118 at nothing.
pub fn curve(asked: &Bracket) -> Result<(), CliError> {
    let exposed = |file: &PathBuf| {
        let levels = levels(&bytes(file)?, None).map_err(|wrong| CliError::Frame(file.clone(), wrong.to_string()))?;
        Ok(Exposed::of(&levels.raster, -exposure(&levels.taken, file)?.0))
    };
    let bracket: Vec<Exposed> = asked.files.iter().map(exposed).collect::<Result<_, CliError>>()?;
    let found = recovered(&bracket).map_err(|wrong| CliError::Frame(asked.files[0].clone(), wrong.to_string()))?;
    let curve = found.curve();
    let mut out = BufWriter::new(std::io::stdout().lock());
    for quarter in -20..=10 {
        let stops = f64::from(quarter) / 4.0;
        let level = curve.level_at(Stops(stops));
        let known = (found.known.0..=found.known.1).contains(&level);
        writeln!(out, "{}", json!({ "stops": stops, "level": level, "known": known, "off_stops": found.off.0 }))?;
    }
    Ok(out.flush()?)
}
