//! How the machine is set up, what can go wrong with it, and what it is doing.

use aptum_core::workshop::Corner;

/// How the machine is set up.
#[derive(Debug, Clone, PartialEq)]
pub struct Settings {
    /// Units in a millimetre.
    pub units: f64,
    /// The corner of the page from which it counts.
    pub origin: Corner,
    /// True where x runs along the feed.
    pub swapped: bool,
    /// How far the tips of what is put into it hang behind their axes, mm, in the order in which stations are chosen; the last
    /// stays.
    pub offsets: Vec<f64>,
    /// True where it allows for that itself.
    pub allows: bool,
    /// How fast it moves, mm/s; none as fast as it can be told.
    pub speed: Option<f64>,
    /// How far somebody's hand errs who sets crosshairs on the marks, mm, the standard deviation along each axis; 0 where an eye does
    /// it.
    pub hand: f64,
    /// True where somebody changes the tool at once when it asks for that.
    pub is_attended: bool,
    /// What goes wrong, and before which stroke, from 0.
    pub fault: Option<(Fault, usize)>,
}

impl Default for Settings {
    fn default() -> Self {
        Self {
            units: 40.0,
            origin: Corner::BottomLeft,
            swapped: false,
            offsets: vec![0.25],
            allows: true,
            speed: None,
            hand: 0.0,
            is_attended: false,
            fault: None,
        }
    }
}

/// What can go wrong with it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fault {
    /// There is no sheet.
    NoPaper,
    /// The sheet is stuck.
    Jam,
    /// Its cover is open.
    CoverOpen,
    /// The connection ends.
    CutOff,
}

/// What it is doing.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum State {
    /// Nothing.
    Ready,
    /// It looks for marks or cuts.
    Working,
    /// It waits until it is told to go on.
    Held,
    /// It was told to stop.
    Stopped,
    /// The sheet was refused, and why.
    Refused(String),
    /// Something went wrong.
    Failed(Fault),
}

impl State {
    /// In words, as it answers.
    #[must_use]
    pub fn words(&self) -> String {
        match self {
            Self::Ready => "ready".to_owned(),
            Self::Working => "working".to_owned(),
            Self::Held => "held".to_owned(),
            Self::Stopped => "stopped".to_owned(),
            Self::Refused(why) => format!("refused {why}"),
            Self::Failed(Fault::NoPaper) => "failed no paper".to_owned(),
            Self::Failed(Fault::Jam) => "failed jam".to_owned(),
            Self::Failed(Fault::CoverOpen) => "failed cover open".to_owned(),
            Self::Failed(Fault::CutOff) => "failed connection".to_owned(),
        }
    }
}
