#include "core/route/chain.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace erdwerk::route {

namespace {

using geometry::Path;
using geometry::Vec2;

struct Found {
    std::size_t piece = 0;
    bool byStart = true;  ///< its start lies there
    double away = 0;
};

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

    /// Puts a piece at the end (or the beginning), moved to meet it.
    void use(std::size_t i, bool turned, bool onwards) {
        used_[i] = true;
        Path path = turned ? geometry::reversed(pieces_[i].path) : pieces_[i].path;
        const auto where = onwards ? out_.order.end() : out_.order.begin();
        out_.order.insert(where, i);
        out_.turned.insert(onwards ? out_.turned.end() : out_.turned.begin(), turned);
        if (!out_.path.empty() && onwards)
            path.front() = between(path.front(), out_.path.back().end, path.front().end);
        else if (!out_.path.empty())
            path.back() = between(path.back(), path.back().start, out_.path.front().start);
        out_.path.insert(onwards ? out_.path.end() : out_.path.begin(), path.begin(), path.end());
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
