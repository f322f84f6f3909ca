//! Closed lines along which values pass a threshold, to a part of a pixel.

use kurbo::{Point, Vec2};

use super::inside::Inside;

/// Most points of all rings of a picture.
pub(super) const MOST_POINTS: usize = 3_000_000;

/// Rings around what is inside, in pixels from the top left corner; what is inside lies to the right of the way they
/// run as the picture is seen, so outer rings have an area above 0 and holes one below. What touches the picture's edge
/// ends there.
///
/// Marching squares between the middles of pixels, with the crossing where the values' straight line passes the
/// threshold. Where two corners of a cell that lie opposite are inside, the cell's mean says whether they hang together.
pub(super) fn rings(inside: &Inside, threshold: f32) -> Vec<Vec<Point>> {
    let (width, height) = (inside.width, inside.height);
    // Cells lie between pixels' middles, the outermost between the edge and what is beyond it.
    let (across, along) = (width + 1, height + 1);
    let value = |x: usize, y: usize| -> Option<f32> {
        (x > 0 && y > 0 && x <= width && y <= height)
            .then(|| inside.values[(y - 1) * width + x - 1])
    };
    let is_in = |x: usize, y: usize| value(x, y).is_some_and(|value| value >= threshold);
    // An edge is known by its first corner, which is the upper or the left one, and by its way: 0 across, 1 down.
    let stride = width + 2;
    let edge = |x: usize, y: usize, way: usize| u32::try_from((y * stride + x) * 2 + way);
    let mut next: Vec<u32> = vec![u32::MAX; stride * (height + 2) * 2];
    let mut starts: Vec<u32> = Vec::new();
    let mut upper: Vec<bool> = (0..=across).map(|x| is_in(x, 0)).collect();
    for y in 0..along {
        let lower: Vec<bool> = if y < height {
            let row = &inside.values[y * width..][..width];
            let mut line = Vec::with_capacity(across + 1);
            line.push(false);
            line.extend(row.iter().map(|value| *value >= threshold));
            line.push(false);
            line
        } else {
            vec![false; across + 1]
        };
        for x in 0..across {
            let corners = [upper[x], upper[x + 1], lower[x + 1], lower[x]];
            let count = corners.iter().filter(|own| **own).count();
            if count == 0 || count == 4 {
                continue;
            }
            let sides = [edge(x, y, 0), edge(x + 1, y, 1), edge(x, y + 1, 0), edge(x, y, 1)];
            let sides = sides.map(|side| side.unwrap_or(0));
            let is_saddle = count == 2 && corners[0] == corners[2];
            let joined = is_saddle && {
                let all = [(x, y), (x + 1, y), (x + 1, y + 1), (x, y + 1)];
                let sum: f32 = all.iter().map(|(x, y)| value(*x, *y).unwrap_or(0.0)).sum();
                sum / 4.0 >= threshold
            };
            // Side k lies between corners k and k + 1. A line lies between a side whose first corner is outside and
            // one whose first corner is inside.
            for from in 0..4 {
                if corners[from] || !corners[(from + 1) % 4] {
                    continue;
                }
                // With the clock from the first: past all corners that are inside, or, where opposite ones hang
                // together, against it.
                let to = if joined {
                    (from + 3) % 4
                } else {
                    (1..4)
                        .map(|step| (from + step) % 4)
                        .find(|at| !corners[(at + 1) % 4])
                        .unwrap_or(from)
                };
                // Back the other way, so that inside lies to the right.
                next[sides[to] as usize] = sides[from];
                starts.push(sides[to]);
            }
        }
        upper = lower;
    }
    let place = |edge: u32| -> Point {
        let corner = edge as usize / 2;
        let (x, y) = (corner % stride, corner / stride);
        let (to_x, to_y) = if edge.is_multiple_of(2) { (x + 1, y) } else { (x, y + 1) };
        let share = match (value(x, y), value(to_x, to_y)) {
            (Some(a), Some(b)) if (b - a).abs() > 1e-9 => f64::from((threshold - a) / (b - a)),
            _ => 0.5,
        };
        let from = Point::new(real(x) - 0.5, real(y) - 0.5);
        from + Vec2::new(real(to_x - x), real(to_y - y)) * share.clamp(0.0, 1.0)
    };
    let mut all = Vec::new();
    let mut count = 0;
    for start in starts {
        if next[start as usize] == u32::MAX {
            continue;
        }
        let mut ring = Vec::new();
        let mut at = start;
        while next[at as usize] != u32::MAX {
            ring.push(place(at));
            at = std::mem::replace(&mut next[at as usize], u32::MAX);
        }
        count += ring.len();
        if count > MOST_POINTS {
            break;
        }
        if ring.len() > 3 {
            all.push(ring);
        }
    }
    all
}

