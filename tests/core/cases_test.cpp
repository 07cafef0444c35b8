// Runs one file of reference cases, see tests/data/cases/README.md.

#include <cstdio>
#include <fstream>
#include <iostream>
#include <sstream>

#include "core/base/notation.h"
#include "core/parcel/parcel.h"
#include "core/route/design.h"
#include "core/route/pis.h"

namespace {

using namespace erdwerk;
using geometry::Path;
using geometry::Vec2;

std::string strip(const std::string& text) {
    return std::string(trimmed(text));
}

std::vector<std::string> split(const std::string& text, char at) {
    std::vector<std::string> out;
    std::istringstream parts(text);
    std::string part;
    while (std::getline(parts, part, at)) out.push_back(strip(part));
    return out;
}

std::vector<double> numbers(const std::string& text) {
    std::vector<double> out;
    std::istringstream words(text);
    for (double v = 0; words >> v;) out.push_back(v);
    return out;
}

std::string joined(std::initializer_list<double> values) {
    std::string out;
    for (const double v : values) out += (out.empty() ? "" : " ") + formatExact(v);
    return out;
}

/// "x y, x y, ~tx ty x y": places, an arc to the last.
Path pathOf(const std::string& text, bool closed) {
    struct Corner {
        Vec2 place;
        std::optional<Vec2> throughTo;
    };
    std::vector<Corner> corners;
    for (const auto& part : split(text, ',')) {
        const bool arc = part.front() == '~';
        const auto v = numbers(arc ? part.substr(1) : part);
        if (arc)
            corners.push_back({{v.at(2), v.at(3)}, Vec2{v.at(0), v.at(1)}});
        else
            corners.push_back({{v.at(0), v.at(1)}, std::nullopt});
    }
    Path path;
    for (std::size_t i = 0; i + 1 < corners.size(); ++i)
        path.push_back({corners[i].place, corners[i + 1].place, corners[i + 1].throughTo});
    if (closed) path.push_back({corners.back().place, corners.front().place, std::nullopt});
    return path;
}

std::string heightEntry(const std::string& input) {
    const auto entry = parseHeightEntry(input);
    if (!entry) return "error";
    if (const auto* h = std::get_if<TypedHeight>(&*entry)) return "height " + formatExact(h->height);
    if (const auto* r = std::get_if<TypedRise>(&*entry)) return "rise " + formatExact(r->rise);
    if (const auto* g = std::get_if<TypedGrade>(&*entry))
        return "grade " + formatExact(g->grade.riseOverRun());
    const auto& s = std::get<TypedSurface>(*entry);
    return "surface " + s.surface + " " + formatExact(s.amount);
}

Angle turned(double degrees) {
    return Angle::degrees(90 + degrees);
}

/// `delta radius stationOfPi`: station of PC and PT, tangent, arc, chord, external distance, middle ordinate.
std::string circular(const std::vector<double>& v) {
    const double far = 10 * v.at(1);
    const Vec2 pi{far, 0};
    const auto path =
        route::pathOf({{{0, 0}}, {pi, v.at(1)}, {pi + geometry::directionOf(turned(v.at(0))) * far}});
    if (!path) return "error";
    const auto line = route::alignmentOn(*path, v.at(2) - far);
    const auto curve = route::intersections(line).at(0);
    const auto& arc = path->at(curve.first);
    const Vec2 middle = pointAt(arc, 0.5);
    return joined({line.keyPoints.at(1).station, line.keyPoints.at(2).station, curve.tangent, lengthOf(arc),
                   geometry::distance(arc.start, arc.end), geometry::distance(pi, middle),
                   geometry::distance(middle, geometry::lerp(arc.start, arc.end, 0.5))});
}

/// `radius delta radius delta stationOfPc` of a compound curve: stations of PCC and PT, and the tangents from
/// where those of the whole curve meet to its PC and its PT.
std::string compound(const std::vector<double>& v) {
    const double t1 = v.at(0) * std::tan(v.at(1) * M_PI / 360);
    const double t2 = v.at(2) * std::tan(v.at(3) * M_PI / 360);
    const Vec2 first{t1 + 1000, 0};
    const Vec2 second = first + geometry::directionOf(turned(v.at(1))) * (t1 + t2);
    const Vec2 last = second + geometry::directionOf(turned(v.at(1) + v.at(3))) * (t2 + 1000);
    const auto path = route::pathOf({{{0, 0}}, {first, v.at(0)}, {second, v.at(2)}, {last}});
    if (!path) return "error";
    const auto line = route::alignmentOn(*path, v.at(4) - 1000);
    const auto& key = line.keyPoints;
    if (key.size() != 5 || key[2].kind != route::PointKind::CurveToCurve) return "error";
    const Vec2 out = geometry::directionOf(key[3].direction);
    const double x = key[3].place.x - out.x * key[3].place.y / out.y;
    return joined(
        {key[2].station, key[3].station, x - key[1].place.x, geometry::distance({x, 0}, key[3].place)});
}

/// `radius spiral delta`: lengths of tangent, arc, and the whole curve, with equal spirals.
std::string spiralled(const std::vector<double>& v) {
    const double far = 10 * v.at(0);
    const Vec2 pi{far, 0};
    const auto path = route::pathOf(
        {{{0, 0}}, {pi, v.at(0), v.at(1), v.at(1)}, {pi + geometry::directionOf(turned(v.at(2))) * far}});
    if (!path) return "error";
    const auto line = route::alignmentOn(*path, 0);
    const auto curve = route::intersections(line).at(0);
    return joined({curve.tangent, lengthOf(path->at(2)), 2 * v.at(1) + lengthOf(path->at(2))});
}

std::vector<route::Pvi> pvisOf(const std::string& text) {
    std::vector<route::Pvi> pvis;
    for (const auto& part : split(text, ',')) {
        const auto v = numbers(part);
        pvis.push_back({v.at(0), v.at(1), v.at(2)});
    }
    return pvis;
}

std::string run(const std::string& operation, const std::string& input) {
    if (operation == "circular") return circular(numbers(input));
    if (operation == "compound") return compound(numbers(input));
    if (operation == "spiralled") return spiralled(numbers(input));
    if (operation == "turning") {
        const auto halves = split(input, '@');
        const auto at =
            route::highLowAt(pvisOf(halves.at(0)), static_cast<std::size_t>(numbers(halves.at(1)).at(0)) - 1);
        return at ? joined({at->station, at->height}) : "error";
    }
    if (operation == "bearing") return formatBearing(Angle::degrees(numbers(input).at(0)));
    if (operation == "height-entry") return heightEntry(input);
    if (operation == "course") {
        const auto place = parsePlaceEntry(input, {});
        if (!place || !std::holds_alternative<TypedCourse>(*place)) return "error";
        const auto& c = std::get<TypedCourse>(*place);
        return joined({c.azimuth.degrees(), c.distance});
    }
    if (operation == "station") {
        const auto v = numbers(input);
        DisplaySettings display;
        display.station = v.at(1) == 3 ? StationStyle::Thousands : StationStyle::Hundreds;
        return formatStation(v.at(0), display);
    }
    if (operation == "area") return formatExact(std::abs(geometry::signedArea(pathOf(input, true))));
    if (operation == "closure") {
        const auto p = parcel::survey(pathOf(input, false));
        return joined({p.closure.distance, p.closure.azimuth ? p.closure.azimuth->degrees() : 0});
    }
    if (operation == "curve") {
        const auto parts = split(input, ',');
        const auto a = numbers(parts.at(0));
        const auto b = numbers(parts.at(1));
        const auto c = numbers(parts.at(2));
        const auto course = parcel::survey({{{a[0], a[1]}, {c[0], c[1]}, Vec2{b[0], b[1]}}}).courses.front();
        if (!course.isCurve) return "error";
        return joined({course.radius, course.delta.degrees(), course.arcLength, course.distance});
    }
    if (operation == "vertical") {
        const auto halves = split(input, '@');
        const auto at = route::designAt(pvisOf(halves.at(0)), numbers(halves.at(1)).at(0));
        return at ? formatExact(at->height) : "error";
    }
    return "unknown operation";
}

/// Word by word; figures within the tolerance.
bool agrees(const std::string& got, const std::string& expected, double tolerance) {
    const auto a = split(got, ' ');
    const auto b = split(expected, ' ');
    if (a.size() != b.size()) return false;
    for (std::size_t i = 0; i < a.size(); ++i) {
        const auto x = parseNumber(a[i]);
        const auto y = parseNumber(b[i]);
        if (x && y ? std::abs(*x - *y) > tolerance : a[i] != b[i]) return false;
    }
    return true;
}

}  // namespace

int main(int argc, char** argv) {
    if (argc != 2) return 2;
    std::ifstream file(argv[1]);
    std::string line;
    int number = 0;
    int run_ = 0;
    int wrong = 0;
    while (std::getline(file, line)) {
        ++number;
        if (strip(line).empty() || line.front() == '#') continue;
        const auto cells = split(line + " ", '|');
        const double tolerance = cells.size() > 3 ? parseNumber(cells[3]).value_or(0) : 0;
        const std::string got = cells.size() < 3 ? "too few cells" : run(cells[0], cells[1]);
        ++run_;
        if (cells.size() >= 3 && agrees(got, cells[2], tolerance)) continue;
        ++wrong;
        std::cout << argv[1] << ":" << number << ": " << cells[0] << " gives '" << got << "', expected '"
                  << (cells.size() > 2 ? cells[2] : "") << "'\n";
    }
    std::cout << run_ << " cases, " << wrong << " wrong\n";
    return wrong > 0 || run_ == 0 ? 1 : 0;
}
