//! The machines that ship with Aptum, each at its own address: what the printer prints is laid beside the cutter, a little askew,
//! and laid in when the cutter asks for it.

use std::io;
use std::net::{Ipv4Addr, SocketAddr, TcpListener};
use std::sync::Arc;
use std::sync::atomic::AtomicBool;

use aptum_core::rehearsal::{Day, Loading, normal};
use aptum_core::workshop::Margins;
use aptum_devices::cutter::{self, Bed, Cutter, Settings};
use aptum_devices::printer::{self, Printer};

/// How the machines are set up.
#[derive(Debug, Clone)]
pub struct Setup {
    /// The cutter.
    pub cutter: Settings,
    /// What the printer does to its sheets.
    pub day: Day,
    /// By which it errs.
    pub seed: u64,
    /// Pixels in an inch that the printer prints.
    pub ppi: u32,
}

/// Machines that listen.
pub struct Standing {
    cutter: TcpListener,
    printer: TcpListener,
    setup: Setup,
}

/// How far sheets are laid askew, the standard deviation: mm, and degrees.
const ASKEW: (f64, f64) = (0.8, 0.4);

impl Standing {
    /// Takes two ports of loopback; 0 takes a free one.
    ///
    /// # Errors
    /// That one is taken.
    pub fn at(cutter: u16, printer: u16, setup: Setup) -> io::Result<Self> {
        let bind = |port| TcpListener::bind((Ipv4Addr::LOCALHOST, port));
        Ok(Self { cutter: bind(cutter)?, printer: bind(printer)?, setup })
    }

    /// Where the cutter and the printer are reached.
    ///
    /// # Errors
    /// That the system does not say.
    pub fn addresses(&self) -> io::Result<[SocketAddr; 2]> {
        Ok([self.cutter.local_addr()?, self.printer.local_addr()?])
    }

    /// Serves both until told that it is over.
    ///
    /// # Errors
    /// That a listener cannot be used.
    pub fn serve(self, is_over: &Arc<AtomicBool>) -> io::Result<()> {
        let Self { cutter: at_cutter, printer: at_printer, setup } = self;
        let machine = Cutter::new(setup.cutter);
        let printer = Printer {
            margins: Margins::all(0.0),
            ppi: setup.ppi.into(),
            day: setup.day,
            seed: setup.seed,
            card: [252, 251, 247],
        };
        let mut random = fastrand::Rng::with_seed(setup.seed);
        std::thread::scope(|threads| {
            let cutting = threads.spawn(|| cutter::serve(&at_cutter, &machine, is_over));
            let printed = printer::serve(
                &at_printer,
                &printer,
                &mut |sheet| {
                    let mut askew = |by: f64| by * normal(&mut random).clamp(-2.0, 2.0);
                    let loading = Loading {
                        shift: [askew(ASKEW.0), askew(ASKEW.0)],
                        turn: askew(ASKEW.1),
                        ..Loading::default()
                    };
                    machine
                        .lay_beside(Bed::new(&sheet.picture, loading.affine(sheet.printing.paper)));
                },
                is_over,
            );
            cutting.join().unwrap_or(Ok(())).and(printed)
        })
    }
}
