//! Plain figures of our own making: nobody in particular. Head and body are smooth bodies, in heights of the figure, made
//! into triangles once. Proportions are the usual ones of a grown person, from memory.
//!
//! A figure stands over the origin and looks along +y, its right along +x, z up; its eyes are 0.94 of its height up and
//! 0.065 before the middle of its head.

use std::sync::OnceLock;

use glam::Vec3A;

use super::field::{Form, Part, Stuff, stuff};
use super::mesh::{Cells, Mesh};

/// How the hair is worn.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Hair {
    /// Short.
    Short,
    /// To the shoulders.
    Long,
    /// Up, in a knot.
    Knot,
}

impl Hair {
    /// Every way.
    pub const ALL: [Self; 3] = [Self::Short, Self::Long, Self::Knot];
}

/// One piece of a figure: its surface, and what it is of where.
pub struct Piece {
    /// Its surface.
    pub mesh: Mesh,
    parts: Vec<Part>,
}

impl Piece {
    fn of(parts: Vec<Part>, cells: Cells) -> Self {
        Self { mesh: Mesh::of(&parts, cells), parts }
    }

    /// What it is of at a point of its surface.
    pub fn stuff(&self, at: Vec3A) -> Stuff {
        stuff(&self.parts, at)
    }
}

/// An eye: the middle of its ball and its radius; the right one has the larger x.
pub const EYES: [Vec3A; 2] = [Vec3A::new(-0.0180, 0.0415, 0.9385), Vec3A::new(0.0180, 0.0415, 0.9385)];
/// The radius of an eye's ball.
pub const EYE: f32 = 0.0074;
/// How far down everything is of somebody who sits.
const SEAT: f32 = 0.22;
/// The head's grid ends here, within the collar.
const NECK: f32 = 0.815;

const fn at(x: f32, y: f32, z: f32) -> Vec3A {
    Vec3A::new(x, y, z)
}

fn ball(centre: Vec3A, radius: f32) -> Form {
    Form::Ball { centre, radius }
}

fn egg(centre: Vec3A, radii: Vec3A) -> Form {
    Form::Ellipsoid { centre, radii }
}

fn rod(from: Vec3A, to: Vec3A, radii: [f32; 2]) -> Form {
    Form::Rod { from, to, radii }
}

/// Parts that are added one after the other.
struct Body(Vec<Part>);

impl Body {
    fn add(&mut self, stuff: Stuff, soft: f32, form: Form) {
        self.0.push(Part { form, stuff, soft, cut_out: false, tint: false });
    }

    /// Something small that is seen by its colour.
    fn tint(&mut self, stuff: Stuff, soft: f32, form: Form) {
        self.0.push(Part { form, stuff, soft, cut_out: false, tint: true });
    }

    fn cut(&mut self, soft: f32, form: Form) {
        self.0.push(Part { form, stuff: Stuff::Skin, soft, cut_out: true, tint: false });
    }

    /// The same on both sides.
    fn both(&mut self, stuff: Stuff, soft: f32, form: impl Fn(f32) -> Form) {
        for side in [-1.0, 1.0] {
            self.add(stuff, soft, form(side));
        }
    }
}

fn head(hair: Hair) -> Vec<Part> {
    let mut head = Body(Vec::new());
    // The skull, the jaw and the chin.
    head.add(Stuff::Skin, 0.0, egg(at(0.0, -0.004, 0.950), at(0.0430, 0.0550, 0.0500)));
    head.add(Stuff::Skin, 0.022, egg(at(0.0, 0.018, 0.910), at(0.0325, 0.0345, 0.0385)));
    head.both(Stuff::Skin, 0.018, |side| {
        rod(at(side * 0.033, -0.002, 0.910), at(side * 0.012, 0.036, 0.884), [0.0070, 0.0080])
    });
    head.add(Stuff::Skin, 0.014, ball(at(0.0, 0.0405, 0.8800), 0.0092));
    // Cheeks, brow and the sockets of the eyes.
    head.both(Stuff::Skin, 0.022, |side| ball(at(side * 0.0235, 0.0325, 0.9170), 0.0120));
    head.both(Stuff::Skin, 0.016, |side| {
        rod(at(side * 0.007, 0.0480, 0.9515), at(side * 0.0250, 0.0400, 0.9530), [0.0045, 0.0048])
    });
    for side in [-1.0, 1.0] {
        head.cut(0.014, egg(at(side * 0.0180, 0.0570, 0.9380), at(0.0110, 0.0085, 0.0070)));
    }
    // The nose.
    head.add(Stuff::Skin, 0.012, rod(at(0.0, 0.0480, 0.9450), at(0.0, 0.0620, 0.9190), [0.0036, 0.0056]));
    head.both(Stuff::Skin, 0.007, |side| ball(at(side * 0.0066, 0.0545, 0.9165), 0.0042));
    // Lids over the eyes, and the slit between them.
    for (side, eye) in [-1.0, 1.0].into_iter().zip(EYES) {
        head.add(Stuff::Skin, 0.006, ball(eye - at(0.0, 0.0004, 0.0), EYE + 0.0015));
        head.cut(0.0016, egg(eye + at(side * 0.0002, 0.0085, -0.0007), at(0.0074, 0.0075, 0.0029)));
    }
    // The lips, and the line between them.
    head.add(Stuff::Skin, 0.012, egg(at(0.0, 0.0425, 0.8990), at(0.0150, 0.0085, 0.0100)));
    head.tint(Stuff::Lips, 0.004, egg(at(0.0, 0.0492, 0.9008), at(0.0105, 0.0040, 0.0024)));
    head.tint(Stuff::Lips, 0.004, egg(at(0.0, 0.0492, 0.8958), at(0.0088, 0.0040, 0.0028)));
    head.cut(0.0018, egg(at(0.0, 0.0540, 0.8985), at(0.0095, 0.0035, 0.0006)));
    // The ears.
    head.both(Stuff::Skin, 0.005, |side| egg(at(side * 0.0435, -0.0060, 0.9330), at(0.0050, 0.0110, 0.0175)));
    head.add(Stuff::Skin, 0.020, rod(at(0.0, -0.018, 0.790), at(0.0, -0.009, 0.885), [0.0325, 0.0285]));
    dress_hair(&mut head, hair);
    head.0
}

