//! The piece's own files, read back: DXF, FOLD, glTF and OBJ; and the flats and solids against tables that
//! general-purpose libraries made (`make reference`; the table names them and their versions).

use std::collections::BTreeMap;
use std::sync::Arc;

use aptum_core::blob::{BlobId, Origin};
use aptum_core::fold::{FoldModel, Pose, prove};
use aptum_core::form::catalogue::CATALOGUE;
use aptum_core::form::{Form, LineDrawing, ReadLines};
use aptum_core::geometry::{BezPath, PathEl, Shape};
use aptum_core::job::JobPiece;
use aptum_core::lines::guessed;
use aptum_core::units::Unit;
use aptum_core::{Job, Prepared, PreparedPiece, Workshop, prepare};
use aptum_formats::dxf::flat_dxf;
use aptum_formats::fold::flat_fold;
use aptum_formats::gltf::folded_gltf;
use aptum_formats::lines::brought;
use aptum_formats::obj::folded_obj;
use serde_json::Value;

fn prepared(structure: &str, figures: &[(&str, f64)]) -> Prepared {
    let workshop: Workshop =
        serde_json::from_str(include_str!("../../../../demo/workshop.json")).unwrap();
    let job: Job =
        serde_json::from_str(include_str!("../../../../demo/jobs/tomato-carton.json")).unwrap();
    let stock = job.pieces[0].stock.0.clone();
    let piece = JobPiece::new("p1", Form::new(structure, figures), &stock);
    prepare(&Job { pieces: vec![piece], ..job }, &workshop).unwrap()
}

/// How a piece folds.
fn folding(piece: &PreparedPiece) -> &FoldModel {
    piece.formed.fold.as_ref().unwrap()
}

/// Its flat as FOLD.
fn written(piece: &PreparedPiece) -> String {
    flat_fold("A piece", &piece.flat, folding(piece))
}

fn tables() -> Value {
    serde_json::from_str(include_str!("../reference/tables.json")).unwrap()
}

fn number(value: &Value) -> f64 {
    value.as_f64().unwrap()
}

/// Against trimesh: surfaces, volumes and the turns from face to face of solids, prisms, pyramids and
/// frusta.
#[test]
fn solids_have_the_surface_the_volume_and_the_turns_of_the_reference() {
    for row in tables()["solids"].as_array().unwrap() {
        let structure = row["structure"].as_str().unwrap();
        let figures: Vec<(&str, f64)> = row["figures"]
            .as_object()
            .unwrap()
            .iter()
            .map(|(key, value)| (key.as_str(), number(value)))
            .collect();
        // Very thin, so that tabs draw their edges in by next to nothing.
        let flat = Form::new(structure, &figures).draw(0.01, Unit::Mm).unwrap();
        let volume = number(&row["volume"]);
        assert!((flat.volume.unwrap() - volume).abs() < 1e-6 * volume, "{structure} {figures:?}");
        let faces: f64 = flat.parts[0]
            .panels
            .iter()
            .filter(|panel| !panel.name.starts_with("Tab"))
            .map(|panel| panel.outline.area().abs())
            .sum();
        let mut area = number(&row["area"]);
        if structure == "cup" {
            // The reference is closed; the cup is open at its wide end.
            let side = |key: &str| figures.iter().find(|(known, _)| *known == key).unwrap().1;
            let half = std::f64::consts::PI / side("sides");
            let wide =
                side("side") + 2.0 * side("height") * side("flare").to_radians().tan() * half.tan();
            area -= side("sides") * wide * wide / (4.0 * half.tan());
        }
        assert!((faces - area).abs() < 2e-3 * area, "{structure}: {faces} instead of {area}");
        let turns: Vec<f64> = row["turns"].as_array().unwrap().iter().map(number).collect();
        for panel in
            FoldModel::new(&flat, 0.01).unwrap().panels.iter().filter(|panel| panel.hang.is_some())
        {
            let nearest =
                turns.iter().map(|turn| (turn - panel.fold).abs()).fold(f64::MAX, f64::min);
            assert!(nearest < 1e-4, "{structure} {}: {}", panel.name, panel.fold);
        }
    }
}

