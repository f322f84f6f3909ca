//! The cutter: a bed with a sheet on it, a head with an eye and a blade, and a socket through which it is told what to do.
//!
//! # What it takes
//!
//! HP-GL: `IN`, `PU`, `PD`, `PA`, `PR`, `SP`, `VS`, `FS`, `NR`, `OS`. Places are in its units from the corner that is set on
//! it. Commands end with a semicolon, a new line, or the next letter. What it does not know it passes over.
//!
//! Its own commands begin with `A`; lengths are in its units too, places are places:
//!
//! | command | meaning |
//! |---|---|
//! | `AP w,h;` | the page is so wide and long |
//! | `AM x,y,shape,size,stroke,odd,sx,sy;` | a mark is to be found there: shape 1 angle, 2 dot, 3 cross; its size and stroke; odd 1 for the one that differs; which way an angle's arms point, each 1 or -1 |
//! | `AB x,y,shape,size,stroke,0,sx,sy;` | no mark is to be found there |
//! | `AT x0,y0,x1,y1;` | something is printed in this rectangle |
//! | `AR r;` | how far around it searches |
//! | `AS dx,dy;` | how far from the first mark its eye begins |
//! | `AC x0,y0,x1,y1,code,first,last;` | the square code in this rectangle must say this code and a sheet from first to last |
//! | `AF;` | find the marks; answers `found …` or `refused …` |
//! | `AO;` | answers `done` when everything before it is done |
//!
//! Told at once, even while it works: `ESC .K` stops and forgets what was sent, `ESC .H` holds, `ESC .G` goes on, `ESC .B`
//! answers how many bytes it can still take, `ESC .O` answers its state in words.

mod blade;
mod commands;
mod eye;
mod job;
mod machine;
mod mark;
mod reading;
mod search;
mod settings;
mod socket;

pub use eye::{Bed, Eye};
pub use machine::{Cut, Cutter};
pub use mark::{AskedMark, MarkKind};
pub use reading::{Asked, AskedCode, Found, Refusal, find};
pub use settings::{Fault, Settings, State};
pub use socket::serve;
