#include "core/annotate/text_places.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <utility>

namespace erdwerk::annotate {

namespace {

constexpr double pi = std::numbers::pi;

double lengthOf(const std::vector<Vec2>& line) {
    double out = 0;
    for (std::size_t i = 1; i < line.size(); ++i) out += geometry::distance(line[i - 1], line[i]);
    return out;
}

Vec2 turnedBy(Vec2 v, double turn) {
    return {v.x * std::cos(turn) - v.y * std::sin(turn), v.x * std::sin(turn) + v.y * std::cos(turn)};
}

Stand otherSide(Stand stand) {
    return stand == Stand::Above ? Stand::Below : stand == Stand::Below ? Stand::Above : stand;
}

/// Lines that stand in the same place are stacked outwards: how far the middle of each is from the line,
/// negative above it, without what a curve pushes out.
std::vector<double> stacked(const std::vector<TextLine>& texts) {
    std::vector<double> out(texts.size(), 0);
    const auto together = [](const TextLine& a, const TextLine& b) {
        return a.stand == b.stand && a.along == b.along;
    };
    for (std::size_t i = 0; i < texts.size(); ++i) {
        const TextLine& t = texts[i];
        if (t.stand == Stand::InLine) {
            double before = 0;
            double all = 0;
            for (std::size_t j = 0; j < texts.size(); ++j) {
                if (!together(texts[j], t)) continue;
                all += texts[j].height;
                if (j < i) before += texts[j].height;
            }
            out[i] = before + t.height / 2 - all / 2;
            continue;
        }
        // Above, the last line is nearest; below, the first is.
        double inside = 0;
        double gap = t.gap;
        for (std::size_t j = 0; j < texts.size(); ++j) {
            const bool nearer = t.stand == Stand::Above ? j > i : j < i;
            if (!nearer || !together(texts[j], t)) continue;
            inside += texts[j].height;
            gap = std::max(gap, texts[j].gap);
        }
        const double off = gap + inside + t.height / 2;
        out[i] = t.stand == Stand::Above ? -off : off;
    }
    return out;
}

/// How far a line bulges to a side (−1: above) within the width of a text that stands at a place on it.
double bulge(const std::vector<Vec2>& line, const OnLine& at, double width, int side) {
    double out = 0;
    const auto local = [&](Vec2 p) { return turnedBy(p - at.place, -at.turn); };
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const Vec2 a = local(line[i]);
        const Vec2 b = local(line[i + 1]);
        // The ends of the piece that lies within the width.
        const double low = std::max(std::min(a.x, b.x), -width / 2);
        const double high = std::min(std::max(a.x, b.x), width / 2);
        if (low > high) continue;
        for (const double x : {low, high}) {
            const double t = b.x == a.x ? 0 : (x - a.x) / (b.x - a.x);
            out = std::max(out, side * (a.y + t * (b.y - a.y)));
        }
    }
    return out;
}

/// Texts along a line, moved along it by a share of its length.
class AlongLine {
public:
    AlongLine(const std::vector<Vec2>& line, double length) : line_(line), length_(length) {}

    [[nodiscard]] Candidate at(const std::vector<TextLine>& texts, double slide, Way way) const {
        Candidate out;
        out.way = static_cast<std::uint8_t>(way);
        const auto off = stacked(texts);
        for (std::size_t i = 0; i < texts.size(); ++i) {
            const TextLine& t = texts[i];
            const double room = length_ - t.width;
            // From the start of the text to its end: at 0 it begins with the line, at 1 it ends with it.
            const double middle =
                room >= 0 ? t.width / 2 + std::clamp(t.along + slide, 0.0, 1.0) * room : length_ / 2;
            const OnLine on = alongLine(line_, length_ > 0 ? middle / length_ : 0.5);
            double y = off[i];
            if (t.stand != Stand::InLine) {
                const int side = y < 0 ? -1 : 1;
                y += side * bulge(line_, on, t.width, side);
            }
            out.boxes.push_back(
                {on.place + turnedBy({0, y}, on.turn), t.width, t.height, on.turn, t.stand == Stand::InLine});
        }
        return out;
    }

private:
    const std::vector<Vec2>& line_;
    double length_;
};

/// All texts level below each other round a middle.
std::vector<TextBox> block(Vec2 middle, const std::vector<TextLine>& texts) {
    double height = 0;
    for (const TextLine& t : texts) height += t.height;
    std::vector<TextBox> out;
    out.reserve(texts.size());
    double y = middle.y - height / 2;
    for (const TextLine& t : texts) {
        out.push_back({{middle.x, y + t.height / 2}, t.width, t.height, 0, false});
        y += t.height;
    }
    return out;
}

struct Extent {
    double width = 0;
    double height = 0;
};
Extent blockSize(const std::vector<TextLine>& texts) {
    Extent out;
    for (const TextLine& t : texts) {
        out.width = std::max(out.width, t.width);
        out.height += t.height;
    }
    return out;
}

/// The place on the rim of a block that is nearest to another one, a little off it.
Vec2 rimTowards(Vec2 middle, const Extent& size, Vec2 to) {
    const Vec2 v = to - middle;
    const double halfWidth = size.width / 2 + 0.15 * size.height;
    const double halfHeight = size.height * 0.55;
    const double share = std::min(
        {v.x == 0 ? 1.0 : halfWidth / std::abs(v.x), v.y == 0 ? 1.0 : halfHeight / std::abs(v.y), 1.0});
    return middle + v * share;
}

void addLeaders(PlacedText& out, Vec2 at, double radius, const std::vector<TextLine>& texts,
                const std::vector<double>& turns) {
    const Extent size = blockSize(texts);
    const double line = texts.empty() ? 1 : texts.front().height;
    for (const double far : {1.4, 2.6, 4.2})
        for (const double turn : turns) {
            const Vec2 away{std::cos(turn), std::sin(turn)};
            // So far that the near side of the block lies there.
            const double reach =
                radius + far * line + std::abs(away.x) * size.width / 2 + std::abs(away.y) * size.height / 2;
            const Vec2 middle = at + away * reach;
            Candidate c;
            c.way = static_cast<std::uint8_t>(Way::Leader);
            c.boxes = block(middle, texts);
            c.leader = Leader{at + away * (radius + 0.1 * line), rimTowards(middle, size, at)};
            out.candidates.push_back(std::move(c));
        }
}

}  // namespace