/// Against trimesh: nets as lines of a drawing, folded by their creases alone, enclose the volume of the solid. Faces lie
/// with their printed side out, so that the sum of their pyramids to any point is what they enclose.
#[test]
fn nets_that_are_drawn_enclose_the_volume_of_the_reference() {
    let mut closed = 0;
    for row in tables()["solids"].as_array().unwrap() {
        let structure = row["structure"].as_str().unwrap();
        // The cup is open.
        if structure == "cup" {
            continue;
        }
        let figures = row["figures"].as_object().unwrap().iter();
        let figures: Vec<(&str, f64)> =
            figures.map(|(key, value)| (key.as_str(), number(value))).collect();
        let flat = Form::new(structure, &figures).draw(0.01, Unit::Mm).unwrap();
        let (lines, mut own) = LineDrawing::freed(&flat, structure).unwrap();
        own.lines = BlobId("0".repeat(64));
        own.read = ReadLines(Some(Arc::new(lines)));
        let drawn = Form::of_drawing(own).draw(0.01, Unit::Mm).unwrap();
        let model = FoldModel::new(&drawn, 0.01).unwrap();
        let pose = Pose::at(&model, model.closed());
        let faces = model.panels.iter().enumerate();
        let faces = faces.filter(|(_, panel)| !panel.name.starts_with("Tab"));
        let sixths = faces.map(|(at, panel)| {
            let ring: Vec<_> = panel.ring.iter().map(|own| pose.point(at, *own).coords).collect();
            let fan = ring.windows(2).skip(1);
            fan.map(|pair| ring[0].dot(&pair[0].cross(&pair[1]))).sum::<f64>()
        });
        let (volume, wanted) = ((sixths.sum::<f64>() / 6.0).abs(), number(&row["volume"]));
        assert!((volume - wanted).abs() < 5e-3 * wanted, "{structure}: {volume} for {wanted}");
        closed += 1;
    }
    assert!(closed >= 8, "{closed}");
}

/// Against shapely: every structure's outline is valid, and has its area and perimeter.
#[test]
fn outlines_are_valid_and_have_the_areas_of_the_reference() {
    let tables = tables();
    for structure in CATALOGUE {
        let row = &tables["flats"][structure.id];
        assert_eq!(row["valid"], true, "{}: run make reference", structure.id);
        let flat = prepared(structure.id, &[]).first().flat.clone();
        assert_eq!(flat.parts.len(), row["areas"].as_array().unwrap().len(), "{}", structure.id);
        for (index, part) in flat.parts.iter().enumerate() {
            let (area, length) = (number(&row["areas"][index]), number(&row["perimeters"][index]));
            let exact = part.outline.area().abs();
            // The reference saw curves flattened to 0.01 mm.
            assert!(
                (exact - area).abs() < 1e-4 * area + 0.02 * length,
                "{} {exact} {area}",
                structure.id
            );
            assert!((part.outline.perimeter(1e-6) - length).abs() < 2e-3 * length);
        }
    }
}

/// Against ezdxf: each drawing is without errors, in mm, and has every line on its layer at its length.
#[test]
fn drawings_pass_the_audit_with_every_line_on_its_layer() {
    let tables = tables();
    for structure in CATALOGUE {
        let row = &tables["drawings"][structure.id];
        assert_eq!((&row["errors"], &row["fixes"]), (&0.into(), &0.into()), "{}", structure.id);
        assert_eq!(row["insunits"], 4);
        let flat = prepared(structure.id, &[]).first().flat.clone();
        let mut lengths: BTreeMap<String, f64> = BTreeMap::new();
        let outlines = flat.parts.iter().map(|part| ("cut", &part.outline));
        let lines = flat.parts.iter().flat_map(|part| &part.strokes);
        for (layer, path) in outlines.chain(lines.map(|line| (line.kind.id(), &line.path))) {
            *lengths.entry(layer.to_owned()).or_default() += path.perimeter(1e-6);
        }
        let audited = row["lengths"].as_object().unwrap();
        assert_eq!(audited.len(), lengths.len(), "{} {audited:?}", structure.id);
        for (layer, length) in lengths {
            let got = number(&audited[&layer]);
            assert!(
                (got - length).abs() < 1e-3 * length,
                "{} {layer}: {got} {length}",
                structure.id
            );
        }
    }
}

