#include "core/parcel/description_corpus.h"

#include <cmath>
#include <functional>
#include <numbers>

#include "core/parcel/description_wordings.h"

namespace erdwerk::parcel {

namespace {

std::string swapped(std::string figure, double original,
                    const std::function<double(const std::string&)>& read, double least) {
    // The first two neighbouring digits whose swap makes another figure that is still one.
    for (std::size_t i = 0; i + 1 < figure.size(); ++i) {
        if (!std::isdigit(static_cast<unsigned char>(figure[i])) ||
            !std::isdigit(static_cast<unsigned char>(figure[i + 1])) || figure[i] == figure[i + 1])
            continue;
        std::string out = figure;
        std::swap(out[i], out[i + 1]);
        if (std::abs(read(out) - original) > least) return out;
    }
    return {};
}

std::string areaWords(double area, const std::string& unit) {
    if (unit == "m") return fixed(area, 1) + " square metres";
    if (unit == "ft") return fixed(area, 0) + " square feet";
    return fixed(area / 10, 3) + " acres";
}

}  // namespace

Path madeUpFigure(std::mt19937& random, double size) {
    const auto between = [&](double a, double b) {
        return std::uniform_real_distribution<double>(a, b)(random);
    };
    const int corners = std::uniform_int_distribution<int>(5, 8)(random);
    std::vector<Vec2> ring;
    const double first = between(0, 360);
    for (int i = 0; i < corners; ++i) {
        const double a = (first + 360.0 * (i + between(-0.2, 0.2)) / corners) * std::numbers::pi / 180;
        const double r = size * between(0.8, 1.2);
        ring.push_back({r * std::sin(a), r * std::cos(a)});
    }
    Path path;
    std::vector<geometry::Segment> arcs;
    // A corner is rounded by a tangent arc, or cut by one that is not.
    std::vector<Vec2> in(ring.size());
    std::vector<Vec2> out(ring.size());
    std::vector<std::optional<Vec2>> through(ring.size());
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 before = ring[(i + ring.size() - 1) % ring.size()];
        const Vec2 after = ring[(i + 1) % ring.size()];
        in[i] = out[i] = ring[i];
        if (i % 2 == 1 || i > 4) continue;
        const double cut =
            0.25 * std::min(geometry::distance(before, ring[i]), geometry::distance(ring[i], after));
        const auto towards = [&](Vec2 to) {
            return ring[i] + (to - ring[i]) * (cut / geometry::distance(ring[i], to));
        };
        in[i] = towards(before);
        out[i] = towards(after);
        const auto rounded = geometry::tangentArc(in[i], geometry::azimuth(before, ring[i]), out[i]);
        through[i] = rounded.through;
        if (i == 2) {
            const Vec2 middle = (in[i] + out[i]) * 0.5;
            through[i] = middle + (*rounded.through - middle) * 0.4;
        }
    }
    for (std::size_t i = 0; i < ring.size(); ++i) {
        if (through[i]) path.push_back({in[i], out[i], through[i]});
        path.push_back({out[i], in[(i + 1) % ring.size()], std::nullopt});
    }
    return path;
}

namespace {

/// The courses of a figure as they will be called, with a mistake planted in them.
struct Planter {
    const Style& style;
    int wording;
    std::mt19937& random;
    MadeUp& out;
    std::vector<Sayings> said;
    std::string area;
    std::size_t at = 0;
    bool twice = false;
    bool leftOut = false;

    void say() {
        for (const Course& c : out.figure.courses) {
            Sayings s;
            s.curve = c.isCurve;
            s.azimuth = c.azimuth.degrees();
            s.startAzimuth = s.azimuth - (c.right ? 0.5 : -0.5) * c.delta.degrees();
            s.direction = style.direction(s.azimuth);
            s.length = style.length(c.distance);
            s.right = c.right;
            s.tangent = c.tangent;
            if (c.isCurve) {
                s.radius = style.length(c.radius);
                s.delta = style.angle(c.delta.degrees());
                s.arc = style.length(c.arcLength);
            }
            said.push_back(s);
        }
        area = areaWords(out.figure.area, style.unit);
    }
    Sayings& pick(bool curve) {
        const std::size_t n = said.size();
        at = 1 + random() % (n - 2);
        while (said[at].curve != curve) at = 1 + at % (n - 2);
        return said[at];
    }
    [[nodiscard]] const Course& course() const { return out.figure.courses[at]; }
    [[nodiscard]] double off() const { return style.unit == "chain" ? 0.31 : 3.1; }