OnLine alongLine(const std::vector<Vec2>& line, double share) {
    double left = std::clamp(share, 0.0, 1.0) * lengthOf(line);
    for (std::size_t i = 1; i < line.size(); ++i) {
        const Vec2 side = line[i] - line[i - 1];
        const double length = geometry::length(side);
        if (left <= length || i + 1 == line.size())
            return {line[i - 1] + side * (length > 0 ? std::min(left / length, 1.0) : 0.0),
                    std::atan2(side.y, side.x)};
        left -= length;
    }
    return {line.front(), 0};
}

PlacedText placesAlong(const std::vector<Vec2>& line, const std::vector<TextLine>& texts,
                       const std::optional<TextLine>& tag) {
    PlacedText out;
    out.own = line;
    const double length = lengthOf(line);
    double widest = 0;
    for (const TextLine& t : texts) widest = std::max(widest, t.width);
    const AlongLine along(line, length);
    auto flipped = texts;
    for (TextLine& t : flipped) t.stand = otherSide(t.stand);
    // The order of lines is that of reading, on either side.
    constexpr std::array<double, 7> slides{0, 0.2, -0.2, 0.4, -0.4, 0.5, -0.5};
    if (widest <= length)
        for (const std::vector<TextLine>* way : {&texts, &std::as_const(flipped)})
            for (const double slide : slides)
                out.candidates.push_back(
                    along.at(*way, slide, way == &texts && slide == 0 ? Way::AsStyled : Way::Moved));
    const auto addTags = [&] {
        if (!tag || tag->width > length) return;
        for (const Stand stand : {Stand::Above, Stand::Below}) {
            TextLine t = *tag;
            t.stand = stand;
            for (const double slide : {0.0, 0.4, -0.4})
                out.candidates.push_back(along.at({t}, slide, Way::Tag));
        }
    };
    if (widest > length) addTags();
    if (length > 0) {
        const OnLine middle = alongLine(line, 0.5);
        std::vector<double> turns;
        for (const double by : {-pi / 2, pi / 2, -pi / 4, pi / 4, -3 * pi / 4, 3 * pi / 4})
            turns.push_back(middle.turn + by);
        addLeaders(out, middle.place, 0, texts, turns);
        // What no straight stretch holds may be named from a little farther off.
        if (tag && widest > length) addLeaders(out, middle.place, 0, {*tag}, turns);
        for (auto& c : out.candidates)
            if (tag && c.boxes.size() == 1 && texts.size() != 1 && c.leader)
                c.way = static_cast<std::uint8_t>(Way::Tag);
    }
    if (widest <= length) addTags();
    return out;
}