fn drawn(structure: &str) -> Vec<u8> {
    let mut bytes = Vec::new();
    flat_dxf(prepared(structure, &[]).first(), &mut bytes).unwrap();
    bytes
}

#[test]
fn the_drawing_reads_back_with_curves_as_curves() {
    use dxf::entities::EntityType;
    let bytes = drawn("pillow");
    assert!(bytes == drawn("pillow"), "the same job gives the same file");
    let drawing = dxf::Drawing::load(&mut std::io::Cursor::new(bytes)).unwrap();
    let bulges = drawing.entities().map(|entity| match &entity.specific {
        EntityType::LwPolyline(line) => line.vertices.iter().filter(|own| own.bulge != 0.0).count(),
        other => panic!("{other:?}"),
    });
    let bulges: Vec<usize> = bulges.filter(|count| *count > 0).collect();
    // Two faces of ten strips, each with a curved crease at both ends, and a curved edge at both in one outline.
    assert_eq!((bulges.iter().sum::<usize>(), bulges.len()), (2 * 10 * 2 * 2, 2 * 10 * 2 + 1));
    let layers: Vec<_> = drawing.layers().map(|layer| layer.name.as_str()).collect();
    assert!(layers.contains(&"cut") && layers.contains(&"crease"));

    // A round label is four arcs of a quarter (a bulge is the tangent of a quarter of the angle: DXF reference); an oval is
    // one spline of four cubics.
    let alone = |structure: &str| {
        let drawing = dxf::Drawing::load(&mut std::io::Cursor::new(drawn(structure))).unwrap();
        drawing.entities().map(|own| own.specific.clone()).collect::<Vec<_>>()
    };
    let round = alone("label-round");
    let [EntityType::LwPolyline(round)] = round.as_slice() else { panic!("round") };
    assert!(round.is_closed() && round.vertices.len() == 4);
    let quarter = (std::f64::consts::FRAC_PI_8).tan();
    assert!(round.vertices.iter().all(|own| (own.bulge.abs() - quarter).abs() < 1e-6));
    let oval = alone("label-oval");
    let [EntityType::Spline(oval)] = oval.as_slice() else { panic!("oval") };
    assert_eq!((oval.control_points.len(), oval.knot_values.len()), (13, 17));
}

/// FOLD 1.2 (published format): parallel arrays, indices in range, letters and the signs of their angles,
/// anticlockwise faces, every edge of a face listed.
#[test]
fn the_creased_sheet_keeps_the_rules_of_its_format() {
    for structure in CATALOGUE {
        let prepared = prepared(structure.id, &[]);
        let fold: Value = serde_json::from_str(&written(prepared.first())).unwrap();
        assert_eq!(fold["file_spec"], 1.2);
        assert_eq!(fold["frame_unit"], "mm");
        let array = |key: &str| fold[key].as_array().unwrap().clone();
        let points: Vec<[f64; 2]> =
            array("vertices_coords").iter().map(|p| [number(&p[0]), number(&p[1])]).collect();
        let index = |value: &Value| usize::try_from(value.as_u64().unwrap()).unwrap();
        let edges: Vec<[usize; 2]> =
            array("edges_vertices").iter().map(|edge| [index(&edge[0]), index(&edge[1])]).collect();
        let (letters, angles) = (array("edges_assignment"), array("edges_foldAngle"));
        assert_eq!((letters.len(), angles.len()), (edges.len(), edges.len()));
        for ((edge, letter), angle) in edges.iter().zip(&letters).zip(&angles) {
            assert!(edge[0] != edge[1] && edge.iter().all(|vertex| *vertex < points.len()));
            match letter.as_str().unwrap() {
                "M" => assert!((-180.0..0.0).contains(&number(angle)), "{angle}"),
                "V" => assert!(number(angle) > 0.0 && number(angle) <= 180.0, "{angle}"),
                "F" => assert_eq!(number(angle), 0.0),
                "B" | "C" => assert!(angle.is_null()),
                other => panic!("{other} is no assignment"),
            }
        }
        let mut area = 0.0;
        for face in array("faces_vertices") {
            let ring: Vec<usize> = face.as_array().unwrap().iter().map(index).collect();
            let next = ring.iter().cycle().skip(1);
            let mut doubled = 0.0;
            for (a, b) in ring.iter().zip(next) {
                assert!(
                    edges.contains(&[*a, *b]) || edges.contains(&[*b, *a]),
                    "{}: a face's edge is not listed",
                    structure.id
                );
                doubled += points[*a][0] * points[*b][1] - points[*b][0] * points[*a][1];
            }
            assert!(doubled > 0.0, "{}: faces run anticlockwise", structure.id);
            area += doubled / 2.0;
        }
        let card: f64 =
            prepared.first().flat.parts.iter().map(|part| part.outline.area().abs()).sum();
        assert!((area - card).abs() < 5e-3 * card, "{}: {area} {card}", structure.id);
        // Every crease is an edge: as many folded edges as hinges at least.
        let folded = letters.iter().filter(|letter| ["M", "V"].contains(&letter.as_str().unwrap()));
        let hinges =
            folding(prepared.first()).panels.iter().filter(|panel| panel.fold != 0.0).count();
        assert!(folded.count() >= hinges, "{}", structure.id);
    }
}

