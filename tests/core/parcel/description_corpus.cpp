#include "core/parcel/description_corpus.h"

#include <array>
#include <cmath>
#include <functional>
#include <numbers>

namespace erdwerk::parcel {

namespace {

std::string fixed(double value, int decimals) {
    char text[64];
    std::snprintf(text, sizeof text, "%.*f", decimals, value);
    return text;
}

/// Whole seconds of an angle in degrees as parts.
struct Parts {
    long degrees, minutes, seconds;
    explicit Parts(double angle) {
        const long all = std::lround(angle * 3600);
        degrees = all / 3600;
        minutes = all / 60 % 60;
        seconds = all % 60;
    }
};

std::string two(long n) {
    return (n < 10 ? "0" : "") + std::to_string(n);
}

std::string inWords(long n) {
    static const std::array small{"zero",    "one",     "two",       "three",    "four",
                                  "five",    "six",     "seven",     "eight",    "nine",
                                  "ten",     "eleven",  "twelve",    "thirteen", "fourteen",
                                  "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"};
    static const std::array tens{"",      "",      "twenty",  "thirty", "forty",
                                 "fifty", "sixty", "seventy", "eighty", "ninety"};
    if (n >= 1000) return inWords(n / 1000) + " thousand" + (n % 1000 ? " " + inWords(n % 1000) : "");
    if (n >= 100) return inWords(n / 100) + " hundred" + (n % 100 ? " " + inWords(n % 100) : "");
    if (n >= 20)
        return std::string(tens[static_cast<std::size_t>(n / 10)]) + (n % 10 ? "-" + inWords(n % 10) : "");
    return small[static_cast<std::size_t>(n)];
}

/// How a wording writes figures.
struct Style {
    std::string unit = "ft";
    int decimals = 2;
    std::function<std::string(double)> length;
    std::function<std::string(double)> angle;
    std::function<std::string(double)> direction;
};

std::string marked(double angle, const std::string& d, const std::string& m, const std::string& s,
                   bool zeros) {
    const Parts p(angle);
    return std::to_string(p.degrees) + d + (zeros ? two(p.minutes) : std::to_string(p.minutes)) + m +
           (zeros ? two(p.seconds) : std::to_string(p.seconds)) + s;
}

std::string quadrant(double azimuth, const std::function<std::string(double)>& angle,
                     const std::string& north, const std::string& south, const std::string& east,
                     const std::string& west, const std::string& space) {
    double a = std::fmod(azimuth + 360, 360);
    const bool s = a > 90 && a < 270;
    const bool w = a > 180;
    a = s ? std::abs(180 - a) : (w ? 360 - a : a);
    return (s ? south : north) + space + angle(a) + space + (w ? west : east);
}

Style styleOf(int wording) {
    Style out;
    const auto signs = [](double a) { return marked(a, "°", "'", "\"", true); };
    const auto feet = [](double v) { return fixed(v, 2) + " feet"; };
    const auto metres = [](double v) { return fixed(v, 2) + " metres"; };
    out.length = feet;
    out.angle = signs;
    out.direction = [signs](double a) { return quadrant(a, signs, "North", "South", "East", "West", " "); };
    const auto letters = [](const std::function<std::string(double)>& angle, const std::string& space) {
        return [=](double a) { return quadrant(a, angle, "N", "S", "E", "W", space); };
    };
    switch (wording) {
        case 0:
            out.unit = "m";
            out.length = metres;
            out.direction = letters(signs, " ");
            break;
        case 2: {
            // As a word processor writes them.
            const auto curly = [](double a) { return marked(a, "º ", "\u2019 ", "\u201D", false); };
            out.angle = curly;
            out.direction = letters(curly, " ");
            break;
        }
        case 3:
            out.unit = "m";
            out.length = [](double v) { return fixed(v, 3) + " m"; };
            out.decimals = 3;
            out.direction = letters(signs, " ");
            break;
        case 4:
            out.length = [](double v) { return fixed(v, 2) + "'"; };
            out.direction = letters(signs, "");
            break;
        case 5:
            out.unit = "m";
            out.length = metres;
            out.direction = [signs](double a) { return "azimuth of " + signs(a); };
            break;
        case 6: {
            out.unit = "m";
            out.decimals = 3;
            out.length = [](double v) { return fixed(v, 3) + " m"; };
            const auto gon = [](double a) { return fixed(a / 0.9, 4) + " gon"; };
            out.angle = gon;
            out.direction = [gon](double a) { return "azimuth " + gon(a); };
            break;
        }
        case 7: {
            out.unit = "chain";
            out.length = [](double v) {
                const long links = std::lround(v * 1000);
                return std::to_string(links / 1000) + " chains " +
                       fixed(static_cast<double>(links % 1000) / 10, 1) + " links";
            };
            out.decimals = 3;
            const auto words = [](double a) {
                return marked(a, " degrees ", " minutes ", " seconds", false);
            };
            out.angle = words;
            out.direction = [words](double a) {
                return quadrant(a, words, "North", "South", "East", "West", " ");
            };
            break;
        }
        case 8: {
            const auto words = [](double a) {
                const Parts p(a);
                return inWords(p.degrees) + " degrees, " + inWords(p.minutes) + " minutes and " +
                       inWords(p.seconds) + " seconds";
            };
            out.length = [](double v) {
                const long hundredths = std::lround(v * 100);
                return inWords(hundredths / 100) + " and " + two(hundredths % 100) + "/100 (" + fixed(v, 2) +
                       ") feet";
            };
            out.angle = words;
            out.direction = [words](double a) {
                return quadrant(a, words, "North", "South", "East", "West", " ");
            };
            break;
        }
        case 9: {
            const auto dashes = [](double a) { return marked(a, "-", "-", "", true); };
            out.length = [](double v) { return fixed(v, 2) + " ft."; };
            out.angle = signs;
            out.direction = letters(dashes, " ");
            break;
        }
        case 11:
            out.unit = "m";
            out.length = [](double v) { return fixed(v, 2) + " m"; };
            out.direction = letters(signs, " ");
            break;
        default:
            break;
    }
    return out;
}

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

/// The courses as the text calls them, one word each.
struct Sayings {
    std::string direction, length, radius, delta, arc, start;
    bool right = false, tangent = false, curve = false;
    double azimuth = 0;
    double startAzimuth = 0;
};

struct Wording {
    std::string opening, closing;
    std::function<std::string(const Sayings&, std::size_t, std::size_t)> call;
};

std::string side(const Sayings& s) {
    return s.right ? "right" : "left";
}
std::string tangency(const Sayings& s) {
    return s.tangent ? "tangent" : "non-tangent";
}
std::string rose(double azimuth) {
    static const std::array names{"north", "northeast", "east", "southeast",
                                  "south", "southwest", "west", "northwest"};
    return names[static_cast<std::size_t>(std::lround(std::fmod(azimuth + 360, 360) / 45)) % 8];
}

std::string fullCurve(const Sayings& s) {
    return "along a " + tangency(s) + " curve to the " + side(s) + ", having a radius of " + s.radius +
           " and a central angle of " + s.delta + ", the chord of which bears " + s.direction +
           " and measures " + s.length + ", an arc length of " + s.arc;
}

std::string foundCorner(std::size_t i) {
    static const std::array things{
        " to a 5/8 inch iron rod", " to the northwest corner of Lot 12",
        " to a stone, from which an oak 14 inches in diameter bears North 20° East, 12 feet",
        " to a brass cap in a 20.00 foot wide lane", ""};
    return things[i % things.size()];
}

Wording wordingOf(int wording, std::size_t n) {
    const std::string count = std::to_string(n);
    const std::string list =
        "the following " + inWords(static_cast<long>(n)) + " (" + count + ") courses and distances: ";
    switch (wording) {
        case 0:
            return {
                "Plot Q-4: a parcel of land, described as follows.\n\nBeginning at the stone (E 48010.12 m, "
                "N "
                "91020.33 m), the point of beginning",
                ", to the point of beginning.\n\nContaining AREA, more or less.\n",
                [](const Sayings& s, std::size_t, std::size_t) {
                    return ";\nthence " +
                           (s.curve ? fullCurve(s) : s.direction + ", a distance of " + s.length);
                }};
        case 1:
            return {
                "COMMENCING at the southeast corner of Section 14; thence North 10°00'00\" West, along the "
                "east line of said section, 250.00 feet to the TRUE POINT OF BEGINNING",
                " to the TRUE POINT OF BEGINNING. Containing AREA, more or less.",
                [](const Sayings& s, std::size_t i, std::size_t) {
                    if (!s.curve)
                        return "; thence " + s.direction + ", a distance of " + s.length + "," +
                               foundCorner(i);
                    return "; thence along the arc of a curve to the " + side(s) + ", " +
                           (s.tangent ? "tangent to the last course" : "not tangent to the last course") +
                           ", a distance of " + s.arc + ", said curve having a radius of " + s.radius +
                           ", a central angle of " + s.delta + " and a chord bearing " + s.direction +
                           " for " + s.length + "," + foundCorner(i);
                }};
        case 2:
            return {"Beginning at a point on the northerly line of Starling Lane, being Lot 7 of Block 3; " +
                        list,
                    " to the Point of Beginning, containing AREA.",
                    [](const Sayings& s, std::size_t i, std::size_t) {
                        const std::string mark = (i > 0 ? "; (" : "(") + std::to_string(i + 1) + ") ";
                        return mark + (s.curve ? fullCurve(s) : s.direction + ", " + s.length) +
                               foundCorner(i);
                    }};
        case 3:
            return {"The plot is bounded as follows, beginning at a stone:\n", "\n\nArea: AREA\n",
                    [](const Sayings& s, std::size_t i, std::size_t) {
                        return std::to_string(i + 1) + ". " +
                               (s.curve ? "Along a " + tangency(s) + " curve to the " + side(s) +
                                              " of radius " + s.radius + ", delta " + s.delta + ", arc " +
                                              s.arc + ", chord " + s.direction + ", " + s.length
                                        : s.direction + " for " + s.length) +
                               "\n";
                    }};
        case 4:
            return {"POB at iron pin. ", " to POB. AREA±.", [](const Sayings& s, std::size_t, std::size_t) {
                        return "Thence " +
                               (s.curve ? "on a " + tangency(s) + " curve " + side(s) + ", R=" + s.radius +
                                              ", Δ=" + s.delta + ", L=" + s.arc + ", CB=" + s.direction +
                                              ", C=" + s.length
                                        : s.direction + " " + s.length) +
                               ". ";
                    }};
        case 5:
            return {
                "Commencing at trig pillar 6, thence on an azimuth of 12°00'00\" for 88.00 metres to the "
                "point of "
                "beginning; ",
                "to the point of beginning. The area is AREA.",
                [](const Sayings& s, std::size_t i, std::size_t) {
                    return "thence " +
                           (s.curve ? "along a curve to the " + side(s) + ", " + tangency(s) +
                                          ", with radius " + s.radius + ", central angle " + s.delta +
                                          " and arc " + s.arc + "; chord " + s.direction + ", " + s.length
                                    : "on an " + s.direction + " for " + s.length) +
                           foundCorner(i) + "; ";
                }};
        case 6:
            return {"Boundary of the plot, from boundary mark 1: ", ". AREA in all.",
                    [](const Sayings& s, std::size_t i, std::size_t) {
                        return std::string(i > 0 ? "; " : "") + "thence " +
                               (s.curve
                                    ? "curving to the " + side(s) + ", " + tangency(s) + ", a radius of " +
                                          s.radius + " for an arc of " + s.arc + " (delta " + s.delta +
                                          ", chord " + s.direction + ", " + s.length + ")"
                                    : s.direction + ", " + s.length);
                    }};
        case 7:
            return {"Beginning at a heap of stones on the moor, ",
                    " to the place of beginning, containing AREA.",
                    [](const Sayings& s, std::size_t i, std::size_t) {
                        return std::string(i > 0 ? ", " : "") + "thence " +
                               (s.curve ? "by a " + tangency(s) + " curve to the " + side(s) +
                                              " with a radius of " + s.radius + " through an angle of " +
                                              s.delta + ", an arc of " + s.arc + ", its chord being " +
                                              s.direction + " " + s.length
                                        : s.direction + " " + s.length + " to a stone");
                    }};
        case 8:
            return {"BEGINNING at an iron rod; ", " to the PLACE OF BEGINNING and containing AREA of land.",
                    [](const Sayings& s, std::size_t i, std::size_t) {
                        return "thence " +
                               (s.curve ? fullCurve(s) : s.direction + ", a distance of " + s.length) +
                               foundCorner(i == 2 ? 0 : i) + "; ";
                    }};
        case 9:
            return {"Beginning at a nail and running ", " to the point of beginning; containing AREA.",
                    [](const Sayings& s, std::size_t i, std::size_t) {
                        return std::string(i > 0 ? ", then " : "") +
                               (s.curve ? "along a " + tangency(s) + " curve to the " + side(s) +
                                              ", radius " + s.radius + ", delta " + s.delta + ", arc " +
                                              s.arc + ", chord " + s.direction + " " + s.length
                                        : s.direction + " " + s.length);
                    }};
        case 10:
            return {
                "Commencing at the centre of Dome Terrace; thence South 5°00'00\" West, 61.50 feet to a "
                "nail, the "
                "POINT OF BEGINNING",
                " to the point of beginning. Contains AREA, more or less.",
                [](const Sayings& s, std::size_t, std::size_t) {
                    if (!s.curve) return "; thence " + s.direction + " " + s.length;
                    const std::string concave = rose(s.startAzimuth + (s.right ? 90 : -90));
                    const std::string radial =
                        s.tangent ? ""
                                  : ", to which beginning a radial line bears " +
                                        styleOf(10).direction(s.startAzimuth + (s.right ? -90 : 90));
                    return " to the beginning of a " + tangency(s) + " curve, concave " + concave +
                           "erly, having a radius of " + s.radius + radial +
                           "; thence along said curve, to the " + side(s) + ", through a central angle of " +
                           s.delta + ", an arc distance of " + s.arc;
                }};
        default:
            return {"Begin at a stone, ", ", back to the stone. AREA.",
                    [](const Sayings& s, std::size_t i, std::size_t) {
                        return std::string(i > 0 ? ", " : "") +
                               (s.curve
                                    ? "along a " + tangency(s) + " curve to the " + side(s) + " with a " +
                                          s.radius + " radius, " + s.arc + " along the arc, central angle " +
                                          s.delta + ", chord " + s.direction + " " + s.length
                                    : s.direction + ", " + s.length + " along the ditch");
                    }};
    }
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

MadeUp madeUp(int wording, Plant plant, std::mt19937& random) {
    const Style style = styleOf(wording);
    MadeUp out;
    out.unit = style.unit;
    Path path = madeUpFigure(random, style.unit == "chain" ? 6 : 110);
    if (random() % 2 == 0) path = geometry::reversed(path);
    // Begins on a straight: wording 11 leads to its curves from the course before.
    std::size_t begin = 0;
    while (path[begin].through) ++begin;
    out.figure = survey(path, begin);
    const auto& courses = out.figure.courses;
    const std::size_t n = courses.size();

    std::vector<Sayings> said;
    for (const Course& c : courses) {
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
    const auto pick = [&](bool curve) {
        std::size_t i = 1 + random() % (n - 2);
        while (said[i].curve != curve) i = 1 + i % (n - 2);
        return i;
    };
    std::string area = areaWords(out.figure.area, style.unit);
    std::size_t at = 0;
    bool twice = false;
    bool leftOut = false;
    const double off = style.unit == "chain" ? 0.31 : 3.1;
    out.planted = true;
    switch (plant) {
        case Plant::None:
            out.planted = false;
            break;
        case Plant::Bearing:
            at = pick(false);
            out.words = style.direction(said[at].azimuth + 9);
            said[at].direction = out.words;
            break;
        case Plant::Distance: {
            at = pick(false);
            const auto read = [](const std::string& s) { return std::stod(s); };
            std::string other = style.unit != "chain" && wording != 8
                                    ? swapped(said[at].length, courses[at].distance, read, 0.05)
                                    : std::string();
            if (other.empty()) other = style.length(courses[at].distance + off);
            out.words = said[at].length = other;
            break;
        }
        case Plant::LeftOut:
            at = pick(false);
            leftOut = true;
            // A curve in this wording is begun by the course before it.
            out.planted = wording != 10 || !said[at + 1 < n ? at + 1 : 0].curve;
            break;
        case Plant::Twice:
            at = pick(false);
            twice = true;
            out.planted = wording != 10 || !said[at + 1 < n ? at + 1 : 0].curve;
            break;
        case Plant::Side:
            at = pick(true);
            said[at].right = !said[at].right;
            out.words = side(said[at]);
            break;
        case Plant::Radius:
            at = pick(true);
            out.words = said[at].radius = style.length(courses[at].radius + off);
            break;
        case Plant::ArcLength:
            at = pick(true);
            out.words = said[at].arc = style.length(courses[at].arcLength + off);
            break;
        case Plant::Tangent:
            at = pick(true);
            said[at].tangent = !said[at].tangent;
            out.words = "tangent";
            break;
        case Plant::Area:
            area = areaWords(out.figure.area * 1.09, style.unit);
            out.words = area;
            break;
        case Plant::HalfBearing:
            at = pick(false);
            // Without its last letter; azimuths have none to lose.
            out.planted = wording != 5 && wording != 6;
            if (out.planted) {
                std::string& d = said[at].direction;
                const std::size_t last = d.ends_with("East") || d.ends_with("West") ? 4 : 1;
                d.erase(d.size() - last);
                while (d.ends_with(" ")) d.pop_back();
                out.words = d;
            }
            break;
        case Plant::Smudged:
            at = pick(false);
            out.planted = wording != 7 && wording != 8;
            if (out.planted) {
                std::string& l = said[at].length;
                const auto point = l.find('.');
                l[point + 2] = 'O';
                out.words = l.substr(0, point + 3);
            }
            break;
    }
    if (!out.planted) {
        // No room for this one here: as it was.
        leftOut = twice = false;
    }
    out.course = plant == Plant::Area || !out.planted ? 0 : at + 1;

    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < n; ++i) {
        if (leftOut && i == at) continue;
        order.push_back(i);
        if (twice && i == at) order.push_back(i);
    }
    const Wording words = wordingOf(wording, order.size());
    out.text = words.opening;
    for (std::size_t i = 0; i < order.size(); ++i) out.text += words.call(said[order[i]], i, order.size());
    std::string closing = words.closing;
    closing.replace(closing.find("AREA"), 4, area);
    out.text += closing;
    return out;
}

}  // namespace erdwerk::parcel
