//! Outlines of flat pieces, walked clockwise from the foot of the left side, `u` right and `v` up.

use std::f64::consts::FRAC_PI_8;

use crate::form::Panel;
use crate::geometry::Point;

/// The shape of a flat piece.
#[derive(Clone, Copy, PartialEq)]
pub enum Outline {
    /// Square corners.
    Square,
    /// All corners rounded by the figure.
    Rounded,
    /// The upper corners cut off by the figure.
    Clipped,
    /// A point at the top, as high as the figure.
    Pointed,
    /// A point at the foot, as high as the figure.
    PointedFoot,
    /// Arcs of about the figure's width along every side.
    Scalloped,
    /// An ellipse.
    Oval,
    /// Hollow corners of the figure's radius.
    Ticket,
    /// A round head.
    Arch,
    /// A notch at the foot, as high as the figure.
    Swallow,
}

impl Outline {
    /// True where the foot is straight, so that something can hang there.
    pub const fn has_foot(self) -> bool {
        !matches!(self, Self::PointedFoot | Self::Scalloped | Self::Oval | Self::Swallow)
    }

    /// How far the top lies below the height on the middle line's left and right, at `x` from it.
    pub fn drop_at(self, width: f64, height: f64, by: f64, x: f64) -> f64 {
        match self {
            Self::Pointed => by * x / (width / 2.0),
            Self::Oval => height / 2.0 * (1.0 - (1.0 - (2.0 * x / width).powi(2)).max(0.0).sqrt()),
            _ => 0.0,
        }
    }

    /// How far the outline reaches beyond the rectangle on which it is drawn, on every side: the crowns of
    /// scallops.
    pub fn overhang(self, by: f64) -> f64 {
        if self == Self::Scalloped { by / 4.0 } else { 0.0 }
    }

    /// Draws all sides but the foot onto a panel that has none yet, from the origin to where the foot
    /// starts on the right; an outline without a straight foot is closed.
    pub fn draw(self, panel: Panel, w: f64, h: f64, by: f64) -> Panel {
        match self {
            Self::Square => panel.cut(0.0, h).cut(w, h).cut(w, 0.0),
            Self::Rounded => {
                let r = by.min(w / 2.0).min(h / 2.0);
                corner(corner(panel.cut(0.0, h - r), (0.0, h), r, 0), (w, h), r, 1).cut(w, 0.0)
            }
            Self::Clipped => {
                panel.cut(0.0, h - by).cut(by, h).cut(w - by, h).cut(w, h - by).cut(w, 0.0)
            }
            Self::Pointed => panel.cut(0.0, h - by).cut(w / 2.0, h).cut(w, h - by).cut(w, 0.0),
            Self::PointedFoot => {
                panel.cut(0.0, h - by).cut(w, h - by).cut(w, 0.0).cut(w / 2.0, -by).cut(0.0, 0.0)
            }
            Self::Swallow => panel.cut(0.0, h).cut(w, h).cut(w, 0.0).cut(w / 2.0, by).cut(0.0, 0.0),
            Self::Scalloped => {
                let bulge = self.overhang(by);
                let sides = [
                    ((0.0, 0.0), (0.0, h)),
                    ((0.0, h), (w, h)),
                    ((w, h), (w, 0.0)),
                    ((w, 0.0), (0.0, 0.0)),
                ];
                sides.into_iter().fold(panel, |panel, (from, to)| {
                    let long = f64::hypot(to.0 - from.0, to.1 - from.1);
                    let count = (long / by).round().clamp(1.0, 200.0);
                    let mut panel = panel;
                    let mut arc = 1.0;
                    while arc <= count {
                        let share = arc / count;
                        let at =
                            (from.0 + (to.0 - from.0) * share, from.1 + (to.1 - from.1) * share);
                        panel = panel.arc(at.0, at.1, bulge);
                        arc += 1.0;
                    }
                    panel
                })
            }
            Self::Oval => ellipse(panel, w / 2.0, h / 2.0),
            // The left side's straight part starts at the origin.
            Self::Ticket => panel
                .cut(0.0, h - 2.0 * by)
                .arc(by, h - by, -hollow(by))
                .cut(w - by, h - by)
                .arc(w, h - 2.0 * by, -hollow(by))
                .cut(w, 0.0)
                .arc(w - by, -by, -hollow(by))
                .cut(by, -by)
                .arc(0.0, 0.0, -hollow(by)),
            Self::Arch => {
                let r = (w / 2.0).min(h);
                panel.cut(0.0, h - r).arc(w, h - r, r).cut(w, 0.0)
            }
        }
    }
}

/// The rise of a quarter circle over its chord.
fn hollow(radius: f64) -> f64 {
    radius * (1.0 - std::f64::consts::FRAC_1_SQRT_2)
}

/// A rounded corner: 0 turns from up to right, 1 from right to down.
fn corner(panel: Panel, (x, y): (f64, f64), r: f64, turn: u8) -> Panel {
    if r <= 0.0 {
        return panel.cut(x, y);
    }
    if turn == 0 {
        panel.arc(x + r, y, hollow(r))
    } else {
        panel.cut(x - r, y).arc(x, y - r, hollow(r))
    }
}

/// A closed ellipse whose leftmost point is the origin.
fn ellipse(panel: Panel, a: f64, b: f64) -> Panel {
    let k = 4.0 / 3.0 * (FRAC_PI_8).tan();
    let p = Point::new;
    panel
        .curve(p(0.0, k * b), p(a - k * a, b), p(a, b))
        .curve(p(a + k * a, b), p(2.0 * a, k * b), p(2.0 * a, 0.0))
        .curve(p(2.0 * a, -k * b), p(a + k * a, -b), p(a, -b))
        .curve(p(a - k * a, -b), p(0.0, -k * b), p(0.0, 0.0))
}