/// Folds a file back as any reader of the format would: each face is turned about the edge that it shares
/// with one that is placed, by the edge's angle. Gives for every face where its corners come to lie; the
/// first of each sheet stays where it is. Nothing of the program is used.
fn folded_back(fold: &Value) -> Vec<BTreeMap<usize, nalgebra::Point3<f64>>> {
    use nalgebra::{Point3, Rotation3, Unit};
    let list = |key: &str| fold[key].as_array().unwrap().clone();
    let index = |value: &Value| usize::try_from(value.as_u64().unwrap()).unwrap();
    let flat: Vec<Point3<f64>> = list("vertices_coords")
        .iter()
        .map(|p| Point3::new(number(&p[0]), number(&p[1]), 0.0))
        .collect();
    let faces: Vec<Vec<usize>> = list("faces_vertices")
        .iter()
        .map(|face| face.as_array().unwrap().iter().map(index).collect())
        .collect();
    let mut turns = BTreeMap::new();
    for (edge, angle) in list("edges_vertices").iter().zip(list("edges_foldAngle")) {
        if let Some(angle) = angle.as_f64() {
            turns.insert([index(&edge[0]), index(&edge[1])], angle);
        }
    }
    let walks = |face: usize| {
        let ring = &faces[face];
        ring.iter().zip(ring.iter().cycle().skip(1)).map(|(a, b)| (*a, *b)).collect::<Vec<_>>()
    };
    let mut places: Vec<Option<nalgebra::Isometry3<f64>>> = vec![None; faces.len()];
    for start in 0..faces.len() {
        if places[start].is_some() {
            continue;
        }
        places[start] = Some(nalgebra::Isometry3::identity());
        let mut open = vec![start];
        while let Some(face) = open.pop() {
            let place = places[face].unwrap();
            let waiting: Vec<usize> = (0..faces.len()).filter(|at| places[*at].is_none()).collect();
            for other in waiting {
                let back = walks(other);
                // Faces run anticlockwise: the shared edge is walked the other way round by the neighbour.
                let shared = walks(face).into_iter().find_map(|(a, b)| {
                    let turn = turns.get(&[a.min(b), a.max(b)])?;
                    back.contains(&(b, a)).then_some((a, b, *turn))
                });
                let Some((a, b, turn)) = shared else { continue };
                // With the face on the left of the way, a valley's neighbour comes up towards the reader.
                let axis = Unit::new_normalize(flat[b] - flat[a]);
                let rotation = Rotation3::from_axis_angle(&axis, -turn.to_radians());
                let about = nalgebra::Translation3::from(flat[a].coords)
                    * nalgebra::UnitQuaternion::from_rotation_matrix(&rotation)
                    * nalgebra::Translation3::from(-flat[a].coords);
                places[other] = Some(place * about);
                open.push(other);
            }
        }
    }
    faces
        .iter()
        .zip(places)
        .map(|(ring, place)| ring.iter().map(|at| (*at, place.unwrap() * flat[*at])).collect())
        .collect()
}

