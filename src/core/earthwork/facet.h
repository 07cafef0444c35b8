#pragma once
// One face of a batter: the plane beside a side of the edge (or a facet of the cone about a corner), stepped
// by berms, in coordinates of its own: s along the side, d outwards at right angles to it.

#include <optional>
#include <vector>

#include "core/earthwork/batter.h"

namespace erdwerk::earthwork {

/// A place in the coordinates of a face.
struct Along {
    double s = 0;
    double d = 0;
};

/// A plane over those coordinates, and the straight on which it begins: d = startAtZero + startSlope * s.
struct Strip {
    double atOrigin = 0;
    double alongS = 0;
    double alongD = 0;
    double startAtZero = 0;
    double startSlope = 0;
    [[nodiscard]] double height(Along p) const { return atOrigin + alongS * p.s + alongD * p.d; }
    [[nodiscard]] double start(double s) const { return startAtZero + startSlope * s; }
};

/// The rim of a face to one side: from the edge outwards, d growing from knot to knot, and on in `onwards`.
struct Flank {
    std::vector<Along> knots;  ///< the first is the end of the side
    Along onwards{0, 1};       ///< d > 0
    bool isMeeting = false;    ///< the two faces at the corner meet along it
    /// Where it stands at a d; extended below the first knot.
    [[nodiscard]] double at(double d) const;
};

struct Facet {
    Vec2 origin;
    Vec2 along;  ///< unit
    Vec2 out;    ///< unit, at right angles to it
    double length = 0;
    double way = 1;             ///< +1 rises, -1 falls
    std::vector<Strip> strips;  ///< outwards; the first begins at the edge
    Flank first;                ///< at s = 0
    Flank last;                 ///< at s = length
    double distance = 0;        ///< along the edge, where the side begins
    std::size_t side = 0;       ///< of the edge
    bool ofCone = false;
    double scale = 1;  ///< of a distance from the edge, in d
    double reach = 0;  ///< how far outwards it is within 0.01 of what it stands for; 0: as far as it goes
    /// Stretches of its side, from and to in s, from which it goes out to the target.
    std::vector<std::pair<double, double>> starts;

    [[nodiscard]] Along own(Vec2 p) const {
        const Vec2 v = p - origin;
        return {geometry::dot(v, along), geometry::dot(v, out)};
    }
    [[nodiscard]] Vec2 place(Along p) const { return origin + along * p.s + out * p.d; }
    /// Which strip is there; on a border the inner one.
    [[nodiscard]] std::size_t stripAt(Along p) const {
        std::size_t k = 0;
        while (k + 1 < strips.size() && p.d > strips[k + 1].start(p.s)) ++k;
        return k;
    }
    [[nodiscard]] double height(Along p) const { return strips[stripAt(p)].height(p); }
    /// Up from the face to a height when it rises, down when it falls: > 0 while it has not got there.
    [[nodiscard]] double gap(Along p, double height) const { return way * (height - this->height(p)); }
};

/// Steps a plane through the edge (heights at s = 0, along s, and outwards) by the berms that lie on its way.
/// `scale`: widths in the face's d. BadInput when the side passes the height of a berm.
Result<std::vector<Strip>> stripsOf(const Strip& plane, double length, const std::vector<Berm>& berms,
                                    double scale = 1);

/// Along which two faces meet that begin at the same corner, outwards from it, in the first one's
/// coordinates; nothing when their planes never meet outside.
std::optional<Flank> meetingFlank(const Facet& a, const Facet& b, Vec2 corner);

/// Somewhere on its way out it goes to this side: +1 along s, -1 against it.
bool leansTo(const Flank& flank, double side);
/// It leans to one side all the way out.
bool leansOneWay(const Flank& flank);

/// The same flank in another face's coordinates.
Flank flankOn(const Flank& flank, const Facet& from, const Facet& to);

}  // namespace erdwerk::earthwork