PlacedText placesBeside(Vec2 at, double radius, const std::vector<TextLine>& texts, bool leaders) {
    PlacedText out;
    const auto add = [&](std::vector<TextLine> styled, Way way) {
        Candidate c;
        c.way = static_cast<std::uint8_t>(way);
        const auto off = stacked(styled);
        for (std::size_t i = 0; i < styled.size(); ++i) {
            const TextLine& t = styled[i];
            const bool inLine = t.stand == Stand::InLine;
            // In line with the symbol a text stands clear of it; above and below it may begin over it.
            const double clear = inLine ? radius + t.gap : 0;
            const double x = t.along == 0.5 && inLine ? radius + t.gap + t.width / 2
                                                      : (t.along - 0.5) * (t.width + 2 * clear);
            const double y = inLine ? off[i] : off[i] + (off[i] < 0 ? -radius : radius);
            c.boxes.push_back({at + Vec2{x, y}, t.width, t.height, 0, false});
        }
        out.candidates.push_back(std::move(c));
    };
    add(texts, Way::AsStyled);
    auto mirrored = texts;
    for (TextLine& t : mirrored) t.along = 1 - t.along;
    auto flipped = texts;
    for (TextLine& t : flipped) t.stand = otherSide(t.stand);
    auto both = mirrored;
    for (TextLine& t : both) t.stand = otherSide(t.stand);
    add(mirrored, Way::Moved);
    if (texts.size() == 1) {
        add(flipped, Way::Moved);
        add(both, Way::Moved);
    }
    // All of them in one block: right, left, above, below, and at the corners between.
    for (const auto& [stand, side] : std::array<std::pair<Stand, double>, 8>{{{Stand::InLine, 1},
                                                                              {Stand::InLine, 0},
                                                                              {Stand::Above, 0.5},
                                                                              {Stand::Below, 0.5},
                                                                              {Stand::Above, 1},
                                                                              {Stand::Below, 1},
                                                                              {Stand::Above, 0},
                                                                              {Stand::Below, 0}}}) {
        auto all = texts;
        for (TextLine& t : all) {
            t.stand = stand;
            t.along = side;
        }
        add(std::move(all), Way::Moved);
    }
    if (leaders) {
        std::vector<double> turns;
        for (const int eighth : {-1, -3, 1, 3, 0, 4, -2, 2}) turns.push_back(eighth * pi / 4);
        addLeaders(out, at, radius, texts, turns);
    }
    return out;
}

PlacedText placesOn(const std::vector<Vec2>& line, double width, double height) {
    PlacedText out;
    const double length = lengthOf(line);
    if (line.size() < 2 || length < width) return out;
    for (const double share : {0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8}) {
        const OnLine on = alongLine(line, share);
        double turn = on.turn;
        if (turn > pi / 2 + 1e-9) turn -= pi;
        if (turn <= -pi / 2 + 1e-9) turn += pi;
        Candidate c;
        c.way = static_cast<std::uint8_t>(share == 0.5 ? Way::AsStyled : Way::Moved);
        c.boxes.push_back({on.place, width, height, turn, true});
        out.candidates.push_back(std::move(c));
    }
    return out;
}

PlacedText placeByHand(Vec2 about, Vec2 middle, const std::vector<TextLine>& texts) {
    PlacedText out;
    out.stays = true;
    const Extent size = blockSize(texts);
    Candidate c;
    c.way = static_cast<std::uint8_t>(Way::Moved);
    c.boxes = block(middle, texts);
    const Vec2 foot = rimTowards(middle, size, about);
    const double line = texts.empty() ? 1 : texts.front().height;
    if (geometry::distance(foot, about) > line) c.leader = Leader{about, foot};
    out.candidates.push_back(std::move(c));
    return out;
}

Dragged draggedTo(const std::vector<Vec2>& line, Vec2 at, double radius, const TextLine& text, Vec2 place,
                  double perMillimetre) {
    Dragged out;
    double across = place.y - at.y;
    double edge = radius;
    const double snap = 0.08;
    if (line.size() >= 2) {
        edge = 0;
        // The nearest place on the line, and how far the text lies to its side.
        const double length = lengthOf(line);
        double best = INFINITY;
        double before = 0;
        double middle = 0;
        for (std::size_t i = 1; i < line.size(); ++i) {
            const Vec2 side = line[i] - line[i - 1];
            const double size = geometry::length(side);
            const double t =
                size > 0 ? std::clamp(geometry::dot(place - line[i - 1], side) / (size * size), 0.0, 1.0) : 0;
            const Vec2 foot = line[i - 1] + side * t;
            if (const double far = geometry::distance(foot, place); far < best) {
                best = far;
                middle = before + t * size;
                across = turnedBy(place - foot, -std::atan2(side.y, side.x)).y;
            }
            before += size;
        }
        const double room = length - text.width;
        out.along = room > 0 ? std::clamp((middle - text.width / 2) / room, 0.0, 1.0) : 0.5;
    } else {
        out.along = std::clamp(0.5 + (place.x - at.x) / std::max(text.width + 2 * radius, 1e-9), 0.0, 1.0);
    }
    for (const double share : {0.0, 0.5, 1.0})
        if (std::abs(out.along - share) < snap) out.along = share;
    if (std::abs(across) < text.height * 0.4 + edge * 0.5) {
        out.stand = Stand::InLine;
        out.gap = 1;
        return out;
    }
    out.stand = across < 0 ? Stand::Above : Stand::Below;
    const double gap = (std::abs(across) - text.height / 2 - edge) / perMillimetre;
    // In quarters of a millimetre: a hand is no finer.
    out.gap = std::clamp(std::round(gap * 4) / 4, 0.0, 100.0);
    return out;
}

}  // namespace erdwerk::annotate