/// Every structure's file, folded back by code of its own, has its plates where the proof has them: each turned
/// as it is there, and edges that meet there meeting here. Layers that a fold of half a turn goes round are
/// no part of the format, so places agree to within them.
#[test]
fn a_creased_sheet_folds_back_to_the_piece() {
    for structure in CATALOGUE {
        let prepared = prepared(structure.id, &[]);
        let piece = prepared.first();
        let fold: Value = serde_json::from_str(&written(piece)).unwrap();
        let places = folded_back(&fold);
        let pose = aptum_core::fold::Pose::at(folding(piece), folding(piece).closed());
        let model = folding(piece);
        let normal = |face: usize| {
            let ring: Vec<usize> = fold["faces_vertices"][face]
                .as_array()
                .unwrap()
                .iter()
                .map(|at| usize::try_from(at.as_u64().unwrap()).unwrap())
                .collect();
            let at = |place: usize| places[face][&ring[place % ring.len()]];
            let sum = (0..ring.len()).fold(nalgebra::Vector3::zeros(), |sum, place| {
                sum + at(place).coords.cross(&at(place + 1).coords)
            });
            sum.normalize()
        };
        let layers: f64 = model.panels.iter().map(|panel| panel.lift).sum();
        for panel in 0..model.panels.len() {
            // Relative to the plate that its blank hangs on.
            let first =
                model.panels.iter().position(|p| p.part == model.panels[panel].part).unwrap();
            let want = pose.normal(first).dot(&pose.normal(panel));
            let got = normal(first).dot(&normal(panel));
            assert!(
                (want - got).abs() < 1e-3,
                "{} {}: {got} instead of {want}",
                structure.id,
                model.panels[panel].name
            );
            // It lies on the same side of that plate, as far from its plane: the sense of every fold.
            let above = |at: &nalgebra::Point3<f64>| (pose.0[first].inverse() * at).z;
            let ring = model.panels[panel].ring.iter();
            let want: f64 =
                ring.map(|at| above(&pose.point(panel, *at))).fold(0.0, |far, height| {
                    if f64::abs(height) > f64::abs(far) { height } else { far }
                });
            let base = places[first].values().next().unwrap();
            let heights = places[panel].values().map(|at| (at - base).dot(&normal(first)));
            let got: f64 =
                heights.fold(
                    0.0,
                    |far, height| if f64::abs(height) > f64::abs(far) { height } else { far },
                );
            assert!(
                (want - got).abs() < 0.2 + 2.0 * layers,
                "{} {}: {got} above instead of {want}",
                structure.id,
                model.panels[panel].name
            );
            // Distances between corners of the two are those of the proof.
            let corners = |of: usize| -> Vec<nalgebra::Point3<f64>> {
                let ring = &model.panels[of].ring;
                ring.iter().map(|at| pose.point(of, *at)).collect()
            };
            let far = |one: &[nalgebra::Point3<f64>], two: &[nalgebra::Point3<f64>]| {
                let all = one.iter().flat_map(|a| two.iter().map(move |b| (a - b).norm()));
                all.fold(0.0, f64::max)
            };
            let here = |of: usize| places[of].values().copied().collect::<Vec<_>>();
            let (want, got) =
                (far(&corners(first), &corners(panel)), far(&here(first), &here(panel)));
            assert!(
                (want - got).abs() < 0.1 + 2.0 * layers,
                "{} {}: {got} apart instead of {want}",
                structure.id,
                model.panels[panel].name
            );
        }
    }
}

