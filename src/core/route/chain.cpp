#include "core/route/chain.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/route/alignment.h"

namespace erdwerk::route {

namespace {

using geometry::Path;
using geometry::Segment;
using geometry::Vec2;

struct Found {
    std::size_t piece = 0;
    bool byStart = true;  ///< its start lies there
    double away = 0;
};

/// The straight or arc goes on, or ends sooner, in its own line up to a place on it.
Segment endingAt(const Segment& s, Vec2 place) {
    const auto arc = arcOf(s);
    if (!arc) return {s.start, place, {}};
    const double more = (azimuth(arc->centre, place) - azimuth(arc->centre, s.end)).signedTurn().radians();
    const Angle half = Angle::radians((arc->sweep.radians() + more) / 2);
    return {s.start, place, arc->centre + geometry::directionOf(arc->startAzimuth + half) * arc->radius};
}

/// Where the lines of two straights cross.
std::optional<Vec2> linesMeet(const Segment& a, const Segment& b) {
    const Vec2 along = a.end - a.start;
    const Vec2 other = b.end - b.start;
    const double d = cross(along, other);
    if (std::abs(d) < 1e-3 * length(along) * length(other)) return std::nullopt;
    return a.start + along * (cross(b.start - a.start, other) / d);
}

/// Where the line of a straight crosses the circle of an arc at a clear angle, nearest to a place.
std::optional<Vec2> lineMeetsCircle(const Segment& straight, const geometry::Arc& arc, Vec2 near) {
    const Vec2 along = (straight.end - straight.start) * (1 / lengthOf(straight));
    const Vec2 foot = straight.start + along * dot(arc.centre - straight.start, along);
    const double off = geometry::distance(foot, arc.centre) / arc.radius;
    if (off > 0.998) return std::nullopt;  // below 3.6 degrees
    const Vec2 half = along * (arc.radius * std::sqrt(1 - off * off));
    const Vec2 ahead = foot + half;
    const Vec2 behind = foot - half;
    return geometry::distance(ahead, near) < geometry::distance(behind, near) ? ahead : behind;
}

/// Where two elements meet when they are lengthened or shortened in their own lines; nothing when that is
/// farther from either end than three times the gap, or neither of them is a straight.
std::optional<Vec2> lengthenedMeet(const Segment& a, const Segment& b, double gap) {
    const auto first = arcOf(a);
    const auto second = arcOf(b);
    std::optional<Vec2> at;
    if (!isCurved(a) && !isCurved(b))
        at = linesMeet(a, b);
    else if (!isCurved(a) && second)
        at = lineMeetsCircle(a, *second, b.start);
    else if (first && !isCurved(b))
        at = lineMeetsCircle(b, *first, a.end);
    const double most = 3 * gap;
    if (!at || geometry::distance(*at, a.end) > most || geometry::distance(*at, b.start) > most ||
        most > lengthOf(a) / 2 || most > lengthOf(b) / 2)
        return std::nullopt;
    return at;
}

class Chainer {
public:
    Chainer(const std::vector<ChainPiece>& pieces, double gap)
        : pieces_(pieces), gap_(gap), used_(pieces.size(), false) {}

    Result<Chained> run() {
        use(0, false, true);
        for (const bool onwards : {true, false})
            while (true) {
                const Vec2 at = onwards ? out_.path.back().end : out_.path.front().start;
                // A line that is closed ends where it begins.
                if (geometry::distance(out_.path.back().end, out_.path.front().start) <= gap_ && left() == 0)
                    break;
                const auto found = endsAt(at);
                if (found.empty()) break;
                if (found.size() > 1)
                    return badInput("'" + pieces_[found[0].piece].name + "' and '" +
                                    pieces_[found[1].piece].name + "' both go on from " + place(at) +
                                    ": pick one of them");
                out_.largestGap = std::max(out_.largestGap, found[0].away);
                use(found[0].piece, found[0].byStart != onwards, onwards);
            }
        if (left() > 0) return badInput(missed());
        for (std::size_t k = 0; k + 1 < out_.path.size(); ++k) close(k);
        return std::move(out_);
    }

private:
    static std::string place(Vec2 p) {
        char text[64];
        std::snprintf(text, sizeof text, "%.3f, %.3f", p.x, p.y);
        return text;
    }