fn dress_hair(head: &mut Body, hair: Hair) {
    // Brows of the eyes.
    for side in [-1.0, 1.0] {
        let brow = rod(at(side * 0.0085, 0.0521, 0.9542), at(side * 0.0245, 0.0464, 0.9546), [0.0012, 0.0007]);
        head.tint(Stuff::Hair, 0.003, brow);
    }
    let soft = 0.007;
    head.add(Stuff::Hair, soft, egg(at(0.0, -0.0130, 0.9690), at(0.0462, 0.0535, 0.0395)));
    head.add(Stuff::Hair, soft, egg(at(0.0, -0.0240, 0.9420), at(0.0455, 0.0400, 0.0440)));
    // What falls over the forehead, parted to one side.
    head.add(Stuff::Hair, 0.012, egg(at(0.0100, 0.0180, 0.9880), at(0.0330, 0.0260, 0.0150)));
    head.add(Stuff::Hair, 0.010, egg(at(-0.0240, 0.0120, 0.9840), at(0.0170, 0.0260, 0.0150)));
    match hair {
        Hair::Short => {}
        Hair::Long => {
            head.both(Stuff::Hair, 0.014, |side| {
                rod(at(side * 0.0400, -0.0120, 0.9600), at(side * 0.0400, -0.0220, 0.8640), [0.0120, 0.0125])
            });
            head.add(Stuff::Hair, 0.024, rod(at(0.0, -0.0400, 0.9600), at(0.0, -0.0420, 0.8660), [0.0300, 0.0270]));
        }
        Hair::Knot => head.add(Stuff::Hair, 0.008, ball(at(0.0, -0.0470, 1.0000), 0.0190)),
    }
}

fn body(seated: bool) -> Vec<Part> {
    let down = if seated { SEAT } else { 0.0 };
    let mut body = Body(Vec::new());
    let up = |x: f32, y: f32, z: f32| at(x, y, z - down);
    // A collar, and from it down to the shoulders.
    body.add(Stuff::Shirt, 0.0, egg(up(0.0, -0.018, 0.822), at(0.0400, 0.0390, 0.0230)));
    body.both(Stuff::Shirt, 0.030, |side| {
        rod(up(side * 0.016, -0.022, 0.826), up(side * 0.090, -0.018, 0.798), [0.0240, 0.0290])
    });
    body.add(Stuff::Shirt, 0.040, egg(up(0.0, -0.006, 0.725), at(0.0900, 0.0600, 0.1050)));
    body.add(Stuff::Shirt, 0.040, egg(up(0.0, -0.004, 0.610), at(0.0800, 0.0550, 0.1150)));
    body.add(Stuff::Trousers, 0.030, egg(up(0.0, -0.006, 0.530), at(0.0880, 0.0600, 0.0560)));
    let (elbow, wrist) = if seated {
        (at(0.124, 0.020, 0.395), at(0.085, 0.145, 0.335))
    } else {
        (at(0.120, -0.024, 0.632), at(0.122, 0.016, 0.492))
    };
    body.both(Stuff::Shirt, 0.022, |side| {
        rod(up(side * 0.098, -0.018, 0.792), elbow * at(side, 1.0, 1.0), [0.0300, 0.0250])
    });
    body.both(Stuff::Shirt, 0.008, |side| {
        rod(elbow * at(side, 1.0, 1.0), wrist * at(side, 1.0, 1.0), [0.0245, 0.0190])
    });
    let fingers = wrist + if seated { at(-0.030, 0.050, -0.015) } else { at(0.0, 0.010, -0.055) };
    body.both(Stuff::Skin, 0.004, |side| {
        rod(wrist * at(side, 1.0, 1.0), fingers * at(side, 1.0, 1.0), [0.0140, 0.0130])
    });
    let hip = |side: f32| up(side * 0.048, -0.004, 0.505);
    let (knee, ankle) = if seated {
        (at(0.058, 0.225, 0.275), at(0.058, 0.215, 0.045))
    } else {
        (at(0.050, 0.004, 0.285), at(0.050, -0.012, 0.045))
    };
    body.both(Stuff::Trousers, 0.014, |side| rod(hip(side), knee * at(side, 1.0, 1.0), [0.0530, 0.0380]));
    body.both(Stuff::Trousers, 0.012, |side| {
        rod(knee * at(side, 1.0, 1.0), ankle * at(side, 1.0, 1.0), [0.0370, 0.0270])
    });
    let (heel, toe) =
        (ankle * at(1.0, 1.0, 0.0) + at(0.0, -0.010, 0.018), ankle * at(1.0, 1.0, 0.0) + at(0.004, 0.085, 0.014));
    body.both(Stuff::Shoes, 0.012, |side| rod(heel * at(side, 1.0, 1.0), toe * at(side, 1.0, 1.0), [0.0200, 0.0170]));
    if seated {
        // A stool of the same stuff as the shoes: dark.
        body.add(Stuff::Shoes, 0.004, egg(at(0.0, 0.010, 0.235), at(0.105, 0.105, 0.016)));
        body.add(Stuff::Shoes, 0.004, rod(at(0.0, 0.0, 0.235), at(0.0, 0.0, 0.0), [0.0150, 0.0150]));
        body.add(Stuff::Shoes, 0.004, egg(at(0.0, 0.0, 0.0), at(0.095, 0.095, 0.012)));
    }
    body.0
}