#[test]
fn slits_inside_a_panel_are_cuts_of_the_creased_sheet() {
    let cuts = |structure: &str| {
        let prepared = prepared(structure, &[]);
        let fold: Value = serde_json::from_str(&written(prepared.first())).unwrap();
        let letters = fold["edges_assignment"].as_array().unwrap().clone();
        letters.iter().filter(|letter| *letter == "C").count()
    };
    // The tongue: two straight sides and a round tip.
    assert!(cuts("bookmark-clip") > 6);
    // The slit locks at the tucks' creases, two to each end.
    assert!(cuts("straight-tuck") >= 4);
    assert_eq!(cuts("four-corner-tray"), 0);
}

/// Every object of the file is closed: welded by place, each side of a triangle is walked once each way.
#[test]
fn objects_are_watertight() {
    for structure in CATALOGUE {
        let text = folded_obj(folding(prepared(structure.id, &[]).first()));
        let mut corners: Vec<&str> = Vec::new();
        let mut sides: BTreeMap<(&str, &str), i32> = BTreeMap::new();
        for line in text.lines() {
            if let Some(place) = line.strip_prefix("v ") {
                corners.push(place);
            } else if line.starts_with("o ") {
                assert!(sides.values().all(|count| *count == 0), "{} before {line}", structure.id);
                sides.clear();
            } else if let Some(face) = line.strip_prefix("f ") {
                let at: Vec<&str> =
                    face.split(' ').map(|n| corners[n.parse::<usize>().unwrap() - 1]).collect();
                for (a, b) in [(at[0], at[1]), (at[1], at[2]), (at[2], at[0])] {
                    *sides.entry((a, b)).or_default() += 1;
                    *sides.entry((b, a)).or_default() -= 1;
                }
            }
        }
        assert!(sides.values().all(|count| *count == 0), "{}", structure.id);
    }
}

/// glTF 2.0 through a loader that validates it, and its card weighed: thickness times area.
#[test]
fn the_folded_model_is_valid_and_holds_the_card() {
    for structure in ["straight-tuck", "lid-and-base", "icosahedron", "pillow", "gable"] {
        let prepared = prepared(structure, &[]);
        let text = folded_gltf("A piece", folding(prepared.first()), "#aa8844", "#ffffff");
        let (document, buffers, _) = gltf::import_slice(text.as_bytes()).unwrap();
        assert_eq!(document.nodes().count(), folding(prepared.first()).panels.len());
        assert_eq!(document.materials().count(), 3);
        let mut volume = 0.0;
        for mesh in document.meshes() {
            for primitive in mesh.primitives() {
                let reader = primitive.reader(|buffer| Some(&buffers[buffer.index()]));
                let points: Vec<[f32; 3]> = reader.read_positions().unwrap().collect();
                assert_eq!(reader.read_normals().unwrap().count(), points.len());
                let indices: Vec<u32> = reader.read_indices().unwrap().into_u32().collect();
                for three in indices.chunks_exact(3) {
                    let [a, b, c] = [0, 1, 2].map(|at| {
                        points[three[at] as usize].map(|metres| f64::from(metres) * 1000.0)
                    });
                    volume += (a[0] * (b[1] * c[2] - b[2] * c[1])
                        + a[1] * (b[2] * c[0] - b[0] * c[2])
                        + a[2] * (b[0] * c[1] - b[1] * c[0]))
                        / 6.0;
                }
            }
        }
        let card = prepared.first().flat.area() * folding(prepared.first()).caliper;
        assert!((volume - card).abs() < 0.02 * card, "{structure}: {volume} {card}");
    }
}

#[test]
fn the_object_file_stands_as_the_piece_does() {
    let prepared =
        prepared("four-corner-tray", &[("length", 100.0), ("width", 60.0), ("height", 30.0)]);
    let text = folded_obj(folding(prepared.first()));
    let corners: Vec<[f64; 3]> = text
        .lines()
        .filter_map(|line| line.strip_prefix("v "))
        .map(|line| {
            let numbers: Vec<f64> = line.split(' ').map(|n| n.parse().unwrap()).collect();
            [numbers[0], numbers[1], numbers[2]]
        })
        .collect();
    let span = |axis: usize| {
        let all = corners.iter().map(|corner| corner[axis]);
        all.clone().fold(f64::MIN, f64::max) - all.fold(f64::MAX, f64::min)
    };
    // Outside, y up: 100 + 4t, 30 + t, 60 + 2t.
    let t = folding(prepared.first()).caliper;
    for (axis, want) in [(0, 100.0 + 4.0 * t), (1, 30.0 + t), (2, 60.0 + 2.0 * t)] {
        assert!((span(axis) - want).abs() < 0.01, "{axis}: {} {want}", span(axis));
    }
    assert_eq!(
        text.lines().filter(|line| line.starts_with("o ")).count(),
        folding(prepared.first()).panels.len()
    );
    let most = corners.len();
    for face in text.lines().filter_map(|line| line.strip_prefix("f ")) {
        assert!(face.split(' ').all(|n| (1..=most).contains(&n.parse::<usize>().unwrap())));
    }
}