/// Moves each point to where the values pass the middle between what lies on either side of the line: where the colour
/// of what is inside changes along its edge, one threshold for all puts the line too far out or in by parts of a
/// pixel. A point moves by a pixel at most, and only where there is a clear step.
pub(super) fn refine(inside: &Inside, threshold: f32, ring: &mut [Point]) {
    let count = ring.len();
    let before: Vec<Point> = ring.to_vec();
    for at in 0..count {
        let along = before[(at + 2) % count] - before[(at + count - 2) % count];
        if along.hypot() < 1e-6 {
            continue;
        }
        // Inside lies to the right, as seen.
        let inward = Vec2::new(-along.y, along.x).normalize();
        let value = |by: f64| {
            let point = before[at] + inward * by;
            inside.at(narrow(point.x), narrow(point.y))
        };
        let (within, beyond) = (value(REACH), value(-REACH));
        if within < threshold || beyond > threshold || within - beyond < 0.12 {
            continue;
        }
        // In a narrow tip the other side is within reach, and what is inside is not to be seen alone.
        let is_falling =
            [0.5, 0.75, 1.0, 1.25].map(&value).into_iter().any(|own| own > within + FALL);
        if is_falling && is_narrow(&before, at, inward) {
            continue;
        }
        let Some(by) = crossing(&value, f32::midpoint(within, beyond)) else { continue };
        let by = by + moment(&|off| value(by + off)).unwrap_or(0.0);
        if by.abs() <= 1.0 {
            ring[at] = before[at] + inward * by;
        }
    }
}

/// How far inside and outside of a line is looked, px.
const REACH: f64 = 1.5;

/// Values that fall by more on the way inwards may be those of the other side.
const FALL: f32 = 0.02;

/// How many points on and back the other side of a narrow tip is looked for.
const ACROSS: usize = 48;

/// True where the ring comes back on the other side of a tip, nearer than is looked from both.
fn is_narrow(ring: &[Point], at: usize, inward: Vec2) -> bool {
    let count = ring.len();
    let way = |at: usize| ring[(at + 2) % count] - ring[(at + count - 2) % count];
    let own = way(at).normalize();
    let steps = (3..ACROSS.min(count / 2)).step_by(2);
    let others = steps.flat_map(|off| [at + off, at + count - off]);
    others.map(|other| other % count).any(|other| {
        let off = ring[other] - ring[at];
        let (deep, aside) = (off.dot(inward), off.cross(inward).abs());
        let is_across = deep > 0.0 && deep < 2.0 * REACH && aside < 0.7;
        is_across && own.dot(way(other).normalize()) < -0.5
    })
}

/// In how many steps, each way.
const STEPS: i32 = 12;

/// Where values pass the middle, nearest to 0.
fn crossing(value: &dyn Fn(f64) -> f32, middle: f32) -> Option<f64> {
    let step = REACH / f64::from(STEPS);
    let mut last = value(-REACH);
    let mut best: Option<f64> = None;
    for index in 1 - STEPS..=STEPS {
        let by = f64::from(index) * step;
        let here = value(by);
        if last < middle && here >= middle {
            let cross = by - step * f64::from((here - middle) / (here - last));
            if best.is_none_or(|best| cross.abs() < best.abs()) {
                best = Some(cross);
            }
        }
        last = here;
    }
    best
}

/// Where a sharp edge lies that holds as much as the values do between the two ends. For a straight edge that is exact,
/// however the pixels lie to it. `None` where the values do not rise all the way.
fn moment(value: &dyn Fn(f64) -> f32) -> Option<f64> {
    let step = REACH / f64::from(STEPS);
    let (first, last) = (value(-REACH), value(REACH));
    let rise = last - first;
    if rise < 0.12 {
        return None;
    }
    let mut before = first;
    let mut sum = 0.0;
    for index in 1 - STEPS..=STEPS {
        let here = value(f64::from(index) * step);
        if here < before - 0.1 * rise {
            return None;
        }
        sum += f64::from((f32::midpoint(before, here) - first) / rise) * step;
        before = here;
    }
    let edge = REACH - sum;
    (edge.abs() < 0.3).then_some(edge)
}

/// The area of a ring, px²; above 0 where it runs with the clock as seen.
pub(super) fn area(ring: &[Point]) -> f64 {
    let next = ring.iter().skip(1).chain(ring.first());
    ring.iter().zip(next).map(|(a, b)| a.to_vec2().cross(b.to_vec2())).sum::<f64>() / 2.0
}

#[expect(clippy::cast_precision_loss, reason = "sides of a picture")]
const fn real(count: usize) -> f64 {
    count as f64
}

#[expect(clippy::cast_possible_truncation, reason = "places in a picture")]
const fn narrow(value: f64) -> f32 {
    value as f32
}