/// The head of a figure that stands, by how it wears its hair.
pub fn head_of(hair: Hair) -> &'static Piece {
    static HEADS: [OnceLock<Piece>; 3] = [const { OnceLock::new() }; 3];
    let cells = Cells { least: at(-0.070, -0.085, NECK), most: at(0.070, 0.085, 1.035), size: 0.0022 };
    HEADS[hair as usize].get_or_init(|| Piece::of(head(hair), cells))
}

/// A body that stands or sits, without its head.
pub fn body_of(seated: bool) -> &'static Piece {
    static BODIES: [OnceLock<Piece>; 2] = [const { OnceLock::new() }; 2];
    let least = at(-0.180, -0.110, -0.020);
    let most = if seated { at(0.180, 0.340, 0.880 - SEAT) } else { at(0.180, 0.130, 0.880) };
    BODIES[usize::from(seated)].get_or_init(|| Piece::of(body(seated), Cells { least, most, size: 0.0056 }))
}

/// How far a seated figure's head is down from a standing one's.
pub fn seated_by(seated: bool) -> f32 {
    if seated { SEAT } else { 0.0 }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::proof::body::ray;
    use rstest::rstest;

    #[rstest]
    #[case::nose([0.0, 1.0, 0.917], 0.071, Stuff::Skin)]
    #[case::forehead([0.0, 1.0, 0.965], 0.052, Stuff::Skin)]
    #[case::lower_lip([0.0, 1.0, 0.8957], 0.054, Stuff::Lips)]
    #[case::chin([0.0, 1.0, 0.879], 0.053, Stuff::Skin)]
    #[case::crown([0.0, 1.0, 0.990], 0.043, Stuff::Hair)]
    fn a_face_has_its_parts(#[case] from: [f32; 3], #[case] met: f32, #[case] of: Stuff) {
        let head = head_of(Hair::Short);
        let (far, looks) = head.mesh.hit(&ray(Vec3A::from(from), -Vec3A::Y, 0.0, 9.0)).expect("the face");
        assert!((1.0 - far - met).abs() < 0.006, "{}", 1.0 - far);
        assert!(looks.y > 0.2);
        assert_eq!(head.stuff(Vec3A::from(from) - Vec3A::Y * far), of);
    }

    #[test]
    fn eyes_lie_open() {
        let head = head_of(Hair::Knot);
        for eye in EYES {
            let ray = ray(Vec3A::new(eye.x, 1.0, eye.z), -Vec3A::Y, 0.0, 9.0);
            let lid = 1.0 - head.mesh.hit(&ray).expect("behind it").0;
            assert!(eye.y + EYE > lid + 0.001, "{lid}");
        }
    }

    #[test]
    fn a_figure_is_about_as_wide_as_a_person() {
        let standing = body_of(false);
        let shoulder = standing.mesh.hit(&ray(Vec3A::new(-1.0, -0.015, 0.78), Vec3A::X, 0.0, 9.0)).expect("a shoulder");
        // Shoulders are about a quarter of the height wide.
        assert!((1.0 - shoulder.0 - 0.13).abs() < 0.02, "{}", 1.0 - shoulder.0);
        assert!(standing.mesh.len() > 10_000 && head_of(Hair::Long).mesh.len() > 10_000);
        let sitting = body_of(true);
        let knee = sitting.mesh.hit(&ray(Vec3A::new(0.058, 1.0, 0.275), -Vec3A::Y, 0.0, 9.0)).expect("a knee");
        assert!(1.0 - knee.0 > 0.2 && seated_by(true) > seated_by(false));
    }
}