    void wrongDistance() {
        Sayings& s = pick(false);
        const auto read = [](const std::string& text) { return std::stod(text); };
        std::string other = style.unit != "chain" && wording != 8
                                ? swapped(s.length, course().distance, read, 0.05)
                                : std::string();
        if (other.empty()) other = style.length(course().distance + off());
        out.words = s.length = other;
    }
    /// One too few or too many. In one wording a curve is begun by the course before it.
    void another(bool& what) {
        pick(false);
        const std::size_t next = (at + 1) % said.size();
        out.planted = wording != 10 || !said[next].curve;
        what = out.planted;
    }
    /// Without its last letter; azimuths have none to lose.
    void halve() {
        out.planted = wording != 5 && wording != 6;
        if (!out.planted) return;
        std::string& d = pick(false).direction;
        d.erase(d.size() - (d.ends_with("East") || d.ends_with("West") ? 4 : 1));
        while (d.ends_with(" ")) d.pop_back();
        out.words = d;
    }
    void smudge() {
        out.planted = wording != 7 && wording != 8;
        if (!out.planted) return;
        std::string& l = pick(false).length;
        const auto point = l.find('.');
        l[point + 2] = 'O';
        out.words = l.substr(0, point + 3);
    }
    void curve(Plant what) {
        Sayings& s = pick(true);
        if (what == Plant::Side) {
            s.right = !s.right;
            out.words = side(s);
        } else if (what == Plant::Radius) {
            out.words = s.radius = style.length(course().radius + off());
        } else if (what == Plant::ArcLength) {
            out.words = s.arc = style.length(course().arcLength + off());
        } else {
            s.tangent = !s.tangent;
            out.words = "tangent";
        }
    }
    void plant(Plant what) {
        out.planted = true;
        switch (what) {
            case Plant::None:
                out.planted = false;
                return;
            case Plant::Bearing: {
                Sayings& s = pick(false);
                out.words = s.direction = style.direction(s.azimuth + 9);
                break;
            }
            case Plant::Distance:
                wrongDistance();
                break;
            case Plant::LeftOut:
                another(leftOut);
                break;
            case Plant::Twice:
                another(twice);
                break;
            case Plant::Area:
                out.words = area = areaWords(out.figure.area * 1.09, style.unit);
                return;
            case Plant::HalfBearing:
                halve();
                break;
            case Plant::Smudged:
                smudge();
                break;
            default:
                curve(what);
        }
        out.course = out.planted ? at + 1 : 0;
    }
};

}  // namespace

MadeUp madeUp(int wording, Plant plant, std::mt19937& random) {
    const Style style = styleOf(wording);
    MadeUp out;
    out.unit = style.unit;
    Path path = madeUpFigure(random, style.unit == "chain" ? 6 : 110);
    if (random() % 2 == 0) path = geometry::reversed(path);
    // Begins on a straight: one wording leads to its curves from the course before.
    std::size_t begin = 0;
    while (path[begin].through) ++begin;
    out.figure = survey(path, begin);
    Planter planter{style, wording, random, out, {}, {}};
    planter.say();
    planter.plant(plant);
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < planter.said.size(); ++i) {
        if (planter.leftOut && i == planter.at) continue;
        order.push_back(i);
        if (planter.twice && i == planter.at) order.push_back(i);
    }
    const Wording words = wordingOf(wording, order.size());
    out.text = words.opening;
    for (std::size_t i = 0; i < order.size(); ++i)
        out.text += words.call(planter.said[order[i]], i, order.size());
    std::string closing = words.closing;
    closing.replace(closing.find("AREA"), 4, planter.area);
    out.text += closing;
    return out;
}

}  // namespace erdwerk::parcel