    [[nodiscard]] std::size_t left() const {
        return static_cast<std::size_t>(std::count(used_.begin(), used_.end(), false));
    }

    [[nodiscard]] std::vector<Found> endsAt(Vec2 at) const {
        std::vector<Found> out;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (used_[i]) continue;
            const double a = geometry::distance(pieces_[i].path.front().start, at);
            const double b = geometry::distance(pieces_[i].path.back().end, at);
            if (std::min(a, b) <= gap_) out.push_back({i, a <= b, std::min(a, b)});
        }
        return out;
    }

    /// Puts a piece at the end (or the beginning).
    void use(std::size_t i, bool turned, bool onwards) {
        used_[i] = true;
        Path path = turned ? geometry::reversed(pieces_[i].path) : pieces_[i].path;
        const auto where = onwards ? out_.order.end() : out_.order.begin();
        out_.order.insert(where, i);
        out_.turned.insert(onwards ? out_.turned.end() : out_.turned.begin(), turned);
        out_.path.insert(onwards ? out_.path.end() : out_.path.begin(), path.begin(), path.end());
    }

    /// Makes the element behind a joint begin where the one before it ends.
    void close(std::size_t k) {
        Segment& a = out_.path[k];
        Segment& b = out_.path[k + 1];
        const double gap = geometry::distance(a.end, b.start);
        if (gap == 0) return;
        ClosedJoint joint{k + 1, a.end, gap, ClosedJoint::By::Lengthened, {}};
        if (const auto at = lengthenedMeet(a, b, gap)) {
            a = endingAt(a, *at);
            b = reversed(endingAt(reversed(b), *at));
        } else if (!isCurved(a) && isCurved(b)) {
            joint.turn = azimuth(a.start, b.start) - azimuth(a.start, a.end);
            a.end = b.start;
        } else if (!isCurved(b)) {
            joint.turn = azimuth(a.end, b.end) - azimuth(b.start, b.end);
            b.start = a.end;
        } else {
            const Vec2 by = a.end - b.start;
            b.start = a.end;
            b.end = b.end + by;
            if (b.through) b.through = *b.through + by;
            joint.by = ClosedJoint::By::Shifted;
        }
        joint.place = b.start;
        joint.turn = joint.turn.signedTurn();
        if (std::abs(joint.turn.radians()) > tangencyTolerance.radians()) joint.by = ClosedJoint::By::Turned;
        constexpr double rounding = 1e-7;
        if (gap > rounding) out_.closed.push_back(joint);
    }

    [[nodiscard]] std::string missed() const {
        std::string names;
        double nearest = 1e300;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (used_[i]) continue;
            names += (names.empty() ? "'" : ", '") + pieces_[i].name + "'";
            for (const Vec2 end : {out_.path.front().start, out_.path.back().end})
                for (const Vec2 own : {pieces_[i].path.front().start, pieces_[i].path.back().end})
                    nearest = std::min(nearest, geometry::distance(end, own));
        }
        char text[64];
        std::snprintf(text, sizeof text, "%.3f", nearest);
        return "these do not chain with the others: " + names + "; the nearest end is " + text + " away";
    }

    const std::vector<ChainPiece>& pieces_;
    double gap_;
    std::vector<bool> used_;
    Chained out_;
};

}  // namespace

std::string_view wordFor(ClosedJoint::By by) {
    switch (by) {
        case ClosedJoint::By::Lengthened:
            return "lengthened";
        case ClosedJoint::By::Turned:
            return "turned";
        case ClosedJoint::By::Shifted:
            break;
    }
    return "shifted";
}

Result<Chained> chained(const std::vector<ChainPiece>& pieces, double gap) {
    if (pieces.empty()) return badInput("there are no lines");
    for (const ChainPiece& p : pieces)
        if (p.path.empty()) return badInput("'" + p.name + "' has no sides");
    return Chainer(pieces, gap).run();
}

bool runsAgainstUsual(const geometry::Path& path) {
    if (path.empty()) return false;
    const Vec2 way = path.back().end - path.front().start;
    return std::abs(way.x) >= std::abs(way.y) ? way.x < 0 : way.y < 0;
}

}  // namespace erdwerk::route