/// Every structure that folds, as FOLD and read back: the same lines, curves and kinds of cut with them, and closed the
/// same box around it. A reader that knows nothing of these has the flattened truth.
#[test]
fn a_structure_comes_back_from_fold_with_its_curves_and_folds_the_same() {
    let (mut folded, mut curved) = (0, 0);
    for structure in CATALOGUE {
        let prepared = prepared(structure.id, &[]);
        let piece = &prepared.pieces[0];
        let Some(model) = piece.formed.fold.as_ref() else { continue };
        let text = written(piece);
        let lines = brought(text.as_bytes(), 1).unwrap();
        assert_eq!(lines.unit, Some(1.0));
        let curves = |paths: &mut dyn Iterator<Item = &BezPath>| -> usize {
            let curved = |own: &&PathEl| matches!(own, PathEl::CurveTo(..) | PathEl::QuadTo(..));
            paths.map(|path| path.elements().iter().filter(curved).count()).sum()
        };
        let of_flat = curves(&mut piece.flat.parts.iter().flat_map(|part| {
            std::iter::once(&part.outline).chain(part.strokes.iter().map(|stroke| &stroke.path))
        }));
        assert_eq!(
            curves(&mut lines.lines.iter().map(|line| &line.path)),
            of_flat,
            "{}",
            structure.id
        );

        let key = guessed(&lines);
        let mut own = LineDrawing::new(BlobId("0".repeat(64)), Origin::default(), key)
            .folding_as(lines.folding.clone());
        own.read = ReadLines(Some(Arc::new(lines)));
        let flat = Form::of_drawing(own).draw(0.3, Unit::Mm).unwrap();
        let (before, after) = (piece.flat.area(), flat.area());
        assert!((before - after).abs() < 1e-3 * before, "{}: {before} {after}", structure.id);

        // Folded blank by blank it closes to the same size, curved panels with it.
        let is_one = piece.flat.parts.len() == 1;
        let (Some(same), true) = (FoldModel::new(&flat, model.caliper), is_one) else { continue };
        if same.panels.len() != model.panels.len() {
            continue;
        }
        let span = |model: &FoldModel| {
            let pose = Pose::at(model, model.closed());
            let corners = model.panels.iter().enumerate().flat_map(|(at, panel)| {
                panel.ring.iter().map(|own| pose.point(at, *own)).collect::<Vec<_>>()
            });
            let corners: Vec<_> = corners.collect();
            // Whichever way it lies: how far apart its farthest corners are.
            let mut far = 0.0f64;
            for (at, one) in corners.iter().enumerate() {
                for other in &corners[at + 1..] {
                    far = far.max((one - other).norm());
                }
            }
            far
        };
        folded += 1;
        let told = |model: &FoldModel| {
            model.steps.iter().map(|step| step.text.clone()).collect::<Vec<_>>()
        };
        assert_eq!(told(&same), told(model), "{}", structure.id);
        let in_way = prove(&same).on_the_way;
        assert!(in_way.is_none(), "{}: {in_way:?}", structure.id);
        curved += usize::from(same.panels.iter().any(|own| own.strip_of.is_some()));
        let (before, after) = (span(model), span(&same));
        assert!((before - after).abs() < 0.02 * before, "{}: {before} {after}", structure.id);
    }
    assert!(folded >= 10 && curved >= 1, "{folded}, {curved}");
}
